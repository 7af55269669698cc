#include "formula/lines/places_text.h"

#include "formula/base/text.h"

#include <algorithm>

namespace coulter {

std::string describe(const Places& places, Sought sought, int digits) {
    const auto number = [&](double x) { return digits >= 17 ? shortestNumber(x) : roundedNumber(x, digits); };
    const auto part = [&](const Bounds& each) {
        const std::string low = roundedNumber(each.low, 6), high = roundedNumber(each.high, 6);
        return low == high ? "about " + low : "[" + low + ", " + high + "]";
    };
    if (sought == Sought::Everywhere || sought == Sought::InRows) return places.verdict;
    std::string text = "{";
    for (const FoundPlace& each : places.found) {
        if (text.size() > 1) text += ", ";
        if (each.word == "all along") {
            text += "all of " + part(each.within);
            continue;
        }
        std::string place = number(each.at);
        if (places.inPlane) place += ", " + number(each.across);
        if (sought != Sought::Zeros) place += ", " + number(each.value);
        text += places.inPlane || sought != Sought::Zeros ? "(" + place + ")" : place;
        const bool said = sought == Sought::Zeros || sought == Sought::Extrema || each.isAtEdge;
        if (!each.word.empty() && said) text += " " + each.word;
        if (each.isOneOrMore) text += " one or more";
        if (!each.isProven) text += " not proven";
    }
    text += "}: ";
    if (places.areAll()) return text + (places.found.empty() ? "none, proven" : "all, proven");
    std::vector<std::string> open;
    for (const Bounds& each : places.unsettled) open.push_back(part(each));
    for (const PlanePart& each : places.unsettledParts) open.push_back("(" + part(each.x) + ", " + part(each.y) + ")");
    if (places.isEstimated && open.empty()) return text + "resting on error estimates of integrals";
    if (open.empty()) return text + "not all settled; " + places.why;
    text += "not settled: ";
    constexpr std::size_t most = 3;
    for (std::size_t i = 0; i < std::min(most, open.size()); ++i) text += (i == 0 ? "" : ", ") + open[i];
    if (open.size() > most) text += " and " + std::to_string(open.size() - most) + " parts more";
    return text + "; " + places.why;
}

} // namespace coulter
