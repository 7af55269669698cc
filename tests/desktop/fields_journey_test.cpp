#include "composition/colour_bar.h"
#include "composition/pointing.h"
#include "desktop/kind_sheet.h"
#include "figure/scale_settings.h"
#include "files/export.h"
#include "files/file_access.h"
#include "files/formats.h"
#include "formula/lines/answer.h"
#include "hands.h"
#include "plots/levels.h"
#include "plots/plot_kind.h"
#include "plots/read_out.h"
#include "plots/table.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QListWidget>
#include <QToolButton>
#include <catch2/catch.hpp>
#include <cmath>
#include <set>

using namespace coulter;

namespace {

std::string kindOf(WindowDriver& d, std::size_t plot = 0) { return documentOf(d).panels[0].plots[plot].kind; }

/// Turns through the kinds that fit by their key until one is there.
void turnTo(WindowDriver& d, const std::string& kind) {
    for (int i = 0; i < 20 && kindOf(d) != kind; ++i) {
        d.sheet()->setFocus();
        d.key(Qt::Key_K);
        d.settle();
    }
    REQUIRE(kindOf(d) == kind);
}

} // namespace

TEST_CASE("one function is seen as heatmap, areas, mesh and lit surface, with map, range and title kept") {
    WindowDriver d;
    write(d, {"x in [-3, 3], unit m", "y in [-2, 2], unit m", "f(x, y) = exp(-x^2 - y^2) + sin(2x)/4, unit m"});
    REQUIRE(kindOf(d) == "heatmap");
    selectScale(d, colourScale);
    choose(d, "setting-map", "frost");
    enter(d, "axisHigh", "0.9");
    d.sheet()->select({ItemKind::Sheet, 0, 0, 0});
    enter(d, "sheetTitle", "A hill");
    d.sheet()->select(WindowDriver::plot(0));
    for (const char* kind : {"filled contours", "contours", "surface"}) {
        turnTo(d, kind);
        CHECK(d.figure().figure.panels[0].problems[0].empty());
        CHECK(documentOf(d).panels[0].title == "A hill");
        CHECK(documentOf(d).panels[0].colour.limits.high == 0.9);
        CHECK(text(documentOf(d).panels[0].colour.settings, mapSetting) == "frost");
    }
    choose(d, "setting-shown", "mesh");
    choose(d, "setting-shown", "lit");
    // Turned by dragging on the sheet.
    const View before = documentOf(d).panels[0].view;
    const QPointF middle = d.sheet()->panelRect().center();
    d.drag(d.sheet(), middle, middle + QPointF(60, -25));
    d.settle();
    CHECK(documentOf(d).panels[0].view != before);
    // A view by its name, then near enough for perspective.
    d.sheet()->select({ItemKind::Sheet, 0, 0, 0});
    choose(d, "viewName", "from above");
    CHECK(documentOf(d).panels[0].view.elevation == 90);
    auto* distance = d.find<QDoubleSpinBox>("viewDistance");
    REQUIRE(distance);
    distance->setFocus();
    d.key(Qt::Key_Up);
    d.settle();
    CHECK(documentOf(d).panels[0].view.distance >= leastDistance);
    CHECK(frameOf(d).space->distance > 0);
    const Exported exported = exportFigure(documentOf(d), *findFormat("png"));
    REQUIRE(exported.bytes);
    CHECK_FALSE(verifyFigure(*exported.bytes));
    // All of it is undone.
    for (int i = 0; i < 100 && kindOf(d) != "heatmap"; ++i) {
        d.window().page().setFocus();
        d.key(Qt::Key_Z, Qt::ControlModifier);
        d.settle();
    }
    CHECK(kindOf(d) == "heatmap");
}

