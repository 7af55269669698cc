#include "plots/telling.h"

#include "plots/field_source.h"
#include "plots/level_proofs.h"

#include "formula/base/text.h"
#include "plots/table.h"
#include "sampling/grid.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <tbb/blocked_range.h>
#include <tbb/parallel_reduce.h>

namespace coulter {
namespace {

std::string number(double value) { return printedNumber(value, 6); }

/// "2 poles"
std::string counted(int count, const char* what) {
    return std::to_string(count) + " " + what + (count == 1 ? "" : "s");
}

/// Coordinates of a field's samples in one direction: of all points of a mesh, or of the columns or rows of a grid.
const std::vector<double>& placesOf(const FieldSamples& samples, std::size_t k) {
    if (samples.isMesh()) return k == 0 ? samples.x : samples.y;
    return k == 0 ? samples.columns : samples.rows;
}

/// The parameter of a curve over the panel's width.
AxisMap alongOf(const Curve& curve, const Frame& frame) {
    if (curve.isFunction()) return frame.map.x;
    return {ScaleKind::Linear, curve.interval.low, curve.interval.high, frame.map.x.length};
}

/// Whether the variable's lane runs from right to left.
bool isMirrored(const Curve& curve, const Frame& frame) { return curve.isFunction() && frame.leftwards; }

/// One of a field's variables; both lanes are as wide as the panel.
AxisMap alongOf(const Field& field, const Frame& frame, std::size_t k) {
    const PanelMap whole = samplingMap(field, frame);
    AxisMap map = k == 0 ? whole.x : whole.y;
    map.length = frame.map.x.length;
    return map;
}

/// How densely places (mm) lie along a lane: around each millimetre, nearer ones counting more.
void addDensity(Lane& lane, double place, double weight = 1) {
    constexpr double reach = 4; // mm
    const auto count = static_cast<double>(lane.density.size() - 1);
    const double at = place / lane.along.length * count;
    if (!(at >= -reach && at <= count + reach)) return;
    for (int i = std::max(0, static_cast<int>(at - reach)); i <= std::min(count, at + reach); ++i)
        lane.density[static_cast<std::size_t>(i)] += weight * (1 - std::min(1.0, std::abs(i - at) / reach));
}

Lane laneFor(std::string variable, const AxisMap& along) {
    Lane lane;
    lane.variable = std::move(variable);
    lane.along = along;
    lane.density.assign(static_cast<std::size_t>(std::max(8, static_cast<int>(along.length))) + 1, 0);
    return lane;
}

/// Places sorted into columns, one kept of each.
class Taken {
public:
    Taken(double length, double column)
        : column_(column), taken_(static_cast<std::size_t>(std::max(1.0, std::ceil(length / column))) + 1) {}
    bool take(double mm) {
        if (!(mm >= 0)) return false;
        const auto at = static_cast<std::size_t>(std::min(mm / column_, 1e9));
        if (at >= taken_.size() || taken_[at]) return false;
        taken_[at] = true;
        return true;
    }

private:
    double column_;
    std::vector<bool> taken_;
};

/// The same lane with its variable from right to left.
Lane mirrored(Lane lane) {
    const double length = lane.along.length;
    std::swap(lane.along.low, lane.along.high);
    std::ranges::reverse(lane.density);
    for (double& sample : lane.samples) sample = length - sample;
    std::ranges::reverse(lane.samples);
    for (Lane::Bar& bar : lane.bars) bar = {length - bar.to, length - bar.from, bar.proven};
    std::ranges::reverse(lane.bars);
    for (Lane::Sign& sign : lane.signs) sign = {sign.kind, length - sign.to, length - sign.from};
    return lane;
}

void addBar(Lane& lane, double from, double to, bool proven, double column) {
    if (!lane.bars.empty() && from - lane.bars.back().to < column / 16) {
        Lane::Bar& last = lane.bars.back();
        if (last.proven == proven || last.to - last.from < column) { // too short to be seen by itself
            last.proven = last.proven == proven ? proven : false;
            last.to = to;
            return;
        }
    }
    lane.bars.push_back({from, to, proven});
}

std::vector<Lane> lanes(const Curve& curve, const CurveSamples& samples, const Drawn& drawn, const Frame& frame,
                        double column) {
    Lane lane = laneFor(curve.variable, alongOf(curve, frame));
    lane.finer = drawn.finer;
    const double length = lane.along.length;
    const AxisMap& up = frame.map.y;
    Taken columns(length, column);
    for (const Stretch& stretch : samples.stretches) {
        std::vector<double> places;
        for (const double t : stretch.t) places.push_back(lane.along.toSheet(t));
        for (std::size_t i = 0; i < places.size(); ++i) {
            addDensity(lane, places[i]);
            if (columns.take(places[i])) lane.samples.push_back(places[i]);
            if (stretch.state[i] == PointState::Filled)
                lane.signs.push_back({Lane::SignKind::Filled, places[i], places[i]});
            if (stretch.state[i] == PointState::Corner)
                lane.signs.push_back({Lane::SignKind::Corner, places[i], places[i]});
            if (i + 1 == places.size()) break;
            // Above or below the panel nothing can be seen, and nothing is said.
            const double a = up.toSheet(stretch.y[i]), b = up.toSheet(stretch.y[i + 1]);
            if (curve.isFunction() && ((a < 0 && b < 0) || (a > up.length && b > up.length))) continue;
            const double from = std::max(0.0, places[i]), to = std::min(length, places[i + 1]);
            if (to > from) addBar(lane, from, to, stretch.provenAlong(i), column);
        }
    }
    for (const Gap& gap : samples.gaps) {
        const Lane::SignKind kind = gap.kind == GapKind::Pole   ? Lane::SignKind::Pole
                                    : gap.kind == GapKind::Jump ? Lane::SignKind::Jump
                                                                : Lane::SignKind::Undefined;
        lane.signs.push_back({kind, lane.along.toSheet(gap.low), lane.along.toSheet(gap.high)});
    }
    for (const Band& band : samples.bands)
        lane.signs.push_back({Lane::SignKind::Band, lane.along.toSheet(band.low), lane.along.toSheet(band.high)});
    return {isMirrored(curve, frame) ? mirrored(std::move(lane)) : std::move(lane)};
}

std::vector<Lane> lanes(const Field& field, const FieldSamples& samples, const Drawn&, const Frame& frame,
                        double column) {
    std::vector<Lane> both;
    for (std::size_t k = 0; k < 2; ++k) {
        Lane lane = laneFor(field.variables[k], alongOf(field, frame, k));
        Taken columns(lane.along.length, column);
        for (const double place : placesOf(samples, k)) {
            const double mm = lane.along.toSheet(place);
            addDensity(lane, mm);
            if (!samples.isMesh() && columns.take(mm)) lane.samples.push_back(mm);
        }
        if (static_cast<double>(lane.samples.size()) > lane.along.length / column / 2) lane.samples.clear();
        both.push_back(k == 0 && frame.leftwards ? mirrored(std::move(lane)) : std::move(lane));
    }
    return both;
}

/// How many of very many numbers lie in each part of a lane and of what is beside it, and where these parts are.
struct Counted {
    double first = 0, step = 0; ///< mm
    std::vector<std::uint32_t> counts;
    double placeOf(std::size_t part) const { return first + (static_cast<double>(part) + 0.5) * step; }
};
Counted countedAlong(const std::vector<double>& numbers, const AxisMap& along, double column) {
    constexpr double beside = 5; // mm, further than what counts for a lane
    Counted all{-beside, column / 4, {}};
    const double parts = std::ceil((along.length + 2 * beside) / all.step);
    const auto none = [&] { return std::vector<std::uint32_t>(static_cast<std::size_t>(parts) + 1); };
    all.counts = tbb::parallel_reduce(
        tbb::blocked_range<std::size_t>(0, numbers.size(), 262'144), none(),
        [&](const auto& range, std::vector<std::uint32_t> counts) {
            const AxisMap map = along;
            for (std::size_t i = range.begin(); i < range.end(); ++i) {
                const double part = (map.toSheet(numbers[i]) + beside) / all.step;
                if (part >= 0 && part < parts) ++counts[static_cast<std::size_t>(part)];
            }
            return counts;
        },
        [](std::vector<std::uint32_t> a, const std::vector<std::uint32_t>& b) {
            for (std::size_t i = 0; i < a.size(); ++i) a[i] += b[i];
            return a;
        });
    return all;
}

/// Where the rows of columns lie across the panel.
std::vector<Lane> lanes(const Columns& source, const ColumnSamples& samples, const Drawn&, const Frame& frame,
                        double column) {
    if (!frame.isPlane() || source.along[0] < 0) return {};
    const auto across = static_cast<std::size_t>(source.along[0]);
    Lane lane = laneFor(source.names[across], frame.map.x);
    Taken taken(lane.along.length, column);
    const std::vector<double>& numbers = *samples.numbers[across];
    constexpr std::size_t many = 100'000; // the figure is drawn anew while a hand moves it
    if (numbers.size() > many) {
        const Counted counted = countedAlong(numbers, lane.along, column);
        for (std::size_t part = 0; part < counted.counts.size(); ++part) {
            if (counted.counts[part] == 0) continue;
            const double mm = counted.placeOf(part);
            addDensity(lane, mm, counted.counts[part]);
            if (taken.take(mm)) lane.samples.push_back(mm);
        }
    } else {
        for (const double value : numbers) {
            const double mm = lane.along.toSheet(value);
            addDensity(lane, mm);
            if (taken.take(mm)) lane.samples.push_back(mm);
        }
    }
    return {frame.leftwards ? mirrored(std::move(lane)) : std::move(lane)};
}

std::string summary(const Columns& source, const ColumnSamples&, const Effort&) {
    std::string text = counted(static_cast<int>(source.rows()), "row") + " of ";
    for (std::size_t k = 0; k < source.names.size(); ++k) text += (k > 0 ? ", " : "") + source.names[k];
    return text;
}

std::string summary(const Curve& curve, const CurveSamples& samples, const Effort& effort) {
    const bool grid = !samples.stretches.empty() && samples.stretches[0].state[0] == PointState::Grid;
    // Rounded downwards, so that 100 means all of it.
    const double percent = std::floor(1000 * samples.certificate.share() + 1e-9) / 10;
    std::string text = std::to_string(samples.pointCount());
    text += grid && isAdaptive(curve.grid) ? " points, evenly spread"
            : grid
                ? " points of the grid"
                : " points to " + roundedNumber(effort.tolerance, 6) + " mm, " +
                      (effort.proofs || samples.certificate.provenLength > 0 ? roundedNumber(percent, 6) + " % proven"
                                                                             : "not proven yet") +
                      ", " + std::to_string(samples.evaluations) + " evaluations";
    int poles = 0, jumps = 0, undefined = 0;
    for (const Gap& gap : samples.gaps)
        ++(gap.kind == GapKind::Pole ? poles : gap.kind == GapKind::Jump ? jumps : undefined);
    if (poles > 0) text += " · " + counted(poles, "pole");
    if (jumps > 0) text += " · " + counted(jumps, "jump");
    if (undefined > 0) text += " · " + counted(undefined, "gap");
    if (!samples.bands.empty()) text += " · oscillates without end";
    return text;
}

std::string summary(const Field& field, const FieldSamples& samples, const Effort& effort) {
    const bool adaptive = isAdaptive(field.grids[0]) && isAdaptive(field.grids[1]);
    if (!samples.isMesh())
        return std::to_string(samples.columns.size()) + " × " + std::to_string(samples.rows.size()) +
               (adaptive              ? " points, evenly spread"
                : field.meansOver > 1 ? " means over " + std::to_string(field.meansOver) + " × " +
                                            std::to_string(field.meansOver) + " measured numbers"
                : field.grids[0].places ? " points, where it was measured"
                                        : " points of the grid");
    const std::size_t own = field.mesh && field.hasCells ? 3 * field.mesh->elements.size() : 0;
    if (field.mesh && (samples.pointCount() == field.mesh->x.size() || samples.pointCount() == own))
        return counted(field.mesh->x.size(), "node") + ", " + counted(field.mesh->elements.size(), "element");
    return std::to_string(samples.pointCount()) + " points, " + std::to_string(samples.triangles.size()) +
           " triangles to " + roundedNumber(samplingTolerance(field, effort.tolerance), 6) + " mm, " +
           std::to_string(samples.evaluations) + " evaluations";
}

std::string words(const Curve& curve, const CurveSamples& samples, const Frame& frame, std::size_t, double mm,
                  double reach) {
    const AxisMap along = alongOf(curve, frame);
    if (mm < -reach || mm > along.length + reach) return {};
    if (isMirrored(curve, frame)) mm = along.length - mm;
    const double at = along.fromSheet(mm), low = along.fromSheet(mm - reach), high = along.fromSheet(mm + reach),
                 small = (high - low) / 10;
    const std::string is = curve.variable + " = ";
    for (const Gap& gap : samples.gaps) {
        if (high < gap.low || low > gap.high) continue;
        if (gap.high - gap.low < small)
            return std::string(gapName(gap.kind)) + " at " + is + number((gap.low + gap.high) / 2);
        return "undefined from " + is + number(gap.low) + " to " + number(gap.high);
    }
    for (const Band& band : samples.bands) {
        if (high < band.low || low > band.high) continue;
        return "oscillates without end from " + is + number(band.low) + " to " + number(band.high) +
               ": drawn as the band it fills";
    }
    for (const Stretch& stretch : samples.stretches) {
        const auto next = std::ranges::lower_bound(stretch.t, at);
        if (next == stretch.t.begin() || next == stretch.t.end()) continue;
        const auto i = static_cast<std::size_t>(next - stretch.t.begin());
        const std::size_t near = at - stretch.t[i - 1] < stretch.t[i] - at ? i - 1 : i;
        return std::string(stateName(stretch, near)) + " point at " + is + number(stretch.t[near]) +
               "; the next ones " + number(stretch.t[i] - stretch.t[i - 1]) + " apart";
    }
    return {};
}

std::string words(const Field& field, const FieldSamples& samples, const Frame& frame, std::size_t k, double mm,
                  double) {
    if (k > 1) return {};
    const AxisMap along = alongOf(field, frame, k);
    if (k == 0 && frame.leftwards) mm = along.length - mm;
    const double at = along.fromSheet(mm), low = along.fromSheet(mm - 0.5), high = along.fromSheet(mm + 0.5);
    const auto near =
        std::ranges::count_if(placesOf(samples, k), [&](double each) { return each >= low && each <= high; });
    return std::to_string(near) +
           (samples.isMesh() ? " points"
            : k == 0         ? " columns"
                             : " rows") +
           " within half a millimetre of " + field.variables[k] + " = " + number(at);
}

/// The row nearest to a place of the lane.
std::string words(const Columns& source, const ColumnSamples& samples, const Frame& frame, std::size_t, double mm,
                  double reach) {
    if (!frame.isPlane() || source.along[0] < 0) return {};
    const std::vector<double>& across = *samples.numbers[static_cast<std::size_t>(source.along[0])];
    const double at = frame.leftwards ? frame.map.x.length - mm : mm;
    std::optional<std::size_t> nearest;
    for (std::size_t i = 0; i < source.rows(); ++i) {
        const double away = std::abs(frame.map.x.toSheet(across[i]) - at);
        if (!(away < reach)) continue;
        reach = away;
        nearest = i;
    }
    return nearest ? rowWords(source, *nearest) : std::string();
}

/// Calls with the source and its samples; with nothing if there are no samples.
template <typename Result, typename Call> Result visit(const Drawn& drawn, const Call& call) {
    if (drawn.parts.empty() || !drawn.parts[0].samples) return {};
    if (const Curve* curve = curveOf(drawn)) return call(*curve, *curveSamplesOf(drawn));
    if (const Columns* columns = columnsOf(drawn))
        return call(*columns, std::get<ColumnSamples>(*drawn.parts[0].samples));
    return call(*fieldOf(drawn), *fieldSamplesOf(drawn));
}

} // namespace

std::string rowWords(const Columns& columns, std::size_t row) {
    std::string text = "row " + std::to_string(row + 1) + ":";
    for (std::size_t k = 0; k < columns.names.size(); ++k)
        text += (k > 0 ? ",   " : "   ") + columns.names[k] + " = " + number((*columns.numbers[k])[row]);
    return text;
}

std::string printedNumber(double value, int digits) {
    std::string text = roundedNumber(value, digits);
    for (std::size_t at = 0; (at = text.find('-', at)) != std::string::npos; at += 3) text.replace(at, 1, "−");
    return text;
}

std::vector<VariableSampling> samplingOf(const Drawn& drawn) {
    if (const Curve* curve = curveOf(drawn)) return {{curve->variable, curve->grid, curve->interval}};
    std::vector<VariableSampling> both;
    if (const Field* field = fieldOf(drawn)) {
        for (std::size_t k = 0; k < 2; ++k) {
            const bool isMeasured = field->grids[k].places || (field->mesh && isAdaptive(field->grids[k]));
            both.push_back({field->variables[k], field->grids[k], field->intervals[k], isMeasured});
        }
    }
    return both;
}

std::optional<Limits> refinable(const Drawn& drawn, const Frame& frame) {
    const Curve* curve = curveOf(drawn);
    if (!curve || !isAdaptive(curve->grid)) return std::nullopt;
    Limits part{curve->interval.low, curve->interval.high};
    if (curve->isFunction()) part = {std::max(part.low, frame.map.x.low), std::min(part.high, frame.map.x.high)};
    return part.low < part.high ? std::optional(part) : std::nullopt;
}

std::vector<Lane> lanesOf(const Drawn& drawn, const Frame& frame, double column) {
    return visit<std::vector<Lane>>(
        drawn, [&](const auto& source, const auto& samples) { return lanes(source, samples, drawn, frame, column); });
}

std::string summaryOf(const Drawn& drawn, const Effort& effort) {
    std::vector<ZeroProof> proofs;
    if (const FieldSamples* field = fieldSamplesOf(drawn); field && field->zeroProof) proofs = {*field->zeroProof};
    for (std::size_t k = 0; drawn.levelProofs && k < drawn.levelProofs->size(); ++k)
        proofs.push_back((*drawn.levelProofs)[k].proof);
    std::string text = provenWords(proofs) + visit<std::string>(drawn, [&](const auto& source, const auto& samples) {
                           return summary(source, samples, effort);
                       });
    if (!isFinished(drawn)) text += isTooDear(drawn) ? " · not finished: dear to compute" : " · not finished";
    return text;
}

namespace {

/// What makes values of a program dear, as a clause.
std::string dearnessOf(const Program& program) {
    const auto& inner = program.integrals;
    if (std::ranges::any_of(inner, [](const auto& each) { return !each.integrand->integrals.empty(); }))
        return "has integrals inside integrals";
    if (!inner.empty()) return "has an integral in every value";
    return "is a formula of " + std::to_string(program.instructions.size()) + " steps";
}

/// What is drawn, in quotation marks: the beginning of a long one.
std::string quoted(const std::string& of) {
    constexpr std::size_t longest = 60;
    const std::u32string all = decodeUtf8(of);
    return "“" + (all.size() <= longest ? of : encodeUtf8(all.substr(0, longest)) + "…") + "”";
}

} // namespace

Problem unfinished(const Drawn& drawn) {
    Problem problem;
    problem.severity = Problem::Severity::Error;
    if (const Field* field = fieldOf(drawn)) {
        for (const auto& measured : field->program->fields) {
            if (std::string trouble = measured->trouble(); !trouble.empty()) {
                problem.sentence = quoted(drawn.of) + " is drawn without some of its numbers: " + trouble;
                problem.suggestion = "read the file again";
                return problem;
            }
        }
    }
    if (!isTooDear(drawn)) {
        problem.sentence = quoted(drawn.of) + " varies more finely than can be sampled; the finest parts are missing.";
        problem.suggestion = "draw a smaller part of it, or allow a larger tolerance";
        return problem;
    }
    const Curve* curve = curveOf(drawn);
    const std::size_t points = curve ? curveSamplesOf(drawn)->pointCount() : fieldSamplesOf(drawn)->pointCount();
    problem.sentence = quoted(drawn.of) + " " + dearnessOf(curve ? *curve->program : *fieldOf(drawn)->program) +
                       " and takes very long to compute; " +
                       (points == 0 ? "not one value could be had."
                                    : "only " + counted(static_cast<int>(points), "point") + " could be had.");
    problem.suggestion = "write it with fewer of these, or draw a smaller part";
    return problem;
}

std::string wordsAt(const Drawn& drawn, const Frame& frame, std::size_t lane, double mm, double reach) {
    return visit<std::string>(
        drawn, [&](const auto& source, const auto& samples) { return words(source, samples, frame, lane, mm, reach); });
}

std::vector<Point> dotsOf(const Drawn& drawn, const Frame& frame, double square) {
    std::vector<Point> dots;
    const CurveSamples* samples = curveSamplesOf(drawn);
    if (!samples) return dots;
    const Rect room = frame.rect.grown(0.2);
    std::set<std::pair<long, long>> taken;
    for (const Stretch& stretch : samples->stretches) {
        for (std::size_t i = 0; i < stretch.x.size(); ++i) {
            const Point at = frame.onSheet(stretch.x[i], stretch.y[i]);
            if (room.contains(at) && taken.emplace(std::lround(at.x / square), std::lround(at.y / square)).second)
                dots.push_back(at);
        }
    }
    return dots;
}

namespace {

std::size_t counted(const std::vector<double>& values, std::optional<double> upTo) {
    return static_cast<std::size_t>(
        std::ranges::count_if(values, [&](double value) { return !std::isnan(value) && (!upTo || value <= *upTo); }));
}

std::size_t values(const Curve& curve, const CurveSamples& samples, std::size_t scale, std::optional<double> upTo) {
    std::size_t count = 0;
    const std::size_t k = scale == uprightScale ? 2 : scale;
    const auto& program = curve.inSpace ? curve.inSpace : curve.radius;
    for (const Stretch& stretch : samples.stretches) {
        if (!program) {
            if (scale <= upScale) count += counted(scale == acrossScale ? stretch.x : stretch.y, upTo);
            continue;
        }
        if (curve.radius && scale != upScale) continue;
        std::vector<std::vector<double>> places(program->outputs.size(), std::vector<double>(stretch.t.size()));
        std::vector<double*> out;
        for (auto& each : places) out.push_back(each.data());
        const double* const in = stretch.t.data();
        Evaluator evaluator(*program);
        evaluator(std::span(&in, 1), out, stretch.t.size());
        count += counted(places[curve.radius ? 0 : k], upTo);
    }
    return count;
}

std::size_t values(const Columns& source, const ColumnSamples& samples, std::size_t scale, std::optional<double> upTo) {
    const int column = scale <= upScale ? source.along[scale] : -1;
    return column < 0 ? 0 : counted(*samples.numbers[static_cast<std::size_t>(column)], upTo);
}

std::size_t values(const Field&, const FieldSamples& samples, std::size_t scale, std::optional<double> upTo) {
    if (scale == acrossScale || scale == upScale) return counted(placesOf(samples, scale), upTo);
    if (scale != colourScale) return 0;
    std::size_t count = 0;
    for (std::size_t i = 0; i < samples.pointCount(); ++i) {
        const double size = samples.sizeAt(i);
        count += !std::isnan(size) && (!upTo || size <= *upTo);
    }
    return count;
}

} // namespace

std::size_t valuesAlong(const Drawn& drawn, std::size_t scale, std::optional<double> upTo) {
    return visit<std::size_t>(
        drawn, [&](const auto& source, const auto& samples) { return values(source, samples, scale, upTo); });
}

} // namespace coulter
