#include "app/print/paper.hpp"

#include "core/job/job_file.hpp"

namespace jig::app {

void write_bytes(const QByteArray& bytes, const QString& path) {
    write_atomically(bytes.toStdString(), path.toStdString());
}

void set_up(QPdfWriter& writer, const QPageSize& size, double margin_mm, const QString& title,
            int resolution) {
    writer.setPageSize(size);
    writer.setPageMargins(QMarginsF(margin_mm, margin_mm, margin_mm, margin_mm), QPageLayout::Millimeter);
    writer.setResolution(resolution);
    writer.setCreator("Jig Shell");
    writer.setTitle(title);
}

}  // namespace jig::app
