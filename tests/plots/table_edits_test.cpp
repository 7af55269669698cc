// Tables taken into a document, and their rows left out.
#include "plots/table_edits.h"

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
