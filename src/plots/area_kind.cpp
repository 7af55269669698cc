// The area between a curve and another one, usually zero.
#include "drawing/colours.h"
#include "formula/base/text.h"
#include "formula/compile/compile.h"
#include "formula/notation/expr_build.h"
#include "plots/area_estimates.h"
#include "plots/column_source.h"
#include "plots/common_settings.h"
#include "plots/curve_source.h"
#include "plots/reading.h"
#include "plots/sampling.h"
#include "plots/telling.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace coulter {
namespace {

const Setting areaOpacitySetting{.key = "opacity",
                                 .label = "opacity",
                                 .meaning = "1 hides what is below, 0 shows nothing",
                                 .type = SettingType::Number,
                                 .usual = 0.3,
                                 .least = 0,
                                 .greatest = 1,
                                 .step = 0.05};

const Setting fromSetting{.key = "from",
                          .label = "from",
                          .meaning = "where the area begins, a number of the page; left out: with the variable",
                          .type = SettingType::Formula,
                          .usual = std::string(),
                          .isStyle = false};
const Setting untilSetting{.key = "until",
                           .label = "until",
                           .meaning = "where the area ends, a number of the page; left out: with the variable",
                           .type = SettingType::Formula,
                           .usual = std::string(),
                           .isStyle = false};

constexpr Setting belowSetting{.key = "colour below",
                               .label = "colour below",
                               .meaning = "where the curve is below the other edge; left out: the same",
                               .type = SettingType::Colour};

constexpr Setting valueSetting{.key = "value",
                               .label = "value",
                               .meaning = "the area in the scales' units and a bound of its error, written in it",
                               .type = SettingType::Truth,
                               .usual = false};

const Setting estimateSetting{.key = "estimate",
                              .label = "estimate",
                              .meaning =
                                  "rectangles, trapezoids or triangles drawn over it, and what they add up to, for as "
                                  "many parts, twice and four times as many",
                              .type = SettingType::Word,
                              .usual = std::string(areaRuleWords[0]),
                              .words = areaRuleWords,
                              .isStyle = false};

const Setting partsSetting{.key = "parts",
                           .label = "parts",
                           .meaning = "of the interval, for the estimate",
                           .type = SettingType::Number,
                           .usual = 8.0,
                           .least = 1,
                           .greatest = 1000,
                           .step = 1,
                           .isStyle = false,
                           .needs = "estimate"};

const Setting* const settings[] = {&toSetting,    &fromSetting,     &untilSetting, &colourSetting,     &belowSetting,
                                   &valueSetting, &estimateSetting, &partsSetting, &areaOpacitySetting};

AreaRule ruleOf(const Settings& set) { return static_cast<AreaRule>(word(set, estimateSetting)); }
int partsOf(const Settings& set) { return static_cast<int>(std::round(number(set, partsSetting))); }

/// Limits the curves of a plot to the part that is wanted.
void limit(const ReadingContext& context, const Plot& plot, const Plotted& plotted, Drawn& drawn, Problems& problems) {
    std::array<std::optional<double>, 2> ends;
    const std::array<const Setting*, 2> wanted{&fromSetting, &untilSetting};
    for (std::size_t k = 0; k < 2; ++k) {
        const std::string formula = text(plot.settings, *wanted[k]);
        if (formula.empty()) continue;
        const auto found = furtherColumns(context, plotted, drawn.path.part, *wanted[k], formula, 1, problems);
        if (found.empty()) return;
        ends[k] = (*found[0])[0];
    }
    for (Sampled& part : drawn.parts) {
        Curve curve = std::get<Curve>(*part.source);
        Interval& interval = curve.interval;
        if (ends[0] && *ends[0] > interval.low) interval = {*ends[0], interval.high, true, interval.highClosed};
        if (ends[1] && *ends[1] < interval.high) interval = {interval.low, *ends[1], interval.lowClosed, true};
        if (!(interval.low < interval.high)) {
            problems = {{-1, 1, 1,
                         "From " + shortestNumber(interval.low) + " until " + shortestNumber(interval.high) +
                             " there is nothing of the curve.",
                         "write the smaller number first, within the interval of " + curve.variable}};
            return;
        }
        part.source = std::make_shared<const Source>(std::move(curve));
    }
}

/// "2 × 10⁻¹²"
std::string raisedPower(double value) {
    int exponent = static_cast<int>(std::floor(std::log10(value)));
    if (std::ceil(value / std::pow(10, exponent)) > 9) ++exponent;
    if (exponent >= -3 && exponent <= 3) return roundedNumber(value, 1);
    std::string text = roundedNumber(std::ceil(value / std::pow(10, exponent)), 1) + " × 10";
    static constexpr const char* raised[] = {"⁰", "¹", "²", "³", "⁴", "⁵", "⁶", "⁷", "⁸", "⁹"};
    if (exponent < 0) text += "⁻";
    for (const char digit : std::to_string(std::abs(exponent))) text += raised[digit - '0'];
    return text;
}

/// The integral of the distance between both edges over the interval that is drawn, with the bound of its quadrature.
std::string areaWords(const ReadingContext& context, const Plotted& plotted, const Drawn& drawn, const ExprPtr& foot) {
    const Curve& curve = *curveOf(drawn);
    auto whole = std::make_shared<Expr>(
        *nodeExpr(ExprKind::Integral, {numberExpr(curve.interval.low), numberExpr(curve.interval.high),
                                       nodeExpr(ExprKind::Absolute, {plotted.expression - foot})}));
    whole->text = curve.variable;
    const Compiled compiled = compile(context.page, whole, {}, caseValues(plotted, drawn.path.part));
    if (!compiled.program) return "";
    double area = 0;
    double* const out = &area;
    Evaluator evaluator(*compiled.program);
    evaluator.limit({}, 50'000'000);
    evaluator({}, std::span<double* const>(&out, 1), 1);
    if (!std::isfinite(area)) return "the area is undefined";
    double error = 0;
    for (std::size_t i = 0; i < compiled.program->integrals.size(); ++i)
        error += evaluator.integralErrors(i).empty() ? 0 : evaluator.integralErrors(i)[0];
    error += 1e-15 * std::abs(area); // of adding up
    const int digits = std::clamp(static_cast<int>(std::floor(std::log10(std::abs(area) / error))), 2, 8);
    return printedNumber(area, digits) + " ± " + raisedPower(error);
}

Reading read(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    Reading reading = readCurvesWithFoot(context, plot, plotted, path);
    for (Drawn& drawn : reading.drawn) {
        limit(context, plot, plotted, drawn, reading.problems);
        const bool estimated = ruleOf(plot.settings) != AreaRule::None;
        if ((!truth(plot.settings, valueSetting) && !estimated) || !reading.problems.empty()) continue;
        const ExprPtr foot = furtherExpression(context, plotted, text(plot.settings, toSetting), reading.problems);
        if (foot && truth(plot.settings, valueSetting)) drawn.words = areaWords(context, plotted, drawn, foot);
        if (estimated)
            drawn.words += (drawn.words.empty() ? "" : "\n") +
                           estimateWords(*curveOf(drawn), std::get<Curve>(*drawn.parts[1].source),
                                         ruleOf(plot.settings), partsOf(plot.settings));
        drawn.names = std::make_shared<const KnownNames>(context.page.names);
    }
    if (!reading.problems.empty()) reading.drawn.clear();
    return reading;
}

Paint paintOf(const Drawn& drawn) { return {drawn.colour, number(drawn.settings, areaOpacitySetting)}; }

/// A stretch on the sheet from one value of the variable to another, as its chords have it there.
std::vector<Point> between(const Stretch& stretch, double low, double high, const Frame& frame) {
    std::vector<Point> points;
    const auto place = [&](std::size_t i) {
        Point p = frame.onSheet(stretch.x[i], stretch.y[i]);
        if (!std::isfinite(p.y)) p.y = frame.beyondZero(); // below all that a logarithmic scale shows
        return p;
    };
    const auto on = [&](std::size_t i, double x) { // on the chord that ends at point i
        const Point a = place(i - 1), b = place(i);
        const double at = frame.onSheet(x, 1).x, part = b.x != a.x ? std::clamp((at - a.x) / (b.x - a.x), 0.0, 1.0) : 0;
        return Point{at, a.y + part * (b.y - a.y)};
    };
    for (std::size_t i = 0; i < stretch.x.size(); ++i) {
        const double x = stretch.x[i];
        if (i > 0 && stretch.x[i - 1] < low && x > low) points.push_back(on(i, low));
        if (x >= low && x <= high) points.push_back(place(i));
        if (i > 0 && stretch.x[i - 1] < high && x > high) points.push_back(on(i, high));
    }
    return points;
}

/// What lies between two lines that run side by side, apart where the first is above and where it is below.
class Sides {
public:
    Polylines above, below;

