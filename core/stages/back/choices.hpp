// What holds the shell up, and what the tool is tried with.
#pragma once

#include "core/base/fields.hpp"
#include "core/shop/lists.hpp"

namespace jig {

enum class BackKind { none, egg_crate, foam_blocks, tubes, frame, sandwich };
template <>
struct Words<BackKind> {
    static constexpr std::array all{Word{"none", "no back"},
                                    Word{"egg_crate", "an egg-crate of panels"},
                                    Word{"foam_blocks", "foam blocks wrapped in cloth"},
                                    Word{"tubes", "a grid of tubes"},
                                    Word{"frame", "a levelled metal frame"},
                                    Word{"sandwich", "a sandwich: core and an inner skin"}};
};

enum class BagKind { none, surface, envelope };
template <>
struct Words<BagKind> {
    static constexpr std::array all{Word{"none", "no bag"}, Word{"surface", "a surface bag"},
                                    Word{"envelope", "an envelope bag"}};
};

enum class Bond { hard, soft, floating };
template <>
struct Words<Bond> {
    static constexpr std::array all{Word{"hard", "hard, in thickened resin"},
                                    Word{"soft", "on a soft strip, with tabs"},
                                    Word{"floating", "floating: carried, free to slide"}};
};

enum class Metal { steel, aluminium };
template <>
struct Words<Metal> {
    static constexpr std::array all{Word{"steel", "steel"}, Word{"aluminium", "aluminium"}};
};

namespace back {

/// What of the shop library this stage reads.
using Library = Lists<Reinforcement, SurfaceCoat, Core, Board, Bonding>;

struct Tubes {
    Metal metal = Metal::steel;
    double size = 0.03;    ///< m, diameter of a tube or side of a frame's square section
    double wall = 0.002;   ///< m
    double travel = 0.03;  ///< m that a frame's feet can be screwed up and down
    static void fields(auto& c, auto&& v) {
        v("metal", c.metal);
        v("size", c.size, 0.005, 0.3);
        v("wall", c.wall, 0.0005, 0.05);
        v("travel", c.travel, 0.0, 0.3);
    }
    bool operator==(const Tubes&) const = default;
};

struct Foam {
    std::string board = "PU foam 100, 50 mm";
    double wide = 0.05;  ///< m of a block
    std::string cloth = "glass biaxial 450";
    int plies = 2;
    static void fields(auto& c, auto&& v) {
        v("board", c.board);
        v("wide", c.wide, 0.005, 0.5);
        v("cloth", c.cloth);
        v("plies", c.plies, 1, 20);
    }
    bool operator==(const Foam&) const = default;
};

struct Sandwich {
    std::string core = "PVC foam 75, 20 mm";
    std::string cloth = "glass biaxial 450";
    int plies = 3;
    static void fields(auto& c, auto&& v) {
        v("core", c.core);
        v("cloth", c.cloth);
        v("plies", c.plies, 1, 20);
    }
    bool operator==(const Sandwich&) const = default;
};

/// How a rib meets the shell.
struct Joint {
    Bond bond = Bond::soft;
    double gap = 0.005;  ///< m between rib and shell
    double tab = 0.05;   ///< m that the tabs reach onto the shell and up the rib
    int plies = 2;       ///< of cloth in a tab
    std::string cloth = "glass biaxial 450";
    std::string paste = "thickened epoxy";         ///< under what is bonded hard
    std::string strip = "closed-cell foam strip";  ///< under what is bonded softly or floats
    static void fields(auto& c, auto&& v) {
        v("bond", c.bond);
        v("cloth", c.cloth);
        v("paste", c.paste);
        v("strip", c.strip);
        v("gap", c.gap, 0.0, 0.05);
        v("tab", c.tab, 0.01, 0.3);
        v("plies", c.plies, 1, 12);
    }
    bool operator==(const Joint&) const = default;
};

/// Where the tool stands, counted each way and drawn in from its ends.
struct Feet {
    int along = 2, across = 2;
    double inset = 0.15;   ///< share of the length and of the width
    double relief = 0.01;  ///< m by which ribs are shorter between feet
    static void fields(auto& c, auto&& v) {
        v("along", c.along, 2, 8);
        v("across", c.across, 2, 8);
        v("inset", c.inset, 0.0, 0.45);
        v("relief", c.relief, 0.0, 0.1);
    }
    bool operator==(const Feet&) const = default;
};

struct Choices {
    BackKind kind = BackKind::egg_crate;
    double pitch = 0.30;               ///< m between ribs
    double height = 0.12;              ///< m of a rib beyond the shell
    bool across = true, along = true;  ///< which ways ribs run
    std::string board = "birch plywood 12 mm";
    double clearance = 0.0003;  ///< m that a slot is wider than the board
    Tubes tubes;
    Foam foam;
    Sandwich sandwich;
    Joint joint;
    Feet feet;
    double limit = 0.0005;  ///< m the skin may sag between ribs
    BagKind bag = BagKind::surface;
    double vacuum = 90000;     ///< Pa below the room
    double person = 300;       ///< N a hand puts on one place of the skin
    double lean = 1000;        ///< N a person leaning on the rim puts on one place of it
    double rim_limit = 0.002;  ///< m the rim may give under that
    double lever = 500;        ///< N at one wedge slot
    bool shell_cured = true;   ///< before ribs are bonded to it
    static void fields(auto& c, auto&& v) {
        v("kind", c.kind);
        v("pitch", c.pitch, 0.02, 5.0);
        v("height", c.height, 0.0, 2.0);
        v("across", c.across);
        v("along", c.along);
        v("board", c.board);
        v("clearance", c.clearance, 0.0, 0.01);
        v("tubes", c.tubes);
        v("foam", c.foam);
        v("sandwich", c.sandwich);
        v("joint", c.joint);
        v("feet", c.feet);
        v("limit", c.limit, 1e-5, 0.1);
        v("bag", c.bag);
        v("vacuum", c.vacuum, 0.0, 101325.0);
        v("person", c.person, 0.0, 5000.0);
        v("lean", c.lean, 0.0, 10000.0);
        v("rim_limit", c.rim_limit, 1e-5, 0.2);
        v("lever", c.lever, 0.0, 20000.0);
        v("shell_cured", c.shell_cured);
    }
    bool operator==(const Choices&) const = default;
    [[nodiscard]] bool has_plates() const {
        return kind == BackKind::egg_crate || kind == BackKind::foam_blocks;
    }
    [[nodiscard]] bool has_bars() const { return kind == BackKind::tubes || kind == BackKind::frame; }
    [[nodiscard]] bool has_grid() const { return has_plates() || has_bars(); }
};

}  // namespace back
}  // namespace jig
