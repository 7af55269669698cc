#include "command/commands.h"
#include "figure/scale_settings.h"
#include "figure/sheet_settings.h"
#include "files/plot_schema.h"
#include "formula/base/text.h"
#include "notes/note_kind.h"
#include "plots/plot_kind.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>
#include <memory>

namespace coulter {
namespace {

struct KindsArguments {
    std::string name;
    bool markdown = false, schema = false;
};

/// "0.4 mm, from 0.01 to 20", "solid; or dashed, dotted, dash-dotted"
std::string valuesOf(const Setting& setting) {
    const std::string unit = *setting.unit ? " " + std::string(setting.unit) : "";
    switch (setting.type) {
    case SettingType::Number:
        return spelled(setting.usual) + unit + ", from " + shortestNumber(setting.least) + " to " +
               shortestNumber(setting.greatest);
    case SettingType::Word: {
        std::string rest;
        for (const char* word : setting.words) {
            if (word != spelled(setting.usual)) rest += (rest.empty() ? "" : ", ") + std::string(word);
        }
        return spelled(setting.usual) + "; or " + rest;
    }
    case SettingType::Truth: return spelled(setting.usual) + "; or " + spelled(!std::get<bool>(setting.usual));
    case SettingType::Formula: {
        const std::string usual = spelled(setting.usual);
        return usual.empty() ? "none; any formula of the page" : usual + "; any formula of the page";
    }
    case SettingType::Text: return "none; any words";
    case SettingType::Variable: return "the first; or the other one";
    case SettingType::Colour: return "the figure's own; or #rrggbb";
    }
    return "";
}

void scaleTable() {
    fmt::print("| setting | meaning | usual value; others |\n|---|---|---|\n");
    const auto rows = [](std::span<const Setting* const> settings) {
        for (const Setting* setting : settings)
            fmt::print("| `{}` | {} | {} |\n", setting->key, cell(setting->meaning), cell(valuesOf(*setting)));
    };
    rows(scaleSettings());
    fmt::print("| of the upright scale in space: | | |\n");
    rows(uprightScaleSettings().first(1));
    fmt::print("| of the scale of colours: | | |\n");
    rows(colourScaleSettings().subspan(0, colourScaleSettings().size() - scaleSettings().size()));
    fmt::print("| of a panel with an angle: | | |\n");
    rows(angleSettings());
}

void settingRows(std::span<const Setting* const> settings) {
    for (const Setting* setting : settings)
        fmt::print("| | | `{}` | {} | {} |\n", setting->key, cell(setting->meaning), cell(valuesOf(*setting)));
}

void table() {
    fmt::print("| kind | draws | setting | meaning | usual value; others |\n|---|---|---|---|---|\n");
    for (const PlotKind* kind : plotKinds()) {
        fmt::print("| `{}` | {} | | | |\n", kind->name, cell(kind->meaning));
        settingRows(kind->settings);
    }
}

void noteTable() {
    fmt::print("| note | draws | setting | meaning | usual value; others |\n|---|---|---|---|---|\n");
    for (const NoteKind* kind : noteKinds()) {
        fmt::print("| `{}` | {} | | | |\n", kind->name, cell(kind->meaning));
        settingRows(kind->settings);
    }
}

void sheetTable() {
    fmt::print("| setting | meaning | usual value; others |\n|---|---|---|\n");
    for (const Setting* setting : sheetSettings())
        fmt::print("| `{}` | {} | {} |\n", setting->key, cell(setting->meaning), cell(valuesOf(*setting)));
}

void list(std::span<const Setting* const> settings) {
    for (const Setting* setting : settings)
        fmt::print("    {:<12} {} ({})\n", setting->key, setting->meaning, valuesOf(*setting));
}

void listScale() {
    list(uprightScaleSettings());
    list(colourScaleSettings());
    list(angleSettings());
}
void listSheet() { list(sheetSettings()); }
void listNotes() {
    for (const NoteKind* kind : noteKinds()) {
        fmt::print("{}\n    {}\n", kind->name, kind->meaning);
        list(kind->settings);
    }
}

/// What else has settings, by the name that it is asked for with.
struct Other {
    const char* name;
    void (*markdown)();
    void (*list)();
};
constexpr Other others[] = {
    {"scale", scaleTable, listScale}, {"sheet", sheetTable, listSheet}, {"note", noteTable, listNotes}};

int run(const KindsArguments& arguments) {
    if (arguments.schema) {
        fmt::print("{}\n", plotDefinitions().dump(2));
        return statusGood;
    }
    for (const Other& other : others) {
        if (arguments.name != other.name) continue;
        arguments.markdown ? other.markdown() : other.list();
        return statusGood;
    }
    if (arguments.markdown) {
        table();
        return statusGood;
    }
    bool found = false;
    for (const PlotKind* kind : plotKinds()) {
        if (!arguments.name.empty() && arguments.name != kind->name) continue;
        found = true;
        fmt::print("{}\n    {}\n", kind->name, kind->meaning);
        list(kind->settings);
    }
    if (found) return statusGood;
    fmt::print(stderr, "coulter: There is no kind of plot “{}” — known are: {}; and scale, sheet, note.\n",
               arguments.name, plotKindNames());
    return statusProblem;
}

} // namespace

void addKinds(CLI::App& app, int& status) {
    auto arguments = std::make_shared<KindsArguments>();
    CLI::App* command = app.add_subcommand("kinds", "the kinds of plot, with their settings, usual values and bounds");
    command->add_option("NAME", arguments->name,
                        "only the kind of this name, such as line; scale, sheet, note: what can be set of these");
    command->add_flag("--markdown", arguments->markdown, "as a table");
    command->add_flag("--schema", arguments->schema, "as the part of the JSON Schema of recipes");
    command->callback([arguments, &status] { status = run(*arguments); });
}

} // namespace coulter
