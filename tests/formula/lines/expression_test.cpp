#include "formula/base/text.h"
#include "formula/lines/answer.h"
#include "formula/lines/read_page.h"
#include "formula/notation/parser.h"
#include "formula/page/page.h"
#include "rounds.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

using namespace coulter;

namespace {

const std::vector<std::string> names{"x = 3",        "y = 5",  "k = 2",          "q_0 = 7",
                                     "x_{max} = 11", "γ = 13", "f(x) = x^2 + 1", "g(x, y) = x - y"};

double value(const std::string& text) {
    const Page page = readPage(names);
    const Answer answer = evaluate(page, text);
    INFO(text << ": " << (answer.problems.empty() ? "" : answer.problems[0].sentence));
    CHECK(answer.problems.empty());
    return answer.value();
}

Problem problem(const std::string& text) {
    const Page page = readPage(names);
    const Answer answer = evaluate(page, text);
    INFO(text);
    REQUIRE_FALSE(answer.problems.empty());
    return answer.problems[0];
}

} // namespace

TEST_CASE("expressions are read as printed mathematics") {
    CHECK(value("2+3*4") == 14);
    CHECK(value("2^3^2") == 512);
    CHECK(value("-x^2") == -9);
    CHECK(value("2^-1") == 0.5);
    CHECK(value("1/2x") == 1.5);
    CHECK(value("2x") == 6);
    CHECK(value("2 x y") == 30);
    CHECK(value("k x") == 6);
    CHECK(value("kx") == 6);
    CHECK(value("kx_{max}") == 22);
    CHECK(value("3(x + 1)") == 12);
    CHECK(value("k(x+1)") == 8);
    CHECK(value("(1+1)(2+2)") == 8);
    CHECK(value("x!") == 6);
    CHECK(value("2^x!") == 64);
    CHECK(value("-x!") == -6);
    CHECK(value("|x - y|") == 2);
    CHECK(value("2|x-y|k") == 8);
    CHECK(value("|-|x||") == 3);
    CHECK(value("5%") == 0.05);
    CHECK(value("1.5e2 + .5") == 150.5);
    CHECK(value("2e") == Approx(2 * 2.718281828459045));
    CHECK(value("2 pi") == Approx(6.283185307179586));
    CHECK(value("π·2") == value("2pi"));
    CHECK(value("x² − 1") == 8);
    CHECK(value("2×3÷4") == 1.5);
    CHECK(value("√x^2") == Approx(3));
    CHECK(value("√(x + 6)") == 3);
    CHECK(value("gamma + γ") == 26);
    CHECK(value("q_0 + q_{0}") == 14);
    CHECK(value("x_max") == 11);
    CHECK(value("f(2)") == 5);
    CHECK(value("f^2(2)") == 25);
    CHECK(value("g(y, x)") == 2);
    CHECK(value("f(f(1))") == 5);
    CHECK(value("sin^2(x) + cos^2(x)") == Approx(1));
    CHECK(value("log_{2}(8)") == 3);
    CHECK(value("log_2(8)") == 3);
    CHECK(value("log_k(8)") == 3);
    CHECK(value("max(1, x, 2)") == 3);
    CHECK(value("arctan(1, -1)") == Approx(2.356194490192345));
    CHECK(value("x^{y - 3}") == 9);
    CHECK(value("Γ(5)") == 24);
    CHECK(value("Gamma(0.5)^2") == Approx(std::acos(-1.0)));
    CHECK(value("lnGamma(1)") == 0);
    CHECK(value("erf(0.5) + erfc(0.5)") == Approx(1));
    CHECK(std::isinf(value("1/0")));
    CHECK(std::isnan(value("0/0")));
    CHECK(value("-inf") == -INFINITY);
}

