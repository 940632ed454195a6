#include "core/stages/shape/place.hpp"

namespace jig::shape {
namespace {

/// Quarter and half turns that bring a side up; a true turn, so nothing is mirrored by it.
Eigen::Matrix3d turn_for(Upwards up) {
    const auto rows = [](const Point& x, const Point& y, const Point& z) {
        Eigen::Matrix3d m;
        m << x.transpose(), y.transpose(), z.transpose();
        return m;
    };
    const Point X = Point::UnitX(), Y = Point::UnitY(), Z = Point::UnitZ();
    switch (up) {
        case Upwards::z_down:
            return rows(X, -Y, -Z);
        case Upwards::x:
            return rows(Y, Z, X);
        case Upwards::x_down:
            return rows(Z, Y, -X);
        case Upwards::y:
            return rows(Z, X, Y);
        case Upwards::y_down:
            return rows(X, Z, -Y);
        case Upwards::z:
            break;
    }
    return Eigen::Matrix3d::Identity();
}

}  // namespace

void put_on_bench(TriangleMesh& mesh, const Placing& place) {
    if (place == Placing{}) return;
    Eigen::Matrix3d turn = place.scale * turn_for(place.up);
    if (place.mirror) turn.row(1) = -turn.row(1);
    for (auto& p : mesh.points) p = turn * p;
    if (place.mirror != (place.face == ToolFace::inside)) turn_over(mesh);
}

}  // namespace jig::shape
