#include "formula/notation/names.h"

#include "formula/base/text.h"
#include "formula/notation/expr.h"
#include "special/catalogue.h"

#include <algorithm>
#include <array>
#include <limits>
#include <numbers>

namespace coulter {
namespace {

std::u32string folded(std::u32string_view name) {
    std::u32string out;
    for (char32_t c : name) {
        if (c >= U'A' && c <= U'Z') c = c - U'A' + U'a';
        if (c >= U'Α' && c <= U'Ω') c = c - U'Α' + U'α';
        out.push_back(c);
    }
    return out;
}

/// Number of single-letter changes, neighbours swapped counting as one (optimal string alignment).
std::size_t distance(const std::u32string& a, const std::u32string& b) {
    std::vector<std::vector<std::size_t>> d(a.size() + 1, std::vector<std::size_t>(b.size() + 1));
    for (std::size_t i = 0; i <= a.size(); ++i) d[i][0] = i;
    for (std::size_t j = 0; j <= b.size(); ++j) d[0][j] = j;
    for (std::size_t i = 1; i <= a.size(); ++i) {
        for (std::size_t j = 1; j <= b.size(); ++j) {
            d[i][j] = std::min({d[i - 1][j] + 1, d[i][j - 1] + 1, d[i - 1][j - 1] + (a[i - 1] == b[j - 1] ? 0u : 1u)});
            if (i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1])
                d[i][j] = std::min(d[i][j], d[i - 2][j - 2] + 1);
        }
    }
    return d[a.size()][b.size()];
}

} // namespace

bool bindsName(ExprKind kind) {
    return kind == ExprKind::Sum || kind == ExprKind::Product || kind == ExprKind::Integral;
}

bool isCondition(const Expr& e) {
    switch (e.kind) {
    case ExprKind::Compare:
    case ExprKind::And:
    case ExprKind::Or:
    case ExprKind::Not: return true;
    case ExprKind::Group: return isCondition(*e.operands[0]);
    default: return false;
    }
}

NameParts nameParts(const std::string& canonical) {
    const auto underscore = canonical.find('_');
    if (underscore == std::string::npos) return {canonical, ""};
    return {canonical.substr(0, underscore), canonical.substr(underscore + 1)};
}

std::string spelledName(const std::string& canonical) {
    const NameParts parts = nameParts(canonical);
    if (parts.subscript.empty()) return parts.letter;
    return parts.subscript.find(' ') != std::string::npos || decodeUtf8(parts.subscript).size() > 1
               ? parts.letter + "_{" + parts.subscript + "}"
               : canonical;
}

double constantValue(std::string_view canonical) {
    if (canonical == "π") return std::numbers::pi;
    if (canonical == "e") return std::numbers::e;
    if (canonical == "∞") return std::numeric_limits<double>::infinity();
    return std::numeric_limits<double>::quiet_NaN();
}

std::string nearName(std::string_view unknown, const KnownNames& known) {
    std::vector<std::string> candidates;
    for (const auto& [name, arity] : known.functions) candidates.push_back(name);
    candidates.insert(candidates.end(), known.values.begin(), known.values.end());
    for (const FunctionEntry& entry : catalogue()) { // one letter is near to every other: no help
        if (decodeUtf8(entry.name).size() > 1) candidates.emplace_back(entry.name);
    }
    for (std::size_t i = candidates.size(); i-- > 0;) { // Greek letters are mistyped by name
        const std::u32string letters = decodeUtf8(candidates[i]);
        if (const auto name = greekName(letters.front()); !name.empty())
            candidates.push_back(std::string(name) + encodeUtf8(std::u32string_view(letters).substr(1)));
    }
    const std::u32string wanted = decodeUtf8(unknown);
    for (const auto& candidate : candidates) {
        if (candidate != unknown && folded(decodeUtf8(candidate)) == folded(wanted)) return candidate;
    }
    std::string best;
    std::size_t least = 2;
    for (const auto& candidate : candidates) {
        const std::u32string letters = decodeUtf8(candidate);
        if (letters.size() < 2 || wanted.size() < 2) continue; // one letter is near to every other: no help
        if (const std::size_t d = distance(wanted, letters); d > 0 && d < least) {
            least = d;
            best = candidate;
        }
    }
    return best;
}

bool isUsualVariable(std::string_view canonical) {
    constexpr std::array<std::string_view, 6> letters{"x", "y", "z", "t", "φ", "θ"};
    return std::ranges::find(letters, canonical) != letters.end();
}

bool isVectorCalculus(std::string_view name) { return name == "grad" || name == "div" || name == "rot"; }

} // namespace coulter
