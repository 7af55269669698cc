#include "formula/compile/compile.h"
#include "formula/lines/answer.h"
#include "formula/lines/fourier_lines.h"
#include "formula/lines/read_page.h"
#include "formula/measured/spectra.h"
#include "formula/notation/expr_build.h"
#include "formula/page/page.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <numbers>
#include <random>

using namespace coulter;

namespace {

Page pageOf(const std::vector<std::string>& lines) { return readPage(lines); }

/// All that is said of a page.
std::string saidOf(const Page& page) {
    std::string all;
    for (const Problem& problem : page.problems()) all += describe(problem) + "\n";
    return all;
}

const std::vector<std::string> threePieces{"r(t) = { t for 0 <= t < 1; 2 for 1 <= t < 3; -1 otherwise }",
                                           "r(t + 4) = r(t)"};

std::vector<std::string> with(std::vector<std::string> lines, const std::vector<std::string>& more) {
    lines.insert(lines.end(), more.begin(), more.end());
    return lines;
}

} // namespace

TEST_CASE("coefficients of a function with three pieces are those that are found by hand") {
    const Page page = pageOf(with(threePieces, {"(n, a, b) = Fourier coefficients of r(t), harmonics 60"}));
    INFO(saidOf(page));
    REQUIRE(page.problems().empty());
    const Column n = page.columnOf("n"), a = page.columnOf("a"), b = page.columnOf("b");
    REQUIRE(n);
    REQUIRE(a->size() == 61);
    REQUIRE(b->size() == 61);
    CHECK((*a)[0] == Approx(0.5 * (0.5 + 4 - 1)).epsilon(1e-14));
    CHECK((*b)[0] == 0);
    for (std::size_t m = 1; m <= 60; ++m) {
        CHECK((*n)[m] == static_cast<double>(m));
        const double k = std::numbers::pi / 2 * static_cast<double>(m); // 2π m/4
        const auto sine = [&](double t) { return std::sin(k * t) / k; };
        const auto cosine = [&](double t) { return -std::cos(k * t) / k; };
        const double ofRamp = std::sin(k) / k + (std::cos(k) - 1) / (k * k);
        const double ofRampSine = -std::cos(k) / k + std::sin(k) / (k * k);
        const double byHand = 0.5 * (ofRamp + 2 * (sine(3) - sine(1)) - (sine(4) - sine(3)));
        const double sineByHand = 0.5 * (ofRampSine + 2 * (cosine(3) - cosine(1)) - (cosine(4) - cosine(3)));
        CHECK((*a)[m] == Approx(byHand).margin(1e-13));
        CHECK((*b)[m] == Approx(sineByHand).margin(1e-13));
    }
}

TEST_CASE("a Fourier sum is what its coefficients add up to, for every number of harmonics") {
    const Page page =
        pageOf(with(threePieces, {"(n, a, b) = Fourier coefficients of r(t), harmonics 40",
                                  "S(t, N) = Fourier sum of r(t)", "s(t) = Fourier sum of r(t), harmonics 7"}));
    INFO(saidOf(page));
    REQUIRE(page.problems().empty());
    const std::vector<double>&a = *page.columnOf("a"), &b = *page.columnOf("b");
    for (const int harmonics : {1, 7, 40}) {
        for (const double t : {-1.3, 0.0, 0.5, 2.999, 17.2}) {
            double sum = a[0] / 2;
            for (int m = 1; m <= harmonics; ++m) {
                const double phase = std::numbers::pi / 2 * m * t;
                sum +=
                    a[static_cast<std::size_t>(m)] * std::cos(phase) + b[static_cast<std::size_t>(m)] * std::sin(phase);
            }
            const std::string text = "S(" + std::to_string(t) + ", " + std::to_string(harmonics) + ")";
            CHECK(evaluate(page, text).value() == Approx(sum).margin(1e-12));
            if (harmonics == 7)
                CHECK(evaluate(page, "s(" + std::to_string(t) + ")").value() == Approx(sum).margin(1e-12));
        }
    }
    // Parseval, which nothing above enters.
    const double energy = evaluate(page, "2/4 int_0^4 r(t)^2 dt").value();
    double squares = a[0] * a[0] / 2;
    for (std::size_t m = 1; m < a.size(); ++m) squares += a[m] * a[m] + b[m] * b[m];
    CHECK(squares < energy);
    CHECK(squares > 0.97 * energy);
}

