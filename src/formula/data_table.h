#pragma once
#include <memory>
#include <string>
#include <string_view>
#include <vector>

namespace coulter {

/// A column: numbers side by side.
using Column = std::shared_ptr<const std::vector<double>>;

/// One column of a table, as its heading has it.
struct DataColumn {
    std::string name;    ///< "s", "drawdown"; empty: it has no heading
    std::string unit;    ///< UDUNITS; empty: none is said
    std::string meaning; ///< further words of the heading
    Column numbers;      ///< NaN where a value is missing
    /// Equal to the last bit; a missing value equals a missing one.
    friend bool operator==(const DataColumn& a, const DataColumn& b);
};

/// Numbers that were measured, and that formulas of a page name: (t, s) from "readings.csv".
struct DataTable {
    std::string source; ///< what the page calls it: the name of a file in the recipe's folder, or of what was pasted
    std::vector<DataColumn> columns;  ///< of one length
    std::vector<std::size_t> leftOut; ///< rows that do not count, from 0, ascending
    std::string digest;               ///< SHA-256 of the file's bytes in hexadecimal; empty: it came from no file
    bool isEdited = false;            ///< numbers were changed by hand since they were read
    bool isBeside = false;            ///< a recipe keeps its name and digest alone, and finds the numbers in its file
    std::string trouble;              ///< why its numbers are not here; empty if they are. Never kept in a recipe.
    friend bool operator==(const DataTable&, const DataTable&) = default;

    std::size_t rows() const { return columns.empty() ? 0 : columns[0].numbers->size(); }
};

/// The tables of a document: values that are shared, since nobody changes them.
class DataTables {
public:
    using Entry = std::shared_ptr<const DataTable>;

    auto begin() const { return tables_.begin(); }
    auto end() const { return tables_.end(); }
    std::size_t size() const { return tables_.size(); }
    bool empty() const { return tables_.empty(); }

    /// The table that the page calls so; null if there is none.
    Entry find(std::string_view source) const;
    /// Adds a table, in place of the one of the same name if there is one.
    void put(DataTable table);
    void remove(std::string_view source);

    friend bool operator==(const DataTables& a, const DataTables& b);

private:
    std::vector<Entry> tables_;
};

} // namespace coulter
