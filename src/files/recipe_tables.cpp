#include "files/recipe_tables.h"

#include "data/attach_tables.h"
#include "formula/base/text.h"
#include "formula/compile/columns.h"
#include "formula/measured/measured_grid.h"
#include "formula/notation/units.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

using Json = JsonReader::Json;
using Ordered = nlohmann::ordered_json;

constexpr std::size_t mostTables = 100, mostColumns = 1000, mostAxes = 3;

std::string quoted(const std::string& text) {
    return Ordered(text).dump(-1, ' ', false, Ordered::error_handler_t::replace);
}

/// A number so that reading gives it again to the last bit; −0 would be read as the whole number 0.
std::string numberText(double value) {
    if (!std::isfinite(value)) return "null";
    return value == 0 && std::signbit(value) ? "-0.0" : shortestNumber(value);
}

std::string writeAxis(const DataAxis& axis) {
    std::string out = "        {\"name\": " + quoted(axis.name);
    if (!axis.unit.empty()) out += ", \"unit\": " + quoted(axis.unit);
    if (!axis.meaning.empty()) out += ", \"meaning\": " + quoted(axis.meaning);
    if (axis.isCounted) return out + ", \"count\": " + std::to_string(axis.places->size()) + "}";
    out += ", \"places\": [";
    for (std::size_t i = 0; i < axis.places->size(); ++i) out += (i == 0 ? "" : ", ") + numberText((*axis.places)[i]);
    return out + "]}";
}

/// The directions of a grid; empty for a table.
std::vector<DataAxis> readAxes(JsonReader& reader, const Json& value, const std::string& path) {
    std::vector<DataAxis> axes;
    const Json* list = reader.list(value, path, "axes", mostAxes);
    for (std::size_t k = 0; list && k < list->size() && reader.good(); ++k) {
        const std::string here = joined(path, "axes") + "[" + std::to_string(k) + "]";
        const Json& each = (*list)[k];
        DataAxis axis;
        if (!reader.isObject(each, here)) break;
        reader.keys(each, here, {"name", "unit", "meaning", "count", "places"});
        axis.name = reader.text(each, here, "name").value_or("");
        axis.unit = reader.text(each, here, "unit").value_or("");
        axis.meaning = reader.text(each, here, "meaning").value_or("");
        if (!axis.unit.empty() && !isUnit(axis.unit))
            reader.refuse(joined(here, "unit"), "is “" + axis.unit + "”, which is no unit that is known.");
        const auto most = static_cast<std::size_t>(mostNumbersOfPage);
        std::vector<double> places;
        if (const auto count = reader.number(each, here, "count", 1, static_cast<double>(mostInRecipe))) {
            if (*count != std::floor(*count)) reader.refuse(joined(here, "count"), "must be a whole number.");
            axis.isCounted = true;
            axis.places = evenPlaces(static_cast<std::size_t>(*count), 0, 1);
        } else if (const Json* written = reader.list(each, here, "places", most)) {
            for (const Json& place : *written) {
                const bool good = place.is_number() && std::isfinite(place.get<double>()) &&
                                  (places.empty() || place.get<double>() > places.back());
                if (!good) {
                    reader.refuse(joined(here, "places"), "must hold finite numbers that ascend.");
                    break;
                }
                places.push_back(place.get<double>());
            }
            axis.places = std::make_shared<const std::vector<double>>(std::move(places));
        }
        if (reader.good() && (!axis.places || axis.places->empty()))
            reader.refuse(here, "has neither “places” nor “count”.");
        axes.push_back(std::move(axis));
    }
    return axes;
}

/// Rows of numbers, one row on each line.
std::string writeRows(std::span<const Column> columns) {
    std::string out = "[";
    for (std::size_t row = 0; row < columns[0]->size(); ++row) {
        out += row == 0 ? "\n          [" : ",\n          [";
        for (std::size_t k = 0; k < columns.size(); ++k) out += (k == 0 ? "" : ", ") + numberText((*columns[k])[row]);
        out += "]";
    }
    return out + "\n        ]";
}

std::string writeMesh(const DataMesh& mesh) {
    std::string out = ",\n      \"mesh\": {";
    if (!mesh.unit.empty()) out += "\n        \"unit\": " + quoted(mesh.unit) + ",";
    return out + "\n        \"nodes\": " + writeRows(mesh.places) +
           ",\n        \"elements\": " + writeRows(mesh.corners) + "\n      }";
}

