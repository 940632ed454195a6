#include "app/window/exports.hpp"

#include <QDir>
#include <QFileInfo>

#include "app/window/exports/common.hpp"

namespace jig::app {

const std::vector<Export>& exports() {
    static const std::vector<Export> all = [] {
        std::vector<Export> out;
        for (auto part : {exports_of_run(), exports_of_shape(), exports_of_split(), exports_of_plug(),
                          exports_of_tool(), exports_of_part(), exports_of_bag()})
            out.insert(out.end(), part.begin(), part.end());
        return out;
    }();
    return all;
}

QString sheets_missing(const Findings& findings) {
    return findings.complete() ? QString() : "mend the stops on the job card first";
}

std::optional<QPageSize::PageSizeId> tiles_by(const QString& filter) {
    if (filter.contains("A4")) return QPageSize::A4;
    if (filter.contains("Letter")) return QPageSize::Letter;
    return {};
}

QStringList in_the_way(const Export& what, const QString& path) {
    const QFileInfo named(path);
    if (!what.numbered) return named.exists() ? QStringList{named.fileName()} : QStringList{};
    QStringList out;
    for (const auto& file : QDir(named.path()).entryList({named.completeBaseName() + "-*"}, QDir::Files)) {
        const auto ending = QFileInfo(file).suffix();
        if (ending == named.suffix() || (named.suffix() == "dxf" && ending == "svg")) out << file;
    }
    return out;
}

}  // namespace jig::app
