#include "core/science/mesh/repair.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>
#include <optional>
#include <unordered_map>

#include "core/science/mesh/grid_key.hpp"
#include "core/science/mesh/rays.hpp"

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

/// Joins points that fall together within `reach`; those that no face uses are let go in silence.
Tally join_points(TriangleMesh& mesh, double reach) {
    Tally gone;
    std::vector<char> used(mesh.points.size(), 0);
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) used[i] = 1;
    }
    // In cells twice the reach, whatever lies within reach stands in one of at most eight cells.
    const double cell = 2 * reach;
    std::unordered_multimap<GridKey, std::uint32_t, GridHash> cells;
    cells.reserve(mesh.points.size());
    std::vector<std::uint32_t> renamed(mesh.points.size(), 0);
    std::vector<Point> kept;
    const auto row = [&](double v) { return static_cast<std::int64_t>(std::floor(v / cell)); };
    for (std::size_t i = 0; i < mesh.points.size(); ++i) {
        if (!used[i]) continue;
        const Point& p = mesh.points[i];
        std::uint32_t found = kNoFace;
        double nearest = reach;
        for (auto x = row(p.x() - reach); x <= row(p.x() + reach); ++x) {
            for (auto y = row(p.y() - reach); y <= row(p.y() + reach); ++y) {
                for (auto z = row(p.z() - reach); z <= row(p.z() + reach); ++z) {
                    const auto [from, to] = cells.equal_range({x, y, z});
                    for (auto at = from; at != to; ++at) {
                        const double d = (kept[at->second] - p).norm();
                        if (d > nearest || (d == nearest && found != kNoFace)) continue;
                        nearest = d;
                        found = at->second;
                    }
                }
            }
        }
        if (found != kNoFace) {
            gone.add(p);
        } else {
            found = static_cast<std::uint32_t>(kept.size());
            kept.push_back(p);
            cells.emplace(GridKey{row(p.x()), row(p.y()), row(p.z())}, found);
        }
        renamed[i] = found;
    }
    if (kept.size() != mesh.points.size()) {
        for (auto& t : mesh.triangles) {
            for (auto& i : t) i = renamed[i];
        }
        mesh.points = std::move(kept);
    }
    return gone;
}

/// Takes faces without area out so that their neighbours close up behind them: what has two corners in one
/// point simply goes; where a corner lies on the opposite edge, the face beyond that edge is parted there.
Tally drop_empty(TriangleMesh& mesh) {
    Tally dropped;
    const double tiny = std::pow(bounds_of(mesh).diagonal() * 1e-9, 2);
    const auto bent = [&](std::size_t f) {
        const auto& t = mesh.triangles[f];
        return t[0] == t[1] || t[1] == t[2] || t[2] == t[0];
    };
    const auto thin = [&](std::size_t f) { return !bent(f) && mesh.area_vector2(f).norm() <= tiny; };
    const auto sweep = [&](const auto& gone) {
        std::size_t keep = 0;
        for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
            if (!gone(f))
                mesh.triangles[keep++] = mesh.triangles[f];
            else
                dropped.add(mesh.points[mesh.triangles[f][0]]);
        }
        mesh.triangles.resize(keep);
    };
    sweep(bent);
    // A sliver beyond the long edge of a sliver is parted in turn: each round takes at least one out.
    for (int round = 0; round < 64; ++round) {
        std::vector<std::uint32_t> slivers;
        for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
            if (thin(f)) slivers.push_back(static_cast<std::uint32_t>(f));
        }
        if (slivers.empty()) return dropped;
        const auto topology = topology_of(mesh);
        std::vector<char> busy(mesh.triangles.size(), 0), gone(mesh.triangles.size(), 0);
        for (const auto f : slivers) {
            if (busy[f]) continue;
            std::size_t longest = 0;
            for (std::size_t k = 1; k < 3; ++k) {
                const auto edge = [&](std::size_t e) {
                    return (mesh.corner(f, static_cast<int>((e + 1) % 3)) -
                            mesh.corner(f, static_cast<int>(e)))
                        .squaredNorm();
                };
                if (edge(k) > edge(longest)) longest = k;
            }
            const auto g = topology.across[f][longest];
            if (g != kNoFace && busy[g]) continue;
            busy[f] = gone[f] = 1;
            if (g == kNoFace) continue;
            busy[g] = 1;
            const auto a = mesh.triangles[f][longest], b = mesh.triangles[f][(longest + 1) % 3],
                       middle = mesh.triangles[f][(longest + 2) % 3];
            auto& beyond = mesh.triangles[g];
            std::size_t k = 0;
            while (k < 2 && (beyond[k] == a || beyond[k] == b)) ++k;
            const auto tip = beyond[k], next = beyond[(k + 1) % 3], last = beyond[(k + 2) % 3];
            if (tip == middle) {  // two slivers on the same three points: both go
                gone[g] = 1;
                continue;
            }
            beyond = {tip, next, middle};
            gone[f] = 0;
            mesh.triangles[f] = {tip, middle, last};
            dropped.add(mesh.points[middle]);
        }
        sweep([&](std::size_t f) { return gone[f] != 0; });
    }
    sweep(thin);
    return dropped;
}

