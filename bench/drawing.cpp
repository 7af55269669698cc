// What the sheet costs: a full sheet from its document to dots, a note that is moved over a heavy field, and figures of
// a sweep on all of the processor's cores beside one.
#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "files/figure_raster.h"
#include "plots/plot_kind.h"

#include <algorithm>
#include <chrono>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <thread>
#include <unistd.h>
#include <vector>

using namespace coulter;
namespace fs = std::filesystem;

namespace {

constexpr double screen = 96 / 25.4; // dots in a mm

double milliseconds(const auto& work) {
    const auto start = std::chrono::steady_clock::now();
    work();
    return 1e3 * std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
}

double best(int times, const auto& work) {
    double least = HUGE_VAL;
    for (int i = 0; i < times; ++i) least = std::min(least, milliseconds(work));
    return least;
}

/// Six panels with ten curves each, labelled, with legends.
Document fullSheet() {
    Document document;
    document.page = {"f(x, a) = sin(a x) exp(-x/5) + a/10", "x in [0, 10], unit s, label \"Time\""};
    document.sheet.width = 180;
    document.sheet.height = 160;
    document.panels.assign(6, Panel{});
    for (int p = 0; p < 6; ++p) {
        Panel& panel = document.panels[static_cast<std::size_t>(p)];
        panel.cell = Cell{p / 2, p % 2, 1, 1};
        panel.title = "Plot " + std::to_string(p + 1);
        for (int k = 0; k < 10; ++k)
            panel.plots.push_back(plotOf("f(x, " + std::to_string(0.5 + 0.3 * k + 0.1 * p) + ")"));
    }
    return document;
}

void fullSheetOnce() {
    const Document document = fullSheet();
    Effort effort = effortOf(document.sheet);
    effort.proofs = false; // the picture comes before them
    std::size_t points = 0;
    const double drawing = best(9, [&] {
        const Figure figure = drawFigure(document, effort);
        points = 0;
        for (const PanelFigure& panel : figure.panels) {
            for (const Drawn& drawn : panel.drawn) {
                for (const Stretch& stretch : std::get<CurveSamples>(*drawn.parts[0].samples).stretches)
                    points += stretch.x.size();
            }
        }
    });
    const Figure figure = drawFigure(document, effort);
    const double dots = best(9, [&] { paintRaster(figure.scene, screen); });
    std::printf(
        "six panels with 60 curves (%zu points): from the document to a scene %.1f ms, to dots of a screen %.1f "
        "ms more; aim 60\n",
        points, drawing, dots);
}

void noteOverField() {
    Document document;
    document.page = {"f(x, y) = sin(3 x) cos(2 y) exp(-x^2/9)", "x in [-5, 5], count 640", "y in [-4, 4], count 640"};
    document.panels[0].plots = {plotOf("f(x, y)", "heatmap")};
    Note note;
    note.words = "here";
    document.panels[0].notes = {note};
    const Effort effort = effortOf(document.sheet); // as the window has it
    SampleStore store;
    const auto moved = [&](double x) {
        document.panels[0].notes[0].at = {{std::to_string(x), "1"}};
        const Figure figure = drawFigure(document, effort, {}, &store);
        paintRaster(figure.scene, screen);
    };
    const double first = milliseconds([&] { moved(0); });
    double x = 0;
    const double each = best(15, [&] { moved(x += 0.1); });
    std::printf("a note moved over a field of 409600 points: %.1f ms a picture (%.0f a second), the first one %.1f ms; "
                "aim 60 a second\n",
                each, 1e3 / each, first);
}

/// A surface that is turned: its samples stay, all else is drawn anew.
void turnedSurface() {
    Document document;
    document.page = {"f(x, y) = exp(-x^2 - y^2) cos(3 x)", "x in [-2, 2], count 256", "y in [-2, 2], count 256"};
    Plot plot = plotOf("f(x, y)", "surface");
    plot.settings["shown"] = std::string("lit");
    document.panels[0].plots = {plot};
    SampleStore store;
    double azimuth = 0;
    const auto turned = [&](const Effort& effort) {
        document.panels[0].view.azimuth = azimuth += 3;
        const Figure figure = drawFigure(document, effort, {}, &store);
        paintRaster(figure.scene, screen);
    };
    turned(effortOf(document.sheet));
    const double fine = best(15, [&] { turned(effortOf(document.sheet)); }),
                 coarse = best(15, [&] { turned(coarseEffortOf(document.sheet)); });
    std::printf(
        "a lit surface of 256 x 256 points turned: %.1f ms a picture (%.0f a second), as coarse as it is while the "
        "hand moves %.1f ms (%.0f a second); aim 30 a second\n",
        fine, 1e3 / fine, coarse, 1e3 / coarse);
}

void sweepOnCores(const std::string& program) {
    const fs::path folder = fs::temp_directory_path() / ("coulter-drawing-" + std::to_string(::getpid()));
    fs::create_directories(folder);
    std::ofstream(folder / "wave.coulter")
        << R"json({"coulter": 6, "page": ["f(x) = q sin(x) + J_0(q x)", "q = 1", "x in [0, 20]"],
        "sheet": {"width": 120, "height": 80}, "panels": [{"plots": [{"kind": "line", "of": "f(x)"}]}]})json";
    const auto run = [&](unsigned jobs, const char* taskset) {
        const std::string command = std::string(taskset) + program + " render " + (folder / "wave.coulter").string() +
                                    " -o " + (folder / std::to_string(jobs)).string() +
                                    "/ --format png --set q=0..5 --count 500 --jobs " + std::to_string(jobs) +
                                    " > /dev/null";
        return milliseconds([&] {
            if (std::system(command.c_str()) != 0) std::printf("the sweep could not be made\n");
        });
    };
    const unsigned cores = std::thread::hardware_concurrency();
    const double one = run(1, "taskset -c 0 "), all = run(cores, "");
    std::printf("a sweep of 500 figures: %.1f s on one core, %.1f s on %u, %.2f × as fast\n", one / 1e3, all / 1e3,
                cores, one / all);
    fs::remove_all(folder);
}

} // namespace

/// @param arguments  the program, for the sweep
int main(int count, char** arguments) {
    fullSheetOnce();
    noteOverField();
    turnedSurface();
    if (count > 1) sweepOnCores(arguments[1]);
}
