// What attacks found: pipes, descriptors, links and texts of strangers end in one sentence, and nothing is lost.
#include "rounds.h"
#include "run_program.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <sstream>
#include <sys/stat.h>
#include <unistd.h>

using namespace coulter;
namespace fs = std::filesystem;

namespace {

/// A folder that is gone at the end.
class Folder {
public:
    Folder() : path_(fs::temp_directory_path() / ("coulter-endurance-" + std::to_string(::getpid()))) {
        fs::remove_all(path_);
        fs::create_directories(path_);
    }
    ~Folder() {
        std::error_code gone;
        fs::remove_all(path_, gone);
    }
    Folder(const Folder&) = delete;
    Folder& operator=(const Folder&) = delete;
    fs::path operator/(const std::string& name) const { return path_ / name; }
    std::string text(const std::string& name) const {
        std::ifstream file(path_ / name, std::ios::binary);
        std::ostringstream all;
        all << file.rdbuf();
        return all.str();
    }
    void write(const std::string& name, const std::string& text) const {
        std::ofstream(path_ / name, std::ios::binary) << text;
    }
    std::size_t count() const { return static_cast<std::size_t>(std::distance(fs::directory_iterator(path_), {})); }
    const fs::path& path() const { return path_; }

private:
    fs::path path_;
};

const std::string program = std::getenv("COULTER_PROGRAM") ? std::getenv("COULTER_PROGRAM") : "";

/// A recipe of a line, with a title.
std::string recipe(const std::string& title, const std::string& more = "") {
    return R"({"coulter": 8, "page": ["f(x) = x", "x in [0, 1]"], "panels": [{"title": ")" + title +
           R"json(", "plots": [{"kind": "line", "of": "f(x)")json" + more + "}]}]}";
}

} // namespace

TEST_CASE("a pipe that is named as a table is refused, and nobody waits for it") {
    const Folder folder;
    REQUIRE(::mkfifo((folder / "fifo").c_str(), 0600) == 0);
    folder.write("figure.coulter", R"({"coulter": 8, "page": ["(t, s) from \"fifo\""]})");
    const Ran ran = shell("timeout 20 " + program + " render " + (folder / "figure.coulter").string() + " -o " +
                          (folder / "figure.svg").string());
    CHECK(ran.status != 124);
    CHECK(ran.out.find("a pipe or a socket") != std::string::npos);
}

TEST_CASE("closed descriptors are not taken by files") {
    const Folder folder;
    folder.write("figure.coulter", recipe("a"));
    const std::string render =
        program + " render " + (folder / "figure.coulter").string() + " -o " + (folder / "figure.svg").string();
    CHECK(shell(render).status == 0);
    const std::string good = folder.text("figure.svg");
    fs::remove(folder / "figure.svg");
    shell("(" + render + " >&- 2>&-)");
    CHECK(folder.text("figure.svg") == good);
    const Ran closed = shell("(" + program + " kinds >&-)");
    CHECK(closed.status == 1);
    CHECK(closed.out.find("terminate") == std::string::npos);
    CHECK(shell("(" + program + " kinds > /dev/full)").status == 1);
    CHECK(shell("(" + program + " value '1 + 1' <&-)").out == "2\n");
}

TEST_CASE("a target is written through its links, and a device or a pipe is not replaced") {
    const Folder folder;
    folder.write("figure.coulter", recipe("a"));
    const auto render = [&](const std::string& target, const std::string& behind = "") {
        return shell(program + " render " + (folder / "figure.coulter").string() + " --format svg -o " + target +
                     behind);
    };
    REQUIRE(render((folder / "plain.svg").string()).status == 0);
    const std::string good = folder.text("plain.svg");
    fs::create_symlink("there.svg", folder / "dangling.svg");
    CHECK(render((folder / "dangling.svg").string()).status == 0);
    CHECK(fs::is_symlink(folder / "dangling.svg"));
    CHECK(folder.text("there.svg") == good);
    fs::create_symlink("two.svg", folder / "one.svg");
    fs::create_symlink("one.svg", folder / "two.svg");
    const Ran circle = render((folder / "one.svg").string());
    CHECK(circle.status == 1);
    CHECK(fs::is_symlink(folder / "one.svg"));
    fs::create_symlink("/dev/stdout", folder / "out.svg");
    const Ran piped = render((folder / "out.svg").string(), " | cat");
    CHECK(piped.out.find("<svg") != std::string::npos);
    CHECK(fs::is_symlink(folder / "out.svg"));
}

TEST_CASE("names of files may be as long as the system allows") {
    const Folder folder;
    folder.write("figure.coulter", recipe("a"));
    const std::string name = std::string(251, 'n') + ".svg";
    CHECK(
        shell(program + " render " + (folder / "figure.coulter").string() + " -o " + (folder / name).string()).status ==
        0);
    CHECK(fs::exists(folder / name));
    CHECK(folder.count() == 2); // nothing beside it
}

TEST_CASE("control characters of strangers reach neither an export nor the terminal") {
    const Folder folder;
    folder.write("figure.coulter", recipe("bell \\u0007 and escape \\u001b[2J"));
    REQUIRE(
        shell(program + " render " + (folder / "figure.coulter").string() + " -o " + (folder / "figure.svg").string())
            .status == 0);
    const std::string svg = folder.text("figure.svg");
    CHECK(std::ranges::none_of(svg,
                               [](char c) { return static_cast<unsigned char>(c) < 0x20 && c != '\n' && c != '\t'; }));
    folder.write(
        "kind.coulter",
        R"({"coulter": 8, "panels": [{"plots": [{"kind": "pie\nfigure.svg: rebuilt\u001b[2J", "of": "x"}]}]})");
    const Ran ran =
        shell(program + " render " + (folder / "kind.coulter").string() + " -o " + (folder / "k.svg").string());
    CHECK(ran.status == 1);
    CHECK(ran.out.find('\033') == std::string::npos);
    CHECK(std::ranges::count(ran.out, '\n') == 1);
}

TEST_CASE("positions are whole numbers") {
    const Folder folder;
    folder.write("figure.coulter", recipe("a", R"(, "order": 2.5)"));
    const Ran ran =
        shell(program + " render " + (folder / "figure.coulter").string() + " -o " + (folder / "k.svg").string());
    CHECK(ran.status == 1);
    CHECK(ran.out.find("order must be a whole number") != std::string::npos);
}

TEST_CASE("little memory ends in one sentence") {
    if (rounds(2) < 2) return; // sanitizers take more than any limit
    const Folder folder;
    const Ran ran = shell("(ulimit -v 400000; " + program +
                          " sample --line 'x in [0, 1], count 4e7' --line 'f(x) = x' --of 'f(x)' -o " +
                          (folder / "samples.csv").string() + ")");
    CHECK(ran.status == 1);
    CHECK(ran.out.find("terminate") == std::string::npos);
    CHECK_FALSE(fs::exists(folder / "samples.csv"));
}
