// Every operation of programs against its bounds: no place within an interval may have a value, or a difference of two
// values, outside of what the rules say.
#include "formula/bounds/bounds_arithmetic.h"
#include "formula/bounds/interval_rules.h"
#include "formula/bounds/jet_rules.h"
#include "formula/bounds/slope_rules.h"

#include <catch2/catch.hpp>
#include <random>

using namespace coulter;

namespace {

double valueAt(Kernel kernel, double x, double y) {
    alignas(64) double a[8], b[8], result[8];
    std::fill_n(a, 8, x);
    std::fill_n(b, 8, y);
    blockKernel(kernel, bestInstructionSet())(a, b, result, 8);
    return result[0];
}

struct Places {
    std::mt19937 random{11};
    double between(double low, double high) { return std::uniform_real_distribution<double>(low, high)(random); }
    Bounds interval() {
        const double reach = std::pow(10, between(-4, 1)), middle = between(-4, 4);
        return {middle - reach, middle + reach};
    }
};

} // namespace

TEST_CASE("values of every operation lie within their bounds") {
    Places places;
    for (std::size_t k = 0; k < kernelCount; ++k) {
        const auto kernel = static_cast<Kernel>(k);
        if (kernel == Kernel::When || kernel == Kernel::OrElse || kernel == Kernel::IfDefined) continue;
        INFO("operation " << k);
        int known = 0;
        for (int i = 0; i < 400; ++i) {
            const Bounds x = places.interval();
            Bounds y = places.interval();
            if (i % 2 == 1) y.high = y.low; // of a remainder only that by a number is known
            const Enclosure bounds = enclose(kernel, {x.low, x.high}, {y.low, y.high}, false);
            known += bounds.known;
            for (int j = 0; j < 20; ++j) {
                const double value = valueAt(kernel, places.between(x.low, x.high),
                                             y.low == y.high ? y.low : places.between(y.low, y.high));
                if (std::isnan(value)) {
                    CHECK_FALSE((bounds.known && bounds.defined));
                } else if (bounds.known) {
                    CHECK(bounds.low <= value);
                    CHECK(value <= bounds.high);
                }
            }
        }
        CHECK(known > 0);
    }
}

TEST_CASE("differences of values of every operation lie within its slopes") {
    Places places;
    for (std::size_t k = 0; k < kernelCount; ++k) {
        const auto kernel = static_cast<Kernel>(k);
        if (kernel == Kernel::When || kernel == Kernel::OrElse || kernel == Kernel::IfDefined) continue;
        INFO("operation " << k);
        for (int i = 0; i < 200; ++i) {
            const Bounds x = places.interval();
            const double other = places.between(-3, 3), radius = (x.high - x.low) / 2;
            Jet<1> a = JetRules<1>::constant({x.low, x.high}), b = JetRules<1>::constant(Enclosure::point(other));
            a.centre = Enclosure::point(x.low + radius);
            a.first[0] = a.centreFirst[0] = exactly(1);
            for (const bool swapped : {false, true}) {
                if (swapped && operandCount(kernel) == 1) continue;
                const Jet<1> jet = swapped ? JetRules<1>({radius * 1.01}).apply(kernel, b, a, false)
                                           : JetRules<1>({radius * 1.01}).apply(kernel, a, b, false);
                if (!isBounded(jet.first[0])) continue;
                for (int j = 0; j < 10; ++j) {
                    const double s = places.between(x.low, x.high), t = places.between(x.low, x.high);
                    const double difference = swapped ? valueAt(kernel, other, t) - valueAt(kernel, other, s)
                                                      : valueAt(kernel, t, other) - valueAt(kernel, s, other);
                    const Bounds allowed = jet.first[0] * exactly(t - s);
                    const double rounding = 1e-9 * (1 + std::abs(difference));
                    CHECK(allowed.low - rounding <= difference);
                    CHECK(difference <= allowed.high + rounding);
                }
            }
        }
    }
}

TEST_CASE("an operation that no analysis has a rule for is unknown to each") {
    const Kernel none = Kernel::Count;
    const Enclosure somewhere{1, 2};
    CHECK_FALSE(enclose(none, somewhere, somewhere, false).known);
    CHECK(slopeRule(none) == nullptr);
    Jet<1> x = JetRules<1>::constant(somewhere);
    x.first[0] = x.centreFirst[0] = exactly(1);
    const Jet<1> jet = JetRules<1>({0.5}).apply(none, x, x, false);
    CHECK_FALSE(isBounded(jet.first[0]));
    CHECK_FALSE(isBounded(jet.second[0]));
}

TEST_CASE("arithmetic of bounds holds what its operands allow") {
    Places places;
    for (int i = 0; i < 20'000; ++i) {
        const Bounds a = places.interval(), b = places.interval();
        const double x = places.between(a.low, a.high), y = places.between(b.low, b.high);
        const auto holds = [](const Bounds& bounds, long double value) {
            return bounds.low <= value && value <= bounds.high;
        };
        const long double lx = x, ly = y;
        CHECK(holds(a + b, lx + ly));
        CHECK(holds(a - b, lx - ly));
        CHECK(holds(a * b, lx * ly));
        CHECK(holds(square(a), lx * lx));
        if (y != 0) CHECK(holds(a / b, lx / ly));
    }
}
