#include "formula/notation/spellings.h"

#include "formula/base/text.h"

#include <algorithm>
#include <utility>
#include <vector>

namespace coulter {
namespace {

constexpr std::pair<std::string_view, std::string_view> spellings[] = {
    {"asin", "arcsin"},    {"acos", "arccos"},    {"atan", "arctan"},  {"acot", "arccot"},  {"asec", "arcsec"},
    {"acsc", "arccsc"},    {"asinh", "arsinh"},   {"acosh", "arcosh"}, {"atanh", "artanh"}, {"arcsinh", "arsinh"},
    {"arccosh", "arcosh"}, {"arctanh", "artanh"}, {"tg", "tan"},       {"ctg", "cot"},      {"sh", "sinh"},
    {"ch", "cosh"},        {"th", "tanh"},        {"sign", "sgn"},     {"signum", "sgn"},   {"ceiling", "ceil"},
    {"fabs", "abs"},       {"loge", "ln"},        {"root", "sqrt"},    {"average", "mean"}, {"stdev", "sd"},
    {"std", "sd"},
};

/// The name of a Greek letter, since people say “gamma function”; any other word as it is.
std::string_view spoken(std::string_view name) {
    const std::u32string letters = decodeUtf8(name);
    return letters.size() == 1 && !greekName(letters[0]).empty() ? greekName(letters[0]) : name;
}

} // namespace

std::optional<std::string_view> printedSpelling(std::string_view word) {
    for (const auto& [foreign, printed] : spellings) {
        if (word == foreign) return printed;
    }
    return std::nullopt;
}

std::string formsAbout(std::string_view unknown) {
    std::string_view word = spoken(unknown);
    std::vector<const FunctionEntry*> found;
    constexpr std::size_t shortest = 4, most = 4;
    for (int cut = 0; cut <= 2 && word.size() >= shortest && found.empty(); ++cut, word.remove_suffix(1))
        found = functionsAbout(word);
    std::string forms;
    for (std::size_t i = 0; i < std::min(found.size(), most); ++i)
        forms += (forms.empty() ? "" : ", ") + std::string(found[i]->form);
    return forms;
}

std::string formsAbout(const FunctionEntry& function, std::size_t arguments) {
    std::string forms(function.form);
    for (const FunctionEntry* other : functionsAbout(spoken(function.name))) {
        if (other->below.empty() && other->above.empty() && other->inside.size() == arguments)
            forms += ", or " + std::string(other->form);
    }
    return forms;
}

} // namespace coulter
