// What each finding of a job reads: a node's parameters are all there is, and so the key of its memo.
#pragma once

#include "core/base/slate.hpp"
#include "core/job/job.hpp"
#include "core/stages/back/suggest.hpp"
#include "core/stages/bag/findings.hpp"
#include "core/stages/bag/flow.hpp"
#include "core/stages/bag/keeps.hpp"
#include "core/stages/brief/findings.hpp"
#include "core/stages/heat/findings.hpp"
#include "core/stages/heat/life.hpp"
#include "core/stages/heat/one_go.hpp"
#include "core/stages/log/findings.hpp"
#include "core/stages/part/cuts_sought.hpp"
#include "core/stages/part/kit.hpp"
#include "core/stages/part/panels.hpp"
#include "core/stages/part/trial.hpp"
#include "core/stages/plug/sheets.hpp"
#include "core/stages/run/findings.hpp"
#include "core/stages/shell/find_stack.hpp"

namespace jig {

/// What the findings are worked out from.
struct Given {
    Job job;
    std::shared_ptr<const Shop> shop;
};

// Cells: slices of job and shop.

template <class S>
requires std::is_base_of_v<S, brief::Choices>
struct Cell<S> {
    static const S& of(const Given& g) { return g.job.brief; }
};
template <class... S>
struct Cell<brief::Of<S...>> {
    static brief::Of<S...> of(const Given& g) { return g.job.brief; }
};
template <class... E>
struct Cell<Lists<E...>> {
    static Lists<E...> of(const Given& g) { return *g.shop; }
};

/// What the maker decided, stage by stage; the brief goes by slices.
inline auto choices_of(const Job& job) {
    return std::tie(job.shape, job.split, job.plug, job.edge, job.shell, job.back, job.release, job.part,
                    job.bag, job.heat, job.run, job.log);
}
template <class C, class All>
inline constexpr bool kIsAmong = false;
template <class C, class... All>
inline constexpr bool kIsAmong<C, std::tuple<All...>> = (std::is_same_v<const C&, All> || ...);
template <class C>
requires(kIsAmong<C, decltype(choices_of(std::declval<const Job&>()))> &&
         !std::is_same_v<C, shell::Choices>) struct Cell<C> {
    static const C& of(const Given& g) { return std::get<const C&>(choices_of(g.job)); }
};

/// The shell as the maker typed it. What it is in truth, the wall of a mould that is cut itself among them,
/// is shell::Choices.
struct TypedShell {
    shell::Choices shell;
    bool operator==(const TypedShell&) const = default;
};
template <>
struct Cell<TypedShell> {
    static TypedShell of(const Given& g) { return {g.job.shell}; }
};

/// A figure that goes from one node to others under a name of its own.
template <class Name>
struct Sole {
    double value = 0;
    bool operator==(const Sole&) const = default;
};

/// The mesh as it came, for a shape that is one.
struct MeshFile {
    std::optional<Attachment> file;
    bool operator==(const MeshFile&) const = default;
};
template <>
struct Cell<MeshFile> {
    static MeshFile of(const Given& g);
};

/// K of the workshop.
using Room = Sole<struct RoomName>;
template <>
struct Cell<Room> {
    static Room of(const Given& g) { return {g.job.heat.room}; }
};

/// What the plug is cut at, of the drawing's size.
using PlugScale = Sole<struct PlugScaleName>;
template <>
struct Cell<PlugScale> {
    static PlugScale of(const Given& g) { return {g.job.heat.plug_scale}; }
};

/// Number of the mould's piece that Edge shows.
using ShownPiece = Sole<struct ShownPieceName>;
template <>
struct Cell<ShownPiece> {
    static ShownPiece of(const Given& g) { return {static_cast<double>(g.job.edge.piece)}; }
};

template <>
struct Cell<heat::Conditions> {
    static heat::Conditions of(const Given& g) { return heat::conditions_of(g.job.heat); }
};
template <>
struct Cell<heat::RunsPast> {
    static heat::RunsPast of(const Given& g) { return {g.job.heat.runs_past}; }
};
template <CureOf of_>
struct Cell<heat::LegsOf<of_>> {
    static heat::LegsOf<of_> of(const Given& g) { return {heat::legs_in(g.job.heat, of_)}; }
};

/// What the search for a rib pitch starts from: the back without what it looks for.
struct AnyPitch {
    back::Choices back;
    bool operator==(const AnyPitch&) const = default;
};
template <>
struct Cell<AnyPitch> {
    static AnyPitch of(const Given& g);
};

// What stages take from those after them, so that no hidden way leads back.

/// K of the plug while the shell gels on it; 0 where nothing in the plug asks.
using EnvelopeHeat = Sole<struct EnvelopeHeatName>;
/// Bending stiffness of the flange's laminate along it, N·m; 0 where no joint asks or it is not known.
using FlangePlate = Sole<struct FlangePlateName>;
/// How thick the shell may be laid at once.
struct ShellLimit {
    GoLimit go;
    bool operator==(const ShellLimit&) const = default;
};
/// m of ribs that lie on the shell; 0 where no doubler asks.
using UnderRibs = Sole<struct UnderRibsName>;
/// The tool's face with its flange; none where the rim allows no flange.
struct ToolSurface {
    Shared<edge::ToolFace> face;
    bool operator==(const ToolSurface&) const = default;
};
/// m of the mesh's edges, quick and fine; 0 without a tool.
template <bool fine>
using MeshEdge = Sole<std::bool_constant<fine>>;
template <bool fine>
struct TrialFace {
    back::EvenFace face;
    bool operator==(const TrialFace&) const = default;
};
/// None where there is no tool.
template <bool fine>
struct Tried {
    Shared<back::Trial> trial;
    bool operator==(const Tried&) const = default;
};
/// 1 where the part is infused or on trial, else 0: faces are not meshed for nothing.
using FaceWanted = Sole<struct FaceWantedName>;
/// The part's face as resin is followed over it and loads are tried on it; none where neither is asked for or
/// there is no tool.
template <bool fine>
struct PartFace {
    Shared<TriangleMesh> mesh;
    bool operator==(const PartFace&) const = default;
};
/// The face as it is draped, without the cloth on it: plies that change leave it as it is.
struct BareFace {
    part::Draped face;
    bool operator==(const BareFace&) const = default;
};
/// None where the part has nothing to carry, or there is no tool.
template <bool fine>
struct PartTried {
    Shared<part::Trial> trial;
    bool operator==(const PartTried&) const = default;
};
template <bool fine>
struct Flowed {
    bag::Flow flow;
    bool operator==(const Flowed&) const = default;
};
/// The same of the mould's shell on its plug.
struct ShellFlowAsked {
    bag::FlowAsked asked;
    bool operator==(const ShellFlowAsked&) const = default;
};
/// 1 where the shell is infused, else 0.
using ShellFaceWanted = Sole<struct ShellFaceWantedName>;
template <bool fine>
struct ShellFace {
    bag::FlowFace face;
    bool operator==(const ShellFace&) const = default;
};
template <bool fine>
struct ShellFlowed {
    bag::Flow flow;
    bool operator==(const ShellFlowed&) const = default;
};
struct ShellLayouts {
    bag::Layouts found;
    bool operator==(const ShellLayouts&) const = default;
};
struct ShellRace {
    bag::RaceFit found;
    bool operator==(const ShellRace&) const = default;
};
/// The plug's pieces as they are laid onto their stocks.
struct PlugSheets {
    std::vector<SheetSet> laid;
    bool operator==(const PlugSheets&) const = default;
};
/// The back's ribs as pieces of one stock; none where it has none.
struct RibCutting {
    std::vector<CutPiece> pieces;
    SheetRules rules;
    bool operator==(const RibCutting&) const = default;
};
struct RibSheets {
    SheetSet laid;
    bool operator==(const RibSheets&) const = default;
};
/// What sheets decide, with those that pieces are truly laid onto in place of sums by area.
struct Settled {
    Shared<plug::Findings> plug;
    Shared<run::Findings> run;
    bool operator==(const Settled&) const = default;
};
struct KitAsked {
    part::Choices part;
    bool operator==(const KitAsked&) const = default;
};

/// Heat with what its cures ask of the oven, where the tool that goes in is known.
struct Heated {
    Shared<heat::Findings> heat;
    bool operator==(const Heated&) const = default;
};
struct Routes {
    std::vector<plug::Plan> plans;
    bool operator==(const Routes&) const = default;
};

namespace nodes {

shape::Findings shape_of(const shape::Choices&, const MeshFile&, Progress&);
split::Asked split_asked(const split::Choices&, const brief::Of<brief::Wanted, brief::Series>&,
                         const split::Library&);
EnvelopeHeat envelope_heat(const plug::Choices&, const shell::Warmth&);
shell::Warmth warmth(const heat::Choices&, const TypedShell&, const plug::Choices&, const Lists<Resin>&);
plug::Mould mould_of(const plug::Choices&, const edge::Choices&, const shape::Findings&,
                     const split::Findings&, const brief::Making&, const edge::Library&, const plug::Library&,
                     Progress&);
shell::Choices shell_made(const TypedShell&, const plug::Choices&, const plug::Mould&, const Room&,
                          const plug::Library&);
plug::Findings plug_of(const plug::Choices&, const shape::Choices&, const shape::Findings&,
                       const split::Findings&, const plug::Mould&, const plug::Asked&, const plug::Library&,
                       const EnvelopeHeat&, Progress&);
FlangePlate flange_plate(const brief::Making&, const split::Choices&, const TypedShell&, const plug::Choices&,
                         const shell::Library&, const plug::Library&);
edge::Findings edge_of(const edge::Choices&, const shape::Findings&, const split::Findings&,
                       const brief::Making&, const FlangePlate&, const edge::Library&);
ToolSurface tool_surface(const edge::Findings&);
heat::PlugUnder plug_under(const plug::Choices&, const split::Findings&, const plug::Library&);
heat::PlugMade plug_made(const plug::Findings&);
heat::OvenEnds oven_ends(const heat::Choices&);
ShellLimit shell_limit(const heat::ShellGo&, const shell::Choices&, const Lists<Resin>&);
UnderRibs under_ribs(const shell::Choices&, const back::Choices&, const ToolSurface&);
part::ClothAsked cloth_asked(const part::Choices&);
part::Draped draped(const part::ClothAsked&, const ToolSurface&, const Lists<Reinforcement>&, Progress&);
part::ZonesAsked zones_asked(const part::Choices&);
part::SoughtCuts seek_cuts(const part::ClothAsked&, const ToolSurface&, const Lists<Reinforcement>&,
                           Progress&);
BareFace bare_face(const part::Draped&);
part::Regions regions(const part::ZonesAsked&, const ToolSurface&, const BareFace&, Progress&);
part::InsertsAsked inserts_asked(const part::Choices&);
part::InsertPlaces insert_places(const part::InsertsAsked&, const ToolSurface&, const BareFace&);
part::CoreAsked core_asked(const part::Choices&);
part::CoreFit core_fit(const part::CoreAsked&, const ToolSurface&, const BareFace&, const part::Regions&,
                       const Lists<Core>&, Progress&);
/// What the kit reads of the part.
KitAsked kit_asked(const part::Choices&);
part::Kit kit(const KitAsked&, const part::Draped&, const ToolSurface&, const Lists<Reinforcement>&,
              Progress&);
part::OtherFaces other_faces(const ShownPiece&, const split::Findings&, const part::ClothAsked&, Progress&);
part::CorePanels core_panels(const part::CoreAsked&, const ToolSurface&, const BareFace&,
                             const part::OtherFaces&, const Lists<Core>&, Progress&);
shell::Findings shell_of(const shell::Choices&, const shape::Findings&, const split::Findings&,
                         const edge::Findings&, const brief::Crew&, const UnderRibs&, const shell::Warmth&,
                         const ShellLimit&, const shell::Library&);
run::Findings run_of(const run::Choices&, const run::Asked&, const Room&, const heat::Cures&,
                     const heat::OvenUse&, const split::Choices&, const split::Findings&,
                     const plug::Choices&, const plug::Findings&, const edge::Choices&, const edge::Findings&,
                     const shell::Choices&, const shell::Findings&, const back::Choices&,
                     const back::Findings&, const release::Findings&, const part::Choices&,
                     const part::Findings&, const bag::Choices&, const bag::Findings&, const Flowed<false>&,
                     const ShellFlowed<false>&, const run::Library&);
plug::Cutting plug_cutting(const plug::Choices&, const plug::Findings&, const PlugScale&,
                           const plug::Library&);
PlugSheets plug_sheets(const plug::Cutting&, Progress&);
RibCutting rib_cutting(const back::Choices&, const back::Findings&, const back::Library&);
RibSheets rib_sheets(const RibCutting&, Progress&);
Settled settled(const run::Choices&, const run::Asked&, const Room&, const heat::Cures&, const heat::OvenUse&,
                const split::Choices&, const split::Findings&, const plug::Choices&, const plug::Findings&,
                const edge::Choices&, const edge::Findings&, const shell::Choices&, const shell::Findings&,
                const back::Choices&, const back::Findings&, const release::Findings&, const part::Choices&,
                const part::Findings&, const bag::Choices&, const bag::Findings&, const Flowed<false>&,
                const ShellFlowed<false>&, const run::Library&, const plug::Cutting&, const PlugSheets&,
                const RibSheets&, const part::CorePanels&, const plug::Library&);
heat::FaceFolds face_folds(const ToolSurface&, Progress&);
heat::FoldZones fold_zones(const heat::FaceFolds&, const part::ZonesAsked&, const BareFace&);
Heated heated(const heat::Choices&, const heat::Findings&, const heat::OvenUse&);
part::Findings part_of(const part::Choices&, const shape::Findings&, const split::Findings&,
                       const brief::Crew&, const part::Draped&, const part::Regions&, const part::CoreFit&,
                       const part::InsertPlaces&, const part::OtherFaces&, const part::OtherMarks&,
                       const part::OtherCores&, const part::Keepers&, const Room&, const part::Library&);
bag::FlowAsked flow_asked(const bag::Choices&, const part::Choices&, const brief::Making&, const Room&,
                          const bag::FlowLibrary&);
part::DutyAsked duty_asked(const part::Choices&);
FaceWanted face_wanted(const bag::FlowAsked&, const part::DutyAsked&);
template <bool fine>
PartFace<fine> part_face(const FaceWanted&, const ToolSurface&, Progress&);
PartTried<false> try_part_quickly(const part::DutyAsked&, const PartFace<false>&, const ToolSurface&,
                                  const part::Draped&, const part::DutyLibrary&, Progress&);
PartTried<true> try_part_finely(const part::DutyAsked&, const PartFace<true>&, const PartTried<false>&,
                                const ToolSurface&, const part::Draped&, const part::DutyLibrary&, Progress&);
template <bool fine>
Flowed<fine> flowed(const bag::FlowAsked&, const PartFace<fine>&, const ToolSurface&, const part::Draped&,
                    Progress&);
bag::Layouts seek_layout(const bag::FlowAsked&, const PartFace<false>&, const ToolSurface&,
                         const part::Draped&, Progress&);
bag::RaceFit seek_race(const bag::FlowAsked&, const PartFace<false>&, const ToolSurface&, const part::Draped&,
                       Progress&);
ShellFlowAsked shell_flow_asked(const bag::Choices&, const shell::Choices&, const shell::Warmth&,
                                const bag::FlowLibrary&);
ShellFaceWanted shell_face_wanted(const ShellFlowAsked&);
template <bool fine>
ShellFace<fine> shell_face(const ShellFaceWanted&, const ToolSurface&, Progress&);
template <bool fine>
ShellFlowed<fine> shell_flowed(const ShellFlowAsked&, const ShellFace<fine>&, const ToolSurface&, Progress&);
ShellLayouts seek_shell_layout(const ShellFlowAsked&, const ShellFace<false>&, const ToolSurface&, Progress&);
ShellRace seek_shell_race(const ShellFlowAsked&, const ShellFace<false>&, const ToolSurface&, Progress&);
template <bool fine>
MeshEdge<fine> mesh_edge(const ToolSurface&, const back::Choices&);
template <bool fine>
TrialFace<fine> trial_face(const ToolSurface&, const MeshEdge<fine>&, Progress&);
Tried<false> try_quickly(const ToolSurface&, const TrialFace<false>&, const edge::Choices&,
                         const edge::Findings&, const shell::Choices&, const shell::Findings&,
                         const back::Choices&, const back::Library&, const shape::Findings&, const Room&,
                         const back::Served&, Progress&);
Tried<true> try_finely(const ToolSurface&, const TrialFace<true>&, const Tried<false>&, const edge::Choices&,
                       const edge::Findings&, const shell::Choices&, const shell::Findings&,
                       const back::Choices&, const back::Library&, const shape::Findings&, const Room&,
                       const back::Served&, Progress&);
back::Suggestion seek_pitch(const ToolSurface&, const edge::Choices&, const edge::Findings&,
                            const shell::Choices&, const shell::Findings&, const AnyPitch&,
                            const back::Library&, const shape::Findings&, const Room&, Progress&);
shell::Found seek_stack(const shell::Choices&, const back::Choices&, const shell::Findings&,
                        const shell::Library&, Progress&);
Routes routes(const plug::Choices&, const shape::Choices&, const shape::Findings&, const split::Findings&,
              const plug::Asked&, const plug::Library&, const edge::Choices&, const brief::Making&,
              const edge::Library&, const PlugScale&, Progress&);

}  // namespace nodes

struct JobGraph
    : Graph<Given, &brief::evaluate, &nodes::shape_of, &nodes::split_asked, &split::evaluate, &nodes::warmth,
            &nodes::envelope_heat, &nodes::mould_of, &nodes::plug_of, &nodes::shell_made,
            &nodes::flange_plate, &nodes::edge_of, &nodes::tool_surface, &nodes::under_ribs,
            &nodes::plug_under, &heat::shell_go, &nodes::shell_limit, &nodes::shell_of, &back::evaluate,
            &bag::tape_land, &release::evaluate, &nodes::cloth_asked, &nodes::draped, &nodes::bare_face,
            &nodes::zones_asked, &nodes::regions, &nodes::inserts_asked, &nodes::insert_places,
            &nodes::core_asked, &nodes::core_fit, &nodes::other_faces, &part::other_marks, &part::other_cores,
            &bag::keepers, &nodes::part_of, &heat::part_go, &nodes::plug_made, &nodes::oven_ends,
            &heat::cure_on_plug, &heat::cure_with_back, &heat::cure_standing, &heat::cure_in_tool,
            &heat::cure_joined, &heat::cure_free, &heat::cures, &heat::oven_use, &bag::tool_behind,
            &bag::evaluate, &nodes::face_folds, &nodes::fold_zones, &heat::evaluate, &nodes::heated,
            &nodes::flow_asked, &nodes::duty_asked, &nodes::face_wanted, &nodes::part_face<false>,
            &nodes::try_part_quickly, &nodes::flowed<false>, &nodes::shell_flow_asked,
            &nodes::shell_face_wanted, &nodes::shell_face<false>, &nodes::shell_flowed<false>, &nodes::run_of,
            &log::evaluate, &nodes::core_panels, &nodes::kit_asked, &nodes::kit, &nodes::plug_cutting,
            &nodes::plug_sheets, &nodes::rib_cutting, &nodes::rib_sheets, &nodes::settled,
            &nodes::mesh_edge<false>, &nodes::trial_face<false>, &nodes::try_quickly, &nodes::mesh_edge<true>,
            &nodes::trial_face<true>, &nodes::try_finely, &nodes::part_face<true>, &nodes::try_part_finely,
            &nodes::flowed<true>, &nodes::shell_face<true>, &nodes::shell_flowed<true>, &nodes::seek_layout,
            &nodes::seek_race, &nodes::seek_cuts, &nodes::seek_shell_layout, &nodes::seek_shell_race,
            &nodes::seek_pitch, &nodes::seek_stack, &nodes::routes> {};
using JobSlate = Slate<JobGraph>;

}  // namespace jig
