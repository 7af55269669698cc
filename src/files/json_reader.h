#pragma once
#include "formula/base/problem.h"

#include <initializer_list>
#include <nlohmann/json.hpp>
#include <optional>
#include <span>
#include <string>

namespace coulter {

/// Walks JSON values with their path and keeps the first problem. After a problem every reading gives its default.
class JsonReader {
public:
    using Json = nlohmann::json;

    /// @param what  is read, as sentences call it
    explicit JsonReader(std::string what = "recipe") : what_(std::move(what)) {}

    /// Refuses keys that are not listed.
    void keys(const Json& object, const std::string& path, std::span<const char* const> known);
    void keys(const Json& object, const std::string& path, std::initializer_list<const char*> known) {
        keys(object, path, std::span(known.begin(), known.size()));
    }
    bool isObject(const Json& value, const std::string& path);
    const Json* list(const Json& object, const std::string& path, const char* key, std::size_t longest);

    std::optional<std::string> text(const Json& object, const std::string& path, const char* key);
    std::optional<bool> truth(const Json& object, const std::string& path, const char* key);
    /// A number between two bounds.
    std::optional<double> number(const Json& object, const std::string& path, const char* key, double least,
                                 double greatest);
    /// Two finite numbers.
    std::optional<std::pair<double, double>> pair(const Json& object, const std::string& path, const char* key);
    /// The index of a word among those that are known.
    std::optional<std::size_t> word(const Json& object, const std::string& path, const char* key,
                                    std::span<const char* const> known);

    void refuse(const std::string& path, const std::string& sentence, const std::string& suggestion = "");
    bool good() const { return !problem_; }
    const std::optional<Problem>& problem() const { return problem_; }

private:
    const Json* find(const Json& object, const char* key) const;
    std::string what_;
    std::optional<Problem> problem_;
};

/// "panels[0]" and "title" make "panels[0].title".
std::string joined(const std::string& path, const std::string& key);

} // namespace coulter
