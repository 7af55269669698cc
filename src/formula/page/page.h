#pragma once
#include "formula/notation/names.h"
#include "formula/page/line.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace coulter {

/// A formula page, read and resolved: order-free, circles named, quantities and questions computed.
/// A line with a problem does not take down the lines that do not need it.
struct Page {
    std::vector<Line> lines;
    KnownNames names;                           ///< of all good definitions
    KnownNames inQuestions;                     ///< the same, and the parameters of functions
    std::map<std::string, std::size_t> defined; ///< canonical name → its line
    std::map<std::string, std::size_t> periods; ///< canonical name of a function → the line that continues it
    std::shared_ptr<const Page> whole; ///< of a page of left-out rows: that of the others, which statistics are about

    /// The line that defines a name, if it is of this kind and good; else null.
    const Line* find(const std::string& name, LineKind kind) const;
    /// What a name of this page is worth, if it is a quantity or found by a solution or a fit.
    std::optional<double> valueOf(const std::string& name) const;
    /// The column of this name; null if there is none.
    Column columnOf(const std::string& name) const;
    /// The unit and the label that a name has on its line; empty where it has none.
    std::string unitOf(const std::string& name) const;
    std::string labelOf(const std::string& name) const;
    /// All problems and notes, in the order of the lines.
    Problems problems() const;
};

} // namespace coulter
