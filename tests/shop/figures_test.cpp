// The library as figures with names and units: all of it is there, each can be changed within its range, and
// only what departs from what is shipped is the shop's own.
#include "core/shop/figures.hpp"

#include <catch2/catch.hpp>
#include <fstream>
#include <set>

#include "tests/job/fixtures.hpp"

using namespace jig;
using fixtures::Folder;
using Is = ShopFigure::Is;

namespace {

const Origin kOurs{OriginKind::measured, "2026-11", "weighed"};

const ShopFigure& figure(const std::vector<ShopFigure>& all, const std::string& pointer) {
    for (const auto& f : all) {
        if (f.pointer == pointer) return f;
    }
    FAIL("no figure " << pointer);
    return all.front();
}

std::string why_not(const std::function<void()>& change) {
    try {
        change();
    } catch (const InputError& e) {
        return e.what();
    }
    return {};
}

}  // namespace

TEST_CASE("every figure of every entry has a name, and a unit that reads as words") {
    const auto& shop = fixtures::shop();
    for (const auto& list : shop_lists()) {
        INFO(list.key);
        const auto names = entry_names(shop, list.key);
        REQUIRE_FALSE(names.empty());
        std::set<std::string> pointers;
        const auto figures = shop_figures(shop, list.key, names.front());
        REQUIRE_FALSE(figures.empty());
        for (const auto& f : figures) {
            INFO(f.pointer);
            CHECK(pointers.insert(f.pointer).second);
            CHECK_FALSE(f.name.empty());
            // Nothing of a file's own spelling is left.
            CHECK(f.name.find('_') == std::string::npos);
            if (f.is == Is::number && f.needed) CHECK(f.low < f.high);
            if (f.is == Is::word) CHECK(f.words.size() == f.said.size());
            CHECK(f.pointer.substr(1, f.key.size()) == f.key);
        }
    }
    // What is drawn off the same struct is what its file has.
    const auto pump = shop_figures(shop, "pumps", "oil pump, 16 m³/h");
    CHECK(figure(pump, "/speed_m3_s").kind == Kind::flow);
    CHECK(figure(pump, "/speed_m3_s").name == "speed");
    CHECK(figure(pump, "/ultimate_Pa").kind == Kind::pressure);
    CHECK(figure(pump, "/ports").value == 2);
    CHECK(figure(pump, "/oil").value == true);
    const auto wax = shop_figures(shop, "releases", "paste wax");
    CHECK(figure(wax, "/first_use").is == Is::list);
    CHECK(figure(wax, "/first_use/0/wait_s").kind == Kind::duration);
    CHECK(figure(wax, "/first_use/0/wait_s").key == "first_use");
    CHECK(figure(wax, "/first_use/0/wait_s").group == "first use 1");
}

TEST_CASE("a figure is changed alone, within its range, and says from then on where it comes from") {
    const auto& shop = fixtures::shop();
    const auto next = with_figure(shop, "resins", "vinyl ester", "/gel_time_s", 1234.0, kOurs);
    const auto &was = need(shop.resins, "vinyl ester", "t"), &is = need(next.resins, "vinyl ester", "t");
    CHECK(is.gel_time == 1234);
    CHECK(is.origin_of("gel_time_s").note == "weighed");
    CHECK(is.origin_of("Tg_K") == was.origin);
    auto back = is;
    back.gel_time = was.gel_time;
    back.origins = was.origins;
    CHECK(back == was);
    CHECK(next.pumps == shop.pumps);
    CHECK_THAT(why_not([&] { with_figure(shop, "resins", "vinyl ester", "/gel_time_s", 1e9, kOurs); }),
               Catch::Contains("gel_time_s") && Catch::Contains("vinyl ester"));
    CHECK_THAT(why_not([&] { with_figure(shop, "resins", "treacle", "/gel_time_s", 100.0, kOurs); }),
               Catch::Contains("treacle"));
    CHECK_THAT(why_not([&] { with_figure(shop, "treacles", "x", "/y", 1, kOurs); }),
               Catch::Contains("treacles"));
    // What nobody has to know may be left open again.
    const auto core = entry_names(shop, "cores").front();
    const auto told = with_figure(shop, "cores", core, "/E_in_plane_Pa", 5e7, kOurs);
    CHECK(need(told.cores, core, "t").E_in_plane == 5e7);
    const auto open = with_figure(told, "cores", core, "/E_in_plane_Pa", Json(), kOurs);
    CHECK_FALSE(need(open.cores, core, "t").E_in_plane.has_value());
}

