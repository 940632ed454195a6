#include "app/stages/part/corners.hpp"

#include <cmath>
#include <QStringList>

#include "app/slip/sentence.hpp"

namespace jig::app {

QString corners_text(const std::vector<part::Spot>& corners, const Wording& wording) {
    const auto number = [&](double v) {
        // As exact as it was typed, without a tail of rounding.
        return QString::number(number_of(show_for_edit(Kind::length, v, wording)), 'g', 10);
    };
    QStringList out;
    for (const auto& s : corners) out += number(s.along) + " : " + number(s.across);
    return out.join("; ");
}

std::optional<std::vector<part::Spot>> read_corners(const QString& text, const Wording& wording,
                                                    QString& why) {
    std::vector<part::Spot> out;
    for (const auto& pair : text.split(';', Qt::SkipEmptyParts)) {
        if (pair.trimmed().isEmpty()) continue;
        const auto numbers = pair.split(':');
        const auto read = [&](int i) {
            return read_quantity(Kind::length, numbers.value(i).trimmed().toStdString(), wording);
        };
        const auto along = read(0), across = read(1);
        if (numbers.size() != 2 || !along || !across || std::abs(*along) > 50 || std::abs(*across) > 50) {
            why = QString("\"%1\" is no corner: type along : across, as -120 : 40").arg(pair.trimmed());
            return {};
        }
        out.push_back({*along, *across});
    }
    return out;
}

}  // namespace jig::app
