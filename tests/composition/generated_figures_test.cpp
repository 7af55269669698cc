// Figures by the dozen, made up by chance: nothing that is written on them touches anything else that is, or leaves the
// sheet.
#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "drawing/scene_extent.h"
#include "figure/scale_settings.h"
#include "figure/sheet_settings.h"
#include "formula/lines/read_page.h"
#include "plots/plot_kind.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <random>

using namespace coulter;

namespace {

const std::vector<std::string> pageOfFunctions{
    "f(x) = sin(x) + 0.3 x, unit kPa, label \"Suction\"",
    "w(x) = 120000 + 30 cos(x)",
    "u(x) = exp(2 x)",
    "T(x, a) = exp(-a x^2) cos(3 x)",
    "g(x, y) = 1000 x y exp(-x^2 - y^2), unit m, label \"Water table above the datum of the survey\"",
    "v(x, y) = (y, -x)",
    "c(t) = (cos(t), sin(2 t))",
    "s(t) = (cos(t), sin(t), t)",
    "x in [-3, 3], unit m, label \"Distance from the drain\"",
    "y in [-2, 2]",
    "t in [0, 5]",
    "a in [0, 2]",
    "n in [-3, 3], count 9",
    "d = {-2, -1.5, -1.2, -0.4, 0, 0.1, 0.5, 0.6, 1.1, 1.3, 1.8, 2.5}"};

/// Draws lots that are the same wherever the test runs.
class Lots {
public:
    explicit Lots(unsigned seed) : engine_(seed) {}
    std::size_t below(std::size_t count) { return engine_() % count; }
    bool oneIn(std::size_t count) { return below(count) == 0; }
    template <class T> T of(std::initializer_list<T> all) { return all.begin()[below(all.size())]; }

private:
    std::mt19937 engine_;
};

Plot somePlot(Lots& lots) {
    const Page read = readPage(pageOfFunctions);
    const auto [of, kind] = lots.of<std::pair<const char*, const char*>>({{"f(x)", "line"},
                                                                          {"f(x)", "line"},
                                                                          {"w(x)", "line"},
                                                                          {"u(x)", "line"},
                                                                          {"T(x, a) for a in {0.1, 0.5, 2}", "line"},
                                                                          {"g(x, y)", "heatmap"},
                                                                          {"g(x, y)", "heatmap"},
                                                                          {"g(x, y)", "surface"},
                                                                          {"v(x, y)", "arrows"},
                                                                          {"c(t)", "line"},
                                                                          {"s(t)", "line"},
                                                                          {"f(n)", "markers"},
                                                                          {"d", "histogram"}});
    if (std::string(kind) == "surface") return plotOf(of, kind);
    const std::vector<const PlotKind*> kinds = kindsThatFit(read, plotOf(of, kind));
    return plotOf(of, kinds[lots.below(kinds.size())]->name);
}

Panel somePanel(Lots& lots) {
    Panel panel;
    panel.plots = {somePlot(lots)};
    const std::string of = panel.plots[0].of;
    if (of == "f(x)" && panel.plots[0].kind == "line" && lots.oneIn(2)) {
        panel.plots.push_back(plotOf("w(x)"));
        panel.further = {Axis{}};
        panel.plots[1].scale = 1;
        if (lots.oneIn(2)) {
            panel.plots.push_back(plotOf("u(x)"));
            panel.further.push_back(Axis{});
            panel.plots[2].scale = 2;
            panel.further[1].scale = ScaleKind::Logarithmic;
        }
    }
    if (lots.oneIn(2))
        panel.title = lots.of({"Suction", "Suction over the distance from the drain, $\\sum_{k=1}^{n} k^2$"});
    if (lots.oneIn(4))
        panel.x.label = "A label that is longer than most of those that people write by hand $\\beta$ / m";
    if (lots.oneIn(4)) panel.y.label = "$\\int_0^x f(\\xi)\\,d\\xi$";
    if (lots.oneIn(3)) panel.plots[0].name = "an entry with quite a few words in it";
    panel.legend.place = lots.of({LegendPlace::Automatic, LegendPlace::Automatic, LegendPlace::Outside,
                                  LegendPlace::AtEnds, LegendPlace::Left, LegendPlace::Above, LegendPlace::Below});
    panel.legend.columns = lots.of({0, 0, 2});
    if (lots.oneIn(4)) set(panel.colour.settings, barSetting, lots.of<std::string>({"left", "above", "below"}));
    return panel;
}

Document someDocument(unsigned seed) {
    Lots lots(seed);
    Document document;
    document.page = pageOfFunctions;
    document.panels.clear();
    const std::size_t columns = lots.of<std::size_t>({1, 1, 1, 2, 3}),
                      rows = columns == 1 ? lots.of<std::size_t>({1, 1, 2}) : 2;
    for (std::size_t k = 0; k < columns * rows; ++k) {
        document.panels.push_back(somePanel(lots));
        document.panels.back().cell = Cell{static_cast<int>(k / columns), static_cast<int>(k % columns)};
    }
    Sheet& sheet = document.sheet;
    sheet.width = lots.of({60.0, 85.0, 120.0, 170.0, 400.0}) * (columns == 1 ? 1 : static_cast<double>(columns) * 0.8);
    sheet.height =
        std::max(30.0 * static_cast<double>(rows),
                 sheet.width * lots.of({0.5, 0.7, 1.0}) * static_cast<double>(rows) / static_cast<double>(columns));
    sheet.textSize = lots.of({7.0, 9.0, 9.0, 12.0}) * (sheet.width > 300 ? 2 : 1);
    sheet.tolerance = 0.1;
    sheet.resolution = 60;
    if (lots.oneIn(3)) set(sheet.settings, sheetTitleSetting, std::string("All of the field trial of the spring"));
    if (lots.oneIn(2)) set(sheet.settings, lettersSetting, std::string("(a)"));
    if (columns > 1 && lots.oneIn(3)) set(sheet.settings, sharedAcrossSetting, std::string("columns"));
    if (columns > 1 && lots.oneIn(4)) set(sheet.settings, sheetLegendSetting, lots.of<std::string>({"right", "below"}));
    return document;
}

struct Written {
    std::string text;
    Rect rect;
};

/// What is written beside and over the plots, each piece with the rectangle round its letters.
std::vector<Written> writtenOn(const Figure& figure) {
    std::vector<Written> all;
    for (std::size_t i = 0; i < figure.scene.items.size(); ++i) {
        const auto* glyphs = std::get_if<GlyphItem>(&figure.scene.items[i]);
        if (!glyphs || glyphs->glyphs.empty()) continue;
        if (std::ranges::any_of(figure.owned, [&](const Owned& by) { return i >= by.first && i < by.last; })) continue;
        Scene alone;
        alone.width = figure.scene.width;
        alone.height = figure.scene.height;
        alone.items = {*glyphs};
        std::string text;
        for (const PlacedGlyph& glyph : glyphs->glyphs) text += glyph.text;
        all.push_back({text, extentOf(alone)});
    }
    return all;
}

} // namespace

