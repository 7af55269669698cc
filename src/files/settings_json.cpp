#include "files/settings_json.h"

namespace coulter {
namespace {

using Json = JsonReader::Json;
using Ordered = nlohmann::ordered_json;

Ordered writeValue(const SettingValue& value) {
    if (const Colour* colour = std::get_if<Colour>(&value)) return spelled(*colour);
    if (const bool* on = std::get_if<bool>(&value)) return *on;
    if (const double* number = std::get_if<double>(&value)) return *number;
    return std::get<std::string>(value);
}

} // namespace

std::optional<SettingValue> readSetting(JsonReader& reader, const Json& parent, const std::string& path,
                                        const Setting& setting) {
    const char* key = setting.key;
    switch (setting.type) {
    case SettingType::Truth: return reader.truth(parent, path, key);
    case SettingType::Number: return reader.number(parent, path, key, setting.least, setting.greatest);
    case SettingType::Word:
        if (const auto word = reader.word(parent, path, key, setting.words)) return std::string(setting.words[*word]);
        return std::nullopt;
    case SettingType::Colour: {
        const auto text = reader.text(parent, path, key);
        if (!text) return std::nullopt;
        const auto colour = readColour(*text);
        if (!colour) reader.refuse(joined(path, key), "is not a colour.", "write it as \"#rrggbb\"");
        return colour;
    }
    case SettingType::Formula:
    case SettingType::Text:
    case SettingType::Variable: break;
    }
    return reader.text(parent, path, key);
}

void readSettings(JsonReader& reader, const Json& parent, const std::string& path, Settings& settings,
                  std::span<const Setting* const> table) {
    for (const Setting* setting : table) set(settings, *setting, readSetting(reader, parent, path, *setting));
}

void writeSettings(Ordered& out, const Settings& settings, std::span<const Setting* const> table) {
    for (const Setting* setting : table) {
        const auto at = settings.find(setting->key);
        if (at != settings.end()) out[setting->key] = writeValue(at->second);
    }
}

std::vector<const char*> withKeys(std::vector<const char*> known, std::span<const Setting* const> table) {
    for (const Setting* setting : table) known.push_back(setting->key);
    return known;
}

} // namespace coulter
