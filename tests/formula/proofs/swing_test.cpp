// What swings while it fades, and the bounds of its sums and integrals without an end.
#include "compiled_formula.h"
#include "formula/proofs/proven_integral.h"
#include "formula/proofs/swings.h"

using namespace coulter;

namespace {

/// Of what is one swing and nothing else; null if it is not.
std::optional<Swing> swingOf(const Program& f) {
    auto all = swingsOf(f, {});
    return all && all->parts.size() == 1 && !all->plain ? std::optional(std::move(all->parts[0])) : std::nullopt;
}

} // namespace

TEST_CASE("the swing of a formula is found where it has one") {
    struct Case {
        const char* formula;
        double rate, sine;
        bool isForWholes;
    };
    for (const Case& c :
         {Case{"sin(x)/x", 1, 0, false}, Case{"3 cos(2x + 1)/(1 + x^2)", 2, std::sin(1 + M_PI / 2), false},
          Case{"-sin(1 - x/4) exp(-x)", -0.25, -std::sin(1), false}, Case{"(-1)^x/x", M_PI, 1, true},
          Case{"sin(x)/x - 2 sin(x)/x^2", 1, 0, false}, Case{"1/x*(-1)^(3x + 1)", M_PI, -1, true},
          Case{"(-1)^x sin(x + 2)/x", 1 + M_PI, std::sin(2), true}}) {
        INFO(c.formula);
        const auto program = compiledFormula(c.formula);
        const auto swing = swingOf(*program);
        REQUIRE(swing);
        CHECK(swing->isForWholes == c.isForWholes);
        CHECK(swing->rate.low == Approx(c.rate));
        CHECK(swing->sine.high == Approx(c.sine).margin(1e-14));
        // Both together are the formula, at whole places.
        Evaluator whole(*program), rest(swing->rest);
        for (const double x : {1.0, 2.0, 5.0, 8.0}) {
            const double angle = c.rate * x,
                         wave = std::sin(angle) * swing->cosine.low + std::cos(angle) * swing->sine.low;
            CHECK(whole(x) == Approx(rest(x) * wave).margin(1e-14));
        }
    }
    for (const char* formula : {"1/x", "sin(x^2)/x", "sin(x)^2/x^2", "1/(2 + sin(x))", "sin(x) + 1/x", "(-1)^(2x)/x",
                                "sin(3)/x", "J_0(x)", "(-2)^x"}) {
        INFO(formula);
        CHECK(!swingOf(*compiledFormula(formula)));
    }
}

TEST_CASE("products and powers of swings are multiplied out") {
    struct Case {
        const char* formula;
        std::size_t swings;
        bool hasPlain;
    };
    for (const Case& c :
         {Case{"sin(x)^2/x^2", 1, true}, Case{"(1 - cos(x))/x^2", 1, true}, Case{"sin(x)^3/x", 2, false},
          Case{"sin(x) cos(2x)/x", 2, false}, Case{"sin(2x) sin(2x) exp(-x)", 1, true},
          Case{"sin(x) cos(x) - sin(2x)/3", 2, false}, // 2x is an angle of its own
          Case{"cos(pi x)^2/x", 1, true}, Case{"(2 + cos(3x + 1))^2/(1 + x)", 2, true}, Case{"sin(x)^6", 3, true},
          Case{"(-1)^x sin(x)^2", 2, false}, Case{"(-1)^x (-1)^(x + 1) cos(x)", 1, false},
          Case{"-(sin(x) - x) (cos(x) + 1/x)", 3, true}, Case{"sin(x) + 1/x + cos(x/2)", 2, true}}) {
        INFO(c.formula);
        const auto program = compiledFormula(c.formula);
        const auto found = swingsOf(*program, {});
        REQUIRE(found);
        CHECK(found->parts.size() == c.swings);
        CHECK(found->plain.has_value() == c.hasPlain);
        Evaluator whole(*program);
        for (const double x : {1.0, 2.0, 5.0, 8.0, 13.0}) {
            double sum = found->plain ? Evaluator(*found->plain)(x) : 0;
            for (const Swing& swing : found->parts) {
                const double angle = swing.rate.low * x;
                sum +=
                    Evaluator(swing.rest)(x) * (std::sin(angle) * swing.cosine.low + std::cos(angle) * swing.sine.low);
            }
            CHECK(whole(x) == Approx(sum).margin(1e-12));
        }
    }
    // Differences of angles that may be none are not told apart from what does not swing.
    CHECK(!swingsOf(*compiledFormula("sin(pi x) sin(3 pi x/3)/x"), {}));
    CHECK(!swingsOf(*compiledFormula("1/sin(x)"), {}));
    CHECK(!swingsOf(*compiledFormula("sqrt(sin(x)^2)/x"), {}));
    CHECK(!swingsOf(*compiledFormula("sin(x)^9"), {}));
}

