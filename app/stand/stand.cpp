#include "app/stand/stand.hpp"

#include <algorithm>
#include <cmath>
#include <set>
#include <utility>

#include <QBoxLayout>
#include <QGuiApplication>
#include <QKeyEvent>
#include <QLabel>
#include <QMouseEvent>
#include <QOffscreenSurface>
#include <QOpenGLContext>
#include <QPainter>
#include <QSlider>
#include <QWheelEvent>

#include "app/stand/dimensions.hpp"

namespace jig::app {
namespace {

constexpr double kSteepest = 1.5;  ///< rad, all but straight down

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
    connect(brushes_, &BrushBar::brush_changed, this, &Stand::redraw);
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
    if (drag_ != Drag::paint) stroke_.clear();
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

void Stand::paint_brush(QPainter& p) const {
    const auto brush = brushes_->brush();
    if (!brush) return;
    const auto m = camera_.matrix(size());
    // A touch is drawn as the ball that it is, seen from here.
    const auto ball = [&](const Point& at) {
        const double step = brushes_->reach();
        const Point right(std::cos(camera_.yaw), std::sin(camera_.yaw), 0);
        const auto middle = Camera::project(m, at, size());
        const double r = QLineF(middle, Camera::project(m, at + step * right, size())).length();
        p.drawEllipse(middle, r, r);
    };
    auto wash = brush->colour;
    wash.setAlpha(90);
    p.setPen(Qt::NoPen);
    p.setBrush(wash);
    for (const auto& touch : stroke_) ball(touch.shown);
    if (const auto under = touched(scene_, camera_, size(), mouse_)) {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(ink_->ink, 1.4));
        ball(under->shown);
    }
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

/// Each kind has a shape of its own, so that none is told by colour alone.
void Stand::paint_marks(QPainter& p) const {
    const auto m = camera_.matrix(size());
    for (const auto& mark : scene_.marks) {
        const auto c = Camera::project(m, mark.at, size());
        // Behind the thing itself they are only hinted at. While it turns there is no time to ask.
        p.setOpacity(!turning_ && hidden(scene_, camera_, mark.at) ? 0.25 : 1);
        p.setPen(QPen(ink_->ink, 1.4));
        p.setBrush(mark.number >= 0 && mark.number == mark_ ? ink_->tape : ink_->sheet);
        switch (mark.kind) {
            case Fitting::bolt:
                p.drawEllipse(c, 4, 4);
                break;
            case Fitting::dowel:
                p.setBrush(ink_->ink);
                p.drawEllipse(c, 4, 4);
                break;
            case Fitting::bush:
                p.drawEllipse(c, 5, 5);
                p.drawPoint(c);
                break;
            case Fitting::wedge:
                p.drawPolygon(QPolygonF({c + QPointF(-5, 4), c + QPointF(5, 4), c + QPointF(5, -4)}));
                break;
            case Fitting::jack:
                p.drawEllipse(c, 5, 5);
                p.drawLine(c - QPointF(5, 0), c + QPointF(5, 0));
                p.drawLine(c - QPointF(0, 5), c + QPointF(0, 5));
                break;
            case Fitting::port:
                p.drawEllipse(c, 6, 6);
                p.drawEllipse(c, 3, 3);
                break;
            case Fitting::feed:
                p.drawRect(QRectF(c - QPointF(4, 4), QSizeF(8, 8)));
                break;
        }
        if (!mark.caption.isEmpty()) {
            p.setFont(figure_font(9));
            p.drawText(c + QPointF(7, 12), mark.caption);
        }
    }
    p.setOpacity(1);
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
    std::vector<QRectF> taken;
    const auto tag = [&](const QPointF& where, const QString& text) {
        QRectF box(QPointF(0, 0),
                   QSizeF(p.fontMetrics().horizontalAdvance(text) + 8, p.fontMetrics().height()));
        box.moveCenter(where);
        // What would lie over another is left out: turning the stand brings it back.
        if (std::any_of(taken.begin(), taken.end(), [&](const QRectF& r) { return r.intersects(box); }))
            return;
        taken.push_back(box);
        auto ground = ink_->paper;
        ground.setAlpha(225);
        p.fillRect(box, ground);
        p.setPen(ink_->ink);
        p.drawText(box, Qt::AlignCenter, text);
    };
    for (const auto& d : dimensions_in(scene_, camera_, size())) {
        const QPointF a = d.line.p1(), b = d.line.p2();
        p.setPen(QPen(ink_->faint, 1));
        p.drawLine(d.line);
        for (const auto& leader : d.leaders) p.drawLine(leader);
        // End ticks at 45° to the line, as on a draughted sheet.
        const QPointF unit = (b - a) / d.line.length(), tick(unit.x() - unit.y(), unit.y() + unit.x());
        p.setPen(QPen(ink_->ink, 1.4));
        p.drawLine(a - 4 * tick, a + 4 * tick);
        p.drawLine(b - 4 * tick, b + 4 * tick);
        tag((a + b) / 2, d.text);
    }
    // The last to be put down say most: arrows after contours.
    for (auto label = scene_.labels.rbegin(); label != scene_.labels.rend(); ++label)
        tag(at(label->at), label->text);
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
    if (scene_.has_plane) {
        QPolygonF frame;
        for (const auto& q : scene_.plane) frame << at(q);
        auto wash = ink_->petrol;
        wash.setAlpha(22);
        p.setBrush(wash);
        p.setPen(QPen(ink_->petrol, 1.4, Qt::DashLine));
        p.drawPolygon(frame);
        const auto h = plane_handle();
        p.setBrush(ink_->petrol);
        p.drawEllipse(h, 7, 7);
        p.setPen(ink_->ink);
        p.drawText(QRectF(h.x() - 60, h.y() - 26, 120, 16), Qt::AlignCenter, "split");
    }
    paint_marks(p);
    paint_flags(p);
    paint_brush(p);
    if (!scene_.legend.isEmpty()) {
        // On its own ground, in as many lines as it takes.
        p.setFont(word_font(9.5));
        const QRectF room(12, 0, width() - 24, height() - 6);
        auto box = p.boundingRect(room, Qt::AlignLeft | Qt::AlignBottom | Qt::TextWordWrap, scene_.legend);
        auto ground = ink_->paper;
        ground.setAlpha(225);
        p.fillRect(box.adjusted(-4, -2, 4, 2), ground);
        p.setPen(ink_->faint);
        p.drawText(room, Qt::AlignLeft | Qt::AlignBottom | Qt::TextWordWrap, scene_.legend);
    }
    if (hasFocus()) {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(ink_->ink, 2));
        p.drawRect(rect().adjusted(3, 3, -3, -3));
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
            mouse_ = mouse->position();
            if (drag_ == Drag::turn) {
                camera_.yaw -= step.x() * 0.008;
                camera_.pitch = std::clamp(camera_.pitch + step.y() * 0.008, -kSteepest, kSteepest);
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
            if (drag_ == Drag::paint && !stroke_.empty())
                emit painted(*brushes_->brush(), stroke_, brushes_->reach());
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

void Stand::move_cut(double at) {
    scene_.cut_origin = scene_.cut_low + at * (scene_.cut_high - scene_.cut_low);
    move_on();
    emit cut_dragged(at);
}

void Stand::move_plane(double at) {
    const Point by = scene_.plane_low + at * (scene_.plane_high - scene_.plane_low) - scene_.plane_at;
    for (auto& corner : scene_.plane) corner += by;
    scene_.plane_at += by;
    move_on();
    emit plane_dragged(at);
}

void Stand::move_mark(int number, double share) {
    if (const auto n = scene_.mark_way.size(); n > 0) {
        const auto i = static_cast<std::size_t>(std::lround(share * static_cast<double>(n))) % n;
        for (auto& mark : scene_.marks) {
            if (mark.number == number && !mark.free) mark.at = scene_.mark_way[i];
        }
    }
    move_on();
    emit mark_dragged(number, share);
}

bool Stand::slide_by_key(int key) {
    constexpr double kStep = 0.02;
    const auto share = [](const Point& low, const Point& high, const Point& now) {
        return (now - low).norm() / std::max(1e-9, (high - low).norm());
    };
    const auto moved = [](double from, double by) { return std::clamp(from + by, 0.0, 1.0); };
    switch (key) {
        case Qt::Key_Comma:
        case Qt::Key_Period:
            if (!scene_.has_cut) return false;
            sliding_ = Drag::cut;
            move_cut(moved(share(scene_.cut_low, scene_.cut_high, scene_.cut_origin),
                           key == Qt::Key_Comma ? -kStep : kStep));
            return true;
        case Qt::Key_Less:
        case Qt::Key_Greater:
            if (!scene_.has_plane) return false;
            sliding_ = Drag::plane;
            move_plane(moved(share(scene_.plane_low, scene_.plane_high, scene_.plane_at),
                             key == Qt::Key_Less ? -kStep : kStep));
            return true;
        case Qt::Key_N: {
            // The next number that there is, and after the last the first.
            std::set<int> numbers;
            for (const auto& mark : scene_.marks) {
                if (mark.number >= 0) numbers.insert(mark.number);
            }
            if (numbers.empty()) return false;
            const auto next = numbers.upper_bound(mark_);
            mark_ = next == numbers.end() ? *numbers.begin() : *next;
            name_it();
            return true;
        }
        case Qt::Key_BraceLeft:
        case Qt::Key_BraceRight:
        case Qt::Key_BracketLeft:
        case Qt::Key_BracketRight: {
            const auto* mark = marked(mark_);
            const bool across = key == Qt::Key_BraceLeft || key == Qt::Key_BraceRight,
                       back = key == Qt::Key_BraceLeft || key == Qt::Key_BracketLeft;
            if (mark == nullptr || (across && !mark->free)) return false;
            sliding_ = Drag::mark;
            if (mark->free) {
                // Free ones go along the thing's length, and with Shift across it.
                const double step = (back ? -kStep : kStep) / 2 * scene_.bounds.diagonal();
                const Point to = mark->at + (across ? Point(0, step, 0) : Point(step, 0, 0));
                const auto& u = scene_.upright;
                emit mark_slid(mark_, u.u * to.x() + u.v * to.y() + u.w * to.z());
                return true;
            }
            const double from = share_at(Camera::project(camera_.matrix(size()), mark->at, size())),
                         to = from + (key == Qt::Key_BracketLeft ? -kStep / 2 : kStep / 2);
            move_mark(mark_, to - std::floor(to));
            return true;
        }
        default:
            return false;
    }
}

/// A key that is held is one drag, which ends when it is let go.
void Stand::end_slide() {
    const auto what = std::exchange(sliding_, Drag::none);
    if (what == Drag::cut) emit cut_let_go();
    if (what == Drag::plane) emit plane_let_go();
    if (what == Drag::mark) emit mark_let_go();
}

void Stand::turn_to(double yaw, double pitch) {
    camera_.yaw = yaw;
    camera_.pitch = pitch;
    frame_all();
}

void Stand::name_it() {
    auto words = QString("Stand: the thing in 3D. %1").arg(scene_.legend);
    // A hose has two ends, and so two numbers.
    if (const auto* mark = marked(mark_))
        words += mark->free && !mark->caption.isEmpty() ? QString(" %1 is chosen.").arg(mark->caption)
                 : mark->free                           ? QString(" Hose %1 is chosen.").arg(mark_ / 2 + 1)
                                                        : QString(" Fitting %1 is chosen.").arg(mark_ + 1);
    setAccessibleName(words);
}

void Stand::keyPressEvent(QKeyEvent* event) {
    if (slide_by_key(event->key())) {
        move_on();
        return;
    }
    switch (event->key()) {
        case Qt::Key_Left:
            camera_.yaw += 0.1;
            break;
        case Qt::Key_Right:
            camera_.yaw -= 0.1;
            break;
        case Qt::Key_Up:
            camera_.pitch = std::min(kSteepest, camera_.pitch + 0.1);
            break;
        case Qt::Key_Down:
            camera_.pitch = std::max(-kSteepest, camera_.pitch - 0.1);
            break;
        case Qt::Key_Plus:
            camera_.distance *= 0.9;
            break;
        case Qt::Key_Minus:
            camera_.distance /= 0.9;
            break;
        case Qt::Key_1:
            turn_to(0, kSteepest);
            return;
        case Qt::Key_2:
            turn_to(0, 0);
            return;
        case Qt::Key_3:
            turn_to(kPi / 2, 0);
            return;
        case Qt::Key_4: {
            const Camera usual;
            turn_to(usual.yaw, usual.pitch);
            return;
        }
        case Qt::Key_Escape:
            brushes_->put_away();
            mark_ = -1;
            break;
        case Qt::Key_Home:
            frame_all();
            break;
        case Qt::Key_Question:
            emit keys_wanted();
            return;
        default:
            QWidget::keyPressEvent(event);
            return;
    }
    move_on();
}

void Stand::keyReleaseEvent(QKeyEvent* event) {
    if (!event->isAutoRepeat()) end_slide();
    QWidget::keyReleaseEvent(event);
}

void Stand::focusInEvent(QFocusEvent* event) {
    QWidget::focusInEvent(event);
    redraw();
}

void Stand::focusOutEvent(QFocusEvent* event) {
    QWidget::focusOutEvent(event);
    end_slide();
    redraw();
}

}  // namespace jig::app
