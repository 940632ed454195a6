// Shapes that need no CAD: what a maker types for each.
#pragma once

#include <array>

#include "core/base/fields.hpp"

namespace jig {

enum class FoilSection { formula, points };
template <>
struct Words<FoilSection> {
    static constexpr std::array all{Word{"formula", "a formula"}, Word{"points", "its coordinates below"}};
};

namespace shape {

/// One section of a stations shape, across the length. Its outline is a superellipse
/// |y/(width/2)|^fullness + |z/height|^fullness = 1 (2 is an ellipse, more is boxier), or the line of
/// `points` as a contour gauge gave it, stretched to the width and height.
struct Station {
    double at = 0;        ///< m along the length
    double width = 0.3;   ///< m
    double height = 0.1;  ///< m above `lift`
    double fullness = 2.5;
    double lift = 0;                              ///< m of the foot above the bench
    std::vector<std::array<double, 2>> points{};  ///< m: across from the middle line, above the bench
    static void fields(auto& c, auto&& v) {
        v("at", c.at, -100.0, 100.0);
        v("width", c.width, 0.0, 50.0);
        v("height", c.height, 0.0, 50.0);
        v("fullness", c.fullness, 1.0, 12.0);
        v("lift", c.lift, -50.0, 50.0);
        v("points", c.points);
    }
    bool operator==(const Station&) const = default;
};

/// Sections along a length, faired through. Mouth down like a tray, or closed below by its own mirror image.
struct Stations {
    std::vector<Station> stations{{0.0, 0.20, 0.06, 2.4, 0},
                                  {0.3, 0.42, 0.11, 2.6, 0},
                                  {0.7, 0.46, 0.12, 2.8, 0},
                                  {1.1, 0.34, 0.09, 2.5, 0},
                                  {1.3, 0.16, 0.05, 2.3, 0}};
    double stiffness = 0;  ///< of the faired lines; 0 goes through every station
    bool whole = false;    ///< the lower half too
    double facet = 0.012;  ///< m
    static void fields(auto& c, auto&& v) {
        v("stations", c.stations);
        v("stiffness", c.stiffness, 0.0, 1.0);
        v("whole", c.whole);
        v("facet", c.facet, 0.001, 0.2);
    }
    bool operator==(const Stations&) const = default;
};

/// A streamlined body from root to tip: one section, scaled and turned along the span.
struct Foil {
    FoilSection section = FoilSection::formula;
    double thickness = 0.15;                    ///< share of the chord
    double camber = 0.02;                       ///< share of the chord
    double camber_at = 0.4;                     ///< share of the chord
    double edge = 0.002;                        ///< m that the trailing edge is thick, so that it can be made
    std::vector<std::array<double, 2>> points;  ///< share of the chord, from the trailing edge over the top
    double span = 0.8, chord = 0.3, tip_chord = 0.2;  ///< m
    double twist = 0;                                 ///< rad, nose up at the tip
    double sweep = 0;                                 ///< rad of the quarter-chord line
    bool caps = true;
    double facet = 0.01;
    static void fields(auto& c, auto&& v) {
        v("section", c.section);
        v("thickness", c.thickness, 0.01, 0.6);
        v("camber", c.camber, -0.2, 0.2);
        v("camber_at", c.camber_at, 0.1, 0.9);
        v("edge", c.edge, 0.0, 0.05);
        v("points", c.points);
        v("span", c.span, 0.01, 50.0);
        v("chord", c.chord, 0.01, 20.0);
        v("tip_chord", c.tip_chord, 0.005, 20.0);
        v("twist", c.twist, -1.0, 1.0);
        v("sweep", c.sweep, -1.2, 1.2);
        v("caps", c.caps);
        v("facet", c.facet, 0.001, 0.2);
    }
    bool operator==(const Foil&) const = default;
};

/// A profile turned about the upright axis, from the foot up.
struct Turned {
    std::vector<std::array<double, 2>> profile{
        {0.30, 0.0}, {0.29, 0.10}, {0.24, 0.20}, {0.14, 0.27}, {0.0, 0.30}};  ///< radius, height, m
    bool smooth = true;  ///< faired through the points; else straight from point to point
    double facet = 0.012;
    static void fields(auto& c, auto&& v) {
        v("profile", c.profile);
        v("smooth", c.smooth);
        v("facet", c.facet, 0.001, 0.2);
    }
    bool operator==(const Turned&) const = default;
};

}  // namespace shape
}  // namespace jig
