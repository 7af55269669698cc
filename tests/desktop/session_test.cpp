#include "desktop/document_session.h"
#include "desktop/figure_worker.h"
#include "window_driver.h"

#include <QApplication>
#include <QComboBox>
#include <QDeadlineTimer>
#include <QLineEdit>
#include <QMenu>
#include <QTemporaryDir>
#include <QToolButton>
#include <catch2/catch.hpp>

using namespace coulter;

namespace {

Document with(const std::string& line) {
    Document document;
    document.page = {line};
    return document;
}

} // namespace

TEST_CASE("undo and redo walk through the documents; a new edit forgets what was undone") {
    DocumentSession session;
    session.edit(with("a = 1"), "one");
    session.edit(with("a = 2"), "two");
    session.edit(with("a = 2"), "nothing");
    CHECK(session.undoText() == "two");
    session.undo();
    CHECK(session.document() == with("a = 1"));
    CHECK(session.redoText() == "two");
    session.undo();
    CHECK(session.document() == Document{});
    CHECK_FALSE(session.canUndo());
    session.undo();
    session.redo();
    CHECK(session.document() == with("a = 1"));
    session.edit(with("a = 3"), "three");
    CHECK_FALSE(session.canRedo());
    session.undo();
    CHECK(session.document() == with("a = 1"));
}

TEST_CASE("edits of one gesture are one step") {
    DocumentSession session;
    for (int i = 0; i < 10; ++i) session.edit(with("a = " + std::to_string(i)), "drag", "drag a");
    session.endMerge();
    session.edit(with("a = 100"), "drag", "drag a");
    session.undo();
    CHECK(session.document() == with("a = 9"));
    session.undo();
    CHECK_FALSE(session.canUndo());
}

TEST_CASE("a preview is shown but is no edit") {
    DocumentSession session;
    session.edit(with("a = 1"), "one");
    session.preview(with("a = 7"));
    CHECK(session.shown() == with("a = 7"));
    CHECK(session.document() == with("a = 1"));
    session.preview(std::nullopt);
    CHECK(session.shown() == with("a = 1"));
    session.preview(with("a = 7"));
    session.undo();
    CHECK(session.shown() == Document{});
}

TEST_CASE("history is bounded") {
    DocumentSession session;
    for (int i = 0; i < 1500; ++i) session.edit(with("a = " + std::to_string(i)), "edit");
    int steps = 0;
    while (session.canUndo()) {
        session.undo();
        ++steps;
    }
    CHECK(steps == 999);
}

TEST_CASE("a session knows whether it is saved, and what it is called") {
    const QTemporaryDir folder;
    DocumentSession session;
    session.start(with("a = 1"), "", "borehole");
    CHECK(session.name() == "borehole");
    CHECK_FALSE(session.isChanged());
    session.edit(with("a = 2"), "edit");
    CHECK(session.isChanged());
    REQUIRE_FALSE(session.save(folder.filePath("plot.coulter")));
    CHECK(session.name() == "plot");
    CHECK_FALSE(session.isChanged());
    session.undo();
    CHECK(session.isChanged());
    CHECK(session.save("/no/such/folder/x.coulter"));
    CHECK(session.path() == folder.filePath("plot.coulter"));
}

