#include "formula/compile/compile.h"
#include "page_of_functions.h"

using namespace coulter;

namespace {

Compiled compiled(const Page& page, const std::string& text, const std::vector<std::string>& inputs = {"x"}) {
    return compile(page, expressionOver(page, text, inputs), inputs);
}

} // namespace

TEST_CASE("common parts are computed once, and constants when a formula is compiled") {
    const Page page = pageOfFunctions({{"f", {"t"}, "sin(t) + sin(t)^2"}});
    CHECK(compiled(page, "f(x) + f(x)").program->instructions.size() <
          2 * compiled(page, "f(x) + f(x + 1)").program->instructions.size());
    CHECK(compiled(page, "exp(2) + 3").program->instructions.empty());
    CHECK_FALSE(compileStepByStep(page, expressionOver(page, "exp(2) + 3")).program->instructions.empty());
}

TEST_CASE("a vector has an output for each component") {
    CHECK(compiled({}, "(x, 2x, 1)").program->outputs.size() == 3);
    CHECK_FALSE(compiled({}, "(x, 1) + (x, 1, 2)").program);
}

TEST_CASE("what cannot be compiled says so at its place") {
    KnownNames names;
    const Compiled found = compile({}, expressionOver({}, "x + q", {"x", "q"}), std::vector<std::string>{"x"});
    CHECK_FALSE(found.program);
    REQUIRE(found.problems.size() == 1);
    CHECK(found.problems[0].first == 5);
    CHECK(found.problems[0].sentence == "q is not defined on this page.");
}

TEST_CASE("values may take the place of names") {
    const Page page;
    const ExprPtr e = expressionOver(page, "a x", {"a", "x"});
    const Compiled found = compile(page, e, std::vector<std::string>{"x"}, {{"a", 2.5}});
    REQUIRE(found.program);
    CHECK(Evaluator(*found.program)(4) == 10);
}
