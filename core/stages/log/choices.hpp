// The tool's own record.
#pragma once

#include "core/base/fields.hpp"

namespace jig {

enum class EntryKind { pull, care, repair, note };
template <>
struct Words<EntryKind> {
    static constexpr std::array all{Word{"pull", "pull"}, Word{"care", "release care"},
                                    Word{"repair", "repair"}, Word{"note", "note"}};
};

namespace log {

struct LogEntry {
    std::string date;  ///< yyyy-mm-dd
    EntryKind kind = EntryKind::pull;
    double mass = 0;  ///< kg of the part as pulled; 0 where it was not weighed
    int coats = 0;    ///< release coats put on before it
    std::string note;
    static void fields(auto& c, auto&& v) {
        v("date", c.date);
        v("kind", c.kind);
        v("mass", c.mass, 0.0, 1e5);
        v("coats", c.coats, 0, 50);
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
