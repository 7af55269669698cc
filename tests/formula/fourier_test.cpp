#include "formula/page.h"
#include "formula/spectra.h"

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
