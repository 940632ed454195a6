#include "core/base/units.hpp"
#include "core/stages/shell/choices.hpp"

namespace jig::shell {
namespace {

Layer coat(const char* name) {
    return {LayerKind::surface_coat, name, 0, 0};
}
Layer coupling() {
    return {LayerKind::coupling, "", 0, 0};
}
Layer ply(const char* name, double degrees = 0) {
    return {LayerKind::ply, name, radians(degrees), 0};
}

}  // namespace

Choices start_from(School school) {
    Choices c;
    c.school = school;
    switch (school) {
        case School::mat_polyester:
            c.resin = "polyester, tooling isophthalic";
            c.cure_temperature = kelvin(50);
            c.layers = {coat("polyester tooling gelcoat"),
                        ply("glass tissue 30"),
                        ply("glass mat 225"),
                        ply("glass mat 300"),
                        ply("glass mat 450"),
                        ply("glass mat 450"),
                        ply("glass mat 450")};
            break;
        case School::glass_epoxy:
            c.resin = "epoxy, tooling post-cured";
            c.cure_temperature = kelvin(80);
            c.layers = {coat("epoxy surface coat, hot"),  coupling(),
                        ply("glass cloth 105 plain"),     ply("glass cloth 200 plain", 45),
                        ply("glass cloth 300 twill"),     ply("glass cloth 600 twill", 45),
                        ply("glass cloth 600 twill"),     ply("glass cloth 600 twill"),
                        ply("glass cloth 600 twill", 45), ply("glass cloth 600 twill"),
                        ply("glass cloth 600 twill", 45), ply("glass cloth 300 twill"),
                        ply("glass cloth 200 plain", 45)};
            break;
        case School::carbon_epoxy:
            c.resin = "epoxy, tooling post-cured";
            c.how = LayUp::bagged;
            c.cure_temperature = kelvin(100);
            c.layers = {coat("epoxy surface coat, hot"),   ply("carbon cloth 200 twill"),
                        ply("carbon cloth 285 twill", 45), ply("carbon cloth 600 twill"),
                        ply("carbon cloth 600 twill", 45), ply("carbon cloth 600 twill", 45),
                        ply("carbon cloth 600 twill"),     ply("carbon cloth 285 twill", 45),
                        ply("carbon cloth 200 twill")};
            break;
    }
    return c;
}

}  // namespace jig::shell
