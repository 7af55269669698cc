#include "formula/lines/completion.h"

#include "formula/lines/read_page.h"

#include <algorithm>
#include <catch2/catch.hpp>

using namespace coulter;

namespace {

std::vector<std::string> forms(const Page& page, std::string_view prefix) {
    std::vector<std::string> out;
    for (const Completion& each : completions(page, prefix, 100)) out.push_back(each.form);
    return out;
}

bool has(const std::vector<std::string>& all, const std::string& one) { return std::ranges::count(all, one) > 0; }

} // namespace

TEST_CASE("names of the page come before the catalogue’s, the closest spelling first") {
    const std::vector<std::string> lines{"sin_0 = 2", "s_1 = 0.5", "s(t, u) = t u", "t in [0, 1]"};
    const Page page = readPage(lines);
    const auto found = completions(page, "s");
    REQUIRE(found.size() == 8);
    CHECK(found[0].form == "s(t, u)");
    CHECK(found[0].meant == "t");
    CHECK(has(forms(page, "s"), "s_{1}"));
    CHECK(completions(page, "s_1")[0].meaning == "= 0.5");
}

TEST_CASE("functions are found by name, Greek name, letter case and meaning") {
    const Page page;
    CHECK(has(forms(page, "arct"), "arctan(x)"));
    CHECK(has(forms(page, "gam"), "Γ(x)"));
    CHECK(has(forms(page, "gam"), "γ(a, x)"));
    CHECK(has(forms(page, "bessel"), "J_{n}(x)"));
    CHECK(has(forms(page, "KUMMER"), "M(a, b, x)"));
    CHECK(completions(page, "J")[0].form == "J_{n}(x)");
    CHECK(completions(page, "J")[0].meant == "n");
    CHECK(completions(page, "max")[0].form == "max(x, y)");
    CHECK(completions(page, "qqq").empty());
    CHECK(completions(page, "").empty());
}

TEST_CASE("the word before the caret is what could be a name") {
    CHECK(wordBefore(U"2 + arc", 7) == "arc");
    CHECK(wordBefore(U"2 + arctan(x)", 7) == "arc");
    CHECK(wordBefore(U"f(x) = Γam", 10) == "Γam");
    CHECK(wordBefore(U"x_max", 5).empty());
    CHECK(wordBefore(U"2 + ", 4).empty());
    CHECK(wordBefore(U"ab", 99) == "ab");
}
