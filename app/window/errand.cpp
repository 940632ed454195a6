#include "app/window/errand.hpp"

#include "app/document/behind.hpp"
#include "app/document/seldom.hpp"

namespace jig::app {

QString message_of(const InputError& e) {
    return QString::fromStdString(e.where() + ": " + e.problem() + ". To mend it: " + e.mend() + ".");
}

Errand::~Errand() {
    stop();
    if (thread_.joinable()) thread_.join();
}

void Errand::stop() {
    if (running_) running_->stop();
}

bool Errand::send(Work work) {
    if (running_) return false;
    if (thread_.joinable()) thread_.join();
    // Queued calls to a QObject that is gone are dropped by Qt, so a window closed meanwhile hears nothing.
    running_ = std::make_shared<Progress>(
        [this, seldom = std::make_shared<Seldom>()](double fraction, std::string_view doing) {
            if (!seldom->due()) return;
            const auto words = QString::fromUtf8(doing.data(), static_cast<qsizetype>(doing.size()));
            QMetaObject::invokeMethod(
                this, [this, fraction, words] { emit progressed(fraction, words); }, Qt::QueuedConnection);
        });
    thread_ = std::thread([this, work = std::move(work), progress = running_] {
        go_behind();
        Homecoming home;
        try {
            home = work(*progress);
        } catch (const InputError& e) {
            home = [words = message_of(e)] { return words; };
        } catch (const Cancelled&) {
            home = [] { return QString("Stopped: the job is as it was."); };
        } catch (const std::exception& e) {
            home = [words = QString("That could not be done: ") + e.what()] { return words; };
        }
        QMetaObject::invokeMethod(
            this,
            [this, home = std::move(home)] {
                // Whatever coming home runs into, the way is free for the next.
                QString message;
                try {
                    message = home();
                } catch (const InputError& e) {
                    message = message_of(e);
                } catch (const std::exception& e) {
                    message = QString("That could not be done: ") + e.what();
                }
                running_.reset();
                emit back(message);
            },
            Qt::QueuedConnection);
    });
    return true;
}

}  // namespace jig::app
