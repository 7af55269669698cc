// Measured columns in formulas: tables, statistics, fits.
#include "formula/base/text.h"
#include "formula/compile/columns.h"
#include "formula/lines/answer.h"
#include "formula/lines/completion.h"
#include "formula/lines/read_page.h"
#include "formula/lines/table_lines.h"
#include "formula/measured/statistics.h"
#include "formula/notation/expr_build.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <cstdlib>
#include <fstream>
#include <random>

using namespace coulter;

namespace {

const double none = std::nan("");

Column column(std::vector<double> numbers) { return std::make_shared<const std::vector<double>>(std::move(numbers)); }

DataTables readings(std::vector<std::size_t> leftOut = {}) {
    DataTable table;
    table.source = "readings.csv";
    table.columns = {{"t", "min", "time", column({1, 2, 4, 8})},
                     {"s", "m", "drawdown", column({3, 5, none, 17})},
                     {"remark", "", "", column({0, 0, 1, 0})}};
    table.leftOut = std::move(leftOut);
    DataTables tables;
    tables.put(table);
    return tables;
}

Page page(std::vector<std::string> lines, const DataTables& tables = readings()) { return readPage(lines, tables); }

std::vector<double> numbers(const Page& page, const std::string& text) {
    const ColumnAnswer found = columnsOf(page, text);
    INFO(text << ": " << (found.problems.empty() ? "" : found.problems[0].sentence));
    REQUIRE(found.columns.size() == 1);
    return *found.columns[0];
}

bool same(double a, double b) { return a == b || (std::isnan(a) && std::isnan(b)); }
bool same(const std::vector<double>& a, const std::vector<double>& b) {
    return std::ranges::equal(a, b, [](double x, double y) { return same(x, y); });
}

std::string problem(const Page& page) { return page.problems().empty() ? "" : page.problems()[0].sentence; }

} // namespace

TEST_CASE("names stand for the columns that are headed by them, or else in order") {
    const Page byName = page({"(s, t) from \"readings.csv\""});
    CHECK(problem(byName).empty());
    CHECK(same(numbers(byName, "s"), {3, 5, none, 17}));
    CHECK(same(numbers(byName, "t"), {1, 2, 4, 8}));
    CHECK(byName.unitOf("t") == "min");
    CHECK(byName.labelOf("s") == "drawdown");
    const Page inOrder = page({"(a, b) from \"readings.csv\""});
    CHECK(same(numbers(inOrder, "a"), {1, 2, 4, 8}));
    CHECK(same(numbers(inOrder, "b - a"), {2, 3, none, 9}));
    const Page picked = page({"(a, b) from \"readings.csv\", columns s, 1, units cm, s"});
    CHECK(same(numbers(picked, "a"), {3, 5, none, 17}));
    CHECK(same(numbers(picked, "b"), {1, 2, 4, 8}));
    CHECK(picked.unitOf("a") == "cm");
    CHECK(same(numbers(page({"q from \"readings.csv\", columns \"remark\""}), "q"), {0, 0, 1, 0}));
}

TEST_CASE("a table's line that cannot be read says why") {
    CHECK(problem(page({"(t, s) from \"other.csv\""})).find("are not here") != std::string::npos);
    CHECK(problem(page({"(a, b, c, d) from \"readings.csv\""})).find("3 columns") != std::string::npos);
    CHECK(problem(page({"a from \"readings.csv\", columns \"depth\""})).find("t, s, remark") != std::string::npos);
    CHECK(problem(page({"(a, b) from \"readings.csv\", columns 1"})).find("names 1") != std::string::npos);
    CHECK(problem(page({"a from \"readings.csv\", units furlongish"})).find("not a unit") != std::string::npos);
    CHECK(problem(page({"(t, t) from \"readings.csv\""})).find("twice") != std::string::npos);
    CHECK(problem(page({"(t, s from \"readings.csv\", step 1"})).size() > 0);
    CHECK(problem(page({"(t, s) from \"\""})).find("empty") != std::string::npos);
    CHECK(problem(page({"t from \"readings.csv\", unit s"})).find("does not belong") != std::string::npos);
    CHECK(problem(page({"x in [0, 1], columns 1"})).find("belongs to a table") != std::string::npos);
}

