#include "core/science/flow/preform.hpp"

#include <cmath>

namespace jig {

void FaceFlow::add(const FlowLayer& l, const Point& along, const Point& across) {
    conducts += l.thickness * (l.K1 * along * along.transpose() + l.K2 * across * across.transpose());
    holds += l.thickness * l.porosity;
    if (!(l.gives > 0)) return;
    cloth += l.thickness;
    gives += l.gives * l.thickness;
}

std::vector<FaceFlow> face_flows(const TriangleMesh& mesh, const std::vector<FlowLayer>& layers,
                                 const Point& zero) {
    std::vector<FaceFlow> out(mesh.triangles.size());
    for (std::size_t f = 0; f < out.size(); ++f) {
        const Point area = mesh.area_vector2(f);
        if (area.squaredNorm() <= 0) continue;
        const Point normal = area.normalized(), centre = mesh.centre(f);
        Point x = zero - zero.dot(normal) * normal;
        // Straight up from the face there is no direction to project: the face's own edge.
        if (x.norm() < 1e-6 * zero.norm()) x = mesh.corner(f, 1) - mesh.corner(f, 0);
        x.normalize();
        const Point y = normal.cross(x);
        for (const auto& l : layers) {
            if (l.within &&
                ((centre - l.within->low).minCoeff() < 0 || (l.within->high - centre).minCoeff() < 0))
                continue;
            const Point along = std::cos(l.angle) * x + std::sin(l.angle) * y;
            out[f].add(l, along, normal.cross(along));
        }
    }
    return out;
}

Lag lag_under(const FlowLayer& medium, const FlowLayer& preform) {
    // Seen from the medium's front and going back x, where the preform is wet to a depth y: as both fronts
    // move at one speed u, the medium carries u·(φm·hm + φp·y) past x, which takes p' = (φm·hm +
    // φp·y)/(Km·hm) in units of μ·u; and what goes down is φp·y·y' = Kz·p. Walked until y is the preform's
    // depth.
    const double carries = medium.K1 * medium.thickness, holds = medium.porosity * medium.thickness;
    const double first = std::sqrt(preform.Kz * medium.porosity / (preform.porosity * medium.K1));
    double step = preform.thickness / first / 4000, x = step, p = holds / carries * step, y = first * step;
    for (int i = 0; i < 200000 && y < preform.thickness; ++i) {
        const auto slope = [&](double depth, double pressure) {
            return std::pair{(holds + preform.porosity * depth) / carries,
                             preform.Kz * pressure / (preform.porosity * depth)};
        };
        const auto a = slope(y, p);
        const auto b = slope(y + step / 2 * a.second, p + step / 2 * a.first);
        p += step * b.first;
        y += step * b.second;
        x += step;
    }
    return {x};
}

}  // namespace jig
