// Proven bounds of integrals, their jets, and the Taylor series that they stand on.
#include "compiled_formula.h"
#include "formula/compile/compile.h"
#include "formula/program/tangent.h"
#include "formula/proofs/integral_jet.h"
#include "formula/proofs/taylor_evaluator.h"
#include "program_reference.h"
#include "random_formula.h"

#include <random>

using namespace coulter;

namespace {

Bounds proven(const std::string& integrand, const Bounds& low, const Bounds& high, std::vector<Bounds> others = {},
              const std::vector<std::string>& names = {"x"}) {
    const auto program = compiledFormula(integrand, names);
    REQUIRE(program);
    const auto found = ProvenIntegral(*program)(low, high, others);
    INFO(integrand);
    REQUIRE(found);
    return *found;
}

/// A double on either side of what an expression without names is worth.
std::pair<double, double> referenceOf(const std::string& closed) {
    const auto parsed = parseExpression(decodeUtf8(closed), KnownNames{});
    REQUIRE(parsed.expression);
    const auto program = compileStepByStep(Page{}, parsed.expression).program;
    REQUIRE(program);
    return oracle::ProgramReference{*program}.at({}).value();
}

struct Closed {
    const char *integral, *closed;
};

/// That value, first and second derivative of a formula hold those of its closed form, over boxes of several sizes.
void checkJets(const Closed& c, std::initializer_list<double> places, double sharp) {
    INFO(c.integral);
    const auto program = compiledFormula(c.integral), closed = compiledFormula(c.closed);
    REQUIRE(hasJets(*program));
    JetEvaluator<1> jets(*program), expected(*closed);
    for (const double x : places) {
        double before = HUGE_VAL;
        for (const double r : {0.1, 0.01, 0.001}) {
            const Jet<1> found = jets({Bounds{x - r, x + r}})[0];
            REQUIRE(found.value.isProof());
            const double half = r / 2;
            for (const double at : {x - half, x, x + half}) {
                const Jet<1> there = expected({Bounds{at, at}})[0];
                CHECK(found.value.low <= there.value.high);
                CHECK(found.value.high >= there.value.low);
                CHECK(found.first[0].low <= there.first[0].high);
                CHECK(found.first[0].high >= there.first[0].low);
                CHECK(found.second[0].low <= there.second[0].high);
                CHECK(found.second[0].high >= there.second[0].low);
            }
            const Jet<1> middle = expected({Bounds{x, x}})[0];
            CHECK(found.centre.low <= middle.value.high);
            CHECK(found.centre.high >= middle.value.low);
            CHECK(found.centre.width() < sharp * (1 + std::abs(found.centre.low)));
            CHECK(found.centreFirst[0].low <= middle.first[0].high);
            CHECK(found.centreFirst[0].high >= middle.first[0].low);
            CHECK(width(found.first[0]) < before);
            before = width(found.first[0]);
        }
    }
}

} // namespace

TEST_CASE("Taylor coefficients hold those of closed forms, at places and over intervals") {
    struct Case {
        const char* formula;
        double (*coefficient)(double x, int n); ///< f^(n)/n!
    };
    const Case cases[] = {
        {"exp(x)", [](double x, int n) { return std::exp(x) / std::tgamma(n + 1.0); }},
        {"sin(x)", [](double x, int n) { return std::sin(x + n * M_PI / 2) / std::tgamma(n + 1.0); }},
        // Integrals by what they depend on from outside.
        {"int_0^x exp(k) dk + 1", [](double x, int n) { return std::exp(x) / std::tgamma(n + 1.0); }},
        {"int_0^1 x cos(k x) dk", [](double x, int n) { return std::sin(x + n * M_PI / 2) / std::tgamma(n + 1.0); }},
        {"2 int_x^{2x} 1/k^2 dk", [](double x, int n) { return std::pow(-1, n) / std::pow(x, n + 1); }},
        {"cos(2x)",
         [](double x, int n) { return std::pow(2, n) * std::cos(2 * x + n * M_PI / 2) / std::tgamma(n + 1.0); }},
        {"1/x", [](double x, int n) { return std::pow(-1, n) / std::pow(x, n + 1); }},
        {"ln(x)", [](double x, int n) { return n == 0 ? std::log(x) : std::pow(-1, n - 1) / (n * std::pow(x, n)); }},
        {"sinh(x)", [](double x, int n) { return (n % 2 == 0 ? std::sinh(x) : std::cosh(x)) / std::tgamma(n + 1.0); }},
        {"x^5",
         [](double x, int n) {
             return n > 5 ? 0 : std::tgamma(6.0) / std::tgamma(6.0 - n) / std::tgamma(n + 1.0) * std::pow(x, 5 - n);
         }},
    };
    for (const Case& c : cases) {
        INFO(c.formula);
        const auto program = compiledFormula(c.formula);
        TaylorEvaluator series(*program);
        const bool isIntegral = !program->integrals.empty();
        for (const double x : {0.7, 1.3, 2.9}) {
            const auto at = series(exactly(x), {});
            const auto over = series({x - 0.01, x + 0.02}, {});
            REQUIRE(at);
            REQUIRE(over);
            for (std::size_t n = 0; n <= taylorOrder; ++n) {
                const double expected = c.coefficient(x, static_cast<int>(n)),
                             slack = 1e-13 * std::max(1e-3, std::abs(expected));
                CHECK((*at)[n].low <= expected + slack);
                CHECK((*at)[n].high >= expected - slack);
                if (!isIntegral || n <= 4) // of integrals the higher ones cancel more and more
                    CHECK(width((*at)[n]) <= (isIntegral ? 1e-9 : 1e-11) * std::max(1.0, std::abs(expected)));
                CHECK((*over)[n].low <= (*at)[n].high);
                CHECK((*over)[n].high >= (*at)[n].low);
            }
        }
    }
}

