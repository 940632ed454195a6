#include <iterator>

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
Layer core(const char* name) {
    return {LayerKind::core, name, 0, 0};
}
/// The same plies backwards, so that they bow no more than their coat makes them.
std::vector<Layer> mirrored(std::vector<Layer> front, std::initializer_list<Layer> half) {
    front.insert(front.end(), half);
    front.insert(front.end(), std::make_reverse_iterator(half.end()),
                 std::make_reverse_iterator(half.begin()));
    return front;
}

}  // namespace

// Starting stacks by one rule (docs/methods.md, Schools): a light cloth behind the coat, no ply more than
// twice as heavy as the one before it, the heavy ones in the middle, woven ones mirrored.
Choices start_from(School school) {
    Choices c;
    c.school = school;
    switch (school) {
        case School::mat_polyester:
            c.resin = "polyester, tooling isophthalic";
            c.cure_temperature = kelvin(50);
            c.unit = "glass mat 225";
            c.layers = {coat("polyester tooling gelcoat"),
                        ply("glass tissue 30"),
                        ply("glass mat 225"),
                        ply("glass mat 300"),
                        ply("glass mat 450"),
                        ply("glass mat 600"),
                        ply("glass mat 600")};
            break;
        case School::filled_polyester:
            c.resin = "filled low-shrink tooling polyester";
            c.cure_temperature = kelvin(40);
            c.unit = "glass mat 225";
            c.layers = {coat("vinyl ester tooling gelcoat"),
                        ply("glass tissue 30"),
                        ply("glass mat 300"),
                        ply("glass mat 300"),
                        ply("glass mat 450"),
                        ply("glass mat 450"),
                        ply("glass mat 450")};
            break;
        case School::glass_epoxy:
            c.resin = "epoxy, tooling post-cured";
            c.cure_temperature = kelvin(80);
            c.layers = mirrored(
                {coat("epoxy surface coat, hot"), coupling()},
                {ply("glass cloth 105 plain"), ply("glass cloth 200 plain", 45), ply("glass cloth 390 twill"),
                 ply("glass cloth 600 twill", 45), ply("glass cloth 600 twill")});
            break;
        case School::carbon_epoxy:
            c.resin = "epoxy, tooling post-cured";
            c.how = LayUp::bagged;
            c.unit = "carbon cloth 100 plain";
            c.cure_temperature = kelvin(100);
            c.layers = mirrored({coat("epoxy surface coat, hot")},
                                {ply("carbon cloth 160 plain"), ply("carbon cloth 245 twill", 45),
                                 ply("carbon cloth 400 twill"), ply("carbon cloth 600 twill", 45)});
            break;
        case School::mineral_glass:
            c.resin = "laminating plaster";
            c.cure_temperature = kelvin(35);
            c.unit = "glass mat 225";
            c.layers = {coat("plaster face coat"),     ply("glass cloth 200 plain"),
                        ply("glass mat 225"),          core("mineral paste, 8 mm"),
                        ply("glass woven roving 600"), core("mineral paste, 8 mm"),
                        ply("glass mat 225"),          ply("glass cloth 200 plain")};
            break;
        case School::tooling_prepreg:
            c.resin = "tooling prepreg resin";
            c.how = LayUp::prepreg;
            c.unit = "carbon cloth 200 twill";
            c.cure_temperature = kelvin(180);
            c.layers = mirrored({}, {ply("carbon cloth 160 plain"), ply("carbon cloth 245 twill", 45),
                                     ply("carbon cloth 400 twill"), ply("carbon cloth 600 twill", 45),
                                     ply("carbon cloth 600 twill")});
            break;
        case School::sandwich:
            c.resin = "epoxy, infusion";
            c.how = LayUp::infused;
            c.cure_temperature = kelvin(70);
            c.layers = {coat("epoxy surface coat"), ply("glass cloth 163 plain"),
                        ply("glass biaxial 300"),   ply("glass cloth 390 twill"),
                        core("PVC foam 75, 15 mm"), ply("glass cloth 390 twill"),
                        ply("glass biaxial 300"),   ply("glass cloth 163 plain")};
            break;
    }
    return c;
}

std::vector<char> painted_faces(const Zone& zone, const TriangleMesh& mesh) {
    std::vector<char> out(mesh.triangles.size(), 0);
    for (const auto& touch : zone.painted) {
        for (const auto f : faces_under(mesh, touch.dab())) out[f] = 1;
    }
    return out;
}

Zone fresh_zone(const Choices& c, ZoneKind kind) {
    Zone out;
    out.kind = kind;
    // The last ply but the mirrored light ones: names carry their weight, the middle of a stack its heaviest
    // cloth.
    std::vector<Layer> plies;
    for (const auto& l : c.layers) {
        if (l.kind == LayerKind::ply) plies.push_back(l);
    }
    const Layer heavy = plies.empty() ? ply("glass cloth 600 twill") : plies[plies.size() / 2];
    out.layers = {{LayerKind::ply, heavy.material, 0, 0}, {LayerKind::ply, heavy.material, kPi / 4, 0}};
    return out;
}

const SchoolFacts& facts_of(School school) {
    static const std::array<SchoolFacts, 7> facts{{
        {"cheap and known to everyone; it shrinks, smells of styrene and stays under about 60 °C", 60,
         kelvin(60)},
        {"thick in one day with little shrinkage; it wants care with exotherm and bears little heat", 150,
         kelvin(60)},
        {"stable up to its resin's Tg; dearer than polyester and slow to cure", 200, kelvin(200)},
        {"stiff and light, expands little and goes through the oven with carbon parts; dear", 300,
         kelvin(200)},
        {"cheap mass and stiffness in hours; heavy, brittle at its edges, and no heat", 25, kelvin(50)},
        {"the truest shell at the highest heat; wants freezer, oven and debulks", 500, kelvin(250)},
        {"stiff without a back and light; the core limits heat and must not be crushed", 120, kelvin(80)},
    }};
    return facts[static_cast<std::size_t>(school)];
}

}  // namespace jig::shell
