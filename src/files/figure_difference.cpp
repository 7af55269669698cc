#include "files/figure_difference.h"

#include "composition/pointing.h"
#include "drawing/image_bytes.h"
#include "formula/base/text.h"

#include <algorithm>
#include <cmath>
#include <optional>
#include <png.h>
#include <string_view>
#include <vector>

namespace coulter {
namespace {

struct Dots {
    int width = 0, height = 0;
    std::vector<unsigned char> rgba;
};

std::optional<Dots> dotsOf(const std::string& bytes) {
    png_image image{};
    image.version = PNG_IMAGE_VERSION;
    if (!png_image_begin_read_from_memory(&image, bytes.data(), bytes.size())) return std::nullopt;
    image.format = PNG_FORMAT_RGBA;
    if (static_cast<double>(image.width) * image.height > mostDots) {
        png_image_free(&image);
        return std::nullopt;
    }
    Dots dots{static_cast<int>(image.width), static_cast<int>(image.height), {}};
    dots.rgba.resize(PNG_IMAGE_SIZE(image));
    if (!png_image_finish_read(&image, nullptr, dots.rgba.data(), 0, nullptr)) return std::nullopt;
    return dots;
}

/// What a path names, as a person calls it.
std::string nameOf(const Figure& figure, const ItemPath& path) {
    switch (path.kind) {
    case ItemKind::Plot:
        if (const Plot* plot = plotAt(figure.document, path)) return "the plot “" + plot->of + "”";
        break;
    case ItemKind::Note: return "a note";
    case ItemKind::Legend:
    case ItemKind::SheetLegend: return "the legend";
    case ItemKind::Title:
    case ItemKind::SheetTitle: return "the title";
    case ItemKind::Scale:
    case ItemKind::ScaleLabel: return "a scale";
    case ItemKind::Panel: return "a panel's ground";
    case ItemKind::Sheet: break;
    }
    return "the sheet";
}

std::size_t indexOf(const Dots& dots, int x, int y) {
    return 4 * (static_cast<std::size_t>(y) * static_cast<std::size_t>(dots.width) + static_cast<std::size_t>(x));
}

/// Whether a dot of two pictures of one size differs.
bool differs(const Dots& a, const Dots& b, int x, int y) {
    const auto at = static_cast<std::ptrdiff_t>(indexOf(a, x, y));
    return !std::equal(a.rgba.begin() + at, a.rgba.begin() + at + 4, b.rgba.begin() + at);
}

std::string inDots(const Dots& a, const Dots& b, const Figure& figure) {
    if (a.width != b.width || a.height != b.height)
        return "It has " + std::to_string(a.width) + " × " + std::to_string(a.height) + " dots, and its recipe gives " +
               std::to_string(b.width) + " × " + std::to_string(b.height) + ".";
    std::size_t count = 0;
    int left = a.width, right = -1, top = a.height, bottom = -1;
    for (int y = 0; y < a.height; ++y) {
        for (int x = 0; x < a.width; ++x) {
            if (!differs(a, b, x, y)) continue;
            ++count;
            left = std::min(left, x);
            right = std::max(right, x);
            top = std::min(top, y);
            bottom = std::max(bottom, y);
        }
    }
    if (count == 0) return "All dots are the same: only what is said about them differs.";
    const double mm = figure.document.sheet.width / a.width;
    const auto place = [&](double dot) { return roundedNumber(dot * mm, 3); };
    const Point middle{(left + right + 1) * mm / 2, (top + bottom + 1) * mm / 2};
    return std::to_string(count) + (count == 1 ? " dot differs" : " dots differ") + ", from " + place(left) + " to " +
           place(right + 1) + " mm across and " + place(top) + " to " + place(bottom + 1) + " mm down: about " +
           nameOf(figure, itemAt(figure, middle, 2)) + ".";
}

std::string inLines(std::string_view a, std::string_view b) {
    std::size_t line = 1, begin = 0;
    for (std::size_t i = 0; i < std::min(a.size(), b.size()) && a[i] == b[i]; ++i) {
        if (a[i] != '\n') continue;
        ++line;
        begin = i + 1;
    }
    constexpr std::size_t most = 60;
    const auto excerpt = [&](std::string_view text) {
        const std::string_view rest = text.substr(std::min(begin, text.size()));
        std::string shown(rest.substr(0, std::min(rest.find('\n'), most)));
        while (!shown.empty() && (shown.back() & 0xc0) == 0x80) shown.pop_back(); // no half letters
        return shown.empty() ? std::string("nothing") : "“" + shown + "”";
    };
    return "It differs first in line " + std::to_string(line) + ": " + excerpt(a) + " instead of " + excerpt(b) + ".";
}

} // namespace

std::string whatDiffers(const std::string& file, const std::string& again, const Figure& figure) {
    if (const auto a = dotsOf(file), b = dotsOf(again); a && b) return inDots(*a, *b, figure);
    const std::string_view start = std::string_view(file).substr(0, 100);
    if (start.starts_with("<?xml") || start.starts_with("%!PS")) return inLines(file, again);
    const auto [at, other] = std::mismatch(file.begin(), file.end(), again.begin(), again.end());
    return "It differs first at byte " + std::to_string(at - file.begin() + 1) + " of " + std::to_string(file.size()) +
           ".";
}

std::string pictureOfDifference(const std::string& file, const std::string& again) {
    const auto a = dotsOf(file), b = dotsOf(again);
    if (!a || !b || a->width != b->width || a->height != b->height) return "";
    ImageItem picture;
    picture.width = a->width;
    picture.height = a->height;
    constexpr std::uint32_t strong = 0xffc02030, pale = 0xfff0a8ae;
    for (int y = 0; y < a->height; ++y) {
        for (int x = 0; x < a->width; ++x) {
            const unsigned char* dot = a->rgba.data() + indexOf(*a, x, y);
            const std::uint32_t grey = 160 + (dot[0] * 3U + dot[1] * 6U + dot[2]) * 95U / 2550U;
            picture.pixels.push_back(0xff000000U | grey << 16 | grey << 8 | grey);
        }
    }
    const auto paint = [&](int reach, std::uint32_t colour) {
        for (int y = 0; y < a->height; ++y) {
            for (int x = 0; x < a->width; ++x) {
                if (!differs(*a, *b, x, y)) continue;
                for (int v = std::max(0, y - reach); v <= std::min(a->height - 1, y + reach); ++v) {
                    for (int u = std::max(0, x - reach); u <= std::min(a->width - 1, x + reach); ++u)
                        picture.pixels[indexOf(*a, u, v) / 4] = colour;
                }
            }
        }
    };
    paint(2, pale);
    paint(0, strong);
    return encodePng(picture);
}

} // namespace coulter
