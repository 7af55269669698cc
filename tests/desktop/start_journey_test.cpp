// The first minute: what an empty document offers, examples, and finding everything by typing.
#include "data/attach_tables.h"
#include "desktop/examples_window.h"
#include "desktop/find_everything.h"
#include "desktop/print_figure.h"
#include "desktop/start_sheet.h"
#include "window_driver.h"

#include <QApplication>
#include <QComboBox>
#include <QContextMenuEvent>
#include <QDir>
#include <QFile>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QNativeGestureEvent>
#include <QPageSize>
#include <QPointingDevice>
#include <QPrinter>
#include <QSettings>
#include <QTemporaryDir>
#include <QToolButton>
#include <QWheelEvent>
#include <catch2/catch.hpp>

using namespace coulter;

namespace {

const Document& documentIn(WindowDriver& d) { return d.window().session().document(); }

/// Words typed into the field that finds everything, and what is shown.
QStringList found(WindowDriver& d, const QString& words) {
    d.key(Qt::Key_K, Qt::ControlModifier);
    auto* find = d.find<FindEverything>("findEverything");
    REQUIRE(find);
    d.find<QLineEdit>("findField")->setText(words);
    return find->shown();
}

void pressReturn(QWidget* widget) {
    QKeyEvent press(QEvent::KeyPress, Qt::Key_Return, Qt::NoModifier);
    QApplication::sendEvent(widget, &press);
}

void run(WindowDriver& d) {
    pressReturn(d.find<QLineEdit>("findField"));
    QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
}

} // namespace

TEST_CASE("an empty document says what can be typed, and goes away with the first letter") {
    WindowDriver d;
    d.window().session().start(Document{}, "");
    auto* start = d.find<StartSheet>("startSheet");
    REQUIRE(start);
    CHECK(start->isVisible());
    CHECK(start->geometry() == d.sheet()->rect());
    d.click(d.page(), {100, 60});
    d.type("y = x");
    CHECK_FALSE(start->isVisible());
    d.key(Qt::Key_Escape);
    CHECK(start->isVisible()); // nothing was written after all
}

TEST_CASE("each line that is offered draws a figure or answers, without a red line") {
    for (const QString& line : StartSheet::lines()) {
        INFO(line.toStdString());
        WindowDriver d;
        d.window().session().start(Document{}, "");
        FormulaLink* link = nullptr;
        for (FormulaLink* each : d.window().findChildren<FormulaLink*>("startLine")) {
            if (each->text() == line) link = each;
        }
        REQUIRE(link);
        d.click(link, link->rect().center());
        d.settle();
        CHECK_FALSE(d.find<StartSheet>("startSheet")->isVisible());
        const Page& page = d.figure().figure.page;
        for (const Line& each : page.lines) CHECK(each.good());
        const bool isQuestion = std::ranges::any_of(
            page.lines, [](const Line& each) { return each.kind == LineKind::Question && each.value; });
        CHECK(isQuestion == d.figure().figure.panels[0].drawn.empty());
    }
}

TEST_CASE("an example of the first page opens as a document of one's own") {
    WindowDriver d;
    d.window().session().start(Document{}, "");
    const auto pictures = d.window().findChildren<QToolButton*>("startExample");
    REQUIRE(pictures.size() == 3);
    d.wait([&] { return std::ranges::none_of(pictures, [](QToolButton* each) { return each->icon().isNull(); }); });
    d.click(pictures[1], pictures[1]->rect().center());
    d.settle();
    CHECK(d.window().session().path().isEmpty());
    CHECK(d.window().session().name() == "two-wells");
    CHECK(d.figure().figure.panels.size() == 2);
}

TEST_CASE("recent documents are offered while they are there") {
    QTemporaryDir folder;
    const QString path = folder.filePath("of yesterday.coulter");
    QFile file(path);
    REQUIRE(file.open(QIODevice::WriteOnly));
    file.write(
        R"json({"coulter": 8, "page": ["f(x) = x", "x in [0, 1]"], "panels": [{"plots": [{"kind": "line", "of": "f(x)"}]}]})json");
    file.close();
    const QVariant before = QSettings().value("recent");
    QSettings().setValue("recent", QStringList{path, folder.filePath("gone.coulter")});
    {
        WindowDriver d;
        d.window().session().start(Document{}, "");
        const auto links = d.window().findChildren<QToolButton*>("startRecent");
        REQUIRE(links.size() == 1);
        CHECK(links[0]->text() == "of yesterday.coulter");
        d.click(links[0], links[0]->rect().center());
        d.settle();
        CHECK(documentIn(d).page[0] == "f(x) = x");
    }
    QSettings().setValue("recent", before);
}

