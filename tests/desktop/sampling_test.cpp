// Journeys through the sampling of curves and fields: switched in place, asked for more, looked at as a table.
#include "files/file_access.h"
#include "window_driver.h"

#include <QApplication>
#include <QCheckBox>
#include <QClipboard>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QGuiApplication>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QTableView>
#include <QTemporaryDir>
#include <QToolButton>
#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

Document page(std::vector<std::string> lines, std::vector<Plot> plots) {
    Document document;
    document.page = std::move(lines);
    document.panels[0].plots = std::move(plots);
    return document;
}

void start(WindowDriver& d, Document document) {
    d.window().session().start(std::move(document), "");
    d.settle();
}

const CurveSamples& curve(WindowDriver& d) { return *curveSamplesOf(d.figure().figure.panels[0].drawn[0]); }

QString remarks(WindowDriver& d) {
    QString all;
    auto* list = d.find<QListWidget>("remarks");
    for (int i = 0; i < list->count(); ++i) all += list->item(i)->text() + "\n";
    return all;
}

void choose(QComboBox* box, int index) {
    box->setCurrentIndex(index);
    emit box->activated(index);
}

} // namespace

TEST_CASE("sampling is switched in place between adaptive, count and step, and back by undo") {
    WindowDriver d;
    start(d, page({"f(x) = sin(x)", "x in [0, 10], unit m"}, {plotOf("f(x)")}));
    auto* way = d.find<QComboBox>("samplingWay");
    auto* value = d.find<QLineEdit>("samplingValue");
    CHECK(way->currentIndex() == 0);
    CHECK_FALSE(value->isVisible());
    choose(way, 1);
    d.settle();
    CHECK(d.window().session().document().page[1] == "x in [0, 10], unit m, count 101");
    CHECK(curve(d).pointCount() == 101);
    REQUIRE(value->isVisible());
    d.click(value, {10, 8});
    d.key(Qt::Key_A, Qt::ControlModifier);
    d.type("21");
    d.key(Qt::Key_Return);
    CHECK(curve(d).pointCount() == 21);
    choose(way, 2);
    d.settle();
    CHECK(d.window().session().document().page[1] == "x in [0, 10], unit m, step 0.1");
    CHECK(curve(d).pointCount() == 101);
    choose(way, 0);
    d.settle();
    CHECK(d.window().session().document().page[1] == "x in [0, 10], unit m");
    CHECK(curve(d).certificate.share() > 0.999);
    for (int i = 0; i < 4; ++i) d.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(d.window().session().document().page[1] == "x in [0, 10], unit m");
    CHECK_FALSE(d.window().session().canUndo());
}

TEST_CASE("dragging in the ribbon asks for more points, kept in the recipe; a double click takes them back") {
    WindowDriver d;
    start(d, page({"f(x) = sin(x)", "x in [0, 10]"}, {plotOf("f(x)")}));
    auto* ribbon = d.find<SamplingRibbon>("ribbon");
    const auto count = [&] {
        const auto& t = curve(d).stretches[0].t;
        return std::ranges::count_if(t, [](double each) { return each > 4 && each < 6; });
    };
    const auto before = count();
    const double y = ribbon->height() * 0.6;
    d.drag(ribbon, {ribbon->placeOf(4), y}, {ribbon->placeOf(6), y});
    const auto& plots = d.window().session().document().panels[0].plots;
    REQUIRE(plots[0].finer.size() == 1);
    CHECK(plots[0].finer[0].low == Approx(4).margin(0.1));
    CHECK(plots[0].finer[0].high == Approx(6).margin(0.1));
    CHECK(count() >= 2 * before - 2);
    d.drag(ribbon, {ribbon->placeOf(4.5), y}, {ribbon->placeOf(5.5), y});
    CHECK(d.window().session().document().panels[0].plots[0].finer.size() == 3);
    CHECK(d.window().session().document().panels[0].plots[0].finer[1].times == 4);
    d.doubleClick(ribbon, {ribbon->placeOf(5), y});
    CHECK(d.window().session().document().panels[0].plots[0].finer.size() == 2);
    d.key(Qt::Key_Z, Qt::ControlModifier);
    d.key(Qt::Key_Z, Qt::ControlModifier);
    d.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(count() == before);
    // The same without a mouse in the ribbon.
    d.sheet()->select(WindowDriver::plot(0));
    d.settle();
    d.click(d.find<QToolButton>("plotMore"), {5, 5});
    REQUIRE(d.window().session().document().panels[0].plots[0].finer.size() == 1);
    CHECK(d.window().session().document().panels[0].plots[0].finer[0] == FinerStretch{0, 10, 2});
    d.click(d.find<QToolButton>("plotUsual"), {5, 5});
    CHECK(d.window().session().document().panels[0].plots[0].finer.empty());
}

