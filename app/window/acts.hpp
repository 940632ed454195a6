// Everything that can be done by name: menus, keys, the palette and the page of keys read one list.
#pragma once

#include <functional>
#include <optional>
#include <QKeySequence>
#include <QList>
#include <QString>
#include <vector>

#include "core/stages/stage.hpp"

namespace jig::app {

struct Act {
    /// Where it stands: what is done with the file, what is put out, how it looks, or in the palette alone.
    enum class Menu { job, sheets, look, none };
    const char* key;
    QString name;
    QList<QKeySequence> keys;
    Menu menu = Menu::none;
    std::function<void()> go;
    std::optional<Stage> of = {};                ///< the stage whose sheet it is
    std::function<QString()> why_not = nullptr;  ///< why it does not fit now; empty where it does
};

/// A key that a part of the window knows by itself.
struct OwnKey {
    const char* where;
    const char* keys;
    const char* does;
};
[[nodiscard]] const std::vector<OwnKey>& own_keys();

}  // namespace jig::app
