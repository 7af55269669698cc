#include "formula/base/problem.h"
#include "formula/base/text.h"
#include "formula/base/total.h"

#include <catch2/catch.hpp>
#include <cstring>
#include <random>

using namespace coulter;

TEST_CASE("text survives the way to characters and back, and damaged bytes are told apart from it") {
    for (const char* text : {"", "sin(x)", "π ≤ 3½", "𝔸 → ∞"}) CHECK(encodeUtf8(decodeUtf8(text)) == text);
    CHECK(decodeUtf8("a\xff\xc3") == U"a\ufffd\ufffd");
    CHECK(decodeUtf8("\xc0\x80").find(U'\0') == std::u32string::npos); // no way round to a zero byte
}

TEST_CASE("the shortest digits of a number read back as the same number") {
    std::mt19937_64 random(7);
    for (int i = 0; i < 20'000; ++i) {
        const std::uint64_t bits = random();
        double value = 0;
        std::memcpy(&value, &bits, sizeof value);
        if (!std::isfinite(value)) continue;
        CHECK(std::strtod(shortestNumber(value).c_str(), nullptr) == value);
    }
    CHECK(shortestNumber(0.1) == "0.1");
    CHECK(shortestNumber(HUGE_VAL) == "inf");
    CHECK(roundedNumber(2.0 / 3, 3) == "0.667");
}

TEST_CASE("Greek letters have one name each") {
    for (const char* name : {"alpha", "gamma", "omega", "Gamma", "Omega", "pi"}) {
        const auto letter = greekLetter(name);
        REQUIRE(letter);
        CHECK(greekName(*letter) == name);
    }
    CHECK(!greekLetter("alfa"));
}

TEST_CASE("what a sum loses in rounding is summed apart") {
    Total total;
    for (const double part : {1.0, 1e100, 1.0, -1e100}) total.add(part);
    CHECK(total.value() == 2);
}

TEST_CASE("a problem is printed with its place, counted from one") {
    Problem problem = saying("x is not defined.", "write x = 1");
    problem.line = 1;
    problem.first = 7;
    CHECK(describe(problem).find("line 2, character 7: x is not defined.") == 0);
}
