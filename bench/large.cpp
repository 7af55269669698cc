// What is large, in one run beside what it cannot be faster than: the first picture of a netCDF field of a gigabyte
// beside reading the bytes that it needs, and a sweep of a thousand figures in four parts beside the same in one.
#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "data/netcdf_file.h"
#include "data/read_file.h"
#include "files/figure_raster.h"
#include "formula/lines/read_page.h"
#include "formula/measured/measured_field.h"
#include "formula/page/page.h"
#include "plots/drawn.h"
#include "plots/plot_kind.h"
#include "sampling/field.h"

#include <chrono>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <fcntl.h>
#include <fstream>
#include <netcdf.h>
#include <sys/resource.h>
#include <tbb/parallel_for.h>
#include <thread>
#include <unistd.h>

using namespace coulter;
namespace fs = std::filesystem;

namespace {

constexpr std::size_t side = 512, times = 480;

double milliseconds(const auto& work) {
    const auto start = std::chrono::steady_clock::now();
    work();
    return 1e3 * std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
}

void makeField(const fs::path& path) {
    int id = 0, d[3] = {}, h = 0;
    nc_create(path.c_str(), NC_64BIT_OFFSET | NC_CLOBBER, &id);
    nc_def_dim(id, "t", times, &d[0]);
    nc_def_dim(id, "y", side, &d[1]);
    nc_def_dim(id, "x", side, &d[2]);
    nc_def_var(id, "h", NC_DOUBLE, 3, d, &h);
    nc_enddef(id);
    std::vector<double> layer(side * side);
    for (std::size_t t = 0; t < times; ++t) {
        for (std::size_t i = 0; i < layer.size(); ++i)
            layer[i] = std::sin(static_cast<double>(i % side) / 40 + static_cast<double>(t) / 9) *
                       std::cos(static_cast<double>(i / side) / 30);
        const std::size_t start[] = {t, 0, 0}, count[] = {1, side, side};
        nc_put_vara_double(id, h, start, count, layer.data());
    }
    nc_close(id);
}

/// Nothing of a file stays in the memory: as on a morning on which it was not read yet.
void forget(const fs::path& path) {
    const int file = ::open(path.c_str(), O_RDONLY);
    ::fdatasync(file);
    ::posix_fadvise(file, 0, 0, POSIX_FADV_DONTNEED);
    ::close(file);
}

void firstPicture(const fs::path& path) {
    std::vector<double> plain(side * side), places(side);
    for (std::size_t i = 0; i < side; ++i) places[i] = static_cast<double>(i) + 0.5;
    std::size_t layer = 100;
    double sum = 0;
    const auto bytes = [&] {
        int id = 0;
        nc_open(path.c_str(), NC_NOWRITE, &id);
        const std::size_t start[] = {layer, 0, 0}, count[] = {1, side, side};
        nc_get_vara_double(id, 0, start, count, plain.data());
        nc_close(id);
    };
    // The bytes, and a field evaluated over them that is in the memory already.
    const auto reading = [&] {
        bytes();
        const MeasuredGrid grid{{places, places}, std::make_shared<const std::vector<double>>(plain)};
        const auto inMemory = fieldOfGrid(grid);
        std::vector<double> values(plain.size());
        tbb::parallel_for(std::size_t{0}, side, [&](std::size_t y) {
            for (std::size_t x = 0; x < side; ++x) {
                const double place[] = {places[x], places[y]};
                values[y * side + x] = inMemory->at(place);
            }
        });
        sum += values[7];
    };
    const auto opening = [&] {
        TableRead read = readDataFile(path);
        read.table->source = "h.nc";
        DataTables tables;
        tables.put(std::move(*read.table));
        const std::vector<std::string> lines{"h(x, y, t) from \"h.nc\"", "x in [0, 512], step 1", "y in [0, 512]",
                                             "T = " + std::to_string(layer)};
        const Page page = readPage(lines, tables);
        Panel panel;
        panel.plots.push_back(plotOf("h(x, y, T)", "heatmap"));
        const PanelReading plots = readPlots(page, panel);
        const Field* field = fieldOf(plots.drawn.at(0));
        sum += sampleMeshgrid(*field->program, places, places).values[0][7];
    };
    // The whole of it: read, sampled, laid out, and as dots of a sheet of 100 × 80 mm at 150 dots an inch.
    const auto whole = [&] {
        Document document;
        TableRead read = readDataFile(path);
        read.table->source = "h.nc";
        document.tables.put(std::move(*read.table));
        document.page = {"h(x, y, t) from \"h.nc\"", "x in [0, 512], step 1", "y in [0, 512]",
                         "T = " + std::to_string(layer)};
        document.sheet.width = 100;
        document.sheet.height = 80;
        document.sheet.resolution = 150;
        document.panels[0].plots = {plotOf("h(x, y, T)", "heatmap")};
        const Figure figure = drawFigure(document);
        sum += rasterOf(figure).raster.pixels[0];
    };
    double coldWhole = HUGE_VAL;
    double a = HUGE_VAL, b = HUGE_VAL, coldBytes = HUGE_VAL, cold = HUGE_VAL;
    for (int run = 0; run < 18; ++run) {
        layer = 10 + 25 * static_cast<std::size_t>(run); // never one that is kept
        a = std::min(a, milliseconds(reading));
        layer += 7;
        fs::last_write_time(path, fs::file_time_type::clock::now()); // as if it were opened for the first time
        b = std::min(b, milliseconds(opening));
        layer += 7;
        forget(path);
        coldBytes = std::min(coldBytes, milliseconds(bytes));
        layer += 7;
        forget(path);
        cold = std::min(cold, milliseconds(opening));
        layer += 7;
        forget(path);
        coldWhole = std::min(coldWhole, milliseconds(whole));
    }
    std::printf("the numbers of the first picture of a netCDF file of 1 GB of which nothing is in the memory: %.2f ms; "
                "reading their bytes alone: %.2f ms; ratio %.2f\n",
                cold, coldBytes, cold / coldBytes);
    std::printf("the whole figure as dots of a sheet of 100 mm by 80 mm at 150 dots an inch: %.2f ms; ratio %.2f\n",
                coldWhole, coldWhole / coldBytes);
    std::printf(
        "the numbers of the first picture of a netCDF file of 1 GB: %.2f ms; reading their bytes and evaluating "
        "a field over them in the memory: %.2f ms; "
        "ratio %.2f (%.3g)\n",
        b, a, b / a, sum + plain[7]);
}

double processorSeconds() {
    rusage used{};
    getrusage(RUSAGE_CHILDREN, &used);
    const auto seconds = [](const timeval& time) {
        return static_cast<double>(time.tv_sec) + 1e-6 * static_cast<double>(time.tv_usec);
    };
    return seconds(used.ru_utime) + seconds(used.ru_stime);
}

void sweep(const fs::path& folder, const std::string& program) {
    std::ofstream(folder / "wave.coulter")
        << R"json({"coulter": 5, "page": ["f(x) = q sin(x) + J_0(q x)", "q = 1", "x in [0, 20]"],
        "sheet": {"width": 60, "height": 45, "resolution": 100}, "panels": [{"plots": [{"kind": "line", "of": "f(x)"}]}]})json";
    const auto run = [&](const std::string& into, const std::string& part) {
        const double before = processorSeconds();
        const std::string command = program + " render " + (folder / "wave.coulter").string() + " -o " +
                                    (folder / into).string() + "/ --format png --set q=0..5 --count 1000 --part " +
                                    part + " > /dev/null";
        if (std::system(command.c_str()) != 0) std::printf("a part could not be made\n");
        return processorSeconds() - before;
    };
    const double whole = run("one", "1/1");
    double all = 0;
    std::printf("a sweep of 1000 figures: %.1f s of processor time in one part;", whole);
    for (int part = 1; part <= 4; ++part) {
        const double quarter = run("four", std::to_string(part) + "/4");
        all += quarter;
        std::printf(" %.1f", quarter);
    }
    std::printf(" s in four, ratio %.3f\n", all / whole);
}

} // namespace

/// @param arguments  the program, for the sweep
int main(int count, char** arguments) {
    const fs::path folder = fs::temp_directory_path() / ("coulter-large-" + std::to_string(::getpid()));
    fs::create_directories(folder);
    ::setenv("XDG_CACHE_HOME", folder.c_str(), 1);
    makeField(folder / "h.nc");
    std::this_thread::sleep_for(std::chrono::seconds(3)); // digests of what was just written are not kept
    firstPicture(folder / "h.nc");
    if (count > 1) sweep(folder, arguments[1]);
    fs::remove_all(folder);
}