TEST_CASE("what is left of a swinging integral or sum is what lies between two places, and what is left from there") {
    for (const char* formula : {"sin(x)/x", "cos(3x - 1)/sqrt(x)", "sin(x/2) x/(1 + x^2)", "ln(x) cos(x)/x"}) {
        INFO(formula);
        const auto program = compiledFormula(formula);
        const auto swing = swingOf(*program);
        REQUIRE(swing);
        const auto far = swingingIntegralFrom(*swing, 300, {}, 0), near = swingingIntegralFrom(*swing, 290, {}, 0);
        REQUIRE(far);
        REQUIRE(near);
        const auto between = ProvenIntegral(*program)(exactly(290), exactly(300), {});
        REQUIRE(between);
        CHECK(width(*far) < 1e-12);
        const Bounds both = *between + *far;
        CHECK(both.low <= near->high);
        CHECK(both.high >= near->low);
        // A little may be left open, and is then within the bounds.
        const auto coarse = swingingIntegralFrom(*swing, 300, {}, 1e-5);
        REQUIRE(coarse);
        CHECK(coarse->low <= far->low);
        CHECK(coarse->high >= far->high);
    }
    for (const char* formula : {"(-1)^x/x", "(-1)^x sin(x)/x", "sin(2x + 1)/sqrt(x)", "cos(40x)/x", "(-1)^x ln(x)/x"}) {
        INFO(formula);
        const auto program = compiledFormula(formula);
        const auto swing = swingOf(*program);
        REQUIRE(swing);
        const auto far = swingingSumFrom(*swing, 301, {}, 0), near = swingingSumFrom(*swing, 290, {}, 0);
        REQUIRE(far);
        REQUIRE(near);
        CHECK(width(*far) < 1e-11);
        Evaluator evaluator(*program);
        double between = 0;
        for (int n = 290; n <= 300; ++n) between += evaluator(n);
        CHECK(between + far->low <= near->high + 1e-14);
        CHECK(between + far->high >= near->low - 1e-14);
    }
    // Turns of the whole circle are no swing, and what does not fade has no bounds.
    CHECK(!swingingSumFrom(*swingOf(*compiledFormula("cos(2 pi x)/x")), 300, {}, 0));
    CHECK(!swingingSumFrom(*swingOf(*compiledFormula("cos(x)")), 300, {}, 0));
    CHECK(!swingingIntegralFrom(*swingOf(*compiledFormula("cos(x) sqrt(x)")), 300, {}, 0));
}

TEST_CASE("how far a rate is from whole turns") {
    CHECK(awayFromTurns(exactly(1)) == Approx(1));
    CHECK(awayFromTurns(exactly(-1)) == Approx(1));
    CHECK(awayFromTurns(exactly(3.5)) == Approx(2 * M_PI - 3.5));
    CHECK(awayFromTurns(exactly(40)) == Approx(40 - 12 * M_PI));
    CHECK(awayFromTurns({6, 6.5}) == 0);
    CHECK(awayFromTurns(exactly(0)) == 0);
    CHECK(awayFromTurns(exactly(1e12)) == 0);
}