TEST_CASE("all ways to draw a function are seen as small pictures of it, and one is chosen") {
    WindowDriver d;
    write(d, {"x in [-3, 3]", "y in [-2, 2]", "f(x, y) = exp(-x^2 - y^2)"});
    d.sheet()->select(WindowDriver::plot(0));
    d.sheet()->setFocus();
    d.key(Qt::Key_D);
    auto* kinds = d.find<PictureSheet>("kindSheet");
    REQUIRE(kinds);
    CHECK(kinds->choices() >= 10);
    d.wait([&] { return kinds->pictures() == kinds->choices(); });
    auto* list = kinds->findChild<QListWidget*>("pictures");
    REQUIRE(list);
    std::set<QByteArray> different;
    int mesh = -1;
    for (int i = 0; i < list->count(); ++i) {
        const QImage picture = list->item(i)->icon().pixmap(190).toImage();
        different.insert(QByteArray(reinterpret_cast<const char*>(picture.constBits()), picture.sizeInBytes()));
        if (list->item(i)->text() == "surface, mesh") mesh = i;
    }
    CHECK(static_cast<int>(different.size()) == list->count());
    REQUIRE(mesh >= 0);
    list->setFocus();
    list->setCurrentRow(mesh);
    d.click(list->viewport(), list->visualItemRect(list->item(mesh)).center());
    d.settle();
    CHECK(kindOf(d) == "surface");
    CHECK(std::get<std::string>(documentOf(d).panels[0].plots[0].settings.at("shown")) == "mesh");
    d.window().page().setFocus();
    d.key(Qt::Key_Z, Qt::ControlModifier);
    d.settle();
    CHECK(kindOf(d) == "heatmap");
    // Contours over it: chosen beside what is drawn.
    d.window().activateWindow(); // as the desktop does when a dialog has gone
    d.settle();
    d.sheet()->select(WindowDriver::plot(0));
    d.sheet()->setFocus();
    d.key(Qt::Key_D);
    auto* again = d.find<PictureSheet>("kindSheet");
    REQUIRE(again);
    auto* adds = again->findChild<QCheckBox*>("pictureAdds");
    REQUIRE(adds->isVisible());
    adds->click();
    auto* pictures = again->findChild<QListWidget*>("pictures");
    for (int i = 0; i < pictures->count(); ++i) {
        if (pictures->item(i)->text() != "contours") continue;
        pictures->scrollToItem(pictures->item(i));
        d.click(pictures->viewport(), pictures->visualItemRect(pictures->item(i)).center());
        break;
    }
    d.settle();
    REQUIRE(documentOf(d).panels[0].plots.size() == 2);
    CHECK(kindOf(d, 0) == "heatmap");
    CHECK(kindOf(d, 1) == "contours");
    CHECK(d.figure().figure.panels[0].problems[1].empty());
}

TEST_CASE("an implicit curve is what a field of two sides is where they are equal") {
    WindowDriver d;
    write(d, {"x in [-2, 2]", "y in [-2, 2]", "f(x, y) = (x^2 + y^2)^2 - 2(x^2 - y^2)"});
    d.sheet()->select(WindowDriver::plot(0));
    turnTo(d, "implicit curve");
    enter(d, "plotOf", "f(x, y) = 0");
    const Drawn& drawn = d.figure().figure.panels[0].drawn.at(0);
    CHECK(drawn.kind->report(drawn, frameOf(d))[0][1].second == 2);
    turnTo(d, "region");
    enter(d, "plotOf", "x^2 + y^2 < 1 and y > x");
    CHECK(d.figure().figure.panels[0].problems[0].empty());
}

TEST_CASE("a probability density stands as a surface over its contours on the floor, and is read off") {
    WindowDriver d;
    write(d, {"x in [-3, 3]", "y in [-3, 3]", "p(x, y) = exp(-(x^2 + y^2)/2)/(2 pi)"});
    d.sheet()->select(WindowDriver::plot(0));
    turnTo(d, "surface");
    choose(d, "setting-contours", "on the floor");
    const Frame& frame = frameOf(d);
    const Point top = frame.onSheet(Place{0, 0, 1 / (2 * 3.14159265358979)});
    const ReadOut read = readOutAt(d.figure().figure.panels[0].drawn, frame, {top.x, top.y + 1}, 1);
    CHECK(read.text.find("z = 0.15") != std::string::npos);
    CHECK(read.text.find("slope") != std::string::npos);
    // The summary of the ribbon, the table and the lines are there for a surface, too.
    CHECK(tableOf(*drawnAt(d.figure().figure, WindowDriver::plot(0)), frame).columns ==
          std::vector<std::string>{"x", "y", "z"});
}

