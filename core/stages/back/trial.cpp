#include "core/stages/back/trial.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cmath>

#include "core/stages/back/bench.hpp"

namespace jig::back {

using shell_fe::Loads;
using shell_fe::System;

double edge_for(const ToolInputs& in, std::size_t triangles) {
    double area = 0;
    for (std::size_t f = 0; f < in.face.rimmed.mesh.triangles.size(); ++f)
        area += in.face.rimmed.mesh.area_vector2(f).norm() / 2;
    const double even = std::sqrt(area / (0.433 * static_cast<double>(triangles)));
    return in.back.has_grid() ? std::min(even, 0.5 * in.back.pitch) : even;
}

Trial try_out(const ToolInputs& in, const EvenFace& face, const brief::Choices& brief, const Trial* coarse,
              Progress& progress) {
    const auto start = std::chrono::steady_clock::now();
    progress.report(0.05, "meshing the tool");
    const Bench bench(in, face, progress);
    const auto& c = in.back;
    Trial out;
    out.fine = coarse != nullptr;
    out.edge = face.edge;
    out.mesh = bench.tool().model.mesh;
    out.parts = bench.tool().parts;
    for (const auto& bar : bench.tool().model.bars) out.bars.emplace_back(bar.a, bar.b);
    out.feet = bench.tool().feet;
    out.notes = bench.tool().notes;
    std::sort(out.notes.begin(), out.notes.end());
    out.notes.erase(std::unique(out.notes.begin(), out.notes.end()), out.notes.end());

    progress.report(0.15, "setting the tool on its feet");
    const System on_feet(bench.tool().model, bench.feet(), progress);
    out.mass = on_feet.mass();
    out.tips = bench.tips();
    out.tips_wider = bench.tips_at_its_ends().force;
    out.tips_at = bench.points()[bench.tool().rim[out.tips.where]];
    out.tips_where = bench.said_where(out.tips_at, true);
    out.freedoms = on_feet.freedoms();
    std::vector<Loads> loads;
    std::vector<LoadCase> kinds;
    std::vector<std::optional<std::uint32_t>> pushed;
    const auto add = [&](LoadCase kind, Loads l, std::optional<std::uint32_t> at = {}) {
        kinds.push_back(kind);
        loads.push_back(std::move(l));
        pushed.push_back(at);
    };
    add(LoadCase::standing, Bench::weight(1));
    for (const auto i : bench.leant()) add(LoadCase::leaning, bench.leaning(i), i);
    for (const auto i : bench.slots()) add(LoadCase::levering, bench.levering(i), i);
    if (brief.process == Process::squeeze) add(LoadCase::squeeze, bench.squeeze(bench.bolts()));
    const double warming = brief.top_temperature - kelvin(20);
    if (c.bag == BagKind::envelope) add(LoadCase::envelope_bag, bench.envelope());
    if (warming > 1) add(LoadCase::heat, bench.heat(warming));
    progress.report(0.45, "solving the load cases");
    const auto solutions = on_feet.solve(loads);
    const auto how = [&](LoadCase kind) -> std::string {
        switch (kind) {
            case LoadCase::standing:
                return quantity(Kind::mass, out.mass) + fmt::format(" on {} feet", out.feet.size());
            case LoadCase::turned:
                return quantity(Kind::mass, out.mass) + " on the rim's corners";
            case LoadCase::leaning:
                return quantity(Kind::force, c.lean) +
                       fmt::format(" at the worst of {} places", bench.leant().size());
            case LoadCase::squeeze:
                return quantity(Kind::pressure, in.edge.squeeze) + " on the face, held by the bolts";
            case LoadCase::levering:
                return quantity(Kind::force, c.lever) +
                       " at the worst wedge slot, the face still sticking evenly";
            case LoadCase::surface_bag:
            case LoadCase::envelope_bag:
                return quantity(Kind::pressure, c.vacuum) + " below the room";
            case LoadCase::heat:
                return fmt::format("{:.0f} K above the room, even growth taken off", warming);
        }
        return {};
    };
    // Of several places for one load, the one that gives way most.
    for (std::size_t i = 0; i < kinds.size();) {
        std::size_t worst = i, k = i;
        const auto gives = [&](std::size_t n) {
            return pushed[n] ? std::abs(solutions[n].displacement(*pushed[n]).z()) : solutions[n].largest;
        };
        for (; k < kinds.size() && kinds[k] == kinds[i]; ++k) {
            if (gives(k) > gives(worst)) worst = k;
        }
        auto r = bench.result(kinds[i], on_feet, solutions[worst], kinds[i] == LoadCase::heat ? warming : 0,
                              pushed[worst]);
        r.how = how(r.kind);
        if (r.kind == LoadCase::envelope_bag) {
            progress.report(0.7, "looking for buckling");
            r.buckles = on_feet.buckling(solutions[worst], 0, progress).factor;
        }
        out.cases.push_back(std::move(r));
        i = k;
    }
    progress.report(0.85, "turning the tool over");
    {
        const System on_rim(bench.tool().model, bench.rim_corners(), progress);
        const auto u = on_rim.solve(Bench::weight(-1));
        auto r = bench.result(LoadCase::turned, on_rim, u, 0);
        r.how = how(r.kind);
        out.cases.insert(out.cases.begin() + 1, std::move(r));
    }
    if (c.bag == BagKind::surface) {
        // It presses on the face as hard as the air on the back: nothing bends.
        CaseResult r;
        r.kind = LoadCase::surface_bag;
        r.how = how(r.kind) + ": pressed through the thickness, air pushes as hard on the back";
        r.where = "nowhere";
        for (const auto& layer : in.shell.layers) {
            const auto* core = layer.kind == LayerKind::core ? find(in.shop.cores, layer.material) : nullptr;
            if (core != nullptr) r.skin = std::max(r.skin, c.vacuum / core->crush);
        }
        out.cases.push_back(std::move(r));
    }
    std::stable_sort(out.cases.begin(), out.cases.end(),
                     [](const CaseResult& a, const CaseResult& b) { return a.kind < b.kind; });
    for (auto& r : out.cases) {
        const auto* before = coarse != nullptr ? coarse->find(r.kind) : nullptr;
        if (before != nullptr) r.differs = std::abs(r.moves - before->moves);
    }
    out.seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
    progress.report(1, "tried");
    return out;
}

QuickSag quick_sag(const ToolInputs& in, const EvenFace& face, Progress& progress) {
    const Bench bench(in, face, progress);
    const System system(bench.tool().model, bench.feet(), progress);
    std::vector<Loads> loads{Bench::weight(1)};
    for (const auto i : bench.leant()) loads.push_back(bench.leaning(i));
    const auto solutions = system.solve(loads);
    QuickSag out;
    out.standing = solutions.front().largest;
    for (std::size_t i = 1; i < solutions.size(); ++i)
        out.leaning = std::max(out.leaning, std::abs(solutions[i].displacement(bench.leant()[i - 1]).z()));
    return out;
}

}  // namespace jig::back
