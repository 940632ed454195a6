#include "core/stages/bag/clamp.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/base/units.hpp"

namespace jig::bag {
namespace {

/// Bolts of the rim crosswise, begun nearest to its middle, so that what is squeezed runs outwards.
std::vector<edge::Fit> in_order(const std::vector<edge::Fit>& fits) {
    std::vector<edge::Fit> bolts;
    Point2 middle(0, 0);
    for (const auto& f : fits) {
        if (f.kind != Fitting::bolt) continue;
        bolts.push_back(f);
        middle += f.place;
    }
    if (bolts.empty()) return {};
    middle /= static_cast<double>(bolts.size());
    std::stable_sort(bolts.begin(), bolts.end(),
                     [](const edge::Fit& a, const edge::Fit& b) { return a.at < b.at; });
    const auto nearest =
        std::min_element(bolts.begin(), bolts.end(), [&](const edge::Fit& a, const edge::Fit& b) {
            return (a.place - middle).squaredNorm() < (b.place - middle).squaredNorm() * (1 - 1e-9);
        });
    std::vector<edge::Fit> out;
    for (const int i : crosswise(static_cast<int>(bolts.size()), static_cast<int>(nearest - bolts.begin())))
        out.push_back(bolts[static_cast<std::size_t>(i)]);
    return out;
}

}  // namespace

double friction_of(Thread thread) {
    switch (thread) {
        case Thread::dry:
            return 0.20;
        case Thread::oiled:
            return 0.12;
        case Thread::waxed:
            return 0.10;
    }
    return 0.20;
}

Clamping clamp(const Clamp& c, const edge::Choices& edge_choices, const edge::Findings& edge, double face,
               const Lists<Fastener>& shop) {
    Clamping out;
    out.bolts = edge.bolts;
    out.bolt.diameter = need(shop.fasteners, edge_choices.bolt, "edge").diameter;
    out.face = face;
    out.strip = edge_choices.seal.stiffness * edge_choices.seal.squeeze * edge.rim_length;
    if (out.bolts < 1) return out;
    out.needed = (edge_choices.squeeze * face + out.strip) / out.bolts;
    const double friction = friction_of(c.thread);
    out.torque = c.torque > 0 ? c.torque : torque_for(out.bolt, out.needed, friction);
    out.pull = pull_of(out.bolt, out.torque, friction);
    if (face > 0) out.pressed = std::max(0.0, (out.pull * out.bolts - out.strip) / face);
    out.order = in_order(edge.fits);
    return out;
}

namespace {

/// m between bolts at which there is still room for a key.
constexpr double kClosest = 0.04;

}  // namespace

std::vector<Figure> clamp_figures(const Clamp& c, const edge::Choices& edge_choices, const Clamping& k) {
    std::vector<Figure> out;
    const auto add = [&](const char* key, std::string name, Kind kind, double value, std::string reason) {
        out.push_back({key, std::move(name), kind, value, std::move(reason)});
    };
    add("clamp_bolts", "bolts", Kind::count, k.bolts, "as Edge has them, those along seams as well");
    if (k.bolts < 1) return out;
    add("clamp_needed", "each has to pull with", Kind::force, k.needed,
        fmt::format("({} on {} of face seen along the pull, + {} for the strip in the joint) ÷ {}",
                    quantity(Kind::pressure, edge_choices.squeeze), quantity(Kind::area, k.face),
                    quantity(Kind::force, k.strip), k.bolts));
    const auto threads = [&](Thread t) {
        return fmt::format("{}: friction {:.2f}, as often as not a quarter more or less", said(t),
                           friction_of(t));
    };
    add("torque", "drawn with", Kind::torque, k.torque,
        (c.torque > 0 ? "your choice; threads " : "what that pull asks for; threads ") + threads(c.thread));
    add("clamp_pull", "each pulls with", Kind::force, k.pull,
        "torque ÷ (thread's climb + friction of thread and nut), coarse thread of " +
            quantity(Kind::thickness, k.bolt.pitch()));
    add("pressed", "which presses the face with", Kind::pressure, k.pressed,
        "what the strip leaves of it ÷ face seen along the pull");
    for (const auto other : {Thread::dry, Thread::oiled, Thread::waxed}) {
        if (other == c.thread) continue;
        add(other == Thread::dry     ? "clamp_dry"
            : other == Thread::oiled ? "clamp_oiled"
                                     : "clamp_waxed",
            fmt::format("the same pull, threads {}", said(other)), Kind::torque,
            torque_for(k.bolt, k.pull, friction_of(other)), threads(other));
    }
    return out;
}

Calls clamp_calls(const edge::Choices& edge_choices, const Clamping& k) {
    Calls out;
    const auto add = [&](Severity s, const char* key, std::string headline, std::string why,
                         std::optional<Fix> fix = {}) {
        out.push_back({Stage::bag, s, key, std::move(headline), std::move(why), std::move(fix)});
    };
    if (k.bolts < 1) {
        add(Severity::stop, "no_bolts", "Nothing draws the squeeze mould together",
            "Its flange has no bolt: see Edge.",
            Fix{"Lay bolts by the rules", patch_of("edge", "by_rule", true)});
        return out;
    }
    const Fix as_needed{"Draw them as the pressure asks", Json{{"bag", {{"clamp", {{"torque", 0.0}}}}}}};
    if (k.pressed < 0.9 * edge_choices.squeeze) {
        add(Severity::caution, "soft_squeeze",
            quantity(Kind::torque, k.torque) + " press the face with " + quantity(Kind::pressure, k.pressed) +
                "; " + quantity(Kind::pressure, edge_choices.squeeze) + " is wanted",
            "The halves stay apart, the part comes out thick and full of resin.", as_needed);
    } else if (k.pressed > 1.25 * edge_choices.squeeze) {
        add(Severity::caution, "hard_squeeze",
            quantity(Kind::torque, k.torque) + " press the face with " + quantity(Kind::pressure, k.pressed) +
                "; the tool is tried with " + quantity(Kind::pressure, edge_choices.squeeze),
            "It bends more than Back says, and a stack that is starved of resin stays so.", as_needed);
    }
    // More of them pull less each; by their pressure, whatever torque was typed.
    const auto closer = [&](double bears) -> std::optional<Fix> {
        const double pitch = std::floor(200 * edge_choices.bolt_pitch * 0.9 * bears / k.needed) / 200;
        if (k.needed <= bears && k.pull > bears) return as_needed;
        if (pitch < kClosest) return {};
        return Fix{"Lay bolts every " + quantity(Kind::length, pitch),
                   Json{{"edge", {{"bolt_pitch", pitch}, {"by_rule", true}}},
                        {"bag", {{"clamp", {{"torque", 0.0}}}}}}};
    };
    const double yields = kBoltBears * k.bolt.stress_area();
    if (k.pull > yields) {
        add(Severity::stop, "bolt_yields",
            "Each bolt pulls with " + quantity(Kind::force, k.pull) + "; it bears " +
                quantity(Kind::force, yields),
            "Seven tenths of the proof load of class 8.8: take larger bolts, or more of them (Edge).",
            closer(yields));
    } else if (const double bears = kWasherBears * k.bolt.washer_area(); k.pull > bears) {
        add(Severity::caution, "washer_sinks",
            "Washers press the flange with " + quantity(Kind::strength, k.pull / k.bolt.washer_area()) +
                "; " + quantity(Kind::strength, kWasherBears) + " is usual",
            "They sink in and the bolts go slack: larger plates under them, or more bolts (Edge).",
            closer(bears));
    }
    return out;
}

}  // namespace jig::bag