TEST_CASE("a function of two variables typed on an empty page is a heatmap at once") {
    WindowDriver d;
    start(d, Document{});
    d.click(d.page(), {100, 60});
    d.type("g(x, y) = exp(-x^2 - y^2)");
    d.key(Qt::Key_Return);
    d.settle();
    const Document& document = d.window().session().document();
    CHECK(document.page ==
          std::vector<std::string>{"g(x, y) = exp(-x^2 - y^2)", "x in [-5, 5], assumed", "y in [-5, 5], assumed"});
    REQUIRE(d.figure().figure.panels[0].drawn.size() == 1);
    CHECK(fieldSamplesOf(d.figure().figure.panels[0].drawn[0])->isMesh());
    CHECK(d.figure().figure.panels[0].layout.colours.shown);

    // Its value under the pointer.
    const Frame& frame = d.figure().figure.panels[0].frame();
    const auto at = [&](double x, double y) {
        return d.sheet()->toWidget(
            {frame.rect.x + frame.map.x.toSheet(x), frame.rect.bottom() - frame.map.y.toSheet(y)});
    };
    d.move(d.sheet(), at(0, 0));
    const QString readOut = d.sheet()->readOut();
    CHECK(readOut.mid(readOut.indexOf("value ") + 6).toDouble() == Approx(1).epsilon(1e-3));

    // The ribbon tells how dense the points are in both directions.
    auto* ribbon = d.find<SamplingRibbon>("ribbon");
    const double lowerLane = ribbon->height() - 16, upperLane = ribbon->height() - 45;
    CHECK(ribbon->wordsAt({at(0, 0).x(), upperLane}).contains("points within half a millimetre of x = "));
    CHECK(ribbon->wordsAt({at(0, 0).x(), lowerLane}).contains("points within half a millimetre of y = "));
    CHECK(ribbon->wordsAt({1, lowerLane}).isEmpty());

    // Chosen by a click; cells, directions and the grid are switched.
    d.click(d.sheet(), at(1, 2));
    d.settle();
    REQUIRE(d.sheet()->selection() == WindowDriver::plot(0));
    d.click(d.find<QCheckBox>("setting-mesh"), {8, 8});
    CHECK(d.window().session().document().panels[0].plots[0].settings.contains("mesh"));
    choose(d.find<QComboBox>("setting-across"), 1);
    d.settle();
    CHECK(d.window().session().document().panels[0].plots[0].settings.at("across") == SettingValue(std::string("y")));
    CHECK((*fieldOf(d.figure().figure.panels[0].drawn[0])).variables[0] == "y");
    choose(d.find<QComboBox>("samplingWay"), 1);
    d.settle();
    choose(d.find<QComboBox>("samplingWayUp"), 2);
    d.settle();
    CHECK(d.window().session().document().page[2] == "y in [-5, 5], count 101");
    CHECK(d.window().session().document().page[1] == "x in [-5, 5], step 0.1");
    CHECK(fieldSamplesOf(d.figure().figure.panels[0].drawn[0])->columns.size() == 101);
    CHECK(fieldSamplesOf(d.figure().figure.panels[0].drawn[0])->rows.size() == 101);
    CHECK(ribbon->summary().contains("101 × 101"));
    choose(d.find<QComboBox>("setting-fill"), 1);
    d.settle();
    CHECK(d.window().session().document().panels[0].plots[0].settings.at("fill") == SettingValue(std::string("cells")));

    // Zoomed about the pointer: the field is there for the view.
    const double before = d.figure().figure.panels[0].frame().map.x.high;
    d.wheel(d.sheet(), d.sheet()->panelRect().center(), 4);
    CHECK(d.figure().figure.panels[0].frame().map.x.high < before / 1.5);
    CHECK(d.figure().figure.finished);
}