TEST_CASE("a problem points at the very character") {
    struct Case {
        const char* text;
        int first, last;
        const char* sentence;   ///< part of it
        const char* suggestion; ///< part of it
    };
    const Case cases[] = {
        {"2 + sim(1)", 5, 7, "sim is not defined", "sin"},
        {"Sin(1)", 1, 3, "Sin is not defined", "sin"},
        {"Γ", 1, 1, "argument in brackets", "Γ(x)"},
        {"(2 + 3", 1, 1, "never closed", "add “)”"},
        {"2 + 3)", 6, 6, "closes nothing", "remove"},
        {"sin", 1, 3, "argument in brackets", "sin(…)"},
        {"sin^-1(x)", 4, 6, "inverse", "arcsin"},
        {"x2", 2, 2, "digit cannot follow", "x_2"},
        {"2 3", 3, 3, "without a sign", "*"},
        {"f", 1, 1, "argument in brackets", "f(…)"},
        {"g(1)", 1, 4, "takes 2 arguments", ""},
        {"sin(1, 2)", 1, 9, "takes 1 argument", "sin(x)"},
        {"legendre(2, 1)", 1, 8, "legendre is not known", "P_{n}(x)"},
        {"besselj(0, 1)", 1, 7, "besselj is not known", "write J_{n}(x), Y_{n}(x)"},
        {"beta(1, 2)", 1, 4, "β is not defined", "B(a, b)"},
        {"nCr(5, 2)", 1, 3, "nCr is not known", "f(x) = x^2"},
        {"sine(2)", 1, 4, "sine is not defined", "did you mean sin"},
        {"average(1)", 1, 7, "is written “mean”", "mean"},
        {"d/dx x", 1, 1, "d is not defined", "d/dx(…)"},
        {"[1, 2]", 1, 1, "round brackets", "write (1, 2)"},
        {"f(,)", 3, 3, "missing", ""},
        {"2 +", 4, 4, "ends too early", ""},
        {"", 1, 1, "missing", ""},
        {"log(2)", 1, 3, "base", "ln"},
        {"sinx", 1, 4, "sinx is not defined", "sin(x)"},
        {"2 $ 3", 3, 3, "no meaning", ""},
        {"1e999", 1, 5, "larger than any", ""},
        {"|x", 1, 1, "never closed", "|"},
        {"a b", 1, 1, "a is not defined", "a = 1"},
        {"1.2.3", 4, 4, "one decimal point", ""},
        {"5!!", 3, 3, "double factorial", "(n!)!"},
        {"omego", 1, 5, "not defined", ""},
    };
    for (const Case& c : cases) {
        const Problem p = problem(c.text);
        INFO(c.text << " → " << describe(p));
        CHECK(p.first == c.first);
        CHECK(p.last == c.last);
        CHECK(p.sentence.find(c.sentence) != std::string::npos);
        CHECK(p.suggestion.find(c.suggestion) != std::string::npos);
    }
}

TEST_CASE("a function with the wrong number of arguments names what goes by the same word") {
    const auto gamma = parseExpression(U"gamma(5)", KnownNames{});
    REQUIRE(gamma.problems.size() == 1);
    CHECK(gamma.problems[0].sentence == "γ takes 2 arguments, here it has 1.");
    CHECK(gamma.problems[0].suggestion == "write γ(a, x), or Γ(x)");
}

TEST_CASE("a spelling that is easily misread gets a note, not an error") {
    const Page page = readPage(names);
    const auto parsed = parseExpression(U"1/2x", page.names);
    REQUIRE(parsed.expression);
    REQUIRE(parsed.problems.size() == 1);
    CHECK(parsed.problems[0].severity == Problem::Severity::Note);
    CHECK(parseExpression(U"x/2 + 1", page.names).problems.empty());
}

