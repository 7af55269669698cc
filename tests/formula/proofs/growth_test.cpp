// How functions grow beyond a place, and the bounds of sums and integrals that rest on it.
#include "compiled_formula.h"
#include "formula/proofs/growth.h"
#include "formula/proofs/proven_limits.h"
#include "formula/proofs/proven_series.h"

#include <random>

using namespace coulter;

namespace {

/// The logarithm of what a growth's factor is multiplied by, at most or at least.
double scaleOf(const Growth& growth, double x, bool most) {
    const double rate = most ? growth.exponential.high : growth.exponential.low;
    return growth.factorial * x * std::log(x) + rate * x +
           (most ? growth.power : growth.power - growth.spread) * std::log(x) +
           (growth.logarithms == 0 ? 0 : growth.logarithms * std::log(std::log(x)));
}

/// Whether a value, of which bounds are known, may lie within a growth, up to the rounding of that.
bool isWithin(const Growth& growth, double x, const Enclosure& value) {
    const double low = growth.factor.low * std::exp(scaleOf(growth, x, growth.factor.low < 0)),
                 high = growth.factor.high * std::exp(scaleOf(growth, x, growth.factor.high > 0));
    return value.high >= low - 1e-7 * std::abs(low) && value.low <= high + 1e-7 * std::abs(high);
}

} // namespace

TEST_CASE("a function stays within its growth, however far out one looks") {
    struct Case {
        const char* formula;
        double from;
        bool isPower;
    };
    for (const Case& c : {Case{"1/(1 + x^2)", 3, true},
                          Case{"x^3/(x^5 - 7x + 1)", 4, true},
                          Case{"sqrt(x)/(2 + x^2)", 2, true},
                          Case{"exp(-x^2)", 2, false},
                          Case{"x^2 exp(-x/3) + 1e-3 exp(-x)", 30, false},
                          Case{"exp(-sqrt(x))", 4, true},
                          Case{"ln(x)/x^2", 2, true},
                          Case{"ln(2x)/x^2", 2, true},
                          Case{"(1 + ln(x) + ln(x)^2)/x^2", 3, true},
                          Case{"ln(x)^3/x - ln(x)^2", 2, true},
                          Case{"ln(x)^5/x^0.25 + 1", 4, true}, // grows at first
                          Case{"sqrt(ln(x))/x^2", 2, true},
                          Case{"exp(-x) ln(x)", 3, false},
                          Case{"x^(1/x)", 2, true},
                          Case{"sin(1/x)/x", 2, true},
                          Case{"sin(x)/x^2", 2, true},
                          Case{"x^7/x!", 12, false},
                          Case{"(-0.9)^x x^2", 60, false},
                          Case{"3^x/Gamma(x + 1)", 20, false},
                          Case{"x^3/(exp(x) - 1)", 4, false},
                          Case{"1/2^x", 4, false},
                          Case{"sech(x)", 3, false},
                          Case{"exp(1/x) - 1/x", 2, true},
                          Case{"{ 1 for x < 5; 1/x^3 otherwise }", 6, true},
                          Case{"|1/x - 2/x^2|", 5, true},
                          Case{"ln(1 + 1/x^2)", 2, true},
                          Case{"1 - cos(1/x)", 2, true},
                          Case{"sqrt(1 + 1/x) - 1", 2, true},
                          Case{"exp(2^(-x)) - 1", 3, false},
                          Case{"arctan(1/x)/x", 2, true},
                          Case{"1/(1 + 1/x)^2 - 1", 4, true},
                          Case{"exp(-x/3)/x + exp(-x/3)/x^2", 2, false},
                          Case{"tanh(x)/x^1.5", 2, true},
                          Case{"(2x + 1)^(-2.5)", 1, true}}) {
        INFO(c.formula);
        const auto program = compiledFormula(c.formula);
        REQUIRE(program);
        const auto growth = growthOf(*program, c.from, {});
        REQUIRE(growth);
        CHECK(growth->isPower() == c.isPower);
        Evaluator evaluator(*program);
        IntervalEvaluator bounds(*program);
        for (double x = c.from; x < 1e9; x = std::max(x + 1, std::floor(x * 1.3))) {
            const double value = evaluator(x);
            if (std::isnan(value) || std::abs(value) < 1e-250) break; // (−0.9)^x between whole numbers; underflow
            INFO(x);
            const Enclosure at = Enclosure::point(x);
            CHECK(isWithin(*growth, x, bounds(std::span(&at, 1))[0]));
        }
    }
    // What is not defined all along, or whose growth is not known, has none.
    for (const char* formula : {"1/sin(x)", "sqrt(100 - x)", "ln(x - 7)", "J_0(x)", "tan(x)/x^2"}) {
        INFO(formula);
        CHECK(!growthOf(*compiledFormula(formula), 2, {}));
    }
}

