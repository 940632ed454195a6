// Cuts in the part's cloth: where they lie, which plies have them, what the kit makes of them, and where they
// are sought.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/base/error.hpp"
#include "core/base/units.hpp"
#include "core/stages/part/cut_line.hpp"
#include "core/stages/part/cuts_sought.hpp"
#include "core/stages/part/kit.hpp"
#include "core/stages/part/roll_seams.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"
#include "tests/shapes.hpp"
#include "tests/stages/bare_tool.hpp"

using namespace jig;
using fixtures::bare_tool;
using fixtures::kLevel;
using fixtures::shop;
using shapes::cap;

namespace {

constexpr double kTrim = 0.02, kLap = 0.03;
constexpr const char* kCloth = "glass cloth 200 plain";

/// Plies of that cloth, all at 0°.
part::Choices plies(std::size_t n, const char* cloth = kCloth) {
    part::Choices out;
    out.layers.assign(n, {LayerKind::ply, cloth, 0, 0});
    out.kit = {kTrim, kLap};
    return out;
}

part::Draped lay(const part::Choices& c, const TriangleMesh& mesh, const Frame& frame = kLevel) {
    return part::draped(part::cloth_asked(c), bare_tool(mesh, frame), shop(), quiet);
}

part::Kit kit_of(const part::Choices& c, const TriangleMesh& mesh) {
    return part::kit(c, lay(c, mesh), kLevel, shop(), kTrim, kLap, quiet);
}

part::SoughtCuts sought(const part::Choices& c, const TriangleMesh& mesh, const Frame& frame = kLevel) {
    return part::seek_cuts(part::cloth_asked(c), bare_tool(mesh, frame), shop(), quiet);
}

/// A flat face of 0.8 × 0.5 m, its middle at the origin.
TriangleMesh board() {
    return shapes::sheet(32, 20,
                         [](double u, double v) { return Point(0.8 * (u - 0.5), 0.5 * (v - 0.5), 0); });
}

/// Of the pieces that make up a ply, largest first.
std::vector<double> areas(const part::Kit& kit, std::size_t layer) {
    std::vector<double> out;
    for (const auto& p : kit.pieces) {
        if (p.of.layer == layer) out.push_back(p.area);
    }
    std::sort(out.rbegin(), out.rend());
    return out;
}

/// m² of a rectangle with corners rounded by `r`.
double rounded(double l, double w, double r) {
    return l * w - (4 - kPi) * r * r;
}

}  // namespace

TEST_CASE("a seam parts a ply into pieces that lie over each other by a lap, larger along the rim alone") {
    for (const char* cloth : {kCloth, "glass mat 300"}) {
        auto c = plies(1, cloth);
        c.cuts = {{{{0.1, -1}, {0.1, 1}}, CutIn::every, 0, 0}};
        const auto kit = kit_of(c, board());
        CAPTURE(cloth);
        const auto cut = areas(kit, 0);
        REQUIRE(cut.size() == 2);
        // Each is a rectangle, larger by the trim on three sides and by half a lap on the fourth.
        CHECK(cut[0] == Approx((0.5 + kTrim + kLap / 2) * (0.5 + 2 * kTrim)).epsilon(2e-3));
        CHECK(cut[1] == Approx((0.3 + kTrim + kLap / 2) * (0.5 + 2 * kTrim)).epsilon(2e-3));
        for (const auto& p : kit.pieces) CHECK(p.joined == 2);
    }
}

TEST_CASE("a dart in a flat ply takes nothing away, and is marked on it") {
    auto c = plies(1);
    c.cuts = {{{{0, 0}, {0, 1}}, CutIn::every, 0, 0}};
    const auto kit = kit_of(c, board());
    REQUIRE(kit.pieces.size() == 1);
    CHECK(kit.pieces[0].area == Approx(rounded(0.8 + 2 * kTrim, 0.5 + 2 * kTrim, kTrim)).epsilon(2e-3));
    double marked = 0;
    for (const auto& line : kit.rolls.at(0).sheets.sheets.at(0).pieces.at(0).engraved) {
        double length = 0;
        for (std::size_t i = 0; i + 1 < line.size(); ++i) length += (line[i + 1] - line[i]).norm();
        marked = std::max(marked, length);
    }
    CHECK(marked >= 0.25 * 0.99);
}

