#include "command/interruption.h"

#include "command/commands.h"

#include <csignal>
#include <unistd.h>

namespace coulter {
namespace {

/// By this one the waiting thread itself is asked to end.
constexpr int enough = SIGUSR2;

sigset_t awaited() {
    sigset_t set;
    sigemptyset(&set);
    for (const int signal : {SIGINT, SIGTERM, enough}) sigaddset(&set, signal);
    return set;
}

} // namespace

// Handlers may do next to nothing; a thread that waits for the signals may do everything. Threads that are started
// later inherit the blocked signals.
Interruption::Interruption() {
    const sigset_t set = awaited();
    ::pthread_sigmask(SIG_BLOCK, &set, nullptr);
    waiter_ = std::jthread([this] {
        const sigset_t waited = awaited();
        for (int signal = 0; ::sigwait(&waited, &signal) == 0 && signal != enough;) {
            if (source_.stop_requested()) ::_exit(statusInterrupted);
            source_.request_stop();
        }
    });
}

Interruption::~Interruption() {
    ::pthread_kill(waiter_.native_handle(), enough);
    waiter_.join();
    const sigset_t set = awaited();
    ::pthread_sigmask(SIG_UNBLOCK, &set, nullptr);
}

} // namespace coulter
