#include "window_driver.h"

#include "composition/draw_figure.h"
#include "formula/lines/read_page.h"

#include <QApplication>
#include <QLineEdit>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QPushButton>
#include <catch2/catch.hpp>

using namespace coulter;

namespace {

void startWith(WindowDriver& driver, std::vector<std::string> lines) {
    Document document;
    document.page = std::move(lines);
    driver.window().session().start(document, "");
    driver.settle();
}

} // namespace

TEST_CASE("names are offered while one types, and Tab takes one") {
    WindowDriver driver;
    startWith(driver, {});
    driver.click(driver.page(), {100, 60});
    driver.type("f(x) = bess");
    auto* list = driver.find<QListWidget>("completion");
    REQUIRE(list);
    REQUIRE(list->isVisible());
    CHECK(list->item(0)->data(Qt::AccessibleTextRole).toString().startsWith("J_{n}(x)"));
    driver.key(Qt::Key_Down);
    driver.key(Qt::Key_Tab);
    CHECK_FALSE(list->isVisible());
    auto* field = driver.find<QPlainTextEdit>("formulaField");
    CHECK(field->toPlainText() == "f(x) = Y_{n}(x)");
    driver.type("1"); // over the order, which was left selected
    CHECK(field->toPlainText() == "f(x) = Y_{1}(x)");
    driver.key(Qt::Key_Return);
    driver.settle();
    CHECK(driver.window().session().document().page[0] == "f(x) = Y_{1}(x)");
    CHECK(driver.figure().figure.panels[0].drawn.size() == 1);
}

TEST_CASE("Escape closes the offer before it gives up the line, and prose is left alone") {
    WindowDriver driver;
    startWith(driver, {"a = 1"});
    driver.window().page().editLine(1);
    driver.type("b = sin");
    auto* list = driver.find<QListWidget>("completion");
    REQUIRE(list->isVisible());
    driver.key(Qt::Key_Escape);
    CHECK_FALSE(list->isVisible());
    CHECK(driver.window().page().isEditing());
    driver.key(Qt::Key_Escape);
    CHECK_FALSE(driver.window().page().isEditing());
    driver.window().page().editLine(1);
    driver.type("# sin");
    CHECK_FALSE(list->isVisible());
}

TEST_CASE("a question about a derivative is answered in place") {
    WindowDriver driver;
    startWith(driver, {"f(x) = 5x^2 - 7x + 4", "x in [0, 1]"});
    driver.window().page().editLine(2);
    driver.type("f'(x) = ?");
    driver.key(Qt::Key_Return);
    driver.settle();
    const Page page = readPage(driver.window().session().document().page);
    REQUIRE(page.lines[2].formula);
    CHECK(page.problems().empty());
    driver.key(Qt::Key_Z, Qt::ControlModifier);
    driver.settle();
    CHECK(driver.window().session().document().page.size() == 2);
}

TEST_CASE("the catalogue narrows while one types, pictures each function and inserts it") {
    WindowDriver driver;
    startWith(driver, {"a = 2"});
    driver.window().page().editLine(1);
    driver.type("b = ");
    driver.key(Qt::Key_F, Qt::ControlModifier);
    auto* catalogue = driver.find<FunctionCatalogue>("functionCatalogue");
    REQUIRE(catalogue);
    auto* search = catalogue->findChild<QLineEdit*>("functionSearch");
    auto* list = catalogue->findChild<QListWidget*>("functionList");
    const int all = list->count();
    CHECK(all == static_cast<int>(coulter::catalogue().size()));
    search->setFocus();
    driver.type("zeta");
    CHECK(list->count() == 1);
    CHECK(catalogue->chosen() == QString::fromUtf8("ζ(x)"));
    driver.wait([&] { return catalogue->hasPicture(); });
    auto* insert = catalogue->findChild<QPushButton*>("insertFunction");
    driver.click(insert, QPointF(insert->width() / 2.0, insert->height() / 2.0));
    CHECK(driver.find<QPlainTextEdit>("formulaField")->toPlainText() == QString::fromUtf8("b = ζ(x)"));
}

TEST_CASE("every function of the catalogue has a picture without a problem") {
    for (const FunctionEntry& entry : catalogue()) {
        const Figure figure = drawFigure(pictureOf(entry));
        INFO(entry.form);
        CHECK(figure.page.problems().empty());
        REQUIRE(figure.panels.size() == 1);
        for (const Problems& problems : figure.panels[0].problems) CHECK(problems.empty());
        REQUIRE_FALSE(figure.panels[0].drawn.empty());
        for (const Drawn& drawn : figure.panels[0].drawn) CHECK(curveSamplesOf(drawn)->pointCount() > 1);
    }
}
