// What other people's code takes for the same work.
#pragma once

#include <chrono>
#include <memory>
#include <string>
#include <vector>

#include "core/science/mesh/triangle_mesh.hpp"
#include "core/science/shell/system.hpp"

namespace bench {

/// Seconds of the fastest of `rounds` calls.
template <class Work>
double fastest(int rounds, Work&& work) {
    double best = 1e30;
    for (int i = 0; i < rounds; ++i) {
        const auto start = std::chrono::steady_clock::now();
        work();
        best =
            std::min(best, std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count());
    }
    return best;
}

/// A wavy dome of about n triangles, open at the foot.
jig::TriangleMesh dome(std::size_t n);

/// Seconds of one occlusion ray a face along `pull` straight through Embree's C interface, on all cores: no
/// classes, no areas.
double bare_embree(const jig::TriangleMesh& mesh, const jig::Point& pull);

/// Seconds that CHOLMOD alone takes to analyse, factor and solve the stiffness of that shell, the matrix
/// given.
double bare_cholmod(const jig::TriangleMesh& mesh, const jig::Laminate& laminate,
                    const jig::shell_fe::Support& clamp);

/// CGAL's reader of STL into a polygon soup; returns the number of triangles.
std::size_t cgal_read_stl(const std::string& path);

/// CGAL's Polygon_mesh_slicer on a mesh that it has been given beforehand (its search tree included).
class CgalSlicer {
  public:
    explicit CgalSlicer(const jig::TriangleMesh& mesh);
    ~CgalSlicer();
    CgalSlicer(const CgalSlicer&) = delete;
    CgalSlicer& operator=(const CgalSlicer&) = delete;
    /// Points of all outlines at one height.
    std::size_t cut(double height);

  private:
    struct Inside;
    std::unique_ptr<Inside> inside_;
};

}  // namespace bench
