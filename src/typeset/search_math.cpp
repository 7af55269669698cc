// Searches as they are set: what is looked for, and each place that was found. See line_parts.h.
#include "formula/base/text.h"
#include "typeset/formula_parts.h"
#include "typeset/line_parts.h"

#include <sstream>
#include <utility>

namespace coulter {
namespace {

MathPtr comma() { return mathSymbol(",", MathClass::Punctuation); }

/// A long verdict goes on on further lines of the page.
void addVerdict(std::vector<MathPtr>& terms, const std::string& text) {
    constexpr std::size_t longest = 40;
    std::istringstream verdict(text);
    std::string part;
    for (std::string word; verdict >> word;) {
        if (!part.empty() && part.size() + word.size() >= longest) {
            std::vector<MathPtr> term;
            appendWord(term, std::exchange(part, ""));
            terms.push_back(mathRow(std::move(term)));
        }
        part += (part.empty() ? "" : " ") + word;
    }
    std::vector<MathPtr> term;
    appendWord(term, part);
    terms.push_back(mathRow(std::move(term)));
}

void addPlaces(std::vector<MathPtr>& terms, const Places& places, Sought sought) {
    constexpr std::size_t most = 12;
    const std::vector<FoundPlace>& found = places.found;
    const bool withValues = sought != Sought::Zeros, inPlane = places.inPlane;
    const int digits = inPlane ? 5 : 7; // three numbers beside each other have less room
    for (std::size_t i = 0; i < std::min(most, found.size()); ++i) {
        std::vector<MathPtr> parts{valueMath(roundedNumber(found[i].at, digits), Ink::Answer)};
        const auto add = [&](double value) {
            parts.push_back(comma());
            parts.push_back(valueMath(roundedNumber(value, digits), Ink::Answer));
        };
        if (inPlane) add(found[i].across);
        if (withValues) add(found[i].value);
        const MathPtr place = parts.size() > 1 ? mathFenced("(", mathRow(std::move(parts)), ")") : parts[0];
        std::vector<MathPtr> term{place};
        const bool said = sought == Sought::Zeros || sought == Sought::Extrema;
        if (said && !found[i].word.empty()) {
            term.push_back(mathSpace(0.25));
            term.push_back(mathWord(found[i].word, MathClass::Ordinary, Ink::Muted));
        }
        if (said && found[i].isOneOrMore) appendWord(term, "one or more");
        if (i + 1 < found.size()) term.push_back(mathWord(",", MathClass::Ordinary, Ink::Muted));
        if (i + 1 < found.size()) term.push_back(mathSpace(0.35));
        terms.push_back(mathRow(std::move(term)));
    }
    std::string end = found.empty() ? "none" : "all";
    if (found.size() > most) end = std::to_string(found.size() - most) + " more: all";
    end += places.areAll() ? ", proven" : ", not all of it settled";
    if (!places.areAll() && !found.empty()) end = "not all of it settled";
    if (places.inPlane && !places.areAll() && !places.why.empty()) end += ": " + places.why;
    std::vector<MathPtr> last;
    appendWord(last, end);
    terms.push_back(mathRow(std::move(last)));
}

} // namespace

std::vector<MathPtr> searchTerms(const Line& line) {
    static constexpr const char* words[] = {"zeros of", "extrema of", "maximum of", "minimum of", "inflections of", "",
                                            ""};
    std::vector<MathPtr> head;
    if (!line.name.empty()) {
        head.push_back(line.unknowns.empty() ? nameMath(line.name) : namesMath(line));
        head.push_back(mathSymbol("=", MathClass::Relation));
    }
    if (line.equations.size() == 2) {
        head.push_back(formulaMath(*line.equations[0]));
        appendWord(head, "and");
        head.push_back(formulaMath(*line.equations[1]));
    } else if (line.equations.empty()) {
        head.push_back(mathWord(words[static_cast<std::size_t>(line.sought)], MathClass::Ordinary, Ink::Muted));
        head.push_back(mathSpace(0.3));
        if (line.body) head.push_back(formulaMath(*line.body));
    } else {
        head.push_back(formulaMath(*line.equations[0]));
    }
    const bool inRows = line.sought == Sought::InRows, everywhere = inRows || line.sought == Sought::Everywhere;
    appendWord(head, inRows ? "for all rows" : everywhere ? "for all" : "for");
    for (std::size_t k = 0; k < line.parameters.size() && !inRows; ++k) {
        if (k > 0) head.push_back(comma());
        head.push_back(nameMath(line.parameters[k]));
        const bool isSecond = k == 1 && line.arguments.size() == 2;
        const ExprPtr low = isSecond ? line.arguments[0]
                            : k == 0 ? line.low
                                     : nullptr,
                      high = isSecond ? line.arguments[1]
                             : k == 0 ? line.high
                                      : nullptr;
        if (!low || !high) continue;
        head.push_back(mathSymbol("∈", MathClass::Relation));
        const Interval& ends = isSecond ? line.across : line.interval;
        head.push_back(mathFenced(ends.lowClosed ? "[" : "(", mathRow({formulaMath(*low), comma(), formulaMath(*high)}),
                                  ends.highClosed ? "]" : ")"));
    }
    if (line.places) head.push_back(mathWord(":", MathClass::Ordinary, Ink::Muted));
    if (line.places) head.push_back(mathSpace(0.4));
    std::vector<MathPtr> terms{mathRow(std::move(head))};
    if (!line.places) return terms;
    if (everywhere) {
        addVerdict(terms, line.places->verdict);
        return terms;
    }
    addPlaces(terms, *line.places, line.sought);
    return terms;
}

} // namespace coulter
