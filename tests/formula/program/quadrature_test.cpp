#include "formula/program/quadrature.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

struct Result {
    std::vector<double> values, errors;
    std::size_t evaluations = 0;
};

/// ∫ f over each of the ranges, all at once; `f` gets the number of the integral, too.
template <typename F>
Result integrals(const F& f, const std::vector<double>& low, const std::vector<double>& high, int mostPieces = 600) {
    Result result{std::vector<double>(low.size()), std::vector<double>(low.size())};
    const auto integrand = [&](std::span<const double> k, std::span<const std::uint32_t> which, double* values) {
        result.evaluations += k.size();
        for (std::size_t i = 0; i < k.size(); ++i) values[i] = f(k[i], which[i]);
        return true;
    };
    Quadrature{mostPieces}(integrand, low, high, result.values.data(), result.errors.data());
    return result;
}

} // namespace

TEST_CASE("polynomials up to degree 22 are integrated by one rule, to rounding") {
    for (int degree = 0; degree <= 22; ++degree) {
        const Result r = integrals([&](double k, std::uint32_t) { return std::pow(k, degree); }, {0}, {2});
        CHECK(r.values[0] == Approx(std::pow(2, degree + 1) / (degree + 1)).epsilon(1e-14));
        CHECK(r.evaluations <= (degree <= 8 ? 60 : 180)); // the first four pieces, and what the estimate wants besides
    }
}

TEST_CASE("integrals side by side do not touch each other") {
    const auto f = [](double k, std::uint32_t which) { return which == 1 ? 1 / std::sqrt(k) : std::cos(k * which); };
    const Result all = integrals(f, {0, 0, 0}, {1, 1, 5});
    for (std::uint32_t i = 0; i < 3; ++i) {
        const Result alone = integrals([&](double k, std::uint32_t) { return f(k, i); }, {0}, {i == 2 ? 5.0 : 1.0});
        CHECK(alone.values[0] == all.values[i]);
        CHECK(alone.errors[0] == all.errors[i]);
    }
}

TEST_CASE("the stated error is never less than the true one") {
    struct Case {
        double (*f)(double);
        double low, high, exact;
    };
    const double inf = HUGE_VAL;
    const Case cases[] = {
        {[](double k) { return std::exp(-k * k); }, -inf, inf, std::sqrt(M_PI)},
        {[](double k) { return std::sqrt(k); }, 0, 1, 2.0 / 3},
        {[](double k) { return std::abs(k - 0.3); }, 0, 1, 0.29},
        {[](double k) { return k < 0.7 ? 1.0 : 0.0; }, 0, 1, 0.7},
        {[](double k) { return 1 / (1 + 1e6 * k * k); }, -1, 1, 2e-3 * std::atan(1e3)},
        {[](double k) { return std::cos(100 * k); }, 0, 1, std::sin(100.0) / 100},
        {[](double k) { return std::log(k) * std::log(k); }, 0, 1, 2},
        {[](double k) { return 1 / (k * k); }, 1, inf, 1},
        {[](double k) { return k * std::exp(k); }, -inf, 0, -1},
    };
    for (const Case& c : cases) {
        const Result r = integrals([&](double k, std::uint32_t) { return c.f(k); }, {c.low}, {c.high});
        INFO("exact " << c.exact << ", found " << r.values[0] << " ± " << r.errors[0]);
        CHECK(std::abs(r.values[0] - c.exact) <= r.errors[0] + 4e-16 * std::abs(c.exact));
        CHECK(r.errors[0] < 1e-9);
    }
}

TEST_CASE("limits in reverse, equal, undefined") {
    const auto one = [](double, std::uint32_t) { return 1.0; };
    CHECK(integrals(one, {3}, {1}).values[0] == -2);
    CHECK(integrals(one, {2}, {2}).values[0] == 0);
    CHECK(std::isnan(integrals(one, {NAN}, {1}).values[0]));
    CHECK(std::isnan(integrals(one, {0}, {HUGE_VAL}).values[0]));
    CHECK(std::isnan(integrals([](double k, std::uint32_t) { return std::sqrt(k); }, {-1}, {1}).values[0]));
    CHECK(integrals([](double, std::uint32_t) { return 0.0; }, {0}, {HUGE_VAL}).values[0] == 0);
}

TEST_CASE("work is bounded, and giving up leaves nothing half done") {
    const auto wild = [](double k, std::uint32_t) { return std::sin(1e9 * k * k); };
    const Result r = integrals(wild, {0}, {1}, 50);
    CHECK(std::isnan(r.values[0]));
    CHECK(r.evaluations <= 15 * 2 * 55);
    std::vector<double> value(1), error(1);
    const double low = 0, high = 1;
    const auto stopped = [](std::span<const double>, std::span<const std::uint32_t>, double*) { return false; };
    Quadrature{}(stopped, std::span(&low, 1), std::span(&high, 1), value.data(), error.data());
    CHECK(std::isnan(value[0]));
    CHECK(std::isinf(error[0]));
}
