#include "app/stages/plug/routes_sheet.hpp"

#include <QBoxLayout>
#include <QGridLayout>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QToolButton>

#include <cmath>

#include "app/slip/sheet_head.hpp"
#include "app/slip/words.hpp"
#include "app/stand/plain.hpp"

namespace jig::app {
namespace {

const Figure* sum_of(const plug::Plan& plan, const std::string& key) {
    for (const auto& f : plan.sums) {
        if (f.key == key) return &f;
    }
    return nullptr;
}

/// The row's best value: the least of it, but the most of heat and of moulds.
const plug::Plan* best_of(const std::vector<plug::Plan>& plans, const std::string& key) {
    const bool more = key == "heat" || key == "moulds";
    const plug::Plan* best = nullptr;
    double at = 0;
    for (const auto& plan : plans) {
        const auto* f = sum_of(plan, key);
        if (f == nullptr || !plan.obstacle.empty()) continue;
        if (best == nullptr || (more ? f->value > at : f->value < at)) {
            best = &plan;
            at = f->value;
        }
    }
    return best;
}

/// Something painted by a function.
class Chart : public QWidget {
  public:
    Chart(std::function<void(QPainter&, const QRectF&)> paint, QWidget* parent)
        : QWidget(parent), paint_(std::move(paint)) {
        setMinimumHeight(150);
    }

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        paint_(p, QRectF(rect()).adjusted(2, 2, -2, -2));
    }

  private:
    std::function<void(QPainter&, const QRectF&)> paint_;
};

QPixmap picture(const plug::Plan& plan, const TriangleMesh& surface, const Frame& frame, const Ink& k) {
    const QSize size(74, 56);
    QPixmap out(size * 2);
    out.setDevicePixelRatio(2);
    out.fill(Qt::transparent);
    if (!plan.obstacle.empty() && plan.figures.empty()) return out;
    const auto scene = scene_of_plan(plan, surface, frame, k);
    Camera camera;
    camera.frame(scene.bounds, size);
    camera.distance *= 0.8;
    QPainter p(&out);
    p.setRenderHint(QPainter::Antialiasing);
    paint_plainly(p, scene, camera, size, plan.route != Route::slabs);
    return out;
}

void title(QPainter& p, const QRectF& where, const QString& words, const Ink& k) {
    p.setFont(word_font(9.5, true));
    p.setPen(k.ink);
    p.drawText(QRectF(where.left(), where.top(), where.width(), 16), Qt::AlignLeft | Qt::AlignVCenter, words);
}

}  // namespace

void paint_finishing(QPainter& p, const QRectF& where, Grade grade, const plug::FinishHours& h, int parts,
                     const Ink& k) {
    title(p, where, text_of(said(grade)), k);
    const QRectF area = where.adjusted(34, 20, -6, -30);
    const double most = std::max({10.0, 1.6 * parts, 1.6 * h.break_even});
    const double top = std::max({1.0, h.bare_tool + most * h.bare_part, h.tool + most * h.part});
    const auto at = [&](double n, double hours) {
        return QPointF(area.left() + n / most * area.width(), area.bottom() - hours / top * area.height());
    };
    p.setPen(k.rule);
    p.drawRect(area);
    p.setFont(figure_font(8));
    p.setPen(k.faint);
    p.drawText(QRectF(where.left(), area.top() - 6, 32, 12), Qt::AlignRight,
               QString("%1 h").arg(top, 0, 'f', 0));
    p.drawText(QRectF(area.left(), area.bottom() + 2, area.width(), 12), Qt::AlignRight,
               QString("%1 parts").arg(most, 0, 'f', 0));
    p.setPen(QPen(k.clay, 1.6, Qt::DashLine));
    p.drawLine(at(0, h.bare_tool), at(most, h.bare_tool + most * h.bare_part));
    p.setPen(QPen(k.petrol, 1.8));
    p.drawLine(at(0, h.tool), at(most, h.tool + most * h.part));
    p.setPen(QPen(k.tape, 1.4));
    p.drawLine(at(parts, 0), at(parts, top));
    p.setPen(k.ink);
    if (h.break_even > 0 && h.break_even < most) {
        p.setBrush(k.tape);
        p.drawEllipse(at(h.break_even, h.tool + h.break_even * h.part), 3.5, 3.5);
        p.setBrush(Qt::NoBrush);
    }
    p.setFont(word_font(8.5));
    p.drawText(QRectF(area.left(), area.bottom() + 14, area.width(), 14), Qt::AlignLeft,
               h.break_even > 0
                   ? QString("the tool pays from %1 parts").arg(std::ceil(h.break_even), 0, 'f', 0)
                   : QString("the tool saves nothing"));
}

