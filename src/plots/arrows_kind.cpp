// Arrows of a vector over two variables.
#include "drawing/arrow_head.h"
#include "drawing/colours.h"
#include "drawing/line_labels.h"
#include "formula/base/text.h"
#include "plots/common_settings.h"
#include "plots/vectors.h"
#include "sampling/grid.h"
#include "typeset/formula_math.h"
#include "typeset/words.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace coulter {
namespace {

enum Length : std::uint8_t { TrueLength, SameLength, LogarithmicLength };
constexpr const char* lengthWords[] = {"true", "the same", "logarithmic"};
const Setting lengthSetting{.key = "length",
                            .label = "length",
                            .meaning = "of an arrow: as the vector's, all the same, or by its logarithm",
                            .type = SettingType::Word,
                            .usual = std::string("true"),
                            .words = lengthWords};

const Setting spacingSetting{.key = "spacing",
                             .label = "spacing",
                             .meaning = "between arrows on the sheet",
                             .type = SettingType::Number,
                             .usual = 6.0,
                             .unit = "mm",
                             .least = 0.8,
                             .greatest = 200,
                             .step = 0.5};

enum Stand : std::uint8_t { Evenly, AtGrid };
constexpr const char* standWords[] = {"evenly", "at the grid"};
const Setting standSetting{
    .key = "stand",
    .label = "stand",
    .meaning =
        "evenly on the sheet, or at the points of the variables' grids; of a mesh in the middles of its elements",
    .type = SettingType::Word,
    .usual = std::string("evenly"),
    .words = standWords};

enum Hold : std::uint8_t { Middle, Tail, Tip };
constexpr const char* holdWords[] = {"middle", "tail", "tip"};
const Setting holdSetting{.key = "at its place",
                          .label = "at its place",
                          .meaning = "which part of an arrow stands at the place whose vector it shows",
                          .type = SettingType::Word,
                          .usual = std::string("middle"),
                          .words = holdWords};

const Setting perUnitSetting{
    .key = "mm per unit",
    .label = "mm per unit",
    .meaning = "of true lengths: so many mm for a vector of length 1; 0: so that they fill the spacing",
    .type = SettingType::Number,
    .usual = 0.0,
    .unit = "mm",
    .least = 0,
    .greatest = 1e9,
    .step = 1};

constexpr Setting apartSetting{.key = "apart",
                               .label = "apart",
                               .meaning = "arrows longer than the spacing are left out, so that none overlap",
                               .type = SettingType::Truth,
                               .usual = false};

constexpr const char* keyWords[] = {"bottom right", "bottom left", "top right", "top left", "none"};
const Setting keySetting{.key = "key",
                         .label = "key",
                         .meaning = "of true lengths: an arrow of a round length, with its value",
                         .type = SettingType::Word,
                         .usual = std::string("bottom right"),
                         .words = keyWords};

const Setting* const settings[] = {&lengthSetting,        &spacingSetting, &standSetting, &holdSetting,
                                   &perUnitSetting,       &apartSetting,   &keySetting,   &colouredByOtherSetting,
                                   &vectorColoursSetting, &colourSetting,  &widthSetting, &headLengthSetting,
                                   &opacitySetting};

bool holds(const Interval& interval, double value) {
    const bool above = interval.lowClosed ? value >= interval.low : value > interval.low;
    return above && (interval.highClosed ? value <= interval.high : value < interval.high);
}

double spacingOf(const Drawn& drawn) { return number(drawn.settings, spacingSetting); }

constexpr std::size_t mostEachWay = 300; // arrows at the points of a grid

/// Where arrows stand: in the middles of squares of the sheet, or on the grids of the variables.
std::vector<VectorAt> vectorsOf(const Drawn& drawn, const Frame& frame) {
    const Field& field = *fieldOf(drawn);
    const bool atGrid = word(drawn.settings, standSetting) == AtGrid;
    const Rect& rect = frame.rect;
    const double spacing = spacingOf(drawn);
    const auto even = [&](double from, double length, auto&& coordinate) {
        const auto count = static_cast<std::size_t>(std::max(1.0, std::floor(length / spacing)));
        std::vector<double> places;
        for (std::size_t i = 0; i < count; ++i)
            places.push_back(coordinate(from + (static_cast<double>(i) + 0.5) * length / static_cast<double>(count)));
        return places;
    };
    const auto along = [&](std::size_t k) {
        if (atGrid) {
            const std::vector<double> points =
                gridPoints(field.intervals[k], field.grids[k], field.variables[k]).points;
            // More than anyone could tell apart are thinned out.
            const std::size_t every = points.size() / mostEachWay + 1;
            std::vector<double> some;
            for (std::size_t i = 0; i < points.size(); i += every) some.push_back(points[i]);
            if (!some.empty()) return some;
        }
        return k == 0 ? even(rect.x, rect.width, [&](double mm) { return frame.xAt(mm); })
                      : even(rect.y, rect.height, [&](double mm) { return frame.yAt(mm); });
    };
    std::vector<double> xs, ys;
    if (atGrid && field.mesh) {
        const ElementMesh& mesh = *field.mesh;
        const std::size_t every = mesh.elements.size() / (mostEachWay * mostEachWay) + 1;
        for (std::size_t e = 0; e < mesh.elements.size(); e += every) {
            const auto corners = static_cast<double>(mesh.cornersOf(e));
            double x = 0, y = 0;
            for (std::size_t k = 0; k < mesh.cornersOf(e); ++k) {
                x += mesh.x[mesh.elements[e][k]] / corners;
                y += mesh.y[mesh.elements[e][k]] / corners;
            }
            xs.push_back(x);
            ys.push_back(y);
        }
        return vectorsAt(field, frame, std::move(xs), std::move(ys));
    }
    const std::vector<double> across = along(0), up = along(1);
    for (const double y : up) {
        if (!holds(field.intervals[1], y)) continue;
        for (const double x : across) {
            if (!holds(field.intervals[0], x)) continue;
            xs.push_back(x);
            ys.push_back(y);
        }
    }
    return vectorsAt(field, frame, std::move(xs), std::move(ys));
}

/// How long arrows are for the lengths of their vectors.
class Lengths {
public:
    Lengths(const Drawn& drawn, const std::vector<VectorAt>& vectors)
        : how_(static_cast<Length>(word(drawn.settings, lengthSetting))), spacing_(spacingOf(drawn)) {
        std::vector<double> all;
        for (const VectorAt& each : vectors) {
            if (each.isDefined() && each.length() > 0) all.push_back(each.length());
        }
        std::ranges::sort(all);
        // Near a pole a few are as long as one likes: they do not decide.
        const auto part = [&](double share) {
            return all.empty() ? 1 : all[static_cast<std::size_t>(share * static_cast<double>(all.size() - 1))];
        };
        low_ = part(0.05);
        high_ = part(0.95);
        const double wanted = number(drawn.settings, perUnitSetting);
        scale_ = wanted > 0 ? wanted : 0.95 * spacing_ / high_;
    }

