#include "app/window/acts.hpp"

#include <QAction>
#include <QMenu>
#include <QToolButton>

#include "app/window/main_window.hpp"
#include "app/window/places.hpp"
#include "app/window/settings.hpp"
#include "app/window/start.hpp"

namespace jig::app {

const std::vector<OwnKey>& own_keys() {
    static const std::vector<OwnKey> all{
        {"Stand", "arrows", "turn the thing"},
        {"Stand", "+ and −", "nearer and farther"},
        {"Stand", "1 2 3 4", "along the pull, from the front, from the side, the usual view"},
        {"Stand", "Home", "fit it to the room that is free"},
        {"Stand", ", and .", "move the cut back and on"},
        {"Stand", "< and >", "move the split back and on"},
        {"Stand", "N, then [ and ]", "choose a fitting or hose, the next one, and move it along"},
        {"Stand", "{ and }", "move the hose that is chosen across"},
        {"Stand", "B", "take the next brush; the arrows then lead it, with Shift they turn the thing"},
        {"Stand", "Space", "lay paint while it is held; [ and ] make the brush narrower and wider"},
        {"Stand", "Esc", "put the brush away"},
        {"Stand", "?", "this page"},
        {"Section", "arrows", "name a layer, in the order of laying"},
        {"Section", "Enter", "go to where the layer is decided"},
        {"Charts", "Left and Right", "read the values, with Shift in strides; Home and End"},
        {"Charts", "N, then arrows", "choose a corner of a programme, the next one, and draw it elsewhere"},
        {"Charts", "Ctrl+C", "copy the values as text and the chart as a picture"},
        {"Day plan", "Up and Down", "walk the rows; Enter goes to where one is decided"},
        {"Job card", "Up and Down", "walk the stages"},
        {"Job card", "Space", "settle the stage, or open it again"},
        {"Slip", "Enter", "open a word, a call or a figure's reasoning"},
        {"Tables", "Tab", "on to the next cell, and out at the end"},
        {"Tables", "Ctrl+C and Ctrl+V", "copy what is selected as text, paste over the selection"},
        {"Editors", "Esc", "leave without a change; a click away takes what was typed"},
    };
    return all;
}

void MainWindow::build_acts() {
    using Menu = Act::Menu;
    const auto choose_text = [this](double scale) {
        set_text(scale);
        keep_text_scale(text_scale());
    };
    const auto demo = [this](const char* key, const char* name, const char* file) {
        return Act{
            key, QString("Open the demo: %1").arg(name), {}, Menu::job, [this, file] { open_demo(file); }};
    };
    acts_ = {
        {"new",
         "New job",
         {QKeySequence::New},
         Menu::job,
         [this] {
             if (may_leave()) start_job(Job{});
         }},
        {"start", "The start, with its four ways in", {}, Menu::job, [this] { show_start(); }},
        {"open", "Open a job…", {QKeySequence::Open}, Menu::job, [this] { ask_job(); }},
        demo("demo-cello", "cello travel case", "cello-case"),
        demo("demo-whole", "cello travel case, whole", "cello-case-whole"),
        demo("demo-dome", "weather-radar dome", "radar-dome"),
        demo("demo-petal", "pavilion roof petal", "pavilion-petal"),
        {"save", "Save", {QKeySequence::Save}, Menu::job, [this] { save(); }},
        {"save-as",
         "Save under another name…",
         {QKeySequence("Ctrl+Shift+S")},
         Menu::job,
         [this] { save_as(); }},
        {"mesh", "Bring in a shape…", {QKeySequence("Ctrl+I")}, Menu::job, [this] { ask_mesh(); }},
        {"outline",
         "Bring in an outline…",
         {QKeySequence("Ctrl+Shift+I")},
         Menu::job,
         [this] { ask_outline(); }},
        {"library",
         "The shop's library: figures of your own",
         {QKeySequence("Ctrl+Shift+L")},
         Menu::job,
         [this] { open_shop(); }},
        {"keep-offcuts",
         "Keep the offcuts of the plug's sheets as stock",
         {},
         Menu::job,
         [this] { keep_offcuts(); },
         Stage::plug},
        {"quit", "Leave", {QKeySequence::Quit}, Menu::job, [this] { close(); }},
        {"undo", "Undo", {QKeySequence::Undo}, Menu::none, [this] { document_->undo(); }},
        {"redo",
         "Redo",
         {QKeySequence("Ctrl+Shift+Z"), QKeySequence("Ctrl+Y")},
         Menu::none,
         [this] { document_->redo(); }},
        {"previous",
         "The stage before",
         {QKeySequence("Ctrl+PgUp"), QKeySequence("Ctrl+[")},
         Menu::none,
         [this] { walk(-1); }},
        {"next",
         "The stage after",
         {QKeySequence("Ctrl+PgDown"), QKeySequence("Ctrl+]")},
         Menu::none,
         [this] { walk(1); }},
        {"settle",
         "Settle this stage, or open it again",
         {QKeySequence("Ctrl+Return")},
         Menu::none,
         [this] { settle(stage_); }},
        {"calls", "All calls of the job", {QKeySequence("F8")}, Menu::none, [this] { open_calls(); }},
        {"areas",
         "On to the next area of the window",
         {QKeySequence("F6")},
         Menu::none,
         [this] { walk_areas(1); }},
        {"areas-back",
         "Back to the area before",
         {QKeySequence("Shift+F6")},
         Menu::none,
         [this] { walk_areas(-1); }},
        {"unpaint",
         "Wash all paint off the part",
         {},
         Menu::none,
         [this] {
             auto job = document_->job();
             job.split.painted.clear();
             document_->replace("wash the paint off", std::move(job));
         },
         Stage::split},
        {"bias",
         "Turn the part's cloth by 45°, onto the bias",
         {},
         Menu::none,
         [this] { turn_cloth(); },
         Stage::part},
        {"routes",
         "Set the plug's routes side by side",
         {QKeySequence("Ctrl+R")},
         Menu::none,
         [this] { set_side_by_side(); },
         Stage::plug},
        {"schools",
         "Set the schools of laminate side by side",
         {QKeySequence("Ctrl+Shift+R")},
         Menu::none,
         [this] { set_schools_side_by_side(); },
         Stage::shell},
        {"builds",
         "Set the part's builds side by side",
         {QKeySequence("Ctrl+Shift+B")},
         Menu::none,
         [this] { set_builds_side_by_side(); },
         Stage::part},
        {"kit",
         "Lay the part's plies flat on their rolls",
         {QKeySequence("Ctrl+Shift+K")},
         Menu::none,
         [this] { lay_kit(); },
         Stage::part},
        {"seek-cuts",
         "Seek where to cut the part's cloth so that less of it locks",
         {},
         Menu::none,
         [this] { seek_cuts(); },
         Stage::part},
        {"seek-seams",
         "Draw seams along the roll where the part's plies are wider than it",
         {},
         Menu::none,
         [this] { seek_seams(); },
         Stage::part},
        {"keep-build",
         "Keep the part as it is laid now as a build",
         {},
         Menu::none,
         [this] { keep_build(part::build_of(document_->job().part, {})); },
         Stage::part},
        {"seek-stack", "Seek a stack for the shell", {}, Menu::none, [this] { seek_stack(); }, Stage::shell},
        {"seek-pitch",
         "Seek rib pitch and feet by solving the tool",
         {},
         Menu::none,
         [this] { seek_pitch(); },
         Stage::back},
        {"seek-hoses",
         "Set plans of an infusion's hoses side by side",
         {},
         Menu::none,
         [this] { seek_hoses(); },
         Stage::bag},
        {"fit-race",
         "Fit permeability and race along the rim to the marked front",
         {},
         Menu::none,
         [this] { seek_race(); },
         Stage::bag},
        {"keep-measured",
         "Keep what the marked front shows in the shop library",
         {},
         Menu::none,
         [this] { keep_measured(); },
         Stage::bag},
        {"other-infusion",
         "Show the other resin: the part's or the shell's",
         {},
         Menu::none,
         [this] { show_other_infusion(); },
         Stage::bag},
        {"mark-front",
         "Mark the real front at the stand's time",
         {},
         Menu::none,
         [this] { mark_front(); },
         Stage::bag},
        {"heat-tool",
         "Show the tool with its thermocouples in place of Heat's charts, or the charts",
         {QKeySequence("F7")},
         Menu::none,
         [this] {
             if (stage_ != Stage::heat) show_stage(Stage::heat);
             show_heat_tool(!heat_tool_);
         },
         Stage::heat},
        {"show-folds",
         "Show the part's folds and what each closes by",
         {},
         Menu::none,
         [this] { show_folds(); },
         Stage::heat},
        {"keep-oven",
         "Keep this oven and its map for new jobs",
         {},
         Menu::none,
         [this] {
             keep_shop_oven(document_->job());
             say("Kept: new jobs begin with this oven, its heater and its map");
         },
         Stage::heat},
        {"units",
         "Metric or imperial units",
         {QKeySequence("Ctrl+U")},
         Menu::look,
         [this] {
             auto w = wording_;
             w.system = w.system == UnitSystem::metric ? UnitSystem::imperial : UnitSystem::metric;
             set_wording(w);
             keep_wording(w);
         }},
        {"light",
         "Day or night inks",
         {QKeySequence("Ctrl+L")},
         Menu::look,
         [this] {
             set_light(light_ == Light::day ? Light::night : Light::day);
             keep_light(light_);
         }},
        {"currency",
         "Change the currency's sign",
         {},
         Menu::look,
         [this] {
             static const QStringList signs{"¤", "€", "$", "£", "kr"};
             auto w = wording_;
             w.currency =
                 signs[(signs.indexOf(QString::fromStdString(w.currency)) + 1) % signs.size()].toStdString();
             set_wording(w);
             keep_wording(w);
         }},
        {"larger",
         "Larger text",
         {QKeySequence::ZoomIn, QKeySequence("Ctrl+=")},
         Menu::look,
         [choose_text] { choose_text(text_scale() + 0.125); }},
        {"smaller",
         "Smaller text",
         {QKeySequence::ZoomOut},
         Menu::look,
         [choose_text] { choose_text(text_scale() - 0.125); }},
        {"usual",
         "Text of the usual size",
         {QKeySequence("Ctrl+0")},
         Menu::look,
         [choose_text] { choose_text(1); }},
        {"cut",
         "Turn the cut the other way",
         {QKeySequence("Ctrl+T")},
         Menu::look,
         [this] {
             auto job = document_->job();
             job.cut.across = job.cut.across == CutAlong::length ? CutAlong::width : CutAlong::length;
             document_->replace("turn the cut", std::move(job));
         }},
        {"section", "Open or fold the section", {QKeySequence("F4")}, Menu::look, [this] { fold_section(); }},
        {"whole-screen",
         "The whole screen",
         {QKeySequence("F11")},
         Menu::look,
         [this] { setWindowState(windowState() ^ Qt::WindowFullScreen); }},
        {"handbook",
         "Handbook page of this stage",
         {QKeySequence::HelpContents},
         Menu::look,
         [this] { open_handbook(name_of(stage_).key); }},
        {"keys",
         "Page of all keys",
         {QKeySequence("Shift+F1")},
         Menu::look,
         [this] { open_handbook("keys"); }},
        {"find", "Find or do", {QKeySequence("Ctrl+K")}, Menu::none, [this] { open_palette(); }}};
    for (std::size_t s = 0; s < 9; ++s) {
        const auto stage = static_cast<Stage>(s);
        acts_.push_back({kStages[s].key,
                         QString("Go to %1").arg(kStages[s].said),
                         {QKeySequence(QString("Ctrl+%1").arg(s + 1))},
                         Menu::none,
                         [this, stage] { show_stage(stage); }});
    }
    // Two for each cure of a tool's life; their keys outlive the list.
    static const auto cure_keys = [] {
        std::vector<std::array<std::string, 2>> out;
        for (const auto& w : Words<CureOf>::all)
            out.push_back({"fast-" + std::string(w.file), "flags-" + std::string(w.file)});
        return out;
    }();
    for (std::size_t i = 0; i < cure_keys.size(); ++i) {
        const auto of = static_cast<CureOf>(i);
        const auto name = QString::fromStdString(std::string(jig::said(of)));
        acts_.push_back({cure_keys[i][0].c_str(),
                         "Find the soonest programme: " + name,
                         {},
                         Menu::none,
                         [this, of] { seek_programme(of); },
                         Stage::heat});
        acts_.push_back({cure_keys[i][1].c_str(),
                         "Show where thermocouples go: " + name,
                         {},
                         Menu::none,
                         [this, of] { show_thermocouples(of); },
                         Stage::heat});
    }
    acts_.push_back({"preview",
                     "Print the sheets…",
                     {QKeySequence::Print},
                     Menu::sheets,
                     [this] { open_preview(); },
                     Stage::run,
                     [this] { return sheets_missing(document_->findings()); }});
    for (const auto& what : exports()) {
        acts_.push_back({what.key, what.act, QList<QKeySequence>{}, Menu::sheets,
                         [this, &what] { ask_export(what); }, what.of,
                         [this, &what] { return what.why_not(document_->job(), document_->findings()); }});
    }
    for (const auto& act : acts_) {
        auto* action = new QAction(act.name, this);
        action->setObjectName(QString("act-%1").arg(act.key));
        action->setShortcuts(act.keys);
        connect(action, &QAction::triggered, this, act.go);
        addAction(action);
    }
    build_menu(menu_, Menu::job);
    build_menu(sheets_, Menu::sheets);
    build_menu(look_, Menu::look);
}

void MainWindow::build_menu(QToolButton* under, Act::Menu which) {
    auto* menu = new QMenu(under);
    menu->setToolTipsVisible(true);
    under->setMenu(menu);
    // Sheets are many: each stage has its own leaf.
    std::map<Stage, QMenu*> leaves;
    for (const auto& act : acts_) {
        if (act.menu != which) continue;
        auto* action = findChild<QAction*>(QString("act-%1").arg(act.key));
        auto* into = menu;
        if (which == Act::Menu::sheets && act.of && *act.of != Stage::run) {
            auto& leaf = leaves[*act.of];
            if (leaf == nullptr) {
                leaf = menu->addMenu(name_of(*act.of).said);
                leaf->setToolTipsVisible(true);
            }
            into = leaf;
        }
        into->addAction(action);
        if (act.key == std::string("open")) {
            recent_ = menu->addMenu("Open again");
            recent_->setObjectName("recent");
        }
        for (const char* last : {"start", "demo-petal", "save-as", "outline", "keep-offcuts", "print-letter",
                                 "currency", "usual", "whole-screen"}) {
            if (act.key == std::string(last)) menu->addSeparator();
        }
    }
    connect(menu, &QMenu::aboutToShow, this, [this] { renew_menus(); });
}

void MainWindow::renew_menus() {
    for (const auto& act : acts_) {
        if (!act.why_not) continue;
        const auto why = act.why_not();
        auto* action = findChild<QAction*>(QString("act-%1").arg(act.key));
        action->setEnabled(why.isEmpty());
        action->setText(why.isEmpty() ? act.name : QString("%1   (%2)").arg(act.name, why));
    }
    recent_->clear();
    for (const auto& file : recent_jobs()) {
        auto* action = recent_->addAction(QFileInfo(file).fileName());
        action->setToolTip(file);
        connect(action, &QAction::triggered, this, [this, file] {
            if (may_leave()) open_job(file);
        });
    }
    recent_->setToolTipsVisible(true);
    recent_->setEnabled(!recent_->isEmpty());
}

}  // namespace jig::app
