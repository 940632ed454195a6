#include "app/window/settings.hpp"

#include <algorithm>

#include <QApplication>
#include <QDir>
#include <QFileInfo>
#include <QLocale>
#include <QPalette>
#include <QSettings>

namespace jig::app {
namespace {

constexpr int kRecent = 8;
/// The text size of a desktop that nobody has changed.
constexpr double kUsualPoints = 10;

}  // namespace

QStringList recent_jobs() {
    auto all = QSettings().value("recent").toStringList();
    all.erase(std::remove_if(all.begin(), all.end(), [](const QString& f) { return !QFileInfo::exists(f); }),
              all.end());
    return all;
}

void remember_job(const QString& path) {
    const auto whole = QFileInfo(path).absoluteFilePath();
    auto all = QSettings().value("recent").toStringList();
    all.removeAll(whole);
    all.prepend(whole);
    QSettings().setValue("recent", QStringList(all.mid(0, kRecent)));
    remember_folder(whole);
}

QString last_folder() {
    const auto kept = QSettings().value("folder").toString();
    return QFileInfo(kept).isDir() ? kept : QDir::homePath();
}

void remember_folder(const QString& path) {
    const QFileInfo info(path);
    QSettings().setValue("folder", info.isDir() ? info.absoluteFilePath() : info.absolutePath());
}

Wording kept_wording() {
    const QSettings settings;
    Wording wording;
    const bool system = QLocale::system().measurementSystem() != QLocale::MetricSystem;
    wording.system = settings.value("imperial", system).toBool() ? UnitSystem::imperial : UnitSystem::metric;
    wording.currency =
        settings.value("currency", QString::fromStdString(wording.currency)).toString().toStdString();
    return wording;
}

void keep_wording(const Wording& wording) {
    QSettings settings;
    settings.setValue("imperial", wording.system == UnitSystem::imperial);
    settings.setValue("currency", QString::fromStdString(wording.currency));
}

Light kept_light() {
    const auto& system = QApplication::palette();
    const bool dark =
        system.color(QPalette::Window).lightness() < system.color(QPalette::WindowText).lightness();
    return QSettings().value("night", dark).toBool() ? Light::night : Light::day;
}

void keep_light(Light light) {
    QSettings().setValue("night", light == Light::night);
}

double kept_text_scale() {
    static const double system = [] {
        const double points = QApplication::font().pointSizeF();
        return points > 0 ? std::clamp(points / kUsualPoints, 0.8, 2.0) : 1.0;
    }();
    return QSettings().value("text", system).toDouble();
}

void keep_text_scale(double scale) {
    QSettings().setValue("text", scale);
}

std::optional<bool> kept_section(Stage stage) {
    const auto kept = QSettings().value(QString("section/%1").arg(name_of(stage).key));
    return kept.isValid() ? std::optional(kept.toBool()) : std::nullopt;
}

void keep_section(Stage stage, bool drawn) {
    QSettings().setValue(QString("section/%1").arg(name_of(stage).key), drawn);
}

}  // namespace jig::app
