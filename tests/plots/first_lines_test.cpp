// What people type first: each line, typed into an empty document, gives a figure or an answer, and nothing red.
#include "formula/lines/read_page.h"
#include "plots/page_edits.h"
#include "plots/plot_kind.h"

#include <catch2/catch.hpp>

using namespace coulter;

namespace {

struct FirstLine {
    const char* typed;
    const char* line; ///< as it stands on the page
    const char* kind; ///< of the plot; empty: nothing is drawn
};

const FirstLine firstLines[] = {
    {"y = x^2 - 2x + 3", "y(x) = x^2 - 2x + 3", "line"},
    {"y = x²", "y(x) = x²", "line"},
    {"y = 2x + 1", "y(x) = 2x + 1", "line"},
    {"y = -x", "y(x) = -x", "line"},
    {"y = x^3 - 3x", "y(x) = x^3 - 3x", "line"},
    {"y = 1/x", "y(x) = 1/x", "line"},
    {"y = sqrt(x)", "y(x) = sqrt(x)", "line"},
    {"y = √x", "y(x) = √x", "line"},
    {"y = |x|", "y(x) = |x|", "line"},
    {"y = e^x", "y(x) = e^x", "line"},
    {"y = e^-x", "y(x) = e^-x", "line"},
    {"y = exp(-x^2)", "y(x) = exp(-x^2)", "line"},
    {"y = ln x", "y(x) = ln x", "line"},
    {"y = lg x", "y(x) = lg x", "line"},
    {"y = sin x", "y(x) = sin x", "line"},
    {"y = sin(x)", "y(x) = sin(x)", "line"},
    {"y = sin 2x", "y(x) = sin 2x", "line"},
    {"y = 2 sin(3x) + 1", "y(x) = 2 sin(3x) + 1", "line"},
    {"y = cos² x", "y(x) = cos² x", "line"},
    {"y = sin^2 x + cos^2 x", "y(x) = sin^2 x + cos^2 x", "line"},
    {"y = tan x", "y(x) = tan x", "line"},
    {"y = arctan x", "y(x) = arctan x", "line"},
    {"y = sinh x", "y(x) = sinh x", "line"},
    {"y = x sin x", "y(x) = x sin x", "line"},
    {"y = sin x / x", "y(x) = sin x / x", "line"},
    {"y = sin(x)/x", "y(x) = sin(x)/x", "line"},
    {"y = e^-x cos 2x", "y(x) = e^-x cos 2x", "line"},
    {"y = x^2 sin(1/x)", "y(x) = x^2 sin(1/x)", "line"},
    {"y = floor x", "y(x) = floor x", "line"},
    {"y = max(x, 0)", "y(x) = max(x, 0)", "line"},
    {"y = x!", "y(x) = x!", "line"},
    {"y = 2^x", "y(x) = 2^x", "line"},
    {"y = x^(2/3)", "y(x) = x^(2/3)", "line"},
    {"y = { 0 for x < 0; x otherwise }", "y(x) = { 0 for x < 0; x otherwise }", "line"},
    {"y = a x^2 + b x + c", "y(x) = a x^2 + b x + c", "line"},
    {"y = a sin(ω t + φ)", "y(t) = a sin(ω t + φ)", "line"},
    {"y = A e^(-k t) cos(ω t)", "y(t) = A e^(-k t) cos(ω t)", "line"},
    {"y := x^2", "y(x) = x^2", "line"},
    {"y = x**2", "y(x) = x^2", "line"},
    {"y = 0,5*x + 1", "y(x) = 0.5*x + 1", "line"},
    {"y = pow(x, 3)", "y(x) = x^3", "line"},
    {"y = asin(x)", "y(x) = arcsin(x)", "line"},
    {"y = sinx", "y(x) = sin(x)", "line"},
    {"y = kx", "y(x) = kx", "line"},
    {"sin(x)", "f(x) = sin(x)", "line"},
    {"sin x", "f(x) = sin x", "line"},
    {"sin x / x", "f(x) = sin x / x", "line"},
    {"cos ωt", "f(t) = cos ωt", "line"},
    {"ln x", "f(x) = ln x", "line"},
    {"x^2", "f(x) = x^2", "line"},
    {"x^2 - 1", "f(x) = x^2 - 1", "line"},
    {"2x + 1", "f(x) = 2x + 1", "line"},
    {"1/(1 + x^2)", "f(x) = 1/(1 + x^2)", "line"},
    {"e^-x cos 2x", "f(x) = e^-x cos 2x", "line"},
    {"exp(-x^2/2)/sqrt(2pi)", "f(x) = exp(-x^2/2)/sqrt(2pi)", "line"},
    {"√(1 − x²)", "f(x) = √(1 − x²)", "line"},
    {"Γ(x)", "f(x) = Γ(x)", "line"},
    {"J_0(x)", "f(x) = J_0(x)", "line"},
    {"erf x", "f(x) = erf x", "line"},
    {"|x - 1|", "f(x) = |x - 1|", "line"},
    {"sum_{n=1}^{5} sin(n x)/n", "f(x) = sum_{n=1}^{5} sin(n x)/n", "line"},
    {"int_0^x e^(-k^2) dk", "f(x) = int_0^x e^(-k^2) dk", "line"},
    {"=2*x+1", "f(x) = 2*x+1", "line"},
    {"λ e^(-λ t)", "f(t) = λ e^(-λ t)", "line"},
    {"P = 1/(σ sqrt(2π)) e^(-(x-μ)^2/(2σ^2))", "P(x) = 1/(σ sqrt(2π)) e^(-(x-μ)^2/(2σ^2))", "line"},
    {"s = v t", "s(t) = v t", "line"},
    {"v = g t", "v(t) = g t", "line"},
    {"h = h_0 - g t^2/2", "h(t) = h_0 - g t^2/2", "line"},
    {"E = m c^2/2", "E(m) = m c^2/2", "line"},
    {"U = R I", "U(R) = R I", "line"},
    {"T = T_0 + A sin(2 pi t/P)", "T(t) = T_0 + A sin(2 pi t/P)", "line"},
    {"N = N_0 e^(-t/τ)", "N(t) = N_0 e^(-t/τ)", "line"},
    {"f = x^2", "f(x) = x^2", "line"},
    {"f(x) = x^2", "f(x) = x^2", "line"},
    {"g(t) = t e^-t", "g(t) = t e^-t", "line"},
    {"x(t) = cos t", "x(t) = cos t", "line"},
    {"f(x) = a x", "f(x) = a x", "line"},
    {"y = sin x for x in [0, 2 pi]", "y(x) = sin x", "line"},
    {"y = sin x / x for x in [-20, 20]", "y(x) = sin x / x", "line"},
    {"sin x for x in [0, pi]", "f(x) = sin x", "line"},
    {"y = x^2 for 0 < x < 3", "y(x) = x^2", "line"},
    {"f(x) = x^2, x in [0, 3]", "f(x) = x^2", "line"},
    {"z = x y, 0 <= x <= 1, 0 <= y <= 2", "z(x, y) = x y", "heatmap"},
    {"{(1, 2), (2, 4), (3, 9)}", "x = {1, 2, 3}", "points"},
    {"(t, s) = {(1, 2), (2.5, -4)}", "t = {1, 2.5}", "points"},
    {"y = a x for a in {1, 2, 3}", "y(x, a) = a x", "line"},
    {"y = x^2 + c for c in {0, 1}", "y(x, c) = x^2 + c", "line"},
    {"a x for a in {1, 2}", "a x for a in {1, 2}", "line"},
    {"z = sin(x) cos(y)", "z(x, y) = sin(x) cos(y)", "heatmap"},
    {"z = x^2 - y^2", "z(x, y) = x^2 - y^2", "heatmap"},
    {"z = exp(-x^2 - y^2)", "z(x, y) = exp(-x^2 - y^2)", "heatmap"},
    {"sin(x) cos(y)", "f(x, y) = sin(x) cos(y)", "heatmap"},
    {"x^2 + y^2", "f(x, y) = x^2 + y^2", "heatmap"},
    {"x y", "f(x, y) = x y", "heatmap"},
    {"u(x, y) = x y", "u(x, y) = x y", "heatmap"},
    {"w = x^2 + y", "w(x, y) = x^2 + y", "heatmap"},
    {"x^2 + y^2 = 1", "x^2 + y^2 = 1", "implicit curve"},
    {"x² + y² = 4", "x² + y² = 4", "implicit curve"},
    {"x^2/4 + y^2/9 = 1", "x^2/4 + y^2/9 = 1", "implicit curve"},
    {"y^2 = x^3 - x", "y^2 = x^3 - x", "implicit curve"},
    {"x = y^2", "y^2 = x", "implicit curve"},
    {"x = sin y", "sin y = x", "implicit curve"},
    {"2x + 3y = 6", "2x + 3y = 6", "implicit curve"},
    {"|x| + |y| = 1", "|x| + |y| = 1", "implicit curve"},
    {"sin(x y) = 0.5", "sin(x y) = 0.5", "implicit curve"},
    {"x^3 + y^3 = 3 x y", "x^3 + y^3 = 3 x y", "implicit curve"},
    {"x y > 1", "x y > 1", "region"},
    {"y > x^2", "y > x^2", "region"},
    {"y < 2x + 1", "y < 2x + 1", "region"},
    {"0 < y < x^2", "0 < y < x^2", "region"},
    {"x^2 + y^2 <= 4", "x^2 + y^2 <= 4", "region"},
    {"x^2 < 4", "x^2 < 4", "region"},
    {"x² − ½√x · π ≤ 3", "x² − (1/2)√x · π ≤ 3", "region"},
    {"r = 1 + cos(phi)", "r(φ) = 1 + cos(phi)", "polar"},
    {"r = 1 + cos φ", "r(φ) = 1 + cos φ", "polar"},
    {"r = sin 3θ", "r(θ) = sin 3θ", "polar"},
    {"r = a θ", "r(θ) = a θ", "polar"},
    {"r = 2 cos φ", "r(φ) = 2 cos φ", "polar"},
    {"r = e^(φ/10)", "r(φ) = e^(φ/10)", "polar"},
    {"(cos t, sin t)", "c(t) = (cos t, sin t)", "line"},
    {"(2 cos t, sin t)", "c(t) = (2 cos t, sin t)", "line"},
    {"(t cos t, t sin t)", "c(t) = (t cos t, t sin t)", "line"},
    {"(cos t, sin 2t)", "c(t) = (cos t, sin 2t)", "line"},
    {"(t, t^2)", "c(t) = (t, t^2)", "line"},
    {"(t cos t, t sin t, t)", "c(t) = (t cos t, t sin t, t)", "line"},
    {"(cos t, sin t, t/5)", "c(t) = (cos t, sin t, t/5)", "line"},
    {"x = cos t, y = sin 2t", "c(t) = (cos t, sin 2t)", "line"},
    {"x = t^2, y = t^3", "c(t) = (t^2, t^3)", "line"},
    {"x = cos t, y = sin t, z = t", "c(t) = (cos t, sin t, t)", "line"},
    {"(cos t, sin t) for t in [0, pi]", "c(t) = (cos t, sin t)", "line"},
    {"{1, 2.5, 3, 1.6}", "y = {1, 2.5, 3, 1.6}", "points"},
    {"y = {1, 2.5, 3, 1.6}", "y = {1, 2.5, 3, 1.6}", "points"},
    {"{1, 2, ..., 10}", "y = {1, 2, ..., 10}", "points"},
    {"d = {0.1, 0.2, 0.5}", "d = {0.1, 0.2, 0.5}", ""},
    {"\\frac{\\sin x}{x}", "f(x) = (sin x)/x", "line"},
    {"y = \\frac{1}{1+x^2}", "y(x) = 1/(1+x^2)", "line"},
    {"\\int_0^x e^{-k^2}\\,dk", "f(x) = int _0^x e^{-k^2} dk", "line"},
    {"\\sqrt{1-x^2}", "f(x) = sqrt(1-x^2)", "line"},
    {"f(x) = \\sin\\left(2\\pi x\\right)", "f(x) = sin (2 pi x)", "line"},
    {"e^{-x^2}", "f(x) = e^{-x^2}", "line"},
    {"x^2 + y^2 \\le 1", "x^2 + y^2 <= 1", "region"},
    {"\\alpha x^2", "f(x) = alpha x^2", "line"},
    {"2 + 3", "2 + 3 = ?", ""},
    {"5 km in m", "5 * 1000 = ?, unit m", ""},
    {"90 km/h in m/s", "90 * 0.2777777777777778 = ?, unit m/s", ""},
    {"20 °C in K", "20 + 273.15 = ?, unit K", ""},
    {"2*3.5", "2*3.5 = ?", ""},
    {"2^10", "2^10 = ?", ""},
    {"sin(pi/3)", "sin(pi/3) = ?", ""},
    {"sqrt(2)", "sqrt(2) = ?", ""},
    {"1/3 + 1/6", "1/3 + 1/6 = ?", ""},
    {"5!", "5! = ?", ""},
    {"ln 2", "ln 2 = ?", ""},
    {"e^π", "e^π = ?", ""},
    {"√2", "√2 = ?", ""},
    {"x^2 = 2", "x^2 = 2 for x in [-10, 10]", ""},
    {"x^2 - 5x + 6 = 0", "x^2 - 5x + 6 = 0 for x in [-10, 10]", ""},
    {"sin x = 0.5", "sin x = 0.5 for x in [-10, 10]", ""},
    {"cos x = x", "cos x = x for x in [-10, 10]", ""},
    {"3x + 2 = 8", "3x + 2 = 8 for x in [-10, 10]", ""},
    {"d/dx x^3", "d/dx(x^3) = ?", ""},
    {"d/dx sin(x^2)", "d/dx(sin(x^2)) = ?", ""},
    {"d^2/dx^2 x^4", "d^2/dx^2(x^4) = ?", ""},
    {"int_0^1 x^2 dx", "int_0^1 x^2 dx = ?", ""},
    {"sum_{n=1}^{10} n^2", "sum_{n=1}^{10} n^2 = ?", ""},
    {"0 <= x <= 10", "x in [0, 10]", ""},
    {"0 < x < 1", "x in (0, 1)", ""},
    {"x = 0..10", "x in [0, 10]", ""},
    {"x from 0 to 10", "x in [0, 10]", ""},
    {"x in [0, 10]", "x in [0, 10]", ""},
    {"x ∈ [0, 2π)", "x ∈ [0, 2π)", ""},
    {"a = 2", "a = 2", ""},
    {"g = 9.81", "g = 9.81", ""},
};

Document typed(const std::vector<std::string>& lines) {
    Document document;
    for (const std::string& line : lines) document = withLine(document, document.page.size(), line);
    return document;
}

std::string problemsOf(const Page& page) {
    std::string all;
    for (const Problem& problem : page.problems()) {
        if (problem.severity == Problem::Severity::Error) all += describe(problem) + "\n";
    }
    return all;
}

/// The first problem of a line typed into an empty document.
Problem problemOf(const std::string& line) {
    for (const Problem& problem : readPage(typed({line})).problems()) {
        if (problem.severity == Problem::Severity::Error) return problem;
    }
    return {};
}

} // namespace