/// Rows of so many numbers into columns.
std::vector<Column> readRows(JsonReader& reader, const Json& value, const std::string& path, const char* key,
                             std::size_t least, std::size_t most) {
    const Json* rows = reader.list(value, path, key, static_cast<std::size_t>(mostNumbersOfPage));
    std::vector<std::vector<double>> numbers;
    for (std::size_t i = 0; rows && i < rows->size() && reader.good(); ++i) {
        const Json& row = (*rows)[i];
        if (i == 0 && row.is_array()) numbers.resize(std::clamp(row.size(), least, most));
        bool good = row.is_array() && row.size() == numbers.size();
        for (std::size_t k = 0; good && k < row.size(); ++k) {
            good = row[k].is_null() || (row[k].is_number() && std::isfinite(row[k].get<double>()));
            if (good) numbers[k].push_back(row[k].is_number() ? row[k].get<double>() : std::nan(""));
        }
        if (!good)
            reader.refuse(joined(path, key) + "[" + std::to_string(i) + "]",
                          "must be " + std::to_string(std::max(least, numbers.size())) +
                              " finite numbers in square brackets.");
    }
    if (reader.good() && numbers.empty()) reader.refuse(joined(path, key), "is missing, or empty.");
    std::vector<Column> columns;
    for (auto& column : numbers) columns.push_back(std::make_shared<const std::vector<double>>(std::move(column)));
    return columns;
}

std::shared_ptr<const DataMesh> readMesh(JsonReader& reader, const Json& value, const std::string& path) {
    const auto at = value.find("mesh");
    const std::string here = joined(path, "mesh");
    if (at == value.end() || !reader.isObject(*at, here)) return nullptr;
    reader.keys(*at, here, {"unit", "nodes", "elements"});
    DataMesh mesh;
    mesh.unit = reader.text(*at, here, "unit").value_or("");
    if (!mesh.unit.empty() && !isUnit(mesh.unit))
        reader.refuse(joined(here, "unit"), "is “" + mesh.unit + "”, which is no unit that is known.");
    const std::vector<Column> nodes = readRows(reader, *at, here, "nodes", 2, 2);
    mesh.corners = readRows(reader, *at, here, "elements", 3, 4);
    if (!reader.good()) return nullptr;
    mesh.places = {nodes[0], nodes[1]};
    return std::make_shared<const DataMesh>(std::move(mesh));
}

std::string writeTable(const DataTable& table) {
    std::string out = "    {\n      \"name\": " + quoted(table.source);
    if (!table.digest.empty()) out += ",\n      \"digest\": " + quoted(table.digest.text());
    if (table.isEdited) out += ",\n      \"edited\": true";
    if (table.isBeside) out += ",\n      \"beside\": true";
    if (!table.leftOut.empty()) {
        out += ",\n      \"left out\": [";
        for (std::size_t i = 0; i < table.leftOut.size(); ++i)
            out += (i == 0 ? "" : ", ") + std::to_string(table.leftOut[i] + 1);
        out += "]";
    }
    if (table.isBeside) return out + "\n    }";
    if (!table.axes.empty()) {
        out += ",\n      \"axes\": [";
        for (const DataAxis& axis : table.axes) out += (&axis == table.axes.data() ? "\n" : ",\n") + writeAxis(axis);
        out += "\n      ]";
    }
    if (table.mesh) out += writeMesh(*table.mesh);
    out += ",\n      \"columns\": [";
    for (std::size_t k = 0; k < table.columns.size(); ++k) {
        const DataColumn& column = table.columns[k];
        out += std::string(k == 0 ? "" : ",") + "\n        {\"name\": " + quoted(column.name);
        if (!column.unit.empty()) out += ", \"unit\": " + quoted(column.unit);
        if (!column.meaning.empty()) out += ", \"meaning\": " + quoted(column.meaning);
        out += "}";
    }
    out += "\n      ],\n      \"rows\": [";
    // A row of a grid holds what stands along its first direction.
    const bool isGrid = !table.axes.empty();
    const std::size_t width = isGrid ? table.axes[0].places->size() : table.columns.size();
    const std::size_t rows = isGrid ? table.rows() / std::max<std::size_t>(1, width) : table.rows();
    for (std::size_t row = 0; row < rows; ++row) {
        out += row == 0 ? "\n        [" : ",\n        [";
        for (std::size_t k = 0; k < width; ++k) {
            const double value =
                isGrid ? (*table.columns[0].numbers)[row * width + k] : (*table.columns[k].numbers)[row];
            out += (k == 0 ? "" : ", ") + numberText(value);
        }
        out += "]";
    }
    return out + "\n      ]\n    }";
}