/// Faces that lie on each other corner by corner. Of what stands double, one stays. Where two bodies touch,
/// the patch between them is inside both together: there the two go, and the bodies are one.
struct Doubled {
    Tally doubled, between;
};

Doubled drop_doubled(TriangleMesh& mesh) {
    Doubled out;
    std::vector<std::pair<Triangle, std::uint32_t>> keyed(mesh.triangles.size());
    for (std::size_t f = 0; f < keyed.size(); ++f) {
        auto t = mesh.triangles[f];
        std::sort(t.begin(), t.end());
        keyed[f] = {t, static_cast<std::uint32_t>(f)};
    }
    std::sort(keyed.begin(), keyed.end());
    std::vector<char> drop(keyed.size(), 0);
    std::vector<std::uint32_t> twin(keyed.size(), kNoFace);  // of faces that stand exactly twice
    bool any = false;
    for (std::size_t i = 0; i < keyed.size();) {
        auto end = i + 1;
        while (end < keyed.size() && keyed[end].first == keyed[i].first) ++end;
        if (end - i == 2) {
            twin[keyed[i].second] = keyed[i + 1].second;
            twin[keyed[i + 1].second] = keyed[i].second;
            any = true;
        }
        for (auto k = i + 2; k < end && end - i > 2; ++k) drop[keyed[k].second] = 1;
        if (end - i > 2) drop[keyed[i + 1].second] = 1;
        i = end;
    }
    if (any) {
        // Per edge, how many faces stand alone there and how many have a twin.
        std::map<std::pair<std::uint32_t, std::uint32_t>, std::pair<int, std::vector<std::uint32_t>>> edges;
        std::vector<char> touched(mesh.points.size(), 0);
        for (std::size_t f = 0; f < twin.size(); ++f) {
            if (twin[f] == kNoFace) continue;
            for (const auto i : mesh.triangles[f]) touched[i] = 1;
        }
        for (std::size_t f = 0; f < twin.size(); ++f) {
            const auto& t = mesh.triangles[f];
            for (std::size_t k = 0; k < 3; ++k) {
                const auto a = t[k], b = t[(k + 1) % 3];
                if (!touched[a] || !touched[b]) continue;
                auto& edge = edges[std::minmax(a, b)];
                if (twin[f] == kNoFace)
                    ++edge.first;
                else if (f < twin[f])
                    edge.second.push_back(static_cast<std::uint32_t>(f));
            }
        }
        // A patch of twins is between two bodies when two faces stand alone all round it.
        std::vector<char> seen(twin.size(), 0);
        for (std::size_t seed = 0; seed < twin.size(); ++seed) {
            if (twin[seed] == kNoFace || seed > twin[seed] || seen[seed]) continue;
            std::vector<std::uint32_t> patch{static_cast<std::uint32_t>(seed)};
            seen[seed] = 1;
            bool between = true, bordered = false;
            for (std::size_t at = 0; at < patch.size(); ++at) {
                const auto& t = mesh.triangles[patch[at]];
                for (std::size_t k = 0; k < 3; ++k) {
                    const auto& edge = edges[std::minmax(t[k], t[(k + 1) % 3])];
                    bordered |= edge.first == 2;
                    between &= edge.first == 2 || (edge.first == 0 && edge.second.size() == 2);
                    for (const auto g : edge.second) {
                        if (edge.first != 0 || seen[g]) continue;
                        seen[g] = 1;
                        patch.push_back(g);
                    }
                }
            }
            between &= bordered;  // two bodies wholly on each other are one, twice
            for (const auto f : patch) {
                drop[between ? f : twin[f]] = 1;
                drop[twin[f]] = 1;
                (between ? out.between : out.doubled).add(mesh.centre(f));
            }
        }
    }
    std::size_t keep = 0;
    for (std::size_t f = 0; f < drop.size(); ++f) {
        if (drop[f] && twin[f] == kNoFace) out.doubled.add(mesh.centre(f));
        if (!drop[f]) mesh.triangles[keep++] = mesh.triangles[f];
    }
    mesh.triangles.resize(keep);
    return out;
}

