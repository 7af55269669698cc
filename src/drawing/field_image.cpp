#include "drawing/field_image.h"

#include "drawing/colours.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <set>
#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>

namespace coulter {
namespace {

/// More dots than that are not computed for one field: on larger sheets each is larger.
constexpr double mostFieldDots = 12e6;
constexpr std::size_t shades = 1024; // more than a screen can tell apart

/// A raster of values under the panel, and the way from there to the sheet.
struct Dots {
    int left = 0, top = 0; ///< of the sheet's raster
    int width = 0, height = 0;
    double perMm = 1;
    double frameX = 0, frameBottom = 0; ///< of the panel, mm
    std::vector<double> value;          ///< of a mesh; NaN where there is none

    /// Coordinates of a dot's middle in mm from the panel's lower left corner.
    double u(int x) const { return (left + x + 0.5) / perMm - frameX; }
    double v(int y) const { return frameBottom - (top + y + 0.5) / perMm; }
    double& at(int x, int y) {
        return value[static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x)];
    }
};

/// @param parts  dots for each dot of the sheet's raster, in both directions
Dots dotsUnder(const Frame& frame, double perMm, int parts) {
    const Rect& f = frame.rect;
    Dots dots;
    dots.perMm = perMm * parts;
    dots.left = static_cast<int>(std::floor(f.x * perMm)) * parts;
    dots.top = static_cast<int>(std::floor(f.y * perMm)) * parts;
    dots.width = static_cast<int>(std::ceil(f.right() * perMm)) * parts - dots.left;
    dots.height = static_cast<int>(std::ceil(f.bottom() * perMm)) * parts - dots.top;
    dots.frameX = f.x;
    dots.frameBottom = f.bottom();
    return dots;
}

/// Fills the dots of some rows whose middles are in a triangle; `weighted` gives the value from the three weights.
template <typename Weighted>
void fillTriangle(Dots& dots, const tbb::blocked_range<int>& rows, const std::array<Point, 3>& p,
                  const Weighted& weighted) {
    const double det = (p[1].x - p[0].x) * (p[2].y - p[0].y) - (p[2].x - p[0].x) * (p[1].y - p[0].y);
    if (det == 0 || !std::isfinite(det)) return;
    const auto [lowX, highX] = std::minmax({p[0].x, p[1].x, p[2].x});
    const auto [lowY, highY] = std::minmax({p[0].y, p[1].y, p[2].y});
    const double x0 = dots.u(0), y0 = dots.v(0), step = 1 / dots.perMm;
    const int fromX = std::max(0, static_cast<int>(std::ceil(std::max(-1.0, (lowX - x0) / step) - 1e-6))),
              toX = std::min(dots.width - 1, static_cast<int>(std::floor(std::min(1e6, (highX - x0) / step) + 1e-6))),
              fromY = std::max(rows.begin(), static_cast<int>(std::ceil(std::max(-1.0, (y0 - highY) / step) - 1e-6))),
              toY = std::min(rows.end() - 1, static_cast<int>(std::floor(std::min(1e6, (y0 - lowY) / step) + 1e-6)));
    constexpr double slack = -1e-9; // a dot on an edge belongs to either side, never to none
    for (int y = fromY; y <= toY; ++y) {
        const double v = dots.v(y);
        for (int x = fromX; x <= toX; ++x) {
            const double u = dots.u(x);
            const double b = ((u - p[0].x) * (p[2].y - p[0].y) - (p[2].x - p[0].x) * (v - p[0].y)) / det;
            const double c = ((p[1].x - p[0].x) * (v - p[0].y) - (u - p[0].x) * (p[1].y - p[0].y)) / det;
            if (b < slack || c < slack || 1 - b - c < slack) continue;
            dots.at(x, y) = weighted(1 - b - c, b, c);
        }
    }
}

/// mm from the panel's lower left corner, whichever way its scales run.
Point fromCorner(const Frame& frame, double x, double y) {
    const Point p = frame.onSheet(x, y);
    return {p.x - frame.rect.x, frame.rect.bottom() - p.y};
}

void fillMesh(Dots& dots, const FieldSamples& samples, FieldFill fill, const Frame& frame) {
    const bool unreversed = !frame.leftwards && !frame.downwards;
    std::vector<Point> places(samples.pointCount());
    std::vector<double> sizes(samples.pointCount());
    for (std::size_t i = 0; i < places.size(); ++i) {
        places[i] = unreversed ? Point{frame.map.x.toSheet(samples.x[i]), frame.map.y.toSheet(samples.y[i])}
                               : fromCorner(frame, samples.x[i], samples.y[i]);
        sizes[i] = samples.sizeAt(i);
    }
    // By bands of rows, in each of them triangle after triangle: the number of threads shows nowhere.
    constexpr int bands = 16;
    const int height = std::max(1, (dots.height + bands - 1) / bands);
    tbb::parallel_for(
        tbb::blocked_range<int>(0, dots.height, static_cast<std::size_t>(height)),
        [&](const tbb::blocked_range<int>& rows) {
            const double top = dots.v(rows.begin()) + 1 / dots.perMm, bottom = dots.v(rows.end()) - 1 / dots.perMm;
            for (const auto& t : samples.triangles) {
                const std::array<Point, 3> p{places[t[0]], places[t[1]], places[t[2]]};
                if (std::min({p[0].y, p[1].y, p[2].y}) > top || std::max({p[0].y, p[1].y, p[2].y}) < bottom) continue;
                const std::array<double, 3> z{sizes[t[0]], sizes[t[1]], sizes[t[2]]};
                const double mean = (z[0] + z[1] + z[2]) / 3;
                fillTriangle(dots, rows, p, [&](double a, double b, double c) {
                    return fill == FieldFill::Cells ? mean : a * z[0] + b * z[1] + c * z[2];
                });
            }
        },
        tbb::simple_partitioner());
}

/// Index of the interval of ascending places that holds one; −1 before the first, size − 1 at or after the last.
std::vector<int> intervalsOf(const std::vector<double>& places, int count, const auto& at) {
    std::vector<int> found(static_cast<std::size_t>(count));
    for (int i = 0; i < count; ++i) {
        const auto next = std::ranges::upper_bound(places, at(i));
        found[static_cast<std::size_t>(i)] = static_cast<int>(next - places.begin()) - 1;
    }
    return found;
}

/// Places along a scale in mm from its lower or left end, ascending: of a reversed scale the last one first.
std::vector<double> ascending(std::vector<double> mm, double length, bool reversed) {
    if (!reversed) return mm;
    std::ranges::reverse(mm);
    for (double& each : mm) each = length - each;
    return mm;
}

/// Colours as dots have them, computed once for all.
class Shades {
public:
    explicit Shades(const Frame& frame) : run_(frame.shades), scale_(frame.colour) {
        scale_.length = shades - 1;
        tbb::parallel_for(std::size_t{0}, shades,
                          [&](std::size_t i) { colours_[i] = dot(run_.at(static_cast<double>(i) / (shades - 1))); });
        if (!run_.steps.empty()) {
            for (std::size_t k = 0; k <= run_.steps.size(); ++k) stepped_.push_back(dot(run_.ofStep(k, scale_)));
        }
        undefined_ = run_.undefined ? dot(*run_.undefined) : 0;
        under_ = run_.under ? dot(*run_.under) : stepped_.empty() ? colours_.front() : stepped_.front();
        over_ = run_.over ? dot(*run_.over) : stepped_.empty() ? colours_.back() : stepped_.back();
    }