TEST_CASE("examples are found by words, and all are whole") {
    const std::vector<Example> all = allExamples();
    const QString demos = qEnvironmentVariable("COULTER_SOURCE") + "/demos";
    CHECK(all.size() == static_cast<std::size_t>(QDir(demos).entryList(QDir::Dirs | QDir::NoDotAndDotDot).size()));
    for (const Example& example : all) {
        INFO(example.name.toStdString());
        CHECK_FALSE(example.document.page.empty());
        CHECK(example.sentence.size() > 20);
        CHECK_FALSE(waitsForTables(example.document)); // numbers of data are inside
    }
    WindowDriver d;
    d.window().session().start(Document{}, "");
    d.window().openExamples();
    auto* window = d.find<ExamplesWindow>("examplesWindow");
    REQUIRE(window);
    CHECK(window->shown().size() == static_cast<qsizetype>(all.size()));
    auto* search = d.find<QLineEdit>("exampleSearch");
    for (const auto& [words, wanted] : {std::pair{"logarithmic readings", "pumping-test"},
                                        {"histogram", "grains"},
                                        {"contour stream", "flow-net"},
                                        {"Two Wells", "two-wells"},
                                        {"sum fourier", "irrigation"}}) {
        INFO(words);
        search->setText(words);
        CHECK(window->shown().contains(wanted));
        CHECK(window->shown().size() < 25);
    }
    search->setText("zebra");
    CHECK(window->shown().isEmpty());
    CHECK(d.find<QLabel>("exampleSentence")->text().startsWith("No example"));
    search->setText("pumping recharging");
    pressReturn(search);
    d.settle();
    CHECK(d.window().session().name() == "two-wells");
}

TEST_CASE("commands, settings, functions and the manual are found by typing") {
    WindowDriver d;
    CHECK_FALSE(d.window().session().isChanged());
    d.window().openExample(exampleOf("soil-temperature")); // in this window: nobody has worked on it
    d.settle();
    REQUIRE(d.window().session().name() == "soil-temperature");
    SECTION("a command, with its keys") {
        const QStringList shown = found(d, "new lin");
        CHECK(shown.first() == "New line");
        CHECK(d.find<QListWidget>("findList")->item(0)->data(Qt::UserRole + 1).toString().contains("Ctrl"));
        run(d);
        CHECK(d.window().page().isEditing());
    }
    SECTION("what the menus have below") {
        const QStringList shown = found(d, "figure's look report");
        REQUIRE_FALSE(shown.isEmpty());
        CHECK(shown.first().contains("report"));
        CHECK_FALSE(d.window().session().canUndo());
        run(d);
        d.settle();
        CHECK(d.window().session().canUndo());
        CHECK(found(d, "note arrow").first().contains("arrow", Qt::CaseInsensitive));
    }
    SECTION("a setting of what is selected gets the keyboard") {
        d.sheet()->select({ItemKind::Sheet, 0, 0, 0});
        d.settle();
        const QStringList shown = found(d, "bitmap");
        REQUIRE(shown.contains("bitmap"));
        run(d);
        REQUIRE(d.window().focusWidget());
        CHECK(d.window().focusWidget()->accessibleName() == "bitmap");
    }
    SECTION("a function is put on the page") {
        const QStringList shown = found(d, "bessel first kind");
        REQUIRE_FALSE(shown.isEmpty());
        CHECK(shown.first() == "J_{n}(x)");
        run(d);
        CHECK(d.window().page().isEditing());
    }
    SECTION("the manual") {
        CHECK(found(d, "jumps and creases").isEmpty()); // words of the text, not of a heading
        CHECK(found(d, "lines of a level").contains("Lines of a level"));
        run(d);
        REQUIRE(d.find<QDialog>("manualWindow"));
    }
    SECTION("nothing") {
        CHECK(found(d, "zebra").isEmpty());
        CHECK(d.find<QLabel>("findFoot")->text().startsWith("Nothing has"));
    }
}

