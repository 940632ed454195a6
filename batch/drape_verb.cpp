#include <fmt/format.h>

#include "batch/on_board.hpp"
#include "batch/read_case.hpp"
#include "batch/read_mesh.hpp"
#include "core/base/units.hpp"
#include "core/job/job_file.hpp"
#include "core/science/drape/net.hpp"
#include "core/science/drape/score.hpp"
#include "core/science/mesh/nearest_face.hpp"
#include "core/science/mesh/refine.hpp"
#include "core/science/mesh/stl.hpp"
#include "core/stages/part/cut_line.hpp"
#include "core/stages/part/cuts_sought.hpp"
#include "core/stages/part/kit.hpp"
#include "core/stages/part/panels.hpp"
#include "core/stages/part/roll_seams.hpp"

namespace jig::batch {
namespace {

/// Cells along the root of the area where no cell is given.
constexpr double kCells = 80;

/// The pattern as one sheet of its own size.
SheetSet pattern_of(const std::vector<std::vector<Point2>>& outlines, const Point2& low, const Point2& high) {
    SheetSet out;
    const Point2 size = high - low;
    out.rules.length = size.x() + 0.02;
    out.rules.width = size.y() + 0.02;
    SheetPiece piece;
    piece.name = "pattern";
    for (const auto& outline : outlines) {
        auto& loop = piece.loops.emplace_back();
        for (const auto& p : outline) loop.push_back(p - low + Point2(0.01, 0.01));
    }
    piece.mark = size / 2;
    const double arm = 0.15 * size.x();
    piece.engraved = {{size / 2 - Point2(arm, 0), size / 2 + Point2(arm, 0)}};
    out.sheets.push_back({{std::move(piece)}});
    return out;
}

std::string as_file(std::string name) {
    for (auto& c : name) {
        if (std::isalnum(static_cast<unsigned char>(c)) == 0) c = '-';
    }
    return name;
}

ClothCuts cuts_of(const Arguments& a) {
    // In the mesh's own axes where nothing else is said.
    ClothCuts out{{Point::UnitX(), Point::UnitY(), Point::UnitZ()}, {}, {}};
    if (a.option("pull")) {
        if (!a.option("cut"))
            throw InputError("--pull", "nothing is cut that could be seen along it",
                             "give a line with --cut");
        const auto pull = a.need_direction("pull");
        out.frame = frame_across(Point(pull[0], pull[1], pull[2]).normalized());
    }
    for (const auto& numbers : a.every_numbers("cut")) {
        if (numbers.size() < 4 || numbers.size() % 2 != 0)
            throw InputError("--cut", "a line wants two corners at least, two numbers each",
                             "give it as 0.1,0,0.4,0");
        auto& line = out.lines.emplace_back();
        for (std::size_t i = 0; i + 1 < numbers.size(); i += 2) line.emplace_back(numbers[i], numbers[i + 1]);
    }
    if (out.lines.size() > kMostSlits)
        throw InputError("--cut", fmt::format("{} of them, more than {}", out.lines.size(), kMostSlits),
                         "leave some out");
    return out;
}

double length_of(const TriangleMesh& mesh, const std::vector<PointPair>& edges) {
    double out = 0;
    for (const auto& [from, to] : edges) out += (mesh.points[from] - mesh.points[to]).norm();
    return out;
}

Json cuts_json(const part::Choices& part, const part::Draped& draped) {
    Json out = Json::array();
    for (std::size_t k = 0; k < part.cuts.size(); ++k) {
        Json line = Json::array();
        for (const auto& s : part.cuts[k].line) line.push_back({s.along, s.across});
        const int piece = part.cuts[k].piece;
        out.push_back({{"line_m", std::move(line)},
                       {"piece", piece > 0 ? Json(piece) : Json()},
                       {"in", std::string(file_word(part.cuts[k].in))},
                       {"angle_deg", part.cuts[k].in == CutIn::angle || part.cuts[k].in == CutIn::roll
                                         ? Json(degrees(part.cuts[k].angle))
                                         : Json()},
                       {"step_m", part.cuts[k].step},
                       {"length_m", part::cut_length(draped, k)}});
    }
    return out;
}

Json core_to_json(const part::CorePanels& f, const part::Findings& part,
                  const std::vector<part::Zone>& zones) {
    const auto zone_of = [&](const part::Source& s) {
        return s.zone < 0 ? Json() : Json(zones[static_cast<std::size_t>(s.zone)].name);
    };
    Json cores = Json::array(), panels = Json::array(), stocks = Json::array();
    for (const auto& c : part.cores->cores)
        cores.push_back({{"layer", c.of.layer + 1},
                         {"zone", zone_of(c.of)},
                         {"material", c.layer.material},
                         {"area_m2", c.area},
                         {"bends_to_m", c.bends_to > 0 ? Json(c.bends_to) : Json()},
                         {"tightest_m", c.tightest > 0 ? Json(c.tightest) : Json()},
                         {"tightest_at_m", three(c.at)},
                         {"too_tight_m2", c.tight}});
    for (const auto& p : f.panels) {
        const Point2 size = high_corner(p.outline) - low_corner(p.outline);
        panels.push_back({{"name", p.name},
                          {"layer", p.of.layer + 1},
                          {"zone", zone_of(p.of)},
                          {"piece", p.piece > 0 ? Json(p.piece) : Json()},
                          {"material", p.material},
                          {"area_m2", p.area},
                          {"flat_size_m", {size.x(), size.y()}},
                          {"stretch", p.stretch},
                          {"strained", p.strained},
                          {"middle_m", three(p.middle)}});
    }
    for (const auto& s : f.stocks)
        stocks.push_back({{"material", s.material},
                          {"sheet_m", {s.sheets.rules.length, s.sheets.rules.width}},
                          {"sheets", s.sheets.sheets.size()},
                          {"yield", s.sheets.yield},
                          {"too_large", s.sheets.too_large}});
    return {{"cores", std::move(cores)},   {"panels", std::move(panels)},
            {"sheets", std::move(stocks)}, {"joints_m", f.joints},
            {"edge_m", f.edges},           {"joint_fill_m3", f.joint_fill},
            {"edge_fill_m3", f.edge_fill}, {"not_in_sheets", f.no_sheets},
            {"too_many", f.too_many},      {"not_flat_m2", f.not_flat}};
}

Json inserts_to_json(const part::Choices& c, const part::FitsByPiece& by_piece) {
    Json out = Json::array();
    for (const auto& fits : by_piece) {
        for (std::size_t i = 0; i < fits.size(); ++i) {
            const auto& fit = fits[i];
            const auto& insert = c.inserts[i];
            if (fit.place.elsewhere) continue;
            out.push_back({{"name", insert.name},
                           {"piece", fit.place.piece > 0 ? Json(fit.place.piece) : Json()},
                           {"kind", std::string(file_word(insert.kind))},
                           {"block", insert.kind == InsertKind::block ? Json(insert.block) : Json()},
                           {"at_m", three(fit.place.at)},
                           {"beside", fit.place.beside},
                           {"rim_m", fit.place.rim},
                           {"core_m", fit.core},
                           {"skin_m", fit.skin},
                           {"pull_borne_N", fit.pull_known ? Json(fit.pull_borne) : Json()},
                           {"push_borne_N", fit.push_borne},
                           {"holds_times", std::isfinite(fit.holds) ? Json(fit.holds) : Json()}});
        }
    }
    return out;
}

}  // namespace

Json run_drape(const Arguments& a, Progress& progress) {
    const auto seed = a.need_numbers("seed", 3, "0,0,0.1");
    const auto warp = a.need_direction("warp");
    auto mesh = load_mesh(a, progress).mesh;
    double area = 0;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) area += mesh.area_vector2(f).norm() / 2;
    DrapeRules rules;
    rules.seed = Point(seed[0], seed[1], seed[2]);
    rules.warp = Point(warp[0], warp[1], warp[2]);
    rules.cell = a.number("cell", std::sqrt(area) / kCells, 1e-5, 10);
    rules.lock = radians(a.number("lock-deg", 50, 0.1, 90));
    const auto probes = probes_of(a);
    mesh = refined(mesh, 2 * rules.cell, progress).mesh;
    ClothCuts cuts = cuts_of(a);
    if (!cuts.lines.empty()) {
        auto scores = scored_for_net(mesh, cuts.frame, cuts.lines, rules.cell);
        mesh = std::move(scores.mesh);
        for (const auto& edges : scores.edges)
            cuts.edges.insert(cuts.edges.end(), edges.begin(), edges.end());
    }
    const auto d = cuts.edges.empty() ? drape(mesh, topology_of(mesh), rules, progress)
                                      : drape(mesh, cuts, rules, progress);
    Json shears = Json::array(), warps = Json::array(), holes = Json::array();
    if (!probes.empty()) {
        const NearestFace nearest(mesh);
        for (const auto& p : probes) {
            const auto face = nearest.at(p);
            const auto shear = shear_at(d, mesh, face, p);
            const auto along = warp_on(d, mesh, face);
            shears.push_back(shear ? Json(degrees(*shear)) : Json());
            warps.push_back(along ? three(*along) : Json());
        }
    }
    for (const auto& p : d.holes) holes.push_back(three(p));
    const Point2 size = d.flat_high - d.flat_low;
    Json out{{"area_m2", area},
             {"covered_m2", d.covered},
             {"max_shear_deg", degrees(d.most)},
             {"max_shear_at_m", three(d.most_at)},
             {"shear_deg", std::move(shears)},
             {"warp", std::move(warps)},
             {"locked_m2", d.locked},
             {"seam_m", d.seam},
             {"cut_m", length_of(mesh, cuts.edges)},
             {"cut_axes", {three(cuts.frame.u), three(cuts.frame.v)}},
             {"flat_area_m2", d.flat_area},
             {"flat_size_m", {size.x(), size.y()}},
             {"cell_m", rules.cell},
             {"nodes", d.nodes.size()},
             {"holes", std::move(holes)}};
    if (const auto folder = a.option("out")) {
        make_folder(*folder);
        out["files"] = Json::array();
        write_sheets(pattern_of(flat_outlines(d, mesh), d.flat_low, d.flat_high), *folder + "/pattern",
                     out["files"]);
    }
    return out;
}

