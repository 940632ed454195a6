#include "app/slip/figures_view.hpp"

#include <algorithm>
#include <array>
#include <QBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPainter>

#include "app/slip/widgets.hpp"

namespace jig::app {
namespace {

struct Group {
    const char* heading;
    std::vector<std::string> keys;  ///< one that ends in * stands for all that begin so
};

/// The first group is the large one. What no group names stands under "More".
const std::vector<Group>& groups_of(Stage stage) {
    static const std::array<std::vector<Group>, kStages.size()> all{{
        {{"", {"pulls", "break_even", "pump_minute"}}, {"Finish", {"plug_finish", "part_finish"}}},
        {{"", {"length", "width", "height"}},
         {"Faces", {"area", "volume", "girth", "centre"}},
         {"What makes it hard", {"inside_radius", "flat_wall", "humps", "stray"}},
         {"Mesh", {"triangles", "rims"}}},
        {{"", {"min_draft", "locks", "pieces"}},
         {"Release", {"slides", "drags", "overhung", "draw"}},
         {"Pulls", {"pull_*", "lean_step", "bags_saved"}},
         {"Faces and seams", {"mouth", "moulded", "projected", "seam*"}}},
        {{"", {"cost", "hours", "mass"}},
         {"Stock", {"sheets", "slabs", "tiles", "stack_volume", "glue", "cut_length", "pin_sets"}},
         {"Finish", {"to_sand", "sanding", "bevel", "undersize", "finishing"}},
         {"Handling", {"people", "lift_points", "centre"}}},
        {{"", {"width", "bolts", "rim"}},
         {"Land and tape", {"tape*", "area", "print"}},
         {"Fittings", {"wedges", "jacks", "ports", "per_bolt"}},
         {"Joint", {"joint_length", "lap", "step", "adhesive", "bead", "joggle_tape", "returned_*"}}},
        {{"", {"thickness", "mass", "days"}},
         {"Stiffness", {"Ex", "Eb", "D", "cte", "bow"}},
         {"Materials", {"areal_mass", "resin", "batches", "pot_peak", "filler", "units"}},
         {"Places", {"corners", "zone_*"}}},
        {{"", {"sag_person", "tips", "tool_mass"}},
         {"Load cases", {"case_*"}},
         {"Ribs and feet", {"ribs", "span", "pitch_for_limit", "print", "bond", "mass"}},
         {"Sag", {"sag_*", "shape_error"}}},
        {{"", {"coats", "clock", "litres", "strips"}},
         {"Faces", {"area", "work", "seam_fill", "masked"}},
         {"Life", {"limit", "touch_up", "good_for"}}},
        {{"", {"part_holds", "part_gives", "mass", "thickness", "stiffer"}},
         {"What it carries", {"part_load_*"}},
         {"Stiffness", {"thickness", "stiffer", "D", "D_zoned"}},
         {"Materials", {"mass", "areal_mass", "resin", "hardener", "pots"}},
         {"Resin", {"resin_*", "over_cloth"}},
         {"Core", {"core_*"}},
         {"Cloth", {"shear", "locked", "flat_*"}},
         {"Places", {"corners", "zone_*", "zoned", "insert_holds", "potting"}},
         {"Joint",
          {"joint_length", "lap", "step", "bead", "adhesive", "tape_layers", "joggle_tape", "returned_*"}}},
        {{"",
          {"fill", "filled", "flow_gel", "flow_resin", "shell_fill", "shell_filled", "shell_flow_gel",
           "shell_flow_resin", "film", "reached", "down", "torque", "pressed"}},
         {"Resin", {"flow_*"}},
         {"The shell's resin", {"shell_*"}},
         {"Film", {"film", "sheet_*", "bridges", "gives", "joins", "slack", "pleats", "tape", "far"}},
         {"Bolts", {"clamp_*", "torque", "pressed"}},
         {"Vacuum",
          {"reached", "down", "room", "allowed", "rise", "told_after", "alone", "duty", "boils", "volume",
           "force"}}},
        {{"", {"Tg", "Tg_margin", "part_error"}},
         {"Size", {"plug_scale", "fold_moves", "folds", "spring_in", "tool_hot", "tool_room"}},
         {"Part", {"part_Tg"}},
         {"Cures", {"cure_*"}},
         {"The oven", {"oven_*"}},
         {"Most in one go", {"go_*"}}},
        {{"", {"total", "per_part", "days"}},
         {"Once", {"plan", "once", "hours_once", "equipment"}},
         {"Each part", {"each", "hours_each", "materials"}}},
        {{"", {"pulls", "mean_mass", "since_release"}}, {"Course", {"trend"}}},
    }};
    return all[static_cast<std::size_t>(stage)];
}

bool names(const Group& group, const std::string& key) {
    return std::any_of(group.keys.begin(), group.keys.end(), [&](const std::string& k) {
        return k.back() == '*' ? key.rfind(k.substr(0, k.size() - 1), 0) == 0 : k == key;
    });
}

}  // namespace

FigureRow::FigureRow(const std::string& key, bool large, QLabel* more, QWidget* parent)
    : QWidget(parent), more_(more), ink_(&app::ink(Light::day)) {
    setFocusPolicy(Qt::StrongFocus);
    setCursor(Qt::PointingHandCursor);
    setObjectName("figure-row-" + QString::fromStdString(key));
    setMinimumHeight(24);
    auto* box = new QBoxLayout(large ? QBoxLayout::TopToBottom : QBoxLayout::LeftToRight, this);
    box->setContentsMargins(large ? 4 : 0, 2, large ? 4 : 0, 2);
    box->setSpacing(large ? 0 : 10);
    name_ = wrapped({}, this, word_font(large ? 9 : 10.5));
    value_ = new QLabel(this);
    value_->setFont(large ? figure_font(15) : figure_font());
    value_->setObjectName("figure-" + QString::fromStdString(key));
    value_->setAlignment(large ? Qt::AlignLeft : Qt::AlignRight | Qt::AlignTop);
    if (large) {
        name_->setAlignment(Qt::AlignLeft | Qt::AlignTop);
        box->addWidget(value_);
        box->addWidget(name_, 1);
    } else {
        box->addWidget(name_, 1);
        box->addWidget(value_);
    }
    more_->setTextInteractionFlags(Qt::TextSelectableByMouse | Qt::TextSelectableByKeyboard |
                                   Qt::LinksAccessibleByMouse | Qt::LinksAccessibleByKeyboard);
    more_->setObjectName("reason-" + QString::fromStdString(key));
    more_->setTextFormat(Qt::RichText);
    more_->hide();
}

void FigureRow::set(const Figure& figure, bool stale, const Ink& ink, const Wording& wording) {
    ink_ = &ink;
    const auto name = QString::fromStdString(worded(figure.name, wording)),
               value = QString::fromStdString(jig::show(figure.kind, figure.value, wording)),
               reason = QString::fromStdString(worded(figure.reason, wording));
    name_->setText(name);
    // A large figure is as large as its column lets it be.
    if (value_->text() != value) {
        value_->setText(value);
        const bool large = value_->alignment() == Qt::AlignLeft;
        if (large) value_->setFont(figure_font(value.size() > 9 ? 11 : value.size() > 7 ? 12.5 : 15));
    }
    value_->setStyleSheet(QString("color: %1").arg((stale ? ink.faint : ink.ink).name()));
    more_->setText(
        QString("<p style='margin:0'>%1 = <span style='font-weight:600'>%2</span></p><p style='margin:2px "
                "0'>%3</p>"
                "<p style='margin:0'><a style='color:%4' href='page'>How this stage is worked "
                "out, and what it leaves out</a></p>")
            .arg(name.toHtmlEscaped(), value.toHtmlEscaped(), reason.toHtmlEscaped(), ink.petrol.name()));
    setToolTip("<p>" + reason.toHtmlEscaped() + "</p>");
    said_ = name + ": " + value;
    name_it();
}

void FigureRow::name_it() {
    setAccessibleName(said_ + (is_open() ? "; its reasoning is open" : "; Enter opens its reasoning"));
}

bool FigureRow::is_open() const {
    return !more_->isHidden();
}

void FigureRow::toggle() {
    more_->setVisible(!is_open());
    name_it();
    update();
    emit toggled(is_open());
}

void FigureRow::mousePressEvent(QMouseEvent*) {
    setFocus();
    toggle();
}

void FigureRow::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter || event->key() == Qt::Key_Space)
        toggle();
    else
        QWidget::keyPressEvent(event);
}

