#pragma once
#include <filesystem>
#include <functional>
#include <netcdf.h>
#include <png.h>
#include <string>
#include <tiffio.h>
#include <vector>

namespace coulter::made {

/// A file in a folder of this process, gone with it.
std::filesystem::path pathOf(const std::string& name);
std::string bytesOf(const std::filesystem::path& path);
void write(const std::filesystem::path& path, const std::string& bytes);

/// A PNG whose rows are given as they are stored.
void png(const std::filesystem::path& path, std::uint32_t width, const std::vector<std::vector<png_byte>>& rows,
         int bits, int colour, std::uint32_t perMetre = 0, bool interlaced = false);

/// A TIFF page: how it is stored, and the number at (x, y).
struct Page {
    std::uint32_t width = 7, height = 5, tile = 0, rowsPerStrip = 2;
    std::uint16_t bits = 16, format = SAMPLEFORMAT_UINT, samples = 1, compression = COMPRESSION_NONE,
                  planes = PLANARCONFIG_CONTIG, photometric = PHOTOMETRIC_MINISBLACK, orientation = ORIENTATION_TOPLEFT;
    float perCentimetre = 0;
    const char* mode = "w";
};
/// @param value  of sample k at (x, y), y downwards
void tiff(const std::filesystem::path& path, const std::vector<Page>& pages,
          const std::function<double(std::size_t page, std::uint32_t x, std::uint32_t y, std::size_t k)>& value);

} // namespace coulter::made