DataTable readOne(JsonReader& reader, const Json& value, const std::string& path) {
    DataTable table;
    if (!reader.isObject(value, path)) return table;
    reader.keys(value, path, {"name", "digest", "edited", "beside", "left out", "axes", "mesh", "columns", "rows"});
    table.source = reader.text(value, path, "name").value_or("");
    if (table.source.empty()) reader.refuse(joined(path, "name"), "is missing: the page calls the table by it.");
    table.digest = reader.text(value, path, "digest").value_or("");
    table.isEdited = reader.truth(value, path, "edited").value_or(false);
    table.isBeside = reader.truth(value, path, "beside").value_or(false);
    const std::string rowsPath = joined(path, "rows");
    std::vector<std::vector<double>> numbers;
    if (const Json* columns = reader.list(value, path, "columns", mostColumns)) {
        for (std::size_t k = 0; k < columns->size(); ++k) {
            const std::string here = joined(path, "columns") + "[" + std::to_string(k) + "]";
            DataColumn column;
            if (reader.isObject((*columns)[k], here)) {
                reader.keys((*columns)[k], here, {"name", "unit", "meaning"});
                column.name = reader.text((*columns)[k], here, "name").value_or("");
                column.unit = reader.text((*columns)[k], here, "unit").value_or("");
                column.meaning = reader.text((*columns)[k], here, "meaning").value_or("");
                if (!column.unit.empty() && !isUnit(column.unit))
                    reader.refuse(joined(here, "unit"), "is “" + column.unit + "”, which is no unit that is known.");
            }
            table.columns.push_back(std::move(column));
        }
    }
    table.axes = readAxes(reader, value, path);
    table.mesh = readMesh(reader, value, path);
    if (!reader.good()) return table;
    const bool isGrid = !table.axes.empty();
    if (isGrid && table.columns.size() != 1)
        reader.refuse(joined(path, "columns"), "must be one: the numbers of the grid.");
    const std::size_t width = isGrid ? table.axes[0].places->size() : table.columns.size();
    numbers.resize(table.columns.size());
    const Json* rows = reader.list(value, path, "rows", static_cast<std::size_t>(mostNumbersOfPage));
    for (std::size_t i = 0; rows && i < rows->size() && reader.good(); ++i) {
        const Json& row = (*rows)[i];
        const std::string here = rowsPath + "[" + std::to_string(i) + "]";
        if (!row.is_array() || row.size() != width) {
            reader.refuse(here,
                          "must be " + std::to_string(width) + " numbers in square brackets, one for each " +
                              (isGrid ? "place along the first axis." : "column."),
                          "write null where a value is missing");
            break;
        }
        for (std::size_t k = 0; k < row.size(); ++k) {
            const bool good = row[k].is_null() || (row[k].is_number() && std::isfinite(row[k].get<double>()));
            if (!good) reader.refuse(here, "must hold finite numbers, or null where a value is missing.");
            numbers[isGrid ? 0 : k].push_back(good && row[k].is_number() ? row[k].get<double>() : std::nan(""));
        }
    }
    if (!table.isBeside && (table.columns.empty() || !rows))
        reader.refuse(path, "has neither “columns” and “rows” nor “beside”.");
    double wanted = 1;
    for (const DataAxis& axis : table.axes) wanted *= static_cast<double>(axis.places->size());
    const std::size_t given = numbers.empty() ? 0 : numbers[0].size();
    if (table.mesh && rows && reader.good() && given != table.mesh->places[0]->size() &&
        given != table.mesh->corners[0]->size())
        reader.refuse(rowsPath, "must hold a number for each node, or for each element.");
    if (isGrid && rows && reader.good() && static_cast<double>(numbers[0].size()) != wanted)
        reader.refuse(rowsPath, "must hold " + std::to_string(static_cast<long long>(wanted)) +
                                    " numbers, one for every combination of places.");
    for (std::size_t k = 0; k < numbers.size(); ++k)
        table.columns[k].numbers = std::make_shared<const std::vector<double>>(std::move(numbers[k]));
    if (const Json* left = reader.list(value, path, "left out", static_cast<std::size_t>(mostNumbersOfPage))) {
        for (const Json& each : *left) {
            const bool good =
                each.is_number_integer() && each >= 1 && (table.isBeside || each.get<std::size_t>() <= table.rows());
            if (!good) {
                reader.refuse(joined(path, "left out"), "must hold numbers of rows, from 1.");
                break;
            }
            table.leftOut.push_back(each.get<std::size_t>() - 1);
        }
        std::ranges::sort(table.leftOut);
    }
    return table;
}

} // namespace

std::string writeTables(const Document& document) {
    const std::vector<std::string> named = tablesOf(document);
    std::string out;
    for (const DataTables::Entry& table : document.tables) {
        const bool known = table->trouble.empty() || table->isBeside;
        if (known && std::ranges::find(named, table->source) != named.end())
            out += (out.empty() ? "" : ",\n") + writeTable(*table);
    }
    return out.empty() ? out : "  \"tables\": [\n" + out + "\n  ]";
}

DataTables readTables(JsonReader& reader, const Json& root) {
    DataTables tables;
    if (const Json* list = reader.list(root, "", "tables", mostTables)) {
        for (std::size_t i = 0; i < list->size(); ++i) {
            DataTable table = readOne(reader, (*list)[i], "tables[" + std::to_string(i) + "]");
            if (tables.find(table.source))
                reader.refuse("tables[" + std::to_string(i) + "]", "is called as another one, “" + table.source + "”.");
            tables.put(std::move(table));
        }
    }
    return tables;
}

} // namespace coulter
