#include "formula/compile/compile.h"
#include "formula/lines/answer.h"
#include "formula/lines/plotted.h"
#include "formula/lines/read_page.h"
#include "formula/page/page.h"

#include <catch2/catch.hpp>
#include <chrono>
#include <cmath>

using namespace coulter;

namespace {

Page page(std::vector<std::string> lines) { return readPage(lines); }

/// The first error of a line, or an empty one.
Problem error(const Page& p, std::size_t line) {
    for (const Problem& problem : p.lines[line].problems) {
        if (problem.severity == Problem::Severity::Error) return problem;
    }
    return {};
}

bool has(const std::string& text, const std::string& part) { return text.find(part) != std::string::npos; }

} // namespace

TEST_CASE("the order of lines does not matter") {
    const Page p = page({"a = b + c", "b = 2c", "c = 3"});
    CHECK(p.lines[0].value == 9);
    CHECK(p.lines[1].value == 6);
    CHECK(p.problems().empty());
}

TEST_CASE("a line is of the kind its spelling says") {
    const Page p = page({"", "# prose", "a = 1.5, from 0 to 6, unit m, label \"depth\"", "f(x) = a x",
                         "x in [0, 1), count 100", "f(2) = ?", "x y z"});
    const LineKind kinds[] = {LineKind::Blank,    LineKind::Prose,    LineKind::Quantity, LineKind::Function,
                              LineKind::Variable, LineKind::Question, LineKind::Unread};
    for (std::size_t i = 0; i < 7; ++i) CHECK(p.lines[i].kind == kinds[i]);
    CHECK(p.lines[2].range == Interval{0, 6, true, true});
    CHECK(p.lines[2].unit == "m");
    CHECK(p.lines[2].label == "depth");
    CHECK(p.lines[2].plainNumber == Span{5, 7});
    CHECK(p.lines[4].interval == Interval{0, 1, true, false});
    CHECK(p.lines[4].grid.count == 100);
    CHECK(p.lines[5].value == 3);
    CHECK(has(error(p, 6).sentence, "defines nothing"));
}

TEST_CASE("a circle is named on every line of it") {
    const Page p = page({"a = b", "b = f(1)", "f(x) = a x", "c = 2", "g(x) = g(x)"});
    for (const std::size_t line : {0, 1, 2}) {
        INFO(line);
        CHECK(has(error(p, line).sentence, "circle"));
        CHECK(has(error(p, line).sentence, "→"));
    }
    CHECK(error(p, 0).sentence == error(p, 1).sentence);
    CHECK(p.lines[3].value == 2);
    CHECK(has(error(p, 4).sentence, "g → g"));
}

TEST_CASE("a line with a problem takes down only those that need it") {
    const Page p = page({"a = 2 +", "b = a + 1", "c = 4", "d = c^2", "f(x) = b x"});
    CHECK(has(error(p, 0).sentence, "ends too early"));
    CHECK(has(error(p, 1).sentence, "line 1 has a problem"));
    CHECK(has(error(p, 4).sentence, "line 2 has a problem"));
    CHECK(p.lines[3].value == 16);
}

TEST_CASE("intervals that cannot be are refused with a way out") {
    const Page p = page({"x in [2, 1]", "y in [1, 1]", "z in [0, inf]", "u in [0 1]", "v in [0, 1", "w in 0, 1",
                         "s in [0, 1], count 1e12", "t in (0, 1], step 0.1"});
    CHECK(has(error(p, 0).sentence, "reversed"));
    CHECK(has(error(p, 1).sentence, "empty"));
    CHECK(has(error(p, 2).sentence, "finite"));
    CHECK(has(error(p, 3).sentence, "two ends"));
    CHECK(has(error(p, 4).sentence, "never closed"));
    CHECK(has(error(p, 5).sentence, "interval is missing"));
    CHECK(error(p, 6).sentence.empty()); // a count is judged where it is sampled
    CHECK(p.lines[7].interval.lowClosed == false);
}

