#include "formula/lines/searches.h"

#include "formula/lines/agreement_in_rows.h"
#include "formula/lines/chosen_rows.h"
#include "formula/lines/interval_search.h"
#include "formula/lines/plane_search.h"
#include "formula/page/line_parser.h"

namespace coulter {
namespace {

/// Most operations of arithmetic that a search may need, along one variable and over two: on a page, which is read at
/// each stroke of a key, some tenths of a second; asked for alone, some seconds.
struct Work {
    double along, over;
};
constexpr Work mostOnPage{1e6, 4e6}, mostAlone{2e7, 5e7};

SearchAnswer searched(const Page& page, const Line& line, const Work& most, double share) {
    if (line.sought == Sought::InRows) return comparedInRows(page, line);
    try {
        return line.parameters.size() == 2 ? searchPlane(page, line, share * most.over)
                                           : searchInterval(page, line, share * most.along);
    } catch (const SearchRefusal& refusal) {
        return {{}, line.sought, {refusal.problem}};
    }
}

} // namespace

SearchAnswer searchLine(const Page& page, const Line& line, double share) {
    return searched(page, line, mostOnPage, share);
}

std::optional<SearchAnswer> searchText(const Page& page, std::string_view text) {
    LineOutline outline = outlineLine(std::string(text));
    if (outline.line.kind == LineKind::Unread && text.find(" for ") != std::string_view::npos &&
        outline.line.problems.front().sentence != definesNothing)
        return SearchAnswer{{}, Sought::Zeros, outline.line.problems};
    if (outline.line.kind != LineKind::Search) return std::nullopt;
    Line line = readLine(std::move(outline), page.inQuestions);
    if (line.good() && line.where) {
        if (const auto problem = chooseRows(page, line)) line.problems.push_back(*problem);
    }
    if (!line.good()) return SearchAnswer{{}, line.sought, line.problems};
    return searched(page, line, mostAlone, 1);
}

} // namespace coulter
