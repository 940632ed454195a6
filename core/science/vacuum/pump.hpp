// How a bag is emptied, how it leaks, and what boils in it. Pressures are absolute, Pa.
#pragma once

#include <optional>

namespace jig {

/// Of the room, by the standard atmosphere at `height` m above the sea; meant for -500 to 11 000 m.
double room_pressure(double height);

/// m³ inside a hose.
double hose_volume(double length, double bore);

/// A volume that a pump of constant speed empties against a leak: V·dp/dt = Q − S·(p − p_u).
struct PumpDown {
    double volume = 0;    ///< m³
    double speed = 0;     ///< m³/s
    double ultimate = 0;  ///< Pa that the pump reaches on its own shut inlet
    double leak = 0;      ///< Pa·m³/s
    double start = 0;     ///< Pa
    /// Pa that it comes to in the end; none without a pump.
    [[nodiscard]] std::optional<double> end() const;
    [[nodiscard]] double at(double seconds) const;
    /// s until it is down to `pressure`; none where it never gets there.
    [[nodiscard]] std::optional<double> time_to(double pressure) const;
};

/// Pa·m³/s: a shut volume whose pressure rises from `from` to `to` in `seconds` > 0.
double leak_of_drop(double volume, double from, double to, double seconds);

/// A pump that stops at `low` and starts again at `high`.
struct Cycle {
    double on = 0, off = 0;  ///< s
    [[nodiscard]] double duty() const { return on / (on + off); }
    bool operator==(const Cycle&) const = default;
};
/// None where the pump never gets down to `low`, or nothing leaks and it never starts again.
std::optional<Cycle> cycle_of(const PumpDown& pump, double low, double high);

enum class Liquid { styrene, acetone, ethanol, water };
/// Pa at which it boils at `temperature` K, by Antoine's equation with the constants of the NIST WebBook;
/// within a few per cent from 0 to 80 °C.
double boils_at(Liquid liquid, double temperature);

}  // namespace jig
