#include "core/stages/part/flat_cloth.hpp"

#include <algorithm>
#include <cmath>
#include <set>

#include "core/base/error.hpp"
#include "core/science/drape/flatten.hpp"
#include "core/science/mesh/cut.hpp"
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

Loop anticlockwise(const std::array<Point2, 3>& corners) {
    Loop out(corners.begin(), corners.end());
    if (signed_area(out) < 0) std::reverse(out.begin(), out.end());
    return out;
}

/// Ends that meet, joined into lines.
std::vector<Loop> lines_of(const std::vector<std::pair<Point, Point>>& segments) {
    std::vector<Loop> out;
    for (const auto& line : chained(segments, 1e-7)) {
        auto& to = out.emplace_back();
        for (const auto& p : line) to.emplace_back(p.x(), p.y());
    }
    return out;
}

constexpr double kLeast = 1e-5;  ///< m² that lie twice before it counts

}  // namespace

void FlatCloth::see_cuts(const ClothCuts& cuts) {
    if (cuts.edges.empty()) return;
    const std::set<PointPair> cut(cuts.edges.begin(), cuts.edges.end());
    const auto topology = topology_of(*face_);
    std::vector<std::pair<Point, Point>> rims, sides;
    double laid = 0;
    for (std::size_t f = 0; f < face_->triangles.size(); ++f) {
        if (!corners_[f]) continue;
        const auto& at = *corners_[f];
        laid += std::abs(signed_area({at[0], at[1], at[2]}));
        const auto& t = face_->triangles[f];
        for (std::size_t k = 0; k < 3; ++k) {
            const auto lift = [&](const Point2& p) { return Point(p.x(), p.y(), 0); };
            const std::pair edge(lift(at[k]), lift(at[(k + 1) % 3]));
            const auto other = topology.across[f][k];
            if (cut.contains(edge_of(t[k], t[(k + 1) % 3])))
                sides.push_back(edge);
            else if (other == kNoFace || !corners_[other])
                rims.push_back(edge);
        }
    }
    rims_ = lines_of(rims);
    flanks = lines_of(sides);
    if (laid - net_area(whole) < kLeast) return;
    const Sides side(*face_, cuts.frame, cuts.lines);
    for (std::size_t l = 0; l < cuts.lines.size(); ++l) {
        Loops left, right;
        for (std::uint32_t f = 0; f < face_->triangles.size(); ++f) {
            if (!corners_[f]) continue;
            if (side.left(f, l)) left.push_back(anticlockwise(*corners_[f]));
            if (side.right(f, l)) right.push_back(anticlockwise(*corners_[f]));
        }
        // Neighbours share their edges to rounding.
        for (const auto& loop : offset(offset(shared(united(left), united(right)), -1e-4), 1e-4)) {
            if (std::abs(signed_area(loop)) > kLeast) twice.push_back(loop);
        }
    }
    twice = united(twice);
}

Loops FlatCloth::grown(double trim, double lap) const {
    if (flanks.empty()) return offset(whole, trim);
    Loops all = whole;
    for (const auto& loops : {stroked(rims_, trim), stroked(flanks, lap / 2)})
        all.insert(all.end(), loops.begin(), loops.end());
    Loops out;
    for (const auto& loop : united(all)) out.push_back(simplified(loop, kFine));
    return united(out);
}

std::optional<Point2> FlatCloth::at(std::uint32_t f, const Point& place) const {
    const auto& corners = corners_[f];
    if (!corners) return {};
    const Point share = corner_shares(*face_, f, place);
    return Point2(share[0] * (*corners)[0] + share[1] * (*corners)[1] + share[2] * (*corners)[2]);
}

FlatCloth FlatCloth::sheared(const ClothNet& net, const Draped& draped, const Frame& frame, double angle) {
    const auto& face = *draped.face;
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
    out.see_cuts(draped.together(net.cuts, frame));
    return out;
}

