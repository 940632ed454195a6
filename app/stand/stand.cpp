#include "app/stand/stand.hpp"

#include <QBoxLayout>
#include <QGuiApplication>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QOffscreenSurface>
#include <QOpenGLContext>
#include <QPainter>
#include <QWheelEvent>

namespace jig::app {
namespace {

/// Lines and words lie on a sheet of their own over the canvas, so that both canvases share them.
class Overlay : public QWidget {
  public:
    Overlay(const Stand& stand, QWidget* parent) : QWidget(parent), stand_(stand) {
        setAttribute(Qt::WA_TransparentForMouseEvents);
    }

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        stand_.paint_over(p);
    }

  private:
    const Stand& stand_;
};

}  // namespace

bool Stand::opengl_here() {
    static const bool here = [] {
        if (qEnvironmentVariableIsSet("JIGSHELL_NO_OPENGL") ||
            QGuiApplication::platformName() == "offscreen" || QGuiApplication::platformName() == "minimal")
            return false;
        QSurfaceFormat format;
        format.setVersion(3, 3);
        format.setProfile(QSurfaceFormat::CoreProfile);
        QOpenGLContext context;
        context.setFormat(format);
        if (!context.create()) return false;
        QOffscreenSurface surface;
        surface.setFormat(context.format());
        surface.create();
        return context.makeCurrent(&surface) && context.format().version() >= qMakePair(3, 3);
    }();
    return here;
}

Stand::Stand(QWidget* parent) : QWidget(parent), ink_(&app::ink(Light::day)) {
    setObjectName("stand");
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName("Stand: the thing in 3D");
    opengl_ = opengl_here();
    canvas_ = opengl_ ? make_gl_canvas(*this) : make_paper_canvas(*this);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->addWidget(canvas_->widget());
    canvas_->widget()->setObjectName("canvas");
    canvas_->widget()->installEventFilter(this);
    overlay_ = new Overlay(*this, this);
    overlay_->setStyleSheet("background: transparent");
    canvas_->widget()->setMouseTracking(true);
    still_.setSingleShot(true);
    connect(&still_, &QTimer::timeout, this, [this] {
        turning_ = false;
        redraw();
    });
}

Stand::~Stand() {
    // The canvas' widget is a child and goes with the layout; the shell round it goes here.
    canvas_->widget()->removeEventFilter(this);
    static_cast<void>(canvas_.release());
}

void Stand::show_scene(Scene scene, bool frame_again) {
    scene_ = std::move(scene);
    if (frame_again) frame_all();
    canvas_->scene_changed();
    redraw();
}

void Stand::set_ink(const Ink& ink) {
    ink_ = &ink;
    redraw();
}

void Stand::frame_all() {
    camera_.frame(scene_.bounds, size());
    redraw();
}

void Stand::redraw() {
    canvas_->widget()->update();
    overlay_->update();
}

void Stand::move_on() {
    turning_ = true;
    still_.start(180);
    redraw();
}

void Stand::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    overlay_->setGeometry(rect());
    overlay_->raise();
    if (event->oldSize().width() < 10) camera_.frame(scene_.bounds, size());
}

QPointF Stand::handle() const {
    const Point top(scene_.cut_origin.x(), scene_.cut_origin.y(),
                    scene_.bounds.high.z() + 0.06 * scene_.bounds.diagonal());
    return Camera::project(camera_.matrix(size()), top, size());
}

void Stand::paint_over(QPainter& p) const {
    p.setRenderHint(QPainter::Antialiasing);
    const auto m = camera_.matrix(size());
    const auto at = [&](const Point& q) { return Camera::project(m, q, size()); };
    // OpenGL draws lines itself, behind what hides them.
    for (const auto& line : opengl_ ? std::vector<SceneLine>() : scene_.lines) {
        QPolygonF path;
        for (const auto& q : line.points) path << at(q);
        p.setPen(QPen(line.colour, line.width, line.dashed ? Qt::DashLine : Qt::SolidLine));
        p.drawPolyline(path);
    }
    p.setFont(figure_font(9.5));
    const auto tag = [&](const QPointF& where, const QString& text) {
        QRectF box(QPointF(0, 0),
                   QSizeF(p.fontMetrics().horizontalAdvance(text) + 8, p.fontMetrics().height()));
        box.moveCenter(where);
        auto ground = ink_->paper;
        ground.setAlpha(225);
        p.fillRect(box, ground);
        p.setPen(ink_->ink);
        p.drawText(box, Qt::AlignCenter, text);
    };
    for (const auto& d : scene_.dimensions) {
        const QPointF a = at(d.a + d.off), b = at(d.b + d.off);
        p.setPen(QPen(ink_->faint, 1));
        p.drawLine(a, b);
        p.drawLine(at(d.a + 0.15 * d.off), at(d.a + 1.1 * d.off));
        p.drawLine(at(d.b + 0.15 * d.off), at(d.b + 1.1 * d.off));
        // End ticks at 45° to the line, as on a draughted sheet.
        const QLineF line(a, b);
        if (line.length() < 12) continue;
        const QPointF unit = (b - a) / line.length(), tick(unit.x() - unit.y(), unit.y() + unit.x());
        p.setPen(QPen(ink_->ink, 1.4));
        p.drawLine(a - 4 * tick, a + 4 * tick);
        p.drawLine(b - 4 * tick, b + 4 * tick);
        tag((a + b) / 2, d.text);
    }
    for (const auto& label : scene_.labels) tag(at(label.at), label.text);
    if (scene_.has_cut) {
        const auto &lo = scene_.bounds.low, &hi = scene_.bounds.high;
        const int axis = scene_.cut_normal.x() > 0.5 ? 0 : 1, other = 1 - axis;
        const double pad = 0.04 * scene_.bounds.diagonal();
        const auto corner = [&](double across, double z) {
            Point q = scene_.cut_origin;
            q[other] = across;
            q.z() = z;
            return at(q);
        };
        QPolygonF frame;
        frame << corner(lo[other] - pad, lo.z()) << corner(hi[other] + pad, lo.z())
              << corner(hi[other] + pad, hi.z() + pad) << corner(lo[other] - pad, hi.z() + pad);
        auto wash = ink_->tape;
        wash.setAlpha(26);
        p.setBrush(wash);
        p.setPen(QPen(ink_->tape, 1.4, Qt::DashLine));
        p.drawPolygon(frame);
        const auto h = handle();
        p.setPen(QPen(ink_->tape.darker(130), 1.4));
        p.setBrush(ink_->tape);
        p.drawEllipse(h, 7, 7);
        p.setPen(ink_->ink);
        p.drawText(QRectF(h.x() - 60, h.y() - 26, 120, 16), Qt::AlignCenter, "cut");
    }
    if (!scene_.legend.isEmpty()) {
        p.setFont(word_font(9.5));
        p.setPen(ink_->faint);
        p.drawText(QRectF(12, height() - 24, width() - 24, 18), Qt::AlignLeft | Qt::AlignVCenter,
                   scene_.legend);
    }
    if (!opengl_) {
        p.setFont(word_font(9.5));
        p.setPen(ink_->clay);
        p.drawText(QRectF(12, 8, width() - 24, 18), Qt::AlignLeft | Qt::AlignVCenter,
                   "No OpenGL here: the stand is drawn plainly and turns more slowly.");
    }
}