TEST_CASE("what people type first is drawn or answered, and nothing is red") {
    CHECK(std::size(firstLines) >= 120);
    for (const FirstLine& each : firstLines) {
        INFO(each.typed);
        const Document document = typed({each.typed});
        const Page page = readPage(document);
        CHECK(problemsOf(page) == "");
        REQUIRE_FALSE(document.page.empty());
        CHECK(document.page[0] == each.line);
        const std::vector<Plot>& plots = document.panels[0].plots;
        if (*each.kind == 0) {
            CHECK(plots.empty());
            const Line& line = page.lines[0];
            if (line.kind == LineKind::Question) CHECK((line.value || line.formula));
            if (line.kind == LineKind::Search) CHECK(line.places);
            continue;
        }
        REQUIRE(plots.size() == 1);
        CHECK(plots[0].kind == each.kind);
        const PanelReading reading = readPlots(page, document.panels[0]);
        CHECK_FALSE(reading.drawn.empty());
        for (const Problems& problems : reading.problems) CHECK(problems.empty());
    }
}

TEST_CASE("a line that is taken keeps its meaning when it is taken again") {
    for (const FirstLine& each : firstLines) {
        INFO(each.typed);
        const Document once = typed({each.typed});
        CHECK(withLine(once, 0, once.page[0]) == once);
    }
}

