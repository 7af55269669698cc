#pragma once
#include "drawing/scene.h"

#include <string>

namespace coulter {

/// The dots of an image as a PNG file with opacity; empty if it cannot be made.
std::string encodePng(const ImageItem& image);

/// Bytes as text (RFC 4648, section 4).
std::string base64(const std::string& bytes);

} // namespace coulter
