// Tables of points in two columns: a tray's outline, a turned profile, a foil's section, a gauge's line.
#include <QPushButton>

#include "app/slip/records_pane.hpp"
#include "core/stages/shape/starter_meshes.hpp"

namespace jig::app {
namespace {

using TwoFigures = std::array<double, 2>;
using PointsRules = RecordsPane<TwoFigures>::Rules;

class PointsPane : public RecordsPane<TwoFigures> {
  public:
    /// What the two columns hold, and where the points lie in the job.
    struct Columns {
        QString first, second;
        Kind kind;
        bool closed;  ///< the last point is followed by the first
        std::function<bool(const Job&)> shown;
        std::function<void(Job&)> settle = [](Job&) {};  ///< what follows from new points
    };
    PointsPane(Document& document, List list, PointsRules rules, Columns columns, QWidget* parent)
        : RecordsPane(document, std::move(list), std::move(rules),
                      {{"", true, true, {}}, {"", true, true, {}}}, true, parent),
          columns_(std::move(columns)) {
        auto* row = new QHBoxLayout();
        auto* add_point = new QPushButton("Add a point after it", this);
        auto* away = new QPushButton("Take it away", this);
        row->addWidget(add_point);
        row->addWidget(away);
        row->addStretch();
        box()->addLayout(row);
        connect(add_point, &QPushButton::clicked, this, [this] {
            const auto& p = records();
            if (p.empty()) return add("add " + one(), 0, {0, 0});
            const auto i =
                table().currentRow() >= 0 ? static_cast<std::size_t>(table().currentRow()) : p.size() - 1;
            const bool last = i + 1 == p.size() && !columns_.closed;
            const auto &a = p[i], &b = last ? p[i] : p[(i + 1) % p.size()];
            add("add " + one(), i + 1,
                last ? TwoFigures{a[0], a[1] + 0.05} : TwoFigures{(a[0] + b[0]) / 2, (a[1] + b[1]) / 2});
        });
        connect(away, &QPushButton::clicked, this, [this] { take_away(table().currentRow()); });
    }
    void refresh(const Wording& wording) override {
        const bool shown = columns_.shown(document().job());
        setVisible(shown);
        if (shown) RecordsPane::refresh(wording);
    }

  private:
    [[nodiscard]] QStringList cells(const TwoFigures& p) const override {
        return {QString::fromStdString(show_for_edit(columns_.kind, p[0], wording())),
                QString::fromStdString(show_for_edit(columns_.kind, p[1], wording()))};
    }
    [[nodiscard]] std::optional<QString> type(TwoFigures& p, int column, const QString& text) const override {
        return read_cell(columns_.kind, columns_.kind == Kind::length ? "length" : "number", text, wording(),
                         p[static_cast<std::size_t>(column)]);
    }
    void settle(Job& job) const override { columns_.settle(job); }
    void headings() override {
        const auto sign = QString::fromStdString(unit_sign(columns_.kind, wording()));
        const auto title = [&](const QString& name) { return sign.isEmpty() ? name : name + ", " + sign; };
        table().horizontalHeaderItem(0)->setText(title(columns_.first));
        table().horizontalHeaderItem(1)->setText(title(columns_.second));
    }
    [[nodiscard]] QString one() const { return columns_.closed ? "outline point" : "point"; }

    Columns columns_;
};

}  // namespace

Pane* make_outline_pane(Document& document, QWidget* parent) {
    return new PointsPane(
        document, [](Job & job) -> auto& { return job.shape.tray.outline; },
        {"outline", "Points of the outline, in order round the mouth", "outline point", 3, 3, 9},
        {"along", "across", Kind::length, true,
         [](const Job& job) { return job.shape.kind == ShapeKind::tray; }},
        parent);
}

Pane* make_profile_pane(Document& document, QWidget* parent) {
    return new PointsPane(
        document, [](Job & job) -> auto& { return job.shape.turned.profile; },
        {"profile", "Points of the profile, from the foot up", "point", 2, 3, 10},
        {"radius", "height", Kind::length, false,
         [](const Job& job) { return job.shape.kind == ShapeKind::turned; }},
        parent);
}

Pane* make_section_pane(Document& document, QWidget* parent) {
    return new PointsPane(
        document, [](Job & job) -> auto& { return job.shape.foil.points; },
        {"section-points", "Coordinates of the foil's section", "point", 0, 3, 10},
        {"along the chord", "above it", Kind::factor, false,
         [](const Job& job) {
             return job.shape.kind == ShapeKind::foil && job.shape.foil.section == FoilSection::points;
         }},
        parent);
}

Pane* make_gauge_pane(Document& document, std::function<std::size_t()> station, QWidget* parent) {
    const auto chosen = [station](const Job& job) -> const shape::Station* {
        const auto& list = job.shape.stations.stations;
        return station() < list.size() ? &list[station()] : nullptr;
    };
    return new PointsPane(
        document, [station](Job & job) -> auto& { return job.shape.stations.stations.at(station()).points; },
        {"gauge", "Points of the chosen station as a contour gauge gave them", "gauge point", 3, 3, 10},
        {"across", "above the bench", Kind::length, false,
         [chosen](const Job& job) {
             const auto* s = chosen(job);
             return shape::by_stations(job.shape.kind) && s != nullptr && !s->points.empty();
         },
         [station](Job& job) { shape::size_by_points(job.shape.stations.stations.at(station())); }},
        parent);
}

}  // namespace jig::app