TEST_CASE("the spectral derivative of a trigonometric polynomial is exact, of an odd and an even number of samples") {
    std::mt19937 random(20);
    std::uniform_real_distribution<double> any(-1, 1);
    for (const std::size_t count : {15U, 16U, 64U, 101U}) {
        const double period = 2.5;
        const std::size_t highest = (count - 1) / 2;
        std::vector<double> u(count), exact(count);
        for (std::size_t m = 0; m <= highest; ++m) {
            const double a = any(random), b = any(random), k = 2 * std::numbers::pi * static_cast<double>(m) / period;
            for (std::size_t j = 0; j < count; ++j) {
                const double t = period * static_cast<double>(j) / static_cast<double>(count);
                u[j] += a * std::cos(k * t) + b * std::sin(k * t);
                exact[j] += k * (b * std::cos(k * t) - a * std::sin(k * t));
            }
        }
        const std::vector<double> found = spectralDerivative(u, period);
        double largest = 0;
        for (const double each : exact) largest = std::max(largest, std::abs(each));
        for (std::size_t j = 0; j < count; ++j) CHECK(std::abs(found[j] - exact[j]) < 1e-12 * largest);
    }
}

TEST_CASE("spectra have the wave numbers and amplitudes of the waves that were added") {
    const Page page = pageOf({"t = {0, 0.1, ..., 6.3}", "u = 3 + 2 cos(10 pi t/6.4) - 1.5 sin(18 pi t/6.4)",
                              "(k, A) = spectrum of u by t", "w = spectral derivative of u by t, period 6.4"});
    INFO(saidOf(page));
    REQUIRE(page.problems().empty());
    const std::vector<double>&k = *page.columnOf("k"), &amplitude = *page.columnOf("A");
    REQUIRE(k.size() == 33);
    for (std::size_t m = 0; m < k.size(); ++m) {
        CHECK(k[m] == Approx(2 * std::numbers::pi * static_cast<double>(m) / 6.4));
        CHECK(amplitude[m] == Approx(m == 0 ? 3 : m == 5 ? 2 : m == 9 ? 1.5 : 0).margin(1e-13));
    }
    CHECK(page.columnOf("w")->size() == 64);
    CHECK(evaluate(page, "greatest(abs(w + 2 pi/6.4 (10 sin(10 pi t/6.4) + 13.5 cos(18 pi t/6.4))))").value() < 1e-12);
}

TEST_CASE("a smooth periodic function has a spectral derivative to ten digits from 40 samples") {
    const Page page = pageOf({"t = {0, 2 pi/40, ..., 2 pi - 2 pi/40}", "f(x) = exp(sin(x))", "u = f(t)",
                              "w = spectral derivative of u by t, period 2 pi", "d = greatest(abs(w - f'(t)))"});
    INFO(saidOf(page));
    REQUIRE(page.problems().empty());
    CHECK(page.valueOf("d").value() < 1e-10);
    CHECK(page.valueOf("d").value() > 0);
}