TEST_CASE("a cut is stepped from ply to ply, and the one on the tool may stay whole") {
    auto c = plies(4);
    c.cuts = {{{{0, -1}, {0, 1}}, CutIn::behind, 0, 0.04}};
    const auto kit = kit_of(c, board());
    CHECK(areas(kit, 0).size() == 1);
    const double wide = 0.5 + 2 * kTrim, half = 0.4 + kTrim + kLap / 2;
    // Where it is drawn, to one side, to the other.
    const double aside[] = {0, 0.04, 0.04};
    for (std::size_t ply = 1; ply < 4; ++ply) {
        const auto cut = areas(kit, ply);
        CAPTURE(ply);
        REQUIRE(cut.size() == 2);
        CHECK(cut[0] == Approx((half + aside[ply - 1]) * wide).epsilon(3e-3));
        CHECK(cut[1] == Approx((half - aside[ply - 1]) * wide).epsilon(3e-3));
    }
    const auto draped = lay(c, board());
    CHECK(draped.cuts.size() == 3);
    // The whole ply has a net of its own, and each way of cutting another.
    CHECK(draped.nets.size() == 4);
    for (const auto& laid : draped.cuts) CHECK(laid.length == Approx(0.5).epsilon(1e-6));
}

TEST_CASE("cuts are measured from the face's middle as it is seen along the pull, turned with it") {
    const auto by = shapes::odd_rotation();
    const Frame frame{by * kLevel.u, by * kLevel.v, by * kLevel.w};
    auto moved = board();
    for (auto& p : moved.points) p = by * (p + Point(3, -2, 5));
    auto c = plies(1);
    c.cuts = {{{{-0.2, 0}, {-0.2, 1}}, CutIn::every, 0, 0}};
    const auto draped = lay(c, moved, frame);
    REQUIRE(draped.cuts.size() == 1);
    CHECK(draped.cuts[0].length == Approx(0.25).epsilon(1e-6));
    for (const auto& piece : draped.cuts[0].line) {
        const Point2 seen = frame.flat(piece.a) - frame.flat(by * Point(3, -2, 5));
        CHECK(seen.x() == Approx(-0.2).margin(1e-3));
        CHECK(seen.y() > -1e-3);
    }
}

TEST_CASE("what a cut leaves bare as it opens is covered by a piece of its own") {
    // A saddle's rim is longer than cloth can follow: its cuts open.
    const auto saddle = shapes::sheet(48, 48, [](double u, double v) {
        const double x = 0.8 * (u - 0.5), y = 0.8 * (v - 0.5);
        return Point(x, y, 1.6 * (x * x - y * y));
    });
    auto c = plies(1);
    for (const double a : {1.0, 3.0, 5.0, 7.0})
        c.cuts.push_back({{{0.15 * std::cos(a * kPi / 4), 0.15 * std::sin(a * kPi / 4)},
                           {std::cos(a * kPi / 4), std::sin(a * kPi / 4)}},
                          CutIn::every,
                          0,
                          0});
    const auto draped = lay(c, saddle);
    const auto kit = part::kit(c, draped, kLevel, shop(), kTrim, kLap, quiet);
    double covers = 0, rest = 0;
    std::size_t count = 0;
    for (const auto& p : kit.pieces) {
        (p.cover ? covers : rest) += p.area;
        count += p.cover;
    }
    CHECK(count >= 4);
    // Together they lie over all of the face.
    CHECK(rest + covers > draped.area);
    const auto bare = draped.nets.at(0).drape.flat_area -
                      net_area(united(flat_outlines(draped.nets[0].drape, *draped.face)));
    CHECK(bare > 1e-4);
    CHECK(covers > bare);
}

