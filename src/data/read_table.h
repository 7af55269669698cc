#pragma once
#include "data/table_shape.h"
#include "formula/base/problem.h"
#include "formula/measured/data_table.h"

#include <filesystem>
#include <functional>
#include <stop_token>

namespace coulter {

/// A table that was read, and how; or the problem that it could not be.
struct TableRead {
    std::optional<DataTable> table; ///< its columns of numbers, with their headings; no row is left out
    FoundShape found;
    std::string encoding;
    std::vector<std::string> leftAside; ///< headings of columns that hold words
    std::vector<std::string> variables; ///< of a file with several: those that one can be chosen of
    Problem problem;                    ///< says its row and column
};

/// Gives the next piece of a text, empty at its end.
using TextSource = std::function<std::string_view()>;

/// Reads a table from text that comes piece by piece: comma-, semicolon-, tab-, bar- or space-separated values as
/// people write them. Nothing is guessed in silence: a cell that is no number in a column of numbers, or a row that is
/// too short or too long, is a problem with its place. Holds no more than the numbers and a piece.
/// @param source  what the table is called
/// @param given   what of its shape is not to be found from its first rows
TableRead readTable(const TextSource& next, const std::string& source, const TableShape& given = {},
                    const std::stop_token& stop = {});
TableRead readTable(std::string_view text, const std::string& source, const TableShape& given = {});
/// The same from a file, with its digest; called by the file's name.
TableRead readTableFile(const std::filesystem::path& path, const TableShape& given = {},
                        const std::stop_token& stop = {});

} // namespace coulter
