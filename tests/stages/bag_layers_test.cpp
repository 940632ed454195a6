// The bag's layers as they are cut, by hand; and a film that the shop has already.
#include <catch2/catch.hpp>

#include "core/job/tables.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"

using namespace jig;
using fixtures::bagged;
using fixtures::call;
using fixtures::worked_out;

namespace {

constexpr double kQuarter = 1.5707963267948966;

bag::Ground ground(double length, double width) {
    bag::Ground out;
    out.length = length;
    out.width = width;
    out.area = 1.3 * length * width;
    out.rim = 2 * (length + width);
    return out;
}

/// Four corners of a box.
std::vector<Dart> corners() {
    return {4, Dart{Point::Zero(), kQuarter}};
}

const bag::BagLayer* layer(const std::vector<bag::BagLayer>& all, const std::string& name) {
    for (const auto& l : all) {
        if (l.name == name) return &l;
    }
    return nullptr;
}

std::vector<bag::BagLayer> laid(const bag::Choices& c, LayUp how, const bag::Ground& g, const Shop& shop) {
    Film film;
    film.length = g.length + 0.4;
    film.width = g.width + 0.4;
    return bag::layers(c, how, g, film, film.area() * (c.second ? 2 : 1), {}, shop);
}

}  // namespace

TEST_CASE("layers come in the order in which they are laid, as their process asks") {
    const auto names = [&](const bag::Choices& c, LayUp how) {
        std::vector<std::string> out;
        for (const auto& l : laid(c, how, ground(1, 0.8), fixtures::shop())) out.push_back(l.name);
        return out;
    };
    using Names = std::vector<std::string>;
    bag::Choices c;
    CHECK(names(c, LayUp::bagged) == Names{"peel ply", "perforated film", "breather", "bag film"});
    c.second = true;
    CHECK(names(c, LayUp::infused) ==
          Names{"peel ply", "perforated film", "flow medium", "bag film", "second bag film"});
    c = {};
    c.peel_ply = c.breather = false;
    c.film = ReleaseFilm::solid;
    CHECK(names(c, LayUp::prepreg) == Names{"release film", "bag film"});
    c.film = ReleaseFilm::none;
    c.infusion.medium = false;
    CHECK(names(c, LayUp::infused) == Names{"bag film"});
}

TEST_CASE("a layer is cut the way that takes less of its roll") {
    // Peel ply comes 1.52 m wide and laps by 0.03.
    const auto one = laid({}, LayUp::bagged, ground(1.0, 0.8), fixtures::shop());
    const auto* peel = layer(one, "peel ply");
    REQUIRE(peel != nullptr);
    // Either way lies inside one width: the shorter side along the roll.
    CHECK(peel->cut.strips == 1);
    CHECK(peel->cut.metres == Approx(0.8));
    CHECK(peel->area == Approx(1.04));
    const auto large = laid({}, LayUp::bagged, ground(4.0, 2.0), fixtures::shop());
    // Two lengths of 4 m, or three of 2 m: the three.
    CHECK(layer(large, "peel ply")->cut.strips == 3);
    CHECK(layer(large, "peel ply")->cut.metres == Approx(6.0));
    // Film of 4.4 × 2.4 m off a roll of 3: one length, or two of 2.4.
    CHECK(layer(large, "bag film")->cut.metres == Approx(4.4));
    // Two of 0.7 m lie side by side on 1.52, and two of 0.6 the other way: 0.6 / 2 is less.
    const auto narrow = laid({}, LayUp::bagged, ground(0.7, 0.6), fixtures::shop());
    CHECK(layer(narrow, "peel ply")->beside == 2);
    CHECK(layer(narrow, "peel ply")->cut.metres == Approx(0.3));
    auto several = ground(1.0, 0.8);
    several.pieces = 2;
    CHECK(layer(laid({}, LayUp::bagged, several, fixtures::shop()), "peel ply")->cut.metres == Approx(1.6));
    // Where nothing was measured it goes by area.
    bag::Ground by_area;
    by_area.area = 2;
    const auto plain = laid({}, LayUp::bagged, by_area, fixtures::shop());
    CHECK(layer(plain, "breather")->cut.metres == 0);
    CHECK(layer(plain, "breather")->area == 2);
}

TEST_CASE("a medium ends before the vents round the rim") {
    bag::Choices c;
    c.infusion.brake = 0.05;
    const auto g = ground(1.0, 0.8);
    const auto all = laid(c, LayUp::infused, g, fixtures::shop());
    const auto* medium = layer(all, "flow medium");
    REQUIRE(medium != nullptr);
    CHECK(medium->area == Approx(1.04 - 0.05 * 3.6));
    CHECK(medium->length == Approx(0.9));
    CHECK(medium->width == Approx(0.7));
    CHECK_THAT(worded(medium->covers), Catch::Contains("50.0 mm"));
    // Fed round the rim it is drawn off in the middle: it goes to the rim.
    c.infusion.plan = InfusionPlan::ring;
    CHECK(layer(laid(c, LayUp::infused, g, fixtures::shop()), "flow medium")->length == Approx(1.0));
    // Wider than the face, nothing of it is left.
    c.infusion.plan = InfusionPlan::spine;
    c.infusion.brake = 0.6;
    const auto none = laid(c, LayUp::infused, g, fixtures::shop());
    CHECK(layer(none, "flow medium")->area == 0);
    CHECK(layer(none, "flow medium")->cut.metres == 0);
}