TEST_CASE("the samples stand in a table: sorted, copied, written as CSV") {
    WindowDriver d;
    start(d, page({"f(x) = x^2", "x in [-1, 2], count 4"}, {plotOf("f(x)")}));
    SampleTableWindow window(d.window().session(), *d.sheet());
    window.show();
    d.settle();
    auto* view = window.findChild<QTableView*>("sampleTable");
    auto* heading = window.findChild<QLabel*>("sampleTableHeading");
    CHECK(heading->text().contains("4 points from -1 to 2, step 1"));
    REQUIRE(view->model()->rowCount() == 4);
    CHECK(window.copied() == "stretch\tx\tvalue\tstate\n1\t-1\t1\tgrid\n1\t0\t0\tgrid\n1\t1\t1\tgrid\n1\t2\t4\tgrid\n");
    view->sortByColumn(1, Qt::DescendingOrder);
    CHECK(view->model()->index(0, 1).data().toString() == "2");
    view->sortByColumn(2, Qt::AscendingOrder);
    CHECK(view->model()->index(3, 2).data().toString() == "4"); // by number
    view->selectionModel()->select({view->model()->index(2, 1), view->model()->index(3, 2)},
                                   QItemSelectionModel::ClearAndSelect);
    QApplication::sendEvent(view, std::make_unique<QKeyEvent>(QEvent::KeyPress, Qt::Key_C, Qt::ControlModifier).get());
    CHECK(QGuiApplication::clipboard()->text().startsWith("x\tvalue\n"));
    QTemporaryDir folder;
    const QString path = folder.filePath("s.csv");
    REQUIRE_FALSE(window.writeCsv(path));
    CHECK(*readFile(path.toStdString()).bytes ==
          "stretch,x,y,state\n1,-1,1,grid\n1,0,0,grid\n1,1,1,grid\n1,2,4,grid\n");
    CHECK(window.writeCsv(folder.filePath("none/s.csv")));
    // It follows the figure.
    start(d,
          page({"g(x, y) = x + 10 y", "x in [0, 1], count 2", "y in [0, 2), count 2"}, {plotOf("g(x, y)", "heatmap")}));
    CHECK(view->model()->rowCount() == 4);
    CHECK(heading->text().contains("y: 2 points from 0 to 1, step 1"));
}

TEST_CASE("a scale is made logarithmic in place, and the view moves and zooms on it") {
    WindowDriver d;
    start(d, page({"f(x) = exp(-x)", "x in [0, 20]"}, {plotOf("f(x)")}));
    d.sheet()->select({ItemKind::Scale, 0, upScale, 0});
    d.settle();
    choose(d.find<QComboBox>("axisScale"), 1);
    d.settle();
    const AxisMap y = d.figure().figure.panels[0].frame().map.y;
    CHECK(y.kind == ScaleKind::Logarithmic);
    CHECK(y.low > 0);
    CHECK(y.low < 1e-8);
    CHECK(curve(d).pointCount() < 10); // a straight line now
    d.wheel(d.sheet(), d.sheet()->panelRect().center(), 2);
    const AxisMap zoomed = d.figure().figure.panels[0].frame().map.y;
    CHECK(zoomed.low > y.low);
    CHECK(zoomed.high < y.high);
    CHECK(std::sqrt(zoomed.low * zoomed.high) == Approx(std::sqrt(y.low * y.high)).epsilon(0.05));
    const QRectF panel = d.sheet()->panelRect();
    d.drag(d.sheet(), panel.topRight() + QPointF(-60, 40), panel.topRight() + QPointF(-60, 90));
    const AxisMap moved = d.figure().figure.panels[0].frame().map.y;
    CHECK(moved.high / moved.low == Approx(zoomed.high / zoomed.low).epsilon(1e-6));
    CHECK(moved.high > zoomed.high);
}