TEST_CASE("rows that are left out do not count, and are not lost") {
    const DataTables tables = readings({0, 3});
    const Page kept = page({"(t, s) from \"readings.csv\"", "m = mean(t)", "r = t - m"}, tables);
    CHECK(same(numbers(kept, "t"), {none, 2, 4, none}));
    CHECK(kept.valueOf("m") == 3);
    const auto left = pageOfLeftOut(kept, tables);
    REQUIRE(left);
    CHECK(same(numbers(*left, "t"), {1, none, none, 8}));
    CHECK(same(numbers(*left, "r"), {-2, none, none, 5})); // about the mean of those that count
    CHECK(same(numbers(*left, "t - mean(t)"), {-2, none, none, 5}));
    CHECK(!pageOfLeftOut(kept, readings()));
}

TEST_CASE("statistics of a column are numbers of the page") {
    const Page p = page({"(t, s) from \"readings.csv\"", "m = mean(s)", "f(x) = x - mean(s)", "x in [0, 1]"});
    CHECK(problem(p).empty());
    const auto value = [&](const char* text) { return evaluate(p, text).value(); };
    CHECK(value("m") == Approx(25.0 / 3));
    CHECK(value("f(10)") == Approx(10 - 25.0 / 3));
    CHECK(value("median(t)") == 3);
    CHECK(value("sd(t)") == Approx(std::sqrt((2.75 * 2.75 + 1.75 * 1.75 + 0.25 * 0.25 + 4.25 * 4.25) / 3)));
    CHECK(value("quantile(t, 0.25)") == 1.75);
    CHECK(value("total(s)") == 25);
    CHECK(value("least(s)") == 3);
    CHECK(value("greatest(s) - 1") == 16);
    CHECK(value("number(s)") == 3);
    CHECK(value("mean({1, 2, 6})") == 3);
    CHECK(value("mean(s - 2t)") == Approx(1));
    CHECK(same(numbers(p, "cumulative(s)"), {3, 8, none, 25}));
    CHECK(same(numbers(p, "differences(t)"), {none, 1, 2, 4}));
    CHECK(same(numbers(p, "t / total(t)"), {1.0 / 15, 2.0 / 15, 4.0 / 15, 8.0 / 15}));
    // Nobody knows the errors of what was measured.
    CHECK(std::isinf(evaluate(p, "m").errors[0]));
    CHECK(std::isinf(evaluate(p, "2 + mean(s)").errors[0]));
}

TEST_CASE("statistics of what is no column are refused") {
    const Page p = page({"(t, s) from \"readings.csv\"", "x in [0, 1]", "f(k) = mean(k t)"});
    CHECK(!evaluate(p, "mean(x)").problems.empty());
    CHECK(!evaluate(p, "mean(s, t)").problems.empty());
    CHECK(!evaluate(p, "quantile(s)").problems.empty());
    CHECK(std::isnan(evaluate(p, "quantile(s, 2)").value()));
    CHECK(problem(p).find("depends on k") != std::string::npos);
}

TEST_CASE("every statistic answers for a column, is offered while typing, and stands in the manual") {
    const Page p = page({"(t, s) from \"readings.csv\""});
    std::ifstream manual(std::string(std::getenv("COULTER_SOURCE")) + "/docs/data.md");
    const std::string text((std::istreambuf_iterator<char>(manual)), {});
    for (const Statistic& each : statistics()) {
        const std::string name(each.name);
        INFO(name);
        const std::string call = name + (each.further > 0 ? "(t, 0.5)" : "(t)");
        const Answer answer = evaluate(p, call);
        REQUIRE(answer.problems.empty());
        CHECK((each.column != nullptr) == !answer.columns.empty());
        CHECK(text.find("`" + std::string(each.form) + "`") != std::string::npos);
        const auto offered = completions(p, name, 5);
        CHECK(std::ranges::any_of(offered, [&](const Completion& one) { return one.form == each.form; }));
    }
    CHECK(!completions(p, "s", 5).empty());
}

