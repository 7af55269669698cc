#include "drawing/thinning.h"

#include "drawing/nearness.h"

#include <algorithm>
#include <array>
#include <bit>
#include <cmath>
#include <optional>
#include <tbb/parallel_for.h>
#include <utility>

namespace coulter {
namespace {

constexpr int partsOfDot = 2; // in both directions, so that edges are smooth

/// Without a call of the library, because this is asked for every point. A sheet is far smaller than the bounds.
long column(double mm) { return static_cast<long>((mm > -1e6 ? std::min(mm, 1e6) : -1e6) * (1 / finestDetail) + 1e8); }

/// First, lowest, highest and last point of each column.
std::vector<Point> byColumns(const std::vector<Point>& line) {
    std::vector<Point> kept;
    for (std::size_t i = 0; i < line.size();) {
        std::size_t end = i, low = i, high = i;
        for (; end < line.size() && column(line[end].x) == column(line[i].x); ++end) {
            if (line[end].y < line[low].y) low = end;
            if (line[end].y > line[high].y) high = end;
        }
        std::array<std::size_t, 4> order{i, low, high, end - 1};
        std::ranges::sort(order);
        for (std::size_t k = 0; k < 4; ++k) {
            if (k == 0 || order[k] != order[k - 1]) kept.push_back(line[order[k]]);
        }
        i = end;
    }
    return kept;
}

/// A row of bits, 64 to a word.
using Bits = std::vector<std::uint64_t>;

/// `into` |= `row` moved by so many places, either way.
void orMoved(Bits& into, const Bits& row, int by) {
    const auto size = static_cast<int>(row.size());
    const int words = by >= 0 ? by / 64 : -((-by + 63) / 64), bits = by - 64 * words;
    for (int i = std::max(0, words); i < std::min(size, size + words + 1); ++i) {
        const int from = i - words;
        std::uint64_t word = from < size ? row[static_cast<std::size_t>(from)] << bits : 0;
        if (bits > 0 && from > 0) word |= row[static_cast<std::size_t>(from - 1)] >> (64 - bits);
        into[static_cast<std::size_t>(i)] |= word;
    }
}

/// Which cells round a place a shape covers: spans [from, to] of each row.
struct Stamp {
    struct Span {
        int row, from, to;
    };
    std::vector<Span> spans; ///< by their lengths
    int reach() const {
        int most = 0;
        for (const Span& span : spans) most = std::max(most, std::abs(span.row));
        return most;
    }
};

Stamp stampOf(const Polylines& shape, double cell) {
    double reach = cell;
    for (const auto& polygon : shape) {
        for (const Point& p : polygon) reach = std::max({reach, std::abs(p.x), std::abs(p.y)});
    }
    const int most = static_cast<int>(std::ceil(reach / cell));
    Stamp stamp;
    for (int row = -most; row <= most; ++row) {
        for (int x = -most; x <= most; ++x) {
            const bool covered =
                (row == 0 && x == 0 && shape.empty()) || std::ranges::any_of(shape, [&](const auto& polygon) {
                    return isInside({polygon}, {x * cell, row * cell});
                });
            if (!covered) continue;
            if (!stamp.spans.empty() && stamp.spans.back().row == row && stamp.spans.back().to == x - 1)
                stamp.spans.back().to = x;
            else
                stamp.spans.push_back({row, x, x});
        }
    }
    if (stamp.spans.empty()) stamp.spans.push_back({0, 0, 0}); // smaller than a dot
    std::ranges::stable_sort(stamp.spans, {}, [](const Stamp::Span& span) { return span.to - span.from; });
    return stamp;
}

/// What a stamp at every bit covers; rows without anything stay empty.
std::vector<Bits> stamped(const std::vector<Bits>& rows, const Stamp& stamp, std::size_t words) {
    std::vector<Bits> covered(rows.size());
    const int height = static_cast<int>(rows.size()), reach = stamp.reach(), blocks = std::max(1, height / 256);
    inParallel(static_cast<std::size_t>(blocks), [&](std::size_t block) {
        const int first = static_cast<int>(block) * height / blocks,
                  end = static_cast<int>(block + 1) * height / blocks;
        Bits wide, scratch;
        for (int from = std::max(0, first - reach); from < std::min(height, end + reach); ++from) {
            if (rows[static_cast<std::size_t>(from)].empty()) continue;
            // Spans come by their lengths, so each only widens what the one before has widened.
            wide = rows[static_cast<std::size_t>(from)];
            int length = 1;
            for (const Stamp::Span& span : stamp.spans) {
                while (length < span.to - span.from + 1) {
                    const int more = std::min(length, span.to - span.from + 1 - length);
                    scratch = wide;
                    orMoved(wide, scratch, more);
                    length += more;
                }
                const int to = from + span.row;
                if (to < first || to >= end) continue;
                Bits& all = covered[static_cast<std::size_t>(to)];
                if (all.empty()) all.resize(words);
                orMoved(all, wide, span.from);
            }
        }
    });
    return covered;
}

} // namespace

void inParallel(std::size_t count, const std::function<void(std::size_t)>& call) {
    tbb::parallel_for(std::size_t{0}, count, call);
}

std::vector<Point> thinnedLine(const std::vector<Point>& line) {
    if (line.size() < 5) return line;
    const auto runsOn = [&](double sign) {
        for (std::size_t i = 1; i < line.size(); ++i) {
            if (!(sign * (line[i].x - line[i - 1].x) >= 0)) return false;
        }
        return true;
    };
    if (runsOn(1) || runsOn(-1)) return byColumns(line);
    std::vector<Point> kept{line.front()};
    for (std::size_t i = 1; i + 1 < line.size(); ++i) {
        if (std::hypot(line[i].x - kept.back().x, line[i].y - kept.back().y) >= finestDetail / 2)
            kept.push_back(line[i]);
    }
    kept.push_back(line.back());
    return kept;
}

namespace {

/// What is covered of a raster, in columns (or, turned, in rows) of the finest detail.
class Covered {
public:
    Covered(double across, double along, double width, double length)
        : across_(across), along_(along), columns_(static_cast<std::size_t>(width / finestDetail) + 2),
          words_(static_cast<std::size_t>(length / finestDetail) / 64 + 2), bits_(columns_ * words_) {}

