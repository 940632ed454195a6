#include <cholmod.h>

#include <Eigen/SparseCore>

#include "bench/reference.hpp"
#include "core/science/shell/element.hpp"

namespace bench {

double bare_cholmod(const jig::TriangleMesh& mesh, const jig::Laminate& laminate,
                    const jig::shell_fe::Support& clamp) {
    using namespace jig;
    const auto section = shell_fe::section_of(laminate);
    std::vector<int> number(6 * mesh.points.size(), -1);
    int rows = 0;
    for (std::size_t i = 0; i < mesh.points.size(); ++i) {
        const Point& p = mesh.points[i];
        const bool held =
            ((p - clamp.within.low).array() >= 0).all() && ((clamp.within.high - p).array() >= 0).all();
        for (std::size_t k = 0; k < 6; ++k) {
            if (!held) number[6 * i + k] = rows++;
        }
    }
    std::vector<Eigen::Triplet<double, int>> list;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        const auto K = shell_fe::Element(mesh.corner(f, 0), mesh.corner(f, 1), mesh.corner(f, 2),
                                         Point::UnitX(), section)
                           .stiffness();
        const auto row = [&](int a) {
            return number[6 * mesh.triangles[f][static_cast<std::size_t>(a / 6)] +
                          static_cast<std::size_t>(a % 6)];
        };
        for (int a = 0; a < 18; ++a) {
            for (int b = 0; b < 18; ++b) {
                if (row(a) >= 0 && row(b) >= 0 && row(a) >= row(b))
                    list.emplace_back(row(a), row(b), K(a, b));
            }
        }
    }
    Eigen::SparseMatrix<double, Eigen::ColMajor, int> K(rows, rows);
    K.setFromTriplets(list.begin(), list.end());
    cholmod_common c;
    cholmod_start(&c);
    c.supernodal = CHOLMOD_SUPERNODAL;
    cholmod_sparse view{};
    view.nrow = view.ncol = static_cast<std::size_t>(rows);
    view.nzmax = static_cast<std::size_t>(K.nonZeros());
    view.p = K.outerIndexPtr();
    view.i = K.innerIndexPtr();
    view.x = K.valuePtr();
    view.stype = -1;
    view.itype = CHOLMOD_INT;
    view.xtype = CHOLMOD_REAL;
    view.dtype = CHOLMOD_DOUBLE;
    view.sorted = view.packed = 1;
    cholmod_dense* right = cholmod_ones(static_cast<std::size_t>(rows), 1, CHOLMOD_REAL, &c);
    const double seconds = fastest(3, [&] {
        cholmod_factor* factor = cholmod_analyze(&view, &c);
        cholmod_factorize(&view, factor, &c);
        cholmod_dense* x = cholmod_solve(CHOLMOD_A, factor, right, &c);
        cholmod_free_dense(&x, &c);
        cholmod_free_factor(&factor, &c);
    });
    cholmod_free_dense(&right, &c);
    cholmod_finish(&c);
    return seconds;
}

}  // namespace bench
