// The programmes of the tool's cures, leg by leg, each with what it does.
#include <map>
#include <QLabel>
#include <QPushButton>

#include "app/charts/chart_view.hpp"
#include "app/slip/flow_layout.hpp"
#include "app/slip/records_pane.hpp"
#include "app/stages/heat/folds_pane.hpp"
#include "app/stages/heat/oven_pane.hpp"
#include "core/stages/heat/legs.hpp"
#include "core/stages/heat/sensors.hpp"

namespace jig::app {
namespace {

using heat::Leg;

/// Whether a cure is gone through, has legs that were typed, or is offered. By itself a part is cured where
/// the maker says so: that is where he says it.
bool has_something(const Document& document, CureOf of) {
    const auto& heat = document.findings().heat;
    const auto cured = [&](CureOf other) { return heat && heat->cures->find(other) != nullptr; };
    return cured(of) || !heat::legs_in(document.job().heat, of).empty() ||
           (of == CureOf::part_free && cured(CureOf::part));
}

class CurePane : public RecordsPane<Leg> {
    enum Column { kTo, kRate, kHold };

  public:
    CurePane(Document& document, CureOf of, QWidget* parent)
        : RecordsPane(
              document, [of](Job & job) -> auto& { return heat::legs_in(job.heat, of); },
              {"legs-" + QString::fromStdString(std::string(file_word(of))),
               "Programme: " + QString::fromStdString(std::string(said(of))), "leg", 0, 1, 8, false},
              {{"to", true, true, {}}, {"at", true, true, {}}, {"then hold", true, true, {}}}, false, parent),
          document_(document),
          of_(of) {
        title_ = new QLabel(this);
        title_->setWordWrap(true);
        box()->insertWidget(0, title_);
        auto* row = new QWidget(this);
        auto* flow = new FlowLayout(row, 6, 6);
        auto* more = new QPushButton("Add a leg", row);
        more->setObjectName("add-" + rules_name());
        more->setToolTip("The first leg of your own takes the place of the usual programme");
        connect(more, &QPushButton::clicked, this, [this] {
            if (!records().empty()) {
                auto next = records().back();
                next.to += 20;
                return add("add a leg", records().size(), next);
            }
            // Begun with the usual ones, so that nothing changes but what the maker then types.
            const auto& f = document_.findings();
            const auto* run = f.heat ? f.heat->cures->find(of_) : nullptr;
            add("add a leg", 0, run != nullptr && !run->legs.empty() ? run->legs.front() : Leg());
        });
        fast_ = new QPushButton("Find the soonest", row);
        fast_->setObjectName("fast-" + QString::fromStdString(std::string(file_word(of))));
        fast_->setToolTip(
            "Tries programmes of one and two legs: as cured as now (free-standing, to the Tg that "
            "its use asks for), nothing hotter than it bears");
        connect(fast_, &QPushButton::clicked, this,
                [this] { emit wanted("fast-" + QString::fromStdString(std::string(file_word(of_)))); });
        flow->addWidget(more);
        flow->addWidget(fast_);
        box()->addWidget(row);
        cure_ = new PlotView(this);
        cure_->setObjectName("cure-" + rules_name());
        box()->addWidget(cure_);
        places_ = new RecordTable({{"place", false, false, {}},
                                   {"hottest", false, true, {}},
                                   {"gelled", false, true, {}},
                                   {"cured", false, true, {}}},
                                  false, this);
        places_->setObjectName("places-" + rules_name());
        places_->setAccessibleName("What each place does in this cure");
        box()->addWidget(places_);
        sensors_ = new QLabel(this);
        sensors_->setObjectName("sensors-" + rules_name());
        sensors_->setWordWrap(true);
        sensors_->setFont(word_font(9.5));
        box()->addWidget(sensors_);
        flags_ = new QPushButton("Show them on the tool", this);
        flags_->setObjectName("flags-" + rules_name());
        flags_->setToolTip(
            "The tool stands in place of the charts, each thermocouple a flag with its number");
        connect(flags_, &QPushButton::clicked, this, [this] { emit wanted("flags-" + rules_name()); });
        box()->addWidget(flags_, 0, Qt::AlignLeft);
        go_said_ = new QLabel(this);
        go_said_->setWordWrap(true);
        go_said_->setObjectName("go-said-" + rules_name());
        box()->addWidget(go_said_);
        go_ = new PlotView(this);
        go_->setObjectName("go-" + rules_name());
        go_->setMinimumHeight(200);
        box()->addWidget(go_);
    }

