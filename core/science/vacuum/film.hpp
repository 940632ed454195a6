// The film of a bag over a hollow mould: how large, where it is pleated, how much tape.
#pragma once

#include <optional>
#include <vector>

#include "core/base/progress.hpp"
#include "core/science/mesh/topology.hpp"

namespace jig {

struct FilmRules {
    double land = 0;  ///< m that the tape's land reaches past the mesh's rim; below 0 where it lies inside it
    std::optional<double> middle;  ///< m past the rim of the land's middle line; none for half of `land`
    bool longest = false;  ///< the sheet goes by the longest girths, not by those of the deepest places
    double ease = 0.1;     ///< share by which the film is longer than what it lies on
    double roll = 0;       ///< m, width of the film as it comes; 0 for any
    double pleat = 0.05;   ///< m, the tallest a pleat may stand
    std::optional<Point2> sheet = {};  ///< m, of a film that is there already, whatever is wanted
    /// Shares of the land's way where pleats stand, in place of where the rule would have them.
    std::vector<double> pleats_at = {};
};

struct Pleat {
    double at = 0;      ///< m along the land's middle line, from its first point
    double height = 0;  ///< m; it takes up twice that of the film's edge
    bool operator==(const Pleat&) const = default;
};

struct Film {
    double along = 0, across = 0;  ///< m, developed through the deepest places, both lands counted
    double longest_along = 0, longest_across = 0;  ///< m, the same through any place
    double depth = 0;                              ///< m from the rim to the deepest place
    double length = 0, width = 0;                  ///< m of the sheet: the girths with their ease
    std::vector<Point> land;                       ///< middle line of the land, a closed loop
    double land_length = 0;                        ///< m
    double slack = 0;  ///< m by which the film's edge is longer than the land; below 0 where it is shorter
    std::vector<Pleat> pleats;
    std::vector<Pleat> ruled;  ///< by the rule, where the maker has his own
    double tape = 0;           ///< m: along the land and up and down every pleat
    int joins = 0;             ///< seams between widths of the roll
    [[nodiscard]] double area() const { return length * width; }
    bool operator==(const Film&) const = default;
};

/// Film over an open surface with one rim; `frame.w` is the pull and `frame.u` the sheet's length. Girths are
/// read off flat sections along and across (docs/methods.md, Vacuum). Pleats stand where the rim turns round
/// the mould's hollow, by turn × depth there, at least one at each corner; where they are given, each takes
/// up what lies nearer to it than to the others. Throws InputError for a surface without a rim; Cancelled.
Film film_over(const TriangleMesh& mesh, const Topology& topology, const Frame& frame, const FilmRules& rules,
               Progress& progress);

/// `frame` turned about frame.w so that u runs along the longer side of the rim.
Frame lengthwise(const TriangleMesh& mesh, const Topology& topology, const Frame& frame);

}  // namespace jig
