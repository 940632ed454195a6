#include "app/stages/part/piece_words.hpp"

#include "core/stages/edge/flange.hpp"
#include "core/stages/part/zone.hpp"

namespace jig::app {
namespace {

const QString kEach = "each";

/// None where it is neither of the words nor a number of a piece.
std::optional<int> read_piece(const QString& text, const QStringList& names) {
    if (text.compare(kEach, Qt::CaseInsensitive) == 0) return 0;
    for (int i = 0; i < names.size(); ++i) {
        if (text.compare(names[i], Qt::CaseInsensitive) == 0) return i + 1;
    }
    auto number = text;
    if (number.startsWith("piece ", Qt::CaseInsensitive)) number = number.mid(6);
    bool read = false;
    const int piece = number.toInt(&read);
    if (!read || piece < 0 || piece > part::kMostPieces) return std::nullopt;
    return piece;
}

}  // namespace

QStringList piece_names(const Document& document) {
    QStringList out;
    const auto& split = document.findings().split;
    if (!split) return out;
    for (const auto& facts : split->facts) out << QString::fromStdString(facts.name);
    return out;
}

QString piece_said(int piece, const QStringList& names) {
    if (piece == 0) return kEach;
    return piece <= names.size() ? names[piece - 1] : QString("piece %1").arg(piece);
}

std::optional<QString> type_piece(const QString& text, const QStringList& names, int& piece) {
    const auto read = read_piece(text, names);
    if (!read)
        return QString("\"%1\" is no piece of the mould: %2").arg(text, piece_choices(names).join(", "));
    piece = *read;
    return std::nullopt;
}

QStringList piece_choices(const QStringList& names) {
    return QStringList(kEach) + names;
}

int piece_shown(const Document& document) {
    const auto& split = document.findings().split;
    if (!split || split->one_piece()) return 0;
    return static_cast<int>(edge::chosen_piece(document.job().edge.piece, *split)) + 1;
}

}  // namespace jig::app
