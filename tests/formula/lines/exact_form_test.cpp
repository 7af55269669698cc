// Exact forms: they are what the formula is worth, and never a guess.
#include "formula/algebra/exact_form.h"
#include "formula/lines/answer.h"
#include "formula/lines/read_page.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

using namespace coulter;

namespace {

Page pageOf(std::vector<std::string> lines) { return readPage(lines); }

std::string exact(const std::string& text, const Page& page = {}) { return evaluate(page, text).exact; }

} // namespace

TEST_CASE("exact forms of answers are those of the textbooks") {
    // Abramowitz and Stegun 4.3.46 (sines), 6.1.8 and 6.1.12 (gamma), 23.2.16 (zeta).
    const std::pair<const char*, const char*> known[] = {
        {"1/3 + 1/6 + 1/7", "9/14"},
        {"sqrt(8)", "2√2"},
        {"sqrt(3/4)", "√3/2"},
        {"1/sqrt(2)", "√2/2"},
        {"1/(1 + sqrt(2))", "√2 − 1"},
        {"(1 + sqrt(5))/2", "(√5 + 1)/2"},
        {"sin(π/3)", "√3/2"},
        {"cos(π/12)", "(√6 + √2)/4"},
        {"sin(-π/12)", "(−√6 + √2)/4"},
        {"tan(5π/12)", "√3 + 2"},
        {"sin(100π + π/4)", "√2/2"},
        {"arctan(1)", "π/4"},
        {"arccos(-1/2)", "2 π/3"},
        {"arctan(2 - sqrt(3))", "π/12"},
        {"4π/3", "4 π/3"},
        {"π^2/6 - 1", "(π² − 6)/6"},
        {"1/π", "1/π"},
        {"3/(2π)", "3/(2 π)"},
        {"sqrt(π)", "√π"},
        {"Γ(1/2)", "√π"},
        {"Γ(7/2)", "15√π/8"},
        {"Γ(-1/2)", "−2√π"},
        {"ζ(2)", "π²/6"},
        {"ζ(4)", "π⁴/90"},
        {"ζ(12)", "691 π¹²/638512875"},
        {"sum_{k=1}^4 1/k", "25/12"},
        {"prod_{k=1}^3 sqrt(k)", "√6"},
        {"int_0^1 x^2 dx", "1/3"},
        {"int_0^π (x + 1)^2 dx", "(π³ + 3 π² + 3 π)/3"},
        {"|1 - sqrt(2)|", "√2 − 1"},
    };
    for (const auto& [text, form] : known) {
        INFO(text);
        CHECK(exact(text) == form);
    }
}

TEST_CASE("what has no exact form, or needs none, says none") {
    for (const char* text : {"0.5",
                             "120",
                             "5!",
                             "2^10",
                             "sin(1)",
                             "exp(1)",
                             "1/0",
                             "0^0",
                             "tan(π/2)",
                             "sqrt(-2)",
                             "Γ(0)",
                             "ζ(3)",
                             "e",
                             "2^(1/3)",
                             "sin(π/5)",
                             "int_0^1 sin(x) dx",
                             "sqrt(1 + sqrt(2))",
                             "1e-3/3",
                             "sum_{k=1}^{inf} 1/k^2",
                             "x",
                             "sum_{k=1}^{100000} 1/k",
                             "3^(1/2)^(1/2)",
                             "log_2(8)"}) {
        INFO(text);
        CHECK(exact(text).empty());
    }
}

TEST_CASE("names and functions of the page are followed, not past their depth") {
    const Page page =
        pageOf({"a = 1/3", "b = a + 1/6, unit m", "f(x) = x^2/(1 + x)", "g(x) = f(x) + b", "c = 0.1", "x in [0, 1]"});
    CHECK(exact("f(1/2)", page) == "1/6");
    CHECK(exact("g(2)", page) == "11/6");
    CHECK(exact("c/3", page) == "1/30"); // a tenth, and not the double beside it
    CHECK(exact("x/3", page).empty());
}

TEST_CASE("a variable under an integral is not what its name is worth outside") {
    const Page page = pageOf({"x = 5", "f(t) = int_0^1 (sum_{k=1}^2 t k) dt", "g(t) = int_0^t t dt + t"});
    for (const char* text : {"int_0^1 (sum_{k=1}^2 x k) dx/7", "f(3)/7", "int_0^1 |x| dx/7"}) {
        INFO(text);
        const std::string form = exact(text, page);
        if (!form.empty()) CHECK(evaluate(page, form).value() == Approx(evaluate(page, text).value()));
    }
    CHECK(exact("int_0^1 x dx/7", page) == "1/14");
    CHECK(exact("x int_0^1 x dx/7", page) == "5/14");
    CHECK(exact("g(2)/7", page) == "4/7");
}

TEST_CASE("exact forms are the answers within their bounds, and can be read again") {
    std::mt19937 random(5);
    const auto pick = [&](const std::vector<std::string>& of) { return of[random() % of.size()]; };
    const std::function<std::string(int)> made = [&](int depth) -> std::string {
        if (depth == 0)
            return pick({"1", "2", "3", "5/7", "π", "0.25", "sqrt(2)", "sqrt(3)", "sqrt(5)", "sin(π/12)", "cos(π/6)",
                         "Γ(3/2)", "ζ(2)", "4!", "arctan(1)", "int_0^2 (t^3 - t/3) dt", "sum_{k=1}^5 1/k"});
        const std::string a = made(depth - 1), b = made(depth - 1);
        return pick({"(" + a + ") + (" + b + ")", "(" + a + ") - (" + b + ")", "(" + a + ") (" + b + ")",
                     "(" + a + ")/(" + b + ")", "(" + a + ")^2", "|" + a + "|", "sqrt(" + a + ")", "-(" + a + ")"});
    };
    std::size_t found = 0;
    for (int i = 0; i < 3000; ++i) {
        const std::string text = made(1 + i % 3), form = exact(text);
        if (form.empty()) continue;
        ++found;
        const Answer direct = evaluate({}, text), again = evaluate({}, form);
        INFO(text << " is " << form);
        REQUIRE(direct.values.size() == 1);
        REQUIRE(again.values.size() == 1);
        const double bound =
            (std::isfinite(direct.errors[0]) ? direct.errors[0] : 1e-10 * std::abs(direct.value())) + again.errors[0];
        CHECK(std::abs(direct.value() - again.value()) <= bound);
    }
    CHECK(found > 700);
}
