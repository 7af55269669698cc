#pragma once
#include "composition/figure_watch.h"

#include <chrono>
#include <mutex>
#include <string>

namespace coulter {

/// Shows on a terminal what is being worked on: one line, written over again and again, and gone at the end. Shows
/// nothing where standard error is no terminal.
class Progress {
public:
    explicit Progress(std::string about);
    ~Progress();
    /// Tells of the stages of a figure here.
    FigureWatch watch();
    void show(std::string_view doing, std::size_t done, std::size_t all);

private:
    std::string about_, doing_;
    bool terminal_;
    bool shown_ = false;
    std::mutex mutex_;
    std::chrono::steady_clock::time_point last_{};
};

} // namespace coulter
