#include "core/science/mesh/tiles.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

namespace jig {
namespace {

/// Solid loops of a closed body in the plane `height` along the frame's w.
Loops section_of(const TriangleMesh& body, const Topology& topology, const Frame& frame, double height) {
    Progress quiet;
    const std::array<double, 1> at{height};
    return united(sections(body, topology, frame, at, quiet).front().loops);
}

std::vector<Key> keys_for(const TriangleMesh& body, const Topology& topology, const Frame& frame,
                          double height, const TileRules& rules) {
    std::vector<Key> out;
    if (!(rules.key_radius > 0)) return out;
    const double wall = rules.key_radius + std::max(0.002, 0.5 * rules.key_radius) + rules.play;
    const double deep = rules.key_depth + rules.play + 0.002;
    // The peg needs material under its foot, the hole material round its end.
    auto room =
        shared(section_of(body, topology, frame, height), section_of(body, topology, frame, height + deep));
    room = offset(room, -wall, false);
    if (room.empty()) return out;
    const Point2 low = low_corner(room), high = high_corner(room);
    const double step = rules.key_pitch / 2;
    for (double y = low.y() + 0.25 * step; y <= high.y(); y += step) {
        for (double x = low.x() + 0.25 * step; x <= high.x(); x += step) {
            const Point2 p(x, y);
            if (!holds(room, p)) continue;
            const Point at = frame.lift(p, height);
            const bool crowded = std::any_of(out.begin(), out.end(), [&](const Key& k) {
                return (k.at - at).norm() < 0.95 * rules.key_pitch;
            });
            if (!crowded) out.push_back({at, rules.key_radius, rules.key_depth});
        }
    }
    return out;
}

}  // namespace

std::string Tile::name() const {
    std::string letters;
    for (int n = cell[0]; n >= 0; n = n / 26 - 1)
        letters.insert(letters.begin(), static_cast<char>('A' + n % 26));
    return fmt::format("{}{}-{}", letters, cell[1] + 1, cell[2]);
}

TileSet tiles_of(const TriangleMesh& body, const Frame& frame, const TileRules& rules, Progress& progress) {
    if (!(rules.room.minCoeff() >= 0.01))
        throw InputError("tiles", "the printer's room is smaller than 10 mm", "give its three inside sizes");
    const std::array<Point, 3> axes{frame.u, frame.v, frame.w};
    std::array<double, 3> low{}, high{};
    for (std::size_t a = 0; a < 3; ++a) {
        low[a] = std::numeric_limits<double>::infinity();
        high[a] = -low[a];
        for (const auto& t : body.triangles) {
            for (const auto i : t) {
                low[a] = std::min(low[a], axes[a].dot(body.points[i]));
                high[a] = std::max(high[a], axes[a].dot(body.points[i]));
            }
        }
    }
    TileSet out;
    double total = 1;
    for (std::size_t a = 0; a < 3; ++a) {
        // Pegs stand out of a tile and need room too.
        const double room =
            rules.room[static_cast<Eigen::Index>(a)] - (rules.key_radius > 0 ? rules.key_depth : 0);
        const double count = std::ceil((high[a] - low[a]) / std::max(0.005, room) - 1e-9);
        total *= std::max(1.0, count);
        if (total > 4000)
            throw InputError("tiles", "the shape takes more than 4000 tiles", "print on a larger machine");
        out.count[a] = std::max(1, static_cast<int>(count));
    }
    std::vector<Tile> work(1);
    work.front().mesh = body;
    for (std::size_t a = 0; a < 3; ++a) {
        const auto across = frame_across(axes[a]);
        std::vector<Tile> next;
        for (auto& tile : work) {
            for (int i = 1; i < out.count[a]; ++i) {
                progress.report((static_cast<double>(a) + static_cast<double>(i) / out.count[a]) / 3,
                                "cutting tiles");
                const double at = low[a] + (high[a] - low[a]) * i / out.count[a];
                double lowest = std::numeric_limits<double>::infinity(), highest = -lowest;
                for (const auto& p : tile.mesh.points) {
                    lowest = std::min(lowest, axes[a].dot(p));
                    highest = std::max(highest, axes[a].dot(p));
                }
                const double hair = 1e-7 * (high[a] - low[a]);
                if (at <= lowest + hair || at >= highest - hair) {
                    if (at <= lowest + hair) tile.cell[a] = i;
                    continue;
                }
                const auto keys = keys_for(tile.mesh, topology_of(tile.mesh), across, at, rules);
                auto halves = cut_solid(tile.mesh, at * axes[a], axes[a], keys, rules.play);
                out.face += halves.face;
                out.seam += halves.seam;
                out.keys += static_cast<int>(keys.size());
                if (!halves.below.empty()) {
                    auto lower = tile;
                    lower.mesh = std::move(halves.below);
                    next.push_back(std::move(lower));
                }
                tile.mesh = std::move(halves.above);
                tile.cell[a] = i;
            }
            if (!tile.mesh.empty()) next.push_back(std::move(tile));
        }
        work = std::move(next);
    }
    for (auto& tile : work) {
        tile.volume = enclosed_volume(tile.mesh);
        if (tile.volume > 1e-12) out.tiles.push_back(std::move(tile));
    }
    return out;
}

}  // namespace jig
