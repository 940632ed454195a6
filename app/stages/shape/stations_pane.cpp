// The stations of a shape as a table, and under it how fair their lines are.
#include <QPainter>
#include <QPushButton>

#include "app/slip/records_pane.hpp"
#include "app/theme/ink.hpp"
#include "core/stages/shape/starter_meshes.hpp"

namespace jig::app {
namespace {

/// The bend of the faired width and height along the length: a calm line stays on one side of its base.
class FairnessPlot : public QWidget {
  public:
    explicit FairnessPlot(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
        setObjectName("fairness");
        setAccessibleName("Bend of the faired lines along the length; humps are marked");
        setFixedHeight(120);
    }

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        // The palette's ground tells which inks are in use.
        const auto& k = ink(palette().color(QPalette::Window).lightness() < 100 ? Light::night : Light::day);
        const QRectF area = QRectF(rect()).adjusted(2, 18, -2, -16);
        p.setFont(word_font(9.5));
        p.setPen(k.faint);
        p.drawText(QRectF(2, 0, width(), 16), Qt::AlignLeft | Qt::AlignVCenter,
                   "bend: width solid, height dashed, humps ringed");
        p.setPen(k.rule);
        p.drawLine(QPointF(area.left(), area.center().y()), QPointF(area.right(), area.center().y()));
        try {
            const auto lines = shape::fair(document_.job().shape.stations);
            plot(p, area, lines.width, lines, k, Qt::SolidLine);
            plot(p, area, lines.height, lines, k, Qt::DashLine);
        } catch (const InputError& e) {
            p.setPen(k.clay);
            p.drawText(area, Qt::AlignCenter | Qt::TextWordWrap, QString::fromStdString(worded(e.problem())));
        }
    }

  private:
    static void plot(QPainter& p, const QRectF& area, const FairCurve& line,
                     const shape::FairedStations& lines, const Ink& k, Qt::PenStyle style) {
        constexpr int kSteps = 160;
        double largest = 1e-9;
        std::vector<double> bend;
        for (int i = 0; i <= kSteps; ++i) {
            bend.push_back(line.bend(lines.from + (lines.to - lines.from) * i / kSteps));
            largest = std::max(largest, std::abs(bend.back()));
        }
        QPolygonF path;
        const auto at = [&](int i) {
            return QPointF(
                area.left() + area.width() * i / kSteps,
                area.center().y() - area.height() / 2 * bend[static_cast<std::size_t>(i)] / largest);
        };
        for (int i = 0; i <= kSteps; ++i) path << at(i);
        p.setPen(QPen(k.petrol, 1.5, style));
        p.setBrush(Qt::NoBrush);
        p.drawPolyline(path);
        p.setPen(QPen(k.clay, 1.5));
        for (int i = 1; i < kSteps; ++i) {
            const double a = bend[static_cast<std::size_t>(i)], b = bend[static_cast<std::size_t>(i) + 1];
            if (a * b < 0 && std::max(std::abs(a), std::abs(b)) > 0.01 * largest) p.drawEllipse(at(i), 4, 4);
        }
    }
    Document& document_;
};

class StationsPane : public RecordsPane<shape::Station> {
    enum Column { kAt, kWidth, kHeight, kFullness, kLift };

