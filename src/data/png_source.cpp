#include "data/png_source.h"

#include <cstring>

namespace coulter {
namespace {

void takeBytes(png_structp png, png_bytep data, png_size_t length) {
    auto* source = static_cast<PngSource*>(png_get_io_ptr(png));
    if (length > source->bytes.size() - source->at) png_error(png, "ends too early");
    std::memcpy(data, source->bytes.data() + source->at, length);
    source->at += length;
}
void ignore(png_structp, png_const_charp) {}
[[noreturn]] void leave(png_structp png, png_const_charp) { png_longjmp(png, 1); }

} // namespace

png_structp startReadingPng(PngSource& source) {
    png_structp png = png_create_read_struct(PNG_LIBPNG_VER_STRING, nullptr, leave, ignore);
    if (png) png_set_read_fn(png, &source, takeBytes);
    return png;
}

} // namespace coulter
