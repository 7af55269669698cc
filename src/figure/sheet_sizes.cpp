#include "figure/sheet_sizes.h"

#include <algorithm>
#include <charconv>

namespace coulter {
namespace {

constexpr SheetSize sizes[] = {{"one column", 85, 60, 8},     {"one and a half columns", 125, 82, 8},
                               {"two columns", 175, 105, 8},  {"square", 120, 120, 9},
                               {"slide 16:9", 256, 144, 18},  {"slide 4:3", 256, 192, 18},
                               {"A4 portrait", 210, 297, 11}, {"A4 landscape", 297, 210, 11}};

std::optional<double> millimetres(std::string_view words) {
    double value = 0;
    const auto [end, error] = std::from_chars(words.data(), words.data() + words.size(), value);
    const bool isWhole = error == std::errc() && end == words.data() + words.size();
    return isWhole && value >= leastSheet && value <= greatestSheet ? std::optional(value) : std::nullopt;
}

} // namespace

std::span<const SheetSize> sheetSizes() { return sizes; }

bool setSize(Sheet& sheet, std::string_view words) {
    if (const auto* named = std::ranges::find(sizes, words, &SheetSize::name); named != std::end(sizes)) {
        sheet.width = named->width;
        sheet.height = named->height;
        sheet.textSize = named->textSize;
        return true;
    }
    const auto times = words.find('x');
    if (times == std::string_view::npos) return false;
    const auto width = millimetres(words.substr(0, times)), height = millimetres(words.substr(times + 1));
    if (!width || !height) return false;
    sheet.width = *width;
    sheet.height = *height;
    return true;
}

std::size_t sizeOf(const Sheet& sheet) {
    const auto* at = std::ranges::find_if(sizes, [&](const SheetSize& size) {
        return size.width == sheet.width && size.height == sheet.height && size.textSize == sheet.textSize;
    });
    return static_cast<std::size_t>(at - std::begin(sizes));
}

} // namespace coulter
