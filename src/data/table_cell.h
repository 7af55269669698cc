#pragma once
#include <string_view>

namespace coulter {

/// What the text of a table's cell says.
enum class CellKind { Number, Missing, Words };

struct TableCell {
    CellKind kind = CellKind::Missing;
    double number = 0;
    bool isGrouped = false; ///< it has separators between thousands
};

/// Reads a cell as people write numbers: with this decimal sign ('.' or ','), a sign, an exponent, thousands separated
/// by the other of the two, by an apostrophe or a space. Nothing, dashes and words such as NA say that a value is
/// missing.
TableCell readCell(std::string_view text, char decimal);

/// Without spaces of any kind at both ends.
std::string_view withoutSpaces(std::string_view text);

} // namespace coulter
