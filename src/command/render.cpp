#include "command/commands.h"
#include "command/figure_options.h"
#include "command/interruption.h"
#include "command/progress.h"
#include "command/sweep_index.h"
#include "data/digest.h"
#include "files/export.h"
#include "files/file_access.h"
#include "files/recipe.h"
#include "files/sweep.h"
#include "formula/lines/read_page.h"

#include <CLI/CLI.hpp>
#include <algorithm>
#include <atomic>
#include <filesystem>
#include <fmt/format.h>
#include <list>
#include <memory>
#include <set>
#include <thread>

namespace coulter {
namespace {

struct RenderArguments : FigureOptions {
    std::vector<std::string> recipes;
    std::size_t count = 0, jobs = 1;
    bool logarithmic = false, strict = false;
    std::string part;
};

/// One figure that is to be written.
struct Job {
    std::string recipe;
    const Document* document; ///< of the recipe
    std::filesystem::path target;
    std::vector<std::string> quantities;
    std::size_t number = 0; ///< in the sweep, from 0
};

/// Whether a figure's file is there as an index says that it was written, of this very recipe.
bool isThere(const Job& job, const Document& document, const SweepIndex& index) {
    const auto digest = index.digestOf(job.number);
    if (!digest || digestOfFile(job.target) != digest) return false;
    const FileRead file = readFile(job.target);
    return file.bytes && findRecipe(*file.bytes).recipe == writeRecipe(document);
}

/// Files that a process which was killed left beside the one that it was writing.
void removeUnfinished(const std::vector<Job>& list, const std::filesystem::path& folder) {
    std::set<std::string> targets;
    for (const Job& job : list) targets.insert(job.target.filename().string());
    std::error_code ignored;
    std::vector<std::filesystem::path> old;
    for (const auto& entry : std::filesystem::directory_iterator(folder, ignored)) {
        const std::string name = entry.path().filename().string();
        constexpr std::size_t ending = 7; // ".XXXXXX"
        if (name.size() > ending + 1 && name[0] == '.' && targets.contains(name.substr(1, name.size() - 1 - ending)))
            old.push_back(entry.path());
    }
    for (const auto& path : old) std::filesystem::remove(path, ignored);
}

SweepRow rowOf(const Job& job, const Exported& exported) {
    SweepRow row{job.target.filename().string(), job.recipe, {}, {}, exported.remarks};
    for (const std::string& quantity : job.quantities) row.values.push_back(quantity.substr(quantity.find('=') + 1));
    Digest digest;
    digest.add(*exported.bytes);
    row.digest = digest.text();
    return row;
}

/// @param index  of the part that is made; null if the figures are no part of a sweep
int renderOne(const Job& job, const ExportFormat& format, const RenderArguments& arguments,
              const Interruption& interruption, SweepIndex* index) {
    const std::string& recipe = job.recipe;
    const std::filesystem::path& target = job.target;
    const auto document = withOptions(*job.document, arguments, job.quantities, recipe);
    if (!document) return statusProblem;
    if (index && isThere(job, *document, *index)) return statusGood;
    // A problem on a line that no plot needs does not stop the figure, but it is said, and the status tells.
    const Page page = readPage(*document);
    const Exported exported = [&] {
        if (arguments.jobs > 1) // several lines of progress would overwrite each other
            return exportFigure(*document, format, interruption.token(), {arguments.patient, {}, {}, index != nullptr});
        Progress progress(recipe);
        return exportFigure(*document, format, interruption.token(),
                            {arguments.patient, progress.watch(), {}, index != nullptr});
    }();
    if (interruption.happened()) return interrupted(recipe);
    if (!exported.bytes) return say(recipe, exported.problem);
    if (exported.unfinished) {
        sayUnfinished(recipe, *exported.unfinished, exported.tooDear);
        if (arguments.strict) return statusProblem;
    }
    const int status = sayErrors(recipe, page);
    const int delivered = deliver(target.string(), *exported.bytes);
    if (delivered == statusGood && index) {
        if (const auto problem = index->add(job.number, rowOf(job, exported))) return say("", *problem);
    }
    if (delivered == statusGood && target != "-") fmt::print("{}\n", target.string());
    return delivered != statusGood ? delivered : status;
}

/// The values of each figure: one of them, or as many as what is swept has values, that one last.
int casesOf(const RenderArguments& arguments, std::vector<std::vector<std::string>>& cases) {
    std::vector<std::string> fixed;
    std::optional<Sweep> swept;
    for (const std::string& quantity : arguments.settings) {
        Problem problem;
        auto sweep = sweepOf(quantity, arguments.count, arguments.logarithmic, problem);
        if (!problem.sentence.empty()) return usage(describe(problem));
        if (sweep && swept) return usage("One quantity at a time has several values: “" + swept->name + "” has.");
        if (sweep)
            swept = std::move(sweep);
        else
            fixed.push_back(quantity);
    }
    if (!swept) {
        cases.push_back(fixed);
        return statusGood;
    }
    for (const std::string& value : swept->values) {
        cases.push_back(fixed);
        cases.back().push_back(swept->name + "=" + value);
    }
    return statusGood;
}

/// One after the other, or so many at a time; a stop ends all of them.
int renderAll(const std::vector<Job>& list, const ExportFormat& format, const RenderArguments& arguments,
              SweepIndex* index) {
    const Interruption interruption;
    std::atomic<std::size_t> next = 0;
    std::atomic<int> status = statusGood;
    const auto work = [&] {
        for (std::size_t i = next++; i < list.size() && !interruption.happened(); i = next++) {
            const int one = renderOne(list[i], format, arguments, interruption, index);
            for (int before = status; before < one && !status.compare_exchange_weak(before, one);) {
            }
        }
    };
    {
        std::vector<std::jthread> workers;
        for (std::size_t k = 1; k < std::min(arguments.jobs, list.size()); ++k) workers.emplace_back(work);
        work();
    }
    return interruption.happened() ? statusInterrupted : status.load();
}

int render(RenderArguments arguments) {
    if (const int wrong = checkFigureOptions(arguments); wrong != statusGood) return wrong;
    std::error_code error;
    const std::filesystem::path output = arguments.output;
    const bool folder =
        arguments.recipes.size() > 1 || std::filesystem::is_directory(output, error) || arguments.output.ends_with("/");
    const ExportFormat* format = formatOf(arguments, folder);
    if (!format) return statusUsage;
    const std::string name = arguments.format.empty() ? std::string(format->name) : arguments.format;
    std::vector<std::vector<std::string>> cases;
    if (const int wrong = casesOf(arguments, cases); wrong != statusGood) return wrong;
    const bool several = folder || cases.size() > 1;
    if (several) std::filesystem::create_directories(output, error);
    const std::optional<Part> part = arguments.part.empty() ? Part{} : partOf(arguments.part);
    if (!part) return usage("--part names one part of several, such as 2/4, not “" + arguments.part + "”.");
    if (!arguments.part.empty() && !several)
        return usage("A part has figures in a folder: let --output name one, such as figures/.");
    std::list<Document> documents;
    std::vector<Job> list;
    std::size_t number = 0;
    int status = statusGood;
    for (const std::string& recipe : arguments.recipes) {
        auto loaded = loadDocument(recipe);
        if (!loaded) {
            status = statusProblem;
            number += cases.size();
            continue;
        }
        documents.push_back(std::move(*loaded));
        const std::string stem = std::filesystem::path(recipe).stem().string();
        for (const std::vector<std::string>& quantities : cases) {
            // A figure of several is called by the value that it has to itself.
            const std::string own = cases.size() > 1 ? "-" + quantities.back() : "";
            if (part->holds(number))
                list.push_back({recipe, &documents.back(), several ? output / (stem + own + "." + name) : output,
                                quantities, number});
            ++number;
        }
    }
    std::optional<SweepIndex> index;
    if (!arguments.part.empty()) {
        std::vector<std::string> names;
        for (const std::string& set : cases.front()) names.push_back(set.substr(0, set.find('=')));
        index.emplace(output, *part, std::move(names), number);
        if (!index->problem().sentence.empty()) return say("", index->problem());
        removeUnfinished(list, output);
    }
    return std::max(status, renderAll(list, *format, arguments, index ? &*index : nullptr));
}

} // namespace

void addRender(CLI::App& app, int& status) {
    auto arguments = std::make_shared<RenderArguments>();
    CLI::App* command = app.add_subcommand("render", "write figures of recipes");
    command->add_option("RECIPE", arguments->recipes, "recipes, or figures with their recipe inside")->required();
    addFigureOptions(*command, *arguments, "file, or folder for several; - for standard output",
                     "NAME=VALUE: another value for a quantity of the page, or for a setting by its path: azimuth, "
                     "sheet.width, colour.map; several, for a figure of each: A=0..5 or A={1, 2, 5}");
    command->add_option("--count", arguments->count, "how many values of a quantity set to a range, such as A=0..5");
    command->add_flag("--logarithmic", arguments->logarithmic, "these values evenly in the logarithm");
    command
        ->add_option(
            "--part", arguments->part,
            "K/N: of all figures every N-th, from the K-th on, with an index of them; what is there already is "
            "not made again")
        ->type_name("K/N");
    command->add_option("--jobs", arguments->jobs, "how many figures at a time")->check(CLI::Range(1, 256));
    command->add_flag("--strict", arguments->strict,
                      "write no figure in which something could not be sampled finely enough");
    command->callback([arguments, &status] { status = render(*arguments); });
}

} // namespace coulter
