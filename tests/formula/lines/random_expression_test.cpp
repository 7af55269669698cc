#include "formula/base/text.h"
#include "formula/compile/compile.h"
#include "formula/compile/program_builder.h"
#include "formula/lines/answer.h"
#include "formula/lines/plotted.h"
#include "formula/lines/read_page.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <functional>
#include <random>

using namespace coulter;

namespace {

/// An expression in two forms: its spelling, and a function that computes it point by point with the C library.
struct Made {
    std::string text;
    std::function<double(double, double)> value;
};

class Maker {
public:
    explicit Maker(unsigned seed) : random_(seed) {}

    Made make(int depth) {
        const int kind = depth == 0 ? pick(3) : 3 + pick(12);
        switch (kind) {
        case 0: return {"x", [](double x, double) { return x; }};
        case 1: return {"y", [](double, double y) { return y; }};
        case 2: {
            const double number = std::round(std::uniform_real_distribution<double>(0.1, 4)(random_) * 100) / 100;
            return {shortestNumber(number), [number](double, double) { return number; }};
        }
        case 3:
        case 4: return join(depth, " + ", [](double a, double b) { return a + b; });
        case 5: return join(depth, " - ", [](double a, double b) { return a - b; });
        case 6:
        case 7: return join(depth, "*", [](double a, double b) { return a * b; });
        case 8: return join(depth, "/", [](double a, double b) { return a / b; });
        case 9: return unary(depth, "sin", [](double a) { return std::sin(a); });
        case 10: return unary(depth, "arctan", [](double a) { return std::atan(a); });
        case 11: return unary(depth, "abs", [](double a) { return std::abs(a); });
        case 12: return unary(depth, "tanh", [](double a) { return std::tanh(a); });
        case 13: {
            const Made a = make(depth - 1);
            return {"(" + a.text + ")^2", [a](double x, double y) { return a.value(x, y) * a.value(x, y); }};
        }
        default: {
            const Made a = make(depth - 1);
            return {"-(" + a.text + ")", [a](double x, double y) { return -a.value(x, y); }};
        }
        }
    }

private:
    int pick(int n) { return static_cast<int>(random_() % static_cast<unsigned>(n)); }
    Made join(int depth, const char* sign, double (*apply)(double, double)) {
        const Made a = make(depth - 1), b = make(depth - 1);
        return {"((" + a.text + ")" + sign + "(" + b.text + "))",
                [a, b, apply](double x, double y) { return apply(a.value(x, y), b.value(x, y)); }};
    }
    Made unary(int depth, const std::string& name, double (*apply)(double)) {
        const Made a = make(depth - 1);
        return {name + "(" + a.text + ")", [a, apply](double x, double y) { return apply(a.value(x, y)); }};
    }
    std::mt19937 random_;
};

} // namespace

TEST_CASE("random expressions have the value that the C library gives, point by point") {
    int compared = 0;
    for (unsigned seed = 0; seed < 400; ++seed) {
        const Made made = Maker(seed).make(1 + static_cast<int>(seed % 5));
        const std::vector<std::string> lines{"f(x, y) = " + made.text};
        const Page page = readPage(lines);
        INFO(made.text);
        REQUIRE(page.problems().empty());
        for (const double x : {-2.5, -0.3, 0.7, 3.1}) {
            const double y = 1.3 - x / 2;
            const double expected = made.value(x, y);
            const double got = evaluate(page, "f(" + shortestNumber(x) + ", " + shortestNumber(y) + ")").value();
            if (!std::isfinite(expected) || std::abs(expected) > 1e8) continue;
            ++compared;
            // Cancellation may magnify the last places of the functions.
            REQUIRE(got == Approx(expected).epsilon(1e-9).margin(1e-9));
        }
    }
    CHECK(compared > 1000);
}

TEST_CASE("compiled programs give on blocks what they give at points, on every instruction set") {
    std::vector<double> xs(777), ys(777);
    for (std::size_t i = 0; i < xs.size(); ++i) xs[i] = -4 + 0.011 * static_cast<double>(i);
    for (unsigned seed = 0; seed < 60; ++seed) {
        const Made made = Maker(seed + 1000).make(4);
        const std::vector<std::string> lines{"f(x, y) = " + made.text, "x in [0, 1]"};
        const Page page = readPage(lines);
        const Plotted plotted = readPlotted(page, "f(x, 0.5)");
        INFO(made.text);
        REQUIRE(plotted.expression);
        const auto program = compile(page, plotted.expression, std::vector<std::string>{"x"}).program;
        Evaluator best(*program), plain(*program, InstructionSet::Sse2);
        best(xs.data(), ys.data(), xs.size());
        for (std::size_t i = 0; i < xs.size(); i += 13) {
            const double one = plain(xs[i]);
            REQUIRE((one == ys[i] || (std::isnan(one) && std::isnan(ys[i]))));
        }
    }
}

TEST_CASE("a builder folds constants, joins equal operations and reuses registers") {
    ProgramBuilder builder(1);
    const auto x = builder.input(0);
    const auto two = builder.apply(Kernel::Add, builder.constant(1), builder.constant(1));
    CHECK(two == builder.constant(2));
    const auto sum = builder.apply(Kernel::Add, x, two), same = builder.apply(Kernel::Add, two, x);
    CHECK(sum == same);
    CHECK(builder.apply(Kernel::Subtract, x, two) != builder.apply(Kernel::Subtract, two, x));
    auto chain = sum;
    for (int i = 0; i < 50; ++i) chain = builder.apply(Kernel::Sin, chain);
    builder.apply(Kernel::Exp, x); // nothing needs it
    const Program program = builder.finish(std::vector<ProgramBuilder::Value>{chain});
    CHECK(program.instructions.size() == 51);
    CHECK(program.temporaryCount <= 2);
    CHECK(program.constants == std::vector<double>{2});
}

TEST_CASE("whole powers are products, others the general power") {
    const auto value = [](double base, double exponent) {
        ProgramBuilder builder(1);
        const Program program = builder.finish(
            std::vector<ProgramBuilder::Value>{builder.power(builder.input(0), builder.constant(exponent))});
        return Evaluator(program)(base);
    };
    for (const double x : {-3.0, -0.5, 0.25, 1.1, 7.0}) {
        for (int n = -4; n <= 4; ++n) {
            if (n != 0) CHECK(value(x, n) == Approx(std::pow(x, n)).epsilon(1e-15));
        }
        CHECK(value(x, 11) == Approx(std::pow(x, 11)).epsilon(1e-14));
    }
    CHECK(value(4, 0.5) == 2);
    CHECK(value(5, 0) == 1);
    CHECK(std::isnan(value(-8, 1.0 / 3)));
}

TEST_CASE("several outputs of one program are computed together") {
    ProgramBuilder builder(2);
    const auto sum = builder.apply(Kernel::Add, builder.input(0), builder.input(1));
    const auto product = builder.apply(Kernel::Multiply, builder.input(0), builder.input(1));
    const Program program = builder.finish(std::vector<ProgramBuilder::Value>{sum, product, builder.input(1)});
    const std::vector<double> a{1, 2, 3}, b{10, 20, 30};
    std::vector<double> s(3), p(3), second(3);
    const double* inputs[] = {a.data(), b.data()};
    double* outputs[] = {s.data(), p.data(), second.data()};
    Evaluator evaluator(program);
    evaluator(inputs, outputs, 3);
    CHECK(s == std::vector<double>{11, 22, 33});
    CHECK(p == std::vector<double>{10, 40, 90});
    CHECK(second == b);
}
