#include "special/catalogue.h"

#include "special/catalogue_rows.h"

#include <algorithm>
#include <cctype>
#include <map>

namespace coulter {
namespace {

/// Splits "a, b; c" at commas and semicolons outside braces and brackets, or "…|…" at bars.
std::vector<std::string> split(std::string_view text, std::string_view separators) {
    std::vector<std::string> parts;
    std::string part;
    for (const char c : text) {
        if (separators.find(c) != std::string_view::npos) {
            parts.push_back(std::move(part));
            part.clear();
        } else if (c != ' ' || !part.empty()) {
            part += c;
        }
    }
    if (!part.empty()) parts.push_back(std::move(part));
    return parts;
}

FunctionEntry entryOf(const FunctionRow& row) {
    FunctionEntry entry;
    entry.form = row.form;
    entry.implementation = row.implementation;
    entry.meaning = row.meaning;
    entry.domain = row.domain;
    entry.plotted = row.plotted;
    entry.interval = row.interval;
    entry.source = row.source;
    std::size_t at = row.form.find_first_of("_^(");
    entry.name = row.form.substr(0, at);
    for (std::vector<std::string>* part : {&entry.below, &entry.above}) {
        const char sign = part == &entry.below ? '_' : '^';
        if (row.form[at] != sign) continue;
        const std::size_t end = row.form.find('}', at);
        *part = split(row.form.substr(at + 2, end - at - 2), ",");
        at = end + 1;
    }
    entry.inside = split(row.form.substr(at + 1, row.form.size() - at - 2), ",;");
    if (entry.inside.back() == "…") {
        entry.inside.pop_back();
        entry.anyCount = true;
    }
    entry.derivatives = split(row.derivatives, "|");
    for (std::string& derivative : entry.derivatives) {
        while (derivative.ends_with(' ')) derivative.pop_back();
        if (derivative == "?") derivative.clear();
    }
    entry.derivatives.resize(entry.operandCount());
    return entry;
}

struct Catalogue {
    std::vector<FunctionEntry> entries;
    std::multimap<std::string_view, const FunctionEntry*> byName;

    Catalogue() {
        for (const auto rows : {elementaryRows(), specialRows()}) {
            for (const FunctionRow& row : rows) entries.push_back(entryOf(row));
        }
        for (const FunctionEntry& entry : entries) byName.emplace(entry.name, &entry);
    }
};

const Catalogue& whole() {
    static const Catalogue made;
    return made;
}

} // namespace

std::span<const FunctionEntry> catalogue() { return whole().entries; }

const FunctionEntry* findFunction(std::string_view name, int below, int above, int arguments) {
    const auto [first, last] = whole().byName.equal_range(name);
    for (auto at = first; at != last; ++at) {
        const FunctionEntry& entry = *at->second;
        const int least = static_cast<int>(entry.inside.size());
        if (static_cast<int>(entry.below.size()) != below || static_cast<int>(entry.above.size()) != above) continue;
        if (arguments < 0 || arguments == least || (entry.anyCount && arguments > least)) return &entry;
    }
    return nullptr;
}

std::string formsOf(std::string_view name) {
    std::string forms;
    for (const FunctionEntry& entry : catalogue()) {
        if (entry.name == name) forms += (forms.empty() ? "" : ", ") + std::string(entry.form);
    }
    return forms;
}

std::vector<const FunctionEntry*> functionsAbout(std::string_view word) {
    const auto isLetter = [](char c) { return std::isalpha(static_cast<unsigned char>(c)) || (c & 0x80) != 0; };
    const auto isSame = [](char a, char b) {
        return std::tolower(static_cast<unsigned char>(a)) == std::tolower(static_cast<unsigned char>(b));
    };
    std::vector<const FunctionEntry*> found;
    if (word.empty()) return found;
    for (const FunctionEntry& entry : catalogue()) {
        const std::string_view text = entry.meaning;
        for (auto at = text.begin(); at != text.end();) {
            const auto begin = std::find_if(at, text.end(), isLetter),
                       end = std::find_if_not(begin, text.end(), isLetter);
            at = end;
            if (!std::equal(begin, end, word.begin(), word.end(), isSame)) continue;
            found.push_back(&entry);
            break;
        }
    }
    return found;
}

bool isFunctionName(std::string_view name) { return whole().byName.contains(name); }

} // namespace coulter
