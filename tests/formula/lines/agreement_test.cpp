#include "compiled_formula.h"
#include "formula/lines/answer.h"
#include "formula/lines/read_page.h"
#include "formula/zeros/agreement.h"

using namespace coulter;

namespace {

Agreement agreementAlong(const std::string& difference, double low, double high, double work = 2e7) {
    const auto program = compiledFormula(difference);
    REQUIRE(program);
    return agreementOf(*program, {low, high, true, true}, work);
}

std::string verdictOf(const std::string& text, const std::vector<std::string>& lines = {}) {
    const Answer found = evaluate(readPage(lines), text);
    INFO(text);
    for (const Problem& problem : found.problems) INFO(describe(problem));
    REQUIRE(found.places);
    return found.places->verdict;
}

} // namespace

TEST_CASE("a bound of a difference is never below its largest value, and near it") {
    struct Case {
        const char* difference;
        double low, high, largest;
    };
    for (const Case& c : {Case{"x^2 - 2x", 0, 3, 3}, Case{"sin(x) - x", 0, 1, 1 - 0.8414709848078965},
                          Case{"exp(x) - (1 + x + x^2/2)", 0, 0.5, 0.023721270700128}, Case{"x (1 - x)", 0, 1, 0.25},
                          Case{"J_0(x) - cos(x)", 0, 3, 0.9}}) {
        INFO(c.difference);
        const Agreement found = agreementAlong(c.difference, c.low, c.high);
        CHECK(found.bound >= found.largest);
        CHECK(found.bound < 1.1 * found.largest);
        CHECK(found.isDifferent);
        if (c.largest != 0.9) CHECK(found.largest == Approx(c.largest).epsilon(1e-4));
    }
    // Many places by themselves, against the bound.
    const auto program = compiledFormula("sin(7x) exp(-x) - x/3");
    const Agreement found = agreementOf(*program, {0, 2, true, true}, 2e7);
    Evaluator evaluator(*program);
    for (int i = 0; i <= 100'000; ++i) CHECK(std::abs(evaluator(2e-5 * i)) <= found.bound);
}

TEST_CASE("what is the same up to rounding agrees to within a bound of that size") {
    for (const char* difference : {"sin(x)^2 + cos(x)^2 - 1", "exp(ln(x)) - x", "(x + 1)^3 - (x^3 + 3x^2 + 3x + 1)"}) {
        INFO(difference);
        const Agreement found = agreementAlong(difference, 0.5, 2);
        CHECK(!found.isDifferent);
        CHECK(found.bound < 1e-5);
        CHECK(found.bound > 0);
    }
}

TEST_CASE("whether an equation holds everywhere is answered, with what is proven") {
    CHECK(verdictOf("2(x + 1) = 2x + 2 for all x in [0, 1]") == "yes: the formulas are the same");
    CHECK(verdictOf("sin(2x) = 2 sin(x) cos(x) for all x in [0, 1]").starts_with("yes, to within "));
    const std::string no = verdictOf("sin(x) = x for all x in [0, 1]");
    CHECK(no.starts_with("no: they differ by 0.159 at x = 1"));
    CHECK(no.ends_with("proven"));
    CHECK(verdictOf("f(x) = g(x) for all x", {"f(x) = x^2", "g(x) = x^2 + 0.01", "x in [0, 1]"}).starts_with("no: "));
    // A pole: nothing is known of all, and that is said.
    CHECK(verdictOf("1/x = 1/x + 1/x^2 for all x in [-1, 1]").find(", proven") == std::string::npos);
    // An end that does not belong to the interval says nothing.
    CHECK(verdictOf("floor(x) = 0 for all x in [0, 1)").starts_with("yes"));
    CHECK(verdictOf("floor(x) = 0 for all x in [0, 1]").starts_with("no: they differ by 1 at x = 1"));
    CHECK(verdictOf("mod(x, 1) = x for all x in [0, 1)").starts_with("yes"));
    // Coefficients that doubles cannot add are not the same.
    CHECK(verdictOf("1e16 x + x = 1e16 x for all x in [0, 1]").starts_with("no: they differ by 1 at x = 1"));
    CHECK(verdictOf("1e20 x + x - 1e20 x = 0 for all x in [0, 1]").starts_with("no: they differ by 1 at x = 1"));
    CHECK(verdictOf("0.1 x + 0.2 x = 0.3 x for all x in [0, 1]").starts_with("yes"));
    // A bound as large as the function itself is no yes.
    CHECK(verdictOf("exp(-1e20 (x - 0.37123)^2) = 0 for all x in [0, 1]").starts_with("they differ by "));
    CHECK(!evaluate(Page{}, "sin(x) for all x in [0, 1]").problems.empty());
    CHECK(!evaluate(Page{}, "sin(x) = 1 for all").problems.empty());
}

TEST_CASE("a curve is compared with the rows of a table") {
    const std::vector<std::string> page{"t = {0, 1, 2, 3}", "s = {0, 1.5, 3.9, 9}", "f(x) = x^2", "q = {0, 1, 4, 9}"};
    CHECK(verdictOf("q = f(t) for all rows", page) == "yes: equal in 4 rows");
    const std::string no = verdictOf("s = f(t) for all rows", page);
    CHECK(
        no.starts_with("no: they differ by 0.5 at most, in row 2 (s = 1.5, t = 1); root mean square 0.255, mean 0.1,"));
    CHECK(verdictOf("s = f(t) for all rows, where t != 1", page) ==
          "no: they differ by 0.1 at most, in row 3 (s = 3.9, t = 2); root mean square 0.05774, mean -0.03333, in 3 "
          "rows; "
          "1 row does not count");
    CHECK(verdictOf("q/3 = f(t)/3 for all rows", page).starts_with("yes: "));
    CHECK(verdictOf("sqrt(q)^2 (1 + 1e-16) = f(t) for all rows", page).starts_with("yes: "));
    CHECK(verdictOf("ln(t) = 0 for all rows, where t > 9", page) == "no row has a value on both sides");
    // Units are those of the columns; what has none to compare is a problem.
    CHECK(verdictOf("d = 2 for all rows", {"d = {1, 2}, unit cm"}).starts_with("no: they differ by 1 cm at most"));
    CHECK(!evaluate(readPage(page), "f(x) = x^2 for all rows").problems.empty());
    CHECK(!evaluate(readPage(page), "s for all rows").problems.empty());
    CHECK(!evaluate(readPage(page), "(s, t) = (t, s) for all rows").problems.empty());
    CHECK(!evaluate(readPage(page), "s = {1, 2} for all rows").problems.empty());
    const Page written = readPage(std::vector<std::string>{"t = {1, 2}", "s = {1, 5}", "s = t^2 for all rows"});
    REQUIRE(written.problems().empty());
    CHECK(written.lines[2].places->verdict.starts_with("no: they differ by 1 at most, in row 2"));
    const Page mixed =
        readPage(std::vector<std::string>{"t = {1, 2}, unit s", "s = {1, 5}, unit m", "s = t for all rows"});
    REQUIRE(mixed.problems().size() == 1); // metres and seconds
    CHECK(mixed.problems()[0].line == 2);
}
