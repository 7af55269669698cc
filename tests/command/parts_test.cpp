// A sweep made in parts, on one machine or many.
#include "run_program.h"

#include "command/sweep_index.h"
#include "data/read_table.h"
#include "files/file_access.h"

#include <algorithm>
#include <csignal>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <map>
#include <random>
#include <thread>
#include <unistd.h>

using namespace coulter;
namespace fs = std::filesystem;

namespace {

struct Folder {
    fs::path path = fs::temp_directory_path() / ("coulter-parts-" + std::to_string(::getpid()));
    Folder() {
        fs::create_directories(path);
        std::ofstream(path / "wave.coulter")
            << R"json({"coulter": 5, "page": ["f(x) = q sin(x)", "q = 1", "x in [0, 6]", "k = 7"],
                  "panels": [{"plots": [{"kind": "line", "of": "f(x)"}]}]})json";
    }
    ~Folder() { fs::remove_all(path); }
    std::string operator/(const std::string& name) const { return (path / name).string(); }
};

const std::string program = std::getenv("COULTER_PROGRAM");

Ran sweep(const Folder& folder, const std::string& into, const std::string& part, int count = 9) {
    return shell(program + " render " + (folder / "wave.coulter") + " -o " + (folder / into) +
                 "/ --format svg --set q=0..4 --count " + std::to_string(count) +
                 (part.empty() ? "" : " --part " + part));
}

/// Files of a folder by name, hidden ones and indexes aside, with their bytes.
std::map<std::string, std::string> figuresIn(const fs::path& folder) {
    std::map<std::string, std::string> found;
    for (const auto& entry : fs::directory_iterator(folder)) {
        const std::string name = entry.path().filename().string();
        if (name.ends_with(".svg") && name[0] != '.') found[name] = *readFile(entry.path()).bytes;
    }
    return found;
}

std::size_t hiddenIn(const fs::path& folder) {
    return static_cast<std::size_t>(std::ranges::count_if(
        fs::directory_iterator(folder), [](const auto& entry) { return entry.path().filename().string()[0] == '.'; }));
}

} // namespace

TEST_CASE("parts of a sweep are the whole, and no figure is in two of them") {
    const Folder folder;
    REQUIRE(sweep(folder, "whole", "").status == 0);
    std::size_t made = 0;
    for (const char* part : {"1/4", "2/4", "3/4", "4/4"}) {
        const Ran ran = sweep(folder, "parts", part);
        INFO(ran.out);
        REQUIRE(ran.status == 0);
        const std::size_t now = figuresIn(folder / "parts").size();
        CHECK(now - made == static_cast<std::size_t>(std::ranges::count(ran.out, '\n')));
        CHECK(now - made <= 3);
        made = now;
    }
    CHECK(figuresIn(folder / "parts") == figuresIn(folder / "whole"));
    const Ran index = shell(program + " index " + (folder / "parts") + " -o " + (folder / "index.csv"));
    INFO(index.out);
    CHECK(index.status == 0);
    const TableRead read = readTableFile(folder / "index.csv");
    REQUIRE(read.table);
    CHECK(read.table->rows() == 9);
    const auto column = [&](const std::string& name) {
        const auto at = std::ranges::find(read.table->columns, name, &DataColumn::name);
        REQUIRE(at != read.table->columns.end());
        return *at->numbers;
    };
    CHECK(column("figure") == std::vector<double>{1, 2, 3, 4, 5, 6, 7, 8, 9});
    CHECK(column("q") == std::vector<double>{0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5, 4});
    CHECK(std::ranges::min(column("remarks")) >= 1); // nothing uses k
}

TEST_CASE("what is there is not made again; what is missing, damaged or of another recipe is") {
    const Folder folder;
    REQUIRE(sweep(folder, "out", "1/1").status == 0);
    const auto whole = figuresIn(folder / "out");
    CHECK(sweep(folder, "out", "1/1").out.empty());
    fs::remove(folder / "out/wave-q=1.svg");
    std::ofstream(folder / "out/wave-q=2.svg", std::ios::app) << "<!-- -->";
    const Ran index = shell(program + " index " + (folder / "out"));
    CHECK(index.status == 1);
    CHECK(index.out.find("wave-q=1.svg is gone") != std::string::npos);
    CHECK(index.out.find("wave-q=2.svg is not as it was written") != std::string::npos);
    const Ran again = sweep(folder, "out", "1/1");
    CHECK(std::ranges::count(again.out, '\n') == 2);
    CHECK(figuresIn(folder / "out") == whole);
    CHECK(shell(program + " index " + (folder / "out")).status == 0);
    // Another page is another figure of the same name.
    std::ofstream(folder / "wave.coulter") << R"json({"coulter": 5, "page": ["f(x) = q cos(x)", "q = 1", "x in [0, 6]"],
                  "panels": [{"plots": [{"kind": "line", "of": "f(x)"}]}]})json";
    CHECK(std::ranges::count(sweep(folder, "out", "1/1").out, '\n') == 9);
}

