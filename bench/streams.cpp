// Streamlines beside the same number of evaluations alone, and what a draft costs with every edit, beside writing the
// same bytes plainly.
#include "files/draft.h"
#include "files/recipe.h"
#include "formula/compile/compile.h"
#include "formula/lines/read_page.h"
#include "formula/page/page.h"
#include "sampling/streamlines.h"
#include "shortest.h"

#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>

using namespace coulter;

namespace {

void sayStreams(const char* what, const std::string& field) {
    const std::vector<std::string> lines{"v(x, y) = " + field};
    const Page page = readPage(lines);
    const auto program = compile(page, page.lines[0].body, page.lines[0].parameters).program;
    Evaluator evaluator(*program);
    std::size_t evaluations = 0;
    const Direction direction = [&](const PlaceInMm& mm) -> PlaceInMm {
        ++evaluations;
        const double x = mm[0] / 10 - 6, y = mm[1] / 10 - 4;
        double u = 0, v = 0;
        const double* const in[] = {&x, &y};
        double* const out[] = {&u, &v};
        evaluator(in, out, 1);
        const double length = std::hypot(u, v);
        return length > 0 ? PlaceInMm{u / length, v / length} : PlaceInMm{std::nan(""), std::nan("")};
    };
    const StreamRules rules{120, 80, 0.02, 5000};
    std::vector<Streamline> found;
    const double time = milliseconds([&] {
        evaluations = 0;
        found = evenStreamlines(direction, 4, rules);
    });
    const std::size_t taken = evaluations;
    double length = 0;
    for (const Streamline& line : found) {
        for (std::size_t i = 1; i < line.points.size(); ++i)
            length += std::hypot(line.points[i][0] - line.points[i - 1][0], line.points[i][1] - line.points[i - 1][1]);
    }
    volatile double kept = 0;
    const double alone = milliseconds([&] {
        for (std::size_t i = 0; i < taken; ++i) kept = direction({static_cast<double>(i % 120), 40})[0];
    });
    std::printf("%-28s %3zu lines, %5.0f mm, %6zu values (%.0f for each mm), %.2f x these values alone\n", what,
                found.size(), length, taken, static_cast<double>(taken) / length, time / alone);
}

void sayDraft(const char* what, std::size_t lines) {
    Document document;
    for (std::size_t i = 0; i < lines; ++i)
        document.page.push_back("f_" + std::to_string(i) + "(x) = sin(" + std::to_string(i) + " x) + exp(-x)");
    std::string folder = (std::filesystem::temp_directory_path() / "coulter-bench-XXXXXX").string();
    if (!::mkdtemp(folder.data())) return;
    Draft draft(folder);
    std::size_t size = 0;
    const double kept = milliseconds([&] { size = draft.keep(document, "bench"); });
    const std::string text = writeRecipe(document);
    const double plain = milliseconds([&] { std::ofstream(folder + "/plain", std::ios::binary) << text; });
    std::printf("%-28s %7zu bytes kept in %.2f ms, %.1f x writing them plainly\n", what, size, kept, kept / plain);
    std::filesystem::remove_all(folder);
}

} // namespace

int main() {
    sayStreams("rotation and shear", "(-y + x/9, x)");
    sayStreams("pendulum", "(y, -sin(x) - y/8)");
    sayStreams("two wells", "(0.6 - 1.2 (x - 3)/((x - 3)^2 + y^2), -1.2 y/((x - 3)^2 + y^2))");
    sayDraft("draft of 10 lines", 10);
    sayDraft("draft of 1000 lines", 1000);
}
