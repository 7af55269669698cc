#include "figure/edits.h"

#include "formula/base/text.h"
#include "formula/lines/read_page.h"
#include "formula/notation/parser.h"
#include "formula/page/line_parser.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <numeric>
#include <set>

namespace coulter {
namespace {

/// What somebody sets by hand is not assumed any more.
std::u32string asSaid(const Line& line) {
    std::u32string text = decodeUtf8(line.source);
    constexpr std::u32string_view assumed = U", assumed";
    if (const auto word = text.find(assumed); line.isAssumed && word != std::u32string::npos)
        text.erase(word, assumed.size());
    return text;
}

} // namespace

std::string lineWithValue(const Line& line, const std::string& value) {
    const std::u32string text = asSaid(line);
    // Between the sign "=" and the first clause.
    const std::size_t equals = text.find(U'=');
    std::size_t end = text.size();
    if (line.body) end = static_cast<std::size_t>(line.body->span.last);
    return encodeUtf8(std::u32string_view(text).substr(0, equals + 1)) + " " + value +
           encodeUtf8(std::u32string_view(text).substr(std::min(end, text.size())));
}

std::optional<Document> withQuantity(const Document& document, const std::string& name, const std::string& value) {
    const Page page = readPage(document);
    std::string canonical;
    const std::u32string text = decodeUtf8(name);
    const LexResult lexed = tokenize(text, 0, text.size());
    if (readName(lexed.tokens, canonical) + 1 != lexed.tokens.size()) return std::nullopt;
    const auto at = page.defined.find(canonical);
    if (at == page.defined.end() || page.lines[at->second].kind != LineKind::Quantity || !page.lines[at->second].body)
        return std::nullopt;
    Document changed = document;
    changed.page[at->second] = lineWithValue(page.lines[at->second], value);
    return changed;
}

SamplingWay samplingWay(const Grid& grid) {
    return grid.count ? SamplingWay::Count : grid.step ? SamplingWay::Step : SamplingWay::Adaptive;
}

std::optional<Document> withSampling(const Document& document, const std::string& variable, SamplingWay way,
                                     const std::string& value) {
    const Page page = readPage(document);
    const auto at = page.defined.find(variable);
    if (at == page.defined.end() || page.lines[at->second].kind != LineKind::Variable) return std::nullopt;
    const Line& line = page.lines[at->second];
    std::u32string text = asSaid(line);
    const std::string clause = way == SamplingWay::Count  ? ", count " + value
                               : way == SamplingWay::Step ? ", step " + value
                                                          : "";
    std::size_t place = text.size();
    for (const ExprPtr& old : {line.count, line.step}) {
        if (!old) continue;
        const std::size_t comma = text.rfind(U',', static_cast<std::size_t>(old->span.first - 1));
        if (comma == std::u32string::npos) return std::nullopt;
        text.erase(comma, static_cast<std::size_t>(old->span.last) - comma);
        place = comma;
        break; // a line has one of the two
    }
    text.insert(place, decodeUtf8(clause));
    Document changed = document;
    changed.page[at->second] = encodeUtf8(text);
    return changed;
}

std::vector<FinerStretch> withFiner(const std::vector<FinerStretch>& stretches, double low, double high) {
    // Every border of old and new parts what stands between them.
    std::set<double> borders{low, high};
    for (const FinerStretch& each : stretches) {
        borders.insert(each.low);
        borders.insert(each.high);
    }
    std::vector<FinerStretch> all;
    for (auto from = borders.begin(); std::next(from) != borders.end(); ++from) {
        const double to = *std::next(from);
        double times = 1;
        for (const FinerStretch& each : stretches) {
            if (each.low <= *from && to <= each.high) times = each.times;
        }
        if (low <= *from && to <= high) times = std::min(2 * times, mostTimesFiner);
        if (times == 1) continue;
        if (!all.empty() && all.back().high == *from && all.back().times == times)
            all.back().high = to;
        else
            all.push_back({*from, to, times});
    }
    return all;
}

std::string scrubbedNumber(const std::string& spelled, double steps, bool fine, const std::optional<Interval>& range) {
    std::string text = spelled;
    bool percent = false;
    if (text.ends_with("%")) {
        percent = true;
        text.pop_back();
    }
    std::string exponent;
    if (const auto e = text.find_first_of("eE"); e != std::string::npos) {
        exponent = text.substr(e);
        text = text.substr(0, e);
    }
    const auto dot = text.find('.');
    int decimals = dot == std::string::npos ? 0 : static_cast<int>(text.size() - dot - 1);
    if (fine && decimals < 15) ++decimals;
    double value = 0;
    std::from_chars(text.data(), text.data() + text.size(), value);
    const double step = std::pow(10.0, -decimals);
    double moved = (std::round(value / step) + std::round(steps)) * step;
    if (range) {
        double scale = percent ? 0.01 : 1;
        if (!exponent.empty()) {
            int power = 0;
            const std::size_t sign = exponent[1] == '+' ? 2 : 1;
            std::from_chars(exponent.data() + sign, exponent.data() + exponent.size(), power);
            scale *= std::pow(10.0, power);
        }
        moved = std::clamp(moved, std::min(range->low, range->high) / scale, std::max(range->low, range->high) / scale);
    }
    char digits[400];
    const auto end =
        std::to_chars(digits, digits + sizeof digits, moved == 0 ? 0.0 : moved, std::chars_format::fixed, decimals).ptr;
    std::string out(digits, end);
    if (std::ranges::all_of(out, [](char c) { return c == '-' || c == '0' || c == '.'; }) && out.starts_with("-"))
        out.erase(0, 1);
    return out + exponent + (percent ? "%" : "");
}

bool moveInLegend(Panel& panel, std::size_t plot, int by) {
    std::vector<std::size_t> sequence(panel.plots.size());
    std::iota(sequence.begin(), sequence.end(), std::size_t{0});
    std::ranges::stable_sort(sequence, {}, [&](std::size_t i) { return panel.plots[i].order; });
    const auto at = std::ranges::find(sequence, plot);
    if (at == sequence.end()) return false;
    const std::ptrdiff_t from = at - sequence.begin(), to = from + by;
    if (to < 0 || to >= static_cast<std::ptrdiff_t>(sequence.size())) return false;
    std::swap(sequence[static_cast<std::size_t>(from)], sequence[static_cast<std::size_t>(to)]);
    // As they are drawn again: nothing to be kept in a recipe.
    const bool isUsual = std::ranges::is_sorted(sequence);
    for (std::size_t i = 0; i < sequence.size(); ++i)
        panel.plots[sequence[i]].order = isUsual ? 0 : static_cast<int>(i) + 1;
    return true;
}

} // namespace coulter