TEST_CASE("what begins with the words comes first, then what has words that do") {
    std::vector<Findable> all;
    for (const char* text : {"Reprint", "Large print", "Print", "Sprint"})
        all.push_back({Findable::Sort::Command, text, "", "", {}});
    all.push_back({Findable::Sort::Manual, "Paper", "on which one prints", "", {}});
    CHECK(findAmong(all, "print") == std::vector<std::size_t>{2, 1, 0, 3, 4});
    CHECK(findAmong(all, "print large") == std::vector<std::size_t>{1});
    CHECK(findAmong(all, "") == std::vector<std::size_t>{0, 1, 2, 3});
}

TEST_CASE("two fingers move the view, pinching and the wheel zoom, the middle button drags, a rectangle is shown") {
    WindowDriver d;
    d.window().session().start(Document{}, "");
    d.type("f(x) = sin(x)");
    d.key(Qt::Key_Return);
    d.type("x in [-10, 10]");
    d.key(Qt::Key_Return);
    d.key(Qt::Key_Return);
    d.settle();
    const auto across = [&] {
        const AxisMap& map = d.figure().figure.panels[0].frame().map.x;
        return std::pair{map.low, map.high};
    };
    const QRectF panel = d.sheet()->panelRect();
    const auto scroll = [&](QPoint pixels, Qt::ScrollPhase phase) {
        QWheelEvent event(panel.center(), d.sheet()->mapToGlobal(panel.center()), pixels, 8 * pixels, Qt::NoButton,
                          Qt::NoModifier, phase, false);
        QApplication::sendEvent(d.sheet(), &event);
    };
    const auto [low, high] = across();
    SECTION("two fingers") {
        scroll({}, Qt::ScrollBegin);
        for (int i = 0; i < 10; ++i) scroll({static_cast<int>(panel.width() / 40), 0}, Qt::ScrollUpdate);
        scroll({}, Qt::ScrollEnd);
        d.settle();
        CHECK(across().second - across().first == Approx(high - low));
        CHECK(across().first == Approx(low - (high - low) / 4).epsilon(0.05));
    }
    SECTION("pinching") {
        QNativeGestureEvent pinch(Qt::ZoomNativeGesture, QPointingDevice::primaryPointingDevice(), 2, panel.center(),
                                  panel.center(), d.sheet()->mapToGlobal(panel.center()), 0.25, {});
        QApplication::sendEvent(d.sheet(), &pinch);
        d.settle();
        CHECK(across().second - across().first == Approx((high - low) / 1.25));
    }
    SECTION("fine steps of a wheel") {
        QWheelEvent fine(panel.center(), d.sheet()->mapToGlobal(panel.center()), {}, {0, 30}, Qt::NoButton,
                         Qt::NoModifier, Qt::NoScrollPhase, false);
        QApplication::sendEvent(d.sheet(), &fine);
        d.settle();
        CHECK(across().second - across().first == Approx((high - low) / std::pow(1.2, 0.25)));
    }
    SECTION("the middle button") {
        const auto send = [&](QEvent::Type type, QPointF at, Qt::MouseButton button, Qt::MouseButtons buttons) {
            QMouseEvent event(type, at, d.sheet()->mapToGlobal(at), button, buttons, Qt::NoModifier);
            QApplication::sendEvent(d.sheet(), &event);
        };
        const QPointF to = panel.center() - QPointF(panel.width() / 2, 0);
        send(QEvent::MouseButtonPress, panel.center(), Qt::MiddleButton, Qt::MiddleButton);
        send(QEvent::MouseMove, to, Qt::NoButton, Qt::MiddleButton);
        send(QEvent::MouseButtonRelease, to, Qt::MiddleButton, Qt::NoButton);
        d.settle();
        CHECK(across().first == Approx((low + high) / 2).margin(0.01 * (high - low)));
    }
    SECTION("a rectangle") {
        d.drag(d.sheet(), panel.center(), panel.center() + QPointF(panel.width() / 4, panel.height() / 4),
               Qt::ControlModifier);
        d.settle();
        CHECK(across().first == Approx((low + high) / 2).margin(0.01 * (high - low)));
        CHECK(across().second == Approx(low + 0.75 * (high - low)).margin(0.01 * (high - low)));
        const AxisMap& up = d.figure().figure.panels[0].frame().map.y;
        CHECK(up.high < 0.1);
        d.key(Qt::Key_Z, Qt::ControlModifier); // one step
        CHECK(across() == std::pair{low, high});
    }
}

