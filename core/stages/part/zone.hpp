// A place of the part that is laid otherwise than the rest.
#pragma once

#include "core/shop/layup.hpp"
#include "core/stages/touch.hpp"

namespace jig {

enum class ZonePlace { painted, rim, band, inside, inserts };
template <>
struct Words<ZonePlace> {
    static constexpr std::array all{Word{"painted", "where it is painted"}, Word{"rim", "along the rim"},
                                    Word{"band", "along a line"}, Word{"inside", "inside an outline"},
                                    Word{"inserts", "round every insert"}};
};

enum class ZoneWay { adds, for_core, instead };
template <>
struct Words<ZoneWay> {
    static constexpr std::array all{Word{"adds", "on top of the stack"},
                                    Word{"for_core", "in the core's place"},
                                    Word{"instead", "instead of the stack"}};
};

namespace part {

/// A corner of a line or an outline, m from the middle of the face, seen along the pull.
struct Spot {
    double along = 0, across = 0;
    static void fields(auto& c, auto&& v) {
        v("along", c.along, -50.0, 50.0);
        v("across", c.across, -50.0, 50.0);
    }
    bool operator==(const Spot&) const = default;
};

/// Of a mould in pieces, the number of the one on whose face something lies; 0 for each of them alike. A
/// mould in one piece has but one face, whatever is asked.
inline bool lies_on(int asked, int face) {
    return asked == 0 || face == 0 || asked == face;
}
/// As many pieces as a choice may name.
inline constexpr int kMostPieces = 12;

struct Zone {
    std::string name = "zone";
    ZonePlace place = ZonePlace::rim;
    ZoneWay way = ZoneWay::adds;
    double width = 0.05;  ///< m in from the rim, of the band, or out from an insert's middle
    std::vector<Spot> line;
    std::vector<Touch> painted;
    std::vector<Layer> layers;
    int piece = 0;  ///< of the mould, as `lies_on` has it; paint lies where it was laid
    static void fields(auto& c, auto&& v) {
        v("name", c.name);
        v("place", c.place);
        v("piece", c.piece, 0, kMostPieces);
        v("way", c.way);
        v("width", c.width, 0.001, 10.0);
        v("line", c.line);
        v("painted", c.painted);
        v("layers", c.layers);
    }
    bool operator==(const Zone&) const = default;
};

/// A layer by what it belongs to: a zone, or the common stack at -1, and its place there.
struct Source {
    int zone = -1;
    std::size_t layer = 0;
    auto operator<=>(const Source&) const = default;
};

/// More cannot be told apart on one face.
inline constexpr std::size_t kMostZones = 16;

}  // namespace part
}  // namespace jig
