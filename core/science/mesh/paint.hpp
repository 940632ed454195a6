// What a maker paints on a surface by hand, kept by place so that it outlives a finer or mended mesh.
#pragma once

#include <vector>

#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

/// One touch of the brush: faces that look the same way (within 75°) and lie within `reach` m of `at`.
struct Dab {
    Point at = Point::Zero();
    Point facing = Point::UnitZ();  ///< outward normal there; any length but zero
    double reach = 0.03;            ///< m
};

/// The faces that a dab touches: those with their middle within its reach, and the one that it lies on.
std::vector<std::uint32_t> faces_under(const TriangleMesh& mesh, const Dab& dab);

enum class Paint { show, plain, given };

struct Painted {
    Dab dab;
    Paint paint = Paint::show;
    Point toward = Point::UnitZ();  ///< of given faces: the pull of the piece that they go to
};

/// Lays strokes over marks, later ones over earlier ones. `show` is by face (empty counts as nothing shown);
/// `owner` comes back by face as the number of the stroke that gives it to a piece, -1 elsewhere. Plain paint
/// takes both away. Cost: strokes × faces.
void lay_paint(const TriangleMesh& mesh, const std::vector<Painted>& strokes, std::vector<char>& show,
               std::vector<int>& owner);

/// Distance from `p` to the nearest place of a face, m.
double distance_to_face(const TriangleMesh& mesh, std::size_t face, const Point& p);

}  // namespace jig
