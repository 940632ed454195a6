#include <fmt/format.h>

#include <cstdlib>
#include <filesystem>
#include <iostream>

#include "batch/verbs.hpp"

namespace jig::batch {

namespace {

const Option kUnit{"unit", "mm|cm|m|in", "unit of the mesh where its file names none"},
    kChord{"chord", "M", "metres that facets of a STEP file may leave its surface by"},
    kDrag{"drag-deg", "A", "draft below which a face drags, degrees; 1 where it is not given"},
    kLibrary{"library", "DIR", "a folder with the shop's own lists, laid over the shipped ones"};

}  // namespace

const std::vector<Verb>& verbs() {
    static const std::vector<Verb> all{
        {{"laminate", "STACK.json", {kLibrary}},
         "Thickness, mass, A, B, D, moduli, shear stiffness, expansion and free curvature of a "
         "stack.\nSTACK: {\"plies\": [{\"material\": NAME or {constants}, \"angle_deg\": 0, \"thickness_m\": "
         "0.00025}, ...], \"resin\": NAME}, first ply at the tool face.",
         run_laminate},
        {{"draft", "MESH", {{"pull", "X,Y,Z", "the mould leaves along it", true}, kDrag, kUnit, kChord}},
         "Which faces slide, drag and lock when the mould leaves along +pull.",
         run_draft},
        {{"pull",
          "MESH",
          {{"top", "N", "how many to list, 1 to 12; 3 where it is not given"}, kDrag, kUnit, kChord}},
         "The best directions for the mould to leave, best first.",
         run_pull},
        {{"split",
          "MESH",
          {{"pieces", "N", "at most so many, 1 to 6", true},
           {"plane", "X,Y,Z,NX,NY,NZ", "a point of the parting plane in metres, and its normal"},
           kDrag,
           {"out", "DIR", "writes one binary STL (mm) a piece"},
           kUnit,
           kChord}},
         "A mould in at most N pieces, or two parted by a plane: each piece's pull, what locks, and the "
         "seams.",
         run_split},
        {{"measure", "MESH", {kUnit, kChord}},
         "Size, area, volume, centre, holes and what was mended.",
         run_measure},
        {{"slabs",
          "MESH",
          {{"axis", "X,Y,Z", "slabs lie across it", true},
           {"thickness", "T", "of a slab, metres", true},
           {"sheet", "WxH", "of stock, metres; 2.5x1.25 where it is not given"},
           {"kerf", "K", "width of the cut, metres"},
           {"margin", "M", "kept from the sheet's edge, metres"},
           {"fit", "oversize|undersize|middle", "which of its faces a slab keeps to"},
           {"hollow", "WALL", "leaves the inside out, metres of wall"},
           {"grain", "yes|no", "whether pieces keep to the sheet's grain"},
           {"pin", "D", "diameter of the locating pins, metres"},
           {"out", "DIR", "writes one DXF and one SVG a sheet, and stack.stl"},
           kUnit,
           kChord}},
         "The shape as a stack of slabs laid onto sheets, with pins, bevels and offcuts; metres.",
         run_slabs},
        {{"plug", "JOB", {{"out", "DIR", "writes the cut files of the route that the job takes"}, kLibrary}},
         "The seven plug routes of a job set side by side: hours, days, cost, mass, accuracy, surface, heat, "
         "moulds, each with its reason.",
         run_plug},
        {{"stiffness", "CASE.json", {kLibrary}},
         "A shell by finite elements on supports under loads.\nCASE: {\"mesh\": FILE or {\"points_m\", "
         "\"triangles\"}, \"unit\", \"refine_to_m\", \"stack\", \"zero_direction\", \"supports\", \"loads\", "
         "\"probes_m\"}; see docs/batch.md.",
         run_stiffness},
        {{"tool",
          "JOB",
          {{"piece", "N", "which of a mould in pieces"},
           {"quick", "yes|no", "leaves the fine mesh off"},
           {"suggest", "yes|no", "seeks rib pitch and feet"},
           {"out", "DIR", "writes the ribs' cutting sheets and the flange's drilling template"},
           kLibrary}},
         "The tool of a job on trial by shell finite elements: own weight, turned over, leant on, bolted, "
         "levered, bagged, heated, on two meshes.",
         run_tool},
        {{"part",
          "JOB",
          {{"piece", "N", "which of a mould in pieces is tried"},
           {"quick", "yes|no", "leaves the fine mesh off"},
           {"builds", "yes|no", "also the builds that it keeps, each worked out to the end"},
           {"as-stiff", "NAME",
            "also the fewest plies of --cloth that bend no easier than that build, or now"},
           {"cloth", "NAME", "of the library, with --as-stiff"},
           {"out", "JOB", "with --as-stiff: writes the job with that build kept"},
           kLibrary}},
         "The part of a job under what it has to carry, by shell finite elements on two meshes: what it "
         "gives "
         "and how many times each load it holds, zones and draped cloth followed.",
         run_part},
        {{"shell",
          "JOB",
          {{"build", "TEXT",
            "lays its plies afresh first, in the shop's thickness units: a total, as 24, or ply by ply, as "
            "\"1 + 2 + 4 x 6 + core + 6\""},
           {"out", "JOB", "writes that job"},
           kLibrary}},
         "The mould's laminate of a job: its order of laying, the seven schools worked out side by side, and "
         "stacks that keep to the sag, mass and days that the job seeks.",
         run_shell},
        {{"vacuum", "CASE.json", {}},
         "How a bag is emptied: its end pressure, the time to others, its leak by a drop test or by the "
         "pump's "
         "pauses.\nCASE: {\"volume_m3\" or \"parts\": {\"area_m2\", \"porous_m\", \"hoses\": [{\"length_m\", "
         "\"bore_m\"}], \"trap_m3\"}, \"pump\": {\"speed_m3_s\", \"ultimate_Pa\"}, \"altitude_m\", "
         "\"leak_Pa_m3_s\" or \"drop\": {\"from_Pa\", \"to_Pa\", \"seconds\"} or \"cycling\": {\"on_s\", "
         "\"off_s\", \"low_Pa\", \"high_Pa\"}, \"projected_m2\", \"times_to_Pa\": [...]}; absolute "
         "pressures.",
         run_vacuum},
        {{"bag",
          "MESH or JOB",
          {{"pull", "X,Y,Z", "the mould leaves along it; with a mesh"},
           {"land", "W", "metres of tape land past the mesh's rim; 0 where it is not given"},
           {"ease", "E", "share by which the film is larger; 0.1 where it is not given"},
           {"film", "W", "metres, width of the film's roll"},
           {"pleat", "H", "metres, the tallest pleat; 0.05 where it is not given"},
           {"sheet", "L,W", "metres, a film that is there already: says where it would stand off the face"},
           {"out", "DIR", "writes the film as DXF and SVG; of a job also its layers as CSV"},
           kUnit,
           kChord,
           kLibrary}},
         "The film over an open mesh along its pull, or over a job's own tool: girths, sheet, pleats, tape; "
         "of "
         "a job also how it is emptied.",
         run_bag},
        {{"cure",
          "WALL.json or JOB",
          {{"fast", "yes|no", "of a job: also the soonest programme of each cure that harms nothing"},
           {"thicker", "NAMES",
            "of a wall: also how hot the layers of these names become by how thick they are"},
           {"limit", "K", "with --thicker: the hottest that they may come to, for how thick they may be"},
           {"under", "K", "with --thicker: the hottest that what does not react before them may come to"},
           kLibrary}},
         "Heat and cure through a wall of layers: temperatures, degree of cure and Tg at each layer's faces "
         "and middle, the peak, the spread, gelation, and where the heat went.\nWALL: {\"layers\": "
         "[{\"name\", \"thickness_m\", \"k_W_mK\", \"rho_kg_m3\", \"c_J_kgK\", \"resin\": NAME or "
         "constants, \"resin_kg_m3\", \"cure\": 0}], \"sides\": [{\"h_W_m2K\", \"air\": [{\"to_K\", "
         "\"K_s\"} or {\"hold_s\"} ...] or {\"T_K\"}} or {\"T_K\"}, two of them], \"start_K\", "
         "\"end_s\", \"at_s\": [...]}.\nOf a job: each of its cures the same way, with the course of the air "
         "and the "
         "calls of Heat, and how thick its plies may be laid at once.",
         run_cure},
        {{"drape",
          "MESH",
          {{"seed", "X,Y,Z", "where both first threads cross, metres", true},
           {"warp", "X,Y,Z", "direction of the warp there", true},
           {"cell", "M", "metres between threads"},
           {"lock-deg", "D", "shear at which the cloth locks, degrees; 50 where it is not given"},
           {"probe", "X,Y,Z", "a place whose shear is asked for, metres; as often as you like", false, true},
           {"cut", "X,Y,X,Y…",
            "corners of a line along which it is cut first, seen along --pull, metres (cut_axes says along "
            "what); as "
            "often as you like",
            false, true},
           {"pull", "X,Y,Z", "with --cut: the direction that it is seen along; 0,0,1 where it is not given"},
           {"out", "DIR", "writes the pattern as DXF and SVG"},
           kUnit,
           kChord}},
         "Cloth over a mesh as a net of pinned threads: its shear, where it locks, and the flat pattern.",
         run_drape},
        {{"kit",
          "JOB",
          {{"piece", "N", "which of a mould in pieces, for its plies"},
           {"trim", "M", "metres that pieces are larger all round; 0.02 where it is not given"},
           {"lap", "M", "metres that pieces of one ply lie over each other; 0.025 where it is not given"},
           {"out", "DIR", "writes each roll and sheet as DXF and SVG"},
           {"seek-cuts", "JOB",
            "first seeks where to cut cloth that locks, writes the job with those cuts, and lays that"},
           {"seek-seams", "JOB",
            "first draws seams along the roll where plies are wider than it, writes the job with those, and "
            "lays that"},
           kLibrary}},
         "The part's plies and panels of core cut flat: how each net shears, every piece, the lengths of "
         "roll and "
         "sheets that they take; what its inserts bear, and a template that finds them.",
         run_kit},
        {{"kinetics", "DATA.json", {}},
         "How a resin cures, from what its data sheet gives; the answer serves as a wall's resin.\nDATA: "
         "{\"family\", \"gel_times\": [{\"T_K\", \"s\"}], \"pot\": {\"mass_kg\", \"T0_K\", "
         "\"peak_K\", \"peak_s\"}, \"heat_J_kg\", \"Tg\": [{\"cure_K\", \"cure_s\", \"Tg_K\"}]}.",
         run_kinetics},
        {{"plan", "TASKS.json", {}},
         "Tasks in the least time, with waits, shifts, people and machines.\nTASKS: {\"start\": "
         "\"2027-03-01T08:00\", \"calendar\": {\"days\": [1..7, Monday is 1], \"shifts\": [[\"08:00\", "
         "\"16:00\"]], \"holidays\": [\"2027-03-05\"]}, \"resources\": {\"people\": 2}, \"tasks\": "
         "[{\"name\", \"work_s\", \"needs\": {\"people\": 1}, \"breakable\": true, \"wait_s\", "
         "\"after\": [{\"task\", \"min_s\", \"max_s\"}], \"any_time\": false}], \"deadline\", "
         "\"seconds\": 5}. A wait goes on day and night; min_s and max_s count from its end. What may not "
         "break off is done within one stretch of shifts; any_time runs while the shop is closed. late_s is "
         "what it ends past the deadline.",
         run_plan},
        {{"infuse",
          "CASE.json or JOB",
          {{"quick", "yes|no", "of a job: leaves the fine mesh off"},
           {"shell", "yes|no", "of a job: its infused shell on the plug, where the part is infused too"},
           {"layouts", "yes|no", "of a job: sets spines, fishbones, ring and end side by side"},
           {"race", "yes|no", "of a job: fits permeability and race along the rim to its marked fronts"},
           {"keep", "DIR",
            "of a job: writes lists of a library in which its cloth and medium let through as it takes them "
            "to"},
           {"probe", "X,Y,Z", "of a job: a place whose time is asked for, metres; as often as you like",
            false, true},
           {"out", "DIR",
            "of a job: writes the front at full size as DXF and SVG, and the table of hoses and of pots"},
           kLibrary}},
         "Resin through a preform on a mesh: when it is full, what stays dry, when the front comes where, "
         "what "
         "each feed gives.\nCASE: {\"mesh\": FILE or {\"points_m\", \"triangles\"}, \"unit\", "
         "\"refine_to_m\", \"layers\": [{\"K_m2\": [K1, K2, Kz], \"angle_deg\", \"thickness_m\", "
         "\"porosity\", \"within_m\"}], \"zero_direction\", \"viscosity_Pas\": number, {\"mu0_Pas\", "
         "\"tau_s\"} or {\"resin\", \"T_K\", \"mixed_s\"}, \"density_kg_m3\", \"gravity_m_s2\", "
         "\"feeds\": [{\"within_m\", \"pressure_Pa\", \"open\": {\"at_s\"} or {\"when_wet_m\"}, "
         "\"shut\", \"hose\": {\"length_m\", \"bore_m\"}}], \"vents\": [{\"within_m\", \"pressure_Pa\"}], "
         "\"probes_m\", \"times_s\", "
         "\"end_s\"}.\nOf a job: its own hoses on its own part, or shell, the same way, with the calls of "
         "Bag.",
         run_infuse},
        {{"gate",
          "JOB",
          {{"at", "TIME",
            "the moment that is asked about, as 2026-05-31T14:30 or with +02:00 behind it; now where "
            "it is not given"},
           {"face", "NAME", "one face alone"},
           kLibrary}},
         "Whether something may be laid on each face that the log tells of: go or no-go, with reasons, the "
         "next "
         "coat, and from when to when; exit 3 where one of them says no.",
         run_gate},
        {{"report",
          "JOB",
          {{"pdf", "F", "writes the printed sheets"},
           {"csv", "DIR", "writes materials and days as CSV"},
           kLibrary}},
         "All findings of a job by stage, and its calls.",
         run_report},
        {{"check", "JOB", {kLibrary}}, "The calls of a job; exit 3 where one is a stop.", run_check}};
    return all;
}

std::string data_folder() {
    if (const char* own = std::getenv("JIGSHELL_DATA")) return own;
    std::error_code none;
    const auto beside =
        std::filesystem::read_symlink("/proc/self/exe", none).parent_path().parent_path() / "share/jigshell";
    for (const auto& place :
         {beside.string(), std::string(JIG_SOURCE_DATA), std::string(JIG_INSTALLED_DATA)}) {
        if (std::filesystem::exists(place + "/library", none)) return place;
    }
    throw InputError("data", "the shop library is not where it was installed",
                     "install Jig Shell again, or point JIGSHELL_DATA to its data folder");
}

int run(const std::vector<std::string>& words, std::ostream& out, std::ostream& err, Progress& progress) {
    const auto one_line = [](std::string text) {
        for (auto& c : text) c = c == '\n' ? ' ' : c;
        return text;
    };
    try {
        std::vector<Form> forms;
        for (const auto& v : verbs()) forms.push_back(v.form);
        const auto args = read_arguments(words, forms);
        if (args.verb.empty()) {
            if (!args.help)
                throw InputError("jigshell-batch", "no verb is given", "see jigshell-batch --help");
            out << "usage: jigshell-batch VERB FILE [options]\nOne JSON object on standard output, SI units. "
                   "Exit 0 answered, 2 bad input, 3 check found a stop or gate a no-go, 1 own fault.\n\n";
            for (const auto& v : verbs()) out << "  " << v.form.usage() << "\n";
            out << "\njigshell-batch VERB --help says more. Figures are estimates: data sheets, local codes "
                   "and licensed practice come first.\n";
            return 0;
        }
        for (const auto& v : verbs()) {
            if (args.verb != v.form.verb) continue;
            if (args.help) {
                out << "usage: jigshell-batch " << v.form.usage() << "\n" << v.help << "\n";
                for (const auto& o : v.form.options)
                    out << "  --" << o.name << " " << o.value << "  " << o.help << "\n";
                return 0;
            }
            const auto answer = v.run(args, progress);
            out << answer.dump(1) << std::endl;
            if (args.verb == "gate" && !answer["go"].get<bool>()) return 3;
            if (args.verb == "check") {
                for (const auto& call : answer["calls"]) {
                    if (call["severity"] == "stop") return 3;
                }
            }
            return 0;
        }
        throw InputError("jigshell-batch", "there is no verb \"" + args.verb + "\"",
                         "see jigshell-batch --help");
    } catch (const InputError& e) {
        err << one_line(fmt::format("error: {}: {}; {}", e.where(), e.problem(), e.mend())) << std::endl;
        return 2;
    } catch (const Cancelled&) {
        err << "stopped" << std::endl;
        return 130;
    } catch (const std::exception& e) {
        err << one_line(std::string("fault: ") + e.what()) << std::endl;
        return 1;
    }
}

}  // namespace jig::batch