TEST_CASE("a grid with its end in it, uneven steps, gaps and a function that is not resolved are said") {
    const auto said = [](const std::vector<std::string>& lines) { return saidOf(pageOf(lines)); };
    const std::string end = "end twice";
    CHECK(
        said({"t = {0, 0.5, ..., 6}", "u = sin(2 pi t/6)", "w = spectral derivative of u by t, period 6"}).find(end) !=
        std::string::npos);
    CHECK(said({"t = {0, 0.5, ..., 6}", "u = sin(2 pi t/6)", "w = spectral derivative of u by t"}).find(end) !=
          std::string::npos);
    CHECK(said({"t = {0, 0.5, ..., 5.5}", "u = sin(2 pi t/6)", "w = spectral derivative of u by t"}).empty());
    CHECK(said({"t = {0, 1, 2.5, 3, 4}", "u = sin(t)", "w = spectral derivative of u by t"}).find("not even") !=
          std::string::npos);
    CHECK(said({"t = {0, 0.5, ..., 5.5}", "u = [t < 3]", "w = spectral derivative of u by t"}).find("resolve") !=
          std::string::npos);
    CHECK(said({"t = {0, 1, ..., 7}", "u = 1/(t - 3)", "(k, A) = spectrum of u by t"}).find("Row 4") !=
          std::string::npos);
    CHECK(said({"u = {1, 2, 3, 2}", "w = spectral derivative of u"}).find("not said") != std::string::npos);
    CHECK(said({"u = {1, 2}", "w = spectral derivative of u, period 1"}).find("four") != std::string::npos);
    CHECK(said({"t = {0, 1, ..., 7}", "u = t^2", "w = spectral derivative of u by t, period 9"}).find("period 9") !=
          std::string::npos);
}

TEST_CASE("lines of Fourier's that cannot be read say what is missing") {
    const auto said = [](const std::string& line) {
        const Page page = pageOf(with(threePieces, {"g(t) = t", line}));
        REQUIRE(!page.lines.back().problems.empty());
        std::string all;
        for (const Problem& problem : page.lines.back().problems) all += describe(problem) + "\n";
        return all;
    };
    CHECK(said("(a, b) = Fourier coefficients of r(t)").find("three columns") != std::string::npos);
    CHECK(said("(n, a, b) = Fourier coefficients of g(t)").find("no period") != std::string::npos);
    CHECK(said("(n, a, b) = Fourier coefficients of r(t), harmonics 0").find("whole number") != std::string::npos);
    CHECK(said("(n, a, b) = Fourier coefficients of r(t), harmonics 2.5").find("whole number") != std::string::npos);
    CHECK(said("(n, a, b) = Fourier coefficients of").find("missing") != std::string::npos);
    CHECK(said("(n, a, b) = Fourier coefficients of t + 1").find("function of the page") != std::string::npos);
    CHECK(said("S = Fourier sum of r(t)").find("is a function") != std::string::npos);
    CHECK(said("S(t) = Fourier sum of r(t)").find("how many harmonics") != std::string::npos);
    CHECK(said("S(t, N) = Fourier sum of g(t)").find("no period") != std::string::npos);
    CHECK(said("w = spectral derivative of q by").find("missing after") != std::string::npos);
    CHECK(said("(w, v) = spectral derivative of g").find("one column") != std::string::npos);
    CHECK(said("x in [0, 1], harmonics 3").find("does not belong") != std::string::npos);
    const Page page = pageOf(with(threePieces, {"g(t) = t", "(n, a, b) = Fourier coefficients of g(t), period 2"}));
    CHECK(page.problems().empty());
}

TEST_CASE("lengths, means and areas of curves") {
    const Page page = pageOf({"f(x) = x^1.5", "c(t) = (cos(t), sin(t))", "L = length of f(x) for x in [0, 4]",
                              "M = mean of f(x) for x in [0, 4]", "length of c(t) for t in [0, 2 pi]", "x in [-1, 1]",
                              "A = area of x^3 for x"});
    INFO(saidOf(page));
    REQUIRE(page.problems().empty());
    CHECK(page.valueOf("L").value() == Approx((std::pow(10, 1.5) - 1) * 8 / 27).epsilon(1e-12));
    CHECK(page.valueOf("M").value() == Approx(32 / 2.5 / 4).epsilon(1e-13));
    CHECK(page.lines[4].value.value() == Approx(2 * std::numbers::pi).epsilon(1e-13));
    CHECK(page.valueOf("A").value() == Approx(0.5).epsilon(1e-13));
    CHECK(evaluate(page, "length of 2t for t in [0, 3]").value() == Approx(3 * std::sqrt(5.0)));
    CHECK(!evaluate(page, "mean of c(t) for t in [0, 1]").problems.empty());
    CHECK(!evaluate(page, "length of y^2 for y").problems.empty());
}