TEST_CASE("a part that is killed at any moment leaves no half file, and the next start goes on") {
    const Folder folder;
    REQUIRE(sweep(folder, "whole", "").status == 0);
    const auto whole = figuresIn(folder / "whole");
    std::mt19937 random(4);
    for (int round = 0; round < 25; ++round) {
        const pid_t child = ::fork();
        if (child == 0) {
            std::freopen("/dev/null", "w", stdout);
            ::execl(program.c_str(), program.c_str(), "render", (folder / "wave.coulter").c_str(), "-o",
                    (folder / "killed/").c_str(), "--format", "svg", "--set", "q=0..4", "--count", "9", "--part", "1/1",
                    nullptr);
            ::_exit(1);
        }
        std::this_thread::sleep_for(std::chrono::milliseconds(1 + random() % 60));
        ::kill(child, SIGKILL);
        int status = 0;
        ::waitpid(child, &status, 0);
        if (!fs::exists(folder / "killed")) continue;
        for (const auto& [name, bytes] : figuresIn(folder / "killed")) CHECK(bytes == whole.at(name));
    }
    std::ofstream(folder / "killed/.wave-q=1.svg.Ab3xYz") << "half";
    std::ofstream(folder / "killed/index-1-of-1.csv", std::ios::app) << "9,wave-q=4.s"; // a row that was cut off
    const Ran ran = sweep(folder, "killed", "1/1");
    INFO(ran.out);
    CHECK(ran.status == 0);
    CHECK(figuresIn(folder / "killed") == whole);
    CHECK(hiddenIn(folder / "killed") == 0);
    CHECK(shell(program + " index " + (folder / "killed")).status == 0);
}

TEST_CASE("what is no part, another sweep in the folder, and parts that are missing are said") {
    const Folder folder;
    for (const char* part : {"0/4", "5/4", "1", "a/b", "1/0", "-1/2"}) {
        const Ran ran = sweep(folder, "out", part);
        CHECK(ran.status == 2);
        CHECK(ran.out.find("such as 2/4") != std::string::npos);
    }
    const Ran one =
        shell(program + " render " + (folder / "wave.coulter") + " -o " + (folder / "one.svg") + " --part 1/2");
    CHECK(one.status == 2);
    REQUIRE(sweep(folder, "out", "1/3").status == 0);
    const Ran missing = shell(program + " index " + (folder / "out"));
    CHECK(missing.status == 1);
    CHECK(missing.out.find("Figure 2 is missing, of part 2/3") != std::string::npos);
    const Ran other = sweep(folder, "out", "1/3", 12);
    CHECK(other.status == 1);
    CHECK(other.out.find("belongs to another sweep") != std::string::npos);
    REQUIRE(sweep(folder, "out", "2/4").status == 0);
    CHECK(shell(program + " index " + (folder / "out")).out.find("different sweeps") != std::string::npos);
    CHECK(shell(program + " index " + (folder / "nowhere")).status == 1);
    CHECK(partOf("3/7")->holds(2));
    CHECK_FALSE(partOf("3/7")->holds(3));
    CHECK(partOf("3/7")->holds(9));
}

TEST_CASE("the same part is made by one process at a time") {
    const Folder folder;
    fs::create_directories(folder / "out");
    SweepIndex first(folder / "out", {1, 1}, {"q"}, 9);
    CHECK(first.problem().sentence.empty());
    const SweepIndex second(folder / "out", {1, 1}, {"q"}, 9);
    CHECK(second.problem().sentence.find("another process") != std::string::npos);
    CHECK_FALSE(first.add(0, {"a, \"b\".svg", "r", {"1"}, "00", {"Says, “this”.", "and that"}}));
    CHECK(*first.digestOf(0) == "00");
    const std::string text = *readFile(folder / "out/index-1-of-1.csv").bytes;
    CHECK(text.find("1,\"a, \"\"b\"\".svg\",r,1,00,2,\"Says, “this”.\"\n") != std::string::npos);
}
