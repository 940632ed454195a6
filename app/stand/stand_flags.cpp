// Flags of calls on the stand: where they stand, which is pressed, and how one is brought into sight.
#include <algorithm>
#include <cmath>
#include <numbers>

#include <QPainter>

#include "app/stand/stand.hpp"
#include "app/theme/pennant.hpp"

namespace jig::app {

std::vector<QPointF> Stand::pennants() const {
    constexpr double kPole = 26;
    const auto m = camera_.matrix(size());
    std::vector<QPointF> out;
    for (const auto& flag : scene_.flags) {
        QPointF at = Camera::project(m, flag.at, size()) - QPointF(0, kPole + kPennant.height());
        // Two at one place stand on poles of their own length.
        for (bool moved = true; moved;) {
            moved = false;
            for (const auto& other : out) {
                if (std::abs(other.x() - at.x()) > kPennant.width() + 6 ||
                    std::abs(other.y() - at.y()) > kPennant.height() + 1)
                    continue;
                at.ry() = other.y() - kPennant.height() - 2;
                moved = true;
            }
        }
        out.push_back(at);
    }
    return out;
}

const CallFlag* Stand::flag_at(const QPointF& at) const {
    const auto where = pennants();
    for (std::size_t i = 0; i < where.size(); ++i) {
        if (QRectF(where[i], kPennant).adjusted(-4, -5, 9, 5).contains(at)) return &scene_.flags[i];
    }
    return nullptr;
}

std::optional<QPointF> Stand::flag_place(const QString& key) const {
    const auto where = pennants();
    for (std::size_t i = 0; i < where.size(); ++i) {
        if (scene_.flags[i].key == key)
            return where[i] + QPointF(kPennant.width() / 2, kPennant.height() / 2);
    }
    return {};
}

void Stand::paint_flags(QPainter& p) const {
    const auto m = camera_.matrix(size());
    const auto where = pennants();
    for (std::size_t i = 0; i < where.size(); ++i) {
        const auto& flag = scene_.flags[i];
        const auto foot = Camera::project(m, flag.at, size());
        // The pole of what lies behind is only hinted at.
        const bool behind = !turning_ && hidden(scene_, camera_, flag.at);
        p.setPen(QPen(ink_->ink, flag.key == flag_ ? 2.4 : 1.2, behind ? Qt::DotLine : Qt::SolidLine));
        p.drawLine(foot, where[i]);
        p.setBrush(ink_->ink);
        if (!behind) p.drawEllipse(foot, 2, 2);
        paint_pennant(p, where[i], flag.number, flag.severity, *ink_);
        if (flag.key != flag_) continue;
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(ink_->ink, 2));
        p.drawRect(QRectF(where[i], kPennant).adjusted(-3, -3, 8, 3));
    }
}

bool Stand::look_at_flag(const QString& key) {
    const auto flag = std::find_if(scene_.flags.begin(), scene_.flags.end(),
                                   [&](const CallFlag& f) { return f.key == key; });
    if (flag == scene_.flags.end()) return false;
    flag_ = key;
    // The nearest of a ring of views that sees it; where none does, it stays.
    struct Sight {
        double turn, yaw, pitch;
    };
    std::vector<Sight> views{{-1, camera_.yaw, camera_.pitch}};
    for (int i = 0; i < 12; ++i) {
        for (const double pitch : {0.2, 0.6, 1.1, -0.4, -1.0}) {
            const double by = i * std::numbers::pi / 6;
            views.push_back({std::abs(std::remainder(by, 2 * std::numbers::pi)) +
                                 std::abs(pitch - camera_.pitch) + (pitch < 0 ? 0.5 : 0),
                             camera_.yaw + by, pitch});
        }
    }
    std::stable_sort(views.begin(), views.end(),
                     [](const Sight& a, const Sight& b) { return a.turn < b.turn; });
    auto from = camera_;
    for (const auto& view : views) {
        from.yaw = view.yaw;
        from.pitch = view.pitch;
        if (hidden(scene_, from, flag->at)) continue;
        camera_ = from;
        break;
    }
    move_on();
    return true;
}

}  // namespace jig::app
