#include "files/animation.h"

#include "composition/draw_figure.h"
#include "drawing/cairo_painter.h"
#include "drawing/scene_extent.h"
#include "figure/sheet_settings.h"
#include "files/formats.h"
#include "files/held_still.h"
#include "files/png_picture.h"
#include "files/recipe.h"
#include "files/set_value.h"

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>
#include <zlib.h>

namespace coulter {
namespace {

constexpr const char* recipeKeyword = "Coulter recipe";
constexpr const char* animationKeyword = "Coulter animation";

Rect united(const Rect& a, const Rect& b) {
    const double left = std::min(a.x, b.x), top = std::min(a.y, b.y);
    return {left, top, std::max(a.right(), b.right()) - left, std::max(a.bottom(), b.bottom()) - top};
}

std::string bytesOf(std::uint32_t value) {
    std::string bytes;
    for (int shift = 24; shift >= 0; shift -= 8) bytes += static_cast<char>(value >> shift & 0xffU);
    return bytes;
}

std::uint32_t numberAt(std::string_view bytes, std::size_t at) {
    std::uint32_t value = 0;
    for (std::size_t i = 0; i < 4; ++i) value = value << 8 | static_cast<unsigned char>(bytes[at + i]);
    return value;
}

std::string chunk(const std::string& type, const std::string& data) {
    const std::string body = type + data;
    const auto sum = crc32(0, reinterpret_cast<const Bytef*>(body.data()), static_cast<uInt>(body.size()));
    return bytesOf(static_cast<std::uint32_t>(data.size())) + body + bytesOf(static_cast<std::uint32_t>(sum));
}

/// Text in UTF-8, as it is.
std::string textChunk(const std::string& keyword, const std::string& text) {
    return chunk("iTXt", keyword + std::string("\0\0\0\0\0", 5) + text);
}

/// Calls `take(type, data, whole)` with each chunk of a PNG as far as they are whole.
template <typename Take> void eachChunk(std::string_view png, const Take& take) {
    constexpr std::size_t around = 12; // length, type, sum
    for (std::size_t at = 8; at + around <= png.size();) {
        const std::size_t length = numberAt(png, at);
        if (length > png.size() - at - around) return;
        take(png.substr(at + 4, 4), png.substr(at + 8, length), png.substr(at, length + around));
        at += length + around;
    }
}

struct Part {
    int x = 0, y = 0, width = 1, height = 1; ///< dots
};

/// What differs between two rasters of one size; one dot if nothing does.
Part differing(const Raster& before, const Raster& now) {
    int left = now.width, right = -1, top = now.height, bottom = -1;
    for (int y = 0; y < now.height; ++y) {
        const auto first = static_cast<std::ptrdiff_t>(y) * now.width;
        const auto a = before.pixels.begin() + first, b = now.pixels.begin() + first;
        const auto from = std::mismatch(a, a + now.width, b).first - a;
        if (from == now.width) continue;
        std::ptrdiff_t to = now.width - 1;
        while (a[to] == b[to]) --to;
        left = std::min(left, static_cast<int>(from));
        right = std::max(right, static_cast<int>(to));
        top = std::min(top, y);
        bottom = y;
    }
    return bottom < 0 ? Part{} : Part{left, top, right - left + 1, bottom - top + 1};
}

Raster partOf(const Raster& raster, const Part& part) {
    Raster cut{part.width, part.height, {}};
    for (int y = part.y; y < part.y + part.height; ++y) {
        const auto first = raster.pixels.begin() + static_cast<std::ptrdiff_t>(y) * raster.width + part.x;
        cut.pixels.insert(cut.pixels.end(), first, first + part.width);
    }
    return cut;
}

/// An animated PNG that grows figure by figure.
class AnimatedPng {
public:
    AnimatedPng(std::size_t frames, double seconds, double dotsPerInch)
        : frames_(frames),
          milliseconds_(std::clamp(std::lround(1000 * seconds / static_cast<double>(frames)), 1L, 65535L)),
          dotsPerInch_(dotsPerInch) {}

    /// False if there is no memory.
    bool add(Raster raster, const std::string& texts) {
        const bool isFirst = before_.pixels.empty();
        const Part part = isFirst ? Part{0, 0, raster.width, raster.height} : differing(before_, raster);
        const auto png = pngPicture(isFirst ? raster : partOf(raster, part), dotsPerInch_);
        if (!png) return false;
        if (isFirst) bytes_ = png->substr(0, 8);
        bool isDrawn = false;
        eachChunk(*png, [&](std::string_view type, std::string_view data, std::string_view whole) {
            if (type == "IEND" || (!isFirst && type != "IDAT")) return;
            if (type == "IDAT" && !isDrawn) {
                if (isFirst) bytes_ += texts + chunk("acTL", bytesOf(static_cast<std::uint32_t>(frames_)) + bytesOf(0));
                bytes_ += control(part);
                isDrawn = true;
            }
            if (type == "IDAT" && !isFirst)
                bytes_ += chunk("fdAT", bytesOf(sequence_++) + std::string(data));
            else
                bytes_ += whole;
        });
        before_ = std::move(raster);
        return true;
    }
    std::string finished() { return std::move(bytes_) + chunk("IEND", ""); }

private:
    /// Where a frame stands, how long, and that it takes the place of what was there.
    std::string control(const Part& part) {
        const auto unsignedOf = [](auto value) { return bytesOf(static_cast<std::uint32_t>(value)); };
        const std::string delay = unsignedOf(milliseconds_).substr(2) + unsignedOf(1000).substr(2);
        return chunk("fcTL", bytesOf(sequence_++) + unsignedOf(part.width) + unsignedOf(part.height) +
                                 unsignedOf(part.x) + unsignedOf(part.y) + delay + std::string("\0\0", 2));
    }

