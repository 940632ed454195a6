// The application object: nothing that goes wrong inside an event takes the window down with the job in it.
#pragma once

#include <functional>
#include <QApplication>

namespace jig::app {

class Application : public QApplication {
  public:
    /// Numbers in files are written with a point, whatever the system's language writes: C's own functions,
    /// which libraries read SVG and PDF by, are put back to that after Qt has taken the system's.
    Application(int& argc, char** argv);
    /// Called with what failed, on the interface's thread, once a failure.
    void on_failure(std::function<void(const QString&)> say) { say_ = std::move(say); }
    bool notify(QObject* receiver, QEvent* event) override;

  private:
    void failed(const QString& words);
    std::function<void(const QString&)> say_;
    bool saying_ = false;
};

}  // namespace jig::app
