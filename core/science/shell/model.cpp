#include "core/science/shell/model.hpp"

namespace jig::shell_fe {

Weight weigh(const Model& model) {
    Weight out;
    const auto add = [&](double mass, const Point& at) {
        out.mass += mass;
        out.centre += mass * at;
    };
    const auto& mesh = model.mesh;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f)
        add(model.skins[model.skin_of(f)].laminate.areal_mass * mesh.area_vector2(f).norm() / 2,
            (mesh.corner(f, 0) + mesh.corner(f, 1) + mesh.corner(f, 2)) / 3);
    for (const auto& bar : model.bars) {
        const Point &a = mesh.points[bar.a], &b = mesh.points[bar.b];
        add(bar.mass * (b - a).norm(), (a + b) / 2);
    }
    if (out.mass > 0) out.centre /= out.mass;
    return out;
}

}  // namespace jig::shell_fe
