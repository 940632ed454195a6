#include "app/slip/editor.hpp"

#include <cmath>
#include <QBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QSlider>

#include "app/theme/ink.hpp"

namespace jig::app {
namespace {

constexpr int kSteps = 200;

/// A step that reads well in the maker's unit: 1, 2 or 5 times a power of ten.
double round_to_step(double si, double range, Kind unit, const Wording& w) {
    if (unit == Kind::count) return std::round(si);
    const auto shown = [&](double v) { return std::stod(show_for_edit(unit, v, w)); };
    const double zero = shown(0), size = std::abs(shown(range) - zero) / kSteps;
    double step = std::pow(10, std::floor(std::log10(std::max(1e-12, size))));
    for (const double m : {2.0, 5.0, 10.0}) {
        if (step < size) step = std::pow(10, std::floor(std::log10(size))) * m;
    }
    const double there = std::round(shown(si) / step) * step;
    return read_quantity(unit, QString::number(there, 'g', 9).toStdString(), w).value_or(si);
}

}  // namespace

Editor::Editor(const Blank& word, const Json& now, const Wording& wording, QWidget* parent)
    : QFrame(parent, Qt::Popup), word_(word), wording_(wording) {
    setObjectName("editor");
    setAttribute(Qt::WA_DeleteOnClose);
    new QVBoxLayout(this);
    layout()->setContentsMargins(8, 8, 8, 8);
    auto* title = new QLabel(word.name, this);
    title->setFont(word_font(9.5));
    layout()->addWidget(title);
    switch (word.form) {
        case Blank::Form::quantity:
            build_quantity(now);
            break;
        case Blank::Form::choice:
            build_choice(now);
            break;
        case Blank::Form::text:
            build_text(now);
            break;
    }
}

void Editor::build_quantity(const Json& now) {
    auto* row = new QHBoxLayout();
    auto* field =
        new QLineEdit(QString::fromStdString(show_for_edit(word_.unit, now.get<double>(), wording_)), this);
    field->setObjectName("field");
    field->setFont(figure_font());
    field->setAccessibleName(word_.name);
    row->addWidget(field);
    row->addWidget(new QLabel(QString::fromStdString(unit_sign(word_.unit, wording_)), this));
    static_cast<QBoxLayout*>(layout())->addLayout(row);
    auto* slider = new QSlider(Qt::Horizontal, this);
    slider->setObjectName("slider");
    slider->setRange(0, kSteps);
    slider->setMinimumWidth(220);
    slider->setValue(static_cast<int>(std::lround(
        kSteps * std::clamp((now.get<double>() - word_.low) / (word_.high - word_.low), 0.0, 1.0))));
    slider->setAccessibleName(word_.name);
    layout()->addWidget(slider);
    auto* note =
        new QLabel(QString("usual: %1 to %2")
                           .arg(QString::fromStdString(jig::show(word_.unit, word_.low, wording_)),
                                QString::fromStdString(jig::show(word_.unit, word_.high, wording_))) +
                       (word_.note.isEmpty() ? QString() : "\n" + word_.note),
                   this);
    note->setObjectName("note");
    note->setFont(word_font(9));
    note->setWordWrap(true);
    layout()->addWidget(note);
    connect(slider, &QSlider::valueChanged, this, [this, field](int step) {
        const double si = round_to_step(word_.low + (word_.high - word_.low) * step / kSteps,
                                        word_.high - word_.low, word_.unit, wording_);
        field->setText(QString::fromStdString(show_for_edit(word_.unit, si, wording_)));
        emit chosen(word_.unit == Kind::count ? Json(static_cast<int>(std::lround(si))) : Json(si));
    });
    connect(field, &QLineEdit::returnPressed, this, [this, field, note] {
        const auto si = read_quantity(word_.unit, field->text().toStdString(), wording_);
        if (!si) {
            const auto sign = QString::fromStdString(unit_sign(word_.unit, wording_));
            note->setText(QString("\"%1\" is not a figure here: write a number%2")
                              .arg(field->text(), sign.isEmpty() ? "" : ", alone or with " + sign));
            return;
        }
        emit chosen(word_.unit == Kind::count ? Json(static_cast<int>(std::lround(*si))) : Json(*si));
        close();
    });
    field->selectAll();
    field->setFocus();
}

void Editor::build_choice(const Json& now) {
    auto* list = new QListWidget(this);
    list->setObjectName("list");
    int wide = 200;
    for (std::size_t i = 0; i < word_.options.size(); ++i) {
        list->addItem(word_.options[i].said);
        wide = std::max(wide, list->fontMetrics().horizontalAdvance(word_.options[i].said) + 44);
        if (word_.options[i].value == now) list->setCurrentRow(static_cast<int>(i));
    }
    const int rows = std::min<int>(12, list->count());
    list->setFixedHeight(rows * std::max(20, list->sizeHintForRow(0)) + 10);
    list->setMinimumWidth(std::min(420, wide));
    list->setAccessibleName(word_.name);
    layout()->addWidget(list);
    const auto take = [this, list] {
        const auto row = list->currentRow();
        if (row < 0) return;
        emit chosen(word_.options[static_cast<std::size_t>(row)].value);
        close();
    };
    connect(list, &QListWidget::itemClicked, this, take);
    connect(list, &QListWidget::itemActivated, this, take);
    list->setFocus();
}

void Editor::build_text(const Json& now) {
    auto* field = new QLineEdit(QString::fromStdString(now.get<std::string>()), this);
    field->setObjectName("field");
    field->setMinimumWidth(240);
    field->setMaxLength(200);
    field->setAccessibleName(word_.name);
    layout()->addWidget(field);
    connect(field, &QLineEdit::returnPressed, this, [this, field] {
        emit chosen(field->text().trimmed().toStdString());
        close();
    });
    field->selectAll();
    field->setFocus();
}

}  // namespace jig::app
