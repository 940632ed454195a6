// Where shipped and own files lie.
#pragma once

#include <QString>

#include "core/shop/shop.hpp"

namespace jig::app {

QString data_folder();      ///< shipped: library, demo, fonts, icons; $JIGSHELL_DATA overrides
QString handbook_folder();  ///< shipped handbook
QString own_library();      ///< the shop's own lists, in the config folder
QString recovery_folder();  ///< autosaves
/// The library as its files stand now, the shop's own lists over the shipped ones. Throws InputError.
Shop shop_on_disk();

}  // namespace jig::app
