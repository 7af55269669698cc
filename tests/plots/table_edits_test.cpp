// Tables taken into a document, and their rows left out.
#include "plots/table_edits.h"

#include "formula/lines/read_page.h"
#include "plots/table_cells.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

Column column(std::vector<double> numbers) { return std::make_shared<const std::vector<double>>(std::move(numbers)); }

DataTable table(std::vector<std::string> headings) {
    DataTable made;
    made.source = "readings.csv";
    for (const std::string& heading : headings) made.columns.push_back({heading, "", "", column({1, 2, 3})});
    return made;
}

std::string lineOf(std::vector<std::string> page, std::vector<std::string> headings) {
    Document document;
    document.page = std::move(page);
    const Document taken = withTable(document, table(std::move(headings)), 0);
    CHECK(readPage(taken).lines.back().good());
    return taken.page.back();
}

} // namespace

TEST_CASE("a table that is taken in names its columns by their symbols, or by letters that are free") {
    CHECK(lineOf({}, {"t", "s"}) == "(t, s) from \"readings.csv\"");
    CHECK(lineOf({}, {"Depth", "head"}) == "(d, h) from \"readings.csv\"");
    CHECK(lineOf({}, {"", ""}) == "(a, b) from \"readings.csv\"");
    CHECK(lineOf({"t = 1"}, {"t", "s"}) == "(t_1, s) from \"readings.csv\"");
    CHECK(lineOf({}, {"s", "s"}) == "(s, s_1) from \"readings.csv\"");
    CHECK(lineOf({}, {"tau", "x_{max}"}) == "(τ, x_{max}) from \"readings.csv\"");
    CHECK(lineOf({}, {"s"}) == "s from \"readings.csv\"");
    CHECK(lineOf({}, {"e", "π"}).find("(e,") == std::string::npos); // constants keep their meaning
    std::vector<std::string> many;
    for (int i = 0; i < 40; ++i) many.push_back("");
    CHECK(lineOf({}, many).size() < 80);
}

TEST_CASE("a table is drawn as points, and taken in again in place of itself") {
    Document document;
    document.panels.resize(2);
    const Document taken = withTable(document, table({"t", "s"}), 1);
    REQUIRE(taken.panels[1].plots.size() == 1);
    CHECK(taken.panels[1].plots[0].of == "(t, s)");
    CHECK(taken.panels[1].plots[0].kind == "points");
    DataTable other = table({"t", "s"});
    other.columns[1].numbers = column({7, 8, 9});
    const Document again = withTable(taken, other, 0);
    CHECK(again.page == taken.page);
    CHECK(again.panels == taken.panels);
    CHECK((*readPage(again).columnOf("s"))[0] == 7);
}

TEST_CASE("a plot knows the table whose rows it draws, through columns that are computed, too") {
    Document document = withTable(Document{}, table({"t", "s"}), 0);
    document.page.push_back("r = s - 2t");
    document.page.push_back("d = {1, 2, 3}");
    const Page page = readPage(document);
    CHECK(tableOfPlot(page, plotOf("(t, s)", "points")) == "readings.csv");
    CHECK(tableOfPlot(page, plotOf("(d, r)", "points")) == "readings.csv");
    CHECK(!tableOfPlot(page, plotOf("(d, d)", "points")));
    CHECK(!tableOfPlot(page, plotOf("(t, nothing)", "points")));
}

TEST_CASE("rows are left out and count again") {
    const Document document = withTable(Document{}, table({"t", "s"}), 0);
    const Document out = withRowsLeftOut(document, "readings.csv", {2, 0, 2, 99}, true);
    CHECK(out.tables.find("readings.csv")->leftOut == std::vector<std::size_t>{0, 2});
    CHECK(isLeftOut(out, "readings.csv", 2));
    CHECK(!isLeftOut(out, "readings.csv", 1));
    CHECK(!isLeftOut(out, "other.csv", 0));
    CHECK(std::isnan((*readPage(out).columnOf("t"))[0]));
    CHECK(withRowsLeftOut(out, "readings.csv", {0, 2}, false) == document);
    CHECK(withRowsLeftOut(out, "other.csv", {0}, true) == out);
}

