// How hot a lay-up becomes by its own heat, by how thick it is laid at once (docs/methods.md, Exotherm).
#pragma once

#include "core/science/heat/cured.hpp"

namespace jig {

/// A wall some of whose layers are laid at a thickness that is looked for, and the programme that it cures
/// by.
struct LaidAtOnce {
    Wall wall;
    std::vector<std::size_t> layers;  ///< of the wall, one at least, rising; they thicken alike
    std::vector<Segment> programme;
    std::array<bool, 2> follow{true, true};  ///< sides that meet the programme's air
    double end = 1;                          ///< s that it is followed for at least
    bool operator==(const LaidAtOnce&) const = default;
};

struct ThicknessPeak {
    double thickness = 0;        ///< m of all of them together
    double peak = 0;             ///< K, the hottest of them
    double peak_time = 0;        ///< s from the start, to a fifth
    double under = 0;            ///< K, the hottest of what does not react before them; 0 where nothing is
    std::optional<double> gels;  ///< s at which all of them have gelled
    bool operator==(const ThicknessPeak&) const = default;
};

/// m of the layers as the wall has them.
double thickness_of(const LaidAtOnce& of);

/// What they do at that thickness, above 0 m; the programme's holds wait for nobody. Throws as warm().
ThicknessPeak peak_at(const LaidAtOnce& of, double thickness, Progress& progress);

/// The same at each of `thicknesses`, on all cores.
std::vector<ThicknessPeak> peaks_at(const LaidAtOnce& of, const std::vector<double>& thicknesses,
                                    Progress& progress);

/// What a lay-up may come to, K.
struct HeatLimits {
    double laid = 1e9;   ///< of the layers themselves
    double under = 1e9;  ///< of what lies before them and does not react
    [[nodiscard]] bool keep(const ThicknessPeak& p) const { return p.peak <= laid && p.under <= under; }
    bool operator==(const HeatLimits&) const = default;
};

/// m, the thickest that keeps the limits, to a hundredth of it; none where the thinnest of `curve` does not.
/// The last of it where all do. `curve` is of peaks_at(), rising.
std::optional<double> thickest(const LaidAtOnce& of, const std::vector<ThicknessPeak>& curve,
                               const HeatLimits& limits, Progress& progress);

}  // namespace jig
