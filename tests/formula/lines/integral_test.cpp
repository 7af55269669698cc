#include "formula/compile/compile.h"
#include "formula/lines/answer.h"
#include "formula/lines/read_page.h"
#include "formula/notation/expr_build.h"
#include "formula/page/page.h"
#include "formula/program/quadrature.h"

#include <catch2/catch.hpp>

using namespace coulter;

namespace {

Answer answerOf(const std::string& text, std::vector<std::string> lines = {}) {
    const Page page = readPage(lines);
    for (const Problem& problem : page.problems()) INFO(describe(problem));
    return evaluate(page, text);
}

double valueOf(const std::string& text, std::vector<std::string> lines = {}) { return answerOf(text, lines).value(); }

} // namespace

TEST_CASE("integrals with closed forms are right within the error they state") {
    struct Case {
        const char* integral;
        const char* closed;
    };
    const Case cases[] = {
        {"int_0^1 k^2 dk", "1/3"},
        {"int_0^pi sin(x) dx", "2"},
        {"∫_{0}^{1} exp(-k^2) dk", "sqrt(pi)/2 erf(1)"},
        {"int_0^inf exp(-k) dk", "1"},
        {"int_{-inf}^{inf} exp(-k^2) dk", "sqrt(pi)"},
        {"int_{-inf}^0 exp(k) dk", "1"},
        {"int_{-inf}^{inf} 1/(1 + k^2) dk", "pi"},
        {"int_0^1 1/sqrt(k) dk", "2"},
        {"int_0^1 ln(k) dk", "-1"},
        {"int_0^inf exp(-k)/k^0.3 dk", "Gamma(0.7)"},
        {"int_0^inf J_0(k) exp(-k/10) dk", "1/sqrt(1.01)"},
        {"int_0^10 floor(k) dk", "45"},
        {"int_1^0 k dk", "-1/2"},
        {"int_0^1 int_0^m k m dk dm", "1/8"},
        {"int_0^1 int_0^1 int_0^1 x y z dx dy dz", "1/8"},
        {"int_0^1 exp(-((k - 0.3)/0.001)^2) dk", "sqrt(pi)/1000"},
        {"int_2^2 1/k dk", "0"},
        {"2 int_0^1 k dk + 1", "2"},
        {"int_0^1 (k + 1) dk/3", "1/2"},
    };
    for (const Case& c : cases) {
        INFO(c.integral);
        const Answer found = answerOf(c.integral);
        const double expected = valueOf(c.closed);
        REQUIRE(found.problems.empty());
        CHECK(found.value() == Approx(expected).epsilon(1e-12).margin(1e-13));
        REQUIRE(found.errors.size() == 1);
        CHECK(std::abs(found.value() - expected) <= found.errors[0] + 1e-15);
        CHECK(found.errors[0] < 1e-6);
    }
}

TEST_CASE("an integral that does not exist is undefined, and never hangs") {
    for (const char* text : {"int_{-1}^1 1/k dk", "int_0^1 1/k dk", "int_0^1 1/k^2 dk", "int_0^inf 1 dk",
                             "int_0^inf k dk", "int_{-1}^1 sqrt(k) dk", "int_0^inf sin(k) dk"}) {
        INFO(text);
        CHECK(std::isnan(valueOf(text)));
    }
}

TEST_CASE("what bounds know of an integral that does not settle is its value, on the page and in answers") {
    const Page page = readPage(std::vector<std::string>{"c = int_0^inf cos(k^3) dk", "f(x) = c x", "x in [0, 1]",
                                                        "d = int_0^inf cos(k^3) k^4 dk"});
    const double expected = std::tgamma(4.0 / 3) * std::cos(M_PI / 6);
    CHECK(page.valueOf("c").value() == Approx(expected).epsilon(1e-12));
    CHECK(evaluate(page, "int_0^inf cos(k^3) dk").value() == Approx(expected).epsilon(1e-12));
    CHECK(evaluate(page, "f(2)").value() == Approx(2 * expected).epsilon(1e-12));
    CHECK(!page.valueOf("d")); // there is none
}

TEST_CASE("inner parameters, limits and functions of the page take part in integrals") {
    const std::vector<std::string> lines{"f(k, a) = k^a", "F(x) = int_0^x f(k, 2) dk", "W(u) = int_u^inf exp(-y)/y dy"};
    CHECK(valueOf("F(3)", lines) == Approx(9).epsilon(1e-13));
    CHECK(valueOf("F'(3)", lines) == Approx(9).epsilon(1e-13));
    CHECK(valueOf("W(0.5)", lines) == Approx(valueOf("E_1(0.5)")).epsilon(1e-12));
    CHECK(valueOf("int_0^1 F(x) dx", lines) == Approx(1.0 / 12).epsilon(1e-13));
}

TEST_CASE("an integral is the same in a block, alone and on several threads") {
    const std::vector<std::string> lines{"W(u) = int_u^inf exp(-y - u/y)/y dy", "u in [0, 1]"};
    const Page page = readPage(lines);
    const auto program = compile(page, page.lines[0].body, page.lines[0].parameters).program;
    REQUIRE(program);
    std::vector<double> us(600), together(600), threaded(600);
    for (std::size_t i = 0; i < us.size(); ++i) us[i] = 0.01 + 0.005 * static_cast<double>(i);
    Evaluator evaluator(*program);
    evaluator(us.data(), together.data(), us.size());
    const double* in = us.data();
    double* out = threaded.data();
    evaluateInParallel(*program, std::span(&in, 1), std::span<double* const>(&out, 1), us.size());
    CHECK(together == threaded);
    Evaluator alone(*program, InstructionSet::Sse2);
    for (std::size_t i = 0; i < us.size(); i += 37) CHECK(alone(us[i]) == together[i]);
}

