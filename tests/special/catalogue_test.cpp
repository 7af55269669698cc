#include "special/catalogue.h"

#include <catch2/catch.hpp>
#include <map>

using namespace coulter;

TEST_CASE("every entry of the catalogue is complete, and no two are written alike") {
    std::map<std::tuple<std::string_view, std::size_t, std::size_t, std::size_t>, int> seen;
    for (const FunctionEntry& entry : catalogue()) {
        INFO(entry.form);
        CHECK(++seen[{entry.name, entry.below.size(), entry.above.size(), entry.inside.size()}] == 1);
        for (const std::string_view text : {entry.meaning, entry.domain, entry.plotted, entry.interval, entry.source})
            CHECK_FALSE(text.empty());
        CHECK(entry.derivatives.size() == entry.operandCount());
        CHECK(entry.operandCount() <= 4);
        const Implementation& made = entry.implementation;
        CHECK((made.scalar != nullptr) != (made.kernel != Kernel::Count));
        if (!made.scalar) CHECK(operandCount(made.kernel) == static_cast<int>(entry.operandCount()));
    }
    CHECK(seen.size() > 90);
}

TEST_CASE("a function is found by its indices and arguments") {
    CHECK(findFunction("arctan", 0, 0, 2)->implementation.kernel == Kernel::ArctanOfPoint);
    CHECK(findFunction("max", 0, 0, 7)->anyCount);
    CHECK(findFunction("max", 0, 0, 1) == nullptr);
    CHECK(findFunction("sin", 0, 0, 2) == nullptr);
    CHECK(findFunction("P", 0, 0, 2)->form == "P(a, x)");
    CHECK(findFunction("P", 1, 0, 1)->form == "P_{n}(x)");
    CHECK(findFunction("P", 1, 1, 1)->above == std::vector<std::string>{"m"});
    CHECK(findFunction("P", 1, 2, 1)->above == std::vector<std::string>{"a", "b"});
    CHECK(findFunction("I", 1, 0, 1)->implementation.scalar == besselI);
    CHECK(findFunction("I", 1, 0, 2)->implementation.scalar == regularisedBeta);
    CHECK(findFunction("F", 0, 0, 4)->inside == std::vector<std::string>{"a", "b", "c", "x"});
    CHECK(findFunction("Ai'", 0, 0, 1)->implementation.scalar == airyAiPrime);
    CHECK(isFunctionName("ψ"));
    CHECK_FALSE(isFunctionName("J_0"));
}