TEST_CASE("darts are sought where cloth locks, and leave little of it locked") {
    const auto c = plies(2);
    const auto dome = cap(0.4, 1.5, 40, 96);
    const auto found = sought(c, dome);
    const double area = shapes::area_of(dome);
    REQUIRE(found.before > 0.02 * area);
    CHECK(found.found >= 1);
    CHECK(found.found <= part::kMostFound);
    CHECK(found.cuts.size() == found.found);
    CHECK(found.after < 0.25 * found.before);
    CHECK(found.tried >= static_cast<int>(found.found));
    // What it says is what the cloth then does.
    auto cut = c;
    cut.cuts = found.cuts;
    const auto draped = lay(cut, dome);
    CHECK(draped.worst()->drape.locked == Approx(found.after));
    double length = 0;
    for (const auto& laid : draped.cuts) {
        CHECK(laid.length > 0);
        length += laid.length;
    }
    CHECK(length == Approx(found.length));
    // Sought once more, those that are there stay, and no more are wanted than help.
    const auto again = sought(cut, dome);
    CHECK(again.cuts.size() >= found.cuts.size());
    CHECK(std::equal(found.cuts.begin(), found.cuts.end(), again.cuts.begin()));
    CHECK(again.after <= again.before + 1e-12);
}

TEST_CASE("plies at another angle lock elsewhere, and are cut there") {
    auto c = plies(3);
    c.layers[1].angle = kPi / 4;
    const auto dome = cap(0.4, 1.5, 40, 96);
    const auto found = sought(c, dome);
    CHECK(found.after < 0.25 * found.before);
    auto cut = c;
    cut.cuts = found.cuts;
    const auto draped = lay(cut, dome);
    std::size_t square = 0, bias = 0;
    for (const auto& one : found.cuts) {
        REQUIRE(one.in == CutIn::angle);
        (one.angle == 0 ? square : bias)++;
    }
    REQUIRE(square > 0);
    REQUIRE(bias > 0);
    for (std::size_t ply = 0; ply < 3; ++ply)
        CHECK(draped.cut_plies.at({-1, ply}).size() == (ply == 1 ? bias : square));
    // A ply turned by a quarter lies alike, one by a little does not.
    c.layers[1].angle = -kPi / 2;
    for (const auto& one : sought(c, dome).cuts) CHECK(one.in == CutIn::every);
    CHECK(part::alike(radians(-45)) == part::alike(radians(45)));
    CHECK(part::alike(radians(135)) == part::alike(radians(45)));
    CHECK(part::alike(radians(46)) != part::alike(radians(45)));
    CHECK(part::alike(radians(-0.001)) == 0);
}

TEST_CASE("a turned face is cut as well as a level one") {
    const auto c = plies(1);
    const auto dome = cap(0.3, 1.5, 30, 72);
    const auto by = shapes::odd_rotation();
    const Frame frame{by * kLevel.u, by * kLevel.v, by * kLevel.w};
    const auto level = sought(c, dome), turned = sought(c, shapes::rotated(dome, by), frame);
    REQUIRE(level.before > 0);
    CHECK(turned.before == Approx(level.before).epsilon(0.02));
    CHECK(turned.after == Approx(level.after).margin(0.1 * level.before));
}

TEST_CASE("nothing is cut where nothing locks, nor where there is no cloth") {
    const auto flat = sought(plies(2), board());
    CHECK(flat.found == 0);
    CHECK(flat.tried == 0);
    CHECK(flat.before == 0);
    auto none = plies(0);
    CHECK(sought(none, board()).found == 0);
    CHECK(sought(plies(1, "glass mat 300"), cap(0.4, 1.2, 20, 48)).found == 0);
}

