#include <fmt/format.h>

#include <map>

#include "core/stages/release/findings.hpp"

namespace jig::release {
namespace {

const char* path_of(FaceOf of) {
    return of == FaceOf::plug ? "plug" : of == FaceOf::boards ? "boards" : "mould";
}

/// The system that suits a face best: good on all counts before one with care, hot enough for the tool.
const ReleaseSystem* better_for(const Face& face, double hot, bool flat, const Library& shop) {
    const ReleaseSystem* best = nullptr;
    auto best_verdict = face.verdict();
    for (const auto& system : shop.releases) {
        if ((face.of == FaceOf::mould && system.top_temperature < hot + 10) || (system.flat_only && !flat))
            continue;
        auto worst = Verdict::good;
        for (const auto& j : judged(face.surface, face.history, face.resin, system.kind, shop))
            worst = std::max(worst, j.verdict);
        if (worst < best_verdict) {
            best = &system;
            best_verdict = worst;
        }
    }
    return best;
}

}  // namespace

Calls calls(const Choices& c, const Findings& f, const brief::Choices& brief, const shape::Findings& shape,
            const shell::Choices& shell, const Library& shop) {
    Calls out;
    const auto add = [&](Severity s, std::string key, std::string headline, std::string why,
                         std::optional<Fix> fix = {}) {
        out.push_back(
            {Stage::release, s, std::move(key), std::move(headline), std::move(why), std::move(fix)});
    };
    const double hot = brief.top_temperature;
    const bool flat = shape.measures.size.z() <= 0.02 * shape.measures.size.maxCoeff();
    // The mould may have a system of its own.
    std::optional<Fix> semi;
    if (f.system.kind != ReleaseKind::semi_permanent && find(shop.releases, "semi-permanent") != nullptr)
        semi = c.mould.system.empty()
                   ? Fix{"Change to semi-permanent", patch_of("release", "system", "semi-permanent")}
                   : Fix{"Change the mould's to semi-permanent",
                         patch_of("release", "mould", Json{{"system", "semi-permanent"}})};
    if (hot > f.system.top_temperature) {
        add(Severity::stop, "too_hot",
            f.system.name + " gives way at " + quantity(Kind::temperature, f.system.top_temperature) +
                "; the tool sees " + quantity(Kind::temperature, hot),
            "Wax and film melt into the surface before the part has cured.", semi);
    } else if (hot > f.system.top_temperature - 10) {
        add(Severity::caution, "warm",
            "Only " + quantity(Kind::warming, f.system.top_temperature - hot) +
                " between the tool's heat and the limit of " + f.system.name,
            "Thermocouples and ovens are off by as much.", semi);
    }
    // Faces of one kind share their call: it is one thing to put right.
    std::map<std::pair<FaceOf, std::string>, std::vector<const Face*>> alike;
    for (const auto& face : f.faces) {
        for (const auto& j : face.judgements) {
            if (j.verdict != Verdict::good) alike[{face.of, j.pair}].push_back(&face);
        }
    }
    for (const auto& [what, faces] : alike) {
        const auto& face = *faces.front();
        const auto judgement = std::find_if(face.judgements.begin(), face.judgements.end(),
                                            [&](const Judgement& j) { return j.pair == what.second; });
        const bool history = judgement->of == PairOf::history;
        std::optional<Fix> fix;
        if (face.of != FaceOf::loose) {
            const auto path = path_of(face.of);
            if (history && face.history != FaceHistory::fresh && judgement->verdict == Verdict::stop)
                fix = Fix{"It has been stripped and sanded back",
                          patch_of("release", path, Json{{"history", "sanded"}})};
            else if (const auto* better = better_for(face, hot, flat, shop))
                fix = Fix{fmt::format("Use {} on the {}", better->name, path),
                          patch_of("release", path, Json{{"system", better->name}})};
        }
        const auto where =
            faces.size() == 1 ? face.name : fmt::format("{} and {} more", face.name, faces.size() - 1);
        add(judgement->verdict == Verdict::stop ? Severity::stop : Severity::caution,
            fmt::format("{}_{}",
                        history                          ? "history"
                        : judgement->of == PairOf::resin ? "resin"
                                                         : "surface",
                        face.of == FaceOf::loose ? "loose" : path_of(face.of)),
            fmt::format("{}: {}", where, judgement->pair), judgement->why + " " + judgement->mend, fix);
    }
    // Hollows of the shape are the plug's own inside corners; the mould's are the shape's outer edges.
    const auto& radius = shape.measures.smallest_inside_radius;
    const bool filmed = std::any_of(f.faces.begin(), f.faces.end(), [](const Face& face) {
        return face.of == FaceOf::plug && face.system.kind == ReleaseKind::wax_film;
    });
    if (filmed && radius && *radius < 0.008) {
        add(Severity::caution, "film_pools",
            "PVA film in inside corners of " + quantity(Kind::thickness, *radius) + " on the plug",
            "It runs together there, dries last and prints a bead: mist it on thin, and wipe the corners out "
            "with a "
            "dry sponge before it sets.",
            find(shop.releases, "paste wax") == nullptr
                ? std::optional<Fix>{}
                : Fix{"Use paste wax on the plug",
                      patch_of("release", "plug", Json{{"system", "paste wax"}})});
    }
    if (f.system.flat_only && !flat) {
        add(Severity::caution, "film_curved",
            "Release film on a shape " + quantity(Kind::length, shape.measures.size.z()) + " deep",
            "Film lies on flat or single-curved faces; on this one it folds, and the folds print.", semi);
    }
    if (f.taped && !c.mask_land) {
        add(Severity::stop, "land", "Release runs over the tape land",
            "The bag's tape does not stick to release: mask the land until bagging.",
            Fix{"Mask the tape land", patch_of("release", "mask_land", true)});
    }
    if (f.seam > 0 && c.seam == SeamFill::none) {
        add(Severity::caution, "seam_open",
            quantity(Kind::length, f.seam) + " of line between pieces is left open",
            "Resin runs into it, locks the pieces and keeps them apart at the next closing: fill it and wipe "
            "it flush.",
            Fix{"Fill the lines with wax", patch_of("release", "seam", "wax")});
    }
    if (f.seam > 0 && !c.rims_released) {
        add(Severity::note, "rims_clear", "The rims that close on each other are kept clear",
            "Nothing keeps resin that is squeezed out from gluing them: this is meant where they are to be "
            "glued.");
    }
    if (f.system.kind == ReleaseKind::wax && (brief.grade == Grade::paintable)) {
        add(Severity::note, "paint", "Wax stays on parts that are to be painted",
            "Wash and abrade each part before primer.");
    }
    if (shell.how == LayUp::prepreg && f.system.kind == ReleaseKind::wax_film) {
        add(Severity::caution, "pva_prepreg", "PVA film under prepreg",
            "Film prints its texture and tears at prepreg temperatures.", semi);
    }
    return out;
}

}  // namespace jig::release