TEST_CASE("a power whose exponent has bounds is within its growth at each of them") {
    for (const char* formula : {"x^p", "1/x^p", "x^(-p) ln(x)", "p^x", "(-p)^x", "(1 + 1/x)^p"}) {
        INFO(formula);
        const auto program = compiledFormula(formula, {"x", "p"});
        const Bounds exponents{0.3, 0.7};
        const auto growth = growthOf(*program, 3, std::span(&exponents, 1));
        REQUIRE(growth);
        IntervalEvaluator bounds(*program);
        for (double x = 3; x < 1e4; x = std::floor(x * 1.7)) {
            for (const double p : {0.3, 0.45, 0.7}) {
                const std::vector<Enclosure> at{Enclosure::point(x), Enclosure::point(p)};
                CHECK(isWithin(*growth, x, bounds(at)[0]));
            }
        }
    }
}

TEST_CASE("beside an end a function stays within its growth, and differences from it are exact") {
    struct Case {
        const char* formula;
        double end;
        int side;
    };
    for (const Case& c : {Case{"1/sqrt(1 - x)", 1, -1}, Case{"1/sqrt(1 - x^2)", -1, 1}, Case{"(x - 3)^(-0.7)", 3, 1},
                          Case{"ln(x)", 0, 1}, Case{"ln(2 - x)/sqrt(x)", 2, -1}, Case{"exp(x)/x^0.25", 0, 1},
                          Case{"x/(exp(x) - 1)", 0, 1}, Case{"ln(1 + x)/x", 0, 1}, Case{"(1 - cos(x))/x^2.5", 0, 1},
                          Case{"ln(x)^2/sqrt(x)", 0, 1}, Case{"ln(sin(x))", 0, 1}, Case{"ln(1 - x) x", 1, -1},
                          Case{"x^x", 0, 1}, Case{"1/(x^3 - 1)", 1, 1}}) {
        INFO(c.formula);
        const auto program = compiledFormula(c.formula);
        const auto growth = growthBeside(*program, c.end, c.side, 16, {});
        REQUIRE(growth);
        IntervalEvaluator bounds(*program);
        for (double t = 16; t < 1e9; t *= 2) {
            const Enclosure at = Enclosure::point(c.end + c.side / t);
            CHECK(isWithin(*growth, t, bounds(std::span(&at, 1))[0]));
        }
    }
}

