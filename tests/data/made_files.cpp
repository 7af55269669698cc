#include "made_files.h"

#include <catch2/catch.hpp>
#include <cstring>
#include <fstream>
#include <sstream>
#include <unistd.h>

namespace coulter::made {
namespace fs = std::filesystem;

fs::path pathOf(const std::string& name) {
    static const struct Folder {
        fs::path path = fs::temp_directory_path() / ("coulter-data-" + std::to_string(getpid()));
        Folder() { fs::create_directories(path); }
        ~Folder() {
            std::error_code ignored;
            fs::remove_all(path, ignored);
        }
    } folder;
    return folder.path / name;
}

std::string bytesOf(const fs::path& path) {
    std::ifstream in(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(in), {}};
}

void write(const fs::path& path, const std::string& bytes) { std::ofstream(path, std::ios::binary) << bytes; }

void png(const fs::path& path, std::uint32_t width, const std::vector<std::vector<png_byte>>& rows, int bits,
         int colour, std::uint32_t perMetre, bool interlaced) {
    std::FILE* out = std::fopen(path.c_str(), "wb");
    REQUIRE(out);
    png_structp png = png_create_write_struct(PNG_LIBPNG_VER_STRING, nullptr, nullptr, nullptr);
    png_infop info = png_create_info_struct(png);
    png_init_io(png, out);
    png_set_IHDR(png, info, width, static_cast<png_uint_32>(rows.size()), bits, colour,
                 interlaced ? PNG_INTERLACE_ADAM7 : PNG_INTERLACE_NONE, PNG_COMPRESSION_TYPE_DEFAULT,
                 PNG_FILTER_TYPE_DEFAULT);
    if (perMetre > 0) png_set_pHYs(png, info, perMetre, perMetre, PNG_RESOLUTION_METER);
    png_write_info(png, info);
    std::vector<png_bytep> pointers;
    for (const auto& row : rows) pointers.push_back(const_cast<png_bytep>(row.data()));
    png_write_image(png, pointers.data());
    png_write_end(png, nullptr);
    png_destroy_write_struct(&png, &info);
    std::fclose(out);
}

namespace {

void put(std::uint8_t* at, const Page& page, double value) {
    const auto as = [&](auto number) { std::memcpy(at, &number, sizeof number); };
    const bool real = page.format == SAMPLEFORMAT_IEEEFP, isSigned = page.format == SAMPLEFORMAT_INT;
    if (page.bits == 8) isSigned ? as(static_cast<std::int8_t>(value)) : as(static_cast<std::uint8_t>(value));
    if (page.bits == 16) isSigned ? as(static_cast<std::int16_t>(value)) : as(static_cast<std::uint16_t>(value));
    if (page.bits == 32 && real) as(static_cast<float>(value));
    if (page.bits == 32 && !real)
        isSigned ? as(static_cast<std::int32_t>(value)) : as(static_cast<std::uint32_t>(value));
    if (page.bits == 64) as(value);
}

} // namespace

void tiff(const fs::path& path, const std::vector<Page>& pages,
          const std::function<double(std::size_t, std::uint32_t, std::uint32_t, std::size_t)>& value) {
    TIFF* out = TIFFOpen(path.c_str(), pages.front().mode);
    REQUIRE(out);
    for (std::size_t p = 0; p < pages.size(); ++p) {
        const Page& page = pages[p];
        TIFFSetField(out, TIFFTAG_IMAGEWIDTH, page.width);
        TIFFSetField(out, TIFFTAG_IMAGELENGTH, page.height);
        TIFFSetField(out, TIFFTAG_BITSPERSAMPLE, page.bits);
        TIFFSetField(out, TIFFTAG_SAMPLESPERPIXEL, page.samples);
        TIFFSetField(out, TIFFTAG_SAMPLEFORMAT, page.format);
        TIFFSetField(out, TIFFTAG_PLANARCONFIG, page.planes);
        TIFFSetField(out, TIFFTAG_PHOTOMETRIC, page.photometric);
        TIFFSetField(out, TIFFTAG_ORIENTATION, page.orientation);
        TIFFSetField(out, TIFFTAG_COMPRESSION, page.compression);
        if (page.perCentimetre > 0) {
            TIFFSetField(out, TIFFTAG_RESOLUTIONUNIT, RESUNIT_CENTIMETER);
            TIFFSetField(out, TIFFTAG_XRESOLUTION, page.perCentimetre);
            TIFFSetField(out, TIFFTAG_YRESOLUTION, page.perCentimetre);
        }
        const std::size_t each = page.bits / 8U;
        const bool separate = page.planes == PLANARCONFIG_SEPARATE;
        const std::size_t step = separate ? 1 : page.samples;
        if (page.tile > 0) {
            TIFFSetField(out, TIFFTAG_TILEWIDTH, page.tile);
            TIFFSetField(out, TIFFTAG_TILELENGTH, page.tile);
        } else {
            TIFFSetField(out, TIFFTAG_ROWSPERSTRIP, page.rowsPerStrip);
        }
        for (std::uint16_t plane = 0; plane < (separate ? page.samples : 1); ++plane) {
            const auto sample = [&](std::size_t k) { return separate ? plane : k; };
            if (page.tile == 0) {
                std::vector<std::uint8_t> row(page.width * step * each);
                for (std::uint32_t y = 0; y < page.height; ++y) {
                    for (std::uint32_t x = 0; x < page.width; ++x) {
                        for (std::size_t k = 0; k < step; ++k)
                            put(row.data() + (x * step + k) * each, page, value(p, x, y, sample(k)));
                    }
                    REQUIRE(TIFFWriteScanline(out, row.data(), y, plane) == 1);
                }
                continue;
            }
            std::vector<std::uint8_t> tile(static_cast<std::size_t>(TIFFTileSize(out)));
            for (std::uint32_t top = 0; top < page.height; top += page.tile) {
                for (std::uint32_t left = 0; left < page.width; left += page.tile) {
                    for (std::uint32_t y = 0; y < page.tile; ++y) {
                        for (std::uint32_t x = 0; x < page.tile; ++x) {
                            for (std::size_t k = 0; k < step; ++k)
                                put(tile.data() + ((y * page.tile + x) * step + k) * each, page,
                                    left + x < page.width && top + y < page.height
                                        ? value(p, left + x, top + y, sample(k))
                                        : 0);
                        }
                    }
                    REQUIRE(TIFFWriteTile(out, tile.data(), left, top, 0, plane) > 0);
                }
            }
        }
        TIFFWriteDirectory(out);
    }
    TIFFClose(out);
}

} // namespace coulter::made
