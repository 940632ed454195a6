// Heat and cure through a wall of layers: conduction, both sides' air, and what the resin gives off.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "core/base/progress.hpp"
#include "core/science/heat/kinetics.hpp"
#include "core/science/heat/programme.hpp"

namespace jig {

struct WallLayer {
    std::string name;
    double thickness = 0.001;   ///< m
    double conductivity = 0.2;  ///< W/(m·K)
    double density = 1200;      ///< kg/m³
    double capacity = 1200;     ///< J/(kg·K)
    std::optional<Kinetics> resin;
    double resin_density = 0;  ///< kg of reacting resin in a m³ of the layer
    double cure = 0;           ///< at the start
    bool operator==(const WallLayer&) const = default;
};

/// What a face of the wall meets.
struct WallSide {
    std::optional<double> transfer;  ///< W/(m²·K) to the air; none: the face is held at `air`
    Course air;
    bool operator==(const WallSide&) const = default;
};

struct Wall {
    std::vector<WallLayer> layers;  ///< from the first side to the second
    std::array<WallSide, 2> sides;
    double start = 293.15;  ///< K all through
    bool operator==(const Wall&) const = default;
};

struct WallRules {
    double end = 3600;        ///< s
    std::vector<double> at;   ///< s that are asked for, rising; none for 241 alike
    int cells = 121;          ///< over the whole wall, more where layers are many
    double tolerance = 0.01;  ///< K that one step may be out by; a hundredth of it as degree of cure
    double longest = 0;       ///< s, of a step; 0 for what the tolerance allows
};

/// What one place of a wall did, one value for each of the times.
struct WallPlace {
    std::size_t layer = 0;
    double at = 0;  ///< m from the first side
    std::vector<double> T;
    std::vector<double> cure, Tg;  ///< empty where nothing reacts, or never vitrifies
    bool operator==(const WallPlace&) const = default;
};

struct WallHistory {
    std::vector<double> times;       ///< s
    std::vector<WallPlace> places;   ///< of each layer its first face, middle and last face
    double peak = 0, peak_time = 0;  ///< K anywhere, and the s at which
    double lag = 0;                  ///< K, greatest spread between two places at once
    struct Gel {
        std::size_t layer = 0;
        std::optional<double> first, all;  ///< s at which its first and its last place gels
        std::optional<double> Tg;          ///< K, the lowest of it at the end
        double cure = 0;                   ///< the lowest of it at the end
        double peak = 0;                   ///< K anywhere in it
        bool operator==(const Gel&) const = default;
    };
    std::vector<Gel> gels;  ///< of the layers that react
    struct Hottest {
        double T = 0, time = 0;  ///< K anywhere in it, its faces too, and the s at which
        bool operator==(const Hottest&) const = default;
    };
    std::vector<Hottest> hottest;  ///< of each layer
    /// J/m²: drawn from the air, set free by the resin, kept by the wall, given back to the air.
    double in = 0, reaction = 0, held = 0, lost = 0;
    int steps = 0;
    bool operator==(const WallHistory&) const = default;
};

/// Finite volumes, TR-BDF2 by error (Bank et al. 1985; Hosea and Shampine 1996), Newton on the tridiagonal
/// system with each cell's cure eliminated. Throws InputError where a step cannot be solved; Cancelled.
WallHistory warm(const Wall& wall, const WallRules& rules, Progress& progress);

}  // namespace jig
