#include "app/stand/stand.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

#include <QBoxLayout>
#include <QGuiApplication>
#include <QLabel>
#include <QMouseEvent>
#include <QOffscreenSurface>
#include <QOpenGLContext>
#include <QPainter>
#include <QSlider>
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
    apart_label_ = new QLabel("apart", this);
    apart_label_->setObjectName("apart-label");
    apart_ = new QSlider(Qt::Horizontal, this);
    apart_->setObjectName("apart");
    apart_->setAccessibleName("How far the pieces are drawn apart");
    apart_->setToolTip("Draws the pieces apart along their pulls");
    apart_->setRange(0, 100);
    apart_->setValue(50);
    connect(apart_, &QSlider::valueChanged, this, &Stand::apart_changed);
    brushes_ = new BrushBar(this);
    brushes_->move(12, 8);
    connect(brushes_, &BrushBar::brush_changed, this, [this] {
        name_it();
        redraw();
    });
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
    apart_->setVisible(scene_.comes_apart);
    apart_label_->setVisible(scene_.comes_apart);
    apart_label_->setText(scene_.slider);
    apart_label_->setFont(word_font());
    place_slider();
    brushes_->show_brushes(scene_.brushes, scene_.bounds.size().maxCoeff());
    // A stroke that was begun on one thing is not laid on the next.
    if (frame_again || (drag_ != Drag::paint && sliding_ != Drag::paint)) stroke_.clear();
    if (frame_again) {
        frame_all();
        mark_ = -1;
    }
    name_it();
    canvas_->scene_changed();
    redraw();
}

void Stand::set_ink(const Ink& ink) {
    ink_ = &ink;
    redraw();
}

void Stand::frame_all() {
    camera_.frame(scene_.aside.value_or(scene_.bounds), size());
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
    place_slider();
    if (event->oldSize().width() < 10) camera_.frame(scene_.aside.value_or(scene_.bounds), size());
}

QPointF Stand::handle() const {
    const Point top(scene_.cut_origin.x(), scene_.cut_origin.y(),
                    scene_.bounds.high.z() + 0.06 * scene_.bounds.diagonal());
    return Camera::project(camera_.matrix(size()), top, size());
}

QPointF Stand::plane_handle() const {
    return Camera::project(camera_.matrix(size()), (scene_.plane[0] + scene_.plane[3]) / 2, size());
}

double Stand::apart() const {
    return apart_->value() / 100.0;
}

void Stand::place_slider() {
    // Over the legend, which has its lines at the foot.
    const int wide = apart_label_->sizeHint().width(), tall = std::max(24, apart_label_->sizeHint().height());
    apart_->setGeometry(width() - 172, height() - 34 - tall, 160, tall);
    apart_label_->setGeometry(width() - 180 - wide, height() - 34 - tall, wide, tall);
    apart_->raise();
    apart_label_->raise();
    brushes_->raise();
}

void Stand::dab(const QPointF& at) {
    const auto found = touched(scene_, camera_, size(), at);
    if (!found) return;
    if (!stroke_.empty() && (found->at - stroke_.back().at).norm() < 0.6 * brushes_->reach()) return;
    stroke_.push_back(*found);
}

int Stand::mark_at(const QPointF& at) const {
    constexpr double kReach = 9, kSame = 0.5;
    const auto m = camera_.matrix(size());
    int found = -1;
    double least = kReach;
    for (const auto& mark : scene_.marks) {
        if (mark.number < 0) continue;
        const double off = QLineF(at, Camera::project(m, mark.at, size())).length();
        // Of those that lie over each other the one that is drawn last: it is seen on top.
        if (off >= (found < 0 ? kReach : least + kSame)) continue;
        found = mark.number;
        least = std::min(least, off);
    }
    return found;
}

const Mark* Stand::marked(int number) const {
    const auto mark = std::find_if(scene_.marks.begin(), scene_.marks.end(),
                                   [&](const Mark& m) { return m.number >= 0 && m.number == number; });
    return mark == scene_.marks.end() ? nullptr : &*mark;
}

QPointF Stand::mark_place(int number) const {
    const auto* mark = marked(number);
    return mark != nullptr ? Camera::project(camera_.matrix(size()), mark->at, size()) : QPointF();
}

bool Stand::sees(const Point& place) const {
    const auto& u = scene_.upright;
    return !hidden(scene_, camera_, {u.u.dot(place), u.v.dot(place), u.w.dot(place)});
}

double Stand::share_at(const QPointF& at) const {
    const auto m = camera_.matrix(size());
    std::size_t best = 0;
    double least = 1e30;
    for (std::size_t i = 0; i < scene_.mark_way.size(); ++i) {
        const double d = QLineF(at, Camera::project(m, scene_.mark_way[i], size())).length();
        if (d < least) {
            least = d;
            best = i;
        }
    }
    return static_cast<double>(best) / static_cast<double>(std::max<std::size_t>(1, scene_.mark_way.size()));
}

