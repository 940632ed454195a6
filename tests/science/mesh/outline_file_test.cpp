// Outlines from drawings, against areas known in closed form.
#include <catch2/catch.hpp>
#include <random>

#include "core/base/error.hpp"
#include "core/base/units.hpp"
#include "core/science/mesh/outline_file.hpp"

using namespace jig;

namespace {

Loop outline_of(const std::string& bytes, double unit = 1e-3) {
    return read_outline(bytes, "drawing", unit);
}

std::string svg(const std::string& inside, const std::string& head = "") {
    return "<?xml version=\"1.0\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" " + head + ">" + inside +
           "</svg>";
}

std::string dxf(const std::string& entities, const std::string& units = "") {
    return "0\nSECTION\n2\nHEADER\n" + (units.empty() ? "" : "9\n$INSUNITS\n70\n" + units + "\n") +
           "0\nENDSEC\n0\nSECTION\n2\nENTITIES\n" + entities + "0\nENDSEC\n0\nEOF\n";
}

std::string line(double x1, double y1, double x2, double y2) {
    return fmt::format("0\nLINE\n8\n0\n10\n{}\n20\n{}\n30\n0\n11\n{}\n21\n{}\n31\n0\n", x1, y1, x2, y2);
}

}  // namespace

TEST_CASE("SVG shapes, paths and groups come out in their size") {
    CHECK(signed_area(outline_of(svg("<rect x='10' y='20' width='300' height='200'/>"))) == Approx(0.06));
    CHECK(signed_area(outline_of(svg("<circle cx='5' cy='5' r='100'/>"))) ==
          Approx(kPi * 0.01).epsilon(2e-3));
    CHECK(signed_area(outline_of(svg("<ellipse rx='100' ry='50'/>"))) == Approx(kPi * 0.005).epsilon(2e-3));
    CHECK(signed_area(outline_of(svg("<polygon points='0,0 100,0 100,100'/>"))) == Approx(0.005));
    // Relative and absolute, with implied lines, and numbers run together.
    CHECK(signed_area(outline_of(svg("<path d='m0 0 100 0 0 100-100 0z'/>"))) == Approx(0.01));
    CHECK(signed_area(outline_of(svg("<path d='M0,0H100V50h-100Z'/>"))) == Approx(0.005));
    // Two half circles of radius 50.
    CHECK(signed_area(outline_of(svg("<path d='M0 0A50 50 0 0 1 100 0A50 50 0 0 1 0 0Z'/>"))) ==
          Approx(kPi * 0.0025).epsilon(2e-3));
    // A quadratic arch over 100 with its pull at 100: area 2/3·100·50.
    CHECK(signed_area(outline_of(svg("<path d='M0 0Q50 100 100 0Z'/>"))) ==
          Approx(1e-6 * 2.0 / 3 * 100 * 50).epsilon(2e-3));
    // The usual cubic quarter circles, the later ones by their smooth form.
    CHECK(signed_area(
              outline_of(svg("<path d='M100 0C100 55.228 55.228 100 0 100S-100 55.228-100 0S-55.228-100 "
                             "0-100S100-55.228 100 0z'/>"))) == Approx(kPi * 0.01).epsilon(2e-3));
    const auto turned =
        outline_of(svg("<g transform='translate(7 3) rotate(30)'><g transform='scale(2)'><rect width='10' "
                       "height='20'/></g></g>"));
    CHECK(signed_area(turned) == Approx(4 * 200e-6));
    // The page's own size counts before the unit that was chosen.
    CHECK(signed_area(outline_of(svg("<rect width='10' height='10'/>", "width='200mm' viewBox='0 0 100 100'"),
                                 1)) == Approx(400e-6));
    // The largest of several.
    CHECK(signed_area(outline_of(svg("<rect width='10' height='10'/><rect width='30' height='10'/>"))) ==
          Approx(300e-6));
}

TEST_CASE("DXF lines, arcs and bulges join into outlines, in the file's own unit") {
    // A stadium from loose pieces in odd order, 100 between the middles, radius 50.
    const std::string arcs =
        "0\nARC\n8\n0\n10\n100\n20\n0\n30\n0\n40\n50\n50\n270\n51\n90\n0\nARC\n8\n0\n10\n0\n20\n0\n30\n0\n40"
        "\n50\n50\n90\n51\n270\n";
    const auto stadium = outline_of(dxf(line(0, -50, 100, -50) + arcs + line(100, 50, 0, 50)));
    CHECK(signed_area(stadium) == Approx(1e-6 * (100 * 100 + kPi * 2500)).epsilon(2e-3));
    CHECK(signed_area(outline_of(dxf(line(0, -50, 100, -50) + arcs + line(100, 50, 0, 50), "5"))) ==
          Approx(1e-4 * (100 * 100 + kPi * 2500)).epsilon(2e-3));
    CHECK(signed_area(outline_of(dxf("0\nCIRCLE\n8\n0\n10\n3\n20\n4\n30\n0\n40\n10\n"))) ==
          Approx(kPi * 1e-4).epsilon(2e-3));
    // A closed light polyline with a half-circle bulge on its last side.
    const auto poly = outline_of(
        dxf("0\nLWPOLYLINE\n8\n0\n90\n4\n70\n1\n10\n0\n20\n0\n10\n100\n20\n0\n10\n100\n20\n60\n10\n0\n20"
            "\n60\n42\n1\n"));
    CHECK(signed_area(poly) == Approx(1e-6 * (6000 + kPi * 900 / 2)).epsilon(3e-3));
}

TEST_CASE("what is no closed outline is said") {
    CHECK_THROWS_WITH(outline_of("hello"), Catch::Contains("no drawing"));
    CHECK_THROWS_WITH(outline_of(dxf(line(0, 0, 1, 1))), Catch::Contains("no closed outline"));
    CHECK_THROWS_WITH(outline_of(svg("<path d='M0 0L10 10'/>")), Catch::Contains("no closed outline"));
    CHECK_THROWS_WITH(outline_of("<svg><rect"), Catch::Contains("no sound SVG"));
}

TEST_CASE("fuzzed drawings end in an outline or in words") {
    std::mt19937 random(7);
    for (const auto& good : {svg("<path d='M100 0C100 55 55 100 0 100S-100 55-100 0A50 50 0 0 1 100 0z'/><g "
                                 "transform='scale(2)'><circle r='5'/></g>"),
                             dxf(line(0, 0, 10, 0) + line(10, 0, 5, 9) + line(5, 9, 0, 0), "4")}) {
        for (int i = 0; i < 400; ++i) {
            auto bytes = good;
            for (int k = 0; k < 1 + i % 6; ++k) {
                const auto at = random() % bytes.size();
                if (random() % 2)
                    bytes[at] = static_cast<char>(32 + random() % 96);
                else
                    bytes.erase(at, random() % 9);
                if (bytes.empty()) bytes = "x";
            }
            try {
                const auto loop = outline_of(bytes);
                CHECK(signed_area(loop) >= 0);
            } catch (const InputError& e) {
                CHECK_FALSE(e.mend().empty());
            }
        }
    }
}
