#include "core/science/heat/cured.hpp"

#include <algorithm>
#include <cmath>

#include "core/base/parallel.hpp"

namespace jig {
namespace {

/// Enough for a chart, and quick enough behind an edit.
constexpr int kProgrammeCells = 41;

/// s from `start` on until the coolest of the layers is `within` K of the air, level at `T`; none where
/// patience ends.
std::optional<double> wait_of(const InOven& of, double T, double start, double within, double patience,
                              Progress& progress) {
    WallRules rules;
    rules.end = start + patience;
    rules.tolerance = 0.05;
    rules.cells = kProgrammeCells;
    // Closely at first, where most come near.
    for (int i = 0; i <= 120; ++i) rules.at.push_back(start + patience * i * i / (120.0 * 120.0));
    const auto h = warm(of.wall, rules, progress);
    double before = 0;
    for (std::size_t t = 0; t < h.times.size(); ++t) {
        double off = 0;
        for (const auto& p : h.places) {
            if (std::find(of.layers.begin(), of.layers.end(), p.layer) != of.layers.end())
                off = std::max(off, T - p.T[t]);
        }
        if (off <= within) {
            if (t == 0) return 0.0;
            // Straight between two looks: what comes near ever more slowly is told a little late.
            const double share = (before - within) / (before - off);
            return h.times[t - 1] + share * (h.times[t] - h.times[t - 1]) - start;
        }
        before = off;
    }
    return {};
}

}  // namespace

CuredTogether run_programme(std::vector<InOven> walls, const std::vector<Segment>& programme,
                            const std::array<bool, 2>& follow, double patience, Progress& progress) {
    CuredTogether out;
    out.air = steady(walls.front().wall.start);
    const auto put = [&](const Course& air) {
        for (auto& of : walls) {
            for (std::size_t i = 0; i < 2; ++i) {
                if (follow[i]) of.wall.sides[i].air = warmed_more(air, of.off, out.air.corners.front().T);
            }
        }
    };
    const auto each = [&](const auto& work) {
        parallel_shares(walls.size(), 1, [&](std::size_t from, std::size_t to, unsigned) {
            for (auto i = from; i < to; ++i) work(i);
        });
    };
    double longest = 0;
    for (const auto& s : programme) {
        const auto last = out.air.corners.back();
        if (!s.hold) {
            if (s.to != last.T)
                out.air.corners.push_back({last.time + std::abs(s.to - last.T) / s.rate, s.to});
            continue;
        }
        double wait = 0;
        if (s.within && patience > 0) {
            auto held = out.air;
            held.corners.push_back({last.time + patience, last.T});
            put(held);
            std::vector<std::optional<double>> waits(walls.size(), 0.0);
            each([&](std::size_t i) {
                if (!walls[i].layers.empty())
                    waits[i] = wait_of(walls[i], last.T, last.time, *s.within, patience, progress);
            });
            for (std::size_t i = 0; i < walls.size(); ++i) {
                out.waited = out.waited && waits[i];
                const double this_one = waits[i].value_or(patience);
                wait = std::max(wait, this_one);
                if (this_one <= longest) continue;
                longest = this_one;
                out.slowest = i;
            }
        }
        if (wait + s.seconds > 0) out.air.corners.push_back({last.time + wait + s.seconds, last.T});
    }
    put(out.air);
    WallRules rules;
    rules.end = std::max(out.air.end(), 1.0);
    rules.cells = kProgrammeCells;
    rules.tolerance = 0.02;
    out.histories.resize(walls.size());
    each([&](std::size_t i) { out.histories[i] = warm(walls[i].wall, rules, progress); });
    return out;
}

Cured run_programme(Wall wall, const std::vector<Segment>& programme, const std::array<bool, 2>& follow,
                    const std::vector<std::size_t>& layers, double patience, Progress& progress) {
    auto together = run_programme({{std::move(wall), layers}}, programme, follow, patience, progress);
    return {std::move(together.air), std::move(together.histories.front()), together.waited};
}

}  // namespace jig