Stand::Drag Stand::grabbed(const QPointF& at, Qt::MouseButton button) const {
    constexpr double kReach = 14;
    if (scene_.has_plane && QLineF(at, plane_handle()).length() < kReach) return Drag::plane;
    if (scene_.has_cut && QLineF(at, handle()).length() < kReach) return Drag::cut;
    if (button != Qt::LeftButton) return Drag::shift;
    if (mark_at(at) >= 0) return Drag::mark;
    return brushes_->brush() ? Drag::paint : Drag::turn;
}

double Stand::slid(const Point& low, const Point& high, const Point& now, const QPointF& step) const {
    const auto m = camera_.matrix(size());
    const QPointF a = Camera::project(m, low, size()), b = Camera::project(m, high, size());
    const double length2 = QPointF::dotProduct(b - a, b - a),
                 share = (now - low).norm() / std::max(1e-9, (high - low).norm());
    return length2 > 1 ? std::clamp(share + QPointF::dotProduct(step, b - a) / length2, 0.0, 1.0) : share;
}

bool Stand::eventFilter(QObject* watched, QEvent* event) {
    switch (event->type()) {
        case QEvent::MouseButtonPress: {
            const auto* mouse = static_cast<QMouseEvent*>(event);
            last_ = mouse->position();
            end_slide();
            setFocus();
            if (const auto* flag = flag_at(mouse->position());
                flag != nullptr && mouse->button() == Qt::LeftButton) {
                flag_ = flag->key;
                redraw();
                emit flag_pressed(QString(flag_));
                return true;
            }
            drag_ = grabbed(mouse->position(), mouse->button());
            mark_ = drag_ == Drag::mark ? mark_at(mouse->position()) : -1;
            if (drag_ == Drag::paint) {
                stroke_.clear();
                dab(mouse->position());
                redraw();
            }
            return true;
        }
        case QEvent::MouseMove: {
            const auto* mouse = static_cast<QMouseEvent*>(event);
            const QPointF step = mouse->position() - last_;
            // A pointer that is nudged takes nothing out of the hand of who paints by keys.
            if (sliding_ != Drag::paint) {
                mouse_ = mouse->position();
                led_ = false;
            }
            if (drag_ == Drag::turn) {
                camera_.yaw -= step.x() * 0.008;
                camera_.pitch =
                    std::clamp(camera_.pitch + step.y() * 0.008, -Camera::kSteepest, Camera::kSteepest);
            } else if (drag_ == Drag::shift) {
                const double scale = camera_.distance * 0.54 / std::max(1, height());
                const Point right(std::cos(camera_.yaw), std::sin(camera_.yaw), 0);
                camera_.target -= right * step.x() * scale;
                camera_.target.z() += step.y() * scale;
            } else if (drag_ == Drag::cut) {
                move_cut(slid(scene_.cut_low, scene_.cut_high, scene_.cut_origin, step));
            } else if (drag_ == Drag::mark) {
                const auto* mark = marked(mark_);
                if (mark == nullptr || !mark->free)
                    move_mark(mark_, share_at(mouse->position()));
                else if (const auto over = touched(scene_, camera_, size(), mouse->position()))
                    emit mark_slid(mark_, over->at);
            } else if (drag_ == Drag::paint) {
                dab(mouse->position());
            } else if (drag_ == Drag::plane) {
                move_plane(slid(scene_.plane_low, scene_.plane_high, scene_.plane_at, step));
            } else {
                const auto over = grabbed(mouse->position(), Qt::LeftButton);
                const auto* flag = flag_at(mouse->position());
                canvas_->widget()->setToolTip(flag != nullptr ? flag->said : QString());
                canvas_->widget()->setCursor(flag != nullptr       ? Qt::PointingHandCursor
                                             : over == Drag::cut   ? Qt::SizeHorCursor
                                             : over == Drag::plane ? Qt::SizeAllCursor
                                             : over == Drag::mark  ? Qt::OpenHandCursor
                                             : over == Drag::paint ? Qt::CrossCursor
                                                                   : Qt::ArrowCursor);
                if (over == Drag::paint) redraw();
                return false;
            }
            last_ = mouse->position();
            drag_ == Drag::turn || drag_ == Drag::shift ? move_on() : redraw();
            return true;
        }
        case QEvent::MouseButtonRelease:
            if (drag_ == Drag::cut) emit cut_let_go();
            if (drag_ == Drag::plane) emit plane_let_go();
            if (drag_ == Drag::mark) emit mark_let_go();
            mark_ = -1;
            if (drag_ == Drag::paint) end_stroke();
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

}  // namespace jig::app
