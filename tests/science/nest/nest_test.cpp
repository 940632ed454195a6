#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>

#include "core/science/nest/cut_sheets.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"

using namespace jig;

namespace {

SheetSet torus_sheets(const SheetRules& rules) {
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

TEST_CASE("what fits to the millimetre goes on, and what fits aslant is laid aslant") {
    SheetRules rules{1.0, 0.5, 0.002, 0.01, false};
    const auto laid = [&](const std::vector<Loop>& loops) { return nest(loops, rules, quiet); };
    CHECK(laid({rectangle(0, 0, 0.98, 0.48)}).sheets == 1);
    CHECK(laid({rectangle(0, 0, 0.48, 0.98)}).sheets == 1);
    CHECK(laid({rectangle(0, 0, 0.9801, 0.48)}).sheets == 0);
    // Two halves and a kerf between.
    CHECK(laid({rectangle(0, 0, 0.489, 0.48), rectangle(5, 5, 5.489, 5.48)}).sheets == 1);
    // A round plate as wide as the room.
    Loop disc;
    for (int i = 0; i < 90; ++i)
        disc.emplace_back(0.24 * std::cos(i * kPi / 45), 0.24 * std::sin(i * kPi / 45));
    CHECK(laid({disc, disc}).sheets == 1);
    // A long thin strip lies along the diagonal only; not where the sheet has a grain.
    const std::vector<Loop> strip{rectangle(0, 0, 1.05, 0.02)};
    const auto aslant = laid(strip);
    REQUIRE(aslant.sheets == 1);
    for (const auto& p : strip[0]) {
        const auto at = aslant.placed[0].at(p);
        CHECK(at.x() > 0.0099);
        CHECK(at.y() > 0.0099);
        CHECK(at.x() < 0.9901);
        CHECK(at.y() < 0.4901);
    }
    rules.grain = true;
    CHECK(laid(strip).sheets == 0);
}

TEST_CASE("hundreds of pieces lie apart by the kerf and inside the margin, and waste no more than few do") {
    const SheetRules rules{1.5, 1.0, 0.004, 0.01, false};
    std::vector<Loop> pieces;
    for (int n = 0; n < 150; ++n) {
        Loop l;
        const double r = 0.03 + 0.0002 * n;
        // Stars, so that one reaches between the arms of another.
        for (int i = 0; i < 10; ++i) {
            const double s = i % 2 ? 0.55 * r : r, a = i * kPi / 5 + 0.1 * n;
            l.emplace_back(s * std::cos(a), s * std::sin(a));
        }
        pieces.push_back(l);
    }
    const auto set = nest(pieces, rules, quiet);
    std::vector<Loops> sheets(static_cast<std::size_t>(set.sheets));
    double area = 0;
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        REQUIRE(set.placed[i].sheet >= 0);
        Loop moved;
        for (const auto& p : pieces[i]) moved.push_back(set.placed[i].at(p));
        CHECK(low_corner({moved}).minCoeff() > 0.01 - 3e-5);
        CHECK(high_corner({moved}).x() < 1.49 + 1e-5);
        CHECK(high_corner({moved}).y() < 0.99 + 1e-5);
        // Grown by half the kerf none meets another.
        for (auto& l : offset({moved}, 0.00199))
            sheets[static_cast<std::size_t>(set.placed[i].sheet)].push_back(l);
        area += signed_area(pieces[i]);
    }
    for (const auto& all : sheets) {
        double sum = 0;
        for (const auto& l : all) sum += signed_area(l);
        CHECK(net_area(united(all)) == Approx(sum).epsilon(1e-6));
    }
    CHECK(set.sheets <= static_cast<int>(std::ceil(area / (1.5 * 1.0) / 0.4)));
}

TEST_CASE("a tube in a tube keeps its bore") {
    const auto ring = [](double out, double in) {
        const auto circle = [](double r, bool hole) {
            Loop l;
            for (int i = 0; i < 60; ++i) {
                const double a = (hole ? -1 : 1) * i * kPi / 30;
                l.emplace_back(r * std::cos(a), r * std::sin(a));
            }
            return l;
        };
        return std::array{circle(out, false), circle(in, true)};
    };
    const auto [a, b] = ring(0.4, 0.3);
    const auto [c, d] = ring(0.2, 0.1);
    for (const auto& loops : {Loops{a, b, c, d}, Loops{d, c, b, a}, Loops{c, a, d, b}}) {
        const auto parts = islands(loops);
        REQUIRE(parts.size() == 2);
        REQUIRE(parts[0].size() == 2);
        REQUIRE(parts[1].size() == 2);
        CHECK(net_area(parts[0]) == Approx(signed_area(a) + signed_area(b)));
        CHECK(net_area(parts[1]) == Approx(signed_area(c) + signed_area(d)));
    }
}

TEST_CASE("hollow pieces lie apart, and what touches without a kerf is not taken for overlapping") {
    // Crescents of many sizes: the library's no-fit polygons of such are now and then too small.
    std::vector<Loop> crescents;
    for (int i = 0; i < 26; ++i) {
        Loop loop;
        const double r = 0.08 + 0.013 * (i % 7), thick = 0.3 + 0.05 * (i % 4), turn = 0.4 * i;
        for (int k = 0; k <= 20; ++k)
            loop.push_back(r * Point2(std::cos(turn + 0.12 * k), std::sin(turn + 0.12 * k)));
        for (int k = 20; k >= 0; --k)
            loop.push_back((1 - thick) * r * Point2(std::cos(turn + 0.12 * k), std::sin(turn + 0.12 * k)));
        crescents.push_back(std::move(loop));
    }
    const auto apart = nest(crescents, {1.2, 0.6, 0.002, 0.005, false}, quiet);
    for (std::size_t i = 0; i < crescents.size(); ++i) {
        REQUIRE(apart.placed[i].sheet >= 0);
        for (std::size_t j = 0; j < i; ++j) {
            if (apart.placed[i].sheet != apart.placed[j].sheet) continue;
            Loops a(1), b(1);
            for (const auto& p : crescents[i]) a[0].push_back(apart.placed[i].at(p));
            for (const auto& p : crescents[j]) b[0].push_back(apart.placed[j].at(p));
            CHECK(net_area(shared(a, b)) < 1e-9);
        }
    }
    const std::vector<Loop> squares(4, rectangle(0, 0, 0.5, 0.5));
    const auto full = nest(squares, {1.0, 1.0, 0, 0, false}, quiet);
    CHECK(full.sheets == 1);
    CHECK(full.yield == Approx(1));
}

TEST_CASE("a nest never takes more sheets than rows of boxes do") {
    // Boards that fill sheets by hand: two by two, three by three, planks beside each other, brick by brick.
    const SheetRules rules{1.22, 1.22, 0.002, 0.01, false};
    const auto sheets = [&](double length, double width, int count, bool grain) {
        auto asked = rules;
        asked.grain = grain;
        const std::vector<Loop> boards(static_cast<std::size_t>(count),
                                       rectangle(-1, 2, -1 + length, 2 + width));
        const auto laid = nest(boards, asked, quiet);
        Loops all;
        for (const auto& p : laid.placed) {
            REQUIRE(p.sheet >= 0);
            Loops one(1);
            for (const auto& corner : boards.front()) one[0].push_back(p.at(corner));
            CHECK(low_corner(one).minCoeff() > 0.01 - 3e-5);
            CHECK(high_corner(one).maxCoeff() < 1.21 + 3e-5);
            if (grain) CHECK((high_corner(one) - low_corner(one)).x() == Approx(length));
            if (p.sheet == 0) all.push_back(one[0]);
        }
        CHECK(net_area(united(all)) == Approx(length * width * static_cast<double>(all.size())));
        return laid.sheets;
    };
    for (const bool grain : {false, true}) {
        CHECK(sheets(0.599, 0.599, 4, grain) == 1);
        CHECK(sheets(0.599, 0.599, 5, grain) == 2);
        CHECK(sheets(0.398, 0.398, 9, grain) == 1);
        CHECK(sheets(0.398, 0.398, 19, grain) == 3);
        CHECK(sheets(1.2, 0.118, 10, grain) == 1);
        CHECK(sheets(0.598, 0.198, 12, grain) == 1);
    }
    // Up the sheet without grain they lie down; with grain they may not.
    CHECK(sheets(0.118, 1.2, 10, false) == 1);
    CHECK(sheets(0.118, 1.2, 10, true) == 1);
    CHECK(sheets(0.3, 1.2, 4, true) == 2);
}
