#include "core/job/evaluate.hpp"

#include <algorithm>
#include <optional>
#include <thread>

#include "core/job/graph.hpp"
#include "core/job/trial.hpp"
#include "core/stages/bag/work.hpp"

namespace jig {
namespace {

template <class... Ptr>
bool all(const Ptr&... p) {
    return (static_cast<bool>(p) && ...);
}

Call stop_of(Stage stage, const InputError& e) {
    return {stage, Severity::stop, "input", e.where() + ": " + e.problem(), "To mend it: " + e.mend() + ".",
            {}};
}

/// What several findings lack is said once.
void add_once(Call stop, Calls& calls) {
    if (std::none_of(calls.begin(), calls.end(),
                     [&](const Call& c) { return c.key == stop.key && c.headline == stop.headline; }))
        calls.push_back(std::move(stop));
}

/// The calls of all stages, after the faults.
void gather(const Job& job, Findings& f, const shell::Warmth& warmth, const Shop& shop, Calls failures) {
    f.calls = std::move(failures);
    // A name that the library has not may be read by the calls alone: a stop of theirs, once.
    const auto judge = [&](Stage stage, bool known, const auto& calls) {
        if (!known) return;
        try {
            auto more = calls();
            f.calls.insert(f.calls.end(), std::make_move_iterator(more.begin()),
                           std::make_move_iterator(more.end()));
        } catch (const InputError& e) {
            add_once(stop_of(stage, e), f.calls);
        }
    };
    judge(Stage::brief, all(f.brief), [&] { return brief::calls(job.brief, *f.brief); });
    judge(Stage::shape, all(f.shape), [&] { return shape::calls(job.shape, *f.shape, job.brief); });
    judge(Stage::split, all(f.split, f.shape), [&] { return split::calls(job.split, *f.split, *f.shape); });
    judge(Stage::split, all(f.split), [&] {
        Calls none;
        if (plug::no_plug(job.plug) && !f.split->boards.empty())
            none.push_back(
                {Stage::split,
                 Severity::note,
                 "no_boards",
                 "No parting board is made: each piece of the mould is a block of its own",
                 "Boards are what a laminate is laid against. Their drawings stay for a route with "
                 "a plug; plan and ledger have none.",
                 {}});
        return none;
    });
    judge(Stage::plug, all(f.plug), [&] {
        const auto* resin = find(shop.resins, job.shell.resin);
        return plug::calls(job.plug, *f.plug, job.brief, resin != nullptr ? resin->family : Family::epoxy);
    });
    judge(Stage::edge, all(f.edge), [&] { return edge::calls(job.edge, *f.edge, job.brief, shop); });
    judge(Stage::shell, all(f.shell, f.plug), [&] {
        return shell::calls(job.shell, *f.shell, job.plug, *f.plug, job.brief,
                            job.back.kind != BackKind::none, warmth, shop);
    });
    judge(Stage::back, all(f.back, f.shell, f.edge),
          [&] { return back::calls(job.back, *f.back, *f.shell, *f.edge, job.brief); });
    judge(Stage::release, all(f.release, f.shape),
          [&] { return release::calls(job.release, *f.release, job.brief, *f.shape, job.shell, shop); });
    judge(Stage::heat, all(f.heat, f.shell, f.plug), [&] {
        // A back that is not worked out has its own stop.
        auto back = job.back;
        if (!f.back) back.kind = BackKind::none;
        return heat::calls(job.heat, *f.heat,
                           {job.brief, *f.plug, job.shell, *f.shell, back, job.part, shop});
    });
    judge(Stage::part, all(f.part, f.split, f.bag, f.edge), [&] {
        double bagging = 0;
        for (const auto& step : bag::work(job.bag, *f.bag, {}, *f.part, *f.edge, f.split->parts(),
                                          f.part->goes.size() - 1, 0, shop)
                                    .steps)
            bagging += step.hours();
        return part::calls(job.part, *f.part, job.brief, f.split->parts(), bagging,
                           heat::go_limit(f.heat ? f.heat->part_go : heat::OneGo{}, f.part->resin), shop);
    });
    judge(Stage::bag, all(f.bag, f.part, f.split),
          [&] { return bag::calls(job.bag, *f.bag, job.edge, job.part, *f.part, f.split->parts(), shop); });
    judge(Stage::run, all(f.run), [&] { return run::calls(*f.run, job.brief); });
    judge(Stage::log, all(f.log, f.part, f.release),
          [&] { return log::calls(*f.log, job.brief, *f.part, *f.release); });
    std::stable_sort(f.calls.begin(), f.calls.end(),
                     [](const Call& a, const Call& b) { return a.stage < b.stage; });
}

/// More calls, in the order of the stages.
void add_calls(Findings& f, Calls more) {
    f.calls.insert(f.calls.end(), std::make_move_iterator(more.begin()), std::make_move_iterator(more.end()));
    std::stable_sort(f.calls.begin(), f.calls.end(),
                     [](const Call& a, const Call& b) { return a.stage < b.stage; });
}

/// The resin of part and shell on the finest meshes that they have been followed over, and races that were
/// sought for their marks; null where there is none.
struct Flows {
    std::shared_ptr<const bag::Flow> part, shell;
    std::shared_ptr<const bag::RaceFit> part_race, shell_race;
};

/// Findings with the way of the resin among the bag's figures, what is shown first, and its calls among all.
Findings with_flows(Findings f, const Job& job, const Flows& flows) {
    if (!f.bag) return f;
    // What is followed is one piece of a mould; what is mixed is for all of them.
    const auto share = [](const bag::Flow& flow, double area) {
        return area > 0 ? std::min(1.0, flow.area / area) : 1.0;
    };
    if (flows.part && f.part && f.split)
        add_calls(
            f, bag::flow_calls(*flows.part, job.bag.infusion,
                               {job.part, f.part->resin_mix,
                                share(*flows.part, f.part->area * f.split->parts()), flows.part_race.get()}));
    if (flows.shell && f.shell)
        add_calls(
            f, bag::flow_calls(*flows.shell, job.bag.shell_infusion,
                               {bag::as_preform(job.shell, 0), f.shell->resin_mass,
                                share(*flows.shell, f.shell->area), flows.shell_race.get(), f.shell->days}));
    const bool of_shell = infused_shown(job) == Infused::shell;
    const auto& shown = of_shell ? flows.shell : flows.part;
    const auto& other = of_shell ? flows.part : flows.shell;
    auto bag = *f.bag;
    // Whether it is full before it gels comes before the film's measures.
    std::vector<Figure> figures;
    for (const auto* flow : {shown.get(), other.get()}) {
        if (flow == nullptr) continue;
        auto more = bag::flow_figures(*flow, job.bag.of(flow->of));
        std::move(more.begin(), more.end(), std::back_inserter(figures));
    }
    figures.insert(figures.end(), bag.figures.begin(), bag.figures.end());
    bag.figures = std::move(figures);
    f.bag = std::make_shared<const bag::Findings>(std::move(bag));
    if (shown && shown->runs) f.flow = shown;
    if (other && other->runs) f.other_flow = other;
    f.race = of_shell ? flows.shell_race : flows.part_race;
    return f;
}

/// Findings with the part's trial among its figures and calls.
Findings with_part_trial(Findings f, const Job& job, std::shared_ptr<const part::Trial> trial) {
    if (!f.part || !trial) return f;
    auto part = *f.part;
    // Whether it holds comes before what it weighs.
    auto figures = part::trial_figures(*trial, job.part.duty);
    figures.insert(figures.end(), part.figures.begin(), part.figures.end());
    part.figures = std::move(figures);
    f.part = std::make_shared<const part::Findings>(std::move(part));
    add_calls(f, part::trial_calls(*trial, job.part.duty));
    f.part_trial = std::move(trial);
    return f;
}

/// Findings with the core's panels among the part's figures and calls.
Findings with_core_panels(Findings f, const Job& job, std::shared_ptr<const part::CorePanels> panels) {
    if (!f.part || !panels) return f;
    add_calls(f, part::panel_calls(*panels, job.part));
    if (panels->panels.empty()) return f;
    auto part = *f.part;
    auto figures = part::panel_figures(*panels, job.part);
    part.figures.insert(part.figures.end(), std::make_move_iterator(figures.begin()),
                        std::make_move_iterator(figures.end()));
    f.part = std::make_shared<const part::Findings>(std::move(part));
    f.core_panels = std::move(panels);
    return f;
}

/// The nodes whose faults a maker has to mend, in the order of their stages.
struct Faults {
    JobSlate& slate;
    const JobSlate::Laid& laid;
    Calls calls;

