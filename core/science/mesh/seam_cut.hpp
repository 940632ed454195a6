// The minimum cut that shares faces out between pulls, by CGAL's alpha expansion.
#pragma once

#include <cstdint>
#include <utility>
#include <vector>

namespace jig {

/// `cost[l][i]` is the price of label `l` on item `i`; an edge between items of different labels costs its
/// weight. `label` holds the start and comes back as the cheapest labelling that expansion moves reach.
void share_out(const std::vector<std::pair<std::size_t, std::size_t>>& edges,
               const std::vector<double>& weights, const std::vector<std::vector<double>>& cost,
               std::vector<std::size_t>& label);

}  // namespace jig
