#include "batch/filling.hpp"
#include "batch/on_board.hpp"
#include "batch/read_case.hpp"
#include "core/job/job_file.hpp"
#include "core/stages/bag/front.hpp"
#include "core/stages/bag/measured.hpp"

namespace jig::batch {
namespace {

Json layout_json(const bag::Layout& l) {
    return {{"plan", std::string(file_word(l.plan))},
            {"lines", l.lines},
            {"fill_s", or_null(l.fill)},
            {"filled", l.filled},
            {"dry_m2", l.dry},
            {"resin_kg", l.resin},
            {"line_m", l.line}};
}

}  // namespace

Json infuse_job(const Arguments& a, Progress& progress) {
    const bool quick = a.flag("quick");
    // The part's where it is infused, whatever was looked at last.
    OnBoard on(a, Depth::stages, progress, [&](Job& job, const Shop&) {
        job.bag.shows = a.flag("shell") ? Infused::shell : Infused::part;
    });
    on.need(Stage::bag);
    const auto of = a.flag("shell") ? Infused::shell : infused_shown(on.job);
    if (!infuses(on.job, of)) {
        const bool shell = of == Infused::shell;
        const auto how = shell ? on.job.shell.how : on.job.part.how;
        throw InputError(shell ? "shell" : "part",
                         std::string("the ") + (shell ? "shell" : "part") + " is laid " +
                             std::string(said(how)) + ", not infused",
                         std::string("choose \"infused\" in ") + (shell ? "Shell" : "Part") +
                             ", or give a case instead of a job");
    }
    if (!quick) on.work_out(Depth::fine, progress);
    const auto& found = on.findings.flow;
    Json calls = Json::array();
    for (auto& call : calls_to_json(on.findings.calls)) {
        if (call["stage"] == name_of(Stage::bag).key) calls.push_back(call);
    }
    if (!found) {
        for (const auto& call : on.findings.calls) {
            const auto key =
                of == Infused::shell && call.key.rfind("shell_", 0) == 0 ? call.key.substr(6) : call.key;
            if (call.stage == Stage::bag && (key == "hoses" || key == "gelled"))
                throw InputError("bag", call.headline, call.why);
        }
        throw InputError("bag", "there is no face with a preform that resin could run over",
                         "see the job's Edge and Part");
    }
    const auto& flow = *found;
    Json out = filling_json(*flow.face, flow.filling);
    for (std::size_t i = 0; i < flow.filling.feeds.size(); ++i) out["feeds"][i]["name"] = flow.ports[i].name;
    Json ports = Json::array();
    for (const auto& p : flow.ports)
        ports.push_back({{"name", p.name},
                         {"use", std::string(file_word(p.port.use))},
                         {"kind", std::string(file_word(p.port.kind))},
                         {"at_m", Json::array({p.at.x(), p.at.y(), p.at.z()})},
                         {"line_m", p.length}});
    out["ports"] = std::move(ports);
    out["arrivals_s"] = Json::array();
    const NearestFace nearest(*flow.face);
    for (const auto& p : probes_of(a))
        out["arrivals_s"].push_back(arrival_at(*flow.face, nearest, flow.filling, p));
    out["gel_s"] = or_null(flow.gel);
    out["lag_m"] = flow.lag.length;
    out["area_m2"] = flow.area;
    out["drive_Pa"] = flow.drive;
    out["fine"] = flow.fine;
    out["of"] = std::string(file_word(flow.of));
    out["hose_drop_Pa"] = flow.choked;
    out["hoses_kg"] = flow.hoses;
    out["pots"] = Json::array();
    for (const auto& p : flow.pots)
        out["pots"].push_back({{"kg", p.mass},
                               {"hardener_kg", p.hardener},
                               {"mixed_s", p.mixed},
                               {"from_s", p.from},
                               {"till_s", p.till}});
    out["thickness"] = flow.thickness
                           ? Json{{"full", flow.thickness->full},      {"gelled", flow.thickness->end},
                                  {"at_m", three(flow.thickness->at)}, {"over_kg", flow.thickness->over},
                                  {"drawn_kg", flow.thickness->drawn}, {"wait_s", flow.thickness->wait}}
                           : Json();
    out["fit"] = flow.fit ? Json{{"lets", flow.fit->lets},
                                 {"spread", or_null(flow.fit->spread)},
                                 {"marks", flow.fit->marks}}
                          : Json();
    if (a.flag("layouts")) {
        Json layouts = Json::array();
        for (const auto& l : on.board.seek_layout(on.sheet, progress)->tried)
            layouts.push_back(layout_json(l));
        out["layouts"] = std::move(layouts);
    }
    if (a.flag("race")) {
        const auto raced = on.board.seek_race(on.sheet, progress);
        out["raced"] = {{"race", raced->race},
                        {"lets", raced->fit.lets},
                        {"spread", or_null(raced->fit.spread)},
                        {"off", raced->fit.off},
                        {"off_before", raced->off_before}};
    }
    if (const auto folder = a.option("keep")) {
        auto shop = *on.shop;
        out["kept"] = Json::array();
        for (const auto& m :
             bag::keep_measured(shop, infusion_shown(on.job),
                                of == Infused::shell ? bag::as_preform(on.job.shell, 0) : on.job.part,
                                {OriginKind::measured, "", "fronts of " + on.job.brief.job}))
            out["kept"].push_back({{"name", m.name}, {"before_m2", m.before}, {"after_m2", m.after}});
        make_folder(*folder);
        for (const auto* list : bag::kMeasuredLists)
            write_atomically(write_list(shop, list), *folder + "/" + list + ".json");
    }
    out["calls"] = std::move(calls);
    if (const auto folder = a.option("out")) {
        make_folder(*folder);
        out["files"] = Json::array();
        write_sheets(bag::front_sheet(flow, {}), *folder + "/front", out["files"]);
        write_atomically(bag::opening_table(flow, {}), *folder + "/hoses.csv");
        out["files"].push_back(*folder + "/hoses.csv");
        write_atomically(bag::pot_table(flow, {}), *folder + "/pots.csv");
        out["files"].push_back(*folder + "/pots.csv");
    }
    return out;
}

}  // namespace jig::batch
