#include "formula/page/page.h"

#include <algorithm>

namespace coulter {
namespace {

std::size_t placeAmong(const std::vector<std::string>& names, const std::string& name) {
    return static_cast<std::size_t>(std::ranges::find(names, name) - names.begin());
}

} // namespace

const Line* Page::find(const std::string& name, LineKind kind) const {
    const auto at = defined.find(name);
    if (at == defined.end()) return nullptr;
    const Line& line = lines[at->second];
    return line.kind == kind && line.good() ? &line : nullptr;
}

std::optional<double> Page::valueOf(const std::string& name) const {
    if (const Line* quantity = find(name, LineKind::Quantity)) return quantity->value;
    const Line* solution = find(name, LineKind::Solution);
    if (!solution) solution = find(name, LineKind::Fit);
    if (!solution || solution->values.empty()) return std::nullopt;
    return solution->values[placeAmong(solution->unknowns, name)];
}

Column Page::columnOf(const std::string& name) const {
    const auto at = defined.find(name);
    if (at == defined.end()) return nullptr;
    const Line& line = lines[at->second];
    const bool column = line.kind == LineKind::Numbers || line.kind == LineKind::Random ||
                        line.kind == LineKind::Table || line.kind == LineKind::Search || line.kind == LineKind::Fourier;
    if (!column || !line.good() || line.columns.empty()) return nullptr;
    return line.columns[line.unknowns.empty() ? 0 : placeAmong(line.unknowns, name)];
}

namespace {

/// What a name has on its line: by itself, or of a table by column.
std::string wordOf(const Page& page, const std::string& name, std::string Line::*own,
                   std::vector<std::string> Line::*byColumn) {
    const auto at = page.defined.find(name);
    if (at == page.defined.end()) return "";
    const Line& line = page.lines[at->second];
    if (line.kind != LineKind::Table && line.kind != LineKind::Fit) return line.*own;
    return line.good() && !(line.*byColumn).empty() ? (line.*byColumn)[placeAmong(line.unknowns, name)] : line.*own;
}

} // namespace

std::string Page::unitOf(const std::string& name) const { return wordOf(*this, name, &Line::unit, &Line::units); }
std::string Page::labelOf(const std::string& name) const { return wordOf(*this, name, &Line::label, &Line::labels); }

Problems Page::problems() const {
    Problems all;
    for (std::size_t i = 0; i < lines.size(); ++i) {
        for (Problem problem : lines[i].problems) {
            problem.line = static_cast<int>(i);
            all.push_back(std::move(problem));
        }
    }
    return all;
}

} // namespace coulter
