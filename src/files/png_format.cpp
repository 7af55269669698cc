#include "coulter_version.h"
#include "drawing/cairo_painter.h"
#include "drawing/png_stream.h"
#include "files/formats.h"

#include <cmath>
#include <csetjmp>
#include <cstring>
#include <png.h>
#include <zlib.h>

namespace coulter {
namespace {

constexpr const char* keyword = "Coulter recipe";

struct Reader {
    std::string_view bytes;
    std::size_t at = 0;
};

void takeBytes(png_structp png, png_bytep data, png_size_t length) {
    auto* source = static_cast<Reader*>(png_get_io_ptr(png));
    if (length > source->bytes.size() - source->at) png_error(png, "ends too early");
    std::memcpy(data, source->bytes.data() + source->at, length);
    source->at += length;
}

void ignoreWarning(png_structp, png_const_charp) {}
[[noreturn]] void leave(png_structp png, png_const_charp) { png_longjmp(png, 1); }

} // namespace

std::string writePng(const Figure& figure, const std::string& recipe) {
    const Raster raster = paintRaster(figure.scene, figure.document.sheet.resolution / 25.4);
    if (raster.pixels.empty()) return {};
    std::string out;
    std::vector<png_byte> row(static_cast<std::size_t>(raster.width) * 3);
    std::string value = recipe; // libpng takes the text by pointer to non-const
    std::string name = keyword, software = "Software", version = std::string("Coulter ") + COULTER_VERSION;
    png_text texts[2] = {};
    texts[0].compression = PNG_TEXT_COMPRESSION_NONE;
    texts[0].key = software.data();
    texts[0].text = version.data();
    texts[1].compression = PNG_ITXT_COMPRESSION_NONE;
    texts[1].key = name.data();
    texts[1].text = value.data();
    char empty[1] = "";
    texts[1].lang = empty;
    texts[1].lang_key = empty;
    png_structp png = startPng(out);
    png_infop info = png_create_info_struct(png);
    if (setjmp(png_jmpbuf(png))) {
        png_destroy_write_struct(&png, &info);
        return {};
    }
    png_set_IHDR(png, info, static_cast<png_uint_32>(raster.width), static_cast<png_uint_32>(raster.height), 8,
                 PNG_COLOR_TYPE_RGB, PNG_INTERLACE_NONE, PNG_COMPRESSION_TYPE_DEFAULT, PNG_FILTER_TYPE_DEFAULT);
    const auto perMetre = static_cast<png_uint_32>(std::lround(figure.document.sheet.resolution / 0.0254));
    png_set_pHYs(png, info, perMetre, perMetre, PNG_RESOLUTION_METER);
    png_set_sRGB(png, info, PNG_sRGB_INTENT_RELATIVE);
    png_set_text(png, info, texts, 2);
    png_set_compression_level(png, 6);
    png_set_compression_strategy(png, Z_RLE); // mostly plain paper: twice as fast, and hardly larger
    png_set_filter(png, 0, PNG_FILTER_SUB);
    png_write_info(png, info);
    for (int y = 0; y < raster.height; ++y) {
        for (int x = 0; x < raster.width; ++x) {
            const std::uint32_t pixel =
                raster.pixels[static_cast<std::size_t>(y) * static_cast<std::size_t>(raster.width) +
                              static_cast<std::size_t>(x)];
            const auto at = static_cast<std::size_t>(x) * 3;
            row[at] = static_cast<png_byte>(pixel >> 16);
            row[at + 1] = static_cast<png_byte>(pixel >> 8);
            row[at + 2] = static_cast<png_byte>(pixel);
        }
        png_write_row(png, row.data());
    }
    png_write_end(png, nullptr);
    png_destroy_write_struct(&png, &info);
    return out;
}

bool isPng(std::string_view bytes) { return bytes.starts_with("\x89PNG\r\n\x1a\n"); }

std::optional<std::string> recipeInPng(std::string_view bytes) {
    Reader source{bytes, 0};
    std::optional<std::string> recipe;
    png_structp png = png_create_read_struct(PNG_LIBPNG_VER_STRING, nullptr, leave, ignoreWarning);
    png_infop info = png_create_info_struct(png);
    if (setjmp(png_jmpbuf(png))) {
        png_destroy_read_struct(&png, &info, nullptr);
        return std::nullopt;
    }
    png_set_read_fn(png, &source, takeBytes);
    png_read_info(png, info);
    png_textp texts = nullptr;
    int count = 0;
    png_get_text(png, info, &texts, &count);
    for (int i = 0; i < count; ++i) {
        if (std::strcmp(texts[i].key, keyword) == 0) recipe = texts[i].text;
    }
    png_destroy_read_struct(&png, &info, nullptr);
    return recipe;
}

} // namespace coulter