TEST_CASE("odd cuts are laid, named or refused, and lose nothing") {
    const auto dome = cap(0.4, 0.8, 20, 48);
    auto c = plies(2);
    const auto whole_of = [](const part::Draped& d) {
        return net_area(united(flat_outlines(d.nets.at(0).drape, *d.face)));
    };
    const double whole = whole_of(lay(c, dome));
    for (const auto& line :
         {std::vector<part::Spot>{}, {{0.1, 0.1}}, {{5, 5}, {6, 6}}, {{0.1, 0}, {0.1, 0}}}) {
        c.cuts = {{line, CutIn::every, 0, 0}};
        const auto draped = lay(c, dome);
        CHECK(std::all_of(draped.cuts.begin(), draped.cuts.end(),
                          [](const auto& l) { return l.edges.empty(); }));
        CHECK(whole_of(draped) == Approx(whole));
    }
    // One drawn twice is one.
    c.cuts = {{{{0.1, 0}, {1, 0}}, CutIn::every, 0, 0}};
    const auto once = lay(c, dome);
    c.cuts.push_back(c.cuts[0]);
    const auto twice = lay(c, dome);
    CHECK(twice.nets.at(0).drape.covered == Approx(once.nets.at(0).drape.covered));
    CHECK(twice.nets.at(0).drape.most == Approx(once.nets.at(0).drape.most).epsilon(1e-6));
    c.cuts.assign(part::kMostCuts + 1, {{{0, 0}, {0, 1}}, CutIn::every, 0, 0});
    CHECK_THROWS_AS(lay(c, dome), InputError);
}

TEST_CASE("an end that is dragged close to the rim runs out past it, one in the face stays where it is put") {
    const auto draped = lay(plies(1), board());
    part::Cut cut{{{0.1, 0.05}, {0.3, 0.05}}, CutIn::every, 0, 0};
    part::move_corner(cut, 1, {0.2, 0.1}, draped, kLevel);
    CHECK(cut.line[1] == part::Spot{0.2, 0.1});
    part::move_corner(cut, 1, {0.1, 0.25 - draped.cell}, draped, kLevel);
    CHECK(cut.line[1].along == Approx(0.1));
    CHECK(cut.line[1].across > 0.25);
    part::move_corner(cut, 5, {0, 0}, draped, kLevel);
    CHECK(cut.line.size() == 2);
}

TEST_CASE("a job says what is wrong with its cuts, and mends it") {
    auto job = fixtures::small_job();
    job.part.layers = {
        {LayerKind::ply, kCloth, 0, 0}, {LayerKind::ply, kCloth, 0, 0}, {LayerKind::ply, kCloth, 0, 0}};
    job.part.zones.clear();
    job.part.joint.kind = JointKind::bead;
    job.part.joint.gap = 0.0003;
    job.part.cuts = {{{{0, -5}, {0, 5}}, CutIn::every, 0, 0}, {{{8, 8}, {9, 9}}, CutIn::every, 0, 0}};
    const auto found = fixtures::worked_out(job);
    const auto call = [&](const Findings& f, const std::string& key) -> const Call* {
        for (const auto& one : f.calls) {
            if (one.key == key) return &one;
        }
        return nullptr;
    };
    const auto* nowhere = call(found, "cut_nowhere");
    REQUIRE(nowhere != nullptr);
    CHECK(worded(nowhere->headline).find("Cut 2") != std::string::npos);
    REQUIRE(nowhere->fix);
    auto mended = patched(job, nowhere->fix->patch);
    CHECK(mended.part.cuts.size() == 1);
    const auto* laps = call(found, "laps");
    REQUIRE(laps != nullptr);
    REQUIRE(laps->fix);
    // Three plies lie over themselves at one place: as thick again as all of them.
    CHECK(found.part->lapped == Approx(found.part->stack.laminate.thickness).epsilon(1e-9));
    const auto left = fixtures::worked_out(mended);
    const auto* thick = call(left, "laps");
    REQUIRE(thick != nullptr);
    REQUIRE(thick->fix);
    mended = patched(mended, thick->fix->patch);
    for (const auto& cut : mended.part.cuts) CHECK(cut.step == Approx(job.part.kit.lap));
    const auto better = fixtures::worked_out(mended);
    CHECK(call(better, "cut_nowhere") == nullptr);
    CHECK(better.part->lapped == Approx(found.part->lapped / 3).epsilon(1e-9));
}