TEST_CASE("integrals of powers and exponentials beyond a place are within their bounds") {
    std::mt19937 random(7);
    std::uniform_real_distribution<double> exponent(1.05, 6), place(2, 1e4);
    for (int i = 0; i < 300; ++i) {
        const double p = exponent(random), from = place(random);
        const Bounds whole = integralBeyond({0, {0, 0}, -p, {1, 1}}, from).value();
        const double exact = std::pow(from, 1 - p) / (p - 1);
        CHECK(whole.low <= exact);
        CHECK(whole.high >= exact);
        CHECK(width(whole) <= 1e-10 * exact);
        const double rate = 0.01 * p;
        const Bounds tail = integralBeyond({0, {-rate, -rate}, 0, {1, 1}}, from).value();
        CHECK(tail.high >= std::exp(-rate * from) / rate);
        // A sum of what falls lies between two integrals.
        const Bounds sum = sumBeyond({0, {0, 0}, -p, {1, 1}}, std::floor(from)).value();
        CHECK(sum.low <= std::pow(std::floor(from), 1 - p) / (p - 1) * (1 + 1e-11));
        CHECK(sum.high >= std::pow(std::floor(from) - 1, 1 - p) / (p - 1) * (1 - 1e-11));
    }
    for (int i = 0; i < 300; ++i) { // ∫ x^−p (ln x)^n = n! x^(1 − p)/(p − 1)^(n + 1) Σ ((p − 1) ln x)^k/k!
        const double p = exponent(random), from = place(random), rate = p - 1, z = rate * std::log(from);
        const int n = i % 6;
        double exact = 0, term = std::tgamma(n + 1.0) * std::pow(from, -rate) / std::pow(rate, n + 1);
        for (int k = 0; k <= n; term *= z / ++k) exact += term;
        const Bounds whole = integralBeyond({0, {0, 0}, -p, {1, 1}, n}, from).value();
        CHECK(whole.low <= exact * (1 + 1e-13));
        CHECK(whole.high >= exact * (1 - 1e-13));
        CHECK(width(whole) <= 1e-9 * exact);
        const auto sum = sumBeyond({0, {0, 0}, -p, {1, 1}, n}, std::floor(from));
        if (n > 0 && n >= p * std::log(std::floor(from) - 1)) CHECK(!sum); // not falling yet
        if (!sum) continue;
        double first = 0; // the terms up to where they are small
        for (double x = std::floor(from); x < 3 * from; ++x) first += std::pow(x, -p) * std::pow(std::log(x), n);
        const Bounds rest = integralBeyond({0, {0, 0}, -p, {1, 1}, n}, std::ceil(3 * from) + 1).value();
        CHECK(sum->high >= first + rest.low);
        CHECK(sum->low <= first + 1.1 * integralBeyond({0, {0, 0}, -p, {1, 1}, n}, 3 * from - 1).value().high);
    }
    CHECK(!integralBeyond({0, {0, 0}, -1, {1, 1}}, 10));
    CHECK(!integralBeyond({0, {0, 0}, -1, {1, 1}, 1}, 10));
    CHECK(!integralBeyond({0, {0.1, 0.1}, -5, {1, 1}}, 10));
    CHECK(!integralBeyond({0, {-1e-9, -1e-9}, 0, {1, 1}}, 10));
    CHECK(!sumBeyond({0, {0, 0}, -0.5, {1, 1}}, 10));
}

TEST_CASE("a series or an integral that does not converge by itself has no proven bounds") {
    for (const char* term :
         {"1/x", "cos(x)", "sin(x^2) x^2", "1", "x!", "1/(x ln(x + 1))", "ln(x)/x", "ln(x)^2/x^0.9"}) {
        INFO(term);
        CHECK(!provenSum(*compiledFormula(term), 1, {}));
        const auto program = compiledFormula(term);
        ProvenIntegral between(*program);
        CHECK(!provenOver(*program, between, exactly(1), exactly(HUGE_VAL), {}));
    }
}

TEST_CASE("sums hold their partial sums and what is left, whatever they begin with") {
    for (const char* term : {"1/x^2", "x^2/(x^4 + 3)", "0.8^x", "exp(-x)/x", "1/x^1.25", "ln(x)/x^3", "ln(x)^2/x^1.5",
                             "ln(x + 1)/x^2", "1/x!"}) {
        const auto program = compiledFormula(term);
        Evaluator evaluator(*program);
        const auto whole = provenSum(*program, 1, {});
        INFO(term);
        REQUIRE(whole);
        for (const int first : {2, 7, 100, 1000}) {
            const auto rest = provenSum(*program, first, {});
            REQUIRE(rest);
            double before = 0;
            for (int n = 1; n < first; ++n) before += evaluator(n);
            CHECK(before + rest->high >= whole->low - 1e-13);
            CHECK(before + rest->low <= whole->high + 1e-13);
        }
    }
}
