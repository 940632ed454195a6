#include "app/stages/heat/oven_pane.hpp"

#include <QLabel>
#include <QPushButton>

#include "app/charts/plot.hpp"
#include "app/slip/flow_layout.hpp"
#include "app/slip/records_pane.hpp"
#include "app/slip/words.hpp"

namespace jig::app {
namespace {

using heat::OvenSpot;

/// Its eight corners and its middle, where a map is begun: nothing is off until it has been read.
std::vector<OvenSpot> corners_and_middle() {
    std::vector<OvenSpot> out{{0.5, 0.5, 0.5, 0}};
    for (const double z : {0.1, 0.9}) {
        for (const double x : {0.1, 0.9}) {
            for (const double y : {0.1, 0.9}) out.push_back({x, y, z, 0});
        }
    }
    return out;
}

class OvenPane : public RecordsPane<OvenSpot> {
    enum Column { kIn, kLeft, kUp, kOff };

  public:
    OvenPane(Document& document, QWidget* parent)
        : RecordsPane(
              document, [](Job & job) -> auto& { return job.heat.oven.map; },
              {"oven-map", "The oven's map: where it was read, and by how much it was off", "place", 0, 1, 9,
               true},
              {{"in from the door", true, true, {}},
               {"from the left", true, true, {}},
               {"from the floor", true, true, {}},
               {"read over what was set", true, true, {}}},
              false, parent),
          document_(document) {
        said_ = new QLabel(this);
        said_->setObjectName("oven-ends");
        said_->setWordWrap(true);
        box()->insertWidget(0, said_);
        auto* row = new QWidget(this);
        auto* flow = new FlowLayout(row, 6, 6);
        const auto button = [&](const char* name, const QString& text, const QString& tip) {
            auto* out = new QPushButton(text, row);
            out->setObjectName(name);
            out->setToolTip(tip);
            flow->addWidget(out);
            return out;
        };
        nine_ =
            button("oven-nine", "Begin with corners and middle",
                   "Nine places; type beside each what its thermometer read over what the oven was set to");
        connect(nine_, &QPushButton::clicked, this,
                [this] { set("begin the oven's map", corners_and_middle()); });
        connect(button("oven-add", "Add a place", "Where else it was read"), &QPushButton::clicked, this,
                [this] { add("add a place to the oven's map", records().size(), OvenSpot()); });
        connect(button("oven-keep", "Keep this oven for new jobs", "How it is built, its heater and its map"),
                &QPushButton::clicked, this, [this] { emit wanted("keep-oven"); });
        box()->addWidget(row);
    }

    void refresh(const Wording& wording) override {
        RecordsPane::refresh(wording);
        const auto& oven = document_.job().heat.oven;
        table().setVisible(!records().empty());
        nine_->setVisible(records().empty());
        if (records().empty()) {
            said_->setText(
                "<b>The oven</b> has no map: its ends are taken to be as warm as it is set. Hold it empty at "
                "the heat that is used most, and read it at its corners.");
            return;
        }
        const auto* cool = heat::coolest(oven);
        const auto* warm = heat::warmest(oven);
        const auto end = [&](const char* name, const OvenSpot* spot, const char* way) {
            return spot == nullptr ? QString("no %1 end").arg(name)
                                   : QString("its %1 end (%2) is %3 %4 what it is set to")
                                         .arg(name, QString::fromStdString(heat::said_of(*spot)),
                                              shown(Kind::warming, std::abs(spot->off), wording), way);
        };
        said_->setText(
            QString("<b>The oven</b>: at %1, %2; %3. Both grow with its warmth over the room's. Every cure "
                    "is worked out at either end.")
                .arg(shown(Kind::temperature, oven.mapped_at, wording), end("cool", cool, "under"),
                     end("warm", warm, "over")));
    }

  private:
    [[nodiscard]] QStringList cells(const OvenSpot& s) const override {
        const auto edit = [&](Kind kind, double value) {
            return QString::fromStdString(show_for_edit(kind, value, wording()));
        };
        return {edit(Kind::ratio, s.x), edit(Kind::ratio, s.y), edit(Kind::ratio, s.z),
                edit(Kind::warming, s.off)};
    }
    [[nodiscard]] std::optional<QString> type(OvenSpot& s, int column, const QString& text) const override {
        double read = 0;
        if (column == kOff) {
            if (auto why = read_cell(Kind::warming, "difference of two heats", text, wording(), read))
                return why;
            if (std::abs(read) > 60) return QString("\"%1\" is too far off for one oven").arg(text);
            s.off = read;
            return std::nullopt;
        }
        if (auto why = read_cell(Kind::ratio, "share of its length, width or height", text, wording(), read))
            return why;
        if (read < 0 || read > 1) return QString("\"%1\" lies outside the oven: 0 to 100 %").arg(text);
        (column == kIn ? s.x : column == kLeft ? s.y : s.z) = read;
        return std::nullopt;
    }
    void headings() override {
        const auto sign = [&](Kind kind) { return QString::fromStdString(unit_sign(kind, wording())); };
        table().horizontalHeaderItem(kIn)->setText("from the door, " + sign(Kind::ratio));
        table().horizontalHeaderItem(kLeft)->setText("from left, " + sign(Kind::ratio));
        table().horizontalHeaderItem(kUp)->setText("up, " + sign(Kind::ratio));
        table().horizontalHeaderItem(kOff)->setText("off, " + sign(Kind::warming));
    }
    Document& document_;
    QLabel* said_ = nullptr;
    QPushButton* nine_ = nullptr;
};

}  // namespace

Pane* make_oven_pane(Document& document, QWidget* parent) {
    return new OvenPane(document, parent);
}

}  // namespace jig::app
