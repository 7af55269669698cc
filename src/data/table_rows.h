#pragma once
#include <functional>
#include <memory>
#include <span>
#include <string_view>

namespace coulter {

/// One row of a table as text.
struct TableRow {
    std::size_t line = 1;                    ///< of the file in which it begins, from 1
    std::span<const std::string_view> cells; ///< as they are, without quotation marks
};

/// Splits text that comes piece by piece into rows and cells (RFC 4180, with any delimiter): lines end by CR LF, LF or
/// CR, cells in quotation marks may hold all of these. Between spaces as delimiters there may be several.
class TableRows {
public:
    /// @param take  is given each row that is not blank; false ends the reading
    TableRows(char delimiter, std::function<bool(const TableRow&)> take);
    ~TableRows();
    void add(std::string_view piece);
    void finish();
    /// Between two rows: so many lines were read elsewhere.
    void skip(std::size_t lines);
    /// Whether the text so far ends with a row, outside quotation marks.
    bool isBetweenRows() const;
    /// The line of the file where the reader is.
    std::size_t line() const;
    /// Whether `take` ended it, a quotation mark was never closed, or a cell is too long.
    bool hasEnded() const;
    /// Where a quotation mark was opened and, so it seems, never closed; 0: none was.
    std::size_t openQuote() const;
    /// Where a cell began that is longer than any that is meant as one, without a quotation mark; 0: none did.
    std::size_t longCell() const;

private:
    struct State;
    std::unique_ptr<State> state_;
};

} // namespace coulter