TEST_CASE("Taylor series of every elementary function sum up to it nearby") {
    for (const char* formula : {"sqrt(x)",
                                "cbrt(x)",
                                "exp(x)",
                                "ln(x)",
                                "lg(x)",
                                "lb(x)",
                                "sin(x)",
                                "cos(x)",
                                "tan(x)",
                                "cot(x)",
                                "sec(x)",
                                "csc(x)",
                                "arcsin(x/4)",
                                "arccos(x/4)",
                                "arctan(x)",
                                "arccot(x)",
                                "sinh(x)",
                                "cosh(x)",
                                "tanh(x)",
                                "coth(x)",
                                "sech(x)",
                                "csch(x)",
                                "arsinh(x)",
                                "arcosh(x + 1)",
                                "artanh(x/4)",
                                "sinc(x)",
                                "erf(x)",
                                "erfc(x)",
                                "x^2.5",
                                "x^(-3)",
                                "2^x",
                                "x^x",
                                "log_{3}(x)",
                                "|x - 5|",
                                "floor(x/8)",
                                "mod(x, 7)",
                                "min(x, 9)",
                                "max(x^2, -1)",
                                "{ x for x < 3; 1 otherwise }",
                                "(x^2 + 1)/(x + 3) - x",
                                "J_0(2) x"}) {
        INFO(formula);
        const auto program = compiledFormula(formula);
        REQUIRE(program);
        TaylorEvaluator series(*program);
        const double x = 0.9, h = 0.03;
        const auto at = series(exactly(x), {});
        REQUIRE(at);
        double sum = 0, power = 1;
        for (const Bounds& each : *at) {
            sum += power * (each.low + each.high) / 2;
            power *= h;
        }
        Evaluator evaluator(*program);
        CHECK(sum == Approx(evaluator(x + h)).epsilon(1e-13));
    }
    // Corners, jumps and special functions of the variable have none.
    for (const char* formula : {"|x - 1|", "floor(x)", "{ x for x < 1; 2 otherwise }", "J_0(x)", "sqrt(x - 1)"}) {
        const auto program = compiledFormula(formula);
        CHECK(!TaylorEvaluator(*program)({0.9, 1.1}, {}));
    }
}

TEST_CASE("proven bounds of integrals hold what Arb finds, and are sharp") {
    struct Case {
        const char *integrand, *low, *high, *closed;
        double sharp;
    };
    for (const Case& c :
         {Case{"x^2", "0", "1", "1/3", 1e-13}, Case{"sin(x)", "0", "2", "1 - cos(2)", 1e-13},
          Case{"exp(-x^2)", "0", "2", "sqrt(pi)/2 erf(2)", 1e-13}, Case{"1/(1 + x^2)", "-5", "5", "2 arctan(5)", 1e-13},
          Case{"cos(30x) exp(x)", "0", "1", "(e (cos(30) + 30 sin(30)) - 1)/901", 1e-12},
          Case{"sqrt(x)", "0.01", "4", "2/3 (8 - 0.001)", 1e-12}, Case{"ln(x)", "1", "3", "3 ln(3) - 2", 1e-13},
          Case{"|x - 0.3|", "0", "1", "0.29", 1e-9}, Case{"[x < 0.3] x", "0", "1", "0.045", 1e-9},
          Case{"x^x", "1", "2", "2.050446234534731", 1e-12}, Case{"J_0(x) x", "0", "3", "3 J_1(3)", 1e-4},
          Case{"exp(x)", "1", "0", "1 - e", 1e-13}}) {
        INFO(c.integrand);
        const auto [low, lowUp] = referenceOf(c.low);
        const auto [high, highUp] = referenceOf(c.high);
        const Bounds found = proven(c.integrand, {low, lowUp}, {high, highUp});
        const auto [least, most] = referenceOf(c.closed);
        const double slack = std::string(c.integrand) == "x^x" ? 1e-14 : 0; // of the literal
        CHECK(found.low <= most + slack);
        CHECK(found.high >= least - slack);
        CHECK(width(found) < c.sharp);
    }
    const auto pole = compiledFormula("1/x");
    CHECK(!ProvenIntegral(*pole)(exactly(-1), exactly(1), {}));
    CHECK(!ProvenIntegral(*pole)(exactly(1), {1, HUGE_VAL}, {}));
}

