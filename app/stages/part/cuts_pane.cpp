#include "app/stages/part/cuts_pane.hpp"

#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <set>

#include "app/slip/flow_layout.hpp"
#include "app/slip/records_pane.hpp"
#include "app/slip/words.hpp"
#include "app/stages/part/corners.hpp"
#include "app/stages/part/piece_words.hpp"
#include "core/stages/bag/ports.hpp"
#include "core/stages/part/cut_line.hpp"
#include "core/stages/part/regions.hpp"

namespace jig::app {
namespace {

/// In which plies, in words that a cell holds.
QString in_words(const part::Cut& cut) {
    switch (cut.in) {
        case CutIn::every:
            return "every";
        case CutIn::behind:
            return "not first";
        case CutIn::angle:
            return QString("at %1°").arg(degrees(part::alike(cut.angle)), 0, 'g', 4);
        case CutIn::roll:
            return QString("roll %1°").arg(degrees(part::roll_way(cut.angle)), 0, 'g', 5);
    }
    return {};
}

/// Each way that a cut may be in the plies of a part.
std::vector<part::Cut> ways_in(const part::Choices& c) {
    std::vector<part::Cut> out{{{}, CutIn::every, 0, 0}, {{}, CutIn::behind, 0, 0}};
    std::set<double> angles, rolls;
    for (const auto& layer : part::all_layers(c)) {
        if (layer.kind != LayerKind::ply) continue;
        angles.insert(part::alike(layer.angle));
        rolls.insert(part::roll_way(layer.angle));
    }
    for (const double angle : angles) out.push_back({{}, CutIn::angle, angle, 0});
    for (const double way : rolls) out.push_back({{}, CutIn::roll, way, 0});
    return out;
}

class CutsPane : public RecordsPane<part::Cut> {
    enum Column { kLine, kIn, kStep, kLong, kOn };

  public:
    CutsPane(Document& document, QWidget* parent)
        : RecordsPane(
              document, [](Job & job) -> auto& { return job.part.cuts; },
              {"part-cuts", "Cuts in the part's cloth: darts and seams", "cut", 0, 1, 6, true},
              {{"corners", true, false, {}},
               {"in", true, false,
                [this](int) {
                    QStringList words;
                    for (const auto& way : ways_in(document_.job().part)) words << in_words(way);
                    return words;
                }},
               {"stepped", true, true, {}},
               {"long", false, true, {}},
               {"on", true, false, [this](int) { return piece_choices(piece_names(document_)); }}},
              true, parent),
          document_(document) {
        auto* title = new QLabel("Cuts in its cloth", this);
        title->setFont(word_font(10.5, true));
        box()->insertWidget(0, title);
        box()->setContentsMargins(0, 6, 0, 0);
        auto* row = new QWidget(this);
        auto* flow = new FlowLayout(row, 6, 6);
        const auto button = [&](const char* text, const char* name, const char* tip, auto action) {
            auto* b = new QPushButton(text, row);
            b->setObjectName(name);
            b->setToolTip(tip);
            flow->addWidget(b);
            connect(b, &QPushButton::clicked, this, action);
            return b;
        };
        button("Seek cuts", "seek-cuts",
               "Tries darts where cloth locks and takes those that leave the least of it locked",
               [this] { emit wanted("seek-cuts"); });
        button(
            "Seams by the roll", "seek-seams",
            "Where a ply is wider than its roll: the fewest seams along the roll that make it fit, stepped "
            "from ply to ply. Else the kit parts it straight across",
            [this] { emit wanted("seek-seams"); });
        button("Add a cut", "add-cut",
               "From half way out over the rim: drag its ends on the stand, or type its corners",
               [this] { add_one(); });
        away_ = button("Take it away", "cut-away", "The cut that is chosen",
                       [this] { take_away(table().currentRow()); });
        box()->addWidget(row);
    }
    void refresh(const Wording& wording) override {
        RecordsPane::refresh(wording);
        table().setVisible(!records().empty());
        // Of a mould in one piece there is nothing to say.
        table().setColumnHidden(kOn, !piece_matters(document_, records()));
        away_->setVisible(!records().empty());
    }

