#include "figure/edits.h"

#include "figure/curves.h"
#include "formula/line_parser.h"
#include "formula/parser.h"
#include "formula/text.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <set>

namespace coulter {
namespace {

std::string spelledName(const std::string& canonical) {
    const NameParts parts = nameParts(canonical);
    if (parts.subscript.empty()) return parts.letter;
    return parts.subscript.find(' ') != std::string::npos || decodeUtf8(parts.subscript).size() > 1
               ? parts.letter + "_{" + parts.subscript + "}"
               : canonical;
}

std::string callText(const Line& line) {
    std::string text = spelledName(line.name) + "(";
    for (std::size_t i = 0; i < line.parameters.size(); ++i)
        text += (i > 0 ? ", " : "") + spelledName(line.parameters[i]);
    return text + ")";
}

/// Whether a plot is already a call of this function.
bool draws(const Page& page, const Plot& plot, const std::string& function) {
    const Plotted plotted = readPlot(page, plot);
    return plotted.expression && plotted.expression->kind == ExprKind::Call && plotted.expression->text == function;
}

/// A new function of one variable is drawn at once, and so is one of two on an empty panel, as a heatmap; variables
/// without an interval get a usual one.
void drawNewFunction(Document& document, std::size_t index) {
    Page page = readPage(document.page);
    const Line line = page.lines[index];
    std::vector<Plot>& plots = document.panels[0].plots;
    const std::size_t count = line.parameters.size();
    if (line.kind != LineKind::Function || count == 0 || count > 2 || (count == 2 && !plots.empty())) return;
    for (const std::string& variable : line.parameters) {
        if (page.defined.contains(variable) && !page.find(variable, LineKind::Variable)) return;
    }
    for (auto variable = line.parameters.rbegin(); variable != line.parameters.rend(); ++variable) {
        if (page.defined.contains(*variable)) continue;
        document.page.insert(document.page.begin() + static_cast<std::ptrdiff_t>(index) + 1,
                             spelledName(*variable) + " in [-5, 5]");
    }
    page = readPage(document.page);
    if (std::ranges::any_of(plots, [&](const Plot& plot) { return draws(page, plot, line.name); })) return;
    plots.push_back(plotOf(callText(line), count == 2 ? PlotKind::Heatmap : PlotKind::Line));
}

/// Replaces a function's name in what the plots draw, where it stands as a name before a bracket.
void renamePlots(Document& document, const std::string& before, const std::string& after) {
    for (Plot& plot : document.panels[0].plots) {
        const std::u32string text = decodeUtf8(plot.of);
        const LexResult lexed = tokenize(text, 0, text.size());
        for (std::size_t i = lexed.tokens.size(); i-- > 0;) {
            std::string name;
            const std::size_t length = readName(std::span(lexed.tokens).subspan(i), name);
            if (length == 0 || name != before || lexed.tokens[i + length].text != "(") continue;
            const auto first = static_cast<std::size_t>(lexed.tokens[i].span.first - 1);
            const auto last = static_cast<std::size_t>(lexed.tokens[i + length - 1].span.last);
            plot.of = encodeUtf8(std::u32string_view(text).substr(0, first)) + spelledName(after) +
                      encodeUtf8(std::u32string_view(text).substr(last));
            break;
        }
    }
}

} // namespace

std::string lineWithValue(const Line& line, const std::string& value) {
    const std::u32string text = decodeUtf8(line.source);
    // Between the sign "=" and the first clause.
    const std::size_t equals = text.find(U'=');
    std::size_t end = text.size();
    if (line.body) end = static_cast<std::size_t>(line.body->span.last);
    return encodeUtf8(std::u32string_view(text).substr(0, equals + 1)) + " " + value +
           encodeUtf8(std::u32string_view(text).substr(std::min(end, text.size())));
}

std::optional<Document> withQuantity(const Document& document, const std::string& name, const std::string& value) {
    const Page page = readPage(document.page);
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

Document withLine(const Document& document, std::size_t index, const std::string& text) {
    Document changed = document;
    const bool isNew = index >= changed.page.size();
    const Page before = readPage(document.page);
    if (isNew) {
        index = changed.page.size();
        changed.page.push_back(text);
    } else {
        changed.page[index] = text;
    }
    const Page after = readPage(changed.page);
    const Line& line = after.lines[index];
    if (!line.good() || line.kind != LineKind::Function) return changed;
    const Line* old = isNew ? nullptr : &before.lines[index];
    const bool wasFunction = old && old->kind == LineKind::Function;
    if (wasFunction && old->name != line.name && !after.defined.contains(old->name))
        renamePlots(changed, old->name, line.name);
    else if (!wasFunction)
        drawNewFunction(changed, index);
    return changed;
}

Document withoutLine(const Document& document, std::size_t index) {
    Document changed = document;
    if (index >= changed.page.size()) return changed;
    const Page page = readPage(document.page);
    const Line& line = page.lines[index];
    if (line.kind == LineKind::Function) {
        std::erase_if(changed.panels[0].plots, [&](const Plot& plot) { return draws(page, plot, line.name); });
    }
    changed.page.erase(changed.page.begin() + static_cast<std::ptrdiff_t>(index));
    return changed;
}

SamplingWay samplingWay(const Grid& grid) {
    return grid.count ? SamplingWay::Count : grid.step ? SamplingWay::Step : SamplingWay::Adaptive;
}

std::optional<Document> withSampling(const Document& document, const std::string& variable, SamplingWay way,
                                     const std::string& value) {
    const Page page = readPage(document.page);
    const auto at = page.defined.find(variable);
    if (at == page.defined.end() || page.lines[at->second].kind != LineKind::Variable) return std::nullopt;
    const Line& line = page.lines[at->second];
    std::u32string text = decodeUtf8(line.source);
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

} // namespace coulter
