#include "formula/measured/measured_grid.h"

#include "formula/base/text.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <optional>

namespace coulter {
namespace {

std::optional<double> numberOf(const std::string& text) {
    double number = 0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), number);
    if (error != std::errc{} || end != text.data() + text.size() || !std::isfinite(number)) return std::nullopt;
    return number;
}

Column shared(std::vector<double> numbers) { return std::make_shared<const std::vector<double>>(std::move(numbers)); }

GridOfTable refused(std::string trouble) {
    GridOfTable grid;
    grid.trouble = std::move(trouble);
    return grid;
}

/// Each number once, ascending.
std::vector<double> distinct(const std::vector<double>& numbers) {
    std::vector<double> sorted = numbers;
    std::ranges::sort(sorted);
    sorted.erase(std::unique(sorted.begin(), sorted.end()), sorted.end());
    return sorted;
}

bool areFinite(const std::vector<double>& numbers) {
    return std::ranges::all_of(numbers, [](double each) { return std::isfinite(each); });
}

/// Columns x, y and z with every combination of x and y in their rows, in any order.
GridOfTable ofTriples(const DataTable& table) {
    const std::vector<double>&x = *table.columns[0].numbers, &y = *table.columns[1].numbers;
    if (!areFinite(x) || !areFinite(y)) return refused("a row of it has no place.");
    const std::vector<double> across = distinct(x), up = distinct(y);
    if (across.size() * up.size() != x.size() || across.size() < 2 || up.size() < 2)
        return refused(std::to_string(x.size()) + " rows are not every combination of " +
                       std::to_string(across.size()) + " and " + std::to_string(up.size()) + " places.");
    std::vector<double> values(x.size(), std::nan(""));
    std::vector<bool> taken(x.size(), false);
    for (std::size_t i = 0; i < x.size(); ++i) {
        const auto column = static_cast<std::size_t>(std::ranges::lower_bound(across, x[i]) - across.begin());
        const auto row = static_cast<std::size_t>(std::ranges::lower_bound(up, y[i]) - up.begin());
        const std::size_t at = row * across.size() + column;
        if (taken[at])
            return refused("two of its rows stand at (" + roundedNumber(x[i], 6) + ", " + roundedNumber(y[i], 6) +
                           ").");
        taken[at] = true;
        values[at] = (*table.columns[2].numbers)[i];
    }
    GridOfTable grid;
    for (std::size_t k = 0; k < 2; ++k) {
        const DataColumn& column = table.columns[k];
        grid.axes.push_back({column.name, column.unit, column.meaning, shared(k == 0 ? across : up), false});
    }
    grid.values = shared(std::move(values));
    return grid;
}

/// Rows and columns; places of both where the table says them.
GridOfTable ofRows(const DataTable& table) {
    const std::size_t rows = table.rows(), columns = table.columns.size();
    std::vector<double> across;
    for (const DataColumn& column : table.columns) {
        if (const auto place = numberOf(column.name)) across.push_back(*place);
    }
    // Headings that are numbers are places; the first column then has the others.
    const bool byHeading = columns > 2 && across.size() >= columns - 1 && !numberOf(table.columns[0].name);
    const bool byCorner = !byHeading && columns > 2 && rows > 2 && std::isnan((*table.columns[0].numbers)[0]);
    const std::size_t firstColumn = byHeading || byCorner ? 1 : 0, firstRow = byCorner ? 1 : 0;
    if (!byHeading) across.clear();
    for (std::size_t k = 1; byCorner && k < columns; ++k) across.push_back((*table.columns[k].numbers)[0]);
    std::vector<double> up;
    for (std::size_t i = firstRow; firstColumn == 1 && i < rows; ++i) up.push_back((*table.columns[0].numbers)[i]);
    const std::size_t width = columns - firstColumn, height = rows - firstRow;
    GridOfTable grid;
    const bool placed = firstColumn == 1;
    bool downwards = !placed, leftwards = false; // without places the first row lies on top, as in a picture
    for (std::vector<double>* places : {&across, &up}) {
        if (!placed) continue;
        bool& backwards = places == &up ? downwards : leftwards;
        backwards = places->size() > 1 && places->front() > places->back();
        if (backwards) std::ranges::reverse(*places);
        if (!areFinite(*places) || std::ranges::adjacent_find(*places, std::greater_equal<>{}) != places->end())
            return refused(places == &up ? "the places in its first column do not ascend."
                                         : "the places above its columns do not ascend.");
    }
    std::vector<double> values;
    values.reserve(width * height);
    for (std::size_t i = 0; i < height; ++i) {
        const std::size_t row = firstRow + (downwards ? height - 1 - i : i);
        for (std::size_t k = 0; k < width; ++k)
            values.push_back((*table.columns[firstColumn + (leftwards ? width - 1 - k : k)].numbers)[row]);
    }
    grid.axes = {{"", "", "", placed ? shared(across) : evenPlaces(width, 0, 1), !placed},
                 {"", "", "", placed ? shared(up) : evenPlaces(height, 0, 1), !placed}};
    grid.values = shared(std::move(values));
    return grid;
}

