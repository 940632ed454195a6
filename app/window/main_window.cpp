#include "app/window/main_window.hpp"

#include <QApplication>
#include <QBoxLayout>
#include <QCloseEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QLabel>
#include <QMenu>
#include <QMessageBox>
#include <QProgressBar>
#include <QPushButton>
#include <QSettings>
#include <QSplitter>
#include <QStackedWidget>
#include <QToolButton>

#include "app/stages/panes.hpp"
#include "app/window/places.hpp"
#include "core/science/mesh/repair.hpp"
#include "core/science/mesh/stl.hpp"

namespace jig::app {

MainWindow::MainWindow(Shop shop, QString recovery)
    : document_(new Document(std::move(shop), std::move(recovery), this)) {
    setWindowTitle("Jig Shell");
    resize(1280, 800);
    const QSettings settings;
    light_ = settings.value("night", false).toBool() ? Light::night : Light::day;
    wording_.system = settings.value("imperial", false).toBool() ? UnitSystem::imperial : UnitSystem::metric;
    wording_.currency =
        settings.value("currency", QString::fromStdString(wording_.currency)).toString().toStdString();

    auto* whole = new QWidget(this);
    auto* down = new QVBoxLayout(whole);
    down->setContentsMargins(0, 0, 0, 0);
    down->setSpacing(0);
    auto* head = new QWidget(whole);
    down->addWidget(head);
    build_head(head);
    offer_ = new QWidget(whole);
    offer_->setObjectName("offer");
    new QVBoxLayout(offer_);
    offer_->hide();
    down->addWidget(offer_);

    auto* across = new QHBoxLayout();
    across->setSpacing(0);
    down->addLayout(across, 1);
    card_ = new JobCard(whole);
    across->addWidget(card_);
    auto* middle = new QSplitter(Qt::Vertical, whole);
    middle->setHandleWidth(3);
    middle->setChildrenCollapsible(false);
    centre_ = new QStackedWidget(middle);
    stand_ = new Stand(centre_);
    chart_ = new ChartView(centre_);
    centre_->addWidget(stand_);
    centre_->addWidget(chart_);
    routes_ = new RoutesSheet(centre_);
    centre_->addWidget(routes_);
    shell_sheet_ = new ShellSheet(centre_);
    centre_->addWidget(shell_sheet_);
    ribbon_ = new Ribbon(middle);
    middle->addWidget(centre_);
    middle->addWidget(ribbon_);
    middle->setStretchFactor(0, 1);
    middle->setSizes({520, 190});
    across->addWidget(middle, 1);
    slip_ = new Slip(*document_, whole);
    slip_->setFixedWidth(348);
    across->addWidget(slip_);

    auto* foot = new QWidget(whole);
    auto* foot_row = new QHBoxLayout(foot);
    foot_row->setContentsMargins(12, 2, 12, 2);
    message_ = new QLabel(foot);
    message_->setObjectName("message");
    progress_ = new QProgressBar(foot);
    progress_->setFixedWidth(180);
    progress_->setTextVisible(false);
    progress_->setFixedHeight(8);
    progress_->hide();
    stop_ = new QPushButton("Stop", foot);
    stop_->setObjectName("stop");
    stop_->hide();
    foot_row->addWidget(message_, 1);
    foot_row->addWidget(progress_);
    foot_row->addWidget(stop_);
    foot->setFixedHeight(30);
    down->addWidget(foot);
    setCentralWidget(whole);
    quiet_.setSingleShot(true);
    connect(&quiet_, &QTimer::timeout, this, [this] {
        message_->setText("F1 handbook    Ctrl+K find or do    Ctrl+[ and Ctrl+] walk the stages");
    });
    say("");

    build_acts();
    connect(card_, &JobCard::stage_wanted, this, &MainWindow::show_stage);
    connect(ribbon_, &Ribbon::stage_wanted, this, &MainWindow::show_stage);
    connect(stand_, &Stand::cut_dragged, this, &MainWindow::set_cut);
    connect(stand_, &Stand::cut_let_go, document_, &Document::end_drag);
    connect(stand_, &Stand::plane_dragged, this, &MainWindow::set_plane);
    connect(stand_, &Stand::plane_let_go, document_, &Document::end_drag);
    connect(stand_, &Stand::painted, this, &MainWindow::lay_paint);
    connect(stand_, &Stand::apart_changed, this, [this] { show_scene(true); });
    connect(stand_, &Stand::mark_dragged, this, &MainWindow::set_mark);
    connect(stand_, &Stand::mark_let_go, document_, &Document::end_drag);
    connect(slip_, &Slip::act_wanted, this, &MainWindow::act_on);
    connect(slip_, &Slip::word_wanted, this, &MainWindow::show_word);
    connect(routes_, &RoutesSheet::close_wanted, this, &MainWindow::close_sheet);
    connect(shell_sheet_, &ShellSheet::close_wanted, this, &MainWindow::close_sheet);
    connect(shell_sheet_, &ShellSheet::school_wanted, this, [this](School school) {
        auto job = document_->job();
        job.shell = restarted(job.shell, school);
        document_->replace("take a school", std::move(job));
        close_sheet();
    });
    connect(shell_sheet_, &ShellSheet::stack_wanted, this, [this](const std::vector<Layer>& layers) {
        auto job = document_->job();
        job.shell.layers = layers;
        document_->replace("take a stack", std::move(job));
        close_sheet();
    });
    connect(routes_, &RoutesSheet::route_wanted, this, [this](Route route) {
        document_->edit("take a route", patch_of("plug", "route", std::string(file_word(route))));
    });
    connect(document_, &Document::changed, this, &MainWindow::job_changed);
    connect(document_, &Document::evaluated, this, &MainWindow::findings_changed);
    connect(document_, &Document::refused, this, &MainWindow::say);
    connect(document_, &Document::progressed, this, [this](double fraction, const QString& doing) {
        if (!document_->stale() || errand_.away()) return;
        progress_->show();
        progress_->setValue(static_cast<int>(100 * fraction));
        progress_->setToolTip(doing);
    });
    connect(document_, &Document::trial_progressed, this, [this](double fraction, const QString& doing) {
        if (errand_.away() || document_->stale()) return;
        progress_->setVisible(fraction < 1 && stage_ == Stage::back);
        progress_->setValue(static_cast<int>(100 * fraction));
        progress_->setToolTip(doing);
    });
    connect(stop_, &QPushButton::clicked, &errand_, &Errand::stop);
    connect(&errand_, &Errand::progressed, this, [this](double fraction, const QString& doing) {
        progress_->setValue(static_cast<int>(100 * fraction));
        message_->setText(doing);
    });
    connect(&errand_, &Errand::back, this, [this](const QString& message) {
        progress_->hide();
        stop_->hide();
        say(message);
    });
    set_light(light_);
    show_stage(Stage::brief);
}

void MainWindow::build_head(QWidget* head) {
    head->setFixedHeight(40);
    auto* row = new QHBoxLayout(head);
    row->setContentsMargins(12, 4, 12, 4);
    row->setSpacing(10);
    const auto button = [&](const char* name, const QString& text, const QString& tip) {
        auto* b = new QToolButton(head);
        b->setObjectName("word");
        b->setProperty("head", QString(name));
        b->setText(text);
        b->setToolTip(tip);
        b->setFocusPolicy(Qt::StrongFocus);
        return b;
    };
    menu_ = button("job", "Job", "New, open, save, bring in, print, export");
    menu_->setPopupMode(QToolButton::InstantPopup);
    menu_->setStyleSheet("QToolButton::menu-indicator { image: none; }");
    job_name_ = new QLabel(head);
    job_name_->setFont(word_font(11.5, true));
    auto* find = new QPushButton("find or do…", head);
    find->setObjectName("find");
    find->setMinimumWidth(220);
    find->setToolTip("Ctrl+K");
    connect(find, &QPushButton::clicked, this, &MainWindow::open_palette);
    units_ = button("units", "", "Change between metric and imperial units (Ctrl+U)");
    connect(units_, &QToolButton::clicked, this, [this] {
        auto w = wording_;
        w.system = w.system == UnitSystem::metric ? UnitSystem::imperial : UnitSystem::metric;
        set_wording(w);
    });
    auto* night = button("light", "light", "Day and night inks (Ctrl+L)");
    connect(night, &QToolButton::clicked, this,
            [this] { set_light(light_ == Light::day ? Light::night : Light::day); });
    undo_ = button("undo", "Undo", "Ctrl+Z");
    connect(undo_, &QToolButton::clicked, this, [this] { document_->undo(); });
    calls_ = button("calls", "calls", "Walk to the next call");
    connect(calls_, &QToolButton::clicked, this, [this] {
        // The next stage after this one that has a caution or a stop.
        for (std::size_t step = 1; step <= kStages.size(); ++step) {
            const auto stage = static_cast<Stage>((static_cast<std::size_t>(stage_) + step) % kStages.size());
            for (const auto& c : document_->findings().calls) {
                if (c.stage == stage && c.severity != Severity::note) return show_stage(stage);
            }
        }
    });
    row->addWidget(menu_);
    row->addWidget(job_name_);
    row->addStretch(1);
    row->addWidget(find);
    row->addStretch(1);
    row->addWidget(units_);
    row->addWidget(night);
    row->addWidget(undo_);
    row->addWidget(calls_);
}

void MainWindow::do_with_file(const QString& title, const QString& filter, const QString& suffix,
                              const std::function<void(const QString&)>& work) {
    auto path = QFileDialog::getSaveFileName(this, title, QString(), filter);
    if (path.isEmpty()) return;
    if (QFileInfo(path).suffix().isEmpty()) path += suffix;
    work(path);
}

void MainWindow::build_acts() {
    acts_ = {
        {"new", "New job", QKeySequence::New,
         [this] {
             if (may_leave()) {
                 framed_ = false;
                 document_->start(Job{}, {});
             }
         }},
        {"open", "Open a job…", QKeySequence::Open,
         [this] {
             if (!may_leave()) return;
             const auto path = QFileDialog::getOpenFileName(this, "Open a job", QString(),
                                                            "Jig Shell jobs (*.jigshell *.json)");
             if (!path.isEmpty()) open_job(path);
         }},
        {"demo-cello",
         "Open the demo: cello travel case",
         {},
         [this] {
             if (may_leave() && open_job(data_folder() + "/demo/cello-case.json"))
                 document_->start(document_->job(), {});
         }},
        {"demo-whole",
         "Open the demo: cello travel case, whole",
         {},
         [this] {
             if (may_leave() && open_job(data_folder() + "/demo/cello-case-whole.json"))
                 document_->start(document_->job(), {});
         }},
        {"demo-dome",
         "Open the demo: weather-radar dome",
         {},
         [this] {
             if (may_leave() && open_job(data_folder() + "/demo/radar-dome.json"))
                 document_->start(document_->job(), {});
         }},
        {"demo-petal",
         "Open the demo: pavilion roof petal",
         {},
         [this] {
             if (may_leave() && open_job(data_folder() + "/demo/pavilion-petal.json"))
                 document_->start(document_->job(), {});
         }},
        {"save", "Save", QKeySequence::Save,
         [this] {
             if (!document_->path().isEmpty())
                 save_job(document_->path());
             else
                 do_with_file("Save the job", "Jig Shell jobs (*.jigshell)", ".jigshell",
                              [this](const QString& p) { save_job(p); });
         }},
        {"save-as", "Save under another name…", QKeySequence("Ctrl+Shift+S"),
         [this] {
             do_with_file("Save the job", "Jig Shell jobs (*.jigshell)", ".jigshell",
                          [this](const QString& p) { save_job(p); });
         }},
        {"mesh", "Bring in a shape…", QKeySequence("Ctrl+I"),
         [this] {
             const auto path = QFileDialog::getOpenFileName(
                 this, "Bring in a shape", QString(),
                 "Shapes (*.stl *.obj *.ply *.step *.stp *.STL *.OBJ *.PLY *.STEP *.STP)");
             if (!path.isEmpty()) bring_in_mesh(path);
         }},
        {"outline", "Bring in an outline…", QKeySequence("Ctrl+Shift+I"),
         [this] {
             const auto path = QFileDialog::getOpenFileName(this, "Bring in an outline", QString(),
                                                            "Drawings (*.dxf *.svg *.DXF *.SVG)");
             if (!path.isEmpty()) bring_in_outline(path);
         }},
        {"undo", "Undo", QKeySequence::Undo, [this] { document_->undo(); }},
        {"redo", "Redo", QKeySequence("Ctrl+Shift+Z"), [this] { document_->redo(); }},
        {"previous", "The stage before", QKeySequence("Ctrl+["),
         [this] { show_stage(static_cast<Stage>(std::max(0, static_cast<int>(stage_) - 1))); }},
        {"next", "The stage after", QKeySequence("Ctrl+]"),
         [this] {
             show_stage(static_cast<Stage>(
                 std::min(static_cast<int>(kStages.size()) - 1, static_cast<int>(stage_) + 1)));
         }},
        {"units", "Metric or imperial units", QKeySequence("Ctrl+U"), [this] { units_->click(); }},
        {"light", "Day or night inks", QKeySequence("Ctrl+L"),
         [this] { set_light(light_ == Light::day ? Light::night : Light::day); }},
        {"cut", "Turn the cut the other way", QKeySequence("Ctrl+T"),
         [this] {
             auto job = document_->job();
             job.cut.across = job.cut.across == CutAlong::length ? CutAlong::width : CutAlong::length;
             document_->replace("turn the cut", std::move(job));
         }},
        {"routes", "Set the plug's routes side by side", QKeySequence("Ctrl+R"),
         [this] { set_side_by_side(); }},
        {"schools", "Set the schools of laminate side by side", QKeySequence("Ctrl+Shift+R"),
         [this] { set_schools_side_by_side(); }},
        {"seek-stack", "Seek a stack for the shell", {}, [this] { seek_stack(); }},
        {"seek-pitch", "Seek rib pitch and feet by solving the tool", {}, [this] { seek_pitch(); }},
        {"keep-offcuts", "Keep the offcuts of the plug's sheets as stock", {}, [this] { keep_offcuts(); }},
        {"unpaint",
         "Wash all paint off the part",
         {},
         [this] {
             auto job = document_->job();
             job.split.painted.clear();
             document_->replace("wash the paint off", std::move(job));
         }},
        {"library", "Make the shop library your own", {}, [this] { open_library(); }},
        {"currency",
         "Change the currency's sign",
         {},
         [this] {
             static const QStringList signs{"¤", "€", "$", "£", "kr"};
             auto w = wording_;
             w.currency =
                 signs[(signs.indexOf(QString::fromStdString(w.currency)) + 1) % signs.size()].toStdString();
             set_wording(w);
         }},
        {"find", "Find or do", QKeySequence("Ctrl+K"), [this] { open_palette(); }},
        {"handbook", "Handbook page of this stage", QKeySequence::HelpContents, [this] { open_handbook(); }},
        {"quit", "Leave", QKeySequence::Quit, [this] { close(); }}};
    // Files that leave stand in the menu before what changes the view.
    std::vector<Act> out;
    for (const auto& what : exports()) {
        out.push_back(
            {what.key, what.act,
             what.key == std::string("print-a4") ? QKeySequence(QKeySequence::Print) : QKeySequence(),
             [this, &what] {
                 do_with_file(QString(what.act).remove(u'…'), what.filter, what.suffix,
                              [this, &what](const QString& path) { write_out(what, path); });
             }});
    }
    const auto undo = std::find_if(acts_.begin(), acts_.end(),
                                   [](const Act& act) { return act.key == std::string("undo"); });
    acts_.insert(undo, out.begin(), out.end());
    auto* menu = new QMenu(menu_);
    for (const auto& act : acts_) {
        auto* action = new QAction(act.name, this);
        action->setObjectName(QString("act-%1").arg(act.key));
        action->setShortcut(act.keys);
        connect(action, &QAction::triggered, this, act.go);
        addAction(action);
        menu->addAction(action);
    }
    menu_->setMenu(menu);
}

void MainWindow::show_word(const QString& path) {
    for (std::size_t s = 0; s < kStages.size(); ++s) {
        if (!path.startsWith(QString("/%1/").arg(kStages[s].key))) continue;
        const auto stage = static_cast<Stage>(s);
        if (stage != stage_) show_stage(stage);
    }
    slip_->open_word(path);
}

void MainWindow::show_stage(Stage stage) {
    stage_ = stage;
    document_->look_at(stage);
    card_->set_stage(stage);
    slip_->show_stage(stage);
    centre_->setCurrentWidget(has_chart(stage) ? static_cast<QWidget*>(chart_) : stand_);
    show_scene(true);
}

void MainWindow::show_scene(bool frame_again) {
    const auto& job = document_->job();
    const auto& f = document_->findings();
    try {
        if (has_chart(stage_))
            chart_->show_chart(job, f, stage_, ink(light_), wording_);
        else if (f.shape != nullptr ||
                 !framed_)  // a shape that does not work leaves the last good one standing
            stand_->show_scene(scene_of(job, f, stage_, ink(light_), wording_, {stand_->apart(), load_}),
                               frame_again || !framed_);
    } catch (const InputError& e) {
        // A shape that cannot be drawn must not take the window down with the job in it.
        say("The stand shows what was before: " + message_of(e));
    }
    framed_ = framed_ || f.shape != nullptr;
    ribbon_->show_section(section_at_cut(job, f, stage_), wording_);
}

void MainWindow::job_changed() {
    const auto& b = document_->job().brief;
    job_name_->setText(QString("%1 · %2 · %3 pulls%4")
                           .arg(QString::fromStdString(b.job), QString::fromStdString(b.customer))
                           .arg(b.pulls)
                           .arg(document_->unsaved() ? " ·  not saved" : ""));
    setWindowTitle(QString::fromStdString(b.job) + " – Jig Shell");
    const auto name = document_->undo_name();
    undo_->setEnabled(!name.isEmpty());
    undo_->setToolTip(name.isEmpty() ? "Nothing to undo" : "Undo: " + name);
    undo_->setText(name.isEmpty() ? "Undo" : "Undo: " + (name.size() > 22 ? name.left(21) + "…" : name));
    card_->show_job(document_->job(), document_->findings(), document_->looked_at(), document_->stale(),
                    wording_);
}

void MainWindow::findings_changed() {
    if (!errand_.away()) progress_->hide();
    card_->show_job(document_->job(), document_->findings(), document_->looked_at(), document_->stale(),
                    wording_);
    int cautions = 0, stops = 0;
    for (const auto& c : document_->findings().calls) {
        cautions += c.severity == Severity::caution;
        stops += c.severity == Severity::stop;
    }
    calls_->setText(QString("calls  ◢ %1  ▬ %2").arg(cautions).arg(stops));
    show_scene(false);
    // The routes' sheet follows the job while it is open.
    if (centre_->currentWidget() == routes_ && !document_->stale() && !routes_->belongs_to(document_->job()))
        set_side_by_side();
}

void MainWindow::act_on(const QString& act) {
    if (act.startsWith("load-")) {
        for (std::size_t i = 0; i < Words<LoadCase>::all.size(); ++i) {
            const auto word = Words<LoadCase>::all[i].file;
            if (act.mid(5) == QString::fromUtf8(word.data(), static_cast<qsizetype>(word.size())))
                return show_load(static_cast<LoadCase>(i));
        }
        return show_load({});
    }
    if (auto* action = findChild<QAction*>("act-" + act)) action->trigger();
}

void MainWindow::show_load(std::optional<LoadCase> load) {
    if (load_ == load) return;
    load_ = load;
    if (stage_ == Stage::back) show_scene(true);
}

void MainWindow::set_mark(int number, double share) {
    const auto& f = document_->findings();
    if (!f.edge || number < 0) return;
    auto job = document_->job();
    own_fittings(job, f);
    if (number >= static_cast<int>(job.edge.placed.size())) return;
    auto& placed = job.edge.placed[static_cast<std::size_t>(number)];
    placed.at = edge::snapped(f.edge->fitting_line, share, job.edge.bolt_pitch);
    document_->drag("move a fitting", std::move(job));
    show_scene(false);
}

void MainWindow::close_sheet() {
    centre_->setCurrentWidget(has_chart(stage_) ? static_cast<QWidget*>(chart_) : stand_);
}

void MainWindow::set_cut(double at) {
    auto job = document_->job();
    job.cut.at = at;
    document_->drag("drag the cut", std::move(job));
}

void MainWindow::set_plane(double share) {
    const auto& f = document_->findings();
    if (!f.shape) return;
    auto job = document_->job();
    job.split.plane_at = plane_dragged_to(job, f, share);
    document_->drag("drag the split", std::move(job));
    // The plane follows the mouse at once; its pieces follow when they are worked out.
    show_scene(false);
}

void MainWindow::lay_paint(const Brush& brush, const std::vector<Touched>& touches, double reach) {
    auto job = document_->job();
    const auto three = [](const Point& p) { return std::array{p.x(), p.y(), p.z()}; };
    if (stage_ == Stage::shell) {
        auto& zones = job.shell.zones;
        auto zone = std::find_if(zones.begin(), zones.end(),
                                 [](const shell::Zone& z) { return z.kind == ZoneKind::painted; });
        if (zone == zones.end()) {
            zones.push_back(shell::fresh_zone(job.shell, ZoneKind::painted));
            zone = zones.end() - 1;
        }
        for (const auto& touch : touches) {
            if (brush.paint == Paint::show) {
                zone->painted.push_back({three(touch.at), three(touch.facing), reach});
            } else {
                std::erase_if(zone->painted, [&](const shell::Touch& t) {
                    return (t.dab().at - touch.at).norm() < reach + t.reach / 2;
                });
            }
        }
        document_->replace("paint: " + brush.name, std::move(job));
        return;
    }
    for (const auto& touch : touches)
        job.split.painted.push_back(
            {brush.paint, three(touch.at), three(touch.facing), reach, three(brush.toward)});
    document_->replace("paint: " + brush.name, std::move(job));
}

void MainWindow::set_light(Light light) {
    light_ = light;
    QSettings().setValue("night", light == Light::night);
    const auto& k = ink(light);
    qApp->setStyleSheet(style_sheet(k));
    card_->set_ink(k);
    stand_->set_ink(k);
    ribbon_->set_ink(k);
    set_wording(wording_);
}

void MainWindow::set_wording(const Wording& wording) {
    wording_ = wording;
    QSettings().setValue("imperial", wording.system == UnitSystem::imperial);
    QSettings().setValue("currency", QString::fromStdString(wording.currency));
    units_->setText(wording.system == UnitSystem::metric ? "metric" : "imperial");
    slip_->set_look(ink(light_), wording);
    routes_->set_look(ink(light_), wording);
    shell_sheet_->set_look(ink(light_), wording);
    job_changed();
    show_scene(false);
}

void MainWindow::say(const QString& message) {
    message_->setText(message);
    message_->setToolTip(message);
    quiet_.start(message.isEmpty() ? 0 : 12000);
}

void MainWindow::resizeEvent(QResizeEvent* event) {
    QMainWindow::resizeEvent(event);
    // On small windows the section folds to a strip.
    const bool small = width() < 1180;
    ribbon_->setMaximumHeight(small ? 44 : QWIDGETSIZE_MAX);
    ribbon_->setMinimumHeight(small ? 44 : 150);
}

}  // namespace jig::app
