// A job's cures and what they are charged, asked for in tests.
#pragma once

#include <catch2/catch.hpp>

#include "core/job/evaluate.hpp"

namespace fixtures {

inline const jig::heat::CureRun& cure_of(const jig::Findings& f, jig::CureOf of) {
    REQUIRE(f.heat);
    const auto* run = f.heat->cures->find(of);
    REQUIRE(run != nullptr);
    return *run;
}

/// How much of it is bought in that ledger, in the ledger's own unit.
inline double bought(const jig::Findings& f, jig::Ledger ledger, const std::string& what) {
    double sum = 0;
    for (const auto& m : f.run->materials) {
        if (m.ledger == ledger && m.what == what) sum += m.amount;
    }
    return sum;
}

}  // namespace fixtures
