// Builds counted in the shop's own thickness units, there and back.
#include <catch2/catch.hpp>

#include "core/shop/stack_figures.hpp"
#include "core/stages/shell/units.hpp"
#include "tests/job/fixtures.hpp"

using namespace jig;
using namespace fixtures;
using shell::from_units;
using shell::in_units;
using shell::units_of;

namespace {

std::vector<std::string> cloths(const std::vector<Layer>& layers) {
    std::vector<std::string> out;
    for (const auto& l : layers) {
        if (l.kind == LayerKind::core || (l.kind == LayerKind::ply && shell::is_cloth(l, shop())))
            out.push_back(l.material);
    }
    return out;
}

}  // namespace

TEST_CASE("a cloth counts its weight over the unit cloth's where both pack alike") {
    // t = W/(ρ·Vf): glass of one weave laid one way differs by W alone.
    const auto c = shell::start_from(School::glass_epoxy);
    const auto& shop = fixtures::shop();
    CHECK(units_of(c.unit, c, shop) == Approx(1));
    const auto packs = [&](const char* name) {
        return fibre_volume(need(shop.reinforcements, name, "test"), c.how);
    };
    const auto weighs = [&](const char* name) { return need(shop.reinforcements, name, "test").areal_mass; };
    for (const char* name : {"glass cloth 200 plain", "glass cloth 300 twill", "glass cloth 600 twill"})
        CHECK(units_of(name, c, shop) ==
              Approx(weighs(name) / weighs(c.unit.c_str()) * packs(c.unit.c_str()) / packs(name)));
    // The shop's own count goes before.
    auto own = shop;
    for (auto& r : own.reinforcements) {
        if (r.name == "glass cloth 600 twill") r.units = 6;
    }
    CHECK(units_of("glass cloth 600 twill", c, own) == 6);
    CHECK(units_of({{LayerKind::ply, "glass cloth 600 twill", 0, 0},
                    {LayerKind::coupling, "", 0, 0},
                    {LayerKind::ply, "glass tissue 30", 0, 0},
                    {LayerKind::core, "PVC foam 75, 15 mm", 0, 0},
                    {LayerKind::ply, c.unit, 0, 0}},
                   c, own) == Approx(7));
}

TEST_CASE("what a stack reads in units builds the same stack again, in every school") {
    for (int i = 0; i < 7; ++i) {
        const auto c = shell::start_from(static_cast<School>(i));
        INFO(file_word(c.school));
        const auto text = in_units(c.layers, c, shop());
        INFO(text);
        const auto again = from_units(text, c, nullptr, shop());
        CHECK(cloths(again) == cloths(c.layers));
        CHECK(in_units(again, c, shop()) == text);
        // What stayed kept its angle.
        const auto angles = [](const std::vector<Layer>& layers) {
            std::vector<double> out;
            for (const auto& l : layers) {
                if (l.kind == LayerKind::ply) out.push_back(l.angle);
            }
            return out;
        };
        CHECK(angles(again) == angles(c.layers));
    }
}

TEST_CASE("a total is met by a mirrored stack that steps up from light to heavy") {
    for (int i = 0; i < 7; ++i) {
        const auto c = shell::start_from(static_cast<School>(i));
        INFO(file_word(c.school));
        for (const double total : {6.0, 15.0, 24.0, 60.0}) {
            const auto layers = from_units(std::to_string(total), c, nullptr, shop());
            INFO(total << ": " << in_units(layers, c, shop()));
            const auto list = cloths(layers);
            CHECK(std::equal(list.begin(), list.end(), list.rbegin()));
            double before = 0;
            for (std::size_t k = 0; k < (list.size() + 1) / 2; ++k) {
                const auto* r = find(shop().reinforcements, list[k]);
                if (r == nullptr) continue;
                CHECK(r->areal_mass >= before);
                before = r->areal_mass;
            }
            // A half's lightest step is as near as a mirrored stack can always come.
            double lightest = 1e30;
            for (const auto& name : cloths(c.layers)) {
                if (find(shop().reinforcements, name) != nullptr)
                    lightest = std::min(lightest, units_of(name, c, shop()));
            }
            CHECK(std::abs(units_of(layers, c, shop()) - total) <= std::max(0.5, lightest));
            // Coats stay where they were.
            for (std::size_t k = 0; k < c.layers.size() && c.layers[k].kind != LayerKind::ply; ++k)
                CHECK(layers[k] == c.layers[k]);
        }
    }
}

