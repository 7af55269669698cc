// Pictures in PNG (ISO/IEC 15948), read by libpng as numbers. See picture_numbers.h.
#include "data/picture_numbers.h"
#include "data/png_source.h"

#include <csetjmp>

namespace coulter {
namespace {

struct Header {
    png_uint_32 width = 0, height = 0;
    int bits = 0, colour = 0;
    png_uint_32 perMetreX = 0, perMetreY = 0;
};

/// What the file says of itself; false if it is damaged. Nothing with a destructor lives here.
bool readHeader(png_structp png, png_infop info, Header& header) {
    if (setjmp(png_jmpbuf(png))) return false;
    png_read_info(png, info);
    header.width = png_get_image_width(png, info);
    header.height = png_get_image_height(png, info);
    header.bits = png_get_bit_depth(png, info);
    header.colour = png_get_color_type(png, info);
    int unit = 0;
    if (png_get_pHYs(png, info, &header.perMetreX, &header.perMetreY, &unit) == 0 || unit != PNG_RESOLUTION_METER)
        header.perMetreX = header.perMetreY = 0;
    return true;
}

bool readRows(png_structp png, png_infop info, const Header& header, std::vector<png_byte>& bytes,
              std::vector<png_bytep>& rows) {
    if (setjmp(png_jmpbuf(png))) return false;
    if (header.colour == PNG_COLOR_TYPE_PALETTE) png_set_palette_to_rgb(png);
    if (header.bits < 8) png_set_packing(png); // each number as it is, in a byte of its own
    png_set_interlace_handling(png);
    png_read_update_info(png, info);
    const std::size_t row = png_get_rowbytes(png, info);
    bytes.resize(row * header.height);
    for (std::size_t i = 0; i < rows.size(); ++i) rows[i] = bytes.data() + i * row;
    png_read_image(png, rows.data());
    png_read_end(png, nullptr);
    return true;
}

} // namespace

PictureNumbers readPng(std::string_view bytes, const std::string& channel) {
    PictureNumbers picture;
    PngSource source{bytes};
    png_structp png = startReadingPng(source);
    png_infop info = png ? png_create_info_struct(png) : nullptr;
    const auto end = [&](std::string trouble) {
        png_destroy_read_struct(&png, &info, nullptr);
        picture.trouble = std::move(trouble);
        return std::move(picture);
    };
    if (!info) return end("There is not enough memory to read it.");
    png_set_user_limits(png, 1'000'000, 1'000'000);
    Header header;
    const std::string damaged = "The picture is damaged: it does not read as PNG to its end.";
    if (!readHeader(png, info, header)) return end(damaged);
    picture.width = header.width;
    picture.height = header.height;
    if (!fitsPage(picture)) return end(picture.trouble);
    const bool colours = (header.colour & PNG_COLOR_MASK_COLOR) != 0,
               opacity = (header.colour & PNG_COLOR_MASK_ALPHA) != 0;
    picture.channels = colours ? std::vector<std::string>{"red", "green", "blue"} : std::vector<std::string>{"grey"};
    const std::size_t shown = picture.channels.size();
    std::vector<png_byte> raster;
    std::vector<png_bytep> rows(header.height);
    if (!readRows(png, info, header, raster, rows)) return end(damaged);
    const std::size_t count = picture.width * picture.height;
    const std::size_t perDot = shown + (opacity ? 1 : 0), bytesEach = header.bits == 16 ? 2 : 1;
    if (raster.size() < count * perDot * bytesEach) return end(damaged);
    const auto number = [&](std::size_t dot, std::size_t k) {
        const png_byte* at = raster.data() + (dot * perDot + k) * bytesEach;
        return bytesEach == 2 ? at[0] * 256.0 + at[1] : static_cast<double>(at[0]);
    };
    bool isGrey = channel.empty() && colours;
    for (std::size_t i = 0; i < count && isGrey; ++i)
        isGrey = number(i, 0) == number(i, 1) && number(i, 1) == number(i, 2);
    if (isGrey) picture.channels = {"grey"};
    const std::size_t wanted = channelOf(picture, channel);
    if (wanted == picture.channels.size()) return end(picture.trouble);
    picture.numbers.resize(count);
    for (std::size_t i = 0; i < count; ++i) picture.numbers[i] = number(i, wanted);
    if (header.perMetreX > 0 && header.perMetreY > 0)
        picture.pitch = {1000.0 / header.perMetreX, 1000.0 / header.perMetreY};
    picture.format = "PNG, " + std::to_string(header.bits) + " bits";
    return end("");
}

} // namespace coulter