    void set_ink(const Ink& ink) override { ink_ = &ink; }

    void refresh(const Wording& wording) override {
        RecordsPane::refresh(wording);
        const auto& f = document_.findings();
        const auto* run = f.heat ? f.heat->cures->find(of_) : nullptr;
        setVisible(has_something(document_, of_));
        fast_->setVisible(run != nullptr);
        auto name = QString::fromStdString(std::string(said(of_)));
        name[0] = name[0].toUpper();
        const QString heading = QString("<span style='font-weight:600'>%1</span>: ").arg(name);
        table().setVisible(!records().empty());
        title_->setText(heading + (records().empty() && of_ == CureOf::part_free
                                       ? "it has no cure of its own after the tool; a leg gives it one."
                                   : records().empty()
                                       ? "the usual programme of its resin and the shop's rates."
                                       : "your programme; without a leg it is the usual one. Its corners are "
                                         "drawn in the chart too."));
        cure_->setVisible(run != nullptr);
        places_->setVisible(run != nullptr && !run->places.empty());
        sensors_->setVisible(run != nullptr);
        flags_->setVisible(run != nullptr);
        const auto* go = run != nullptr ? f.heat->go(of_) : nullptr;
        go_->setVisible(go != nullptr);
        go_said_->setVisible(go != nullptr);
        if (run == nullptr) return;
        cure_->show_plot(degree_plot(*run), *ink_, wording);
        show_places(*run, wording);
        if (go == nullptr) return;
        go_said_->setText(said_of(*go, wording));
        go_->show_plot(go_plot(*go, name, wording), *ink_, wording);
    }

