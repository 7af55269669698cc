#include "command/commands.h"
#include "command/interruption.h"
#include "command/progress.h"
#include "files/animation.h"
#include "files/recipe.h"
#include "files/set_value.h"
#include "files/sweep.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>
#include <memory>

namespace coulter {
namespace {

struct AnimateArguments {
    std::string recipe, output;
    std::vector<std::string> quantities;
    std::size_t count = 0;
    double seconds = 4, dpi = 0;
    bool logarithmic = false, toAndFro = false, patient = false;
};

int animate(const AnimateArguments& arguments) {
    auto loaded = loadDocument(arguments.recipe);
    if (!loaded) return statusProblem;
    Document document = std::move(*loaded);
    if (arguments.dpi != 0 && !(arguments.dpi >= leastResolution && arguments.dpi <= greatestResolution))
        return usage(fmt::format("--dpi must be from {} to {}.", leastResolution, greatestResolution));
    if (arguments.dpi > 0) document.sheet.resolution = arguments.dpi;
    Animation animation;
    animation.seconds = arguments.seconds;
    for (const std::string& quantity : arguments.quantities) {
        const auto equals = quantity.find('=');
        if (equals == std::string::npos) return usage("--set needs NAME=VALUE, not “" + quantity + "”.");
        Problem problem;
        auto sweep = sweepOf(quantity, arguments.count, arguments.logarithmic, problem);
        if (!problem.sentence.empty()) return usage(describe(problem));
        if (sweep && !animation.values.empty())
            return usage("One quantity at a time has several values: “" + animation.quantity + "” has.");
        if (sweep) {
            animation.quantity = std::move(sweep->name);
            animation.values = std::move(sweep->values);
            continue;
        }
        RecipeRead changed = withNamedValue(document, quantity.substr(0, equals), quantity.substr(equals + 1));
        if (!changed.document) return say(arguments.recipe, changed.problem);
        document = std::move(*changed.document);
    }
    if (animation.values.empty()) return usage("What changes? --set A=0..5 --count 50, or --set A={1, 2, 5}.");
    if (arguments.toAndFro) animation.goBack();
    const Interruption interruption;
    Progress progress(arguments.output);
    const Exported exported =
        exportAnimation(document, animation, interruption.token(), {arguments.patient, progress.watch()});
    if (interruption.happened()) return interrupted(arguments.output);
    if (!exported.bytes) return say(arguments.recipe, exported.problem);
    if (const int status = deliver(arguments.output, *exported.bytes); status != statusGood) return status;
    if (arguments.output != "-") fmt::print("{}\n", arguments.output);
    return statusGood;
}

} // namespace

void addAnimate(CLI::App& app, int& status) {
    auto arguments = std::make_shared<AnimateArguments>();
    CLI::App* command = app.add_subcommand("animate", "writes figures of a changing quantity as one animated PNG");
    command->add_option("RECIPE", arguments->recipe, "a recipe, or a figure with its recipe inside")->required();
    command->add_option("-o,--output", arguments->output, "the PNG file; - for standard output")
        ->type_name("FILE")
        ->required();
    command
        ->add_option("--set", arguments->quantities,
                     "NAME=VALUE: the quantity that changes, A=0..5 or A={1, 2, 5}, of the page or a setting such as "
                     "azimuth; and other values that stay")
        ->type_size(1)
        ->allow_extra_args(false)
        ->required();
    command->add_option("--count", arguments->count, "how many values of a quantity set to a range, such as A=0..5");
    command->add_flag("--logarithmic", arguments->logarithmic, "these values evenly in the logarithm");
    command->add_option("--seconds", arguments->seconds, "how long all figures are shown together; 4");
    command->add_flag("--to-and-fro", arguments->toAndFro, "from the last value back to the first, too");
    command->add_option("--dpi", arguments->dpi, "dots per inch, in place of the recipe's");
    addPatient(*command, arguments->patient);
    command->callback([arguments, &status] { status = animate(*arguments); });
}

} // namespace coulter
