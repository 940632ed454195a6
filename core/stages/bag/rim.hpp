// What stands on the land of a film: hoses to the pump, the gauge, pleats.
#pragma once

#include "core/science/vacuum/film.hpp"
#include "core/stages/bag/choices.hpp"
#include "core/stages/edge/findings.hpp"

namespace jig::bag {

/// One of them, where it is.
struct Standing {
    RimThing what = RimThing::hose;
    double at = 0;  ///< share of the way round the land
    Point place = Point::Zero();
    double height = 0;  ///< m of a pleat
    double off = 0;     ///< m along the land: of a gauge to the nearest hose, of a hose to the nearest pleat
    bool operator==(const Standing&) const = default;
};

struct Rim {
    std::vector<Standing> things;  ///< hoses, gauges, pleats; each kind in the order of the maker's list
    double length = 0;             ///< m of the land
    double clear = 0;              ///< m that a hose stands clear of a pleat
    /// m over the face from its farthest place to a hose; 0 where no hose stands on the rim.
    double far = 0;
    Point far_at = Point::Zero();
    /// A pleat by the rule, farther from every pleat of the maker's than the face is deep; its number among
    /// those by the rule, from 1.
    int missed = 0;
    double missed_by = 0;  ///< m along the land to the nearest of his
    Point missed_at = Point::Zero();
    [[nodiscard]] int count(RimThing what) const;
    bool operator==(const Rim&) const = default;
};

/// Where all of it stands: by the maker's list, each kind that is not in it by the rules. By the rules hoses
/// are spread evenly, turned so that the face's land is nowhere far from one, clear of pleats; the gauge
/// stands where it is farthest from them. `with_hoses` is false where vents on the face take their place.
Rim rim_of(const Choices& choices, const Film& film, bool with_hoses);
/// How far the face's farthest place lies from a hose, along the edges of its triangles: at most about a
/// tenth longer than over the face.
void reach_over(Rim& rim, const TriangleMesh& face, const Frame& frame);

/// The job's own list with all of that kind in it as it stands, for one of them to be moved; its place in the
/// list where `number` is that among `rim.things`.
std::vector<OnRim> with_own(const Choices& choices, const Rim& rim, RimThing what);
std::size_t place_in_list(const std::vector<OnRim>& list, const Rim& rim, std::size_t number);

struct Findings;
/// Calls of what stands there; `room` is what Edge leaves between the part's finished edge
/// and the tape, m.
void rim_calls(const Choices& choices, const Findings& findings, double room, Calls& out);

}  // namespace jig::bag