    /// @param y  mm of both lines at a place, in the order in which they run
    void add(double x, double first, double second) {
        const bool isAbove = first < second;
        if (!open_) {
            start(x, first, second, isAbove);
            return;
        }
        const double before = lastFirst_ - lastSecond_, now = first - second;
        if (before * now < 0) { // they cross between
            const double part = before / (before - now), at = lastX_ + part * (x - lastX_),
                         y = lastFirst_ + part * (first - lastFirst_);
            go(at, y, y);
            finish();
            start(at, y, y, isAbove);
        }
        if (before == 0) isAbove_ = isAbove;
        go(x, first, second);
    }
    void finish() {
        if (upper_.size() > 1) {
            upper_.insert(upper_.end(), lower_.rbegin(), lower_.rend());
            (isAbove_ ? above : below).push_back(std::move(upper_));
        }
        upper_.clear();
        lower_.clear();
        open_ = false;
    }

private:
    void start(double x, double first, double second, bool isAbove) {
        open_ = true;
        isAbove_ = isAbove;
        go(x, first, second);
    }
    void go(double x, double first, double second) {
        upper_.push_back({x, first});
        lower_.push_back({x, second});
        lastX_ = x;
        lastFirst_ = first;
        lastSecond_ = second;
    }

    std::vector<Point> upper_, lower_;
    double lastX_ = 0, lastFirst_ = 0, lastSecond_ = 0;
    bool open_ = false, isAbove_ = true;
};

/// The height of a line at a place along it.
double heightAt(const std::vector<Point>& line, double x, bool leftwards) {
    const auto next =
        std::ranges::lower_bound(line, leftwards ? -x : x, {}, [&](const Point& p) { return leftwards ? -p.x : p.x; });
    if (next == line.begin()) return line.front().y;
    if (next == line.end()) return line.back().y;
    const Point &a = *(next - 1), &b = *next;
    return b.x == a.x ? a.y : a.y + (x - a.x) / (b.x - a.x) * (b.y - a.y);
}

void addSides(Sides& sides, const std::vector<Point>& first, const std::vector<Point>& second, bool leftwards) {
    std::vector<double> places;
    for (const Point& p : first) places.push_back(p.x);
    for (const Point& p : second) places.push_back(p.x);
    std::ranges::sort(places);
    places.erase(std::unique(places.begin(), places.end()), places.end());
    if (leftwards) std::ranges::reverse(places);
    for (const double x : places) sides.add(x, heightAt(first, x, leftwards), heightAt(second, x, leftwards));
    sides.finish();
}

/// The words in the middle of what is drawn.
void drawWords(const Drawn& drawn, const Frame& frame, const Polylines& polygons, Canvas& canvas) {
    if (drawn.words.empty() || polygons.empty()) return;
    // Where there is most room from edge to edge, at one of many places.
    Point best{frame.rect.x + frame.rect.width / 2, frame.rect.y + frame.rect.height / 2};
    double most = 0;
    constexpr int places = 60;
    for (int i = 1; i < places; ++i) {
        const double x = frame.rect.x + frame.rect.width * i / places;
        for (const auto& polygon : polygons) {
            double low = HUGE_VAL, high = -HUGE_VAL;
            for (std::size_t k = 0; k < polygon.size(); ++k) {
                const Point &a = polygon[k], &b = polygon[(k + 1) % polygon.size()];
                if ((a.x > x) == (b.x > x)) continue;
                const double y =
                    std::clamp(a.y + (x - a.x) / (b.x - a.x) * (b.y - a.y), frame.rect.y, frame.rect.bottom());
                low = std::min(low, y);
                high = std::max(high, y);
            }
            if (!(high - low > most)) continue;
            most = high - low;
            best = {x, (low + high) / 2};
        }
    }
    std::vector<Box> lines;
    for (std::size_t begin = 0; begin <= drawn.words.size();) {
        const std::size_t end = std::min(drawn.words.size(), drawn.words.find('\n', begin));
        lines.push_back(
            labelBox(drawn.words.substr(begin, end - begin), FontId::Text, 0.92 * canvas.letterSize(), *drawn.names));
        begin = end + 1;
    }
    const double step = 1.2 * canvas.letterSize();
    double baseline = best.y + lines[0].ascent / 3 - step * static_cast<double>(lines.size() - 1) / 2;
    for (const Box& box : lines) {
        const double left =
            std::clamp(best.x - box.width / 2, frame.rect.x, std::max(frame.rect.x, frame.rect.right() - box.width));
        canvas.text(box, {left, baseline}, inkColour);
        baseline += step;
    }
}

/// The figures by which the area is estimated, as thin lines.
void drawEstimate(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    if (ruleOf(drawn.settings) == AreaRule::None) return;
    // What is straight in the user's coordinates bends on other than linear scales.
    constexpr int steps = 12;
    const bool straight = frame.map.x.kind == ScaleKind::Linear && frame.map.y.kind == ScaleKind::Linear;
    Polylines lines;
    for (const auto& outline : estimateArea(*curveOf(drawn), std::get<Curve>(*drawn.parts[1].source),
                                            ruleOf(drawn.settings), partsOf(drawn.settings))
                                   .outlines) {
        std::vector<Point> line;
        for (std::size_t i = 0; i + 1 < outline.size(); ++i) {
            const auto &a = outline[i], &b = outline[i + 1];
            for (int k = 0; k < (straight ? 1 : steps); ++k) {
                const double part = static_cast<double>(k) / steps;
                line.push_back(frame.onSheet(a[0] + part * (b[0] - a[0]), a[1] + part * (b[1] - a[1])));
            }
        }
        line.push_back(frame.onSheet(outline.back()[0], outline.back()[1]));
        for (Point& p : line) {
            if (!std::isfinite(p.y)) p.y = frame.beyondZero();
        }
        lines.push_back(std::move(line));
    }
    canvas.stroke(lines, {drawn.colour, 0.18});
}

/// One polygon wherever both curves are there; where they cross it turns inside out, which fills both sides.
void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    Polylines polygons;
    Sides sides;
    const auto below = colour(drawn.settings, belowSetting);
    for (const Stretch& upper : curveSamplesOf(drawn, 0)->stretches) {
        for (const Stretch& lower : curveSamplesOf(drawn, 1)->stretches) {
            const double low = std::max(upper.x.front(), lower.x.front()),
                         high = std::min(upper.x.back(), lower.x.back());
            if (!(low < high)) continue;
            std::vector<Point> polygon = between(upper, low, high, frame), back = between(lower, low, high, frame);
            if (below) addSides(sides, polygon, back, frame.leftwards);
            polygon.insert(polygon.end(), back.rbegin(), back.rend());
            polygons.push_back(std::move(polygon));
        }
    }
    if (below) {
        canvas.fill(frame.downwards ? sides.below : sides.above, paintOf(drawn));
        canvas.fill(frame.downwards ? sides.above : sides.below, {*below, paintOf(drawn).opacity});
    } else {
        canvas.fill(polygons, paintOf(drawn));
    }
    drawEstimate(drawn, frame, canvas);
    drawWords(drawn, frame, polygons, canvas);
}

