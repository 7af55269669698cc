#pragma once
#include <png.h>
#include <string>

namespace coulter {

/// A writer of a PNG file that appends to `out`; what goes wrong jumps to the caller's `setjmp(png_jmpbuf(…))`.
png_structp startPng(std::string& out);

} // namespace coulter
