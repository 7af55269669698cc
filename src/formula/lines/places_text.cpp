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
        text += sought == Sought::Zeros ? number(each.at) : "(" + number(each.at) + ", " + number(each.value) + ")";
        const bool said =
            sought == Sought::Zeros || sought == Sought::Extrema || each.word.find("the edge") != std::string::npos;
        if (!each.word.empty() && said) text += " " + each.word;
        if (!each.isProven) text += " not proven";
    }
    text += "}: ";
    if (places.areAll()) return text + (places.found.empty() ? "none, proven" : "all, proven");
    if (places.unsettled.empty()) return text + "resting on error estimates of integrals";
    text += "not settled: ";
    constexpr std::size_t most = 3;
    for (std::size_t i = 0; i < std::min(most, places.unsettled.size()); ++i)
        text += (i == 0 ? "" : ", ") + part(places.unsettled[i]);
    if (places.unsettled.size() > most)
        text += " and " + std::to_string(places.unsettled.size() - most) + " parts more";
    return text + "; " + places.why;
}

} // namespace coulter
