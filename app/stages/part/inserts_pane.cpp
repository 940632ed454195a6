#include "app/stages/part/inserts_pane.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>

#include "app/slip/flow_layout.hpp"
#include "app/slip/records_pane.hpp"
#include "app/slip/words.hpp"
#include "app/stages/part/piece_words.hpp"
#include "core/stages/part/inserts.hpp"

namespace jig::app {
namespace {

using part::Insert;

enum class Field { name, kind, bolt, size, along, across, on, pull, push, holds };

const QString kPotted = "potted";

RecordColumn column_of(Field field, Document& document) {
    switch (field) {
        case Field::name:
            return {"insert", true, false, {}};
        case Field::kind:
            return {"set in", true, false, [&document](int) {
                        QStringList out{kPotted};
                        for (const auto& board : document.shop().boards)
                            out << QString::fromStdString(board.name);
                        return out;
                    }};
        case Field::on:
            return {"on", true, false, [&document](int) { return piece_choices(piece_names(document)); }};
        case Field::holds:
            return {"holds", false, true, {}};
        default:
            return {"", true, true, {}};
    }
}

/// Some fields of all inserts: the slip is too narrow for every one of them in a row.
class FieldsPane : public RecordsPane<Insert> {
  public:
    FieldsPane(Document& document, const char* table_name, const char* said, std::vector<Field> fields,
               QWidget* parent)
        : RecordsPane(
              document, [](Job & job) -> auto& { return job.part.inserts; },
              {table_name, said, "insert", 0, 1, 6}, columns_of(fields, document), true, parent),
          fields_(std::move(fields)) {}

