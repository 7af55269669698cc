#include "dear/dear_recipes.h"

using namespace coulter;

namespace {

using Lines = std::vector<std::string>;

std::string numbers(int last) {
    std::string all;
    for (int k = 1; k <= last; ++k) all += (k == 1 ? "" : ", ") + std::to_string(k);
    return all;
}

Document documentOf(Lines page, const std::vector<std::string>& plots, const char* kind = "line") {
    Document d;
    d.page = std::move(page);
    for (const std::string& of : plots) {
        Plot plot;
        plot.kind = kind;
        plot.of = of;
        d.panels[0].plots.push_back(plot);
    }
    return d;
}

/// f_0 to f_last, each made of the one before.
Document doubling(const std::string& step) {
    Lines page{"f_0(x) = sin(x)"};
    for (int k = 1; k <= 40; ++k) {
        std::string line = "f_{" + std::to_string(k) + "}(x) = " + step;
        for (std::size_t at = 0; (at = line.find('#', at)) != std::string::npos;)
            line.replace(at, 1, "f_{" + std::to_string(k - 1) + "}");
        page.push_back(line);
    }
    page.emplace_back("x in [0, 10]");
    return documentOf(page, {"f_{40}(x)"});
}

std::string repeated(const std::string& part, int times) {
    std::string all;
    for (int k = 0; k < times; ++k) all += part;
    return all;
}

} // namespace

std::vector<DearRecipe> dearRecipes() {
    std::vector<DearRecipe> all;
    const auto add = [&](const char* name, Document document) { all.push_back({name, std::move(document)}); };
    const std::string triple = "g(x, y) = int_0^1 int_0^1 int_0^1 cos(a b c x + y) da db dc";
    add("a family of families",
        documentOf({"f(x, a, b) = sin(a x + b)", "x in [0, 10]"},
                   {"f(x, a, b) for a in {" + numbers(100) + "} for b in {" + numbers(100) + "}"}));
    add("a family of a thousand",
        documentOf({"f(x, a) = sin(a x)", "x in [0, 10]"}, {"f(x, a) for a in {" + numbers(1000) + "}"}));
    add("calls that double forty times", doubling("#(x + 1) + #(x - 1)"));
    add("squares that double forty times", doubling("#(x) #(x)"));
    add("three integrals over a field", documentOf({triple, "x in [0, 3]", "y in [0, 3]"}, {"g(x, y)"}, "heatmap"));
    add("three integrals on a grid",
        documentOf({triple, "x in [0, 3], count 200", "y in [0, 3], count 200"}, {"g(x, y)"}, "heatmap"));
    add("four integrals",
        documentOf({"g(x) = int_0^1 int_0^1 int_0^1 int_0^1 exp(-a b c d x) da db dc dd", "x in [0, 3]"}, {"g(x)"}));
    add("a family of integrals", documentOf({"f(x, n) = int_0^x sin(n k^2) exp(-k) dk", "x in [0, 30]"},
                                            {"f(x, n) for n in {" + numbers(100) + "}"}));
    add("an integral that oscillates",
        documentOf({"f(x) = int_0^inf sin(k^2 x)/(1 + k) dk", "x in [0.1, 3]"}, {"f(x)"}));
    add("a number of four integrals",
        documentOf(
            {"q = int_0^1 int_0^1 int_0^1 int_0^1 sin(a b c d)^2/(a + b) da db dc dd", "f(x) = q x", "x in [0, 1]"},
            {"f(x)"}));
    std::vector<std::string> many, same;
    for (int k = 1; k <= 200; ++k) {
        many.push_back("f(x, " + std::to_string(k) + ")");
        same.emplace_back("s(x)");
    }
    add("200 plots", documentOf({"f(x, n) = sin(n x) exp(-x/n)", "x in [0, 10]"}, many));
    add("200 plots of one", documentOf({"s(x) = sum_{k=1}^{200} cos(k x)/k", "x in [0, 10]"}, same));
    add("a huge grid", documentOf({"g(x, y) = sin(x y)", "x in [0, 3], count 8000", "y in [0, 3], count 8000"},
                                  {"g(x, y)"}, "heatmap"));
    add("a grid beyond all",
        documentOf({"g(x, y) = sin(x y)", "x in [0, 3], count 100000", "y in [0, 3], count 100000"}, {"g(x, y)"},
                   "heatmap"));
    add("a line of a hundred million points", documentOf({"f(x) = sin(x)", "x in [0, 3], count 1e8"}, {"f(x)"}));
    Document title = documentOf({"f(x) = sin(x)", "x in [0, 3]"}, {"f(x)"});
    title.panels[0].title = repeated("very long words ", 2400);
    add("a title of forty thousand letters", title);
    Lines prose(1990, repeated("text of a line ", 600));
    prose.insert(prose.end(), {"f(x) = sin(x)", "x in [0, 3]"});
    add("a page of eighteen million letters", documentOf(prose, {"f(x)"}));
    add("a long formula", documentOf({"f(x) = x" + repeated(" + sin(3 x)", 900), "x in [0, 3]"}, {"f(x)"}));
    add("ten thousand terms", documentOf({"f(x) = sum_{k=1}^{10000} cos(k x)/k", "x in [0, 3]"}, {"f(x)"}));
    add("sums of sums", documentOf({"f(x) = sum_{k=1}^{300} sum_{n=1}^{300} cos(k n x)/k", "x in [0, 3]"}, {"f(x)"}));
    add("the eighth derivative of sixty factors",
        documentOf({"f(x) = " + repeated("sin(x + 1) cos(2 x) ", 30), "g(x) = d^8/dx^8(f(x))", "x in [0, 1]"},
                   {"g(x)"}));
    add("a wild field", documentOf({"g(x, y) = sin(1/(x y)) + floor(100 x y)", "x in [-1, 1]", "y in [-1, 1]"},
                                   {"g(x, y)"}, "heatmap"));
    add("a field of special functions",
        documentOf({"g(x, y) = F(x, y; 2.5; x y/10) + J_{2}(9 x) Y_{3}(2 + y)", "x in [0.1, 3]", "y in [0.1, 3]"},
                   {"g(x, y)"}, "heatmap"));
    add("a million steps", documentOf({"f(x) = floor(1e6 x) sin(1e5 x)", "x in [0, 1]"}, {"f(x)"}));
    add("waves on waves", documentOf({"f(x) = sum_{n=0}^{40} 0.5^n cos(3^n pi x)", "x in [-3, 3]"}, {"f(x)"}));
    return all;
}
