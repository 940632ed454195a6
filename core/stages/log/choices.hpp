// The tool's own record.
#pragma once

#include "core/base/fields.hpp"
#include "core/base/units.hpp"

namespace jig {

enum class EntryKind { pull, care, repair, note, coat, strip };
template <>
struct Words<EntryKind> {
    static constexpr std::array all{Word{"pull", "pull"},     Word{"care", "release care"},
                                    Word{"repair", "repair"}, Word{"note", "note"},
                                    Word{"coat", "coat"},     Word{"strip", "stripped bare"}};
};

/// Which way a coat was laid.
enum class CoatWay { unsaid, along, across, aslant };
template <>
struct Words<CoatWay> {
    static constexpr std::array all{Word{"unsaid", ""}, Word{"along", "along"}, Word{"across", "across"},
                                    Word{"aslant", "aslant"}};
};

namespace log {

struct LogEntry {
    std::string date;  ///< yyyy-mm-dd, with a time where it is known: 2026-05-31T14:30+02:00
    EntryKind kind = EntryKind::pull;
    double mass = 0;  ///< kg of the part as pulled; 0 where it was not weighed
    int coats = 0;    ///< release coats put on: before a pull, after a repair
    std::string note = {};
    std::string face = {};     ///< that it is about; empty: all of the mould's
    std::string product = {};  ///< of a coat; empty: the next that the plan asks for
    CoatWay way = CoatWay::unsaid;
    std::string who = {};
    std::string reason = {};  ///< why it was done against the gate
    static void fields(auto& c, auto&& v) {
        v("date", c.date);
        v("kind", c.kind);
        v("mass", c.mass, 0.0, 1e5);
        v("coats", c.coats, 0, 50);
        v("face", c.face);
        v("product", c.product);
        v("way", c.way);
        v("who", c.who);
        v("reason", c.reason);
        v("note", c.note);
    }
    bool operator==(const LogEntry&) const = default;
};

struct Choices {
    std::vector<LogEntry> entries;
    static void fields(auto& c, auto&& v) { v("entries", c.entries); }
    bool operator==(const Choices&) const = default;
};

}  // namespace log
}  // namespace jig
