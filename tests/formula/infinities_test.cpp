// Answers that went through an infinite value say so.
#include "formula/answer_text.h"

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
