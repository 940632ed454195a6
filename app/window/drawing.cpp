#include "app/window/drawing.hpp"

#include <algorithm>

#include "app/stand/coarsen.hpp"
#include "app/window/errand.hpp"

namespace jig::app {
namespace {

/// Triangles that are drawn at once: well within a frame.
constexpr std::size_t kAtOnce = 30'000;

bool same(const std::vector<Corner>& a, const std::vector<Corner>& b) {
    return a.size() == b.size() && std::equal(a.begin(), a.end(), b.begin());
}

}  // namespace

Drawing::Drawing(QObject* parent) : QObject(parent) {
    pool_.setMaxThreadCount(1);
}

Drawing::~Drawing() {
    pool_.waitForDone();
}

Drawing::Made Drawing::make(const Asked& a) {
    Made out;
    out.stage = a.stage;
    out.frame_again = a.frame_again;
    try {
        out.section = section_at_cut(a.job, a.findings, a.stage);
        if (!a.scene) return out;
        auto scene = scene_of(a.job, a.findings, a.stage, *a.ink, a.wording, a.view);
        // Surfaces that stay as they are need not go to the graphics again.
        if (!same(scene.corners, last_)) {
            last_ = scene.corners;
            ++revision_;
        }
        scene.revision = revision_;
        if (scene.corners.size() > 3 * kFluid) scene.coarse = coarsened(scene.corners, kTurningCells);
        out.scene = std::move(scene);
    } catch (const InputError& e) {
        out.refused = message_of(e);
    } catch (const std::exception& e) {
        out.refused = e.what();
    } catch (...) {
        out.refused = "it could not be drawn";
    }
    return out;
}

void Drawing::ask(Asked asked) {
    if (busy_) {
        asked.frame_again = asked.frame_again || (next_ && next_->frame_again);
        next_ = std::move(asked);
        return;
    }
    const auto& shape = asked.findings.shape;
    if (!shape || shape->mesh.triangles.size() <= kAtOnce) {
        emit made(std::make_shared<Made>(make(asked)));
        return;
    }
    start(std::move(asked));
}

void Drawing::start(Asked asked) {
    busy_ = true;
    pool_.start([this, asked = std::move(asked)] {
        auto drawn = std::make_shared<Made>(make(asked));
        QMetaObject::invokeMethod(
            this,
            [this, drawn = std::move(drawn)] {
                busy_ = false;
                if (!next_) {
                    emit made(drawn);
                    return;
                }
                auto next = std::move(*next_);
                next_.reset();
                // What was overtaken is shown all the same while the newer one is drawn: a drag is followed.
                if (drawn->stage == next.stage) emit made(drawn);
                ask(std::move(next));
            },
            Qt::QueuedConnection);
    });
}

}  // namespace jig::app
