#pragma once
#include "formula/compile/compile.h"
#include "formula/lines/plotted.h"
#include "formula/lines/read_page.h"

#include <catch2/catch.hpp>

/// A formula of x and y, compiled.
inline std::shared_ptr<const coulter::Program> field(const std::string& formula) {
    const std::vector<std::string> lines{"f(x, y) = " + formula, "x in [0, 1]", "y in [0, 1]"};
    const coulter::Page page = coulter::readPage(lines);
    const coulter::Plotted plotted = coulter::readPlotted(page, "f(x, y)", 2);
    REQUIRE(plotted.expression);
    return coulter::compile(page, plotted.expression, plotted.variables).program;
}
