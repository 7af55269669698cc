// “All, proven” against a reference in high precision: random formulas, and every function of the catalogue that has a
// picture. What is found changes its sign there; what the reference sees changing is found, or said to be unsettled.
#include "formula/lines/places_text.h"
#include "formula/lines/read_page.h"
#include "formula/lines/searches.h"
#include "rounds.h"

#include "compiled_formula.h"
#include "program_reference.h"
#include "random_formula.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <cstdlib>

using namespace coulter;

namespace {

/// The sign of a formula at a place, where the reference knows it.
int signAt(const oracle::ProgramReference& reference, double x) {
    const auto bounds = reference.at({x});
    if (!bounds) return 0;
    return bounds->first > 0 ? 1 : bounds->second < 0 ? -1 : 0;
}

/// How many searches were looked at, and how many of them were settled.
struct Count {
    std::size_t all = 0, settled = 0;
};

void check(const std::string& formula, double low, double high, Count& count) {
    const auto program = compiledFormula(formula);
    if (!program || program->outputs.size() != 1 || !program->integrals.empty()) return;
    const auto found =
        searchText(readPage(std::vector<std::string>{}),
                   "zeros of " + formula + " for x in [" + shortestNumber(low) + ", " + shortestNumber(high) + "]");
    REQUIRE(found);
    if (!found->problems.empty()) return; // no derivative of some function is known here
    const Places& places = found->places;
    INFO(formula << ": " << describe(places, Sought::Zeros));
    ++count.all;
    count.settled += places.areAll() ? 1 : 0;
    const oracle::ProgramReference reference{*program};
    const auto isUnsettled = [&](double from, double to) {
        return std::ranges::any_of(places.unsettled,
                                   [&](const Bounds& part) { return part.low <= to && from <= part.high; });
    };
    // Nothing is invented: what is proven changes its sign from one side of its bounds to the other, or it is multiple.
    for (const FoundPlace& each : places.found) {
        if (!each.isProven || each.word == "multiple" || each.word == "all along") continue;
        CHECK(each.within.high - each.within.low <= 1e-9 * (high - low));
        const double wide = 1e-12 * (high - low);
        const int before = signAt(reference, each.within.low - wide),
                  after = signAt(reference, each.within.high + wide);
        if (before != 0 && after != 0 && each.within.low - wide > low && each.within.high + wide < high) {
            const bool touches = before == after; // a root or an absolute value
            if (!touches) CHECK(before == -after);
        }
        const auto there = reference.at({each.at});
        if (there) CHECK(std::min(std::abs(there->first), std::abs(there->second)) < 1e-6 * (1 + std::abs(each.at)));
    }
    // Nothing is missed: between two places of a fine grid where the reference sees different signs, and the formula is
    // continuous as far as a finer look tells, something is found or said to be open.
    constexpr int steps = 600;
    double last = low;
    int lastSign = signAt(reference, low);
    for (int i = 1; i <= steps; ++i) {
        const double x = low + (high - low) * i / steps;
        const int sign = signAt(reference, x);
        if (sign != 0 && lastSign != 0 && sign != lastSign) {
            const bool isFound = std::ranges::any_of(
                places.found, [&](const FoundPlace& each) { return each.within.low <= x && each.within.high >= last; });
            if (!isFound && !isUnsettled(last, x)) {
                // A pole or a jump changes the sign, too: halve towards it and look at how large it is there.
                double a = last, b = x;
                for (int k = 0; k < 45; ++k) {
                    const double middle = a + (b - a) / 2;
                    (signAt(reference, middle) == lastSign ? a : b) = middle;
                }
                const auto at = reference.at({a}), beyond = reference.at({b});
                const double between = a <= 0 && b >= 0 ? 0 : a + (b - a) / 2;
                const bool isZero = at && beyond && reference.at({between}) && std::abs(at->first) < 1e-9 &&
                                    std::abs(beyond->first) < 1e-9;
                CHECK_FALSE(isZero);
            }
        }
        if (sign != 0) {
            last = x;
            lastSign = sign;
        }
    }
}

} // namespace

TEST_CASE("zeros of random formulas are all there, and none is invented") {
    RandomFormula formulas(4711);
    const int all = std::getenv("COULTER_THOROUGH") ? 4000 : rounds(60);
    Count count;
    for (int i = 0; i < all; ++i) check(formulas.make(1 + i % 3), -3, 3.5, count);
    CHECK(count.all > static_cast<std::size_t>(all) / 3);
    WARN(count.settled << " of " << count.all << " random formulas are settled");
}

TEST_CASE("zeros of the functions of the catalogue are all there") {
    Count count;
    for (const FunctionEntry& entry : catalogue()) {
        if (entry.plotted.empty()) continue;
        check(exampleOf(entry), 0.25, 7.75, count);
    }
    CHECK(count.all > 60);
    CHECK(static_cast<double>(count.settled) > 0.7 * static_cast<double>(count.all));
}

TEST_CASE("zeros of special functions that are tabulated") {
    // DLMF, tables 10.21 and 9.9; A & S, table 9.5.
    const auto first = [](const std::string& text) {
        const auto found = searchText(readPage(std::vector<std::string>{}), text);
        REQUIRE(found);
        REQUIRE(found->problems.empty());
        CHECK(found->places.areAll());
        std::vector<double> at;
        for (const FoundPlace& each : found->places.found) at.push_back(each.at);
        return at;
    };
    const auto near = [](const std::vector<double>& found, const std::vector<double>& known) {
        REQUIRE(found.size() == known.size());
        for (std::size_t i = 0; i < known.size(); ++i) CHECK(found[i] == Approx(known[i]).epsilon(1e-9));
    };
    near(first("J_0(x) = 0 for x in [0, 12]"), {2.4048255577, 5.5200781103, 8.6537279129, 11.7915344391});
    near(first("J_1(x) = 0 for x in [1, 11]"), {3.8317059702, 7.0155866698, 10.1734681351});
    near(first("Y_0(x) = 0 for x in [0.5, 8]"), {0.8935769663, 3.9576784193, 7.0860510603});
    near(first("Ai(x) = 0 for x in [-6, 0]"), {-5.5205598281, -4.0879494441, -2.3381074105});
}
