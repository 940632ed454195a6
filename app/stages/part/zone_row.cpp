#include "app/stages/part/zone_row.hpp"

#include <QBoxLayout>
#include <QComboBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QSignalBlocker>

#include "app/slip/sentence.hpp"
#include "app/slip/words.hpp"
#include "app/stages/part/corners.hpp"
#include "app/stages/part/piece_words.hpp"
#include "core/base/error.hpp"
#include "core/science/mesh/outline_file.hpp"
#include "core/science/mesh/stl.hpp"

namespace jig::app {
namespace {

/// A field that is being typed in, or was refused there, keeps what it shows.
void show_in(QLineEdit* field, const QString& text) {
    if (field->hasFocus() && field->isModified()) return;
    if (field->text() != text) field->setText(text);
    field->setCursorPosition(0);
}

/// A list that is as it was stays open where somebody looks through it.
void fill(QComboBox* box, const QStringList& items) {
    QStringList had;
    for (int i = 0; i < box->count(); ++i) had << box->itemText(i);
    if (had == items) return;
    box->clear();
    box->addItems(items);
}

}  // namespace

ZoneRow::ZoneRow(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    auto* row = new QHBoxLayout();
    zones_ = new QComboBox(this);
    zones_->setObjectName("part-zones");
    zones_->setAccessibleName("Whose layers the table shows");
    row->addWidget(zones_, 1);
    auto* add_button = new QPushButton("Add a zone", this);
    add_button->setObjectName("add-zone");
    auto* menu = new QMenu(add_button);
    for (std::size_t i = 0; i < Words<ZonePlace>::all.size(); ++i) {
        const auto place = static_cast<ZonePlace>(i);
        auto* action = menu->addAction(text_of(said(place)));
        action->setObjectName("zone-" + text_of(file_word(place)));
        connect(action, &QAction::triggered, this, [this, place] { add(place); });
    }
    add_button->setMenu(menu);
    row->addWidget(add_button);
    away_ = new QPushButton("Away", this);
    away_->setObjectName("zone-away");
    away_->setToolTip("Takes the zone that the table shows away");
    row->addWidget(away_);
    box->addLayout(row);

    details_ = new QWidget(this);
    auto* lines = new QVBoxLayout(details_);
    lines->setContentsMargins(0, 0, 0, 0);
    auto* first = new QHBoxLayout();
    name_ = new QLineEdit(details_);
    name_->setObjectName("zone-name");
    name_->setAccessibleName("Name of the zone");
    first->addWidget(name_, 1);
    way_ = new QComboBox(details_);
    way_->setObjectName("zone-way");
    way_->setAccessibleName("How its layers lie to the stack");
    for (const auto& w : Words<ZoneWay>::all) way_->addItem(text_of(w.said));
    first->addWidget(way_, 1);
    lines->addLayout(first);
    piece_box_ = new QWidget(details_);
    auto* on = new QHBoxLayout(piece_box_);
    on->setContentsMargins(0, 0, 0, 0);
    auto* on_label = new QLabel("on", piece_box_);
    on->addWidget(on_label);
    piece_ = new QComboBox(piece_box_);
    piece_->setObjectName("zone-piece");
    piece_->setAccessibleName("The piece of the mould that the zone lies on");
    piece_->setToolTip("Lines and outlines count from the middle of that piece's face");
    on_label->setBuddy(piece_);
    on->addWidget(piece_, 1);
    lines->addWidget(piece_box_);
    const auto labelled = [&](const QString& text, QLineEdit*& field, const char* name, const QString& tip) {
        auto* holder = new QWidget(details_);
        auto* across = new QHBoxLayout(holder);
        across->setContentsMargins(0, 0, 0, 0);
        auto* label = new QLabel(text, holder);
        across->addWidget(label);
        field = new QLineEdit(holder);
        field->setObjectName(name);
        field->setAccessibleName(text);
        field->setToolTip(tip);
        label->setBuddy(field);
        across->addWidget(field, 1);
        lines->addWidget(holder);
        return holder;
    };
    width_box_ = labelled("wide", width_, "zone-width", "In from the rim, or the whole width of the band");
    line_box_ = labelled("corners", line_, "zone-line",
                         "Along : across from the middle of the face, seen along the pull; as "
                         "-120 : 40; 80 : 40; 80 : -60");
    line_label_ = line_box_->findChild<QLabel*>();
    auto* drawing = new QPushButton("From a drawing…", line_box_);
    drawing->setObjectName("zone-drawing");
    drawing->setToolTip("The closed outline of a DXF or SVG file; its origin is the middle of the face");
    line_box_->layout()->addWidget(drawing);
    box->addWidget(details_);

    connect(zones_, &QComboBox::activated, this, [this](int i) {
        zone_ = i - 1;
        emit chosen();
    });
    connect(away_, &QPushButton::clicked, this, [this] {
        if (shown() == nullptr) return;
        auto job = document_.job();
        job.part.zones.erase(job.part.zones.begin() + zone_);
        zone_ = -1;
        document_.replace("take zone away", std::move(job));
    });
    connect(name_, &QLineEdit::editingFinished, this, [this] {
        if (shown() == nullptr || !name_->isModified()) return;
        name_->setModified(false);
        const auto text = name_->text().simplified().toStdString();
        if (!text.empty() && text != shown()->name)
            edit("name zone " + name_->text().simplified(), [&](part::Zone& z) { z.name = text; });
        else
            refresh(wording_);
    });
    connect(way_, &QComboBox::activated, this, [this](int i) {
        if (shown() != nullptr && shown()->way != static_cast<ZoneWay>(i))
            edit("lay zone " + text_of(said(static_cast<ZoneWay>(i))),
                 [&](part::Zone& z) { z.way = static_cast<ZoneWay>(i); });
    });
    connect(piece_, &QComboBox::activated, this, [this](int i) {
        if (shown() != nullptr && shown()->piece != i)
            edit("lay zone on " + (i == 0 ? QString("each piece") : piece_->currentText()),
                 [&](part::Zone& z) { z.piece = i; });
    });
    connect(width_, &QLineEdit::editingFinished, this, &ZoneRow::typed_width);
    connect(line_, &QLineEdit::editingFinished, this, &ZoneRow::typed_line);
    connect(drawing, &QPushButton::clicked, this, [this] {
        const auto path = QFileDialog::getOpenFileName(this, "An outline for this zone", {},
                                                       "Drawings (*.dxf *.svg);;All files (*)");
        if (!path.isEmpty()) take_drawing(path);
    });
}

const part::Zone* ZoneRow::shown() const {
    const auto& zones = document_.job().part.zones;
    return zone_ >= 0 && zone_ < static_cast<int>(zones.size()) ? &zones[static_cast<std::size_t>(zone_)]
                                                                : nullptr;
}

void ZoneRow::add(ZonePlace place) {
    auto job = document_.job();
    if (job.part.zones.size() >= part::kMostZones) {
        emit document_.refused(QString("A part has at most %1 zones").arg(part::kMostZones));
        return;
    }
    const auto& f = document_.findings();
    auto zone = part::fresh_zone(job.part, place, f.split ? f.split->moulded_area : 0.25);
    // A line is drawn where it is seen; rims and inserts are alike on each piece.
    if (place == ZonePlace::band || place == ZonePlace::inside) zone.piece = piece_shown(document_);
    job.part.zones.push_back(std::move(zone));
    zone_ = static_cast<int>(job.part.zones.size()) - 1;
    document_.replace("add zone " + text_of(said(place)), std::move(job));
}

void ZoneRow::edit(const QString& name, const std::function<void(part::Zone&)>& change) {
    auto job = document_.job();
    change(job.part.zones[static_cast<std::size_t>(zone_)]);
    document_.replace(name, std::move(job));
}

void ZoneRow::typed_width() {
    if (shown() == nullptr || !width_->isModified()) return;
    const auto width = read_quantity(Kind::length, width_->text().toStdString(), wording_);
    if (!width || !(*width >= 0.001) || *width > 10) {
        emit document_.refused(QString("\"%1\" is no width of a zone: %2 to %3")
                                   .arg(width_->text(),
                                        QString::fromStdString(jig::show(Kind::length, 0.001, wording_)),
                                        QString::fromStdString(jig::show(Kind::length, 10, wording_))));
        return;
    }
    width_->setModified(false);
    edit("set width of zone", [&](part::Zone& z) { z.width = *width; });
}

void ZoneRow::typed_line() {
    if (shown() == nullptr || !line_->isModified()) return;
    QString why;
    const auto spots = read_corners(line_->text(), wording_, why);
    if (!spots) {
        emit document_.refused(why);
        return;
    }
    line_->setModified(false);
    if (*spots != shown()->line) edit("draw zone", [&](part::Zone& z) { z.line = *spots; });
}

void ZoneRow::take_drawing(const QString& path) {
    if (shown() == nullptr) return;
    try {
        const auto name = QFileInfo(path).fileName();
        const auto loop = read_outline(read_file(path.toStdString()), name.toStdString(),
                                       length_unit(std::string(file_word(document_.job().shape.unit))));
        edit("draw zone from " + name, [&](part::Zone& z) {
            z.line.clear();
            for (const auto& p : loop) z.line.push_back(part::Spot{p.x(), p.y()});
        });
    } catch (const InputError& e) {
        emit document_.refused(QString::fromStdString(e.what()));
    }
}

void ZoneRow::refresh(const Wording& wording) {
    wording_ = wording;
    const auto& zones = document_.job().part.zones;
    if (shown() == nullptr) zone_ = -1;
    {
        const QSignalBlocker quiet(zones_);
        QStringList names{"the whole part"};
        for (const auto& z : zones) names << "zone " + QString::fromStdString(z.name);
        fill(zones_, names);
        zones_->setCurrentIndex(zone_ + 1);
    }
    const auto* zone = shown();
    away_->setEnabled(zone != nullptr);
    details_->setVisible(zone != nullptr);
    if (zone == nullptr) return;
    // What was typed for another zone is not for this one.
    if (told_ != zone_) {
        for (auto* field : {name_, width_, line_}) field->setModified(false);
    }
    told_ = zone_;
    const QSignalBlocker a(way_);
    show_in(name_, QString::fromStdString(zone->name));
    way_->setCurrentIndex(static_cast<int>(zone->way));
    {
        const QSignalBlocker quiet(piece_);
        const auto names = piece_names(document_);
        QStringList all{"each piece of the mould"};
        for (int i = 1; i <= std::max(static_cast<int>(names.size()), zone->piece); ++i)
            all << piece_said(i, names);
        fill(piece_, all);
        piece_->setCurrentIndex(zone->piece);
        piece_box_->setVisible(zone->place != ZonePlace::painted && piece_matters(document_, zones));
    }
    show_in(width_, QString::fromStdString(show_for_edit(Kind::length, zone->width, wording_)));
    show_in(line_, corners_text(zone->line, wording_));
    line_label_->setText("corners, " + QString::fromStdString(unit_sign(Kind::length, wording_)));
    width_box_->setVisible(zone->place == ZonePlace::rim || zone->place == ZonePlace::band ||
                           zone->place == ZonePlace::inserts);
    line_box_->setVisible(zone->place == ZonePlace::band || zone->place == ZonePlace::inside);
}

}  // namespace jig::app
