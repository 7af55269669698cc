#include "formula/base/text.h"
#include "formula/compile/columns.h"
#include "formula/lines/answer.h"
#include "formula/lines/plotted.h"
#include "formula/lines/read_page.h"
#include "formula/measured/random_columns.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <cstring>
#include <numbers>
#include <tbb/global_control.h>

using namespace coulter;

namespace {

std::vector<double> column(const std::string& text, std::vector<std::string> lines = {}) {
    const Page page = readPage(lines);
    const Answer found = evaluate(page, text);
    INFO(text << ": " << (found.problems.empty() ? "" : found.problems[0].sentence));
    CHECK(found.problems.empty());
    REQUIRE(found.columns.size() == 1);
    return *found.columns[0];
}

Problem problem(const std::string& text, std::vector<std::string> lines = {}) {
    const Page page = readPage(lines);
    const Answer found = evaluate(page, text);
    INFO(text);
    REQUIRE_FALSE(found.problems.empty());
    return found.problems[0];
}

/// The first problem of a page's last line.
Problem lineProblem(std::vector<std::string> lines) {
    const Page page = readPage(lines);
    INFO(lines.back());
    REQUIRE_FALSE(page.lines.back().problems.empty());
    return page.lines.back().problems[0];
}

bool sameBits(const std::vector<double>& a, const std::vector<double>& b) {
    return a.size() == b.size() && std::memcmp(a.data(), b.data(), a.size() * sizeof(double)) == 0;
}

using Numbers = std::vector<double>;

} // namespace

TEST_CASE("a list is a column, and arithmetic and functions act on each of its numbers") {
    CHECK(column("{0.1, 0.2, 0.5}") == Numbers{0.1, 0.2, 0.5});
    CHECK(column("{3}") == Numbers{3});
    CHECK(column("2d + 1", {"d = {1, 2, 3}, unit m"}) == Numbers{3, 5, 7});
    CHECK(column("d * s", {"d = {1, 2, 3}", "s = d^2"}) == Numbers{1, 8, 27});
    CHECK(column("{1, 2, 3}^2") == Numbers{1, 4, 9});
    CHECK(column("{1, 2} + {10, 20}") == Numbers{11, 22});
    CHECK(column("f(d)", {"f(x) = { 0 for x < 2; x otherwise }", "d = {1, 2, 3}"}) == Numbers{0, 2, 3});
    CHECK(column("f(10)", {"f(x) = x d", "d = {1, 2, 3}"}) == Numbers{10, 20, 30}); // through a function's body
    CHECK(column("sum_{k=1}^{3} k d", {"d = {1, 2}"}) == Numbers{6, 12});
    CHECK(column("{q, 2q}", {"q = 4"}) == Numbers{4, 8});
    const Numbers roots = column("sqrt({-1, 4})");
    CHECK(std::isnan(roots[0])); // undefined, not left out
    CHECK(roots[1] == 2);
}

TEST_CASE("a column of a page is what evaluating its formula number by number gives, to the bit") {
    const std::vector<std::string> lines{"d = {-2, -1.7, ..., 4}", "f(x) = J_{0}(x) exp(-x/3) + Gamma(x + 5)"};
    const Numbers all = column("f(d)", lines), places = column("d", lines);
    REQUIRE(all.size() == 21);
    for (std::size_t i = 0; i < all.size(); ++i)
        CHECK(all[i] == evaluate(readPage(lines), "f(" + shortestNumber(places[i]) + ")").value());
}

