#include "core/stages/part/flat_cloth.hpp"

#include <algorithm>
#include <cmath>

#include "core/base/error.hpp"
#include "core/science/drape/flatten.hpp"
#include "core/science/mesh/nearest_face.hpp"

namespace jig::part {
namespace {

constexpr double kFine = 2e-4;  ///< m, to which outlines are simplified

/// Each rim simplified, the first one's inside on its left, holes the other way round.
Loops tidy(const std::vector<std::vector<Point2>>& rims) {
    Loops flat;
    for (const auto& rim : rims) {
        auto& loop = flat.emplace_back(simplified(rim, kFine));
        if (flat.size() == 1 && signed_area(loop) < 0) std::reverse(loop.begin(), loop.end());
    }
    for (std::size_t k = 1; k < flat.size(); ++k) {
        if (signed_area(flat[k]) > 0 && holds({flat.front()}, flat[k].front()))
            std::reverse(flat[k].begin(), flat[k].end());
    }
    return united(flat);
}

/// The triangle nearest to where cloth is laid down first.
std::size_t first_face(const Draped& draped) {
    const auto& face = *draped.face;
    std::size_t out = 0;
    for (std::size_t f = 1; f < face.triangles.size(); ++f) {
        if ((face.centre(f) - draped.seed).squaredNorm() < (face.centre(out) - draped.seed).squaredNorm())
            out = f;
    }
    return out;
}

}  // namespace

std::optional<Point2> FlatCloth::at(std::uint32_t f, const Point& place) const {
    const auto& corners = corners_[f];
    if (!corners) return {};
    const Point share = corner_shares(*face_, f, place);
    return Point2(share[0] * (*corners)[0] + share[1] * (*corners)[1] + share[2] * (*corners)[2]);
}

FlatCloth FlatCloth::sheared(const ClothNet& net, const TriangleMesh& face, double angle) {
    FlatCloth out;
    out.face_ = &face;
    // The roll runs along the ply, the net along its threads.
    const Eigen::Rotation2Dd onto_roll(net.angle - angle);
    auto rims = flat_outlines(net.drape, face);
    for (auto& rim : rims) {
        for (auto& p : rim) p = onto_roll * p;
    }
    out.whole = tidy(rims);
    out.corners_.resize(face.triangles.size());
    for (std::size_t f = 0; f < face.triangles.size(); ++f) {
        const auto lies = on_cloth(net.drape, face, f);
        if (!lies) continue;
        auto& corners = out.corners_[f].emplace();
        for (std::size_t k = 0; k < 3; ++k) corners[k] = onto_roll * net.drape.points[(*lies)[k]].flat;
    }
    return out;
}

std::optional<FlatCloth> FlatCloth::stretched(const Draped& draped, const Frame& frame, double angle,
                                              Progress& progress) {
    const auto& face = *draped.face;
    Flattened flat;
    try {
        flat = flatten(face, progress);
    } catch (const InputError&) {
        return {};
    }
    if (flat.folded) return {};
    FlatCloth out;
    out.face_ = &face;
    out.most = flat.most;
    out.usual = flat.usual;
    const auto first = first_face(draped);
    Point way = std::cos(angle) * frame.u + std::sin(angle) * frame.v;
    // On a wall that the direction points straight off, the cloth runs up the wall, as a net does.
    if (way.cross(face.area_vector2(first).normalized()).norm() < 0.2) way = frame.w;
    const Point2 along = laid_flat(face, flat, first, way);
    if (!(along.norm() > 0)) return {};
    const Eigen::Rotation2Dd onto_roll(-std::atan2(along.y(), along.x()));
    for (auto& p : flat.flat) p = onto_roll * p;
    std::vector<std::vector<Point2>> rims;
    for (const auto& loop : rim_loops(face, topology_of(face))) {
        auto& rim = rims.emplace_back();
        for (const auto i : loop) rim.push_back(flat.flat[i]);
    }
    // The outermost rim first.
    std::stable_sort(rims.begin(), rims.end(), [](const auto& a, const auto& b) {
        return std::abs(signed_area(a)) > std::abs(signed_area(b));
    });
    out.whole = tidy(rims);
    out.corners_.reserve(face.triangles.size());
    double laid = 0;
    for (const auto& t : face.triangles) {
        out.corners_.emplace_back(std::array{flat.flat[t[0]], flat.flat[t[1]], flat.flat[t[2]]});
        laid += signed_area({flat.flat[t[0]], flat.flat[t[1]], flat.flat[t[2]]});
    }
    // What comes to lie on itself covers less than all its triangles do.
    if (std::abs(net_area(out.whole)) < 0.98 * std::abs(laid)) return {};
    return out;
}

}  // namespace jig::part