    /// mm on the sheet.
    double of(double length) const {
        if (how_ == SameLength) return 0.8 * spacing_;
        if (how_ == TrueLength) return scale_ * length;
        if (!(high_ > low_)) return 0.6 * spacing_;
        const double place = std::log(length / low_) / std::log(high_ / low_);
        return (0.25 + 0.65 * std::clamp(place, 0.0, 1.0)) * spacing_;
    }
    bool areTrue() const { return how_ == TrueLength; }
    double millimetresPerUnit() const { return scale_; }
    /// A round length near the longest ones.
    double round() const {
        const double power = std::pow(10, std::floor(std::log10(high_)));
        for (const double step : {5.0, 2.0, 1.0}) {
            if (step * power <= high_ * 1.0000001) return step * power;
        }
        return power;
    }

private:
    Length how_;
    double spacing_, low_ = 1, high_ = 1, scale_ = 1;
};

struct Arrow {
    Point tail, tip;
    double shown = 0; ///< by its colour
};

/// Longer ones would hide everything else: they are near a pole, and are left out.
constexpr double longestInSpacings = 4;

struct Arrows {
    std::vector<Arrow> drawn;
    std::vector<Point> dots; ///< where the vector is too short for an arrow
    std::size_t tooLong = 0;
};

Arrows arrowsOf(const Drawn& drawn, const Frame& frame, const std::vector<VectorAt>& vectors, const Lengths& lengths) {
    Arrows arrows;
    const double spacing = spacingOf(drawn),
                 longest = (truth(drawn.settings, apartSetting) ? 1 : longestInSpacings) * spacing;
    const std::size_t hold = word(drawn.settings, holdSetting);
    const double before = hold == Middle ? 0.5 : hold == Tip ? 1 : 0;
    for (const VectorAt& each : vectors) {
        if (!each.isDefined() || !frame.rect.contains(each.at)) continue;
        const double length = each.length(), far = length > 0 ? lengths.of(length) : 0;
        if (far < 0.12) {
            arrows.dots.push_back(each.at);
            continue;
        }
        if (far > longest) {
            ++arrows.tooLong;
            continue;
        }
        const Point tail{each.at.x - before * far * each.along.x, each.at.y - before * far * each.along.y};
        const Point tip{tail.x + far * each.along.x, tail.y + far * each.along.y};
        // None crosses the panel's edge.
        if (frame.rect.contains(tail) && frame.rect.contains(tip)) arrows.drawn.push_back({tail, tip, each.shown});
    }
    return arrows;
}

/// Arrows of one colour: their shafts as lines, their heads as areas.
void drawArrows(const std::vector<Arrow>& arrows, const Drawn& drawn, Colour colour, Canvas& canvas) {
    Polylines shafts, heads;
    const double head = number(drawn.settings, headLengthSetting);
    for (const Arrow& each : arrows) {
        const double far = std::hypot(each.tip.x - each.tail.x, each.tip.y - each.tail.y),
                     size = std::min(head, 0.5 * far);
        // The shaft ends within its head, whose tip would be blunt otherwise.
        const double part = far > 0 ? 1 - 0.7 * size / far : 1;
        shafts.push_back(
            {each.tail,
             {each.tail.x + part * (each.tip.x - each.tail.x), each.tail.y + part * (each.tip.y - each.tail.y)}});
        if (auto polygon = arrowHead(each.tip, each.tail, size); !polygon.empty()) heads.push_back(std::move(polygon));
    }
    Pen pen = penOf(drawn);
    pen.colour = colour;
    pen.dashes.clear();
    pen.roundEnds = false;
    canvas.stroke(shafts, pen);
    // One by one: where two overlap both are filled.
    for (const auto& polygon : heads) canvas.fill({polygon}, {colour, pen.opacity});
}

/// In a corner of the panel: an arrow of a round length and its value, on paper.
void drawKey(const Drawn& drawn, const Frame& frame, const Lengths& lengths, Canvas& canvas) {
    const std::size_t corner = word(drawn.settings, keySetting);
    if (corner == 4 || !lengths.areTrue()) return;
    const double value = lengths.round(), far = lengths.of(value);
    if (!(far > 0.5) || far > 0.5 * frame.rect.width) return;
    const Em size = 0.9 * canvas.letterSize();
    Box words = layoutMath(*valueMath(roundedNumber(value, 3)), size, false);
    if (!drawn.words.empty()) {
        words.space(0.2 * size);
        words.append(layoutMath(*unitMath(drawn.words), size, false));
    }
    const double pad = 1, gap = 1.2;
    const double width = far + gap + words.width + 2 * pad, height = std::max(words.height(), 1.5) + 2 * pad;
    const bool right = corner == 0 || corner == 2, below = corner < 2;
    const double x = right ? frame.rect.right() - width - 1 : frame.rect.x + 1;
    const double y = below ? frame.rect.bottom() - height - 1 : frame.rect.y + 1;
    canvas.fill({{{x, y}, {x + width, y}, {x + width, y + height}, {x, y + height}}}, {paperColour, 0.9});
    const double middle = y + height / 2;
    // Where colours show another function the key has the plot's own.
    const Colour colour = fieldOf(drawn)->tint ? drawn.colour : colourOfShown(drawn, frame, value);
    drawArrows({{{x + pad, middle}, {x + pad + far, middle}, value}}, drawn, colour, canvas);
    canvas.text(words, {x + pad + far + gap, middle + (words.ascent - words.descent) / 2}, inkColour);
}

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    const std::vector<VectorAt> vectors = vectorsOf(drawn, frame);
    const Lengths lengths(drawn, vectors);
    const Arrows arrows = arrowsOf(drawn, frame, vectors, lengths);
    const double dot = 0.6 * number(drawn.settings, widthSetting);
    const Paint paint{fieldOf(drawn)->tint ? drawn.colour : colourOfShown(drawn, frame, 0), opacityOf(drawn)};
    canvas.marks(arrows.dots, {circle(dot)}, &paint, nullptr);
    // Of one colour at a time, in the order of their first.
    std::vector<std::pair<Colour, std::vector<Arrow>>> byColour;
    std::map<std::array<int, 3>, std::size_t> places;
    for (const Arrow& each : arrows.drawn) {
        const Colour colour = colourOfShown(drawn, frame, each.shown);
        const auto [at, isNew] = places.try_emplace({colour.red, colour.green, colour.blue}, byColour.size());
        if (isNew) byColour.push_back({colour, {}});
        byColour[at->second].second.push_back(each);
    }
    for (const auto& [colour, some] : byColour) drawArrows(some, drawn, colour, canvas);
    if (!arrows.drawn.empty()) drawKey(drawn, frame, lengths, canvas);
}