    template <class T>
    std::shared_ptr<const T> take(Stage stage) {
        const auto outcome = slate.recall<T>(laid);
        if (outcome.fault) add_once(stop_of(stage, *outcome.fault), calls);
        return outcome.value;
    }
    /// The resin on the finest mesh that it has been followed over.
    template <template <bool> class F>
    std::shared_ptr<const bag::Flow> finest() {
        const auto coarse = take<F<false>>(Stage::bag);
        if (const auto fine = slate.recall<F<true>>(laid).value) return {fine, &fine->flow};
        return coarse ? std::shared_ptr<const bag::Flow>(coarse, &coarse->flow) : nullptr;
    }
};

unsigned threads_or_all(unsigned threads) {
    return threads > 0 ? threads : std::max(1u, std::thread::hardware_concurrency());
}

}  // namespace

struct JobBoard::Laid {
    std::shared_ptr<const Given> given;
    JobSlate::Laid laid;
};

struct JobBoard::Inside {
    JobSlate slate;
    explicit Inside(std::size_t deep) : slate(deep) {}

    /// What the slate has of a job: what has just been worked out lies in `l`, the rest in its memo.
    Findings findings(const Laid& l) {
        Faults faults{slate, l.laid, {}};
        Findings f;
        f.brief = faults.take<brief::Findings>(Stage::brief);
        f.shape = faults.take<shape::Findings>(Stage::shape);
        faults.take<split::Asked>(Stage::split);
        f.split = faults.take<split::Findings>(Stage::split);
        f.plug = faults.take<plug::Findings>(Stage::plug);
        f.edge = faults.take<edge::Findings>(Stage::edge);
        faults.take<heat::ShellGo>(Stage::shell);
        f.shell = faults.take<shell::Findings>(Stage::shell);
        f.back = faults.take<back::Findings>(Stage::back);
        f.release = faults.take<release::Findings>(Stage::release);
        faults.take<part::Draped>(Stage::part);
        faults.take<part::Regions>(Stage::part);
        faults.take<part::CoreFit>(Stage::part);
        faults.take<part::InsertPlaces>(Stage::part);
        faults.take<part::OtherFaces>(Stage::part);
        faults.take<part::OtherMarks>(Stage::part);
        faults.take<part::OtherCores>(Stage::part);
        f.part = faults.take<part::Findings>(Stage::part);
        f.bag = faults.take<bag::Findings>(Stage::bag);
        faults.take<heat::PartGo>(Stage::heat);
        faults.take<heat::OvenEnds>(Stage::heat);
        faults.take<heat::CuredOnPlug>(Stage::heat);
        faults.take<heat::CuredWithBack>(Stage::heat);
        faults.take<heat::CuredStanding>(Stage::heat);
        faults.take<heat::CuredInTool>(Stage::heat);
        faults.take<heat::CuredJoined>(Stage::heat);
        faults.take<heat::CuredFree>(Stage::heat);
        faults.take<heat::OvenUse>(Stage::heat);
        faults.take<heat::FaceFolds>(Stage::heat);
        f.heat = faults.take<heat::Findings>(Stage::heat);
        // A back that cannot be worked out stands in no cure's way, only in its oven's.
        if (const auto heated = slate.recall<Heated>(l.laid).value) f.heat = heated->heat;
        f.run = faults.take<run::Findings>(Stage::run);
        f.log = faults.take<log::Findings>(Stage::log);
        if (const auto laid = faults.take<PlugSheets>(Stage::plug)) f.plug_sheets = {laid, &laid->laid};
        if (const auto laid = faults.take<RibSheets>(Stage::back)) f.rib_sheets = {laid, &laid->laid};
        if (const auto settled = slate.recall<Settled>(l.laid).value) {
            f.plug = settled->plug;
            f.run = settled->run;
        }
        faults.take<TrialFace<false>>(Stage::back);
        const auto quick = faults.take<Tried<false>>(Stage::back);
        // What stops the fine mesh stops the tool, as what stops the quick one does.
        if (quick) {
            const auto before = faults.calls.size();
            faults.take<TrialFace<true>>(Stage::back);
            const auto fine = faults.take<Tried<true>>(Stage::back);
            if (faults.calls.size() == before) f.trial = fine && fine->trial ? fine->trial : quick->trial;
        }
        f.finest =
            slate.recall<Settled>(l.laid).value && slate.recall<Tried<true>>(l.laid).value &&
            slate.recall<Flowed<true>>(l.laid).value && slate.recall<ShellFlowed<true>>(l.laid).value &&
            slate.recall<PartTried<true>>(l.laid).value && slate.recall<part::CorePanels>(l.laid).value;
        f.pitches = slate.recall<back::Suggestion>(l.laid).value;
        const auto warmth = slate.recall<shell::Warmth>(l.laid);
        const auto& shop = l.given->shop;
        const auto made = slate.recall<shell::Choices>(l.laid).value;
        // Of a mould that is cut itself the shell is its own wall, whatever is typed for it.
        const bool solid = made && is_solid(made->layers);
        std::optional<Job> as_made;
        if (solid) {
            as_made = l.given->job;
            as_made->shell = *made;
        }
        const Job& job = as_made ? *as_made : l.given->job;
        faults.take<PartFace<false>>(Stage::part);
        std::shared_ptr<const part::Trial> carried;
        // What the part itself lacks it has said already.
        if (f.part) {
            const auto quick_part = faults.take<PartTried<false>>(Stage::part);
            const auto fine_part = quick_part ? faults.take<PartTried<true>>(Stage::part) : nullptr;
            if (quick_part) carried = quick_part->trial;
            if (fine_part && fine_part->trial) carried = fine_part->trial;
        }
        const auto panels = f.part ? faults.take<part::CorePanels>(Stage::part) : nullptr;
        Flows flows;
        flows.part = faults.finest<Flowed>();
        flows.shell = faults.finest<ShellFlowed>();
        flows.part_race = slate.recall<bag::RaceFit>(l.laid).value;
        if (const auto race = slate.recall<ShellRace>(l.laid).value) flows.shell_race = {race, &race->found};
        f.layouts = slate.recall<bag::Layouts>(l.laid).value;
        if (infused_shown(job) == Infused::shell) {
            const auto found = slate.recall<ShellLayouts>(l.laid).value;
            f.layouts = found ? std::shared_ptr<const bag::Layouts>(found, &found->found) : nullptr;
        }
        gather(job, f, warmth ? *warmth : shell::Warmth{}, *shop, std::move(faults.calls));
        f = with_flows(std::move(f), job, flows);
        f = with_core_panels(std::move(f), job, panels);
        f = with_part_trial(std::move(f), job, std::move(carried));
        const auto trial = f.trial;
        return trial ? with_trial(std::move(f), job, trial) : f;
    }

