#include "command/figure_options.h"

#include "command/commands.h"
#include "figure/sheet_sizes.h"
#include "files/look_file.h"
#include "files/set_value.h"

#include <CLI/CLI.hpp>
#include <filesystem>
#include <fmt/format.h>

namespace coulter {
namespace {

/// “one column”, … or WIDTHxHEIGHT in mm.
std::string sizeNames() {
    std::string names;
    for (const SheetSize& size : sheetSizes()) names += "“" + std::string(size.name) + "”, ";
    return names + fmt::format("or WIDTHxHEIGHT in mm, from {} to {}", leastSheet, greatestSheet);
}

} // namespace

void addFigureOptions(CLI::App& command, FigureOptions& options, const char* ofOutput, const char* ofSettings) {
    command.add_option("-o,--output", options.output, ofOutput)->type_name("FILE")->required();
    command.add_option("--format", options.format, formatNames() + "; else taken from the file's ending");
    command.add_option("--dpi", options.dpi, "dots per inch of a bitmap, in place of the recipe's");
    command
        .add_option("--size", options.size,
                    "size of the sheet, in place of the recipe's: " + sizeNames() +
                        ", which leaves the letters as large as they are")
        ->type_name("SIZE");
    command.add_option("--set", options.settings, ofSettings)->type_size(1)->allow_extra_args(false);
    addLook(command, options.look);
    addPatient(command, options.patient);
}

int checkFigureOptions(FigureOptions& options) {
    for (const std::string& setting : options.settings) {
        if (setting.find('=') == std::string::npos) return usage("--set needs NAME=VALUE, not “" + setting + "”.");
    }
    if (options.dpi != 0 && !(options.dpi >= leastResolution && options.dpi <= greatestResolution)) {
        return usage(fmt::format("--dpi must be from {} to {}.", leastResolution, greatestResolution));
    }
    if (Sheet sheet; !options.size.empty() && !setSize(sheet, options.size))
        return usage("--size must be " + sizeNames() + ".");
    if (!options.look.empty()) {
        LookRead read = findLook(options.look);
        if (!read.look) return usage(describe(read.problem));
        options.lookFound = std::move(read.look);
    }
    return statusGood;
}

const ExportFormat* formatOf(const FigureOptions& options, bool folder) {
    std::string name = options.format;
    const std::filesystem::path output = options.output;
    if (name.empty() && !folder && output.has_extension()) name = output.extension().string().substr(1);
    if (name.empty()) name = "pdf";
    const ExportFormat* format = findFormat(name);
    if (format) return format;
    std::string known;
    for (const ExportFormat& each : exportFormats()) known += (known.empty() ? "" : ", ") + std::string(each.name);
    usage("The format “" + name + "” is not known; known are: " + known + ".");
    return nullptr;
}

std::optional<Document> withOptions(Document document, const FigureOptions& options,
                                    const std::vector<std::string>& settings, const std::string& about) {
    if (options.dpi > 0) document.sheet.resolution = options.dpi;
    if (options.lookFound) setLook(document, *options.lookFound);
    if (!options.size.empty()) setSize(document.sheet, options.size);
    for (const std::string& setting : settings) {
        const auto equals = setting.find('=');
        const std::string name = setting.substr(0, equals), value = setting.substr(equals + 1);
        RecipeRead changed = withNamedValue(document, name, value);
        if (!changed.document) {
            say(about, changed.problem);
            return std::nullopt;
        }
        document = std::move(*changed.document);
    }
    return document;
}

} // namespace coulter
