#include "drawing/png_stream.h"

#include <csetjmp>

namespace coulter {
namespace {

void appendBytes(png_structp png, png_bytep data, png_size_t length) {
    static_cast<std::string*>(png_get_io_ptr(png))->append(reinterpret_cast<const char*>(data), length);
}
void flushNothing(png_structp) {}
void ignoreWarning(png_structp, png_const_charp) {}
[[noreturn]] void leave(png_structp png, png_const_charp) { png_longjmp(png, 1); }

} // namespace

png_structp startPng(std::string& out) {
    png_structp png = png_create_write_struct(PNG_LIBPNG_VER_STRING, nullptr, leave, ignoreWarning);
    png_set_write_fn(png, &out, appendBytes, flushNothing);
    return png;
}

} // namespace coulter
