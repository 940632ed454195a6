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

}  // namespace jig
