#pragma once
#include "figure/colour.h"

#include <cstdint>
#include <map>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <variant>

namespace coulter {

using SettingValue = std::variant<bool, double, std::string, Colour>;

enum class SettingType : std::uint8_t {
    Truth,
    Number,
    Word,     ///< one of `words`
    Formula,  ///< in the notation of the page
    Text,     ///< words
    Variable, ///< the name of a variable that is drawn
    Colour,   ///< left out: the figure's own
};

/// One thing that can be set of a plot. Recipe, schema, manual, command line and the window's forms follow from it.
struct Setting {
    const char* key;     ///< in recipes
    const char* label;   ///< in forms, a word or two
    const char* meaning; ///< one line
    SettingType type = SettingType::Truth;
    SettingValue usual = false; ///< left out of recipes; of a colour or a variable unused
    const char* unit = "";
    double least = 0, greatest = 0, step = 0; ///< of numbers; the step is that of a form
    std::span<const char* const> words = {};  ///< of choices; the first is usual
    bool isStyle = true;                      ///< stands in the recipe under "style", else beside "of"
    bool rare = false;                        ///< folded away in forms
    const char* needs = "";                   ///< shown in forms only while the setting of this key is not “none”
};

/// Values that differ from the usual ones, by key. Usual values are never in it, so that equal looks are equal values.
using Settings = std::map<std::string, SettingValue, std::less<>>;

/// Sets a value, or takes it out if it is the usual one or none.
void set(Settings& settings, const Setting& setting, std::optional<SettingValue> value);

/// What is set, or usual.
bool truth(const Settings& settings, const Setting& setting);
double number(const Settings& settings, const Setting& setting);
std::string text(const Settings& settings, const Setting& setting);
/// The index of the word among the setting's.
std::size_t word(const Settings& settings, const Setting& setting);
std::optional<Colour> colour(const Settings& settings, const Setting& setting);

/// A value as it is spelled in lists: "yes", "0.4", "dashed", "#a0b0c0".
std::string spelled(const SettingValue& value);

} // namespace coulter
