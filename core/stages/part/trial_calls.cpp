// What a trial of the part says in figures and calls.
#include <fmt/format.h>

#include <algorithm>

#include "core/stages/part/trial.hpp"

namespace jig::part {
namespace {

/// Buckling has been looked for up to so many times the load and not been found.
std::string up_to(const LoadResult& r) {
    if (r.buckles > 0) return fmt::format("buckles at {:.2g} times it", r.buckles);
    if (r.none_below > 0) return fmt::format("no buckling up to {:.3g} times it", r.none_below);
    return {};
}

std::string shares(const LoadResult& r) {
    std::string out;
    const auto add = [&](const char* name, double share) {
        if (share > 0.005) out += fmt::format("{}{} {:.0f} %", out.empty() ? "" : ", ", name, 100 * share);
    };
    add("resin to its first cracks", r.cracks);
    add("fibres to their break", r.fibres);
    add("core in shear", r.core_shear);
    add("skins to wrinkling", r.wrinkles);
    add("core crushed under a push", r.crushes);
    out = out.empty() ? "of its strength next to nothing" : "of its strength: " + out;
    if (r.lifts > 0) out += "; its rim is held down with " + quantity(Kind::force, r.lifts) + " in all";
    if (r.lifted >= 0.005)
        out += fmt::format("; {:.0f} % of its rim comes off what it rests on", 100 * r.lifted);
    return out;
}

}  // namespace

std::vector<Figure> trial_figures(const Trial& trial, const Duty& duty) {
    std::vector<Figure> out;
    const LoadResult *softest = nullptr, *weakest = nullptr;
    for (const auto& r : trial.loads) {
        if (softest == nullptr || r.moves > softest->moves) softest = &r;
        if (weakest == nullptr || r.most().first > weakest->most().first) weakest = &r;
    }
    if (softest == nullptr) return out;
    const std::string mesh = fmt::format("; shell elements of {}, {} freedoms",
                                         quantity(Kind::length, trial.edge), trial.freedoms) +
                             (trial.fine ? ", out by at most " + quantity(Kind::thickness, softest->differs)
                                         : std::string(", the coarse mesh alone"));
    out.push_back({"part_gives", "gives under its loads by", Kind::thickness, softest->moves,
                   softest->name + ": " + softest->how + "; most at " + softest->where + mesh});
    const auto [share, way] = weakest->most();
    if (share > 0)
        out.push_back({"part_holds", "holds, times its loads", Kind::factor, 1 / share,
                       weakest->name + ": then " + said(way) + "; " + shares(*weakest) +
                           fmt::format("; {:g} times is asked for", duty.factor)});
    for (std::size_t i = 0; i < trial.loads.size(); ++i) {
        const auto& r = trial.loads[i];
        const auto buckling = up_to(r);
        out.push_back(
            {fmt::format("part_load_{}", i + 1), "under " + r.name, Kind::thickness, r.moves,
             r.how + "; most at " + r.where + "; " + shares(r) + (buckling.empty() ? "" : "; " + buckling)});
    }
    return out;
}

Calls trial_calls(const Trial& trial, const Duty& duty) {
    Calls out;
    const auto call = [&](Severity severity, std::string key, std::string headline, std::string why,
                          std::optional<Fix> fix = {}) {
        out.push_back(
            {Stage::part, severity, std::move(key), std::move(headline), std::move(why), std::move(fix)});
    };
    for (std::size_t i = 0; i < trial.loads.size(); ++i) {
        const auto& r = trial.loads[i];
        const auto key = [&](const char* word) { return fmt::format("{}_{}", word, i + 1); };
        if (duty.gives > 0 && r.moves > duty.gives)
            call(
                Severity::caution, key("part_soft"),
                fmt::format("Under {} it gives {}, more than {}", r.name, quantity(Kind::thickness, r.moves),
                            quantity(Kind::thickness, duty.gives)),
                "Most at " + r.where +
                    ". A thicker core stiffens with its square; more plies, a zone where it gives, or closer "
                    "supports do too.");
        // What breaks, shears or buckles under the load itself is told before cracks that come sooner.
        const bool gone = r.lets_go().first > 1;
        const auto [share, way] = gone ? r.lets_go() : r.most();
        if (share * duty.factor > 1) {
            call(gone ? Severity::stop : Severity::caution, key("part_weak"),
                 fmt::format("Under {} {} at {:.2g} times the load", r.name, said(way), 1 / share),
                 fmt::format("It is to hold {:g} times. {}.", duty.factor,
                             way == GivesWay::core_shears || way == GivesWay::crushes
                                 ? "A denser or thicker core, or solid laminate where it bears, mends that"
                             : way == GivesWay::wrinkles
                                 ? "A stiffer core holds its skins; so do thicker skins"
                             : way == GivesWay::buckles
                                 ? "It wants bending stiffness: core, ribs or closer supports"
                                 : "It wants more plies where it is strained, or supports closer together"));
        }
        if (duty.hold == PartHold::rests && r.lifts > 0)
            call(Severity::caution, key("part_lifts"),
                 r.reactions < 0 ? fmt::format("Under {} it lifts off its rim with {}", r.name,
                                               quantity(Kind::force, -r.reactions))
                                 : fmt::format("Under {} it tips over its rim", r.name),
                 "It is taken as held down there: fasten it, or say that it is held.",
                 Fix{"Hold it all round", Json{{"part", {{"duty", {{"hold", "pinned"}}}}}}});
    }
    for (std::size_t i = 0; i < trial.unjudged.size(); ++i)
        call(Severity::caution, fmt::format("part_core_{}", i + 1),
             "The shear of " + trial.unjudged[i] + " is not judged",
             "The library has no shear strength for it: give it from its data sheet among the shop's cores.");
    for (std::size_t i = 0; i < trial.notes.size(); ++i) {
        auto headline = trial.notes[i];
        if (!headline.empty()) headline.front() = static_cast<char>(std::toupper(headline.front()));
        call(Severity::note, fmt::format("part_trial_{}", i + 1), std::move(headline),
             "Check its place, seen along the pull from the middle of the face.");
    }
    return out;
}

}  // namespace jig::part
