#pragma once
#include <png.h>
#include <string_view>

namespace coulter {

/// The bytes of a PNG file, as libpng takes them one after the other.
struct PngSource {
    std::string_view bytes;
    std::size_t at = 0;
};

/// A reader of these bytes, which it must not outlive; null if there is no memory. What goes wrong jumps to the
/// caller's `setjmp(png_jmpbuf(…))`.
png_structp startReadingPng(PngSource& source);

} // namespace coulter
