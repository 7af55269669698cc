#include "drawing/svg_writer.h"

#include "drawing/image_bytes.h"

#include <charconv>
#include <cmath>
#include <hb.h>
#include <map>
#include <numbers>

namespace coulter {
namespace {

/// Ten thousandths of a millimetre are finer than any press; glyph outlines are in thousandths of an em.
std::string number(double value, int decimals = 4) {
    char text[64];
    const double rounded = std::round(value * 1e4) / 1e4;
    auto end = std::to_chars(text, text + 64, rounded == 0 ? 0.0 : rounded, std::chars_format::fixed, decimals).ptr;
    std::string out(text, end);
    if (out.find('.') != std::string::npos) {
        out.erase(out.find_last_not_of('0') + 1);
        if (out.back() == '.') out.pop_back();
    }
    return out == "-0" ? "0" : out;
}

struct Outline {
    std::string path;
    static Outline& of(void* data) { return *static_cast<Outline*>(data); }
    void add(char command, std::initializer_list<double> values) {
        path += command;
        bool first = true;
        for (const double value : values) {
            if (!first) path += ' ';
            first = false;
            path += number(value / emUnits * 1000, 2);
        }
    }
};

void moveTo(hb_draw_funcs_t*, void* data, hb_draw_state_t*, float x, float y, void*) {
    Outline::of(data).add('M', {x, -y});
}
void lineTo(hb_draw_funcs_t*, void* data, hb_draw_state_t*, float x, float y, void*) {
    Outline::of(data).add('L', {x, -y});
}
void curveTo(hb_draw_funcs_t*, void* data, hb_draw_state_t*, float x1, float y1, float x2, float y2, float x, float y,
             void*) {
    Outline::of(data).add('C', {x1, -y1, x2, -y2, x, -y});
}
void closePath(hb_draw_funcs_t*, void* data, hb_draw_state_t*, void*) { Outline::of(data).path += 'Z'; }

std::string outline(FontId font, std::uint32_t glyph) {
    static hb_draw_funcs_t* const functions = [] {
        hb_draw_funcs_t* made = hb_draw_funcs_create();
        hb_draw_funcs_set_move_to_func(made, moveTo, nullptr, nullptr);
        hb_draw_funcs_set_line_to_func(made, lineTo, nullptr, nullptr);
        hb_draw_funcs_set_cubic_to_func(made, curveTo, nullptr, nullptr);
        hb_draw_funcs_set_close_path_func(made, closePath, nullptr, nullptr);
        hb_draw_funcs_make_immutable(made);
        return made;
    }();
    Outline result;
    hb_font_get_glyph_shape(shapingFont(font), glyph, functions, &result);
    return result.path;
}

class SvgWriter {
public:
    std::string run(const Scene& scene, const std::string& title, const std::string& metadata, bool hasPaper) {
        for (const SceneItem& item : scene.items) {
            std::visit([&](const auto& what) { write(what); }, item);
        }
        const std::string w = number(scene.width), h = number(scene.height);
        std::string out = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" "
                          "xmlns:xlink=\"http://www.w3.org/1999/xlink\" width=\"" +
                          w + "mm\" height=\"" + h + "mm\" viewBox=\"0 0 " + w + " " + h + "\" version=\"1.1\">\n";
        if (!title.empty()) out += "<title>" + xmlEscaped(title) + "</title>\n";
        if (!metadata.empty()) out += "<metadata>" + xmlEscaped(metadata) + "</metadata>\n";
        if (!definitions_.empty()) out += "<defs>\n" + definitions_ + "</defs>\n";
        if (hasPaper) out += "<rect width=\"" + w + "\" height=\"" + h + "\" fill=\"" + spelled(scene.paper) + "\"/>\n";
        return out + body_ + "</svg>\n";
    }

private:
    static std::string path(const std::vector<Point>& points, bool closed) {
        std::string out;
        for (std::size_t i = 0; i < points.size(); ++i) {
            out += (i == 0 ? "M" : "L") + number(points[i].x) + " " + number(points[i].y);
        }
        return closed ? out + "Z" : out;
    }

