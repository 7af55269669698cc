#include "window_driver.h"

#include <QLabel>
#include <QPlainTextEdit>
#include <QScrollBar>
#include <catch2/catch.hpp>

using namespace coulter;

namespace {

Document page(std::vector<std::string> lines) {
    Document document;
    document.page = std::move(lines);
    return document;
}

/// Whether the outermost columns of the page are plain paper: nothing is cut off at its right edge.
bool edgeIsFree(WindowDriver& d) {
    const QImage image = d.page()->grab().toImage();
    const QRgb paper = image.pixel(image.width() - 1, image.height() - 1);
    for (int y = 0; y < image.height(); ++y) {
        for (int x = image.width() - 4; x < image.width(); ++x) {
            if (image.pixel(x, y) != paper) return false;
        }
    }
    return true;
}

const std::vector<std::string> manyKinds{
    "# A long line of prose that certainly does not fit on one line of the page and therefore has to be broken, more "
    "than once if need be.",
    "f(x) = a sin(x) + b cos(2x) + c sin(3x) + d cos(4x) + a b sin(5x) + b c cos(6x) + c d sin(7x) + a b c d cos(8x)",
    "g(x) = { sin(x)/x for x < -1; x^2 for -1 <= x < 1 and not x = 0; sqrt(x) + sqrt(x + sqrt(x + sqrt(x))) otherwise "
    "}",
    "a = 1.25, from 0 to 3, unit m, label \"a quantity with a rather long name\"",
    "b = 2",
    "c = (a + b)/(a - b/(a + 1/(a + 1/(a + 1))))",
    "d = 1e-7",
    "x in [-5, 5], count 101, unit kg m-3, label \"density\"",
    "f(2) = ?",
    "h(x) = (sin(x) cos(x) tan(x) exp(x) sin(2 x) cos(2 x) tan(2 x) exp(2 x) sin(3 x) cos(3 x) tan(3 x) exp(3 x))",
};

} // namespace

TEST_CASE("nothing on the formula page is cut off, at any width and scale") {
    WindowDriver d;
    d.window().session().start(page(manyKinds), "");
    for (const int width : {900, 1280, 1700}) {
        d.window().resize(width, 900);
        d.settle();
        INFO("width " << width);
        CHECK(edgeIsFree(d));
    }
    for (int i = 0; i < 4; ++i) d.key(Qt::Key_Plus, Qt::ControlModifier);
    CHECK(edgeIsFree(d));
    d.key(Qt::Key_0, Qt::ControlModifier);
}

TEST_CASE("lines stand below each other without overlapping, also while one is edited") {
    WindowDriver d;
    d.window().session().start(page(manyKinds), "");
    d.settle();
    const auto check = [&] {
        for (int i = 1; i < static_cast<int>(manyKinds.size()); ++i) {
            const QRect above = d.window().page().lineRect(i - 1), below = d.window().page().lineRect(i);
            CHECK(below.top() >= above.top() + above.height() - 1);
            CHECK(below.height() > 10);
        }
    };
    check();
    for (const int line : {0, 1, 2, 7}) {
        d.window().page().editLine(line);
        d.settle();
        check();
        d.key(Qt::Key_Escape);
    }
}

TEST_CASE("the arrow keys go from line to line while editing, taking each over") {
    WindowDriver d;
    d.window().session().start(page({"a = 1", "b = 2", "c = 3"}), "");
    d.settle();
    d.window().page().editLine(0);
    d.type("5");
    d.key(Qt::Key_Down);
    CHECK(d.window().session().document().page[0] == "a = 15");
    CHECK(d.window().page().selectedLine() == 1);
    d.key(Qt::Key_Down);
    d.key(Qt::Key_Up);
    CHECK(d.window().page().selectedLine() == 1);
    d.key(Qt::Key_Escape);
    CHECK(d.window().session().document().page == std::vector<std::string>{"a = 15", "b = 2", "c = 3"});
}

TEST_CASE("a new line in the middle is one step of undo, an emptied line goes") {
    WindowDriver d;
    d.window().session().start(page({"a = 1", "b = 2"}), "");
    d.settle();
    d.window().page().selectLine(0);
    d.key(Qt::Key_Return, Qt::ControlModifier);
    d.type("c = 3");
    d.key(Qt::Key_Return);
    CHECK(d.window().session().document().page == std::vector<std::string>{"a = 1", "c = 3", "b = 2"});
    d.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(d.window().session().document().page == std::vector<std::string>{"a = 1", "b = 2"});
    d.window().page().editLine(1);
    d.key(Qt::Key_A, Qt::ControlModifier);
    d.key(Qt::Key_Backspace);
    d.key(Qt::Key_Return);
    CHECK(d.window().session().document().page == std::vector<std::string>{"a = 1"});
}

TEST_CASE("numbers are dragged in fine steps with Shift, and stop at the ends of their range") {
    WindowDriver d;
    d.window().session().start(page({"a = 1.5, from 1 to 2", "b = -3%"}), "");
    d.settle();
    const QRect a = d.window().page().numberRect(0);
    d.drag(d.page(), a.center(), a.center() + QPointF(15, 0), Qt::ShiftModifier);
    CHECK(d.window().session().document().page[0] == "a = 1.53, from 1 to 2");
    d.drag(d.page(), a.center(), a.center() + QPointF(900, 0));
    CHECK(d.window().session().document().page[0] == "a = 2.00, from 1 to 2");
    const QRect b = d.window().page().numberRect(1);
    d.drag(d.page(), b.center(), b.center() + QPointF(25, 0));
    CHECK(d.window().session().document().page[1] == "b = 2%");
    d.click(d.page(), b.center()); // without moving, a click edits
    CHECK(d.window().page().isEditing());
}

TEST_CASE("a note is shown without taking the line for wrong") {
    WindowDriver d;
    d.window().session().start(page({"a = 4", "b = 1/2a"}), "");
    d.settle();
    d.window().page().editLine(1);
    d.settle();
    CHECK(d.find<QLabel>("formulaMessage")->text().contains("left to right"));
    CHECK(d.sheet()->waitsFor().isEmpty());
    d.key(Qt::Key_Escape);
}

TEST_CASE("a long page scrolls to the line that is edited") {
    std::vector<std::string> lines;
    for (int i = 0; i < 120; ++i) lines.push_back("a_" + std::to_string(i) + " = " + std::to_string(i));
    WindowDriver d;
    d.window().session().start(page(lines), "");
    d.settle();
    CHECK(d.window().page().verticalScrollBar()->maximum() > 500);
    d.window().page().editLine(119);
    d.settle();
    const QRect rect = d.window().page().lineRect(119);
    CHECK(rect.top() >= 0);
    CHECK(rect.bottom() <= d.page()->height() + 2);
    d.key(Qt::Key_Escape);
    d.window().page().setFocus();
    d.window().page().selectLine(0);
    CHECK(d.window().page().lineRect(0).top() >= 0);
}

TEST_CASE("text pasted with line breaks becomes one line") {
    WindowDriver d;
    d.window().page().editLine(0);
    d.find<QPlainTextEdit>("formulaField")->insertPlainText("f(x) =\nx + 1");
    d.settle();
    d.key(Qt::Key_Return);
    CHECK(d.window().session().document().page[0] == "f(x) = x + 1");
}
