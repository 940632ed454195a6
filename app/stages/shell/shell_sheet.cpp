#include "app/stages/shell/shell_sheet.hpp"

#include <QBoxLayout>
#include <QLabel>
#include <QMouseEvent>
#include <QPainter>
#include <QPushButton>
#include <tuple>

#include <cmath>
#include <functional>

#include "app/slip/record_table.hpp"
#include "app/slip/sheet_head.hpp"
#include "app/slip/sums_grid.hpp"
#include "app/slip/words.hpp"
#include "app/stages/panes.hpp"

namespace jig::app {
namespace {

/// Mass against sag: every stack that none beats in both; a click chooses the nearest.
class Curve : public QWidget {
  public:
    Curve(const shell::Found& found, int chosen, const shell::Seek& seek, const Ink& k, const Wording& w,
          std::function<void(int)> choose, QWidget* parent)
        : QWidget(parent),
          found_(found),
          chosen_(chosen),
          seek_(seek),
          k_(k),
          w_(w),
          choose_(std::move(choose)) {
        setMinimumHeight(250);
        setObjectName("curve");
        setAccessibleName("Mass against sag of the stacks that were found");
        setCursor(Qt::PointingHandCursor);
    }

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        const auto area = this->area();
        p.setPen(k_.rule);
        p.drawRect(area);
        p.setFont(figure_font(8.5));
        p.setPen(k_.faint);
        const auto say = [&](Kind kind, double v) { return QString::fromStdString(jig::show(kind, v, w_)); };
        p.drawText(QRectF(0, area.top() - 4, area.left() - 4, 14), Qt::AlignRight,
                   say(Kind::thickness, top()));
        p.drawText(QRectF(0, area.bottom() - 10, area.left() - 4, 14), Qt::AlignRight,
                   say(Kind::thickness, bottom()));
        p.drawText(QRectF(area.left(), area.bottom() + 3, area.width(), 14), Qt::AlignLeft,
                   say(Kind::mass, light()));
        p.drawText(QRectF(area.left(), area.bottom() + 3, area.width(), 14), Qt::AlignRight,
                   say(Kind::mass, heavy()));
        p.drawText(QRectF(area.left(), area.bottom() + 3, area.width(), 14), Qt::AlignHCenter,
                   "mass of shell and flange; up: sag between ribs, each line ten times the next");
        // Within both limits.
        const auto corner = at(std::min(heavy(), seek_.mass), std::max(bottom(), std::min(top(), seek_.sag)));
        QColor wash = k_.moss;
        wash.setAlpha(30);
        p.fillRect(QRectF(QPointF(area.left(), corner.y()), QPointF(corner.x(), area.bottom())), wash);
        for (double d = std::pow(10, std::floor(std::log10(top()))); d > bottom(); d /= 10) {
            p.setPen(QPen(k_.rule, 1));
            p.drawLine(at(light(), d), at(heavy(), d));
        }
        QPolygonF line;
        for (const auto& s : found_.curve) line << at(s.mass, s.sag);
        p.setPen(QPen(k_.petrol, 1.6));
        p.drawPolyline(line);
        for (std::size_t i = 0; i < found_.curve.size(); ++i) {
            const auto& s = found_.curve[i];
            p.setBrush(static_cast<int>(i) == chosen_ ? k_.tape : s.fits ? k_.moss : k_.sheet);
            p.setPen(QPen(k_.ink, 1));
            const double r = static_cast<int>(i) == chosen_ ? 5.5 : 3.2;
            if (s.fits)
                p.drawRect(QRectF(at(s.mass, s.sag) - QPointF(r, r), QSizeF(2 * r, 2 * r)));
            else
                p.drawEllipse(at(s.mass, s.sag), r, r);
        }
        p.setPen(k_.faint);
        p.setFont(word_font(8.5));
        p.drawText(QRectF(area.right() - 260, area.top() + 4, 254, 14), Qt::AlignRight,
                   "squares keep to all three limits, rings do not");
    }
    void mousePressEvent(QMouseEvent* event) override {
        int best = -1;
        double least = 1e30;
        for (std::size_t i = 0; i < found_.curve.size(); ++i) {
            const double d =
                QLineF(at(found_.curve[i].mass, found_.curve[i].sag), event->position()).length();
            if (d < least) {
                least = d;
                best = static_cast<int>(i);
            }
        }
        if (best >= 0) choose_(best);
    }

