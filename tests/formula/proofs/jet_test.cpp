#include "formula/proofs/jet_evaluator.h"
#include "rounds.h"

#include "compiled_formula.h"
#include "formula/bounds/bounds_arithmetic.h"
#include "program_reference.h"
#include "random_formula.h"

#include <cstdlib>

using namespace coulter;

namespace {

/// COULTER_THOROUGH=1 looks at a million places of 20 000 formulas, which takes minutes.
bool thorough() { return std::getenv("COULTER_THOROUGH") != nullptr; }

Jet<1> over(const std::string& formula, double low, double high) {
    const auto program = compiledFormula(formula);
    REQUIRE(program);
    JetEvaluator<1> evaluator(*program);
    return evaluator({Bounds{low, high}})[0];
}

void checkInside(const Bounds& bounds, const std::optional<std::pair<double, double>>& exact) {
    if (!exact) return;
    REQUIRE(bounds.low <= exact->second);
    REQUIRE(bounds.high >= exact->first);
}

/// What was looked at, so that no check passes by looking at nothing.
struct Seen {
    int places = 0, firsts = 0, seconds = 0, middles = 0;
};

/// Looks whether the value and the derivatives of a formula at a place lie within its jet over a box.
template <std::size_t N>
void look(const oracle::ProgramReference& reference, const Jet<N>& jet, const std::array<double, N>& place,
          Seen& seen) {
    const std::vector<double> at(place.begin(), place.end());
    const auto value = reference.at(at);
    if (!value) return;
    ++seen.places;
    if (jet.value.known) checkInside({jet.value.low, jet.value.high}, value);
    for (std::size_t k = 0; k < N; ++k) {
        if (isBounded(jet.first[k])) ++seen.firsts;
        if (jet.first[k].low > -HUGE_VAL || jet.first[k].high < HUGE_VAL)
            checkInside(jet.first[k], reference.derivative(at, k));
        for (std::size_t j = 0; j <= k; ++j) {
            const Bounds& second = jet.second[Jet<N>::pair(j, k)];
            if (!isBounded(second)) continue;
            ++seen.seconds;
            checkInside(second, reference.derivative(at, j, k));
        }
    }
}

/// The same of what a jet knows about the middle of its box.
void lookAtMiddle(const oracle::ProgramReference& reference, const Jet<1>& jet, double middle, Seen& seen) {
    if (!jet.centre.isProof()) return;
    if (const auto value = reference.at({middle})) checkInside({jet.centre.low, jet.centre.high}, value);
    if (!isBounded(jet.centreFirst[0])) return;
    ++seen.middles;
    checkInside(jet.centreFirst[0], reference.derivative({middle}, 0));
}

/// Inside an interval, so that a difference looks at nothing beyond it.
double placeWithin(RandomFormula& random, double low, double high) {
    return random.between(low + (high - low) * 1e-3, high - (high - low) * 1e-3);
}

/// A formula, its jets, and what it is at high precision.
struct Compared {
    std::string formula;
    std::shared_ptr<const Program> program = compiledFormula(formula);
    JetEvaluator<1> evaluator{*program};
    oracle::ProgramReference reference{*program};

    explicit Compared(std::string f) : formula(std::move(f)) {}
    Jet<1> over(double low, double high) { return evaluator({Bounds{low, high}})[0]; }
    /// Looks at four places within an interval; the jet over it.
    Jet<1> lookWithin(double low, double high, RandomFormula& random, Seen& seen) {
        INFO(formula << " over [" << shortestNumber(low) << ", " << shortestNumber(high) << "]");
        const Jet<1> jet = over(low, high);
        for (int k = 0; k < 4; ++k) look<1>(reference, jet, {placeWithin(random, low, high)}, seen);
        return jet;
    }
};

} // namespace

