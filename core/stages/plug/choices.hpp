// How the master is made: seven routes and one that does without, and what each needs to know.
#pragma once

#include <array>

#include "core/base/fields.hpp"
#include "core/science/mesh/slice.hpp"
#include "core/shop/lists.hpp"
#include "core/stages/brief/choices.hpp"

namespace jig {

enum class Barrier { none, epoxy, water };
template <>
struct Words<Barrier> {
    static constexpr std::array all{Word{"none", "no barrier coat"}, Word{"epoxy", "a skin of epoxy"},
                                    Word{"water", "a water-based barrier coat"}};
};

enum class Route { block, slabs, skeleton, foam, tiles, existing, splash, direct };
template <>
struct Words<Route> {
    static constexpr std::array all{
        Word{"block", "a block, machined"},       Word{"slabs", "a stack of slabs"},
        Word{"skeleton", "a skeleton, filled"},   Word{"foam", "a foam core, skinned"},
        Word{"tiles", "printed tiles"},           Word{"existing", "an existing part"},
        Word{"splash", "a splash off soft foam"}, Word{"direct", "none: the mould itself is made"}};
};
inline constexpr std::array kRoutes{Route::block, Route::slabs,    Route::skeleton, Route::foam,
                                    Route::tiles, Route::existing, Route::splash,   Route::direct};

enum class MouldWay { milled, printed };
template <>
struct Words<MouldWay> {
    static constexpr std::array all{Word{"milled", "milled"}, Word{"printed", "printed"}};
};

template <>
struct Words<SlabFit> {
    static constexpr std::array all{Word{"oversize", "outside the shape, to be sanded"},
                                    Word{"undersize", "inside it, to be filled"},
                                    Word{"middle", "on it at half their thickness"}};
};

enum class SlabWay { pull, length, width, best };
template <>
struct Words<SlabWay> {
    static constexpr std::array all{Word{"pull", "along the pull"}, Word{"length", "along the length"},
                                    Word{"width", "along the width"},
                                    Word{"best", "whichever way costs least"}};
};

namespace plug {

/// What of the shop library this stage reads.
using Library = Lists<Reinforcement, Board, Consumable, Filament, Rate>;
/// What of the brief this stage reads.
using Asked = brief::Of<brief::Wanted, brief::Crew, brief::Router>;

struct Slabs {
    SlabWay way = SlabWay::pull;
    SlabFit fit = SlabFit::oversize;
    bool bevel = false;   ///< edges cut at the wall's own angle
    bool hollow = false;  ///< middles cut out, smaller slabs from inside larger ones
    double wall = 0.06;   ///< m left round a hollow
    double kerf = 0.003;  ///< m of the saw, wire or cutter
    bool grain = false;   ///< sheets have a direction: slabs are turned by half only
    double pin = 0.008;   ///< m, diameter of the pins that line the stack up
    static void fields(auto& c, auto&& v) {
        v("way", c.way);
        v("fit", c.fit);
        v("bevel", c.bevel);
        v("hollow", c.hollow);
        v("wall", c.wall, 0.005, 1.0);
        v("kerf", c.kerf, 0.0, 0.05);
        v("grain", c.grain);
        v("pin", c.pin, 0.001, 0.05);
    }
    bool operator==(const Slabs&) const = default;
};

struct Block {
    std::string board = "PU board 700, 50 mm";
    double allowance = 0.005;   ///< m of board all round before it is cut
    double cutter = 0.008;      ///< m, radius of the ball that finishes
    double stick_out = 0.10;    ///< m from its tip to the holder
    double holder = 0.025;      ///< m, radius of the holder
    double feed = 0.05;         ///< m/s
    double step = 0;            ///< m between finishing passes; 0 takes the cheapest
    double rough_deep = 0.012;  ///< m a roughing pass
    double rough_wide = 0.012;  ///< m between roughing passes
    static void fields(auto& c, auto&& v) {
        v("board", c.board);
        v("allowance", c.allowance, 0.0, 0.1);
        v("cutter", c.cutter, 0.0005, 0.1);
        v("stick_out", c.stick_out, 0.005, 1.0);
        v("holder", c.holder, 0.001, 0.3);
        v("feed", c.feed, 0.0005, 1.0);
        v("step", c.step, 0.0, 0.05);
        v("rough_deep", c.rough_deep, 0.0005, 0.2);
        v("rough_wide", c.rough_wide, 0.0005, 0.2);
    }
    bool operator==(const Block&) const = default;
};

struct Skeleton {
    double pitch = 0.2;   ///< m between stations
    double skin = 0.012;  ///< m of filler, strips or foam outside the stations
    int keels = 1;        ///< lengthwise
    std::string board = "birch plywood 12 mm";
    std::string fill = "PU foam 35, 50 mm";
    double batten = 0.15;       ///< m between batten lines round the girth
    double clearance = 0.0002;  ///< m that a slot is wider than the board
    static void fields(auto& c, auto&& v) {
        v("pitch", c.pitch, 0.02, 5.0);
        v("skin", c.skin, 0.0, 0.2);
        v("keels", c.keels, 1, 9);
        v("board", c.board);
        v("fill", c.fill);
        v("batten", c.batten, 0.02, 2.0);
        v("clearance", c.clearance, 0.0, 0.005);
    }
    bool operator==(const Skeleton&) const = default;
};

struct Foam {
    std::string board = "PU foam 100, 50 mm";
    std::string cloth = "glass cloth 200 plain";
    int plies = 2;  ///< of cloth in its skin
    static void fields(auto& c, auto&& v) {
        v("board", c.board);
        v("cloth", c.cloth);
        v("plies", c.plies, 0, 12);
    }
    bool operator==(const Foam&) const = default;
};

struct Printing {
    std::array<double, 3> room{0.30, 0.30, 0.30};  ///< m inside the printer
    std::string filament = "PETG filament";
    double wall = 0.0024;       ///< m of printed walls
    double infill = 0.12;       ///< share of what is inside them
    double rate = 0.06 / 3600;  ///< kg/s laid down
    int printers = 1;
    double key = 0.004;  ///< m, radius of the pegs between tiles; 0 for none
    static void fields(auto& c, auto&& v) {
        v("room", c.room);
        v("filament", c.filament);
        v("wall", c.wall, 0.0004, 0.05);
        v("infill", c.infill, 0.0, 1.0);
        v("rate", c.rate, 1e-7, 0.01);
        v("printers", c.printers, 1, 100);
        v("key", c.key, 0.0, 0.03);
    }
    bool operator==(const Printing&) const = default;
};

struct Existing {
    double preparing = 1.0;  ///< h per m² to clean, repair and flat it
    static void fields(auto& c, auto&& v) { v("preparing", c.preparing, 0.0, 50.0); }
    bool operator==(const Existing&) const = default;
};

struct Splash {
    double shrink = 0.002;     ///< of length that the extra taking-off costs
    double thickness = 0.015;  ///< m of plaster and cloth
    static void fields(auto& c, auto&& v) {
        v("shrink", c.shrink, 0.0, 0.05);
        v("thickness", c.thickness, 0.002, 0.2);
    }
    bool operator==(const Splash&) const = default;
};

/// How a cutter goes through metal: shallow, and slower than through board.
Block metal_cut(bool steel);

/// The mould itself, without a plug: milled from board or metal, or printed.
struct Direct {
    MouldWay way = MouldWay::milled;
    double wall = 0.03;  ///< m behind the face where it is deepest
    Block mill = metal_cut(false);
    Printing print;
    static void fields(auto& c, auto&& v) {
        v("way", c.way);
        v("wall", c.wall, 0.003, 1.0);
        v("mill", c.mill);
        v("print", c.print);
    }
    bool operator==(const Direct&) const = default;
};

struct Choices {
    Route route = Route::slabs;
    bool by_piece = false;  ///< each piece of the mould by a route of its own
    std::vector<Route> piece_routes = std::vector<Route>(6, Route::slabs);  ///< in the pieces' order
    std::string board = "XPS foam 32, 50 mm";  ///< that slabs and soft foam are cut from
    double margin = 0.015;                     ///< m kept free along the edge of each sheet
    double waste = 0.30;                       ///< share of each sheet that nesting leaves over
    double build_up = 0.0006;                  ///< m of barrier, filler, primer and paint
    Barrier barrier = Barrier::water;
    bool in_envelope = false;  ///< the shell is cured on it inside an envelope bag
    double vacuum = 90000;     ///< Pa of that bag
    Slabs slabs;
    Block block;
    Skeleton skeleton;
    Foam foam;
    Printing tiles;
    Existing existing;
    Splash splash;
    Direct direct;
    static void fields(auto& c, auto&& v) {
        v("route", c.route);
        v("by_piece", c.by_piece);
        v("piece_routes", c.piece_routes);
        v("board", c.board);
        v("margin", c.margin, 0.0, 0.2);
        v("waste", c.waste, 0.0, 0.9);
        v("build_up", c.build_up, 0.0, 0.05);
        v("barrier", c.barrier);
        v("in_envelope", c.in_envelope);
        v("vacuum", c.vacuum, 0.0, 101325.0);
        v("slabs", c.slabs);
        v("block", c.block);
        v("skeleton", c.skeleton);
        v("foam", c.foam);
        v("tiles", c.tiles);
        v("existing", c.existing);
        v("splash", c.splash);
        v("direct", c.direct);
    }
    bool operator==(const Choices&) const = default;
};

/// Whether the mould itself is cut or printed: then no plug is built and no laminate is laid.
inline bool no_plug(const Choices& c) {
    return c.route == Route::direct;
}

}  // namespace plug
}  // namespace jig
