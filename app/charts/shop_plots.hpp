// Charts of what the library says of a cure.
#pragma once

#include "app/charts/plot.hpp"
#include "core/shop/cure.hpp"

namespace jig::app {

struct CurePlots {
    QString said;  ///< by what it goes, how sure it is, what is assumed; why not, where it contradicts itself
    std::optional<Plot> gel, glass;
};

/// Gel time by temperature with the figures that are given, and Tg by the heat of a cure of eight hours.
CurePlots cure_plots(const CureTold& told);

}  // namespace jig::app
