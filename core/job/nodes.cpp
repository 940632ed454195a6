#include <algorithm>
#include <cmath>

#include "core/job/graph.hpp"
#include "core/job/trial.hpp"
#include "core/stages/part/face.hpp"

namespace jig {

MeshFile Cell<MeshFile>::of(const Given& g) {
    const auto* file = g.job.shape.kind == ShapeKind::mesh ? g.job.attached(g.job.shape.file) : nullptr;
    return file != nullptr ? MeshFile{*file} : MeshFile{};
}

AnyPitch Cell<AnyPitch>::of(const Given& g) {
    AnyPitch out{g.job.back};
    const back::Choices none;
    out.back.pitch = none.pitch;
    out.back.feet.inset = none.feet.inset;
    return out;
}

namespace {

/// All that a tool on trial is built from; `tool` has a face.
struct Built {
    const ToolSurface& tool;
    const edge::Choices& edge;
    const edge::Findings& edge_found;
    const shell::Choices& shell;
    const shell::Findings& shell_found;
    const back::Choices& back;
    const back::Library& shop;
    const shape::Findings& shape;
    const Room& room;
    [[nodiscard]] back::ToolInputs inputs() const {
        return {*tool.face, edge, shell, shell_found, back, shop, shape.mesh, &edge_found, room.value};
    }
};

template <bool fine>
Tried<fine> tried(const Built& built, const TrialFace<fine>& face, const back::Served& brief,
                  const back::Trial* coarse, Progress& progress) {
    if (!built.tool.face || is_solid(built.shell.layers)) return {};
    const auto in = built.inputs();
    return {std::make_shared<const back::Trial>(back::try_out(in, face.face, brief, coarse, progress))};
}

}  // namespace

namespace nodes {

shape::Findings shape_of(const shape::Choices& c, const MeshFile& mesh, Progress& progress) {
    static const std::string none;
    return shape::evaluate(c, mesh.file && mesh.file->bytes ? *mesh.file->bytes : none, progress);
}

split::Asked split_asked(const split::Choices& c, const brief::Of<brief::Wanted, brief::Series>& brief,
                         const split::Library& shop) {
    return split::asked(c, brief, shop);
}

shell::Warmth warmth(const heat::Choices& heat, const TypedShell& typed, const plug::Choices& plug,
                     const Lists<Resin>& shop) {
    if (plug::no_plug(plug)) return {heat.room, heat.room};
    const auto* resin = find(shop.resins, typed.shell.resin);
    const double gel = heat.shell_gel > 0 ? heat.shell_gel
                       : resin != nullptr ? resin->gel_temperature
                                          : heat.room;
    return {heat.room, std::max(heat.room, gel)};
}

EnvelopeHeat envelope_heat(const plug::Choices& c, const shell::Warmth& warmth) {
    return {c.in_envelope ? warmth.gel : 0};
}

plug::Mould mould_of(const plug::Choices& c, const edge::Choices& edge, const shape::Findings& shape,
                     const split::Findings& split, const brief::Making& brief, const edge::Library& edge_shop,
                     const plug::Library& shop, Progress& progress) {
    plug::Mould out;
    if (!plug::no_plug(c)) return out;
    // What a flange lacks Edge says itself; here it stands in the way of the block.
    try {
        const std::size_t pieces = split.one_piece() ? 1 : split.set.pieces.size();
        for (std::size_t i = 0; i < pieces; ++i) {
            auto one = edge;
            one.piece = static_cast<int>(i) + 1;
            const auto rim = edge::evaluate(one, shape, split, brief, 0, edge_shop);
            if (!rim.tool) throw InputError("edge", "no flange can be drawn round it", rim.no_tool);
            out.pieces.push_back(plug::let_in(
                c, pieces > 1 ? split.facts[i].name : "mould", rim.tool->rimmed.mesh, rim.tool->frame,
                pieces > 1 ? split.set.pieces[i].map.area : split.mould_area(), shop, progress));
        }
    } catch (const InputError& e) {
        out.pieces.clear();
        out.obstacle = e.problem() + ": " + e.mend();
    }
    return out;
}

shell::Choices shell_made(const TypedShell& typed, const plug::Choices& plug, const plug::Mould& mould,
                          const Room& room, const plug::Library& shop) {
    if (!plug::no_plug(plug)) return typed.shell;
    auto out = typed.shell;
    const auto wall = plug::wall_of(plug, mould, shop);
    if (!wall) throw InputError("plug", "the library has not what the mould is made of", "choose it in Plug");
    out.layers = {*wall};
    out.zones.clear();
    out.how = LayUp::hand;
    out.pot_loss = 0;
    out.cure_temperature = std::max(283.0, room.value);
    return out;
}

plug::Findings plug_of(const plug::Choices& c, const shape::Choices& shape_choices,
                       const shape::Findings& shape, const split::Findings& split, const plug::Mould& mould,
                       const plug::Asked& brief, const plug::Library& shop, const EnvelopeHeat& cure,
                       Progress& progress) {
    return plug::evaluate(c, shape_choices, shape, split, mould, brief, shop, cure.value, progress);
}

FlangePlate flange_plate(const brief::Making& brief, const split::Choices& split, const TypedShell& typed,
                         const plug::Choices& plug, const shell::Library& shop,
                         const plug::Library& plug_shop) {
    if (brief.process != Process::squeeze && split.way == SplitWay::one) return {};
    try {
        if (plug::no_plug(plug)) {
            const auto wall = plug::wall_of(plug, {}, plug_shop);
            if (!wall) return {};
            const auto& m = wall->solid->material;
            return {m.E1 * std::pow(wall->thickness, 3) / 12 / (1 - m.nu12 * m.nu12)};
        }
        const auto l = shell::flange_laminate(typed.shell, shop);
        return {std::min(l.D_free(0, 0), l.D_free(1, 1))};
    } catch (const InputError&) {
        return {};  // Shell says what is wrong with it
    }
}

edge::Findings edge_of(const edge::Choices& c, const shape::Findings& shape, const split::Findings& split,
                       const brief::Making& brief, const FlangePlate& plate, const edge::Library& shop) {
    return edge::evaluate(c, shape, split, brief, plate.value, shop);
}

ToolSurface tool_surface(const edge::Findings& edge) {
    return {edge.tool};
}

UnderRibs under_ribs(const shell::Choices& shell, const back::Choices& back, const ToolSurface& tool) {
    const bool doubled = std::any_of(shell.zones.begin(), shell.zones.end(),
                                     [](const shell::Zone& z) { return z.kind == ZoneKind::under_ribs; });
    try {
        return {doubled && tool.face ? back::rib_length(back, *tool.face) : 0};
    } catch (const InputError&) {
        return {};  // Back says what is wrong with them
    }
}

part::ClothAsked cloth_asked(const part::Choices& c) {
    return part::cloth_asked(c);
}

part::Draped draped(const part::ClothAsked& asked, const ToolSurface& tool, const Lists<Reinforcement>& shop,
                    Progress& progress) {
    return tool.face ? part::draped(asked, *tool.face, shop, progress) : part::Draped{};
}

part::SoughtCuts seek_cuts(const part::ClothAsked& asked, const ToolSurface& tool,
                           const Lists<Reinforcement>& shop, Progress& progress) {
    return tool.face ? part::seek_cuts(asked, *tool.face, shop, progress) : part::SoughtCuts{};
}

part::ZonesAsked zones_asked(const part::Choices& c) {
    return part::zones_asked(c);
}

BareFace bare_face(const part::Draped& draped) {
    BareFace out;
    out.face.face = draped.face;
    out.face.cell = draped.cell;
    out.face.area = draped.area;
    out.face.piece = draped.piece;
    return out;
}

part::Regions regions(const part::ZonesAsked& asked, const ToolSurface& tool, const BareFace& bare,
                      Progress& progress) {
    return tool.face ? part::regions(asked, tool.face->frame, bare.face, progress) : part::Regions{};
}

part::InsertsAsked inserts_asked(const part::Choices& c) {
    return part::inserts_asked(c);
}

part::InsertPlaces insert_places(const part::InsertsAsked& asked, const ToolSurface& tool,
                                 const BareFace& bare) {
    return tool.face ? part::insert_places(asked, tool.face->frame, bare.face) : part::InsertPlaces{};
}

part::CoreAsked core_asked(const part::Choices& c) {
    return part::core_asked(c);
}

part::CoreFit core_fit(const part::CoreAsked& asked, const ToolSurface& tool, const BareFace& bare,
                       const part::Regions& marked, const Lists<Core>& shop, Progress& progress) {
    return part::core_fit(asked, tool.face ? tool.face->frame : Frame{}, bare.face, marked, shop, progress);
}

part::CorePanels core_panels(const part::CoreAsked& asked, const ToolSurface& tool, const BareFace& bare,
                             const part::OtherFaces& others, const Lists<Core>& shop, Progress& progress) {
    if (!tool.face) return {};
    auto faces = others.faces;
    // In the pieces' own order, whichever of them is shown.
    const auto at = std::find_if(faces.begin(), faces.end(),
                                 [&](const auto& f) { return f.bare.piece > bare.face.piece; });
    faces.insert(at, {tool.face->frame, bare.face});
    return part::core_panels(asked, faces, shop, progress);
}

part::OtherFaces other_faces(const ShownPiece& shown, const split::Findings& split,
                             const part::ClothAsked& cloth, Progress& progress) {
    return part::other_faces(static_cast<int>(shown.value), split, cloth, progress);
}

KitAsked kit_asked(const part::Choices& c) {
    return {part::kit_asked(c)};
}

part::Kit kit(const KitAsked& asked, const part::Draped& draped, const ToolSurface& tool,
              const Lists<Reinforcement>& shop, Progress& progress) {
    if (!tool.face) return {};
    const auto& c = asked.part;
    return part::kit(c, draped, tool.face->frame, shop, c.kit.trim, c.kit.lap, progress);
}

heat::PlugUnder plug_under(const plug::Choices& c, const split::Findings& split, const plug::Library& shop) {
    heat::PlugUnder out;
    if (plug::no_plug(c)) return out;
    const bool pieces = c.by_piece && !split.one_piece() && !c.piece_routes.empty();
    // What the plug lacks it says itself.
    try {
        out.board = plug::substrate_of(pieces ? c.piece_routes.front() : c.route, c, shop);
    } catch (const InputError&) {
        return out;
    }
    out.known = true;
    const bool hollow = c.route == Route::slabs && c.slabs.hollow;
    out.path = hollow ? std::min(c.slabs.wall, split.size.minCoeff()) : split.size.minCoeff();
    return out;
}

heat::PlugMade plug_made(const plug::Findings& plug) {
    return {{plug.board, plug.heat_path, true}};
}

heat::OvenEnds oven_ends(const heat::Choices& c) {
    return heat::ends_of(c.oven, c.room);
}

ShellLimit shell_limit(const heat::ShellGo& go, const shell::Choices& c, const Lists<Resin>& shop) {
    return {heat::go_limit(go, need(shop.resins, c.resin, "shell resin"))};
}

shell::Findings shell_of(const shell::Choices& c, const shape::Findings& shape, const split::Findings& split,
                         const edge::Findings& edge, const brief::Crew& brief, const UnderRibs& ribs,
                         const shell::Warmth& warmth, const ShellLimit& limit, const shell::Library& shop) {
    return shell::evaluate(c, shape, split, edge, brief, ribs.value, warmth, limit.go, shop);
}

run::Findings run_of(const run::Choices& c, const run::Asked& brief, const Room& room,
                     const heat::Cures& cures, const heat::OvenUse& oven, const split::Choices& split_choices,
                     const split::Findings& split, const plug::Choices& plug_choices,
                     const plug::Findings& plug, const edge::Choices& edge_choices,
                     const edge::Findings& edge, const shell::Choices& shell_choices,
                     const shell::Findings& shell, const back::Choices& back_choices,
                     const back::Findings& back, const release::Findings& release,
                     const part::Choices& part_choices, const part::Findings& part,
                     const bag::Choices& bag_choices, const bag::Findings& bag, const Flowed<false>& flow,
                     const ShellFlowed<false>& shell_flow, const run::Library& shop) {
    return run::evaluate(
        c, {brief,   room.value,   cures, oven,          split_choices, split,        plug_choices,
            plug,    edge_choices, edge,  shell_choices, shell,         back_choices, back,
            release, part_choices, part,  bag_choices,   bag,           flow.flow,    shell_flow.flow},
        shop);
}

plug::Cutting plug_cutting(const plug::Choices& c, const plug::Findings& plug, const PlugScale& scale,
                           const plug::Library& shop) {
    return plug::cutting(plug.plans, c, scale.value, shop);
}

PlugSheets plug_sheets(const plug::Cutting& cutting, Progress& progress) {
    return {plug::lay(cutting, progress)};
}

RibCutting rib_cutting(const back::Choices& c, const back::Findings& back, const back::Library& shop) {
    if (!back.crate || back.crate->ribs.empty()) return {};
    return {back::cut_pieces(*back.crate), back::sheet_rules(c, shop)};
}

RibSheets rib_sheets(const RibCutting& cutting, Progress& progress) {
    if (cutting.pieces.empty()) return {};
    return {lay_onto_sheets(cutting.pieces, cutting.rules, progress)};
}

Settled settled(const run::Choices& c, const run::Asked& brief, const Room& room, const heat::Cures& cures,
                const heat::OvenUse& oven, const split::Choices& split_choices, const split::Findings& split,
                const plug::Choices& plug_choices, const plug::Findings& plug,
                const edge::Choices& edge_choices, const edge::Findings& edge,
                const shell::Choices& shell_choices, const shell::Findings& shell,
                const back::Choices& back_choices, const back::Findings& back,
                const release::Findings& release, const part::Choices& part_choices,
                const part::Findings& part, const bag::Choices& bag_choices, const bag::Findings& bag,
                const Flowed<false>& flow, const ShellFlowed<false>& shell_flow, const run::Library& shop,
                const plug::Cutting& cutting, const PlugSheets& sheets, const RibSheets& ribs,
                const part::CorePanels& panels, const plug::Library& plug_shop) {
    Settled out;
    out.plug = std::make_shared<const plug::Findings>(
        plug::with_sheets(plug, plug_choices, cutting, sheets.laid, plug_shop));
    auto laid = back;
    laid.sheets = static_cast<int>(ribs.laid.sheets.size());
    const auto cut = part::with_panels(part, panels, brief.pulls <= 1);
    out.run = std::make_shared<const run::Findings>(
        run_of(c, brief, room, cures, oven, split_choices, split, plug_choices, *out.plug, edge_choices, edge,
               shell_choices, shell, back_choices, laid, release, part_choices, cut, bag_choices, bag, flow,
               shell_flow, shop));
    return out;
}

heat::FaceFolds face_folds(const ToolSurface& tool, Progress& progress) {
    return tool.face ? heat::face_folds(*tool.face, progress) : heat::FaceFolds{};
}

heat::FoldZones fold_zones(const heat::FaceFolds& on, const part::ZonesAsked& zones, const BareFace& bare) {
    return heat::fold_zones(on, zones, bare.face);
}

Heated heated(const heat::Choices& c, const heat::Findings& heat, const heat::OvenUse& oven) {
    return {std::make_shared<const heat::Findings>(heat::with_oven(heat, c, oven))};
}

part::Findings part_of(const part::Choices& c, const shape::Findings& shape, const split::Findings& split,
                       const brief::Crew& brief, const part::Draped& draped, const part::Regions& marked,
                       const part::CoreFit& cores, const part::InsertPlaces& inserts,
                       const part::OtherFaces& other_faces, const part::OtherMarks& others,
                       const part::OtherCores& other_cores, const part::Keepers& keepers, const Room& room,
                       const part::Library& shop) {
    return part::evaluate(c, shape, split, brief, draped, marked, cores, inserts, other_faces, others,
                          other_cores, keepers, room.value, shop);
}

bag::FlowAsked flow_asked(const bag::Choices& c, const part::Choices& part, const brief::Making& brief,
                          const Room& room, const bag::FlowLibrary& shop) {
    return bag::flow_asked(c, part, brief, room.value, shop);
}

part::DutyAsked duty_asked(const part::Choices& c) {
    return part::duty_asked(c);
}

FaceWanted face_wanted(const bag::FlowAsked& flow, const part::DutyAsked& duty) {
    return {flow.infused || !duty.duty.loads.empty() ? 1.0 : 0.0};
}

template <bool fine>
PartFace<fine> part_face(const FaceWanted& wanted, const ToolSurface& tool, Progress& progress) {
    if (wanted.value <= 0 || !tool.face) return {};
    return {part::even_face(*tool.face, fine, progress)};
}
template PartFace<false> part_face<false>(const FaceWanted&, const ToolSurface&, Progress&);
template PartFace<true> part_face<true>(const FaceWanted&, const ToolSurface&, Progress&);

PartTried<false> try_part_quickly(const part::DutyAsked& asked, const PartFace<false>& face,
                                  const ToolSurface& tool, const part::Draped& draped,
                                  const part::DutyLibrary& shop, Progress& progress) {
    if (asked.duty.loads.empty() || !face.mesh) return {};
    return {std::make_shared<const part::Trial>(
        part::try_out(asked, *face.mesh, tool.face->frame, draped, shop, nullptr, progress))};
}

PartTried<true> try_part_finely(const part::DutyAsked& asked, const PartFace<true>& face,
                                const PartTried<false>& coarse, const ToolSurface& tool,
                                const part::Draped& draped, const part::DutyLibrary& shop,
                                Progress& progress) {
    if (!coarse.trial || !face.mesh) return {};
    return {std::make_shared<const part::Trial>(
        part::try_out(asked, *face.mesh, tool.face->frame, draped, shop, coarse.trial.get(), progress))};
}

template <bool fine>
Flowed<fine> flowed(const bag::FlowAsked& asked, const PartFace<fine>& face, const ToolSurface& tool,
                    const part::Draped& draped, Progress& progress) {
    if (!face.mesh) return {};
    return {bag::flow(asked, face.mesh, tool.face->frame, draped, fine, progress)};
}
template Flowed<false> flowed<false>(const bag::FlowAsked&, const PartFace<false>&, const ToolSurface&,
                                     const part::Draped&, Progress&);
template Flowed<true> flowed<true>(const bag::FlowAsked&, const PartFace<true>&, const ToolSurface&,
                                   const part::Draped&, Progress&);

bag::Layouts seek_layout(const bag::FlowAsked& asked, const PartFace<false>& face, const ToolSurface& tool,
                         const part::Draped& draped, Progress& progress) {
    return bag::seek_layout(asked, face.mesh, tool.face ? tool.face->frame : Frame{}, draped, progress);
}

bag::RaceFit seek_race(const bag::FlowAsked& asked, const PartFace<false>& face, const ToolSurface& tool,
                       const part::Draped& draped, Progress& progress) {
    return bag::seek_race(asked, face.mesh, tool.face ? tool.face->frame : Frame{}, draped, progress);
}

ShellFlowAsked shell_flow_asked(const bag::Choices& c, const shell::Choices& shell,
                                const shell::Warmth& warmth, const bag::FlowLibrary& shop) {
    return {bag::shell_flow_asked(c, shell, warmth.gel, warmth.room, shop)};
}

ShellFaceWanted shell_face_wanted(const ShellFlowAsked& asked) {
    return {asked.asked.infused ? 1.0 : 0.0};
}

template <bool fine>
ShellFace<fine> shell_face(const ShellFaceWanted& wanted, const ToolSurface& tool, Progress& progress) {
    if (wanted.value <= 0 || !tool.face) return {};
    return {bag::even_face(*tool.face, Infused::shell, fine, progress)};
}
template ShellFace<false> shell_face<false>(const ShellFaceWanted&, const ToolSurface&, Progress&);
template ShellFace<true> shell_face<true>(const ShellFaceWanted&, const ToolSurface&, Progress&);

template <bool fine>
ShellFlowed<fine> shell_flowed(const ShellFlowAsked& asked, const ShellFace<fine>& face,
                               const ToolSurface& tool, Progress& progress) {
    if (!face.face.mesh) return {};
    return {bag::flow(asked.asked, face.face, tool.face->frame, {}, fine, progress)};
}
template ShellFlowed<false> shell_flowed<false>(const ShellFlowAsked&, const ShellFace<false>&,
                                                const ToolSurface&, Progress&);
template ShellFlowed<true> shell_flowed<true>(const ShellFlowAsked&, const ShellFace<true>&,
                                              const ToolSurface&, Progress&);

ShellLayouts seek_shell_layout(const ShellFlowAsked& asked, const ShellFace<false>& face,
                               const ToolSurface& tool, Progress& progress) {
    return {bag::seek_layout(asked.asked, face.face, tool.face ? tool.face->frame : Frame{}, {}, progress)};
}

ShellRace seek_shell_race(const ShellFlowAsked& asked, const ShellFace<false>& face, const ToolSurface& tool,
                          Progress& progress) {
    return {bag::seek_race(asked.asked, face.face, tool.face ? tool.face->frame : Frame{}, {}, progress)};
}

template <bool fine>
MeshEdge<fine> mesh_edge(const ToolSurface& tool, const back::Choices& back) {
    return {tool.face
                ? back::edge_for(*tool.face, back, triangles_of(fine ? Fineness::fine : Fineness::quick))
                : 0};
}
template MeshEdge<false> mesh_edge<false>(const ToolSurface&, const back::Choices&);
template MeshEdge<true> mesh_edge<true>(const ToolSurface&, const back::Choices&);

template <bool fine>
TrialFace<fine> trial_face(const ToolSurface& tool, const MeshEdge<fine>& edge, Progress& progress) {
    if (!tool.face) return {};
    progress.report(0.01, "meshing the tool's face");
    return {back::even_face(*tool.face, edge.value, progress)};
}
template TrialFace<false> trial_face<false>(const ToolSurface&, const MeshEdge<false>&, Progress&);
template TrialFace<true> trial_face<true>(const ToolSurface&, const MeshEdge<true>&, Progress&);

Tried<false> try_quickly(const ToolSurface& tool, const TrialFace<false>& face, const edge::Choices& edge,
                         const edge::Findings& edge_found, const shell::Choices& shell,
                         const shell::Findings& shell_found, const back::Choices& back,
                         const back::Library& shop, const shape::Findings& shape, const Room& room,
                         const back::Served& brief, Progress& progress) {
    return tried<false>({tool, edge, edge_found, shell, shell_found, back, shop, shape, room}, face, brief,
                        nullptr, progress);
}

Tried<true> try_finely(const ToolSurface& tool, const TrialFace<true>& face, const Tried<false>& coarse,
                       const edge::Choices& edge, const edge::Findings& edge_found,
                       const shell::Choices& shell, const shell::Findings& shell_found,
                       const back::Choices& back, const back::Library& shop, const shape::Findings& shape,
                       const Room& room, const back::Served& brief, Progress& progress) {
    return tried<true>({tool, edge, edge_found, shell, shell_found, back, shop, shape, room}, face, brief,
                       coarse.trial.get(), progress);
}

back::Suggestion seek_pitch(const ToolSurface& tool, const edge::Choices& edge,
                            const edge::Findings& edge_found, const shell::Choices& shell,
                            const shell::Findings& shell_found, const AnyPitch& any,
                            const back::Library& shop, const shape::Findings& shape, const Room& room,
                            Progress& progress) {
    if (!tool.face) throw InputError("edge", edge_found.no_tool, "see Edge");
    if (is_solid(shell.layers))
        throw InputError("back", "the mould is a block and wants no ribs", "choose a plug in Plug first");
    return back::suggest(
        Built{tool, edge, edge_found, shell, shell_found, any.back, shop, shape, room}.inputs(), progress);
}

shell::Found seek_stack(const shell::Choices& shell, const back::Choices& back, const shell::Findings& found,
                        const shell::Library& shop, Progress& progress) {
    if (is_solid(shell.layers))
        throw InputError("shell", "nothing is laid up: the mould itself is made",
                         "choose a plug in Plug first");
    return shell::find_stacks(shell, shell.seek, back, found.area, found.go, shop, progress);
}

Routes routes(const plug::Choices& c, const shape::Choices& shape_choices, const shape::Findings& shape,
              const split::Findings& split, const plug::Asked& brief, const plug::Library& shop,
              const edge::Choices& edge, const brief::Making& making, const edge::Library& edge_shop,
              const PlugScale& scale, Progress& progress) {
    auto direct = c;
    direct.route = Route::direct;
    const auto mould = mould_of(direct, edge, shape, split, making, edge_shop, shop, progress);
    return {plug::side_by_side(c, shape_choices, shape, split, mould, brief, scale.value, shop, progress)};
}

}  // namespace nodes
}  // namespace jig
