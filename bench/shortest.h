#pragma once
#include <algorithm>
#include <chrono>
#include <cmath>
#include <functional>

/// The shortest of several runs, ms.
inline double milliseconds(const std::function<void()>& work) {
    double least = HUGE_VAL;
    for (int run = 0; run < 7; ++run) {
        const auto start = std::chrono::steady_clock::now();
        work();
        least = std::min(least,
                         std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - start).count());
    }
    return least;
}
