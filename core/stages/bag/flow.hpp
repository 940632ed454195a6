// Where the resin of an infused part runs, and what that says of its hoses.
#pragma once

#include "core/base/shared.hpp"
#include "core/science/flow/fill.hpp"
#include "core/stages/bag/choices.hpp"
#include "core/stages/bag/ports.hpp"
#include "core/stages/brief/choices.hpp"
#include "core/stages/edge/flange.hpp"
#include "core/stages/part/choices.hpp"
#include "core/stages/part/draped.hpp"
#include "core/stages/stage.hpp"

namespace jig::bag {

/// What of the library the resin's way reads.
using FlowLibrary = Lists<Reinforcement, Resin, SurfaceCoat, Core, Consumable>;

/// All that the resin's way depends on but the face itself.
struct FlowAsked {
    bool infused = false;  ///< and all of its materials are known; the rest stands only then
    Infusion infusion;
    struct Sheet {
        part::Source of;
        FlowLayer flow;
        bool cloth = false;  ///< it may lie as its net does
        bool operator==(const Sheet&) const = default;
    };
    std::vector<Sheet> preform;  ///< from the tool's face outwards, those of zones behind the common ones
    part::Choices stack;         ///< layers and zones alone: which sheets lie where
    FlowLayer medium;            ///< none where its thickness is 0
    bool shut_core = false;      ///< a core without holes parts one skin from the other
    CuringResin resin;
    double density = 1100, pot_life = 0;  ///< kg/m³, s
    double vacuum = 0, room = 101325;     ///< Pa absolute
    bool operator==(const FlowAsked&) const = default;
};

/// Where materials are missing nothing is asked: Part says what is wrong with them.
FlowAsked flow_asked(const Choices& choices, const part::Choices& part, const brief::Making& brief,
                     const FlowLibrary& shop);

/// What fronts that were marked say of the typical figures.
struct FrontFit {
    double lets = 1;               ///< times as much as the library says that the preform lets through
    std::optional<double> spread;  ///< as a factor either way, 19 times in 20; none for a single mark
    int marks = 0;
    bool operator==(const FrontFit&) const = default;
};

struct Flow {
    std::string fault, mend;    ///< why hoses that were asked for cannot be followed; empty where they can
    bool runs = false;          ///< whether there is anything to follow
    Shared<TriangleMesh> face;  ///< in the part's axes
    Frame frame{};              ///< w is the pull, u the length
    double edge = 0;            ///< m of its triangles
    bool fine = false;
    std::vector<PlacedPort> ports;  ///< feeds first
    Filling filling;
    std::optional<double> gel;  ///< s after the first feed opens
    double viscosity = 0;       ///< Pa·s then
    double drive = 0;           ///< Pa between the pot and the vents
    double rise = 0;            ///< Pa that the height of the face takes off it
    Lag lag;                    ///< of the front under the medium; 0 without one
    double lag_time = 0;        ///< s
    double brake = 0;           ///< m without medium in which what is behind catches up
    double area = 0;            ///< m² of the face
    double pot_life = 0;        ///< s
    bool shut_core = false;
    std::optional<FrontFit> fit;
    /// m of spiral line: feeds and vents.
    [[nodiscard]] double line() const {
        double sum = 0;
        for (const auto& p : ports) sum += p.length;
        return sum;
    }
    bool operator==(const Flow&) const = default;
};

/// Follows the resin; hoses that lie nowhere, or none that lets resin in, are its fault. Throws Cancelled.
Flow flow(const FlowAsked& asked, const Shared<TriangleMesh>& face, const Frame& frame,
          const part::Draped& draped, bool fine, Progress& progress);

std::vector<Figure> flow_figures(const Flow& flow, const Infusion& infusion);
/// What the infusion's marks say of a flow that was followed with `viscosity`; none where no mark can be
/// read.
std::optional<FrontFit> fit_fronts(const Infusion& infusion, const Flow& flow, const Viscosity& viscosity);

/// `mixed` kg are mixed for the part.
Calls flow_calls(const Flow& flow, const Infusion& infusion, const part::Choices& part, double mixed);

/// The same infusion with its hoses as the maker's own, where they lie.
Infusion with_own_ports(Infusion infusion, const Flow& flow);

/// When a feed opens, in words: "at once", "when resin comes, 12 min".
std::string opening_words(const Flow& flow, std::size_t feed);

/// One plan of hoses among others.
struct Layout {
    InfusionPlan plan = InfusionPlan::spine;
    int lines = 1;
    std::optional<double> fill;  ///< s; none where it never is full
    double filled = 0;           ///< share
    double dry = 0;              ///< m²
    double resin = 0;            ///< kg that go in
    double line = 0;             ///< m of spiral line
    bool operator==(const Layout&) const = default;
};
/// Spines of one to four lines, the ring and the end, each followed: those that fill first, soonest first.
struct Layouts {
    std::vector<Layout> tried;
    bool operator==(const Layouts&) const = default;
};
/// Throws InputError for a part that is not infused; Cancelled.
Layouts seek_layout(FlowAsked asked, const Shared<TriangleMesh>& face, const Frame& frame,
                    const part::Draped& draped, Progress& progress);

}  // namespace jig::bag