    std::uint32_t of(double value) const {
        if (std::isnan(value)) return undefined_;
        if (run_.under && value < scale_.low) return under_;
        if (run_.over && value > scale_.high) return over_;
        if (!stepped_.empty())
            return stepped_[static_cast<std::size_t>(std::ranges::upper_bound(run_.steps, value) - run_.steps.begin())];
        const double shade = scale_.toSheet(value);
        if (std::isnan(shade)) return run_.under ? under_ : 0; // below all that a logarithmic scale shows
        return colours_[shadeAt(shade + 0.5)];
    }

    /// The colours of many values: the same, in steps that processors do for several at once.
    void of(const std::vector<double>& values, std::uint32_t* into) const {
        const bool isPlain = scale_.kind == ScaleKind::Linear && stepped_.empty() && !run_.under && !run_.over &&
                             scale_.low < scale_.high;
        if (!isPlain) {
            for (std::size_t i = 0; i < values.size(); ++i) into[i] = of(values[i]);
            return;
        }
        constexpr std::size_t some = 256;
        std::array<double, some> places{};
        const double low = scale_.low, range = scale_.high - scale_.low, length = scale_.length;
        for (std::size_t first = 0; first < values.size(); first += some) {
            const std::size_t count = std::min(some, values.size() - first);
            const double* const from = values.data() + first;
            for (std::size_t i = 0; i < count; ++i) places[i] = (from[i] - low) / range * length + 0.5;
            for (std::size_t i = 0; i < count; ++i) {
                into[first + i] = std::isnan(from[i]) ? undefined_ : colours_[shadeAt(places[i])];
            }
        }
    }

private:
    static std::size_t shadeAt(double place) { // the first one of what is no number
        return place > 0 ? static_cast<std::size_t>(std::min(place, static_cast<double>(shades - 1))) : 0;
    }
    static std::uint32_t dot(Colour c) {
        return 0xff000000U | static_cast<std::uint32_t>(c.red) << 16 | static_cast<std::uint32_t>(c.green) << 8 |
               c.blue;
    }
    const ColourRun& run_;
    AxisMap scale_;
    std::array<std::uint32_t, shades> colours_{};
    std::vector<std::uint32_t> stepped_;
    std::uint32_t undefined_ = 0, under_ = 0, over_ = 0;
};

/// The dots of a meshgrid, each row looked up and coloured at once.
std::vector<std::uint32_t> gridPixels(const Dots& dots, const FieldSamples& samples, FieldFill fill,
                                      const Frame& frame) {
    const Shades colours(frame);
    std::vector<std::uint32_t> pixels(static_cast<std::size_t>(dots.width) * static_cast<std::size_t>(dots.height));
    const PanelMap& map = frame.map;
    const int columns = static_cast<int>(samples.columns.size()), rows = static_cast<int>(samples.rows.size());
    std::vector<double> xs, ys;
    for (const double x : samples.columns) xs.push_back(map.x.toSheet(x));
    for (const double y : samples.rows) ys.push_back(map.y.toSheet(y));
    const bool cells = fill == FieldFill::Cells;
    std::vector<double> xBorders = cells ? cellBorders(samples.columns, map.x) : xs,
                        yBorders = cells ? cellBorders(samples.rows, map.y) : ys;
    xs = ascending(std::move(xs), map.x.length, frame.leftwards);
    ys = ascending(std::move(ys), map.y.length, frame.downwards);
    xBorders = ascending(std::move(xBorders), map.x.length, frame.leftwards);
    yBorders = ascending(std::move(yBorders), map.y.length, frame.downwards);
    const std::vector<int> column = intervalsOf(xBorders, dots.width, [&](int x) { return dots.u(x); }),
                           row = intervalsOf(yBorders, dots.height, [&](int y) { return dots.v(y); });
    std::vector<double> across(cells ? 0 : column.size()); // how far into its column each dot lies
    for (std::size_t x = 0; x < across.size(); ++x) {
        if (column[x] < 0 || column[x] + 1 >= columns) continue;
        const auto i = static_cast<std::size_t>(column[x]);
        across[x] = (dots.u(static_cast<int>(x)) - xs[i]) / (xs[i + 1] - xs[i]);
    }
    // The values of a row of points, from the panel's left to its right: where they are, or else as a copy.
    const auto rowAt = [&](int j, std::vector<double>& copy) -> const double* {
        if (frame.downwards) j = rows - 1 - j;
        const std::size_t first = static_cast<std::size_t>(j) * samples.columns.size();
        if (samples.values.size() == 1 && !frame.leftwards) return samples.values[0].data() + first;
        copy.resize(samples.columns.size());
        for (std::size_t i = 0; i < copy.size(); ++i) copy[i] = samples.sizeAt(first + i);
        if (frame.leftwards) std::ranges::reverse(copy);
        return copy.data();
    };
    // The dots between the first and the last point of a row.
    const auto isDot = [&](int i) { return i >= 0 && (cells ? i : i + 1) < columns; };
    const auto firstDot = static_cast<std::size_t>(std::ranges::find_if(column, isDot) - column.begin());
    const auto dotCount = static_cast<std::size_t>(std::ranges::count_if(column, isDot));
    tbb::parallel_for(tbb::blocked_range<int>(0, dots.height), [&](const tbb::blocked_range<int>& range) {
        std::vector<double> lowerCopy, upperCopy, line(dotCount);
        const double *lower = nullptr, *upper = nullptr;
        int read = -1; // the row that `lower` has
        for (int y = range.begin(); y < range.end(); ++y) {
            std::uint32_t* const into = pixels.data() + static_cast<std::size_t>(y) * column.size();
            std::fill_n(into, column.size(), colours.of(std::numeric_limits<double>::quiet_NaN()));
            const int j = row[static_cast<std::size_t>(y)];
            if (j < 0 || (cells ? j : j + 1) >= rows) continue;
            if (cells && j == read) { // all dots of a row of cells are as those above them
                std::copy_n(into - column.size(), column.size(), into);
                continue;
            }
            if (j != read) {
                lower = rowAt(j, lowerCopy);
                if (!cells) upper = rowAt(j + 1, upperCopy);
                read = j;
            }
            const auto b = static_cast<std::size_t>(j);
            const double q = cells ? 0 : (dots.v(y) - ys[b]) / (ys[b + 1] - ys[b]);
            if (cells) {
                for (std::size_t x = 0; x < line.size(); ++x)
                    line[x] = lower[static_cast<std::size_t>(column[firstDot + x])];
            } else {
                for (std::size_t x = 0; x < line.size(); ++x) {
                    const auto i = static_cast<std::size_t>(column[firstDot + x]);
                    const double p = across[firstDot + x];
                    line[x] =
                        (1 - q) * ((1 - p) * lower[i] + p * lower[i + 1]) + q * ((1 - p) * upper[i] + p * upper[i + 1]);
                }
            }
            colours.of(line, into + firstDot);
        }
    });
    return pixels;
}

} // namespace

