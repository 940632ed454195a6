#include "core/science/vacuum/pump.hpp"

#include <array>
#include <cmath>
#include <numbers>

namespace jig {

double room_pressure(double height) {
    return 101325 * std::pow(1 - 2.25577e-5 * height, 5.25588);
}

double hose_volume(double length, double bore) {
    return length * std::numbers::pi * bore * bore / 4;
}

std::optional<double> PumpDown::end() const {
    if (speed <= 0) return std::nullopt;
    return ultimate + leak / speed;
}

double PumpDown::at(double seconds) const {
    const auto last = end();
    if (!last) return volume > 0 ? start + leak * seconds / volume : start;
    if (volume <= 0) return *last;
    return *last + (start - *last) * std::exp(-speed * seconds / volume);
}

std::optional<double> PumpDown::time_to(double pressure) const {
    if (pressure >= start) return 0.0;
    const auto last = end();
    if (!last || pressure <= *last) return std::nullopt;
    return volume / speed * std::log((start - *last) / (pressure - *last));
}

double leak_of_drop(double volume, double from, double to, double seconds) {
    return volume * (to - from) / seconds;
}

std::optional<Cycle> cycle_of(const PumpDown& pump, double low, double high) {
    auto down = pump;
    down.start = high;
    const auto on = down.time_to(low);
    if (!on || pump.leak <= 0) return std::nullopt;
    return Cycle{*on, pump.volume * (high - low) / pump.leak};
}

double boils_at(Liquid liquid, double temperature) {
    // log10(bar) = A − B / (T + C)
    struct Antoine {
        double A, B, C;
    };
    static constexpr std::array<Antoine, 4> all{{{4.0593, 1459.909, -59.551},
                                                 {4.42448, 1312.253, -32.445},
                                                 {5.24677, 1598.673, -46.424},
                                                 {4.6543, 1435.264, -64.848}}};
    const auto& a = all[static_cast<std::size_t>(liquid)];
    return 1e5 * std::pow(10, a.A - a.B / (temperature + a.C));
}

}  // namespace jig
