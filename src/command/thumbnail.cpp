// Small pictures of figures for file managers (freedesktop.org's thumbnailer interface).
#include "command/commands.h"
#include "files/export.h"

#include <CLI/CLI.hpp>
#include <algorithm>
#include <memory>

namespace coulter {
namespace {

struct ThumbnailArguments {
    std::string in, out;
    int size = 256;
};

int run(const ThumbnailArguments& arguments) {
    auto document = loadDocument(arguments.in);
    if (!document) return statusProblem;
    // So many dots along the longer side of the sheet.
    const double longer = std::max(document->sheet.width, document->sheet.height);
    document->sheet.resolution = std::max(leastResolution, arguments.size * 25.4 / longer);
    const Exported picture = exportFigure(*document, *findFormat("png"));
    if (!picture.bytes) return say(arguments.in, picture.problem);
    return deliver(arguments.out, *picture.bytes);
}

} // namespace

void addThumbnail(CLI::App& app, int& status) {
    auto arguments = std::make_shared<ThumbnailArguments>();
    CLI::App* command =
        app.add_subcommand("thumbnail", "a small PNG of a recipe or an exported figure, for file managers");
    command->add_option("RECIPE", arguments->in, "recipe or exported figure")->required();
    command->add_option("FILE", arguments->out, "the PNG; - writes it to standard output")->required();
    command->add_option("-s,--size", arguments->size, "dots along its longer side")->check(CLI::Range(16, 4096));
    command->callback([arguments, &status] { status = run(*arguments); });
}

} // namespace coulter
