#include "files/export.h"

#include "composition/draw_figure.h"
#include "composition/findings.h"
#include "data/attach_tables.h"
#include "drawing/scene_extent.h"
#include "figure/sheet_settings.h"
#include "files/animation.h"
#include "files/figure_difference.h"
#include "files/formats.h"
#include "files/recipe.h"
#include "plots/telling.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace coulter {
namespace {

constexpr std::array<ExportFormat, 5> formats{{
    {"pdf", "vector page with text that can be selected", false, writePdf, isPdf, recipeInPdf},
    {"svg", "vector drawing for the web and for drawing programs", false, writeSvgFigure, isSvg, recipeInSvg},
    {"png", "bitmap at the sheet's resolution", true, writePng, isPng, recipeInPng},
    {"tiff", "bitmap at the sheet's resolution, as print shops ask for it", true, writeTiff, isTiff, recipeInTiff},
    {"eps", "vector drawing for print shops; what is translucent becomes dots", false, writeEps, isEps, recipeInEps},
}};

} // namespace

std::span<const ExportFormat> exportFormats() { return formats; }

const ExportFormat* findFormat(std::string_view name) {
    if (name == "tif") name = "tiff";
    for (const ExportFormat& format : formats) {
        if (format.name == name) return &format;
    }
    return nullptr;
}

std::string formatNames() {
    std::string names;
    for (const ExportFormat& format : formats)
        names += (names.empty() ? "" : &format == &formats.back() ? " or " : ", ") + std::string(format.name);
    return names;
}

std::optional<Problem> plotProblem(const Figure& figure) {
    for (std::size_t p = 0; p < figure.panels.size(); ++p) {
        const std::vector<Problems>& problems = figure.panels[p].problems;
        for (std::size_t i = 0; i < problems.size(); ++i) {
            if (problems[i].empty()) continue;
            const Problem& problem = problems[i].front();
            // The cause may be on the page: that place helps more than the plot's.
            for (const Problem& cause : figure.page.problems()) {
                if (cause.severity == Problem::Severity::Error && !cause.follows) return cause;
            }
            return saying("The plot “" + figure.document.panels[p].plots[i].of + "” cannot be drawn: character " +
                              std::to_string(problem.first) + ": " + problem.sentence,
                          problem.suggestion);
        }
        for (std::size_t n = 0; n < figure.panels[p].notes.problems.size(); ++n) {
            if (const Problems& of = figure.panels[p].notes.problems[n]; !of.empty())
                return saying("Note " + std::to_string(n + 1) + " of panel " + std::to_string(p + 1) +
                                  " cannot be drawn: " + of.front().sentence,
                              of.front().suggestion);
        }
    }
    return std::nullopt;
}

namespace {

std::optional<Problem> unfinishedPlot(const Figure& figure) {
    for (const PanelFigure& panel : figure.panels) {
        for (const Drawn& drawn : panel.drawn) {
            if (!isFinished(drawn)) return unfinished(drawn);
        }
    }
    return std::nullopt;
}

/// A figure as its files have it: all of the sheet, or what is drawn.
Figure asWritten(Figure figure) {
    const Settings& settings = figure.document.sheet.settings;
    if (word(settings, extentSetting) == 1)
        figure.scene = croppedToContent(std::move(figure.scene), number(settings, marginSetting));
    if (word(settings, paperSetting) == 1) figure.scene.paper = {0xff, 0xff, 0xff}; // PDF and EPS paint no white paper
    return figure;
}

} // namespace

Exported exportFigure(const Document& document, const ExportFormat& format, std::stop_token stop,
                      const ExportOptions& options) {
    const double dots = document.sheet.width * document.sheet.height * document.sheet.resolution *
                        document.sheet.resolution / (25.4 * 25.4);
    if (format.isBitmap && dots > mostDots) {
        return {std::nullopt,
                saying("A bitmap of this size would have " + std::to_string(static_cast<long long>(dots / 1e6)) +
                           " million dots.",
                       "choose a smaller sheet or resolution, or a vector format"),
                {}};
    }
    Effort effort = effortOf(document.sheet);
    if (options.patient) effort.operations = HUGE_VAL;
    Figure figure = drawFigure(document, effort, stop, nullptr, options.watch);
    const Exported stopped{std::nullopt, saying("The export was stopped."), {}};
    if (stop.stop_requested()) return stopped;
    if (const auto problem = plotProblem(figure)) return {std::nullopt, *problem, {}};
    if (options.watch.stage) options.watch.stage("writing", 0, 0);
    figure = asWritten(std::move(figure));
    std::string bytes = format.write(figure, writeRecipe(document));
    if (stop.stop_requested()) return stopped;
    if (bytes.empty())
        return {std::nullopt,
                saying("There is not enough memory for a figure of this size.", "choose a smaller sheet or resolution"),
                {}};
    const bool tooDear = std::ranges::any_of(
        figure.panels, [](const PanelFigure& panel) { return std::ranges::any_of(panel.drawn, isTooDear); });
    Exported exported{std::move(bytes), {}, unfinishedPlot(figure), tooDear};
    if (options.remarks) {
        for (const Finding& finding : findingsOf(figure)) exported.remarks.push_back(finding.said.sentence);
    }
    return exported;
}

RecipeFound findRecipe(const std::string& bytes) {
    for (const ExportFormat& format : formats) {
        if (!format.recognise(bytes)) continue;
        auto recipe = format.recipeIn(bytes);
        if (!recipe)
            return {std::nullopt, &format,
                    saying("This figure has no recipe inside.",
                           "only figures that Coulter wrote, and that were not changed since, can be opened")};
        return {std::move(recipe), &format, {}};
    }
    const auto first = bytes.find_first_not_of(" \t\r\n");
    if (first == std::string::npos || bytes[first] != '{')
        return {std::nullopt, nullptr, saying("This is neither a recipe nor a figure of Coulter's.")};
    return {bytes, nullptr, {}};
}

std::optional<Problem> verifyFigure(const std::string& bytes, std::stop_token stop, const ExportOptions& options,
                                    std::string* difference) {
    const RecipeFound found = findRecipe(bytes);
    if (!found.recipe) return found.problem;
    if (!found.format)
        return saying("This is a recipe, not a figure; there is nothing to compare.", "name an exported figure");
    RecipeRead read = readRecipe(*found.recipe);
    if (!read.document) return read.problem;
    attachTables(*read.document, options.folder);
    const auto animation = animationIn(bytes);
    const Exported again = animation ? exportAnimation(*read.document, *animation, stop, options)
                                     : exportFigure(*read.document, *found.format, stop, options);
    if (!again.bytes) return again.problem;
    if (*again.bytes == bytes) return std::nullopt;
    if (animation)
        return saying("The animation differs from what its recipe gives.",
                      "it was changed after the export, or made by another version of Coulter or its libraries, or "
                      "patiently");
    if (difference) *difference = pictureOfDifference(bytes, *again.bytes);
    return saying(
        "The figure differs from what its recipe gives. " +
            whatDiffers(bytes, *again.bytes, asWritten(drawFigure(*read.document))),
        "it was changed after the export, or made by another version of Coulter or its libraries, or patiently");
}

} // namespace coulter
