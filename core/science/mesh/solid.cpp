#include "core/science/mesh/solid.hpp"

#include <algorithm>
#include <cmath>

#include "core/base/error.hpp"
#include "core/base/units.hpp"
#include "core/science/mesh/triangulate.hpp"

namespace jig {
namespace {

using Rim = std::vector<std::uint32_t>;

void fan(TriangleMesh& mesh, const Rim& rim) {
    Point middle = Point::Zero();
    for (const auto i : rim) middle += mesh.points[i] / static_cast<double>(rim.size());
    const auto hub = static_cast<std::uint32_t>(mesh.points.size());
    mesh.points.push_back(middle);
    // A rim runs with its faces on the left; what closes it runs the other way.
    for (std::size_t k = 0; k < rim.size(); ++k)
        mesh.triangles.push_back({rim[(k + 1) % rim.size()], rim[k], hub});
}

/// A flat face inside rims that lie in the plane `height` along frame.w, looking along +w or against it;
/// loops after the rims (holes of keys) bring points of their own. Returns the number of the first such
/// point.
std::uint32_t close_flat(TriangleMesh& mesh, const std::vector<Rim>& rims, const Loops& holes,
                         const Frame& frame, double height, bool looks_up) {
    Loops loops;
    std::vector<std::uint32_t> names;
    if (rims.empty()) return static_cast<std::uint32_t>(mesh.points.size());
    for (const auto& rim : rims) {
        auto& loop = loops.emplace_back();
        for (const auto i : rim) {
            loop.push_back(frame.flat(mesh.points[i]));
            names.push_back(i);
        }
    }
    const auto first = static_cast<std::uint32_t>(mesh.points.size());
    for (const auto& hole : holes) {
        loops.push_back(hole);
        for (const auto& p : hole) {
            names.push_back(static_cast<std::uint32_t>(mesh.points.size()));
            mesh.points.push_back(frame.lift(p, height));
        }
    }
    try {
        const Point2 size = high_corner(loops) - low_corner(loops);
        const auto flat = filled(loops, size.maxCoeff() / 3);
        for (auto i = names.size(); i < flat.points.size(); ++i) {
            names.push_back(static_cast<std::uint32_t>(mesh.points.size()));
            mesh.points.push_back(frame.lift(flat.points[i], height));
        }
        for (const auto& t : flat.triangles) {
            Triangle out{names[t[0]], names[t[1]], names[t[2]]};
            if (!looks_up) std::swap(out[1], out[2]);
            mesh.triangles.push_back(out);
        }
    } catch (const InputError&) {
        // Rims that touch each other cannot be filled together; fans enclose the same volume.
        for (const auto& rim : rims) fan(mesh, rim);
    }
    return first;
}

constexpr int kKeySides = 24;

Loop circle(const Point2& at, double radius) {
    Loop out;
    for (int i = 0; i < kKeySides; ++i) {
        const double a = 2 * kPi * i / kKeySides;
        out.push_back(at + radius * Point2(std::cos(a), std::sin(a)));
    }
    return out;
}

/// The round wall from a key's edge (points from `first` on) to its end, `depth` along +w, and that end.
/// `of_peg`: seen from outside the peg, else from inside the hole.
void add_key(TriangleMesh& mesh, std::uint32_t first, const Frame& frame, double depth, bool of_peg) {
    const auto end = static_cast<std::uint32_t>(mesh.points.size());
    Point middle = Point::Zero();
    for (std::uint32_t i = 0; i < kKeySides; ++i) {
        mesh.points.push_back(mesh.points[first + i] + depth * frame.w);
        middle += mesh.points.back() / kKeySides;
    }
    const auto hub = static_cast<std::uint32_t>(mesh.points.size());
    mesh.points.push_back(middle);
    const auto put = [&](std::uint32_t a, std::uint32_t b, std::uint32_t c) {
        if (of_peg)
            mesh.triangles.push_back({a, b, c});
        else
            mesh.triangles.push_back({a, c, b});
    };
    for (std::uint32_t i = 0; i < kKeySides; ++i) {
        const auto j = (i + 1) % kKeySides;
        put(first + i, first + j, end + j);
        put(first + i, end + j, end + i);
        put(end + i, end + j, hub);
    }
}

}  // namespace

double enclosed_volume(const TriangleMesh& mesh) {
    double six = 0;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f)
        six += mesh.corner(f, 0).dot(mesh.corner(f, 1).cross(mesh.corner(f, 2)));
    return six / 6;
}