namespace {

part::RollSeams seams(const part::Choices& c, const TriangleMesh& mesh, const Frame& frame = kLevel) {
    return part::seams_by_roll(c, lay(c, mesh, frame), bare_tool(mesh, frame), shop(), quiet);
}

part::Choices with(part::Choices c, std::vector<part::Cut> cuts) {
    c.cuts = std::move(cuts);
    return c;
}

/// A shop whose cloth and mat come this wide.
Shop narrow_shop(double width) {
    auto out = shop();
    auto all = out.reinforcements;
    for (auto& cloth : all) cloth.roll_width = width;
    out.reinforcements = all;
    return out;
}

}  // namespace

namespace {

/// The same on a face whose cloth comes from narrower rolls.
struct NarrowRolls {
    TriangleMesh mesh;
    Shop shop;
    Frame frame = kLevel;
    [[nodiscard]] part::Draped lay(const part::Choices& c) const {
        return part::draped(part::cloth_asked(c), bare_tool(mesh, frame), shop, quiet);
    }
    [[nodiscard]] part::RollSeams seams(const part::Choices& c) const {
        return part::seams_by_roll(c, lay(c), bare_tool(mesh, frame), shop, quiet);
    }
    [[nodiscard]] part::Kit kit(const part::Choices& c) const {
        return part::kit(c, lay(c), frame, shop, kTrim, kLap, quiet);
    }
};

double across_roll(const part::KitPiece& piece) {
    return high_corner(piece.outline).y() - low_corner(piece.outline).y();
}

}  // namespace

TEST_CASE("seams by the roll are the fewest that fit, and pieces keep within it") {
    for (const char* cloth : {kCloth, "glass mat 300"}) {
        CAPTURE(cloth);
        const NarrowRolls narrow{board(), narrow_shop(0.24)};
        const auto c = plies(1, cloth);
        const auto found = narrow.seams(c);
        // 0.5 m across in pieces of 0.22 m less half a lap and the trim: three, hence two seams.
        CHECK(found.wide == 1);
        CHECK(found.left == 0);
        REQUIRE(found.found == 2);
        CHECK(found.length == Approx(2 * 0.8).epsilon(1e-3));
        for (const auto& cut : found.cuts) {
            CHECK(cut.in == CutIn::roll);
            CHECK(cut.step == 0);
            for (const auto& spot : cut.line) CHECK(std::abs(spot.across) == Approx(0.5 / 6).margin(1e-3));
        }
        const auto cut = with(c, found.cuts);
        const auto kit = narrow.kit(cut);
        REQUIRE(kit.pieces.size() == 3);
        for (const auto& piece : kit.pieces) {
            CHECK(across_roll(piece) <= 0.22 + 1e-6);
            CHECK(piece.area == Approx((0.8 + 2 * kTrim) * (0.5 / 3 + kLap)).epsilon(0.06));
        }
        // Once more there is nothing to do.
        CHECK(narrow.seams(cut).wide == 0);
    }
}

