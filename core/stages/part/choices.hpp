// What is made in the tool.
#pragma once

#include "core/shop/layup.hpp"
#include "core/stages/part/build.hpp"
#include "core/stages/part/core_lay.hpp"
#include "core/stages/part/cut.hpp"
#include "core/stages/part/duty.hpp"
#include "core/stages/part/insert.hpp"
#include "core/stages/part/joint.hpp"
#include "core/stages/part/zone.hpp"

namespace jig {

/// What rules how much resin is mixed.
enum class ResinBy { share, ratio };
template <>
struct Words<ResinBy> {
    static constexpr std::array all{Word{"share", "by the laminate's fibre share"},
                                    Word{"ratio", "by a ratio to its dry cloth"}};
};

namespace part {

/// What of the shop library this stage reads.
using Library = Lists<Reinforcement, Resin, SurfaceCoat, Core, Board, Bonding, Rate>;

/// Where cloth is laid down first, and how it lies there.
struct DrapeStart {
    double along = 0, across = 0;  ///< m from the middle of the face, seen along the pull
    double turn = 0;               ///< rad of a ply's zero from the tool's length
    static void fields(auto& c, auto&& v) {
        v("along", c.along, -50.0, 50.0);
        v("across", c.across, -50.0, 50.0);
        v("turn", c.turn, -kPi, kPi);
    }
    bool operator==(const DrapeStart&) const = default;
};

/// How plies are cut.
struct KitCut {
    double trim = 0.02;  ///< m that pieces are larger along the face's rim
    double lap = 0.025;  ///< m that pieces of one ply lie over each other
    static void fields(auto& c, auto&& v) {
        v("trim", c.trim, 0.0, 1.0);
        v("lap", c.lap, 0.0, 0.5);
    }
    bool operator==(const KitCut&) const = default;
};

struct Choices {
    std::string resin = "epoxy, room temperature slow";
    LayUp how = LayUp::bagged;
    std::vector<Layer> layers;
    double gel_temperature = 296.15;  ///< K of tool and part where the part gels
    double span = 0.3;                ///< m between supports over which stiffness is set against solid
    double target_mass = 0;           ///< kg; 0 for none
    double waste = 0.20;              ///< share of cloth bought beyond the part
    double pot_loss = 0.15;           ///< kg of resin left in pots, brushes and lines, each part
    ResinBy resin_by = ResinBy::share;
    double ratio = 1;  ///< kg of resin mixed for each kg of dry cloth, by that school
    Joint joint;
    DrapeStart drape;
    std::vector<Cut> cuts;
    KitCut kit;
    CoreLay core;
    std::vector<Zone> zones;  ///< in the order in which they are laid
    Duty duty;
    std::vector<Insert> inserts;
    std::vector<Build> builds;  ///< kept, to be set beside what is chosen
    static void fields(auto& c, auto&& v) {
        v("resin", c.resin);
        v("how", c.how);
        v("layers", c.layers);
        v("gel_temperature", c.gel_temperature, 283.0, 500.0);
        v("span", c.span, 0.01, 20.0);
        v("target_mass", c.target_mass, 0.0, 1e4);
        v("waste", c.waste, 0.0, 2.0);
        v("pot_loss", c.pot_loss, 0.0, 50.0);
        v("resin_by", c.resin_by);
        v("ratio", c.ratio, 0.1, 10.0);
        v("joint", c.joint);
        v("drape", c.drape);
        v("cuts", c.cuts);
        v("kit", c.kit);
        v("core", c.core);
        v("zones", c.zones);
        v("duty", c.duty);
        v("inserts", c.inserts);
        v("builds", c.builds);
    }
    bool operator==(const Choices&) const = default;
};

/// A light sandwich to begin with.
inline Choices start() {
    Choices c;
    c.layers = {{LayerKind::ply, "glass cloth 200 plain", 0, 0},
                {LayerKind::ply, "glass cloth 280 twill", kPi / 4, 0},
                {LayerKind::core, "PVC foam 75, 5 mm", 0, 0},
                {LayerKind::ply, "glass cloth 280 twill", kPi / 4, 0},
                {LayerKind::ply, "glass cloth 200 plain", 0, 0}};
    return c;
}

}  // namespace part
}  // namespace jig