/// What each arrow shows: its place and its vector.
SampleTable table(const Drawn& drawn, const Frame& frame) {
    const auto vectors = std::make_shared<const std::vector<VectorAt>>(vectorsOf(drawn, frame));
    SampleTable table;
    table.columns = table.names = {"x", "y", "u", "v"};
    table.rows = vectors->size();
    table.number = [vectors](std::size_t row, std::size_t column) {
        const VectorAt& each = (*vectors)[row];
        return column == 0 ? each.x : column == 1 ? each.y : column == 2 ? each.u : each.v;
    };
    return table;
}

std::vector<ReportRow> report(const Drawn& drawn, const Frame& frame) {
    const std::vector<VectorAt> vectors = vectorsOf(drawn, frame);
    const Lengths lengths(drawn, vectors);
    const Arrows arrows = arrowsOf(drawn, frame, vectors, lengths);
    return {{{"arrows", static_cast<double>(arrows.drawn.size())},
             {"left out", static_cast<double>(arrows.tooLong)},
             {"mm per unit", lengths.areTrue() ? lengths.millimetresPerUnit() : 0}}};
}

std::string remark(const Drawn& drawn, const Frame& frame) {
    const std::vector<VectorAt> vectors = vectorsOf(drawn, frame);
    const Arrows arrows = arrowsOf(drawn, frame, vectors, Lengths(drawn, vectors));
    if (arrows.tooLong == 0 || truth(drawn.settings, apartSetting)) return "";
    return std::to_string(arrows.tooLong) + (arrows.tooLong == 1 ? " arrow is" : " arrows are") +
           " longer than four times the spacing, and left out; lengths of one size, or logarithmic ones, show them.";
}

void swatch(const Drawn& drawn, const Rect& rect, Canvas& canvas) {
    const double middle = rect.y + rect.height / 2;
    drawArrows({{{rect.x, middle}, {rect.right(), middle}, 0}}, drawn, drawn.colour, canvas);
}

} // namespace

extern const PlotKind arrowsKind;
const PlotKind arrowsKind{.name = "arrows",
                          .meaning = "a vector over two variables as arrows",
                          .runs = Runs::Over,
                          .layer = Layer::Line,
                          .settings = settings,
                          .ways = &lengthSetting,
                          .fits = isVectorOverTwo,
                          .read = readVectors,
                          .trace = traceVectors,
                          .draw = draw,
                          .swatch = swatch,
                          .usesColours = showsByColour,
                          .table = table,
                          .report = report,
                          .remark = remark};

} // namespace coulter
