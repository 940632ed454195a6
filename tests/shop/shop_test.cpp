#include <catch2/catch.hpp>
#include <fstream>

#include "core/shop/layup.hpp"
#include "tests/job/fixtures.hpp"

using namespace jig;
using fixtures::Folder;

TEST_CASE("the shipped library is whole and every figure says where it comes from") {
    const auto& shop = fixtures::shop();
    int entries = 0;
    Shop::lists(shop, [&](std::string_view name, const auto& list) {
        INFO(name);
        CHECK_FALSE(list.empty());
        for (const auto& e : list) {
            INFO(e.name);
            CHECK_FALSE(e.origin.note.empty());
            CHECK_FALSE(e.origin.date.empty());
            ++entries;
        }
    });
    CHECK(entries > 100);
    for (const int w : {225, 300, 450, 600})
        CHECK(find(shop.reinforcements, "glass mat " + std::to_string(w)) != nullptr);
    CHECK_THROWS_AS(shop.rate("no such rate"), InputError);
}

TEST_CASE("a shop's own lists lie over the shipped ones, entry by entry") {
    Folder own;
    std::ofstream(own / "resins.json")
        << R"({"entries": [{"name": "vinyl ester", "price_kg": 99, "origin": {"kind": "measured here", "date": "2026-05", "note": "last invoice"},
        "origins": {"price_kg": {"kind": "data sheet", "note": "price list"}}}, {"name": "our brew", "Tg_K": 333}]})";
    const auto shop = load_shop(fixtures::data() + "/library", own.path.string());
    const auto& resin = need(shop.resins, "vinyl ester", "test");
    CHECK(resin.price == 99);
    CHECK(resin.origin_of("price_kg").kind == OriginKind::data_sheet);
    CHECK(resin.origin_of("Tg_K").kind == OriginKind::measured);
    CHECK(find(shop.resins, "our brew") != nullptr);
    CHECK(shop.resins.size() == fixtures::shop().resins.size() + 1);
    // What is written is what is read.
    Shop again = shop;
    read_list(again, "resins", write_list(shop, "resins"), "again");
    CHECK(again == shop);
}

TEST_CASE("faulty lists name the entry and the figure") {
    auto shop = fixtures::shop();
    const auto refusal = [&](const char* list, const char* text) {
        try {
            read_list(shop, list, text, "own.json");
        } catch (const InputError& e) {
            return std::string(e.what());
        }
        return std::string();
    };
    // A roll without length would make every cutting plan infinite.
    CHECK_THAT(refusal("reinforcements", R"({"entries": [{"name": "glass mat 300", "roll_length_m": 0}]})"),
               Catch::Contains("glass mat 300") && Catch::Contains("roll_length_m"));
    CHECK_THAT(refusal("resins", R"({"entries": [{"name": "x", "family": "treacle"}]})"),
               Catch::Contains("family"));
    CHECK_THAT(refusal("boards", R"({"entries": [{"density_kg_m3": 5}]})"), Catch::Contains("name"));
    CHECK_THAT(refusal("boards", R"({"entries": {}})"), Catch::Contains("list"));
    CHECK(shop == fixtures::shop());
}

TEST_CASE("layers take thickness, resin and price from their material") {
    const auto& shop = fixtures::shop();
    const auto& resin = need(shop.resins, "epoxy, room temperature slow", "test");
    const auto laid = lay_up({{LayerKind::ply, "glass cloth 300 twill", 0, 0},
                              {LayerKind::core, "PVC foam 75, 10 mm", 0, 0},
                              {LayerKind::ply, "glass cloth 300 twill", 0, 0.0003}},
                             resin, LayUp::hand, shop, "test");
    CHECK(laid[0].ply.thickness == Approx(0.3 / (2550 * 0.40)));
    CHECK(laid[0].resin == Approx(0.6 * laid[0].ply.thickness * 1150));
    CHECK(laid[0].mass() == Approx(laid[0].ply.thickness * laid[0].ply.material.density));
    CHECK(laid[1].resin == Approx(2 * need(shop.cores, "PVC foam 75, 10 mm", "test").uptake));
    // A thickness measured here sets the fibre share: 0.3 / (2550 * 0.0003).
    CHECK(laid[2].fibre_volume == Approx(0.3 / (2550 * 0.0003)));
    CHECK(laid[2].origin.kind == OriginKind::measured);
    CHECK_THROWS_WITH(lay_up({{LayerKind::ply, "straw", 0, 0}}, resin, LayUp::hand, shop, "shell"),
                      Catch::Contains("shell layer 1") && Catch::Contains("straw"));
    // Bagging squeezes resin out of the same cloth.
    const auto bagged =
        lay_up({{LayerKind::ply, "glass cloth 300 twill", 0, 0}}, resin, LayUp::bagged, shop, "test");
    CHECK(bagged[0].resin < laid[0].resin);
    CHECK(bagged[0].fibre == laid[0].fibre);
}
