#include "command/progress.h"

#include <fmt/format.h>
#include <unistd.h>

namespace coulter {

Progress::Progress(std::string about) : about_(std::move(about)), terminal_(::isatty(STDERR_FILENO) == 1) {}

Progress::~Progress() {
    if (shown_) fmt::print(stderr, "\r\033[K");
}

FigureWatch Progress::watch() {
    FigureWatch watch;
    if (!terminal_) return watch;
    watch.stage = [this](std::string_view doing, std::size_t done, std::size_t all) { show(doing, done, all); };
    watch.proving = [this](std::size_t, std::size_t, std::size_t, const CurveSamples& soFar) {
        show("proving", static_cast<std::size_t>(100 * soFar.certificate.share()), 100);
    };
    return watch;
}

void Progress::show(std::string_view doing, std::size_t done, std::size_t all) {
    if (!terminal_) return;
    const std::scoped_lock lock(mutex_);
    const auto now = std::chrono::steady_clock::now();
    // A line that changes faster cannot be read; but each stage is named.
    if (doing == doing_ && now - last_ < std::chrono::milliseconds(100)) return;
    last_ = now;
    doing_ = doing;
    shown_ = true;
    fmt::print(stderr, "\r\033[K{}: {}{}", about_, doing, all > 0 ? fmt::format(", {} of {}", done, all) : "");
    std::fflush(stderr);
}

} // namespace coulter
