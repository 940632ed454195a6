// Work behind the window.
#pragma once

#include <sys/resource.h>
#include <sys/syscall.h>
#include <unistd.h>

namespace jig::app {

/// Lets this thread, and those that it begins, take what the interface and the graphics' own threads leave:
/// what is seen and typed goes first. Where the system does not let it, all go alike.
inline void go_behind() {
    constexpr int kNice = 10;
    setpriority(PRIO_PROCESS, static_cast<id_t>(syscall(SYS_gettid)), kNice);
}

}  // namespace jig::app
