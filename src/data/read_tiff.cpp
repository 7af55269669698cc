// Pictures in TIFF (revision 6.0), read by libtiff as numbers. See picture_numbers.h.
#include "data/picture_numbers.h"
#include "data/tiff_source.h"
#include "formula/base/text.h"
#include "formula/compile/columns.h"
#include "formula/lines/read_page.h"

#include <algorithm>
#include <cmath>
#include <cstring>
#include <memory>
#include <tiffio.h>

namespace coulter {
namespace {

/// How one page of a file stores its numbers.
struct Layout {
    std::uint32_t width = 0, height = 0;
    std::uint16_t bits = 1, samples = 1, format = SAMPLEFORMAT_UINT, planes = PLANARCONFIG_CONTIG,
                  photometric = PHOTOMETRIC_MINISBLACK, orientation = ORIENTATION_TOPLEFT;
    friend bool operator==(const Layout&, const Layout&) = default;
};

Layout layoutOf(TIFF* tiff) {
    Layout layout;
    TIFFGetField(tiff, TIFFTAG_IMAGEWIDTH, &layout.width);
    TIFFGetField(tiff, TIFFTAG_IMAGELENGTH, &layout.height);
    TIFFGetFieldDefaulted(tiff, TIFFTAG_BITSPERSAMPLE, &layout.bits);
    TIFFGetFieldDefaulted(tiff, TIFFTAG_SAMPLESPERPIXEL, &layout.samples);
    TIFFGetFieldDefaulted(tiff, TIFFTAG_SAMPLEFORMAT, &layout.format);
    TIFFGetFieldDefaulted(tiff, TIFFTAG_PLANARCONFIG, &layout.planes);
    TIFFGetFieldDefaulted(tiff, TIFFTAG_PHOTOMETRIC, &layout.photometric);
    TIFFGetFieldDefaulted(tiff, TIFFTAG_ORIENTATION, &layout.orientation);
    return layout;
}

template <class T> double numberAt(const std::uint8_t* bytes) {
    T value;
    std::memcpy(&value, bytes, sizeof value);
    return static_cast<double>(value);
}

using Number = double (*)(const std::uint8_t*);
/// How a number of so many bits is read; null if it is none that is known.
Number numberOf(const Layout& layout) {
    const bool isSigned = layout.format == SAMPLEFORMAT_INT, isReal = layout.format == SAMPLEFORMAT_IEEEFP;
    if (layout.format > SAMPLEFORMAT_VOID) return nullptr;
    switch (layout.bits) {
    case 8: return isReal ? nullptr : isSigned ? numberAt<std::int8_t> : numberAt<std::uint8_t>;
    case 16: return isReal ? nullptr : isSigned ? numberAt<std::int16_t> : numberAt<std::uint16_t>;
    case 32: return isReal ? numberAt<float> : isSigned ? numberAt<std::int32_t> : numberAt<std::uint32_t>;
    case 64: return isReal ? numberAt<double> : nullptr;
    default: return nullptr;
    }
}

/// One channel of the page that is open; false if the file is damaged.
bool readPage(TIFF* tiff, const Layout& layout, std::size_t channel, std::vector<double>& numbers) {
    const Number number = numberOf(layout);
    const std::size_t each = layout.bits / 8U;
    const bool separate = layout.planes == PLANARCONFIG_SEPARATE;
    const std::size_t step = separate ? 1 : layout.samples, first = separate ? 0 : channel;
    const auto plane = static_cast<std::uint16_t>(separate ? channel : 0);
    const std::size_t begin = numbers.size();
    numbers.resize(begin + std::size_t{layout.width} * layout.height);
    double* into = numbers.data() + begin;
    if (!TIFFIsTiled(tiff)) {
        const tmsize_t size = TIFFScanlineSize(tiff);
        if (size < static_cast<tmsize_t>(layout.width * step * each)) return false;
        std::vector<std::uint8_t> row(static_cast<std::size_t>(size));
        for (std::uint32_t y = 0; y < layout.height; ++y) {
            if (TIFFReadScanline(tiff, row.data(), y, plane) != 1) return false;
            for (std::size_t x = 0; x < layout.width; ++x) *into++ = number(row.data() + (x * step + first) * each);
        }
        return true;
    }
    std::uint32_t tileWidth = 0, tileHeight = 0;
    TIFFGetField(tiff, TIFFTAG_TILEWIDTH, &tileWidth);
    TIFFGetField(tiff, TIFFTAG_TILELENGTH, &tileHeight);
    const tmsize_t size = TIFFTileSize(tiff);
    if (tileWidth == 0 || tileHeight == 0 || size <= 0 || TIFFTileRowSize(tiff) <= 0) return false;
    const auto tileRow = static_cast<std::size_t>(TIFFTileRowSize(tiff));
    if (tileRow < std::size_t{tileWidth} * step * each || static_cast<std::size_t>(size) < tileRow * tileHeight)
        return false;
    std::vector<std::uint8_t> tile(static_cast<std::size_t>(size));
    for (std::uint32_t top = 0; top < layout.height; top += tileHeight) {
        for (std::uint32_t left = 0; left < layout.width; left += tileWidth) {
            if (TIFFReadTile(tiff, tile.data(), left, top, 0, plane) < 0) return false;
            for (std::uint32_t y = top; y < std::min(layout.height, top + tileHeight); ++y) {
                for (std::uint32_t x = left; x < std::min(layout.width, left + tileWidth); ++x)
                    into[std::size_t{y} * layout.width + x] =
                        number(tile.data() + (y - top) * tileRow + ((x - left) * step + first) * each);
            }
        }
    }
    return true;
}

bool liesOnItsSide(const Layout& layout) { return layout.orientation > ORIENTATION_BOTLEFT; }

/// Turns the last page round as the file says that it is looked at.
void turn(std::vector<double>& numbers, const Layout& layout) {
    const auto width = static_cast<std::ptrdiff_t>(layout.width), height = static_cast<std::ptrdiff_t>(layout.height);
    const auto isOneOf = [&](std::initializer_list<int> orientations) {
        return std::ranges::find(orientations, layout.orientation) != orientations.end();
    };
    const bool lies = liesOnItsSide(layout); // its rows are columns
    const bool mirrored =
        isOneOf({ORIENTATION_TOPRIGHT, ORIENTATION_BOTRIGHT, ORIENTATION_RIGHTBOT, ORIENTATION_LEFTBOT});
    const bool upwards =
        isOneOf({ORIENTATION_BOTLEFT, ORIENTATION_BOTRIGHT, ORIENTATION_RIGHTTOP, ORIENTATION_RIGHTBOT});
    const auto page = numbers.end() - width * height;
    for (std::ptrdiff_t y = 0; y < height && mirrored; ++y) std::reverse(page + y * width, page + (y + 1) * width);
    for (std::ptrdiff_t y = 0; y < height / 2 && upwards; ++y)
        std::swap_ranges(page + y * width, page + (y + 1) * width, page + (height - 1 - y) * width);
    if (!lies) return;
    const std::vector<double> rows(page, numbers.end());
    for (std::ptrdiff_t y = 0; y < height; ++y) {
        for (std::ptrdiff_t x = 0; x < width; ++x) page[x * height + y] = rows[static_cast<std::size_t>(y * width + x)];
    }
}

} // namespace

PictureNumbers readTiff(std::string_view bytes, const std::string& channel) {
    PictureNumbers picture;
    const auto refuse = [&](std::string trouble, std::string way = "") {
        picture.trouble = std::move(trouble);
        picture.way = std::move(way);
        return std::move(picture);
    };
    TiffSource source{bytes};
    const Tiff tiff = openTiff(source);
    if (!tiff) return refuse("The picture is damaged: it does not begin as a TIFF file does.");
    const Layout layout = layoutOf(tiff.get());
    if (layout.width == 0 || layout.height == 0) return refuse("The picture has no extent.");
    picture.width = layout.width;
    picture.height = layout.height;
    if (!fitsPage(picture)) return picture;
    if (!numberOf(layout))
        return refuse("Its numbers have " + std::to_string(layout.bits) + " bits in a form that is not read.",
                      "save it with 8, 16 or 32 bits for each number");
    if (layout.photometric == PHOTOMETRIC_YCBCR || layout.photometric == PHOTOMETRIC_PALETTE)
        return refuse("Its colours are coded, and are no numbers that were measured.", "save it in shades of grey");
    const bool colours = layout.photometric == PHOTOMETRIC_RGB && layout.samples >= 3;
    picture.channels = colours ? std::vector<std::string>{"red", "green", "blue"} : std::vector<std::string>{"grey"};
    for (std::size_t k = picture.channels.size(); k < layout.samples && k < 64; ++k)
        picture.channels.push_back("channel " + std::to_string(k + 1));
    // One channel beside an opacity is the only one that is meant.
    std::uint16_t extra = 0;
    std::uint16_t* kinds = nullptr;
    TIFFGetField(tiff.get(), TIFFTAG_EXTRASAMPLES, &extra, &kinds);
    if (!colours && layout.samples == 2 && extra == 1) picture.channels.resize(1);
    const std::size_t wanted = channelOf(picture, channel);
    if (wanted == picture.channels.size()) return picture;
    float across = 0, down = 0;
    std::uint16_t unit = RESUNIT_INCH;
    TIFFGetFieldDefaulted(tiff.get(), TIFFTAG_RESOLUTIONUNIT, &unit);
    const bool stated = TIFFGetField(tiff.get(), TIFFTAG_XRESOLUTION, &across) == 1 &&
                        TIFFGetField(tiff.get(), TIFFTAG_YRESOLUTION, &down) == 1;
    if (stated && across > 0 && down > 0 && std::isfinite(across) && std::isfinite(down) && unit != RESUNIT_NONE) {
        const double mm = unit == RESUNIT_CENTIMETER ? 10 : 25.4;
        // The numbers of a file are fractions that it keeps as such; what a person wrote into it has few digits.
        picture.pitch = {std::stod(roundedNumber(mm / across, 7)), std::stod(roundedNumber(mm / down, 7))};
    }
    picture.format = "TIFF, " + std::to_string(layout.bits) + " bits";
    picture.pages = 0;
    constexpr std::size_t mostPages = 10'000;
    do {
        std::uint32_t kind = 0;
        TIFFGetFieldDefaulted(tiff.get(), TIFFTAG_SUBFILETYPE, &kind);
        if (picture.pages > 0 && (kind & FILETYPE_REDUCEDIMAGE) != 0) continue; // a small picture of the same
        if (!(layoutOf(tiff.get()) == layout))
            return refuse("Its pages differ in size, or in how their numbers are kept.",
                          "save each in a file of its own");
        ++picture.pages;
        if (picture.pages > mostPages || !fitsPage(picture)) {
            fitsPage(picture);
            return picture.trouble.empty() ? refuse("It has more than 10000 pages.", "take a part of it") : picture;
        }
        if (!readPage(tiff.get(), layout, wanted, picture.numbers))
            return refuse("The picture is damaged: page " + std::to_string(picture.pages) +
                          " does not read to its end.");
        turn(picture.numbers, layout);
    } while (TIFFReadDirectory(tiff.get()) == 1);
    if (liesOnItsSide(layout)) {
        std::swap(picture.width, picture.height);
        std::swap(picture.pitch[0], picture.pitch[1]);
    }
    return picture;
}

} // namespace coulter
