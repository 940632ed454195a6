#pragma once

#include "core/stages/log/choices.hpp"
#include "core/stages/part/findings.hpp"
#include "core/stages/release/gate.hpp"

namespace jig::log {

/// What was noted of one face, and what it is released with: all that its gate asks for.
struct FaceRecord {
    release::FaceOf of = release::FaceOf::mould;
    std::string name;
    ReleaseSystem system;
    FaceHistory history = FaceHistory::fresh;
    std::vector<release::Event> events;
    [[nodiscard]] release::Gate gate(double now) const {
        return release::gate_at(system, history, events, now);
    }
    bool operator==(const FaceRecord&) const = default;
};

/// A pull that was laid up on a face that was not ready, and no reason kept.
struct Forced {
    int pull = 0;
    std::string face, why;
    bool operator==(const Forced&) const = default;
};

struct Findings {
    std::vector<Figure> figures;
    std::vector<FaceRecord> faces;
    std::vector<Forced> forced;
    std::vector<std::string> strangers;  ///< faces that entries name and the job has not
    int pulls = 0;
    int weighed = 0;
    double mean_mass = 0;   ///< kg
    double trend = 0;       ///< kg per pull, least squares over the weighed pulls
    int since_release = 0;  ///< pulls since release coats were last put on the mould
    bool worn = false;      ///< a face of the mould asks for a touch-up before the next pull
    bool operator==(const Findings&) const = default;
};

/// What the entries say of a face. Throws InputError for dates that are none.
std::vector<release::Event> events_of(const std::vector<LogEntry>& entries, const release::Face& face);

/// Throws InputError for dates that are none (yyyy-mm-dd, with or without a time).
Findings evaluate(const Choices& choices, const part::Findings& part, const release::Findings& release);
Calls calls(const Findings& findings, const brief::Choices& brief, const part::Findings& part,
            const release::Findings& release);

}  // namespace jig::log
