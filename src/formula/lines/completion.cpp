#include "formula/lines/completion.h"

#include "formula/base/text.h"
#include "formula/measured/statistics.h"
#include "formula/notation/expr_build.h"
#include "formula/notation/matrix_functions.h"
#include "special/catalogue.h"

#include <algorithm>

namespace coulter {
namespace {

std::string folded(std::string_view text) {
    std::string out;
    for (const char32_t c : decodeUtf8(text)) {
        const auto name = greekName(c);
        if (!name.empty()) {
            out += name;
            continue;
        }
        out += c < 0x80 ? std::string(1, static_cast<char>(std::tolower(static_cast<int>(c)))) : encodeUtf8({&c, 1});
    }
    std::ranges::transform(out, out.begin(), [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return out;
}

/// How well a candidate fits: 0 is the name itself, 1 a name that goes on, 2 a word of the meaning; 9 not at all.
int rank(const std::string& prefix, std::string_view name, std::string_view meaning) {
    const std::string spelled = folded(name);
    if (spelled == prefix) return 0;
    if (spelled.starts_with(prefix)) return 1;
    if (prefix.size() < 3) return 9;
    const std::string words = folded(meaning);
    for (std::size_t at = 0; (at = words.find(prefix, at)) != std::string::npos; ++at) {
        if (at == 0 || words[at - 1] == ' ' || words[at - 1] == '(') return 2;
    }
    return 9;
}

} // namespace

std::vector<Completion> completions(const Page& page, std::string_view typed, std::size_t most) {
    const std::string prefix = folded(typed);
    std::vector<std::pair<int, Completion>> found;
    if (prefix.empty()) return {};
    const auto consider = [&](int late, std::string_view name, Completion candidate) {
        const int fit = rank(prefix, name, candidate.meaning);
        if (fit < 9) found.emplace_back(2 * fit + late, std::move(candidate));
    };
    for (const Line& line : page.lines) {
        if (line.kind == LineKind::Quantity && line.good())
            consider(0, line.name,
                     {spelled(*nameExpr(line.name)), line.value ? "= " + roundedNumber(*line.value, 6) : "", ""});
        for (const std::string& name : !line.unknowns.empty() ? line.unknowns : std::vector<std::string>{line.name}) {
            const Column column = name.empty() ? nullptr : page.columnOf(name);
            if (column)
                consider(0, name,
                         {spelled(*nameExpr(name)), "column of " + std::to_string(column->size()) + " numbers", ""});
        }
        for (const std::string& name : line.kind == LineKind::Fit ? line.unknowns : std::vector<std::string>{}) {
            if (const auto value = page.valueOf(name))
                consider(0, name, {spelled(*nameExpr(name)), "= " + roundedNumber(*value, 6) + ", from a fit", ""});
        }
        if (line.kind == LineKind::Variable && line.good())
            consider(0, line.name, {spelled(*nameExpr(line.name)), "variable of this page", ""});
        if (line.kind == LineKind::Function && line.good()) {
            std::vector<ExprPtr> parameters;
            for (const std::string& parameter : line.parameters) parameters.push_back(nameExpr(parameter));
            const std::string first = line.parameters.empty() ? "" : spelled(*parameters[0]);
            consider(0, line.name, {spelled(*callExpr(line.name, parameters)), "function of this page", first});
        }
    }
    for (const FunctionEntry& entry : catalogue()) {
        const auto* names = !entry.below.empty() ? &entry.below : &entry.inside;
        std::string form(entry.form);
        if (const auto dots = form.find(", …"); dots != std::string::npos) form.erase(dots, std::string(", …").size());
        consider(1, entry.name, {form, std::string(entry.meaning), names->front()});
    }
    for (const Statistic& statistic : statistics())
        consider(1, statistic.name, {std::string(statistic.form), std::string(statistic.meaning), "s"});
    for (const MatrixFunction& function : matrixFunctions())
        consider(1, function.name, {std::string(function.form), std::string(function.meaning), "A"});
    std::ranges::stable_sort(found, {}, [](const auto& each) { return each.first; });
    std::vector<Completion> out;
    for (auto& [fit, candidate] : found) {
        if (out.size() < most) out.push_back(std::move(candidate));
    }
    return out;
}

std::string wordBefore(std::u32string_view line, std::size_t cursor) {
    cursor = std::min(cursor, line.size());
    std::size_t begin = cursor;
    while (begin > 0 && isLetter(line[begin - 1])) --begin;
    if (begin > 0 && line[begin - 1] == U'_') return ""; // a subscript is free text
    return encodeUtf8(line.substr(begin, cursor - begin));
}

} // namespace coulter