TEST_CASE("a family of curves in space is seen from above, and a sphere hides a curve") {
    WindowDriver d;
    write(d, {"t in [0, 6.3]", "a = 1", "c(t) = (a cos(t), a sin(t), t/6)"});
    d.sheet()->select(WindowDriver::plot(0));
    enter(d, "plotOf", "(k cos(t), k sin(t), t/6) for k in {1, 1.5, 2}");
    CHECK(d.figure().figure.panels[0].drawn.size() == 3);
    d.sheet()->select({ItemKind::Sheet, 0, 0, 0});
    choose(d, "viewName", "from above");
    CHECK(std::abs(frameOf(d).onSheet(Place{0, 0, 0}).y - frameOf(d).onSheet(Place{0, 0, 1}).y) < 1e-9);

    WindowDriver e;
    write(e, {"u in [0, 6.3]", "v in [0, 3.2]", "S(u, v) = (sin(v) cos(u), sin(v) sin(u), cos(v))"});
    REQUIRE(documentOf(e).panels[0].plots.size() == 1);
    e.sheet()->select(WindowDriver::plot(0));
    turnTo(e, "surface");
    CHECK(e.figure().figure.panels[0].problems[0].empty());
    CHECK(frameOf(e).space);
}

TEST_CASE("a colour map is chosen by its picture on the field at hand, seen by all eyes") {
    WindowDriver d;
    write(d, {"x in [-3, 3]", "y in [-2, 2]", "f(x, y) = exp(-x^2 - y^2)"});
    REQUIRE(kindOf(d) == "heatmap");
    selectScale(d, colourScale);
    auto* button = d.find<QToolButton>("chooseMap");
    REQUIRE(button);
    button->click();
    auto* maps = d.find<PictureSheet>("mapSheet");
    REQUIRE(maps);
    CHECK(maps->choices() == mapSetting.words.size());
    d.wait([&] { return maps->pictures() == maps->choices(); });
    auto* list = maps->findChild<QListWidget*>("pictures");
    REQUIRE(list);
    std::set<QByteArray> different;
    int frost = -1;
    for (int i = 0; i < list->count(); ++i) {
        const QImage picture = list->item(i)->icon().pixmap(190).toImage();
        different.insert(QByteArray(reinterpret_cast<const char*>(picture.constBits()), picture.sizeInBytes()));
        if (list->item(i)->text() == "frost") frost = i;
        // The upper right quarter is grey print.
        for (int y = 2; y < picture.height() / 2 - 4; y += 7) {
            const QColor dot = picture.pixelColor(picture.width() * 3 / 4, y);
            CHECK((dot.red() == dot.green() && dot.green() == dot.blue()));
        }
    }
    CHECK(static_cast<int>(different.size()) == list->count());
    REQUIRE(frost >= 0);
    d.click(list->viewport(), list->visualItemRect(list->item(frost)).center());
    d.settle();
    CHECK(text(documentOf(d).panels[0].colour.settings, mapSetting) == "frost");
}

