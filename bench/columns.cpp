// Reading a table of many rows from a file, beside a pass over its bytes that only finds its numbers; and drawing as
// many points for the first time, beside one pass over their memory. Usage: bench_columns [ROWS]
#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "data/read_table.h"
#include "files/export.h"
#include "shortest.h"

#include <charconv>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <random>
#include <sys/resource.h>

using namespace coulter;

namespace {

/// Numbers of a text, found one after the other, with whatever stands between them.
double foundNumbers(const std::string& text) {
    double sum = 0;
    for (const char *at = text.data(), *end = at + text.size(); at < end;) {
        double number = 0;
        const auto [after, error] = std::from_chars(at, end, number);
        if (error == std::errc{}) sum += number;
        at = after == at ? at + 1 : after;
    }
    return sum;
}

double peakMegabytes() {
    rusage usage{};
    getrusage(RUSAGE_SELF, &usage);
    return static_cast<double>(usage.ru_maxrss) / 1024;
}

} // namespace

int main(int count, char** words) {
    const long rows = count > 1 ? std::atol(words[1]) : 10'000'000;
    const auto path = std::filesystem::temp_directory_path() / "coulter-bench-columns.csv";
    {
        std::mt19937_64 random(1);
        std::ofstream file(path);
        file << "t / s,s / m\n";
        char line[64];
        for (long i = 0; i < rows; ++i) {
            const int size =
                std::snprintf(line, sizeof line, "%ld,%.6f\n", i, static_cast<double>(random() % 2000000) / 1e6);
            file.write(line, size);
        }
    }
    const double before = peakMegabytes();
    const double reading = milliseconds([&] {
        if (!readTableFile(path).table) std::abort();
    });
    const double peak = peakMegabytes() - before;
    TableRead read = readTableFile(path);
    const auto start = std::chrono::steady_clock::now();
    if (read.table->digest.text().empty()) std::abort();
    const double digesting =
        std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - start).count();
    std::string text(std::filesystem::file_size(path), ' ');
    double sum = 0;
    const double plain = milliseconds([&] {
        std::ifstream(path, std::ios::binary).read(text.data(), static_cast<std::streamsize>(text.size()));
        sum += foundNumbers(text);
    });
    const double numbers = 2.0 * static_cast<double>(rows) * sizeof(double) / 1024 / 1024;
    std::printf("reading %ld rows: %.0f ms, %.2f x a plain pass that finds the numbers (%.0f ms); memory %.1f x the "
                "numbers; then its digest: %.0f ms\n",
                rows, reading, reading / plain, plain, peak / numbers, digesting);
    Document document;
    document.page = {"(t, s) from \"x\""};
    read.table->source = "x";
    read.table->isBeside = true; // so many numbers are not kept in a recipe
    document.tables.put(std::move(*read.table));
    document.panels[0].plots = {plotOf("(t, s)", "points")};
    const auto& columns = document.tables.find("x")->columns;
    const double pass = milliseconds([&] {
        for (const DataColumn& column : columns) {
            for (const double value : *column.numbers) sum += value;
        }
    });
    Figure figure;
    const double first = milliseconds([&] { figure = drawFigure(document); });
    const Exported pdf = exportFigure(document, *findFormat("pdf"));
    std::printf("first drawn: %.0f ms, %.2f x (two passes over their memory, %.0f ms each, and 20 ms); PDF %.2f MB "
                "(%g)\n",
                first, first / (2 * pass + 20), pass, pdf.bytes ? static_cast<double>(pdf.bytes->size()) / 1e6 : -1.0,
                sum);
    std::filesystem::remove(path);
    return figure.panels.empty() ? 1 : 0;
}