Json run_kit(const Arguments& a, Progress& progress) {
    int saved = 1;
    OnBoard on(a, Depth::stages, progress, [&](Job& job, const Shop&) { saved = show_piece(a, job); });
    on.need(Stage::part);
    Json sought, seams;
    // Writes the job with the cuts that were found, and goes on with it.
    const auto cut_as = [&](const std::vector<part::Cut>& cuts, const std::string& path) {
        on.job.part.cuts = cuts;
        auto written = on.job;
        written.edge.piece = saved;
        save_job(written, path);
        on.sheet = on.board.lay(on.job, on.shop);
        on.work_out(Depth::stages, progress);
    };
    const auto need_face = [&](const char* option) {
        if (!on.findings.part->draped->face || !on.findings.edge || !on.findings.edge->tool)
            throw InputError(option, "there is no face that cloth could lie on", "see Edge");
    };
    if (const auto path = a.option("seek-cuts")) {
        need_face("--seek-cuts");
        const auto found = on.board.seek_cuts(on.sheet, progress);
        sought = {{"found", found->found},
                  {"tried", found->tried},
                  {"locked_m2", found->before},
                  {"then_m2", found->after},
                  {"cuts_m", found->length}};
        cut_as(found->cuts, *path);
    }
    if (const auto path = a.option("seek-seams")) {
        need_face("--seek-seams");
        const auto found = part::seams_by_roll(on.job.part, *on.findings.part->draped,
                                               *on.findings.edge->tool, *on.shop, progress);
        seams = {{"found", found.found},
                 {"wide_plies", found.wide},
                 {"left_plies", found.left},
                 {"seams_m", found.length}};
        cut_as(found.cuts, *path);
    }
    const auto& draped = *on.findings.part->draped;
    const auto panels = on.board.core_panels(on.sheet, progress);
    const auto all = part::all_layers(on.job.part);
    const bool plies =
        std::any_of(all.begin(), all.end(), [](const Layer& l) { return l.kind == LayerKind::ply; });
    if ((!draped.face || !plies) && panels->panels.empty())
        throw InputError("part", "there is nothing of it to be laid flat",
                         "give it a ply or a core, and a tool with a face");
    const double trim = a.number("trim", on.job.part.kit.trim, 0, 1),
                 lap = a.number("lap", on.job.part.kit.lap, 0, 0.5);
    const auto kit =
        part::kit(on.job.part, draped, on.findings.edge->tool->frame, *on.shop, trim, lap, progress);
    Json nets = Json::array(), pieces = Json::array(), rolls = Json::array();
    const auto& zones = on.job.part.zones;
    for (const auto& net : draped.nets) {
        Json layers = Json::array(), holes = Json::array();
        for (const auto& ply : net.plies) {
            if (ply.zone < 0) layers.push_back(ply.layer);
        }
        for (const auto& p : net.drape.holes) holes.push_back(three(p));
        nets.push_back({{"angle_deg", degrees(net.angle)},
                        {"layers", std::move(layers)},
                        {"max_shear_deg", degrees(net.drape.most)},
                        {"locks_at_deg", degrees(net.lock)},
                        {"locked_m2", net.drape.locked},
                        {"seam_m", net.drape.seam},
                        {"covered_m2", net.drape.covered},
                        {"flat_area_m2", net.drape.flat_area},
                        {"holes", std::move(holes)}});
    }
    for (const auto& p : kit.pieces)
        pieces.push_back(
            {{"name", p.name},
             {"layer", p.of.layer + 1},
             {"zone", p.of.zone < 0 ? Json() : Json(zones[static_cast<std::size_t>(p.of.zone)].name)},
             {"material", p.material},
             {"angle_deg", degrees(p.angle)},
             {"area_m2", p.area},
             {"of", p.joined},
             {"stretch", p.stretch},
             {"torn", p.torn},
             {"covers_cut", p.cover},
             {"go", p.go + 1}});
    Json out{{"area_m2", draped.area},
             {"seed_m", three(draped.seed)},
             {"nets", std::move(nets)},
             {"cuts", cuts_json(on.job.part, draped)},
             {"left_out", kit.left_out}};
    if (!sought.is_null()) out["sought"] = std::move(sought);
    if (!seams.is_null()) out["seams"] = std::move(seams);
    if (const auto folder = a.option("out")) {
        make_folder(*folder);
        out["files"] = Json::array();
    }
    for (const auto& r : kit.rolls) {
        Json offcuts = Json::array();
        for (const auto& o : r.sheets.offcuts)
            offcuts.push_back({{"length_m", o.length}, {"width_m", o.width}});
        rolls.push_back({{"material", r.material},
                         {"width_m", r.width},
                         {"length_m", r.metres},
                         {"yield", r.yield},
                         {"offcuts", std::move(offcuts)},
                         {"too_large", r.sheets.too_large}});
        if (!a.option("out")) continue;
        write_sheets(r.sheets, *a.option("out") + "/" + as_file(r.material), out["files"]);
    }
    if (!panels->panels.empty() || panels->too_many)
        out["core"] = core_to_json(*panels, *on.findings.part, zones);
    for (const auto& stock : panels->stocks) {
        if (a.option("out"))
            write_sheets(stock.sheets, *a.option("out") + "/" + as_file(stock.material), out["files"]);
    }
    if (!on.job.part.inserts.empty()) {
        out["inserts"] = inserts_to_json(on.job.part, on.findings.part->inserts);
        if (const auto folder = a.option("out"))
            write_sheets(part::insert_template(on.job.part, on.findings.part->inserts.front(),
                                               *on.findings.edge->tool),
                         *folder + "/inserts-", out["files"]);
    }
    out["pieces"] = std::move(pieces);
    out["rolls"] = std::move(rolls);
    Json calls = Json::array();
    for (auto& call : calls_to_json(on.findings.calls)) {
        if (call["stage"] == name_of(Stage::part).key) calls.push_back(call);
    }
    out["calls"] = std::move(calls);
    return out;
}

}  // namespace jig::batch