std::vector<double> cellBorders(const std::vector<double>& points, const AxisMap& map) {
    std::vector<double> borders;
    if (points.empty()) return borders;
    std::vector<double> at;
    for (const double point : points) at.push_back(map.toSheet(point));
    if (at.size() == 1) return {at[0] - map.length, at[0] + map.length};
    borders.push_back(at[0] - (at[1] - at[0]) / 2);
    for (std::size_t i = 0; i + 1 < at.size(); ++i) borders.push_back(at[i] / 2 + at[i + 1] / 2);
    borders.push_back(at.back() + (at.back() - at[at.size() - 2]) / 2);
    return borders;
}

namespace {

Dots meshDots(const FieldSamples& samples, FieldFill fill, const Frame& frame, double dotsPerMm, int parts) {
    Dots dots = dotsUnder(frame, dotsPerMm, parts);
    dots.value.assign(static_cast<std::size_t>(dots.width) * static_cast<std::size_t>(dots.height),
                      std::numeric_limits<double>::quiet_NaN());
    fillMesh(dots, samples, fill, frame);
    return dots;
}

ImageItem imageUnder(const Dots& dots, const Frame& frame) {
    ImageItem image;
    image.width = dots.width;
    image.height = dots.height;
    image.rect = {dots.left / dots.perMm, dots.top / dots.perMm, dots.width / dots.perMm, dots.height / dots.perMm};
    image.clip = frame.rect;
    return image;
}

std::vector<std::uint32_t> pixelsOf(const std::vector<double>& values, const Shades& colours) {
    std::vector<std::uint32_t> pixels(values.size());
    tbb::parallel_for(tbb::blocked_range<std::size_t>(0, values.size(), 4096),
                      [&](const tbb::blocked_range<std::size_t>& range) {
                          for (std::size_t i = range.begin(); i < range.end(); ++i) pixels[i] = colours.of(values[i]);
                      });
    return pixels;
}

/// The mean of colours, each channel rounded.
std::uint32_t meanOf(std::span<const std::uint32_t> colours) {
    std::uint32_t mean = 0;
    const auto count = static_cast<std::uint32_t>(colours.size());
    for (unsigned shift = 0; shift < 32; shift += 8) {
        std::uint32_t sum = count / 2;
        for (const std::uint32_t colour : colours) sum += colour >> shift & 0xffU;
        mean |= sum / count << shift;
    }
    return mean;
}

/// The resolution at which a panel has no more dots than are computed.
double fewEnough(const Frame& frame, double dotsPerMm) {
    while (frame.rect.width * frame.rect.height * dotsPerMm * dotsPerMm > mostFieldDots) dotsPerMm /= 2;
    return dotsPerMm;
}

/// Four dots as one, so that the edge of a domain is as smooth as a line's.
void halve(ImageItem& image) {
    std::vector<std::uint32_t> pixels(image.pixels.size() / 4);
    const auto width = static_cast<std::size_t>(image.width);
    for (std::size_t i = 0; i < pixels.size(); ++i) {
        const std::size_t from = 2 * (i / (width / 2)) * width + 2 * (i % (width / 2));
        pixels[i] = meanOf(std::array{image.pixels[from], image.pixels[from + 1], image.pixels[from + width],
                                      image.pixels[from + width + 1]});
    }
    image.pixels = std::move(pixels);
    image.width /= 2;
    image.height /= 2;
}

} // namespace

