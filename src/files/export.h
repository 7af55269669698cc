#pragma once
#include "composition/figure.h"
#include "composition/figure_watch.h"
#include "figure/document.h"
#include "formula/base/problem.h"

#include <filesystem>
#include <functional>
#include <optional>
#include <span>
#include <stop_token>
#include <string>
#include <string_view>

namespace coulter {

/// One format that figures are written in: its name is also the ending of its files.
struct ExportFormat {
    std::string_view name;
    std::string_view meaning;
    bool isBitmap;
    /// The figure as bytes, with the recipe inside; empty if it cannot be made.
    std::string (*write)(const Figure& figure, const std::string& recipe);
    /// Whether bytes are of this format.
    bool (*recognise)(std::string_view bytes);
    /// The recipe inside, if there is one.
    std::optional<std::string> (*recipeIn)(std::string_view bytes);
};

std::span<const ExportFormat> exportFormats();
/// By its name, or the usual shorter one of its files (tif).
const ExportFormat* findFormat(std::string_view name);
/// "pdf, svg, png, tiff or eps": to be said where another was asked for.
std::string formatNames();

/// The bytes of a figure, or the problem that there are none.
struct Exported {
    std::optional<std::string> bytes;
    Problem problem;
    std::optional<Problem> unfinished;
    bool tooDear = false;                  ///< what is unfinished would be finished patiently
    std::vector<std::string> remarks = {}; ///< sentences, if they were asked for
};

struct ExportOptions {
    bool patient = false;              ///< however long it takes (see Effort::operations)
    FigureWatch watch = {};            ///< told of what is being done
    std::filesystem::path folder = {}; ///< of a figure that is verified: where the tables beside it are
    bool remarks = false;              ///< whether to say what a referee would
};

/// Draws the document and writes it. Equal documents give equal bytes, if they are exported equally patiently: nothing
/// else enters.
/// A plot that cannot be drawn is a problem: a figure with something missing is not written. What was sampled less
/// finely than asked for, because that needs more points than are allowed, is written and said in `unfinished`.
Exported exportFigure(const Document& document, const ExportFormat& format, std::stop_token stop = {},
                      const ExportOptions& options = {});

/// The recipe text in an exported figure, or the text itself if it is a recipe.
struct RecipeFound {
    std::optional<std::string> recipe;
    const ExportFormat* format = nullptr; ///< null for a recipe as such
    Problem problem;
};
RecipeFound findRecipe(const std::string& bytes);

/// Rebuilds a figure from the recipe inside it; no problem if every byte is the same.
/// @param difference  gets a picture of what differs, if there is one (see pictureOfDifference); null: not wanted
std::optional<Problem> verifyFigure(const std::string& bytes, std::stop_token stop = {},
                                    const ExportOptions& options = {}, std::string* difference = nullptr);

/// The first problem that keeps a plot of the document from being drawn.
std::optional<Problem> plotProblem(const Figure& figure);

} // namespace coulter