TEST_CASE("proven integrals of random formulas hold their values by another rule") {
    std::mt19937 random(77);
    RandomFormula formulas(78);
    int known = 0;
    for (int i = 0; i < 150; ++i) {
        const std::string formula = formulas.make(1 + i % 3);
        const auto program = compiledFormula(formula);
        if (!program || program->outputs.size() != 1) continue;
        std::uniform_real_distribution<double> any(-3, 3);
        const double a = any(random), b = any(random);
        const auto found = ProvenIntegral(*program)(exactly(a), exactly(b), {}, {1e-12, 150});
        if (!found) continue;
        ++known;
        INFO(formula << " from " << a << " to " << b);
        // Simpson's rule, refined until it stands still; only where it does is it compared.
        Evaluator evaluator(*program);
        double before = 0, now = 0;
        for (int n = 512; n <= 16384; n *= 2) {
            before = now;
            now = 0;
            for (int k = 0; k <= n; ++k)
                now += evaluator(a + (b - a) * k / n) * (k == 0 || k == n ? 1 : k % 2 == 1 ? 4 : 2);
            now *= (b - a) / (3 * n);
        }
        if (!(std::abs(now - before) < 1e-9 * (1 + std::abs(now)))) continue;
        const double slack = 1e-8 * (1 + std::abs(now));
        CHECK(found->low <= now + slack);
        CHECK(found->high >= now - slack);
    }
    CHECK(known > 40);
}

TEST_CASE("jets of integrals hold value, first and second derivative of closed forms") {
    for (const Closed& c :
         {Closed{"int_0^x sin(k) dk", "1 - cos(x)"}, Closed{"int_x^{2x} k^2 dk", "7x^3/3"},
          Closed{"int_0^1 cos(k x) dk", "sin(x)/x"}, Closed{"int_0^x exp(-k x) dk", "(1 - exp(-x^2))/x"},
          Closed{"int_1^{x^2} x/k dk", "2 x ln(x)"}, Closed{"int_x^1 k dk", "(1 - x^2)/2"},
          Closed{"3 int_0^2 exp(k x) dk + x", "3 (exp(2x) - 1)/x + x"}})
        checkJets(c, {0.6, 1.1, 2.3}, 1e-8);
    CHECK(!hasJets(*compiledFormula("int_0^x int_0^k m dm dk")));
}

TEST_CASE("so do those of integrals to infinity, at infinite ends, and of series and products") {
    for (const Closed& c :
         {Closed{"int_0^inf exp(-k^2) cos(k x) dk", "sqrt(pi)/2 exp(-x^2/4)"},
          Closed{"int_x^inf exp(-k)/k^2 dk", "exp(-x)/x - E_1(x)"}, Closed{"int_{-inf}^x exp(k) dk", "exp(x)"},
          Closed{"int_0^inf x/(x^2 + k^2) dk + x", "pi/2 + x"}, Closed{"int_0^inf exp(-x k)/sqrt(k) dk", "sqrt(pi/x)"},
          Closed{"int_0^x 1/sqrt(k) dk", "2 sqrt(x)"}, Closed{"int_0^x ln(k) dk", "x ln(x) - x"},
          Closed{"int_0^inf cos(k)/(x + k)^3 dk", "1/(2x^2) - 0.5 int_0^inf sin(k)/(x + k)^2 dk"},
          Closed{"sum_{n=0}^{inf} x^n/n!", "exp(x)"}, Closed{"sum_{n=0}^{inf} (-1)^n x^(2n)/(2n)!", "cos(x)"},
          Closed{"sum_{n=0}^{inf} 1/(1 + x)^n", "1 + 1/x"},
          Closed{"sum_{n=1}^{inf} 1/(n^2 + x^2)", "(pi x coth(pi x) - 1)/(2x^2)"},
          Closed{"sum_{n=1}^{inf} (-1)^n/(n^2 + x^2)", "(pi x csch(pi x) - 1)/(2x^2)"},
          Closed{"sum_{n=1}^{inf} sin(n x)/n^5", "pi^4 x/90 - pi^2 x^3/36 + pi x^4/48 - x^5/240"},
          Closed{"sum_{n=1}^{inf} 1/n^(x + 1.5)", "zeta(x + 1.5)"},
          Closed{"x prod_{n=1}^{inf} (1 - x^2/n^2)", "sin(pi x)/pi"},
          Closed{"prod_{n=1}^{inf} (1 + x/2^n)^2", "(prod_{n=1}^{inf} (1 + x/2^n))^2"}})
        checkJets(c, {0.6, 1.1, 2.3}, 1e-6);
    // Slopes that do not converge are none.
    for (const char* formula : {"int_0^inf sin(k x)/k dk", "sum_{n=1}^{inf} sin(n x)/n", "sum_{n=1}^{inf} x^n/n^2"}) {
        INFO(formula);
        const auto program = compiledFormula(formula);
        REQUIRE(hasJets(*program));
        CHECK(!isBounded(JetEvaluator<1>(*program)({Bounds{1, 1.25}})[0].first[0]));
    }
}