  public:
    StationsPane(Document& document, QWidget* parent)
        : RecordsPane(
              document, [](Job & job) -> auto& { return job.shape.stations.stations; },
              {"stations", "Stations along the length", "station", 2, 3, 10},
              {{"", true, true, {}},
               {"", true, true, {}},
               {"", true, true, {}},
               {"fullness", true, true, {}},
               {"", true, true, {}}},
              true, parent) {
        auto* row = new QHBoxLayout();
        auto* more = new QPushButton("Add a station after it", this);
        more->setObjectName("add-station");
        auto* away = new QPushButton("Take it away", this);
        gauge_ = new QPushButton(this);
        gauge_->setObjectName("gauge-button");
        row->addWidget(more);
        row->addWidget(away);
        row->addStretch();
        box()->addLayout(row);
        auto* section = new QHBoxLayout();
        section->addWidget(gauge_);
        section->addStretch();
        box()->addLayout(section);
        points_ = make_gauge_pane(
            document, [this] { return chosen(); }, this);
        box()->addWidget(points_);
        plot_ = new FairnessPlot(document, this);
        box()->addWidget(plot_);
        connect(more, &QPushButton::clicked, this, [this] {
            const auto& s = records();
            if (s.empty()) return add("add station", 0, shape::Station{});
            const auto i = chosen();
            auto next = s[i];
            if (i + 1 < s.size()) {
                const auto& b = s[i + 1];
                next = {(next.at + b.at) / 2,         (next.width + b.width) / 2,
                        (next.height + b.height) / 2, (next.fullness + b.fullness) / 2,
                        (next.lift + b.lift) / 2,     {}};
            } else {
                next.at += 0.1;
            }
            add("add station", i + 1, next);
        });
        connect(away, &QPushButton::clicked, this, [this] { take_away(table().currentRow()); });
        connect(gauge_, &QPushButton::clicked, this, [this] {
            auto next = records();
            if (next.empty()) return;
            auto& s = next[chosen()];
            if (!s.points.empty()) {
                s.points.clear();
                return set("draw the section by fullness", std::move(next));
            }
            // The section as it is drawn now, to be typed over or pasted over.
            for (const auto& p : shape::station_outline(s, 9)) s.points.push_back({p.x(), p.y() + s.lift});
            set("type the section by points", std::move(next));
        });
        connect(&table(), &QTableWidget::currentCellChanged, this, [this] { show_chosen(); });
    }
    void refresh(const Wording& wording) override {
        setVisible(shape::by_stations(document().job().shape.kind));
        RecordsPane::refresh(wording);
        plot_->update();
        show_chosen();
    }

  private:
    /// The station in hand: the table's row, else the last; 0 where there is none yet.
    [[nodiscard]] std::size_t chosen() const {
        const auto count = records().size();
        const int row = table().currentRow();
        return row >= 0 && static_cast<std::size_t>(row) < count ? static_cast<std::size_t>(row)
               : count > 0                                       ? count - 1
                                                                 : 0;
    }
    void show_chosen() {
        gauge_->setEnabled(!records().empty());
        if (records().empty()) return points_->refresh(wording());
        const auto& s = records()[chosen()];
        gauge_->setText(s.points.empty() ? "Type its section by points" : "Draw it by fullness again");
        gauge_->setToolTip(
            s.points.empty()
                ? "Points across and above the bench, as a contour gauge gives them; one half is "
                  "enough"
                : "Forgets the points of this section");
        points_->refresh(wording());
    }
    static Kind kind_of(int column) { return column == kFullness ? Kind::factor : Kind::length; }
    static double& cell(shape::Station& s, int column) {
        return column == kAt       ? s.at
               : column == kWidth  ? s.width
               : column == kHeight ? s.height
               : column == kLift   ? s.lift
                                   : s.fullness;
    }
    [[nodiscard]] QStringList cells(const shape::Station& s) const override {
        QStringList out;
        auto copy = s;
        for (int c = kAt; c <= kLift; ++c)
            out << (c == kFullness && !s.points.empty()
                        ? QString("%1 points").arg(s.points.size())
                        : QString::fromStdString(show_for_edit(kind_of(c), cell(copy, c), wording())));
        return out;
    }
    [[nodiscard]] std::optional<QString> type(shape::Station& s, int column,
                                              const QString& text) const override {
        auto changed = s;
        // A typed fullness takes the place of measured points.
        if (column == kFullness) changed.points.clear();
        if (const auto why = read_cell(kind_of(column), column == kFullness ? "number" : "length", text,
                                       wording(), cell(changed, column)))
            return why;
        if (changed.fullness < 1 || changed.fullness > 12) return QString("Fullness runs from 1 to 12");
        if (changed.width < 0 || changed.height < 0) return QString("A size is not negative");
        s = changed;
        return std::nullopt;
    }
    void headings() override {
        const auto sign = QString::fromStdString(unit_sign(Kind::length, wording()));
        table().horizontalHeaderItem(kAt)->setText("at " + sign);
        table().horizontalHeaderItem(kWidth)->setText("wide");
        table().horizontalHeaderItem(kHeight)->setText("high");
        table().horizontalHeaderItem(kLift)->setText("lift");
    }

    QPushButton* gauge_;
    Pane* points_;
    FairnessPlot* plot_;
};

}  // namespace

Pane* make_stations_pane(Document& document, QWidget* parent) {
    return new StationsPane(document, parent);
}

}  // namespace jig::app
