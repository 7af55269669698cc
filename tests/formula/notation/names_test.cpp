#include "formula/notation/expr.h"
#include "formula/notation/names.h"
#include "formula/notation/parser.h"
#include "formula/notation/units.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

std::string name(const std::string& text) {
    const std::u32string letters(text.begin(), text.end());
    const LexResult lexed = tokenize(letters, 0, letters.size());
    std::string canonical;
    const std::size_t length = readName(lexed.tokens, canonical);
    return length + 1 == lexed.tokens.size() ? canonical : "";
}

} // namespace

TEST_CASE("a name is one letter with a subscript, and has one canonical spelling") {
    CHECK(name("x") == "x");
    CHECK(name("gamma") == "γ");
    CHECK(name("Gamma") == "Γ");
    CHECK(name("q_0") == "q_0");
    CHECK(name("q_{0}") == "q_0");
    CHECK(name("T_m") == "T_m");
    CHECK(name("x_{max}") == "x_max");
    CHECK(name("x_max") == "x_max");
    CHECK(name("omega_{1, 2}") == "ω_1, 2");
    for (const char* bad : {"xy", "2", "x_", "x_{", "x y", "x+y", "_x", "sin"}) CHECK(name(bad).empty());
}

TEST_CASE("a name falls apart into what print shows") {
    CHECK(nameParts("T_m").letter == "T");
    CHECK(nameParts("T_m").subscript == "m");
    CHECK(nameParts("γ").letter == "γ");
    CHECK(nameParts("γ").subscript.empty());
}

TEST_CASE("constants have their value, and nothing else has one") {
    CHECK(constantValue("π") == std::acos(-1.0));
    CHECK(constantValue("e") == std::exp(1.0));
    CHECK(std::isinf(constantValue("∞")));
    CHECK(std::isnan(constantValue("x")));
}

TEST_CASE("the near name is one letter or the letter case away") {
    KnownNames known;
    known.values = {"ω", "Γ", "x_max", "T_m"};
    known.functions = {{"f", 1}};
    CHECK(nearName("Sin", known) == "sin");
    CHECK(nearName("EXP", known) == "exp");
    CHECK(nearName("exo", known) == "exp");
    CHECK(nearName("snh", known) == "sinh");
    CHECK(nearName("csoh", known) == "cosh"); // neighbours swapped
    CHECK(nearName("γ", known) == "Γ");
    CHECK(nearName("omgea", known) == "omega");
    CHECK(nearName("x_min", known).empty());
    CHECK(nearName("x_mac", known) == "x_max");
    CHECK(nearName("q", known).empty()); // every letter is one letter away from every other
    CHECK(nearName("completely", known).empty());
}

TEST_CASE("units are those that UDUNITS knows") {
    for (const char* good :
         {"m", "kg m-3", "cm/day", "°C", "degC", "K", "1", "m2 d-1", "mm h-1", "kPa", "µm", "percent"}) {
        INFO(good);
        CHECK(isUnit(good));
    }
    for (const char* bad : {"frobnitz", "m^", "kg//m", "2 3 x"}) {
        INFO(bad);
        CHECK_FALSE(isUnit(bad));
    }
}
