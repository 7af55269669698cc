#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "composition/findings.h"
#include "drawing/colour_maps.h"
#include "figure/edits.h"
#include "figure/scale_settings.h"
#include "make_document.h"
#include "plots/common_settings.h"
#include "plots/dashes.h"

#include <algorithm>
#include <catch2/catch.hpp>

using namespace coulter;

namespace {

/// Twelve members, whose colours say their values.
Document family() {
    Document d = document({"f(x, k) = k x^2", "x in [0, 1]", "k in [0, 60], unit min, label \"Duration\""},
                          {"f(x, k) for k in {5, 10, ..., 60}"});
    set(d.panels[0].plots[0].settings, runSetting, std::string("a scale of colours"));
    return d;
}

const StrokeItem& strokeOf(const Figure& figure, const ItemPath& path) {
    const auto owned = std::ranges::find_if(figure.owned, [&](const Owned& each) { return each.path == path; });
    REQUIRE(owned != figure.owned.end());
    return std::get<StrokeItem>(figure.scene.items[owned->first]);
}

} // namespace

TEST_CASE("colours of a long family say its values, on a bar instead of in the legend") {
    const Figure figure = drawFigure(family());
    const PanelFigure& panel = figure.panels[0];
    REQUIRE(panel.problems[0].empty());
    REQUIRE(panel.drawn.size() == 12);
    CHECK(panel.layout.legend.entries.empty());
    REQUIRE(panel.layout.colours.shown);
    CHECK(panel.layout.labels.colour == "Duration $k$ / min");
    const AxisMap& scale = panel.frame().colour;
    CHECK(scale.low <= 5);
    CHECK(scale.high >= 60);
    for (const Drawn& drawn : panel.drawn) {
        REQUIRE(drawn.caseValue == 5.0 * (static_cast<double>(drawn.path.part) + 1));
        const double share = (*drawn.caseValue - scale.low) / (scale.high - scale.low);
        CHECK(drawn.colour == colourAt(colourMapNamed("loam"), share));
        CHECK(strokeOf(figure, drawn.path).colour == drawn.colour);
    }
}

TEST_CASE("the scale of a family's colours is set like that of a field") {
    Document d = family();
    d.panels[0].colour.limits = Limits{0, 120};
    set(d.panels[0].colour.settings, mapSetting, std::string("seasons"));
    Figure figure = drawFigure(d);
    REQUIRE(figure.panels[0].drawn.size() == 12);
    CHECK(figure.panels[0].frame().colour.high == 120);
    CHECK(figure.panels[0].drawn[11].colour == colourAt(colourMapNamed("seasons"), 0.5));
    d.panels[0].colour.limits.reset();
    d.panels[0].colour.scale = ScaleKind::Logarithmic;
    figure = drawFigure(d);
    const AxisMap& scale = figure.panels[0].frame().colour;
    CHECK(scale.kind == ScaleKind::Logarithmic);
    CHECK(figure.panels[0].drawn[0].colour ==
          colourAt(colourMapNamed("seasons"), std::log(5 / scale.low) / std::log(scale.high / scale.low)));
    // One that was given a colour of its own says nothing by it, and has an entry.
    Plot& plot = d.panels[0].plots[0];
    set(memberOf(plot, 3).settings, colourSetting, Colour{1, 2, 3});
    plot.members[3].name = "the usual one";
    d.panels[0].legend.place = LegendPlace::TopLeft;
    figure = drawFigure(d);
    CHECK(figure.panels[0].drawn[3].colour == Colour{1, 2, 3});
    CHECK(figure.panels[0].layout.legend.drawn == std::vector<std::size_t>{3});
}

TEST_CASE("a legend that is too long is mended by a scale of colours") {
    Document d = family();
    d.panels[0].plots[0].settings.clear();
    d.panels[0].legend.place = LegendPlace::Outside;
    const auto found = findingsOf(drawFigure(d));
    const auto finding = std::ranges::find_if(
        found, [](const Finding& each) { return each.said.sentence.find("more than eight") != std::string::npos; });
    REQUIRE(finding != found.end());
    REQUIRE(finding->fixed);
    const Figure mended = drawFigure(*finding->fixed);
    CHECK(mended.panels[0].layout.legend.entries.empty());
    CHECK(mended.panels[0].layout.colours.shown);
}

TEST_CASE("members whose values the scale of colours has no place for are pointed out once") {
    const auto sentences = [](const Document& d) {
        std::vector<std::string> found;
        for (const Finding& each : findingsOf(drawFigure(d))) {
            if (each.said.sentence.find("of colours") != std::string::npos) found.push_back(each.said.sentence);
        }
        return found;
    };
    Document d = family();
    CHECK(sentences(d).empty());
    d.panels[0].colour.limits = Limits{20, 40};
    REQUIRE(sentences(d).size() == 1); // 5, 10, 15 and 45 to 60 lie outside
    CHECK(sentences(d)[0].find("58 %") != std::string::npos);
    d.panels[0].colour.limits.reset();
    d.panels[0].plots[0].of = "f(x, k) for k in {-10, 0, ..., 60}";
    d.panels[0].colour.scale = ScaleKind::Logarithmic;
    REQUIRE(sentences(d).size() == 1);
    CHECK(sentences(d)[0].find("2 of 8 values are not positive") != std::string::npos);
}

TEST_CASE("lines and notes have dashes of their own") {
    Document d = document({"f(x) = x^2", "x in [0, 1]", "a = 4"}, {"f(x)", "1/2"});
    d.panels[0].plots[1].kind = "reference line";
    for (Plot& plot : d.panels[0].plots) set(plot.settings, dashesSetting, std::string("{6, 1.5, 0, a/2}"));
    Note note;
    note.kind = "line";
    note.at = {{"0", "0"}, {"1", "1"}};
    set(note.settings, dashesSetting, std::string("{1, 2}"));
    d.panels[0].notes.push_back(note);
    const Figure figure = drawFigure(d);
    for (std::size_t p = 0; p < 2; ++p)
        CHECK(strokeOf(figure, {ItemKind::Plot, 0, p, 0}).dashes == std::vector<double>{6, 1.5, 0.01, 2});
    CHECK(strokeOf(figure, {ItemKind::Note, 0, 0, 0}).dashes == std::vector<double>{1, 2});
}

TEST_CASE("dashes that are none are refused in a sentence, and the line is drawn") {
    for (const char* wrong : {"{1, 2, 3}", "{1}", "{-1, 2}", "{0, 0}", "{1, 2000}", "b", "1 +", "{1, 0/0}"}) {
        INFO(wrong);
        Document d = document({"f(x) = x^2", "x in [0, 1]"}, {"f(x)"});
        set(d.panels[0].plots[0].settings, dashesSetting, std::string(wrong));
        const Figure figure = drawFigure(d);
        REQUIRE(figure.panels[0].problems[0].size() == 1);
        CHECK(figure.panels[0].problems[0][0].sentence.starts_with("“dashes”: "));
        CHECK_FALSE(figure.panels[0].problems[0][0].suggestion.empty());
        CHECK(strokeOf(figure, {ItemKind::Plot, 0, 0, 0}).dashes.empty());
    }
}