TEST_CASE("volumes and means over regions") {
    const Page page = pageOf({"h(x, y) = x y", "V = volume of h(x, y) for x in [0, 1], y in [0, 2 - x]",
                              "M = mean of x^2 + y^2 for x in [-1, 1], y in [-1, 1], where x^2 + y^2 < 1",
                              "volume of x - y for x in [0, 1], y in [0, 1]"});
    INFO(saidOf(page));
    REQUIRE(page.problems().empty());
    CHECK(page.valueOf("V").value() == Approx(11.0 / 24).epsilon(1e-13));
    CHECK(page.valueOf("M").value() == Approx(0.5).epsilon(1e-11));
    CHECK(page.lines[3].value.value() == Approx(1.0 / 3).epsilon(1e-12)); // of |x − y|
    const auto value = [&](const std::string& text) { return evaluate(page, text).value(); };
    CHECK(value("volume of 1 - x^2 - y^2 for x in [-2, 2], y in [-2, 2], where x^2 + y^2 < 1") ==
          Approx(std::numbers::pi / 2).epsilon(1e-11));
    CHECK(value("volume of sqrt(1 - x^2 - y^2) for x in [-1, 1], y in [-sqrt(1 - x^2), sqrt(1 - x^2)]") ==
          Approx(2 * std::numbers::pi / 3).epsilon(1e-11));
    CHECK(value("mean of sin(x) for x in [0, 3], where x < 1") == Approx(1 - std::cos(1)).epsilon(1e-12));
    CHECK(value("area of x for x in [-1, 1], where x > 0") == Approx(0.5).epsilon(1e-13));
    const auto problem = [&](const std::string& text) {
        const Problems problems = evaluate(page, text).problems;
        return problems.empty() ? "" : problems[0].sentence;
    };
    CHECK(problem("volume of x for x in [0, 1]").find("under a surface") != std::string::npos);
    CHECK(problem("length of x y for x in [0, 1], y in [0, 1]").find("two variables") != std::string::npos);
    CHECK(problem("volume of x y for x in [0, 1], y").find("both intervals") != std::string::npos);
    CHECK(problem("volume of x y for x in [0, 1], x in [0, 1]").find("twice") != std::string::npos);
    CHECK(problem("x y = 1 for x in [0, 1], y in [0, 1]").find("holds along a curve") != std::string::npos);
    CHECK(problem("volume of x y for x in [0, 1],").find("after this comma") != std::string::npos);
    CHECK(!problem("volume of (x, y) for x in [0, 1], y in [0, 1]").empty());
}

TEST_CASE("complex coefficients are those of both kinds, with both signs of the order") {
    const Page page = pageOf(with(threePieces, {"(n, a, b) = Fourier coefficients of r(t), harmonics 12",
                                                "(m, p, q) = complex Fourier coefficients of r(t), harmonics 12"}));
    INFO(saidOf(page));
    REQUIRE(page.problems().empty());
    const std::vector<double>&m = *page.columnOf("m"), &p = *page.columnOf("p"), &q = *page.columnOf("q");
    REQUIRE(m.size() == 25);
    for (std::size_t i = 0; i < 25; ++i) {
        const auto order = static_cast<std::size_t>(std::abs(m[i]));
        CHECK(m[i] == static_cast<double>(i) - 12);
        CHECK(p[i] == (*page.columnOf("a"))[order] / 2);
        CHECK(q[i] == (m[i] > 0 ? -1 : 1) * (*page.columnOf("b"))[order] / 2);
    }
}

