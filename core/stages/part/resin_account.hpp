// Where the resin goes that is mixed for a part: line by line, by two schools.
#pragma once

#include <string>
#include <vector>

#include "core/stages/part/choices.hpp"

namespace jig::part {

/// What keeps resin beside the laminate, of one part.
struct Keeper {
    std::string key, name;
    double by_area = 0;  ///< kg/m² of face
    double by_rim = 0;   ///< kg/m of its rim
    double each = 0;     ///< kg
    std::string why;
    [[nodiscard]] double mass(double area, double rim) const {
        return std::max(0.0, by_area * area + by_rim * rim + each);
    }
    bool operator==(const Keeper&) const = default;
};
/// What the bag says that it keeps, and how far the edge has the laminate go past the rim, m.
struct Keepers {
    std::vector<Keeper> all;
    double trim = 0;
    bool operator==(const Keepers&) const = default;
};

/// What an account is drawn up from.
struct ResinAsked {
    double area = 0, rim = 0;  ///< m², m of one part
    double cloth = 0;          ///< kg of dry cloth in it
    double plies = 0;          ///< kg of resin mixed for its plies and coats, by their fibre share
    double cores = 0;          ///< kg that its cores drink
    ResinBy by = ResinBy::share;
    double ratio = 1;     ///< kg of resin to each of dry cloth
    double waste = 0;     ///< share of cloth bought beyond the part: half of it is wetted too
    double pot_loss = 0;  ///< kg
    Keepers keepers;
    bool operator==(const ResinAsked&) const = default;
};

struct ResinLine {
    std::string key, name;
    double mass = 0;  ///< kg
    std::string why;
    bool operator==(const ResinLine&) const = default;
};

struct ResinAccount {
    ResinAsked asked;
    std::vector<ResinLine> lines;  ///< from the laminate out; empty where nothing is mixed by hand
    double total = 0;              ///< kg to mix
    double other = 0;              ///< kg by the other school
    /// kg mixed for each kg of dry cloth in a part of the same kind of `area` m², its rim in proportion.
    [[nodiscard]] double over_cloth(double area) const;
    bool operator==(const ResinAccount&) const = default;
};

ResinAccount account_of(ResinAsked asked);

}  // namespace jig::part
