#include "composition/pointing.h"
#include "figure/scale_settings.h"
#include "files/export.h"
#include "files/file_access.h"
#include "files/recipe.h"
#include "hands.h"
#include "plots/plot_kind.h"
#include "plots/table.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLineEdit>
#include <QMenu>
#include <QTemporaryDir>
#include <QToolButton>
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

using namespace coulter;

TEST_CASE("readings typed as columns become points with error bars over a theoretical curve on log-log scales") {
    WindowDriver d;
    write(d, {"x in [0.1, 100], logarithmic, unit s", "f(x) = 2 x^1.5, unit m"});
    d.window().page().addLine();
    d.type("t = {0.2, 1, 5, 20, 80}, unit s");
    d.key(Qt::Key_Return);
    d.type("s = {0.2, 1.9, 24, 170, 1500}, unit m");
    d.key(Qt::Key_Return);
    d.key(Qt::Key_Return);
    d.settle();
    d.window().page().selectLine(static_cast<int>(documentOf(d).page.size()) - 1);
    add(d, "(t, s) as error bars");
    REQUIRE(documentOf(d).panels[0].plots.size() == 2);
    CHECK(d.sheet()->selection() == WindowDriver::plot(1));
    enter(d, "setting-error up", "0.1 s + 0.05");
    selectScale(d, upScale);
    choose(d, "axisScale", "logarithmic");
    const Figure& figure = d.figure().figure;
    CHECK(d.figure().complete);
    CHECK(frameOf(d).map.x.kind == ScaleKind::Logarithmic);
    CHECK(frameOf(d).map.y.kind == ScaleKind::Logarithmic);
    const Drawn* drawn = drawnAt(figure, WindowDriver::plot(1));
    REQUIRE(drawn);
    CHECK(tableOf(*drawn).columns == std::vector<std::string>{"t", "s", "s least", "s greatest"});
    CHECK(frameOf(d).map.y.low <= 0.13); // the lowest bar is in view
    // The pointer tells the reading.
    d.move(d.sheet(), d.sheet()->toWidget(frameOf(d).onSheet(5, 24)));
    CHECK(d.sheet()->readOut().contains("row 3:"));
    // Undo, redo, export, reopen.
    const Document finished = documentOf(d);
    d.sheet()->setFocus();
    d.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(documentOf(d) != finished);
    d.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    CHECK(documentOf(d) == finished);
    const QTemporaryDir folder;
    const QString pdf = folder.filePath("figure.pdf");
    d.window().exportTo(pdf);
    d.settle();
    CHECK(exportFigure(finished, *findFormat("pdf")).bytes == readFile(pdf.toStdString()).bytes);
}

TEST_CASE("five hundred seeded random numbers are a histogram with their density over it, and its edges are dragged") {
    WindowDriver d;
    write(d, {"X ~ N(2, 0.5^2), count 500"});
    CHECK(documentOf(d).page[0].find(", seed ") != std::string::npos); // chosen, and kept
    REQUIRE(documentOf(d).panels[0].plots.size() == 1);
    CHECK(documentOf(d).panels[0].plots[0].kind == "histogram");
    d.window().page().addLine();
    d.type("p(x) = exp(-(x - 2)^2/(2 * 0.25))/sqrt(2 pi * 0.25)");
    d.key(Qt::Key_Return);
    d.key(Qt::Key_Return);
    d.settle();
    d.sheet()->select(WindowDriver::plot(0));
    choose(d, "setting-shows", "density");
    // The ribbon says what the columns are, and has room for it: there is no variable to be sampled.
    auto* way = d.find<QWidget>("samplingWay");
    REQUIRE(way);
    CHECK_FALSE(way->parentWidget()->isVisible());
    // The area under both is one.
    const SampleTable before = tableOf(*drawnAt(d.figure().figure, WindowDriver::plot(0)));
    double area = 0;
    for (std::size_t i = 0; i < before.rows; ++i)
        area += before.number(i, 1) * (before.number(i, 2) - before.number(i, 0));
    CHECK(area == Approx(1));
    const double edge = before.number(4, 0), next = before.number(4, 2), height = before.number(4, 1);
    const auto place = [&](double x) { return d.sheet()->toWidget(frameOf(d).onSheet(x, height / 2)); };
    d.drag(d.sheet(), place(edge), place(edge + 0.8 * (next - edge)));
    d.settle();
    const SampleTable after = tableOf(*drawnAt(d.figure().figure, WindowDriver::plot(0)));
    CHECK(after.number(4, 0) == Approx(edge + 0.8 * (next - edge)).margin(0.02));
    CHECK(after.number(5, 0) == Approx(next));
}