TEST_CASE("the range stays still while a number is dragged, and fits again afterwards") {
    WindowDriver d;
    start(d, page({"f(x) = A sin(x)", "A = 8.0", "x in [0, 10]"}, {plotOf("f(x)")}));
    const auto range = [&] { return d.figure().figure.panels[0].frame().map.y; };
    const double before = range().high;
    std::vector<double> seen;
    QObject::connect(d.sheet(), &SheetView::figureChanged, d.sheet(), [&] { seen.push_back(range().high); });
    const QRect number = d.window().page().numberRect(1);
    REQUIRE_FALSE(number.isEmpty());
    d.dragSlowly(d.page(), number.center(), number.center() - QPointF(160, 0));
    REQUIRE(seen.size() > 1);
    CHECK(std::ranges::all_of(std::span(seen).first(seen.size() - 1), [&](double high) { return high == before; }));
    CHECK(range().high < before);
}

TEST_CASE("a curve in space is turned by dragging, and back by a double click") {
    WindowDriver d;
    start(d, page({"c(t) = (cos(t), sin(t), t)", "t in [0, 12]"}, {plotOf("c(t)")}));
    REQUIRE(d.figure().figure.panels[0].frame().space);
    const View before = d.window().session().document().panels[0].view;
    const QPointF corner = d.sheet()->panelRect().topLeft() + QPointF(15, 15);
    d.drag(d.sheet(), corner, corner + QPointF(80, 40));
    const View turned = d.window().session().document().panels[0].view;
    CHECK(turned.azimuth == before.azimuth + 40);
    CHECK(turned.elevation == before.elevation + 20);
    CHECK(d.find<QDoubleSpinBox>("viewAzimuth") != nullptr);
    d.doubleClick(d.sheet(), corner);
    CHECK(d.window().session().document().panels[0].view == before);
}

TEST_CASE("remarks name what a curve does where it cannot be drawn as a line") {
    WindowDriver d;
    start(d, page({"f(x) = sin(1/x)", "x in [-1, 1]"}, {plotOf("f(x)")}));
    CHECK(remarks(d).contains("oscillates"));
    CHECK(remarks(d).contains("the band it fills"));
    CHECK(d.find<SamplingRibbon>("ribbon")->summary().contains("oscillates without end"));
    start(d, page({"c(t) = (1/t, t)", "t in [-1, 1]"}, {plotOf("c(t)")}));
    CHECK(remarks(d).contains("has a pole at t = 0."));
}

TEST_CASE("the Stop button ends long work and leaves the window alive") {
    WindowDriver d;
    start(d, page({"f(x) = int_0^(50 + x) J_0(k sin(k x)) dk", "x in [0, 10], count 200000"}, {}));
    Document heavy = d.window().session().document();
    heavy.panels[0].plots = {plotOf("f(x)")};
    d.window().session().edit(heavy, "plot");
    auto* stop = [&] {
        for (auto* button : d.window().findChildren<QToolButton*>()) {
            if (button->text() == "Stop") return button;
        }
        return static_cast<QToolButton*>(nullptr);
    }();
    REQUIRE(stop);
    d.wait([&] { return stop->isVisible(); });
    QMouseEvent press(QEvent::MouseButtonPress, QPointF(5, 5), stop->mapToGlobal(QPointF(5, 5)), Qt::LeftButton,
                      Qt::LeftButton, Qt::NoModifier);
    QMouseEvent release(QEvent::MouseButtonRelease, QPointF(5, 5), stop->mapToGlobal(QPointF(5, 5)), Qt::LeftButton,
                        Qt::NoButton, Qt::NoModifier);
    QCoreApplication::sendEvent(stop, &press);
    QCoreApplication::sendEvent(stop, &release);
    d.settle();
    CHECK_FALSE(stop->isVisible());
    CHECK(d.figure().figure.panels[0].drawn.empty()); // what was shown stays
}
