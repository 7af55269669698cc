#include "files/export.h"
#include "files/file_access.h"
#include "formula/lines/read_page.h"
#include "plots/plot_kind.h"
#include "window_driver.h"

#include <QApplication>
#include <QClipboard>
#include <QComboBox>
#include <QLabel>
#include <QPlainTextEdit>
#include <QScrollArea>
#include <QTemporaryDir>
#include <QToolButton>
#include <catch2/catch.hpp>
#include <cmath>
#include <cstdlib>
#include <filesystem>

using namespace coulter;

namespace {

using Lines = std::vector<std::string>;

void startWith(WindowDriver& d, Lines lines) {
    Document document;
    document.page = std::move(lines);
    d.window().session().start(document, "");
    d.settle();
}

const Lines& lines(WindowDriver& d) { return d.window().session().document().page; }
std::string message(WindowDriver& d) { return d.find<QLabel>("formulaMessage")->text().toStdString(); }

} // namespace

TEST_CASE("from an empty window to a finished figure of three functions, without the mouse until the export") {
    WindowDriver d;
    d.window().session().start(Document{}, "");
    d.settle();
    d.type("f(x) = sin(x)"); // the page has the keyboard
    d.key(Qt::Key_Return);
    d.type("g(x) = x^2/10");
    d.key(Qt::Key_Return);
    d.type("cos(3x)");
    d.key(Qt::Key_Return);
    d.key(Qt::Key_Return); // an empty line ends writing
    CHECK_FALSE(d.window().page().isEditing());
    CHECK(lines(d) == Lines{"f(x) = sin(x)", "x in [-5, 5], assumed", "g(x) = x^2/10", "h(x) = cos(3x)"});
    REQUIRE(d.figure().figure.panels[0].drawn.size() == 3);
    CHECK(d.figure().complete);
    CHECK(d.sheet()->selection() == WindowDriver::plot(2)); // the function touched last
    const QTemporaryDir folder;
    const QString svg = folder.filePath("figure.svg");
    d.window().exportTo(svg);
    d.settle();
    const FileRead file = readFile(svg.toStdString());
    REQUIRE(file.bytes);
    CHECK_FALSE(verifyFigure(*file.bytes));
}

TEST_CASE("Enter goes on below, Shift+Enter only takes the line, Backspace goes back") {
    WindowDriver d;
    startWith(d, {"a = 1", "b = 2"});
    d.window().page().editLine(0);
    d.key(Qt::Key_Return);
    d.type("c = 3");
    d.key(Qt::Key_Return, Qt::ShiftModifier);
    CHECK_FALSE(d.window().page().isEditing());
    CHECK(lines(d) == Lines{"a = 1", "c = 3", "b = 2"});
    d.window().page().editLine(1);
    d.key(Qt::Key_Return);
    d.key(Qt::Key_Backspace);
    CHECK(d.window().page().isEditing());
    CHECK(d.find<QPlainTextEdit>("formulaField")->toPlainText() == "c = 3");
    CHECK(lines(d).size() == 3);
    d.key(Qt::Key_Escape);
    d.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(lines(d) == Lines{"a = 1", "b = 2"}); // an empty line that came to nothing is no step of undo
}

TEST_CASE("Tab takes the remedy: a near name, a spelling from elsewhere, a function of a variable") {
    const std::pair<const char*, Lines> cases[] = {
        {"f(x) = exq(x)", {"f(x) = exp(x)", "x in [0, 1]"}},
        {"f(x) = asin(x)", {"f(x) = arcsin(x)", "x in [0, 1]"}},
        {"f(x) = x**2", {"f(x) = x^2", "x in [0, 1]"}},
        {"f(x) := 2x", {"f(x) = 2x", "x in [0, 1]"}},
        {"f(x) = pow(x, 2 + 1)", {"f(x) = x^(2 + 1)", "x in [0, 1]"}},
        {"f(x) = log10(x + 1)", {"f(x) = lg(x + 1)", "x in [0, 1]"}},
        {"f(x) = 2,5 x", {"f(x) = 2.5 x", "x in [0, 1]"}},
        {"f(x) = sign(x)", {"f(x) = sgn(x)", "x in [0, 1]"}},
        {"y = x^2", {"y(x) = x^2", "x in [0, 1]"}},
    };
    for (const auto& [typed, after] : cases) {
        INFO(typed << " → " << after[0]);
        WindowDriver d;
        startWith(d, {"x in [0, 1]"});
        d.window().page().selectLine(-1);
        d.click(d.page(), d.window().page().lineRect(0).center() + QPointF(0, 0));
        d.key(Qt::Key_Escape);
        d.window().page().editLine(0);
        d.key(Qt::Key_A, Qt::ControlModifier);
        d.type("x in [0, 1]");
        d.key(Qt::Key_Return);
        d.type(typed);
        INFO(message(d));
        CHECK(message(d).find("Tab ") != std::string::npos);
        d.key(Qt::Key_Escape);                // closes a list of names, if one is open
        if (!d.window().page().isEditing()) { // it was the line that was left: once more
            d.window().page().editLine(1);
            d.type(typed);
        }
        d.key(Qt::Key_Tab);
        d.key(Qt::Key_Return, Qt::ShiftModifier);
        Lines expected(after.end() - 1, after.end());
        expected.insert(expected.end(), after.begin(), after.end() - 1);
        CHECK(lines(d) == expected);
        CHECK(readPage(lines(d)).problems().empty());
        CHECK(d.figure().figure.panels[0].drawn.size() == 1); // and drawn at once
    }
}

