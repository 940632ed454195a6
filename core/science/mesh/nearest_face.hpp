// The face of a mesh that is nearest to a place, by CGAL's tree of boxes.
#pragma once

#include <memory>

#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

class NearestFace {
  public:
    /// The mesh must hold a face and outlive this.
    explicit NearestFace(const TriangleMesh& mesh);
    ~NearestFace();
    NearestFace(const NearestFace&) = delete;
    NearestFace& operator=(const NearestFace&) = delete;
    [[nodiscard]] std::size_t at(const Point& p) const;

  private:
    struct Inside;
    std::unique_ptr<Inside> inside_;
};

/// The same for one place, face by face: a tree takes longer to build. The mesh holds a face.
std::size_t nearest_face(const TriangleMesh& mesh, const Point& p);

/// Shares of a face's corners at the place of the face nearest to `p`, kept within the face and adding up
/// to 1.
Point corner_shares(const TriangleMesh& mesh, std::size_t face, const Point& p);

}  // namespace jig
