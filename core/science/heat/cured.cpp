#include "core/science/heat/cured.hpp"

#include <algorithm>
#include <cmath>

namespace jig {
namespace {

/// Enough for a chart, and quick enough behind an edit.
constexpr int kProgrammeCells = 41;

}  // namespace

Cured run_programme(Wall wall, const std::vector<Segment>& programme, const std::array<bool, 2>& follow,
                    const std::vector<std::size_t>& layers, double patience, Progress& progress) {
    Cured out;
    const double room = wall.start;
    out.air = steady(room);
    const auto put = [&](const Course& air) {
        for (std::size_t i = 0; i < 2; ++i) {
            if (follow[i]) wall.sides[i].air = air;
        }
    };
    for (const auto& s : programme) {
        const auto last = out.air.corners.back();
        if (!s.hold) {
            if (s.to != last.T)
                out.air.corners.push_back({last.time + std::abs(s.to - last.T) / s.rate, s.to});
            continue;
        }
        double wait = 0;
        if (s.within && !layers.empty()) {
            auto held = out.air;
            held.corners.push_back({last.time + patience, last.T});
            put(held);
            WallRules rules;
            rules.end = last.time + patience;
            rules.tolerance = 0.05;
            rules.cells = kProgrammeCells;
            // Closely at first, where most come near.
            for (int i = 0; i <= 120; ++i) rules.at.push_back(last.time + patience * i * i / (120.0 * 120.0));
            const auto h = warm(wall, rules, progress);
            wait = patience;
            bool came = false;
            for (std::size_t t = 0; t < h.times.size() && !came; ++t) {
                double off = 0;
                for (const auto& p : h.places) {
                    if (std::find(layers.begin(), layers.end(), p.layer) != layers.end())
                        off = std::max(off, last.T - p.T[t]);
                }
                if (off > *s.within) continue;
                wait = h.times[t] - last.time;
                came = true;
            }
            out.waited = out.waited && came;
        }
        if (wait + s.seconds > 0) out.air.corners.push_back({last.time + wait + s.seconds, last.T});
    }
    put(out.air);
    WallRules rules;
    rules.end = std::max(out.air.end(), 1.0);
    rules.cells = kProgrammeCells;
    rules.tolerance = 0.02;
    out.history = warm(wall, rules, progress);
    return out;
}

}  // namespace jig