TEST_CASE("what is typed first is drawn when Return is pressed, and the line shows how it is read") {
    WindowDriver d;
    startWith(d, {});
    d.click(d.page(), {100, 60});
    d.type("y = k x^2");
    CHECK(message(d).find("Taken as y(x) = k x^2") != std::string::npos);
    d.key(Qt::Key_Return);
    CHECK(lines(d) == Lines{"y(x) = k x^2", "k = 1, assumed", "x in [-5, 5], assumed"});
    d.type("x from 0 to 3"); // the page goes on below, and what it had assumed gives way
    d.key(Qt::Key_Return);
    d.type("min of y");
    d.key(Qt::Key_Return);
    d.key(Qt::Key_Escape);
    CHECK(lines(d) == Lines{"y(x) = k x^2", "k = 1, assumed", "x in [0, 3]", "minimum of y(x) for x"});
    CHECK(d.figure().figure.panels[0].drawn.size() == 1);
    CHECK_FALSE(d.window().page().isEditing());
    d.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(lines(d).size() == 3);
}

TEST_CASE("lines are moved by keys and by dragging, and what is computed stays the same") {
    WindowDriver d;
    startWith(d, {"f(x) = a x", "a = 2", "x in [0, 1]"});
    d.window().page().setFocus();
    d.window().page().selectLine(0);
    d.key(Qt::Key_Down, Qt::AltModifier);
    CHECK(lines(d) == Lines{"a = 2", "f(x) = a x", "x in [0, 1]"});
    d.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(lines(d)[0] == "f(x) = a x");
    const QPointF from = d.window().page().lineRect(0).center(), to = d.window().page().lineRect(2).center();
    d.drag(d.page(), from, to);
    CHECK(lines(d) == Lines{"a = 2", "f(x) = a x", "x in [0, 1]"});
    CHECK_FALSE(d.window().page().isEditing());
    d.drag(d.page(), d.window().page().lineRect(2).center(), d.window().page().lineRect(0).center());
    CHECK(lines(d) == Lines{"x in [0, 1]", "a = 2", "f(x) = a x"});
    CHECK(readPage(lines(d)).problems().empty());
}

TEST_CASE("several lines are selected, cut, copied and pasted, and a pasted text becomes lines") {
    WindowDriver d;
    startWith(d, {"a = 1", "b = 2", "c = 3"});
    d.window().page().setFocus();
    d.window().page().selectLine(0);
    d.key(Qt::Key_Down, Qt::ShiftModifier);
    d.key(Qt::Key_X, Qt::ControlModifier);
    CHECK(lines(d) == Lines{"c = 3"});
    CHECK(QApplication::clipboard()->text() == "a = 1\nb = 2\n");
    d.key(Qt::Key_V, Qt::ControlModifier);
    CHECK(lines(d) == Lines{"c = 3", "a = 1", "b = 2"});
    // Into a line that is being written.
    QApplication::clipboard()->setText("f(x) = c x\r\nx in [0, 2]\n");
    d.window().page().addLine();
    d.find<QPlainTextEdit>("formulaField")->paste();
    d.settle();
    CHECK(lines(d) == Lines{"c = 3", "a = 1", "b = 2", "f(x) = c x", "x in [0, 2]"});
    CHECK(d.figure().figure.panels[0].drawn.size() == 1);
}