void swatch(const Drawn& drawn, const Rect& rect, Canvas& canvas) {
    const double top = rect.y + 0.2 * rect.height, bottom = rect.y + 0.8 * rect.height;
    canvas.fill({{{rect.x, top}, {rect.right(), top}, {rect.right(), bottom}, {rect.x, bottom}}}, paintOf(drawn));
}

} // namespace

namespace {

/// Between both edges, or an edge and zero.
void inside(const Drawn&, const std::vector<CoarseLook>& parts, const Limits& y, CoarseLook& into) {
    constexpr std::size_t most = 60; // places along it
    constexpr int steps = 10;        // from edge to edge
    const CoarseLook& edge = parts[0];
    const bool hasOther = parts.size() > 1 && parts[1].y.size() == edge.y.size();
    for (std::size_t i = 0; i < edge.x.size(); i += 1 + edge.x.size() / most) {
        const double from = hasOther ? parts[1].y[i] : std::clamp(0.0, y.low, y.high);
        for (int k = 0; k <= steps; ++k) {
            into.insideX.push_back(edge.x[i]);
            into.insideY.push_back(from + (edge.y[i] - from) * k / steps);
        }
    }
}

} // namespace

extern const PlotKind areaKind;
const PlotKind areaKind{.name = "area",
                        .meaning = "the area between a curve and zero, or between two curves",
                        .runs = Runs::Along,
                        .layer = Layer::Area,
                        .settings = settings,
                        .fits = isNumberAlongOne,
                        .read = read,
                        .inside = inside,
                        .draw = draw,
                        .swatch = swatch};

} // namespace coulter