    void write(const StrokeItem& item) {
        body_ += "<path fill=\"none\" stroke=\"" + spelled(item.colour) + "\" stroke-width=\"" + number(item.width) +
                 "\" stroke-linejoin=\"round\"";
        if (item.opacity != 1) body_ += " stroke-opacity=\"" + number(item.opacity) + "\"";
        if (item.roundEnds) body_ += " stroke-linecap=\"round\"";
        if (!item.dashes.empty()) {
            body_ += " stroke-dasharray=\"";
            for (std::size_t i = 0; i < item.dashes.size(); ++i) body_ += (i > 0 ? " " : "") + number(item.dashes[i]);
            body_ += "\"";
        }
        body_ += " d=\"";
        for (const auto& line : item.lines) body_ += path(line, false);
        body_ += "\"/>\n";
    }

    void write(const FillItem& item) {
        body_ += "<path fill=\"" + spelled(item.colour) + "\"";
        if (item.opacity != 1) body_ += " fill-opacity=\"" + number(item.opacity) + "\"";
        if (item.evenOdd) body_ += " fill-rule=\"evenodd\"";
        body_ += " d=\"";
        for (const auto& polygon : item.polygons) body_ += path(polygon, true);
        body_ += "\"/>\n";
    }

    void write(const GlyphItem& item) {
        std::string words;
        for (const PlacedGlyph& glyph : item.glyphs) words += glyph.text;
        body_ += "<g fill=\"" + spelled(item.colour) + "\" role=\"img\" aria-label=\"" + xmlEscaped(words) + "\"";
        if (item.turn != 0)
            body_ += " transform=\"rotate(" + number(item.turn * 180 / std::numbers::pi) + " " + number(item.about.x) +
                     " " + number(item.about.y) + ")\"";
        body_ += ">\n";
        for (const PlacedGlyph& glyph : item.glyphs) {
            const auto [at, isNew] = glyphs_.try_emplace({glyph.font, glyph.glyph}, glyphs_.size());
            if (isNew)
                definitions_ += "<path id=\"g" + std::to_string(at->second) + "\" d=\"" +
                                outline(glyph.font, glyph.glyph) + "\"/>\n";
            body_ += "<use xlink:href=\"#g" + std::to_string(at->second) + "\" transform=\"translate(" +
                     number(glyph.x) + " " + number(glyph.y) + ") scale(" + scale(glyph.size) + ")\"/>\n";
        }
        body_ += "</g>\n";
    }

    void write(const ImageItem& item) {
        if (item.width <= 0 || item.height <= 0) return;
        const std::string clip = "c" + std::to_string(images_++);
        definitions_ += "<clipPath id=\"" + clip + "\"><rect " + box(item.clip) + "/></clipPath>\n";
        body_ += "<g clip-path=\"url(#" + clip + ")\"><image " + box(item.rect) +
                 " preserveAspectRatio=\"none\" image-rendering=\"optimizeSpeed\" style=\"image-rendering:pixelated\" "
                 "xlink:href=\"data:image/png;base64," +
                 base64(encodePng(item)) + "\"/></g>\n";
    }

    static std::string box(const Rect& rect) {
        return "x=\"" + number(rect.x) + "\" y=\"" + number(rect.y) + "\" width=\"" + number(rect.width) +
               "\" height=\"" + number(rect.height) + "\"";
    }

    static std::string scale(double size) {
        char text[64];
        return {text, std::to_chars(text, text + 64, size / 1000, std::chars_format::fixed, 7).ptr};
    }

    std::string definitions_, body_;
    std::size_t images_ = 0;
    std::map<std::pair<FontId, std::uint32_t>, std::size_t> glyphs_;
};

} // namespace

std::string xmlEscaped(const std::string& text) {
    std::string out;
    for (const char c : text) {
        switch (c) {
        case '&': out += "&amp;"; break;
        case '<': out += "&lt;"; break;
        case '>': out += "&gt;"; break;
        case '"': out += "&quot;"; break;
        case '\'': out += "&apos;"; break;
        case '\t':
        case '\n':
        case '\r': out += c; break;
        default: // XML has no other control characters, not even as references
            if (static_cast<unsigned char>(c) >= 0x20) out += c;
        }
    }
    return out;
}

std::string writeSvg(const Scene& scene, const std::string& title, const std::string& metadata, bool hasPaper) {
    return SvgWriter().run(scene, title, metadata, hasPaper);
}

} // namespace coulter
