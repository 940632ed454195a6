// The mould's laminate, from the plug out.
#pragma once

#include "core/shop/layup.hpp"

namespace jig {

enum class School { mat_polyester, glass_epoxy, carbon_epoxy };
template <>
struct Words<School> {
    static constexpr std::array all{Word{"mat_polyester", "polyester with hand-laid mat"},
                                    Word{"glass_epoxy", "epoxy with glass"},
                                    Word{"carbon_epoxy", "epoxy with carbon"}};
};

namespace shell {

struct Choices {
    School school = School::glass_epoxy;
    std::string resin = "epoxy, tooling post-cured";
    LayUp how = LayUp::hand;
    std::vector<Layer> layers;
    double cure_temperature = 353.15;  ///< K of the last post-cure, off the plug
    double waste = 0.15;               ///< share of cloth and resin bought beyond what stays in the shell
    static void fields(auto& c, auto&& v) {
        v("school", c.school);
        v("resin", c.resin);
        v("how", c.how);
        v("layers", c.layers);
        v("cure_temperature", c.cure_temperature, 283.0, 500.0);
        v("waste", c.waste, 0.0, 1.0);
    }
    bool operator==(const Choices&) const = default;
};

/// The starting stack of a school, light to heavy and mirrored as far as a hand lay-up can be.
Choices start_from(School school);

}  // namespace shell
}  // namespace jig
