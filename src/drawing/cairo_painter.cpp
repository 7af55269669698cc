#include "drawing/cairo_painter.h"

#include "drawing/shrink_image.h"
#include "special/leaks_of_libraries.h"

#include <algorithm>
#include <array>
#include <cairo-ft.h>
#include <cairo-pdf.h>
#include <cairo-ps.h>
#include <cairo.h>
#include <charconv>
#include <cmath>
#include <memory>

namespace coulter {
namespace {

/// The program's fonts for Cairo; made once and never changed. Cairo locks them while it reads glyphs.
cairo_font_face_t* fontFace(FontId id) {
    static const std::array<cairo_font_face_t*, fontCount> faces = [] {
        std::array<cairo_font_face_t*, fontCount> made{};
        FT_Library library = nullptr;
        FT_Init_FreeType(&library);
        for (int i = 0; i < fontCount; ++i) {
            const auto file = fontFile(static_cast<FontId>(i));
            FT_Face face = nullptr;
            FT_New_Memory_Face(library, reinterpret_cast<const FT_Byte*>(file.data()),
                               static_cast<FT_Long>(file.size()), 0, &face);
            made[static_cast<std::size_t>(i)] = cairo_ft_font_face_create_for_ft_face(face, FT_LOAD_NO_HINTING);
        }
        return made;
    }();
    return faces[static_cast<std::size_t>(id)];
}

void setColour(cairo_t* cr, Colour colour, double opacity = 1) {
    if (opacity == 1) return cairo_set_source_rgb(cr, colour.red / 255.0, colour.green / 255.0, colour.blue / 255.0);
    cairo_set_source_rgba(cr, colour.red / 255.0, colour.green / 255.0, colour.blue / 255.0, opacity);
}

void paint(cairo_t* cr, const StrokeItem& item) {
    setColour(cr, item.colour, item.opacity);
    cairo_set_line_width(cr, item.width);
    cairo_set_line_join(cr, CAIRO_LINE_JOIN_ROUND);
    cairo_set_line_cap(cr, item.roundEnds ? CAIRO_LINE_CAP_ROUND : CAIRO_LINE_CAP_BUTT);
    cairo_set_dash(cr, item.dashes.data(), static_cast<int>(item.dashes.size()), 0);
    for (const auto& line : item.lines) {
        for (std::size_t i = 0; i < line.size(); ++i) {
            if (i == 0)
                cairo_move_to(cr, line[i].x, line[i].y);
            else
                cairo_line_to(cr, line[i].x, line[i].y);
        }
    }
    cairo_stroke(cr);
}

void paint(cairo_t* cr, const FillItem& item) {
    setColour(cr, item.colour, item.opacity);
    for (const auto& polygon : item.polygons) {
        for (std::size_t i = 0; i < polygon.size(); ++i) {
            if (i == 0)
                cairo_move_to(cr, polygon[i].x, polygon[i].y);
            else
                cairo_line_to(cr, polygon[i].x, polygon[i].y);
        }
        cairo_close_path(cr);
    }
    cairo_set_fill_rule(cr, item.evenOdd ? CAIRO_FILL_RULE_EVEN_ODD : CAIRO_FILL_RULE_WINDING);
    cairo_fill(cr);
}

void paint(cairo_t* cr, const GlyphItem& item) {
    setColour(cr, item.colour);
    if (item.turn != 0) {
        GlyphItem upright = item;
        upright.turn = 0;
        cairo_save(cr);
        cairo_translate(cr, item.about.x, item.about.y);
        cairo_rotate(cr, item.turn);
        cairo_translate(cr, -item.about.x, -item.about.y);
        paint(cr, upright);
        cairo_restore(cr);
        return;
    }
    for (std::size_t start = 0; start < item.glyphs.size();) {
        const PlacedGlyph& first = item.glyphs[start];
        std::vector<cairo_glyph_t> glyphs;
        std::vector<cairo_text_cluster_t> clusters;
        std::string text;
        std::size_t end = start;
        for (; end < item.glyphs.size() && item.glyphs[end].font == first.font && item.glyphs[end].size == first.size;
             ++end) {
            const PlacedGlyph& glyph = item.glyphs[end];
            glyphs.push_back({glyph.glyph, glyph.x, glyph.y});
            if (glyph.text.empty() && !clusters.empty()) {
                ++clusters.back().num_glyphs;
            } else {
                clusters.push_back({static_cast<int>(glyph.text.size()), 1});
                text += glyph.text;
            }
        }
        cairo_set_font_face(cr, fontFace(first.font));
        cairo_set_font_size(cr, first.size);
        cairo_show_text_glyphs(cr, text.data(), static_cast<int>(text.size()), glyphs.data(),
                               static_cast<int>(glyphs.size()), clusters.data(), static_cast<int>(clusters.size()),
                               static_cast<cairo_text_cluster_flags_t>(0));
        start = end;
    }
}

/// Paints dots that are given, one for each of a surface or as large as a transformation makes them.
void paintDots(cairo_t* cr, const std::vector<std::uint32_t>& dots, int width, int height) {
    // Cairo wants to be allowed to write, but never does to what it paints from.
    auto* const pixels = const_cast<std::uint32_t*>(dots.data());
    cairo_surface_t* image = cairo_image_surface_create_for_data(reinterpret_cast<unsigned char*>(pixels),
                                                                 CAIRO_FORMAT_ARGB32, width, height, width * 4);
    cairo_set_source_surface(cr, image, 0, 0);
    cairo_pattern_set_filter(cairo_get_source(cr), CAIRO_FILTER_NEAREST);
    cairo_paint(cr);
    // A document keeps the image until it is finished: the copy must be Cairo's own.
    cairo_surface_finish(image);
    cairo_surface_destroy(image);
}

void paint(cairo_t* cr, const ImageItem& item) {
    if (item.width <= 0 || item.height <= 0) return;
    cairo_save(cr);
    cairo_rectangle(cr, item.clip.x, item.clip.y, item.clip.width, item.clip.height);
    cairo_clip(cr);
    Rect place = item.rect;
    cairo_user_to_device(cr, &place.x, &place.y);
    cairo_user_to_device_distance(cr, &place.width, &place.height);
    // Dots that become smaller than those of the target are averaged; larger ones keep their edges.
    const bool smaller = cairo_surface_get_type(cairo_get_target(cr)) == CAIRO_SURFACE_TYPE_IMAGE &&
                         (place.width < 0.99 * item.width || place.height < 0.99 * item.height);
    if (smaller) {
        const ShrunkImage image = shrunk(item, place);
        cairo_identity_matrix(cr);
        cairo_translate(cr, image.left, image.top);
        if (!image.pixels.empty()) paintDots(cr, image.pixels, image.width, image.height);
    } else {
        cairo_translate(cr, item.rect.x, item.rect.y);
        cairo_scale(cr, item.rect.width / item.width, item.rect.height / item.height);
        paintDots(cr, item.pixels, item.width, item.height);
    }
    cairo_restore(cr);
}

void paintScene(cairo_t* cr, const Scene& scene) {
    cairo_font_options_t* options = cairo_font_options_create();
    cairo_font_options_set_hint_style(options, CAIRO_HINT_STYLE_NONE);
    cairo_font_options_set_hint_metrics(options, CAIRO_HINT_METRICS_OFF);
    cairo_font_options_set_antialias(options, CAIRO_ANTIALIAS_GRAY);
    cairo_set_font_options(cr, options);
    cairo_font_options_destroy(options);
    for (const SceneItem& item : scene.items) {
        std::visit([&](const auto& what) { paint(cr, what); }, item);
    }
}

cairo_status_t append(void* closure, const unsigned char* data, unsigned length) {
    static_cast<std::string*>(closure)->append(reinterpret_cast<const char*>(data), length);
    return CAIRO_STATUS_SUCCESS;
}

} // namespace

namespace {

/// Cairo's coordinates have 16 bits before the point: no surface of its is larger than that either way.
constexpr int mostDotsOfSurface = 32'000;

/// Paints the scene into a part of a raster that a surface can hold; whether that succeeded.
bool paintPart(Raster& raster, const Scene& scene, int left, int top) {
    const int width = std::min(mostDotsOfSurface, raster.width - left),
              height = std::min(mostDotsOfSurface, raster.height - top);
    std::uint32_t* const corner = raster.pixels.data() +
                                  static_cast<std::size_t>(top) * static_cast<std::size_t>(raster.width) +
                                  static_cast<std::size_t>(left);
    cairo_surface_t* surface = cairo_image_surface_create_for_data(reinterpret_cast<unsigned char*>(corner),
                                                                   CAIRO_FORMAT_RGB24, width, height, raster.width * 4);
    cairo_t* cr = cairo_create(surface);
    cairo_translate(cr, -left, -top);
    cairo_scale(cr, raster.width / scene.width, raster.height / scene.height);
    paintScene(cr, scene);
    cairo_surface_flush(surface);
    const bool good = cairo_status(cr) == CAIRO_STATUS_SUCCESS && cairo_surface_status(surface) == CAIRO_STATUS_SUCCESS;
    cairo_destroy(cr);
    cairo_surface_destroy(surface);
    return good;
}

} // namespace

Raster paintRaster(const Scene& scene, double dotsPerMm, std::optional<Colour> under) {
    const Colour paper = under.value_or(scene.paper);
    Raster raster;
    raster.width = std::max(1, static_cast<int>(std::lround(scene.width * dotsPerMm)));
    raster.height = std::max(1, static_cast<int>(std::lround(scene.height * dotsPerMm)));
    try {
        raster.pixels.resize(static_cast<std::size_t>(raster.width) * static_cast<std::size_t>(raster.height),
                             0xff000000U | static_cast<std::uint32_t>(paper.red) << 16 |
                                 static_cast<std::uint32_t>(paper.green) << 8 | paper.blue);
    } catch (const std::bad_alloc&) {
        return {};
    }
    for (int top = 0; top < raster.height; top += mostDotsOfSurface) {
        for (int left = 0; left < raster.width; left += mostDotsOfSurface) {
            if (!paintPart(raster, scene, left, top)) return {};
        }
    }
    for (std::uint32_t& pixel : raster.pixels) pixel |= 0xff000000u;
    return raster;
}

Raster paintTransparent(const Scene& scene, double dotsPerMm) {
    Raster white = paintRaster(scene, dotsPerMm, Colour{0xff, 0xff, 0xff});
    const Raster black = paintRaster(scene, dotsPerMm, Colour{0, 0, 0});
    if (white.pixels.empty() || black.pixels.empty()) return {};
    for (std::size_t i = 0; i < white.pixels.size(); ++i) {
        const std::uint32_t w = white.pixels[i], b = black.pixels[i];
        const auto part = [](std::uint32_t pixel, int shift) { return static_cast<int>((pixel >> shift) & 0xff); };
        // Paper shows through by so much; the most of the three has the smallest error of rounding.
        int through = 0;
        for (const int shift : {0, 8, 16}) through = std::max(through, part(w, shift) - part(b, shift));
        const int opacity = 255 - std::clamp(through, 0, 255);
        std::uint32_t pixel = static_cast<std::uint32_t>(opacity) << 24;
        for (const int shift : {0, 8, 16}) {
            const int colour = opacity == 0 ? 0 : std::min(255, (part(b, shift) * 255 + opacity / 2) / opacity);
            pixel |= static_cast<std::uint32_t>(colour) << shift;
        }
        white.pixels[i] = pixel;
    }
    return white;
}

namespace {

constexpr double points = 72 / 25.4; // PostScript points in a mm

/// Draws the only page and takes the surface away; whether all of it went well.
bool paintPage(cairo_surface_t* surface, const Scene& scene) {
    cairo_t* cr = cairo_create(surface);
    cairo_scale(cr, points, points);
    if (!(scene.paper == Colour{0xff, 0xff, 0xff})) { // a page is white
        setColour(cr, scene.paper);
        cairo_paint(cr);
    }
    paintScene(cr, scene);
    cairo_show_page(cr);
    const bool drawn = cairo_status(cr) == CAIRO_STATUS_SUCCESS;
    cairo_destroy(cr);
    cairo_surface_finish(surface);
    const bool good = drawn && cairo_surface_status(surface) == CAIRO_STATUS_SUCCESS;
    cairo_surface_destroy(surface);
    return good;
}

} // namespace

std::string paintPdf(const Scene& scene, const std::string& title) {
    std::string bytes;
    cairo_surface_t* surface =
        cairo_pdf_surface_create_for_stream(append, &bytes, scene.width * points, scene.height * points);
    cairo_pdf_surface_restrict_to_version(surface, CAIRO_PDF_VERSION_1_5);
    // A date would make every export another file.
    cairo_pdf_surface_set_metadata(surface, CAIRO_PDF_METADATA_CREATE_DATE, "2000-01-01T00:00:00Z");
    cairo_pdf_surface_set_metadata(surface, CAIRO_PDF_METADATA_CREATOR, "Coulter");
    if (!title.empty()) cairo_pdf_surface_set_metadata(surface, CAIRO_PDF_METADATA_TITLE, title.c_str());
    return paintPage(surface, scene) ? bytes : std::string();
}

std::string paintEps(const Scene& scene, double dotsPerInch, const std::vector<std::string>& comments, bool isExact) {
    std::string bytes;
    cairo_surface_t* surface =
        cairo_ps_surface_create_for_stream(append, &bytes, scene.width * points, scene.height * points);
    cairo_ps_surface_restrict_to_level(surface, CAIRO_PS_LEVEL_3);
    cairo_ps_surface_set_eps(surface, 1);
    cairo_surface_set_fallback_resolution(surface, dotsPerInch, dotsPerInch);
    for (const std::string& comment : comments) cairo_ps_surface_dsc_comment(surface, comment.c_str());
    {
        // Cairo 1.16 forgets the bytes of each font that it writes into PostScript (some 7 kB a font and file).
        [[maybe_unused]] const LeaksOfLibraries allowed;
        if (!paintPage(surface, scene)) return {};
    }
    // A date would make every export another file, and the sheet is as large as it is, not as what is drawn on it.
    const auto digits = [](double value, int decimals) { // the same in every locale
        char text[64];
        return std::string(text,
                           std::to_chars(text, text + sizeof text, value, std::chars_format::fixed, decimals).ptr);
    };
    const double width = scene.width * points, height = scene.height * points;
    const std::string size = "0 0 " + digits(std::ceil(width), 0) + " " + digits(std::ceil(height), 0) + "\n",
                      exact = "%%HiResBoundingBox: 0 0 " + digits(width, 3) + " " + digits(height, 3) + "\n";
    const auto lineOf = [&](std::string_view key, const std::string& instead) {
        const auto at = bytes.find(key);
        if (at != std::string::npos) bytes.replace(at, bytes.find('\n', at) + 1 - at, instead);
    };
    lineOf("%%CreationDate: ", "");
    lineOf("%%HiResBoundingBox: ", "");
    lineOf("%%PageBoundingBox: ", "%%PageBoundingBox: " + size);
    lineOf("%%BoundingBox: ", "%%BoundingBox: " + size + exact);
    // Cairo puts the sheet's upper edge at the next whole point.
    const std::string move = "1 0 0 -1 0 " + digits(std::ceil(height), 0) + " cm";
    if (const auto at = bytes.find(move); isExact && at != std::string::npos)
        bytes.replace(at, move.size(), "1 0 0 -1 0 " + digits(height, 3) + " cm");
    return bytes;
}

} // namespace coulter
