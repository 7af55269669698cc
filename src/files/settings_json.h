#pragma once
#include "figure/settings.h"
#include "files/json_reader.h"

#include <vector>

namespace coulter {

/// What a JSON object sets of one setting; none if nothing, or nothing that can be.
std::optional<SettingValue> readSetting(JsonReader& reader, const JsonReader::Json& parent, const std::string& path,
                                        const Setting& setting);

/// Reads what a JSON object sets of a table's settings.
void readSettings(JsonReader& reader, const JsonReader::Json& parent, const std::string& path, Settings& settings,
                  std::span<const Setting* const> table);

/// Writes settings that differ from the usual ones, in the order of their table.
void writeSettings(nlohmann::ordered_json& out, const Settings& settings, std::span<const Setting* const> table);

/// Keys of a JSON object beside those of a table.
std::vector<const char*> withKeys(std::vector<const char*> known, std::span<const Setting* const> table);

} // namespace coulter
