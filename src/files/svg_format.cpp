#include "drawing/svg_writer.h"
#include "figure/sheet_settings.h"
#include "files/formats.h"

namespace coulter {
namespace {

std::string unescaped(std::string text) {
    static constexpr std::pair<std::string_view, char> entities[] = {
        {"&lt;", '<'}, {"&gt;", '>'}, {"&quot;", '"'}, {"&apos;", '\''}, {"&amp;", '&'}};
    std::string out;
    for (std::size_t i = 0; i < text.size();) {
        bool found = false;
        for (const auto& [entity, character] : entities) {
            if (text.compare(i, entity.size(), entity) != 0) continue;
            out += character;
            i += entity.size();
            found = true;
            break;
        }
        if (!found) out += text[i++];
    }
    return out;
}

} // namespace

std::string writeSvgFigure(const Figure& figure, const std::string& recipe) {
    return writeSvg(figure.scene, titleOf(figure), recipe, word(figure.document.sheet.settings, paperSetting) == 0);
}

bool isSvg(std::string_view bytes) {
    const std::string_view start = bytes.substr(0, 1000);
    return start.find("<svg") != std::string_view::npos;
}

std::optional<std::string> recipeInSvg(std::string_view bytes) {
    const auto begin = bytes.find("<metadata>");
    if (begin == std::string_view::npos) return std::nullopt;
    const auto end = bytes.find("</metadata>", begin);
    if (end == std::string_view::npos) return std::nullopt;
    std::string text = unescaped(std::string(bytes.substr(begin + 10, end - begin - 10)));
    if (text.find("\"coulter\"") == std::string::npos) return std::nullopt;
    return text;
}

} // namespace coulter
