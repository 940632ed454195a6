// What the part has to carry once it is made, and how it is held meanwhile.
#pragma once

#include <string>
#include <vector>

#include "core/base/fields.hpp"
#include "core/stages/part/zone.hpp"

namespace jig {

enum class PartHold { rests, pinned, clamped, places };
template <>
struct Words<PartHold> {
    static constexpr std::array all{Word{"rests", "rests on its rim, free to slide"},
                                    Word{"pinned", "is held all round its rim, free to turn there"},
                                    Word{"clamped", "is held all round its rim, stiff as a wall"},
                                    Word{"places", "is bolted at places"}};
};

enum class PartWeight { onto_outside, onto_inside, along, across };
template <>
struct Words<PartWeight> {
    static constexpr std::array all{Word{"onto_outside", "onto its tool face"},
                                    Word{"onto_inside", "off its tool face"}, Word{"along", "lengthwise"},
                                    Word{"across", "sideways"}};
};

namespace part {

/// A force on a round patch of the tool face, square to it.
struct Push {
    double along = 0, across = 0;  ///< m from the middle of the face, seen along the pull
    double force = 300;            ///< N onto the tool face; below 0 off it
    double size = 0.1;             ///< m across the patch
    static void fields(auto& c, auto&& v) {
        v("along", c.along, -50.0, 50.0);
        v("across", c.across, -50.0, 50.0);
        v("force", c.force, -1e6, 1e6);
        v("size", c.size, 0.001, 10.0);
    }
    bool operator==(const Push&) const = default;
};

/// What acts on it at one time.
struct PartLoad {
    std::string name = "load";
    double pressure = 0;  ///< Pa onto the tool face, all over; below 0 off it
    double weight = 0;    ///< times its own weight
    PartWeight way = PartWeight::onto_outside;
    std::vector<Push> pushes;
    static void fields(auto& c, auto&& v) {
        v("name", c.name);
        v("pressure", c.pressure, -1e6, 1e6);
        v("weight", c.weight, -1000.0, 1000.0);
        v("way", c.way);
        v("pushes", c.pushes);
    }
    bool operator==(const PartLoad&) const = default;
};

/// Without a load nothing is tried.
struct Duty {
    PartHold hold = PartHold::rests;
    std::vector<Spot> places;  ///< of its bolts
    std::vector<PartLoad> loads;
    double gives = 0;   ///< m that it may give at most; 0 for whatever comes
    double factor = 2;  ///< times each load that it has to hold
    static void fields(auto& c, auto&& v) {
        v("hold", c.hold);
        v("places", c.places);
        v("loads", c.loads);
        v("gives", c.gives, 0.0, 10.0);
        v("factor", c.factor, 1.0, 100.0);
    }
    bool operator==(const Duty&) const = default;
};

inline constexpr std::size_t kMostLoads = 12, kMostPushes = 40, kMostPlaces = 60;

}  // namespace part
}  // namespace jig
