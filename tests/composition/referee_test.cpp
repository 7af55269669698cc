#include "composition/draw_figure.h"
#include "composition/referee.h"
#include "figure/scale_settings.h"
#include "figure/settings.h"
#include "figure/sheet_looks.h"
#include "figure/sheet_settings.h"
#include "make_document.h"
#include "notes/note_settings.h"
#include "plots/common_settings.h"

#include <algorithm>
#include <catch2/catch.hpp>

using namespace coulter;

namespace {

/// A document that provokes one remark.
struct Provoked {
    const char* name;
    Document document;
};

Document wide(Document d) {
    d.panels[0].x.label = "Place $x$";
    d.panels[0].y.label = "Value";
    return d;
}

std::vector<Provoked> provoked() {
    std::vector<Provoked> all;
    const std::vector<std::string> page{"f(x) = sin(x)",        "g(x) = sin(x) + 1e-9", "h(x) = 1000 x",
                                        "p(x) = 3 + x, unit m", "x in [0, 10], unit s", "c(t) = (cos(t), sin(t))",
                                        "t in [0, 6]",          "k(u, v) = u v",        "u in [0, 1]",
                                        "v in [0, 1]"};
    const auto with = [&](std::vector<std::string> plots) { return wide(document(page, std::move(plots))); };
    {
        Document d = document(page, {"f(x)", "h(x) + p(x)"});
        all.push_back({"no label", d});
    }
    {
        Document d = with({"p(x)"});
        d.panels[0].x.label.reset();
        d.panels[0].y.label = "Height";
        all.push_back({"unit missing", d});
        d.panels[0].y.label = "Height / km";
        all.push_back({"wrong unit", d});
    }
    {
        Document d = with({"f(x)"});
        d.page.push_back("a = 2.5");
        d.page.push_back("b = a");
        d.panels[0].title = "With $a = 3$ and $b = {b}$";
        all.push_back({"wrong value", d});
    }
    {
        Document d = with({"c(t)"});
        d.panels[0].equalScales = false;
        all.push_back({"unequal scales", d});
    }
    {
        Document d = with({});
        d.panels[0].plots = {plotOf("k(u, v)", "surface")};
        d.panels[0].view.elevation = 0;
        all.push_back({"seen edge on", d});
    }
    {
        Document d = wide(document({"k(u, v) = u v", "u in [0, 1], count 400", "v in [0, 1], count 400"}, {}));
        d.panels[0].plots = {plotOf("k(u, v)", "surface")};
        set(d.sheet.settings, surfacesSetting, std::string("vectors"));
        all.push_back({"too many polygons", d});
    }
    {
        Document d = wide(document({"a = {1, 2, 3}", "b = {1, 2, 30}"}, {}));
        d.panels[0].plots = {plotOf("(a, b)", "points")};
        d.panels[0].y.limits = Limits{0, 5};
        all.push_back({"outside the limits", d});
    }
    {
        Document d = with({});
        d.panels[0].plots = {plotOf("k(u, v)", "heatmap")};
        d.panels[0].colour.limits = Limits{0.2, 0.4};
        all.push_back({"colours cut", d});
        d.panels[0].colour.limits.reset();
        d.sheet.resolution = 100;
        all.push_back({"coarse dots", d});
    }
    {
        Document d = with({"f(x)"});
        d.panels[0].y.scale = ScaleKind::Logarithmic;
        all.push_back({"dropped by a logarithm", d});
    }
    all.push_back({"curves coincide", with({"f(x)", "g(x)"})});
    all.push_back({"drawn twice", with({"f(x)", "f(x)"})});
    all.push_back({"flat curve", with({"h(x)", "f(x)"})});
    {
        Document d = wide(document({"f(x) = sin(x)", "x in [0, 6], step 1"}, {"f(x)"}));
        all.push_back({"grid too coarse", d});
        d.page[1] = "x in [0, 2pi], count 101";
        all.push_back({"doubled end", d});
    }
    {
        Document d = with({"f(x)"});
        d.sheet.textSize = 5;
        all.push_back({"small letters", d});
    }
    {
        Document d = with({"f(x)"});
        set(d.panels[0].plots[0].settings, widthSetting, 0.05);
        all.push_back({"thin line", d});
    }
    {
        Document d = with({"f(x)", "cos(x)"});
        set(d.panels[0].plots[0].settings, colourSetting, Colour{200, 60, 60});
        set(d.panels[0].plots[1].settings, colourSetting, Colour{203, 62, 58});
        all.push_back({"like colours", d});
    }
    {
        Document d = with({"f(x)", "cos(x)"}); // as dark as the paper, which was white when it was chosen
        set(d.panels[0].plots[1].settings, colourSetting, Colour{0x1f, 0x1d, 0x1a});
        setLook(d.sheet, *sheetLookNamed("dark slide"));
        all.push_back({"faint plot", d});
    }
    {
        Document d = with({"f(k x) for k in {0.2, 0.3, ..., 1.4}"});
        d.panels[0].legend.place = LegendPlace::Outside;
        all.push_back({"long legend", d});
    }
    {
        Document d = with({"f(x)", "cos(x)"});
        d.panels[0].legend.place = LegendPlace::TopLeft;
        d.panels[0].legend.at = std::array<double, 2>{30, 30};
        all.push_back({"covered curve", d});
    }
    {
        Document d = with({"f(x)"});
        d.panels[0].notes = {{"text", "Far out on the right of the sheet", {{"10", "0.5"}}, {}}};
        all.push_back({"note off the sheet", d});
    }
    {
        Document d = with({"p(x)"});
        d.page.push_back("q_0 = {1, 2, 3}, unit s");
        d.page.push_back("q_1 = {310, 420, 530}, unit cm");
        d.panels[0].plots.push_back(plotOf("(q_0, q_1)", "points"));
        all.push_back({"other units", d});
    }
    {
        Document d = with({"p(x) + d_0"});
        d.page.push_back("d_0 = 20, unit cm");
        all.push_back({"units in a plot", d});
    }
    {
        Document d = with({"f(x)"});
        d.panels.emplace_back();
        all.push_back({"empty panel", d});
        Document undrawn;
        undrawn.page = {"f(x, g, d) = g sin(x) + d"};
        all.push_back({"undrawn function", undrawn});
    }
    {
        Document d = with({"f(x)"});
        d.page.push_back("zeta_0 = 3");
        all.push_back({"unused quantity", d});
    }
    return all;
}

std::vector<Finding> foundBy(const Check& check, const Document& document) {
    std::vector<Finding> found;
    check.look(drawFigure(document), found);
    return found;
}

} // namespace

