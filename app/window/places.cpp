#include "app/window/places.hpp"

#include <QCoreApplication>
#include <QFileInfo>
#include <QStandardPaths>

namespace jig::app {
namespace {

QString first_that_exists(std::initializer_list<QString> places) {
    for (const auto& place : places) {
        if (QFileInfo::exists(place)) return place;
    }
    return {};
}

}  // namespace

QString data_folder() {
    if (qEnvironmentVariableIsSet("JIGSHELL_DATA")) return qEnvironmentVariable("JIGSHELL_DATA");
    return first_that_exists(
        {QCoreApplication::applicationDirPath() + "/../share/jigshell", QStringLiteral(JIG_SOURCE_DATA)});
}

QString handbook_folder() {
    return first_that_exists({QCoreApplication::applicationDirPath() + "/../share/doc/jigshell/handbook",
                              QStringLiteral(JIG_SOURCE_DATA "/../docs/handbook")});
}

namespace {
constexpr const char* kChosen = "own-library";
}

void take_library(const QString& folder) {
    qApp->setProperty(kChosen, folder);
}

QString own_library() {
    const auto chosen = qApp != nullptr ? qApp->property(kChosen).toString() : QString();
    if (!chosen.isEmpty()) return chosen;
    return QStandardPaths::writableLocation(QStandardPaths::GenericConfigLocation) + "/jigshell/library";
}

QString recovery_folder() {
    return QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) + "/jigshell/recovery";
}

Shop shop_on_disk() {
    return load_shop(data_folder().toStdString() + "/library", own_library().toStdString());
}

}  // namespace jig::app