namespace {

/// Takes an entry of a line's menu.
void choose(WindowDriver& d, int line, const QString& text) {
    const QPoint at = d.window().page().lineRect(line).center();
    QContextMenuEvent event(QContextMenuEvent::Mouse, at, d.page()->mapToGlobal(at));
    QApplication::sendEvent(d.page(), &event);
    auto* menu = d.find<QMenu>("lineMenu");
    REQUIRE(menu);
    const auto entries = menu->actions();
    const auto entry = std::ranges::find(entries, text, &QAction::text);
    INFO("the entry " << text.toStdString());
    REQUIRE(entry != entries.end());
    (*entry)->trigger();
    menu->close();
    QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    d.settle();
}

} // namespace

TEST_CASE("a line's menu offers what can be done with it and drawn of it") {
    WindowDriver d;
    d.window().session().start(Document{}, "");
    d.type("f(x) = sin(x)");
    d.key(Qt::Key_Return);
    d.key(Qt::Key_Return);
    d.settle();
    choose(d, 0, "Curve of the derivative of f(x)");
    CHECK(d.figure().figure.panels[0].drawn.size() == 2);
    choose(d, 0, "Curve of the integral of f(x)");
    CHECK(d.figure().figure.panels[0].drawn.size() == 3);
    CHECK(documentIn(d).panels[0].plots[2].of == "int_{-5}^x f(u) du");
    choose(d, 0, "Edit");
    CHECK(d.window().page().isEditing());
    d.key(Qt::Key_Escape);
    choose(d, 0, "Remove");
    CHECK(documentIn(d).page[0].starts_with("x in"));
    CHECK(documentIn(d).panels[0].plots.empty());
}

TEST_CASE("tops and passes of a landscape, and where two curves cross, are marked from a line's menu") {
    WindowDriver d;
    SECTION("a landscape") {
        Document document;
        document.page = {"h(x, y) = x^3 - 3x + y^2", "x in [-2, 2]", "y in [-1, 1]"};
        document.panels[0].plots = {plotOf("h(x, y)", "contours")};
        d.window().session().start(document, "");
        d.settle();
        choose(d, 0, "Extrema of h(x, y), marked");
        CHECK(documentIn(d).page.back() == "(x_e, y_e, h_e) = extrema of h(x, y) for x, y");
        const PanelFigure& panel = d.figure().figure.panels[0];
        REQUIRE(panel.drawn.size() == 2);
        REQUIRE(columnsOf(panel.drawn[1]));
        CHECK(*columnsOf(panel.drawn[1])->numbers[2] == std::vector<double>{2, -2});
        d.window().session().undo();
        d.settle();
        CHECK(documentIn(d) == document);
    }
    SECTION("two curves") {
        Document document;
        document.page = {"x^2 + y^2 = 1", "y - x^3 = 0", "x in [-2, 2]", "y in [-2, 2]"};
        document.panels[0].plots = {plotOf("x^2 + y^2 = 1", "implicit curve"), plotOf("y - x^3 = 0", "implicit curve")};
        d.window().session().start(document, "");
        d.settle();
        choose(d, 1, "Where x^2 + y^2 = 1 and y - x^3 = 0");
        const PanelFigure& panel = d.figure().figure.panels[0];
        REQUIRE(panel.drawn.size() == 3);
        CHECK(columnsOf(panel.drawn[2])->rows() == 2);
    }
}

TEST_CASE("a figure is printed in its true size, and one that is larger than the paper says so") {
    QTemporaryDir folder;
    Document document;
    document.page = {"f(x) = x", "x in [0, 1]"};
    document.panels[0].plots = {plotOf("f(x)")};
    document.sheet.width = 100;
    document.sheet.height = 60;
    QPrinter printer(QPrinter::ScreenResolution);
    printer.setOutputFormat(QPrinter::PdfFormat);
    printer.setPageSize(QPageSize(QPageSize::A4));
    printer.setOutputFileName(folder.filePath("figure.pdf"));
    const auto printed = [&](const Document& of) {
        return printPicture(drawForPrint(of, printer.resolution()), of.sheet, printer);
    };
    CHECK(printed(document).isEmpty());
    QFile file(folder.filePath("figure.pdf"));
    REQUIRE(file.open(QIODevice::ReadOnly));
    CHECK(file.size() > 1000);
    document.sheet.width = 400;
    CHECK(printed(document).contains("larger than the paper"));
    document.page[0] = "f(x) = ";
    CHECK_FALSE(printed(document).isEmpty());
}
