// What the customer wants and what the shop has.
#pragma once

#include "core/base/fields.hpp"
#include "core/shop/lists.hpp"

namespace jig {

enum class Grade { structural, paintable, clear, gloss };
template <>
struct Words<Grade> {
    static constexpr std::array all{
        Word{"structural", "structural, unseen"}, Word{"paintable", "ready for paint"},
        Word{"clear", "clear over the fibre"}, Word{"gloss", "bare gloss from the mould"}};
};

enum class Process { wet, wet_bag, infusion, prepreg, squeeze };
template <>
struct Words<Process> {
    static constexpr std::array all{Word{"wet", "wet lay-up, open"},
                                    Word{"wet_bag", "wet lay-up under a bag"}, Word{"infusion", "infusion"},
                                    Word{"prepreg", "oven prepreg"},
                                    Word{"squeeze", "a bolted squeeze mould"}};
};

namespace brief {

/// What of the shop library this stage reads.
using Library = Lists<Rate>;

/// What changes no figure.
struct Names {
    std::string job = "New job", customer, part = "part";
    int revision = 1;
    bool operator==(const Names&) const = default;
};
struct Series {
    int pulls = 20;
    bool operator==(const Series&) const = default;
};
struct Wanted {
    Grade grade = Grade::paintable;
    bool operator==(const Wanted&) const = default;
};
struct Making {
    Process process = Process::wet_bag;
    bool operator==(const Making&) const = default;
};
struct Limits {
    double top_temperature = 313.15;  ///< K, the hottest that the tool will see
    double tolerance = 0.001;         ///< m over the part's length
    bool operator==(const Limits&) const = default;
};
struct Jig {
    bool assembly_jig = false;  ///< parts are joined in the tool
    bool operator==(const Jig&) const = default;
};
struct Router {
    double router_x = 2.4, router_y = 1.2, router_z = 0.25;  ///< m of travel
    bool operator==(const Router&) const = default;
};
struct Rooms {
    double oven_x = 2.0, oven_y = 1.2, oven_z = 1.0;  ///< m inside
    double door_width = 1.6, door_height = 2.1;  ///< m, the smallest that the tool has to pass; 0 for none
    bool operator==(const Rooms&) const = default;
};
struct Crew {
    int people = 2;
    double shift = 28800;  ///< s
    double lift = 20;      ///< kg for one person
    bool operator==(const Crew&) const = default;
};
struct Pump {
    double pump = 16.0 / 3600;  ///< m³/s
    bool operator==(const Pump&) const = default;
};

/// Some slices of the brief, for functions that read no others.
template <class... Slice>
struct Of : Slice... {
    // NOLINTNEXTLINE(google-explicit-constructor): the whole brief may be given wherever some of it is read.
    Of(const auto& brief) : Slice(static_cast<const Slice&>(brief))... {}
    bool operator==(const Of&) const = default;
};

struct Choices : Names, Series, Wanted, Making, Limits, Jig, Router, Rooms, Crew, Pump {
    static void fields(auto& c, auto&& v) {
        v("job", c.job);
        v("customer", c.customer);
        v("part", c.part);
        v("revision", c.revision, 0, 10000);
        v("pulls", c.pulls, 1, 5000);
        v("grade", c.grade);
        v("process", c.process);
        v("top_temperature", c.top_temperature, 283.0, 500.0);
        v("tolerance", c.tolerance, 1e-5, 0.1);
        v("assembly_jig", c.assembly_jig);
        v("router_x", c.router_x, 0.0, 50.0);
        v("router_y", c.router_y, 0.0, 50.0);
        v("router_z", c.router_z, 0.0, 10.0);
        v("oven_x", c.oven_x, 0.0, 50.0);
        v("oven_y", c.oven_y, 0.0, 50.0);
        v("oven_z", c.oven_z, 0.0, 50.0);
        v("door_width", c.door_width, 0.0, 50.0);
        v("door_height", c.door_height, 0.0, 50.0);
        v("people", c.people, 1, 50);
        v("shift", c.shift, 3600.0, 86400.0);
        v("pump", c.pump, 0.0, 1.0);
        v("lift", c.lift, 1.0, 100.0);
    }
    bool operator==(const Choices&) const = default;
};

}  // namespace brief
}  // namespace jig
