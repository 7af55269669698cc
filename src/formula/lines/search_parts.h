#pragma once
#include "formula/page/page.h"

namespace coulter {

/// What a search found, or the problem that it could not be made.
struct SearchAnswer {
    Places places;
    Sought sought = Sought::Zeros;
    Problems problems;
};

/// Carries a problem out of a search; `searches.cpp` makes an answer of it.
struct SearchRefusal {
    Problem problem;
};

[[noreturn]] void refuseSearch(Span span, std::string sentence, std::string suggestion = "");

/// Where a search looks along its first or second variable: as the line says, or else as that of the page's variable.
Interval intervalOf(const Page& page, const Line& line, std::size_t variable);

} // namespace coulter
