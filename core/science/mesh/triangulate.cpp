#include "core/science/mesh/triangulate.hpp"

#include <CGAL/Constrained_Delaunay_triangulation_2.h>
#include <CGAL/Exact_predicates_inexact_constructions_kernel.h>
#include <CGAL/Triangulation_vertex_base_with_info_2.h>

#include <cmath>
#include <map>

#include "core/base/error.hpp"

namespace jig {
namespace {

using Kernel = CGAL::Exact_predicates_inexact_constructions_kernel;
using VertexBase = CGAL::Triangulation_vertex_base_with_info_2<std::uint32_t, Kernel>;
using FaceBase = CGAL::Constrained_triangulation_face_base_2<Kernel>;
using Structure = CGAL::Triangulation_data_structure_2<VertexBase, FaceBase>;
using Delaunay =
    CGAL::Constrained_Delaunay_triangulation_2<Kernel, Structure, CGAL::No_constraint_intersection_tag>;

/// Distance tests against an outline, by rows of cells so that filling stays near linear.
class Inside {
  public:
    Inside(const Loops& loops, double spacing)
        : spacing_(spacing), low_(low_corner(loops) - Point2::Constant(spacing)) {
        rows_.resize(static_cast<std::size_t>((high_corner(loops).y() - low_.y()) / spacing_) + 3);
        for (const auto& loop : loops) {
            for (std::size_t i = 0; i < loop.size(); ++i) {
                const auto &a = loop[i], &b = loop[(i + 1) % loop.size()];
                const auto from = row(std::min(a.y(), b.y()) - spacing_),
                           to = row(std::max(a.y(), b.y()) + spacing_);
                for (auto r = from; r <= to && r < rows_.size(); ++r) rows_[r].emplace_back(a, b);
            }
        }
    }
    /// Inside and at least `clear` from the outline.
    [[nodiscard]] bool well_inside(const Point2& p, double clear) const {
        bool inside = false;
        for (const auto& [a, b] : rows_[row(p.y())]) {
            if ((a.y() > p.y()) != (b.y() > p.y()) &&
                p.x() < a.x() + (p.y() - a.y()) / (b.y() - a.y()) * (b.x() - a.x()))
                inside = !inside;
            const Point2 ab = b - a;
            const double t = std::clamp((p - a).dot(ab) / std::max(1e-30, ab.squaredNorm()), 0.0, 1.0);
            if ((p - a - t * ab).norm() < clear) return false;
        }
        return inside;
    }

  private:
    [[nodiscard]] std::size_t row(double y) const {
        return static_cast<std::size_t>(std::max(0.0, (y - low_.y()) / spacing_));
    }
    double spacing_;
    Point2 low_;
    std::vector<std::vector<std::pair<Point2, Point2>>> rows_;
};

}  // namespace

FlatMesh filled(const Loops& outlines, double spacing) {
    FlatMesh out;
    for (const auto& loop : outlines) out.points.insert(out.points.end(), loop.begin(), loop.end());
    const auto given = out.points.size();
    double area = 0;
    for (const auto& loop : outlines) area = std::max(area, std::abs(signed_area(loop)));
    if (!(area < kMostFilled * std::sqrt(3.0) / 4 * spacing * spacing))
        throw InputError("outline", "it takes too many triangles to fill it at this size",
                         "check its size and unit, or make its facets longer");
    const Inside inside(outlines, spacing);
    const Point2 low = low_corner(outlines), high = high_corner(outlines);
    const double rise = spacing * std::sqrt(3.0) / 2;
    int row = 0;
    // Rounding adds up to far less than points keep clear of the outline.
    // NOLINTBEGIN(clang-analyzer-security.FloatLoopCounter)
    for (double y = low.y() + rise; y < high.y(); y += rise, ++row) {
        for (double x = low.x() + (row % 2) * spacing / 2; x < high.x(); x += spacing) {
            if (inside.well_inside({x, y}, 0.6 * spacing)) out.points.emplace_back(x, y);
        }
    }
    // NOLINTEND(clang-analyzer-security.FloatLoopCounter)
    Delaunay net;
    try {
        // Each is looked for from the one before it: rows run on, and in a long thin outline it would else be
        // a walk through all that is there.
        Delaunay::Face_handle near;
        const auto insert = [&](std::size_t i) {
            const auto known = net.number_of_vertices();
            const auto v = net.insert(Kernel::Point_2(out.points[i].x(), out.points[i].y()), near);
            // A point that is there twice keeps its first number.
            if (net.number_of_vertices() > known) v->info() = static_cast<std::uint32_t>(i);
            near = v->face();
            return v;
        };
        std::vector<Delaunay::Vertex_handle> corners;
        for (std::size_t i = 0; i < given; ++i) corners.push_back(insert(i));
        // The outlines before what lies in them: an edge crosses fewer triangles then, and one that crosses
        // another is found out at once.
        std::size_t first = 0;
        for (const auto& loop : outlines) {
            for (std::size_t i = 0; i < loop.size(); ++i) {
                const auto a = corners[first + i], b = corners[first + (i + 1) % loop.size()];
                if (a != b) net.insert_constraint(a, b);
            }
            first += loop.size();
        }
        // Faces that a constraint flipped away are no place to begin from.
        near = Delaunay::Face_handle();
        for (auto i = given; i < out.points.size(); ++i) insert(i);
    } catch (const Delaunay::Intersection_of_constraints_exception&) {
        throw InputError("outline", "it crosses itself or another",
                         "move the points so that the line meets itself nowhere");
    }
    // From beyond the hull inwards, every outline that is crossed changes outside to inside and back: a test
    // of slivers along a straight edge against the outline itself would be a matter of rounding.
    std::map<Delaunay::Face_handle, bool> solid{{net.infinite_face(), false}};
    std::vector<Delaunay::Face_handle> open{net.infinite_face()};
    while (!open.empty()) {
        const auto face = open.back();
        open.pop_back();
        for (int k = 0; k < 3; ++k) {
            const auto next = face->neighbor(k);
            if (solid.emplace(next, solid[face] != net.is_constrained({face, k})).second)
                open.push_back(next);
        }
    }
    for (const auto& face : net.finite_face_handles()) {
        if (solid[face])
            out.triangles.push_back(
                {face->vertex(0)->info(), face->vertex(1)->info(), face->vertex(2)->info()});
    }
    return out;
}

}  // namespace jig
