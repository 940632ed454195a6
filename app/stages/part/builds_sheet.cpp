#include "app/stages/part/builds_sheet.hpp"

#include <QBoxLayout>
#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <tuple>

#include "app/slip/flow_layout.hpp"
#include "app/slip/sheet_head.hpp"
#include "app/slip/sums_grid.hpp"
#include "app/slip/words.hpp"

namespace jig::app {

BuildsSheet::BuildsSheet(QWidget* parent) : QScrollArea(parent) {
    setObjectName("builds-sheet");
    setWidgetResizable(true);
    setFrameShape(QFrame::NoFrame);
    setAccessibleName("Builds of the part side by side");
}

void BuildsSheet::show_builds(std::vector<BuildPlan> plans, const Job& job,
                              std::shared_ptr<const Shop> shop) {
    plans_ = std::move(plans);
    job_ = job;
    shop_ = std::move(shop);
    old_ = false;
    rebuild();
}

void BuildsSheet::set_wording(const Wording& wording) {
    wording_ = wording;
    if (!plans_.empty()) rebuild();
}

void BuildsSheet::follow(const Job& now) {
    if (plans_.empty()) return;
    const auto about = [](const Job& j) {
        return std::tie(j.brief, j.shape, j.split, j.plug, j.edge, j.shell, j.back, j.release, j.part, j.bag,
                        j.heat, j.run);
    };
    const bool old = !(about(now) == about(job_));
    if (old == old_) return;
    old_ = old;
    rebuild();
}

void BuildsSheet::rebuild() {
    auto* page = new QWidget(this);
    auto* box = page_with_head(page, {"builds", "Builds of this part", [this] { emit close_wanted(); },
                                      old_ ? "The job has changed since this was worked out." : QString(),
                                      "Work it out anew", [this] { emit renew_wanted(); }});
    using enum SumsRow::Better;
    SumsGrid grid;
    grid.rows = {{"mass", "mass of one part", less},       {"cost", "cost of one part", less},
                 {"hours", "hands for one part", less},    {"days", "days to the first part", less},
                 {"gives", "gives under its load", less},  {"holds", "holds its load times", more},
                 {"stiffness", "bending stiffness", more}, {"thickness", "thickness", neither},
                 {"goes", "goes to lay it in", less},      {"heat", "its Tg", more},
                 {"size", "against the drawing", less}};
    for (std::size_t i = 0; i < plans_.size(); ++i) {
        const auto& plan = plans_[i];
        grid.columns.push_back(
            {QString::number(i + 1), text_of(plan.build.name), text_of(part::in_short(plan.build)), plan.now,
             plan.sums, text_of(worded(plan.untried, wording_)), text_of(worded(plan.obstacle, wording_))});
    }
    grid.take = [this](std::size_t i) { emit build_wanted(plans_[i].build); };
    lay_sums(box, page, grid, wording_);
    if (plans_.size() == 1) {
        auto* alone = new QLabel(
            "Only this one so far: keep it in the slip, change the stack, and set both "
            "side by side.",
            page);
        alone->setObjectName("builds-alone");
        alone->setWordWrap(true);
        box->addWidget(alone);
    }
    lay_as_stiff(page);
    box->addSpacing(8);
    auto* made = new QLabel(page);
    made->setWordWrap(true);
    made->setFont(word_font(9.5));
    QString all;
    for (const auto& plan : plans_)
        all += QString("<p style='margin:2px 0'><span style='font-weight:600'>%1</span>: %2.</p>")
                   .arg(text_of(plan.build.name).toHtmlEscaped(),
                        text_of(part::in_short(plan.build)).toHtmlEscaped());
    made->setText(all);
    box->addWidget(made);
    box->addStretch();
    setWidget(page);
}

void BuildsSheet::lay_as_stiff(QWidget* page) {
    auto* box = static_cast<QVBoxLayout*>(page->layout());
    auto* title = new QLabel("As stiff in another cloth", page);
    title->setFont(word_font(10.5, true));
    box->addSpacing(8);
    box->addWidget(title);
    auto* row = new QWidget(page);
    auto* flow = new FlowLayout(row, 6, 6);
    flow->addWidget(new QLabel("As stiff as", row));
    measure_ = new QComboBox(row);
    measure_->setObjectName("stiff-as");
    measure_->setAccessibleName("The build that sets the stiffness");
    for (const auto& plan : plans_) measure_->addItem(text_of(plan.build.name));
    flow->addWidget(measure_);
    flow->addWidget(new QLabel("in", row));
    cloths_ = new QComboBox(row);
    cloths_->setObjectName("stiff-in");
    cloths_->setAccessibleName("The cloth to lay instead");
    for (const auto& r : shop_->reinforcements) cloths_->addItem(text_of(r.name));
    flow->addWidget(cloths_);
    box->addWidget(row);
    told_ = new QLabel(page);
    told_->setObjectName("stiff-told");
    told_->setWordWrap(true);
    box->addWidget(told_);
    keep_ = new QPushButton("Keep it as a build", page);
    keep_->setObjectName("stiff-keep");
    connect(keep_, &QPushButton::clicked, this, [this] {
        if (found_) emit keep_wanted(found_->build);
    });
    box->addWidget(keep_, 0, Qt::AlignLeft);
    const auto again = [](QComboBox* list, const QString& last) {
        const int i = list->findText(last);
        if (i >= 0) list->setCurrentIndex(i);
    };
    // To begin with, what the part has most of.
    if (cloth_.isEmpty()) cloth_ = text_of(part::main_cloth(job_.part.layers));
    again(measure_, like_);
    again(cloths_, cloth_);
    for (auto* list : {measure_, cloths_}) connect(list, &QComboBox::activated, this, [this] { match(); });
    match();
}

void BuildsSheet::match() {
    found_.reset();
    like_ = measure_->currentText();
    cloth_ = cloths_->currentText();
    const auto at = static_cast<std::size_t>(std::max(0, measure_->currentIndex()));
    try {
        if (at < plans_.size()) found_ = part::as_stiff(plans_[at].build, cloth_.toStdString(), *shop_);
    } catch (const InputError& e) {
        told_->setText(text_of(worded(e.problem() + ": " + e.mend() + ".", wording_)));
    }
    keep_->setEnabled(found_.has_value());
    if (!found_) return;
    const auto say = [&](Kind kind, double v) { return text_of(jig::show(kind, v, wording_)); };
    told_->setText(
        QString("%1 %2: %3, %4 thick, bends with %5 where %6 is asked. Coats, core and resin stay; "
                "plies at 0° and 45° in turn, by the stack's D* alone: zones and load are not in it.")
            .arg(found_->plies)
            .arg(found_->plies == 1 ? "ply" : "plies", say(Kind::areal_mass, found_->stack.areal_mass()),
                 say(Kind::thickness, found_->stack.laminate.thickness), say(Kind::stiffness, found_->found),
                 say(Kind::stiffness, found_->wanted)));
}

}  // namespace jig::app