TEST_CASE("arrows over contours with streamlines: one start is dragged, and all else stays as it is") {
    WindowDriver d;
    write(d, {"x in [-3, 3]", "y in [-2, 2]", "h(x, y) = x^2 - y^2 + x", "v(x, y) = -grad h(x, y)"});
    d.sheet()->select(WindowDriver::plot(0));
    choose(d, "plotKind", "contours");
    add(d, "v(x, y) as arrows");
    add(d, "v(x, y) as arrows");
    choose(d, "plotKind", "streamlines");
    const std::size_t last = documentOf(d).panels[0].plots.size() - 1;
    REQUIRE(documentOf(d).panels[0].plots[last].kind == "streamlines");
    enter(d, "setting-through", "(1, 1)");
    REQUIRE(d.figure().figure.panels[0].problems[last].empty());
    const auto plots = documentOf(d).panels[0].plots;
    const auto& drawn = d.figure().figure.panels[0].drawn;
    const auto contours = drawn[drawn.size() - 3].parts[0].samples;
    d.drag(d.sheet(), d.sheet()->toWidget(frameOf(d).onSheet(1, 1)), d.sheet()->toWidget(frameOf(d).onSheet(-2, 0.5)));
    const auto& after = documentOf(d).panels[0].plots;
    REQUIRE(after.size() == plots.size());
    for (std::size_t i = 0; i < last; ++i) CHECK(after[i] == plots[i]);
    double x = 0, y = 0;
    REQUIRE(std::sscanf(std::get<std::string>(after[last].settings.at("through")).c_str(), "(%lf, %lf)", &x, &y) == 2);
    CHECK(x == Approx(-2).margin(0.1));
    CHECK(y == Approx(0.5).margin(0.1));
    const auto& now = d.figure().figure.panels[0].drawn;
    CHECK(now[now.size() - 3].parts[0].samples == contours); // not sampled again
}

TEST_CASE("a vector becomes arrows, then a streamline whose start is dragged, and all of it is undone") {
    WindowDriver d;
    write(d, {"x in [0, 10]", "y in [0, 5]", "v(x, y) = (1, x/4 - 1)"});
    Document before = documentOf(d);
    add(d, "v(x, y) as arrows");
    REQUIRE(documentOf(d).panels[0].plots.back().kind == "arrows");
    choose(d, "plotKind", "streamlines");
    REQUIRE(documentOf(d).panels[0].plots.back().kind == "streamlines");
    enter(d, "setting-through", "(2, 2)");
    REQUIRE(d.figure().figure.panels[0].problems.back().empty());
    const auto through = [&] {
        return std::get<std::string>(documentOf(d).panels[0].plots.back().settings.at("through"));
    };
    const QPointF from = d.sheet()->toWidget(frameOf(d).onSheet(2, 2));
    d.drag(d.sheet(), from, d.sheet()->toWidget(frameOf(d).onSheet(5, 3)));
    double x = 0, y = 0;
    REQUIRE(std::sscanf(through().c_str(), "(%lf, %lf)", &x, &y) == 2);
    CHECK(x == Approx(5).margin(0.1));
    CHECK(y == Approx(3).margin(0.1));
    d.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(through() == "(2, 2)");
    while (documentOf(d) != before && d.window().session().canUndo()) d.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(documentOf(d) == before);
}

TEST_CASE("the range of colours and the levels of contours are dragged on the colour bar") {
    WindowDriver d;
    write(d, {"x in [0, 10]", "y in [0, 4]", "f(x, y) = x"});
    const auto bar = [&]() -> const PanelLayout& { return d.figure().figure.panels[0].layout; };
    const auto at = [&](double value) {
        const Rect& rect = bar().colours.rect;
        return d.sheet()->toWidget({rect.x + rect.width / 2, placeOnBar(bar(), value)});
    };
    REQUIRE(bar().colours.shown);
    const Limits whole{frameOf(d).colour.low, frameOf(d).colour.high};
    d.move(d.sheet(), at(3));
    CHECK(d.sheet()->readOut().toDouble() == Approx(3).margin(0.1));
    d.move(d.sheet(), at(whole.high));
    CHECK(d.sheet()->readOut().startsWith("to "));
    // The upper end is drawn in, then all of it moved; both are undone one by one.
    d.drag(d.sheet(), at(whole.high), at(6));
    d.settle();
    CHECK(frameOf(d).colour.high == Approx(6).margin(0.2));
    CHECK(frameOf(d).colour.low == whole.low);
    const double high = frameOf(d).colour.high, before = frameOf(d).colour.low;
    d.drag(d.sheet(), at(2), at(3));
    d.settle();
    CHECK(frameOf(d).colour.low == Approx(before - 1).margin(0.1));
    CHECK(frameOf(d).colour.high == Approx(high - 1).margin(0.1));
    d.key(Qt::Key_Z, Qt::ControlModifier);
    d.settle();
    CHECK(frameOf(d).colour.high == high);
    d.doubleClick(d.sheet(), at(frameOf(d).colour.low));
    d.settle();
    CHECK(frameOf(d).colour.high == whole.high);
    // Levels: one is moved, one added, one removed.
    d.sheet()->select(WindowDriver::plot(0));
    turnTo(d, "filled contours");
    enter(d, "setting-levels", "{2, 5, 8}");
    d.drag(d.sheet(), at(5), at(6.5));
    d.settle();
    const auto levels = [&] { return levelsOf(d.figure().figure.panels[0].drawn[0], frameOf(d).colour); };
    REQUIRE(levels().size() == 3);
    CHECK(levels()[1] == Approx(6.5).margin(0.1));
    d.doubleClick(d.sheet(), at(3.5));
    d.settle();
    REQUIRE(levels().size() == 4);
    CHECK(levels()[1] == Approx(3.5).margin(0.1));
    d.doubleClick(d.sheet(), at(8));
    d.settle();
    CHECK(levels().size() == 3);
    CHECK(levels()[2] == Approx(6.5).margin(0.1));
}