TEST_CASE("clauses are read, and refused where they do not belong") {
    const Page p = page({"a = 1, unit frobnitz", "a_1 = 1, count 3", "a_2 = 1, from 5 to 2", "a_3 = 1, unit m, unit m",
                         "a_4 = 1, label depth", "a_5 = 1, from 2", "x in [1, 10], logarithmic, count 11",
                         "T(x) = x, unit °C", "a_6 = 1, unit kg m-3"});
    CHECK(has(error(p, 0).sentence, "not a unit"));
    CHECK(error(p, 0).first == 13);
    CHECK(error(p, 0).last == 20);
    CHECK(has(error(p, 1).sentence, "belongs to a variable"));
    CHECK(has(error(p, 2).sentence, "no extent"));
    CHECK(has(error(p, 3).sentence, "twice"));
    CHECK(has(error(p, 4).sentence, "quotation marks"));
    CHECK(has(error(p, 5).sentence, "no upper end"));
    CHECK(p.lines[6].grid.logarithmic);
    CHECK(p.lines[6].good());
    CHECK(p.lines[7].unit == "°C");
    CHECK(p.lines[8].good());
}

TEST_CASE("names are one letter with a subscript, defined once, and may hide a constant") {
    const Page p =
        page({"speed = 3", "a = 1", "a = 2", "e = 1.6e-19", "f(x, x) = 1", "f_1() = 2", "T_m = 1", "T_{m} = 2"});
    CHECK(has(error(p, 0).suggestion, "s_{peed}"));
    CHECK(has(error(p, 2).sentence, "already defined in line 2"));
    CHECK(p.lines[3].good());
    CHECK(p.lines[3].problems[0].severity == Problem::Severity::Note);
    CHECK(has(error(p, 4).sentence, "twice"));
    CHECK(has(error(p, 5).sentence, "no parameter"));
    CHECK(has(error(p, 7).sentence, "already defined"));
    CHECK(evaluate(p, "2e").value() == 3.2e-19);
}

TEST_CASE("a line without a head has its problem at its first character") {
    for (const char* text : {", unit m/h", "= 5", "= ?", "( = 1", "solves a = 1"}) {
        const Page p = page({text});
        INFO(text);
        REQUIRE_FALSE(p.problems().empty());
        CHECK(p.problems()[0].first >= 1);
        CHECK(p.problems()[0].last >= p.problems()[0].first);
    }
}

TEST_CASE("questions need a place") {
    const Page p = page({"x in [0, 1]", "f(x) = 2x", "f(x) = ?", "f(3) = ?", "5! = ?", "3!=?"});
    CHECK(has(error(p, 2).sentence, "variable"));
    CHECK(p.lines[3].value == 6);
    CHECK(p.lines[4].value == 120);
    CHECK(p.lines[5].value == 6);
}

TEST_CASE("parameters hide the page's names only inside their function") {
    const Page p = page({"a = 10", "f(a) = a + b", "b = 1", "g(x) = f(x) + a"});
    CHECK(evaluate(p, "f(2)").value() == 3);
    CHECK(evaluate(p, "g(2)").value() == 13);
}

TEST_CASE("functions that call each other grow without bound into a sentence, quickly") {
    std::vector<std::string> lines{"f_0(x) = x + 1"};
    for (int i = 1; i <= 40; ++i) {
        const std::string before = "f_" + std::to_string(i - 1);
        lines.push_back("f_" + std::to_string(i) + "(x) = " + before + "(x + " + std::to_string(i) + ") " + before +
                        "(2x)");
    }
    const Page p = page(lines);
    CHECK(p.lines[5].good());
    CHECK(has(error(p, 40).sentence, "problem"));
    // Calls with equal arguments are one, so this one is small however deep it is.
    std::vector<std::string> shared{"f_0(x) = x + 1"};
    for (int i = 1; i <= 60; ++i)
        shared.push_back("f_" + std::to_string(i) + "(x) = f_" + std::to_string(i - 1) + "(x) + f_" +
                         std::to_string(i - 1) + "(x)");
    CHECK(evaluate(page(shared), "f_60(0)").value() == std::ldexp(1.0, 60));
}

TEST_CASE("programs run the same on blocks of every length") {
    const Page p = page({"f(x) = sin(x)^2 + x^3/(1 + x^2) - exp(-x) + |x|", "x in [0, 1]"});
    const Plotted plotted = readPlotted(p, "f(x)");
    const Compiled compiled = compile(p, plotted.expression, std::vector<std::string>{"x"});
    REQUIRE(compiled.program);
    std::vector<double> xs(1000), whole(1000);
    for (std::size_t i = 0; i < xs.size(); ++i) xs[i] = -3 + 0.01 * static_cast<double>(i);
    Evaluator evaluator(*compiled.program);
    evaluator(xs.data(), whole.data(), xs.size());
    for (std::size_t i = 0; i < xs.size(); i += 7) CHECK(evaluator(xs[i]) == whole[i]);
    for (const std::size_t count : {1, 7, 8, 255, 256, 257, 999}) {
        std::vector<double> part(count);
        evaluator(xs.data(), part.data(), count);
        CHECK(std::equal(part.begin(), part.end(), whole.begin()));
    }
    for (std::size_t i = 0; i < xs.size(); i += 50) {
        const double x = xs[i];
        CHECK(whole[i] ==
              Approx(std::sin(x) * std::sin(x) + x * x * x / (1 + x * x) - std::exp(-x) + std::abs(x)).epsilon(1e-14));
    }
}

