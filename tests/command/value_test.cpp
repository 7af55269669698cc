// What coulter value answers beyond plain numbers.
#include "run_program.h"

#include <catch2/catch.hpp>
#include <cstdlib>

using namespace coulter;

namespace {

Ran run(const std::string& arguments) { return shell(std::string(std::getenv("COULTER_PROGRAM")) + " " + arguments); }

} // namespace

TEST_CASE("coulter value answers series, tails that swing, principal values, lengths and whether functions agree") {
    CHECK(run("value 'sum_{n=1}^{inf} 1/n^2'").out == "1.6449340668482264\n");
    CHECK(run("value 'sum_{n=1}^{inf} 1/n'").out.find("diverges, or settles too slowly") != std::string::npos);
    CHECK(run("value 'int_0^inf sin(x)/x dx'").out.starts_with("1.5707963267948"));
    CHECK(run("value 'pv int_{-1}^2 1/x dx'").out.starts_with("0.69314718055"));
    CHECK(run("value 'length of 2x for x in [0, 1]'").out.starts_with("2.2360679774997"));
    CHECK(run("value '2(x + 1) = 2x + 2 for all x in [0, 1]'").out == "yes: the formulas are the same\n");
}

TEST_CASE("coulter value answers volumes, series written out, tables against curves, and what is proven") {
    for (const char* proven : {"int_0^inf exp(-x)/sqrt(x) dx", "int_0^inf sin(x)/x dx", "sum_{n=1}^{inf} (-1)^n/n",
                               "prod_{n=1}^{inf} (1 + 1/n^2)", "int_0^1 int_0^y exp(-y^2) dx dy"}) {
        INFO(proven);
        CHECK(run("value --error '" + std::string(proven) + "'").out.find("estimated") == std::string::npos);
    }
    CHECK(run("value --error 'int_0^inf J_0(x) dx'").out.find("(estimated)") != std::string::npos);
    // What is proven is shown, not what cancellation leaves of the terms.
    CHECK(run("value 'sum_{n=1}^{inf} ln(1 + 1/n^2)'").out.starts_with("1.30184639860371"));
    CHECK(run("value 'extrema of |x - 1/3| for x in [0, 1]'").out ==
          "{(0.3333333333333333, 0) minimum}: all, proven\n");
    CHECK(run("value 'volume of x y for x in [0, 1], y in [0, 2 - x]'").out.starts_with("0.458333333333"));
    CHECK(run("value --line 's = {1, 5}' --line 't = {1, 2}' 's = t^2 for all rows'")
              .out.starts_with("no: they differ by 1"));
    CHECK(run("value --line 'r(t) = { 1 for 0 <= t < pi; 0 otherwise }' --line 'r(t + 2 pi) = r(t)' "
              "'Fourier series of r(t)'")
              .out == "1/2 + sum_{n=1}^{inf} ((1 - cos(π n))/(π n) sin(n t))\n");
    CHECK(run("value 'Fourier series of r(t)'").status == 1);
}

TEST_CASE("coulter value converts units, and says where a function belongs") {
    CHECK(run("value '5 km in m' '20 °C in K' '1 d in h = ?'").out == "5000 m\n293.15 K\n24 h\n");
    const Ran function = run("value 'y = x^2'");
    CHECK(function.status == 1);
    CHECK(function.out.find("coulter draw 'y = x^2' -o figure.pdf") != std::string::npos);
    CHECK(run("value '5 km in s'").status == 1);
}
