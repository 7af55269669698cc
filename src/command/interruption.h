#pragma once
#include <atomic>
#include <stop_token>
#include <thread>

namespace coulter {

/// While it lives, Ctrl+C and the request to end stop the work at hand instead of the program, so that nothing is left
/// half written. The second one ends the program at once.
class Interruption {
public:
    Interruption();
    ~Interruption();
    std::stop_token token() const { return source_.get_token(); }
    bool happened() const { return source_.stop_requested(); }

private:
    std::stop_source source_;
    std::jthread waiter_;
};

} // namespace coulter
