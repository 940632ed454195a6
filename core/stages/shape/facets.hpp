// How fine a typed shape may be laid out.
#pragma once

#include <fmt/format.h>
#include <cmath>

#include "core/base/error.hpp"
#include "core/base/units.hpp"

namespace jig::shape {

/// Triangles that a typed shape may be made of; a slip of a unit would else ask for more than a machine
/// holds.
inline constexpr double kMostFacets = 1e6;

/// Throws InputError where facets of `facet` m would be more than that.
inline void check_facets(double triangles, double facet) {
    if (triangles <= kMostFacets) return;
    // Their number goes by the square of their size; up to a round one.
    const double wanted = facet * std::sqrt(triangles / kMostFacets),
                 tidy = std::pow(10, std::floor(std::log10(wanted)) - 1);
    throw InputError("facet", fmt::format("the shape would be {:.1f} million facets", triangles / 1e6),
                     "check its size, or make its facets " +
                         quantity(Kind::length, std::ceil(wanted / tidy) * tidy) + " or longer");
}

}  // namespace jig::shape