  private:
    void add_one() {
        if (records().size() >= part::kMostCuts)
            return refuse(QString("A part has at most %1 cuts").arg(part::kMostCuts));
        const auto& f = document_.findings();
        Point2 half(0.5, 0.5);
        if (f.part && f.part->draped->face && f.edge && f.edge->tool)
            half = bag::FlowGround(*f.part->draped->face, f.edge->tool->frame).half();
        // Each new one further round, so that none hides another.
        const double turn = kPi / 4 + static_cast<double>(records().size()) * kPi / 2;
        const auto spot = [&](double share) {
            const auto tidy = [](double v) { return std::round(v * 1e3) / 1e3; };
            return part::Spot{tidy(share * half.x() * std::cos(turn)),
                              tidy(share * half.y() * std::sin(turn))};
        };
        part::Cut cut;
        cut.line = {spot(0.5), spot(1.6)};
        cut.piece = piece_shown(document_);
        add("add cut", records().size(), cut);
    }
    [[nodiscard]] QString length_of(const part::Cut& cut) const {
        const auto& f = document_.findings();
        if (!f.part) return "…";
        if (!part::lies_on(cut.piece, f.part->draped->piece)) return "—";
        const double length =
            part::cut_length(*f.part->draped, static_cast<std::size_t>(&cut - records().data()));
        return length > 0 ? QString::fromStdString(jig::show(Kind::length, length, wording()))
                          : QString("beside");
    }
    [[nodiscard]] QStringList cells(const part::Cut& c) const override {
        return {
            corners_text(c.line, wording()), in_words(c),
            c.step > 0 ? QString::fromStdString(jig::show(Kind::length, c.step, wording())) : QString("–"),
            length_of(c), piece_said(c.piece, piece_names(document_))};
    }
    [[nodiscard]] std::optional<QString> type(part::Cut& c, int column, const QString& text) const override {
        switch (column) {
            case kLine: {
                QString why;
                const auto line = read_corners(text, wording(), why);
                if (!line) return why;
                if (line->size() < 2) return QString("A cut wants two corners at least, as 0 : 40; 0 : 200");
                c.line = *line;
                return std::nullopt;
            }
            case kIn: {
                QStringList all;
                for (const auto& way : ways_in(document_.job().part)) {
                    all << in_words(way);
                    if (all.back() != text) continue;
                    c.in = way.in;
                    c.angle = way.angle;
                    return std::nullopt;
                }
                return QString("A cut is in %1").arg(all.join(" or "));
            }
            case kStep:
                if (text == "–" || text.isEmpty()) {
                    c.step = 0;
                    return std::nullopt;
                }
                return read_cell(Kind::length, "step", text, wording(), c.step);
            case kOn:
                return type_piece(text, piece_names(document_), c.piece);
            default:
                return std::nullopt;
        }
    }
    void headings() override {
        const auto name = [&](int column, const QString& what, const char* tip) {
            auto* head = table().horizontalHeaderItem(column);
            head->setText(what);
            head->setToolTip(tip);
        };
        const auto unit = QString::fromStdString(unit_sign(Kind::length, wording()));
        name(kLine, "corners, " + unit,
             "along : across from the middle of the face, seen along the pull; one after the other");
        name(kIn, "in",
             "Every ply; not the first, which lies on the tool and shows; those at one angle, a quarter turn "
             "being alike; or those whose roll runs one way");
        name(kStep, "step",
             "So far aside in the next ply, and to the other side in the one after: laps do not add up");
        name(kLong, "long", "Over the face, of the piece of the mould that is shown");
        name(kOn, "on", "The piece of the mould on whose face it is drawn, or each of them alike");
    }

    Document& document_;
    QPushButton* away_ = nullptr;
};

}  // namespace

Pane* make_cuts_pane(Document& document, QWidget* parent) {
    return new CutsPane(document, parent);
}

}  // namespace jig::app
