#pragma once
#include <memory>
#include <new>
#include <utility>
#include <vector>

namespace coulter {

/// An allocator whose new numbers have no value yet: a large vector is written first by the threads that compute it,
/// not by the one that makes it.
template <typename T> struct LeavesUnset : std::allocator<T> {
    template <typename U> struct rebind { using other = LeavesUnset<U>; };
    template <typename U> void construct(U* at) noexcept { ::new (static_cast<void*>(at)) U; }
    template <typename U, typename... From> void construct(U* at, From&&... from) {
        ::new (static_cast<void*>(at)) U(std::forward<From>(from)...);
    }
};

/// Numbers of which every one is written after they were made or resized, before it is read.
using UnsetNumbers = std::vector<double, LeavesUnset<double>>;

} // namespace coulter
