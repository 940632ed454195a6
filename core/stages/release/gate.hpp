// The gate: nothing is laid on a face until its coats are on and cured. Pure rules over what was noted.
#pragma once

#include "core/base/clock.hpp"
#include "core/stages/release/findings.hpp"

namespace jig::release {

/// Something that was noted of one face. What stands later in the list was done later.
struct Event {
    enum class Kind {
        coat,    ///< `coats` of a product
        pull,    ///< a part, or a mould off the plug, came off
        repair,  ///< a place was made new
        strip    ///< bare again, all over
    };
    Kind kind = Kind::coat;
    Moment when;
    std::string product;  ///< empty: the next that the plan asks for
    int coats = 1;
    std::optional<double> way;  ///< rad of the coat's direction; none where it was not noted
    bool operator==(const Event&) const = default;
};

/// Where a face is between bare and worn.
enum class Standing { bare, coating, curing, ready, worn, repaired, wrong };

struct FaceState {
    Standing standing = Standing::bare;
    std::vector<Step> next;            ///< coats that are still to come, in order
    int done = 0, of = 0;              ///< coats of the run that is under way
    bool touch_up = false;             ///< the run is a touch-up between pulls
    bool unclocked = false;            ///< some coat has a day and no time
    double next_from = 0;              ///< s since 1970: from when the next coat, or the lay-up, may come
    std::optional<double> next_until;  ///< by when it must
    int pulls = 0;                     ///< off this face since it was new
    int since_coat = 0;                ///< pulls since the last full run or touch-up
    std::vector<std::string> faults;   ///< what is wrong with it, until it is stripped or done again
    std::vector<std::string> remarks;  ///< what was read in another way than written
    bool operator==(const FaceState&) const = default;
};

/// A moment after all that anybody notes: for what was noted, whatever the time is.
inline constexpr double kAfterAll = 2.5e11;

/// Where a face stands after all that was noted up to `until` (s since 1970); later ones are left out and
/// said.
FaceState state_after(const ReleaseSystem& system, FaceHistory history, const std::vector<Event>& events,
                      double until);

/// Whether something may be laid on it at a moment.
struct Gate {
    bool go = false;
    std::vector<std::string> reasons;  ///< why not, or what to mind
    std::optional<double> earliest;    ///< s since 1970; none while work is missing
    std::optional<double> latest;      ///< none where it keeps
    FaceState state;
    bool operator==(const Gate&) const = default;
};
Gate gate_at(const ReleaseSystem& system, FaceHistory history, const std::vector<Event>& events, double now);

/// "2 of 7 coats on", "ready", "touch-up due" and the like.
std::string words_of(const FaceState& state);

}  // namespace jig::release
