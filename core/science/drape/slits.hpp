// Cuts in cloth: lines cut into a face, and which side of them a place lies on.
#pragma once

#include "core/base/progress.hpp"
#include "core/science/mesh/topology.hpp"

namespace jig {

/// A line as it is seen along a frame's third direction, m; it cuts every sheet of the face under it.
using SeenLine = std::vector<Point2>;

struct Scored {
    TriangleMesh mesh;
    std::vector<std::vector<PointPair>> edges;  ///< by line, those that run along it
};

/// Parts triangles so that each line runs along edges; ends and corners on the face become points of it. A
/// point of the mesh or of an edge within `close` m of a line is taken as on it, so that no slivers come of
/// it; the surface itself stays as it is. Lines past the rim end there. Linear in faces × lines.
Scored scored(const TriangleMesh& mesh, const Frame& frame, const std::vector<SeenLine>& lines, double close);

struct Opened {
    TriangleMesh mesh;                  ///< the same triangles; what lies on either side has a point for each
    std::vector<std::uint32_t> origin;  ///< by point, that of the mesh which was opened; those come first
};

/// A mesh that no longer hangs together across the edges; where a slit ends within the face it still does.
Opened opened(const TriangleMesh& mesh, const std::vector<PointPair>& edges);

/// What hangs together of a mesh, with points of its own.
struct MeshPiece {
    TriangleMesh mesh;
    std::vector<std::uint32_t> faces, points;  ///< by face and point of this mesh, those of the whole
};

/// Into what slits part the body that a face belongs to, the piece with that face first; other bodies are
/// left out.
std::vector<MeshPiece> pieces_of(const Opened& opened, std::size_t face);

/// The triangle next to the middle of a face's area: well inside it, where it does not bend round itself.
std::size_t middle_face(const TriangleMesh& mesh);

/// Most lines that sides are told of.
inline constexpr std::size_t kMostSlits = 32;

/// On which side of each line a face lies, abreast of it: left and right as bits; before its beginning and
/// past its end neither, for there the cloth still hangs together.
class Sides {
  public:
    Sides() = default;
    /// Asserts that there are no more than `kMostSlits` lines.
    Sides(const TriangleMesh& mesh, const Frame& frame, const std::vector<SeenLine>& lines);
    [[nodiscard]] bool any() const { return !faces_.empty(); }
    /// Whether a line lies between two faces.
    [[nodiscard]] bool apart(std::uint32_t f, std::uint32_t g) const {
        return any() && ((faces_[f].left & faces_[g].right) | (faces_[f].right & faces_[g].left)) != 0;
    }
    [[nodiscard]] bool left(std::uint32_t f, std::size_t line) const {
        return any() && (faces_[f].left >> line & 1u) != 0;
    }
    [[nodiscard]] bool right(std::uint32_t f, std::size_t line) const {
        return any() && (faces_[f].right >> line & 1u) != 0;
    }

  private:
    struct Of {
        std::uint32_t left = 0, right = 0;
    };
    std::vector<Of> faces_;
};

}  // namespace jig