double signed_volume(const TriangleMesh& mesh, const std::vector<std::uint32_t>& faces) {
    double six = 0;
    for (const auto f : faces) six += mesh.corner(f, 0).dot(mesh.corner(f, 1).cross(mesh.corner(f, 2)));
    return six / 6;
}

/// A body of faces that hang together.
struct Body {
    std::vector<std::uint32_t> faces;
    bool closed = true;
    Bounds box;
};

/// Whether a closed body lies inside another one: three rays in odd directions, counted by that body's faces
/// alone; two of three decide, since one may graze an edge.
class Containment {
  public:
    Containment(const TriangleMesh& mesh, const std::vector<Body>& bodies)
        : mesh_(mesh), rays_(mesh), owner_(mesh.triangles.size(), 0), bodies_(bodies) {
        for (std::size_t b = 0; b < bodies.size(); ++b) {
            for (const auto f : bodies[b].faces) owner_[f] = static_cast<std::uint32_t>(b);
        }
        step_ = 1e-6 * bounds_of(mesh).diagonal();
    }
    /// In how many other closed bodies it lies.
    [[nodiscard]] std::size_t depth(std::size_t body) const {
        std::map<std::uint32_t, int> votes;
        const std::array<Point, 3> ways{Point(0.31, 0.57, 0.76).normalized(),
                                        Point(-0.63, 0.22, 0.75).normalized(),
                                        Point(0.44, -0.81, -0.39).normalized()};
        const Point start = mesh_.centre(bodies_[body].faces.front());
        for (const auto& way : ways) {
            std::map<std::uint32_t, int> crossed;
            Point from = start;
            for (int guard = 0; guard < 100000; ++guard) {
                const auto hit = rays_.first(from, way);
                if (!hit) break;
                const auto other = owner_[hit->face];
                if (other != body) ++crossed[other];
                from += (hit->distance + step_) * way;
            }
            for (const auto& [other, times] : crossed) votes[other] += times % 2;
        }
        std::size_t deep = 0;
        for (const auto& [other, yes] : votes) deep += bodies_[other].closed && yes >= 2;
        return deep;
    }

  private:
    const TriangleMesh& mesh_;
    RayMesh rays_;
    std::vector<std::uint32_t> owner_;
    const std::vector<Body>& bodies_;
    double step_ = 0;
};