TEST_CASE("a build typed ply by ply") {
    const auto c = shell::start_from(School::glass_epoxy);
    const auto layers = from_units(" 1 + 2+3 + 4 x 6 +3,0 + 1.9 + 1", c, nullptr, shop());
    CHECK(cloths(layers) == std::vector<std::string>{"glass cloth 105 plain", "glass cloth 200 plain",
                                                     "glass cloth 300 twill", "glass cloth 600 twill",
                                                     "glass cloth 600 twill", "glass cloth 600 twill",
                                                     "glass cloth 600 twill", "glass cloth 300 twill",
                                                     "glass cloth 200 plain", "glass cloth 105 plain"});
    // It reads the same both ways and is laid so.
    const auto sum = sum_stack(layers, need(shop().resins, c.resin, "test"), c.how, shop(), "test");
    std::vector<double> turned;
    for (const auto& l : sum.laid) {
        if (l.layer.kind == LayerKind::ply) turned.push_back(l.layer.angle);
    }
    CHECK(std::equal(turned.begin(), turned.end(), turned.rbegin()));
    CHECK(std::count(turned.begin(), turned.end(), 0.0) > 0);
    CHECK(std::count(turned.begin(), turned.end(), 0.0) < 10);
    // The core of a sandwich stands where it is written.
    const auto s = shell::start_from(School::sandwich);
    CHECK(cloths(from_units("2 + core + 2", s, nullptr, shop()))[1] == "PVC foam 75, 15 mm");
    // Of two different cores each keeps its place.
    auto twice = s;
    const auto first = std::find_if(twice.layers.begin(), twice.layers.end(),
                                    [](const Layer& l) { return l.kind == LayerKind::core; });
    auto other = *first;
    for (const auto& core : shop().cores)
        other.material = core.name == first->material ? other.material : core.name;
    twice.layers.insert(first + 2, other);
    CHECK(cloths(from_units("2 + core + 2 + core + 2", twice, nullptr, shop())) ==
          std::vector<std::string>{"glass cloth 200 plain", s.layers[4].material, "glass cloth 200 plain",
                                   other.material, "glass cloth 200 plain"});
    // A doubler takes plies alone, and for a total the fewest.
    const auto zone = shell::fresh_zone(c, ZoneKind::flange);
    const auto listed = from_units("2 x 6", c, &zone, shop());
    CHECK(listed == zone.layers);
    const auto total = from_units("12", c, &zone, shop());
    // Two plies of 600 fall 0.6 short; one light ply more comes within half a unit, four of 300 would be
    // more.
    CHECK(total.size() == 3);
    CHECK(units_of(total, c, shop()) == Approx(12).margin(0.5));
}

TEST_CASE("what is no build in units is refused with its reason") {
    const auto c = shell::start_from(School::glass_epoxy);
    for (const char* typed :
         {"", " ", "0", "9999", "-3", "1 +", "+", "two", "1 2", "1 + x", "4 × ", "300 x 1", "core",
          "1 + core + 1", "40 + 1", "1e3", "0 + 1", "1..2 + 1", "0 x 3"}) {
        INFO(typed);
        CHECK_THROWS_AS(from_units(typed, c, nullptr, shop()), InputError);
    }
    try {
        from_units("13 + 1", c, nullptr, shop());
        FAIL("nothing counts 13");
    } catch (const InputError& e) {
        CHECK(e.mend().find("glass") != std::string::npos);
    }
    auto bad = c;
    bad.unit = "straw";
    CHECK_THROWS_AS(from_units("24", bad, nullptr, shop()), InputError);
}