    std::size_t frames_;
    long milliseconds_; ///< of each frame
    double dotsPerInch_;
    std::uint32_t sequence_ = 0;
    Raster before_;
    std::string bytes_;
};

Exported refused(Problem problem) { return {std::nullopt, std::move(problem), {}}; }

} // namespace

Exported exportAnimation(const Document& document, const Animation& animation, const std::stop_token& stop,
                         const ExportOptions& options) {
    const std::size_t count = animation.values.size();
    if (count < 2 || count > mostFrames)
        return refused(saying("An animation has from 2 to " + std::to_string(mostFrames) + " figures, not " +
                                  std::to_string(count) + ".",
                              "say how many with --count"));
    if (!(animation.seconds >= leastSeconds && animation.seconds <= greatestSeconds))
        return refused(saying("An animation lasts from 0.1 to 3600 seconds.", "say how long with --seconds"));
    const Sheet& sheet = document.sheet;
    if (sheet.width * sheet.height * std::pow(sheet.resolution / 25.4, 2) > mostDots)
        return refused(saying("A bitmap of this size has too many dots.", "choose a smaller sheet or resolution"));
    Effort effort = effortOf(sheet);
    effort.proofs = false; // no dot depends on them
    if (options.patient) effort.operations = HUGE_VAL;
    Problem problem;
    // The figure of one value; none if there is a problem.
    const auto drawn = [&](const Document& of, std::size_t i, const char* stage) -> std::optional<Figure> {
        if (options.watch.stage) options.watch.stage(stage, i, count);
        const RecipeRead read = withNamedValue(of, animation.quantity, animation.values[i]);
        if (!read.document) {
            problem = read.problem;
            return std::nullopt;
        }
        Figure figure = drawFigure(*read.document, effort, stop);
        if (stop.stop_requested())
            problem = saying("The export was stopped.");
        else if (const auto found = plotProblem(figure))
            problem = *found;
        else
            return figure;
        return std::nullopt;
    };
    // Once for what is to be held still, once to be shown.
    HeldStill seen;
    for (std::size_t i = 0; i < count; ++i) {
        const auto figure = drawn(document, i, "looking");
        if (!figure) return refused(problem);
        seen.add(*figure);
    }
    const Document still = seen.held(document);
    // Files that hold what is drawn: all that any of the figures draws, so that nothing moves.
    std::optional<Rect> content;
    const bool isCropped = word(sheet.settings, extentSetting) == 1;
    for (std::size_t i = 0; isCropped && i < count; ++i) {
        const auto figure = drawn(still, i, "looking");
        if (!figure) return refused(problem);
        const Rect own = extentOf(figure->scene);
        if (own.width > 0) content = content ? united(*content, own) : own;
    }
    if (content) content = content->grown(number(sheet.settings, marginSetting));
    const std::string texts = textChunk(recipeKeyword, writeRecipe(document)) +
                              textChunk(animationKeyword, nlohmann::ordered_json{{"quantity", animation.quantity},
                                                                                 {"values", animation.values},
                                                                                 {"seconds", animation.seconds}}
                                                              .dump());
    AnimatedPng png(count, animation.seconds, sheet.resolution);
    for (std::size_t i = 0; i < count; ++i) {
        auto figure = drawn(still, i, "drawing");
        if (!figure) return refused(problem);
        if (content) figure->scene = cropped(std::move(figure->scene), *content);
        Raster raster = paintRaster(figure->scene, sheet.resolution / 25.4);
        if (raster.pixels.empty() || !png.add(std::move(raster), texts))
            return refused(saying("There is not enough memory for a figure of this size.",
                                  "choose a smaller sheet or resolution"));
    }
    return {png.finished(), {}, {}};
}

std::optional<Animation> animationIn(std::string_view bytes) {
    if (!isPng(bytes)) return std::nullopt;
    std::optional<Animation> found;
    const std::string before = animationKeyword + std::string("\0\0\0\0\0", 5);
    eachChunk(bytes, [&](std::string_view type, std::string_view data, std::string_view) {
        if (type != "iTXt" || !data.starts_with(before)) return;
        const auto json = nlohmann::json::parse(data.substr(before.size()), nullptr, false);
        if (!json.is_object() || !json.contains("quantity") || !json["quantity"].is_string() ||
            !json.contains("values") || !json["values"].is_array() || !json.contains("seconds") ||
            !json["seconds"].is_number())
            return;
        Animation animation{json["quantity"], {}, json["seconds"]};
        for (const auto& value : json["values"]) {
            if (!value.is_string()) return;
            animation.values.push_back(value);
        }
        found = std::move(animation);
    });
    return found;
}

} // namespace coulter
