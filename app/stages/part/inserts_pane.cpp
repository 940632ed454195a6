#include "app/stages/part/inserts_pane.hpp"

#include <fmt/format.h>

#include <cmath>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>

#include "app/slip/flow_layout.hpp"
#include "app/slip/records_pane.hpp"
#include "app/slip/words.hpp"
#include "core/stages/part/inserts.hpp"

namespace jig::app {
namespace {

using part::Insert;

class InsertsPane : public RecordsPane<Insert> {
  public:
    InsertsPane(Document& document, QWidget* parent)
        : RecordsPane(
              document, [](Job & job) -> auto& { return job.part.inserts; },
              {"part-inserts", "Inserts of the part, from the middle of its face, seen along the pull",
               "insert", 0, 1, 8},
              {{"insert", true, false, {}},
               {"set", true, false, [](int) { return words_all<InsertKind>(); }},
               {"bolt", true, true, {}},
               {"wide", true, true, {}},
               {"along", true, true, {}},
               {"across", true, true, {}},
               {"pull", true, true, {}},
               {"push", true, true, {}},
               {"holds", false, true, {}}},
              true, parent) {
        title_ = new QLabel("Where bolts go", this);
        title_->setFont(word_font(10.5, true));
        box()->insertWidget(0, title_);
        box()->setContentsMargins(0, 6, 0, 0);
        auto* row = new QWidget(this);
        auto* flow = new FlowLayout(row, 6, 6);
        auto* more = new QPushButton("Add an insert", row);
        more->setObjectName("add-insert");
        more->setToolTip("Lies in the middle of the face: drag it on the stand, or type its place");
        flow->addWidget(more);
        connect(more, &QPushButton::clicked, this, [this] {
            if (records().size() >= part::kMostInserts)
                return refuse(QString("A part has at most %1 inserts").arg(part::kMostInserts));
            Insert insert;
            insert.name = fmt::format("insert {}", records().size() + 1);
            // Beside the last one, so that it can be taken hold of.
            if (!records().empty()) {
                const auto& last = records().back();
                insert = last;
                insert.name = fmt::format("insert {}", records().size() + 1);
                insert.along += 2 * last.size;
            }
            add("add insert", records().size(), insert);
        });
        auto* away = new QPushButton("Take it away", row);
        away->setObjectName("insert-away");
        away->setToolTip("The insert that is chosen");
        flow->addWidget(away);
        connect(away, &QPushButton::clicked, this, [this] { take_away(table().currentRow()); });
        box()->addWidget(row);
    }

    void refresh(const Wording& w) override {
        RecordsPane::refresh(w);
        table().setVisible(!records().empty());
        const auto& f = document().findings();
        for (int row = 0; row < table().rowCount(); ++row) {
            const auto i = static_cast<std::size_t>(row);
            auto* item = table().item(row, kHolds);
            if (item == nullptr || !f.part || i >= f.part->inserts.size()) continue;
            const auto& fit = f.part->inserts[i];
            const auto shown = [&](Kind kind, double v) {
                return QString::fromStdString(jig::show(kind, v, w));
            };
            item->setToolTip(
                QString("Pulled it bears %1, pushed %2; %3 of core, %4 to the rim")
                    .arg(fit.pull_known ? shown(Kind::force, fit.pull_borne) : "what nobody knows",
                         shown(Kind::force, fit.push_borne), shown(Kind::thickness, fit.core),
                         shown(Kind::length, fit.place.rim)));
        }
    }

  private:
    enum Column { kName, kKind, kBolt, kSize, kAlong, kAcross, kPull, kPush, kHolds };

    [[nodiscard]] QStringList cells(const Insert& p) const override {
        const auto i = static_cast<std::size_t>(&p - records().data());
        const auto& f = document().findings();
        const auto typed = [&](Kind kind, double v) {
            return QString::fromStdString(show_for_edit(kind, v, wording()));
        };
        QString holds = "…";
        if (f.part && i < f.part->inserts.size()) {
            const auto& fit = f.part->inserts[i];
            const bool loaded = p.pull > 0 || p.push > 0;
            holds = fit.place.beside                       ? QString("beside")
                    : !loaded || !std::isfinite(fit.holds) ? QString("—")
                    : p.pull > 0 && !fit.pull_known && p.push <= 0
                        ? QString("?")
                        : QString("%1 ×").arg(fit.holds, 0, 'g', 3);
        }
        return {QString::fromStdString(p.name),
                QString::fromUtf8(said(p.kind).data(), static_cast<qsizetype>(said(p.kind).size())),
                typed(Kind::thickness, p.bolt),
                typed(Kind::length, p.size),
                typed(Kind::length, p.along),
                typed(Kind::length, p.across),
                typed(Kind::force, p.pull),
                typed(Kind::force, p.push),
                holds};
    }
    [[nodiscard]] std::optional<QString> type(Insert& p, int column, const QString& text) const override {
        switch (column) {
            case kName:
                if (text.isEmpty()) return QString("An insert wants a name");
                p.name = text.toStdString();
                return std::nullopt;
            case kKind: {
                const auto all = words_all<InsertKind>();
                const auto at = all.indexOf(text);
                if (at < 0) return QString("An insert is %1").arg(all.join(" or "));
                p.kind = static_cast<InsertKind>(at);
                return std::nullopt;
            }
            case kBolt:
                return read_cell(Kind::thickness, "bolt", text, wording(), p.bolt);
            case kSize:
                return read_cell(Kind::length, "width", text, wording(), p.size);
            case kAlong:
                return read_cell(Kind::length, "place along", text, wording(), p.along);
            case kAcross:
                return read_cell(Kind::length, "place across", text, wording(), p.across);
            case kPull:
                return read_cell(Kind::force, "pull", text, wording(), p.pull);
            case kPush:
                return read_cell(Kind::force, "push", text, wording(), p.push);
            default:
                return std::nullopt;
        }
    }
    void headings() override {
        const std::array<std::tuple<int, const char*, Kind, const char*>, 6> all{
            {{kBolt, "bolt", Kind::thickness, "Diameter of its bolt"},
             {kSize, "wide", Kind::length, "Across its potting or its block"},
             {kAlong, "along", Kind::length, "From the middle of the face, seen along the pull"},
             {kAcross, "across", Kind::length, "From the middle of the face, seen along the pull"},
             {kPull, "pull", Kind::force, "Square to the face"},
             {kPush, "push", Kind::force, "Along the face"}}};
        for (const auto& [column, what, kind, tip] : all) {
            table().horizontalHeaderItem(column)->setText(
                QString("%1, %2").arg(what, QString::fromStdString(unit_sign(kind, wording()))));
            table().horizontalHeaderItem(column)->setToolTip(tip);
        }
        table().horizontalHeaderItem(kHolds)->setToolTip("Times both its loads together");
    }

    QLabel* title_;
};

}  // namespace

Pane* make_inserts_pane(Document& document, QWidget* parent) {
    return new InsertsPane(document, parent);
}

}  // namespace jig::app
