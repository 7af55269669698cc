#include "coulter_version.h"
#include "data/tiff_source.h"
#include "files/figure_raster.h"
#include "files/formats.h"

#include <algorithm>
#include <vector>

namespace coulter {
namespace {

/// The recipe is the picture's description, behind this line.
constexpr std::string_view mark = "Coulter recipe\n";

} // namespace

std::string writeTiff(const Figure& figure, const std::string& recipe) {
    const double resolution = figure.document.sheet.resolution;
    const auto [raster, withOpacity] = rasterOf(figure);
    if (raster.pixels.empty()) return {};
    TiffSink sink;
    Tiff tiff = startTiff(sink);
    if (!tiff) return {};
    const auto width = static_cast<std::uint32_t>(raster.width), height = static_cast<std::uint32_t>(raster.height);
    const std::uint32_t samples = withOpacity ? 4 : 3;
    const std::uint16_t opacity = EXTRASAMPLE_UNASSALPHA;
    constexpr std::uint32_t bytesOfStrip = 1 << 18;
    TIFFSetField(tiff.get(), TIFFTAG_IMAGEWIDTH, width);
    TIFFSetField(tiff.get(), TIFFTAG_IMAGELENGTH, height);
    TIFFSetField(tiff.get(), TIFFTAG_SAMPLESPERPIXEL, samples);
    TIFFSetField(tiff.get(), TIFFTAG_BITSPERSAMPLE, 8);
    TIFFSetField(tiff.get(), TIFFTAG_PHOTOMETRIC, PHOTOMETRIC_RGB);
    TIFFSetField(tiff.get(), TIFFTAG_PLANARCONFIG, PLANARCONFIG_CONTIG);
    TIFFSetField(tiff.get(), TIFFTAG_ORIENTATION, ORIENTATION_TOPLEFT);
    if (withOpacity) TIFFSetField(tiff.get(), TIFFTAG_EXTRASAMPLES, 1, &opacity);
    TIFFSetField(tiff.get(), TIFFTAG_COMPRESSION, COMPRESSION_LZW); // what every print shop reads
    TIFFSetField(tiff.get(), TIFFTAG_PREDICTOR, PREDICTOR_HORIZONTAL);
    TIFFSetField(tiff.get(), TIFFTAG_ROWSPERSTRIP, std::max(1U, bytesOfStrip / (width * samples)));
    TIFFSetField(tiff.get(), TIFFTAG_RESOLUTIONUNIT, RESUNIT_INCH);
    TIFFSetField(tiff.get(), TIFFTAG_XRESOLUTION, resolution);
    TIFFSetField(tiff.get(), TIFFTAG_YRESOLUTION, resolution);
    TIFFSetField(tiff.get(), TIFFTAG_SOFTWARE, (std::string("Coulter ") + COULTER_VERSION).c_str());
    TIFFSetField(tiff.get(), TIFFTAG_IMAGEDESCRIPTION, (std::string(mark) + recipe).c_str());
    std::vector<unsigned char> row(std::size_t{width} * samples);
    for (std::uint32_t y = 0; y < height; ++y) {
        const std::uint32_t* pixels = raster.pixels.data() + std::size_t{y} * width;
        for (std::size_t x = 0; x < width; ++x) {
            unsigned char* dot = row.data() + x * samples;
            dot[0] = static_cast<unsigned char>(pixels[x] >> 16);
            dot[1] = static_cast<unsigned char>(pixels[x] >> 8);
            dot[2] = static_cast<unsigned char>(pixels[x]);
            if (withOpacity) dot[3] = static_cast<unsigned char>(pixels[x] >> 24);
        }
        if (TIFFWriteScanline(tiff.get(), row.data(), y) < 0) return {};
    }
    tiff.reset(); // what is left is written as it is closed
    return std::move(sink.bytes);
}

bool isTiff(std::string_view bytes) {
    using namespace std::string_view_literals;
    return bytes.starts_with("II*\0"sv);
}

std::optional<std::string> recipeInTiff(std::string_view bytes) {
    TiffSource source{bytes};
    const Tiff tiff = openTiff(source);
    char* words = nullptr;
    if (!tiff || !TIFFGetField(tiff.get(), TIFFTAG_IMAGEDESCRIPTION, &words) || !words) return std::nullopt;
    const std::string_view description(words);
    return description.starts_with(mark) ? std::optional(std::string(description.substr(mark.size()))) : std::nullopt;
}

} // namespace coulter
