// What a shop can have on its shelves, and where each figure comes from.
#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/base/fields.hpp"
#include "core/base/units.hpp"
#include "core/science/laminate/ply.hpp"

namespace jig {

enum class OriginKind { typical, data_sheet, measured };
template <>
struct Words<OriginKind> {
    static constexpr std::array all{Word{"typical", "typical"}, Word{"data sheet", "from the data sheet"},
                                    Word{"measured here", "measured here"}};
};

struct Origin {
    OriginKind kind = OriginKind::typical;
    std::string date;  ///< yyyy-mm or empty
    std::string note;
    static void fields(auto& c, auto&& v) {
        v("kind", c.kind);
        v("date", c.date);
        v("note", c.note);
    }
    bool operator==(const Origin&) const = default;
};

/// What every entry has. `origin` holds for all its figures except those named in `origins`.
struct Entry {
    std::string name;
    Origin origin;
    std::map<std::string, Origin> origins;
    bool operator==(const Entry&) const = default;
    [[nodiscard]] const Origin& origin_of(const std::string& figure) const {
        const auto own = origins.find(figure);
        return own == origins.end() ? origin : own->second;
    }
};

template <>
struct Words<Weave> {
    static constexpr std::array all{Word{"unidirectional", "unidirectional"}, Word{"cloth", "cloth"},
                                    Word{"mat", "chopped mat"}};
};

enum class FibreKind { glass, carbon, aramid };
template <>
struct Words<FibreKind> {
    static constexpr std::array all{Word{"glass", "glass"}, Word{"carbon", "carbon"},
                                    Word{"aramid", "aramid"}};
};

struct Reinforcement : Entry {
    FibreKind fibre = FibreKind::glass;
    Weave weave = Weave::cloth;
    std::string style;        ///< plain, twill, satin, biaxial, mat
    double areal_mass = 0.3;  ///< kg/m² dry
    double crimp = 0.92;      ///< share of straight-fibre stiffness kept
    double lies_at = 0;       ///< rad: where its fibres lie when the roll is laid at 0
    double roll_width = 1.27, roll_length = 50;
    double price = 5;                   ///< per m²
    bool binder_wants_styrene = false;  ///< chopped mat whose binder only styrene dissolves
    double units = 0;                   ///< of thickness that the shop counts a ply as; 0 by its thickness
    double lock = 0;                    ///< rad of shear past which it wrinkles; 0 for the usual of its weave
    // What it lets resin through, m², along its roll, across and through it, at a fibre share.
    double K_along = 1e-10, K_across = 1e-10, K_through = 1e-11, K_share = 0.5;
    // Strains along its fibres at which they break, pulled and pressed; 0 for the usual of its fibre.
    double breaks_pulled = 0, breaks_pressed = 0;
    double bearing = 0;  ///< Pa under a pin; 0 for the usual of its fibre
    double gives = 0;    ///< its thickness goes with the load on it to −this; 0 for the usual of its weave
    double stretches = 0;  ///< share that it may be drawn out by as it is laid; 0 for the usual of its weave
    static void fields(auto& c, auto&& v) {
        v("fibre", c.fibre);
        v("breaks_pulled", c.breaks_pulled, 0.0, 0.1);
        v("breaks_pressed", c.breaks_pressed, 0.0, 0.1);
        v("bearing_Pa", c.bearing, 0.0, 2e9);
        v("weave", c.weave);
        v("style", c.style);
        v("areal_mass_kg_m2", c.areal_mass, 0.01, 5.0);
        v("crimp", c.crimp, 0.3, 1.0);
        v("lies_at_rad", c.lies_at, -1.6, 1.6);
        v("roll_width_m", c.roll_width, 0.01, 10.0);
        v("roll_length_m", c.roll_length, 0.1, 5000.0);
        v("price_m2", c.price, 0.0, 10000.0);
        v("binder_wants_styrene", c.binder_wants_styrene);
        v("units", c.units, 0.0, 100.0);
        v("lock_rad", c.lock, 0.0, 1.5);
        v("K_along_m2", c.K_along, 1e-15, 1e-6);
        v("K_across_m2", c.K_across, 1e-15, 1e-6);
        v("K_through_m2", c.K_through, 1e-16, 1e-6);
        v("K_share", c.K_share, 0.02, 0.8);
        v("gives", c.gives, 0.0, 0.5);
        v("stretches", c.stretches, 0.0, 1.0);
    }
    bool operator==(const Reinforcement&) const = default;
};

enum class Family { polyester, vinyl_ester, epoxy, filled_polyester, plaster };
template <>
struct Words<Family> {
    static constexpr std::array all{
        Word{"polyester", "polyester"}, Word{"vinyl_ester", "vinyl ester"}, Word{"epoxy", "epoxy"},
        Word{"filled_polyester", "filled low-shrink polyester"}, Word{"plaster", "laminating plaster"}};
};
inline bool has_styrene(Family f) {
    return f == Family::polyester || f == Family::vinyl_ester || f == Family::filled_polyester;
}

inline constexpr double kShopRoom = 293.15;  ///< K at which gel times of what is mixed by hand are told
inline constexpr double kPotOfLife = 1.0;    ///< kg at which pot lives are: more of it heats itself sooner

/// What a data sheet says of a cure, beyond one gel time and one Tg.
struct CureSheet {
    struct Gel {
        double T = 313.15, time = 1800;  ///< K, s
        static void fields(auto& c, auto&& v) {
            v("T_K", c.T, 250.0, 520.0);
            v("time_s", c.time, 1.0, 1e7);
        }
        bool operator==(const Gel&) const = default;
    };
    /// A pot of it that stands in still air.
    struct Pot {
        double mass = 0;                    ///< kg; 0 where the sheet tells of none
        double start = 296.15, peak = 400;  ///< K
        double time = 3600;                 ///< s to the peak
        static void fields(auto& c, auto&& v) {
            v("mass_kg", c.mass, 0.0, 100.0);
            v("start_K", c.start, 250.0, 400.0);
            v("peak_K", c.peak, 250.0, 800.0);
            v("time_s", c.time, 1.0, 1e7);
        }
        bool operator==(const Pot&) const = default;
    };
    struct Glass {
        double cure_T = 353.15, cure_time = 28800;  ///< K, s
        double Tg = 353.15;                         ///< K after that cure
        static void fields(auto& c, auto&& v) {
            v("cure_K", c.cure_T, 250.0, 600.0);
            v("cure_time_s", c.cure_time, 1.0, 1e8);
            v("Tg_K", c.Tg, 200.0, 700.0);
        }
        bool operator==(const Glass&) const = default;
    };
    std::vector<Gel> gels = {};
    Pot pot = {};
    double heat = 0;  ///< J/kg of resin, from fresh to full; 0 where the sheet does not say
    std::vector<Glass> glass = {};
    static void fields(auto& c, auto&& v) {
        v("gel_times", c.gels);
        v("pot", c.pot);
        v("heat_J_kg", c.heat, 0.0, 2e6);
        v("Tg_after", c.glass);
    }
    [[nodiscard]] bool empty() const { return gels.empty() && pot.mass <= 0 && heat <= 0 && glass.empty(); }
    bool operator==(const CureSheet&) const = default;
};

struct Resin : Entry {
    Family family = Family::epoxy;
    Matrix matrix;
    double price = 12;                ///< per kg mixed
    double mix_ratio = 30;            ///< hardener, parts by mass to 100 of resin
    double pot_life = 1800;           ///< s of kPotOfLife at kShopRoom
    double gel_time = 5400;           ///< s in the laminate at kShopRoom, or at its own heat
    double demould_time = 57600;      ///< s
    double Tg = 340;                  ///< K after its usual cure
    double gel_temperature = 296.15;  ///< K in the laminate when it gels
    double shrinkage = 0.001;         ///< linear, after gel, in the laminate
    double day_limit = 0.006;         ///< m of laminate in one go before it overheats
    double recoat_window = 86400;     ///< s within which the next layers bond without abrading
    double strain_limit = 0.003;      ///< of a laminate of it, before the resin begins to crack
    bool in_cloth = false;            ///< comes in the cloth as prepreg: nothing is mixed
    double Tg_lead = 20;              ///< K by which a long cure brings its Tg above the cure's own heat
    double viscosity = 0.8;           ///< Pa·s just mixed, at room temperature
    CureSheet cures;                  ///< empty where it cures as is usual for its family
    static void fields(auto& c, auto&& v) {
        v("family", c.family);
        v("viscosity_Pas", c.viscosity, 1e-3, 1e4);
        v("density_kg_m3", c.matrix.density, 300.0, 4000.0);
        v("E_Pa", c.matrix.E, 1e8, 5e10);
        v("nu", c.matrix.nu, 0.0, 0.49);
        v("alpha_1_K", c.matrix.alpha, 0.0, 3e-4);
        v("price_kg", c.price, 0.0, 10000.0);
        v("mix_parts_per_100", c.mix_ratio, 0.1, 400.0);
        v("pot_life_s", c.pot_life, 30.0, 1e6);
        v("gel_time_s", c.gel_time, 30.0, 1e6);
        v("demould_time_s", c.demould_time, 60.0, 3e6);
        v("Tg_K", c.Tg, 280.0, 700.0);
        v("gel_temperature_K", c.gel_temperature, 270.0, 500.0);
        v("shrinkage", c.shrinkage, 0.0, 0.05);
        v("day_limit_m", c.day_limit, 0.0005, 0.5);
        v("recoat_window_s", c.recoat_window, 60.0, 3e6);
        v("strain_limit", c.strain_limit, 1e-4, 0.1);
        v("in_cloth", c.in_cloth);
        v("Tg_lead_K", c.Tg_lead, 0.0, 80.0);
        v("cures", c.cures);
    }
    bool operator==(const Resin&) const = default;
};

struct SurfaceCoat : Entry {
    Family family = Family::epoxy;
    Matrix matrix;                 ///< cured
    double pass_thickness = 3e-4;  ///< m each pass
    int passes = 2;
    double between_passes = 3600;  ///< s to tacky
    double window = 3600;          ///< s the tacky stage lasts
    double Tg = 340;               ///< K after its usual cure
    double Tg_lead = 20;           ///< K by which a long cure brings its Tg above the cure's own heat
    double price = 18;             ///< per kg
    CureSheet cures;               ///< empty where it cures as is usual for its family
    static void fields(auto& c, auto&& v) {
        v("family", c.family);
        v("density_kg_m3", c.matrix.density, 300.0, 4000.0);
        v("E_Pa", c.matrix.E, 1e8, 5e10);
        v("nu", c.matrix.nu, 0.0, 0.49);
        v("alpha_1_K", c.matrix.alpha, 0.0, 3e-4);
        v("pass_thickness_m", c.pass_thickness, 5e-5, 0.005);
        v("passes", c.passes, 1, 8);
        v("Tg_lead_K", c.Tg_lead, 0.0, 80.0);
        v("between_passes_s", c.between_passes, 60.0, 1e6);
        v("window_s", c.window, 60.0, 1e6);
        v("Tg_K", c.Tg, 280.0, 700.0);
        v("price_kg", c.price, 0.0, 10000.0);
        v("cures", c.cures);
    }
    bool operator==(const SurfaceCoat&) const = default;
};

struct Core : Entry {
    double E = 7.5e7, G = 2.8e7, nu = 0.35, density = 75, alpha = 40e-6;
    double crush = 1.0e6;              ///< Pa
    double shear_strength = 0;         ///< Pa; 0 where it is not known
    std::optional<double> E_in_plane;  ///< Pa, where it is another than through the thickness
    double fills = 0;                  ///< share of its thickness that fills with resin: bulking mats
    bool open_cells = false;           ///< cells through it that an infusion would flood
    double uptake = 0.3;               ///< kg of resin per m² and face into cut cells, laid by hand
    double top_temperature = 353;      ///< K it keeps its shape and strength to
    double thickness = 0.01;           ///< m as stocked
    double sheet_length = 1.2, sheet_width = 1.0;  ///< m as stocked; 0 for what comes in no sheets
    /// Least radii, m, that it bends to as it is, slit, and hot; 0 where that is not known or cannot be.
    double bends_cold = 0, bends_slit = 0, bends_hot = 0;
    double conductivity = 0.035;  ///< W/(m·K)
    double heat_capacity = 1400;  ///< J/(kg·K)
    double price = 30;            ///< per m²
    static void fields(auto& c, auto&& v) {
        v("E_Pa", c.E, 1e5, 2e10);
        v("G_Pa", c.G, 1e5, 1e10);
        v("nu", c.nu, 0.0, 0.49);
        v("density_kg_m3", c.density, 10.0, 2000.0);
        v("alpha_1_K", c.alpha, 0.0, 3e-4);
        v("crush_Pa", c.crush, 1e4, 1e9);
        v("shear_strength_Pa", c.shear_strength, 0.0, 1e9);
        v("E_in_plane_Pa", c.E_in_plane, 1e3, 2e10);
        v("fills", c.fills, 0.0, 0.95);
        v("open_cells", c.open_cells);
        v("uptake_kg_m2", c.uptake, 0.0, 5.0);
        v("top_temperature_K", c.top_temperature, 290.0, 700.0);
        v("thickness_m", c.thickness, 0.0005, 0.3);
        v("sheet_length_m", c.sheet_length, 0.0, 50.0);
        v("sheet_width_m", c.sheet_width, 0.0, 20.0);
        v("bends_cold_m", c.bends_cold, 0.0, 100.0);
        v("bends_slit_m", c.bends_slit, 0.0, 100.0);
        v("bends_hot_m", c.bends_hot, 0.0, 100.0);
        v("conductivity_W_mK", c.conductivity, 0.005, 50.0);
        v("heat_capacity_J_kgK", c.heat_capacity, 100.0, 6000.0);
        v("price_m2", c.price, 0.0, 10000.0);
    }
    bool operator==(const Core&) const = default;
};

struct Board : Entry {
    double density = 32, E = 1.2e7, alpha = 70e-6;
    std::optional<double> E_across;  ///< Pa across the grain of its faces; as E where it has none
    std::optional<double> G;         ///< Pa in its plane; taken as isotropic where it is not known
    double conductivity = 0.034;     ///< W/(m·K)
    double heat_capacity = 1450;     ///< J/(kg·K)
    double crush = 2.5e5;            ///< Pa, short time
    double top_temperature = 343;    ///< K
    double sheet_length = 2.5, sheet_width = 0.6, thickness = 0.05;
    double price = 14;  ///< per sheet
    bool dissolves_in_styrene = false;
    bool porous = true;
    double shaping = 1.0;  ///< h per m² to sand the steps fair
    /// Nothing else that moulds are cut from leads heat as well.
    [[nodiscard]] bool is_metal() const { return conductivity > 5; }
    static void fields(auto& c, auto&& v) {
        v("density_kg_m3", c.density, 5.0, 9000.0);
        v("E_Pa", c.E, 1e5, 4e11);
        v("alpha_1_K", c.alpha, 0.0, 3e-4);
        v("E_across_Pa", c.E_across, 1e5, 1e11);
        v("G_Pa", c.G, 1e5, 1e11);
        v("conductivity_W_mK", c.conductivity, 0.005, 500.0);
        v("heat_capacity_J_kgK", c.heat_capacity, 100.0, 6000.0);
        v("crush_Pa", c.crush, 1e3, 1e9);
        v("top_temperature_K", c.top_temperature, 290.0, 700.0);
        v("sheet_length_m", c.sheet_length, 0.05, 20.0);
        v("sheet_width_m", c.sheet_width, 0.05, 20.0);
        v("thickness_m", c.thickness, 0.001, 1.0);
        v("price_sheet", c.price, 0.0, 100000.0);
        v("dissolves_in_styrene", c.dissolves_in_styrene);
        v("porous", c.porous);
        v("shaping_h_m2", c.shaping, 0.0, 100.0);
    }
    bool operator==(const Board&) const = default;
};

enum class ReleaseKind { wax, wax_film, semi_permanent, sheet, tape };
template <>
struct Words<ReleaseKind> {
    static constexpr std::array all{Word{"wax", "paste wax"}, Word{"wax_film", "wax and PVA film"},
                                    Word{"semi_permanent", "semi-permanent"}, Word{"sheet", "release film"},
                                    Word{"tape", "release tape"}};
};

struct ReleaseCoat {
    std::string product;
    int coats = 1;
    double wait = 1800;  ///< s after each coat
    double cover = 40;   ///< m² per litre and coat
    double price = 30;   ///< per litre
    double minutes = 6;  ///< min of work per m² and coat
    double latest = 0;   ///< s after it by which the next coat or the lay-up must follow; 0 for any time
    double turn = 0;     ///< rad that its coats are laid across the one before
    double loss = 0;     ///< share that is sprayed past the face
    double thinner = 0;  ///< litres put to a litre of it
    double width = 0;    ///< m of its roll, where it is laid in strips
    double lap = 0;      ///< m that strips lie over each other; 0 for butted
    static void fields(auto& c, auto&& v) {
        v("product", c.product);
        v("latest_s", c.latest, 0.0, 1e8);
        v("turn_rad", c.turn, 0.0, 1.5708);
        v("loss", c.loss, 0.0, 0.9);
        v("thinner_L_L", c.thinner, 0.0, 5.0);
        v("width_m", c.width, 0.0, 2.0);
        v("lap_m", c.lap, 0.0, 0.2);
        v("coats", c.coats, 1, 20);
        v("wait_s", c.wait, 0.0, 1e6);
        v("cover_m2_L", c.cover, 0.1, 1000.0);
        v("price_L", c.price, 0.0, 10000.0);
        v("minutes_m2", c.minutes, 0.0, 600.0);
    }
    bool operator==(const ReleaseCoat&) const = default;
};

struct ReleaseSystem : Entry {
    ReleaseKind kind = ReleaseKind::wax;
    std::vector<ReleaseCoat> first_use, each_pull;
    double final_cure = 0;  ///< s before the first pull
    int pulls_per_touch_up = 1;
    int season = 0;                ///< first pulls off a new face that are each followed by a touch-up
    double good_for = 0;           ///< s that a finished face may wait for what is laid on it; 0 for any time
    double top_temperature = 343;  ///< K
    bool flat_only = false;
    std::string care;  ///< one sentence
    static void fields(auto& c, auto&& v) {
        v("kind", c.kind);
        v("first_use", c.first_use);
        v("each_pull", c.each_pull);
        v("final_cure_s", c.final_cure, 0.0, 1e6);
        v("pulls_per_touch_up", c.pulls_per_touch_up, 1, 100);
        v("season_pulls", c.season, 0, 100);
        v("good_for_s", c.good_for, 0.0, 1e8);
        v("top_temperature_K", c.top_temperature, 290.0, 700.0);
        v("flat_only", c.flat_only);
        v("care", c.care);
    }
    bool operator==(const ReleaseSystem&) const = default;
};

/// What a face is made of, where release comes on it.
enum class FaceKind {
    as_built,
    top_coat,
    surfacer,
    epoxy_coat,
    gelcoat,
    laminate,
    metal,
    board,
    wood,
    foam,
    taped,
    plaster,
    print
};
template <>
struct Words<FaceKind> {
    static constexpr std::array all{Word{"as_built", "as it is built"},
                                    Word{"top_coat", "two-pack top coat"},
                                    Word{"surfacer", "primer or surfacer"},
                                    Word{"epoxy_coat", "epoxy coat or skin"},
                                    Word{"gelcoat", "gelcoat"},
                                    Word{"laminate", "bare laminate"},
                                    Word{"metal", "metal"},
                                    Word{"board", "tooling board"},
                                    Word{"wood", "wood or plywood"},
                                    Word{"foam", "bare foam"},
                                    Word{"taped", "foam under tape"},
                                    Word{"plaster", "plaster"},
                                    Word{"print", "printed plastic"}};
};

/// What was on a face before.
enum class FaceHistory { fresh, sanded, repaired, waxed, filmed, semi_permanent };
template <>
struct Words<FaceHistory> {
    static constexpr std::array all{Word{"fresh", "new"},
                                    Word{"sanded", "sanded back"},
                                    Word{"repaired", "repaired in places"},
                                    Word{"waxed", "waxed before"},
                                    Word{"filmed", "under PVA film before"},
                                    Word{"semi_permanent", "under semi-permanent before"}};
};

enum class Verdict { good, caution, stop };
template <>
struct Words<Verdict> {
    static constexpr std::array all{Word{"good", "good"}, Word{"caution", "with care"}, Word{"stop", "not"}};
};

/// What a pair is about: the face's surface, what was on it, or the resin that comes next.
enum class PairOf { surface, history, resin };
template <>
struct Words<PairOf> {
    static constexpr std::array all{Word{"surface", "surface"}, Word{"history", "what was on it"},
                                    Word{"resin", "resin that comes on it"}};
};

/// Whether a release system goes with a surface, a history or a resin.
struct ReleasePair : Entry {
    PairOf of = PairOf::surface;
    std::string what;  ///< the file's word of a FaceKind, FaceHistory or Family
    ReleaseKind system = ReleaseKind::wax;
    Verdict verdict = Verdict::good;
    std::string why;   ///< one sentence
    std::string mend;  ///< the way out; empty where it is good
    static void fields(auto& c, auto&& v) {
        v("of", c.of);
        v("what", c.what);
        v("system", c.system);
        v("verdict", c.verdict);
        v("why", c.why);
        v("mend", c.mend);
    }
    bool operator==(const ReleasePair&) const = default;
};

/// Bag film, peel ply, tape and the like, priced by the unit that they are used in.
struct Consumable : Entry {
    std::string unit = "m²";
    double price = 1;    ///< per unit
    double waste = 0.2;  ///< share bought beyond what is covered
    double density = 0;  ///< kg/m³, of what is planned by volume and bought by mass
    double porous = 0;   ///< m of air in its thickness while a bag is emptied, before it is pressed
    double width = 0;    ///< m of the roll; 0 where it does not come by width
    double K = 0;        ///< m², what a flow medium lets through in its plane; 0 where nothing runs in it
    double pressed = 0;  ///< m thick under a bag
    double share = 0;    ///< of that thickness that resin fills
    /// What it takes of a face that curves both ways before it wrinkles, by one or both: rad that a cloth
    /// shears by, and the share that a sheet stretches by. 0 where nobody says.
    double shears = 0, stretches = 0;
    double gives = 0;  ///< N/m of width at which a film stretches for good; 0 where nobody says
    double pulls = 1;  ///< parts that it serves before it is worn
    double takes = 0;  ///< kg of resin per unit that it keeps when it is pulled off
    double reach = 0;  ///< m to a hose over which it carries the air under a film; 0 where nobody says
    static void fields(auto& c, auto&& v) {
        v("unit", c.unit);
        v("density_kg_m3", c.density, 0.0, 20000.0);
        v("porous_m", c.porous, 0.0, 0.1);
        v("width_m", c.width, 0.0, 20.0);
        v("K_m2", c.K, 0.0, 1e-5);
        v("pressed_m", c.pressed, 0.0, 0.1);
        v("share", c.share, 0.0, 1.0);
        v("shears_rad", c.shears, 0.0, 1.5);
        v("stretches", c.stretches, 0.0, 5.0);
        v("gives_N_m", c.gives, 0.0, 1e6);
        v("pulls", c.pulls, 1.0, 1e5);
        v("takes_kg", c.takes, 0.0, 10.0);
        v("reach_m", c.reach, 0.0, 100.0);
        v("price", c.price, 0.0, 10000.0);
        v("waste", c.waste, 0.0, 3.0);
    }
    bool operator==(const Consumable&) const = default;
};

struct Fastener : Entry {
    double diameter = 0.008, price = 0.6;
    static void fields(auto& c, auto&& v) {
        v("diameter_m", c.diameter, 0.001, 0.1);
        v("price", c.price, 0.0, 1000.0);
    }
    bool operator==(const Fastener&) const = default;
};

/// What a back is bonded to the shell with, cured.
struct Bonding : Entry {
    double E = 3e9, G = 1.1e9;     ///< Pa
    double top_temperature = 338;  ///< K it holds to
    bool by_length = false;        ///< bought by the metre, else by mass
    double price = 20;             ///< per m or kg
    /// Of what sets by a reaction of its own; strips and cords have no gel time.
    Family family = Family::epoxy;
    double density = 1200;          ///< kg/m³
    double gel_time = 0;            ///< s of a thin bead at room temperature; 0 where nothing in it reacts
    double hardens = 57600;         ///< s until what it holds may be moved
    double hardens_at = kShopRoom;  ///< K at which that is told
    double Tg = 340;                ///< K after its usual cure
    double Tg_lead = 20;            ///< K by which a long cure brings its Tg above the cure's own heat
    CureSheet cures;                ///< empty where it cures as is usual for its family
    [[nodiscard]] bool sets() const { return gel_time > 0; }
    static void fields(auto& c, auto&& v) {
        v("E_Pa", c.E, 1e3, 1e11);
        v("G_Pa", c.G, 1e3, 1e11);
        v("by_length", c.by_length);
        v("price", c.price, 0.0, 10000.0);
        v("top_temperature_K", c.top_temperature, 290.0, 700.0);
        v("family", c.family);
        v("density_kg_m3", c.density, 20.0, 4000.0);
        v("gel_time_s", c.gel_time, 0.0, 1e6);
        v("hardens_s", c.hardens, 60.0, 3e6);
        v("hardens_at_K", c.hardens_at, 263.0, 520.0);
        v("Tg_K", c.Tg, 200.0, 700.0);
        v("Tg_lead_K", c.Tg_lead, 0.0, 80.0);
        v("cures", c.cures);
    }
    bool operator==(const Bonding&) const = default;
};

/// What printed tiles are made of.
struct Filament : Entry {
    double density = 1270, price = 22;  ///< kg/m³, per kg
    double softens = 353;               ///< K at which it loses its shape under load
    double alpha = 60e-6;               ///< 1/K
    double E = 2e9;                     ///< Pa, printed solid
    double conductivity = 0.2;          ///< W/(m·K)
    double heat_capacity = 1300;        ///< J/(kg·K)
    bool dissolves_in_styrene = false;
    static void fields(auto& c, auto&& v) {
        v("density_kg_m3", c.density, 500.0, 5000.0);
        v("E_Pa", c.E, 1e7, 1e11);
        v("conductivity_W_mK", c.conductivity, 0.02, 50.0);
        v("heat_capacity_J_kgK", c.heat_capacity, 300.0, 5000.0);
        v("price_kg", c.price, 0.0, 10000.0);
        v("softens_K", c.softens, 290.0, 700.0);
        v("alpha_1_K", c.alpha, 0.0, 3e-4);
        v("dissolves_in_styrene", c.dissolves_in_styrene);
    }
    bool operator==(const Filament&) const = default;
};

/// What draws the air out.
struct VacuumPump : Entry {
    double speed = 16.0 / 3600;  ///< m³/s
    double ultimate = 300;       ///< Pa absolute on its shut inlet
    int ports = 1;               ///< hoses that it takes
    bool oil = true;             ///< sealed by oil, which takes up styrene and solvents
    static void fields(auto& c, auto&& v) {
        v("speed_m3_s", c.speed, 1e-6, 1.0);
        v("ultimate_Pa", c.ultimate, 0.0, 90000.0);
        v("ports", c.ports, 1, 40);
        v("oil", c.oil);
    }
    bool operator==(const VacuumPump&) const = default;
};

/// What the pressure in a bag is read off.
struct VacuumGauge : Entry {
    double lowest = 0;     ///< Pa absolute, the least that it shows
    double step = 100;     ///< Pa, the least difference that is read off it
    bool absolute = true;  ///< else it counts from the room's pressure
    static void fields(auto& c, auto&& v) {
        v("lowest_Pa", c.lowest, 0.0, 90000.0);
        v("step_Pa", c.step, 0.01, 20000.0);
        v("absolute", c.absolute);
    }
    bool operator==(const VacuumGauge&) const = default;
};

/// A pot that catches resin before it comes to the pump.
struct ResinTrap : Entry {
    double volume = 0.005;  ///< m³
    int ports = 1;          ///< hoses from bags that it takes
    static void fields(auto& c, auto&& v) {
        v("volume_m3", c.volume, 1e-5, 1.0);
        v("ports", c.ports, 1, 40);
    }
    bool operator==(const ResinTrap&) const = default;
};

/// What the shut bag of a process, by its word in job files, may rise by.
struct PassMark : Entry {
    double rise = 500;  ///< Pa in ten minutes
    static void fields(auto& c, auto&& v) { v("rise_Pa", c.rise, 1.0, 101325.0); }
    bool operator==(const PassMark&) const = default;
};

/// How an oven is built, or a tent with a heater; its size is Brief's.
struct OvenBuild : Entry {
    double walls = 0.6;           ///< W/(m²·K) from its air to the room
    double lining = 10000;        ///< J/(m²·K) that its walls take up as they follow the air
    double changes = 2.0 / 3600;  ///< 1/s, of its air against the room's
    static void fields(auto& c, auto&& v) {
        v("walls_W_m2K", c.walls, 0.05, 50.0);
        v("lining_J_m2K", c.lining, 0.0, 1e6);
        v("changes_1_s", c.changes, 0.0, 0.1);
    }
    bool operator==(const OvenBuild&) const = default;
};

/// Hours and prices of hands; one figure an entry.
struct Rate : Entry {
    std::string unit;
    double value = 0;
    double set_up = 0;  ///< h each time, whatever the amount
    static void fields(auto& c, auto&& v) {
        v("unit", c.unit);
        v("value", c.value, 0.0, 1e9);
        v("set_up_h", c.set_up, 0.0, 1000.0);
    }
    /// h for so much of it; nothing to do takes no setting up either.
    [[nodiscard]] double hours(double amount) const { return amount > 0 ? set_up + value * amount : 0; }
    bool operator==(const Rate&) const = default;
};

}  // namespace jig
