#include "drawing/image_bytes.h"

#include "drawing/png_stream.h"

#include <csetjmp>

namespace coulter {
namespace {

png_byte plain(std::uint32_t premultiplied, std::uint32_t alpha) {
    return static_cast<png_byte>(alpha == 0 ? 0 : (premultiplied * 255 + alpha / 2) / alpha);
}

} // namespace

std::string encodePng(const ImageItem& image) {
    std::string out;
    std::vector<png_byte> row(static_cast<std::size_t>(image.width) * 4);
    png_structp png = startPng(out);
    png_infop info = png_create_info_struct(png);
    if (setjmp(png_jmpbuf(png))) {
        png_destroy_write_struct(&png, &info);
        return {};
    }
    png_set_IHDR(png, info, static_cast<png_uint_32>(image.width), static_cast<png_uint_32>(image.height), 8,
                 PNG_COLOR_TYPE_RGB_ALPHA, PNG_INTERLACE_NONE, PNG_COMPRESSION_TYPE_DEFAULT, PNG_FILTER_TYPE_DEFAULT);
    png_set_compression_level(png, 6);
    png_set_filter(png, 0, PNG_FILTER_SUB);
    png_write_info(png, info);
    for (int y = 0; y < image.height; ++y) {
        for (int x = 0; x < image.width; ++x) {
            const std::uint32_t pixel =
                image.pixels[static_cast<std::size_t>(y) * static_cast<std::size_t>(image.width) +
                             static_cast<std::size_t>(x)];
            const std::uint32_t alpha = pixel >> 24;
            png_byte* const to = row.data() + 4 * static_cast<std::size_t>(x);
            to[0] = plain(pixel >> 16 & 0xff, alpha);
            to[1] = plain(pixel >> 8 & 0xff, alpha);
            to[2] = plain(pixel & 0xff, alpha);
            to[3] = static_cast<png_byte>(alpha);
        }
        png_write_row(png, row.data());
    }
    png_write_end(png, nullptr);
    png_destroy_write_struct(&png, &info);
    return out;
}

std::string base64(const std::string& bytes) {
    static constexpr char letters[] = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
    std::string out;
    out.reserve((bytes.size() + 2) / 3 * 4);
    for (std::size_t i = 0; i < bytes.size(); i += 3) {
        std::uint32_t group = 0;
        for (std::size_t k = 0; k < 3; ++k)
            group = group << 8 | (i + k < bytes.size() ? static_cast<unsigned char>(bytes[i + k]) : 0U);
        for (std::size_t k = 0; k < 4; ++k) out += i + k > bytes.size() ? '=' : letters[group >> (18 - 6 * k) & 63];
    }
    return out;
}

} // namespace coulter
