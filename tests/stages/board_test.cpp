// Parting boards: outlines, dowels, supports, leaning faces and what laying flat may cost.
#include <catch2/catch.hpp>

#include "core/science/mesh/measure.hpp"
#include "core/science/mesh/outline_file.hpp"
#include "core/science/mesh/rays.hpp"
#include "core/science/mesh/stl.hpp"
#include "core/science/mesh/sweep.hpp"
#include "core/stages/split/board.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace jig::split {

namespace {

std::vector<split::Board> boards_of(const TriangleMesh& mesh, Choices c) {
    c.way = SplitWay::plane;
    const Point at(c.plane_at[0], c.plane_at[1], c.plane_at[2]);
    const auto set = pieces_by_plane(mesh, RayMesh(mesh), at, Point::UnitZ(), 0.03, quiet);
    return parting_boards(mesh, topology_of(mesh), set, c, 0.008, quiet);
}

double flat_area(const TriangleMesh& mesh) {
    double sum = 0;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) sum += mesh.area_vector2(f).norm() / 2;
    return sum;
}

}  // namespace

TEST_CASE("the parting board of a plane is the part's outline grown by stand-off and width") {
    Choices c;
    c.stand_off = 0.002;
    c.board_width = 0.08;
    const auto mesh = shapes::turned({{0.2, 0}, {0.3, 0.25}, {0.22, 0.5}}, 120);
    c.plane_at = {0, 0, 0.25};
    const auto boards = boards_of(mesh, c);
    REQUIRE(boards.size() == 1);
    CHECK(boards[0].outline.size() == 2);
    CHECK(boards[0].area == Approx(kPi * (0.382 * 0.382 - 0.302 * 0.302)).epsilon(2e-3));
    CHECK(boards[0].length == Approx(2 * kPi * 0.302).epsilon(2e-3));
    // A ring gets two: outside it and in its hole.
    const auto ring = shapes::torus(0.3, 0.1, 64);
    c.plane_at = {0, 0, 0};
    const auto two = boards_of(ring, c);
    REQUIRE(two.size() == 2);
    CHECK(std::min(two[0].area, two[1].area) == Approx(kPi * (0.198 * 0.198 - 0.118 * 0.118)).epsilon(5e-3));
}

TEST_CASE("a strip is laid flat with every edge as long as it was") {
    // A quarter of a cone's rim: near circle of radius 0.3, far one of 0.4, 0.1 higher.
    Line near, far;
    for (int i = 0; i <= 40; ++i) {
        const double a = kPi / 2 * i / 40;
        near.emplace_back(0.3 * std::cos(a), 0.3 * std::sin(a), 0);
        far.emplace_back(0.4 * std::cos(a), 0.4 * std::sin(a), 0.1);
    }
    const auto flat = unrolled(near, far);
    REQUIRE(flat.size() == 82);
    // A cone's strip is a sector of a ring: radii r·√2 with the slope of 45°.
    CHECK(std::abs(signed_area(flat)) ==
          Approx(kPi / 4 / std::sqrt(2.0) * (0.4 * 0.4 - 0.3 * 0.3) * 2).epsilon(2e-3));
    CHECK((flat[1] - flat[0]).norm() == Approx((near[1] - near[0]).norm()));
    CHECK((flat[0] - flat[81]).norm() == Approx(0.1 * std::sqrt(2.0)));
    CHECK(unrolled({{0, 0, 0}}, {{1, 0, 0}}).empty());
    Choices c;
    CHECK(clay_volume(2, c, 0.012) == Approx(2 * (c.stand_off * 0.012 + (1 - kPi / 4) * 36e-6)));
}

TEST_CASE("a board's cut file reads back as drawn") {
    Choices c;
    const auto mesh = shapes::turned({{0.2, 0}, {0.3, 0.25}, {0.22, 0.5}}, 120);
    c.plane_at = {0, 0, 0.25};
    const auto boards = boards_of(mesh, c);
    const auto sheets = boards_on_sheets(boards);
    REQUIRE(sheets.sheets.size() == 1);
    fixtures::Folder folder;
    write_sheet_dxf(sheets, 0, folder / "board.dxf");
    // The largest outline in it is the sheet: the board's own size and 20 mm all round.
    const double side = 2 * (0.3 + c.stand_off + c.board_width) + 0.04;
    const auto back = read_outline(read_file(folder / "board.dxf"), "board.dxf", 1);
    CHECK(signed_area(back) == Approx(side * side).epsilon(2e-3));
    CHECK(read_file(folder / "board.dxf").find("100 mm") != std::string::npos);
}

