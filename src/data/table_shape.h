#pragma once
#include <cstddef>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace coulter {

/// How a text is a table. What is not given is found from its first rows.
struct TableShape {
    std::optional<char> delimiter; ///< between cells: ',', ';', tab, '|' or a space, of which there may be several
    std::optional<char> decimal;   ///< '.' or ','
    std::optional<std::size_t> firstRow; ///< line of the file on which the numbers begin, from 1
    friend bool operator==(const TableShape&, const TableShape&) = default;
};

/// A column's heading: "drawdown s / m" is s, in m, and means drawdown.
struct Heading {
    std::string name, unit, meaning;
    friend bool operator==(const Heading&, const Heading&) = default;
};

/// Reads a heading: a unit behind a solidus, or in brackets of any kind, where UDUNITS knows it; a symbol at its end.
/// @param unit  what a row of units says of it; empty: nothing
Heading readHeading(std::string_view text, std::string_view unit = "");

/// What is known of a text as a table.
struct FoundShape {
    TableShape shape;                 ///< complete
    std::vector<Heading> headings;    ///< of each column
    std::vector<bool> isNumeric;      ///< of each column: whether its cells are numbers
    std::vector<std::size_t> skipped; ///< lines before the numbers that are neither heading nor units
};

/// Finds what is not given from the beginning of a text, which may be cut at its end. Nothing is found where no column
/// of it has numbers.
std::optional<FoundShape> findShape(std::string_view beginning, const TableShape& given = {});

} // namespace coulter
