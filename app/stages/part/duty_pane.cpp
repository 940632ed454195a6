#include "app/stages/part/duty_pane.hpp"

#include <fmt/format.h>

#include <QComboBox>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>

#include "app/slip/flow_layout.hpp"
#include "app/slip/records_pane.hpp"
#include "app/slip/words.hpp"
#include "core/stages/part/trial.hpp"

namespace jig::app {
namespace {

using part::PartLoad;
using part::Push;
using part::Spot;

QString shown(Kind kind, double v, const Wording& w) {
    return QString::fromStdString(jig::show(kind, v, w));
}
QString editable(Kind kind, double v, const Wording& w) {
    return QString::fromStdString(show_for_edit(kind, v, w));
}
QString with_unit(const char* what, Kind kind, const Wording& w) {
    return QString("%1, %2").arg(what, QString::fromStdString(unit_sign(kind, w)));
}

/// One or two buttons in a row that breaks where it is narrow.
QPushButton* button(QWidget* row, FlowLayout* flow, const char* text, const char* name, const char* tip) {
    auto* b = new QPushButton(text, row);
    b->setObjectName(name);
    b->setToolTip(tip);
    flow->addWidget(b);
    return b;
}

class LoadsPane : public RecordsPane<PartLoad> {
  public:
    LoadsPane(Document& document, QWidget* parent)
        : RecordsPane(
              document, [](Job & job) -> auto& { return job.part.duty.loads; },
              {"part-loads", "Loads of the part; choose one to see it on the stand", "load", 0, 1, 6},
              {{"load", true, false, {}},
               {"pressure", true, true, {}},
               {"weights", true, true, {}},
               {"gives", false, true, {}},
               {"holds", false, true, {}}},
              true, parent) {
        table().setSelectionMode(QAbstractItemView::SingleSelection);
        auto* row = new QWidget(this);
        auto* flow = new FlowLayout(row, 6, 6);
        auto* more =
            button(row, flow, "Add a load", "add-load",
                   "Something that acts on the part at one time: wind, snow, a hand, its own weight");
        connect(more, &QPushButton::clicked, this, [this] {
            PartLoad load;
            load.name = fmt::format("load {}", records().size() + 1);
            load.weight = 1;
            if (records().size() >= part::kMostLoads)
                return refuse(QString("More than %1 loads are not tried at once").arg(part::kMostLoads));
            add("add load", records().size(), load);
            table().setCurrentCell(static_cast<int>(records().size()) - 1, 0);
        });
        auto* away = button(row, flow, "Take it away", "load-away", "The load that is chosen");
        connect(away, &QPushButton::clicked, this, [this] { take_away(table().currentRow()); });
        bent_ = button(row, flow, "Bent on the stand", "part-bent",
                       "Shows the part under the chosen load, bent as far as the stand's slider says");
        bent_->setCheckable(true);
        connect(bent_, &QPushButton::toggled, this, [this] { show_bent(); });
        box()->addWidget(row);
        connect(&table(), &QTableWidget::itemSelectionChanged, this, [this] {
            if (filling_) return;
            show_bent();
            chosen();
        });
    }
    /// The load in hand: the table's row, else the first.
    [[nodiscard]] std::size_t load() const {
        const int row = table_row();
        return row < 0 || row >= static_cast<int>(records().size()) ? 0 : static_cast<std::size_t>(row);
    }
    std::function<void()> chosen = [] {};

    void refresh(const Wording& w) override {
        filling_ = true;
        RecordsPane::refresh(w);
        filling_ = false;
        if (bent_->isChecked()) show_bent();
        bent_->setEnabled(!records().empty());
        if (records().empty() && bent_->isChecked()) bent_->setChecked(false);
        const auto& trial = document().findings().part_trial;
        for (int row = 0; row < table().rowCount(); ++row) {
            const auto i = static_cast<std::size_t>(row);
            if (auto* item = table().item(row, 4); item != nullptr && trial && i < trial->loads.size()) {
                const auto& r = trial->loads[i];
                item->setToolTip(QString::fromStdString(
                    worded(r.how + "; most at " + r.where + "; then " + part::said(r.most().second), w)));
            }
        }
    }