std::optional<FlatCloth> FlatCloth::stretched(const Draped& draped, const Frame& frame,
                                              const std::vector<CutAs>& by, double angle,
                                              Progress& progress) {
    FlatCloth out;
    out.face_ = draped.face.get();
    out.corners_.resize(draped.face->triangles.size());
    const auto cuts = draped.together(by, frame);
    std::vector<MeshPiece> pieces(1);
    if (cuts.edges.empty())
        pieces[0].mesh = *draped.face;
    else
        pieces = pieces_of(opened(*draped.face, cuts.edges), nearest_face(*draped.face, draped.seed));
    double laid = 0, area = 0, squares = 0, right = 0;
    for (std::size_t k = 0; k < pieces.size(); ++k) {
        const auto& face = pieces[k].mesh;
        Flattened flat;
        try {
            flat = flatten(face, progress);
        } catch (const InputError&) {
            return {};
        }
        if (flat.folded) return {};
        const auto first = k == 0 ? nearest_face(face, draped.seed) : middle_face(face);
        Point way = std::cos(angle) * frame.u + std::sin(angle) * frame.v;
        // On a wall that the direction points straight off, the cloth runs up the wall, as a net does.
        if (way.cross(face.area_vector2(first).normalized()).norm() < 0.2) way = frame.w;
        const Point2 along = laid_flat(face, flat, first, way);
        if (!(along.norm() > 0)) return {};
        const Eigen::Rotation2Dd onto_roll(-std::atan2(along.y(), along.x()));
        double low = 1e300, high = -1e300;
        for (auto& p : flat.flat) {
            p = onto_roll * p;
            low = std::min(low, p.x());
            high = std::max(high, p.x());
        }
        // Beside those before it.
        if (k > 0) {
            for (auto& p : flat.flat) p.x() += right + kPiecesApart - low;
            high += right + kPiecesApart - low;
        }
        right = high;
        std::vector<std::vector<Point2>> rims;
        for (const auto& loop : rim_loops(face, topology_of(face))) {
            auto& rim = rims.emplace_back();
            for (const auto i : loop) rim.push_back(flat.flat[i]);
        }
        // The outermost rim first.
        std::stable_sort(rims.begin(), rims.end(), [](const auto& a, const auto& b) {
            return std::abs(signed_area(a)) > std::abs(signed_area(b));
        });
        for (auto& loop : tidy(rims)) out.whole.push_back(std::move(loop));
        double size = 0;
        for (std::size_t f = 0; f < face.triangles.size(); ++f) {
            const auto& t = face.triangles[f];
            const std::array corners{flat.flat[t[0]], flat.flat[t[1]], flat.flat[t[2]]};
            laid += signed_area({corners[0], corners[1], corners[2]});
            size += face.area_vector2(f).norm() / 2;
            out.corners_[cuts.edges.empty() ? f : pieces[k].faces[f]] = corners;
        }
        out.most = std::max(out.most, flat.most);
        squares += size * flat.usual * flat.usual;
        area += size;
    }
    out.usual = area > 0 ? std::sqrt(squares / area) : 0;
    out.see_cuts(cuts);
    // What comes to lie on itself covers less than all its triangles do.
    if (std::abs(net_area(out.whole)) + net_area(out.twice) < 0.98 * std::abs(laid)) return {};
    return out;
}

const FlatCloth* FlatCloths::of(const Source& ply, double angle, const Reinforcement& cloth,
                                Progress& progress) {
    if (cloth.weave == Weave::cloth) {
        const auto net = std::find_if(draped_.nets.begin(), draped_.nets.end(),
                                      [&](const ClothNet& n) { return n.carries(ply); });
        if (net == draped_.nets.end()) return nullptr;
        last_ = FlatCloth::sheared(*net, draped_, frame_, angle);
        return &*last_;
    }
    const auto cuts = draped_.cut_plies.find(ply);
    const std::pair way(turn_ + angle, cuts == draped_.cut_plies.end() ? std::vector<CutAs>{} : cuts->second);
    auto known = stretched_.find(way);
    if (known == stretched_.end())
        known =
            stretched_.emplace(way, FlatCloth::stretched(draped_, frame_, way.second, way.first, progress))
                .first;
    return known->second ? &*known->second : nullptr;
}

}  // namespace jig::part
