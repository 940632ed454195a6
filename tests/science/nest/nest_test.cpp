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
