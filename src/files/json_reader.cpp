#include "files/json_reader.h"

#include "formula/base/text.h"

#include <algorithm>
#include <cmath>

namespace coulter {

namespace {

/// Longest text, in characters: beyond what can be typed anywhere, and far beyond what a sheet has room for.
constexpr std::size_t longestText = 40'000;

} // namespace

std::string joined(const std::string& path, const std::string& key) { return path.empty() ? key : path + "." + key; }

void JsonReader::refuse(const std::string& path, const std::string& sentence, const std::string& suggestion) {
    if (problem_) return;
    problem_ = Problem{};
    problem_->sentence = (path.empty() ? "The " + what_ : "In the " + what_ + ", " + path) + " " + sentence;
    problem_->suggestion = suggestion;
}

const JsonReader::Json* JsonReader::find(const Json& object, const char* key) const {
    if (problem_) return nullptr;
    const auto at = object.find(key);
    return at == object.end() ? nullptr : &*at;
}

bool JsonReader::isObject(const Json& value, const std::string& path) {
    if (!value.is_object()) refuse(path, "must be an object in braces.");
    return good();
}

void JsonReader::keys(const Json& object, const std::string& path, std::span<const char* const> known) {
    for (auto at = object.begin(); at != object.end(); ++at) {
        const std::string& key = at.key();
        if (std::ranges::none_of(known, [&](const char* name) { return key == name; })) {
            std::string list;
            for (const char* name : known) list += (list.empty() ? "" : ", ") + std::string(name);
            return refuse(joined(path, key), "is not a key that is known here.", "known are: " + list);
        }
    }
}

const JsonReader::Json* JsonReader::list(const Json& object, const std::string& path, const char* key,
                                         std::size_t longest) {
    const Json* value = find(object, key);
    if (!value) return nullptr;
    if (!value->is_array()) {
        refuse(joined(path, key), "must be a list in square brackets.");
        return nullptr;
    }
    if (value->size() > longest) {
        refuse(joined(path, key), "has " + std::to_string(value->size()) + " entries; at most " +
                                      std::to_string(longest) + " are allowed.");
        return nullptr;
    }
    return value;
}

std::optional<std::string> JsonReader::text(const Json& object, const std::string& path, const char* key) {
    const Json* value = find(object, key);
    if (!value) return std::nullopt;
    if (!value->is_string()) {
        refuse(joined(path, key), "must be text in quotation marks.");
        return std::nullopt;
    }
    auto text = value->get<std::string>();
    const std::size_t length = decodeUtf8(text).size();
    if (length > longestText) {
        refuse(joined(path, key), "has " + std::to_string(length) + " characters; at most " +
                                      std::to_string(longestText) + " are allowed.");
        return std::nullopt;
    }
    return text;
}

std::optional<bool> JsonReader::truth(const Json& object, const std::string& path, const char* key) {
    const Json* value = find(object, key);
    if (!value) return std::nullopt;
    if (!value->is_boolean()) {
        refuse(joined(path, key), "must be true or false.");
        return std::nullopt;
    }
    return value->get<bool>();
}

std::optional<double> JsonReader::number(const Json& object, const std::string& path, const char* key, double least,
                                         double greatest) {
    const Json* value = find(object, key);
    if (!value) return std::nullopt;
    const double result = value->is_number() ? value->get<double>() : NAN;
    if (!value->is_number() || !(result >= least && result <= greatest)) {
        refuse(joined(path, key),
               "must be a number from " + shortestNumber(least) + " to " + shortestNumber(greatest) + ".");
        return std::nullopt;
    }
    return result;
}

std::optional<std::pair<double, double>> JsonReader::pair(const Json& object, const std::string& path,
                                                          const char* key) {
    const Json* value = find(object, key);
    if (!value) return std::nullopt;
    if (!value->is_array() || value->size() != 2 || !(*value)[0].is_number() || !(*value)[1].is_number()) {
        refuse(joined(path, key), "must be two numbers in square brackets.");
        return std::nullopt;
    }
    return std::pair{(*value)[0].get<double>(), (*value)[1].get<double>()};
}

std::optional<std::size_t> JsonReader::word(const Json& object, const std::string& path, const char* key,
                                            std::span<const char* const> known) {
    const auto spelledWord = text(object, path, key);
    if (!spelledWord) return std::nullopt;
    for (std::size_t i = 0; i < known.size(); ++i) {
        if (*spelledWord == known[i]) return i;
    }
    std::string all;
    for (const char* name : known) all += (all.empty() ? "" : ", ") + std::string(name);
    refuse(joined(path, key), "is “" + *spelledWord + "”, which is not known.", "write one of: " + all);
    return std::nullopt;
}

} // namespace coulter
