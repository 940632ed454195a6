// Materials and days as CSV, for spreadsheets.
#pragma once

#include "core/job/evaluate.hpp"

namespace jig {

/// One cell: quoted where it holds a comma, a quote or a line end.
std::string csv_cell(const std::string& text);
/// Empty where Run has no findings.
std::string materials_csv(const Findings& findings);
std::string days_csv(const Findings& findings);
/// The load cases of a tool on trial.
std::string trial_table(const back::Trial& trial);
/// The loads of a part on trial.
std::string trial_table(const part::Trial& trial);
/// The list that a bag is cut by: a line for each layer, from the last ply outwards.
std::string layer_table(const std::vector<bag::BagLayer>& layers);

}  // namespace jig