  private:
    [[nodiscard]] QRectF area() const { return QRectF(rect()).adjusted(70, 8, -12, -22); }
    [[nodiscard]] double light() const { return found_.curve.empty() ? 0 : found_.curve.front().mass; }
    [[nodiscard]] double heavy() const { return found_.curve.empty() ? 1 : found_.curve.back().mass; }
    [[nodiscard]] double top() const { return found_.curve.empty() ? 1 : found_.curve.front().sag; }
    [[nodiscard]] double bottom() const { return found_.curve.empty() ? 0.1 : found_.curve.back().sag; }
    [[nodiscard]] QPointF at(double mass, double sag) const {
        const auto a = area();
        const double x = (mass - light()) / std::max(1e-9, heavy() - light());
        const double y = std::log(sag / bottom()) / std::max(1e-9, std::log(top() / bottom()));
        return {a.left() + x * a.width(), a.bottom() - y * a.height()};
    }

    const shell::Found& found_;
    int chosen_;
    shell::Seek seek_;
    const Ink& k_;
    Wording w_;
    std::function<void(int)> choose_;
};

}  // namespace

ShellSheet::ShellSheet(QWidget* parent) : QScrollArea(parent), ink_(&app::ink(Light::day)) {
    setObjectName("shell-sheet");
    setWidgetResizable(true);
    setFrameShape(QFrame::NoFrame);
}

void ShellSheet::show_schools(std::vector<SchoolPlan> plans, const Job& job) {
    plans_ = std::move(plans);
    job_ = job;
    stacks_ = old_ = false;
    setAccessibleName("The schools of laminate side by side");
    rebuild();
}

void ShellSheet::show_stacks(shell::Found found, const Job& job) {
    found_ = std::move(found);
    job_ = job;
    stacks_ = true;
    old_ = false;
    chosen_ = found_.best >= 0 ? found_.best : static_cast<int>(found_.curve.size()) - 1;
    setAccessibleName("Stacks that were sought");
    rebuild();
}

void ShellSheet::set_look(const Ink& ink, const Wording& wording) {
    ink_ = &ink;
    wording_ = wording;
    if (!plans_.empty() || !found_.curve.empty()) rebuild();
}

void ShellSheet::follow(const Job& now) {
    if (plans_.empty() && found_.curve.empty()) return;
    const auto about = [](const Job& j) {
        return std::tie(j.brief, j.shape, j.split, j.plug, j.edge, j.shell, j.back);
    };
    const bool old = !(about(now) == about(job_));
    if (old == old_) return;
    old_ = old;
    rebuild();
}

void ShellSheet::rebuild() {
    auto* page = new QWidget(this);
    auto* box = page_with_head(
        page,
        {"shell-sheet", stacks_ ? "Stacks for this shell, light to stiff" : "Seven schools for this shell",
         [this] { emit close_wanted(); }, old_ ? "The job has changed since this was worked out." : QString(),
         "Work it out anew", [this] { emit renew_wanted(stacks_); }});
    stacks_ ? build_stacks(page) : build_schools(page);
    box->addStretch();
    setWidget(page);
}