TEST_CASE("dots go on by equal steps, and every number is the double nearest to what is meant") {
    const Numbers tenths = column("{0, 0.1, ..., 1}");
    REQUIRE(tenths.size() == 11);
    for (int i = 0; i <= 10; ++i) CHECK(tenths[static_cast<std::size_t>(i)] == i / 10.0);
    CHECK(column("{5, 4, ..., 1}") == Numbers{5, 4, 3, 2, 1});
    CHECK(column("{1, 2, 3, ..., 5}") == Numbers{1, 2, 3, 4, 5});
    CHECK(column("{1, 2, …, 2}") == Numbers{1, 2});
    CHECK(column("{0, pi/4, ..., pi}").back() == std::numbers::pi);
    CHECK(column("{0, 1e-3, ..., 1000}").size() == 1'000'001);
    const Problem off = problem("{0, 0.1, ..., 1.05}");
    CHECK(off.first == 15);
    CHECK(off.sentence == "Steps of 0.1 from 0 do not lead to 1.05.");
    CHECK_FALSE(off.suggestion.empty());
    CHECK(problem("{0, 1, 3, ..., 9}").sentence.find("not evenly spaced") != std::string::npos);
    CHECK(problem("{0, 0, ..., 1}").sentence.find("step") != std::string::npos);
    CHECK(problem("{0, -1, ..., 5}").sentence.find("do not lead") != std::string::npos);
    CHECK(problem("{0, ..., 5}").sentence.find("is not said") != std::string::npos);
    CHECK(problem("{0, 1, ...}").sentence == "The list has no end.");
    CHECK(problem("{0, 1, ..., 4, 5}").sentence.find("last number") != std::string::npos);
    CHECK(problem("{0, 1e-9, ..., 1}").sentence.find("at most") != std::string::npos);
}

TEST_CASE("columns of other lengths, vectors and misuse are problems at their place") {
    const std::vector<std::string> lines{"d = {1, 2, 3}", "s = {1, 2}"};
    const Problem other = problem("1 + d * s", lines);
    CHECK(other.first == 9);
    CHECK(other.sentence == "Columns that are computed with each other have one length; s has 2 numbers, and d has 3.");
    CHECK(problem("{1, 2} + d", lines).first == 10);
    CHECK(problem("{}").sentence == "The list is empty.");
    CHECK(problem("{1, 2").sentence == "This “{” is never closed.");
    CHECK(problem("{1, , 2}").first == 5);
    CHECK(problem("{(1, 2), (3, 4)}").sentence.find("vector") != std::string::npos);
    CHECK(problem("{1, {2, 3}}").sentence.find("list") != std::string::npos);
    CHECK(lineProblem({"d = {1, 2}", "v = (d, d)"}).sentence.find("vector") != std::string::npos);
    CHECK(lineProblem({"d = {1, 2}, from 0 to 5"}).sentence.find("column") != std::string::npos);
    CHECK(lineProblem({"d = {1, 2}", "x in [0, d]"}).sentence.find("column") != std::string::npos);
    CHECK(lineProblem({"f(x) = x + {1, 2}"}).sentence.find("list") != std::string::npos);
    CHECK(lineProblem({"d = {1, c}", "c = 2d"}).sentence.find("circle") != std::string::npos);
    CHECK(lineProblem({"a = {0, 1, ..., 9e6}", "b = 2a", "c = 2a"}).sentence.find("numbers") != std::string::npos);
    CHECK(readPage(lines).lines[0].good());
}

TEST_CASE("a vector of columns has a column for each component, and numbers count for every row") {
    const Page page = readPage(std::vector<std::string>{"t = {1, 2, 3}"});
    const Answer found = evaluate(page, "(t, t^2, 7)");
    REQUIRE(found.columns.size() == 3);
    CHECK(*found.columns[1] == Numbers{1, 4, 9});
    CHECK(*found.columns[2] == Numbers{7, 7, 7});
}

TEST_CASE("a family takes its cases from a column") {
    const Page page = readPage(std::vector<std::string>{"x in [0, 1]", "d = {0.5, 1.5}", "f(x, k) = k x"});
    CHECK(readPlotted(page, "f(x, k) for k in d").cases == std::vector<Numbers>{{0.5}, {1.5}});
    CHECK(readPlotted(page, "f(x, k) for k in 2d").cases == std::vector<Numbers>{{1}, {3}});
    CHECK(readPlotted(page, "f(x, k) for k in {0, 0.1, ..., 0.3}").cases.size() == 4);
    CHECK(readPlotted(page, "f(x, k) for k in {0, 0.1, ..., 0.35}").problems.size() == 1);
    CHECK(readPlotted(page, "f(x, k) for k in {0, 1, ..., 200}").problems[0].sentence.find("100 cases") !=
          std::string::npos);
    CHECK_FALSE(readPlotted(page, "f(x, d) for d in {1, 2}").isColumn); // a case of this name is no column
    const Plotted columns = readPlotted(page, "(d, 2d)");
    CHECK(columns.isColumn);
    CHECK(columns.variables.empty());
    CHECK(readPlotted(page, "d x").problems[0].sentence.find("mixes") != std::string::npos);
}