TEST_CASE("darts follow what the shop says of a layer, and what it does not say is not judged") {
    auto g = ground(1.0, 0.8);
    g.curved = corners();
    auto shop = fixtures::shop();
    const auto set = [&](double shears, double stretches) {
        for (auto& c : shop.consumables) {
            if (c.name != "peel ply") continue;
            c.shears = shears;
            c.stretches = stretches;
        }
    };
    const auto darts = [&]() {
        const auto all = laid({}, LayUp::bagged, g, shop);
        const auto* l = layer(all, "peel ply");
        return l->judged ? static_cast<int>(l->darts.size()) : -1;
    };
    set(0.61, 0);
    CHECK(darts() == 4);
    // Cloth that shears by 90° takes four corners in one.
    set(kQuarter * 1.001, 0);
    CHECK(darts() == 0);
    // A third of stretch: 6π/3 is a full turn.
    set(0, 1.001 / 3);
    CHECK(darts() == 0);
    set(0, 0.02);
    CHECK(darts() == 4);
    set(0, 0);
    CHECK(darts() == -1);
    // A flat face asks for none of anything.
    g.curved.clear();
    set(0, 0.001);
    CHECK(darts() == 0);
}

TEST_CASE("the ledger buys what is cut, and the list says it line by line") {
    const auto f = worked_out(bagged());
    REQUIRE(f.bag);
    REQUIRE(f.bag->layers.size() == 4);
    for (const auto& l : f.bag->layers) {
        INFO(l.name);
        double bought = 0;
        for (const auto& m : f.run->materials) {
            if (m.stage == Stage::bag && m.what == l.name) bought += m.amount;
        }
        REQUIRE(l.cut.metres > 0);
        // All of the roll's width that comes off it, and never less than the shop's own waste.
        CHECK(bought >= l.cut.metres * l.roll * (1 - 1e-9));
        CHECK(bought >= l.area);
    }
    const auto* peel = layer(f.bag->layers, "peel ply");
    CHECK(peel->area == Approx(f.part->area * f.split->parts()));
    // The face's girths: those of the film without its ease and lands.
    const auto job = bagged();
    const double lands = 2 * (job.edge.trim + job.edge.channel + job.edge.tape_land);
    CHECK(peel->length == Approx(f.bag->film.length / 1.1 - lands));
    CHECK(peel->width == Approx(f.bag->film.width / 1.1 - lands));
    // The tray's four corners cannot be hidden from a film.
    CHECK(layer(f.bag->layers, "perforated film")->darts.size() >= 4);
    const auto table = layer_table(f.bag->layers);
    CHECK(std::count(table.begin(), table.end(), '\n') == 5);
    CHECK_THAT(table, Catch::StartsWith("layer,covers,area_m2") && Catch::Contains("\npeel ply,"));
    // A laid part has none.
    auto open = bagged();
    open.part.how = LayUp::hand;
    CHECK(worked_out(open).bag->layers.empty());
}

TEST_CASE("a film that the shop has is judged where it is short, and left alone where it is not") {
    const auto calm = worked_out(bagged());
    const auto& wanted = calm.bag->film;
    const auto with = [&](double length, double width) {
        auto job = bagged();
        job.bag.sheet_length = length;
        job.bag.sheet_width = width;
        return worked_out(job);
    };
    // As large as one that is cut: the same film, whichever side is typed first.
    const auto same = with(wanted.width, wanted.length);
    CHECK(same.bag->film.length == Approx(wanted.length));
    CHECK(same.bag->film.slack == Approx(wanted.slack));
    CHECK_FALSE(same.bag->bridge);
    CHECK(call(same, "bridges") == nullptr);
    CHECK(layer(same.bag->layers, "bag film")->cut.metres == 0);
    // Without its ease it just reaches; a little less, and it does not.
    const double girth = wanted.width / 1.1;
    CHECK(call(with(wanted.length, girth + 0.001), "bridges") == nullptr);
    const auto tight = with(wanted.length, girth - 0.02);
    REQUIRE(tight.bag->bridge);
    CHECK(tight.bag->bridge->reaches);
    CHECK(tight.bag->bridge->short_by == Approx(0.02).epsilon(0.01));
    CHECK(tight.bag->bridge->gap > 0.002);
    CHECK(tight.bag->bridge->gap < 0.05);
    REQUIRE(call(tight, "bridges") != nullptr);
    const auto tighter = with(wanted.length, girth - 0.05);
    CHECK(tighter.bag->bridge->gap > tight.bag->bridge->gap);
    // Half of it does not come across.
    const auto never = with(wanted.length, 0.4 * girth);
    REQUIRE(call(never, "film_short") != nullptr);
    CHECK(call(never, "film_short")->severity == Severity::stop);
    CHECK(call(never, "bridges") == nullptr);
    // One side alone is no sheet yet.
    CHECK(with(0.3, 0).bag->film.length == Approx(wanted.length));
    // Free film gives past a radius by the library, less the deeper the vacuum.
    CHECK(tight.bag->gives == Approx(1800 / (tight.bag->room - tight.bag->reached)));
}