void ShellSheet::build_schools(QWidget* page) {
    auto* box = static_cast<QVBoxLayout*>(page->layout());
    using enum SumsRow::Better;
    SumsGrid grid;
    grid.rows = {{"cost", "plug and mould", less},          {"days", "days to the first part", less},
                 {"mass", "shell and flange", less},        {"thickness", "thickness", neither},
                 {"stiffness", "bending stiffness", more},  {"leaning", "gives at the rim", less},
                 {"warped", "out of shape hot", less},      {"heat", "good up to", more},
                 {"mismatch", "grows past the part", less}, {"pulls", "pulls it lasts", more}};
    for (const auto& plan : plans_)
        grid.columns.push_back({text_of(file_word(plan.school)), text_of(said(plan.school)),
                                shell::facts_of(plan.school).reason, plan.school == job_.shell.school,
                                plan.sums, text_of(worded(plan.untried, wording_)),
                                text_of(worded(plan.obstacle, wording_))});
    grid.take = [this](std::size_t i) { emit school_wanted(plans_[i].school); };
    lay_sums(box, page, grid, wording_);
    auto* reasons = new QLabel(page);
    reasons->setWordWrap(true);
    reasons->setFont(word_font(9.5));
    QString all;
    for (const auto& plan : plans_)
        all += QString("<p style='margin:2px 0'><span style='font-weight:600'>%1</span>: %2.</p>")
                   .arg(text_of(said(plan.school)), shell::facts_of(plan.school).reason);
    reasons->setText(all);
    box->addWidget(reasons);
}

void ShellSheet::build_stacks(QWidget* page) {
    auto* box = static_cast<QVBoxLayout*>(page->layout());
    const auto say = [&](Kind kind, double v) { return text_of(jig::show(kind, v, wording_)); };
    auto* told = new QLabel(
        found_.curve.empty()
            ? QString("No stack could be built of these cloths.")
            : QString("%1 stacks of this school's cloths were tried; none on the curve is beaten in both "
                      "mass and sag. %2")
                  .arg(found_.tried)
                  .arg(found_.best >= 0 ? QString("%1 of them keep to your limits.")
                                              .arg(std::count_if(found_.curve.begin(), found_.curve.end(),
                                                                 [](const auto& p) { return p.fits; }))
                                        : QString("None keeps to all your limits: sag %1, mass %2, %3 days.")
                                              .arg(say(Kind::thickness, job_.shell.seek.sag),
                                                   say(Kind::mass, job_.shell.seek.mass))
                                              .arg(job_.shell.seek.days)),
        page);
    told->setWordWrap(true);
    told->setObjectName("stacks-told");
    box->addWidget(told);
    if (found_.curve.empty()) return;
    box->addWidget(new Curve(
        found_, chosen_, job_.shell.seek, *ink_, wording_,
        [this](int i) {
            chosen_ = i;
            // The curve that was clicked is part of the page that goes.
            QMetaObject::invokeMethod(
                this, [this] { rebuild(); }, Qt::QueuedConnection);
        },
        page));
    const auto& p = found_.curve[static_cast<std::size_t>(chosen_)];
    auto* row = new QHBoxLayout();
    auto* words = new QLabel(QString("%1 thick, sags %2, weighs %3, materials %4, laid in %5 %6")
                                 .arg(say(Kind::thickness, p.thickness), say(Kind::thickness, p.sag),
                                      say(Kind::mass, p.mass), say(Kind::money, p.price))
                                 .arg(p.days)
                                 .arg(p.days == 1 ? "day" : "days"),
                             page);
    words->setFont(word_font(10.5, true));
    words->setWordWrap(true);
    row->addWidget(words, 1);
    auto* take = new QPushButton("Take this stack", page);
    take->setObjectName("take-stack");
    connect(take, &QPushButton::clicked, this,
            [this] { emit stack_wanted(found_.curve[static_cast<std::size_t>(chosen_)].layers); });
    row->addWidget(take);
    box->addLayout(row);
    auto* table = new RecordTable({{"layer, from the plug out", false, false, {}}, {"°", false, true, {}}},
                                  false, page);
    table->setObjectName("stack-found");
    QList<QStringList> rows;
    for (const auto& l : p.layers)
        rows << QStringList{
            l.kind == LayerKind::coupling ? QString("coupling coat") : text_of(l.material),
            l.kind == LayerKind::ply ? QString::number(std::lround(degrees(l.angle))) : QString()};
    table->show_rows(rows);
    fit_height(table, 2, 30);
    box->addWidget(table);
}

}  // namespace jig::app
