// Integrals by a power of their variable.
#include "compiled_formula.h"
#include "formula/program/substitution.h"

using namespace coulter;

TEST_CASE("a substitution leaves what lies under the integral as it is") {
    struct Case {
        const char* formula;
        std::vector<double> powers;
    };
    for (const Case& c : {Case{"sin(x^2)", {2}}, Case{"cos(3 x^3 + 1)/(1 + x)", {3}}, Case{"sin(x^1.5) exp(-x)", {1.5}},
                          Case{"cos(sqrt(x))/x", {0.5}}, Case{"sin((-x)^2) x + cos((-x)^3)", {2, 3}},
                          Case{"sin(x^2 x^0.5)", {2.5}}, Case{"sin((x^2)^0.75/7)", {1.5}}}) {
        INFO(c.formula);
        const auto program = compiledFormula(c.formula);
        const auto all = substitutionsOf(*program);
        REQUIRE(all.size() == c.powers.size());
        Evaluator f(*program);
        for (std::size_t i = 0; i < all.size(); ++i) {
            CHECK(all[i].power == c.powers[i]);
            const double inverse = 1 / c.powers[i];
            CHECK(all[i].inverse.low <= inverse);
            CHECK(all[i].inverse.high >= inverse);
            Evaluator by(all[i].program);
            for (const double u : {0.25, 1.0, 2.5, 17.0}) {
                double found = 0;
                double* out = &found;
                const std::array<const double*, 2> inputs{&u, &inverse};
                by(inputs, std::span<double* const>(&out, 1), 1);
                const double x = std::pow(u, inverse);
                CHECK(found == Approx(f(x) * inverse * x / u).margin(1e-13));
            }
        }
    }
    // Nothing that would swing more evenly: no powers in waves, or those of something else.
    for (const char* formula : {"x^2", "sin(x)", "sin((x + 1)^2)", "exp(-x^2) cos(2x)", "sin(1/x)"}) {
        INFO(formula);
        CHECK(substitutionsOf(*compiledFormula(formula)).empty());
    }
}
