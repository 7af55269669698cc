#include "files/figure_series.h"
#include "files/file_access.h"
#include "files/recipe.h"

#include <catch2/catch.hpp>
#include <filesystem>
#include <unistd.h>

using namespace coulter;
namespace fs = std::filesystem;

namespace {

struct Folder {
    fs::path path = fs::temp_directory_path() / ("coulter-series-" + std::to_string(::getpid()));
    Folder() { fs::create_directories(path); }
    ~Folder() { fs::remove_all(path); }
};

Document figureOf(const std::string& formula) {
    Document d;
    d.page = {"f(x) = " + formula, "a = 2, from 0 to 5", "x in [0, 1]"};
    d.panels[0].plots = {plotOf("f(x)")};
    return d;
}

} // namespace

TEST_CASE("a series has a figure of each value, called by it, with the value in its recipe") {
    const Folder folder;
    const SeriesMade made = seriesOf(figureOf("a x"), {"a", {"1", "2.5", "4"}}, folder.path, "slopes", "svg");
    REQUIRE_FALSE(made.problem);
    REQUIRE(made.figures.size() == 3);
    CHECK(made.figures[1].target == folder.path / "slopes-2.5.svg");
    std::vector<std::string> alone;
    for (const std::size_t jobs : {1U, 3U}) {
        std::vector<std::size_t> told;
        const SeriesWritten written = writeSeries(made.figures, *findFormat("svg"), jobs, {}, {},
                                                  [&](std::size_t done) { told.push_back(done); });
        CHECK(written.files.size() == 3);
        CHECK(written.problems.empty());
        CHECK_FALSE(written.stopped);
        CHECK(told == std::vector<std::size_t>{1, 2, 3});
        for (std::size_t i = 0; i < 3; ++i) {
            const std::string bytes = *readFile(made.figures[i].target).bytes;
            if (jobs == 1) alone.push_back(bytes);
            CHECK(bytes == alone[i]);
            CHECK_FALSE(verifyFigure(bytes));
        }
    }
    CHECK(readRecipe(*findRecipe(alone[2]).recipe).document->page[1].starts_with("a = 4"));
}

TEST_CASE("of a series each figure that fails is named, and the others are written") {
    const Folder folder;
    std::vector<SeriesFigure> figures;
    for (const char* formula : {"x", "x +", "x^2"})
        figures.push_back({figureOf(formula), folder.path / (std::to_string(figures.size()) + ".pdf")});
    figures.push_back({figureOf("x"), folder.path / "not there" / "4.pdf"});
    const SeriesWritten written = writeSeries(figures, *findFormat("pdf"), 2, {});
    CHECK(written.files == std::vector<fs::path>{folder.path / "0.pdf", folder.path / "2.pdf"});
    REQUIRE(written.problems.size() == 2);
    CHECK(written.problems[0].sentence.starts_with("1.pdf: "));
    CHECK(written.problems[1].sentence.starts_with("4.pdf: "));
    const SeriesMade made = seriesOf(figureOf("x"), {"b", {"1", "2"}}, folder.path, "none", "pdf");
    REQUIRE(made.problem);
    CHECK(made.figures.empty());
    CHECK(made.problem->sentence.find("“b”") != std::string::npos);
}

TEST_CASE("a series that is stopped leaves what is written, and nothing half") {
    const Folder folder;
    std::vector<SeriesFigure> figures;
    for (int i = 0; i < 50; ++i) figures.push_back({figureOf("a x"), folder.path / (std::to_string(i) + ".svg")});
    std::stop_source stop;
    const SeriesWritten written =
        writeSeries(figures, *findFormat("svg"), 1, stop.get_token(), {}, [&](std::size_t done) {
            if (done == 5) stop.request_stop();
        });
    CHECK(written.stopped);
    CHECK(written.files.size() == 5);
    std::size_t there = 0;
    for (const auto& entry : fs::directory_iterator(folder.path)) {
        ++there;
        CHECK_FALSE(verifyFigure(*readFile(entry.path()).bytes));
    }
    CHECK(there == 5);
}