    void refresh(const Wording& w) override {
        RecordsPane::refresh(w);
        setVisible(!records().empty());
        // Of a mould in one piece there is nothing to say.
        const auto on = std::find(fields_.begin(), fields_.end(), Field::on);
        if (on != fields_.end())
            table().setColumnHidden(static_cast<int>(on - fields_.begin()),
                                    !piece_matters(document(), records()));
        const auto holds = std::find(fields_.begin(), fields_.end(), Field::holds);
        if (holds == fields_.end()) return;
        const auto& f = document().findings();
        for (int row = 0; row < table().rowCount(); ++row) {
            auto* item = table().item(row, static_cast<int>(holds - fields_.begin()));
            const auto* found =
                f.part ? part::weakest_of(f.part->inserts, static_cast<std::size_t>(row)) : nullptr;
            if (item == nullptr || found == nullptr) continue;
            const auto& fit = *found;
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
    void add_one() {
        if (records().size() >= part::kMostInserts)
            return refuse(QString("A part has at most %1 inserts").arg(part::kMostInserts));
        Insert insert;
        // Beside the last one, so that it can be taken hold of, where that is seen.
        if (!records().empty() && part::lies_on(records().back().piece, piece_shown(document()))) {
            insert = records().back();
            insert.along += 2 * insert.size;
        } else {
            insert.piece = piece_shown(document());
        }
        insert.name = fmt::format("insert {}", records().size() + 1);
        add("add insert", records().size(), insert);
    }
    void take_chosen_away() { take_away(table().currentRow()); }

  private:
    static std::vector<RecordColumn> columns_of(const std::vector<Field>& fields, Document& document) {
        std::vector<RecordColumn> out;
        for (const auto field : fields) out.push_back(column_of(field, document));
        return out;
    }
    [[nodiscard]] QString holds(const Insert& p) const {
        const auto i = static_cast<std::size_t>(&p - records().data());
        const auto& f = document().findings();
        if (!f.part || f.part->inserts.empty() || i >= f.part->inserts.front().size()) return "…";
        const auto* fit = part::weakest_of(f.part->inserts, i);
        if (fit == nullptr) return "beside";
        if (p.pull > 0 && !fit->pull_known && p.push <= 0) return "?";
        return std::isfinite(fit->holds) ? QString("%1 ×").arg(fit->holds, 0, 'g', 3) : QString("—");
    }
    [[nodiscard]] QStringList cells(const Insert& p) const override {
        const auto typed = [&](Kind kind, double v) {
            return QString::fromStdString(show_for_edit(kind, v, wording()));
        };
        const auto cell = [&](Field field) -> QString {
            switch (field) {
                case Field::name:
                    return QString::fromStdString(p.name);
                case Field::kind:
                    return p.kind == InsertKind::potted ? kPotted : QString::fromStdString(p.block);
                case Field::bolt:
                    return typed(Kind::thickness, p.bolt);
                case Field::size:
                    return typed(Kind::length, p.size);
                case Field::along:
                    return typed(Kind::length, p.along);
                case Field::across:
                    return typed(Kind::length, p.across);
                case Field::on:
                    return piece_said(p.piece, piece_names(document()));
                case Field::pull:
                    return typed(Kind::force, p.pull);
                case Field::push:
                    return typed(Kind::force, p.push);
                case Field::holds:
                    return holds(p);
            }
            return {};
        };
        QStringList out;
        for (const auto field : fields_) out << cell(field);
        return out;
    }
    [[nodiscard]] std::optional<QString> type(Insert& p, int column, const QString& text) const override {
        const auto number = [&](Kind kind, const char* what, double& into) {
            return read_cell(kind, what, text, wording(), into);
        };
        switch (fields_.at(static_cast<std::size_t>(column))) {
            case Field::name:
                if (text.isEmpty()) return QString("An insert wants a name");
                p.name = text.toStdString();
                return std::nullopt;
            case Field::kind: {
                const auto& boards = document().shop().boards;
                const auto board = std::find_if(boards.begin(), boards.end(), [&](const Board& b) {
                    return QString::fromStdString(b.name).compare(text, Qt::CaseInsensitive) == 0;
                });
                if (text.compare(kPotted, Qt::CaseInsensitive) == 0) {
                    p.kind = InsertKind::potted;
                } else if (board != boards.end()) {
                    p.kind = InsertKind::block;
                    p.block = board->name;
                } else {
                    return QString("\"%1\" is neither potted nor a board of the library").arg(text);
                }
                return std::nullopt;
            }
            case Field::bolt:
                return number(Kind::thickness, "bolt", p.bolt);
            case Field::size:
                return number(Kind::length, "width", p.size);
            case Field::along:
                return number(Kind::length, "place along", p.along);
            case Field::across:
                return number(Kind::length, "place across", p.across);
            case Field::on:
                return type_piece(text, piece_names(document()), p.piece);
            case Field::pull:
                return number(Kind::force, "pull", p.pull);
            case Field::push:
                return number(Kind::force, "push", p.push);
            case Field::holds:
                return std::nullopt;
        }
        return std::nullopt;
    }
    void headings() override {
        for (std::size_t i = 0; i < fields_.size(); ++i) {
            auto* head = table().horizontalHeaderItem(static_cast<int>(i));
            const auto name = [&](const char* what, Kind kind, const char* tip) {
                head->setText(
                    QString("%1, %2").arg(what, QString::fromStdString(unit_sign(kind, wording()))));
                head->setToolTip(tip);
            };
            switch (fields_[i]) {
                case Field::kind:
                    head->setToolTip(
                        "Potted: in paste through the core. Or a block of a board in the core's place, the "
                        "bolt through it");
                    break;
                case Field::bolt:
                    name("bolt", Kind::thickness, "Diameter of its bolt");
                    break;
                case Field::size:
                    name("wide", Kind::length, "Across its potting or its block");
                    break;
                case Field::along:
                case Field::across:
                    name(fields_[i] == Field::along ? "along" : "across", Kind::length,
                         "From the middle of the face, seen along the pull");
                    break;
                case Field::on:
                    head->setToolTip("The piece of the mould on whose face it is set, or each of them alike");
                    break;
                case Field::pull:
                    name("pull", Kind::force, "Square to the face");
                    break;
                case Field::push:
                    name("push", Kind::force, "Along the face");
                    break;
                case Field::holds:
                    head->setToolTip("Times both its loads together");
                    break;
                case Field::name:
                    break;
            }
        }
    }

    std::vector<Field> fields_;
};

/// Where they are, what they are set in, and what acts on them, row by row.
class InsertsPane : public Pane {
  public:
    InsertsPane(Document& document, QWidget* parent) : Pane(parent) {
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(0, 6, 0, 0);
        box->setSpacing(6);
        auto* title = new QLabel("Where bolts go", this);
        title->setFont(word_font(10.5, true));
        box->addWidget(title);
        places_ = new FieldsPane(document, "part-inserts", "Inserts of the part and where they are",
                                 {Field::name, Field::along, Field::across, Field::on}, this);
        box->addWidget(places_);
        setting_ = new FieldsPane(document, "part-inserts-set", "What the inserts are set in",
                                  {Field::kind, Field::bolt, Field::size}, this);
        box->addWidget(setting_);
        loads_ =
            new FieldsPane(document, "part-inserts-loads", "What acts on the inserts, and what they hold",
                           {Field::pull, Field::push, Field::holds}, this);
        box->addWidget(loads_);
        auto* row = new QWidget(this);
        auto* flow = new FlowLayout(row, 6, 6);
        const auto button = [&](const char* text, const char* name, const char* tip, auto action) {
            auto* b = new QPushButton(text, row);
            b->setObjectName(name);
            b->setToolTip(tip);
            flow->addWidget(b);
            connect(b, &QPushButton::clicked, this, action);
        };
        button("Add an insert", "add-insert",
               "Lies in the middle of the face: drag it on the stand, or type its place",
               [this] { places_->add_one(); });
        button("Take it away", "insert-away", "The insert that is chosen",
               [this] { places_->take_chosen_away(); });
        box->addWidget(row);
    }
    void refresh(const Wording& w) override {
        places_->refresh(w);
        setting_->refresh(w);
        loads_->refresh(w);
    }

  private:
    FieldsPane *places_, *setting_, *loads_;
};

}  // namespace

Pane* make_inserts_pane(Document& document, QWidget* parent) {
    return new InsertsPane(document, parent);
}

}  // namespace jig::app
