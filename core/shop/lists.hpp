// Some lists of the shop library, for functions that read no others.
#pragma once

#include "core/shop/shop.hpp"

namespace jig {

/// Sight of one list under its own name. What is looked at has to outlive it.
template <class Entry>
struct Sees;

template <>
struct Sees<Reinforcement> {
    const std::vector<Reinforcement>& reinforcements;
    explicit Sees(const auto& shop) : reinforcements(shop.reinforcements) {}
    [[nodiscard]] const auto& list() const { return reinforcements; }
};
template <>
struct Sees<Resin> {
    const std::vector<Resin>& resins;
    explicit Sees(const auto& shop) : resins(shop.resins) {}
    [[nodiscard]] const auto& list() const { return resins; }
};
template <>
struct Sees<SurfaceCoat> {
    const std::vector<SurfaceCoat>& surface_coats;
    explicit Sees(const auto& shop) : surface_coats(shop.surface_coats) {}
    [[nodiscard]] const auto& list() const { return surface_coats; }
};
template <>
struct Sees<Core> {
    const std::vector<Core>& cores;
    explicit Sees(const auto& shop) : cores(shop.cores) {}
    [[nodiscard]] const auto& list() const { return cores; }
};
template <>
struct Sees<Board> {
    const std::vector<Board>& boards;
    explicit Sees(const auto& shop) : boards(shop.boards) {}
    [[nodiscard]] const auto& list() const { return boards; }
};
template <>
struct Sees<ReleaseSystem> {
    const std::vector<ReleaseSystem>& releases;
    explicit Sees(const auto& shop) : releases(shop.releases) {}
    [[nodiscard]] const auto& list() const { return releases; }
};
template <>
struct Sees<ReleasePair> {
    const std::vector<ReleasePair>& release_pairs;
    explicit Sees(const auto& shop) : release_pairs(shop.release_pairs) {}
    [[nodiscard]] const auto& list() const { return release_pairs; }
};
template <>
struct Sees<Consumable> {
    const std::vector<Consumable>& consumables;
    explicit Sees(const auto& shop) : consumables(shop.consumables) {}
    [[nodiscard]] const auto& list() const { return consumables; }
};
template <>
struct Sees<Fastener> {
    const std::vector<Fastener>& fasteners;
    explicit Sees(const auto& shop) : fasteners(shop.fasteners) {}
    [[nodiscard]] const auto& list() const { return fasteners; }
};
template <>
struct Sees<Bonding> {
    const std::vector<Bonding>& bonds;
    explicit Sees(const auto& shop) : bonds(shop.bonds) {}
    [[nodiscard]] const auto& list() const { return bonds; }
};
template <>
struct Sees<Filament> {
    const std::vector<Filament>& filaments;
    explicit Sees(const auto& shop) : filaments(shop.filaments) {}
    [[nodiscard]] const auto& list() const { return filaments; }
};
template <>
struct Sees<VacuumPump> {
    const std::vector<VacuumPump>& pumps;
    explicit Sees(const auto& shop) : pumps(shop.pumps) {}
    [[nodiscard]] const auto& list() const { return pumps; }
};
template <>
struct Sees<VacuumGauge> {
    const std::vector<VacuumGauge>& gauges;
    explicit Sees(const auto& shop) : gauges(shop.gauges) {}
    [[nodiscard]] const auto& list() const { return gauges; }
};
template <>
struct Sees<ResinTrap> {
    const std::vector<ResinTrap>& traps;
    explicit Sees(const auto& shop) : traps(shop.traps) {}
    [[nodiscard]] const auto& list() const { return traps; }
};
template <>
struct Sees<PassMark> {
    const std::vector<PassMark>& pass_marks;
    explicit Sees(const auto& shop) : pass_marks(shop.pass_marks) {}
    [[nodiscard]] const auto& list() const { return pass_marks; }
};
template <>
struct Sees<OvenBuild> {
    const std::vector<OvenBuild>& ovens;
    explicit Sees(const auto& shop) : ovens(shop.ovens) {}
    [[nodiscard]] const auto& list() const { return ovens; }
};
template <>
struct Sees<Rate> {
    const std::vector<Rate>& rates;
    explicit Sees(const auto& shop) : rates(shop.rates) {}
    [[nodiscard]] const auto& list() const { return rates; }
    /// Throws InputError where there is none of that name.
    [[nodiscard]] double rate(std::string_view name) const { return need(rates, name, "shop rates").value; }
    /// h for so much at a rate, its setting up with it.
    [[nodiscard]] double hours(std::string_view name, double amount) const {
        return need(rates, name, "shop rates").hours(amount);
    }
};

/// Sight of those lists and no others: of a shop, or of what sees more. Compared by what is in them.
template <class... Entry>
struct Lists : Sees<Entry>... {
    // NOLINTNEXTLINE(google-explicit-constructor): a shop may be given wherever some of its lists are read.
    Lists(const auto& shop) : Sees<Entry>(shop)... {}
    Lists(const Lists&) = default;
    Lists& operator=(const Lists&) = delete;
    ~Lists() = default;
    bool operator==(const Lists& other) const {
        const auto alike = [](const auto& a, const auto& b) { return &a == &b || a == b; };
        return (alike(Sees<Entry>::list(), other.Sees<Entry>::list()) && ...);
    }
};

/// What laying up reads.
using PlyLists = Lists<Reinforcement, SurfaceCoat, Core>;

}  // namespace jig