TEST_CASE("each statistic is what its definition says, on random numbers") {
    std::mt19937_64 random(5);
    std::normal_distribution<double> normal(100, 3);
    for (const std::size_t count : {2u, 3u, 10u, 101u, 1000u}) {
        std::vector<double> values(count);
        for (double& each : values) each = normal(random);
        const Column all = column(values);
        long double sum = 0, squares = 0;
        for (const double each : values) sum += each;
        const long double mean = sum / static_cast<long double>(count);
        for (const double each : values) squares += (each - mean) * (each - mean);
        const auto of = [&](const char* name) { return statisticOf(*findStatistic(name), all, {}); };
        CHECK(of("mean") == Approx(static_cast<double>(mean)).epsilon(1e-15));
        CHECK(of("total") == Approx(static_cast<double>(sum)).epsilon(1e-15));
        CHECK(of("sd") ==
              Approx(static_cast<double>(std::sqrt(squares / static_cast<long double>(count - 1)))).epsilon(1e-13));
        std::vector<double> sorted = values;
        std::ranges::sort(sorted);
        CHECK(of("least") == sorted.front());
        CHECK(of("greatest") == sorted.back());
        CHECK(of("median") == Approx((sorted[(count - 1) / 2] + sorted[count / 2]) / 2).epsilon(1e-15));
        for (const double p : {0.0, 0.1, 0.5, 0.77, 1.0}) {
            const double place = p * static_cast<double>(count - 1);
            const auto low = static_cast<std::size_t>(place);
            const double expected =
                sorted[low] + (place - static_cast<double>(low)) * (sorted[std::min(low + 1, count - 1)] - sorted[low]);
            CHECK(statisticOf(*findStatistic("quantile"), all, {&p, 1}) == Approx(expected).epsilon(1e-14));
        }
    }
}

TEST_CASE("a fit finds the coefficients, and how well the rows determine them") {
    const Page exact = page({"(t, s) from \"readings.csv\"", "(a, b) fits s = a + b t"});
    CHECK(problem(exact).empty());
    CHECK(*exact.valueOf("a") == Approx(1));
    CHECK(*exact.valueOf("b") == Approx(2));
    CHECK(exact.lines[1].errors[1] < 1e-14);
    // Against the closed form of a straight line.
    std::mt19937_64 random(3);
    std::normal_distribution<double> noise(0, 0.5);
    std::vector<double> x, y;
    for (int i = 0; i < 40; ++i) {
        x.push_back(0.25 * i);
        y.push_back(2 - 0.7 * x.back() + noise(random));
    }
    DataTable table;
    table.source = "line";
    table.columns = {{"x", "", "", column(x)}, {"y", "", "", column(y)}};
    DataTables tables;
    tables.put(table);
    const Page p = page({"(x, y) from \"line\"", "(a, b) fits y = a + b x", "g(x) = a + b x", "(c, d) fits y = h(x)",
                         "h(u) = c + d u^2"},
                        tables);
    INFO(problem(p));
    CHECK(problem(p).empty());
    double mx = 0, my = 0, sxx = 0, sxy = 0, rest = 0;
    const auto n = static_cast<double>(x.size());
    for (std::size_t i = 0; i < x.size(); ++i) mx += x[i] / n, my += y[i] / n;
    for (std::size_t i = 0; i < x.size(); ++i) sxx += (x[i] - mx) * (x[i] - mx), sxy += (x[i] - mx) * (y[i] - my);
    const double b = sxy / sxx, a = my - b * mx;
    for (std::size_t i = 0; i < x.size(); ++i) rest += std::pow(y[i] - a - b * x[i], 2);
    const double variance = rest / (n - 2);
    CHECK(*p.valueOf("a") == Approx(a).epsilon(1e-12));
    CHECK(*p.valueOf("b") == Approx(b).epsilon(1e-12));
    CHECK(p.lines[1].errors[1] == Approx(std::sqrt(variance / sxx)).epsilon(1e-12));
    CHECK(p.lines[1].errors[0] == Approx(std::sqrt(variance * (1 / n + mx * mx / sxx))).epsilon(1e-12));
    CHECK(evaluate(p, "g(1)").value() == Approx(a + b).epsilon(1e-12));
    const Answer answered = evaluate(p, "b");
    CHECK(answered.isStandardError);
    CHECK(answered.errors[0] == p.lines[1].errors[1]);
    CHECK(p.valueOf("d")); // through a function that has the coefficients itself
}