/// Turns faces so that neighbours agree, and each closed body outside out; one that lies inside another is
/// its cavity and faces inwards, one inside that is solid again.
Tally turn_outwards(TriangleMesh& mesh, const Topology& topology, Progress& progress) {
    std::vector<char> seen(mesh.triangles.size(), 0), turned(mesh.triangles.size(), 0);
    Tally tally;
    std::vector<Body> bodies;
    for (std::size_t seed = 0; seed < seen.size(); ++seed) {
        if (seen[seed]) continue;
        Body body;
        auto& faces = body.faces;
        faces.push_back(static_cast<std::uint32_t>(seed));
        seen[seed] = 1;
        for (std::size_t at = 0; at < faces.size(); ++at) {
            const auto f = faces[at];
            for (std::size_t k = 0; k < 3; ++k) {
                const auto g = topology.across[f][k];
                if (g == kNoFace) {
                    body.closed = false;
                    continue;
                }
                if (seen[g]) continue;
                const auto a = mesh.triangles[f][k], b = mesh.triangles[f][(k + 1) % 3];
                bool same_way = false;
                for (std::size_t j = 0; j < 3; ++j)
                    same_way |= mesh.triangles[g][j] == a && mesh.triangles[g][(j + 1) % 3] == b;
                turned[g] = static_cast<char>(turned[f] ^ static_cast<char>(same_way));
                seen[g] = 1;
                faces.push_back(g);
            }
        }
        bodies.push_back(std::move(body));
    }
    const auto closed = std::count_if(bodies.begin(), bodies.end(), [](const Body& b) { return b.closed; });
    std::optional<Containment> containment;
    if (closed > 1) containment.emplace(mesh, bodies);
    for (std::size_t b = 0; b < bodies.size(); ++b) {
        const auto& body = bodies[b];
        if ((b & 63U) == 0) progress.check();
        const auto flip = [&](std::uint32_t f) { std::swap(mesh.triangles[f][1], mesh.triangles[f][2]); };
        std::size_t flipped = 0;
        for (const auto f : body.faces) {
            if (turned[f]) {
                flip(f);
                ++flipped;
            }
        }
        const bool cavity = body.closed && containment && containment->depth(b) % 2 == 1;
        const bool inside_out =
            body.closed ? (signed_volume(mesh, body.faces) < 0) != cavity : flipped * 2 > body.faces.size();
        for (const auto f : body.faces) {
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

/// Middles of the edges at which three faces or more meet.
Tally crowded_edges(const TriangleMesh& mesh, const Topology& topology) {
    Tally out;
    std::map<std::pair<std::uint32_t, std::uint32_t>, int> faces;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        for (std::size_t k = 0; k < 3; ++k) {
            if (topology.across[f][k] != kNoFace) continue;
            const auto edge = std::minmax(mesh.triangles[f][k], mesh.triangles[f][(k + 1) % 3]);
            if (++faces[edge] == 3) out.add((mesh.points[edge.first] + mesh.points[edge.second]) / 2);
        }
    }
    return out;
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
        auto doubled = drop_doubled(mesh);
        note("doubled faces dropped", "drop", std::move(doubled.doubled));
        note("faces between bodies that touch taken out", "drop", std::move(doubled.between));
    }
    if (mesh.empty())
        throw InputError("shape", "no face with an area is left in it", "export the shape again as a mesh");
    progress.report(0.5, "turning faces outwards");
    out.topology = topology_of(mesh);
    if (rules.turn)
        note("faces turned to face outwards", "turn", turn_outwards(mesh, out.topology, progress));
    progress.report(0.7, "closing pinholes");
    if (rules.close && out.topology.rim_edges != 0)
        note("pinholes closed", "close", close_pinholes(mesh, topology_of(mesh)));
    out.topology = topology_of(mesh);
    if (out.topology.rim_edges != 0) {
        const auto rims = rim_loops(mesh, out.topology);
        out.holes = rims.size();
        Tally open;
        for (const auto& rim : rims) open.add(mesh.points[rim.front()]);
        if (open.count != 0) out.left.push_back({"rims left open", open.count, "", std::move(open.places)});
    }
    if (out.topology.crowded_edges != 0) {
        auto crowded = crowded_edges(mesh, out.topology);
        out.left.push_back({kCrowded, out.topology.crowded_edges, "", std::move(crowded.places)});
    }
    out.mesh = std::move(mesh);
    progress.report(1, "mended");
    return out;
}

}  // namespace jig