TEST_CASE("a dependent quantity is a function that can be asked, derived, searched and used") {
    const Document document = typed({"y = x^2 - 2x + 3", "y(2) = ?", "y' = ?", "min of y", "w = 2y + 1"});
    CHECK(document.page == std::vector<std::string>{"y(x) = x^2 - 2x + 3", "x in [-5, 5], assumed", "y(2) = ?",
                                                    "y'(x) = ?", "minimum of y(x) for x", "w(x) = 2y(x) + 1"});
    const Page page = readPage(document);
    CHECK(problemsOf(page) == "");
    CHECK(page.lines[2].value == 3);
    CHECK(page.lines[3].formula);
    REQUIRE(page.lines[4].places);
    REQUIRE(page.lines[4].places->found.size() == 1);
    CHECK(page.lines[4].places->found[0].at == 1);
    CHECK(document.panels[0].plots.size() == 2);
}

TEST_CASE("an interval that was assumed gives way to the first one that is said") {
    const std::vector<std::string> page{"f(x) = sin(x)/x", "x in [-20, 20]"};
    CHECK(typed({"f(x) = sin(x)/x", "x in [-20, 20]"}).page == page);
    CHECK(typed({"f(x) = sin(x)/x", "-20 <= x <= 20"}).page == page);
    CHECK(typed({"f(x) = sin(x)/x", "x from -20 to 20"}).page == page);
    // One that was said stays, and a second one is a problem that names its line.
    const Document twice = typed({"x in [0, 1]", "x in [0, 2]"});
    CHECK(problemsOf(readPage(twice)).find("already defined in line 1") != std::string::npos);
    // So do numbers: whoever writes the formula first says afterwards what its letters are.
    CHECK(typed({"s(r, t) = Q/(4 pi T) E_1(r^2 S/(4 T t)), unit m", "Q = 300, unit m3 d-1", "T = 155", "S = 0.0006",
                 "t in [0.0001, 10], logarithmic"})
              .page == std::vector<std::string>{"s(r, t) = Q/(4 pi T) E_1(r^2 S/(4 T t)), unit m",
                                                "r in [-5, 5], assumed", "Q = 300, unit m3 d-1", "T = 155",
                                                "S = 0.0006", "t in [0.0001, 10], logarithmic"});
    CHECK(typed({"y = a x", "(a, b) solves a + b = 3, a - b = 1"}).page.size() == 3);
    // In every spelling, behind a formula, too.
    CHECK(typed({"y = x^2 for 0 < x < 3"}).page == std::vector<std::string>{"y(x) = x^2", "x in (0, 3)"});
    CHECK(typed({"z = x y, 0 <= x <= 1, y in [0, 2]"}).page ==
          std::vector<std::string>{"z(x, y) = x y", "x in [0, 1]", "y in [0, 2]"});
    // Points are two columns, drawn against each other; so are two columns with the names of the coordinates.
    const Document points = typed({"(t, s) = {(1, 2), (2.5, -4)}"});
    CHECK(points.page == std::vector<std::string>{"t = {1, 2.5}", "s = {2, -4}"});
    CHECK(points.panels[0].plots.at(0).of == "(t, s)");
    const Document columns = typed({"x = {1, 2, 3}", "y = {2, 4, 9}"});
    REQUIRE(columns.panels[0].plots.size() == 1);
    CHECK(columns.panels[0].plots[0].of == "(x, y)");
    CHECK(typed({"x = {1, 2, 3}", "y = {2, 4}"}).panels[0].plots.at(0).of == "x");
    // Behind a formula it is meant for all of them.
    CHECK(typed({"y = x^2", "g(x) = x for x in [0, 3]"}).page ==
          std::vector<std::string>{"y(x) = x^2", "g(x) = x", "x in [0, 3]"});
}

