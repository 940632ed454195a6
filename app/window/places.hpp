// Where shipped and own files lie.
#pragma once

#include <QString>

namespace jig::app {

QString data_folder();      ///< shipped: library, demo, fonts, icons; $JIGSHELL_DATA overrides
QString handbook_folder();  ///< shipped handbook
QString own_library();      ///< the shop's own lists, in the config folder
QString recovery_folder();  ///< autosaves

}  // namespace jig::app