std::array<DotSide, 2> dotSides(const Frame& frame, double dotsPerMm) {
    const Dots dots = dotsUnder(frame, fewEnough(frame, dotsPerMm), 1);
    const auto side = [&](int count, const AxisMap& map, bool reversed, const auto& mmOf) {
        constexpr int parts = static_cast<int>(DotSamples::partsAcross);
        const auto at = [&](double dot) {
            const double mm = reversed ? map.length - mmOf(dot) : mmOf(dot);
            return mm <= 0 ? map.low : mm >= map.length ? map.high : map.fromSheet(mm);
        };
        DotSide made;
        for (int i = 0; i <= count; ++i) made.edges.push_back(at(i));
        for (int i = 0; i < count; ++i) made.middles.push_back(at(i + 0.5));
        for (int i = 0; i < count * parts; ++i) made.parts.push_back(at((i + 0.5) / parts));
        return made;
    };
    return {side(dots.width, frame.map.x, frame.leftwards,
                 [&](double dot) { return (dots.left + dot) / dots.perMm - dots.frameX; }),
            side(dots.height, frame.map.y, frame.downwards,
                 [&](double dot) { return dots.frameBottom - (dots.top + dot) / dots.perMm; })};
}

ImageItem dotImage(const DotSamples& samples, const Frame& frame, double dotsPerMm) {
    const Dots dots = dotsUnder(frame, fewEnough(frame, dotsPerMm), 1);
    const Shades colours(frame);
    ImageItem image = imageUnder(dots, frame);
    image.pixels = pixelsOf(samples.values, colours);
    std::array<std::uint32_t, DotSamples::partsOfDot> parts{};
    for (const DotSamples::Divided& each : samples.divided) {
        std::ranges::transform(each.values, parts.begin(), [&](double value) { return colours.of(value); });
        image.pixels[each.dot] = meanOf(parts);
    }
    return image;
}

