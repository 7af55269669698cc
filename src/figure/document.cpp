#include "figure/document.h"

#include "formula/lines/read_page.h"

namespace coulter {

Plot plotOf(std::string of, std::string kind) {
    Plot plot;
    plot.kind = std::move(kind);
    plot.of = std::move(of);
    return plot;
}

Member& memberOf(Plot& plot, std::size_t part) {
    if (plot.members.size() <= part) plot.members.resize(part + 1);
    return plot.members[part];
}

void trimMembers(Plot& plot) {
    while (!plot.members.empty() && plot.members.back() == Member{}) plot.members.pop_back();
}

Page readPage(const Document& document) {
    return readPage(document.page, document.tables, rulesOf(document.format).unitsFollow);
}

} // namespace coulter
