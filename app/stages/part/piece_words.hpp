// On which piece of the mould something lies, in words.
#pragma once

#include <algorithm>
#include <optional>
#include <QStringList>

#include "app/document/document.hpp"

namespace jig::app {

/// What the pieces of the mould are called, in their order; none where it is one.
QStringList piece_names(const Document& document);

/// "each" for 0, else the piece's name; its number where the mould has no such piece.
QString piece_said(int piece, const QStringList& names);

/// Sets the piece by what was typed; why not, where that cannot be read.
std::optional<QString> type_piece(const QString& text, const QStringList& names, int& piece);

/// All that may be said.
QStringList piece_choices(const QStringList& names);

/// Number of the piece that Edge shows; 0 where the mould is one.
int piece_shown(const Document& document);

/// Whether there is anything to say: the mould is in pieces, or one of these is for a piece by its number.
template <class Records>
bool piece_matters(const Document& document, const Records& records) {
    return !piece_names(document).isEmpty() ||
           std::any_of(records.begin(), records.end(), [](const auto& r) { return r.piece != 0; });
}

}  // namespace jig::app