ImageItem fieldImage(const FieldSamples& samples, FieldFill fill, const Frame& frame, double dotsPerMm) {
    dotsPerMm = fewEnough(frame, dotsPerMm);
    if (!samples.isMesh()) {
        const Dots dots = dotsUnder(frame, dotsPerMm, 1);
        ImageItem image = imageUnder(dots, frame);
        image.pixels = gridPixels(dots, samples, fill, frame);
        return image;
    }
    Dots dots = meshDots(samples, fill, frame, dotsPerMm, 1);
    const auto clear =
        static_cast<std::size_t>(std::ranges::count_if(dots.value, [](double value) { return std::isnan(value); }));
    // With a colour for what is undefined all dots are filled.
    const bool hasEdge = clear > 0 && clear < dots.value.size();
    if (hasEdge) dots = meshDots(samples, fill, frame, dotsPerMm, 2);
    const Shades colours(frame);
    ImageItem image = imageUnder(dots, frame);
    image.pixels = pixelsOf(dots.value, colours);
    if (hasEdge) halve(image);
    return image;
}

std::vector<std::vector<Point>> meshLines(const FieldSamples& samples, const Frame& frame) {
    const Rect& f = frame.rect;
    std::vector<std::vector<Point>> lines;
    if (!samples.isMesh()) {
        for (const double u :
             ascending(cellBorders(samples.columns, frame.map.x), frame.map.x.length, frame.leftwards)) {
            if (u >= 0 && u <= f.width) lines.push_back({{f.x + u, f.y}, {f.x + u, f.bottom()}});
        }
        for (const double v : ascending(cellBorders(samples.rows, frame.map.y), frame.map.y.length, frame.downwards)) {
            if (v >= 0 && v <= f.height) lines.push_back({{f.x, f.bottom() - v}, {f.right(), f.bottom() - v}});
        }
        return lines;
    }
    std::set<std::pair<std::uint32_t, std::uint32_t>> drawn;
    for (const auto& t : samples.triangles) {
        for (std::size_t k = 0; k < 3; ++k) {
            const std::uint32_t a = t[k], b = t[(k + 1) % 3];
            if (!drawn.emplace(std::min(a, b), std::max(a, b)).second) continue;
            std::vector<Point> line;
            for (const std::uint32_t i : {a, b}) line.push_back(frame.onSheet(samples.x[i], samples.y[i]));
            lines.push_back(std::move(line));
        }
    }
    return lines;
}

std::vector<std::vector<Point>> elementLines(const ElementMesh& mesh, const Frame& frame) {
    std::set<std::pair<std::uint32_t, std::uint32_t>> drawn;
    std::vector<std::vector<Point>> lines;
    for (std::size_t e = 0; e < mesh.elements.size(); ++e) {
        const std::size_t corners = mesh.cornersOf(e);
        for (std::size_t k = 0; k < corners; ++k) {
            const std::uint32_t a = mesh.elements[e][k], b = mesh.elements[e][(k + 1) % corners];
            if (!drawn.emplace(std::min(a, b), std::max(a, b)).second) continue;
            lines.push_back({frame.onSheet(mesh.x[a], mesh.y[a]), frame.onSheet(mesh.x[b], mesh.y[b])});
        }
    }
    return lines;
}

} // namespace coulter
