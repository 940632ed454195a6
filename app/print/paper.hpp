// What all that is printed shares.
#pragma once

#include <QByteArray>
#include <QPdfWriter>

namespace jig::app {

/// Beside and renamed: a sheet that cannot be written leaves the last good one. Throws InputError.
void write_bytes(const QByteArray& bytes, const QString& path);

void set_up(QPdfWriter& writer, const QPageSize& size, double margin_mm, const QString& title,
            int resolution);

}  // namespace jig::app