TEST_CASE("values and derivatives at high precision lie inside the jets of random formulas") {
    Seen seen;
    const unsigned formulas = thorough() ? 20'000 : rounds(1'200);
    for (unsigned seed = 0; seed < formulas; ++seed) {
        RandomFormula random(seed + 50'000);
        const std::string formula = random.make(1 + static_cast<int>(seed % 4));
        const auto program = compiledFormula(formula);
        if (!program) continue;
        JetEvaluator<1> evaluator(*program);
        const oracle::ProgramReference reference{*program};
        for (int i = 0; i < (thorough() ? 10 : 4); ++i) {
            const double low = random.between(-4, 4), high = low + std::pow(10, random.between(-10, 0.7));
            const Jet<1> jet = evaluator({Bounds{low, high}})[0];
            if (!jet.value.known) continue;
            if (isBounded(jet.second[0])) { // else what lies beside the middle may be another piece
                INFO(formula << " over [" << shortestNumber(low) << ", " << shortestNumber(high) << "], middle");
                lookAtMiddle(reference, jet, middleAndRadius({low, high}).middle, seen);
            }
            for (int k = 0; k < 7; ++k) {
                const double at = placeWithin(random, low, high);
                INFO(formula << " over [" << shortestNumber(low) << ", " << shortestNumber(high) << "] at "
                             << shortestNumber(at));
                look<1>(reference, jet, {at}, seen);
            }
        }
    }
    CHECK(seen.places > 12 * static_cast<int>(formulas));
    CHECK(seen.firsts > 6 * static_cast<int>(formulas));
    CHECK(seen.middles > static_cast<int>(formulas));
    CHECK(seen.seconds > 5 * static_cast<int>(formulas));
}

