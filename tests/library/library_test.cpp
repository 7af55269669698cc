#include "coulter/coulter.h"

#include <atomic>
#include <catch2/catch.hpp>
#include <cstdlib>
#include <fstream>
#include <thread>

namespace co = coulter::api;

TEST_CASE("a page answers with bounds, places with proofs, and problems with their characters") {
    const co::Page page({"f(x) = x^2 - 2", "q = 1.5, from 0 to 6", "d = {1, 2, 4}", "g(x) = 1 + +"});
    REQUIRE(page.problems().size() == 1);
    CHECK(page.problems()[0].line == 3);
    CHECK(page.problems()[0].first > 0);
    CHECK_FALSE(page.problems()[0].text().empty());
    const auto value = page.value("f(q)");
    REQUIRE(value);
    CHECK(value->numbers == std::vector<double>{0.25});
    REQUIRE(value->errors.size() == 1);
    CHECK(value->errors[0] < 1e-14);
    const auto zeros = page.value("f(x) = 0 for x in [0, 10]");
    REQUIRE(zeros);
    REQUIRE(zeros->numbers.size() == 1);
    CHECK(zeros->numbers[0] == Approx(std::sqrt(2.0)).epsilon(1e-15));
    CHECK(zeros->isProven);
    CHECK(page.value("2 d")->numbers == std::vector<double>{2, 4, 8});
    const auto wrong = page.value("g(1) + 1");
    CHECK_FALSE(wrong);
    CHECK_FALSE(wrong.problems.empty());
}

TEST_CASE("a function is evaluated in bulk, by any thread, with the same bits") {
    const co::Page page({"f(x, y) = (J_0(x), x y)"});
    const auto f = page.function("f(x, y)", {"x", "y"});
    REQUIRE(f);
    CHECK(f->inputCount() == 2);
    CHECK(f->outputCount() == 2);
    constexpr std::size_t n = 5000;
    std::vector<double> x(n), y(n);
    for (std::size_t i = 0; i < n; ++i) x[i] = 0.01 * static_cast<double>(i), y[i] = 3 - x[i];
    const auto values = [&] {
        std::vector<double> u(n), v(n);
        const double* const in[] = {x.data(), y.data()};
        double* const out[] = {u.data(), v.data()};
        (*f)(in, out, n);
        u.insert(u.end(), v.begin(), v.end());
        return u;
    };
    const std::vector<double> once = values();
    CHECK(once[n + 7] == x[7] * y[7]);
    CHECK(once[100] == Approx(0.7651976865579666).epsilon(1e-15));
    std::vector<std::vector<double>> again(4);
    {
        std::vector<std::jthread> threads;
        for (auto& each : again) threads.emplace_back([&each, &values] { each = values(); });
    }
    for (const auto& each : again) CHECK(each == once);
    CHECK_FALSE(page.function("f(x)", {"x"}));
}

TEST_CASE("a figure is built, changed, sampled, written and rebuilt") {
    const co::Page page({"f(x) = q sin(x)", "q = 2", "x in [0, 6]", "k = 7"});
    auto figure = co::Figure(page).with("line", "f(x)");
    REQUIRE(figure);
    const auto wider = figure->withValue("sheet.width", "120");
    REQUIRE(wider);
    const auto larger = wider->withValue("q", "3");
    REQUIRE(larger);
    CHECK(larger->recipe().find("q = 3") != std::string::npos);
    CHECK(figure->recipe().find("q = 2") != std::string::npos); // the others are what they were
    CHECK_FALSE(figure->withValue("r", "3"));
    CHECK_FALSE(figure->withValue("sheet.breadth", "3"));
    CHECK_FALSE(figure->with("lines", "f(x)"));
    const auto samples = larger->samples(0, 0);
    REQUIRE(samples);
    REQUIRE(samples->columns.size() == samples->names.size());
    CHECK(samples->names == std::vector<std::string>{"stretch", "x", "y"});
    CHECK(samples->states.size() == samples->columns[1].size());
    for (std::size_t i = 0; i < samples->columns[1].size(); ++i)
        CHECK(samples->columns[2][i] == Approx(3 * std::sin(samples->columns[1][i])).margin(1e-14));
    CHECK_FALSE(larger->samples(0, 1));
    for (const char* format : {"pdf", "svg", "png", "eps"}) {
        const auto bytes = larger->bytes(format);
        REQUIRE(bytes);
        CHECK(*larger->bytes(format) == *bytes);
        CHECK(co::Figure::verify(*bytes).empty());
        const auto read = co::Figure::read(*bytes);
        REQUIRE(read);
        CHECK(read->recipe() == larger->recipe());
    }
    CHECK_FALSE(larger->bytes("gif"));
    CHECK_FALSE(co::Figure::read("nothing").problems.empty());
    CHECK_FALSE(larger->remarks().empty()); // nothing uses k
    CHECK(larger->problems().empty());
    const auto broken = figure->with("line", "h(x)");
    REQUIRE(broken);
    CHECK_FALSE(broken->problems().empty());
    CHECK_FALSE(broken->bytes("pdf"));
}

TEST_CASE("what is stopped gives up") {
    const co::Page page({"f(x) = sum_{n=1}^{900} sin(n^2 x)/n^2", "x in [0, 6]"});
    const auto figure = co::Figure(page).with("line", "f(x)");
    REQUIRE(figure);
    std::atomic<int> asked = 0;
    co::Making making;
    making.isPatient = true;
    making.isStopped = [&] { return ++asked > 1; };
    CHECK_FALSE(figure->bytes("pdf", making));
    CHECK(asked > 1);
}

TEST_CASE("files that a page names are read from its folder") {
    const std::string folder = std::string(std::getenv("COULTER_SOURCE")) + "/demos/embankment";
    const auto figure = co::Figure::load(folder + "/embankment.coulter");
    REQUIRE(figure);
    CHECK(figure->problems().empty());
    const co::Page page({"(X, Y, H) from \"nodes.csv\""}, folder);
    const auto greatest = page.value("greatest(H)");
    REQUIRE(greatest);
    CHECK(greatest->numbers[0] == 6);
    CHECK_FALSE(co::Page({"(X, Y, H) from \"nodes.csv\""}).problems().empty());
    CHECK_FALSE(co::Figure::load(folder + "/none.coulter"));
}

TEST_CASE("the public header is short and needs nothing of the core") {
    std::ifstream header(std::string(std::getenv("COULTER_SOURCE")) + "/include/coulter/coulter.h");
    REQUIRE(header);
    std::size_t lines = 0;
    for (std::string line; std::getline(header, line); ++lines) CHECK(line.find("#include \"") == std::string::npos);
    CHECK(lines > 100);
    CHECK(lines <= 300);
    CHECK(co::version() == "0.1.0");
}