TEST_CASE("too deep, too long and broken text is a sentence, never a crash") {
    CHECK(problem(std::string(5000, '(') + "1" + std::string(5000, ')')).sentence.find("nested too deeply") !=
          std::string::npos);
    CHECK(problem(std::string(9000, '-') + "1").sentence.find("nested too deeply") != std::string::npos);
    CHECK(problem("\xff\xfe").sentence.find("UTF-8") != std::string::npos);
    const auto repeated = [](const std::string& text, int times) {
        std::string all;
        for (int i = 0; i < times; ++i) all += text;
        return all;
    };
    CHECK(value("1" + repeated("+1", 900)) == 901);
    CHECK(value(repeated("1 *", 900) + "2") == 2);
    // However a formula is made long, what walks along it stays within the stack.
    for (const std::string& text : {"1" + repeated("+1", 100'000), repeated("2*", 100'000) + "1",
                                    repeated("x ", 100'000), "1" + repeated(" - 1/2", 50'000)})
        CHECK(problem(text).sentence.find("more than a thousand operations") != std::string::npos);
    for (const std::string& text :
         {repeated("√", 50'000) + "2", "2^" + repeated("-", 50'000) + "1", "2" + repeated("^2", 50'000),
          repeated("|", 3) + repeated("{", 50'000), repeated("not ", 50'000) + "1 < 2", repeated("sin(", 50'000)})
        CHECK(problem(text).sentence.find("nested too deeply") != std::string::npos);
}

TEST_CASE("functions that call each other are bounded in depth, too") {
    if (rounds(2) < 2) return; // under the sanitizers it takes minutes
    std::string tower = "x";
    for (int i = 0; i < 900; ++i) tower += "+1";
    std::vector<std::string> page{"f_0(x) = " + tower};
    for (int i = 1; i <= 150; ++i)
        page.push_back("f_{" + std::to_string(i) + "}(x) = f_{" + std::to_string(i - 1) + "}(" + tower + ")");
    page.push_back("y = f_{150}(1)");
    const Problems problems = readPage(page).problems();
    REQUIRE_FALSE(problems.empty());
    const Answer derived = evaluate(readPage(std::vector<std::string>{"f(x) = " + tower, "x in [0, 1]"}), "f''(1)");
    CHECK((derived.value() == 0 || !derived.problems.empty()));
}

TEST_CASE("random text is read or refused, with a place inside it") {
    const std::string pieces[] = {"x", "sin", "(", ")", "|", "^", "_", "{", "}", ",", "2",  ".5", "e", "+",   "-", "*",
                                  "/", "!",   "%", " ", "π", "γ", "=", "<", "?", "'", "\"", "f",  "g", "log", "√", "²"};
    const Page page = readPage(names);
    std::mt19937 random(3);
    int good = 0;
    for (int i = 0; i < 20000; ++i) {
        std::string text;
        const int length = 1 + static_cast<int>(random() % 9);
        for (int k = 0; k < length; ++k) text += pieces[random() % std::size(pieces)];
        const Answer answer = evaluate(page, text);
        const int size = static_cast<int>(decodeUtf8(text).size());
        if (answer.problems.empty()) ++good;
        for (const Problem& p : answer.problems) {
            INFO(text << " → " << describe(p));
            REQUIRE(p.first >= 1);
            REQUIRE(p.last >= p.first);
            REQUIRE(p.last <= size + 1);
            REQUIRE_FALSE(p.sentence.empty());
        }
    }
    CHECK(good > 100);
}

TEST_CASE("numbers are written with the fewest digits that read back") {
    CHECK(shortestNumber(0.1) == "0.1");
    CHECK(shortestNumber(1.0 / 3) == "0.3333333333333333");
    CHECK(shortestNumber(NAN) == "undefined");
    CHECK(roundedNumber(1234.5678, 6) == "1234.57");
    CHECK(roundedNumber(-0.00001234, 3) == "-1.23e-5");
    CHECK(roundedNumber(0.5, 8) == "0.5");
    CHECK(roundedNumber(-1e-300 * 1e-300, 4) == "0");
    std::mt19937_64 random(5);
    for (int i = 0; i < 2000; ++i) {
        const double x = std::exp(std::uniform_real_distribution<double>(-300, 300)(random));
        CHECK(std::stod(shortestNumber(x)) == x);
    }
}

TEST_CASE("UTF-8 goes both ways and damage is seen") {
    const std::string text = "aγ∫𝑥";
    CHECK(encodeUtf8(decodeUtf8(text)) == text);
    CHECK(decodeUtf8("\xc0\xaf") == U"\uFFFD\uFFFD");
    CHECK(decodeUtf8("\xe2\x88") == U"\uFFFD\uFFFD");
    CHECK(decodeUtf8("\xed\xa0\x80").front() == U'\uFFFD');
}
