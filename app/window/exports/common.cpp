#include "app/window/exports/common.hpp"

#include <algorithm>
#include <QFileInfo>

#include "core/job/job_file.hpp"
#include "core/science/mesh/mesh_file.hpp"

namespace jig::app {

QString written(const QString& path) {
    return "Written: " + path;
}

QString shape_there(const Job&, const Findings& f) {
    return f.shape ? QString() : "the shape has no figures yet";
}

QString went_to(const QString& path, std::size_t count, const QString& ending) {
    const QFileInfo named(path);
    const auto name = [&](std::size_t i) {
        return QString("%1-%2.%3").arg(named.completeBaseName()).arg(i).arg(ending);
    };
    return count == 1 ? QString("%1 in %2").arg(name(1), named.absolutePath())
                      : QString("%1 to %2 in %3").arg(name(1), name(count), named.absolutePath());
}

QString numbered(const QString& path, std::size_t i) {
    return QString("%1/%2-%3").arg(QFileInfo(path).path(), QFileInfo(path).completeBaseName()).arg(i + 1);
}

void write_sheets(const SheetSet& sheets, const QString& path, Progress& progress) {
    for (std::size_t i = 0; i < sheets.sheets.size(); ++i) {
        progress.report(static_cast<double>(i) / static_cast<double>(sheets.sheets.size()), "writing sheets");
        const auto name = numbered(path, i);
        write_sheet_dxf(sheets, i, (name + ".dxf").toStdString());
        write_atomically(sheet_svg(sheets, i), (name + ".svg").toStdString());
    }
}

QString said_of(const SheetSet& sheets, const Outgoing& out) {
    const auto& wording = out.wording;
    auto message = QString("%1 sheets written, %2 % of them used: %3")
                       .arg(sheets.sheets.size())
                       .arg(100 * sheets.yield, 0, 'f', 0)
                       .arg(went_to(out.path, sheets.sheets.size(), "dxf"));
    if (!sheets.too_large.empty())
        message += QString("; larger than a sheet: %1").arg(sheets.too_large.size());
    if (!sheets.offcuts.empty()) {
        const auto& best = *std::max_element(
            sheets.offcuts.begin(), sheets.offcuts.end(),
            [](const Offcut& a, const Offcut& b) { return a.length * a.width < b.length * b.width; });
        message += QString("; largest offcut %1 × %2")
                       .arg(QString::fromStdString(show(Kind::length, best.length, wording)),
                            QString::fromStdString(show(Kind::length, best.width, wording)));
    }
    return message;
}

QString write_meshes(const std::vector<TriangleMesh>& meshes, const char* what, const QString& path,
                     Progress& progress) {
    const auto ending = QFileInfo(path).suffix();
    for (std::size_t i = 0; i < meshes.size(); ++i) {
        progress.report(static_cast<double>(i) / static_cast<double>(meshes.size()), "writing meshes");
        const auto name = (numbered(path, i) + "." + ending).toStdString();
        write_atomically(write_mesh(meshes[i], name), name);
    }
    return QString("%1 %2 written: %3").arg(meshes.size()).arg(what, went_to(path, meshes.size(), ending));
}

}  // namespace jig::app
