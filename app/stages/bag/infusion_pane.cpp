// The hoses of an infusion, plans of them side by side, and fronts that were seen.
#include <algorithm>

#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QRegularExpression>

#include "app/slip/flow_layout.hpp"
#include "app/slip/records_pane.hpp"
#include "app/slip/words.hpp"
#include "core/stages/bag/flow.hpp"

namespace jig::app {
namespace {

using bag::Port;
using bag::SeenFront;

QString text(Kind kind, double value, const Wording& w) {
    return QString::fromStdString(show_for_edit(kind, value, w));
}

constexpr const char* kAllRound = "all round";
constexpr const char* kTo = " to ";
constexpr const char* kWith = " with ";
constexpr const char* kOf = " of ";

/// The same to a millimetre or a hundredth of an inch, as hoses are laid.
QString rounded(Kind kind, double value, const Wording& w) {
    const double step = w.system == UnitSystem::metric ? 1e-3 : 2.54e-4;
    return text(kind, std::round(value / step) * step, w);
}

/// Two lengths with a semicolon between, as a place is written.
std::optional<QString> read_place(const QString& words, const Wording& w, double& along, double& across) {
    const auto parts = words.split(';');
    if (parts.size() != 2) return QString("\"%1\" is no place: write along; across").arg(words);
    double a = 0, b = 0;
    if (auto why = read_cell(Kind::length, "length", parts[0].trimmed(), w, a)) return why;
    if (auto why = read_cell(Kind::length, "length", parts[1].trimmed(), w, b)) return why;
    if (std::abs(a) > 50 || std::abs(b) > 50) return QString("\"%1\" lies off every tool").arg(words);
    along = a;
    across = b;
    return std::nullopt;
}

class HosePane : public Pane {
  public:
    HosePane(Document& document, QWidget* parent) : Pane(parent), document_(document) {
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(0, 0, 0, 0);
        box->setSpacing(6);
        title_ = new QLabel(this);
        title_->setWordWrap(true);
        box->addWidget(title_);
        table_ = new RecordTable({{"hose", true, false, [](int) { return words_all<PortUse>(); }},
                                  {"lies", true, false, [](int) { return words_all<PortKind>(); }},
                                  {"where", true, true, {}},
                                  {"takes", false, true, {}},
                                  {"opens", true, false, [](int) { return words_all<PortOpens>(); }},
                                  {"after", true, true, {}}},
                                 false, this);
        table_->setObjectName("hoses");
        table_->verticalHeader()->hide();
        // A line's ends are long to write: the first column leaves them its room.
        table_->horizontalHeader()->setSectionResizeMode(kUse, QHeaderView::ResizeToContents);
        table_->horizontalHeader()->setSectionResizeMode(kAfter, QHeaderView::Stretch);
        table_->setAccessibleName("Hoses: where they lie, when they open, what they take");
        box->addWidget(table_);
        connect(table_, &RecordTable::typed, this, [this](int row, int column, const QString& words) {
            auto next = ports();
            if (row < 0 || row >= static_cast<int>(next.size())) return;
            if (const auto why = type(next[static_cast<std::size_t>(row)], column, words.trimmed())) {
                emit document_.refused(*why);
                return refresh(wording_);
            }
            set(QString("change hose %1").arg(row + 1), std::move(next));
        });
        connect(table_, &RecordTable::remove_wanted, this, [this](int row) {
            auto next = ports();
            if (row < 0 || row >= static_cast<int>(next.size())) return;
            next.erase(next.begin() + row);
            set("take a hose away", std::move(next));
        });
        auto* row = new FlowLayout(nullptr, 6, 6);
        for (const auto use : {PortUse::feed, PortUse::vent}) {
            auto* more = new QPushButton(use == PortUse::feed ? "Add a feed" : "Add a vent", this);
            more->setObjectName(use == PortUse::feed ? "add-feed" : "add-vent");
            more->setToolTip("In the middle of the face: drag it on the stand, or type its place");
            connect(more, &QPushButton::clicked, this, [this, use] {
                auto next = ports();
                Port port;
                port.use = use;
                next.push_back(port);
                set(use == PortUse::feed ? "add a feed" : "add a vent", std::move(next));
            });
            row->addWidget(more);
        }
        auto* mirror = new QPushButton("Mirror it", this);
        mirror->setObjectName("mirror-hose");
        mirror->setToolTip(
            "The chosen hose once more across the middle of the face; one on the middle line, at its other "
            "end");
        connect(mirror, &QPushButton::clicked, this, [this] { mirror_chosen(); });
        row->addWidget(mirror);
        auto* seek = new QPushButton("Compare plans", this);
        seek->setObjectName("seek-hoses");
        seek->setToolTip("Follows the resin of spines, fishbones, ring and end, and sets them side by side");
        connect(seek, &QPushButton::clicked, this, [this] { emit wanted("seek-hoses"); });
        row->addWidget(seek);
        box->addLayout(row);
        plans_ = new RecordTable({{"plan", false, false, {}},
                                  {"full after", false, true, {}},
                                  {"resin", false, true, {}},
                                  {"line", false, true, {}}},
                                 false, this);
        plans_->setObjectName("plans");
        plans_->setAccessibleName("Plans of hoses that were compared, the soonest first");
        plans_->setSelectionMode(QAbstractItemView::SingleSelection);
        box->addWidget(plans_);
        take_ = new QPushButton("Take this plan", this);
        take_->setObjectName("take-plan");
        connect(take_, &QPushButton::clicked, this, [this] {
            const auto& found = document_.findings().layouts;
            const int chosen = std::max(0, plans_->currentRow());
            if (!found || chosen >= static_cast<int>(found->tried.size())) return;
            const auto& l = found->tried[static_cast<std::size_t>(chosen)];
            auto job = document_.job();
            infusion_shown(job).plan = l.plan;
            infusion_shown(job).lines = l.lines;
            document_.replace("take a plan of hoses", std::move(job));
        });
        box->addWidget(take_, 0, Qt::AlignLeft);
    }