TEST_CASE("a flat board carries dowels in its middle, holes for them, and legs down to the bench") {
    Choices c;
    c.plane_at = {0, 0, 0.25};
    c.board_width = 0.08;
    c.support_pitch = 0.3;
    const auto mesh = shapes::turned({{0.2, 0}, {0.3, 0.25}, {0.22, 0.5}}, 120);
    const auto board = boards_of(mesh, c).front();
    // Round the middle of the board, no further apart than 0.6 m: a circle of 0.341 m takes four.
    REQUIRE(board.dowels.size() == 4);
    for (const auto& d : board.dowels) CHECK(d.norm() == Approx(0.3 + c.stand_off + 0.04).epsilon(2e-3));
    const auto cut = drilled(board);
    REQUIRE(cut.size() == board.outline.size() + 4);
    CHECK(net_area(cut) == Approx(board.area - 4 * kPi * 0.004 * 0.004).epsilon(1e-4));
    // Its outer edge of 2π·0.381 m takes eight legs of 0.3 m pitch, each as long as the plane is high.
    CHECK(board.supports.size() == 8);
    for (const auto& s : board.supports) CHECK(s.height == Approx(0.25));
    CHECK(board.misfit == 0);
    // Its release face lies in the plane and looks up, along the first piece's pull.
    CHECK(flat_area(board.surface) == Approx(board.area).epsilon(1e-6));
    for (std::size_t f = 0; f < board.surface.triangles.size(); ++f)
        CHECK(board.surface.area_vector2(f).z() > 0);
}

TEST_CASE("a leaning face round a circle is a cone's strip, which lies flat without misfit") {
    Choices c;
    c.plane_at = {0, 0, 0.25};
    c.locating = Locating::leaning;
    c.lean = 0.2;
    c.board_width = 0.08;
    const auto mesh = shapes::turned({{0.2, 0}, {0.3, 0.25}, {0.22, 0.5}}, 240);
    const auto boards = boards_of(mesh, c);
    REQUIRE(boards.size() == 1);
    const auto& board = boards.front();
    CHECK(board.dowels.empty());
    // Slant width times the circle through the strip's middle.
    const double near = 0.3 + c.stand_off * std::cos(0.2), far = near + c.board_width * std::cos(0.2);
    CHECK(board.area == Approx(kPi * (near + far) * 0.08).epsilon(5e-3));
    CHECK(board.misfit < 5e-4);
    double top = -1;
    for (const auto& p : board.surface.points) top = std::max(top, p.z());
    CHECK(top == Approx(0.25 + (c.stand_off + c.board_width) * std::sin(0.2)).epsilon(1e-3));
    for (const auto& s : board.supports) CHECK(s.height == Approx(top).epsilon(1e-3));
}

TEST_CASE("a strip bent both ways says how far it may be out when laid flat") {
    // A seam that runs up and down round a cylinder; the board stands square to the wall, so it is bent both
    // ways wherever the seam turns.
    const auto wavy = [](double wave) {
        TriangleMesh mesh = shapes::turned({{0.3, 0}, {0.3, 0.25}, {0.3, 0.5}}, 96);
        Line line;
        for (int i = 0; i <= 96; ++i) {
            const double a = 2 * kPi * i / 96;
            line.emplace_back(0.3 * std::cos(a), 0.3 * std::sin(a), 0.25 + wave * std::sin(3 * a));
        }
        line.back() = line.front();
        PieceSet set;
        set.pieces.resize(2);
        set.seams = {line};
        Choices c;
        c.way = SplitWay::search;
        return parting_boards(mesh, topology_of(mesh), set, c, 0.008, quiet).front();
    };
    const auto flat = wavy(0), bent = wavy(0.05);
    CHECK(flat.misfit < 1e-3);
    CHECK(bent.misfit > 5 * flat.misfit);
    CHECK(bent.misfit > 1e-3);
    CHECK(bent.developed);
}

TEST_CASE("a board becomes a plate of its stock's thickness") {
    Choices c;
    c.plane_at = {0, 0, 0.25};
    const auto mesh = shapes::turned({{0.2, 0}, {0.3, 0.25}, {0.22, 0.5}}, 120);
    const auto board = boards_of(mesh, c).front();
    const auto plate = plated(board.surface, 0.012);
    const auto topology = topology_of(plate);
    CHECK(topology.closed());
    CHECK(measure(plate, topology).volume == Approx(board.area * 0.012).epsilon(1e-6));
}

}  // namespace jig::split
