#include "app/window/application.hpp"

#include <clocale>
#include <exception>
#include <QTimer>

#include "core/base/error.hpp"

namespace jig::app {

Application::Application(int& argc, char** argv) : QApplication(argc, argv) {
    std::setlocale(LC_NUMERIC, "C");
}

bool Application::notify(QObject* receiver, QEvent* event) {
    try {
        return QApplication::notify(receiver, event);
    } catch (const Cancelled&) {
        // Somebody stopped it: nobody is told.
    } catch (const std::exception& e) {
        failed(QString::fromUtf8(e.what()));
    } catch (...) {
        failed("something that has no words");
    }
    return true;
}

void Application::failed(const QString& words) {
    if (!say_ || saying_) return;
    saying_ = true;
    // Not from within the event that failed: what says it paints too.
    QTimer::singleShot(0, this, [this, words] {
        saying_ = false;
        say_(words);
    });
}

}  // namespace jig::app