TEST_CASE("a block of lines is folded away under its line of prose, and still counts") {
    WindowDriver d;
    startWith(d, {"# Quantities", "a = 1", "b = 2", "# Functions", "f(x) = a b x", "x in [0, 1]"});
    FormulaPage& page = d.window().page();
    const int before = page.lineRect(3).top();
    page.setFocus();
    page.selectLine(0);
    d.key(Qt::Key_Left);
    CHECK(page.isFolded(0));
    CHECK(page.lineRect(1).height() == 0);
    CHECK(page.lineRect(3).top() < before);
    d.key(Qt::Key_Down);
    CHECK(page.selectedLine() == 3); // over what is hidden
    CHECK(readPage(lines(d)).problems().empty());
    // A folded block moves as one.
    page.selectLine(0);
    d.key(Qt::Key_Down, Qt::AltModifier);
    CHECK(lines(d) == Lines{"# Functions", "f(x) = a b x", "x in [0, 1]", "# Quantities", "a = 1", "b = 2"});
    d.key(Qt::Key_Up, Qt::AltModifier);
    CHECK(lines(d)[0] == "# Quantities");
    d.click(d.page(), QPointF(8, page.lineRect(0).center().y()));
    CHECK_FALSE(page.isFolded(0));
    CHECK(page.lineRect(1).height() > 0);
}

TEST_CASE("a line, its stems and the area under it are turned into one another") {
    WindowDriver d;
    startWith(d, {"f(x) = sin(x)", "x in [0, 6]"});
    Document document = d.window().session().document();
    document.panels[0].plots = {plotOf("f(x)")};
    set(document.panels[0].plots[0].settings, *findPlotKind("line")->settings[0], Colour{10, 90, 60});
    d.window().session().start(document, "");
    d.settle();
    const Frame& frame = d.figure().figure.panels[0].frame();
    d.click(d.sheet(), d.sheet()->toWidget(frame.onSheet(1.5, std::sin(1.5))));
    REQUIRE(d.sheet()->selection() == WindowDriver::plot(0));
    const auto kind = [&] { return d.window().session().document().panels[0].plots[0].kind; };
    std::vector<std::string> seen{kind()};
    for (int i = 0; i < 5; ++i) {
        d.key(Qt::Key_K);
        d.settle();
        CHECK(d.figure().complete);
        CHECK(d.figure().figure.panels[0].drawn[0].colour == Colour{10, 90, 60}); // what applies stays
        seen.push_back(kind());
    }
    for (const char* each : {"line", "stems", "area", "markers"}) CHECK(std::ranges::count(seen, each) >= 1);
    auto* choice = d.find<QComboBox>("plotKind");
    REQUIRE(choice);
    CHECK(choice->findText("heatmap") < 0); // a field needs two variables
    const int stems = choice->findText("stems");
    choice->setCurrentIndex(stems);
    emit choice->activated(stems);
    d.settle();
    CHECK(kind() == "stems");
    CHECK(d.figure().figure.panels[0].drawn[0].kind->name == std::string("stems"));
}

TEST_CASE("two fields in one panel are each selected and listed") {
    WindowDriver d;
    Document document;
    document.page = {"g(x, y) = x y", "h(x, y) = sqrt(x^2 + y^2)", "x in [0, 4], count 5", "y in [0, 2], count 3"};
    document.panels[0].plots = {plotOf("g(x, y)", "heatmap"), plotOf("h(x, y)", "heatmap")};
    document.panels[0].plots[0].settings["fill"] = std::string("cells");
    d.window().session().start(document, "");
    d.settle();
    const auto summary = [&] { return d.window().ribbon().accessibleDescription(); };
    // Listed among the sheet's particulars, each with a way to its own.
    REQUIRE(d.find<QToolButton>("plot-1"));
    CHECK(d.find<QToolButton>("plot-0")->text() == "heatmap: g(x, y)");
    d.click(d.find<QToolButton>("plot-1"), {5, 5});
    CHECK(d.sheet()->selection() == WindowDriver::plot(1));
    d.sheet()->select({});
    d.sheet()->setFocus();
    d.key(Qt::Key_N);
    CHECK(d.sheet()->selection() == WindowDriver::plot(0));
    CHECK(summary().contains("5 × 3"));
    CHECK(d.find<QComboBox>("setting-fill")->currentText() == "cells");
    d.key(Qt::Key_N);
    CHECK(d.sheet()->selection() == WindowDriver::plot(1));
    CHECK(d.find<QComboBox>("setting-fill")->currentText() == "smooth");
    const Frame& frame = d.figure().figure.panels[0].frame();
    d.click(d.sheet(), d.sheet()->toWidget(frame.onSheet(1, 1))); // the one on top
    CHECK(d.sheet()->selection() == WindowDriver::plot(1));
    d.key(Qt::Key_Delete);
    CHECK(d.window().session().document().panels[0].plots.size() == 1);
    CHECK(d.window().session().document().panels[0].plots[0].of == "g(x, y)");
}

