#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>

#include "core/science/nest/cut_sheets.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace {

SheetSet torus_sheets(const SheetRules& rules) {
    Progress quiet;
    const auto ring = shapes::torus(0.3, 0.1, 48);
    return lay_onto_sheets(pieces_of(slabs(ring, topology_of(ring), Point::UnitZ(), 0.05, quiet)), rules,
                           quiet);
}

}  // namespace

TEST_CASE("slabs lie on their sheets, apart from each other and inside the margin") {
    SheetRules rules;
    rules.length = 2.0;
    rules.width = 1.0;
    const auto set = torus_sheets(rules);
    REQUIRE(set.sheets.size() == 2);
    CHECK(set.too_large.empty());
    CHECK(set.yield > 0.3);
    int pieces = 0;
    for (const auto& sheet : set.sheets) {
        Loops all;
        double sum = 0;
        for (const auto& piece : sheet.pieces) {
            ++pieces;
            CHECK(low_corner(piece.loops).minCoeff() >= rules.margin - 1e-4);
            CHECK(high_corner(piece.loops).x() <= rules.length - rules.margin + 1e-4);
            CHECK(high_corner(piece.loops).y() <= rules.width - rules.margin + 1e-4);
            all.push_back(piece.loops.front());
            sum += std::abs(signed_area(piece.loops.front()));
        }
        // Pieces that overlapped would cover less together than one by one.
        CHECK(std::abs(net_area(united(all))) == Approx(sum).epsilon(1e-5));
    }
    CHECK(pieces == 4);
}

TEST_CASE("what is larger than a sheet is named") {
    SheetRules rules;
    rules.length = rules.width = 0.5;
    const auto set = torus_sheets(rules);
    CHECK(set.sheets.empty());
    CHECK(set.too_large == std::vector<std::string>{"1", "2", "3", "4"});
    rules.margin = 0.3;
    CHECK_THROWS_AS(torus_sheets(rules), InputError);
}

TEST_CASE("cut files hold every outline in millimetres and a check bar") {
    const auto set = torus_sheets({2.0, 1.0, 0.002, 0.01});
    const auto svg = sheet_svg(set, 0);
    CHECK(svg.find("width=\"2000.000mm\"") != std::string::npos);
    CHECK(svg.find("100 mm") != std::string::npos);
    const auto path = (std::filesystem::temp_directory_path() / "jigshell-sheet-test.dxf").string();
    write_sheet_dxf(set, 0, path);
    std::ifstream in(path);
    const std::string dxf((std::istreambuf_iterator<char>(in)), {});
    std::size_t outlines = 1;  // the sheet itself
    for (const auto& piece : set.sheets[0].pieces) outlines += piece.loops.size();
    std::size_t found = 0;
    for (auto at = dxf.find("LWPOLYLINE\n"); at != std::string::npos; at = dxf.find("LWPOLYLINE\n", at + 1))
        ++found;
    CHECK(found == outlines);
    std::filesystem::remove(path);
    CHECK_THROWS_AS(write_sheet_dxf(set, 0, "/nowhere/at/all.dxf"), InputError);
}

TEST_CASE("sheets with a grain turn pieces by half only, and what is left over is listed") {
    SheetRules rules;
    rules.length = 1.0;
    rules.width = 0.3;
    Progress quiet;
    const auto piece = [](const char* name, double l, double w) {
        CutPiece p;
        p.name = name;
        p.outline = {{{0, 0}, {l, 0}, {l, w}, {0, w}}};
        return p;
    };
    // It goes on standing across the sheet, which a grain forbids.
    const std::vector<CutPiece> tall{piece("tall", 0.2, 0.6)};
    CHECK(lay_onto_sheets(tall, rules, quiet).sheets.size() == 1);
    rules.grain = true;
    CHECK(lay_onto_sheets(tall, rules, quiet).too_large == std::vector<std::string>{"tall"});
    const auto set = lay_onto_sheets({piece("a", 0.4, 0.25)}, rules, quiet);
    REQUIRE(set.sheets.size() == 1);
    REQUIRE(set.offcuts.size() == 1);
    // Thinning for the nester keeps a few millimetres more than the piece.
    CHECK(set.offcuts[0].length == Approx(1.0 - 0.4 - rules.margin - rules.kerf).margin(0.006));
    CHECK(set.offcuts[0].width == Approx(0.3));
}

TEST_CASE("a piece cut from inside another goes where that one goes") {
    CutPiece ring;
    ring.name = "1";
    ring.outline = {{{0, 0}, {0.5, 0}, {0.5, 0.5}, {0, 0.5}},
                    {{0.1, 0.1}, {0.1, 0.4}, {0.4, 0.4}, {0.4, 0.1}}};
    CutPiece core;
    core.name = "2";
    core.inside = 0;
    core.outline = {{{0.15, 0.15}, {0.35, 0.15}, {0.35, 0.35}, {0.15, 0.35}}};
    core.engraved = {{{0.2, 0.2}, {0.3, 0.2}}};
    Progress quiet;
    const auto set = lay_onto_sheets({ring, core}, {0.6, 0.6, 0.002, 0.01}, quiet);
    REQUIRE(set.sheets.size() == 1);
    REQUIRE(set.sheets[0].pieces.size() == 2);
    const auto& laid = set.sheets[0].pieces;
    // Wholly inside the ring's hole, and the ring's own name lies on the ring.
    auto hole = laid[0].loops[1];
    std::reverse(hole.begin(), hole.end());
    CHECK(net_area(taken_off(laid[1].loops, {hole})) < 1e-9);
    CHECK(holds(laid[0].loops, laid[0].mark));
    CHECK(holds(laid[1].loops, laid[1].mark));
    CHECK(set.yield == Approx((0.25 - 0.09 + 0.04) / 0.36));
    CHECK(laid[1].engraved.size() == 1);
    const auto svg = sheet_svg(set, 0);
    CHECK(svg.find("id=\"engraved\"") != std::string::npos);
}
