#include "app/slip/editor.hpp"

#include <cmath>
#include <QBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMouseEvent>
#include <QSlider>

#include "app/theme/ink.hpp"
#include "core/base/typed.hpp"

namespace jig::app {
namespace {

constexpr int kSteps = 200;

/// A step that reads well in the maker's unit: 1, 2 or 5 times a power of ten.
double round_to_step(double si, double range, Kind unit, const Wording& w) {
    if (unit == Kind::count) return std::round(si);
    const auto shown = [&](double v) { return number_of(show_for_edit(unit, v, w)); };
    const double zero = shown(0), size = std::abs(shown(range) - zero) / kSteps;
    double step = std::pow(10, std::floor(std::log10(std::max(1e-12, size))));
    for (const double m : {2.0, 5.0, 10.0}) {
        if (step < size) step = std::pow(10, std::floor(std::log10(size))) * m;
    }
    const double there = std::round(shown(si) / step) * step;
    return read_quantity(unit, QString::number(there, 'g', 9).toStdString(), w).value_or(si);
}

}  // namespace

Editor::Editor(const Blank& word, const Json& now, const Wording& wording, Take take, QWidget* parent)
    : QFrame(parent, Qt::Popup), word_(word), wording_(wording), take_(std::move(take)) {
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
    field_ =
        new QLineEdit(QString::fromStdString(show_for_edit(word_.unit, now.get<double>(), wording_)), this);
    field_->setObjectName("field");
    field_->setFont(figure_font());
    field_->setAccessibleName(word_.name);
    row->addWidget(field_);
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
    usual_ = QString("usual: %1 to %2")
                 .arg(QString::fromStdString(jig::show(word_.unit, word_.low, wording_)),
                      QString::fromStdString(jig::show(word_.unit, word_.high, wording_))) +
             (word_.note.isEmpty() ? QString() : "\n" + word_.note);
    add_note();
    connect(slider, &QSlider::valueChanged, this, [this](int step) {
        const double si = round_to_step(word_.low + (word_.high - word_.low) * step / kSteps,
                                        word_.high - word_.low, word_.unit, wording_);
        field_->setText(QString::fromStdString(show_for_edit(word_.unit, si, wording_)));
        field_->setModified(false);
        give(word_.unit == Kind::count ? Json(static_cast<int>(std::lround(si))) : Json(si));
    });
    connect(field_, &QLineEdit::returnPressed, this, [this] {
        field_->setModified(true);
        if (take_field()) close();
    });
    field_->selectAll();
    field_->setFocus();
}

void Editor::add_note() {
    note_ = new QLabel(usual_, this);
    note_->setObjectName("note");
    note_->setFont(word_font(9));
    note_->setWordWrap(true);
    note_->setVisible(!usual_.isEmpty());
    layout()->addWidget(note_);
}

bool Editor::give(const Json& value) {
    const auto wrong = take_(value);
    note_->setText(wrong.isEmpty() ? usual_ : wrong);
    note_->setVisible(!note_->text().isEmpty());
    adjustSize();
    return wrong.isEmpty();
}

bool Editor::take_field() {
    if (field_ == nullptr || !field_->isModified()) return true;
    if (word_.form == Blank::Form::text) return give(field_->text().trimmed().toStdString());
    const auto typed = read_typed(word_.unit, field_->text().toStdString(), wording_);
    if (typed.value)
        return give(word_.unit == Kind::count ? Json(static_cast<int>(std::lround(*typed.value)))
                                              : Json(*typed.value));
    const auto sign = QString::fromStdString(unit_sign(word_.unit, wording_));
    note_->setText(typed.question.empty()
                       ? QString("\"%1\" is not a figure here: write a number%2")
                             .arg(field_->text(), sign.isEmpty() ? "" : ", alone or with " + sign)
                       : QString("\"%1\": %2").arg(field_->text(), QString::fromStdString(typed.question)));
    adjustSize();
    return false;
}

void Editor::mousePressEvent(QMouseEvent* event) {
    if (rect().contains(event->position().toPoint())) return;
    // Left by a click: what was typed counts. What cannot be taken stays, to be mended or dropped by Esc.
    if (take_field()) close();
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
    add_note();
    const auto take = [this, list] {
        const auto row = list->currentRow();
        if (row < 0) return;
        if (give(word_.options[static_cast<std::size_t>(row)].value)) close();
    };
    connect(list, &QListWidget::itemClicked, this, take);
    connect(list, &QListWidget::itemActivated, this, take);
    list->setFocus();
}

void Editor::build_text(const Json& now) {
    field_ = new QLineEdit(QString::fromStdString(now.get<std::string>()), this);
    field_->setObjectName("field");
    field_->setMinimumWidth(240);
    field_->setMaxLength(200);
    field_->setAccessibleName(word_.name);
    layout()->addWidget(field_);
    add_note();
    connect(field_, &QLineEdit::returnPressed, this, [this] {
        field_->setModified(true);
        if (take_field()) close();
    });
    field_->selectAll();
    field_->setFocus();
}

}  // namespace jig::app
