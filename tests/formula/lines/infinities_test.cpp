// Answers that went through an infinite value say so.
#include "formula/base/text.h"
#include "formula/compile/compile.h"
#include "formula/lines/answer.h"
#include "formula/lines/answer_text.h"
#include "formula/lines/read_page.h"
#include "formula/notation/parser.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

TEST_CASE("an answer that went through an infinite value says so, and claims no bound") {
    const Page page =
        readPage(std::vector<std::string>{"f(x) = { 1/x for x != 0; 0 otherwise }", "a = 0", "q = 1/(5 + 1/a)"});
    for (const char* text : {"1/(5 + 1/0)", "exp(Ei(0))", "arctan(1/0)", "q", "min(3, 1/0)", "e^(-inf)"}) {
        INFO(text);
        const Answer answer = evaluate(page, text);
        REQUIRE(answer.problems.empty());
        CHECK(std::isfinite(answer.value()));
        CHECK(answer.throughInfinity);
        CHECK(std::isinf(answer.errors[0]));
        CHECK(answerText(answer, true).find("infinite value") != std::string::npos);
    }
    // What is infinite itself is what it says; a piece that does not hold is on nobody's way; limits are no values.
    for (const char* text : {"1/0", "f(0)", "f(2)", "int_0^inf exp(-k^2) dk", "1/3", "ln(0)", "1/0 - 1/0"}) {
        INFO(text);
        CHECK(!evaluate(page, text).throughInfinity);
    }
    const Page asked = readPage(std::vector<std::string>{"1/(5 + 1/0) = ?"});
    REQUIRE(asked.problems().size() == 1);
    CHECK(asked.problems()[0].severity == Problem::Severity::Note);
}

TEST_CASE("what went through an infinite constant is undefined under integrals and in formulas that are drawn") {
    for (const char* text : {"int_0^1 x/(5 + 1/0) dx", "sum_{n=1}^{inf} 1/n^2/(5 + 1/0)", "int_0^1 exp(Ei(0)) dx"}) {
        INFO(text);
        CHECK(std::isnan(evaluate(Page{}, text).value()));
    }
    const auto valueAt = [](const std::string& text, double x, const std::vector<std::string>& lines) {
        const Page page = readPage(lines);
        const ParsedExpression parsed = parseExpression(decodeUtf8(text), page.names);
        const Compiled compiled = compile(page, parsed.expression, std::vector<std::string>{"x"});
        REQUIRE(compiled.program);
        return Evaluator(*compiled.program)(x);
    };
    const std::vector<std::string> page{"x in [0, 2]", "a = 1/0", "L = inf", "f(x) = x/(5 + a)"};
    CHECK(std::isnan(valueAt("x + 1/(5 + 1/0)", 1, page)));
    CHECK(std::isnan(valueAt("x/(1/0)", 1, page)));
    CHECK(std::isnan(valueAt("f(x)", 1, page)));
    // A quantity that was computed so is undefined in turn, however often it is passed on; one that was not is not.
    const std::vector<std::string> passed{"x in [0, 2]", "q = 1/(5 + 1/0)", "p = q + 1",
                                          "c = { 1/0 for 1 > 2; 3 otherwise }"};
    CHECK(std::isnan(valueAt("x + q", 1, passed)));
    CHECK(std::isnan(valueAt("x + p", 1, passed)));
    CHECK(valueAt("x + c", 1, passed) == 4);
    const Page noted = readPage(passed);
    CHECK(noted.problems().size() == 2); // of q and of p
    CHECK(noted.valueOf("q") == 0.0);
    // Pieces that do not hold are on nobody's way, a limit fills a place, and an end may be infinite.
    CHECK(valueAt("{ x for x < 1; 1/(5 + 1/0) otherwise }", 0.5, page) == 0.5);
    CHECK(std::isnan(valueAt("{ x for x < 1; 1/(5 + 1/0) otherwise }", 1.5, page)));
    CHECK(valueAt("1/(5 + 1/(x - 1))", 1, page) == 0);
    CHECK(valueAt("int_0^L exp(-x k) dk", 2, page) == Approx(0.5));
    CHECK(valueAt("x int_{-inf}^inf exp(-k^2) dk", 1, page) == Approx(std::sqrt(M_PI)));
}