TEST_CASE("values and derivatives at high precision lie inside the jets of random formulas of two variables") {
    Seen seen;
    const unsigned formulas = thorough() ? 5'000 : rounds(400);
    for (unsigned seed = 0; seed < formulas; ++seed) {
        RandomFormula random(seed + 90'000, {"x", "y", "x", "y", "x y", "x/y"});
        const std::string formula = random.make(1 + static_cast<int>(seed % 3));
        const auto program = compiledFormula(formula, {"x", "y"});
        if (!program) continue;
        JetEvaluator<2> evaluator(*program);
        const oracle::ProgramReference reference{*program};
        for (int i = 0; i < 4; ++i) {
            std::array<Bounds, 2> box;
            for (Bounds& side : box) {
                side.low = random.between(-4, 4);
                side.high = side.low + std::pow(10, random.between(-9, 0.5));
            }
            const Jet<2> jet = evaluator(box)[0];
            if (!jet.value.known) continue;
            for (int k = 0; k < 4; ++k) {
                const std::array<double, 2> at{placeWithin(random, box[0].low, box[0].high),
                                               placeWithin(random, box[1].low, box[1].high)};
                INFO(formula << " over [" << shortestNumber(box[0].low) << ", " << shortestNumber(box[0].high)
                             << "] and [" << shortestNumber(box[1].low) << ", " << shortestNumber(box[1].high)
                             << "] at " << shortestNumber(at[0]) << ", " << shortestNumber(at[1]));
                look<2>(reference, jet, at, seen);
            }
        }
    }
    CHECK(seen.places > 6 * static_cast<int>(formulas));
    CHECK(seen.seconds > 8 * static_cast<int>(formulas));
}

TEST_CASE("each function of the catalogue has a jet wherever it has bounds, and its derivatives lie inside") {
    int looked = 0;
    for (const FunctionEntry& entry : catalogue()) {
        const std::string formula = exampleOf(entry);
        const auto program = compiledFormula(formula);
        INFO(formula);
        REQUIRE(program);
        JetEvaluator<1> evaluator(*program);
        const oracle::ProgramReference reference{*program};
        RandomFormula random(11);
        int proofs = 0;
        Seen seen;
        for (int i = 0; i < 60; ++i) {
            const double low = random.between(-3, 6), high = low + std::pow(10, random.between(-10, 0.5));
            const Jet<1> jet = evaluator({Bounds{low, high}})[0];
            if (!jet.value.known) continue;
            proofs += jet.value.isProof();
            for (int k = 0; k < 3; ++k) {
                const double at = placeWithin(random, low, high);
                INFO("over [" << shortestNumber(low) << ", " << shortestNumber(high) << "] at " << shortestNumber(at));
                look<1>(reference, jet, {at}, seen);
            }
        }
        looked += seen.seconds;
        if (proofs > 10) {
            CHECK(seen.firsts > 10);
            CHECK(seen.seconds > 10);
        }
    }
    CHECK(looked > 5'000);
}

TEST_CASE("jets of sums and products over terms, and of formulas in formulas, stay inside and bounded") {
    Seen seen;
    for (const char* formula :
         {"sum_{k=1}^{40} cos(k x)/k", "prod_{k=1}^{30} sin(x + k)", "sum_{n=0}^{6} 0.5^n cos(3^n pi x)",
          "sin(sin(sin(sin(sin(sin(sin(sin(sin(sin(x))))))))))", "sum_{k=1}^{8} J_{k}(9x) exp(-x)/k"}) {
        Compared compared(formula);
        RandomFormula random(3);
        for (int i = 0; i < 20; ++i) {
            const double low = random.between(0, 1), high = low + std::pow(10, random.between(-8, -1.5));
            REQUIRE(isBounded(compared.lookWithin(low, high, random, seen).second[0]));
        }
    }
    CHECK(seen.seconds == 5 * 20 * 4);
}

TEST_CASE("rounding errors of long formulas lie inside jets over single places") {
    // There nothing but rounding makes a jet wide, so a margin too small shows.
    Seen seen;
    for (const char* formula :
         {"prod_{k=1}^{40} (x + k/7)", "sum_{k=1}^{80} x^3/(3k + 1)", "sum_{k=1}^{60} 1/(x + k/3)",
          "sum_{k=1}^{60} (x + k/9)/(x + k)", "prod_{k=1}^{40} (x - k/7)^2/k", "sum_{k=1}^{40} sqrt(x + k/3)/k",
          "x*1.1*1.3*0.7*1.9*0.3*1.7*2.3*0.9*1.1*1.3*0.7*1.9*0.3*1.7*2.3*0.9*1.3*0.7*1.9*0.3*x"}) {
        Compared compared(formula);
        RandomFormula random(17);
        const int before = seen.seconds;
        for (int i = 0; i < 60; ++i) {
            const double at = random.between(0.1, 3);
            const Jet<1> jet = compared.over(at, at);
            INFO(formula << " at " << shortestNumber(at));
            look<1>(compared.reference, jet, {at}, seen);
            lookAtMiddle(compared.reference, jet, at, seen);
        }
        INFO(formula);
        CHECK(seen.seconds == before + 60);
    }
}

TEST_CASE("bounds hold where values and slopes nearly underflow or overflow") {
    Seen seen;
    for (const char* formula : {"erfc(25.4 - 0.11x)", "exp(-650 + x)", "exp(-660) x^2", "exp(-330 x) exp(-330 + x)",
                                "1e-290 sin(x)", "1e-150 x (1e-140 x - 1e-145)"}) {
        Compared compared(formula);
        RandomFormula random(23);
        for (int i = 0; i < 40; ++i) {
            const double low = random.between(-3, 3), high = low + std::pow(10, random.between(-10, -1));
            compared.lookWithin(low, high, random, seen);
        }
    }
    CHECK(seen.places > 500);
}

TEST_CASE("widths of values fall with the square of the interval") {
    // What an enclosure is wider than the values themselves, at one width and at a tenth of it.
    struct Case {
        const char* formula;
        double at, slope; // where, and how steep the formula is there
    };
    for (const Case& c : {Case{"x^2 - x", 1.3, 1.6}, Case{"exp(-x) sin(x)", 2, 0.179}, Case{"x/(1 + x^2)", 0.7, 0.23},
                          Case{"sin(x)^2 + cos(x)^2", 1, 0}, Case{"x sin(x) - cos(x) x^2", 1.2, 2.06}}) {
        INFO(c.formula);
        const auto excess = [&](double radius) {
            return over(c.formula, c.at - radius, c.at + radius).value.width() - 2 * radius * c.slope;
        };
        CHECK(excess(1e-3) < 2e-5);
        CHECK(excess(1e-2) < 2e-3);
    }
    CHECK(over("x - x", 1, 2).value.width() == 0);
    CHECK(over("x^2 - x", 1, 2).value.low > -1e-12);
    CHECK(over("(x + 1) - x", 1, 2).value.width() < 1e-12);
}

TEST_CASE("a corner inside leaves the second derivative unknown, a jump both; one at the end neither") {
    CHECK(isBounded(over("|x|", -1, 1).first[0]));
    CHECK_FALSE(isBounded(over("|x|", -1, 1).second[0]));
    CHECK(isBounded(over("|x|", 0, 1).second[0]));
    CHECK(isBounded(over("|x|", -1, 0).second[0]));
    CHECK(isBounded(over("max(x, 1 - x)", 0, 1).first[0]));
    CHECK_FALSE(isBounded(over("max(x, 1 - x)", 0, 1).second[0]));
    CHECK(isBounded(over("max(x, 1 - x)", 0.5, 1).second[0]));
    CHECK(isBounded(over("min(x, 1 - x)", 0.5, 1).second[0]));
    CHECK_FALSE(isBounded(over("floor(x)", 0.5, 1.5).first[0]));
    CHECK(isBounded(over("floor(x) x^2", 1, 1.5).second[0]));
    CHECK_FALSE(isBounded(over("sgn(x)", -1, 1).first[0]));
    CHECK_FALSE(isBounded(over("mod(x, 2)", 1, 3).first[0]));
    CHECK(isBounded(over("mod(x, 2)^2", 2.5, 3.5).second[0]));
    CHECK_FALSE(isBounded(over("{ x for x < 0; x^2 otherwise }", -1, 1).first[0]));
    CHECK(isBounded(over("{ x for x < 0; x^2 otherwise }", 0, 1).second[0]));
    CHECK(over("{ x for x < 0; x^2 otherwise }", 0, 1).second[0].low <= 2);
    CHECK_FALSE(isBounded(over("{ 1 for x < 0 }", 1, 2).first[0]));
    CHECK_FALSE(isBounded(over("sqrt(x)", 0, 1).first[0]));
    CHECK_FALSE(isBounded(over("x^2.5", -1, 1).first[0])); // undefined on one side
    CHECK(isBounded(over("x^2.5", 0, 1).second[0]));
    CHECK_FALSE(isBounded(over("1/x", -1, 1).first[0]));
    CHECK_FALSE(isBounded(over("arctan(x, -1)", -1, 1).first[0])); // across the cut
    CHECK(isBounded(over("arctan(x, 1)", -1, 1).second[0]));
    CHECK(isBounded(over("int_0^x exp(-k^2) dk", 0, 1).second[0]));
    CHECK_FALSE(isBounded(over("sum_{n=0}^{inf} J_0(n x)/n!", 0, 1).first[0])); // not known, so not claimed
}

TEST_CASE("a program through another variable has the derivatives by that one") {
    const auto program = compiledFormula("x^2");
    JetEvaluator<1> evaluator(*program);
    // x = exp(w) for w in [0, 1]: x² = exp(2w), with derivatives 2 exp(2w) and 4 exp(2w)
    Jet<1> w;
    w.value = {0, 1};
    w.centre = Enclosure::point(0.5);
    w.first[0] = w.centreFirst[0] = {1, 1};
    w.second[0] = {0, 0};
    const Jet<1> inner = applied<1>(Kernel::Exp, w, {0.5});
    const Jet<1> found = evaluator(std::span(&inner, 1), {0.5})[0];
    CHECK(found.first[0].low <= 2);
    CHECK(found.first[0].high >= 2 * std::exp(2.0));
    CHECK(found.second[0].low <= 4);
    CHECK(found.second[0].high >= 4 * std::exp(2.0));
    CHECK(found.centreFirst[0].low == Approx(2 * std::exp(1.0)));
    const Jet<1> back = applied<1>(Kernel::Ln, found, {0.5}); // 2w
    CHECK(back.first[0].low <= 2);
    CHECK(back.first[0].high >= 2);
    CHECK(back.centreFirst[0].low == Approx(2));
}

TEST_CASE("larger programs are dearer, and special functions more than others") {
    CHECK(costOf(*compiledFormula("x + 1")) < costOf(*compiledFormula("sin(x) + 1")));
    CHECK(costOf(*compiledFormula("sin(x)")) < costOf(*compiledFormula("J_0(x)")));
    CHECK(costOf(*compiledFormula("J_0(x)")) < costOf(*compiledFormula("int_0^1 J_0(k x) dk")));
}