    void refresh(const Wording& w) override {
        wording_ = w;
        const auto& f = document_.findings();
        const bool own = infusion_shown(document_.job()).plan == InfusionPlan::own;
        const auto unit = [&](Kind kind) { return QString::fromStdString(unit_sign(kind, w)); };
        // The table has to do with the slip's width: its units stand here.
        title_->setText(QString("<span style='font-weight:600'>Hoses</span>, along; across from the middle "
                                "of the face in %1, times in %2: %3")
                            .arg(unit(Kind::length), unit(Kind::duration),
                                 own ? "your own." : "laid by the plan; change one and they are your own."));
        QList<QStringList> rows;
        for (const auto& p : ports()) rows << cells(p);
        table_->show_rows(rows);
        fit_height(table_, 3, 9);
        const auto& found = f.layouts;
        plans_->setVisible(found != nullptr);
        take_->setVisible(found != nullptr && !found->tried.empty());
        if (!found) return;
        QList<QStringList> plans;
        const auto say = [&](Kind kind, double v) { return QString::fromStdString(jig::show(kind, v, w)); };
        for (const auto& l : found->tried) {
            auto name = text_of(said(l.plan));
            if (l.plan == InfusionPlan::fishbone) name = QString("a fishbone, %1 each way").arg(l.lines);
            if (l.plan == InfusionPlan::spine)
                name = l.lines == 1 ? "one line along the face"
                                    : QString("%1 lines along the face").arg(l.lines);
            plans << QStringList{
                name,
                l.fill ? say(Kind::duration, *l.fill)
                       : QString("never: %1 %").arg(static_cast<int>(std::floor(100 * l.filled))),
                say(Kind::mass, l.resin), say(Kind::length, l.line)};
        }
        plans_->show_rows(plans);
        fit_height(plans_, 2, 6);
    }

  private:
    enum Column { kUse, kKind, kWhere, kTakes, kOpens, kAfter };