    /// Works one of the findings out. Throws InputError with what stands in its way; Cancelled.
    template <class T>
    std::shared_ptr<const T> need(const Laid& l, Progress& progress) {
        const auto outcome = slate.want<T>(l.laid, progress);
        if (outcome.fault) throw InputError(*outcome.fault);
        if (outcome.value) return outcome.value;
        for (const auto& call : findings(l).calls) {
            if (call.key == "input") throw InputError(name_of(call.stage).key, call.headline, call.why);
        }
        throw InputError("job", "it is not worked out so far", "mend the stops on the job card first");
    }
};

JobBoard::JobBoard(std::size_t deep) : inside_(std::make_unique<Inside>(deep)) {}
JobBoard::~JobBoard() = default;

JobBoard::Sheet JobBoard::lay(Job job, std::shared_ptr<const Shop> shop, bool passing) {
    auto given = std::make_shared<const Given>(Given{std::move(job), std::move(shop)});
    auto laid = inside_->slate.lay(given, passing);
    return std::make_shared<const Laid>(Laid{std::move(given), std::move(laid)});
}

Findings JobBoard::work_out(const Sheet& sheet, Depth depth, Progress& progress, unsigned threads,
                            std::vector<Ran>* ran) {
    progress.check();
    auto& slate = inside_->slate;
    threads = threads_or_all(threads);
    auto worked = *sheet;
    worked.laid =
        slate.work_out<brief::Findings, plug::Findings, heat::Findings, Heated, run::Findings, log::Findings>(
            worked.laid, progress, threads, ran);
    if (depth == Depth::quick)
        worked.laid = slate.work_out<Settled, Tried<false>, PartTried<false>, part::CorePanels>(
            worked.laid, progress, threads, ran);
    if (depth == Depth::fine)
        worked.laid = slate.work_out<Settled, Flowed<true>, ShellFlowed<true>, Tried<true>, PartTried<true>,
                                     part::CorePanels>(worked.laid, progress, threads, ran);
    return inside_->findings(worked);
}

Findings JobBoard::glance(const Sheet& sheet, Progress& progress) {
    Findings out;
    out.shape = inside_->slate.want<shape::Findings>(sheet->laid, progress).value;
    return out;
}

std::shared_ptr<const std::vector<plug::Plan>> JobBoard::routes(const Sheet& sheet, Progress& progress) {
    const auto found = inside_->need<Routes>(*sheet, progress);
    return {found, &found->plans};
}

std::shared_ptr<const std::vector<SheetSet>> JobBoard::plug_sheets(const Sheet& sheet, Progress& progress) {
    const auto found = inside_->need<PlugSheets>(*sheet, progress);
    return {found, &found->laid};
}

std::shared_ptr<const SheetSet> JobBoard::rib_sheets(const Sheet& sheet, Progress& progress) {
    const auto found = inside_->need<RibSheets>(*sheet, progress);
    return {found, &found->laid};
}

std::shared_ptr<const shell::Found> JobBoard::seek_stack(const Sheet& sheet, Progress& progress) {
    progress.report(0.1, "trying stacks");
    return inside_->need<shell::Found>(*sheet, progress);
}

std::shared_ptr<const back::Suggestion> JobBoard::seek_pitch(const Sheet& sheet, Progress& progress) {
    return inside_->need<back::Suggestion>(*sheet, progress);
}

std::shared_ptr<const bag::Layouts> JobBoard::seek_layout(const Sheet& sheet, Progress& progress) {
    if (infused_shown(sheet->given->job) == Infused::part)
        return inside_->need<bag::Layouts>(*sheet, progress);
    const auto found = inside_->need<ShellLayouts>(*sheet, progress);
    return {found, &found->found};
}

std::shared_ptr<const bag::RaceFit> JobBoard::seek_race(const Sheet& sheet, Progress& progress) {
    if (infused_shown(sheet->given->job) == Infused::part)
        return inside_->need<bag::RaceFit>(*sheet, progress);
    const auto found = inside_->need<ShellRace>(*sheet, progress);
    return {found, &found->found};
}

std::shared_ptr<const part::SoughtCuts> JobBoard::seek_cuts(const Sheet& sheet, Progress& progress) {
    return inside_->need<part::SoughtCuts>(*sheet, progress);
}

std::shared_ptr<const part::CorePanels> JobBoard::core_panels(const Sheet& sheet, Progress& progress) {
    return inside_->need<part::CorePanels>(*sheet, progress);
}

std::shared_ptr<const part::Kit> JobBoard::kit(const Sheet& sheet, Progress& progress) {
    return inside_->need<part::Kit>(*sheet, progress);
}

std::shared_ptr<const part::Trial> JobBoard::try_part(const Sheet& sheet, bool fine, Progress& progress) {
    return fine ? inside_->need<PartTried<true>>(*sheet, progress)->trial
                : inside_->need<PartTried<false>>(*sheet, progress)->trial;
}

std::shared_ptr<const back::Trial> JobBoard::try_tool(const Sheet& sheet, Progress& progress) {
    return inside_->need<Tried<false>>(*sheet, progress)->trial;
}

Findings evaluate(const Job& job, const Shop& shop, Progress& progress, Depth depth) {
    JobBoard board;
    // The shop outlives the board.
    return board.work_out(board.lay(job, {std::shared_ptr<const Shop>{}, &shop}), depth, progress);
}

Findings::Findings() = default;
Findings::Findings(const Findings&) = default;
Findings::Findings(Findings&&) noexcept = default;
Findings& Findings::operator=(const Findings&) = default;
Findings& Findings::operator=(Findings&&) noexcept = default;
Findings::~Findings() = default;

const std::vector<Figure>& Findings::figures(Stage stage) const {
    static const std::vector<Figure> none;
    const auto of = [](const auto& p) -> const std::vector<Figure>& { return p ? p->figures : none; };
    switch (stage) {
        case Stage::brief:
            return of(brief);
        case Stage::shape:
            return of(shape);
        case Stage::split:
            return of(split);
        case Stage::plug:
            return of(plug);
        case Stage::edge:
            return of(edge);
        case Stage::shell:
            return of(shell);
        case Stage::back:
            return of(back);
        case Stage::release:
            return of(release);
        case Stage::part:
            return of(part);
        case Stage::bag:
            return of(bag);
        case Stage::heat:
            return of(heat);
        case Stage::run:
            return of(run);
        case Stage::log:
            return of(log);
    }
    return none;
}

}  // namespace jig
