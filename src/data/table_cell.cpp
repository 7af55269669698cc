#include "data/table_cell.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <string>

namespace coulter {
namespace {

/// Spaces beyond ASCII that stand in numbers: no-break, thin, narrow no-break.
constexpr std::array<std::string_view, 3> wideSpaces{"\xc2\xa0", "\xe2\x80\x89", "\xe2\x80\xaf"};
/// Minus signs and dashes that are written for one.
constexpr std::array<std::string_view, 2> minusSigns{"\xe2\x88\x92", "\xe2\x80\x93"};
constexpr std::array<std::string_view, 14> missingWords{"na",      "n/a",     "nan", "null", "none", "missing", "#n/a",
                                                        "#div/0!", "#value!", "inf", "-inf", "+inf", "?",       "*"};

bool isDigit(char c) { return c >= '0' && c <= '9'; }

bool isMissing(std::string_view text) {
    if (text.empty() || text == "." || text == "\xe2\x80\x94" || text.find_first_not_of('-') == std::string_view::npos)
        return true;
    if (std::ranges::find(minusSigns, text) != minusSigns.end()) return true;
    if (text.size() > 8) return false;
    std::string lower(text);
    std::ranges::transform(lower, lower.begin(), [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return std::ranges::find(missingWords, lower) != missingWords.end();
}

/// The length of a separator between thousands at the front of the text; 0 if there is none.
std::size_t separator(std::string_view text, char decimal) {
    const char other = decimal == '.' ? ',' : '.';
    if (text.front() == other || text.front() == '\'' || text.front() == ' ') return 1;
    for (const std::string_view space : wideSpaces) {
        if (text.starts_with(space)) return space.size();
    }
    return 0;
}

bool parse(std::string_view text, double& number) {
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), number);
    if (end != text.data() + text.size()) return false;
    // What is too small for a double is zero, what is too large is no number of a table.
    if (error == std::errc::result_out_of_range) {
        number = 0;
        return text.find("e-") != std::string_view::npos || text.find("E-") != std::string_view::npos;
    }
    return error == std::errc{} && std::isfinite(number);
}

} // namespace

std::string_view withoutSpaces(std::string_view text) {
    const auto isSpace = [](char c) { return c == ' ' || c == '\t' || c == '\r' || c == '\n'; };
    for (bool changed = true; changed;) {
        changed = false;
        while (!text.empty() && isSpace(text.front())) text.remove_prefix(1), changed = true;
        while (!text.empty() && isSpace(text.back())) text.remove_suffix(1), changed = true;
        for (const std::string_view space : wideSpaces) {
            if (text.starts_with(space)) text.remove_prefix(space.size()), changed = true;
            if (text.ends_with(space)) text.remove_suffix(space.size()), changed = true;
        }
    }
    return text;
}

TableCell readCell(std::string_view text, char decimal) {
    TableCell cell;
    if (decimal == '.' && !text.empty() && parse(text, cell.number)) { // the usual case
        cell.kind = CellKind::Number;
        return cell;
    }
    text = withoutSpaces(text);
    if (isMissing(text)) return cell;
    cell.kind = CellKind::Words;
    std::string plain;
    const auto take = [&](std::size_t length) { text.remove_prefix(length); };
    for (const std::string_view minus : minusSigns) {
        if (text.starts_with(minus)) plain = "-", take(minus.size());
    }
    if (plain.empty() && text.starts_with('-')) plain = "-", take(1);
    if (plain.empty() && text.starts_with('+')) take(1);
    // Digits in groups of three, of which the first may be shorter.
    std::size_t group = 0, groups = 0;
    while (!text.empty()) {
        if (isDigit(text.front())) {
            plain += text.front();
            ++group;
            take(1);
            continue;
        }
        const std::size_t length = separator(text, decimal);
        const bool goesOn = length > 0 && text.size() > length && isDigit(text[length]);
        if (!goesOn) break;
        if (groups == 0 ? group < 1 || group > 3 : group != 3) return cell;
        ++groups;
        group = 0;
        take(length);
    }
    if (groups > 0 && group != 3) return cell;
    if (text.starts_with(decimal)) {
        plain += '.';
        take(1);
        while (!text.empty() && isDigit(text.front())) plain += text.front(), take(1);
    }
    if (text.starts_with('e') || text.starts_with('E')) {
        plain += 'e';
        take(1);
        for (const std::string_view minus : minusSigns) {
            if (text.starts_with(minus)) plain += '-', take(minus.size());
        }
        if (text.starts_with('+')) take(1);
        plain += text;
        text = {};
    }
    if (!text.empty() || plain.empty() || !parse(plain, cell.number)) return cell;
    cell.kind = CellKind::Number;
    cell.isGrouped = groups > 0;
    return cell;
}

} // namespace coulter
