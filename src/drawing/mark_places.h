#pragma once
#include "drawing/scene.h"

#include <functional>
#include <span>
#include <vector>

namespace coulter {

/// Where marks stand on the sheet, told part by part: millions of them need no memory of their own, and each core asks
/// for its own part.
struct MarkPlaces {
    std::size_t count = 0;
    /// Writes the places from `begin` on, as many as there is room for. Called from several threads.
    std::function<void(std::size_t begin, std::span<Point> into)> tell;
};

/// The same of places that are all there, which must outlive it.
inline MarkPlaces marksAt(const std::vector<Point>& places) {
    return {places.size(), [&places](std::size_t begin, std::span<Point> into) {
                for (std::size_t i = 0; i < into.size(); ++i) into[i] = places[begin + i];
            }};
}

} // namespace coulter