TEST_CASE("what is pointed at in a picture of another document changes nothing") {
    WindowDriver d;
    startWith(d, {"f(x) = sin(x)", "x in [0, 6]"});
    Document one = d.window().session().document();
    one.panels[0].plots = {plotOf("f(x)")};
    d.window().session().start(one, "");
    d.settle();
    d.sheet()->select(WindowDriver::plot(0));
    Document other;
    other.page = {"g(x) = x +", "x in [0, 1]"}; // its figure cannot be drawn
    other.panels[0].plots = {plotOf("g(x)")};
    d.window().session().start(other, "");
    d.settle();
    CHECK(d.sheet()->selection().kind == ItemKind::Sheet);
    d.sheet()->setFocus();
    d.key(Qt::Key_Delete);
    CHECK(d.window().session().document() == other);
    // A plot that was exchanged while its old picture is still shown is not removed for the old one.
    d.window().session().start(one, "");
    d.settle();
    d.sheet()->select(WindowDriver::plot(0));
    Document changed = one;
    changed.panels[0].plots[0].of = "f(x) +";
    d.window().session().edit(changed, "exchange");
    d.settle();
    CHECK_FALSE(d.sheet()->waitsFor().isEmpty());
    d.key(Qt::Key_Delete);
    CHECK(d.window().session().document().panels[0].plots.size() == 1);
}

TEST_CASE("a number written with the printed minus sign is stepped with its sign") {
    WindowDriver d;
    startWith(d, {"a = −2.5", "f(x) = a x", "x in [0, 1]"});
    d.window().page().setFocus();
    d.window().page().selectLine(0);
    d.key(Qt::Key_Up, Qt::ControlModifier);
    CHECK(lines(d)[0] == "a = -2.4");
}

TEST_CASE("no file of the window names a kind of plot") {
    const std::filesystem::path folder = std::filesystem::path(std::getenv("COULTER_SOURCE")) / "src/desktop";
    int files = 0;
    for (const auto& entry : std::filesystem::directory_iterator(folder)) {
        if (!entry.is_regular_file()) continue;
        ++files;
        const std::string text = *readFile(entry.path()).bytes;
        for (const PlotKind* kind : plotKinds()) {
            INFO(entry.path() << ", " << kind->name);
            CHECK(text.find("\"" + std::string(kind->name) + "\"") == std::string::npos);
            CHECK(text.find(std::string(kind->name) + "Kind") == std::string::npos);
        }
    }
    CHECK(files > 20);
}

TEST_CASE("with large letters, and in a small window, nothing of Particulars is cut and the sheet stays readable") {
    WindowDriver d;
    startWith(d, {"f(x) = sin(x)", "x in [0, 6]"});
    Document document = d.window().session().document();
    document.panels[0].plots = {plotOf("f(x)")};
    d.window().session().start(document, "");
    d.settle();
    for (int i = 0; i < 3; ++i) d.key(Qt::Key_Plus, Qt::ControlModifier);
    d.sheet()->select(WindowDriver::plot(0));
    auto* particulars = d.find<QScrollArea>("particulars");
    for (const QSize size : {QSize(1280, 800), QSize(900, 600)}) {
        d.window().resize(size);
        d.settle();
        INFO(size.width());
        for (const QWidget* field : particulars->widget()->findChildren<QWidget*>()) {
            if (!field->isVisible() || field->objectName().isEmpty()) continue;
            const QPoint right = field->mapTo(particulars->widget(), QPoint(field->width(), 0));
            INFO(field->objectName().toStdString());
            CHECK(right.x() <= particulars->viewport()->width());
        }
        CHECK(d.sheet()->width() > size.width() * 2 / 5);
    }
    d.key(Qt::Key_0, Qt::ControlModifier);
}