    [[nodiscard]] std::vector<Port> ports() const {
        const auto& in = infusion_shown(document_.job());
        if (in.plan == InfusionPlan::own) return in.ports;
        const auto& f = document_.findings();
        return f.flow ? bag::with_own_ports(in, *f.flow).ports : std::vector<Port>();
    }
    void set(const QString& name, std::vector<Port> next) {
        auto job = document_.job();
        infusion_shown(job).plan = InfusionPlan::own;
        infusion_shown(job).ports = std::move(next);
        document_.replace(name, std::move(job));
    }
    void mirror_chosen() {
        auto next = ports();
        const int row = table_->currentRow();
        if (row < 0 || row >= static_cast<int>(next.size()))
            return static_cast<void>(emit document_.refused("Choose a hose in the table first."));
        const auto twin = bag::mirrored(next[static_cast<std::size_t>(row)]);
        if (!twin)
            return static_cast<void>(emit document_.refused(
                QString("Hose %1 is its own mirror: it lies on both sides alike.").arg(row + 1)));
        if (std::find(next.begin(), next.end(), *twin) != next.end())
            return static_cast<void>(
                emit document_.refused(QString("The mirror of hose %1 is there already.").arg(row + 1)));
        // Beside it, so that feeds stay before vents.
        next.insert(next.begin() + row + 1, *twin);
        set(QString("mirror hose %1").arg(row + 1), std::move(next));
    }
    [[nodiscard]] QStringList cells(const Port& p) const {
        const auto length = [&](double m) { return rounded(Kind::length, m, wording_); };
        const auto place = [&](double along, double across) { return length(along) + "; " + length(across); };
        // What it takes is told of the hose that was followed: the same in all its choices.
        QString takes;
        if (const auto& f = document_.findings(); f.flow) {
            for (std::size_t i = 0; i < f.flow->filling.feeds.size(); ++i) {
                if (f.flow->ports[i].port == p)
                    takes = QString::fromStdString(
                        jig::show(Kind::mass, f.flow->filling.feeds[i].mass, wording_));
            }
        }
        const bool feed = p.use == PortUse::feed, rim = p.kind == PortKind::rim;
        return {
            text_of(said(p.use)),
            text_of(said(p.kind)),
            rim && p.along == p.to_along ? QString(kAllRound)
            : rim                        ? length(p.along) + kTo + length(p.to_along)
            : p.has_ends()
                ? place(p.along, p.across) + kTo + place(p.to_along, p.to_across) +
                      (p.kind == PortKind::fishbone ? kWith + QString::number(p.bones) + kOf + length(p.reach)
                                                    : QString())
                : place(p.along, p.across),
            takes,
            feed ? text_of(said(p.opens)) : QString(),
            feed ? QString("%1%2")
                       .arg(p.opens == PortOpens::clock ? text(Kind::duration, p.at, wording_) : QString(),
                            p.shuts > 0 ? kTo + text(Kind::duration, p.shuts, wording_) : QString())
                       .trimmed()
                 : QString()};
    }
    [[nodiscard]] std::optional<QString> type(Port& p, int column, const QString& words) const {
        switch (column) {
            case kUse:
                return pick(p.use, words);
            case kKind: {
                const auto was = p.kind;
                if (auto why = pick(p.kind, words)) return why;
                // A line that goes nowhere yet begins as one that can be seen.
                if (p.has_ends() && p.kind != was && p.along == p.to_along && p.across == p.to_across)
                    p.to_along = p.along + 0.1;
                if (p.kind == PortKind::fishbone && was != PortKind::fishbone && p.bones == 0) {
                    p.bones = 2;
                    p.reach = 0.1;
                }
                return std::nullopt;
            }
            case kWhere:
                return type_where(p, words);
            case kOpens:
                return pick(p.opens, words);
            case kAfter:
                return type_after(p, words);
            default:
                return std::nullopt;
        }
    }

