#include "files/recipe_tables.h"

#include "data/attach_tables.h"
#include "formula/columns.h"
#include "formula/text.h"
#include "formula/units.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

using Json = JsonReader::Json;
using Ordered = nlohmann::ordered_json;

constexpr std::size_t mostTables = 100, mostColumns = 1000;

std::string quoted(const std::string& text) {
    return Ordered(text).dump(-1, ' ', false, Ordered::error_handler_t::replace);
}

/// A number so that reading gives it again to the last bit; −0 would be read as the whole number 0.
std::string numberText(double value) {
    if (!std::isfinite(value)) return "null";
    return value == 0 && std::signbit(value) ? "-0.0" : shortestNumber(value);
}

std::string writeTable(const DataTable& table) {
    std::string out = "    {\n      \"name\": " + quoted(table.source);
    if (!table.digest.empty()) out += ",\n      \"digest\": " + quoted(table.digest);
    if (table.isEdited) out += ",\n      \"edited\": true";
    if (table.isBeside) out += ",\n      \"beside\": true";
    if (!table.leftOut.empty()) {
        out += ",\n      \"left out\": [";
        for (std::size_t i = 0; i < table.leftOut.size(); ++i)
            out += (i == 0 ? "" : ", ") + std::to_string(table.leftOut[i] + 1);
        out += "]";
    }
    if (table.isBeside) return out + "\n    }";
    out += ",\n      \"columns\": [";
    for (std::size_t k = 0; k < table.columns.size(); ++k) {
        const DataColumn& column = table.columns[k];
        out += std::string(k == 0 ? "" : ",") + "\n        {\"name\": " + quoted(column.name);
        if (!column.unit.empty()) out += ", \"unit\": " + quoted(column.unit);
        if (!column.meaning.empty()) out += ", \"meaning\": " + quoted(column.meaning);
        out += "}";
    }
    out += "\n      ],\n      \"rows\": [";
    for (std::size_t row = 0; row < table.rows(); ++row) {
        out += row == 0 ? "\n        [" : ",\n        [";
        for (std::size_t k = 0; k < table.columns.size(); ++k) {
            const double value = (*table.columns[k].numbers)[row];
            out += (k == 0 ? "" : ", ") + numberText(value);
        }
        out += "]";
    }
    return out + "\n      ]\n    }";
}

DataTable readOne(JsonReader& reader, const Json& value, const std::string& path) {
    DataTable table;
    if (!reader.isObject(value, path)) return table;
    reader.keys(value, path, {"name", "digest", "edited", "beside", "left out", "columns", "rows"});
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
    numbers.resize(table.columns.size());
    const Json* rows = reader.list(value, path, "rows", static_cast<std::size_t>(mostNumbersOfPage));
    for (std::size_t i = 0; rows && i < rows->size() && reader.good(); ++i) {
        const Json& row = (*rows)[i];
        const std::string here = rowsPath + "[" + std::to_string(i) + "]";
        if (!row.is_array() || row.size() != numbers.size()) {
            reader.refuse(
                here, "must be " + std::to_string(numbers.size()) + " numbers in square brackets, one for each column.",
                "write null where a value is missing");
            break;
        }
        for (std::size_t k = 0; k < row.size(); ++k) {
            const bool good = row[k].is_null() || (row[k].is_number() && std::isfinite(row[k].get<double>()));
            if (!good) reader.refuse(here, "must hold finite numbers, or null where a value is missing.");
            numbers[k].push_back(good && row[k].is_number() ? row[k].get<double>() : std::nan(""));
        }
    }
    if (!table.isBeside && (table.columns.empty() || !rows))
        reader.refuse(path, "has neither “columns” and “rows” nor “beside”.");
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
