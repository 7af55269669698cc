#include "files/export.h"
#include "files/file_access.h"
#include "files/recipe.h"
#include "window_driver.h"

#include <QCoreApplication>
#include <QDir>
#include <QFile>
#include <catch2/catch.hpp>

using namespace coulter;

namespace {

Document waves() {
    Document document;
    document.page = {"f(x) = A sin(x)", "A = 2, from 0 to 4", "k = 1", "x in [0, 10]"};
    document.panels[0].plots = {plotOf("f(x)")};
    return document;
}

/// Greatest height of the curve that is shown.
double shownHeight(WindowDriver& d) {
    const auto& samples = std::get<CurveSamples>(*d.figure().figure.panels[0].drawn[0].parts[0].samples);
    double greatest = 0;
    for (const Stretch& stretch : samples.stretches) {
        for (const double y : stretch.y) greatest = std::max(greatest, y);
    }
    return greatest;
}

} // namespace

TEST_CASE("the values of a run go up and down again, within the range, and are spelled shortly") {
    const Interval range{-1.5, 2.5};
    double before = -1.5;
    for (int i = 0; i <= 50; ++i) {
        const double up = QuantityRun::valueAt(range, i / 100.0).toDouble();
        CHECK(up >= before);
        CHECK(up <= 2.5);
        CHECK(QuantityRun::valueAt(range, 1 - i / 100.0).toDouble() == Approx(up).margin(0.011));
        before = up;
    }
    CHECK(QuantityRun::valueAt(range, 0.25).toDouble() == Approx(0.5).margin(0.006));
    CHECK(QuantityRun::valueAt(range, 0.5) == "2.500");
    CHECK(QuantityRun::valueAt({1e-9, 3e-9}, 0.5).toDouble() == Approx(3e-9));
    CHECK(QuantityRun::valueAt({0, 1e6}, 0.5) == "1000000");
}

TEST_CASE("a quantity runs and the figure follows; Space keeps its value, Esc goes back") {
    WindowDriver d;
    d.window().session().start(waves(), "");
    d.settle();
    d.window().page().setFocus();
    d.window().page().selectLine(1);
    const auto document = [&] { return d.window().session().document(); };
    d.key(Qt::Key_Space);
    REQUIRE(d.window().run().isRunning());
    const double low = d.figure().figure.panels[0].frame().map.y.low;
    std::vector<double> heights;
    d.wait([&] {
        const double height = shownHeight(d);
        if (heights.empty() || heights.back() != height) heights.push_back(height);
        return heights.size() > 5;
    });
    CHECK(document() == waves());                                // nothing has happened to it yet
    CHECK(d.figure().figure.panels[0].frame().map.y.low <= low); // grows at most
    d.key(Qt::Key_Space);
    CHECK_FALSE(d.window().run().isRunning());
    d.settle();
    CHECK(document().page[1] != waves().page[1]);
    CHECK(document().page[1].ends_with(", from 0 to 4"));
    d.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(document() == waves());
    d.window().page().setFocus();
    d.window().page().selectLine(1);
    d.key(Qt::Key_Space);
    d.wait([&] { return d.window().session().shown() != waves(); });
    d.key(Qt::Key_Escape);
    d.settle();
    CHECK(d.window().session().shown() == waves());
    CHECK(shownHeight(d) == Approx(2).margin(0.001));
}

TEST_CASE("what has no range does not run, and says what it lacks; a change of the page ends a run and counts") {
    WindowDriver d;
    d.window().session().start(waves(), "");
    d.settle();
    d.window().page().setFocus();
    for (const int line : {0, 2, 3}) {
        d.window().page().selectLine(line);
        d.key(Qt::Key_Space);
        CHECK_FALSE(d.window().run().isRunning());
        CHECK(d.window().message().contains("from 0 to 5"));
    }
    d.window().page().selectLine(1);
    d.key(Qt::Key_Space);
    REQUIRE(d.window().run().isRunning());
    Document changed = waves();
    changed.page[2] = "k = 7";
    d.window().session().edit(changed, "a change");
    CHECK_FALSE(d.window().run().isRunning());
    d.settle();
    CHECK(d.window().session().document() == changed);
}

TEST_CASE("what is made of a figure while a quantity runs has the value that is seen; undo takes it back") {
    WindowDriver d;
    d.window().session().start(waves(), "");
    d.settle();
    d.window().page().setFocus();
    d.window().page().selectLine(1);
    d.key(Qt::Key_Space);
    d.wait([&] { return d.window().session().shown() != waves(); });
    const Document seen = d.window().session().shown();
    const QString path = QDir::temp().filePath(QString("run-%1.svg").arg(QCoreApplication::applicationPid()));
    d.window().exportTo(path);
    CHECK_FALSE(d.window().run().isRunning());
    d.wait([&] { return !d.window().busy(); });
    const RecipeFound found = findRecipe(*readFile(path.toStdString()).bytes);
    REQUIRE(found.recipe);
    CHECK(readRecipe(*found.recipe).document->page == seen.page);
    QFile(path).remove();
    d.window().page().setFocus();
    d.key(Qt::Key_Space);
    d.wait([&] { return d.window().session().shown() != seen; });
    d.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK_FALSE(d.window().run().isRunning());
    CHECK(d.window().session().document() == seen);
    d.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(d.window().session().document() == waves());
}
