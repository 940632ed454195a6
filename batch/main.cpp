// jigshell-batch: the headless command.
#include <unistd.h>

#include <csignal>
#include <iostream>

#include "batch/verbs.hpp"

namespace {

/// The one thing a signal handler may reach.
jig::Progress* running = nullptr;

void on_interrupt(int) {
    if (running != nullptr) running->stop();
}

}  // namespace

int main(int argc, char** argv) {
    const bool terminal = ::isatty(STDERR_FILENO) == 1;
    jig::Progress progress(terminal ? jig::Progress::Listener([](double fraction, std::string_view doing) {
        std::cerr << "\r\033[K" << static_cast<int>(100 * fraction) << " % " << doing << std::flush;
    })
                                    : jig::Progress::Listener());
    running = &progress;
    std::signal(SIGINT, on_interrupt);
    const int code = jig::batch::run({argv + 1, argv + argc}, std::cout, std::cerr, progress);
    if (terminal) std::cerr << "\r\033[K" << std::flush;
    return code;
}
