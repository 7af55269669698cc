#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "composition/findings.h"
#include "dear/dear_recipes.h"
#include "plots/telling.h"
#include "rounds.h"

#include <catch2/catch.hpp>

using namespace coulter;

namespace {

Document documentOf(std::vector<std::string> page, const std::string& of, const char* kind = "line") {
    Document d;
    d.page = std::move(page);
    d.panels[0].plots.emplace_back();
    d.panels[0].plots[0].of = of;
    d.panels[0].plots[0].kind = kind;
    return d;
}

Figure drawn(const Document& document, double operations) {
    Effort effort = effortOf(document.sheet);
    effort.operations = operations;
    return drawFigure(document, effort);
}

const std::vector<std::string> nestedIntegrals{"g(x) = int_0^1 int_0^1 exp(-a b x) da db", "x in [0, 3]"};

} // namespace

TEST_CASE("documents made to be dear end with a figure or a sentence") {
    for (const DearRecipe& recipe : dearRecipes()) {
        INFO(recipe.name);
        const Figure figure =
            drawn(recipe.document, 1e6 * rounds(200)); // a part of the usual, so that the test is quick
        REQUIRE(figure.panels.size() == 1);
        const PanelFigure& panel = figure.panels[0];
        bool refused = false;
        for (const Problems& problems : panel.problems) refused = refused || !problems.empty();
        CHECK((refused || !panel.drawn.empty()));
        for (const Drawn& each : panel.drawn) {
            REQUIRE(each.parts[0].samples);
            if (isFinished(each)) continue;
            CHECK_FALSE(figure.finished);
            CHECK_FALSE(unfinished(each).sentence.empty());
            CHECK_FALSE(unfinished(each).suggestion.empty());
        }
    }
}

TEST_CASE("what is too dear is drawn as far as it goes, and said; patience finishes it") {
    const Document d = documentOf(nestedIntegrals, "g(x)");
    const Figure some = drawn(d, 3e6);
    REQUIRE(some.panels[0].drawn.size() == 1);
    const Drawn& curve = some.panels[0].drawn[0];
    CHECK_FALSE(some.finished);
    CHECK(isTooDear(curve));
    CHECK(curveSamplesOf(curve)->pointCount() > 1);
    CHECK(unfinished(curve).sentence.find("“g(x)” has integrals inside integrals") == 0);
    const auto findings = findingsOf(some);
    const auto said = std::ranges::find_if(findings, [](const Finding& f) { return f.canGoOn; });
    REQUIRE(said != findings.end());
    CHECK(said->where == ItemPath{ItemKind::Plot, 0, 0, 0});

    const Figure all = drawn(d, HUGE_VAL);
    CHECK(all.finished);
    CHECK(std::ranges::none_of(findingsOf(all), &Finding::canGoOn));
    CHECK(curveSamplesOf(all.panels[0].drawn[0])->pointCount() > 10);
}

TEST_CASE("not even one value: nothing is drawn, and that is said") {
    const Figure none = drawn(documentOf(nestedIntegrals, "g(x)"), 1e4);
    REQUIRE(none.panels[0].drawn.size() == 1);
    CHECK(curveSamplesOf(none.panels[0].drawn[0])->pointCount() == 0);
    CHECK(unfinished(none.panels[0].drawn[0]).sentence.find("not one value") != std::string::npos);
    const std::vector<std::string> page{"g(x, y) = int_0^1 int_0^1 exp(-a b x y) da db", "x in [0, 3]", "y in [0, 1]"};
    const Figure field = drawn(documentOf(page, "g(x, y)", "heatmap"), 1e4);
    REQUIRE(field.panels[0].drawn.size() == 1);
    CHECK(isTooDear(field.panels[0].drawn[0]));
}

TEST_CASE("a dear grid is thinned, a dear field is looked at evenly") {
    const std::vector<std::string> grid{"g(x, y) = int_0^1 exp(-a x y) da", "x in [0, 3], count 90",
                                        "y in [0, 1], count 90"};
    const Figure thin = drawn(documentOf(grid, "g(x, y)", "heatmap"), 5e6);
    const FieldSamples* samples = fieldSamplesOf(thin.panels[0].drawn[0]);
    CHECK(samples->tooDear);
    CHECK(samples->pointCount() < 8100);
    CHECK(samples->columns.front() == 0);
    CHECK(samples->columns.back() == 3);
    CHECK(fieldSamplesOf(drawn(documentOf(grid, "g(x, y)", "heatmap"), HUGE_VAL).panels[0].drawn[0])->pointCount() ==
          8100);
    const std::vector<std::string> mesh{"g(x, y) = int_0^1 exp(-a x y) da", "x in [0, 3]", "y in [0, 1]"};
    const Figure even = drawn(documentOf(mesh, "g(x, y)", "heatmap"), 5e6);
    CHECK_FALSE(fieldSamplesOf(even.panels[0].drawn[0])->isMesh());
    CHECK(fieldSamplesOf(even.panels[0].drawn[0])->tooDear);
}

TEST_CASE("effort is counted in operations: the same bits again, and beside others") {
    const Document d = documentOf(nestedIntegrals, "g(x)");
    const Figure one = drawn(d, 3e6), again = drawn(d, 3e6);
    CHECK(curveSamplesOf(one.panels[0].drawn[0])->stretches[0].y ==
          curveSamplesOf(again.panels[0].drawn[0])->stretches[0].y);
}
