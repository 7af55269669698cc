#include "plots/table.h"

#include "formula/base/text.h"
#include "plots/plot_kind.h"

#include <algorithm>
#include <cmath>
#include <span>

namespace coulter {

const char* stateName(PointState state) {
    switch (state) {
    case PointState::Grid: return "grid";
    case PointState::Estimated: return "estimated";
    case PointState::Edge: return "edge";
    case PointState::Jump: return "jump";
    case PointState::Pole: return "pole";
    case PointState::Filled: return "filled";
    case PointState::Corner: return "corner";
    case PointState::Border: return "border";
    }
    return "estimated";
}

const char* stateName(const Stretch& stretch, std::size_t i) {
    if (stretch.state[i] == PointState::Estimated && stretch.provenAt(i)) return "proven";
    return stateName(stretch.state[i]);
}

const char* gapName(GapKind kind) {
    switch (kind) {
    case GapKind::Undefined: return "undefined";
    case GapKind::Jump: return "jump";
    case GapKind::Pole: return "pole";
    }
    return "undefined";
}

namespace {

/// "x: 101 points from 0 to 1, step 0.01"; without the step where it is not the same everywhere.
std::string directionHeading(const std::string& name, const std::vector<double>& places) {
    const auto number = [](double value) { return roundedNumber(value, 8); };
    std::string text = name + ": " + std::to_string(places.size()) + " points from " + number(places.front()) + " to " +
                       number(places.back());
    if (places.size() < 2) return text;
    const double step = (places.back() - places.front()) / static_cast<double>(places.size() - 1);
    bool even = step > 0;
    for (std::size_t i = 1; i < places.size(); ++i)
        even = even && std::abs(places[i] - places[i - 1] - step) <= 1e-9 * std::abs(step);
    return even ? text + ", step " + number(step) : text;
}

/// Where the rows of a curve's table are: which stretch, and which point of it.
struct CurveRows {
    const CurveSamples& samples;
    std::vector<std::size_t> firsts; ///< row of each stretch's first point

    explicit CurveRows(const CurveSamples& all) : samples(all) {
        std::size_t row = 0;
        for (const Stretch& stretch : samples.stretches) {
            firsts.push_back(row);
            row += stretch.x.size();
        }
    }
    std::pair<std::size_t, std::size_t> at(std::size_t row) const {
        const auto next = std::upper_bound(firsts.begin(), firsts.end(), row);
        const auto stretch = static_cast<std::size_t>(next - firsts.begin()) - 1;
        return {stretch, row - firsts[stretch]};
    }
};

SampleTable table(const Curve& curve, const CurveSamples& samples) {
    SampleTable table;
    if (curve.isFunction()) {
        table.columns = {"stretch", "x", "y"};
        table.names = {"stretch", curve.variable, "value"};
    } else if (curve.radius) {
        table.columns = {"stretch", "t", "r"};
        table.names = {"stretch", curve.variable, "radius"};
    } else if (!curve.inSpace) {
        table.columns = {"stretch", "t", "x", "y"};
        table.names = {"stretch", curve.variable, "x", "y"};
    } else {
        table.columns = {"stretch", "t", "x", "y", "z"};
        table.names = {"stretch", curve.variable, "x", "y", "z"};
    }
    const auto rows = std::make_shared<const CurveRows>(samples);
    table.rows = samples.pointCount();
    table.state = [rows](std::size_t row) {
        const auto [stretch, i] = rows->at(row);
        return stateName(rows->samples.stretches[stretch], i);
    };
    const auto& program = curve.inSpace ? curve.inSpace : curve.radius;
    const auto evaluator = program && !curve.isFunction() ? std::make_shared<Evaluator>(*program) : nullptr;
    const bool function = curve.isFunction();
    const std::size_t components = program ? program->outputs.size() : 0;
    table.number = [rows, evaluator, function, components](std::size_t row, std::size_t column) {
        const auto [s, i] = rows->at(row);
        const Stretch& stretch = rows->samples.stretches[s];
        if (column == 0) return static_cast<double>(s + 1);
        if (!function && column == 1) return stretch.t[i];
        if (!evaluator) return column == (function ? 1U : 2U) ? stretch.x[i] : stretch.y[i];
        std::array<double, 3> place{};
        const double* in = &stretch.t[i];
        double* const out[] = {&place[0], &place[1], &place[2]};
        (*evaluator)(std::span(&in, 1), std::span(out, components), 1);
        return place[column - 2];
    };
    std::vector<double> places;
    for (const Stretch& stretch : samples.stretches) places.insert(places.end(), stretch.t.begin(), stretch.t.end());
    if (!places.empty()) table.heading.push_back(directionHeading(curve.variable, places));
    return table;
}

SampleTable table(const Field& field, const FieldSamples& samples) {
    SampleTable table;
    table.columns = {"x", "y"};
    table.names = {field.variables[0], field.variables[1]};
    const bool vector = samples.values.size() > 1;
    static constexpr const char* components[] = {"u", "v", "w"};
    for (std::size_t k = 0; k < samples.values.size(); ++k) {
        table.columns.emplace_back(vector ? components[k] : "z");
        table.names.emplace_back(vector ? components[k] : "value");
    }
    table.rows = samples.pointCount();
    table.number = [&samples](std::size_t row, std::size_t column) {
        return column == 0 ? samples.xAt(row) : column == 1 ? samples.yAt(row) : samples.values[column - 2][row];
    };
    const std::string points = std::to_string(samples.pointCount()) + " points";
    if (samples.isMesh() || samples.pointCount() == 0) {
        table.heading.push_back(points + ", " + std::to_string(samples.triangles.size()) + " triangles");
    } else {
        table.heading = {points, directionHeading(field.variables[0], samples.columns),
                         directionHeading(field.variables[1], samples.rows)};
    }
    return table;
}

SampleTable table(const Columns& columns) {
    SampleTable table;
    table.columns = table.names = columns.names;
    table.rows = columns.rows();
    table.number = [&columns](std::size_t row, std::size_t column) { return (*columns.numbers[column])[row]; };
    table.heading.push_back(std::to_string(columns.rows()) + " rows");
    return table;
}

} // namespace

SampleTable tableOf(const Drawn& drawn) {
    SampleTable made;
    if (drawn.parts.empty() || !drawn.parts[0].samples) return made;
    if (const Curve* curve = curveOf(drawn)) made = table(*curve, *curveSamplesOf(drawn));
    if (const Field* field = fieldOf(drawn)) made = table(*field, *fieldSamplesOf(drawn));
    if (const Columns* columns = columnsOf(drawn)) made = table(*columns);
    made.heading.insert(made.heading.begin(), drawn.of);
    return made;
}

SampleTable tableOf(const Drawn& drawn, const Frame& frame) {
    if (!drawn.kind || !drawn.kind->table || drawn.parts.empty() || !drawn.parts[0].samples) return tableOf(drawn);
    SampleTable made = drawn.kind->table(drawn, frame);
    made.heading.insert(made.heading.begin(), drawn.of);
    return made;
}

std::string tableCsv(const SampleTable& table) {
    std::string out;
    for (const std::string& column : table.columns) out += (out.empty() ? "" : ",") + column;
    out += table.state ? ",state\n" : "\n";
    for (std::size_t row = 0; row < table.rows; ++row) {
        for (std::size_t k = 0; k < table.columns.size(); ++k) {
            if (k > 0) out += ',';
            const double value = table.number(row, k);
            if (!std::isnan(value)) out += shortestNumber(value);
        }
        if (table.state) out += std::string(",") + table.state(row);
        out += '\n';
    }
    return out;
}

} // namespace coulter