TEST_CASE("a line drawn over a field shows its profile, which is kept and follows the line") {
    WindowDriver d;
    write(d, {"x in [0, 8], unit m", "y in [0, 6], unit m", "h(x, y) = x y"});
    const auto place = [&](double x, double y) {
        const Frame& frame = frameOf(d);
        return d.sheet()->toWidget({frame.acrossSheet(x), frame.downSheet(y)});
    };
    auto* keep = d.find<QToolButton>("keepProfile");
    REQUIRE(keep);
    CHECK_FALSE(keep->isVisible());
    addFrom(d, "Note", "line");
    d.click(d.sheet(), place(1, 1));
    d.move(d.sheet(), place(4, 3));
    d.click(d.sheet(), place(5, 4));
    d.key(Qt::Key_Return);
    d.settle();
    CHECK(d.sheet()->showsProfile());
    CHECK(keep->isVisible());
    d.click(keep, QPointF(keep->rect().center()));
    d.settle();
    REQUIRE(documentOf(d).panels.size() == 2);
    CHECK_FALSE(keep->isVisible());
    CHECK(d.figure().figure.page.problems().empty());
    const auto value = [&](const char* of) { return evaluate(d.figure().figure.page, of).value(); };
    CHECK(value("x_1") == Approx(1).margin(0.1));
    CHECK(value("l_1") == Approx(5).margin(0.2));
    CHECK(value("p(l_1)") == Approx(20).margin(1));
    // The line's end is dragged, and the curve below follows.
    const auto points = [&] { return curveSamplesOf(d.figure().figure.panels[1].drawn.at(0))->pointCount(); };
    CHECK(points() > 2);
    d.sheet()->select({ItemKind::Note, 0, 0, 0});
    d.drag(d.sheet(), place(value("x_2"), value("y_2")), place(7, 2), Qt::AltModifier);
    d.settle();
    CHECK(documentOf(d).panels[0].notes[0].at[1] == NotePlace{"x_2", "y_2"});
    CHECK(value("x_2") == Approx(7).margin(0.1));
    CHECK(value("y_2") == Approx(2).margin(0.1));
    CHECK(value("p(l_1)") == Approx(14).margin(1));
    // The same by key, and all of it undone.
    d.key(Qt::Key_Z, Qt::ControlModifier);
    d.key(Qt::Key_Z, Qt::ControlModifier);
    d.settle();
    REQUIRE(documentOf(d).panels.size() == 1);
    d.sheet()->select({ItemKind::Note, 0, 0, 0});
    d.sheet()->setFocus();
    d.key(Qt::Key_L);
    d.settle();
    CHECK(documentOf(d).panels.size() == 2);
}
