#include "compiled_formula.h"
#include "formula/zeros/zeros.h"

using namespace coulter;

namespace {

constexpr double work = 1e7;

} // namespace

TEST_CASE("zeros are found, proven and told apart by how they cross") {
    const auto f = compiledFormula("x^3 - 2x");
    const Zeros zeros = zerosOf(*f, nullptr, {-2, 2}, work);
    CHECK(zeros.unsettled.empty());
    REQUIRE(zeros.found.size() == 3);
    const double places[] = {-std::sqrt(2.0), 0, std::sqrt(2.0)};
    for (std::size_t i = 0; i < 3; ++i) {
        CHECK(zeros.found[i].isProven);
        CHECK(zeros.found[i].within.low <= places[i]);
        CHECK(places[i] <= zeros.found[i].within.high);
        CHECK(zeros.found[i].change == (i == 1 ? -1 : 1));
    }
}

TEST_CASE("a function without zeros is proven to have none") {
    const auto f = compiledFormula("exp(x) + 1e-9");
    const Zeros zeros = zerosOf(*f, nullptr, {-20, 20}, work);
    CHECK(zeros.found.empty());
    CHECK(zeros.unsettled.empty());
}

TEST_CASE("places where a function may be unbounded are named") {
    const auto f = compiledFormula("1/(x - 1)");
    const auto breaks = breaksOf(*f, {0, 3}, work);
    REQUIRE(breaks.size() == 1);
    CHECK(breaks[0].low <= 1);
    CHECK(breaks[0].high >= 1);
}
