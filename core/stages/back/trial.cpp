#include "core/stages/back/trial.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/stages/back/stance.hpp"

namespace jig::back {

using shell_fe::Loads;
using shell_fe::Solution;

/// Nobody asks what happens at more than so many times the air's own pressure.
constexpr double kBuckleSearch = 100;
/// Least shares by which a fine answer may be out: under a push at one place, and under what acts all over.
constexpr double kPushedOut = 0.15, kEvenlyOut = 0.05;

double edge_for(const edge::ToolFace& face, const Choices& back, std::size_t triangles) {
    double area = 0;
    for (std::size_t f = 0; f < face.rimmed.mesh.triangles.size(); ++f)
        area += face.rimmed.mesh.area_vector2(f).norm() / 2;
    const double even = std::sqrt(area / (0.433 * static_cast<double>(triangles)));
    return back.has_grid() ? std::min(even, 0.5 * back.pitch) : even;
}

Trial try_out(const ToolInputs& in, const EvenFace& face, const Served& brief, const Trial* coarse,
              Progress& progress) {
    progress.report(0.05, "meshing the tool");
    const Bench bench(in, face, progress);
    const auto& c = in.back;
    Trial out;
    out.fine = coarse != nullptr;
    out.edge = face.edge;
    out.least_side = (in.face.high - in.face.low).head<2>().minCoeff();
    out.mesh = bench.tool().model.mesh;
    out.parts = bench.tool().parts;
    for (const auto& bar : bench.tool().model.bars) out.bars.emplace_back(bar.a, bar.b);
    out.feet = bench.tool().feet;
    out.notes = bench.tool().notes;
    std::sort(out.notes.begin(), out.notes.end());
    out.notes.erase(std::unique(out.notes.begin(), out.notes.end()), out.notes.end());

    progress.report(0.15, "setting the tool on its feet");
    const OnFeet stance(bench, bench.tool().feet, progress);
    out.mass = stance.system().mass();
    out.tips = bench.tips();
    out.tips_wider = bench.tips_at_its_ends().force;
    out.tips_at = bench.points()[bench.tool().rim[out.tips.where]];
    out.tips_where = bench.said_where(out.tips_at, true);
    out.freedoms = stance.system().freedoms();
    const double warming = brief.top_temperature - in.room;
    struct Loaded {
        LoadCase kind;
        Solution solution;
        std::optional<std::uint32_t> pushed;
        int lifted = 0;
        bool tips = false;
    };
    std::vector<Loaded> tried;
    const auto take = [&](LoadCase kind, Stance s, std::optional<std::uint32_t> at = {}) {
        tried.push_back({kind, std::move(s.solution), at, s.lifted, s.tips});
    };
    progress.report(0.45, "solving the load cases");
    take(LoadCase::standing, stance.standing(1));
    std::size_t places = 0;
    const auto lean_on = [&](const std::vector<std::uint32_t>& at) {
        std::vector<Loads> loads;
        for (const auto i : at) loads.push_back(bench.leaning(i));
        auto found = stance.pushed(loads);
        for (std::size_t k = 0; k < at.size(); ++k) take(LoadCase::leaning, std::move(found[k]), at[k]);
        places += at.size();
    };
    // Evenly round the rim, then every place about the worst of those.
    lean_on(bench.leant());
    const auto gives = [](const Loaded& t) {
        return t.pushed ? std::abs(t.solution.displacement(*t.pushed).z()) : t.solution.largest;
    };
    const auto worst_leant =
        std::max_element(tried.begin() + 1, tried.end(),
                         [&](const Loaded& a, const Loaded& b) { return gives(a) < gives(b); });
    if (worst_leant != tried.end()) lean_on(bench.beside(*worst_leant->pushed));
    std::vector<Loads> bound;
    for (const auto i : bench.slots()) bound.push_back(bench.levering(i));
    const bool squeezed = brief.process == Process::squeeze;
    if (squeezed) bound.push_back(bench.squeeze(bench.bolts()));
    auto held = stance.held(bound);
    for (std::size_t k = 0; k < bench.slots().size(); ++k)
        take(LoadCase::levering, {std::move(held[k])}, bench.slots()[k]);
    if (squeezed) take(LoadCase::squeeze, {std::move(held.back())});
    // A bag balances itself, and what warms is free to grow on its feet.
    if (c.bag == BagKind::envelope) take(LoadCase::envelope_bag, {stance.free(bench.envelope())});
    if (warming > 1) take(LoadCase::heat, {stance.free(Bench::heat(warming))});
    std::stable_sort(tried.begin(), tried.end(),
                     [](const Loaded& a, const Loaded& b) { return a.kind < b.kind; });
    const auto how = [&](LoadCase kind) -> std::string {
        switch (kind) {
            case LoadCase::standing:
                return quantity(Kind::mass, out.mass) + fmt::format(" on {} feet", out.feet.size());
            case LoadCase::turned:
                return quantity(Kind::mass, out.mass) + " on the rim's corners";
            case LoadCase::leaning:
                return quantity(Kind::force, c.lean) + fmt::format(" at the worst of {} places", places);
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
    for (std::size_t i = 0; i < tried.size();) {
        std::size_t worst = i, k = i;
        for (; k < tried.size() && tried[k].kind == tried[i].kind; ++k) {
            if (gives(tried[k]) > gives(tried[worst])) worst = k;
        }
        const auto& t = tried[worst];
        auto r = bench.result(t.kind, stance.system(), t.solution, t.kind == LoadCase::heat ? warming : 0,
                              t.pushed);
        r.how = how(r.kind);
        r.lifted = t.lifted;
        if (t.tips)
            r.how += "; it tips before, so the feet are taken as held down";
        else if (t.lifted > 0)
            r.how += t.lifted == 1 ? "; 1 foot lifts" : fmt::format("; {} feet lift", t.lifted);
        if (r.kind == LoadCase::envelope_bag) {
            progress.report(0.7, "looking for buckling");
            const auto found = stance.system().buckling(t.solution, 0, progress, kBuckleSearch);
            r.buckles = found.factor;
            r.none_below = found.none_below;
        }
        out.cases.push_back(std::move(r));
        i = k;
    }
    progress.report(0.85, "turning the tool over");
    {
        const OnFeet on_rim(stance, bench.rim_corners(), progress);
        auto r = bench.result(LoadCase::turned, on_rim.system(), on_rim.standing(-1).solution, 0);
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
        if (before == nullptr) continue;
        // Feet and ribs shift a little with the mesh, so two meshes may agree by luck: what a third one
        // showed is the least that is owned up to.
        const bool pushed = r.kind == LoadCase::leaning || r.kind == LoadCase::levering;
        r.differs = std::max(std::abs(r.moves - before->moves), (pushed ? kPushedOut : kEvenlyOut) * r.moves);
    }
    progress.report(1, "tried");
    return out;
}

QuickSag quick_sag(const ToolInputs& in, const EvenFace& face, Progress& progress) {
    const Bench bench(in, face, progress);
    const OnFeet stance(bench, bench.tool().feet, progress);
    std::vector<Loads> loads;
    for (const auto i : bench.leant()) loads.push_back(bench.leaning(i));
    const auto leant = stance.pushed(loads);
    QuickSag out;
    out.standing = stance.standing(1).solution.largest;
    for (std::size_t i = 0; i < leant.size(); ++i)
        out.leaning = std::max(out.leaning, std::abs(leant[i].solution.displacement(bench.leant()[i]).z()));
    return out;
}

}  // namespace jig::back
