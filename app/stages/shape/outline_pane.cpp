#include <QPushButton>

#include "app/slip/records_pane.hpp"

namespace jig::app {
namespace {

using OutlinePoint = std::array<double, 2>;

class OutlinePane : public RecordsPane<OutlinePoint> {
  public:
    OutlinePane(Document& document, QWidget* parent)
        : RecordsPane(
              document, [](Job & job) -> auto& { return job.shape.tray.outline; },
              {"outline", "Points of the outline, in order round the mouth", "outline point", 3, 3, 9},
              {{"along", true, true, {}}, {"across", true, true, {}}}, true, parent) {
        auto* row = new QHBoxLayout();
        auto* add_point = new QPushButton("Add a point after it", this);
        auto* away = new QPushButton("Take it away", this);
        row->addWidget(add_point);
        row->addWidget(away);
        row->addStretch();
        box()->addLayout(row);
        connect(add_point, &QPushButton::clicked, this, [this] {
            const auto& p = records();
            const auto i =
                table().currentRow() >= 0 ? static_cast<std::size_t>(table().currentRow()) : p.size() - 1;
            const auto &a = p[i], &b = p[(i + 1) % p.size()];
            add("add outline point", i + 1, {(a[0] + b[0]) / 2, (a[1] + b[1]) / 2});
        });
        connect(away, &QPushButton::clicked, this, [this] { take_away(table().currentRow()); });
    }
    void refresh(const Wording& wording) override {
        setVisible(document().job().shape.kind == ShapeKind::tray);
        RecordsPane::refresh(wording);
    }

  private:
    [[nodiscard]] QStringList cells(const OutlinePoint& p) const override {
        return {QString::fromStdString(show_for_edit(Kind::length, p[0], wording())),
                QString::fromStdString(show_for_edit(Kind::length, p[1], wording()))};
    }
    [[nodiscard]] std::optional<QString> type(OutlinePoint& p, int column,
                                              const QString& text) const override {
        return read_cell(Kind::length, "length", text, wording(), p[static_cast<std::size_t>(column)]);
    }
    void headings() override {
        const auto sign = QString::fromStdString(unit_sign(Kind::length, wording()));
        table().horizontalHeaderItem(0)->setText("along, " + sign);
        table().horizontalHeaderItem(1)->setText("across, " + sign);
    }
};

}  // namespace

Pane* make_outline_pane(Document& document, QWidget* parent) {
    return new OutlinePane(document, parent);
}

}  // namespace jig::app