TEST_CASE("further lines stand beside the first") {
    // The same name again is another curve.
    const Document two = typed({"y = x^2", "y = sin x"});
    CHECK(two.page == std::vector<std::string>{"y(x) = x^2", "x in [-5, 5], assumed", "y_2(x) = sin x"});
    CHECK(two.panels[0].plots.size() == 2);
    // A number is not given twice by accident.
    CHECK(problemsOf(readPage(typed({"a = 5", "a = 6"}))).find("already defined in line 1") != std::string::npos);
    // A circle is round, and a parabola beside it an equation between the same coordinates.
    const Document circle = typed({"x^2 + y^2 = 1", "y = x^2"});
    CHECK(circle.panels[0].equalScales == true);
    REQUIRE(circle.panels[0].plots.size() == 2);
    CHECK(circle.panels[0].plots[1].of == "x^2 = y");
    // What the page has is used, and not assumed again.
    CHECK(typed({"a = 5", "y = a x"}).page == std::vector<std::string>{"a = 5", "y(x) = a x", "x in [-5, 5], assumed"});
    // Two functions of a page, compared without saying their variable.
    CHECK(typed({"y = x^2", "u = x + 1", "w = y - u"}).page.back() == "w(x) = y(x) - u(x)");
    // Cases of a function with several parameters may stand on the page.
    const Document cases = typed({"f(x, g, d) = g sin(x) + d", "f(x, g, d) for (g, d) in {(5 %, 1 %), (10 %, 2 %)}"});
    REQUIRE(cases.panels[0].plots.size() == 1);
    CHECK(readPlots(readPage(cases), cases.panels[0]).drawn.size() == 2);
    // A formula without a name takes its plot along when it is changed, and away.
    Document circles = withLine(typed({"x^2 + y^2 = 1"}), 0, "x^2 + y^2 = 4");
    REQUIRE(circles.panels[0].plots.size() == 1);
    CHECK(circles.panels[0].plots[0].of == "x^2 + y^2 = 4");
    CHECK(withoutLine(circles, 0).panels[0].plots.empty());
}