void paint_steps(QPainter& p, const QRectF& where, const plug::BlockPlan& block, const Ink& k,
                 const Wording& w) {
    title(p, where, "block: step of its passes", k);
    if (block.curve.empty()) return;
    const QRectF area = where.adjusted(8, 20, -6, -30);
    double top = 0;
    const auto& curve = block.curve;
    const auto whole = [](const plug::BlockPlan::Choice& c) { return c.machine + c.hands; };
    double least = whole(curve.front());
    for (const auto& c : curve) least = std::min(least, whole(c));
    top = 3 * least;
    const auto at = [&](double step, double cost) {
        const double share =
            std::log(step / curve.front().step) / std::log(curve.back().step / curve.front().step);
        return QPointF(area.left() + share * area.width(),
                       area.bottom() - std::min(1.0, cost / top) * area.height());
    };
    p.setPen(k.rule);
    p.drawRect(area);
    const auto line = [&](const QPen& pen, auto&& value) {
        QPolygonF path;
        for (const auto& c : curve) path << at(c.step, value(c));
        p.setPen(pen);
        p.drawPolyline(path);
    };
    line(QPen(k.faint, 1.2, Qt::DashLine), [](const auto& c) { return c.machine; });
    line(QPen(k.clay, 1.2, Qt::DotLine), [](const auto& c) { return c.hands; });
    line(QPen(k.petrol, 1.8), whole);
    p.setPen(QPen(k.tape, 1.4));
    p.drawLine(at(block.step, 0), at(block.step, top));
    p.setFont(word_font(8.5));
    p.setPen(k.ink);
    p.drawText(QRectF(area.left(), area.bottom() + 2, area.width(), 14), Qt::AlignLeft,
               QString("%1 leaves ridges of %2")
                   .arg(text_of(show(Kind::thickness, block.step, w)),
                        text_of(show(Kind::thickness, block.scallop, w))));
    p.setPen(k.faint);
    p.drawText(QRectF(area.left(), area.bottom() + 15, area.width(), 14), Qt::AlignLeft,
               "dashed: machine    dotted: hands    solid: both");
}

RoutesSheet::RoutesSheet(QWidget* parent) : QScrollArea(parent), ink_(&app::ink(Light::day)) {
    setObjectName("routes");
    setWidgetResizable(true);
    setFrameShape(QFrame::NoFrame);
    setAccessibleName("The plug routes side by side");
}

void RoutesSheet::show_routes(std::vector<plug::Plan> plans, const Job& job, const Findings& findings,
                              const Shop& shop) {
    plans_ = std::move(plans);
    job_ = job;
    findings_ = findings;
    finish_.clear();
    const double area = findings.split ? findings.split->mould_area() : 1;
    for (const auto grade : {Grade::paintable, Grade::clear, Grade::gloss})
        finish_.emplace_back(grade, plug::finish_hours(grade, area, shop));
    rebuild();
}

void RoutesSheet::set_look(const Ink& ink, const Wording& wording) {
    ink_ = &ink;
    wording_ = wording;
    if (!plans_.empty()) rebuild();
}

