// The cures of a tool's life, each a programme of its own, and what they do through the wall.
#pragma once

#include "core/science/heat/cured.hpp"
#include "core/stages/heat/walls.hpp"

namespace jig::heat {

/// K that a shell standing free is kept under its own Tg on the way: typical.
inline constexpr double kStandingMargin = 5;

/// Above this a cure takes an oven, K over the room: typical of what a warm corner still reaches.
inline constexpr double kWarm = 15;

/// Where the back or another part is joined on.
inline constexpr std::size_t kAtJoint = static_cast<std::size_t>(-1);

/// Another wall in the same cure: where a doubler or a zone lies, or a joint.
struct CurePlace {
    std::string name;
    Wall wall;
    WallHistory history;
    std::optional<std::size_t> of;  ///< which doubler or zone it is, or kAtJoint; none for the common wall
    double off = 0;                 ///< share by which its air warms more than the programme says, or less
    bool operator==(const CurePlace&) const = default;
};

/// More places than that are told by those that differ most in thickness.
inline constexpr std::size_t kMostPlaces = 6;

/// A cure with all its walls: what is said of it holds for every one of them.
struct CureRun {
    CureOf of = CureOf::on_plug;
    bool free = false;              ///< nothing holds its shape meanwhile
    Wall wall;                      ///< the common one
    Cured cured;                    ///< what that does; the holds wait for all
    std::vector<CurePlace> places;  ///< the others
    /// Names of the places that the longest wait is for, that run hottest, and that are nearest to their Tg;
    /// empty for the common wall.
    std::string slowest, hottest, over_where;
    int times = 1;           ///< that it is gone through: by each of the goes between the first and the last
    std::vector<Leg> legs;   ///< that it goes by: the maker's, or the usual ones of resin and rates
    bool usual = true;       ///< the latter
    double seconds = 0;      ///< from the door shut to the room's heat again
    double highest_air = 0;  ///< K, as it is set
    double warmest_air = 0;  ///< K that it is at the oven's warm end
    double overshoot = 0;    ///< K by which a reacting layer runs past the hottest of its own air
    /// K by which the wall is hotter than its Tg at the worst moment after gelation, below 0 where it never
    /// is.
    double over_Tg = -1000;
    double over_time = 0;  ///< s of that moment
    /// K/s at which all its legs would go and the wall stay under its Tg by that margin; none where no rate
    /// does, or the legs do so already.
    std::optional<double> safe_rate;
    /// How often as long its holds would have to be for all of it to gel; none where they are long enough, or
    /// no length within reason does.
    std::optional<double> longer;
    std::optional<double> Tg;  ///< K at the end, the lowest of what reacts
    double cure = 0;           ///< the lowest at the end
    /// K that a layer of that name has come to at the end, where it is lowest; none where none reacts.
    [[nodiscard]] std::optional<double> Tg_of(const std::string& layer) const;
    /// Calls `see` with name, wall and history of every place, the common wall first, without a name.
    void each(const auto& see) const {
        see(std::string(), wall, cured.history);
        for (const auto& p : places) see(p.name, p.wall, p.history);
    }
    [[nodiscard]] bool gelled() const;  ///< whether all of it has at the end
    /// K that air of such an `off` comes to at most.
    [[nodiscard]] double hottest_air(double off) const {
        return highest_air + off * (highest_air - wall.start);
    }
    bool operator==(const CureRun&) const = default;
};

struct Cures {
    std::vector<CureRun> runs;  ///< in the order of CureOf; those that the job has
    [[nodiscard]] const CureRun* find(CureOf of) const;
    bool operator==(const Cures&) const = default;
};

/// What a cure is of, before it is run.
struct CureWalls {
    CureOf of = CureOf::on_plug;
    bool free = false;
    std::vector<CurePlace> walls;  ///< the common one first
};
/// Put through a programme, worked out in full. `usual` as CureRun has it. Throws as warm(); Cancelled.
CureRun run_of(CureWalls cure, std::vector<Leg> legs, bool usual, double within, Progress& progress);
/// The same walls through another programme, but for what would mend it (`safe_rate`, `longer`). Throws as
/// warm().
CureRun through(const CureRun& run, std::vector<Leg> legs, double within, Progress& progress);
/// Shares by which an oven's cool end warms less than it is set to, and its warm end more; 0 where it has no
/// map, or none of it is on that side. Throws InputError where it was read hardly warmer than the room.
struct OvenEnds {
    double cool = 0, warm = 0;
    bool operator==(const OvenEnds&) const = default;
};
OvenEnds ends_of(const Oven& oven, double room);
/// A programme as the oven goes: its legs, and back to the room as fast as it last went.
std::vector<Segment> segments_of(const std::vector<Leg>& legs, double room, double within);
/// The usual legs of a shell on its plug, and of a part, or a go of it, that gels at `gels_at` K.
std::vector<Leg> legs_on_plug(const Conditions& air, const Resin& resin, const Lists<Rate>& shop);
std::vector<Leg> legs_of_part(const Conditions& air, double gels_at, const Resin& resin);
/// Whether it lies on the plug meanwhile, the first layer of its walls.
inline bool lies_on_plug(CureOf of) {
    return of == CureOf::on_plug || of == CureOf::with_back;
}
/// Whether it is paid for with each part, and not with the tool.
inline bool of_part(CureOf of) {
    return of >= CureOf::part_first;
}
/// Whether something of a part is laid for it, in its tool.
inline bool lays_part(CureOf of) {
    return of >= CureOf::part_first && of <= CureOf::part;
}
/// The cure that hardens one of so many goes of a part, counted from 0.
inline CureOf cure_of_go(std::size_t go, std::size_t count) {
    return go + 1 >= count ? CureOf::part : go == 0 ? CureOf::part_first : CureOf::part_next;
}
/// Which sides of a cure's wall meet the programme's air: a plug's own side is in its room.
inline std::array<bool, 2> follows(CureOf of) {
    return {!lies_on_plug(of), true};
}

}  // namespace jig::heat
