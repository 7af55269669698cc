#pragma once
#include "formula/page/places.h"

#include <string>

namespace coulter {

/// "{3.14, 6.28}: all, proven", with all digits, or so many.
std::string describe(const Places& places, Sought sought, int digits = 17);

} // namespace coulter