TEST_CASE("partial sums overshoot beside a jump by Gibbs's part of it, and no less the more there are") {
    const Page page = pageOf({"r(t) = { 1 for 0 <= t < pi; -1 otherwise }", "r(t + 2 pi) = r(t)",
                              "(N, h) = Fourier overshoot of r(t) at 0, harmonics 201",
                              "(M, g) = Fourier overshoot of r(t) at pi, harmonics 5", "s(t) = t",
                              "(K, k) = Fourier overshoot of s(t) at 0, period 3, harmonics 100"});
    INFO(saidOf(page));
    REQUIRE(page.problems().empty());
    const std::vector<double>& h = *page.columnOf("h");
    REQUIRE(h.size() == 201);
    CHECK(h[0] == Approx((4 / std::numbers::pi - 1) / 2).epsilon(1e-9)); // the top of 4/π sin t
    constexpr double gibbs = 0.0894898722360836;                         // Si(π)/π − 1/2
    CHECK(h[200] == Approx(gibbs).epsilon(1e-4));
    CHECK(std::ranges::all_of(h, [](double part) { return part > 0.0894; }));
    CHECK((*page.columnOf("g"))[4] == Approx(h[4]).epsilon(1e-9));
    CHECK((*page.columnOf("k"))[99] == Approx(gibbs).epsilon(0.02)); // of a ramp
    const auto said = [](const std::string& line) {
        return saidOf(pageOf({"r(t) = { 1 for 0 <= t < 1; 0 otherwise }", "r(t + 2) = r(t)", line}));
    };
    CHECK(said("(N, h) = Fourier overshoot of r(t) at 0.5").find("has no jump at 0.5") != std::string::npos);
    CHECK(said("(N, h) = Fourier overshoot of r(t)").find("place of the jump") != std::string::npos);
    CHECK(said("(N, h, k) = Fourier overshoot of r(t) at 1").find("two columns") != std::string::npos);
    CHECK(said("(N, h) = Fourier overshoot of r(t) at 1, harmonics 9999").find("from 1 to 500") != std::string::npos);
}

