// Where the resin of an infused part or shell runs, and what that says of its hoses.
#pragma once

#include "core/base/shared.hpp"
#include "core/science/flow/fill.hpp"
#include "core/science/flow/settle.hpp"
#include "core/stages/bag/choices.hpp"
#include "core/stages/bag/ports.hpp"
#include "core/stages/brief/choices.hpp"
#include "core/stages/edge/flange.hpp"
#include "core/stages/part/choices.hpp"
#include "core/stages/part/draped.hpp"
#include "core/stages/shell/choices.hpp"
#include "core/stages/stage.hpp"

namespace jig::bag {

/// What of the library the resin's way reads.
using FlowLibrary = Lists<Reinforcement, Resin, SurfaceCoat, Core, Consumable>;

/// The face that it runs over, in even triangles.
struct FlowFace {
    Shared<TriangleMesh> mesh;
    std::vector<char> flange;  ///< by triangle, whether it is the mould's flange; empty where there is none
    // NOLINTNEXTLINE(google-explicit-constructor): a face without a flange is its mesh.
    FlowFace(Shared<TriangleMesh> face = {}, std::vector<char> on_flange = {})
        : mesh(std::move(face)), flange(std::move(on_flange)) {}
    bool operator==(const FlowFace&) const = default;
};

/// All that the resin's way depends on but the face itself.
struct FlowAsked {
    bool infused = false;  ///< and all of its materials are known; the rest stands only then
    Infused of = Infused::part;
    Infusion infusion;
    struct Sheet {
        part::Source of;
        FlowLayer flow;
        bool cloth = false;  ///< it may lie as its net does
        bool operator==(const Sheet&) const = default;
    };
    std::vector<Sheet> preform;  ///< from the tool's face outwards, those of zones behind the common ones
    part::Choices stack;         ///< layers and zones alone: which sheets lie where
    std::vector<shell::Zone> doublers;  ///< of a shell, one for each of the stack's zones: where they lie
    FlowLayer medium;                   ///< none where its thickness is 0
    bool shut_core = false;             ///< a core without holes parts one skin from the other
    CuringResin resin;
    double density = 1100, pot_life = 0;  ///< kg/m³, s
    double mix_ratio = 30;                ///< hardener, parts by mass to 100 of resin
    double vacuum = 0, room = 101325;     ///< Pa absolute
    bool operator==(const FlowAsked&) const = default;
};

/// Where materials are missing nothing is asked: Part says what is wrong with them. Pots stand in a room of
/// `room` K.
FlowAsked flow_asked(const Choices& choices, const part::Choices& part, const brief::Making& brief,
                     double room, const FlowLibrary& shop);
/// Of the shell on its plug, which gels at `gel` K. Cloth lies by the face's length there, not by a net, and
/// doublers along corners and under ribs are left out: strips that are laid for themselves.
FlowAsked shell_flow_asked(const Choices& choices, const shell::Choices& shell, double gel, double room,
                           const FlowLibrary& shop);
/// The shell as a part would be laid: its doublers are zones that lie on top.
part::Choices as_preform(const shell::Choices& shell, double gel);
/// Throws InputError; Cancelled.
FlowFace even_face(const edge::ToolFace& tool, Infused of, bool fine, Progress& progress);

/// What fronts that were marked say of the typical figures.
struct FrontFit {
    double lets = 1;               ///< times as much as the library says that the preform lets through
    std::optional<double> spread;  ///< as a factor either way, 19 times in 20; none for a single mark
    int marks = 0;
    double off = 1;  ///< factor by which marks miss it, root mean square of its logarithm
    bool operator==(const FrontFit&) const = default;
};

/// The same with the race along the rim that meets the marks best.
struct RaceFit {
    double race = 1;
    FrontFit fit;
    double off_before = 1;  ///< factor by which marks miss with the race as it is typed
    bool operator==(const RaceFit&) const = default;
};

/// Resin that is mixed at once and drawn from in its turn.
struct FeedPot {
    double mass = 0, hardener = 0;         ///< kg of both parts, and of that the hardener
    double mixed = 0, from = 0, till = 0;  ///< s after the first feed opens: mixed, and drawn from and empty
    bool operator==(const FeedPot&) const = default;
};

/// What the resin's pressure leaves of the plies once it is full.
struct Thickness {
    SettledPlies settled;
    double full = 1, end = 1;  ///< times as thick as under the full load, at the worst place of the face
    Point at = Point::Zero();  ///< there, at the end
    double over = 0,
           drawn = 0;  ///< kg of resin that lie in it for that when it is full, and leave till it gels
    double wait = 0;   ///< s from full to gel
    bool operator==(const Thickness&) const = default;
};

struct Flow {
    std::string fault, mend;  ///< why hoses that were asked for cannot be followed; empty where they can
    Infused of = Infused::part;
    bool runs = false;  ///< whether there is anything to follow
    bool fine = false;
    bool aged = false;  ///< each pot by its own age; else all as old as the first
    bool shut_core = false;
    Shared<TriangleMesh> face;      ///< in the part's axes
    Frame frame{};                  ///< w is the pull, u the length
    double edge = 0;                ///< m of its triangles
    std::vector<PlacedPort> ports;  ///< feeds first
    Filling filling;
    std::optional<double> gel;           ///< s after the first feed opens, of its front
    double viscosity = 0;                ///< Pa·s then
    double drive = 0;                    ///< Pa between the pot and the vents
    double rise = 0;                     ///< Pa that the height of the face takes off it
    Lag lag;                             ///< of the front under the medium; 0 without one
    double lag_time = 0;                 ///< s
    double brake = 0;                    ///< m without medium in which what is behind catches up
    double area = 0;                     ///< m² of the face
    double pot_life = 0;                 ///< s
    double hoses = 0;                    ///< kg of resin that stay in feeds' hoses
    double choked = 0;                   ///< Pa, the most that a feed's hose takes off the drive on average
    std::vector<FeedPot> pots;           ///< in their order; none where the resin does not get through
    std::optional<Thickness> thickness;  ///< of a preform that fills
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
Flow flow(const FlowAsked& asked, const FlowFace& face, const Frame& frame, const part::Draped& draped,
          bool fine, Progress& progress);

/// One more than these is the last that is written down, and a call says so: they are too small for the job.
inline constexpr std::size_t kMostPots = 60;

/// Pots of at most `most` kg for what goes in and `hoses` kg that are drawn before it, each mixed `waited` s
/// before it is drawn from and empty within the share of its life that may be used.
std::vector<FeedPot> pots_in_turn(const Filling& filling, double hoses, double most, double waited,
                                  const FlowAsked& asked);

/// What runs as it is drawn from pots in turn, each with its own age: newer resin lies nearer the hose, and
/// what lies between two places resists as much as the front met from the one to the other (exact where resin
/// runs by one way from its feed, in a strip or a ring). `filling` was followed with `first`, all as old as
/// the first pot; none for a single pot.
std::optional<Viscosity> of_pots(const Filling& filling, const Viscosity& first, double hoses, double most,
                                 double waited, const FlowAsked& asked);

/// What settles after the last place is wet; `faces` of the flow's own face. None where nothing gives.
std::optional<Thickness> thickness_left(const FlowAsked& asked, const Flow& flow,
                                        const std::vector<FaceFlow>& faces, const Viscosity& viscosity,
                                        const Point& gravity, Progress& progress);

/// s of a filling of `fill` s that somebody stands by it: no longer than half a shift. What runs on by then
/// is waited for.
double watched(double fill);

std::vector<Figure> flow_figures(const Flow& flow, const Infusion& infusion);
/// What the infusion's marks say of a flow of `density` kg/m³ that was followed with `viscosity`; none where
/// no mark can be read. What hoses took is taken off both times, as if feeds gave alike.
std::optional<FrontFit> fit_fronts(const Infusion& infusion, const Flow& flow, const Viscosity& viscosity,
                                   double density);

/// What else calls of a flow speak of.
struct Preform {
    const part::Choices& stack;      ///< the part, or the shell as one would be laid
    double mixed = 0;                ///< kg of resin for all of it
    double share = 1;                ///< of it that lies on the face that is followed
    const RaceFit* raced = nullptr;  ///< where a race was sought for these marks
    int goes = 1;                    ///< days that a shell is laid over
};
Calls flow_calls(const Flow& flow, const Infusion& infusion, const Preform& preform);

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
/// Spines of one to four lines, fishbones of two and four, the ring and the end, each followed: those that
/// fill first, soonest first.
struct Layouts {
    std::vector<Layout> tried;
    bool operator==(const Layouts&) const = default;
};
/// Throws InputError for a part that is not infused; Cancelled.
Layouts seek_layout(FlowAsked asked, const FlowFace& face, const Frame& frame, const part::Draped& draped,
                    Progress& progress);

/// Follows the resin at races from 1 to a thousand, coarse, then nearer to the one that leaves the marks
/// least scattered; of races that do as well, the least. Throws InputError for a part that is not infused or
/// fewer than three marks that it can read, of which some must lie near the rim for a race to show;
/// Cancelled.
RaceFit seek_race(FlowAsked asked, const FlowFace& face, const Frame& frame, const part::Draped& draped,
                  Progress& progress);

}  // namespace jig::bag