bool Stand::eventFilter(QObject* watched, QEvent* event) {
    switch (event->type()) {
        case QEvent::MouseButtonPress: {
            const auto* mouse = static_cast<QMouseEvent*>(event);
            last_ = mouse->position();
            setFocus();
            const bool on_handle = scene_.has_cut && QLineF(mouse->position(), handle()).length() < 14;
            drag_ = on_handle ? Drag::cut : mouse->button() == Qt::LeftButton ? Drag::turn : Drag::shift;
            return true;
        }
        case QEvent::MouseMove: {
            const auto* mouse = static_cast<QMouseEvent*>(event);
            const QPointF step = mouse->position() - last_;
            if (drag_ == Drag::turn) {
                camera_.yaw -= step.x() * 0.008;
                camera_.pitch = std::clamp(camera_.pitch + step.y() * 0.008, -1.5, 1.5);
            } else if (drag_ == Drag::shift) {
                const double scale = camera_.distance * 0.54 / std::max(1, height());
                const Point right(std::cos(camera_.yaw), std::sin(camera_.yaw), 0);
                camera_.target -= right * step.x() * scale;
                camera_.target.z() += step.y() * scale;
            } else if (drag_ == Drag::cut) {
                const auto m = camera_.matrix(size());
                const QPointF a = Camera::project(m, scene_.cut_low, size()),
                              b = Camera::project(m, scene_.cut_high, size());
                const double length2 = QPointF::dotProduct(b - a, b - a);
                const double now = (scene_.cut_origin - scene_.cut_low).norm() /
                                   std::max(1e-9, (scene_.cut_high - scene_.cut_low).norm());
                if (length2 > 1)
                    emit cut_dragged(std::clamp(now + QPointF::dotProduct(step, b - a) / length2, 0.0, 1.0));
            } else {
                const bool over = scene_.has_cut && QLineF(mouse->position(), handle()).length() < 14;
                canvas_->widget()->setCursor(over ? Qt::SizeHorCursor : Qt::ArrowCursor);
                return false;
            }
            last_ = mouse->position();
            drag_ == Drag::cut ? redraw() : move_on();
            return true;
        }
        case QEvent::MouseButtonRelease:
            if (drag_ == Drag::cut) emit cut_let_go();
            drag_ = Drag::none;
            return true;
        case QEvent::MouseButtonDblClick:
            frame_all();
            return true;
        case QEvent::Wheel:
            camera_.distance *= std::pow(0.9, static_cast<QWheelEvent*>(event)->angleDelta().y() / 120.0);
            move_on();
            return true;
        default:
            return QWidget::eventFilter(watched, event);
    }
}

void Stand::keyPressEvent(QKeyEvent* event) {
    const double now = (scene_.cut_origin - scene_.cut_low).norm() /
                       std::max(1e-9, (scene_.cut_high - scene_.cut_low).norm());
    switch (event->key()) {
        case Qt::Key_Left:
            camera_.yaw += 0.1;
            break;
        case Qt::Key_Right:
            camera_.yaw -= 0.1;
            break;
        case Qt::Key_Up:
            camera_.pitch = std::min(1.5, camera_.pitch + 0.1);
            break;
        case Qt::Key_Down:
            camera_.pitch = std::max(-1.5, camera_.pitch - 0.1);
            break;
        case Qt::Key_Plus:
            camera_.distance *= 0.9;
            break;
        case Qt::Key_Minus:
            camera_.distance /= 0.9;
            break;
        case Qt::Key_Home:
            frame_all();
            break;
        case Qt::Key_Comma:
            emit cut_dragged(std::max(0.0, now - 0.02));
            break;
        case Qt::Key_Period:
            emit cut_dragged(std::min(1.0, now + 0.02));
            break;
        default:
            QWidget::keyPressEvent(event);
            return;
    }
    move_on();
}

}  // namespace jig::app