  private:
    [[nodiscard]] int table_row() const { return const_cast<LoadsPane*>(this)->table().currentRow(); }
    void show_bent() {
        emit wanted(bent_->isChecked() && !records().empty() ? QString("part-load-%1").arg(load() + 1)
                                                             : QString("part-load-none"));
    }
    [[nodiscard]] QStringList cells(const PartLoad& l) const override {
        const auto& trial = document().findings().part_trial;
        const auto i = static_cast<std::size_t>(&l - records().data());
        QString gives = "…", holds = "…";
        if (trial && i < trial->loads.size() && trial->loads[i].name == l.name) {
            const auto& r = trial->loads[i];
            gives = shown(Kind::thickness, r.moves, wording());
            const double share = r.most().first;
            holds = share > 0 ? QString("%1 ×").arg(1 / share, 0, 'g', 3) : QString("—");
        }
        return {QString::fromStdString(l.name), editable(Kind::strength, l.pressure, wording()),
                editable(Kind::factor, l.weight, wording()), gives, holds};
    }
    [[nodiscard]] std::optional<QString> type(PartLoad& l, int column, const QString& text) const override {
        if (column == 0) {
            if (text.isEmpty()) return QString("A load wants a name");
            l.name = text.toStdString();
        }
        if (column == 1) return read_cell(Kind::strength, "pressure", text, wording(), l.pressure);
        if (column == 2) return read_cell(Kind::factor, "number of weights", text, wording(), l.weight);
        return std::nullopt;
    }
    void headings() override {
        table().horizontalHeaderItem(1)->setText(
            QString::fromStdString(unit_sign(Kind::strength, wording())));
        table().horizontalHeaderItem(1)->setToolTip("Pressure onto the tool face, all over; below 0 off it");
        table().horizontalHeaderItem(2)->setToolTip("Times its own weight");
        table().horizontalHeaderItem(4)->setToolTip("Times this load until something gives first");
    }

    QPushButton* bent_;
    bool filling_ = false;
};

class PushesPane : public RecordsPane<Push> {
  public:
    PushesPane(Document& document, std::function<std::size_t()> load, QWidget* parent)
        : RecordsPane(
              document,
              [load](Job & job) -> auto& {
                  static std::vector<Push> none;
                  auto& loads = job.part.duty.loads;
                  return loads.empty() ? none : loads[std::min(load(), loads.size() - 1)].pushes;
              },
              {"part-pushes", "Pushes of the chosen load, square to the tool face", "push", 0, 1, 6},
              {{"force", true, true, {}},
               {"along", true, true, {}},
               {"across", true, true, {}},
               {"patch", true, true, {}}},
              true, parent) {
        auto* row = new QWidget(this);
        auto* flow = new FlowLayout(row, 6, 6);
        auto* more = button(row, flow, "Add a push", "add-push",
                            "A force on a round patch of the tool face, placed from its middle");
        connect(more, &QPushButton::clicked, this,
                [this] { add("add push", this->records().size(), Push{}); });
        auto* away = button(row, flow, "Take it away", "push-away", "The push that is chosen");
        connect(away, &QPushButton::clicked, this, [this] { take_away(table().currentRow()); });
        box()->addWidget(row);
    }

  private:
    [[nodiscard]] QStringList cells(const Push& p) const override {
        return {editable(Kind::force, p.force, wording()), editable(Kind::length, p.along, wording()),
                editable(Kind::length, p.across, wording()), editable(Kind::length, p.size, wording())};
    }
    [[nodiscard]] std::optional<QString> type(Push& p, int column, const QString& text) const override {
        if (column == 0) return read_cell(Kind::force, "force", text, wording(), p.force);
        double* into = column == 1 ? &p.along : column == 2 ? &p.across : column == 3 ? &p.size : nullptr;
        return into != nullptr ? read_cell(Kind::length, "length", text, wording(), *into) : std::nullopt;
    }
    void headings() override {
        const std::array<std::pair<const char*, Kind>, 4> all{{{"force", Kind::force},
                                                               {"along", Kind::length},
                                                               {"across", Kind::length},
                                                               {"patch", Kind::length}}};
        for (std::size_t i = 0; i < all.size(); ++i)
            table()
                .horizontalHeaderItem(static_cast<int>(i))
                ->setText(with_unit(all[i].first, all[i].second, wording()));
    }
};

class BoltsPane : public RecordsPane<Spot> {
  public:
    BoltsPane(Document& document, QWidget* parent)
        : RecordsPane(
              document, [](Job & job) -> auto& { return job.part.duty.places; },
              {"part-bolts", "Places where the part is bolted, from the middle of its face", "bolt", 0, 1, 6},
              {{"along", true, true, {}}, {"across", true, true, {}}}, true, parent) {
        auto* row = new QWidget(this);
        auto* flow = new FlowLayout(row, 6, 6);
        auto* more = button(row, flow, "Add a bolt", "add-bolt", "Seen along the pull, from the middle");
        connect(more, &QPushButton::clicked, this,
                [this] { add("add bolt", this->records().size(), Spot{}); });
        auto* away = button(row, flow, "Take it away", "bolt-away", "The bolt that is chosen");
        connect(away, &QPushButton::clicked, this, [this] { take_away(table().currentRow()); });
        box()->addWidget(row);
    }