TEST_CASE("what cannot be read says what is wrong, and offers what is meant") {
    struct Wrong {
        const char* typed;
        const char* said;   ///< part of the sentence or of the suggestion
        const char* remedy; ///< its text; null: none
    };
    const Wrong wrong[] = {
        {"y = sin(x", "never closed", nullptr},
        {"y = x +", "ends too early", nullptr},
        {"y = (x + 1))", "closes nothing", nullptr},
        {"y = x^2 +* 3", "does not fit", nullptr},
        {"y = |x", "never closed", nullptr},
        {"y = x^", "ends too early", nullptr},
        {"y =", "missing", nullptr},
        {"sin(", "ends too early", nullptr},
        {"y = 3 4", "without a sign", nullptr},
        {"y = x2", "digit cannot follow", nullptr},
        {"y = foo(x)", "foo is not known", nullptr},
        {"y = f(x) + 1", "f(x) = x^2", nullptr},
        {"y = Sin(x)", "did you mean sin", "sin"},
        {"y = exq(x)", "did you mean exp", "exp"},
        {"log(x)", "base", "ln"},
        {"y = log x", "base", "ln"},
        {"f(x) = log(x)", "base", "ln"},
        {"y = sin^-1(x)", "arcsin", nullptr},
        {"sin^-1 x", "arcsin", nullptr},
        {"y = besselj(0, x)", "J_{n}(x)", nullptr},
        {"y = legendre(2, x)", "P_{n}(x)", nullptr},
        {"y = [1, 2]", "round brackets", nullptr},
        {"x in [5, 1]", "reversed", nullptr},
        {"x in [1, 1]", "empty", nullptr},
        {"x in [0, inf]", "finite ends", nullptr},
        {"x in", "interval is missing", nullptr},
        {"f(x) =", "missing", nullptr},
        {"f() = 2", "no parameter", nullptr},
        {"f(x, x) = 2", "twice", nullptr},
        {"f(2) = 3", "parameter is a name", nullptr},
        {"2 < 3", "defines nothing", nullptr},
        {"y = {1, 2", "never closed", nullptr},
        {"{ }", "list is empty", nullptr},
        {"(1, 2", "never closed", nullptr},
        {"y = 5 / / 2", "does not fit", nullptr},
        {"X ~ N(0, 1)", "count 500", nullptr},
        {"X ~ B(3)", "distributed as N or U", nullptr},
        {"density = 2", "d_{ensity}", nullptr},
        {"hello world", "no formula", "# "},
        {"here are my notes", "no formula", "# "},
        {"y = x @ 2", "no meaning", nullptr},
        {"y = 1e999", "larger than any", nullptr},
        {"int x^2", "lower limit", nullptr},
        {"y = int_0^1 x", "over what it runs", nullptr},
        {"sum n", "lower limit", nullptr},
        {"y = 1.2.3", "one decimal point", nullptr},
        {"(t, s) from \"nowhere.csv\"", "are not here", nullptr},
    };
    for (const Wrong& each : wrong) {
        INFO(each.typed);
        const Problem problem = problemOf(each.typed);
        INFO(describe(problem));
        CHECK((problem.sentence + " " + problem.suggestion).find(each.said) != std::string::npos);
        CHECK(problem.remedy.has_value() == (each.remedy != nullptr));
        if (each.remedy && problem.remedy) CHECK(problem.remedy->text == each.remedy);
        CHECK(typed({each.typed}).page == std::vector<std::string>{each.typed}); // nothing is made of it
    }
}
