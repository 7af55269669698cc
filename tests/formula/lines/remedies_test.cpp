#include "formula/base/text.h"
#include "formula/lines/answer.h"
#include "formula/lines/read_page.h"
#include "formula/page/page.h"

#include <catch2/catch.hpp>
#include <numbers>

using namespace coulter;

namespace {

using Lines = std::vector<std::string>;

/// The page with the remedy of its first problem taken.
Lines remedied(Lines lines) {
    const Page page = readPage(lines);
    for (std::size_t i = 0; i < lines.size(); ++i) {
        for (const Problem& problem : page.lines[i].problems) {
            if (!problem.remedy) continue;
            const Remedy& remedy = *problem.remedy;
            if (remedy.first == 0) {
                lines.insert(lines.begin() + static_cast<std::ptrdiff_t>(i) + 1, remedy.text);
                return lines;
            }
            const std::u32string text = decodeUtf8(lines[i]);
            lines[i] = encodeUtf8(std::u32string_view(text).substr(0, static_cast<std::size_t>(remedy.first - 1))) +
                       remedy.text +
                       encodeUtf8(std::u32string_view(text).substr(static_cast<std::size_t>(remedy.last)));
            return lines;
        }
    }
    return {};
}

} // namespace

TEST_CASE("a problem with one obvious remedy offers it, and with it the page is good") {
    const std::pair<const char*, const char*> replaced[] = {
        {"f(x) = exq(x)", "f(x) = exp(x)"},
        {"f(x) = sinx", "f(x) = sin(x)"},
        {"f(x) = acos(x)", "f(x) = arccos(x)"},
        {"f(x) = atan2(x, 2)", "f(x) = arctan(x, 2)"},
        {"f(x) = asinh(x)", "f(x) = arsinh(x)"},
        {"f(x) = x**2", "f(x) = x^2"},
        {"f(x) := 2x", "f(x) = 2x"},
        {"f(x) = pow(2x, 3)", "f(x) = (2x)^3"},
        {"f(x) = pow(sin(x), x + 1)", "f(x) = (sin(x))^(x + 1)"},
        {"f(x) = log10(x)", "f(x) = lg(x)"},
        {"f(x) = log2(x)", "f(x) = lb(x)"},
        {"f(x) = 2,5x", "f(x) = 2.5x"},
        {"f(x) = sign(x)", "f(x) = sgn(x)"},
        {"cos(x)", "f(x) = cos(x)"},
        {"x^2 + c", "f(x) = x^2 + c"},
        {"y = x^2", "y(x) = x^2"},
        {"y_1 = c x", "y_1(x) = c x"},
        {"u v", "f(u, v) = u v"},
    };
    for (const auto& [typed, printed] : replaced) {
        const Lines after = remedied({"x in [0, 1]", "c = 3", typed});
        INFO(typed);
        REQUIRE(after.size() == 3);
        CHECK(after[2] == printed);
        for (const Problem& problem : readPage(after).problems()) CHECK(problem.severity == Problem::Severity::Note);
    }
    CHECK(remedied({"f(x) = k x"}) == Lines{"f(x) = k x", "k = 1"});
    CHECK(remedied({"f(x) = q_0 x"}) == Lines{"f(x) = q_0 x", "q_0 = 1"});
    // What is wrong within a bare expression comes before its name.
    const Lines once = remedied({"x in [0, 1]", "atan(3x)"});
    CHECK(once[1] == "arctan(3x)");
    CHECK(remedied(once)[1] == "f(x) = arctan(3x)");
    // A name that is taken is not given twice.
    CHECK(remedied({"f(x) = 1", "x in [0, 1]", "cos(x)"})[2] == "g(x) = cos(x)");
}

TEST_CASE("where no remedy is obvious none is offered") {
    for (const char* typed : {"f(x) = (1", "f(x) = 2 +", "3", "f(x) = foo(x)", "x < 3", "(1, 2)"}) {
        INFO(typed);
        const Lines after = remedied({"x in [0, 1]", typed});
        CHECK(after.empty());
    }
    // A vector's comma is no decimal sign.
    CHECK(readPage(Lines{"c(x) = (2,5)", "x in [0, 1]"}).problems().empty());
}

TEST_CASE("degrees are numbers") {
    CHECK(evaluate(readPage(Lines{}), "30°").value() == Approx(std::numbers::pi / 6).epsilon(1e-15));
    CHECK(evaluate(readPage(Lines{}), "sin(90°)").value() == 1);
    CHECK(evaluate(readPage(Lines{}), "2 * 180° / pi").value() == 2);
    CHECK(readPage(Lines{"T = 20, unit °C"}).problems().empty());
}
