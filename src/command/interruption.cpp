#include "command/interruption.h"

#include "command/commands.h"

#include <csignal>
#include <ctime>
#include <unistd.h>

namespace coulter {
namespace {

sigset_t ends() {
    sigset_t set;
    sigemptyset(&set);
    sigaddset(&set, SIGINT);
    sigaddset(&set, SIGTERM);
    return set;
}

} // namespace

// Handlers may do next to nothing; a thread that waits for the signals may do everything. Threads that are started
// later inherit the blocked signals.
Interruption::Interruption() {
    const sigset_t set = ends();
    ::pthread_sigmask(SIG_BLOCK, &set, nullptr);
    waiter_ = std::jthread([this](const std::stop_token& quit) {
        const sigset_t waited = ends();
        const timespec now_and_then{0, 50'000'000};
        while (!quit.stop_requested()) {
            if (::sigtimedwait(&waited, nullptr, &now_and_then) < 0) continue;
            if (source_.stop_requested()) ::_exit(statusInterrupted);
            source_.request_stop();
        }
    });
}

Interruption::~Interruption() {
    waiter_.request_stop();
    waiter_.join();
    const sigset_t set = ends();
    ::pthread_sigmask(SIG_UNBLOCK, &set, nullptr);
}

} // namespace coulter