TEST_CASE("series that are written out have the coefficients that integrals have") {
    const std::vector<std::vector<std::string>> functions{
        threePieces,
        {"r(t) = t^2", "r(t + 2) = r(t)"},
        {"r(t) = |t - 1|", "r(t + 2) = r(t)"},
        {"r(t) = { 1 for 0 <= t < pi; -1 otherwise }", "r(t + 2 pi) = r(t)"},
        {"r(t) = { t (pi - t) for 0 <= t < pi; 0 otherwise }", "r(t + 2 pi) = r(t)"},
        {"r(t) = { t^3 - t/2 for -1 <= t < 1/3; g(t) otherwise }", "g(t) = 1/2 - (t - 1)^2", "r(t + 3) = r(t)"},
        {"r(t) = [t < h] q t/h", "h = 1.25", "q = 3", "r(t + 5) = r(t)"},
        {"r(t) = sqrt(3) t", "r(t + sqrt(2)) = r(t)"},
        // Sines, of which some are harmonics themselves, and exponentials.
        {"r(t) = { sin(t) for 0 <= t < pi; 0 otherwise }", "r(t + 2 pi) = r(t)"},
        {"r(t) = sin(t)", "r(t + pi) = r(t)"},
        {"r(t) = { sin(pi t + pi/3) for t < 1; 0 otherwise }", "r(t + 4) = r(t)"},
        {"r(t) = 3 - 2 cos(2t)^2 + sin(t) cos(4t)", "r(t + 2 pi) = r(t)"},
        {"r(t) = { cos(t) for t < pi/2; t^2 otherwise }", "r(t + pi) = r(t)"},
        {"r(t) = exp(-t/tau)", "tau = 2", "r(t + 3) = r(t)"},
        {"r(t) = { e^(-2t) for t < 1; cosh(t - 2) otherwise }", "r(t + 3) = r(t)"},
        {"r(t) = { sinh(t) + sin(pi t/2) for t < 1; t otherwise }", "r(t + 4) = r(t)"}};
    for (const std::vector<std::string>& lines : functions) {
        const Page page = pageOf(with(lines, {"(n, a, b) = Fourier coefficients of r(t), harmonics 15",
                                              "(m, p, q_1) = complex Fourier coefficients of r(t), harmonics 15",
                                              "S(t, N) = Fourier sum of r(t)"}));
        INFO(lines[0] << " " << saidOf(page));
        const Line& coefficients = page.lines[page.defined.at("a")];
        REQUIRE(coefficients.good());
        REQUIRE(coefficients.equations.size() == 2);
        for (std::size_t kind = 0; kind < 2; ++kind) {
            const std::string name = kind == 0 ? "a" : "b";
            CHECK(spelled(*coefficients.equations[kind]->operands[0]) == name + "_{n}");
            const auto program =
                compile(page, coefficients.equations[kind]->operands[1], std::vector<std::string>{"n"}).program;
            REQUIRE(program);
            Evaluator evaluator(*program);
            for (int n = 1; n <= 15; ++n)
                CHECK(evaluator(n) == Approx((*page.columnOf(name))[static_cast<std::size_t>(n)]).margin(1e-12));
        }
        const Line& complexOnes = page.lines[page.defined.at("p")];
        REQUIRE(complexOnes.equations.size() == 2);
        const auto imaginary =
            compile(page, complexOnes.equations[1]->operands[1], std::vector<std::string>{"m"}).program;
        REQUIRE(imaginary);
        CHECK(Evaluator(*imaginary)(3) == Approx((*page.columnOf("q_1"))[18]).margin(1e-12));
        // Written out on the page it is the same sum.
        const std::string series = fourierSeriesLine(page, "Fourier series of r(t)");
        REQUIRE(series.starts_with("S_1(t, N) = "));
        const std::vector<std::string> rewritten = with(lines, {"S(t, N)" + series.substr(series.find(" = "))});
        const Page after = pageOf(rewritten);
        INFO(rewritten.back());
        REQUIRE(after.problems().empty());
        for (const char* place : {"S(0.3, 9)", "S(-7.7, 1)", "S(1.1, 4)"})
            CHECK(evaluate(after, place).value() == Approx(evaluate(page, place).value()).margin(1e-11));
    }
    const Answer asked =
        evaluate(pageOf({"r(t) = { 1 for 0 <= t < pi; 0 otherwise }", "r(t + 2 pi) = r(t)"}), "Fourier series of r(t)");
    REQUIRE(asked.formula);
    CHECK(spelled(*asked.formula) == "1/2 + sum_{n=1}^{inf} ((1 - cos(π n))/(π n) sin(n t))");
    const auto written = [](const std::string& body, const std::string& period) {
        const Answer found =
            evaluate(pageOf({"r(t) = " + body, "r(t + " + period + ") = r(t)"}), "Fourier series of r(t)");
        return found.formula ? spelled(*found.formula) : "";
    };
    CHECK(written("sin(t)", "pi") == "2/π + sum_{n=1}^{inf} (-4/(π * (4 n^2 - 1)) cos(2n t))");
    CHECK(written("{ sin(t) for 0 <= t < pi; 0 otherwise }", "2 pi") ==
          "1/π + sum_{n=1}^{inf} ({ 0 for n = 1; -(1 + cos(π n))/(π * (n^2 - 1)) otherwise } cos(n t) + { 1/2 for n = "
          "1; 0 "
          "otherwise } sin(n t))");
    for (const char* body : {"sin(t^2)", "t sin(t)", "exp(t) sin(t)", "exp(t^2)", "sin(t)/t", "tan(t)", "sin(2)^t"}) {
        INFO(body);
        CHECK(written(body, "2 pi").empty());
    }
    CHECK(written("sin(t)", "2").empty()); // with a phase that has no exact sine
    // What has no such formula keeps its integrals, and is refused where the formula was asked for.
    const Page bell = pageOf({"r(t) = exp(-t^2)", "r(t + 4) = r(t)", "S(t, N) = Fourier sum of r(t)"});
    CHECK(bell.problems().empty());
    CHECK(evaluate(bell, "Fourier series of r(t)").problems[0].sentence.find("no formula") != std::string::npos);
    CHECK(!evaluate(bell, "Fourier series of g(t)").problems.empty());
    CHECK(fourierSeriesLine(bell, "Fourier series of r(t)").empty());
    CHECK(!evaluate(bell, "Fourier series of (t)").problems.empty());
}
