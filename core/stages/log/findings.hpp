#pragma once

#include "core/stages/log/choices.hpp"
#include "core/stages/part/findings.hpp"
#include "core/stages/release/findings.hpp"

namespace jig::log {

struct Findings {
    int bare_pull = 0;  ///< the first pull that was logged before any release coat; 0 for none
    std::vector<Figure> figures;
    int pulls = 0;
    int weighed = 0;
    double mean_mass = 0;   ///< kg
    double trend = 0;       ///< kg per pull, least squares over the weighed pulls
    int since_release = 0;  ///< pulls since release coats were last put on
    bool operator==(const Findings&) const = default;
};

/// Throws InputError for dates that are none (yyyy-mm-dd).
Findings evaluate(const Choices& choices, const part::Findings& part);
Calls calls(const Findings& findings, const brief::Choices& brief, const part::Findings& part,
            const release::Findings& release);

}  // namespace jig::log