TEST_CASE("random columns have the same bits again, whatever the number of threads") {
    for (const char* line : {"X ~ N(2, 0.5^2), count 500, seed 7", "X ~ U(0, 1), count 500, seed 7"}) {
        const Numbers first = column("X", {line});
        const tbb::global_control one(tbb::global_control::max_allowed_parallelism, 1);
        CHECK(sameBits(first, column("X", {line})));
        CHECK(first.size() == 500);
    }
    // By the generator's definition and another inverse of the distribution function, computed apart.
    CHECK(uniformNumbers(0, 1, 3, 7) == Numbers{0.754385304152858, 0.9493012028926443, 0.11741428103451812});
    const Numbers normal = normalNumbers(2, 0.25, 3, 7),
                  expected{2.344177390922379, 2.819057769139297, 1.4059938477802818};
    for (std::size_t i = 0; i < 3; ++i) CHECK(normal[i] == Approx(expected[i]).epsilon(1e-15));
    CHECK_FALSE(sameBits(normalNumbers(0, 1, 10, 1), normalNumbers(0, 1, 10, 2)));
}

TEST_CASE("random numbers are distributed as they say, for ten seeds") {
    constexpr std::size_t n = 20'000;
    for (std::uint64_t seed = 1; seed <= 10; ++seed) {
        for (const bool normal : {true, false}) {
            Numbers x = normal ? normalNumbers(2, 0.25, n, seed) : uniformNumbers(-1, 3, n, seed);
            const double mean = normal ? 2 : 1, variance = normal ? 0.25 : 16.0 / 12;
            double sum = 0, squares = 0;
            for (const double each : x) {
                sum += each;
                squares += (each - mean) * (each - mean);
            }
            // Four standard errors of each.
            CHECK(std::abs(sum / n - mean) < 4 * std::sqrt(variance / n));
            CHECK(std::abs(squares / n - variance) < 4 * variance * std::sqrt(2.0 / n));
            // Kolmogorov and Smirnov: sqrt(n) D stays below 1.95 in 99.9 of 100 samples.
            std::ranges::sort(x);
            double largest = 0;
            for (std::size_t i = 0; i < n; ++i) {
                const double f = normal ? std::erfc(-(x[i] - 2) / 0.5 / std::numbers::sqrt2) / 2 : (x[i] + 1) / 4;
                largest = std::max({largest, f - static_cast<double>(i) / n, static_cast<double>(i + 1) / n - f});
            }
            CHECK(std::sqrt(static_cast<double>(n)) * largest < 1.95);
        }
    }
}

TEST_CASE("random columns say what they lack, and keep the seed that was chosen") {
    CHECK(lineProblem({"X ~ N(2, 0)"}).sentence.find("positive") != std::string::npos);
    CHECK(lineProblem({"X ~ N(2, 1)"}).suggestion.find("count 500") != std::string::npos);
    CHECK(lineProblem({"X ~ U(1, 0), count 5"}).sentence.find("reversed") != std::string::npos);
    CHECK(lineProblem({"X ~ T(1, 0), count 5"}).sentence == "Numbers are distributed as N or U.");
    CHECK(lineProblem({"X ~ N(1), count 5"}).sentence.find("mean and a variance") != std::string::npos);
    CHECK(lineProblem({"X ~ N 1"}).sentence.find("brackets") != std::string::npos);
    CHECK(lineProblem({"X ~ N(0, 1), count 2.5"}).sentence.find("whole number") != std::string::npos);
    CHECK(lineProblem({"X ~ N(0, 1), count 1e9"}).sentence.find("whole number") != std::string::npos);
    CHECK(lineProblem({"X ~ N(0, 1), count 5, seed -1"}).sentence.find("seed") != std::string::npos);
    CHECK(lineProblem({"q = 1, seed 4"}).sentence.find("belongs to random numbers") != std::string::npos);
    const std::string line = "X ~ N(0, 1), count 5";
    const Problem note = lineProblem({line});
    CHECK(note.severity == Problem::Severity::Note);
    REQUIRE(note.remedy);
    CHECK(sameBits(column("X", {line}), column("X", {line + note.remedy->text})));
    CHECK_FALSE(sameBits(column("X", {line}), column("Y", {"Y ~ N(0, 1), count 5"})));
}
