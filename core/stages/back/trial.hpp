// What happens to the tool when it stands, is turned over, leant on, bolted, levered, bagged and heated.
#pragma once

#include <memory>
#include <optional>

#include "core/stages/back/tipping.hpp"
#include "core/stages/back/tool.hpp"
#include "core/stages/brief/choices.hpp"

namespace jig {

enum class LoadCase { standing, turned, leaning, squeeze, levering, surface_bag, envelope_bag, heat };
template <>
struct Words<LoadCase> {
    static constexpr std::array all{Word{"standing", "own weight, on its feet"},
                                    Word{"turned", "own weight, turned over on its rim"},
                                    Word{"leaning", "a person leaning on the rim"},
                                    Word{"squeeze", "squeezed and bolted"},
                                    Word{"levering", "levered at a wedge slot"},
                                    Word{"surface_bag", "vacuum under a surface bag"},
                                    Word{"envelope_bag", "vacuum in an envelope bag"},
                                    Word{"heat", "warmed right through"}};
};

namespace back {

struct CaseResult {
    LoadCase kind = LoadCase::standing;
    std::string how;              ///< the load in figures
    double moves = 0;             ///< m, the largest displacement anywhere
    double error = 0;             ///< m that the moulded face is out of shape, its own movement taken off
    Point worst = Point::Zero();  ///< where the face, or what is pushed, moves most; upright
    std::string where;            ///< the same in words
    double skin = 0;              ///< largest strain of a skin ÷ what the shell's resin bears
    double foam = 0;              ///< largest stress of a foam back ÷ its strength; 0 without
    double buckles = 0;     ///< times the load at which it buckles; 0 where none was found or it is not asked
    double none_below = 0;  ///< times the load up to which no buckling was found, by Sturm's count
    int lifted = 0;         ///< feet that come off the ground under it
    double reactions = 0;   ///< N on the supports along the pull
    double differs = 0;     ///< m that `moves` may be out by; 0 on the coarse mesh, which stands alone
    bool relative = false;  ///< whether `field` leaves out what the face does as a whole
    std::vector<Eigen::Vector3f> field;  ///< displacement by point of the model, m; empty where nothing moves
    bool operator==(const CaseResult&) const = default;
};

struct Trial {
    std::vector<CaseResult> cases;
    TriangleMesh mesh;  ///< of the model, upright
    std::vector<ToolPart> parts;
    std::vector<std::pair<std::uint32_t, std::uint32_t>> bars;
    std::vector<std::uint32_t> feet;
    std::vector<std::string> notes;
    double edge = 0;                ///< m of its mesh
    double least_side = 0;          ///< m, of the tool across the pull
    double mass = 0;                ///< kg
    Tips tips;                      ///< under a push on the rim; a foot that lifts is found by the load cases
    double tips_wider = 0;          ///< N that would tip it on feet as far out as it has places for
    Point tips_at = Point::Zero();  ///< upright
    std::string tips_where;         ///< the same in words
    std::size_t freedoms = 0;
    bool fine = false;
    [[nodiscard]] const CaseResult* find(LoadCase kind) const {
        for (const auto& c : cases) {
            if (c.kind == kind) return &c;
        }
        return nullptr;
    }
    bool operator==(const Trial&) const = default;
};

/// What of the brief a trial reads.
using Served = brief::Of<brief::Making, brief::Limits>;

/// Edge of a mesh of about `triangles` over the tool's face that still resolves the ribs, m.
double edge_for(const edge::ToolFace& face, const Choices& back, std::size_t triangles);

/// All load cases that the job asks for on one mesh. `coarse` gives the error estimate. Throws InputError
/// where the tool cannot be meshed or stands on nothing; Cancelled.
Trial try_out(const ToolInputs& in, const EvenFace& face, const Served& brief, const Trial* coarse,
              Progress& progress);

/// Own weight and the leaning person only: what the search for a pitch asks of each tool. m.
struct QuickSag {
    double standing = 0, leaning = 0;
    bool operator==(const QuickSag&) const = default;
};
QuickSag quick_sag(const ToolInputs& in, const EvenFace& face, Progress& progress);

/// Figures and calls of a trial, for the Back stage.
std::vector<Figure> trial_figures(const Trial& trial, const Choices& choices);
Calls trial_calls(const Trial& trial, const Choices& choices, const brief::Choices& brief);

}  // namespace back
}  // namespace jig