TEST_CASE("common parts are computed once and constants folded") {
    const Page p = page({"a = 2", "x in [0, 1]"});
    const auto count = [&](const std::string& of) {
        const Plotted plotted = readPlotted(p, of);
        REQUIRE(plotted.expression);
        return compile(p, plotted.expression, std::vector<std::string>{"x"}).program->instructions.size();
    };
    CHECK(count("sin(x) + sin(x)") == 2);
    CHECK(count("(x + 1)(x + 1)") == 2);
    CHECK(count("x sqrt(a + 2)/exp(0)") == 2);
    CHECK(count("x^2 + x^4") == 3);
}

TEST_CASE("what a plot draws: families, paired cases and their problems") {
    const Page p = page({"T(z, t) = z + t", "t in [0, 1]", "z in [0, 2]", "a = 3", "f(x) = x", "h(t) = 1"});
    const Plotted family = readPlotted(p, "T(z, t) for z in {0.1, a/2, 1}");
    REQUIRE(family.expression);
    CHECK(family.variables == std::vector<std::string>{"t"});
    REQUIRE(family.cases.size() == 3);
    CHECK(family.cases[1][0] == 1.5);
    const Plotted pairs = readPlotted(p, "T(z, t) u for (z, u) in {(1, 2), (3, 4)}");
    REQUIRE(pairs.expression);
    CHECK(pairs.cases[1] == std::vector<double>{3, 4});
    CHECK(readPlotted(p, "3").variables == std::vector<std::string>{"t"});
    struct Case {
        const char* of;
        const char* sentence;
    };
    for (const Case& c :
         {Case{"T(z, t)", "depends on z and t"}, Case{"T(z, t) for z in {}", "empty"},
          Case{"T(z, t) for z in {1,}", "missing"}, Case{"T(z, t) for z in {1 2}", "without a sign"},
          Case{"T(z, t) for z in {1", "never closed"}, Case{"T(z, t) for z", "cases is missing"},
          Case{"T(z, t) for (z, u) in {(1, 2), (3)}", "fewer"}, Case{"T(z, t) for (z, u) in {(1, 2, 3)}", "more"},
          Case{"f(x)", "not defined"}, Case{"T(z, t) for 3 in {1}", "name is missing"}, Case{"", "missing"}}) {
        const Plotted bad = readPlotted(p, c.of);
        INFO(c.of);
        CHECK_FALSE(bad.expression);
        REQUIRE_FALSE(bad.problems.empty());
        INFO(bad.problems[0].sentence);
        CHECK(has(bad.problems[0].sentence, c.sentence));
    }
}

TEST_CASE("a page longer than can be read says so") {
    const std::vector<std::string> lines(2500, "# line");
    const Page p = readPage(lines);
    CHECK(p.lines.size() == longestPage);
    CHECK(has(p.problems().back().sentence, "ends after 2000 lines"));
    std::vector<std::string> chain{"a_0 = 1"};
    for (int i = 1; i < 1999; ++i) chain.push_back("a_" + std::to_string(i) + " = a_" + std::to_string(i - 1) + " + 1");
    std::reverse(chain.begin(), chain.end());
    CHECK(readPage(chain).lines[0].value == 1999);
    std::vector<std::string> calls{"f_0(x) = x"};
    for (int i = 1; i < 1999; ++i)
        calls.push_back("f_" + std::to_string(i) + "(x) = f_" + std::to_string(i - 1) + "(x) + 1");
    const Page deep = readPage(calls);
    CHECK(evaluate(deep, "f_150(0)").value() == 150);
    CHECK(has(error(deep, 250).sentence, "has a problem"));
    CHECK(std::ranges::count_if(deep.problems(),
                                [](const Problem& problem) { return has(problem.sentence, "200 deep"); }) == 1);
}
