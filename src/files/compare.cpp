#include "files/compare.h"

#include "composition/pointing.h"
#include "composition/referee.h"
#include "files/recipe.h"
#include "files/segment_index.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <nlohmann/json.hpp>

namespace coulter {
namespace {

using OrderedJson = nlohmann::ordered_json;

/// Every value of a recipe but the page, by its path, in the recipe's order.
void collect(const OrderedJson& value, const std::string& path,
             std::vector<std::pair<std::string, std::string>>& found) {
    if (value.is_object()) {
        for (const auto& [key, each] : value.items()) {
            if (!path.empty() || (key != "page" && key != "coulter"))
                collect(each, path.empty() ? key : path + "." + key, found);
        }
    } else if (value.is_array() &&
               std::ranges::any_of(value, [](const OrderedJson& each) { return each.is_structured(); })) {
        for (std::size_t i = 0; i < value.size(); ++i) collect(value[i], fmt::format("{}[{}]", path, i), found);
    } else {
        found.emplace_back(path, value.is_string() ? value.get<std::string>() : value.dump());
    }
}

/// Lines that both pages have in the same order, as many as there are: their places in each.
std::vector<std::pair<std::size_t, std::size_t>> commonLines(const std::vector<std::string>& a,
                                                             const std::vector<std::string>& b) {
    std::vector<std::vector<std::uint16_t>> longest(a.size() + 1, std::vector<std::uint16_t>(b.size() + 1, 0));
    for (std::size_t i = a.size(); i-- > 0;) {
        for (std::size_t j = b.size(); j-- > 0;)
            longest[i][j] = a[i] == b[j] ? static_cast<std::uint16_t>(longest[i + 1][j + 1] + 1)
                                         : std::max(longest[i + 1][j], longest[i][j + 1]);
    }
    std::vector<std::pair<std::size_t, std::size_t>> common;
    for (std::size_t i = 0, j = 0; i < a.size() && j < b.size();) {
        if (a[i] == b[j])
            common.emplace_back(i++, j++);
        else
            longest[i + 1][j] >= longest[i][j + 1] ? ++i : ++j;
    }
    return common;
}

void comparePages(const std::vector<std::string>& a, const std::vector<std::string>& b,
                  std::vector<RecipeDifference>& differences) {
    auto common = commonLines(a, b);
    common.emplace_back(a.size(), b.size());
    std::size_t i = 0, j = 0;
    for (const auto& [nextI, nextJ] : common) {
        while (i < nextI || j < nextJ) { // lines between two common ones are changes of each other as far as they go
            RecipeDifference difference;
            difference.where = fmt::format("page, line {}", (i < nextI ? i : j) + 1);
            if (i < nextI) difference.first = a[i++];
            if (j < nextJ) difference.second = b[j++];
            differences.push_back(std::move(difference));
        }
        i = nextI + 1, j = nextJ + 1;
    }
}

/// What of the scene one plot drew.
struct Drawing {
    std::vector<std::vector<Point>> lines; ///< strokes, and outlines of areas
    std::vector<const ImageItem*> images;
};

Drawing drawingOf(const Figure& figure, const ItemPath& path) {
    Drawing drawing;
    for (const Owned& owned : figure.owned) {
        if (owned.path != path) continue;
        for (std::size_t i = owned.first; i < owned.last; ++i) {
            const SceneItem& item = figure.scene.items[i];
            if (const auto* stroke = std::get_if<StrokeItem>(&item))
                drawing.lines.insert(drawing.lines.end(), stroke->lines.begin(), stroke->lines.end());
            if (const auto* fill = std::get_if<FillItem>(&item)) {
                for (std::vector<Point> polygon : fill->polygons) {
                    if (!polygon.empty()) polygon.push_back(polygon.front());
                    drawing.lines.push_back(std::move(polygon));
                }
            }
            if (const auto* image = std::get_if<ImageItem>(&item)) drawing.images.push_back(image);
        }
    }
    return drawing;
}

bool sameImages(const Drawing& a, const Drawing& b) {
    return std::ranges::equal(a.images, b.images, [](const ImageItem* p, const ImageItem* q) {
        const auto same = [](const Rect& r, const Rect& s) {
            return r.x == s.x && r.y == s.y && r.width == s.width && r.height == s.height;
        };
        return same(p->rect, q->rect) && p->width == q->width && p->pixels == q->pixels;
    });
}

/// Less than this, in mm, is rounding.
constexpr double nothing = 1e-9;

/// The farthest that a point of `from` is away from `to`.
void farthest(const Drawing& from, const Drawing& to, PlotShift& shift) {
    const SegmentIndex index(to.lines);
    if (index.isEmpty()) return;
    for (const auto& line : from.lines) {
        for (std::size_t i = 0; i < line.size(); ++i) {
            const Point& a = line[i];
            const Point& b = i + 1 < line.size() ? line[i + 1] : a;
            // A point inside a segment may be farther away than its ends: looked at every half of a millimetre.
            const double length = std::hypot(b.x - a.x, b.y - a.y);
            if (!std::isfinite(length)) continue;
            const int steps = static_cast<int>(std::clamp(length / 0.5, 1.0, 1000.0));
            for (int k = 0; k < steps; ++k) {
                const double part = static_cast<double>(k) / steps;
                const Point p{a.x + part * (b.x - a.x), a.y + part * (b.y - a.y)};
                const double away = index.distance(p);
                if (!(away > std::max(nothing, shift.millimetres))) continue;
                shift.millimetres = away;
                shift.at = p;
            }
        }
    }
}

std::vector<ItemPath> plotsOf(const Figure& figure) {
    std::vector<ItemPath> paths;
    for (const Owned& owned : figure.owned) {
        if (owned.path.kind == ItemKind::Plot && std::ranges::find(paths, owned.path) == paths.end())
            paths.push_back(owned.path);
    }
    return paths;
}

/// How dark a dot is: 0 for paper, 1 for black.
double darkness(std::uint32_t pixel) {
    const auto part = [&](int shift) { return static_cast<double>(pixel >> shift & 0xffU) / 255; };
    return 1 - (0.3 * part(16) + 0.59 * part(8) + 0.11 * part(0));
}

} // namespace

std::size_t Comparison::shifted() const {
    return static_cast<std::size_t>(std::ranges::count_if(plots, &PlotShift::differs));
}

std::vector<RecipeDifference> compareRecipes(const Document& first, const Document& second) {
    std::vector<RecipeDifference> differences;
    comparePages(first.page, second.page, differences);
    std::vector<std::pair<std::string, std::string>> a, b;
    collect(OrderedJson::parse(writeRecipe(first)), "", a);
    collect(OrderedJson::parse(writeRecipe(second)), "", b);
    std::map<std::string, std::string> inSecond(b.begin(), b.end()), inFirst(a.begin(), a.end());
    for (const auto& [path, value] : a) {
        const auto at = inSecond.find(path);
        if (at == inSecond.end() || at->second != value)
            differences.push_back({path, value, at == inSecond.end() ? "" : at->second});
    }
    for (const auto& [path, value] : b) {
        if (!inFirst.contains(path)) differences.push_back({path, "", value});
    }
    return differences;
}

Comparison compareFigures(const Figure& first, const Figure& second) {
    Comparison comparison;
    comparison.recipe = compareRecipes(first.document, second.document);
    const std::vector<ItemPath> of = plotsOf(first), others = plotsOf(second);
    for (const ItemPath& path : of) {
        PlotShift shift;
        shift.path = path;
        if (const Drawn* drawn = drawnAt(first, path)) shift.name = nameOf(*drawn);
        shift.onlyInFirst = std::ranges::find(others, path) == others.end();
        if (!shift.onlyInFirst) {
            const Drawing a = drawingOf(first, path), b = drawingOf(second, path);
            farthest(a, b, shift);
            farthest(b, a, shift);
            shift.isPicture = !sameImages(a, b);
            const bool one = a.lines.empty() != b.lines.empty();
            shift.onlyInFirst = one && b.lines.empty() && !shift.isPicture;
            shift.onlyInSecond = one && a.lines.empty() && !shift.isPicture;
        }
        comparison.plots.push_back(std::move(shift));
    }
    for (const ItemPath& path : others) {
        if (std::ranges::find(of, path) != of.end()) continue;
        PlotShift shift;
        shift.path = path;
        if (const Drawn* drawn = drawnAt(second, path)) shift.name = nameOf(*drawn);
        shift.onlyInSecond = true;
        comparison.plots.push_back(std::move(shift));
    }
    return comparison;
}

Raster overlaid(const Figure& first, const Figure& second, double dotsPerMm) {
    const Raster a = paintRaster(first.scene, dotsPerMm), b = paintRaster(second.scene, dotsPerMm);
    if (a.pixels.empty() || b.pixels.empty()) return {};
    // Two inks, printed over one another: what they leave of red, green and blue.
    constexpr std::array<double, 3> blue{0.05, 0.42, 0.78}, orange{0.9, 0.42, 0.05};
    Raster both;
    both.width = std::max(a.width, b.width);
    both.height = std::max(a.height, b.height);
    both.pixels.resize(static_cast<std::size_t>(both.width) * static_cast<std::size_t>(both.height));
    const auto inkAt = [](const Raster& raster, int x, int y) {
        if (x >= raster.width || y >= raster.height) return 0.0;
        return darkness(raster.pixels[static_cast<std::size_t>(y) * static_cast<std::size_t>(raster.width) +
                                      static_cast<std::size_t>(x)]);
    };
    for (int y = 0; y < both.height; ++y) {
        for (int x = 0; x < both.width; ++x) {
            const double p = inkAt(a, x, y), q = inkAt(b, x, y);
            std::uint32_t pixel = 0xff;
            for (std::size_t k = 0; k < 3; ++k) {
                const double left = (1 - p * (1 - blue[k])) * (1 - q * (1 - orange[k]));
                pixel = pixel << 8U | static_cast<std::uint32_t>(std::lround(255 * left));
            }
            both.pixels[static_cast<std::size_t>(y) * static_cast<std::size_t>(both.width) +
                        static_cast<std::size_t>(x)] = pixel;
        }
    }
    return both;
}

std::vector<std::string> describe(const Comparison& comparison) {
    std::vector<std::string> said;
    for (const RecipeDifference& each : comparison.recipe) {
        if (each.second.empty())
            said.push_back(fmt::format("{}: only the first has “{}”", each.where, each.first));
        else if (each.first.empty())
            said.push_back(fmt::format("{}: only the second has “{}”", each.where, each.second));
        else
            said.push_back(fmt::format("{}: “{}” became “{}”", each.where, each.first, each.second));
    }
    const bool several =
        std::ranges::any_of(comparison.plots, [](const PlotShift& each) { return each.path.panel > 0; });
    for (const PlotShift& each : comparison.plots) {
        if (!each.differs()) continue;
        std::string about = several ? fmt::format("panel {}, {}", each.path.panel + 1, each.name) : each.name;
        if (each.onlyInFirst || each.onlyInSecond)
            said.push_back(
                fmt::format("{}: drawn only in the {} figure", about, each.onlyInFirst ? "first" : "second"));
        if (each.isPicture) said.push_back(about + ": its dots differ");
        if (each.millimetres > 0)
            said.push_back(
                fmt::format("{}: moved by up to {:.3g} mm, at {:.1f} mm from the left and {:.1f} mm from the top",
                            about, each.millimetres, each.at.x, each.at.y));
    }
    const std::size_t still = comparison.plots.size() - comparison.shifted();
    if (comparison.same())
        said.emplace_back("nothing differs");
    else if (still > 0)
        said.push_back(still == 1 ? "one plot stays where it was"
                                  : fmt::format("{} plots stay where they were", still));
    return said;
}

} // namespace coulter
