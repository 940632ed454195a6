// The mould's laminate, from the plug out.
#pragma once

#include "core/shop/layup.hpp"
#include "core/stages/touch.hpp"

namespace jig {

enum class School {
    mat_polyester,
    filled_polyester,
    glass_epoxy,
    carbon_epoxy,
    mineral_glass,
    tooling_prepreg,
    sandwich
};
template <>
struct Words<School> {
    static constexpr std::array all{Word{"mat_polyester", "polyester with hand-laid mat"},
                                    Word{"filled_polyester", "filled low-shrink polyester"},
                                    Word{"glass_epoxy", "epoxy with glass"},
                                    Word{"carbon_epoxy", "epoxy with carbon"},
                                    Word{"mineral_glass", "a light glass face backed with plaster"},
                                    Word{"tooling_prepreg", "tooling prepreg"},
                                    Word{"sandwich", "a sandwich shell"}};
};

enum class ZoneKind { flange, corners, under_ribs, painted };
template <>
struct Words<ZoneKind> {
    static constexpr std::array all{Word{"flange", "on the flange"}, Word{"corners", "along tight corners"},
                                    Word{"under_ribs", "under ribs"}, Word{"painted", "where it is painted"}};
};

namespace shell {

/// What of the shop library this stage reads.
using Library = Lists<Reinforcement, Resin, SurfaceCoat, Core, Rate>;

using jig::Touch;

/// Layers that come on top of the common stack in some places.
struct Zone {
    ZoneKind kind = ZoneKind::flange;
    std::vector<Layer> layers;
    double width = 0.10;  ///< m of strip along a corner or rib
    std::vector<Touch> painted;
    static void fields(auto& c, auto&& v) {
        v("kind", c.kind);
        v("layers", c.layers);
        v("width", c.width, 0.005, 2.0);
        v("painted", c.painted);
    }
    bool operator==(const Zone&) const = default;
};

/// More cannot be told apart on one face.
inline constexpr std::size_t kMostZones = 16;

/// What a stack that is sought has to keep to.
struct Seek {
    double sag = 0.0005;  ///< m of skin between ribs under own weight and a hand
    double mass = 40;     ///< kg of shell and flange
    int days = 3;         ///< of laying up
    static void fields(auto& c, auto&& v) {
        v("sag", c.sag, 1e-6, 0.1);
        v("mass", c.mass, 0.01, 1e5);
        v("days", c.days, 1, 60);
    }
    bool operator==(const Seek&) const = default;
};

/// By face of a mesh that stands as the part does, whether a painted doubler lies on it.
std::vector<char> painted_faces(const Zone& zone, const TriangleMesh& mesh);

struct Choices {
    School school = School::glass_epoxy;
    std::string resin = "epoxy, tooling post-cured";
    LayUp how = LayUp::hand;
    std::vector<Layer> layers;
    std::vector<Zone> zones;
    std::string unit = "glass cloth 105 plain";  ///< the cloth that the shop counts thickness in
    double cure_temperature = 353.15;            ///< K of the last post-cure, off the plug
    double waste = 0.15;    ///< share of cloth and resin bought beyond what stays in the shell
    double pot_loss = 0;    ///< kg of an infused shell's resin that stays in hoses, medium and pots
    double batch = 1.5;     ///< kg of resin that one pot may hold
    double stagger = 0.05;  ///< m between the overlaps of one layer and the next
    int debulk = 4;         ///< layers between two debulks of a prepreg
    Seek seek;
    static void fields(auto& c, auto&& v) {
        v("school", c.school);
        v("resin", c.resin);
        v("how", c.how);
        v("layers", c.layers);
        v("zones", c.zones);
        v("unit", c.unit);
        v("cure_temperature", c.cure_temperature, 283.0, 500.0);
        v("waste", c.waste, 0.0, 1.0);
        v("pot_loss", c.pot_loss, 0.0, 500.0);
        v("batch", c.batch, 0.05, 100.0);
        v("stagger", c.stagger, 0.0, 0.5);
        v("debulk", c.debulk, 1, 50);
        v("seek", c.seek);
    }
    bool operator==(const Choices&) const = default;
};

/// The starting stack of a school, light to heavy and mirrored as far as its way of laying can be.
Choices start_from(School school);
/// A doubler of two plies of the stack's heaviest cloth.
Zone fresh_zone(const Choices& choices, ZoneKind kind);
/// Why a shop takes it, in a sentence, and about how many pulls such a tool lasts, typical.
struct SchoolFacts {
    const char* reason;
    int pulls;
    double heat;  ///< K that such tools are taken to at most, whatever their resin bears
};
const SchoolFacts& facts_of(School school);

}  // namespace shell
}  // namespace jig
