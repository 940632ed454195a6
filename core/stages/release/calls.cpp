#include "core/stages/release/findings.hpp"

namespace jig::release {

Calls calls(const Choices& c, const Findings& f, const brief::Choices& brief, const shape::Findings& shape,
            const shell::Choices& shell) {
    Calls out;
    const auto add = [&](Severity s, const char* key, std::string headline, std::string why,
                         std::optional<Fix> fix = {}) {
        out.push_back({Stage::release, s, key, std::move(headline), std::move(why), std::move(fix)});
    };
    const double hot = brief.top_temperature;
    const Fix semi{"Change to semi-permanent", patch_of("release", "system", "semi-permanent")};
    if (hot > f.system.top_temperature) {
        add(Severity::stop, "too_hot",
            f.system.name + " gives way at " + quantity(Kind::temperature, f.system.top_temperature) +
                "; the tool sees " + quantity(Kind::temperature, hot),
            "Wax and film melt into the surface before the part has cured.",
            f.system.kind == ReleaseKind::semi_permanent ? std::optional<Fix>{} : semi);
    } else if (hot > f.system.top_temperature - 10) {
        add(Severity::caution, "warm",
            "Only " + quantity(Kind::warming, f.system.top_temperature - hot) +
                " between the tool's heat and the limit of " + f.system.name,
            "Thermocouples and ovens are off by as much.",
            f.system.kind == ReleaseKind::semi_permanent ? std::optional<Fix>{} : semi);
    }
    if (f.system.kind == ReleaseKind::semi_permanent && c.wax_before) {
        add(Severity::stop, "wax_under", "Wax under " + f.system.name,
            "It does not bond to a waxed face and comes off with the first part: strip, wash and abrade "
            "first.",
            Fix{"The wax has been stripped", patch_of("release", "wax_before", false)});
    }
    if (f.system.flat_only && shape.measures.size.z() > 0.02 * shape.measures.size.maxCoeff()) {
        add(Severity::caution, "film_curved",
            "Release film on a shape " + quantity(Kind::length, shape.measures.size.z()) + " deep",
            "Film lies on flat or single-curved faces; on this one it folds, and the folds print.", semi);
    }
    if (!c.mask_land) {
        add(Severity::stop, "land", "Release runs over the tape land",
            "The bag's tape does not stick to release: mask the land until bagging.",
            Fix{"Mask the tape land", patch_of("release", "mask_land", true)});
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
