// A shut bag's gauge read again and again: how fast it rises, how sure that is, and whether it is a leak.
#pragma once

#include <optional>
#include <vector>

namespace jig {

struct DropReading {
    double seconds = 0, pressure = 0;  ///< Pa absolute
    bool operator==(const DropReading&) const = default;
};

/// A straight line through the readings by least squares.
struct DropFit {
    double from = 0;               ///< Pa on the line at the first reading
    double rise = 0;               ///< Pa/s
    std::optional<double> spread;  ///< Pa/s, standard error of the rise; none for two readings
    double scatter = 0;            ///< Pa, standard deviation of the readings about the line
    /// What the rise has lost at the end, as a share of its steepest; none for fewer than five readings or
    /// where the bend is no more than their scatter. Near 1: it levels out, so something gives off gas or
    /// cools; below 0: it rises ever faster, so something opens.
    std::optional<double> flattens;
    double seconds = 0;  ///< from the first reading to the last
    int readings = 0;
    bool operator==(const DropFit&) const = default;
};

/// None for fewer than two readings or none at different times. Their order does not matter.
std::optional<DropFit> fit_drop(std::vector<DropReading> readings);

}  // namespace jig
