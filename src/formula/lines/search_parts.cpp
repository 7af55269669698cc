#include "formula/lines/search_parts.h"

#include "formula/base/text.h"
#include "formula/lines/answer.h"

#include <cmath>

namespace coulter {
namespace {

double numberOf(const Page& page, const ExprPtr& e) {
    const Answer found = answer(page, e);
    if (!found.problems.empty()) throw SearchRefusal{found.problems.front()};
    return found.value();
}

} // namespace

void refuseSearch(Span span, std::string sentence, std::string suggestion) {
    throw SearchRefusal{{-1, span.first, span.last, std::move(sentence), std::move(suggestion)}};
}

Interval intervalOf(const Page& page, const Line& line, std::size_t variable) {
    const std::string& name = line.parameters[variable];
    const bool isSecond = variable == 1, isSaid = isSecond ? !line.arguments.empty() : line.low != nullptr;
    if (!isSaid) {
        const Line* known = page.find(name, LineKind::Variable);
        if (!known)
            refuseSearch(line.nameSpan, "The interval of " + name + " is not said.",
                         "write for " + name + " in [0, 10]");
        return known->interval;
    }
    const ExprPtr &low = isSecond ? line.arguments[0] : line.low, &high = isSecond ? line.arguments[1] : line.high;
    Interval all = isSecond ? line.across : line.interval;
    all.low = numberOf(page, low);
    all.high = numberOf(page, high);
    const Span ends{low->span.first, high->span.last};
    if (!std::isfinite(all.low) || !std::isfinite(all.high))
        refuseSearch(ends, "An interval to search needs two finite ends.");
    if (!(all.low < all.high))
        refuseSearch(ends,
                     "The interval has no extent: it starts at " + shortestNumber(all.low) + " and ends at " +
                         shortestNumber(all.high) + ".",
                     "write the smaller number first");
    return all;
}

} // namespace coulter
