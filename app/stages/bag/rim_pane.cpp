// What stands on the land of the film: by the rules, or each where the maker has put it.
#include <QLabel>
#include <QMenu>
#include <QPushButton>

#include "app/slip/flow_layout.hpp"
#include "app/slip/records_pane.hpp"
#include "app/slip/widgets.hpp"
#include "app/slip/words.hpp"

namespace jig::app {
namespace {

using bag::OnRim;

class RimPane : public RecordsPane<OnRim> {
    enum Column { kWhat, kAt, kStands };

  public:
    RimPane(Document& document, QWidget* parent)
        : RecordsPane(
              document, [](Job & job) -> auto& { return job.bag.placed; },
              {"bag-rim", "What stands on the film's land, by its place along it", "place on the rim", 0, 2,
               10},
              {{"what", true, false, [](int) { return words_all<RimThing>(); }},
               {"along the rim", true, true, {}},
               {"clear by", false, true, {}}},
              false, parent) {
        box()->insertWidget(0, wrapped("On the rim", this, word_font(10.5, true)));
        told_ = wrapped("", this, word_font(10));
        told_->setObjectName("rim-told");
        box()->insertWidget(1, told_);
        auto* buttons = new QWidget(this);
        auto* more = new QPushButton("Add", buttons);
        more->setObjectName("add-to-rim");
        auto* menu = new QMenu(more);
        for (std::size_t i = 0; i < Words<RimThing>::all.size(); ++i) {
            const auto what = static_cast<RimThing>(i);
            auto* action = menu->addAction("a " + text_of(jig::said(what)));
            action->setObjectName("rim-add-" + text_of(file_word(what)));
            connect(action, &QAction::triggered, this, [this, what] { add_one(what); });
        }
        more->setMenu(menu);
        mine_ = new QPushButton("Place them myself", buttons);
        mine_->setObjectName("rim-mine");
        connect(mine_, &QPushButton::clicked, this, [this] {
            auto list = records();
            for (const auto what : {RimThing::hose, RimThing::gauge, RimThing::pleat})
                list = taken_over(list, what);
            set("take the rim over", std::move(list));
        });
        away_ = new QPushButton("Take it away", buttons);
        away_->setObjectName("rim-away");
        connect(away_, &QPushButton::clicked, this, [this] { take_away(table().currentRow()); });
        fresh_ = new QPushButton("By the rules again", buttons);
        fresh_->setObjectName("rim-fresh");
        connect(fresh_, &QPushButton::clicked, this, [this] { set("lay the rim by the rules", {}); });
        auto* flow = new FlowLayout(buttons, 6, 6);
        flow->addWidget(mine_);
        flow->addWidget(more);
        flow->addWidget(away_);
        flow->addWidget(fresh_);
        box()->addWidget(buttons);
    }

    void refresh(const Wording& wording) override {
        RecordsPane::refresh(wording);
        const auto* rim = rim_now();
        setVisible(rim != nullptr && !rim->things.empty());
        if (rim == nullptr) return;
        QStringList parts;
        const auto say = [&](RimThing what, const char* one, const char* many) {
            const int n = rim->count(what);
            if (n == 0) return;
            parts << QString("%1 %2 %3")
                         .arg(n)
                         .arg(n == 1 ? one : many)
                         .arg(document().job().bag.placed_of(what) > 0 ? "where you have put them"
                                                                       : "by the rules");
        };
        say(RimThing::hose, "hose", "hoses");
        say(RimThing::gauge, "gauge", "gauges");
        say(RimThing::pleat, "pleat", "pleats");
        told_->setText(parts.join("; ") + ". Drag them on the stand.");
        const bool own = !records().empty();
        table().setVisible(own);
        away_->setVisible(own);
        fresh_->setVisible(own);
    }

  private:
    [[nodiscard]] const bag::Rim* rim_now() const {
        const auto& f = document().findings();
        return f.bag && f.bag->closed ? &f.bag->rim : nullptr;
    }
    [[nodiscard]] double way() const {
        const auto* rim = rim_now();
        return rim != nullptr && rim->length > 0 ? rim->length : 1;
    }
    /// What stands by the rules becomes the maker's before he adds to it.
    [[nodiscard]] std::vector<OnRim> taken_over(const std::vector<OnRim>& list, RimThing what) const {
        const auto* rim = rim_now();
        if (rim == nullptr) return list;
        bag::Choices with;
        with.placed = list;
        return bag::with_own(with, *rim, what);
    }
    /// In the middle of the longest stretch without one of its kind.
    void add_one(RimThing what) {
        auto list = taken_over(records(), what);
        std::vector<double> at;
        for (const auto& p : list) {
            if (p.what == what) at.push_back(p.at);
        }
        list.push_back({what, middle_of_widest_gap(std::move(at))});
        set("add a " + text_of(jig::said(what)), std::move(list));
    }
    [[nodiscard]] QStringList cells(const OnRim& p) const override {
        QString clear = "—";
        if (const auto* rim = rim_now()) {
            for (const auto& s : rim->things) {
                if (s.what != p.what || std::abs(s.at - p.at) > 1e-9) continue;
                clear = p.what == RimThing::pleat
                            ? QString::fromStdString(jig::show(Kind::length, s.height, wording())) + " tall"
                            : QString::fromStdString(jig::show(Kind::length, s.off, wording()));
            }
        }
        return {text_of(jig::said(p.what)),
                QString::fromStdString(show_for_edit(Kind::length, p.at * way(), wording())), clear};
    }
    [[nodiscard]] std::optional<QString> type(OnRim& p, int column, const QString& text) const override {
        if (column == kWhat) return pick(p.what, text);
        if (column == kStands) return std::nullopt;
        double length = 0;
        if (auto why = read_cell(Kind::length, "length", text, wording(), length)) return why;
        if (length < 0 || length > way()) return QString("The rim is shorter than %1").arg(text);
        p.at = length / way();
        return std::nullopt;
    }
    void headings() override {
        table().horizontalHeaderItem(kAt)->setText(
            "along, " + QString::fromStdString(unit_sign(Kind::length, wording())));
    }
    QLabel* told_;
    QPushButton *mine_, *away_, *fresh_;
};

}  // namespace

Pane* make_rim_pane(Document& document, QWidget* parent) {
    return new RimPane(document, parent);
}

}  // namespace jig::app
