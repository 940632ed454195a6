#include "core/science/mesh/repair.hpp"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <unordered_map>

#include "core/science/mesh/grid_key.hpp"

namespace jig {
namespace {

/// How often something was mended, and where the first times were.
class Tally {
  public:
    void add(const Point& place) {
        ++count;
        if (places.size() < kShown) places.push_back(place);
    }
    std::size_t count = 0;
    std::vector<Point> places;

  private:
    static constexpr std::size_t kShown = 300;
};

/// Joins points that fall together within `reach`.
Tally join_points(TriangleMesh& mesh, double reach) {
    Tally gone;
    std::unordered_map<GridKey, std::uint32_t, GridHash> cells;
    cells.reserve(mesh.points.size());
    std::vector<std::uint32_t> renamed(mesh.points.size());
    std::vector<Point> kept;
    for (std::size_t i = 0; i < mesh.points.size(); ++i) {
        const Point& p = mesh.points[i];
        const auto cell = [&](double v, int shift) {
            return static_cast<std::int64_t>(std::floor(v / (4 * reach) + 0.5 * shift));
        };
        std::uint32_t found = kNoFace;
        // Two grids, half a cell apart, so that points on either side of a cell wall still meet.
        for (int shift = 0; shift < 2 && found == kNoFace; ++shift) {
            const GridKey key{cell(p.x(), shift) * 2 + shift, cell(p.y(), shift), cell(p.z(), shift)};
            const auto at = cells.find(key);
            if (at != cells.end() && (kept[at->second] - p).norm() <= reach) found = at->second;
        }
        if (found != kNoFace) {
            gone.add(p);
        } else {
            found = static_cast<std::uint32_t>(kept.size());
            kept.push_back(p);
            for (int shift = 0; shift < 2; ++shift) {
                cells.try_emplace({cell(p.x(), shift) * 2 + shift, cell(p.y(), shift), cell(p.z(), shift)},
                                  found);
            }
        }
        renamed[i] = found;
    }
    if (gone.count != 0) {
        for (auto& t : mesh.triangles) {
            for (auto& i : t) i = renamed[i];
        }
        mesh.points = std::move(kept);
    }
    return gone;
}

Tally drop_empty(TriangleMesh& mesh) {
    Tally dropped;
    const auto before = mesh.triangles.size();
    const double tiny = std::pow(bounds_of(mesh).diagonal() * 1e-9, 2);
    std::size_t keep = 0;
    for (std::size_t f = 0; f < before; ++f) {
        const auto t = mesh.triangles[f];
        const bool bent = t[0] == t[1] || t[1] == t[2] || t[2] == t[0];
        if (!bent && mesh.area_vector2(f).norm() > tiny)
            mesh.triangles[keep++] = t;
        else
            dropped.add(mesh.points[t[0]]);
    }
    mesh.triangles.resize(keep);
    return dropped;
}

Tally drop_doubled(TriangleMesh& mesh) {
    Tally dropped;
    std::vector<std::pair<Triangle, std::uint32_t>> keyed(mesh.triangles.size());
    for (std::size_t f = 0; f < keyed.size(); ++f) {
        auto t = mesh.triangles[f];
        std::sort(t.begin(), t.end());
        keyed[f] = {t, static_cast<std::uint32_t>(f)};
    }
    std::sort(keyed.begin(), keyed.end());
    std::vector<char> drop(keyed.size(), 0);
    for (std::size_t i = 1; i < keyed.size(); ++i) {
        if (keyed[i].first == keyed[i - 1].first) {
            drop[keyed[i].second] = 1;
            dropped.add(mesh.centre(keyed[i].second));
        }
    }
    if (dropped.count == 0) return dropped;
    std::size_t keep = 0;
    for (std::size_t f = 0; f < drop.size(); ++f) {
        if (!drop[f]) mesh.triangles[keep++] = mesh.triangles[f];
    }
    mesh.triangles.resize(keep);
    return dropped;
}

double signed_volume(const TriangleMesh& mesh, const std::vector<std::uint32_t>& faces) {
    double six = 0;
    for (const auto f : faces) six += mesh.corner(f, 0).dot(mesh.corner(f, 1).cross(mesh.corner(f, 2)));
    return six / 6;
}

/// Turns faces so that neighbours agree, and each closed body outside out.
Tally turn_outwards(TriangleMesh& mesh, const Topology& topology) {
    std::vector<char> seen(mesh.triangles.size(), 0), turned(mesh.triangles.size(), 0);
    Tally tally;
    for (std::size_t seed = 0; seed < seen.size(); ++seed) {
        if (seen[seed]) continue;
        std::vector<std::uint32_t> body;
        body.push_back(static_cast<std::uint32_t>(seed));
        seen[seed] = 1;
        bool closed = true;
        for (std::size_t at = 0; at < body.size(); ++at) {
            const auto f = body[at];
            for (std::size_t k = 0; k < 3; ++k) {
                const auto g = topology.across[f][k];
                if (g == kNoFace) {
                    closed = false;
                    continue;
                }
                if (seen[g]) continue;
                const auto a = mesh.triangles[f][k], b = mesh.triangles[f][(k + 1) % 3];
                bool same_way = false;
                for (std::size_t j = 0; j < 3; ++j)
                    same_way |= mesh.triangles[g][j] == a && mesh.triangles[g][(j + 1) % 3] == b;
                turned[g] = static_cast<char>(turned[f] ^ static_cast<char>(same_way));
                seen[g] = 1;
                body.push_back(g);
            }
        }
        const auto flip = [&](std::uint32_t f) { std::swap(mesh.triangles[f][1], mesh.triangles[f][2]); };
        std::size_t flipped = 0;
        for (const auto f : body) {
            if (turned[f]) {
                flip(f);
                ++flipped;
            }
        }
        const bool inside_out = closed ? signed_volume(mesh, body) < 0 : flipped * 2 > body.size();
        for (const auto f : body) {
            if (inside_out) flip(f);
            if ((turned[f] != 0) != inside_out) tally.add(mesh.centre(f));
        }
    }
    return tally;
}

Tally close_pinholes(TriangleMesh& mesh, const Topology& topology) {
    const double longest = 0.02 * bounds_of(mesh).diagonal();
    Tally closed;
    for (const auto& loop : rim_loops(mesh, topology)) {
        if (loop_length(mesh, loop) > longest) continue;
        Point middle = Point::Zero();
        for (const auto i : loop) middle += mesh.points[i] / static_cast<double>(loop.size());
        const auto hub = static_cast<std::uint32_t>(mesh.points.size());
        if (loop.size() > 3) mesh.points.push_back(middle);
        for (std::size_t i = 0; i < loop.size(); ++i) {
            if (loop.size() == 3 && i > 0) break;
            const auto a = loop[i], b = loop[(i + 1) % loop.size()];
            mesh.triangles.push_back({b, a, loop.size() > 3 ? hub : loop[2]});
        }
        closed.add(middle);
    }
    return closed;
}

}  // namespace

Repaired repaired(TriangleMesh mesh, Progress& progress, const MendRules& rules) {
    Repaired out;
    const auto note = [&](const char* what, const char* rule, Tally tally) {
        if (tally.count != 0) out.repairs.push_back({what, tally.count, rule, std::move(tally.places)});
    };
    const double size = bounds_of(mesh).diagonal();
    if (!(size > 0))
        throw InputError("shape", "all its points fall together",
                         "choose a shape with a size, and check the unit");
    progress.report(0.1, "joining points");
    if (rules.join) note("points joined that fell together", "join", join_points(mesh, 1e-6 * size));
    progress.report(0.3, "dropping empty faces");
    if (rules.drop) {
        note("faces without area dropped", "drop", drop_empty(mesh));
        note("doubled faces dropped", "drop", drop_doubled(mesh));
    }
    if (mesh.empty())
        throw InputError("shape", "no face with an area is left in it", "export the shape again as a mesh");
    progress.report(0.5, "turning faces outwards");
    out.topology = topology_of(mesh);
    if (rules.turn) note("faces turned to face outwards", "turn", turn_outwards(mesh, out.topology));
    progress.report(0.7, "closing pinholes");
    if (rules.close && out.topology.rim_edges != 0)
        note("pinholes closed", "close", close_pinholes(mesh, topology_of(mesh)));
    out.topology = topology_of(mesh);
    out.holes = out.topology.rim_edges != 0 ? rim_loops(mesh, out.topology).size() : 0;
    out.mesh = std::move(mesh);
    progress.report(1, "mended");
    return out;
}

}  // namespace jig
