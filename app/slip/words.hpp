// The core's own words as cells and lists of a table.
#pragma once

#include <optional>
#include <QStringList>
#include <string_view>

#include "core/base/fields.hpp"

namespace jig::app {

inline QString text_of(std::string_view s) {
    return QString::fromUtf8(s.data(), static_cast<qsizetype>(s.size()));
}

/// What each value of an enum is called.
template <class E>
QStringList words_all() {
    QStringList out;
    for (const auto& w : Words<E>::all) out << text_of(w.said);
    return out;
}

/// Sets `into` to the value that is called `text`; why not, where none is.
template <class E>
std::optional<QString> pick(E& into, const QString& text) {
    const auto all = words_all<E>();
    const auto i = all.indexOf(text);
    if (i < 0) return QString("\"%1\" is none of: %2").arg(text, all.join(", "));
    into = static_cast<E>(i);
    return std::nullopt;
}

}  // namespace jig::app
