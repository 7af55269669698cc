#include "formula/base/text.h"
#include "formula/compile/compile.h"
#include "formula/lines/answer.h"
#include "formula/lines/plotted.h"
#include "formula/lines/read_page.h"
#include "formula/page/page.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <sstream>

using namespace coulter;

namespace {

double value(const std::string& text, std::vector<std::string> lines = {}) {
    const Page page = readPage(lines);
    const Answer answer = evaluate(page, text);
    INFO(text << ": " << (answer.problems.empty() ? "" : answer.problems[0].sentence));
    CHECK(answer.problems.empty());
    return answer.value();
}

Problem problem(const std::string& text, std::vector<std::string> lines = {}) {
    const Page page = readPage(lines);
    const Answer answer = evaluate(page, text);
    INFO(text);
    REQUIRE_FALSE(answer.problems.empty());
    return answer.problems[0];
}

} // namespace

TEST_CASE("comparisons chain, join and turn round as in print") {
    CHECK(value("[1 < 2]") == 1);
    CHECK(value("[2 < 1]") == 0);
    CHECK(value("[1 <= 1 < 2]") == 1);
    CHECK(value("[1 ≤ 2 < 2]") == 0);
    CHECK(value("[3 > 2 >= 2]") == 1);
    CHECK(value("[2 = 2] + [2 != 2] + [2 ≠ 3]") == 2);
    CHECK(value("[1 < 2 and 2 < 1]") == 0);
    CHECK(value("[1 < 2 or 2 < 1]") == 1);
    CHECK(value("[not 2 < 1]") == 1);
    CHECK(value("[1 < 2 or 1 < 2 and 2 < 1]") == 1); // “and” binds tighter
    CHECK(value("[(1 < 2 or 1 < 2) and 2 < 1]") == 0);
    CHECK(value("3[1 < 2](2 + 1)") == 9);
    CHECK(value("2 [1 < 2]^2") == 2);
    CHECK(std::isnan(value("[0/0 < 1]")));
}

TEST_CASE("the first piece whose condition holds has the value") {
    const std::vector<std::string> lines{"f(t) = { 0 for t < 1; 4(t - 1) for 1 <= t < 3; 8 otherwise }",
                                         "g(t) = { t^2 for 0 <= t <= 1 }",
                                         "h(t) = {1/t for t > 0; 0/0 for t = 0; -1 otherwise}"};
    CHECK(value("f(0.5)", lines) == 0);
    CHECK(value("f(1)", lines) == 0);
    CHECK(value("f(2)", lines) == 4);
    CHECK(value("f(3)", lines) == 8);
    CHECK(value("g(0.5)", lines) == 0.25);
    CHECK(std::isnan(value("g(2)", lines)));
    CHECK(std::isnan(value("h(0)", lines))); // undefined by its own piece, not by the next
    CHECK(value("h(-1)", lines) == -1);
    CHECK(value("{5 otherwise}") == 5);
    CHECK(value("2 {1 for 1 < 2}") == 2);
    CHECK(value("{1 for 1 < 2; 3 for 1 < 2}") == 1);
}

TEST_CASE("a period continues a function from where it is defined") {
    const std::vector<std::string> lines{"r(t) = {0 for t < 1; 8 for 1 <= t < 3; 2 otherwise}",
                                         "r(t + 6) = r(t)",
                                         "s(x) = {x for -pi <= x < pi}",
                                         "s(x + 2 pi) = s(x)",
                                         "P = 2",
                                         "u(x) = x",
                                         "u(x + P) = u(x)"};
    const auto later = [&](int periods, const char* place) {
        std::ostringstream text;
        text << "r(6*" << periods << " + " << place << ")";
        return value(text.str(), lines);
    };
    for (int k = -3; k <= 3; ++k) {
        CHECK(later(k, "0.5") == 0);
        CHECK(later(k, "2") == 8);
        CHECK(later(k, "5") == 2);
    }
    CHECK(value("s(4)", lines) == Approx(4 - 2 * std::acos(-1.0)));
    CHECK(value("s(-4)", lines) == Approx(2 * std::acos(-1.0) - 4));
    CHECK(value("s(1)", lines) == 1);
    CHECK(value("u(5.5)", lines) == 1.5);
}

