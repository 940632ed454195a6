// Builds of a part: as it is laid now, taken over again, and one in another cloth that is as stiff.
#pragma once

#include "core/shop/stack_figures.hpp"
#include "core/stages/part/choices.hpp"

namespace jig::part {

Build build_of(const Choices& choices, std::string name);
/// The part as that build makes it; joint, cloth's start and what it carries stay.
Choices made_as(Choices choices, const Build& build);
/// Whether it is that build, whatever its name.
bool is_made_as(const Choices& choices, const Build& build);
/// The cloth that most of its plies are of; empty where it has none.
std::string main_cloth(const std::vector<Layer>& layers);
/// What it is made of, in a few words.
std::string in_short(const Build& build);
/// Keeps one more, as "build A" and so on where it has no name or one that is taken. Throws InputError where
/// it has no layers, or kMostBuilds are kept.
void keep(std::vector<Build>& builds, Build build);

struct AsStiff {
    Build build;
    int plies = 0;
    StackSum stack;
    double wanted = 0, found = 0;  ///< N·m, the smaller of D*11 and D*22 of a free strip
};

/// `like` with its plies replaced by the fewest of `cloth` that bend no easier: coats and cores stay, plies
/// lie in halves on both sides of the cores (one more on the tool's side), at 0° and 45° in turn from the
/// outside. Zones are left out. Throws InputError where `like` has no layers, its names are not in the
/// library, or no kMostPlies are enough.
AsStiff as_stiff(const Build& like, const std::string& cloth, const Library& shop);
inline constexpr int kMostPlies = 150;

}  // namespace jig::part
