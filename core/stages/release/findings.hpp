#pragma once

#include "core/stages/part/choices.hpp"
#include "core/stages/release/choices.hpp"
#include "core/stages/shell/findings.hpp"

namespace jig::release {

/// One coat of the plan with its clock, s from the first coat.
struct Step {
    std::string product;
    int coat = 1, of = 1;
    double at = 0, wait = 0;
    double turn = 0;    ///< rad against the first coat's way
    double latest = 0;  ///< s after it by which the next must follow; 0 for any time
    bool operator==(const Step&) const = default;
};

/// What the shop's pairs say of one thing under a system.
struct Judgement {
    PairOf of = PairOf::surface;
    Verdict verdict = Verdict::good;
    std::string pair, why, mend;
    bool operator==(const Judgement&) const = default;
};

enum class FaceOf { plug, boards, mould, loose };

/// A face that resin touches, and how it is kept from holding.
struct Face {
    FaceOf of = FaceOf::mould;
    std::string name;
    FaceKind surface = FaceKind::epoxy_coat;
    FaceHistory history = FaceHistory::fresh;
    ReleaseSystem system;
    Family resin = Family::epoxy;  ///< of what is laid on it
    double area = 0;               ///< m² to coat
    std::vector<Step> steps;
    double clock = 0;   ///< s from the first coat to what may be laid
    double litres = 0;  ///< of product for the first use, losses counted, thinner not
    double strips = 0;  ///< m of strips where the system is laid from a roll
    double work = 0;    ///< s of hands
    double cost = 0;
    std::vector<Judgement> judgements;
    [[nodiscard]] Verdict verdict() const {
        auto worst = Verdict::good;
        for (const auto& j : judgements) worst = std::max(worst, j.verdict);
        return worst;
    }
    bool operator==(const Face&) const = default;
};

/// Whether a bag is stuck to the mould's flange, on a land that has to be clear of release.
struct TapeLand {
    bool taped = true;
    bool operator==(const TapeLand&) const = default;
};

struct Findings {
    std::vector<Figure> figures;
    std::vector<Face> faces;  ///< plugs, parting boards, mould pieces, loose ones
    ReleaseSystem system;     ///< of the mould's faces
    std::vector<Step> plan;   ///< on all of the mould's faces in one go
    double area = 0;          ///< m² of them to coat, tape land left out
    double clock = 0;         ///< s from first coat to first pull
    double work = 0;          ///< s of hands for the first use
    double work_each = 0;     ///< s of hands for each pull
    double cost_first = 0, cost_each = 0;
    double litres = 0;      ///< for the first use
    double kept_clear = 0;  ///< m² that release must not reach
    bool taped = true;      ///< whether a bag is stuck to the flange
    double masked = 0;      ///< m of masking tape, its width over what is kept clear
    double seam = 0;        ///< m of lines between pieces to close
    double seam_fill = 0;   ///< kg of what closes them
    SeamFill seam_with = SeamFill::none;
    bool operator==(const Findings&) const = default;
};

/// What the faces are made of and what comes on them.
Findings evaluate(const Choices& choices, const split::Choices& split_choices, const split::Findings& split,
                  const plug::Findings& plug, const edge::Findings& edge, const shell::Choices& shell,
                  const part::Choices& part, const TapeLand& land, const Library& shop);
Calls calls(const Choices& choices, const Findings& findings, const brief::Choices& brief,
            const shape::Findings& shape, const shell::Choices& shell, const Library& shop);

/// The coats of a system on so much face, with their clock. Times of work are by its area.
std::vector<Step> coats_of(const std::vector<ReleaseCoat>& coats, double area, double* clock = nullptr);

/// What the shop says of a surface, a history and a resin under a system; what it says nothing of is a
/// caution.
std::vector<Judgement> judged(FaceKind surface, FaceHistory history, Family resin, ReleaseKind system,
                              const Library& shop);

}  // namespace jig::release