/// Turns the numbers of each layer round, and the directions with them.
void turn(GridOfTable& grid, const GridPlace& place) {
    const std::size_t width = grid.axes[0].places->size(), height = grid.axes[1].places->size();
    const bool swaps = place.quarters % 2 != 0;
    const std::size_t newWidth = swaps ? height : width, newHeight = swaps ? width : height;
    std::vector<double> values;
    values.reserve(grid.values->size());
    for (std::size_t layer = 0; layer < grid.values->size(); layer += width * height) {
        for (std::size_t y = 0; y < newHeight; ++y) {
            for (std::size_t x = 0; x < newWidth; ++x) {
                // Where this number stood before it was turned, and before its rows were.
                const std::array<std::array<std::size_t, 2>, 4> from{
                    {{x, y}, {y, newWidth - 1 - x}, {newWidth - 1 - x, newHeight - 1 - y}, {newHeight - 1 - y, x}}};
                const auto& [column, row] = from[static_cast<std::size_t>(place.quarters)];
                values.push_back((*grid.values)[layer + (place.rowsUpwards ? height - 1 - row : row) * width + column]);
            }
        }
    }
    grid.values = shared(std::move(values));
    if (swaps) std::swap(grid.axes[0], grid.axes[1]);
}

} // namespace

Column evenPlaces(std::size_t count, double edge, double pitch) {
    std::vector<double> places(count);
    for (std::size_t i = 0; i < count; ++i) places[i] = edge + (static_cast<double>(i) + 0.5) * pitch;
    return shared(std::move(places));
}

std::string intervalOf(std::span<const double> places, bool toEdges) {
    const std::size_t n = places.size();
    const auto beyond = [&](std::size_t i) { return !toEdges ? 0 : n > 1 ? (places[i + 1] - places[i]) / 2 : 0.5; };
    const double low = places.front() - beyond(0), high = places.back() + beyond(n > 1 ? n - 2 : 0);
    // Zero but for rounding is meant to be zero.
    const auto written = [&](double edge) {
        return roundedNumber(std::abs(edge) < 1e-12 * (high - low) ? 0 : edge, 12);
    };
    return "[" + written(low) + ", " + written(high) + "]";
}

GridOfTable gridOf(const DataTable& table) {
    if (!table.axes.empty()) return {table.axes, table.far ? nullptr : table.columns[0].numbers, table.far, ""};
    if (table.columns.size() < 2 || table.rows() < 2) return refused("it has fewer than two rows or columns.");
    if (table.columns.size() == 3) {
        GridOfTable triples = ofTriples(table);
        if (triples.trouble.empty() || table.rows() > 3) return triples;
    }
    return ofRows(table);
}

std::string layGrid(GridOfTable& grid, const GridPlace& place) {
    const std::vector<double>&pitch = place.pitch, &origin = place.origin;
    if (std::ranges::any_of(pitch, [](double width) { return !(width > 0 && std::isfinite(width)); }))
        return "The pitch is the width of one number, more than 0.";
    if (!areFinite(origin)) return "The origin is a place, which is undefined here.";
    if (pitch.size() > grid.axes.size() || origin.size() > grid.axes.size())
        return "There are more numbers for the pitch or the origin than directions of the grid, " +
               std::to_string(grid.axes.size()) + ".";
    if (!origin.empty() && origin.size() < std::min<std::size_t>(2, grid.axes.size()))
        return "An origin has a number for each direction, such as “, origin -6, -6”.";
    if (place.isTurned() && grid.far) return "Of more numbers than a page holds the rows stay as they are in the file.";
    if (place.isTurned() && grid.axes.size() > 1) turn(grid, place);
    for (std::size_t k = 0; k < std::min<std::size_t>(2, grid.axes.size()); ++k) {
        DataAxis& axis = grid.axes[k];
        const std::vector<double>& places = *axis.places;
        const std::size_t n = places.size();
        if (!pitch.empty()) {
            axis.places = evenPlaces(n, origin.empty() ? 0 : origin[k], pitch[std::min(k, pitch.size() - 1)]);
            axis.isCounted = false;
        } else if (!origin.empty()) { // moved, so that its outer edge lies there
            const double edge = places[0] - (n > 1 ? (places[1] - places[0]) / 2 : 0.5), by = origin[k] - edge;
            std::vector<double> moved = places;
            for (double& each : moved) each += by;
            axis.places = shared(std::move(moved));
        }
    }
    return "";
}

std::vector<DataColumn> columnsInFull(const DataTable& table) {
    if (table.mesh && table.mesh->places[0]->size() == table.rows())
        return {{"x", table.mesh->unit, "", table.mesh->places[0]},
                {"y", table.mesh->unit, "", table.mesh->places[1]},
                table.columns[0]};
    if (table.axes.empty()) return table.columns;
    const std::size_t count = table.rows();
    std::vector<DataColumn> columns;
    std::size_t step = 1;
    for (const DataAxis& axis : table.axes) {
        std::vector<double> numbers(count);
        const std::size_t n = axis.places->size();
        for (std::size_t i = 0; i < count; ++i) numbers[i] = (*axis.places)[i / step % n];
        columns.push_back({axis.name, axis.unit, axis.meaning, shared(std::move(numbers))});
        step *= n;
    }
    columns.push_back(table.columns[0]);
    return columns;
}

} // namespace coulter