TEST_CASE("plies whose rolls cross have seams of their own, each along its roll, and laps are stepped") {
    const NarrowRolls narrow{board(), narrow_shop(0.45)};
    auto c = plies(4);
    c.layers[1].angle = kPi / 2;
    c.layers[3].angle = -kPi / 2;  // the same roll turned round
    const auto found = narrow.seams(c);
    CHECK(found.wide == 4);
    CHECK(found.left == 0);
    // Along the length: 0.5 m in two. Across it: 0.8 m in three.
    REQUIRE(found.found == 3);
    int along = 0, across = 0;
    for (const auto& cut : found.cuts) {
        CHECK(cut.step == Approx(2 * kLap));
        const auto &a = cut.line.front(), &b = cut.line.back();
        if (std::abs(a.across - b.across) < 1e-3) {
            ++along;
            CHECK(part::roll_way(cut.angle) == 0);
        }
        if (std::abs(a.along - b.along) < 1e-3) {
            ++across;
            CHECK(part::roll_way(cut.angle) == Approx(kPi / 2));
        }
    }
    CHECK(along == 1);
    CHECK(across == 2);
    const auto cut = with(c, found.cuts);
    const auto kit = narrow.kit(cut);
    CHECK(areas(kit, 0).size() == 2);
    CHECK(areas(kit, 1).size() == 3);
    for (const auto& piece : kit.pieces) CHECK(across_roll(piece) <= 0.43 + 1e-6);
    // Of two plies that run alike the seams lie twice the lap apart.
    const auto low_edge = [&](std::size_t layer) {
        double out = 1e9;
        for (const auto& p : kit.pieces) {
            if (p.of.layer == layer) out = std::min(out, across_roll(p));
        }
        return out;
    };
    CHECK(std::abs(low_edge(0) - low_edge(2)) == Approx(2 * kLap).margin(2e-3));
}

TEST_CASE("on a face that bends both ways seams follow the cloth, turned in space as well") {
    const auto by = shapes::odd_rotation();
    const Frame aslant{by * kLevel.u, by * kLevel.v, by * kLevel.w};
    const auto level = cap(0.6, 0.5, 12, 48), leaning = shapes::rotated(level, by);
    for (const auto& [turn, turned] : {std::pair(0.0, false), std::pair(0.7, false), std::pair(0.0, true)}) {
        CAPTURE(turn, turned);
        const NarrowRolls narrow{turned ? leaning : level, narrow_shop(0.5), turned ? aslant : kLevel};
        auto c = plies(2);
        c.layers[0].angle = c.layers[1].angle = turn;
        const auto found = narrow.seams(c);
        CHECK(found.wide == 2);
        CHECK(found.left == 0);
        REQUIRE(found.found >= 1);
        const auto cut = with(c, found.cuts);
        const auto kit = narrow.kit(cut);
        CHECK(kit.pieces.size() >= 2 * (found.found + 1));
        double area = 0;
        for (const auto& piece : kit.pieces) {
            CHECK(across_roll(piece) <= 0.48 + 1e-6);
            area += piece.area;
        }
        // Nothing of the face goes without cloth.
        CHECK(area > 2 * narrow.lay(cut).area);
    }
}

TEST_CASE("a ply that fits wants no seam, and one that no seam makes fit is told of and left as it is") {
    const auto mesh = board();
    CHECK(seams(plies(3), mesh).wide == 0);
    CHECK(seams(plies(3), mesh).cuts.empty());
    // So narrow that it would take more cuts than a part may have.
    const NarrowRolls narrow{mesh, narrow_shop(0.09)};
    const auto c = with(plies(1), {{{{0.1, -1}, {0.1, 1}}, CutIn::every, 0, 0}});
    const auto found = narrow.seams(c);
    CHECK(found.wide == 1);
    CHECK(found.left == 1);
    CHECK(found.found == 0);
    CHECK(found.cuts == c.cuts);
    // A roll narrower than its laps leaves no room at all.
    CHECK(NarrowRolls{mesh, narrow_shop(0.04)}.seams(plies(1)).left == 1);
    // Where there is no face there is nothing to part.
    CHECK(part::seams_by_roll(c, part::Draped{}, bare_tool(mesh, kLevel), narrow.shop, quiet).wide == 0);
}
