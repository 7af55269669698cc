#include "figure/panel_grid.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <random>
#include <set>

using namespace coulter;

namespace {

Panel named(const std::string& title) {
    Panel panel;
    panel.title = title;
    return panel;
}

Document withPanels(std::vector<Cell> cells) {
    Document document;
    document.panels.clear();
    for (const Cell& cell : cells) {
        document.panels.push_back(named(std::string(1, static_cast<char>('a' + document.panels.size()))));
        document.panels.back().cell = cell;
    }
    return document;
}

/// Whether every cell of the grid belongs to exactly one panel.
bool isTiled(const Document& document) {
    const std::vector<Cell> cells = cellsOf(document);
    const GridSize size = gridSize(cells);
    int covered = 0;
    for (const Cell& cell : cells) covered += cell.rows * cell.columns;
    return !overlapping(cells) && covered == size.rows * size.columns;
}

} // namespace

TEST_CASE("panels without a cell lie below each other") {
    Document document;
    document.panels = {named("a"), named("b"), named("c")};
    CHECK(cellsOf(document) == std::vector<Cell>{{0, 0}, {1, 0}, {2, 0}});
    CHECK(rowWeights(document) == std::vector<double>{1, 1, 1});
    document.sheet.rowHeights = {2};
    CHECK(rowWeights(document) == std::vector<double>{2, 1, 1});
}

TEST_CASE("panels that lie over each other are found") {
    CHECK_FALSE(overlapping({{0, 0, 2, 1}, {0, 1}, {1, 1}}));
    CHECK(overlapping({{0, 0, 2, 2}, {2, 0}, {1, 1}}) == std::pair<std::size_t, std::size_t>{0, 2});
}

TEST_CASE("a panel beside another one takes a new column, over which the other rows reach") {
    const Document two = withPanels({{0, 0}, {1, 0}});
    const Document three = withPanelBeside(two, 0, Side::Right, named("new"));
    CHECK(cellsOf(three) == std::vector<Cell>{{0, 0}, {1, 0, 1, 2}, {0, 1}});
    CHECK(isTiled(three));
    const Document left = withPanelBeside(two, 0, Side::Left, named("new"));
    CHECK(cellsOf(left) == std::vector<Cell>{{0, 1}, {1, 0, 1, 2}, {0, 0}});
    // Taken away again, the sheet is as it was.
    CHECK(cellsOf(withoutPanel(three, 2)) == cellsOf(two));
}

TEST_CASE("a panel that is split shares its room with the new one, others keep theirs") {
    const Document two = withPanels({{0, 0}, {0, 1}});
    const Document split = withPanelSplit(two, 0, Side::Right, named("new"));
    CHECK(cellsOf(split) == std::vector<Cell>{{0, 0}, {0, 2}, {0, 1}});
    CHECK(columnWeights(split) == std::vector<double>{0.5, 0.5, 1});
    // One that has several columns gives some of them away.
    const Document wide = withPanels({{0, 0, 1, 2}, {1, 0}, {1, 1}});
    CHECK(cellsOf(withPanelSplit(wide, 0, Side::Right, named("new"))) ==
          std::vector<Cell>{{0, 0}, {1, 0}, {1, 1}, {0, 1}});
}

TEST_CASE("panels find their neighbours and change places with them") {
    const Document document = withPanels({{0, 0, 2, 1}, {0, 1}, {1, 1}});
    CHECK(neighbourOf(document, 0, Side::Right) == 1);
    CHECK(neighbourOf(document, 2, Side::Above) == 1);
    CHECK(neighbourOf(document, 2, Side::Left) == 0);
    CHECK_FALSE(neighbourOf(document, 0, Side::Left));
    CHECK(cellsOf(withPanelsExchanged(document, 0, 2)) == std::vector<Cell>{{1, 1}, {0, 1}, {0, 0, 2, 1}});
    const Document moved = withPanelMoved(document, 0, 2, Side::Right);
    CHECK(moved.panels[0].title == "a");
    CHECK(isTiled(moved));
    CHECK(neighbourOf(moved, 2, Side::Right) == 0);
}

TEST_CASE("whatever is done to panels one after the other, each keeps a place of its own") {
    std::mt19937 random(7);
    const auto below = [&](std::size_t count) { return random() % count; };
    Document document;
    document.panels[0].title = "0";
    int made = 0;
    for (int step = 0; step < 3000; ++step) {
        const std::size_t count = document.panels.size(), panel = below(count), other = below(count);
        const auto side = static_cast<Side>(below(4));
        std::multiset<std::string> titles;
        for (const Panel& each : document.panels) titles.insert(each.title);
        switch (count > 14 ? 2 : below(5)) {
        case 0:
            document = withPanelBeside(document, panel, side, named(std::to_string(++made)));
            titles.insert(std::to_string(made));
            break;
        case 1:
            document = withPanelSplit(document, panel, side, named(std::to_string(++made)));
            titles.insert(std::to_string(made));
            break;
        case 2:
            titles.erase(titles.find(document.panels[panel].title));
            document = withoutPanel(document, panel);
            if (count == 1) titles.insert("");
            break;
        case 3: document = withPanelsExchanged(document, panel, other); break;
        default: {
            const std::string title = document.panels[panel].title;
            document = withPanelMoved(document, panel, other, side);
            CHECK(document.panels[panel].title == title);
        }
        }
        const std::vector<Cell> cells = cellsOf(document);
        const GridSize size = gridSize(cells);
        REQUIRE_FALSE(overlapping(cells));
        REQUIRE(size.rows <= mostCells);
        REQUIRE(size.columns <= mostCells);
        std::multiset<std::string> now;
        for (const Panel& each : document.panels) now.insert(each.title);
        REQUIRE(now == titles);
        // No row or column stands for nothing.
        for (int row = 0; row < size.rows; ++row)
            REQUIRE(std::ranges::any_of(cells, [&](const Cell& c) { return c.row <= row && row < c.row + c.rows; }));
        REQUIRE(document.sheet.columnWidths.size() <= static_cast<std::size_t>(size.columns));
        REQUIRE(std::ranges::all_of(columnWeights(document), [](double weight) { return weight > 0; }));
    }
}
