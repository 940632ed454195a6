// What keys do on the stand: turn it, and move and paint what hands drag there.
#include <algorithm>
#include <cmath>
#include <set>
#include <utility>

#include <QKeyEvent>

#include "app/stand/stand.hpp"

namespace jig::app {

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

void Stand::end_stroke() {
    if (stroke_.empty()) return;
    const auto brush = brushes_->brush();
    if (brush) emit painted(*brush, stroke_, brushes_->reach());
}

bool Stand::paint_by_key(const QKeyEvent& event) {
    constexpr double kStep = 8;  ///< px
    const bool painting = sliding_ == Drag::paint;
    if (event.key() == Qt::Key_B && !painting) {
        if (!brushes_->take_next()) return false;
        // From where the pointer was last, or from the middle of what is seen.
        if (!touched(scene_, camera_, size(), mouse_)) mouse_ = QRectF(rect()).center();
        led_ = true;
        return true;
    }
    if (!brushes_->brush() || (drag_ != Drag::none && !painting)) return false;
    QPointF step;
    switch (event.key()) {
        case Qt::Key_Left:
            step = {-kStep, 0};
            break;
        case Qt::Key_Right:
            step = {kStep, 0};
            break;
        case Qt::Key_Up:
            step = {0, -kStep};
            break;
        case Qt::Key_Down:
            step = {0, kStep};
            break;
        case Qt::Key_BracketLeft:
        case Qt::Key_BracketRight:
            brushes_->widen(event.key() == Qt::Key_BracketLeft ? -1 : 1);
            return true;
        case Qt::Key_Space:
            if (event.isAutoRepeat()) return true;
            stroke_.clear();
            sliding_ = Drag::paint;
            dab(mouse_);
            return true;
        default:
            return false;
    }
    // The thing stays as it is under a stroke.
    if (event.modifiers() & Qt::ShiftModifier) return painting;
    led_ = true;
    mouse_ += step;
    mouse_ = {std::clamp(mouse_.x(), 0.0, width() - 1.0), std::clamp(mouse_.y(), 0.0, height() - 1.0)};
    if (painting) dab(mouse_);
    return true;
}

/// A key that is held is one drag, which ends when it is let go.
void Stand::end_slide() {
    const auto what = std::exchange(sliding_, Drag::none);
    if (what == Drag::paint) end_stroke();
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
    if (const auto brush = brushes_->brush()) words += QString(" The brush paints %1.").arg(brush->name);
    setAccessibleName(words);
}

void Stand::keyPressEvent(QKeyEvent* event) {
    if (paint_by_key(*event)) return redraw();
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
            camera_.pitch = std::min(Camera::kSteepest, camera_.pitch + 0.1);
            break;
        case Qt::Key_Down:
            camera_.pitch = std::max(-Camera::kSteepest, camera_.pitch - 0.1);
            break;
        case Qt::Key_Plus:
            camera_.distance *= 0.9;
            break;
        case Qt::Key_Minus:
            camera_.distance /= 0.9;
            break;
        case Qt::Key_1:
            turn_to(0, Camera::kSteepest);
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
            stroke_.clear();
            brushes_->put_away();
            mark_ = -1;
            name_it();
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
    // A stroke ends with the key that lays it, not with those that lead it.
    const bool leads = sliding_ == Drag::paint && event->key() != Qt::Key_Space;
    if (!event->isAutoRepeat() && !leads) end_slide();
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
