// Longer work that the window sends off and does not wait for: one at a time, told where it is, stopped at
// once.
#pragma once

#include <QObject>
#include <QString>

#include <functional>
#include <memory>
#include <thread>

#include "core/base/progress.hpp"

namespace jig::app {

class Errand : public QObject {
    Q_OBJECT
  public:
    /// What is left to do on the interface thread once the work has come back; returns what to say.
    using Homecoming = std::function<QString()>;
    /// Runs on a thread of its own: touches nothing of the window's, throws InputError or Cancelled.
    using Work = std::function<Homecoming(Progress&)>;

    explicit Errand(QObject* parent = nullptr) : QObject(parent) {}
    /// Stops what is on its way and waits for it.
    ~Errand() override;

    /// False, and nothing done, while another errand is on its way.
    bool send(Work work);
    [[nodiscard]] bool away() const { return running_ != nullptr; }
    void stop();

  signals:
    void progressed(double fraction, const QString& doing);
    /// Always comes once after `send`, with what to say.
    void back(const QString& message);

  private:
    std::shared_ptr<Progress> running_;
    std::thread thread_;
};

/// An input error as a sentence for the foot of the window.
QString message_of(const InputError& error);

}  // namespace jig::app