TEST_CASE("on figures made up by chance nothing that is written touches anything else, or leaves the sheet") {
    for (unsigned seed = 1; seed <= 160; ++seed) {
        const Document document = someDocument(seed);
        const Figure figure = drawFigure(document);
        INFO("figure " << seed << ", " << document.sheet.width << " x " << document.sheet.height << " mm");
        const std::vector<Written> all = writtenOn(figure);
        CHECK(all.size() > document.panels.size());
        // What lies beyond the sheet has no extent, what reaches over its edge ends there.
        const Rect inside{0.05, 0.05, document.sheet.width - 0.1, document.sheet.height - 0.1};
        for (std::size_t a = 0; a < all.size(); ++a) {
            const Rect& p = all[a].rect;
            INFO("“" << all[a].text << "” at " << p.x << ", " << p.y);
            CHECK((inside.contains({p.x, p.y}) && inside.contains({p.right(), p.bottom()})));
            for (std::size_t b = 0; b < a; ++b) {
                const Rect& q = all[b].rect;
                INFO("“" << all[b].text << "” at " << q.x << ", " << q.y);
                CHECK_FALSE((std::min(p.right(), q.right()) - std::max(p.x, q.x) > 0.1 &&
                             std::min(p.bottom(), q.bottom()) - std::max(p.y, q.y) > 0.1));
            }
        }
        if (figure.panels.size() == 1) continue;
        for (const Hit& hit : figure.hits) { // and no panel stands on the words of another
            if (hit.path.kind != ItemKind::ScaleLabel && hit.path.kind != ItemKind::Title) continue;
            for (std::size_t p = 0; p < figure.panels.size(); ++p)
                CHECK_FALSE((p != hit.path.panel && figure.panels[p].frame().rect.intersects(hit.rect)));
        }
    }
}

TEST_CASE("the test above sees what touches") {
    Document document = someDocument(1);
    document.format = 5;
    document.sheet = {400, 280, 24, 0.1, 60};
    document.panels = {Panel{}};
    document.panels[0].plots = {plotOf("f(x)")};
    document.panels[0].y.limits = Limits{0, 1};
    document.panels[0].y.label = "$\\int_0^x f(\\xi)\\,d\\xi$";
    const auto touches = [](const Figure& figure) {
        const std::vector<Written> all = writtenOn(figure);
        for (const Written& one : all) {
            for (const Written& other : all) {
                if (&one != &other && one.rect.intersects(other.rect)) return true;
            }
        }
        return false;
    };
    CHECK(touches(drawFigure(document))); // up to format 5, with letters so large
    document.format = newestFormat;
    CHECK_FALSE(touches(drawFigure(document)));
}
