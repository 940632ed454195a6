// How thick a laminate may be laid in one go.
#pragma once

#include <cmath>
#include <string>

namespace jig {

struct GoLimit {
    double most = 0.006;  ///< m
    std::string why;      ///< what says so, to stand behind "more than that:"
    /// Goes that `thickness` m of plies take.
    [[nodiscard]] int goes(double thickness) const {
        return std::max(1, static_cast<int>(std::ceil(thickness / most - 1e-9)));
    }
    /// Whether `more` m on what is wet already, `laid` m, is to wait for the next go.
    [[nodiscard]] bool is_full(double laid, double more) const {
        return laid > 0 && laid + more > most + 1e-9;
    }
    bool operator==(const GoLimit&) const = default;
};

}  // namespace jig