TEST_CASE("lists within an entry grow by one like the last, and lose the one that is meant") {
    const auto& shop = fixtures::shop();
    const auto before = need(shop.releases, "paste wax", "t").first_use;
    auto next = with_item(shop, "releases", "paste wax", "/first_use");
    next = with_figure(next, "releases", "paste wax", "/first_use/1/coats", 7, kOurs);
    const auto& coats = need(next.releases, "paste wax", "t").first_use;
    REQUIRE(coats.size() == before.size() + 1);
    CHECK(coats[0] == before[0]);
    CHECK(coats[1].coats == 7);
    CHECK(coats[1].product == before[0].product);
    const auto less = without_item(next, "releases", "paste wax", "/first_use/0");
    REQUIRE(need(less.releases, "paste wax", "t").first_use.size() == before.size());
    CHECK(need(less.releases, "paste wax", "t").first_use[0].coats == 7);
    // The first of an empty list is what one is when nobody says.
    const auto gel = with_item(shop, "resins", "vinyl ester", "/cures/gel_times");
    CHECK(need(gel.resins, "vinyl ester", "t").cures.gels == std::vector<CureSheet::Gel>{CureSheet::Gel{}});
}

TEST_CASE("the shop's file holds its own entries alone, and giving them up brings back what is shipped") {
    const auto& shipped = fixtures::shop();
    CHECK(write_own(shipped, shipped, "pumps").empty());
    auto ours = with_copy(shipped, "pumps", "oil pump, 16 m³/h", "old Berta");
    ours = with_figure(ours, "pumps", "old Berta", "/ultimate_Pa", 900.0, kOurs);
    ours = with_figure(ours, "pumps", "air ejector", "/ports", 2, kOurs);
    CHECK(is_own(ours, shipped, "pumps", "old Berta"));
    CHECK(is_own(ours, shipped, "pumps", "air ejector"));
    CHECK_FALSE(is_own(ours, shipped, "pumps", "oil pump, 16 m³/h"));
    Folder own;
    std::ofstream(own / "pumps.json") << write_own(ours, shipped, "pumps");
    const auto read = load_shop(fixtures::data() + "/library", own.path.string());
    CHECK(read == ours);
    const auto json = parse_json("own", write_own(ours, shipped, "pumps"));
    CHECK(json.at("entries").size() == 2);
    auto back = without_own(ours, shipped, "pumps", "air ejector");
    CHECK(need(back.pumps, "air ejector", "t") == need(shipped.pumps, "air ejector", "t"));
    back = without_own(back, shipped, "pumps", "old Berta");
    CHECK(back == shipped);
    CHECK_THAT(why_not([&] { with_copy(shipped, "pumps", "air ejector", "  "); }), Catch::Contains("name"));
    CHECK_THAT(why_not([&] { with_copy(shipped, "pumps", "air ejector", "oil pump, 16 m³/h"); }),
               Catch::Contains("already"));
}

TEST_CASE("each number of the library can be written to either end of its range and read again") {
    const auto& shop = fixtures::shop();
    int tried = 0;
    for (const auto& list : shop_lists()) {
        const auto name = entry_names(shop, list.key).front();
        for (const auto& f : shop_figures(shop, list.key, name)) {
            if ((f.is != Is::number && f.is != Is::whole) || !(f.low < f.high)) continue;
            INFO(list.key << " " << f.pointer);
            for (const double end : {f.low, f.high}) {
                const Json value = f.is == Is::whole ? Json(static_cast<int>(end)) : Json(end);
                const auto next = with_figure(shop, list.key, name, f.pointer, value, kOurs);
                CHECK(figure(shop_figures(next, list.key, name), f.pointer).value == value);
            }
            CHECK_THROWS_AS(with_figure(shop, list.key, name, f.pointer,
                                        f.is == Is::whole ? Json(static_cast<int>(f.high) + 1)
                                                          : Json(f.high * 1.01 + 1e-3 * (f.high - f.low)),
                                        kOurs),
                            InputError);
            ++tried;
        }
    }
    CHECK(tried > 120);
}
