// What the tool stands on: tubes and legs, its rim, its feet.
#include "core/stages/back/tool_builder.hpp"

#include <algorithm>
#include <cmath>
#include <map>

namespace jig::back {

Point ToolBuilder::upright_of(std::uint32_t a, std::uint32_t b) {
    const Point way = (points()[b] - points()[a]).normalized();
    return std::abs(way.dot(f_.w)) < 0.9 ? f_.w : std::abs(way.dot(f_.u)) < 0.9 ? f_.u : f_.v;
}

Bar ToolBuilder::tube(std::uint32_t a, std::uint32_t b) {
    const auto m = facts_of(c_.tubes.metal);
    const auto section = section_of(c_);
    Bar bar{a, b};
    bar.stretch = m.E * section.area;
    bar.bend_up = bar.bend_across = m.E * section.second;
    bar.twist = m.G * section.twist;
    bar.mass = m.density * section.area;
    bar.alpha = m.alpha;
    bar.up = upright_of(a, b);
    return bar;
}

void ToolBuilder::stand_tubes() {
    if (crossing_.empty())
        throw InputError("back", "tubes stand where lines along and across meet, and none do on this shell",
                         "take lines both ways, or a closer pitch");
    std::map<std::pair<int, int>, std::uint32_t> level;
    const double size = c_.tubes.size;
    const auto bond = bond_of(c_.joint, size, in_.shell_found.resin, in_.shop);
    for (const auto& [pair, shell] : crossing_) {
        const Point p = points()[shell];
        const auto foot = beside(shell);
        const auto top = add_point(p + f_.w * std::max(0.02, tool_.level - f_.w.dot(p)));
        level[pair] = top;
        tool_.model.bars.push_back(tube(foot, top));
        auto tie = tied(shell, foot, bond, 2 * size, f_.w);
        // The patch holds the leg upright by its own breadth, and against turning by what slides.
        tie.turning = 2 * size * size * size / 4 *
                      (bond.across * (f_.u * f_.u.transpose() + f_.v * f_.v.transpose()) +
                       bond.sliding * f_.w * f_.w.transpose());
        tool_.model.ties.push_back(tie);
        tool_.base.push_back(top);
    }
    for (const auto& [pair, point] : level) {
        for (const auto& next :
             {std::pair{pair.first + 1, pair.second}, std::pair{pair.first, pair.second + 1}}) {
            const auto known = level.find(next);
            if (known != level.end()) tool_.model.bars.push_back(tube(point, known->second));
        }
    }
}

void ToolBuilder::find_rim() {
    TriangleMesh shell;
    shell.points.assign(points().begin(), points().begin() + static_cast<std::ptrdiff_t>(shell_points_));
    for (std::size_t f = 0; f < tool_.parts.size(); ++f) {
        if (tool_.parts[f] != ToolPart::rib) shell.triangles.push_back(tool_.model.mesh.triangles[f]);
    }
    const auto rims = rim_loops(shell, topology_of(shell));
    if (!rims.empty()) tool_.rim = rims.front();
}

bool ToolBuilder::stands_wide(const std::vector<std::uint32_t>& stands, double off) const {
    std::vector<Point2> places;
    for (const auto i : stands) places.push_back(f_.flat(tool_.model.mesh.points[i]));
    const auto feet = feet_on(c_, places);
    double widest = 0, off_line = 0;
    for (const auto a : feet) {
        for (const auto b : feet) {
            const Point2 line = places[b] - places[a];
            if (line.norm() < 1e-9) continue;
            double most = 0;
            for (const auto c : feet) {
                const Point2 to = places[c] - places[a];
                most = std::max(most, std::abs(line.x() * to.y() - line.y() * to.x()) / line.norm());
            }
            if (line.norm() <= widest) continue;
            widest = line.norm();
            off_line = most;
        }
    }
    return off_line > off;
}

void ToolBuilder::find_feet() {
    std::vector<std::uint32_t> stands;
    if (c_.has_bars()) {
        stands = tool_.base;
    } else if (c_.kind == BackKind::egg_crate) {
        // Where ribs cross, and at their ends.
        stands = tool_.base;
        stands.insert(stands.end(), ends_.begin(), ends_.end());
        std::sort(stands.begin(), stands.end());
        stands.erase(std::unique(stands.begin(), stands.end()), stands.end());
    } else {
        // The tool lies on its own highest places.
        std::vector<std::uint32_t> from;
        if (c_.kind == BackKind::foam_blocks) {
            from = tool_.base;
            from.insert(from.end(), ends_.begin(), ends_.end());
            std::sort(from.begin(), from.end());
            from.erase(std::unique(from.begin(), from.end()), from.end());
        } else {
            for (std::uint32_t i = 0; i < shell_points_; ++i) from.push_back(i);
        }
        double top = -1e30, low = 1e30;
        for (const auto i : from) {
            top = std::max(top, height(i));
            low = std::min(low, height(i));
        }
        // On a shape that comes to a point the floor is shimmed up to lower places, until the tool stands
        // wide.
        const Point size = in_.face.high - in_.face.low;
        for (const double share : {0.06, 0.15, 0.3, 0.5, 0.75, 1.0}) {
            stands.clear();
            Point2 least = Point2::Constant(1e30), most = -least;
            for (const auto i : from) {
                if (height(i) < top - std::max(0.002, share * (top - low))) continue;
                stands.push_back(i);
                least = least.cwiseMin(f_.flat(points()[i]));
                most = most.cwiseMax(f_.flat(points()[i]));
            }
            if (stands.size() >= 4 && ((most - least).array() >= 0.3 * size.head<2>().array()).all() &&
                stands_wide(stands, 0.1 * size.head<2>().minCoeff()))
                break;
        }
    }
    if (stands.empty()) {
        for (std::uint32_t i = 0; i < shell_points_; ++i) stands.push_back(i);
    }
    std::vector<Point2> places;
    for (const auto i : stands) places.push_back(f_.flat(points()[i]));
    for (const auto k : feet_on(c_, places)) tool_.feet.push_back(stands[k]);
    tool_.stands = std::move(stands);
}

}  // namespace jig::back