TEST_CASE("what an integrand does not need its variable for is computed outside of it") {
    const std::vector<std::string> lines{"g(x) = int_0^1 sin(x) exp(cos(x)) k dk"};
    const Page page = readPage(lines);
    const auto program = compile(page, page.lines[0].body, page.lines[0].parameters).program;
    REQUIRE(program->integrals.size() == 1);
    CHECK(program->integrals[0].integrand->instructions.size() == 1); // one product
    CHECK(program->instructions.size() == 5);
}

TEST_CASE("stopping ends an integral soon, and its value is undefined") {
    const std::vector<std::string> lines{"g(x) = int_0^1 int_0^1 floor(100 sin(1/(k m x))) dk dm"};
    const Page page = readPage(lines);
    const auto program = compile(page, page.lines[0].body, page.lines[0].parameters).program;
    Evaluator evaluator(*program);
    std::stop_source stop;
    stop.request_stop();
    evaluator.limit(stop.get_token(), 1'000'000'000);
    CHECK(std::isnan(evaluator(0.5)));
    evaluator.limit({}, 1000);
    CHECK(std::isnan(evaluator(0.5)));
    CHECK(evaluator.exhausted());
}

TEST_CASE("misspelled integrals say what is missing") {
    const auto problem = [](const std::string& text) {
        const Answer found = answerOf(text);
        INFO(text);
        REQUIRE(found.problems.size() == 1);
        return found.problems[0];
    };
    CHECK(problem("int_0^1 k").sentence.find("does not say over what") != std::string::npos);
    CHECK(problem("int_0^1 dk").sentence.find("missing here") != std::string::npos);
    CHECK(problem("int_0 k dk").sentence.find("upper limit") != std::string::npos);
    CHECK(problem("int k dk").sentence.find("lower limit") != std::string::npos);
    CHECK(problem("int_0^1 k + dk").sentence.find("ends too early") != std::string::npos);
    CHECK(problem("int_0^1 q dk").sentence.find("q is not defined") != std::string::npos);
}

TEST_CASE("linear conditions give their unknowns") {
    const std::vector<std::string> lines{"(a, b) solves 2a + b = 5, a - 4b = 1", "(p, q) solves h(0) = 1, h(2) = c",
                                         "h(x) = p x + q", "c = 7", "s solves 3s = sin(1)"};
    const Page page = readPage(lines);
    REQUIRE(page.problems().empty());
    CHECK(*page.valueOf("a") == Approx(7.0 / 3).epsilon(1e-15));
    CHECK(*page.valueOf("b") == Approx(1.0 / 3).epsilon(1e-15));
    CHECK(*page.valueOf("p") == Approx(3).epsilon(1e-15));
    CHECK(evaluate(page, "h(5)").value() == Approx(16).epsilon(1e-15));
    CHECK(*page.valueOf("s") == Approx(std::sin(1) / 3).epsilon(1e-15));
}

TEST_CASE("conditions that cannot be solved say why") {
    const auto problem = [](const std::string& text) {
        const std::vector<std::string> lines{text};
        const Page page = readPage(lines);
        INFO(text);
        REQUIRE_FALSE(page.problems().empty());
        return page.problems()[0].sentence;
    };
    CHECK(problem("(a, b) solves a + b = 1, 2a + 2b = 2").find("do not determine a and b") != std::string::npos);
    CHECK(problem("(a, b) solves a + b = 1").find("as many conditions") != std::string::npos);
    CHECK(problem("a solves a^2 = 2").find("not linear") != std::string::npos);
    CHECK(problem("a solves a < 2").find("one equation") != std::string::npos);
    CHECK(problem("(a, a) solves a = 2, a = 2").find("twice") != std::string::npos);
    CHECK(problem("a solves 1/0 a = 2").find("undefined") != std::string::npos);
    CHECK(problem("(a, b) solves a = 1, ").find("missing") != std::string::npos);
}

TEST_CASE("vectors are added, scaled, measured and asked for") {
    const std::vector<std::string> lines{"c(t) = (cos(t), sin(t))", "w(t) = 2 c(t) - (1, 0)/2"};
    const Page page = readPage(lines);
    REQUIRE(page.problems().empty());
    CHECK(evaluate(page, "w(0)").values == std::vector<double>{1.5, 0});
    CHECK(evaluate(page, "|c(0.3)|").value() == Approx(1).epsilon(1e-15));
    CHECK(evaluate(page, "c'(0)").values == std::vector<double>{-0.0, 1});
    CHECK(evaluate(page, "(1, 2, 3)").values.size() == 3);
    CHECK(evaluate(page, "c(0) + 1").problems[0].sentence.find("same number of components") != std::string::npos);
    CHECK(evaluate(page, "c(0) c(1)").problems[0].sentence.find("products of two vectors") != std::string::npos);
    CHECK(evaluate(page, "sin(c(0))").problems[0].sentence.find("no number") != std::string::npos);
    const std::vector<std::string> four{"c(t) = (1, 2, 3, t)"}; // longer ones are computed, but not drawn
    CHECK(readPage(four).problems()[0].sentence.find("three components") != std::string::npos);
}

TEST_CASE("the errors of answers hold and are small") {
    for (const char* text : {"sin(1)", "exp(1) - e", "1/3", "sum_{n=1}^{100} 1/n^2", "J_0(2.5)", "q + 1"}) {
        INFO(text);
        const Answer found = answerOf(text, {"q = 1/3"});
        REQUIRE(found.errors.size() == 1);
        CHECK(found.errors[0] < 1e-12);
    }
    CHECK(answerOf("sin(pi)").errors[0] >= std::abs(answerOf("sin(pi)").value()));
}
