#include "core/stages/back/suggest.hpp"

#include <algorithm>
#include <cmath>

namespace jig::back {
namespace {

constexpr std::size_t kTriangles = 1400;

}  // namespace

Suggestion suggest(ToolInputs in, Progress& progress) {
    if (!in.back.has_grid())
        throw InputError("back", "there are no ribs whose pitch could be sought",
                         "take an egg-crate, foam blocks, tubes or a frame");
    Suggestion out;
    const auto chosen = in.back;
    const double longest = std::max(in.face.high.x() - in.face.low.x(), in.face.high.y() - in.face.low.y());
    constexpr int kPitches = 8;
    const double widest = longest / 2, closest = std::max(0.06, widest / 8);
    const auto sag = [&](const Choices& c) {
        const ToolInputs with{in.face, in.edge,    in.shell,      in.shell_found, c,
                              in.shop, in.corners, in.edge_found, in.room};
        const auto face = even_face(in.face, edge_for(in.face, c, kTriangles), progress);
        return quick_sag(with, face, progress);
    };
    for (int i = 0; i < kPitches; ++i) {
        progress.report(0.6 * i / kPitches, "trying pitches");
        auto c = chosen;
        // Whole centimetres, as a drawing says them.
        c.pitch = std::round(100 * widest * std::pow(closest / widest, i / (kPitches - 1.0))) / 100;
        if (!out.pitches.empty() && c.pitch >= out.pitches.back().value) continue;
        try {
            out.pitches.push_back({c.pitch, sag(c)});
        } catch (const InputError&) {
            // So wide that the tool does not stand on it: no answer, and the next is closer.
            if (i + 1 == kPitches && out.pitches.empty()) throw;
        }
    }
    out.pitch = out.pitches.back().value;
    for (const auto& p : out.pitches) {
        if (p.sag.standing > chosen.limit || p.sag.leaning > chosen.rim_limit) continue;
        out.pitch = p.value;
        out.holds = true;
        break;
    }
    double least = 1e30;
    const std::array<double, 6> insets{0.02, 0.08, 0.15, 0.22, 0.30, 0.38};
    for (std::size_t i = 0; i < insets.size(); ++i) {
        progress.report(0.6 + 0.4 * static_cast<double>(i) / insets.size(), "moving the feet");
        auto c = chosen;
        c.pitch = out.pitch;
        c.feet.inset = insets[i];
        out.insets.push_back({insets[i], sag(c)});
        if (out.insets.back().sag.standing < least) {
            least = out.insets.back().sag.standing;
            out.inset = insets[i];
        }
    }
    return out;
}

}  // namespace jig::back
