#include "formula/page/free_names.h"

#include "formula/measured/statistics.h"

#include <algorithm>
#include <set>

namespace coulter {
namespace {

bool isVariable(const Page& page, const std::string& name) { return page.find(name, LineKind::Variable) != nullptr; }
bool isColumnName(const Page& page, const std::string& name) { return page.columnOf(name) != nullptr; }

using IsWanted = bool(const Page&, const std::string&);

void collectNames(const Page& page, const Expr& e, IsWanted* isWanted, const std::set<std::string>& bound,
                  std::set<std::size_t>& visited, std::vector<std::string>& found) {
    if (e.kind == ExprKind::Name && !bound.contains(e.text)) {
        if (isWanted(page, e.text) && std::ranges::find(found, e.text) == found.end()) found.push_back(e.text);
    }
    // A statistic of a column is a mere number.
    const Statistic* statistic =
        e.kind == ExprKind::Call && !page.defined.contains(e.text) ? findStatistic(e.text) : nullptr;
    if (statistic && statistic->number) return;
    for (std::size_t i = 0; i < e.operands.size(); ++i) {
        std::set<std::string> inner = bound;
        if (bindsName(e.kind) && i == 2) inner.insert(e.text);
        collectNames(page, *e.operands[i], isWanted, inner, visited, found);
    }
    if (e.kind != ExprKind::Call) return;
    const Line* line = page.find(e.text, LineKind::Function);
    if (!line || !line->body || !visited.insert(page.defined.at(e.text)).second) return;
    collectNames(page, *line->body, isWanted, {line->parameters.begin(), line->parameters.end()}, visited, found);
}

std::vector<std::string> freeNames(const Page& page, const ExprPtr& expression, IsWanted* isWanted) {
    std::vector<std::string> found;
    std::set<std::size_t> visited;
    if (expression) collectNames(page, *expression, isWanted, {}, visited, found);
    return found;
}

} // namespace

std::vector<std::string> freeVariables(const Page& page, const ExprPtr& expression) {
    return freeNames(page, expression, isVariable);
}

std::vector<std::string> freeColumns(const Page& page, const ExprPtr& expression) {
    return freeNames(page, expression, isColumnName);
}

} // namespace coulter
