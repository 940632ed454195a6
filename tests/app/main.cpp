// Runs the window tests inside one QApplication with folders of its own.
#include <QTemporaryDir>

#include "app/theme/ink.hpp"
#include "app/window/application.hpp"
#include "app/window/places.hpp"
#include "tests/app/crash.hpp"
#include "tests/run_catch.hpp"

int main(int argc, char** argv) {
    const QTemporaryDir home;
    if (!qEnvironmentVariableIsSet(crash::kFolder)) {
        qputenv("XDG_CONFIG_HOME", (home.path() + "/config").toUtf8());
        qputenv("XDG_DATA_HOME", (home.path() + "/data").toUtf8());
    }
    jig::app::Application application(argc, argv);
    // What fails inside an event fails the run.
    application.on_failure([](const QString& words) { qFatal("inside an event: %s", qPrintable(words)); });
    QApplication::setOrganizationName("jigshell");
    QApplication::setApplicationName("jigshell-tests");
    jig::app::load_fonts(jig::app::data_folder() + "/fonts");
    if (qEnvironmentVariableIsSet(crash::kFolder)) return crash::work_until_killed();
    return run_catch(argc, argv);
}
