#pragma once
#include "figure/sheet_looks.h"
#include "formula/base/problem.h"

#include <string>

namespace coulter {

/// A look as a file, and back: {"coulter look": 1, "text size": 10, "typeface": "sans", …}; "width" and "height" where
/// it is meant for sheets of one size.
std::string writeLook(const SheetLook& look);

struct LookRead {
    std::optional<SheetLook> look;
    Problem problem;
};
LookRead readLook(const std::string& text);

/// The look of a name; else of a file that holds one, or of a recipe or figure that has one.
LookRead findLook(const std::string& nameOrFile);

/// “plain”, “journal”, …
std::string lookNames();

} // namespace coulter
