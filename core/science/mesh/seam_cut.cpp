#include "core/science/mesh/seam_cut.hpp"

#include <CGAL/boost/graph/alpha_expansion_graphcut.h>

namespace jig {

void share_out(const std::vector<std::pair<std::size_t, std::size_t>>& edges,
               const std::vector<double>& weights, const std::vector<std::vector<double>>& cost,
               std::vector<std::size_t>& label) {
    if (label.empty() || cost.size() < 2) return;
    // The packed graph looks each edge's other way up by a walk along all of its point's edges, which grows
    // by the square at the two terminals; lists know it from the start.
    CGAL::alpha_expansion_graphcut(edges, weights, cost, label,
                                   CGAL::Alpha_expansion_boost_adjacency_list_tag());
}

}  // namespace jig
