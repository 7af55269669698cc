#include "plots/document_words.h"

#include <algorithm>
#include <cctype>

namespace coulter {
namespace {

bool isProse(const std::string& line) { return line.starts_with("#"); }

void addAxis(const Axis& axis, std::string& words) {
    if (axis.label) words += *axis.label + ' ';
    if (axis.scale == ScaleKind::Logarithmic) words += "logarithmic scale ";
}

} // namespace

std::string sentenceOf(const Document& document) {
    const auto prose = std::ranges::find_if(document.page, isProse);
    if (prose == document.page.end()) return "";
    const std::size_t begin = prose->find_first_not_of("# \t");
    return begin == std::string::npos ? "" : prose->substr(begin);
}

std::string searchWordsOf(const Document& document) {
    std::string words;
    for (const std::string& line : document.page) words += line + ' ';
    if (document.panels.size() > 1) words += "several panels ";
    if (!document.tables.empty()) words += "data readings measured table ";
    for (const Panel& panel : document.panels) {
        words += panel.title + ' ';
        for (const Axis* axis : {&panel.x, &panel.y, &panel.z, &panel.colour}) addAxis(*axis, words);
        for (const Axis& axis : panel.further) addAxis(axis, words);
        if (!panel.further.empty()) words += panel.further.size() == 1 ? "two scales " : "several scales ";
        for (const Plot& plot : panel.plots) {
            words += plot.kind + ' ' + plot.of + ' ';
            if (plot.of.find(" for ") != std::string::npos) words += "family cases ";
        }
        for (const Note& note : panel.notes) words += "note " + note.kind + ' ' + note.words + ' ';
    }
    std::ranges::transform(words, words.begin(), [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return words;
}

} // namespace coulter