void RoutesSheet::rebuild() {
    auto* page = new QWidget(this);
    auto* box = page_with_head(
        page, {"routes", "Seven ways to make this plug, and one without", [this] { emit close_wanted(); }});
    auto* grid = new QGridLayout();
    grid->setHorizontalSpacing(4);
    grid->setVerticalSpacing(3);
    box->addLayout(grid);
    auto* why = new QLabel(
        "A figure's reasoning opens when you click it. The best of each row is strong. What is made "
        "without a plug is the mould itself: the others have their laminate still to come.",
        page);
    why->setObjectName("routes-why");
    why->setWordWrap(true);
    why->setFont(word_font(9.5));
    why->setMinimumHeight(30);
    static const std::vector<std::pair<const char*, const char*>> rows{{"hours", "hands"},
                                                                       {"days", "days"},
                                                                       {"cost", "cost"},
                                                                       {"mass", "mass"},
                                                                       {"accuracy", "true within"},
                                                                       {"surface", "left to sand"},
                                                                       {"heat", "good up to"},
                                                                       {"moulds", "moulds"}};
    for (std::size_t r = 0; r < rows.size(); ++r) {
        auto* label = new QLabel(rows[r].second, page);
        label->setFont(word_font(9.5));
        grid->addWidget(label, static_cast<int>(r) + 2, 0);
    }
    const TriangleMesh empty;
    const auto& surface =
        findings_.shape && findings_.split ? split::mould_mesh(*findings_.shape, *findings_.split) : empty;
    const Frame frame = findings_.split ? findings_.split->frame : frame_across(Point::UnitZ());
    for (std::size_t i = 0; i < plans_.size(); ++i) {
        const auto& plan = plans_[i];
        const int column = static_cast<int>(i) + 1;
        auto* image = new QLabel(page);
        image->setPixmap(picture(plan, surface, frame, *ink_));
        image->setAlignment(Qt::AlignCenter);
        grid->addWidget(image, 0, column);
        const bool taken = plan.route == job_.plug.route;
        auto* word = new QLabel(text_of(said(plan.route)) + (taken ? ", taken" : ""), page);
        word->setFont(word_font(9.5, taken));
        word->setWordWrap(true);
        word->setAlignment(Qt::AlignHCenter | Qt::AlignTop);
        grid->addWidget(word, 1, column);
        grid->setColumnStretch(column, 1);
        if (!plan.obstacle.empty()) {
            auto* obstacle = new QToolButton(page);
            obstacle->setObjectName("sum-obstacle");
            obstacle->setText("not here: why");
            obstacle->setFont(word_font(9));
            obstacle->setStyleSheet(
                QString("QToolButton { border: none; background: transparent; color: %1; }")
                    .arg(ink_->oxide.name()));
            const auto reason = text_of(said(plan.route)) + ": " + text_of(worded(plan.obstacle, wording_));
            obstacle->setToolTip(reason);
            connect(obstacle, &QToolButton::clicked, why, [why, reason] { why->setText(reason); });
            grid->addWidget(obstacle, static_cast<int>(rows.size()) + 2, column, Qt::AlignCenter);
        }
        for (std::size_t r = 0; r < rows.size(); ++r) {
            const auto* f = sum_of(plan, rows[r].first);
            if (f == nullptr) continue;
            auto* figure = new QToolButton(page);
            figure->setObjectName("sum");
            figure->setProperty("route", text_of(file_word(plan.route)));
            figure->setProperty("sum", rows[r].first);
            figure->setText(text_of(jig::show(f->kind, f->value, wording_)));
            figure->setFont(figure_font(best_of(plans_, rows[r].first) == &plan ? 10 : 9.5));
            auto font = figure->font();
            font.setBold(best_of(plans_, rows[r].first) == &plan);
            figure->setFont(font);
            const auto reason = text_of(worded(f->reason, wording_));
            figure->setToolTip(reason);
            figure->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
            const auto said_whole =
                QString("%1, %2: %3, %4")
                    .arg(text_of(said(plan.route)), rows[r].second, figure->text(), reason);
            figure->setAccessibleName(said_whole);
            connect(figure, &QToolButton::clicked, why, [why, said_whole] { why->setText(said_whole); });
            grid->addWidget(figure, static_cast<int>(r) + 2, column);
        }
        if (!taken && plan.obstacle.empty()) {
            auto* take = new QPushButton("Take it", page);
            take->setObjectName(QString("take-") + text_of(file_word(plan.route)));
            const auto route = plan.route;
            connect(take, &QPushButton::clicked, this, [this, route] { emit route_wanted(route); });
            grid->addWidget(take, static_cast<int>(rows.size()) + 2, column);
        }
    }
    box->addWidget(why);
    auto* charts_name = new QLabel(
        "Where to spend the finishing: hours in plug and mould (solid) against hours in every part (dashed)",
        page);
    charts_name->setFont(word_font(9.5, true));
    charts_name->setWordWrap(true);
    box->addWidget(charts_name);
    auto* charts = new QHBoxLayout();
    const int made = findings_.run ? findings_.run->made : job_.brief.pulls;
    for (const auto& [grade, hours] : finish_)
        charts->addWidget(
            new Chart([grade = grade, hours = hours, made, k = ink_](
                          QPainter& p, const QRectF& r) { paint_finishing(p, r, grade, hours, made, *k); },
                      page));
    for (const auto& plan : plans_) {
        if (plan.route == Route::block && !plan.block.curve.empty())
            charts->addWidget(
                new Chart([block = plan.block, k = ink_, w = wording_](
                              QPainter& p, const QRectF& r) { paint_steps(p, r, block, *k, w); },
                          page));
    }
    box->addLayout(charts);
    box->addStretch();
    setWidget(page);
}

}  // namespace jig::app
