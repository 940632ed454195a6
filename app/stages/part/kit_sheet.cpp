#include "app/stages/part/kit_sheet.hpp"

#include <algorithm>
#include <cmath>
#include <QBoxLayout>
#include <QLabel>
#include <QPushButton>

#include "app/slip/flow_layout.hpp"
#include "app/slip/record_table.hpp"
#include "app/slip/sheet_head.hpp"
#include "app/slip/words.hpp"
#include "app/stages/panes.hpp"
#include "app/stages/part/roll_view.hpp"
#include "core/stages/part/flat_cloth.hpp"

namespace jig::app {
namespace {

Hatch hatch_of(const Reinforcement* cloth) {
    if (cloth == nullptr) return Hatch::cloth_light;
    if (cloth->weave == Weave::mat) return Hatch::mat;
    constexpr double kHeavy = 0.4;  // kg/m²
    return cloth->areal_mass > kHeavy ? Hatch::cloth_heavy : Hatch::cloth_light;
}

}  // namespace

KitSheet::KitSheet(QWidget* parent) : QScrollArea(parent) {
    setObjectName("kit-sheet");
    setWidgetResizable(true);
    setFrameShape(QFrame::NoFrame);
    setAccessibleName("The part's plies flat on their rolls");
}

void KitSheet::show_kit(std::shared_ptr<const part::Kit> kit, const Job& job,
                        std::shared_ptr<const Shop> shop) {
    kit_ = std::move(kit);
    shop_ = std::move(shop);
    job_ = job;
    old_ = false;
    chosen_.clear();
    rebuild();
}

void KitSheet::set_look(const Ink& ink, const Wording& wording) {
    ink_ = &ink;
    wording_ = wording;
    if (kit_) rebuild();
}

void KitSheet::follow(const Job& now) {
    if (!kit_) return;
    const bool old = !(part::kit_asked(now.part) == part::kit_asked(job_.part) && now.shape == job_.shape &&
                       now.split == job_.split && now.edge == job_.edge);
    if (old == old_) return;
    old_ = old;
    rebuild();
}

QString KitSheet::said() const {
    const auto shown = [&](Kind kind, double v) { return text_of(jig::show(kind, v, wording_)); };
    const auto count = kit_->pieces.size();
    QString out =
        QString(
            "%1 off %2, cut %3 larger along the rim; where a ply is %5wider than its roll its "
            "pieces lie %4 over each other.")
            .arg(count == 1 ? QString("1 piece") : QString("%1 pieces").arg(count),
                 kit_->rolls.size() == 1 ? QString("1 roll") : QString("%1 rolls").arg(kit_->rolls.size()),
                 shown(Kind::length, job_.part.kit.trim), shown(Kind::length, job_.part.kit.lap),
                 job_.part.cuts.empty() ? QString() : QString("cut or "));
    // What cannot shear, by cloth: once each, the worst of it.
    for (const auto& roll : kit_->rolls) {
        double most = 0;
        bool torn = false;
        for (const auto& piece : kit_->pieces) {
            if (piece.material != roll.material) continue;
            most = std::max(most, piece.stretch);
            torn = torn || piece.torn;
        }
        if (most < 0.001) continue;
        const auto* cloth = jig::find(shop_->reinforcements, roll.material);
        out +=
            QString(" %1 does not shear: laid flat with as little as may be, it stretches by %2 at most%3.")
                .arg(text_of(roll.material), shown(Kind::ratio, most),
                     torn && cloth != nullptr
                         ? QString(", and gives about %1: slit or tear it there, and let it lie over itself")
                               .arg(shown(Kind::ratio, part::may_stretch(*cloth)))
                         : QString());
    }
    for (const auto& name : kit_->left_out)
        out +=
            QString(" %1 is left out: this face cannot be laid flat for it in one piece.").arg(text_of(name));
    return out;
}

void KitSheet::rebuild() {
    const auto shown = [&](Kind kind, double v) { return text_of(jig::show(kind, v, wording_)); };
    rolls_.clear();
    auto* page = new QWidget(this);
    auto* box = page_with_head(page, {"kit", "The kit on its rolls", [this] { emit close_wanted(); },
                                      old_ ? "The part has changed since this was laid." : QString(),
                                      "Lay it anew", [this] { emit renew_wanted(); }});
    auto* words = new QLabel(said(), page);
    words->setObjectName("kit-said");
    words->setWordWrap(true);
    box->addWidget(words);
    auto* row = new QWidget(page);
    auto* flow = new FlowLayout(row, 6, 6);
    for (const auto& [act, text] : {std::pair("x-kit", "DXF and SVG of each roll…"),
                                    std::pair("x-kit-pdf", "Pieces at full size as PDF…")}) {
        auto* out = new QPushButton(text, row);
        out->setObjectName(QString("kit-%1").arg(act));
        connect(out, &QPushButton::clicked, this, [this, act = QString(act)] { emit export_wanted(act); });
        flow->addWidget(out);
    }
    box->addWidget(row);
    for (const auto& roll : kit_->rolls) {
        QStringList offcuts;
        for (const auto& o : roll.sheets.offcuts)
            offcuts << QString("%1 × %2").arg(shown(Kind::length, o.length), shown(Kind::length, o.width));
        constexpr qsizetype kNamed = 3;
        const auto kept =
            offcuts.isEmpty()
                ? QString()
                : QString("; left over and worth keeping: %1%2")
                      .arg(offcuts.mid(0, kNamed).join(", "),
                           offcuts.size() > kNamed ? QString(" and %1 more").arg(offcuts.size() - kNamed)
                                                   : QString());
        auto* title =
            new QLabel(QString("<span style='font-weight:600'>%1</span>: %2 of the roll, %3 of that in "
                               "the plies%4.")
                           .arg(text_of(roll.material).toHtmlEscaped(), shown(Kind::length, roll.metres),
                                shown(Kind::ratio, roll.yield), kept),
                       page);
        title->setWordWrap(true);
        box->addSpacing(6);
        box->addWidget(title);
        auto* view = new RollView(roll, hatch_of(jig::find(shop_->reinforcements, roll.material)), *ink_,
                                  wording_, page);
        connect(view, &RollView::piece_chosen, this, &KitSheet::choose);
        rolls_ << view;
        box->addWidget(view);
    }
    auto* order = new QLabel("In the order of laying", page);
    order->setFont(word_font(10.5, true));
    box->addSpacing(6);
    box->addWidget(order);
    table_ = new RecordTable({{"piece", false, false, {}},
                              {"cloth", false, false, {}},
                              {"laid at", false, true, {}},
                              {"length × width", false, true, {}},
                              {"area", false, true, {}},
                              {"stretches", false, true, {}},
                              {"go", false, true, {}}},
                             false, page);
    const bool in_goes = std::any_of(kit_->pieces.begin(), kit_->pieces.end(),
                                     [](const part::KitPiece& p) { return p.go > 0; });
    table_->setColumnHidden(table_->columnCount() - 1, !in_goes);
    table_->setObjectName("kit-table");
    table_->setAccessibleName("Pieces of the kit in the order of laying");
    QList<QStringList> rows;
    for (const auto& p : kit_->pieces) {
        const Point2 size = high_corner(p.outline) - low_corner(p.outline);
        rows << QStringList{
            text_of(p.name),
            text_of(p.material) + (p.cover ? ", over a cut" : ""),
            shown(Kind::angle, p.angle),
            QString("%1 × %2").arg(shown(Kind::length, size.x()), shown(Kind::length, size.y())),
            shown(Kind::area, p.area),
            p.stretch < 0.001 ? QString("–") : shown(Kind::ratio, p.stretch) + (p.torn ? ", slit it" : ""),
            QString::number(p.go + 1)};
    }
    table_->show_rows(rows);
    fit_height(table_, 1, 14);
    connect(table_, &QTableWidget::currentCellChanged, this, [this](int row_now, int, int, int) {
        if (row_now >= 0 && row_now < table_->rowCount()) choose(table_->item(row_now, 0)->text());
    });
    box->addWidget(table_);
    box->addStretch();
    setWidget(page);
}

void KitSheet::choose(const QString& piece) {
    if (piece == chosen_) return;
    chosen_ = piece;
    for (auto* roll : rolls_) {
        roll->choose(piece);
        if (const auto at = roll->place_of(piece)) {
            const auto where = roll->mapTo(widget(), at->toPoint());
            ensureVisible(where.x(), where.y(), 20, 40);
        }
    }
    for (int r = 0; r < table_->rowCount(); ++r) {
        if (table_->item(r, 0)->text() == piece && table_->currentRow() != r) table_->setCurrentCell(r, 0);
    }
}

}  // namespace jig::app
