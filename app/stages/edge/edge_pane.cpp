// The flange's fittings as a table: what sits where along the rim.
#include <QMenu>
#include <QPushButton>

#include "app/slip/flow_layout.hpp"
#include "app/slip/records_pane.hpp"
#include "app/slip/words.hpp"
#include "app/theme/ink.hpp"

namespace jig::app {
namespace {

using edge::Placed;

class EdgePane : public RecordsPane<Placed> {
  public:
    EdgePane(Document& document, QWidget* parent)
        : RecordsPane(
              document, [](Job & job) -> auto& { return job.edge.placed; },
              {"fittings", "Fittings of the flange, by their place along the rim", "fitting", 0, 2, 8},
              {{"fitting", true, false, [](int) { return kinds(); }}, {"along the rim", true, true, {}}},
              false, parent) {
        auto* buttons = new QWidget(this);
        auto* flow = new FlowLayout(buttons, 6, 6);
        auto* more = new QPushButton("Add a fitting", buttons);
        more->setObjectName("add-fitting");
        auto* menu = new QMenu(more);
        for (std::size_t i = 0; i < Words<Fitting>::all.size(); ++i) {
            const auto kind = static_cast<Fitting>(i);
            const auto name = QString::fromUtf8(said(kind).data(), static_cast<qsizetype>(said(kind).size()));
            auto* action = menu->addAction(name);
            action->setObjectName("add-" + QString::fromUtf8(file_word(kind).data(),
                                                             static_cast<qsizetype>(file_word(kind).size())));
            connect(action, &QAction::triggered, this, [this, kind, name] {
                take_over();
                add("add " + name, records().size(), {kind, free_place()});
            });
        }
        more->setMenu(menu);
        flow->addWidget(more);
        auto* away = new QPushButton("Take it away", buttons);
        away->setObjectName("fitting-away");
        connect(away, &QPushButton::clicked, this, [this] { take_away(table().currentRow()); });
        flow->addWidget(away);
        auto* fresh = new QPushButton("By the rules again", buttons);
        fresh->setObjectName("fittings-fresh");
        connect(fresh, &QPushButton::clicked, this, [this] {
            auto job = this->document().job();
            job.edge.by_rule = true;
            job.edge.placed.clear();
            this->document().replace("lay fittings by the rules", std::move(job));
        });
        flow->addWidget(fresh);
        box()->addWidget(buttons);
    }
    void refresh(const Wording& wording) override {
        RecordsPane::refresh(wording);
        table().setVisible(!document().job().edge.by_rule);
    }

  private:
    static QStringList kinds() { return words_all<Fitting>(); }
    [[nodiscard]] double way() const {
        const auto& f = document().findings();
        return f.edge ? std::max(1e-6, perimeter(f.edge->fitting_line)) : 1;
    }
    /// What the rules have laid out becomes the maker's own list before he changes it.
    void take_over() {
        auto job = document().job();
        if (!own_fittings(job, document().findings())) return;
        document().replace("take the fittings over", std::move(job));
    }
    /// The middle of the longest stretch without a fitting.
    [[nodiscard]] double free_place() const {
        std::vector<double> at;
        for (const auto& p : records()) at.push_back(p.at);
        return middle_of_widest_gap(std::move(at));
    }
    [[nodiscard]] QStringList cells(const Placed& p) const override {
        return {kinds()[static_cast<int>(p.kind)],
                QString::fromStdString(show_for_edit(Kind::length, p.at * way(), wording()))};
    }
    [[nodiscard]] std::optional<QString> type(Placed& p, int column, const QString& text) const override {
        if (column == 0) {
            const auto i = kinds().indexOf(text);
            if (i < 0) return QString("\"%1\" is no fitting").arg(text);
            p.kind = static_cast<Fitting>(i);
            return std::nullopt;
        }
        double length = 0;
        if (const auto why = read_cell(Kind::length, "length", text, wording(), length)) return why;
        if (length < 0 || length > way()) return QString("The rim is shorter than %1").arg(text);
        p.at = length / way();
        return std::nullopt;
    }
    void settle(Job& job) const override { job.edge.by_rule = false; }
    void headings() override {
        table().horizontalHeaderItem(1)->setText("along the rim, " +
                                                 QString::fromStdString(unit_sign(Kind::length, wording())));
    }
};

}  // namespace

bool own_fittings(Job& job, const Findings& findings) {
    if (!job.edge.by_rule || !findings.edge) return false;
    job.edge.placed.clear();
    for (const auto& fit : findings.edge->fits) {
        if (fit.number >= 0) job.edge.placed.push_back({fit.kind, fit.at});
    }
    job.edge.by_rule = false;
    return true;
}

Pane* make_edge_pane(Document& document, QWidget* parent) {
    return new EdgePane(document, parent);
}

}  // namespace jig::app