TEST_CASE("a fit that cannot be made is refused with its reason") {
    const auto said = [](const char* fit) { return problem(page({"(t, s) from \"readings.csv\"", fit})); };
    CHECK(said("(a, b) fits s = a t^b").find("not linear") != std::string::npos);
    CHECK(said("(a, b) fits s = a t + 2 b t").find("do not determine") != std::string::npos);
    CHECK(said("(a, b, c, d) fits s = a + b t + c t^2 + d t^3").find("as many rows") != std::string::npos);
    CHECK(said("(a, b) fits a + b t").size() > 0);
    CHECK(said("(a, b) fits s = a, t = b").find("one equation") != std::string::npos);
    CHECK(said("fits s = a").size() > 0);
    CHECK(said("(a, b) fits (s, t) = (a, b)").size() > 0);
    CHECK(said("(a, b) fits s = a + b q").find("q") != std::string::npos);
}

TEST_CASE("a condition chooses the rows that count") {
    const Page read =
        page({"(t, s) from \"readings.csv\"", "m = mean(s), where t < 8", "u = s, where t > 1 and t < 8",
              "(a, b) fits s = a + b t, where t != 4", "mean(s t) = ?, where t < 4", "r = s, where s - mean(s) > 0"});
    for (const Line& line : read.lines) {
        INFO(line.source);
        CHECK(line.problems.empty());
    }
    CHECK(read.valueOf("m") == 4.0);
    const Column u = read.columnOf("u");
    REQUIRE(u);
    CHECK((std::isnan((*u)[0]) && (*u)[1] == 5 && std::isnan((*u)[2]) && std::isnan((*u)[3])));
    CHECK(read.valueOf("a") == Approx(1));
    CHECK(read.valueOf("b") == Approx(2));
    CHECK(read.lines[4].value == Approx(6.5));
    CHECK((*read.columnOf("r"))[3] == 17);
    CHECK(std::isnan((*read.columnOf("r"))[0]));
    // The formulas stay as they were written.
    CHECK(spelled(*read.lines[1].body) == "mean(s)");
}

TEST_CASE("conditions and weights that mean nothing are said") {
    const auto said = [](const char* line) {
        const Page read = page({"(t, s) from \"readings.csv\"", line});
        REQUIRE_FALSE(read.lines[1].good());
        return read.lines[1].problems.front().sentence;
    };
    CHECK(said("f(x) = x, where x > 1").find("chooses rows") != std::string::npos);
    CHECK(said("a = 2 + 3, where t > 1").find("no column in this line") != std::string::npos);
    CHECK(said("m = mean(s), where t").find("condition is needed") != std::string::npos);
    CHECK(said("m = mean(s), weights t").find("belongs to a fit") != std::string::npos);
    CHECK(said("(a, b) fits s = a + b t, weights -t").find("zero or positive") != std::string::npos);
    CHECK(said("(a, b) fits s = a + b t, weights {1, 2}").find("one for each row") != std::string::npos);
    CHECK(said("m = mean(s), where q > 1").find("q") != std::string::npos);
}

TEST_CASE("weights count as rows that stand there several times, and zero leaves a row out") {
    const auto fit = [](std::vector<std::string> lines) {
        const Page read = readPage(lines);
        REQUIRE(read.lines.back().good());
        return read.lines.back().values;
    };
    const auto weighted =
        fit({"t = {1, 2, 3, 4}", "s = {1, 3, 2, 5}", "w = {3, 1, 2, 0}", "(a, b) fits s = a + b t, weights w"});
    const auto repeated = fit({"t = {1, 1, 1, 2, 3, 3}", "s = {1, 1, 1, 3, 2, 2}", "(a, b) fits s = a + b t"});
    CHECK(weighted[0] == Approx(repeated[0]));
    CHECK(weighted[1] == Approx(repeated[1]));
    // The scale of all weights changes neither values nor standard errors.
    const Page one = readPage(
        std::vector<std::string>{"t = {1, 2, 3, 4}", "s = {1, 3, 2, 5}", "(a, b) fits s = a + b t, weights 1/t"});
    const Page ten = readPage(
        std::vector<std::string>{"t = {1, 2, 3, 4}", "s = {1, 3, 2, 5}", "(a, b) fits s = a + b t, weights 10/t"});
    for (std::size_t k = 0; k < 2; ++k) {
        CHECK(one.lines[2].values[k] == Approx(ten.lines[2].values[k]));
        CHECK(one.lines[2].errors[k] == Approx(ten.lines[2].errors[k]));
    }
}
