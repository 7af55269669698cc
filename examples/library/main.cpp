// How far a well draws the water table down, as a table, as zeros with a proof, and as a figure that rebuilds byte for
// byte: the library of Coulter from a program of one's own.
#include <coulter/coulter.h>

#include <cstdio>
#include <fstream>

namespace co = coulter::api;

namespace {

int refuse(const std::vector<co::Problem>& problems) {
    for (const co::Problem& problem : problems) std::fprintf(stderr, "%s\n", problem.text().c_str());
    return 1;
}

} // namespace

int main(int argc, char** argv) {
    const co::Page page({"s(r, t) = Q/(4 pi T) E_1(r^2 S_0/(4 T t)), unit m, label \"Drawdown\"",
                         "Q = 800, unit m3/day", "T = 250, unit m2/day", "S_0 = 0.02", "t in [0.01, 10], unit day"});
    if (!page.problems().empty()) return refuse(page.problems());

    // A value with a bound of its error, and a place with a proof.
    const auto drawdown = page.value("s(30, 1)");
    const auto reached = page.value("s(30, t) = 0.5 for t in [0.01, 10]");
    if (!drawdown) return refuse(drawdown.problems);
    if (!reached) return refuse(reached.problems);
    std::printf("after a day: %s m\n", drawdown->text.c_str());
    std::printf("half a metre after %.6g days%s\n", reached->numbers.at(0), reached->isProven ? ", proven" : "");

    // A formula, evaluated in bulk.
    const auto s = page.function("s(r, 1)", {"r"});
    if (!s) return refuse(s.problems);
    for (const double r : {10.0, 30.0, 100.0}) std::printf("%5g m from the well: %.4f m\n", r, (*s)(r));

    // A figure, its samples and its bytes.
    auto figure = co::Figure(page).with("line", "s(r, t) for r in {10, 30, 100}");
    if (figure) figure = figure->withValue("sheet.width", "120");
    if (!figure) return refuse(figure.problems);
    const auto samples = figure->samples(0, 0, 1);
    const auto bytes = figure->bytes("svg");
    if (!samples) return refuse(samples.problems);
    if (!bytes) return refuse(bytes.problems);
    std::printf("the curve at 30 m has %zu points\n", samples->states.size());
    const auto changed = co::Figure::verify(*bytes);
    if (!changed.empty()) return refuse(changed);
    if (argc > 1) std::ofstream(argv[1], std::ios::binary) << *bytes;
    std::printf("the figure has %zu remarks\n", figure->remarks().size());
    return 0;
}
