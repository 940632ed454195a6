#include "app/slip/stack_pane.hpp"
#include "app/slip/sentence.hpp"

#include <algorithm>
#include <QBoxLayout>
#include <QComboBox>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>

#include "app/slip/flow_layout.hpp"
#include "app/slip/words.hpp"
#include "app/stages/part/zone_row.hpp"
#include "core/stages/part/goes.hpp"
#include "core/stages/shell/units.hpp"

namespace jig::app {
namespace {

constexpr int kRow = 21;
const QString kGoesOn = "wet", kHardens = "hard";

}  // namespace

StackPane::StackPane(Document& document, Stage stage, QWidget* parent)
    : Pane(parent), document_(document), stage_(stage) {
    std::vector<RecordColumn> columns{
        {"layer", true, false,
         [this](int row) { return names_like(layers()[static_cast<std::size_t>(row)]); }},
        {"°", true, true, {}},
        {"mm", true, true, {}},
        {"g/m²", false, true, {}},
        {"then", true, false,
         [](int) {
             return QStringList{kGoesOn, kHardens};
         },
         [this](int row) { return !may_end_go(row); }}};
    if (stage == Stage::shell) columns.push_back({"units", false, true, {}});
    table_ = new RecordTable(std::move(columns), true, this);
    table_->setObjectName(QString("stack-%1").arg(name_of(stage).key));
    table_->setAccessibleName(stage == Stage::shell ? "Stack of the shell, plug side first"
                                                    : "Stack of the part, tool side first");
    table_->verticalHeader()->setDefaultSectionSize(row_height(kRow));
    // Where a name does not fit, its end tells more than its beginning: cloths differ by weight and weave.
    table_->setTextElideMode(Qt::ElideLeft);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    if (stage == Stage::shell) {
        build_zones(box);
    } else {
        zone_row_ = new ZoneRow(document, this);
        connect(zone_row_, &ZoneRow::chosen, this, [this] { refresh(wording_); });
        box->addWidget(zone_row_);
    }
    box->addWidget(table_);
    if (stage == Stage::shell) build_units(box);
    auto* buttons = new QWidget(this);
    auto* flow = new FlowLayout(buttons, 6, 6);
    const auto button = [&](const QString& text, const char* key, auto action) {
        auto* b = new QPushButton(text, buttons);
        b->setObjectName(QString("%1-%2").arg(key, name_of(stage_).key));
        connect(b, &QPushButton::clicked, this, action);
        flow->addWidget(b);
    };
    button("Add a light ply", "add-light", [this] { add_ply(false); });
    button("Add a heavy ply", "add-heavy", [this] { add_ply(true); });
    button("Add core", "add-core", [this] {
        if (!document_.shop().cores.empty())
            add_layer("add core", {LayerKind::core,
                                   document_.shop().cores[1 % document_.shop().cores.size()].name, 0, 0});
    });
    button("Add surface coat", "add-coat", [this] {
        if (document_.shop().surface_coats.empty()) return;
        auto next = layers();
        next.insert(next.begin(),
                    {LayerKind::surface_coat, document_.shop().surface_coats.front().name, 0, 0});
        set_layers("add surface coat", next);
    });
    button("Take away", "remove", [this] { emit table_->remove_wanted(table_->currentRow()); });
    if (stage == Stage::part)
        build_goes(buttons, flow);
    else
        button("Let it harden", "harden", [this] { toggle_hardens(table_->currentRow()); });
    box->addWidget(buttons);
    connect(table_, &RecordTable::typed, this, &StackPane::typed);
    connect(table_, &RecordTable::pasted, this, &StackPane::pasted);
    connect(table_, &RecordTable::moved, this, [this](int from, int to) {
        auto next = layers();
        const auto layer = next[static_cast<std::size_t>(from)];
        next.erase(next.begin() + from);
        next.insert(next.begin() + to, layer);
        set_layers("move layer " + QString::number(from + 1), next);
        table_->selectRow(to);
    });
    connect(table_, &RecordTable::remove_wanted, this, [this](int row) {
        if (row < 0) return;
        auto next = layers();
        next.erase(next.begin() + row);
        set_layers("take layer " + QString::number(row + 1) + " away", next);
    });
}

/// Beside the table: the usual ways of laying a sandwich, all its goes at once.
void StackPane::build_goes(QWidget* parent, FlowLayout* flow) {
    auto* goes = new QPushButton("Lay it in goes", parent);
    goes->setObjectName("goes-part");
    goes->setToolTip(
        "What hardens before more is laid on it: the usual ways; each layer has a cell of its own");
    auto* menu = new QMenu(goes);
    const auto way = [&](const char* key, const QString& name,
                         std::vector<Layer> (*layered)(std::vector<Layer>)) {
        auto* action = menu->addAction(name);
        action->setObjectName(QString("goes-%1").arg(key));
        connect(action, &QAction::triggered, this, [this, name, layered] {
            auto job = document_.job();
            job.part.layers = layered(job.part.layers);
            document_.replace("lay " + name, std::move(job));
        });
    };
    way("once", "all at once", part::at_once);
    way("skin", "the outer skin first", part::skin_first);
    way("each", "outer skin, core and inner skin one by one", part::one_by_one);
    goes->setMenu(menu);
    flow->addWidget(goes);
}

/// A shell is parted into days by its own heat: that one of them ends sooner is marked for the chosen layer,
/// and the column for it stands only where one is.
void StackPane::toggle_hardens(int row) {
    if (!may_end_go(row)) {
        emit document_.refused("Choose a ply or a core that more is laid on: it hardens before that");
        return;
    }
    auto next = layers();
    auto& layer = next[static_cast<std::size_t>(row)];
    layer.hardens = !layer.hardens;
    set_layers(QString("layer %1 %2").arg(row + 1).arg(layer.hardens ? "hardens first" : "goes on"), next);
}

bool StackPane::may_end_go(int row) const {
    const auto& all = layers();
    const auto i = static_cast<std::size_t>(row);
    // A zone that lies on the stack, or in its core's place, hardens with it.
    const auto* z = part_zone();
    return row >= 0 && i + 1 < all.size() && may_harden(all[i].kind) && zone() == nullptr &&
           (z == nullptr || z->way == ZoneWay::instead);
}

/// Above the table: whose layers it shows, and doublers to add or take away.
void StackPane::build_zones(QVBoxLayout* box) {
    auto* row = new QHBoxLayout();
    zones_ = new QComboBox(this);
    zones_->setObjectName("zones");
    zones_->setAccessibleName("Whose layers the table shows");
    row->addWidget(zones_, 1);
    auto* add = new QPushButton("Add a doubler", this);
    add->setObjectName("add-doubler");
    auto* menu = new QMenu(add);
    for (std::size_t i = 0; i < Words<ZoneKind>::all.size(); ++i) {
        const auto kind = static_cast<ZoneKind>(i);
        const auto name = text_of(said(kind));
        auto* action = menu->addAction(name);
        action->setObjectName("doubler-" + text_of(file_word(kind)));
        connect(action, &QAction::triggered, this, [this, kind, name] {
            auto job = document_.job();
            if (job.shell.zones.size() >= shell::kMostZones) {
                emit document_.refused(QString("A shell has at most %1 doublers").arg(shell::kMostZones));
                return;
            }
            job.shell.zones.push_back(shell::fresh_zone(job.shell, kind));
            zone_ = static_cast<int>(job.shell.zones.size()) - 1;
            document_.replace("add doubler " + name, std::move(job));
        });
    }
    add->setMenu(menu);
    row->addWidget(add);
    auto* away = new QPushButton("Away", this);
    away->setObjectName("doubler-away");
    away->setToolTip("Takes the doubler that the table shows away");
    connect(away, &QPushButton::clicked, this, [this] {
        if (zone() == nullptr) return;
        auto job = document_.job();
        job.shell.zones.erase(job.shell.zones.begin() + zone_);
        zone_ = -1;
        document_.replace("take doubler away", std::move(job));
    });
    row->addWidget(away);
    box->addLayout(row);
    connect(zones_, &QComboBox::activated, this, [this](int i) {
        zone_ = i - 1;
        refresh(wording_);
    });
}

QString StackPane::counted(const Layer& layer) const {
    const auto& shop = document_.shop();
    if (!shell::is_cloth(layer, shop)) return {};
    return QString::number(shell::units_of(layer.material, document_.job().shell, shop), 'f', 1);
}

/// Below the table: the layers as the shop counts them, to be typed afresh.
void StackPane::build_units(QVBoxLayout* box) {
    auto* row = new QHBoxLayout();
    row->addWidget(new QLabel("In units", this));
    units_ = new QLineEdit(this);
    units_->setObjectName("build-in-units");
    units_->setAccessibleName("The plies counted in the shop's thickness units");
    units_->setToolTip(
        "Type a total, as 24, and plies are laid light to heavy and mirrored until they count "
        "that much; or ply by ply from the plug out, as 1 + 2 + 4 × 6 + core + 6. Coats and "
        "tissue stay.");
    row->addWidget(units_, 1);
    counted_ = new QLabel(this);
    counted_->setObjectName("counted-in-units");
    row->addWidget(counted_);
    box->addLayout(row);
    connect(units_, &QLineEdit::returnPressed, this, &StackPane::lay_units);
    connect(units_, &QLineEdit::editingFinished, this, [this] {
        if (!units_->hasFocus()) fill_units();
    });
}

void StackPane::fill_units() {
    if (units_ == nullptr) return;
    // What is being typed, or was refused and waits to be mended, is not overwritten by results that
    // arrive; only by another stack, which it was not typed for.
    if (units_->hasFocus() && units_->isModified() && layers() == counted_layers_) return;
    counted_layers_ = layers();
    try {
        const auto& c = document_.job().shell;
        const QSignalBlocker quiet(units_);
        units_->setText(QString::fromStdString(shell::in_units(layers(), c, document_.shop())));
        units_->setCursorPosition(0);
        counted_->setText(
            QString("= %1").arg(std::round(10 * shell::units_of(layers(), c, document_.shop())) / 10));
        counted_->setToolTip(QString("units of %1").arg(QString::fromStdString(c.unit)));
    } catch (const InputError&) {
        // The shell's own call says what the library has not.
        units_->clear();
        counted_->clear();
    }
}

void StackPane::lay_units() {
    try {
        const auto next =
            shell::from_units(units_->text().toStdString(), document_.job().shell, zone(), document_.shop());
        units_->setModified(false);
        if (next != layers())
            set_layers("build " + units_->text().simplified() + " in units", next);
        else
            fill_units();
    } catch (const InputError& e) {
        emit document_.refused(QString::fromStdString(e.problem() + "; " + e.mend()));
    }
}

void StackPane::fill_zones() {
    if (zones_ == nullptr) return;
    zones_->clear();
    zones_->addItem("the whole shell");
    const auto& all = document_.job().shell.zones;
    for (std::size_t i = 0; i < all.size(); ++i)
        zones_->addItem((all.size() == 1 ? QString("doubler ") : QString("doubler %1, ").arg(i + 1)) +
                        text_of(said(all[i].kind)));
    if (zone() == nullptr) zone_ = -1;
    zones_->setCurrentIndex(zone_ + 1);
}

const shell::Zone* StackPane::zone() const {
    const auto& zones = document_.job().shell.zones;
    return stage_ == Stage::shell && zone_ >= 0 && zone_ < static_cast<int>(zones.size())
               ? &zones[static_cast<std::size_t>(zone_)]
               : nullptr;
}

const part::Zone* StackPane::part_zone() const {
    const auto& zones = document_.job().part.zones;
    const int z = zone_row_ != nullptr ? zone_row_->zone() : -1;
    return z >= 0 && z < static_cast<int>(zones.size()) ? &zones[static_cast<std::size_t>(z)] : nullptr;
}

const std::vector<LaidLayer>* StackPane::laid() const {
    const auto& f = document_.findings();
    if (part_zone() != nullptr) {
        zone_laid_.clear();
        if (!f.part) return nullptr;
        for (const auto& l : f.part->laying_order) {
            if (l.zone == zone_row_->zone()) zone_laid_.push_back(l.laid);
        }
        return &zone_laid_;
    }
    if (stage_ != Stage::shell) return f.part ? &f.part->stack.laid : nullptr;
    if (!f.shell) return nullptr;
    if (zone() == nullptr) return &f.shell->stack.laid;
    // Zones without layers have no sum of their own.
    std::size_t place = 0;
    for (int z = 0; z < zone_; ++z)
        place += !document_.job().shell.zones[static_cast<std::size_t>(z)].layers.empty();
    return place < f.shell->zones.size() ? &f.shell->zones[place].extra.laid : nullptr;
}

const std::vector<Layer>& StackPane::layers() const {
    if (const auto* z = zone()) return z->layers;
    if (const auto* z = part_zone()) return z->layers;
    return stage_ == Stage::shell ? document_.job().shell.layers : document_.job().part.layers;
}

void StackPane::set_layers(const QString& name, const std::vector<Layer>& next) {
    auto job = document_.job();
    if (zone() != nullptr)
        job.shell.zones[static_cast<std::size_t>(zone_)].layers = next;
    else if (part_zone() != nullptr)
        job.part.zones[static_cast<std::size_t>(zone_row_->zone())].layers = next;
    else
        (stage_ == Stage::shell ? job.shell.layers : job.part.layers) = next;
    document_.replace(name, std::move(job));
}

void StackPane::add_ply(bool heavy) {
    // The same fibre as the stack's last ply, its lightest or heaviest cloth.
    FibreKind fibre = FibreKind::glass;
    bool mat = false;
    for (const auto& l : zone() != nullptr        ? document_.job().shell.layers
                         : part_zone() != nullptr ? document_.job().part.layers
                                                  : layers()) {
        if (const auto* r = jig::find(document_.shop().reinforcements, l.material);
            r != nullptr && l.kind == LayerKind::ply) {
            fibre = r->fibre;
            mat = r->weave == Weave::mat && r->style != "tissue";
        }
    }
    const Reinforcement* best = nullptr;
    for (const auto& r : document_.shop().reinforcements) {
        if (r.fibre != fibre || r.style == "tissue" || (r.weave == Weave::mat) != mat ||
            r.weave == Weave::unidirectional || r.style == "biaxial")
            continue;
        if (best == nullptr || (heavy ? r.areal_mass > best->areal_mass : r.areal_mass < best->areal_mass))
            best = &r;
    }
    if (best != nullptr)
        add_layer(heavy ? "add heavy ply" : "add light ply", {LayerKind::ply, best->name, 0, 0});
}

void StackPane::add_layer(const QString& name, Layer layer) {
    auto next = layers();
    const int row = table_->currentRow();
    next.insert(row >= 0 ? next.begin() + row + 1 : next.end(), std::move(layer));
    set_layers(name, next);
}

QStringList StackPane::names_like(const Layer& layer) const {
    QStringList out;
    const auto all = [&](const auto& list) {
        for (const auto& e : list) out << QString::fromStdString(e.name);
    };
    switch (layer.kind) {
        case LayerKind::surface_coat:
            all(document_.shop().surface_coats);
            break;
        case LayerKind::core:
            all(document_.shop().cores);
            break;
        case LayerKind::ply:
            all(document_.shop().reinforcements);
            break;
        case LayerKind::coupling:
            out << "coupling coat";
            break;
        case LayerKind::wall:
            break;
    }
    return out;
}

void StackPane::typed(int row, int column, const QString& text) {
    auto next = layers();
    auto& layer = next[static_cast<std::size_t>(row)];
    const auto refuse = [&](const QString& what) {
        emit document_.refused(what);
        refresh(wording_);
    };
    if (column == kName) {
        if (layer.kind != LayerKind::coupling) layer.material = text.toStdString();
        if (!names_like(layer).contains(text))
            return refuse(QString("The shop library has no \"%1\"").arg(text));
        set_layers("change layer " + QString::number(row + 1), next);
    } else if (column == kAngle) {
        const auto angle = read_quantity(Kind::angle, text.toStdString(), wording_);
        if (!angle || std::abs(*angle) > kPi)
            return refuse(QString("\"%1\" is no angle between −180 and 180").arg(text));
        layer.angle = *angle;
        set_layers("turn layer " + QString::number(row + 1), next);
    } else if (column == kThickness) {
        // Empty or 0 goes back to the library's own figure.
        const auto thickness = text.trimmed().isEmpty()
                                   ? std::optional<double>(0)
                                   : read_quantity(Kind::thickness, text.toStdString(), wording_);
        if (!thickness || *thickness < 0 || *thickness > 0.5)
            return refuse(QString("\"%1\" is no thickness of a layer").arg(text));
        layer.thickness = *thickness;
        set_layers("measure layer " + QString::number(row + 1), next);
    } else if (column == kThen) {
        const auto said = text.trimmed();
        if (said != kHardens && said != kGoesOn && !said.isEmpty())
            return refuse(QString("\"%1\" is neither \"%2\" nor \"%3\"").arg(text, kGoesOn, kHardens));
        layer.hardens = said == kHardens;
        set_layers(QString("layer %1 %2").arg(row + 1).arg(layer.hardens ? "hardens first" : "goes on"),
                   next);
    }
}

void StackPane::pasted(const QList<QStringList>& rows) {
    auto next = layers();
    int taken = 0;
    // Behind the layer that is chosen; at the end where none is.
    const auto chosen = table_->selectionModel()->selectedRows();
    auto at = chosen.isEmpty() ? static_cast<int>(next.size()) : chosen.last().row() + 1;
    for (const auto& cells : rows) {
        Layer layer;
        layer.material = cells.value(0).trimmed().toStdString();
        if (layer.material == "coupling coat")
            layer.kind = LayerKind::coupling;
        else if (jig::find(document_.shop().reinforcements, layer.material) != nullptr)
            layer.kind = LayerKind::ply;
        else if (jig::find(document_.shop().surface_coats, layer.material) != nullptr)
            layer.kind = LayerKind::surface_coat;
        else if (jig::find(document_.shop().cores, layer.material) != nullptr)
            layer.kind = LayerKind::core;
        else
            continue;
        if (const auto angle = read_quantity(Kind::angle, cells.value(1).toStdString(), wording_))
            layer.angle = std::remainder(*angle, 2 * kPi);  // 270° lies as −90° does
        layer.hardens = may_harden(layer.kind) && cells.value(kThen).trimmed() == kHardens;
        next.insert(next.begin() + at++, layer);
        ++taken;
    }
    if (taken > 0) set_layers(QString("paste %1 layers").arg(taken), next);
    if (taken < rows.size())
        emit document_.refused(QString("%1 of %2 pasted lines name no material of the shop library")
                                   .arg(rows.size() - taken)
                                   .arg(rows.size()));
}

void StackPane::refresh(const Wording& wording) {
    wording_ = wording;
    table_->horizontalHeaderItem(kThickness)
        ->setText(QString::fromStdString(unit_sign(Kind::thickness, wording)));
    table_->horizontalHeaderItem(kMass)->setText(
        QString::fromStdString(unit_sign(Kind::areal_mass, wording)));
    if (zone_row_ != nullptr) zone_row_->refresh(wording);
    fill_zones();
    fill_units();
    const auto* laid = this->laid();
    QList<QStringList> rows;
    QList<QString> tips;
    for (std::size_t i = 0; i < layers().size(); ++i) {
        const auto& layer = layers()[i];
        const bool known = laid != nullptr && i < laid->size() && (*laid)[i].layer == layer;
        const auto bare = [&](Kind kind, double v) {
            return QString::number(number_of(show_for_edit(kind, v, wording)), 'f',
                                   kind == Kind::thickness ? (wording.system == UnitSystem::metric ? 2 : 4)
                                   : wording.system == UnitSystem::metric ? 0
                                                                          : 1);
        };
        rows << QStringList{
            layer.kind == LayerKind::coupling ? "coupling coat" : QString::fromStdString(layer.material),
            layer.kind == LayerKind::ply ? QString::number(std::lround(degrees(layer.angle))) : QString(),
            known ? bare(Kind::thickness, (*laid)[i].ply.thickness) : QString("…"),
            known ? bare(Kind::areal_mass, (*laid)[i].mass()) : QString("…"),
            may_end_go(static_cast<int>(i)) ? (layer.hardens ? kHardens : kGoesOn) : QString()};
        if (stage_ == Stage::shell) rows.back() << (known ? counted(layer) : QString("…"));
        if (!known) {
            tips << QString();
            continue;
        }
        const auto& l = (*laid)[i];
        tips << QString::fromStdString(worded(
            l.name + "\nfibre " + quantity(Kind::areal_mass, l.fibre) + ", resin " +
                quantity(Kind::areal_mass, l.resin) +
                (l.fibre_volume > 0 ? ", fibre by volume " + quantity(Kind::ratio, l.fibre_volume)
                                    : std::string()) +
                "\n" + std::string(said(l.origin.kind)) + (l.origin.note.empty() ? "" : ": " + l.origin.note),
            wording));
    }
    table_->show_rows(rows, tips);
    table_->setColumnHidden(
        kThen, stage_ == Stage::shell &&
                   std::none_of(layers().begin(), layers().end(), [](const Layer& l) { return l.hardens; }));
    const int height = table_->horizontalHeader()->sizeHint().height() +
                       row_height(kRow) * std::clamp(static_cast<int>(rows.size()), 2, 24) + 6;
    table_->setFixedHeight(height);
}

}  // namespace jig::app