    void append(const Covered& other) {
        for (std::size_t i = 0; i < bits_.size(); ++i) bits_[i] |= other.bits_[i];
    }

    void add(double at, double from, double to) {
        constexpr double perMm = 1 / finestDetail;
        const double most = static_cast<double>(64 * words_ - 1), place = (at - across_) * perMm;
        if (!(place >= 0 && place < static_cast<double>(columns_))) return;
        if (to < from) std::swap(from, to);
        const double first = std::clamp((from - along_) * perMm, 0.0, most),
                     last = std::clamp((to - along_) * perMm, 0.0, most);
        std::uint64_t* const row = bits_.data() + static_cast<std::size_t>(place) * words_;
        const auto a = static_cast<std::size_t>(first), b = static_cast<std::size_t>(last);
        const std::uint64_t low = ~std::uint64_t{0} << (a % 64), high = ~std::uint64_t{0} >> (63 - b % 64);
        if (a / 64 == b / 64) {
            row[a / 64] |= low & high;
            return;
        }
        row[a / 64] |= low;
        for (std::size_t i = a / 64 + 1; i < b / 64; ++i) row[i] = ~std::uint64_t{0};
        row[b / 64] |= high;
    }

    /// Calls with (across, from, to) of each unbroken stretch.
    template <typename Call> void each(const Call& call) const {
        for (std::size_t c = 0; c < columns_; ++c) {
            std::optional<std::size_t> open;
            for (std::size_t i = 0; i <= 64 * words_; ++i) {
                if (i % 64 == 0 && i < 64 * words_ &&
                    bits_[c * words_ + i / 64] == (open ? ~std::uint64_t{0} : std::uint64_t{0})) {
                    i += 63; // nothing changes in this word
                    continue;
                }
                const bool set = i < 64 * words_ && (bits_[c * words_ + i / 64] >> (i % 64) & 1U) != 0;
                if (set && !open) open = i;
                if (set || !open) continue;
                call(across_ + (static_cast<double>(c) + 0.5) * finestDetail,
                     along_ + static_cast<double>(*open) * finestDetail,
                     along_ + static_cast<double>(i) * finestDetail);
                open.reset();
            }
        }
    }

private:
    double across_, along_;
    std::size_t columns_, words_;
    std::vector<std::uint64_t> bits_;
};

} // namespace

/// What upright and what level lines cover; there where there are any.
struct ManySegments::Raster {
    explicit Raster(const Rect& r) : room(r) {}
    Covered& uprights() {
        if (!upright) upright.emplace(room.x, room.y, room.width, room.height);
        return *upright;
    }
    Covered& levels() {
        if (!level) level.emplace(room.y, room.x, room.height, room.width);
        return *level;
    }
    void append(const Raster& other) {
        if (other.upright) uprights().append(*other.upright);
        if (other.level) levels().append(*other.level);
    }
    Rect room;
    std::optional<Covered> upright, level;
};

ManySegments::ManySegments(const Rect& room, std::size_t mostPlain) : room_(room), mostPlain_(mostPlain) {}
ManySegments::ManySegments(ManySegments&&) noexcept = default;
ManySegments::~ManySegments() = default;

void ManySegments::append(const ManySegments& other) {
    for (const Segment& each : other.plain_) add(each.a, each.b);
    if (!other.raster_) return;
    if (!raster_) raster_ = std::make_unique<Raster>(room_);
    raster_->append(*other.raster_);
}

void ManySegments::add(const Point& a, const Point& b) {
    if (!raster_ && plain_.size() < mostPlain_) {
        plain_.push_back({a, b});
        return;
    }
    if (!raster_) {
        raster_ = std::make_unique<Raster>(room_);
        const std::vector<Segment> before = std::exchange(plain_, {});
        for (const Segment& each : before) add(each.a, each.b);
    }
    if (std::abs(a.x - b.x) < finestDetail / 2)
        raster_->uprights().add(a.x, a.y, b.y);
    else if (std::abs(a.y - b.y) < finestDetail / 2)
        raster_->levels().add(a.y, a.x, b.x);
    else
        plain_.push_back({a, b});
}

Polylines ManySegments::lines() const {
    Polylines kept;
    kept.reserve(plain_.size());
    for (const auto& [a, b] : plain_) kept.push_back({a, b});
    if (!raster_) return kept;
    if (raster_->upright)
        raster_->upright->each([&](double x, double from, double to) { kept.push_back({{x, from}, {x, to}}); });
    if (raster_->level)
        raster_->level->each([&](double y, double from, double to) { kept.push_back({{from, y}, {to, y}}); });
    return kept;
}

ImageItem denseMarks(const MarkPlaces& places, const Polylines& shape, const Paint& paint, const Rect& clip,
                     double dotsPerMm) {
    // Room for marks whose middles are at the edge.
    double reach = 0;
    for (const auto& polygon : shape) {
        for (const Point& p : polygon) reach = std::max({reach, std::abs(p.x), std::abs(p.y)});
    }
    const Rect room = clip.grown(reach + 2 / dotsPerMm);
    const int left = static_cast<int>(std::floor(room.x * dotsPerMm)),
              top = static_cast<int>(std::floor(room.y * dotsPerMm));
    ImageItem image;
    image.width = static_cast<int>(std::ceil(room.right() * dotsPerMm)) - left;
    image.height = static_cast<int>(std::ceil(room.bottom() * dotsPerMm)) - top;
    image.rect = {left / dotsPerMm, top / dotsPerMm, image.width / dotsPerMm, image.height / dotsPerMm};
    image.clip = image.rect;
    const double cell = 1 / (dotsPerMm * partsOfDot);
    const int width = image.width * partsOfDot, height = image.height * partsOfDot;
    std::vector<Bits> rows(static_cast<std::size_t>(height));
    const auto words = static_cast<std::size_t>(width + 63) / 64;
    // Each part of the places has bits of its own, which are then put over one another.
    constexpr std::size_t parts = 4, block = 512;
    std::vector<Bits> ofPart(parts);
    inParallel(parts, [&](std::size_t part) {
        std::array<Point, block> some;
        std::array<int, block> columns, lines;
        Bits& bits = ofPart[part];
        bits.resize(rows.size() * words);
        const double xFrom = clip.x, xTo = clip.right(), yFrom = clip.y, yTo = clip.bottom();
        const double xOfImage = image.rect.x, yOfImage = image.rect.y;
        const std::size_t end = places.count * (part + 1) / parts;
        for (std::size_t begin = places.count * part / parts; begin < end; begin += block) {
            const std::span<Point> now(some.data(), std::min(block, end - begin));
            places.tell(begin, now);
            // What is clipped is in no cell. All else lies right of the image's left side and below its top, where
            // cutting off the fraction is rounding down.
            for (std::size_t i = 0; i < now.size(); ++i) {
                const Point p = now[i];
                const bool isShown = (p.x >= xFrom) & (p.x <= xTo) & (p.y >= yFrom) & (p.y <= yTo);
                columns[i] = static_cast<int>((isShown ? p.x - xOfImage : -cell) / cell);
                lines[i] = static_cast<int>((isShown ? p.y - yOfImage : -cell) / cell);
            }
            for (std::size_t i = 0; i < now.size(); ++i) {
                const int x = columns[i], y = lines[i];
                if (x < 0 || y < 0 || x >= width || y >= height) continue;
                bits[static_cast<std::size_t>(y) * words + static_cast<std::size_t>(x) / 64] |= std::uint64_t{1}
                                                                                                << (x % 64);
            }
        }
    });
    inParallel(rows.size(), [&](std::size_t y) {
        Bits row(words);
        std::uint64_t any = 0;
        for (const Bits& bits : ofPart) {
            for (std::size_t k = 0; k < words; ++k) any |= row[k] |= bits[y * words + k];
        }
        if (any != 0) rows[y] = std::move(row);
    });
    const Stamp stamp = stampOf(shape, cell);
    image.pixels.resize(static_cast<std::size_t>(image.width) * static_cast<std::size_t>(image.height));
    const std::vector<Bits> covered = stamped(rows, stamp, words);
    // How much of a dot is covered has few values.
    std::array<std::uint32_t, partsOfDot * partsOfDot + 1> colours{};
    for (std::size_t count = 1; count < colours.size(); ++count) {
        const double alpha = paint.opacity * static_cast<double>(count) / (partsOfDot * partsOfDot);
        const auto channel = [&](double value) { return static_cast<std::uint32_t>(std::lround(value * alpha)); };
        colours[count] = channel(255) << 24 | channel(paint.colour.red) << 16 | channel(paint.colour.green) << 8 |
                         channel(paint.colour.blue);
    }
    tbb::parallel_for(0, image.height, [&](int y) {
        std::uint32_t* const dots =
            image.pixels.data() + static_cast<std::size_t>(y) * static_cast<std::size_t>(image.width);
        for (int part = 0; part < partsOfDot; ++part) {
            if (covered[static_cast<std::size_t>(y * partsOfDot + part)].empty()) continue;
            for (int x = 0; x < image.width; ++x) {
                for (int at = x * partsOfDot; at < (x + 1) * partsOfDot; ++at)
                    dots[x] += static_cast<std::uint32_t>(
                        covered[static_cast<std::size_t>(y * partsOfDot + part)][static_cast<std::size_t>(at) / 64] >>
                            (at % 64) &
                        1U);
            }
        }
        for (int x = 0; x < image.width; ++x) dots[x] = colours[dots[x]]; // was counted in place
    });
    return image;
}

Polylines outlined(const Polylines& shape, double width) {
    Polylines polygons;
    for (const auto& line : shape) {
        for (std::size_t i = 0; i + 1 < line.size(); ++i) {
            const Point &a = line[i], &b = line[i + 1];
            const double length = std::hypot(b.x - a.x, b.y - a.y);
            if (!(length > 0)) continue;
            // Half a width beyond both ends, for round joins.
            const double ex = (b.x - a.x) / length * width / 2, ey = (b.y - a.y) / length * width / 2;
            polygons.push_back({{a.x - ex - ey, a.y - ey + ex},
                                {b.x + ex - ey, b.y + ey + ex},
                                {b.x + ex + ey, b.y + ey - ex},
                                {a.x - ex + ey, a.y - ey - ex}});
        }
    }
    return polygons;
}

} // namespace coulter
