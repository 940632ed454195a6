#include <fmt/format.h>

#include "core/stages/log/findings.hpp"

namespace jig::log {
namespace {

using release::Event;

Moment moment_of(const LogEntry& e, std::size_t number) {
    const auto when = read_moment(e.date);
    if (!when)
        throw InputError(fmt::format("log entry {}", number), "\"" + e.date + "\" is no date",
                         "write it as 2026-05-31, or with its time as 2026-05-31 14:30");
    return *when;
}

std::optional<double> angle_of(CoatWay way) {
    switch (way) {
        case CoatWay::along:
            return 0.0;
        case CoatWay::across:
            return kPi / 2;
        case CoatWay::aslant:
            return kPi / 4;
        case CoatWay::unsaid:
            break;
    }
    return {};
}

bool is_about(const LogEntry& e, const release::Face& face) {
    return e.face.empty() ? face.of == release::FaceOf::mould : e.face == face.name;
}

/// The pulls off the mould that its gate would not have let through, none where the reason was kept.
std::vector<Forced> forced_pulls(const std::vector<LogEntry>& entries,
                                 const std::vector<release::Face>& faces) {
    std::vector<Forced> out;
    for (const auto& face : faces) {
        if (face.of != release::FaceOf::mould) continue;
        std::vector<LogEntry> before;
        int pull = 0;
        for (std::size_t i = 0; i < entries.size(); ++i) {
            const auto& e = entries[i];
            if (e.kind == EntryKind::pull && is_about(e, face)) {
                ++pull;
                // Coats that are noted with the pull were laid before it.
                auto until = before;
                if (e.coats > 0) {
                    until.push_back(e);
                    until.back().kind = EntryKind::care;
                }
                const auto when = moment_of(e, i + 1);
                const auto gate =
                    release::gate_at(face.system, face.history, events_of(until, face), when.at);
                // Of days without a time nobody can say that a cure was too short.
                const bool unknown =
                    gate.state.standing == release::Standing::curing && (!when.timed || gate.state.unclocked);
                if (!gate.go && !unknown && e.reason.empty() &&
                    std::none_of(out.begin(), out.end(), [&](const Forced& f) { return f.pull == pull; }))
                    out.push_back(
                        {pull, face.name, gate.reasons.empty() ? std::string() : gate.reasons.front()});
            }
            before.push_back(e);
        }
    }
    return out;
}

}  // namespace

std::vector<Event> events_of(const std::vector<LogEntry>& entries, const release::Face& face) {
    std::vector<Event> out;
    for (std::size_t i = 0; i < entries.size(); ++i) {
        const auto& e = entries[i];
        if (!is_about(e, face)) continue;
        const auto when = moment_of(e, i + 1);
        const auto coats = [&](int n) {
            if (n > 0) out.push_back({Event::Kind::coat, when, e.product, n, angle_of(e.way)});
        };
        switch (e.kind) {
            case EntryKind::coat:
                coats(std::max(1, e.coats));
                break;
            case EntryKind::care:
                coats(e.coats);
                break;
            case EntryKind::repair:
                out.push_back({Event::Kind::repair, when, {}, 0, {}});
                coats(e.coats);
                break;
            case EntryKind::strip:
                out.push_back({Event::Kind::strip, when, {}, 0, {}});
                break;
            case EntryKind::pull:
                coats(e.coats);
                out.push_back({Event::Kind::pull, when, {}, 0, {}});
                break;
            case EntryKind::note:
                break;
        }
    }
    return out;
}

Findings evaluate(const Choices& c, const part::Findings& part, const release::Findings& release) {
    Findings out;
    double n = 0, sx = 0, sy = 0, sxx = 0, sxy = 0;
    for (std::size_t i = 0; i < c.entries.size(); ++i) {
        const auto& e = c.entries[i];
        static_cast<void>(moment_of(e, i + 1));
        if (!e.face.empty() &&
            std::find(out.strangers.begin(), out.strangers.end(), e.face) == out.strangers.end() &&
            std::none_of(release.faces.begin(), release.faces.end(),
                         [&](const auto& f) { return f.name == e.face; }))
            out.strangers.push_back(e.face);
        if (e.kind != EntryKind::pull) continue;
        ++out.pulls;
        if (e.mass > 0) {
            const double x = out.pulls;
            n += 1;
            sx += x;
            sy += e.mass;
            sxx += x * x;
            sxy += x * e.mass;
        }
    }
    // What lies ahead of today is no matter here: the gate is asked at a moment, this is all that was noted.
    for (const auto& face : release.faces) {
        out.faces.push_back({face.of, face.name, face.system, face.history, events_of(c.entries, face)});
        if (face.of != release::FaceOf::mould) continue;
        const auto state =
            release::state_after(face.system, face.history, out.faces.back().events, release::kAfterAll);
        out.since_release = std::max(out.since_release, state.since_coat);
        out.worn = out.worn || (state.pulls > 0 && state.touch_up && !state.next.empty());
    }
    out.forced = forced_pulls(c.entries, release.faces);
    out.weighed = static_cast<int>(n);
    if (n > 0) out.mean_mass = sy / n;
    if (n > 1) out.trend = (n * sxy - sx * sy) / (n * sxx - sx * sx);
    out.figures = {{"pulls", "pulls so far", Kind::count, static_cast<double>(out.pulls),
                    "entries of the kind \"pull\""},
                   {"mean_mass", "mean mass of the part", Kind::mass, out.mean_mass,
                    fmt::format("of {} weighed; planned {}", out.weighed, quantity(Kind::mass, part.mass))},
                   {"trend", "change from pull to pull", Kind::mass, out.trend,
                    "straight line through the weighed pulls"},
                   {"since_release", "pulls since release was put on", Kind::count,
                    static_cast<double>(out.since_release),
                    "counted from the last run of coats that was finished, on the face that waits longest"}};
    return out;
}

}  // namespace jig::log
