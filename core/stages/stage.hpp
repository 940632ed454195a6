// What all stages share: their order, figures with reasons, and calls with fixes.
#pragma once

#include <algorithm>
#include <array>
#include <optional>
#include <string>
#include <vector>

#include "core/base/json.hpp"
#include "core/base/units.hpp"
#include "core/science/mesh/triangle_mesh.hpp"

namespace jig {

enum class Stage { brief, shape, split, plug, edge, shell, back, release, part, bag, heat, run, log };
struct StageName {
    const char* key;   ///< in files, on the command line and in the handbook
    const char* said;  ///< on screen
};
inline constexpr std::array<StageName, 13> kStages{{{"brief", "Brief"},
                                                    {"shape", "Shape"},
                                                    {"split", "Split"},
                                                    {"plug", "Plug"},
                                                    {"edge", "Edge"},
                                                    {"shell", "Shell"},
                                                    {"back", "Back"},
                                                    {"release", "Release"},
                                                    {"part", "Part"},
                                                    {"bag", "Bag"},
                                                    {"heat", "Heat"},
                                                    {"run", "Run"},
                                                    {"log", "Log"}}};
inline const StageName& name_of(Stage stage) {
    return kStages[static_cast<std::size_t>(stage)];
}
/// Those that are about the tool itself: of a mould in pieces, about one of them.
inline bool stage_of_tool(Stage stage) {
    return stage == Stage::edge || stage == Stage::shell || stage == Stage::back || stage == Stage::release ||
           stage == Stage::bag || stage == Stage::heat;
}

/// One result with its reason: the formula with the numbers in it, worded by `worded()` when shown.
struct Figure {
    std::string key;
    std::string name;
    Kind kind = Kind::factor;
    double value = 0;  ///< SI
    std::string reason;
    bool operator==(const Figure&) const = default;
};

/// A change of the job that a call offers: a merge patch (RFC 7396) of the job as JSON.
struct Fix {
    std::string label;
    Json patch;
    bool operator==(const Fix&) const = default;
};

/// The patch that sets one choice of one stage.
inline Json patch_of(const char* stage, const char* field, Json value) {
    Json out = Json::object();
    out[stage][field] = std::move(value);
    return out;
}

enum class Severity { note, caution, stop };

/// A verdict. The headline carries the figure; the reason is one sentence.
struct Call {
    Stage stage = Stage::brief;
    Severity severity = Severity::note;
    std::string key;
    std::string headline;
    std::string why;
    std::optional<Fix> fix;
    std::optional<Point> at = {};  ///< where, m in the part's own axes; none for what is all over or nowhere
    bool operator==(const Call&) const = default;
};
using Calls = std::vector<Call>;

/// A stage's calls as they are listed: worst first.
inline std::vector<const Call*> worst_first(const Calls& calls, Stage stage) {
    std::vector<const Call*> out;
    for (const auto& call : calls) {
        if (call.stage == stage) out.push_back(&call);
    }
    std::stable_sort(out.begin(), out.end(),
                     [](const Call* a, const Call* b) { return a->severity > b->severity; });
    return out;
}

/// The value of a figure by key; 0 where there is none.
inline double value_of(const std::vector<Figure>& figures, const std::string& key) {
    for (const auto& f : figures) {
        if (f.key == key) return f.value;
    }
    return 0;
}

}  // namespace jig
