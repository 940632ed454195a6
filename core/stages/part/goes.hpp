// What of a part is laid and hardens together, before more is laid on it.
#pragma once

#include <algorithm>

#include "core/stages/part/findings.hpp"

namespace jig::part {

/// How many goes it is laid in, at least one. An infusion fills all of it at once, whatever is marked.
std::size_t goes_of(const Choices& choices);

/// Which of those a layer belongs to. A zone's layers go with what they lie on or in the place of: on top of
/// the stack they are the last go's, in the core's place the core's; what lies instead of the stack has goes
/// of its own, from the first on.
std::size_t go_of(const Choices& choices, const Source& layer);

/// What each go lays, in a maker's words: "outer skin", "core and inner skin".
std::vector<std::string> said_goes(const Choices& choices);

/// ", go 1 of 2: outer skin", to stand behind what is done in it; nothing where there is but one.
std::string which_go(const std::vector<Go>& goes, std::size_t number);

/// Of layers by their goes, which never fall, the first of that go; past the last where it lays none there
/// and none after it does.
inline std::size_t first_of_go(const std::vector<std::size_t>& goes, std::size_t go) {
    return static_cast<std::size_t>(std::lower_bound(goes.begin(), goes.end(), go) - goes.begin());
}

/// What each go asks of hands and resin: `laid` are all layers with what they cover, `over` times the
/// laminate's resin is mixed, for `parts` parts at once.
std::vector<Go> goes(const Choices& choices, const std::vector<Laying>& laid,
                     const std::vector<RegionSum>& regions, int parts, double over, double life,
                     const brief::Crew& brief, const Library& shop);

/// The common layers parted into as few goes as keep each under `wet` m of wet plies and `laying` s of
/// laying, zones and all; none where they cannot be.
std::optional<std::vector<Layer>> parted(const Choices& choices, const Findings& findings, double wet,
                                         double laying, int parts, const brief::Crew& brief,
                                         const Library& shop);

/// `bagging` and `go` as `calls` has them.
Calls go_calls(const Choices& choices, const Findings& findings, const brief::Choices& brief, int parts,
               double bagging, const GoLimit& go, const Library& shop);

/// Layers whose outer skin hardens before the core comes, which is then bedded in a coat of the resin.
std::vector<Layer> skin_first(std::vector<Layer> layers);
/// The same, and the core under a bag of its own too.
std::vector<Layer> one_by_one(std::vector<Layer> layers);
/// All of it laid at once; what beds a core stays.
std::vector<Layer> at_once(std::vector<Layer> layers);

}  // namespace jig::part
