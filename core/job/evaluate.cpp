#include "core/job/evaluate.hpp"

#include <algorithm>

namespace jig {
namespace {

/// Runs one stage: takes the old findings over where `same` holds, else works them out. Bad input turns into
/// a stop of that stage.
template <class F, class Work>
void stage(Stage which, std::shared_ptr<const F>& slot, const std::shared_ptr<const F>* old, bool same,
           Calls& failures, Work&& work) {
    if (same && old != nullptr && *old) {
        slot = *old;
        return;
    }
    try {
        slot = std::make_shared<const F>(work());
    } catch (const InputError& e) {
        failures.push_back({which,
                            Severity::stop,
                            "input",
                            e.where() + ": " + e.problem(),
                            "To mend it: " + e.mend() + ".",
                            {}});
    }
}

template <class... Ptr>
bool all(const Ptr&... p) {
    return (static_cast<bool>(p) && ...);
}

/// What of the brief the figures of run and the others read; names and customer change nothing.
brief::Choices nameless(brief::Choices b) {
    b.job.clear();
    b.customer.clear();
    b.part.clear();
    b.revision = 0;
    return b;
}

/// K of the plug while the shell gels on it.
double cure_on_plug(const Job& job, const Shop& shop) {
    if (job.heat.shell_gel > 0) return job.heat.shell_gel;
    const auto* resin = find(shop.resins, job.shell.resin);
    return resin != nullptr ? resin->gel_temperature : job.heat.room;
}

/// Bending stiffness of the flange's laminate along it, N·m; 0 where no joint asks for it or it is not known.
double flange_plate(const Job& job, const Shop& shop) {
    if (job.brief.process != Process::squeeze && job.split.way == SplitWay::one) return 0;
    try {
        const auto l = shell::flange_laminate(job.shell, shop);
        return std::min(l.D_free(0, 0), l.D_free(1, 1));
    } catch (const InputError&) {
        return 0;  // Shell says what is wrong with it
    }
}

/// Temperatures that the shell is made between.
shell::Warmth warmth(const Job& job, const Shop& shop) {
    return {job.heat.room, std::max(job.heat.room, cure_on_plug(job, shop))};
}

void gather(const Job& job, Findings& f, const Shop& shop, Calls failures) {
    f.calls.clear();
    const auto add = [&](Calls more) {
        f.calls.insert(f.calls.end(), std::make_move_iterator(more.begin()),
                       std::make_move_iterator(more.end()));
    };
    add(std::move(failures));
    if (f.brief) add(brief::calls(job.brief, *f.brief));
    if (f.shape) add(shape::calls(job.shape, *f.shape, job.brief));
    if (all(f.split, f.shape)) add(split::calls(job.split, *f.split, *f.shape));
    if (f.plug) {
        const auto* resin = find(shop.resins, job.shell.resin);
        add(plug::calls(job.plug, *f.plug, job.brief, resin != nullptr ? resin->family : Family::epoxy));
    }
    if (f.edge) add(edge::calls(job.edge, *f.edge, job.brief, shop));
    if (all(f.shell, f.plug))
        add(shell::calls(job.shell, *f.shell, job.plug, *f.plug, job.brief, job.back.kind != BackKind::none,
                         warmth(job, shop), shop));
    if (all(f.back, f.shell, f.edge)) add(back::calls(job.back, *f.back, *f.shell, *f.edge, job.brief));
    if (all(f.release, f.shape)) add(release::calls(job.release, *f.release, job.brief, *f.shape, job.shell));
    if (all(f.heat, f.shell, f.plug))
        add(heat::calls(job.heat, *f.heat,
                        {job.brief, *f.plug, job.shell, *f.shell, job.back, job.part, shop}));
    if (all(f.part, f.split)) add(part::calls(job.part, *f.part, job.brief, f.split->parts(), shop));
    if (f.run) add(run::calls(*f.run, job.brief));
    if (all(f.log, f.part, f.release)) add(log::calls(*f.log, job.brief, *f.part, *f.release));
    std::stable_sort(f.calls.begin(), f.calls.end(),
                     [](const Call& a, const Call& b) { return a.stage < b.stage; });
}

}  // namespace

Findings evaluate(const Job& job, const Shop& shop, const Evaluated* before, Progress& progress) {
    Findings f;
    Calls failures;
    const Job* was = before != nullptr ? &before->job : nullptr;
    const Findings* old = before != nullptr ? &before->findings : nullptr;
    const auto kept = [&](auto Findings::*member) { return old != nullptr ? &(old->*member) : nullptr; };
    const bool brief_same = was != nullptr && nameless(was->brief) == nameless(job.brief);

    stage(Stage::brief, f.brief, kept(&Findings::brief), brief_same, failures,
          [&] { return brief::evaluate(job.brief, shop); });

    const auto* mesh = job.shape.kind == ShapeKind::mesh ? job.attached(job.shape.file) : nullptr;
    const auto* old_mesh =
        was != nullptr && was->shape.kind == ShapeKind::mesh ? was->attached(was->shape.file) : nullptr;
    const bool mesh_same = (mesh == nullptr && old_mesh == nullptr) ||
                           (mesh != nullptr && old_mesh != nullptr && *mesh == *old_mesh);
    static const std::string kNoBytes;
    stage(Stage::shape, f.shape, kept(&Findings::shape),
          was != nullptr && was->shape == job.shape && mesh_same, failures, [&] {
              return shape::evaluate(job.shape, mesh != nullptr && mesh->bytes ? *mesh->bytes : kNoBytes,
                                     progress);
          });
    progress.check();
    const bool shape_same = old != nullptr && f.shape == old->shape;

    if (f.shape) {
        const bool same = shape_same && was->split == job.split &&
                          (job.split.drag_rule == DragRule::given || was->brief.grade == job.brief.grade) &&
                          (job.split.together == Together::alone || was->brief.pulls == job.brief.pulls);
        stage(Stage::split, f.split, kept(&Findings::split), same, failures,
              [&] { return split::evaluate(job.split, *f.shape, job.brief, shop, progress); });
    }
    const bool split_same = old != nullptr && f.split == old->split;
    progress.check();
    if (all(f.shape, f.split)) {
        const bool plug_same = split_same && brief_same && was->plug == job.plug &&
                               (!job.plug.in_envelope || cure_on_plug(*was, shop) == cure_on_plug(job, shop));
        stage(Stage::plug, f.plug, kept(&Findings::plug), plug_same, failures, [&] {
            return plug::evaluate(job.plug, job.shape, *f.shape, *f.split, job.brief, shop,
                                  cure_on_plug(job, shop), progress);
        });
        const double plate = flange_plate(job, shop);
        const bool same =
            split_same && brief_same && was->edge == job.edge && flange_plate(*was, shop) == plate;
        stage(Stage::edge, f.edge, kept(&Findings::edge), same, failures,
              [&] { return edge::evaluate(job.edge, *f.shape, *f.split, job.brief, plate, shop); });
    }
    const bool edge_same = old != nullptr && f.edge == old->edge;
    if (all(f.shape, f.split, f.edge)) {
        const bool doubled = std::any_of(job.shell.zones.begin(), job.shell.zones.end(),
                                         [](const shell::Zone& z) { return z.kind == ZoneKind::under_ribs; });
        const bool same = edge_same && brief_same && was->shell == job.shell &&
                          warmth(*was, shop) == warmth(job, shop) && (!doubled || was->back == job.back);
        stage(Stage::shell, f.shell, kept(&Findings::shell), same, failures, [&] {
            const double ribs = doubled && f.edge->tool ? back::rib_length(job.back, *f.edge->tool) : 0;
            return shell::evaluate(job.shell, *f.shape, *f.split, *f.edge, job.brief, ribs, warmth(job, shop),
                                   shop);
        });
        stage(Stage::release, f.release, kept(&Findings::release), edge_same && was->release == job.release,
              failures, [&] { return release::evaluate(job.release, *f.split, *f.edge, shop); });
    }
    const bool shell_same = old != nullptr && f.shell == old->shell;
    if (all(f.shape, f.edge, f.shell)) {
        stage(Stage::back, f.back, kept(&Findings::back), edge_same && shell_same && was->back == job.back,
              failures, [&] {
                  return back::evaluate(job.back, *f.split, *f.edge, *f.shell, job.shell, shop, progress);
              });
    }
    if (all(f.shape, f.split)) {
        stage(Stage::part, f.part, kept(&Findings::part), split_same && was->part == job.part, failures,
              [&] { return part::evaluate(job.part, *f.shape, *f.split, shop); });
    }
    // Growth needs the part's own expansion, so Heat comes after Part here though it stands before it on the
    // card.
    if (all(f.shape, f.plug, f.shell, f.part)) {
        const bool same = old != nullptr && brief_same && shape_same && f.plug == old->plug && shell_same &&
                          f.part == old->part && was->heat == job.heat && was->plug == job.plug &&
                          was->part.gel_temperature == job.part.gel_temperature;
        stage(Stage::heat, f.heat, kept(&Findings::heat), same, failures, [&] {
            return heat::evaluate(job.heat, job.brief, *f.shape, job.plug, *f.plug, *f.shell, job.part,
                                  *f.part, shop);
        });
    }
    progress.check();
    if (all(f.brief, f.split, f.plug, f.edge, f.shell, f.back, f.release, f.part)) {
        const bool same = old != nullptr && brief_same && f.plug == old->plug && edge_same && shell_same &&
                          f.back == old->back && f.release == old->release && f.part == old->part &&
                          was->run == job.run;
        stage(Stage::run, f.run, kept(&Findings::run), same, failures, [&] {
            return run::evaluate(
                job.run,
                {job.brief, *f.brief, job.split, *f.split, job.plug, *f.plug, job.edge, *f.edge, job.shell,
                 *f.shell, job.back, *f.back, *f.release, job.part, *f.part},
                shop);
        });
    }
    if (f.part) {
        stage(Stage::log, f.log, kept(&Findings::log),
              old != nullptr && f.part == old->part && was->log == job.log, failures,
              [&] { return log::evaluate(job.log, *f.part); });
    }
    gather(job, f, shop, std::move(failures));
    return f;
}

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
        case Stage::heat:
            return of(heat);
        case Stage::part:
            return of(part);
        case Stage::run:
            return of(run);
        case Stage::log:
            return of(log);
    }
    return none;
}

}  // namespace jig