namespace {

Document measured() {
    DataTable made;
    made.source = "r.csv";
    made.digest = "abc";
    made.columns = {{"t", "s", "", column({3, 1, 2})}, {"s", "m", "", column({30, std::nan(""), 20})}};
    made.leftOut = {1};
    return withTable(Document{}, std::move(made), 0);
}

const std::vector<double>& numbersOf(const Document& document, std::size_t k) {
    return *document.tables.find("r.csv")->columns[k].numbers;
}

} // namespace

TEST_CASE("numbers of a table are changed, and it says that they were") {
    const Document before = measured();
    const Document changed = withCell(before, "r.csv", 1, 1, 10);
    CHECK(numbersOf(changed, 1)[1] == 10);
    CHECK(numbersOf(changed, 0) == numbersOf(before, 0));
    CHECK(changed.tables.find("r.csv")->isEdited);
    CHECK(changed.tables.find("r.csv")->leftOut == std::vector<std::size_t>{1});
    CHECK_FALSE(before.tables.find("r.csv")->isEdited);
    const Document longer = withCell(before, "r.csv", 3, 0, 4);
    CHECK(numbersOf(longer, 0) == std::vector<double>{3, 1, 2, 4});
    CHECK(std::isnan(numbersOf(longer, 1)[3]));
    CHECK(withCell(before, "r.csv", 5, 0, 4) == before);
    CHECK(withCell(before, "none", 0, 0, 4) == before);
}

TEST_CASE("sorting and taking rows away keep each row together, and which ones are left out") {
    const Document before = measured();
    const Document sorted = withTableSorted(before, "r.csv", 0, false);
    CHECK(numbersOf(sorted, 0) == std::vector<double>{1, 2, 3});
    CHECK(std::isnan(numbersOf(sorted, 1)[0]));
    CHECK(numbersOf(sorted, 1)[2] == 30);
    CHECK(sorted.tables.find("r.csv")->leftOut == std::vector<std::size_t>{0});
    CHECK(withTableSorted(sorted, "r.csv", 0, false) == sorted);
    const Document down = withTableSorted(before, "r.csv", 1, true);
    CHECK(numbersOf(down, 1)[0] == 30);
    CHECK(std::isnan(numbersOf(down, 1)[2])); // missing ones last, both ways
    const Document fewer = withoutRows(before, "r.csv", {0});
    CHECK(numbersOf(fewer, 0) == std::vector<double>{1, 2});
    CHECK(fewer.tables.find("r.csv")->leftOut == std::vector<std::size_t>{0});
    CHECK(withoutRows(before, "r.csv", {}) == before);
}

TEST_CASE("columns that the page computes from a table belong to it") {
    Document document = measured();
    document.page.push_back("r = 2s - t");
    document.page.push_back("q = r^2");
    document.page.push_back("m = mean(s)");
    document.page.push_back("k = {1, 2, 3}");
    document.page.push_back("wrong = s + ");
    const auto computed = computedColumns(document, "r.csv");
    REQUIRE(computed.size() == 2);
    CHECK(computed[0].name == "r");
    CHECK((*computed[0].numbers)[0] == 57);
    CHECK(computed[1].name == "q");
    CHECK(computedColumns(document, "none").empty());
}

TEST_CASE("a table of values shows the columns there are, or places along a function") {
    Document document = measured();
    CHECK(valuesToShow(document) == "t, s");
    CHECK(document == measured());
    Document without;
    without.page = {"x in [0, 2], unit m", "f(x) = x^2", "x_1 = 7"};
    CHECK(valuesToShow(without) == "x_2, f(x_2)");
    CHECK(without.page.back() == "x_2 = {0, 0.2, ..., 2}, unit m");
    CHECK(readPage(without).columnOf("x_2")->size() == 11);
    Document empty;
    CHECK(valuesToShow(empty).empty());
}
