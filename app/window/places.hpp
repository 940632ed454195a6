// Where shipped and own files lie.
#pragma once

#include <QString>

#include "core/shop/shop.hpp"

namespace jig::app {

QString data_folder();      ///< shipped: library, demo, fonts, icons; $JIGSHELL_DATA overrides
QString handbook_folder();  ///< shipped handbook
QString own_library();      ///< the shop's own lists: in the config folder, or in the one that was taken
QString recovery_folder();  ///< autosaves
/// Another folder for the shop's own lists, for as long as the program runs: read from and kept into.
void take_library(const QString& folder);
/// The library as its files stand now, the shop's own lists over the shipped ones. Throws InputError.
Shop shop_on_disk();

}  // namespace jig::app
