#include "core/base/child.hpp"

#include <fcntl.h>
#include <poll.h>
#include <signal.h>
#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>

#include <array>
#include <cerrno>
#include <charconv>
#include <filesystem>

namespace jig {
namespace {

/// Both ends of a pipe, closed when they go.
struct Pipe {
    std::array<int, 2> end{-1, -1};
    Pipe() {
        if (::pipe2(end.data(), O_CLOEXEC) != 0) end = {-1, -1};
    }
    Pipe(const Pipe&) = delete;
    Pipe& operator=(const Pipe&) = delete;
    ~Pipe() {
        close(0);
        close(1);
    }
    void close(std::size_t which) {
        if (end[which] >= 0) ::close(end[which]);
        end[which] = -1;
    }
};

/// The last whole number line of what came.
void tell(std::string& words, Progress& progress, std::string_view doing) {
    for (auto line = words.find('\n'); line != std::string::npos; line = words.find('\n')) {
        double fraction = -1;
        std::from_chars(words.data(), words.data() + line, fraction);
        words.erase(0, line + 1);
        if (fraction >= 0 && fraction <= 1 && !progress.stopped()) progress.report(fraction, doing);
    }
}

}  // namespace

std::string program_beside(const std::string& name) {
    std::error_code none;
    const auto here = std::filesystem::read_symlink("/proc/self/exe", none).parent_path();
    for (const auto& place : {here / name, here.parent_path() / name, here.parent_path() / "bin" / name}) {
        if (std::filesystem::is_regular_file(place, none)) return place.string();
    }
    return {};
}

ChildEnd run_child(const std::vector<std::string>& words, const std::string& in,
                   std::chrono::milliseconds most, Progress& progress, std::string_view doing) {
    progress.check();
    Pipe to, from, said;
    posix_spawn_file_actions_t streams;
    posix_spawn_file_actions_init(&streams);
    posix_spawn_file_actions_adddup2(&streams, to.end[0], STDIN_FILENO);
    posix_spawn_file_actions_adddup2(&streams, from.end[1], STDOUT_FILENO);
    posix_spawn_file_actions_adddup2(&streams, said.end[1], STDERR_FILENO);
    std::vector<char*> argv;
    for (const auto& w : words) argv.push_back(const_cast<char*>(w.c_str()));
    argv.push_back(nullptr);
    // A group of its own, so that what it starts in turn ends with it.
    posix_spawnattr_t group;
    posix_spawnattr_init(&group);
    posix_spawnattr_setflags(&group, POSIX_SPAWN_SETPGROUP);
    posix_spawnattr_setpgroup(&group, 0);
    pid_t child = 0;
    const bool started =
        ::posix_spawn(&child, words.front().c_str(), &streams, &group, argv.data(), environ) == 0;
    posix_spawnattr_destroy(&group);
    posix_spawn_file_actions_destroy(&streams);
    ChildEnd end;
    if (!started) return end;
    to.close(0);
    from.close(1);
    said.close(1);
    ::fcntl(to.end[1], F_SETFL, O_NONBLOCK);
    // A child that ends before it has read all must not end us.
    struct sigaction ignore {};
    struct sigaction before {};
    ignore.sa_handler = SIG_IGN;
    ::sigaction(SIGPIPE, &ignore, &before);
    std::size_t given = 0;
    std::string told;
    const auto until = std::chrono::steady_clock::now() + most;
    while (from.end[0] >= 0 || said.end[0] >= 0) {
        if (given == in.size()) to.close(1);
        std::array<pollfd, 3> watch{
            {{from.end[0], POLLIN, 0}, {said.end[0], POLLIN, 0}, {to.end[1], POLLOUT, 0}}};
        ::poll(watch.data(), watch.size(), 50);
        std::array<char, 65536> buffer;
        const auto read = [&](Pipe& pipe, const pollfd& w, std::string& into) {
            if (w.fd < 0 || w.revents == 0) return;
            const auto n = ::read(w.fd, buffer.data(), buffer.size());
            if (n > 0)
                into.append(buffer.data(), static_cast<std::size_t>(n));
            else if (n == 0 || errno != EINTR)
                pipe.close(0);
        };
        read(from, watch[0], end.out);
        read(said, watch[1], told);
        if (watch[2].fd >= 0 && (watch[2].revents & (POLLOUT | POLLERR)) != 0) {
            const auto n = ::write(to.end[1], in.data() + given, in.size() - given);
            if (n > 0)
                given += static_cast<std::size_t>(n);
            else if (errno != EAGAIN && errno != EINTR)
                given = in.size();
        }
        tell(told, progress, doing);
        end.late = std::chrono::steady_clock::now() > until;
        if (end.late || progress.stopped()) {
            ::kill(-child, SIGKILL);
            break;
        }
    }
    int status = 0;
    while (::waitpid(child, &status, 0) < 0 && errno == EINTR) {
    }
    ::sigaction(SIGPIPE, &before, nullptr);
    if (WIFEXITED(status)) end.code = WEXITSTATUS(status);
    end.late |= WIFSIGNALED(status) && WTERMSIG(status) == SIGXCPU;
    progress.check();
    return end;
}

}  // namespace jig