TEST_CASE("sums and products run over whole numbers") {
    CHECK(value("sum_{n=1}^{100} n") == 5050);
    CHECK(value("sum_{n=1}^4 n^2") == 30);
    CHECK(value("∑_{k=0}^{20} 1/k!") == Approx(std::exp(1.0)).epsilon(1e-15));
    CHECK(value("prod_{k=1}^5 k") == 120);
    CHECK(value("∏_{k=1}^{3} (k + 1)") == 24);
    CHECK(value("sum_{n=1}^3 n + 10") == 16); // the sign ends the term
    CHECK(value("sum_{n=1}^3 (n + 10)") == 36);
    CHECK(value("sum_{n=1}^3 2 n/2") == 6);
    CHECK(value("sum_{n=3}^1 n") == 0);
    CHECK(value("prod_{n=3}^1 n") == 1);
    CHECK(value("sum_{i=1}^3 sum_{j=1}^{i} j") == 10);
    CHECK(value("sum_{n=1}^N 1/n", {"N = 4"}) == Approx(25.0 / 12));
    CHECK(value("f(0.5)", {"f(x) = sum_{n=0}^{60} x^n"}) == Approx(2).epsilon(1e-15));
}

TEST_CASE("partial sums can be a family over their length") {
    const std::vector<std::string> lines{"S(x, N) = 4/pi sum_{k=0}^{N} sin((2k + 1) x)/(2k + 1)", "x in [0, 6]"};
    const Page page = readPage(lines);
    const Plotted plotted = readPlotted(page, "S(x, N) for N in {1, 5, 25}");
    INFO((plotted.problems.empty() ? "" : plotted.problems[0].sentence));
    REQUIRE(plotted.expression);
    const Compiled compiled = compile(page, plotted.expression, std::vector<std::string>{"x"}, {{"N", 25}});
    INFO((compiled.problems.empty() ? "" : compiled.problems[0].sentence));
    REQUIRE(compiled.program);
    Evaluator f(*compiled.program);
    CHECK(f(1.5) == Approx(1).margin(0.05)); // a square wave, nearly
}

TEST_CASE("conditions are no numbers, and numbers no conditions") {
    struct Case {
        const char* text;
        int first;
        const char* sentence;
    };
    for (const Case& c : {Case{"1 < 2", 1, "no number"},
                          Case{"2 + (1 < 2)", 5, "no number"},
                          Case{"sin(1 < 2)", 5, "no number"},
                          Case{"(1 < 2)^2", 1, "no number"},
                          Case{"-(1 < 2)", 2, "no number"},
                          Case{"(1 < 2)!", 1, "no number"},
                          Case{"[3]", 2, "condition is needed"},
                          Case{"{1 for 2}", 8, "condition is needed"},
                          Case{"[1 < 2 and 3]", 12, "condition is needed"},
                          Case{"[not 3]", 6, "condition is needed"},
                          Case{"{1; 2}", 3, "says where it holds"},
                          Case{"{1 otherwise; 2 otherwise}", 15, "Nothing can follow"},
                          Case{"{1 for 1 < 2", 1, "never closed"},
                          Case{"[1 < 2", 1, "never closed"},
                          Case{"sum_{n=1}^{0.5} n", 12, "whole numbers"},
                          Case{"sum_{n=1}^{1e9} n", 1, "more than 10000"},
                          Case{"sum n", 1, "lower limit"},
                          Case{"sum_{1}^{2} 3", 6, "name that runs"},
                          Case{"sum_{n=1} n", 11, "upper limit"},
                          Case{"sum_{n=1}^2 m", 13, "m is not defined"},
                          Case{"2 and 3", 3, "condition"},
                          Case{"for", 1, "does not fit"}}) {
        const Problem p = problem(c.text);
        INFO(c.text << " → " << describe(p));
        CHECK(p.sentence.find(c.sentence) != std::string::npos);
        if (std::string(c.text) != "2 and 3") CHECK(p.first == c.first);
    }
}

TEST_CASE("a period needs its function, once, and a positive length") {
    const std::vector<std::string> lines{"r(t + 6) = r(t)", "f(x) = x", "f(x + 0) = f(x)", "g(x, y) = x",
                                         "g(x + 1) = g(x)", "h(x) = x", "h(x + 1) = h(x)", "h(x + 2) = h(x)"};
    const Page page = readPage(lines);
    const auto sentence = [&](std::size_t i) {
        return page.lines[i].problems.empty() ? std::string() : page.lines[i].problems[0].sentence;
    };
    CHECK(sentence(0).find("no function of one variable") != std::string::npos);
    CHECK(sentence(2).find("positive") != std::string::npos);
    CHECK(sentence(4).find("no function of one variable") != std::string::npos);
    CHECK(sentence(6).empty());
    CHECK(sentence(7).find("already has a period") != std::string::npos);
}
