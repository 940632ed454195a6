#include "app/slip/call_row.hpp"

#include <QBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QStyleOptionButton>
#include <QStylePainter>

#include "app/slip/flow_layout.hpp"
#include "app/theme/pennant.hpp"

namespace jig::app {
namespace {

/// The mark of a call, drawn by shape as well as colour.
class Mark : public QWidget {
  public:
    Mark(Severity severity, const Ink& ink, QWidget* parent)
        : QWidget(parent), severity_(severity), colour_(severity_colour(severity, ink)) {
        setFixedSize(16, 18);
    }

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        p.setPen(QPen(colour_, 1.8));
        if (severity_ == Severity::stop) {
            p.fillRect(QRectF(2, 6, 12, 5), colour_);
        } else if (severity_ == Severity::caution) {
            p.setBrush(colour_);
            p.drawPolygon(QPolygonF({{2.5, 13}, {13.5, 13}, {13.5, 4}}));
        } else {
            p.drawPolyline(QPolygonF({{3, 9}, {7, 13}, {13, 4}}));
        }
    }

  private:
    Severity severity_;
    QColor colour_;
};

/// Its flag on the stand.
class FlagMark : public QWidget {
  public:
    FlagMark(int number, Severity severity, const Ink& ink, QWidget* parent)
        : QWidget(parent), number_(number), severity_(severity), ink_(&ink) {
        setFixedSize(26, 18);
        setToolTip("Its place is flagged on the stand");
    }

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        paint_pennant(p, {1, 2}, number_, severity_, *ink_);
    }

  private:
    int number_;
    Severity severity_;
    const Ink* ink_;
};

/// A button whose words go on in the next line where the slip is narrow or text is large.
class WrappedButton : public QPushButton {
  public:
    WrappedButton(const QString& words, const Ink& ink, QWidget* parent)
        : QPushButton(words, parent), colour_(ink.petrol) {}

    [[nodiscard]] bool hasHeightForWidth() const override { return true; }
    [[nodiscard]] int heightForWidth(int width) const override {
        const QRect room(0, 0, std::max(1, width - 2 * kBeside), 10000);
        return std::max(fontMetrics().boundingRect(room, kWrap, text()).height() + 2 * kAbove,
                        QPushButton::sizeHint().height());
    }
    [[nodiscard]] QSize minimumSizeHint() const override {
        int widest = 0;
        for (const auto& word : text().split(' '))
            widest = std::max(widest, fontMetrics().horizontalAdvance(word));
        return {widest + 2 * kBeside, QPushButton::minimumSizeHint().height()};
    }

  protected:
    void paintEvent(QPaintEvent*) override {
        QStyleOptionButton option;
        initStyleOption(&option);
        option.text.clear();
        QStylePainter p(this);
        p.drawControl(QStyle::CE_PushButton, option);
        p.setPen(colour_);
        p.drawText(rect().adjusted(kBeside, kAbove, -kBeside, -kAbove), kWrap, text());
    }

  private:
    static constexpr int kBeside = 11, kAbove = 4;  // as the theme pads buttons
    static constexpr int kWrap = Qt::AlignCenter | Qt::TextWordWrap;
    QColor colour_;
};

const char* word_for(Severity severity) {
    return severity == Severity::stop ? "stop" : severity == Severity::caution ? "caution" : "note";
}

}  // namespace

QString word_of(const Fix& fix) {
    QString out;
    const Json* at = &fix.patch;
    while (at->is_object()) {
        if (at->size() != 1) return {};
        out += "/" + QString::fromStdString(at->begin().key());
        at = &*at->begin();
    }
    return out;
}

CallRow::CallRow(const Call& call, bool open, int flag, const Ink& ink, const Wording& wording,
                 QWidget* parent)
    : QWidget(parent), key_(QString::fromStdString(call.key)), ink_(&ink) {
    setObjectName("call-row-" + key_);
    setFocusPolicy(Qt::StrongFocus);
    setCursor(Qt::PointingHandCursor);
    const auto text = [&](const std::string& sentence) {
        return QString::fromStdString(worded(sentence, wording));
    };
    said_ = QString("%1: %2").arg(word_for(call.severity), text(call.headline));
    if (flag > 0) said_ += QString("; flag %1 on the stand").arg(flag);
    auto* line = new QHBoxLayout(this);
    line->setContentsMargins(2, 3, 2, 3);
    line->setSpacing(8);
    line->addWidget(new Mark(call.severity, ink, this), 0, Qt::AlignTop);
    if (flag > 0) line->addWidget(new FlagMark(flag, call.severity, ink, this), 0, Qt::AlignTop);
    auto* words = new QVBoxLayout();
    words->setSpacing(2);
    const auto label = [&](const QString& what, QWidget* on, const QFont& font) {
        auto* out = new QLabel(what, on);
        out->setWordWrap(true);
        out->setFont(font);
        return out;
    };
    auto* headline = label(text(call.headline), this, word_font(10.5, true));
    headline->setObjectName("call-" + key_);
    headline->setStyleSheet(
        QString("color: %1")
            .arg((call.severity == Severity::note ? ink.ink : severity_colour(call.severity, ink)).name()));
    words->addWidget(headline);
    more_ = new QWidget(this);
    auto* more = new QVBoxLayout(more_);
    more->setContentsMargins(0, 0, 0, 0);
    more->setSpacing(3);
    more->addWidget(label(text(call.why), more_, word_font(10)));
    const auto path = call.fix ? word_of(*call.fix) : QString();
    if (call.fix || flag > 0) {
        auto* acts = new FlowLayout(nullptr, 6, 4);
        if (call.fix) {
            auto* fix = new WrappedButton(text(call.fix->label), ink, more_);
            fix->setObjectName("fix-" + key_);
            connect(fix, &QPushButton::clicked, this, &CallRow::fix_wanted);
            acts->addWidget(fix);
        }
        if (flag > 0 || !path.isEmpty()) {
            auto* show_it = new QPushButton("Show it", more_);
            show_it->setObjectName("show-" + key_);
            show_it->setAccessibleName("Show what causes it: " + text(call.headline));
            connect(show_it, &QPushButton::clicked, this, [this, path, flag] {
                if (flag > 0) emit place_wanted();
                if (!path.isEmpty()) emit word_wanted(path);
            });
            acts->addWidget(show_it);
        }
        more->addLayout(acts);
    }
    words->addWidget(more_);
    line->addLayout(words, 1);
    more_->setVisible(open);
    name_it();
}

bool CallRow::is_open() const {
    return more_->isVisibleTo(this);
}

void CallRow::name_it() {
    setAccessibleName(said_ + (is_open() ? "; its reason is open" : "; Enter opens its reason"));
}

void CallRow::toggle() {
    more_->setVisible(!is_open());
    name_it();
    update();
    emit toggled(is_open());
}

void CallRow::mousePressEvent(QMouseEvent*) {
    setFocus();
    toggle();
}

void CallRow::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter || event->key() == Qt::Key_Space)
        toggle();
    else
        QWidget::keyPressEvent(event);
}

void CallRow::paintEvent(QPaintEvent*) {
    if (!hasFocus()) return;
    QPainter p(this);
    p.setPen(QPen(ink_->ink, 2));
    p.drawRect(rect().adjusted(1, 1, -1, -1));
}

}  // namespace jig::app
