#include "app/stand/bands.hpp"

namespace jig::app {

QColor ramp(const Ink& k, double share) {
    const auto mix = [](const QColor& a, const QColor& b, double t) {
        return QColor::fromRgbF(static_cast<float>(a.redF() + (b.redF() - a.redF()) * t),
                                static_cast<float>(a.greenF() + (b.greenF() - a.greenF()) * t),
                                static_cast<float>(a.blueF() + (b.blueF() - a.blueF()) * t));
    };
    const auto light = k.paper.lightness() > 128 ? k.paper.lighter(103) : k.paper.lighter(230);
    return share < 0.6 ? mix(light, k.petrol, share / 0.6) : mix(k.petrol, k.ink, (share - 0.6) / 0.4);
}

Spot between(const Spot& a, const Spot& b, double level) {
    const double t = (level - a.value) / (b.value - a.value);
    return {a.at + t * (b.at - a.at), (a.normal + t * (b.normal - a.normal)).normalized(), level};
}

std::vector<Spot> kept(const std::vector<Spot>& polygon, double level, bool above) {
    std::vector<Spot> out;
    for (std::size_t i = 0; i < polygon.size(); ++i) {
        const auto &a = polygon[i], &b = polygon[(i + 1) % polygon.size()];
        const bool in = above ? a.value >= level : a.value <= level,
                   next = above ? b.value >= level : b.value <= level;
        if (in) out.push_back(a);
        if (in != next && a.value != b.value) out.push_back(between(a, b, level));
    }
    return out;
}

}  // namespace jig::app
