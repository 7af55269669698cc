#pragma once
#include "figure/document.h"
#include "files/export.h"
#include "notes/document_look.h"

#include <optional>
#include <string>
#include <vector>

namespace CLI {
class App;
}

namespace coulter {

/// What commands that write figures may be told of these figures, in place of what a recipe says.
struct FigureOptions {
    std::string output, format;
    double dpi = 0;
    std::string look, size;
    std::vector<std::string> settings; ///< NAME=VALUE
    bool patient = false;
    std::optional<SheetLook> lookFound;
};

/// Adds --output, --format, --dpi, --size, --set, --look and --patient.
/// @param ofSettings  what --set means here
void addFigureOptions(CLI::App& command, FigureOptions& options, const char* ofOutput, const char* ofSettings);

/// Finds what the options name; statusUsage, and said, if one of them is wrong.
int checkFigureOptions(FigureOptions& options);

/// The format by name or by the file's ending, else PDF; null, and said, if it is not known.
/// @param folder  the output is one, so that its name tells nothing
const ExportFormat* formatOf(const FigureOptions& options, bool folder);

/// The document as the options have it, with these settings; none, and said, if one of them is wrong.
std::optional<Document> withOptions(Document document, const FigureOptions& options,
                                    const std::vector<std::string>& settings, const std::string& about);

} // namespace coulter
