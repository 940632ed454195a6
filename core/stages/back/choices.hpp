// What holds the shell up.
#pragma once

#include "core/base/fields.hpp"

namespace jig {

enum class BackKind { none, egg_crate, foam_blocks };
template <>
struct Words<BackKind> {
    static constexpr std::array all{Word{"none", "no back"}, Word{"egg_crate", "an egg-crate of plywood"},
                                    Word{"foam_blocks", "foam blocks wrapped in cloth"}};
};

enum class BagKind { none, surface, envelope };
template <>
struct Words<BagKind> {
    static constexpr std::array all{Word{"none", "no bag"}, Word{"surface", "a surface bag"},
                                    Word{"envelope", "an envelope bag"}};
};

namespace back {

struct Choices {
    BackKind kind = BackKind::egg_crate;
    double pitch = 0.30;   ///< m between ribs
    double height = 0.12;  ///< m of a rib beyond the shell
    std::string board = "birch plywood 12 mm";
    double limit = 0.0005;  ///< m the skin may sag between ribs
    BagKind bag = BagKind::surface;
    double vacuum = 90000;  ///< Pa below the room
    double person = 300;    ///< N a leaning person puts on one place
    static void fields(auto& c, auto&& v) {
        v("kind", c.kind);
        v("pitch", c.pitch, 0.02, 5.0);
        v("height", c.height, 0.0, 2.0);
        v("board", c.board);
        v("limit", c.limit, 1e-5, 0.1);
        v("bag", c.bag);
        v("vacuum", c.vacuum, 0.0, 101325.0);
        v("person", c.person, 0.0, 5000.0);
    }
    bool operator==(const Choices&) const = default;
};

}  // namespace back
}  // namespace jig
