#include "files/sample_table.h"

#include "formula/text.h"

#include <cmath>

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

SampleTable sampleTable(const Curve& curve, const CurveSamples& samples) {
    SampleTable table;
    if (curve.isFunction()) {
        table.columns = {"stretch", "x", "y"};
        table.names = {"stretch", curve.variable, "value"};
    } else if (!curve.inSpace) {
        table.columns = {"stretch", "t", "x", "y"};
        table.names = {"stretch", curve.variable, "x", "y"};
    } else {
        table.columns = {"stretch", "t", "x", "y", "z"};
        table.names = {"stretch", curve.variable, "x", "y", "z"};
    }
    table.numbers.resize(table.columns.size());
    for (std::size_t s = 0; s < samples.stretches.size(); ++s) {
        const Stretch& stretch = samples.stretches[s];
        std::vector<std::vector<double>> parts{std::vector<double>(stretch.x.size(), static_cast<double>(s + 1))};
        if (!curve.isFunction()) parts.push_back(stretch.t);
        if (curve.inSpace) {
            std::vector<std::vector<double>> places(3, std::vector<double>(stretch.t.size()));
            const double* in = stretch.t.data();
            double* const out[] = {places[0].data(), places[1].data(), places[2].data()};
            Evaluator (*curve.inSpace)(std::span(&in, 1), out, stretch.t.size());
            for (auto& place : places) parts.push_back(std::move(place));
        } else {
            parts.push_back(stretch.x);
            parts.push_back(stretch.y);
        }
        for (std::size_t k = 0; k < parts.size(); ++k)
            table.numbers[k].insert(table.numbers[k].end(), parts[k].begin(), parts[k].end());
        for (std::size_t i = 0; i < stretch.x.size(); ++i) table.states.emplace_back(stateName(stretch, i));
    }
    return table;
}

SampleTable sampleTable(const Field& field, const FieldSamples& samples) {
    SampleTable table;
    table.columns = {"x", "y"};
    table.names = {field.variables[0], field.variables[1]};
    const bool vector = samples.values.size() > 1;
    static constexpr const char* components[] = {"u", "v", "w"};
    for (std::size_t k = 0; k < samples.values.size(); ++k) {
        table.columns.emplace_back(vector ? components[k] : "z");
        table.names.emplace_back(vector ? components[k] : "value");
    }
    table.numbers.resize(2);
    for (std::size_t i = 0; i < samples.pointCount(); ++i) {
        table.numbers[0].push_back(samples.xAt(i));
        table.numbers[1].push_back(samples.yAt(i));
    }
    for (const auto& component : samples.values) table.numbers.push_back(component);
    return table;
}

std::string tableCsv(const SampleTable& table) {
    std::string out;
    for (const std::string& column : table.columns) out += (out.empty() ? "" : ",") + column;
    out += table.states.empty() ? "\n" : ",state\n";
    for (std::size_t row = 0; row < table.rowCount(); ++row) {
        for (std::size_t k = 0; k < table.numbers.size(); ++k) {
            if (k > 0) out += ',';
            const double value = table.numbers[k][row];
            if (!std::isnan(value)) out += shortestNumber(value);
        }
        if (!table.states.empty()) out += "," + table.states[row];
        out += '\n';
    }
    return out;
}

} // namespace coulter