TEST_CASE("the derivative of a program is a program, over which bounds hold its jets") {
    const std::vector<std::size_t> first{1}, second{1, 2};
    for (const char* formula : {"k x",
                                "x^2/k + k/x",
                                "sqrt(x + k)",
                                "exp(-k x) sin(x)",
                                "cos(k x)^3",
                                "tan(x/4)",
                                "cot(x)",
                                "sec(x/4)",
                                "csc(x)",
                                "ln(k + x) lg(x) lb(x)",
                                "arctan(k x)",
                                "arccot(x)",
                                "arcsin(x/4)",
                                "arccos(x/4)",
                                "sinh(x)",
                                "cosh(k x)",
                                "tanh(x)",
                                "coth(x)",
                                "sech(x)",
                                "csch(x)",
                                "arsinh(x)",
                                "arcosh(1 + x)",
                                "artanh(x/5)",
                                "erf(x)",
                                "erfc(k x)",
                                "x^k",
                                "sin(x)/k^x",
                                "1/x^2",
                                "k/(1 + x)^k",
                                "x/k^3",
                                "k^x",
                                "x^3",
                                "x^(-1.3)",
                                "cbrt(x)",
                                "{ x^2 for k < 1; 3 for k < 2; sin(x) otherwise }",
                                "k",
                                "-x"}) {
        INFO(formula);
        const auto program = compiledFormula(formula, {"k", "x"});
        REQUIRE(program);
        const auto slope = tangentOf(*program, first);
        REQUIRE(slope);
        const auto bend = tangentOf(*slope, second);
        REQUIRE(bend);
        JetEvaluator<2> jets(*program);
        IntervalEvaluator slopes(*slope), bends(*bend);
        for (const double k : {0.5, 1.5, 2.5}) {
            for (const double x : {0.4, 1.3, 2.2}) {
                const Jet<2> jet = jets({Bounds{k, k}, Bounds{x, x}})[0];
                const auto one = Enclosure::point(1), zero = Enclosure::point(0);
                const auto at = [](double value) { return Enclosure::point(value); };
                const Enclosure ofFirst = slopes(std::vector<Enclosure>{at(k), at(x), one})[0],
                                ofSecond = bends(std::vector<Enclosure>{at(k), at(x), one, one, zero})[0];
                REQUIRE(ofFirst.isProof());
                REQUIRE(ofSecond.isProof());
                CHECK(ofFirst.low <= jet.first[1].high);
                CHECK(ofFirst.high >= jet.first[1].low);
                CHECK(ofFirst.width() < 1e-11 * (1 + std::abs(ofFirst.low)));
                CHECK(ofSecond.low <= jet.second[Jet<2>::pair(1, 1)].high);
                CHECK(ofSecond.high >= jet.second[Jet<2>::pair(1, 1)].low);
                CHECK(ofSecond.width() < 1e-10 * (1 + std::abs(ofSecond.low)));
            }
        }
    }
    for (const char* formula : {"|x|", "floor(x)", "{ k for x < 1; 2 otherwise }", "J_0(x)", "max(k, x)"}) {
        INFO(formula);
        CHECK(!tangentOf(*compiledFormula(formula, {"k", "x"}), first));
    }
    CHECK(tangentOf(*compiledFormula("J_0(k) x", {"k", "x"}), first));
}
