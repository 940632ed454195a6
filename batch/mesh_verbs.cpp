#include <fmt/format.h>

#include <filesystem>

#include "batch/read_mesh.hpp"
#include "core/base/units.hpp"
#include "core/job/job_file.hpp"
#include "core/science/mesh/measure.hpp"
#include "core/science/mesh/mesh_file.hpp"
#include "core/science/mesh/pull.hpp"
#include "core/science/mesh/solid.hpp"
#include "core/science/mesh/stl.hpp"
#include "core/science/mesh/sweep.hpp"
#include "core/science/nest/cut_sheets.hpp"
#include "core/stages/plug/plan.hpp"

namespace jig::batch {

Repaired load_mesh(const Arguments& a, Progress& progress, TrueRadii* radii) {
    const auto& path = a.file("the mesh file");
    const double unit = length_unit(a.option("unit").value_or("mm"));
    const double chord = a.number("chord", 0.0005, 1e-6, 1);
    const auto read = read_mesh(read_file(path), path, {unit, chord}, progress, radii);
    const double before = radii != nullptr ? turning_volume(read) : 0;
    auto out = repaired(read, progress);
    // What is hollow is told by the outside that mending has found.
    if (radii != nullptr && before * turning_volume(out.mesh) < 0) std::swap(radii->hollow, radii->round);
    return out;
}

namespace {

Json vector_json(const Point& p) {
    return Json::array({p.x(), p.y(), p.z()});
}

std::pair<double, double> sheet_size(const Arguments& a) {
    const auto text = a.option("sheet").value_or("2.5x1.25");
    const auto cross = text.find('x');
    Arguments parts;
    parts.verb = a.verb;
    if (cross == std::string::npos)
        throw InputError("--sheet", "\"" + text + "\" is no sheet size", "write it in metres as 2.5x1.25");
    parts.options["sheet"] = text.substr(0, cross);
    const double w = parts.need_number("sheet", 0.01, 100);
    parts.options["sheet"] = text.substr(cross + 1);
    return {w, parts.need_number("sheet", 0.01, 100)};
}

}  // namespace

void make_folder(const std::string& folder) {
    std::error_code bad;
    std::filesystem::create_directories(folder, bad);
    if (bad) throw InputError(folder, "the folder cannot be made", "choose one that you may write to");
}

Json run_split(const Arguments& a, Progress& progress) {
    PieceRules rules;
    rules.drag_angle = radians(a.number("drag-deg", 1, 0, 45));
    const double wanted = a.option("plane") ? a.number("pieces", 2, 1, 6) : a.need_number("pieces", 1, 6);
    rules.count = static_cast<int>(wanted);
    if (rules.count != wanted)
        throw InputError("--pieces", "a whole number is needed", "write one from 1 to 6");
    if (a.option("plane") && rules.count != 2)
        throw InputError("--plane", "a plane makes two pieces", "write --pieces 2, or leave the plane out");
    const auto mesh = load_mesh(a, progress);
    const RayMesh rays(mesh.mesh);
    PieceSet set;
    if (a.option("plane")) {
        const auto p = a.need_numbers("plane", 6, "0,0,0.1,0,0,1");
        set = pieces_by_plane(mesh.mesh, rays, {p[0], p[1], p[2]}, {p[3], p[4], p[5]}, rules.drag_angle,
                              progress);
    } else {
        set = find_pieces(mesh.mesh, rays, rules, progress);
    }
    // Tried with shells as thick as a usual tool of that size.
    const auto ways = ways_out(set, rays, 0.01 * bounds_of(mesh.mesh).diagonal(), progress);
    const auto folder = a.option("out");
    if (folder) make_folder(*folder);
    Json pieces = Json::array();
    for (std::size_t i = 0; i < set.pieces.size(); ++i) {
        const auto& piece = set.pieces[i];
        Json one{{"direction", vector_json(piece.direction)},
                 {"area_m2", piece.map.area},
                 {"locks_m2", piece.map.locks},
                 {"drags_m2", piece.map.drags},
                 {"draw_depth_m", piece.map.depth},
                 {"comes_off", ways[i].turn},
                 {"clash_m2", ways[i].turn > 0 ? 0.0 : ways[i].clash}};
        one["file"] = Json();
        if (folder) {
            const auto path = *folder + "/piece-" + std::to_string(i + 1) + ".stl";
            write_atomically(write_stl_binary(piece.mesh), path);
            one["file"] = path;
        }
        pieces.push_back(std::move(one));
    }
    Json seams = Json::array();
    for (const auto& line : set.seams) {
        Json points = Json::array();
        for (const auto& p : line) points.push_back(vector_json(p));
        seams.push_back(std::move(points));
    }
    return {{"pieces", pieces}, {"seam_length_m", set.seam_length}, {"seams_m", seams}};
}

Json run_draft(const Arguments& a, Progress& progress) {
    const auto pull = a.need_direction("pull");
    DraftRules rules;
    rules.drag_angle = radians(a.number("drag-deg", 1, 0, 45));
    rules.samples = 400000;
    const auto mesh = load_mesh(a, progress);
    const RayMesh rays(mesh.mesh);
    const auto map = draft(mesh.mesh, rays, {pull[0], pull[1], pull[2]}, rules, progress);
    return {{"area_m2", map.area},           {"slides_m2", map.slides},
            {"drags_m2", map.drags},         {"locks_m2", map.locks},
            {"shadowed_m2", map.shadowed},   {"min_draft_deg", degrees(map.min_draft)},
            {"projected_m2", map.projected}, {"draw_depth_m", map.depth}};
}

Json run_pull(const Arguments& a, Progress& progress) {
    const auto top = static_cast<std::size_t>(a.number("top", 3, 1, 12));
    DraftRules rules;
    rules.drag_angle = radians(a.number("drag-deg", 1, 0, 45));
    rules.foot_open = true;
    const auto mesh = load_mesh(a, progress);
    const RayMesh rays(mesh.mesh);
    Json pulls = Json::array();
    for (const auto& p : best_pulls(mesh.mesh, rays, rules, top, progress)) {
        pulls.push_back({{"direction", vector_json(p.direction)},
                         {"locks_m2", p.locks + p.foot},
                         {"foot_m2", p.foot},
                         {"drags_m2", p.drags},
                         {"draw_depth_m", p.depth}});
    }
    return {{"pulls", pulls}};
}

Json run_measure(const Arguments& a, Progress& progress) {
    TrueRadii radii;
    const auto mesh = load_mesh(a, progress, &radii);
    auto m = measure(mesh.mesh, mesh.topology);
    find_inside_radius(mesh.mesh, bends(mesh.mesh, mesh.topology), m);
    take_true_radius(radii, false, 1, m);
    Json repairs = Json::array(), left = Json::array();
    for (const auto& r : mesh.repairs) repairs.push_back({{"what", r.what}, {"count", r.count}});
    for (const auto& r : mesh.left) {
        left.push_back({{"what", r.what}, {"count", r.count}, {"at_m", Json::array()}});
        for (const auto& p : r.places) left.back()["at_m"].push_back(vector_json(p));
    }
    Json out{{"triangles", mesh.mesh.triangles.size()},
             {"closed", m.closed},
             {"area_m2", m.area},
             {"volume_m3", m.volume},
             {"centroid_m", vector_json(m.centroid)},
             {"size_m", vector_json(m.size)},
             {"holes", m.rims},
             {"bodies", m.bodies.size()},
             {"repairs", repairs},
             {"left", left}};
    out["smallest_inside_radius_m"] = m.smallest_inside_radius ? Json(*m.smallest_inside_radius) : Json();
    return out;
}

Json run_slabs(const Arguments& a, Progress& progress) {
    const auto axis = a.need_direction("axis");
    plug::Choices c;
    Board board;
    board.thickness = a.need_number("thickness", 1e-5, 100);
    std::tie(board.sheet_length, board.sheet_width) = sheet_size(a);
    c.slabs.kerf = a.number("kerf", 0.002, 0, 0.1);
    c.margin = a.number("margin", 0.01, 0, 1);
    c.slabs.pin = a.number("pin", 0.008, 0.0005, 0.1);
    c.slabs.hollow = a.option("hollow").has_value();
    if (c.slabs.hollow) c.slabs.wall = a.need_number("hollow", 1e-4, 10);
    const auto fit = a.option("fit").value_or("oversize");
    const auto known = std::find_if(Words<SlabFit>::all.begin(), Words<SlabFit>::all.end(),
                                    [&](const Word& w) { return w.file == fit; });
    if (known == Words<SlabFit>::all.end())
        throw InputError("--fit", "\"" + fit + "\" is not known", "use oversize, undersize or middle");
    c.slabs.fit = static_cast<SlabFit>(known - Words<SlabFit>::all.begin());
    c.slabs.grain = a.flag("grain");
    const auto mesh = load_mesh(a, progress);
    plug::Body body;
    auto stood = std::make_shared<split::Stood>();
    stood->mesh = mesh.mesh;
    stood->topology = mesh.topology;
    const auto measured = measure(mesh.mesh, mesh.topology);
    body.volume = measured.volume;
    body.area = measured.area;
    body.surface = std::shared_ptr<const split::Stood>(std::move(stood));
    body.frame = frame_across(Point(axis[0], axis[1], axis[2]).normalized());
    plug::Plan plan;
    plan.route = Route::slabs;
    plan.slabs = plug::slab_plan(c, body, board, progress);
    SheetRules rules;
    rules.length = board.sheet_length;
    rules.width = board.sheet_width;
    rules.kerf = c.slabs.kerf;
    rules.margin = c.margin;
    rules.grain = c.slabs.grain;
    const auto sheets = lay_onto_sheets(plug::cut_pieces(plan, c, 1), rules, progress);
    const auto flat = [](const Point2& p) { return Json::array({p.x(), p.y()}); };
    Json list = Json::array(), files = Json::array(), offcuts = Json::array();
    const auto& stack = plan.slabs.stack;
    for (std::size_t i = 0; i < stack.slabs.size(); ++i) {
        const auto& s = stack.slabs[i];
        Json outlines = Json::array(), pins = Json::array(), bevels = Json::array();
        for (const auto& loop : s.outline) {
            Json points = Json::array();
            for (const auto& p : loop) points.push_back(flat(p));
            outlines.push_back(std::move(points));
        }
        for (const auto& pin : plan.slabs.pins[i]) pins.push_back(flat(pin));
        for (const auto& b : plan.slabs.bevels[i])
            bevels.push_back({{"at_m", flat(b.at)}, {"angle_deg", degrees(b.angle)}});
        list.push_back({{"number", s.number},
                        {"from_m", s.from},
                        {"to_m", s.to},
                        {"area_m2", s.area},
                        {"outlines", std::move(outlines)},
                        {"pins_m", std::move(pins)},
                        {"bevels", std::move(bevels)},
                        {"cut_from_slab",
                         plan.slabs.inside[i] < 0
                             ? Json()
                             : Json(stack.slabs[static_cast<std::size_t>(plan.slabs.inside[i])].number)}});
    }
    for (const auto& o : sheets.offcuts)
        offcuts.push_back({{"sheet", o.sheet + 1}, {"length_m", o.length}, {"width_m", o.width}});
    if (const auto folder = a.option("out")) {
        make_folder(*folder);
        write_sheets(sheets, *folder + "/sheet-", files);
        write_atomically(write_stl_binary(stack_mesh(stack)), *folder + "/stack.stl");
        files.push_back(*folder + "/stack.stl");
    }
    Json notes = Json::array();
    if (c.slabs.hollow && plan.slabs.hollows.empty())
        notes.push_back(
            fmt::format("--hollow cuts nothing out: behind a wall of {} m, no slab that is covered "
                        "from above has a hollow of {} m² or more",
                        c.slabs.wall, plug::kWorthHollowing));
    if (plan.slabs.parted > 0)
        notes.push_back(fmt::format("{} of {} slabs are larger than a sheet and parted by {} joints",
                                    plan.slabs.parted, stack.slabs.size(), plan.slabs.joints));
    return {{"slabs", list},
            {"notes", notes},
            {"parted", plan.slabs.parted},
            {"hollowed", plan.slabs.hollows.size()},
            {"sheets", sheets.sheets.size()},
            {"yield", sheets.yield},
            {"stack_volume_m3", stack.volume},
            {"solid_volume_m3", body.volume},
            {"to_sand_m3", plan.slabs.to_sand},
            {"to_fill_m3", plan.slabs.to_fill},
            {"glue_kg", plan.slabs.glue},
            {"cut_length_m", plan.slabs.cut_length},
            {"offcuts", offcuts},
            {"too_large_for_a_sheet", sheets.too_large},
            {"files", files}};
}

void write_sheets(const SheetSet& sheets, const std::string& base, Json& files) {
    for (std::size_t i = 0; i < sheets.sheets.size(); ++i) {
        const auto name = base + std::to_string(i + 1);
        write_sheet_dxf(sheets, i, name + ".dxf");
        write_atomically(sheet_svg(sheets, i), name + ".svg");
        files.push_back(name + ".dxf");
        files.push_back(name + ".svg");
    }
}

}  // namespace jig::batch
