// What every route's plan is put together with.
#pragma once

#include "core/stages/plug/plan.hpp"

namespace jig::plug::route {

/// What every route is told.
struct Ask {
    const Choices& c;
    const Body& body;
    const shape::Choices& shape;
    Asked brief;
    Library shop;
    Progress& progress;
};

/// A consumable, its waste counted. Throws InputError where the library has none of that name.
void buy(Plan& plan, const Library& shop, const char* consumable, Kind kind, double amount,
         std::string note = {});
void boards(Plan& plan, const Board& board, int count);
void work(Plan& plan, std::string what, double hours, double wait = 0);
void figure(Plan& plan, const char* key, const char* name, Kind kind, double value, std::string reason);

/// What follows from plan.block: the router's hours and the hands' on its ridges, with their figures.
void mill(const Ask& ask, const Block& cut, Plan& plan);
/// What follows from plan.tiles: filament, printing and joining, with their figures.
void print(const Ask& ask, const Printing& printing, Plan& plan);
TileRules rules_of(const Printing& printing);
/// kg of tiles with printed walls and less inside them.
double printed_mass(const TileSet& set, const Printing& printing, const Filament& filament);

/// The sums that routes are compared by, but for hours, days and cost, which follow from the plan.
void sums(Plan& plan, double accuracy, std::string accuracy_why, double step, std::string step_why,
          double temperature, std::string heat_why, double moulds, std::string moulds_why);
Figure cost_sum(const Plan& plan, double labour);
/// Finishes its surface, and adds up hours, days and cost.
void settle(Plan& plan, const std::vector<FinishStep>& schedule, const Asked& brief, const Library& shop);

}  // namespace jig::plug::route