    /// When it opens by the clock, and after "to" when it shuts: "5", "5 to 20", "to 20".
    [[nodiscard]] std::optional<QString> type_after(Port& p, const QString& words) const {
        const auto to = words.indexOf(QString(kTo).trimmed());
        auto next = p;
        const auto from = words.left(to).trimmed(), until = to < 0 ? QString() : words.mid(to + 2).trimmed();
        if (!from.isEmpty()) {
            if (auto why = read_cell(Kind::duration, "time", from, wording_, next.at)) return why;
            next.opens = PortOpens::clock;
        }
        next.shuts = 0;
        if (!until.isEmpty()) {
            if (auto why = read_cell(Kind::duration, "time", until, wording_, next.shuts)) return why;
        }
        if (next.at < 0 || next.at > 1e6 || next.shuts < 0 || next.shuts > 1e6 ||
            (next.shuts > 0 && next.opens == PortOpens::clock && next.shuts <= next.at))
            return QString("\"%1\" is no time to open and shut: write 5, or 5 to 20").arg(words);
        p = next;
        return std::nullopt;
    }

    /// "3 of 200": side lines each way, and how far they go out.
    [[nodiscard]] std::optional<QString> read_bones(const QString& words, Port& p) const {
        const auto parts = words.split(QString(kOf).trimmed());
        bool whole = false;
        const int bones = parts.front().trimmed().toInt(&whole);
        if (parts.size() != 2 || !whole || bones < 0 || bones > 20)
            return QString("\"%1\" are no side lines: write as many and how long, as 3 of 200")
                .arg(words.trimmed());
        double reach = 0;
        if (auto why = read_cell(Kind::length, "length", parts.back().trimmed(), wording_, reach)) return why;
        if (!(reach >= 0) || reach > 20) return QString("\"%1\" goes beyond every tool").arg(words.trimmed());
        p.bones = bones;
        p.reach = reach;
        return std::nullopt;
    }

    /// A place, two of them, or how much of the rim.
    [[nodiscard]] std::optional<QString> type_where(Port& p, const QString& words) const {
        const auto ends = words.split(QString(kTo).trimmed());
        auto next = p;
        if (p.kind == PortKind::rim) {
            if (words.trimmed() == kAllRound) {
                p.along = p.to_along = 0;
                return std::nullopt;
            }
            if (ends.size() != 2)
                return QString(
                           "\"%1\" is no piece of the rim: write \"%2\", or two lengths along as -100 to 100")
                    .arg(words, kAllRound);
            if (auto why = read_cell(Kind::length, "length", ends[0].trimmed(), wording_, next.along))
                return why;
            if (auto why = read_cell(Kind::length, "length", ends[1].trimmed(), wording_, next.to_along))
                return why;
            if (std::abs(next.along) > 50 || std::abs(next.to_along) > 50)
                return QString("\"%1\" lies off every tool").arg(words);
        } else if (p.has_ends()) {
            const auto line = words.split(QString(kWith).trimmed());
            const auto tips = line.front().split(QString(kTo).trimmed());
            if (tips.size() != 2)
                return QString("\"%1\" is no line: write along; across to along; across").arg(words);
            if (p.kind == PortKind::fishbone && line.size() == 2) {
                if (auto why = read_bones(line.back(), next)) return why;
            }
            if (auto why = read_place(tips[0].trimmed(), wording_, next.along, next.across)) return why;
            if (auto why = read_place(tips[1].trimmed(), wording_, next.to_along, next.to_across)) return why;
        } else if (auto why = read_place(words, wording_, next.along, next.across)) {
            return why;
        }
        p = next;
        return std::nullopt;
    }

