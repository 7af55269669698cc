#include "files/look_file.h"

#include "files/export.h"
#include "files/file_access.h"
#include "files/recipe.h"
#include "files/settings_json.h"

namespace coulter {
namespace {

using Json = JsonReader::Json;

constexpr const char* formatKey = "coulter look";
constexpr int lookFormat = 1;

} // namespace

std::string writeLook(const SheetLook& look) {
    nlohmann::ordered_json out = {{formatKey, lookFormat}, {"text size", look.textSize}};
    if (look.width) out["width"] = *look.width;
    if (look.height) out["height"] = *look.height;
    writeSettings(out, look.settings, sheetLookSettings());
    return out.dump(2) + "\n";
}

LookRead readLook(const std::string& text) {
    JsonReader reader("look");
    const Json root = Json::parse(text, nullptr, false);
    SheetLook look;
    const auto format = root.is_object() ? root.find(formatKey) : root.end();
    if (!root.is_object() || format == root.end() || !format->is_number_integer())
        reader.refuse("", "is not one of Coulter's: it does not start with the key “coulter look” and a format number.",
                      "take a file that a look was saved in, or a figure");
    else if (*format < 1 || *format > lookFormat)
        reader.refuse("", "has format " + format->dump() + "; this program reads formats up to 1.",
                      "open it with a newer Coulter");
    if (reader.good()) {
        reader.keys(root, "", withKeys({formatKey, "text size", "width", "height"}, sheetLookSettings()));
        look.textSize = reader.number(root, "", "text size", leastLetters, greatestLetters).value_or(look.textSize);
        look.width = reader.number(root, "", "width", leastSheet, greatestSheet);
        look.height = reader.number(root, "", "height", leastSheet, greatestSheet);
        readSettings(reader, root, "", look.settings, sheetLookSettings());
    }
    if (!reader.good()) return {std::nullopt, *reader.problem()};
    return {std::move(look), {}};
}

LookRead findLook(const std::string& nameOrFile) {
    if (const SheetLook* named = sheetLookNamed(nameOrFile)) return {*named, {}};
    const FileRead file = readFile(nameOrFile);
    if (!file.bytes)
        return {std::nullopt, saying("“" + nameOrFile + "” is neither a look nor a file that can be read.",
                                     "name a file, or one of: " + lookNames())};
    const RecipeFound found = findRecipe(*file.bytes);
    const RecipeRead read = found.recipe ? readRecipe(*found.recipe) : RecipeRead{};
    if (read.document) return {lookOf(read.document->sheet), {}};
    return readLook(*file.bytes);
}

std::string lookNames() {
    std::string names;
    for (const SheetLook& look : sheetLooks()) names += (names.empty() ? "“" : ", “") + look.name + "”";
    return names;
}

} // namespace coulter