TEST_CASE("every remark is provoked, names its place, and its remedy takes it away") {
    const std::vector<Provoked> all = provoked();
    CHECK(refereeChecks().size() >= 20);
    for (const Check* check : refereeChecks()) {
        INFO(check->name);
        const auto at = std::ranges::find(all, std::string_view(check->name),
                                          [](const Provoked& each) { return std::string_view(each.name); });
        REQUIRE(at != all.end());
        const std::vector<Finding> found = foundBy(*check, at->document);
        REQUIRE(found.size() == 1);
        CHECK(found[0].said.sentence.ends_with("."));
        CHECK(hasItem(at->document, found[0].where));
        REQUIRE(found[0].fixed);
        CHECK_FALSE(found[0].remedy.empty());
        INFO(found[0].said.sentence << " " << found[0].remedy);
        CHECK(*found[0].fixed != at->document);
        CHECK(foundBy(*check, *found[0].fixed).empty());
        // All findings of the figure hold it once.
        const std::vector<Finding> everything = findingsOf(drawFigure(at->document));
        CHECK(std::ranges::count(everything, found[0].said.sentence,
                                 [](const Finding& each) { return each.said.sentence; }) == 1);
    }
}

TEST_CASE("a good figure has nothing to remark") {
    Document d =
        document({"f(x) = a sin(x), unit m, label \"Height\"", "a = 2, unit m", "x in [0, 10], unit s, label \"Time\""},
                 {"f(x)"});
    d.panels[0].title = "A wave of {a}";
    d.panels[0].notes = {{"callout", "", {{"2", "f(2)"}, {"5", "1.5"}}, {}}};
    for (const Finding& finding : findingsOf(drawFigure(d))) FAIL(finding.said.sentence);
    // Said rightly, with fewer digits than the page has, is no contradiction.
    d.page[1] = "a = 2.0412, unit m";
    d.panels[0].title = "With $a = 2.04$ m";
    for (const Finding& finding : findingsOf(drawFigure(d))) FAIL(finding.said.sentence);
}
