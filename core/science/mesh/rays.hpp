// Rays against a mesh, by Embree.
#pragma once

#include <memory>
#include <optional>

#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

/// A mesh made ready for rays. Building costs about as much as one pass of rays; asking is thread-safe.
class RayMesh {
  public:
    explicit RayMesh(const TriangleMesh& mesh);
    ~RayMesh();
    RayMesh(RayMesh&&) noexcept;
    RayMesh& operator=(RayMesh&&) noexcept;
    RayMesh(const RayMesh&) = delete;
    RayMesh& operator=(const RayMesh&) = delete;

    /// Whether anything stands on the way from `from` along the unit direction `along`.
    [[nodiscard]] bool blocked(const Point& from, const Point& along) const;

    /// The same for up to eight places at once along one direction, which costs much less than eight: bit i
    /// for place i.
    [[nodiscard]] unsigned blocked(const Point* from, std::size_t count, const Point& along) const;

    struct Hit {
        double distance;
        std::uint32_t face;
    };
    /// The first face on the way.
    [[nodiscard]] std::optional<Hit> first(const Point& from, const Point& along) const;

  private:
    struct Inside;
    std::unique_ptr<Inside> inside_;
};

}  // namespace jig
