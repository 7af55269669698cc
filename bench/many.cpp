// A million of anything: how long it takes to draw once it is sampled, and how large its files are. The yardstick is
// putting a million points onto the sheet, which every kind has to do at least once.
#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "files/export.h"
#include "files/formats.h"
#include "plots/plot_kind.h"
#include "shortest.h"

#include <algorithm>
#include <cstdio>

using namespace coulter;

namespace {

struct Case {
    const char* kind;
    const char* of;
    Settings settings;
};

} // namespace

/// With the name of a kind: only that one.
int main(int count, char** words) {
    std::printf("%-28s %9s %9s %8s %8s %8s\n", "a million", "draw ms", "yardsticks", "PDF MB", "SVG MB", "PNG MB");
    for (const Case& c : {Case{"points", "(X, Y)", {}}, Case{"points", "(X, Y)", {{"shape", std::string("cross")}}},
                          Case{"points", "(t, X)", {{"joined", std::string("in order")}, {"size", 0.1}}},
                          Case{"steps", "(t, X)", {}}, Case{"bars", "X", {}}, Case{"histogram", "X", {}},
                          Case{"error bars", "(t, X)", {{"error up", std::string("0.2")}}}, Case{"stems", "f(n)", {}},
                          Case{"line", "f(n)", {}}, Case{"markers", "f(n)", {}}}) {
        if (count > 1 && std::string(words[1]) != c.kind) continue;
        Document document;
        document.page = {"X ~ N(0, 1), count 1000000, seed 1", "Y ~ U(0, 1), count 1000000, seed 2",
                         "t = {1, 2, ..., 1000000}", "f(n) = sin(n) + sin(n^2/1e6)", "n in [1, 1000000], step 1"};
        Plot plot = plotOf(c.of, c.kind);
        plot.settings = c.settings;
        document.panels[0].plots = {plot};
        const Figure figure = drawFigure(document);
        if (figure.panels[0].drawn.empty()) {
            std::printf("%s %s cannot be drawn: %s\n", c.kind, c.of, figure.panels[0].problems[0][0].sentence.c_str());
            return 1;
        }
        const Drawn& drawn = figure.panels[0].drawn[0];
        const Frame& frame = figure.panels[0].frame();
        const double drawing = milliseconds([&] {
            Scene scene;
            Canvas canvas(scene, frame.rect, figure.effort.dotsPerMm);
            drawn.kind->draw(drawn, frame, canvas);
        });
        std::vector<Point> places(1'000'000);
        const double yardstick = milliseconds([&] {
            for (std::size_t i = 0; i < places.size(); ++i)
                places[i] = frame.onSheet(static_cast<double>(i), static_cast<double>(i % 1000));
        });
        std::printf("%-28s %9.1f %9.1f", (std::string(c.kind) + " " + c.of).c_str(), drawing, drawing / yardstick);
        for (const char* format : {"pdf", "svg", "png"}) {
            const Exported exported = exportFigure(document, *findFormat(format));
            std::printf(" %8.2f", exported.bytes ? static_cast<double>(exported.bytes->size()) / 1e6 : -1.0);
        }
        std::printf("\n");
        std::fflush(stdout);
    }
    return 0;
}