TriangleMesh closed_body(const TriangleMesh& mesh, const Topology& topology, const Frame& frame,
                         double foot) {
    auto out = mesh;
    auto rims = rim_loops(mesh, topology);
    if (rims.empty()) return out;
    const double near = 1e-6 * std::max(1e-9, bounds_of(mesh).diagonal());
    auto& longest = rims.front();
    bool lies = true;
    for (const auto i : longest) lies &= std::abs(frame.w.dot(out.points[i]) - foot) < near;
    if (!lies) {
        Rim below;
        for (const auto i : longest) {
            below.push_back(static_cast<std::uint32_t>(out.points.size()));
            const Point p = out.points[i];
            out.points.push_back(frame.lift(frame.flat(p), foot));
        }
        for (std::size_t k = 0; k < longest.size(); ++k) {
            const auto j = (k + 1) % longest.size();
            out.triangles.push_back({longest[j], longest[k], below[k]});
            out.triangles.push_back({longest[j], below[k], below[j]});
        }
        longest = below;
    }
    close_flat(out, {longest}, {}, frame, foot, false);
    for (std::size_t r = 1; r < rims.size(); ++r) fan(out, rims[r]);
    return out;
}

CutSolid cut_solid(const TriangleMesh& body, const Point& through, const Point& normal,
                   const std::vector<Key>& keys, double play) {
    // A cut exactly through points leaves cracks of no width; a hair beside them it does not.
    const double size = std::max(1e-9, bounds_of(body).diagonal());
    Point at = through;
    for (int step = 0; step < 20; ++step) {
        at = through + (step % 2 ? 1 : -1) * (step * 2.3e-8) * size * normal;
        const double height = normal.dot(at);
        const bool clear = std::none_of(body.points.begin(), body.points.end(), [&](const Point& p) {
            return std::abs(normal.dot(p) - height) < 1e-9 * size;
        });
        if (clear) break;
    }
    auto halves = parted(body, at, normal);
    CutSolid out;
    out.seam = halves.seam_length;
    out.above = std::move(halves.above);
    out.below = std::move(halves.below);
    if (out.above.empty() || out.below.empty()) return out;
    const auto frame = frame_across(normal);
    const double height = frame.w.dot(at), near = 1e-9 * size;
    const auto close = [&](TriangleMesh& half, bool looks_up) {
        Loops holes;
        for (const auto& key : keys)
            holes.push_back(circle(frame.flat(key.at), key.radius + (looks_up ? 0 : play)));
        // Only what this cut opened is closed: a body with a flaw elsewhere keeps it.
        std::vector<Rim> rims;
        for (auto& rim : rim_loops(half, topology_of(half))) {
            const bool flat = std::all_of(rim.begin(), rim.end(), [&](std::uint32_t i) {
                return std::abs(frame.w.dot(half.points[i]) - height) < near;
            });
            if (flat) rims.push_back(std::move(rim));
        }
        auto first = close_flat(half, rims, holes, frame, height, looks_up);
        if (rims.empty()) return;
        for (const auto& key : keys) {
            add_key(half, first, frame, key.depth + (looks_up ? 0 : play), looks_up);
            first += kKeySides;
        }
    };
    const auto before = out.below.triangles.size();
    close(out.below, true);
    for (auto f = before; f < out.below.triangles.size(); ++f)
        out.face += out.below.area_vector2(f).dot(normal) / 2;
    close(out.above, false);
    return out;
}

TriangleMesh stack_mesh(const SlabStack& stack) {
    TriangleMesh out;
    for (const auto& slab : stack.slabs) {
        std::vector<Rim> low, high;
        for (const auto& loop : slab.outline) {
            auto& a = low.emplace_back();
            auto& b = high.emplace_back();
            for (const auto& p : loop) {
                a.push_back(static_cast<std::uint32_t>(out.points.size()));
                out.points.push_back(stack.frame.lift(p, slab.from));
                b.push_back(static_cast<std::uint32_t>(out.points.size()));
                out.points.push_back(stack.frame.lift(p, slab.to));
            }
            // Outer loops run anticlockwise and holes clockwise, so the wall looks out of the material.
            for (std::size_t k = 0; k < loop.size(); ++k) {
                const auto j = (k + 1) % loop.size();
                out.triangles.push_back({a[k], a[j], b[j]});
                out.triangles.push_back({a[k], b[j], b[k]});
            }
        }
        // A fan closes a rim with faces on its left; these run with the wall on the left below, on the right
        // above.
        for (auto& rim : high) std::reverse(rim.begin(), rim.end());
        close_flat(out, low, {}, stack.frame, slab.from, false);
        close_flat(out, high, {}, stack.frame, slab.to, true);
    }
    return out;
}

}  // namespace jig
