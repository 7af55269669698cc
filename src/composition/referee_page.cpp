// What a referee asks of the page and of what is said about it.
#include "composition/referee.h"
#include "figure/sheet_settings.h"
#include "formula/base/text.h"
#include "plots/page_edits.h"
#include "plots/plot_kind.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <set>

namespace coulter {
namespace {

void namesIn(const ExprPtr& expression, std::set<std::string>& names) {
    if (!expression) return;
    if (expression->kind == ExprKind::Name || expression->kind == ExprKind::Call) names.insert(expression->text);
    for (const ExprPtr& operand : expression->operands) namesIn(operand, names);
}

/// All names that anything on the page, or any text of the document, mentions besides their own definition.
std::set<std::string> usedNames(const Figure& figure) {
    std::set<std::string> used;
    for (const Line& line : figure.page.lines) {
        for (const ExprPtr& part : {line.body, line.low, line.high, line.from, line.to, line.count, line.step,
                                    line.seed, line.period, line.harmonics, line.along, line.where, line.weights})
            namesIn(part, used);
        for (const auto& list : {line.equations, line.arguments}) {
            for (const ExprPtr& part : list) namesIn(part, used);
        }
    }
    return used;
}

/// Every text of the document that may hold formulas of the page.
std::string textsOf(const Document& document) {
    std::string all = text(document.sheet.settings, sheetTitleSetting);
    const auto add = [&](const std::string& each) { all += "\n" + each; };
    const auto settings = [&](const Settings& each) {
        for (const auto& [key, value] : each) {
            if (const auto* words = std::get_if<std::string>(&value)) add(*words);
        }
    };
    for (const Panel& panel : document.panels) {
        add(panel.title);
        std::vector<const Axis*> axes{&panel.x, &panel.y, &panel.z, &panel.colour};
        for (const Axis& axis : panel.further) axes.push_back(&axis);
        for (const Axis* axis : axes) {
            add(axis->label.value_or(""));
            settings(axis->settings);
        }
        for (const Plot& plot : panel.plots) {
            add(plot.of);
            add(plot.name.value_or(""));
            settings(plot.settings);
            for (const Member& member : plot.members) add(member.name.value_or(""));
        }
        for (const Note& note : panel.notes) {
            add(note.words);
            for (const NotePlace& place : note.at) {
                for (const std::string& coordinate : place) add(coordinate);
            }
        }
    }
    return all;
}

/// Whether a name is spelled somewhere in a text, by any of its spellings.
bool isSpelledIn(const std::string& texts, const std::string& name) {
    const NameParts parts = nameParts(name);
    std::vector<std::string> letters{parts.letter};
    const std::u32string decoded = decodeUtf8(parts.letter);
    if (decoded.size() == 1) {
        if (const std::string_view greek = greekName(decoded[0]); !greek.empty()) letters.emplace_back(greek);
    }
    return std::ranges::any_of(letters, [&](const std::string& letter) {
        const std::string plain = parts.subscript.empty() ? letter : letter + "_" + parts.subscript,
                          braced = letter + "_{" + parts.subscript + "}";
        return texts.find(plain) != std::string::npos || texts.find(braced) != std::string::npos;
    });
}

void unusedQuantity(const Figure& figure, std::vector<Finding>& found) {
    const std::set<std::string> used = usedNames(figure);
    const std::string texts = textsOf(figure.document);
    for (std::size_t i = 0; i < figure.page.lines.size() && i < figure.document.page.size(); ++i) {
        const Line& line = figure.page.lines[i];
        if (line.kind != LineKind::Quantity || !line.good() || used.contains(line.name) ||
            isSpelledIn(texts, line.name))
            continue;
        Finding finding = findingOf("Nothing uses the quantity “" + spelledName(line.name) + "”.", {},
                                    "Remove its line", withoutLine(figure.document, i));
        finding.said.line = static_cast<int>(i);
        finding.said.first = line.nameSpan.first;
        finding.said.last = line.nameSpan.last;
        found.push_back(std::move(finding));
    }
}

/// "k = 3" in words where the page says another value of k: the place of the number, and what would be right.
struct Said {
    std::size_t first = 0, length = 0; ///< of the number
    std::string name;
    double value = 0;
};
std::optional<Said> contradiction(const Page& page, const std::string& words) {
    for (const Line& line : page.lines) {
        if (line.kind != LineKind::Quantity || !line.value) continue;
        for (const std::string& name : {spelledName(line.name), line.name}) {
            for (std::size_t at = words.find(name); at != std::string::npos; at = words.find(name, at + 1)) {
                const bool inWord =
                    at > 0 && (std::isalnum(static_cast<unsigned char>(words[at - 1])) || words[at - 1] == '_');
                std::size_t k = at + name.size();
                while (k < words.size() && (words[k] == ' ' || words[k] == '$')) ++k;
                if (inWord || k >= words.size() || words[k] != '=') continue;
                ++k;
                while (k < words.size() && (words[k] == ' ' || words[k] == '$')) ++k;
                double said = 0;
                const auto [end, error] = std::from_chars(words.data() + k, words.data() + words.size(), said);
                if (error != std::errc{}) continue;
                // As many digits as were written may be rounded.
                const std::string written(words.data() + k, end);
                const auto digits = std::ranges::count_if(written, [](char c) { return c >= '0' && c <= '9'; });
                double rounded = 0;
                const std::string right = roundedNumber(*line.value, std::max<int>(1, static_cast<int>(digits)));
                std::from_chars(right.data(), right.data() + right.size(), rounded);
                if (said == rounded || said == *line.value) continue;
                return Said{k, written.size(), spelledName(line.name), *line.value};
            }
        }
    }
    return std::nullopt;
}

void contradictingName(const Figure& figure, std::vector<Finding>& found) {
    const auto look = [&](const std::string& words, const ItemPath& path, const auto& put) {
        const auto said = contradiction(figure.page, words);
        if (!said) return;
        std::string better = words;
        better.replace(said->first, said->length, "{" + said->name + "}");
        found.push_back(
            findingOf("“" + words + "” says " + said->name + " = " + words.substr(said->first, said->length) +
                          ", and on the page it is " + roundedNumber(said->value, 6) + ".",
                      path, "Show the page's value", changed(figure, [&](Document& d) { put(d, better); })));
    };
    for (std::size_t p = 0; p < figure.document.panels.size(); ++p) {
        const Panel& panel = figure.document.panels[p];
        look(panel.title, {ItemKind::Title, p, 0, 0},
             [p](Document& d, const std::string& better) { d.panels[p].title = better; });
        for (std::size_t i = 0; i < panel.plots.size(); ++i) {
            if (panel.plots[i].name)
                look(*panel.plots[i].name, {ItemKind::Plot, p, i, 0},
                     [p, i](Document& d, const std::string& better) { d.panels[p].plots[i].name = better; });
        }
        for (std::size_t n = 0; n < panel.notes.size(); ++n)
            look(panel.notes[n].words, {ItemKind::Note, p, n, 0},
                 [p, n](Document& d, const std::string& better) { d.panels[p].notes[n].words = better; });
    }
}

} // namespace

extern const Check unusedQuantityCheck{"unused quantity", "a quantity on the page that nothing uses", unusedQuantity};
extern const Check contradictingNameCheck{"wrong value", "words that say another value of a quantity than the page",
                                          contradictingName};

} // namespace coulter
