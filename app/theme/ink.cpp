#include "app/theme/ink.hpp"

#include <algorithm>
#include <array>
#include <atomic>
#include <QDir>
#include <QFontDatabase>
#include <QImage>
#include <QPainter>

namespace jig::app {
namespace {

std::atomic<double> scale_on_screen{1};
thread_local bool on_paper = false;

QString family_of(const char* wanted, const char* otherwise) {
    return QFontDatabase::families().contains(QString::fromLatin1(wanted)) ? QString::fromLatin1(wanted)
                                                                           : QString::fromLatin1(otherwise);
}

QColor mixed(const QColor& a, const QColor& b, double t) {
    return QColor::fromRgbF(static_cast<float>(a.redF() + (b.redF() - a.redF()) * t),
                            static_cast<float>(a.greenF() + (b.greenF() - a.greenF()) * t),
                            static_cast<float>(a.blueF() + (b.blueF() - a.blueF()) * t));
}

}  // namespace

const Ink& ink(Light light) {
    static const Ink day{"#F3EFE6", "#FBF9F4", "#20251F", "#6B6A60", "#D3CCBC", "#1B5C66", "#E2B13C",
                         "#4E7638", "#8F4C0E", "#9C3524", "#C9D3BC", "#D99A5B", "#6E3A5B"};
    static const Ink night{"#1D2022", "#262A2C", "#E9E4D8", "#A39F93", "#3B403F", "#6FB7BF", "#E2B13C",
                           "#93BC78", "#E09A55", "#E0796A", "#7F8C74", "#B5763A", "#8E5379"};
    return light == Light::day ? day : night;
}

QColor hatch_ground(Hatch hatch, const Ink& k) {
    switch (hatch) {
        case Hatch::board:
            return mixed(k.sheet, QColor("#C9A66B"), 0.40);
        case Hatch::foam:
            return mixed(k.sheet, QColor("#8FB0B5"), 0.35);
        case Hatch::cloth_light:
            return mixed(k.sheet, k.petrol, 0.14);
        case Hatch::cloth_heavy:
            return mixed(k.sheet, k.petrol, 0.28);
        case Hatch::mat:
            return mixed(k.sheet, k.moss, 0.20);
        case Hatch::core:
            return mixed(k.sheet, k.tape, 0.25);
        case Hatch::plaster:
            return mixed(k.sheet, k.faint, 0.15);
        case Hatch::ply_wood:
            return mixed(k.sheet, QColor("#B88A52"), 0.45);
        case Hatch::coat:
            return k.oxide;
        case Hatch::coupling:
            return mixed(k.sheet, k.clay, 0.45);
        case Hatch::metal:
            return mixed(k.sheet, QColor("#8A929C"), 0.40);
        case Hatch::release:
            return k.tape;
        case Hatch::tape:
            return k.tape;
        case Hatch::bag:
            return k.sheet;
    }
    return k.sheet;
}

QBrush hatch_brush(Hatch hatch, const Ink& k, double scale) {
    const int size = static_cast<int>(24 * scale);
    // An image, not a pixmap: sheets are drawn on a thread of their own.
    QImage tile(size, size, QImage::Format_RGB32);
    tile.fill(hatch_ground(hatch, k));
    QPainter p(&tile);
    p.setRenderHint(QPainter::Antialiasing);
    p.scale(scale, scale);
    const auto line = mixed(hatch_ground(hatch, k), k.ink, 0.55);
    p.setPen(QPen(line, 0.9));
    switch (hatch) {
        case Hatch::board:
            for (int y = 3; y < 24; y += 8) p.drawLine(QPointF(0, y), QPointF(24, y));
            p.drawLine(QPointF(6, 3), QPointF(12, 11));
            break;
        case Hatch::foam:
            for (int i = 0; i < 9; ++i)
                p.drawEllipse(QPointF((i % 3) * 8 + ((i / 3) % 2) * 4 + 2, (i / 3) * 8 + 4), 0.9, 0.9);
            break;
        case Hatch::cloth_light:
        case Hatch::cloth_heavy: {
            const int step = hatch == Hatch::cloth_light ? 4 : 8;
            for (int x = 0; x < 24; x += step) {
                for (int y = 0; y < 24; y += step) {
                    if (((x + y) / step) % 2 == 0)
                        p.drawLine(QPointF(x + 0.5, y + step / 2.0), QPointF(x + step - 0.5, y + step / 2.0));
                    else
                        p.drawLine(QPointF(x + step / 2.0, y + 0.5), QPointF(x + step / 2.0, y + step - 0.5));
                }
            }
            break;
        }
        case Hatch::mat:
            p.drawLine(QPointF(2, 4), QPointF(9, 8));
            p.drawLine(QPointF(13, 3), QPointF(20, 2));
            p.drawLine(QPointF(5, 13), QPointF(8, 20));
            p.drawLine(QPointF(14, 17), QPointF(21, 12));
            p.drawLine(QPointF(12, 22), QPointF(18, 21));
            break;
        case Hatch::core:
            for (int x = 0; x < 24; x += 8) p.drawLine(QPointF(x + 4, 0), QPointF(x + 4, 24));
            p.drawLine(QPointF(0, 12), QPointF(24, 12));
            break;
        case Hatch::plaster:
            for (int i = 0; i < 6; ++i)
                p.drawLine(QPointF((i * 7) % 22, (i * 11) % 22),
                           QPointF((i * 7) % 22 + 2, (i * 11) % 22 + 1));
            break;
        case Hatch::ply_wood:
            for (int y = 2; y < 24; y += 6)
                p.drawLine(QPointF(0, y), QPointF(24, y + ((y / 6) % 2 ? 1.5 : -1.5)));
            break;
        case Hatch::metal:
            // Slopes of a whole tile each, so that they run on into the next.
            for (int x = -24; x < 24; x += 12) {
                p.drawLine(QPointF(x, 24), QPointF(x + 24, 0));
                p.drawLine(QPointF(x + 3, 24), QPointF(x + 27, 0));
            }
            break;
        case Hatch::tape:
        case Hatch::coat:
        case Hatch::coupling:
        case Hatch::release:
        case Hatch::bag:
            break;
    }
    p.end();
    return QBrush(tile);
}

bool load_fonts(const QString& folder) {
    bool any = false;
    for (const auto& file : QDir(folder).entryList({"*.ttf"}))
        any |= QFontDatabase::addApplicationFont(folder + "/" + file) >= 0;
    return any;
}

double text_scale() {
    return on_paper ? 1.0 : scale_on_screen.load();
}

void set_text_scale(double scale) {
    scale_on_screen = std::clamp(scale, 0.8, 2.0);
}

OnPaper::OnPaper() : before_(on_paper) {
    on_paper = true;
}

OnPaper::~OnPaper() {
    on_paper = before_;
}

QFont word_font(double points, bool strong) {
    QFont f(family_of("Source Sans 3", "Sans"));
    f.setPointSizeF(points * text_scale());
    f.setWeight(strong ? QFont::DemiBold : QFont::Normal);
    return f;
}

QFont figure_font(double points) {
    QFont f(family_of("Noto Sans", "Sans"));
    f.setPointSizeF(points * 0.93 * text_scale());
    return f;
}

QString style_sheet(const Ink& k) {
    const auto c = [](const QColor& colour) { return colour.name(); };
    QString s = R"(
QWidget { background: @paper; color: @ink; }
QWidget#sheet, QScrollArea#sheet, QWidget#sheet QWidget { background: @sheet; }
QLabel { background: transparent; }
QToolTip { background: @sheet; color: @ink; border: 1px solid @rule; padding: 4px; }
QPushButton { background: @sheet; border: 1px solid @petrol; border-radius: 3px; padding: 3px 10px; color: @petrol; }
QPushButton:hover { background: @petrol; color: @sheet; }
QPushButton:focus { border: 2px solid @ink; padding: 2px 9px; }
QPushButton#take-care { border: none; border-bottom: 1px solid @rule; border-radius: 0; padding: 2px 0; text-align: left; color: @ink; background: transparent; }
QPushButton#take-care:hover { color: @petrol; }
QPushButton#take-care:focus { border: 2px solid @ink; padding: 1px; }
QPushButton#card { border: 1px solid @rule; border-radius: 3px; text-align: left; padding: 12px; color: @ink; background: @sheet; }
QPushButton#card:hover { border-color: @petrol; }
QPushButton#card:focus { border: 2px solid @ink; padding: 11px; }
QPushButton:disabled { color: @faint; border-color: @rule; }
QToolButton#word { background: transparent; border: none; border-bottom: 1px solid @petrol; color: @petrol; padding: 0px 0px 1px 0px; margin: 0; }
QToolButton#sum { background: transparent; border: none; border-bottom: 1px solid @rule; padding: 0px; }
QToolButton#sum:hover, QToolButton#sum:focus { border-bottom-color: @petrol; color: @petrol; }
QToolButton#brush { background: @sheet; border: 1px solid @rule; border-radius: 3px; color: @ink; padding: 2px 7px; }
QToolButton#brush:hover, QToolButton#brush:focus { border-color: @petrol; }
QToolButton#brush:checked { background: @tape; border-color: @tape; color: #20251F; }
QToolButton#word:hover, QToolButton#word:focus { background: @tape; color: #20251F; }
QToolButton#fold-section { background: @sheet; border: none; color: @faint; padding: 2px 6px; }
QToolButton#fold-section:hover { color: @petrol; }
QToolButton#fold-section:focus { border: 2px solid @ink; padding: 0px 4px; }
QComboBox::drop-down { border: none; width: 20px; }
QLineEdit, QListWidget, QPlainTextEdit, QComboBox { background: @sheet; border: 1px solid @rule; border-radius: 3px; padding: 3px; selection-background-color: @tape; selection-color: #20251F; }
QLineEdit:focus, QListWidget:focus, QPlainTextEdit:focus, QTextBrowser:focus { border: 2px solid @ink; padding: 2px; }
QTableWidget:focus { border: 2px solid @ink; }
QMenu { background: @sheet; border: 1px solid @rule; padding: 4px 0; }
QMenu::item { padding: 4px 28px 4px 14px; background: transparent; }
QMenu::item:selected { background: @tape; color: #20251F; }
QMenu::item:disabled { color: @faint; }
QMenu::separator { height: 1px; background: @rule; margin: 4px 10px; }
QListWidget::item { padding: 3px 4px; }
QListWidget::item:selected { background: @tape; color: #20251F; }
QTableWidget { background: @sheet; border: 1px solid @rule; gridline-color: @rule; selection-background-color: @tape; selection-color: #20251F; }
QTableWidget::item { padding: 1px 3px; }
QHeaderView::section { background: @paper; color: @faint; border: none; border-bottom: 1px solid @rule; padding: 2px 3px; }
QTableCornerButton::section { background: @paper; border: none; }
QScrollBar:vertical { background: transparent; width: 10px; } QScrollBar::handle:vertical { background: @rule; border-radius: 3px; min-height: 24px; }
QScrollBar:horizontal { background: transparent; height: 10px; } QScrollBar::handle:horizontal { background: @rule; border-radius: 3px; min-width: 24px; }
QScrollBar::add-line, QScrollBar::sub-line { width: 0; height: 0; }
QSlider::groove:horizontal { height: 2px; background: @rule; } QSlider::handle:horizontal { background: @petrol; width: 12px; margin: -6px 0; border-radius: 6px; }
QFrame#editor { background: @sheet; border: 1px solid @petrol; border-radius: 3px; }
QFrame#editor QWidget { background: @sheet; }
QSplitter::handle { background: @rule; }
)";
    for (const auto& [key, colour] : {std::pair{"@paper", k.paper},
                                      {"@sheet", k.sheet},
                                      {"@ink", k.ink},
                                      {"@faint", k.faint},
                                      {"@rule", k.rule},
                                      {"@petrol", k.petrol},
                                      {"@tape", k.tape}}) {
        s.replace(QString::fromLatin1(key), c(colour));
    }
    return s;
}

QColor severity_colour(Severity severity, const Ink& k) {
    return severity == Severity::stop ? k.oxide : severity == Severity::caution ? k.clay : k.moss;
}

QColor release_colour(Release release, const Ink& k) {
    switch (release) {
        case Release::slides:
            return k.slides;
        case Release::drags:
            return k.drags;
        case Release::locks:
            return k.locks;
        case Release::open:
            return k.rule;
    }
    return k.rule;
}

QColor piece_colour(std::size_t piece, const Ink& k) {
    const std::array<QColor, 6> all{mixed(k.sheet, k.petrol, 0.55), mixed(k.sheet, k.tape, 0.35),
                                    mixed(k.sheet, k.locks, 0.40),  mixed(k.sheet, k.moss, 0.30),
                                    mixed(k.sheet, k.clay, 0.55),   mixed(k.sheet, k.faint, 0.35)};
    return all[piece % all.size()];
}

}  // namespace jig::app
