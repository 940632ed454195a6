#include "app/window/main_window.hpp"

#include <algorithm>
#include <cmath>
#include <QAccessible>
#include <QApplication>
#include <QBoxLayout>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QSettings>
#include <QSplitter>
#include <QStackedWidget>
#include <QToolButton>

#include "app/stages/panes.hpp"
#include "app/window/places.hpp"
#include "app/window/settings.hpp"
#include "app/window/shop_sheet.hpp"

namespace jig::app {
namespace {

/// Every widget there is takes the style anew: only where it differs.
void dress(const Ink& ink) {
    if (const auto style = style_sheet(ink); qApp->styleSheet() != style) qApp->setStyleSheet(style);
}

}  // namespace

MainWindow::MainWindow(Shop shop, QString recovery, std::shared_ptr<JobBoard> board)
    : document_(new Document(std::move(shop), std::move(recovery), this, std::move(board))) {
    setWindowTitle("Jig Shell");
    resize(1280, 800);
    setAcceptDrops(true);
    light_ = kept_light();
    wording_ = kept_wording();
    // What is made dressed need not be dressed again: that takes as long as all the rest.
    set_text_scale(kept_text_scale());
    QApplication::setFont(word_font());
    dress(ink(light_));

    auto* whole = new QWidget(this);
    auto* down = new QVBoxLayout(whole);
    down->setContentsMargins(0, 0, 0, 0);
    down->setSpacing(0);
    head_ = new QWidget(whole);
    down->addWidget(head_);
    build_head(head_);
    offer_ = new Offer(whole);
    down->addWidget(offer_);

    // The bench with a job on it, and the start before there is one.
    whole_ = new QStackedWidget(whole);
    down->addWidget(whole_, 1);
    auto* bench = new QWidget(whole_);
    whole_->addWidget(bench);
    start_ = new StartSheet(document_->shop(), whole_);
    whole_->addWidget(start_);
    auto* across = new QHBoxLayout(bench);
    across->setContentsMargins(0, 0, 0, 0);
    across->setSpacing(0);
    card_ = new JobCard(bench);
    across->addWidget(card_);
    sides_ = new QSplitter(Qt::Horizontal, bench);
    sides_->setObjectName("sides");
    sides_->setHandleWidth(5);
    sides_->setChildrenCollapsible(false);
    across->addWidget(sides_, 1);
    middle_ = new QSplitter(Qt::Vertical, sides_);
    auto* middle = middle_;
    middle->setHandleWidth(3);
    middle->setChildrenCollapsible(false);
    centre_ = new QStackedWidget(middle);
    stand_ = new Stand(centre_);
    drawing_ = new Drawing(this);
    chart_ = new ChartView(centre_);
    centre_->addWidget(stand_);
    centre_->addWidget(chart_);
    routes_ = new RoutesSheet(centre_);
    centre_->addWidget(routes_);
    shell_sheet_ = new ShellSheet(centre_);
    centre_->addWidget(shell_sheet_);
    builds_sheet_ = new BuildsSheet(centre_);
    centre_->addWidget(builds_sheet_);
    kit_sheet_ = new KitSheet(centre_);
    centre_->addWidget(kit_sheet_);
    ribbon_ = new Ribbon(middle);
    // Over the corner of what stands there: the tool's way to come in place of its charts.
    auto* centre = new QWidget(middle);
    auto* over = new QGridLayout(centre);
    over->setContentsMargins(0, 0, 0, 0);
    over->addWidget(centre_, 0, 0);
    swap_ = new QToolButton(centre);
    swap_->setObjectName("swap");
    swap_->setMinimumHeight(24);
    over->addWidget(swap_, 0, 0, Qt::AlignTop | Qt::AlignRight);
    connect(swap_, &QToolButton::clicked, this, [this] { show_heat_tool(!heat_tool_); });
    middle->addWidget(centre);
    middle->addWidget(ribbon_);
    middle->setStretchFactor(0, 1);
    connect(middle, &QSplitter::splitterMoved, this, [this] {
        if (ribbon_->room() == SectionRoom::open) section_height_ = ribbon_->height();
    });
    slip_ = new Slip(*document_, sides_);
    sides_->addWidget(middle);
    sides_->addWidget(slip_);
    sides_->setStretchFactor(0, 1);
    sides_->setStretchFactor(1, 0);

    foot_ = new QWidget(whole);
    auto* foot = foot_;
    auto* foot_row = new QHBoxLayout(foot);
    foot_row->setContentsMargins(12, 2, 12, 2);
    message_ = new QLabel(foot);
    message_->setObjectName("message");
    message_->setAccessibleName("Message");
    message_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
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
    down->addWidget(foot);
    setCentralWidget(whole);
    quiet_.setSingleShot(true);
    connect(&quiet_, &QTimer::timeout, this, [this] {
        message_->setText("F1 handbook    Ctrl+K find or do    Ctrl+PgUp and Ctrl+PgDown walk the stages");
    });
    say("");

    build_acts();
    connect(card_, &JobCard::stage_wanted, this, &MainWindow::show_stage);
    connect(card_, &JobCard::settle_wanted, this, &MainWindow::settle);
    connect(ribbon_, &Ribbon::stage_wanted, this, &MainWindow::show_stage);
    connect(chart_, &ChartView::stage_wanted, this, &MainWindow::show_stage);
    connect(chart_, &ChartView::drawn, this, &MainWindow::draw_programme);
    connect(chart_, &ChartView::dropped, this, &MainWindow::drop_programme);
    connect(ribbon_, &Ribbon::fold_wanted, this, &MainWindow::fold_section);
    connect(drawing_, &Drawing::made, this,
            [this](const std::shared_ptr<Drawing::Made>& drawn) { show_drawn(*drawn); });
    connect(stand_, &Stand::cut_dragged, this, &MainWindow::set_cut);
    connect(stand_, &Stand::cut_let_go, document_, &Document::end_drag);
    connect(stand_, &Stand::plane_dragged, this, &MainWindow::set_plane);
    connect(stand_, &Stand::plane_let_go, document_, &Document::end_drag);
    connect(stand_, &Stand::painted, this, &MainWindow::lay_paint);
    connect(stand_, &Stand::apart_changed, this, [this] { show_scene(true); });
    connect(stand_, &Stand::mark_dragged, this, &MainWindow::set_mark);
    connect(stand_, &Stand::mark_slid, this, &MainWindow::slide_mark);
    connect(stand_, &Stand::mark_let_go, document_, &Document::end_drag);
    connect(slip_, &Slip::act_wanted, this, &MainWindow::act_on);
    connect(slip_, &Slip::word_wanted, this, &MainWindow::show_word);
    connect(slip_, &Slip::place_wanted, this, [this](const QString& key) {
        // Heat's places lie on the part's folds.
        if (stage_ == Stage::heat) show_folds();
        stand_->look_at_flag(key);
    });
    connect(stand_, &Stand::flag_pressed, slip_, &Slip::open_call);
    connect(slip_, &Slip::page_wanted, this, [this] { open_handbook(name_of(stage_).key); });
    connect(offer_, &Offer::take_up_wanted, this, &MainWindow::take_up);
    connect(stand_, &Stand::keys_wanted, this, [this] { open_handbook("keys"); });
    connect(start_, &StartSheet::own_shape_wanted, this, &MainWindow::ask_mesh);
    connect(start_, &StartSheet::drawn_wanted, this, [this] { start_shape(ShapeKind::tray); });
    connect(start_, &StartSheet::copy_wanted, this, [this] { start_shape(ShapeKind::copied); });
    connect(start_, &StartSheet::demo_wanted, this, &MainWindow::open_demo);
    connect(start_, &StartSheet::recent_wanted, this, [this](const QString& file) {
        if (may_leave()) open_job(file);
    });
    connect(start_, &StartSheet::walk_wanted, this, &MainWindow::begin_walk);
    connect(start_, &StartSheet::act_wanted, this, &MainWindow::act_on);
    connect(document_, &Document::stepped, this, [this](const std::vector<Stage>& stages) {
        // A step back is seen where it happens.
        if (!stages.empty() && std::find(stages.begin(), stages.end(), stage_) == stages.end())
            show_stage(stages.front());
    });
    connect(routes_, &RoutesSheet::close_wanted, this, &MainWindow::close_sheet);
    connect(shell_sheet_, &ShellSheet::close_wanted, this, &MainWindow::close_sheet);
    connect(shell_sheet_, &ShellSheet::renew_wanted, this,
            [this](bool stacks) { stacks ? seek_stack() : set_schools_side_by_side(); });
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
    connect(builds_sheet_, &BuildsSheet::close_wanted, this, &MainWindow::close_sheet);
    connect(builds_sheet_, &BuildsSheet::renew_wanted, this, &MainWindow::set_builds_side_by_side);
    connect(builds_sheet_, &BuildsSheet::keep_wanted, this, &MainWindow::keep_build);
    connect(builds_sheet_, &BuildsSheet::build_wanted, this, [this](const part::Build& build) {
        auto job = document_->job();
        job.part = part::made_as(job.part, build);
        document_->replace("take a build", std::move(job));
        close_sheet();
    });
    connect(kit_sheet_, &KitSheet::close_wanted, this, &MainWindow::close_sheet);
    connect(kit_sheet_, &KitSheet::renew_wanted, this, &MainWindow::lay_kit);
    connect(kit_sheet_, &KitSheet::export_wanted, this, [this](const QString& act) {
        if (auto* action = findChild<QAction*>("act-" + act)) action->trigger();
    });
    connect(routes_, &RoutesSheet::route_wanted, this, [this](Route route) {
        document_->edit("take a route", patch_of("plug", "route", std::string(file_word(route))));
    });
    connect(document_, &Document::changed, this, &MainWindow::job_changed);
    connect(document_, &Document::evaluated, this, &MainWindow::findings_changed);
    connect(document_, &Document::glimpsed, this, &MainWindow::glimpse);
    connect(document_, &Document::refused, this, &MainWindow::say);
    connect(document_, &Document::progressed, this, [this](double fraction, const QString& doing) {
        if (!document_->stale() || errand_.away()) return;
        progress_->show();
        show_progress(fraction, doing);
    });
    connect(document_, &Document::trial_progressed, this, [this](double fraction, const QString& doing) {
        if (errand_.away() || document_->stale()) return;
        progress_->setVisible(fraction < 1 && stage_ == Stage::back);
        show_progress(fraction, doing);
    });
    connect(stop_, &QPushButton::clicked, &errand_, &Errand::stop);
    connect(&errand_, &Errand::progressed, this, [this](double fraction, const QString& doing) {
        show_progress(fraction, doing);
        message_->setText(doing);
    });
    connect(&errand_, &Errand::back, this, [this](const QString& message) {
        progress_->hide();
        stop_->hide();
        say(message);
    });
    const QSettings settings;
    restoreGeometry(settings.value("geometry").toByteArray());
    connect(sides_, &QSplitter::splitterMoved, this, [this] {
        QSettings().setValue("slip", slip_->width());
        slip_width_ = slip_->width();
    });
    slip_width_ = settings.value("slip", 0).toInt();
    set_text(text_scale());
    show_stage(Stage::brief);
}

void MainWindow::set_text(double scale) {
    set_text_scale(scale);
    const double now = text_scale();
    QApplication::setFont(word_font());
    head_->setFixedHeight(static_cast<int>(40 * std::max(1.0, now)));
    foot_->setFixedHeight(static_cast<int>(30 * std::max(1.0, now)));
    ribbon_->set_room(ribbon_->room());
    const int usual = static_cast<int>(348 * std::sqrt(now));
    slip_->setMinimumWidth(std::min(320, usual));
    slip_->setMaximumWidth(static_cast<int>(640 * std::max(1.0, std::sqrt(now))));
    const int wide = slip_width_ > 0 ? slip_width_ : usual;
    sides_->setSizes({std::max(200, sides_->width() - wide), wide});
    set_light(light_);
    job_name_->setStyleSheet(QString("font-size: %1pt; font-weight: 600").arg(11.5 * now));
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
    const auto menu = [&](const char* name, const QString& text, const QString& tip) {
        auto* b = button(name, text, tip);
        b->setPopupMode(QToolButton::InstantPopup);
        b->setStyleSheet("QToolButton::menu-indicator { image: none; }");
        return b;
    };
    menu_ = menu("job", "Job", "What is done with the file: new, open, save, bring in");
    sheets_ = menu("sheets", "Sheets", "What is put out: print and exports, by stage");
    look_ = menu("look", "Look", "Units, inks, text size, the cut, the handbook");
    job_name_ = new QLabel(head);
    job_name_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    auto* find = new QPushButton("find or do…", head);
    find->setObjectName("find");
    find->setMinimumWidth(180);
    find->setToolTip("Ctrl+K");
    connect(find, &QPushButton::clicked, this, &MainWindow::open_palette);
    undo_ = button("undo", "Undo", "Ctrl+Z");
    connect(undo_, &QToolButton::clicked, this, [this] { document_->undo(); });
    calls_ = button("calls", "calls", "All calls of the job, worst first (F8)");
    connect(calls_, &QToolButton::clicked, this, &MainWindow::open_calls);
    row->addWidget(menu_);
    row->addWidget(sheets_);
    row->addWidget(look_);
    row->addSpacing(8);
    row->addWidget(job_name_, 3);
    row->addWidget(find, 2);
    row->addSpacing(8);
    row->addWidget(undo_);
    row->addWidget(calls_);
}

void MainWindow::walk(int by) {
    const int last = static_cast<int>(kStages.size()) - 1;
    show_stage(static_cast<Stage>(std::clamp(static_cast<int>(stage_) + by, 0, last)));
}

void MainWindow::settle(Stage stage) {
    const bool now = document_->settled().count(stage) == 0;
    document_->settle(stage, now);
    say(QString("%1 %2.").arg(
        name_of(stage).said,
        now ? "is settled: its tick goes when its choices or figures change" : "is open again"));
}

void MainWindow::walk_areas(int by) {
    const std::vector<QWidget*> areas =
        is_at_start() ? std::vector<QWidget*>{menu_, start_->findChild<QPushButton*>("card")}
                      : std::vector<QWidget*>{menu_, card_, centre_->currentWidget(), ribbon_, slip_};
    const auto* focus = QApplication::focusWidget();
    int now = -1;
    for (std::size_t i = 0; i < areas.size(); ++i) {
        if (focus != nullptr && (areas[i] == focus || areas[i]->isAncestorOf(focus)))
            now = static_cast<int>(i);
    }
    if (now < 0 && focus != nullptr && head_->isAncestorOf(focus)) now = 0;
    for (int step = 1; step <= static_cast<int>(areas.size()); ++step) {
        const int n = static_cast<int>(areas.size());
        auto* area = areas[static_cast<std::size_t>(((now + by * step) % n + n) % n)];
        if (area == nullptr || !area->isVisible()) continue;
        // An area that takes no keys itself hands them to the first in it that does.
        auto* into = area;
        if (area->focusPolicy() == Qt::NoFocus || area == slip_) {
            for (auto* child : area->findChildren<QWidget*>()) {
                if ((child->focusPolicy() & Qt::TabFocus) == 0 || !child->isVisibleTo(area) ||
                    !child->isEnabled())
                    continue;
                into = child;
                break;
            }
        }
        into->setFocus(Qt::TabFocusReason);
        return;
    }
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
    // From the start a stage is gone to on the bench, with the job that lies there or a fresh one.
    if (is_at_start() && document_->job_number() == 0)
        start_job(fresh_job());
    else if (is_at_start())
        show_bench();
    stage_ = stage;
    bag_layer_.reset();
    flow_thickness_ = false;
    part_load_.reset();  // the pane that asks for one is made anew
    document_->look_at(stage);
    card_->set_stage(stage);
    slip_->show_stage(stage);
    make_room_for_section();
    close_sheet();
    show_scene(true);
}

/// A bar of Qt's paints itself, and the whole window with it, the moment that its value changes. This one is
/// painted with what else has changed.
void MainWindow::show_progress(double fraction, const QString& doing) {
    progress_->setUpdatesEnabled(false);
    progress_->setValue(static_cast<int>(100 * fraction));
    progress_->setUpdatesEnabled(true);
    progress_->setToolTip(doing);
}

void MainWindow::job_changed() {
    const auto& b = document_->job().brief;
    const auto path = document_->path();
    const auto name_of_job = QString::fromStdString(b.job);
    job_name_->setText(is_at_start() ? QString()
                                     : name_of_job + (document_->unsaved() ? " · not saved" : ""));
    job_name_->setToolTip(QString("%1 for %2, %3 pulls\n%4")
                              .arg(name_of_job, QString::fromStdString(b.customer))
                              .arg(b.pulls)
                              .arg(path.isEmpty() ? "It has no file yet." : path));
    setWindowTitle((is_at_start() ? QString() : name_of_job + (document_->unsaved() ? "* – " : " – ")) +
                   "Jig Shell");
    shell_sheet_->follow(document_->job());
    builds_sheet_->follow(document_->job());
    kit_sheet_->follow(document_->job());
    const auto name = document_->undo_name();
    undo_->setEnabled(!name.isEmpty());
    undo_->setToolTip(name.isEmpty() ? "Nothing to undo" : "Undo: " + name);
    undo_->setText(name.isEmpty() ? "Undo" : "Undo: " + (name.size() > 22 ? name.left(21) + "…" : name));
    card_->show_job(document_->job(), document_->findings(), document_->looked_at(), document_->settled(),
                    document_->stale(), wording_);
}

void MainWindow::findings_changed() {
    if (!errand_.away()) progress_->hide();
    card_->show_job(document_->job(), document_->findings(), document_->looked_at(), document_->settled(),
                    document_->stale(), wording_);
    renew_menus();
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

void MainWindow::close_sheet() {
    centre_->setCurrentWidget(shows_charts() ? static_cast<QWidget*>(chart_) : stand_);
    swap_->setVisible(stage_ == Stage::heat);
    swap_->setText(shows_charts() ? "Show the tool" : "Show the charts");
}

bool MainWindow::shows_charts() const {
    return has_chart(stage_) && !(stage_ == Stage::heat && heat_tool_);
}

void MainWindow::show_heat_tool(bool shown) {
    heat_tool_ = shown;
    if (stage_ != Stage::heat) return;
    close_sheet();
    show_scene(true);
}

void MainWindow::set_light(Light light) {
    light_ = light;
    const auto& k = ink(light);
    dress(k);
    card_->set_ink(k);
    stand_->set_ink(k);
    ribbon_->set_ink(k);
    set_wording(wording_);
}

void MainWindow::set_wording(const Wording& wording) {
    wording_ = wording;
    if (is_at_start()) start_->renew(wording);
    slip_->set_look(ink(light_), wording);
    routes_->set_look(ink(light_), wording);
    shell_sheet_->set_look(ink(light_), wording);
    builds_sheet_->set_wording(wording);
    kit_sheet_->set_look(ink(light_), wording);
    if (shop_sheet_ != nullptr) shop_sheet_->set_look(ink(light_), wording);
    job_changed();
    show_scene(false);
}

void MainWindow::say(const QString& message) {
    message_->setText(message);
    if (!message.isEmpty()) {
        QAccessibleEvent told(message_, QAccessible::NameChanged);
        message_->setAccessibleName(message);
        QAccessible::updateAccessibility(&told);
    }
    message_->setToolTip(message);
    quiet_.start(message.isEmpty() ? 0 : 12000);
}

void MainWindow::resizeEvent(QResizeEvent* event) {
    QMainWindow::resizeEvent(event);
    make_room_for_section();
}

}  // namespace jig::app
