// The readings of a drop test, pasted or typed, with the line through them, and the pump-down that is
// planned.
#include <QPushButton>

#include "app/charts/chart_view.hpp"
#include "app/slip/records_pane.hpp"

namespace jig::app {
namespace {

using Reading = bag::DropTest::Reading;

class BagPane : public RecordsPane<Reading> {
    enum Column { kTime, kPressure };

  public:
    BagPane(Document& document, QWidget* parent)
        : RecordsPane(
              document, [](Job & job) -> auto& { return job.bag.drop.readings; },
              {"drop-readings", "Readings of the drop test", "reading", 0, 1, 10, false},
              {{"after", true, true, {}}, {"pressure", true, true, {}}}, false, parent),
          document_(document) {
        infusion_ = make_infusion_pane(document, this);
        connect(infusion_, &Pane::wanted, this, &Pane::wanted);
        box()->insertWidget(0, infusion_);
        layers_ = make_layers_pane(document, this);
        connect(layers_, &Pane::wanted, this, &Pane::wanted);
        box()->insertWidget(1, layers_);
        rim_ = make_rim_pane(document, this);
        connect(rim_, &Pane::wanted, this, &Pane::wanted);
        box()->insertWidget(2, rim_);
        auto* more = new QPushButton("Add a reading", this);
        more->setObjectName("add-reading");
        more->setToolTip("Or paste lines of time and pressure into the table");
        connect(more, &QPushButton::clicked, this, [this] {
            Reading next;
            if (!records().empty()) {
                next = records().back();
                next.seconds +=
                    records().size() > 1 ? next.seconds - records()[records().size() - 2].seconds : 60;
            } else if (const auto& f = document_.findings(); f.bag) {
                next.pressure = std::round(f.bag->reached / 100) * 100;
            }
            add("add a reading", records().size(), next);
        });
        box()->addWidget(more, 0, Qt::AlignLeft);
        for (auto* plot : {&drop_, &down_}) {
            *plot = new PlotView(this);
            (*plot)->setMinimumHeight(210);
            box()->addWidget(*plot);
        }
        drop_->setObjectName("drop-plot");
        down_->setObjectName("down-plot");
    }

    void set_ink(const Ink& ink) override { ink_ = &ink; }

    void refresh(const Wording& wording) override {
        RecordsPane::refresh(wording);
        const auto& f = document_.findings();
        const bool closed = f.bag && f.bag->closed;
        for (auto* child : findChildren<QWidget*>(QString(), Qt::FindDirectChildrenOnly)) {
            if (child != drop_ && child != down_ && child != infusion_ && child != layers_ && child != rim_)
                child->setVisible(closed);
        }
        infusion_->refresh(wording);
        layers_->refresh(wording);
        rim_->refresh(wording);
        const auto plots = plots_of(document_.job(), f, Stage::bag, wording);
        down_->setVisible(!plots.empty());
        drop_->setVisible(plots.size() > 1);
        if (!plots.empty()) down_->show_plot(plots[0], *ink_, wording);
        if (plots.size() > 1) drop_->show_plot(plots[1], *ink_, wording);
    }

  private:
    [[nodiscard]] QStringList cells(const Reading& r) const override {
        return {QString::fromStdString(show_for_edit(Kind::duration, r.seconds, wording())),
                QString::fromStdString(show_for_edit(Kind::pressure, r.pressure, wording()))};
    }
    [[nodiscard]] std::optional<QString> type(Reading& r, int column, const QString& text) const override {
        auto& into = column == kTime ? r.seconds : r.pressure;
        double read = 0;
        if (auto why = read_cell(column == kTime ? Kind::duration : Kind::pressure,
                                 column == kTime ? "time" : "pressure", text, wording(), read))
            return why;
        if (read < 0) return QString("\"%1\" lies below zero").arg(text);
        into = read;
        return std::nullopt;
    }
    void headings() override {
        const auto unit = [&](Kind kind) { return QString::fromStdString(unit_sign(kind, wording())); };
        table().horizontalHeaderItem(kTime)->setText("after, " + unit(Kind::duration));
        table().horizontalHeaderItem(kPressure)->setText("absolute, " + unit(Kind::pressure));
    }
    Document& document_;
    Pane *infusion_ = nullptr, *layers_ = nullptr, *rim_ = nullptr;
    PlotView *drop_ = nullptr, *down_ = nullptr;
    const Ink* ink_ = &app::ink(Light::day);
};

}  // namespace

Pane* make_bag_pane(Document& document, QWidget* parent) {
    return new BagPane(document, parent);
}

}  // namespace jig::app