TEST_CASE("the worker draws the newest request and says when it is done") {
    FigureWorker worker;
    std::vector<std::string> drawn;
    bool busy = false;
    QObject::connect(&worker, &FigureWorker::ready, [&](const std::shared_ptr<const ShownFigure>& figure) {
        drawn.push_back(figure->figure.document.page[0]);
    });
    QObject::connect(&worker, &FigureWorker::busyChanged, [&](bool now) { busy = now; });
    for (int i = 0; i < 50; ++i) worker.request({with("a = " + std::to_string(i)), 2});
    CHECK(busy);
    const QDeadlineTimer limit(30'000);
    while (worker.busy() && !limit.hasExpired()) QApplication::processEvents(QEventLoop::AllEvents, 10);
    REQUIRE_FALSE(drawn.empty());
    CHECK(drawn.back() == "a = 49");
    CHECK(drawn.size() < 50);
    CHECK_FALSE(busy);
}

TEST_CASE("a figure that cannot be drawn says what it waits for, at its root") {
    FigureWorker worker;
    Document document;
    document.page = {"f(x) = a x", "a = b + 1", "b = 2 +", "x in [0, 1]"};
    document.panels[0].plots.push_back(plotOf("f(x)"));
    std::shared_ptr<const ShownFigure> shown;
    QObject::connect(&worker, &FigureWorker::ready,
                     [&](const std::shared_ptr<const ShownFigure>& figure) { shown = figure; });
    worker.request({document, 2});
    const QDeadlineTimer limit(30'000);
    while (!shown && !limit.hasExpired()) QApplication::processEvents(QEventLoop::AllEvents, 10);
    REQUIRE(shown);
    CHECK_FALSE(shown->complete);
    CHECK(shown->waitsFor.startsWith("line 3, character 8"));
}

TEST_CASE("the menus offer what the keys do") {
    WindowDriver d;
    d.window().openExample(exampleOf("soil-temperature"));
    d.settle();
    auto* menu = d.find<QToolButton>("documentButton")->menu();
    emit menu->aboutToShow();
    QStringList entries;
    for (const QAction* action : menu->actions()) entries << action->text();
    for (const char* entry : {"New", "Open", "Recent", "Save", "Save as", "Export", "Dark window", "Larger", "Quit"})
        CHECK(entries.contains(entry));
    auto* add = d.find<QToolButton>("addButton")->menu();
    emit add->aboutToShow();
    QList<QAction*> offered;
    for (QAction* action : add->actions()) {
        if (action->text().startsWith("T(z, t) as ")) offered << action;
    }
    // Of the kinds there are, those that fit two variables.
    const auto fitting = std::ranges::count_if(plotKinds(), [](const PlotKind* kind) { return kind->fits({2, 1}); });
    REQUIRE(offered.size() == fitting);
    offered[0]->trigger();
    d.settle();
    CHECK(d.window().session().document().panels[0].plots.size() == 2);
    CHECK(d.sheet()->waitsFor().isEmpty());
    CHECK(d.sheet()->selection() == WindowDriver::plot(1));
}

TEST_CASE("an axis' particulars set limits, label and grid, and give them back") {
    WindowDriver d;
    d.window().openExample(exampleOf("soil-temperature"));
    d.settle();
    d.sheet()->select({ItemKind::Scale, 0, upScale, 0});
    auto* label = d.find<QLineEdit>("axisLabel");
    REQUIRE(label);
    label->setFocus();
    d.type("Warmth");
    d.key(Qt::Key_Return);
    CHECK(d.window().session().document().panels[0].y.label == "Warmth");
    auto* low = d.find<QLineEdit>("axisLow");
    low->setFocus();
    d.key(Qt::Key_A, Qt::ControlModifier);
    d.type("nonsense");
    d.key(Qt::Key_Return);
    CHECK_FALSE(d.window().session().document().panels[0].y.limits); // not a number: nothing happens
    low->setFocus();
    d.key(Qt::Key_A, Qt::ControlModifier);
    d.type("-10");
    d.key(Qt::Key_Return);
    REQUIRE(d.window().session().document().panels[0].y.limits);
    CHECK(d.window().session().document().panels[0].y.limits.low == -10);
    low->setFocus();
    d.key(Qt::Key_A, Qt::ControlModifier);
    d.type("1000"); // above the upper end
    d.key(Qt::Key_Return);
    CHECK(d.window().session().document().panels[0].y.limits.low == -10);
}

TEST_CASE("the name of a curve goes into the legend") {
    WindowDriver d;
    Document document;
    document.page = {"f(x) = x", "g(x) = x^2", "x in [0, 1]"};
    for (const char* of : {"f(x)", "g(x)"}) document.panels[0].plots.push_back(plotOf(of));
    d.window().session().start(document, "");
    d.settle();
    d.sheet()->select(WindowDriver::plot(1));
    auto* name = d.find<QLineEdit>("plotName");
    REQUIRE(name);
    name->setFocus();
    d.type("square $x^2$");
    d.key(Qt::Key_Return);
    CHECK(d.window().session().document().panels[0].plots[1].name == "square $x^2$");
    auto* of = d.find<QLineEdit>("plotOf");
    of->setFocus();
    d.key(Qt::Key_A, Qt::ControlModifier);
    d.type("3 g(x)");
    d.key(Qt::Key_Return);
    CHECK(d.window().session().document().panels[0].plots[1].of == "3 g(x)");
    CHECK(curveSamplesOf(d.figure().figure.panels[0].drawn[1])->stretches[0].y.back() == 3);
    d.sheet()->setFocus();
    d.key(Qt::Key_Delete);
    CHECK(d.window().session().document().panels[0].plots.size() == 1);
}
