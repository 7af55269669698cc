#include "drawing/shrink_image.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>

namespace coulter {
namespace {

/// Which of an image's dots lie under one of the raster's, and how much of that one each covers.
struct Under {
    std::size_t first = 0;
    std::vector<float> shares;
};

/// Along one direction: of dots `first`, `first` + 1, … of the raster.
std::vector<Under> underEach(int first, int count, double start, double length, int dots) {
    std::vector<Under> all(static_cast<std::size_t>(count));
    const double each = length / dots;
    for (int k = 0; k < count; ++k) {
        const double from = std::max<double>(first + k, start), to = std::min<double>(first + k + 1, start + length);
        const int low = std::clamp(static_cast<int>(std::floor((from - start) / each)), 0, dots - 1),
                  high = std::clamp(static_cast<int>(std::ceil((to - start) / each)), low + 1, dots);
        Under& under = all[static_cast<std::size_t>(k)];
        under.first = static_cast<std::size_t>(low);
        for (int i = low; i < high; ++i) {
            const double left = std::max(from, start + i * each), right = std::min(to, start + (i + 1) * each);
            under.shares.push_back(static_cast<float>(std::max(0.0, right - left)));
        }
    }
    return all;
}

using Parts = std::array<float, 4>; // opacity, red, green, blue

} // namespace

ShrunkImage shrunk(const ImageItem& image, const Rect& place) {
    ShrunkImage result;
    result.left = static_cast<int>(std::floor(place.x + 1e-6));
    result.top = static_cast<int>(std::floor(place.y + 1e-6));
    result.width = static_cast<int>(std::ceil(place.right() - 1e-6)) - result.left;
    result.height = static_cast<int>(std::ceil(place.bottom() - 1e-6)) - result.top;
    if (result.width <= 0 || result.height <= 0 || image.width <= 0 || image.height <= 0) return {};
    const auto width = static_cast<std::size_t>(result.width);
    result.pixels.resize(width * static_cast<std::size_t>(result.height));
    const std::vector<Under> columns = underEach(result.left, result.width, place.x, place.width, image.width),
                             rows = underEach(result.top, result.height, place.y, place.height, image.height);
    // Row by row: how they are shared out among threads shows nowhere.
    tbb::parallel_for(
        tbb::blocked_range<std::size_t>(0, rows.size()), [&](const tbb::blocked_range<std::size_t>& range) {
            std::vector<Parts> tall(static_cast<std::size_t>(image.width));
            for (std::size_t y = range.begin(); y < range.end(); ++y) {
                std::ranges::fill(tall, Parts{});
                for (std::size_t k = 0; k < rows[y].shares.size(); ++k) {
                    const float share = rows[y].shares[k];
                    const std::uint32_t* const from = image.pixels.data() + (rows[y].first + k) * tall.size();
                    for (std::size_t x = 0; x < tall.size(); ++x) {
                        for (std::size_t part = 0; part < 4; ++part)
                            tall[x][part] += share * static_cast<float>(from[x] >> (24 - 8 * part) & 0xffU);
                    }
                }
                for (std::size_t x = 0; x < width; ++x) {
                    Parts sum{};
                    for (std::size_t k = 0; k < columns[x].shares.size(); ++k) {
                        for (std::size_t part = 0; part < 4; ++part)
                            sum[part] += columns[x].shares[k] * tall[columns[x].first + k][part];
                    }
                    std::uint32_t pixel = 0;
                    for (std::size_t part = 0; part < 4; ++part)
                        pixel |= static_cast<std::uint32_t>(std::clamp(sum[part] + 0.5F, 0.0F, 255.0F))
                                 << (24 - 8 * part);
                    result.pixels[y * width + x] = pixel;
                }
            }
        });
    return result;
}

} // namespace coulter