TEST_CASE("bars are turned from upright to lying and back") {
    WindowDriver d;
    write(d, {"a = {3, 5, 2}"});
    d.window().page().selectLine(0);
    add(d, "a as bars");
    const Document upright = documentOf(d);
    choose(d, "setting-direction", "lying");
    CHECK(frameOf(d).map.x.high >= 5); // values to the right
    CHECK(frameOf(d).map.y.high == Approx(3.5));
    choose(d, "setting-direction", "upright");
    CHECK(documentOf(d) == upright);
    CHECK(frameOf(d).map.y.high >= 5);
}

TEST_CASE("a star of joined points") {
    WindowDriver d;
    write(d, {"j in [0, 8), step 1", "g(j) = (cos(6 pi j/8), sin(6 pi j/8))"});
    d.sheet()->select(WindowDriver::plot(0));
    choose(d, "plotKind", "points");
    choose(d, "setting-joined", "closed");
    const Drawn* drawn = drawnAt(d.figure().figure, WindowDriver::plot(0));
    REQUIRE(drawn);
    REQUIRE(columnsOf(*drawn));
    CHECK(columnsOf(*drawn)->rows() == 8);
    d.click(d.sheet(), d.sheet()->toWidget(frameOf(d).onSheet(1, 0)));
    CHECK(d.sheet()->selection() == WindowDriver::plot(0));
}

TEST_CASE("a radius over an angle with the zero to the north, clockwise") {
    WindowDriver d;
    write(d, {"phi in [0, 2pi]", "r(phi) = 1 + cos(phi)"});
    d.sheet()->select(WindowDriver::plot(0));
    choose(d, "plotKind", "polar");
    REQUIRE(frameOf(d).polar);
    d.sheet()->select({});
    d.settle();
    choose(d, "setting-zero", "north");
    selectScale(d, acrossScale);
    tick(d, "setting-reversed");
    CHECK(frameOf(d).polar->zero == Approx(std::numbers::pi / 2));
    CHECK(frameOf(d).polar->sense == -1);
    // The wheel brings the middle nearer.
    const double before = frameOf(d).polar->radius.high;
    d.wheel(d.sheet(), d.sheet()->toWidget(frameOf(d).polar->middle), 2);
    d.settle();
    CHECK(frameOf(d).polar->radius.high < before);
}

TEST_CASE("depth grows downwards, in another unit, and dragging the scale follows the hand") {
    WindowDriver d;
    write(d, {"z in [0, 3], unit m", "c(z) = (exp(-z) sin(5z), z), unit m"});
    selectScale(d, upScale);
    tick(d, "setting-reversed");
    CHECK(frameOf(d).downwards);
    enter(d, "setting-shown in", "cm");
    CHECK(d.figure().figure.panels[0].layout.labels.up.find("cm") != std::string::npos);
    CHECK(frameOf(d).onSheet(0, 3).y > frameOf(d).onSheet(0, 0).y);
    const Limits before{frameOf(d).map.y.low, frameOf(d).map.y.high};
    for (const Hit& hit : d.figure().figure.hits) {
        if (hit.path.kind != ItemKind::Scale || hit.path.index != upScale) continue;
        const QPointF from = d.sheet()->toWidget({hit.rect.x + hit.rect.width / 2, hit.rect.y + hit.rect.height / 2});
        d.drag(d.sheet(), from, from + QPointF(0, 40));
        break;
    }
    d.settle();
    CHECK(frameOf(d).map.y.low < before.low); // pulled down: smaller depths come into view
    enter(d, "axisLow", "");
    CHECK_FALSE(documentOf(d).panels[0].y.limits.low);
    CHECK(documentOf(d).panels[0].y.limits.high);
}