  private:
    [[nodiscard]] QStringList cells(const Spot& p) const override {
        return {editable(Kind::length, p.along, wording()), editable(Kind::length, p.across, wording())};
    }
    [[nodiscard]] std::optional<QString> type(Spot& p, int column, const QString& text) const override {
        return read_cell(Kind::length, "length", text, wording(), column == 0 ? p.along : p.across);
    }
    void headings() override {
        table().horizontalHeaderItem(0)->setText(with_unit("along", Kind::length, wording()));
        table().horizontalHeaderItem(1)->setText(with_unit("across", Kind::length, wording()));
    }
};

class DutyPane : public Pane {
  public:
    DutyPane(Document& document, QWidget* parent) : Pane(parent), document_(document) {
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(0, 6, 0, 0);
        box->setSpacing(6);
        box->addWidget(title("What it carries"));
        loads_ = new LoadsPane(document, this);
        box->addWidget(loads_);
        connect(loads_, &Pane::wanted, this, &Pane::wanted);
        state_ = new QLabel(this);
        state_->setObjectName("part-trial-state");
        state_->setWordWrap(true);
        state_->setFont(word_font(9.5));
        box->addWidget(state_);
        details_ = new QWidget(this);
        auto* more = new QVBoxLayout(details_);
        more->setContentsMargins(0, 0, 0, 0);
        more->setSpacing(6);
        auto* pull = new QWidget(details_);
        auto* flow = new FlowLayout(pull, 6, 6);
        auto* says = new QLabel("Its weight pulls", pull);
        flow->addWidget(says);
        way_ = new QComboBox(pull);
        way_->setObjectName("load-way");
        way_->setAccessibleName("Which way its weight pulls under the chosen load");
        way_->addItems(words_all<PartWeight>());
        flow->addWidget(way_);
        more->addWidget(pull);
        connect(way_, &QComboBox::activated, this, [this](int i) {
            auto job = document_.job();
            auto& loads = job.part.duty.loads;
            if (loads.empty()) return;
            loads[std::min(loads_->load(), loads.size() - 1)].way = static_cast<PartWeight>(i);
            document_.replace("turn the weight", std::move(job));
        });
        pushed_ = title("Pushes");
        more->addWidget(pushed_);
        pushes_ = new PushesPane(
            document, [this] { return loads_->load(); }, details_);
        more->addWidget(pushes_);
        bolted_ = title("Its bolts");
        more->addWidget(bolted_);
        bolts_ = new BoltsPane(document, details_);
        more->addWidget(bolts_);
        box->addWidget(details_);
        loads_->chosen = [this] { refresh(wording_); };
    }

    void refresh(const Wording& w) override {
        wording_ = w;
        loads_->refresh(w);
        const auto& duty = document_.job().part.duty;
        const auto& f = document_.findings();
        details_->setVisible(!duty.loads.empty());
        if (duty.loads.empty()) {
            state_->setText("Nothing so far: add what acts on it, and it is tried out by shell elements.");
            return;
        }
        if (!f.part_trial)
            state_->setText(f.edge && !f.edge->tool ? "No flange, no tool: see Edge." : "Being worked out …");
        else
            state_->setText(QString("%1 freedoms, edges of %2%3")
                                .arg(f.part_trial->freedoms)
                                .arg(shown(Kind::length, f.part_trial->edge, w))
                                .arg(f.part_trial->fine ? "" : "; a finer mesh is on its way") +
                            (f.split && !f.split->one_piece()
                                 ? QString("; of piece %1 alone, the one that Edge shows")
                                       .arg(edge::chosen_piece(document_.job().edge.piece, *f.split) + 1)
                                 : QString()));
        const auto& load = duty.loads[std::min(loads_->load(), duty.loads.size() - 1)];
        way_->setCurrentIndex(static_cast<int>(load.way));
        pushed_->setText("Pushes under " + QString::fromStdString(load.name));
        pushes_->refresh(w);
        const bool bolted = duty.hold == PartHold::places;
        bolted_->setVisible(bolted);
        bolts_->setVisible(bolted);
        if (bolted) bolts_->refresh(w);
    }

  private:
    QLabel* title(const char* text) {
        auto* label = new QLabel(text, this);
        label->setFont(word_font(10.5, true));
        return label;
    }

    Document& document_;
    LoadsPane* loads_;
    QLabel *state_, *pushed_, *bolted_;
    QWidget* details_;
    QComboBox* way_;
    PushesPane* pushes_;
    BoltsPane* bolts_;
    Wording wording_;
};

}  // namespace

Pane* make_duty_pane(Document& document, QWidget* parent) {
    return new DutyPane(document, parent);
}

}  // namespace jig::app