  private:
    void show_places(const heat::CureRun& run, const Wording& wording) {
        const auto& job = document_.job();
        QList<QStringList> rows;
        QList<QString> tips;
        for (const auto& p : heat::places_of(run, job.heat.within)) {
            const auto name = p.name.empty() ? QString("elsewhere") : QString::fromStdString(p.name);
            rows << QStringList{
                name, shown(Kind::temperature, p.peak, wording),
                p.gels ? (*p.gels > 0 ? shown(Kind::duration, *p.gels, wording) : "before") : "never",
                shown(Kind::ratio, p.cure, wording)};
            tips << QString("%1: %2%3")
                        .arg(name,
                             p.near ? "near the air after " + shown(Kind::duration, *p.near, wording)
                                    : QString("never near the air"),
                             p.Tg ? "; Tg " + shown(Kind::temperature, *p.Tg, wording) : QString());
        }
        places_->show_rows(rows, tips);
        fit_height(places_, 1, 8);
        QStringList lines;
        for (const auto& s : heat::sensors_of(run, job.heat))
            lines << QString("<p style='margin:1px 0'>%1 · %2: %3%4.</p>")
                         .arg(lines.size() + 1)
                         .arg(QString::fromStdString(s.where).toHtmlEscaped(),
                              QString::fromStdString(s.for_what),
                              s.alarm ? ", at " + shown(Kind::temperature, *s.alarm, wording) : QString());
        sensors_->setText("Thermocouples" + lines.join(QString()));
    }
    /// What all of it would do at once, and how much may be.
    [[nodiscard]] QString said_of(const heat::OneGo& go, const Wording& wording) const {
        const auto& f = document_.findings();
        const bool goes_apart = heat::lays_part(of_) && f.part && f.part->goes.size() > 1;
        const auto whole = QString(goes_apart ? "The thickest of its goes, %1 of plies, would come to %2"
                                              : "All %1 of its plies at once would come to %2")
                               .arg(shown(Kind::thickness, go.laid, wording),
                                    shown(Kind::temperature, go.whole.peak, wording));
        const auto limit = of_ == CureOf::on_plug && f.shell ? f.shell->go
                           : f.part                          ? heat::go_limit(go, f.part->resin)
                                                             : GoLimit{};
        const int goes = limit.goes(go.laid);
        if (goes == 1) return whole + ": it may be laid in one go.";
        return QString("%1; %2 is the most in one go (%3), so it is laid in %4 or more.")
            .arg(whole, shown(Kind::thickness, limit.most, wording),
                 QString::fromStdString(worded(limit.why, wording)))
            .arg(goes);
    }
    [[nodiscard]] QString rules_name() const { return QString::fromStdString(std::string(file_word(of_))); }
    [[nodiscard]] QStringList cells(const Leg& l) const override {
        return {QString::fromStdString(show_for_edit(Kind::temperature, l.to, wording())),
                QString::fromStdString(show_for_edit(Kind::heating, l.rate, wording())),
                QString::fromStdString(show_for_edit(Kind::hours, l.hold, wording()))};
    }
    [[nodiscard]] std::optional<QString> type(Leg& l, int column, const QString& text) const override {
        auto& into = column == kTo ? l.to : column == kRate ? l.rate : l.hold;
        double read = 0;
        const auto kind = column == kTo ? Kind::temperature : column == kRate ? Kind::heating : Kind::hours;
        if (auto why = read_cell(kind,
                                 column == kTo     ? "heat"
                                 : column == kRate ? "rate"
                                                   : "hold",
                                 text, wording(), read))
            return why;
        if (column == kTo && (read < 263 || read > 600))
            return QString("\"%1\" is no heat for a tool").arg(text);
        if (column == kRate && (read < 1e-5 || read > 1))
            return QString("\"%1\" is no rate of an oven; both ways are written without a sign").arg(text);
        if (column == kHold && (read < 0 || read > heat::kLongestHold))
            return QString("\"%1\" is no time to hold").arg(text);
        into = read;
        return std::nullopt;
    }
    void headings() override {
        const auto unit = [&](Kind kind) { return QString::fromStdString(unit_sign(kind, wording())); };
        table().horizontalHeaderItem(kTo)->setText("to, " + unit(Kind::temperature));
        table().horizontalHeaderItem(kRate)->setText("at, " + unit(Kind::heating));
        table().horizontalHeaderItem(kHold)->setText("then hold, " + unit(Kind::hours));
    }
    Document& document_;
    CureOf of_;
    QLabel* title_ = nullptr;
    PlotView* cure_ = nullptr;
    RecordTable* places_ = nullptr;
    QLabel *sensors_ = nullptr, *go_said_ = nullptr;
    QPushButton *flags_ = nullptr, *fast_ = nullptr;
    PlotView* go_ = nullptr;
    const Ink* ink_ = &app::ink(Light::day);
};

class HeatPane : public Pane {
  public:
    HeatPane(Document& document, QWidget* parent) : Pane(parent), document_(document) {
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(0, 0, 0, 0);
        box->setSpacing(14);
        box->addLayout(cures_ = new QVBoxLayout());
        cures_->setSpacing(14);
        for (auto* pane : {make_folds_pane(document, this), make_oven_pane(document, this)}) {
            take(pane);
            box->addWidget(pane);
        }
    }
    void refresh(const Wording& wording) override {
        // A cure that the job does not have is not laid out before it does: most jobs have three of eight.
        for (std::size_t i = 0; i < Words<CureOf>::all.size(); ++i) {
            const auto of = static_cast<CureOf>(i);
            if (of_cure_.contains(of) || !has_something(document_, of)) continue;
            auto* pane = of_cure_[of] = new CurePane(document_, of, this);
            take(pane);
            pane->set_ink(*ink_);
            cures_->insertWidget(static_cast<int>(std::distance(of_cure_.begin(), of_cure_.find(of))), pane);
        }
        for (auto* pane : panes_) pane->refresh(wording);
    }
    void set_ink(const Ink& ink) override {
        ink_ = &ink;
        for (auto* pane : panes_) pane->set_ink(ink);
    }

  private:
    void take(Pane* pane) {
        panes_.push_back(pane);
        connect(pane, &Pane::wanted, this, &Pane::wanted);
    }
    Document& document_;
    QVBoxLayout* cures_ = nullptr;
    std::map<CureOf, Pane*> of_cure_;
    std::vector<Pane*> panes_;
    const Ink* ink_ = &app::ink(Light::day);
};

}  // namespace

Pane* make_heat_pane(Document& document, QWidget* parent) {
    return new HeatPane(document, parent);
}

}  // namespace jig::app