    Document& document_;
    QLabel* title_;
    RecordTable *table_, *plans_;
    QPushButton* take_;
    Wording wording_;
};

class FrontPane : public RecordsPane<SeenFront> {
  public:
    FrontPane(Document& document, QWidget* parent)
        : RecordsPane(
              document, [](Job & job) -> auto& { return infusion_shown(job).seen; },
              {"fronts", "Places that the real front came to, and when", "mark of the front", 0, 1, 8, true},
              {{"place", true, true, {}}, {"after", true, true, {}}, {"planned", false, true, {}}}, false,
              parent) {
        auto* title = new QLabel(
            "<span style='font-weight:600'>The real front</span>: places that it came to, "
            "and when: mark it where the stand shows it, then drag the cross; or type and paste.",
            this);
        title->setWordWrap(true);
        box()->insertWidget(0, title);
        auto* more = new QPushButton("Add a mark", this);
        more->setObjectName("add-mark");
        more->setToolTip(
            "On the planned front at the time that the stand's slider shows; drag it to where the real one "
            "is");
        connect(more, &QPushButton::clicked, this, [this] { emit wanted("mark-front"); });
        auto* race = new QPushButton("Fit the rim's race too", this);
        race->setObjectName("fit-race");
        race->setToolTip(
            "Follows the resin at many races along the rim for the one that meets your marks best");
        connect(race, &QPushButton::clicked, this, [this] { emit wanted("fit-race"); });
        auto* keep = new QPushButton("Keep it in the library", this);
        keep->setObjectName("keep-measured");
        keep->setToolTip(
            "Cloth and medium let through as this job takes them to in every job of the shop's "
            "from now on, as measured here");
        connect(keep, &QPushButton::clicked, this, [this] { emit wanted("keep-measured"); });
        auto* row = new FlowLayout(nullptr, 6, 6);
        row->addWidget(more);
        row->addWidget(race);
        row->addWidget(keep);
        box()->addLayout(row);
    }

  private:
    [[nodiscard]] QStringList cells(const SeenFront& m) const override {
        QString planned;
        if (const auto& f = document().findings(); f.flow) {
            const bag::FlowGround ground(*f.flow->face, f.flow->frame);
            if (const auto& at = f.flow->filling.arrival[ground.nearest({m.along, m.across})])
                planned = QString::fromStdString(jig::show(Kind::duration, *at, wording()));
        }
        return {rounded(Kind::length, m.along, wording()) + "; " + rounded(Kind::length, m.across, wording()),
                text(Kind::duration, m.after, wording()), planned};
    }
    [[nodiscard]] std::optional<QString> type(SeenFront& m, int column, const QString& words) const override {
        if (column == 0) return read_place(words, wording(), m.along, m.across);
        if (column != 1) return std::nullopt;
        double read = 0;
        if (auto why = read_cell(Kind::duration, "time", words, wording(), read)) return why;
        if (read <= 0 || read > 1e6) return QString("\"%1\" is no time after the first feed").arg(words);
        m.after = read;
        return std::nullopt;
    }
    void headings() override {
        const auto unit = [&](Kind kind) { return QString::fromStdString(unit_sign(kind, wording())); };
        table().horizontalHeaderItem(0)->setText("along; across, " + unit(Kind::length));
        table().horizontalHeaderItem(1)->setText("after, " + unit(Kind::duration));
    }
};

class InfusionPane : public Pane {
  public:
    InfusionPane(Document& document, QWidget* parent) : Pane(parent), document_(document) {
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(0, 0, 0, 0);
        box->setSpacing(14);
        for (auto* pane : {static_cast<Pane*>(new HosePane(document, this)), make_pots_pane(document, this),
                           static_cast<Pane*>(new FrontPane(document, this))}) {
            box->addWidget(pane);
            panes_.push_back(pane);
            connect(pane, &Pane::wanted, this, &Pane::wanted);
        }
    }
    void refresh(const Wording& wording) override {
        const auto& job = document_.job();
        const bool infused = infuses(job, infused_shown(job));
        setVisible(infused);
        if (!infused) return;
        for (auto* pane : panes_) pane->refresh(wording);
    }

  private:
    Document& document_;
    std::vector<Pane*> panes_;
};

}  // namespace

Pane* make_infusion_pane(Document& document, QWidget* parent) {
    return new InfusionPane(document, parent);
}

}  // namespace jig::app