TEST_CASE("tan x over multiples of pi, with its asymptotes and a reference line that is dragged") {
    WindowDriver d;
    write(d, {"x in [-2pi, 2pi]", "f(x) = tan(x)"});
    d.sheet()->select(WindowDriver::plot(0));
    tick(d, "setting-asymptotes");
    selectScale(d, acrossScale);
    choose(d, "setting-numbers", "multiples of π");
    CHECK(d.figure().figure.panels[0].layout.xTicks.labels.front() == "-2π");
    Document document = documentOf(d);
    document.panels[0].plots.push_back(plotOf("1", "reference line"));
    document.panels[0].y.limits = Limits{-4, 4};
    d.window().session().edit(document, "line");
    d.settle();
    const auto at = [&](double y) { return d.sheet()->toWidget(frameOf(d).onSheet(0.5, y)); };
    d.click(d.sheet(), at(1));
    CHECK(d.sheet()->selection() == WindowDriver::plot(1));
    d.dragSlowly(d.sheet(), at(1), at(2.5));
    d.settle();
    CHECK(std::stod(documentOf(d).panels[0].plots[1].of) == Approx(2.5).margin(0.1));
    CHECK(documentOf(d).panels[0].y.limits == AxisLimits(Limits{-4, 4})); // the view stayed
    d.sheet()->setFocus();
    d.key(Qt::Key_Z, Qt::ControlModifier);
    d.settle();
    CHECK(documentOf(d).panels[0].plots[1].of == "1");
}

TEST_CASE("settings that are rarely wanted are folded away, and a member of a family is set by itself") {
    WindowDriver d;
    write(d, {"f(x, k) = k x"});
    Document document;
    document.page = {"f(x, k) = k x", "x in [0, 1]"};
    document.panels[0].plots = {plotOf("f(x, k) for k in {1, 2, 3}")};
    d.window().session().start(document, "");
    d.settle();
    d.sheet()->select(WindowDriver::plot(0, 1));
    d.settle();
    auto* opacity = d.find<QWidget>("setting-opacity");
    REQUIRE(opacity);
    CHECK_FALSE(opacity->isVisible());
    auto* more = d.find<QToolButton>("unfold");
    REQUIRE(more);
    more->setFocus();
    d.key(Qt::Key_Space);
    CHECK(opacity->isVisible());
    // The size of marks is asked for only where there are some.
    REQUIRE(d.find<QWidget>("setting-size"));
    CHECK_FALSE(d.find<QWidget>("setting-size")->isVisible());
    choose(d, "setting-shape", "disc");
    CHECK(d.find<QWidget>("setting-size")->isVisible());
    choose(d, "setting-shape", "none");
    choose(d, "memberChoice", "member 2");
    choose(d, "setting-pattern", "dashed");
    const Plot& plot = documentOf(d).panels[0].plots[0];
    CHECK(plot.settings.empty());
    REQUIRE(plot.members.size() == 2);
    CHECK(std::get<std::string>(plot.members[1].settings.at("pattern")) == "dashed");
    enter(d, "plotName", "the middle one");
    CHECK(documentOf(d).panels[0].plots[0].members[1].name == "the middle one");
    const RecipeRead read = readRecipe(writeRecipe(documentOf(d)));
    REQUIRE(read.document);
    CHECK(*read.document == documentOf(d));
}
