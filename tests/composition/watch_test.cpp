#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "drawing/svg_writer.h"
#include "plots/level_proofs.h"
#include "plots/telling.h"

#include <catch2/catch.hpp>
#include <mutex>

using namespace coulter;

namespace {

Document watched(const std::string& formula) {
    Document d;
    d.page = {"f(x) = " + formula, "x in [0, 1]"};
    d.panels[0].plots.emplace_back();
    d.panels[0].plots[0].of = "f(x)";
    return d;
}

/// What is told of a figure while it is made.
struct Told {
    std::vector<Figure> pictures;
    std::vector<double> shares;
    std::vector<std::string> stages;
    std::mutex mutex;
    FigureWatch watch() {
        FigureWatch w;
        w.picture = [this](Figure figure) { pictures.push_back(std::move(figure)); };
        w.proving = [this](std::size_t panel, std::size_t drawn, std::size_t part, const CurveSamples& soFar) {
            const std::scoped_lock lock(mutex);
            CHECK(panel + drawn + part == 0);
            shares.push_back(soFar.certificate.share());
        };
        w.stage = [this](std::string_view doing, std::size_t done, std::size_t all) {
            const std::scoped_lock lock(mutex);
            CHECK(done <= all);
            if (stages.empty() || stages.back() != doing) stages.emplace_back(doing);
        };
        return w;
    }
};

const CurveSamples& curve(const Figure& figure) { return *curveSamplesOf(figure.panels[0].drawn[0]); }

} // namespace

TEST_CASE("a picture comes before its proofs, and what it shows stays unless a proof finds more") {
    const Document d = watched("prod_{k=1}^{60} sin(x + k)");
    Told told;
    const Figure whole = drawFigure(d, effortOf(d.sheet), {}, nullptr, told.watch());
    REQUIRE(told.pictures.size() == 1);
    const Figure& first = told.pictures[0];
    CHECK_FALSE(first.effort.proofs);
    CHECK(whole.effort.proofs);
    CHECK(curve(first).certificate.provenLength == 0);
    CHECK(curve(whole).certificate.share() > 0.99);
    CHECK(curve(first).pointCount() > 50);
    // The ribbon fills: shares grow.
    REQUIRE(told.shares.size() > 3);
    CHECK(std::ranges::is_sorted(told.shares));
    CHECK(told.shares.front() < told.shares.back());
    CHECK(told.stages == std::vector<std::string>{"reading", "looking", "sampling", "drawing"});
    // Who watches changes nothing.
    const Figure unwatched = drawFigure(d);
    CHECK(writeSvg(whole.scene, "", "") == writeSvg(unwatched.scene, "", ""));
    CHECK(curve(whole).stretches[0].x == curve(unwatched).stretches[0].x);
}

TEST_CASE("what is proven at once, or was before, comes as one picture") {
    Told quick;
    const Document plain = watched("sin(x)");
    drawFigure(plain, effortOf(plain.sheet), {}, nullptr, quick.watch());
    CHECK(quick.pictures.empty());

    const Document d = watched("prod_{k=1}^{60} sin(x + k)");
    SampleStore store;
    Told first, second;
    drawFigure(d, effortOf(d.sheet), {}, &store, first.watch());
    drawFigure(d, effortOf(d.sheet), {}, &store, second.watch());
    CHECK(first.pictures.size() == 1);
    CHECK(second.pictures.empty());
    CHECK(second.shares.empty());
}

TEST_CASE("a stop while curves are proven leaves a figure that is not finished") {
    const Document d = watched("sum_{k=1}^{300} cos(k x)/k");
    std::stop_source stop;
    FigureWatch watch;
    watch.proving = [&](std::size_t, std::size_t, std::size_t, const CurveSamples&) { stop.request_stop(); };
    const Figure figure = drawFigure(d, effortOf(d.sheet), stop.get_token(), nullptr, watch);
    CHECK_FALSE(figure.finished);
}

TEST_CASE("lines of levels are proven after the picture, once, and no byte depends on it") {
    Document d = watched("x");
    d.page = {"f(x, y) = sin(x) cos(y)", "x in [-3, 3]", "y in [-2, 2]"};
    d.panels[0].plots[0] = plotOf("f(x, y)", "contours");
    d.panels[0].plots.push_back(plotOf("f(x, y)", "filled contours"));
    Told told, again;
    SampleStore store;
    const Figure whole = drawFigure(d, effortOf(d.sheet), {}, &store, told.watch());
    REQUIRE(told.pictures.size() == 1);
    CHECK_FALSE(told.pictures[0].panels[0].drawn[0].levelProofs);
    CHECK(told.stages.back() == "proving");
    for (const Drawn& drawn : whole.panels[0].drawn) {
        REQUIRE(drawn.levelProofs);
        CHECK(drawn.levelProofs->size() > 5);
        for (const LevelProof& each : *drawn.levelProofs) {
            CAPTURE(each.level);
            if (each.proof.length > 0)
                CHECK(each.proof.share() > (each.level == 0 ? 0.99 : 0.9999)); // at zero lines cross
            CHECK(each.proof.unsettledArea <= 1e-6 * each.proof.area);
        }
        CHECK(summaryOf(drawn, whole.effort).find(" % proven, ") != std::string::npos);
    }
    CHECK(writeSvg(whole.scene, "", "") == writeSvg(drawFigure(d).scene, "", ""));

    drawFigure(d, effortOf(d.sheet), {}, &store, again.watch());
    CHECK(again.pictures.empty()); // it is known
}

TEST_CASE("where nothing can be proven of levels nothing is said") {
    Document d = watched("x");
    d.page = {"f(x, y) = int_0^x cos(y k^2) dk", "x in [-3, 3]", "y in [-2, 2]"};
    d.panels[0].plots[0] = plotOf("f(x, y)", "contours");
    Told told;
    const Figure figure = drawFigure(d, effortOf(d.sheet), {}, nullptr, told.watch());
    CHECK_FALSE(figure.panels[0].drawn[0].levelProofs);
    CHECK(summaryOf(figure.panels[0].drawn[0], figure.effort).find("proven") == std::string::npos);
}
