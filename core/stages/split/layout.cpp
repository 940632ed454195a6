#include "core/stages/split/layout.hpp"

#include <algorithm>
#include <limits>

#include "core/base/units.hpp"

namespace jig::split {
namespace {

Loops all_placed(const Loops& outlines, const PartPlace& place) {
    Loops out;
    for (const auto& loop : outlines) out.push_back(placed(loop, place));
    return out;
}

Loops moved(Loops loops, const Point2& by) {
    for (auto& loop : loops) {
        for (auto& p : loop) p += by;
    }
    return loops;
}

Point2 middle_of(const Loops& loops) {
    return (low_corner(loops) + high_corner(loops)) / 2;
}

bool overlap(const Loops& a, const Loops& b) {
    return net_area(shared(a, b)) > 1e-8;
}

/// How far along `axis` the second must move to clear the first, from where both stand in one place.
double clearance(const Loops& first, const Loops& second, const Point2& axis) {
    double free = (high_corner(first) - low_corner(second)).dot(axis), held = 0;
    for (int i = 0; i < 20; ++i) {
        const double middle = (free + held) / 2;
        (overlap(first, moved(second, middle * axis)) ? held : free) = middle;
    }
    return free;
}

/// Parts in rows of `columns`, each slid up to what lies there already.
std::vector<PartPlace> in_rows(const Loops& cell, const std::vector<PartPlace>& turns, std::size_t columns,
                               const Point2& along, const Point2& across) {
    std::vector<PartPlace> out;
    Loops row, before;
    std::size_t row_start = 0;
    double row_at = 0;
    const auto close_row = [&] {
        if (row_start > 0) {
            const double step = clearance(before, row, across);
            for (auto i = row_start; i < out.size(); ++i) out[i].move += step * across;
            row = moved(std::move(row), step * across);
        }
        before.insert(before.end(), row.begin(), row.end());
        row.clear();
        row_start = out.size();
        row_at = 0;
    };
    Loops last;
    for (std::size_t i = 0; i < turns.size(); ++i) {
        auto place = turns[i];
        auto here = all_placed(cell, place);
        if (!row.empty()) {
            row_at += clearance(last, here, along);
            place.move += row_at * along;
        }
        last = here;
        here = moved(std::move(here), row_at * along);
        row.insert(row.end(), here.begin(), here.end());
        out.push_back(place);
        if ((i + 1) % columns == 0 || i + 1 == turns.size()) close_row();
    }
    return out;
}

}  // namespace

Loop placed(const Loop& outline, const PartPlace& place) {
    Loop out;
    for (const auto& p : outline) out.push_back(place.at(p));
    if (place.mirrored) std::reverse(out.begin(), out.end());
    return out;
}

Loops joined_outline(const Loops& rims, double between) {
    // Parts that face each other only with a corner need a wider bridge.
    Loops out;
    for (double reach = 0.5 * between + 0.001; reach < 10; reach *= 1.4) {
        out.clear();
        for (auto& loop : offset(offset(rims, reach), -reach)) {
            if (signed_area(loop) > 0) out.push_back(std::move(loop));
        }
        if (out.size() == 1) break;
    }
    return out;
}

std::vector<PartPlace> lay_parts(const Loops& outlines, const Choices& c) {
    const int count = c.together == Together::alone      ? 1
                      : c.together == Together::mirrored ? 2
                                                         : std::max(1, c.parts);
    if (count == 1 || outlines.empty()) return {PartPlace{}};
    // A cell keeps half of the flange between on every side; thinned for speed, the margin covers it.
    constexpr double kThin = 0.0005;
    Loops thin;
    for (const auto& loop : outlines) thin.push_back(simplified(loop, kThin));
    Loops cell = offset(thin, c.between / 2 + kThin);
    for (auto& loop : cell) loop = simplified(loop, kThin / 2);
    std::vector<PartPlace> best;
    double least = std::numeric_limits<double>::infinity();
    const auto n = static_cast<std::size_t>(count);
    for (std::size_t columns = 1; columns <= n; ++columns) {
        // Rows that could be shorter with as few rows are tried by themselves.
        if ((n + columns - 1) / columns == (n + columns - 2) / std::max<std::size_t>(1, columns - 1) &&
            columns > 1)
            continue;
        for (int upended = 0; upended < 2; ++upended) {
            std::vector<PartPlace> turns(n);
            for (std::size_t i = 0; i < n; ++i) {
                turns[i].mirrored = c.together == Together::mirrored && i % 2 == 1;
                turns[i].turn = upended && i % 2 == 1 ? kPi : 0;
                // Turned and mirrored about its own middle, so that rows stay rows.
                turns[i].move = middle_of(thin) - middle_of(all_placed(thin, turns[i]));
            }
            auto places = in_rows(cell, turns, columns, Point2::UnitX(), Point2::UnitY());
            Loops rims;
            for (const auto& place : places) {
                for (auto& loop : all_placed(thin, place)) rims.push_back(std::move(loop));
            }
            const Point2 size = high_corner(rims) - low_corner(rims);
            // A usual flange all round counts, and of equal moulds the squarer one is handier.
            constexpr double kFlange = 0.08;
            const double mould = net_area(offset(joined_outline(rims, c.between), kFlange)) +
                                 0.02 * std::abs(size.x() - size.y());
            if (mould < least - 1e-9) {
                least = mould;
                best = std::move(places);
            }
        }
    }
    return best;
}

std::shared_ptr<const Stood> stand_parts(const TriangleMesh& part, const Frame& frame,
                                         const std::vector<PartPlace>& places) {
    auto out = std::make_shared<Stood>();
    for (const auto& place : places) {
        const auto base = static_cast<std::uint32_t>(out->mesh.points.size());
        for (const auto& p : part.points)
            out->mesh.points.push_back(frame.lift(place.at(frame.flat(p)), frame.w.dot(p)));
        for (auto t : part.triangles) {
            if (place.mirrored) std::swap(t[1], t[2]);
            out->mesh.triangles.push_back({t[0] + base, t[1] + base, t[2] + base});
        }
    }
    out->topology = topology_of(out->mesh);
    return out;
}

}  // namespace jig::split
