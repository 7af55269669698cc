#include "formula/page/page.h"

#include "formula/lines/read_page.h"
#include "typeset/formula_math.h"

#include <catch2/catch.hpp>

using namespace coulter;

TEST_CASE("columns are typeset, long ones in parts that can be broken") {
    const Page page = readPage(std::vector<std::string>{"d = {0, 0.1, ..., 1}, unit m", "s = {1, 2, 3, 4}", "2s = ?",
                                                        "X ~ N(0, 1), count 3, seed 1"});
    for (const Line& line : page.lines) CHECK(lineMath(line));
    CHECK(lineTerms(page.lines[1]).size() == 4);
    CHECK(page.lines[2].columns.size() == 1);
}
