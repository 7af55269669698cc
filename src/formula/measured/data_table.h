#pragma once
#include "formula/measured/file_digest.h"
#include "formula/measured/grid_numbers.h"

#include <array>
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

/// A direction in which the numbers of a grid stand side by side.
struct DataAxis {
    std::string name, unit, meaning;
    Column places;          ///< ascending; where each number belongs
    bool isCounted = false; ///< the file says no places: each number is 1 wide, from 0 on
    friend bool operator==(const DataAxis& a, const DataAxis& b);
};

/// Nodes and elements that the numbers of a table belong to.
struct DataMesh {
    std::array<Column, 2> places; ///< x and y of each node
    std::string unit;             ///< of both
    std::vector<Column> corners;  ///< three or four: rows of each element's nodes, from 0; a triangle's fourth is NaN
    friend bool operator==(const DataMesh& a, const DataMesh& b);
};

/// Numbers that were measured, and that formulas of a page name: (t, s) from "readings.csv".
struct DataTable {
    std::string source; ///< what the page calls it: the name of a file in the recipe's folder, or of what was pasted
    std::vector<DataColumn> columns;      ///< of one length
    std::shared_ptr<const DataMesh> mesh; ///< of a mesh: its one column has a number for each node, or each element
    std::vector<DataAxis> axes;           ///< of a grid: directions of its one column, of which the first runs fastest
    std::shared_ptr<const GridNumbers> far; ///< of a grid too large for the memory: its numbers, and none in its column
    std::vector<std::size_t> leftOut;       ///< rows that do not count, from 0, ascending
    FileDigest digest;                      ///< of the file; empty: it came from none
    bool isEdited = false;                  ///< numbers were changed by hand since they were read
    bool isBeside = false; ///< a recipe keeps its name and digest alone, and finds the numbers in its file
    std::string trouble;   ///< why its numbers are not here; empty if they are. Never kept in a recipe.
    friend bool operator==(const DataTable& a, const DataTable& b);

    std::size_t rows() const { return columns.empty() ? 0 : columns[0].numbers->size(); }
};

/// What a page calls the table of one variable of a file that holds several.
std::string tableKey(const std::string& file, const std::string& variable);
/// The file, and the variable if one is named.
struct TableKey {
    std::string file, variable;
};
TableKey readTableKey(const std::string& source);

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