void FigureRow::paintEvent(QPaintEvent*) {
    if (!hasFocus()) return;
    QPainter p(this);
    p.setPen(QPen(ink_->ink, 2));
    p.drawRect(rect().adjusted(1, 1, -1, -1));
}

FiguresView::FiguresView(Part part, QWidget* parent) : QWidget(parent), part_(part) {
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 4, 0, 4);
    box->setSpacing(1);
}

void FiguresView::show_figures(Stage stage, const std::vector<Figure>& figures, bool stale, const Ink& ink,
                               const Wording& wording) {
    std::vector<std::string> keys;
    for (const auto& f : figures) keys.push_back(f.key);
    // An edit must not flicker: widgets are made anew only where other figures come.
    if (stage != stage_ || keys != keys_) build(stage, figures);
    keys_ = std::move(keys);
    stage_ = stage;
    for (std::size_t i = 0; i < figures.size(); ++i) {
        if (rows_[i] != nullptr) rows_[i]->set(figures[i], stale, ink, wording);
    }
    setVisible(layout()->count() > 0);
}

void FiguresView::build(Stage stage, const std::vector<Figure>& figures) {
    if (stage != stage_) open_.clear();
    auto* box = static_cast<QVBoxLayout*>(layout());
    clear_layout(box);
    rows_.assign(figures.size(), nullptr);
    const auto add = [&](std::size_t i, bool large, QLayout* into, QLayout* reasons) {
        const auto& key = figures[i].key;
        auto* more = wrapped({}, this, word_font(9.5));
        more->setContentsMargins(8, 0, 0, 6);
        auto* row = new FigureRow(key, large, more, this);
        rows_[i] = row;
        into->addWidget(row);
        reasons->addWidget(more);
        connect(more, &QLabel::linkActivated, this, &FiguresView::page_wanted);
        connect(row, &FigureRow::toggled, this, [this, key](bool open) {
            if (open)
                open_.insert(key);
            else
                open_.erase(key);
        });
        if (open_.count(key) != 0) row->toggle();
        row->show();
    };
    std::vector<bool> done(figures.size(), false);
    auto groups = groups_of(stage);
    groups.push_back({"More", {"*"}});
    for (const auto& group : groups) {
        std::vector<std::size_t> here;
        for (std::size_t i = 0; i < figures.size(); ++i) {
            if (!done[i] && names(group, figures[i].key)) here.push_back(i);
        }
        if (here.empty()) continue;
        const bool large = &group == &groups.front();
        // The first three there are stand large; the others have a group further down.
        if (large && here.size() > 3) here.resize(3);
        for (const auto i : here) done[i] = true;
        if (large != (part_ == Part::large)) continue;
        if (large) {
            auto* across = new QHBoxLayout();
            across->setSpacing(6);
            box->addLayout(across);
            for (const auto i : here) add(i, true, across, box);
            for (int k = 0; k < across->count(); ++k) across->setStretch(k, 1);
        } else {
            auto* heading = wrapped(group.heading, this, word_font(10, true));
            heading->setContentsMargins(0, 8, 0, 0);
            box->addWidget(heading);
            heading->show();
            for (const auto i : here) add(i, false, box, box);
        }
    }
}

}  // namespace jig::app
