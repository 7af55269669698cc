#include "run_program.h"

#include "figure/sheet_settings.h"
#include "files/file_access.h"
#include "files/recipe.h"

#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <nlohmann/json.hpp>
#include <pty.h>
#include <sstream>
#include <sys/wait.h>
#include <unistd.h>

using namespace coulter;
namespace fs = std::filesystem;

namespace {

/// Runs the program itself, through the shell, as a person does.
Ran run(const std::string& arguments) { return shell(std::string(std::getenv("COULTER_PROGRAM")) + " " + arguments); }

struct Folder {
    fs::path path = fs::temp_directory_path() / ("coulter-command-" + std::to_string(::getpid()));
    Folder() { fs::create_directories(path); }
    ~Folder() { fs::remove_all(path); }
    std::string operator/(const std::string& name) const { return (path / name).string(); }
};

const std::string demo =
    std::string(std::getenv("COULTER_SOURCE")) + "/demos/soil-temperature/soil-temperature.coulter";

std::size_t lineCount(const std::string& text) { return static_cast<std::size_t>(std::ranges::count(text, '\n')); }

} // namespace

TEST_CASE("coulter value answers each expression on a line") {
    CHECK(run("value '1 + 1' 'sin(0)' '2^0.5' '-2^2' '-x' --line 'x = 3'").out == "2\n0\n1.4142135623730951\n-4\n-3\n");
    CHECK(run("value 'f(2)' --line 'f(x) = a x' --line 'a = 1.5'").out == "3\n");
    CHECK(run("value '[1 < 2]' '[1 < 2] + [2 < 1]' '{2 for 3 < 2; 7 otherwise}'").out == "1\n1\n7\n");
    CHECK(run("value '0/0' '1/0' '-1/0'").out == "undefined\ninf\n-inf\n");
    const Ran some = run("value '2 +' '3'");
    CHECK(some.status == 1);
    CHECK(some.out.starts_with("problem: character 4:"));
    CHECK(some.out.ends_with("\n3\n"));
    const Ran input = run("value - --recipe " + demo + " < /dev/null");
    CHECK(input.status == 0);
    CHECK(input.out.empty());
    CHECK(run("value '~T(1, 0)' --recipe " + demo).status == 1);
    CHECK(std::stod(run("value 'T(1, 0)' --recipe " + demo).out) == Approx(4.269136264198).epsilon(1e-12));
}

TEST_CASE("coulter value reads one expression a line from standard input") {
    const Folder folder;
    std::ofstream(folder / "in") << "1+1\nbad(\n3!\r\n";
    const Ran ran = run("value - < " + folder / "in");
    CHECK(ran.status == 1);
    CHECK(lineCount(ran.out) == 3);
    CHECK(ran.out.starts_with("2\nproblem: "));
    CHECK(ran.out.ends_with("\n6\n"));
}

TEST_CASE("coulter render writes figures that coulter verify rebuilds and coulter recipe opens") {
    const Folder folder;
    for (const std::string format : {"pdf", "svg", "png"}) {
        const std::string figure = folder / ("a." + format);
        CHECK(run("render " + demo + " -o " + figure + " --dpi 100").status == 0);
        const Ran verified = run("verify " + figure);
        CHECK(verified.status == 0);
        CHECK(verified.out.find("every byte is the same") != std::string::npos);
        CHECK(run("recipe " + figure + " -o " + folder / "back.coulter").status == 0);
        CHECK(run("render " + (folder / "back.coulter") + " -o " + folder / ("b." + format)).status == 0);
        CHECK(readFile(figure).bytes == readFile(folder / ("b." + format)).bytes);
        CHECK(run("render " + figure + " -o " + folder / ("c." + format)).status == 0);
        CHECK(readFile(figure).bytes == readFile(folder / ("c." + format)).bytes);
    }
}

TEST_CASE("coulter render gives a figure another size, and the figure knows") {
    const Folder folder;
    const auto sheetOf = [&](const std::string& size) {
        REQUIRE(run("render " + demo + " -o " + (folder / "a.svg") + " --size '" + size + "'").status == 0);
        CHECK(run("verify " + (folder / "a.svg")).status == 0);
        return readRecipe(run("recipe " + (folder / "a.svg") + " -o -").out).document->sheet;
    };
    const Sheet column = sheetOf("one column"), own = sheetOf("140x77");
    CHECK(column.width == 85);
    CHECK(column.textSize == 8);
    CHECK(own.width == 140);
    CHECK(own.height == 77);
    const Ran wrong = run("render " + demo + " -o " + (folder / "b.svg") + " --size '3 columns'");
    CHECK(wrong.status == 2);
    CHECK(wrong.out.find("one column") != std::string::npos);
}

TEST_CASE("coulter look saves how a figure looks, and others are given it") {
    const Folder folder;
    REQUIRE(run("render " + demo + " --look 'dark slide' -o " + (folder / "dark.svg")).status == 0);
    CHECK(run("verify " + (folder / "dark.svg")).status == 0);
    CHECK(readFile(folder / "dark.svg").bytes->find("fill=\"#16202a\"") != std::string::npos);
    REQUIRE(run("look " + (folder / "dark.svg") + " -o " + (folder / "house.coulter-look")).status == 0);
    REQUIRE(
        run("recipe " + demo + " --look " + (folder / "house.coulter-look") + " -o " + (folder / "a.coulter")).status ==
        0);
    const Sheet sheet = readRecipe(*readFile(folder / "a.coulter").bytes).document->sheet;
    CHECK(sheet.textSize == 18);
    CHECK(spelled(*colour(sheet.settings, paperColourSetting)) == "#16202a");
    CHECK(sheet.width == readRecipe(*readFile(demo).bytes).document->sheet.width); // a saved look has no size
    REQUIRE(run("render " + (folder / "a.coulter") + " --look plain -o " + (folder / "plain.svg")).status == 0);
    CHECK(readFile(folder / "plain.svg").bytes->find("fill=\"#16202a\"") == std::string::npos);
    const Ran wrong = run("render " + demo + " --look gothic -o " + (folder / "b.svg"));
    CHECK(wrong.status == 2);
    CHECK(wrong.out.find("dark slide") != std::string::npos);
    CHECK(run("look " + (folder / "none.svg") + " -o -").status == 1);
}

TEST_CASE("a PDF of a dark look has its paper, its fonts and its words inside") {
    const Folder folder;
    const std::string pdf = folder / "dark.pdf";
    REQUIRE(run("render " + demo + " --look 'dark slide' -o " + pdf).status == 0);
    REQUIRE(shell("pdftoppm -r 20 -singlefile " + pdf + " " + (folder / "dark")).status == 0);
    const std::string dots = *readFile(folder / "dark.ppm").bytes;
    const std::size_t first = dots.find("255\n") + 4; // behind the head
    REQUIRE(first + 3 < dots.size());
    CHECK(dots.substr(first, 3) == "\x16\x20\x2a");
    const std::string fonts = shell("pdffonts " + pdf).out;
    CHECK(fonts.find("TeXGyreHeros-Regular") != std::string::npos);
    CHECK(fonts.find(" no  ") == std::string::npos); // every one is embedded
    CHECK(shell("pdftotext " + pdf + " -").out.find("Plot 7") != std::string::npos);
}

TEST_CASE("coulter animate writes frames that coulter verify makes again") {
    const Folder folder;
    const std::string frames = folder / "a.png", again = folder / "b.png";
    const std::string asked = " --set A=5..10 --count 3 --seconds 1 --to-and-fro --dpi 40 -o ";
    REQUIRE(run("animate " + demo + asked + frames).status == 0);
    CHECK(run("verify " + frames).status == 0);
    REQUIRE(run("recipe " + frames + " -o " + folder / "back.coulter").status == 0);
    REQUIRE(run("animate " + (folder / "back.coulter") + asked + again).status == 0);
    CHECK(readFile(frames).bytes == readFile(again).bytes);
    CHECK(readFile(frames).bytes->find(R"("values":["5","7.5","10","7.5"])") != std::string::npos);
    for (const std::string& wrong :
         {std::string(" --set A=7"), std::string(" --set A=1..2"), std::string(" --set A={1,2} --set t_0={1,2}")})
        CHECK(run("animate " + demo + wrong + " -o " + (folder / "c.png")).status == 2);
    CHECK(run("animate " + demo + " --set nothing={1,2} -o " + (folder / "c.png")).status == 1);
    CHECK_FALSE(fs::exists(folder / "c.png"));
}

TEST_CASE("coulter render sets quantities, and the figure knows") {
    const Folder folder;
    CHECK(run("render " + demo + " -o " + folder / "a.svg" + " --set A=5 --set 'T_m=12.5'").status == 0);
    const std::string recipe = run("recipe " + folder / "a.svg" + " -o -").out;
    CHECK(recipe.find("\"A = 5, unit K") != std::string::npos);
    CHECK(recipe.find("\"T_m = 12.5, unit °C") != std::string::npos);
    CHECK(run("verify " + folder / "a.svg").status == 0);
    CHECK(run("render " + demo + " -o " + folder / "a.svg" + " --set nothing=5").status == 1);
    CHECK(run("render " + demo + " -o " + folder / "a.svg" + " --set 5").status == 2);
}

TEST_CASE("coulter render fills a folder from several recipes") {
    const Folder folder;
    fs::copy_file(demo, folder / "one.coulter");
    fs::copy_file(demo, folder / "two.coulter");
    const Ran ran = run("render " + (folder / "one.coulter") + " " + (folder / "two.coulter") + " -o " +
                        (folder / "out") + " --format svg");
    CHECK(ran.status == 0);
    CHECK(fs::exists(folder / "out/one.svg"));
    CHECK(fs::exists(folder / "out/two.svg"));
}

TEST_CASE("coulter sample writes the points as CSV") {
    const Ran grid = run("sample --line 'f(x) = x^2' --line 'x in [0, 1), step 0.25' --of 'f(x)' -o -");
    CHECK(grid.out == "stretch,x,y,state\n1,0,0,grid\n1,0.25,0.0625,grid\n1,0.5,0.25,grid\n1,0.75,0.5625,grid\n");
    const Ran tangent =
        run("sample --line 'f(x) = tan(x)' --line 'x in [-5, 5]' --of 'f(x)' --box 100x60 --limits=-6,6 -o -");
    CHECK(tangent.out.find("\n5,") != std::string::npos);
    CHECK(tangent.out.find("\n6,") == std::string::npos);
    const auto points = [](const std::string& tolerance) {
        return lineCount(
            run("sample --line 'f(x) = sin(x)' --line 'x in [0, 9]' --of 'f(x)' -o - --tolerance " + tolerance).out);
    };
    CHECK(points("0.2") < points("0.02"));
    CHECK(points("0.02") < points("0.002"));
}

TEST_CASE("an option takes one value, and what follows is an expression") {
    CHECK(run("value --line 'x = 2' --line 'y = 3' x y").out == "2\n3\n");
    CHECK(run("value 'x y' --line 'x = 2' --line 'y = 3'").out == "6\n");
}

TEST_CASE("a window that cannot open says so in one sentence") {
    const std::string program = std::getenv("COULTER_PROGRAM");
    const std::string command =
        "env -u DISPLAY -u WAYLAND_DISPLAY -u QT_QPA_PLATFORM " + program + " " + demo + " 2>&1";
    FILE* pipe = ::popen(command.c_str(), "r");
    REQUIRE(pipe);
    std::array<char, 4096> buffer{};
    const std::string out(buffer.data(), std::fread(buffer.data(), 1, buffer.size(), pipe));
    const int status = ::pclose(pipe);
    CHECK(WIFEXITED(status));
    CHECK(WEXITSTATUS(status) != 0);
    CHECK(lineCount(out) == 1);
    CHECK(out.find("window") != std::string::npos);
}

TEST_CASE("coulter kinds lists the kinds, one of them, and what the manual holds") {
    const Ran all = run("kinds");
    CHECK(all.status == 0);
    for (const char* part : {"line\n", "stems\n", "area\n", "markers\n", "heatmap\n", "0.4 mm, from 0.01 to 20"})
        CHECK(all.out.find(part) != std::string::npos);
    CHECK(run("kinds area").out.find("opacity") != std::string::npos);
    CHECK(run("kinds area").out.find("heatmap") == std::string::npos);
    const Ran none = run("kinds pie");
    CHECK(none.status == 1);
    CHECK(none.out.find("known are: line, ") != std::string::npos);
    const std::string manual = *readFile(std::string(std::getenv("COULTER_SOURCE")) + "/docs/plots.md").bytes;
    CHECK(manual.find(run("kinds --markdown").out) != std::string::npos); // after a change: scripts/kind-tables
}

TEST_CASE("coulter sample writes the table of any plot of a recipe, as its figure has it") {
    const Ran one = run("sample " + demo + " --plot 1 --case 2 -o -");
    CHECK(one.status == 0);
    CHECK(one.out.starts_with("stretch,x,y,state\n1,0,"));
    CHECK(run("sample " + demo + " --plot 1 --case 3 -o -").out != one.out);
    CHECK(run("sample " + demo + " --plot 1 -o -").out.find("family of 5") != std::string::npos);
    CHECK(run("sample " + demo + " --plot 7 -o -").status == 2);
    CHECK(run("sample --plot 1 -o -").status == 2);
    CHECK(run("sample " + demo + " --plot 1 --of x -o -").status == 2);
    const std::string rain = std::string(std::getenv("COULTER_SOURCE")) + "/demos/rain-gauge/rain-gauge.coulter";
    CHECK(lineCount(run("sample " + rain + " --plot 1 -o -").out) == 31);
    for (const char* kind : {"stems", "area", "markers"})
        CHECK(run(std::string("sample --line 'x in [0, 1], count 3' --of 'x^2' -o - --kind ") + kind).out ==
              "stretch,x,y,state\n1,0,0,grid\n1,0.5,0.25,grid\n1,1,1,grid\n");
}

TEST_CASE("what was sampled less finely than asked for is said, and refused on request") {
    const Folder folder;
    std::ofstream(folder / "wild.coulter")
        << R"~({"coulter": 1, "page": ["g(x, y) = sin(1000 x y)", "x in [0, 30]", "y in [0, 30]"],)~"
        << R"~("panels": [{"plots": [{"kind": "heatmap", "of": "g(x, y)"}]}]})~";
    const Ran said = run("render " + (folder / "wild.coulter") + " -o " + (folder / "a.svg"));
    CHECK(said.status == 0);
    CHECK(said.out.find("varies more finely than can be sampled") != std::string::npos);
    const Ran strict = run("render --strict " + (folder / "wild.coulter") + " -o " + (folder / "b.svg"));
    CHECK(strict.status == 1);
    CHECK_FALSE(fs::exists(folder / "b.svg"));
}

TEST_CASE("bad input is one line with its place, and status 1; bad usage is status 2") {
    const Folder folder;
    std::ofstream(folder / "cut.coulter") << readFile(demo).bytes->substr(0, 200);
    std::ofstream(folder / "plain.pdf") << "%PDF-1.4\n%%EOF\n";
    std::string broken = *readFile(demo).bytes;
    broken.replace(broken.find("A exp("), 6, "A exq(");
    std::ofstream(folder / "broken.coulter") << broken;
    const std::pair<std::string, const char*> problems[] = {
        {"render " + (folder / "cut.coulter") + " -o " + (folder / "x.pdf"), "damaged at line"},
        {"render " + (folder / "none.coulter") + " -o " + (folder / "x.pdf"), "No such file"},
        {"render " + (folder / "broken.coulter") + " -o " + (folder / "x.pdf"), "line 2, character 19"},
        {"render " + demo + " -o " + (folder / "no/where/x.pdf"), "No such file"},
        {"render " + demo + " -o /dev/full --format pdf", "No space left"},
        {"recipe " + (folder / "plain.pdf") + " -o -", "no recipe"},
        {"verify " + (folder / "plain.pdf"), "no recipe"},
        {"verify " + demo, "not a figure"},
        {"verify --difference d.png " + demo + " " + demo, "one figure at a time"},
        {"sample --line 'x in [0, 1], count 1e12' --of 'x' -o -", "10 million"},
        {"sample --line 'x in [1, 0]' --of 'x' -o -", "reversed"},
        {"sample --line 'x in [0, 1]' --of 'y' -o -", "y is not defined"},
        {"value 'a' --line 'a = b' --line 'b = a'", "a → b → a"},
    };
    for (const auto& [arguments, part] : problems) {
        const Ran ran = run(arguments);
        INFO(arguments << "\n" << ran.out);
        CHECK(ran.status == 1);
        CHECK(ran.out.find(part) != std::string::npos);
    }
    CHECK_FALSE(fs::exists(folder / "x.pdf"));
    for (const std::string& usage :
         {std::string("render"), "render " + demo + " -o x --format gif", std::string("frobnicate --x"),
          std::string("frobnicate"), "render " + demo + " -o " + (folder / "a.png") + " --dpi 1e9",
          std::string("sample --of x -o - --box 3"), std::string("sample --of x -o - --limits 3,1")}) {
        INFO(usage);
        CHECK(run(usage).status == 2);
    }
    CHECK(run("--help").status == 0);
    CHECK(run("--version").out.starts_with("coulter "));
}

TEST_CASE("text in the exported PDF can be selected") {
    const Folder folder;
    REQUIRE(run("render " + demo + " -o " + folder / "a.pdf").status == 0);
    const std::string command = "pdftotext -layout " + folder / "a.pdf" + " " + folder / "a.txt";
    REQUIRE(std::system(command.c_str()) == 0);
    const std::string text = *readFile(folder / "a.txt").bytes;
    for (const char* part : {"Plot 7: temperature in the ground", "Day of the year t / d", "350", "z = 0.5 m"}) {
        INFO(part << " in\n" << text);
        CHECK(text.find(part) != std::string::npos);
    }
}

TEST_CASE("coulter value says derivatives as formulas, vectors, and bounds of errors") {
    CHECK(run("value 'd/dx(5x^2 - 7x + 4)' '(1, 2) + (3, 4)'").out == "10x - 7\n(4, 6)\n");
    CHECK(run("value \"f'(x)\" --line 'f(x) = x sin(x)'").out == "sin(x) + x cos(x)\n");
    const Ran bounded = run("value --error '1/3' 'int_0^1 exp(-k^2) dk'");
    CHECK(bounded.out.starts_with("0.3333333333333333 ± "));
    CHECK(lineCount(bounded.out) == 2);
    CHECK(run("value --error 'zeta(1)'").out == "undefined ± unknown\n");
}

TEST_CASE("coulter functions lists the catalogue, and the manual holds its table") {
    const Ran one = run("functions J");
    CHECK(one.status == 0);
    CHECK(one.out.find("J_{n}(x)") != std::string::npos);
    CHECK(one.out.find("DLMF 10.2(ii)") != std::string::npos);
    CHECK(run("functions Gamma").out.find("Γ(a, x)") != std::string::npos);
    const Ran about = run("functions legendre"); // no name, but a word of their meaning
    CHECK(about.out.find("P_{n}^{m}(x)") != std::string::npos);
    CHECK(about.out.find("J_{n}(x)") == std::string::npos);
    const Ran none = run("functions nonsense");
    CHECK(none.status == 1);
    CHECK(none.out.find("There is no function") != std::string::npos);
    const Ran table = run("functions --markdown");
    std::ifstream file(std::string(std::getenv("COULTER_SOURCE")) + "/docs/functions.md");
    std::stringstream manual;
    manual << file.rdbuf();
    // After a change of the catalogue: scripts/function-tables
    CHECK(manual.str().find(table.out) != std::string::npos);
}

TEST_CASE("coulter sample reports what is proven") {
    const std::string line = "sample --line 'f(x) = sin(x)' --line 'x in [-5, 5]' --of 'f(x)' -o - ";
    const Ran report = run(line + "--report");
    CHECK(report.status == 0);
    CHECK(report.out.find("\"proven share\": 1.0") != std::string::npos);
    CHECK(report.out.find("\"gaps\": []") != std::string::npos);
    CHECK(run(line).out.find(",proven\n") != std::string::npos);
    const Ran pole = run("sample --line 'f(x) = 1/x' --line 'x in [-1, 1]' --of 'f(x)' -o - --report");
    CHECK(pole.out.find("\"kind\": \"pole\"") != std::string::npos);
}

TEST_CASE("coulter sample writes fields and curves of the plane") {
    const std::string page =
        "sample --line 'g(x, y) = x + 10 y' --line 'x in [0, 1], count 2' --line 'y in [0, 2), step 1' ";
    const Ran grid = run(page + "--kind heatmap --of 'g(x, y)' -o -");
    CHECK(grid.status == 0);
    CHECK(grid.out == "x,y,z\n0,0,0\n1,0,1\n0,1,10\n1,1,11\n");
    const Ran report = run(page + "--kind heatmap --of 'g(x, y)' -o - --report");
    CHECK(report.out.find("\"columns\"") != std::string::npos);
    const Ran mesh = run("sample --line 'g(x, y) = exp(x y)' --line 'x in [0, 1]' --line 'y in [0, 1]' --kind heatmap "
                         "--of 'g(x, y)' -o - --report");
    CHECK(mesh.out.find("\"triangles\"") != std::string::npos);
    CHECK(mesh.out.find("\"finished\": true") != std::string::npos);
    const Ran levels = run("sample --line 'g(x, y) = x^2 + y^2' --line 'x in [-2, 2]' --line 'y in [-2, 2]' --kind "
                           "contours --levels=1,2 --of 'g(x, y)' -o - --report");
    CHECK(levels.out.find("\"proven share\": 1.0") != std::string::npos);
    CHECK(levels.out.find("\"share of the panel not settled\": 0.0") != std::string::npos);
    const Ran path = run("sample --line 'c(t) = (2 t, t^2)' --line 't in [0, 1], count 2' --of 'c(t)' -o -");
    CHECK(path.out == "stretch,t,x,y,state\n1,0,0,0,grid\n1,1,2,1,grid\n");
    const Ran space = run("sample --line 'c(t) = (t, 2t, 3t)' --line 't in [0, 1], count 2' --of 'c(t)' -o -");
    CHECK(space.out == "stretch,t,x,y,z,state\n1,0,0,0,0,grid\n1,1,1,2,3,grid\n");
    const Ran logarithmic =
        run("sample --line 'f(x) = 1/x' --line 'x in [0.01, 100], logarithmic' --of 'f(x)' -o - --report");
    CHECK(logarithmic.out.find("\"proven share\": 1.0") != std::string::npos);
    for (const auto& [arguments, said] : std::vector<std::pair<std::string, std::string>>{
             {"sample --line 'g(x, y) = x y' --line 'x in [0, 1]' --of 'g(x, 1)' --kind heatmap -o -", "no second one"},
             {"sample --line 'g(x, y) = x y' --line 'x in [0, 1]' --line 'y in [0, 1]' --of 'g(x, y)' -o -",
              "runs along one variable"},
             {"sample --line 'x in [0, 1], count 1e5' --line 'y in [0, 1], count 1e5' --of 'x y' --kind heatmap -o -",
              "points; at most"},
             {"sample --line 'x in [0, 1]' --of 'x' --kind pie -o -", "--kind"}}) {
        INFO(arguments);
        const Ran bad = run(arguments);
        CHECK(bad.status != 0);
        CHECK(bad.out.find(said) != std::string::npos);
    }
}

namespace {

/// The program on a terminal of its own.
class OnTerminal {
public:
    explicit OnTerminal(const std::vector<std::string>& arguments) {
        process_ = ::forkpty(&terminal_, nullptr, nullptr, nullptr);
        REQUIRE(process_ >= 0);
        if (process_ > 0) return;
        std::vector<char*> list{std::getenv("COULTER_PROGRAM")};
        for (const std::string& argument : arguments) list.push_back(const_cast<char*>(argument.c_str()));
        list.push_back(nullptr);
        ::execv(list[0], list.data());
        ::_exit(127);
    }
    ~OnTerminal() { ::close(terminal_); }
    /// Reads until the text has appeared, or the program ended.
    bool readUntil(const std::string& text) {
        std::array<char, 4096> buffer{};
        while (text.empty() || out.find(text) == std::string::npos) {
            const ssize_t got = ::read(terminal_, buffer.data(), buffer.size());
            if (got <= 0) return false;
            out.append(buffer.data(), static_cast<std::size_t>(got));
        }
        return true;
    }
    void press(char key) { REQUIRE(::write(terminal_, &key, 1) == 1); }
    int status() {
        readUntil("");
        int status = 0;
        REQUIRE(::waitpid(process_, &status, 0) == process_);
        return WEXITSTATUS(status);
    }
    std::string out;

private:
    int terminal_ = -1;
    pid_t process_ = -1;
};

/// A recipe whose figure takes hours.
std::string dearRecipe(const Folder& folder) {
    Document document;
    document.page = {"g(x) = int_0^1 int_0^1 int_0^1 int_0^1 exp(-a b c d x) da db dc dd", "x in [0, 3]"};
    document.panels[0].plots.emplace_back();
    document.panels[0].plots[0].of = "g(x)";
    const std::string path = folder / "dear.coulter";
    REQUIRE_FALSE(writeFile(path, writeRecipe(document)));
    return path;
}

} // namespace

TEST_CASE("on a terminal progress is shown, and Ctrl+C leaves no half file") {
    const Folder folder;
    const std::string recipe = dearRecipe(folder);
    OnTerminal program({"render", recipe, "--patient", "-o", folder / "dear.pdf"});
    REQUIRE(program.readUntil("looking"));
    CHECK(program.out.find("dear.coulter") != std::string::npos);
    program.press('\x03');
    CHECK(program.status() == 130);
    CHECK(program.out.find("Stopped; nothing was written.") != std::string::npos);
    std::size_t files = 0;
    for ([[maybe_unused]] const auto& entry : fs::directory_iterator(folder.path)) ++files;
    CHECK(files == 1); // the recipe alone
}

TEST_CASE("piped, nothing but the answer is said; what is too dear is written as far as it goes") {
    const Folder folder;
    const Ran quick = run("render " + demo + " -o " + (folder / "a.svg"));
    CHECK(quick.status == 0);
    CHECK(quick.out == (folder / "a.svg") + "\n");
    const Ran dear = run("sample " + dearRecipe(folder) + " --of 'g(x)' -o " + (folder / "g.csv"));
    CHECK(dear.status == 0);
    CHECK(dear.out.find("integrals inside integrals") != std::string::npos);
    CHECK(dear.out.find("--patient") != std::string::npos);
    CHECK(dear.out.find('\r') == std::string::npos);
    CHECK(fs::file_size(folder / "g.csv") > 50);
    CHECK(run("verify --patient " + (folder / "a.svg")).status == 0);
}

TEST_CASE("coulter render writes a figure for each value, several at a time") {
    const Folder folder;
    const Ran range =
        run("render " + demo + " -o " + (folder / "range") + " --format svg --set A=5..6 --count 3 --jobs 2");
    INFO(range.out);
    CHECK(range.status == 0);
    for (const char* value : {"5", "5.5", "6"}) {
        const fs::path path = folder / ("range/soil-temperature-A=" + std::string(value) + ".svg");
        REQUIRE(fs::exists(path));
        CHECK(run("verify " + path.string()).status == 0);
        const auto recipe = readRecipe(run("recipe " + path.string() + " -o -").out);
        REQUIRE(recipe.document);
        CHECK(std::ranges::any_of(recipe.document->page, [&](const std::string& line) {
            return line.starts_with("A = " + std::string(value));
        }));
    }
    // The same bytes one at a time.
    run("render " + demo + " -o " + (folder / "one") + " --format svg --set 'A={5, 5.5}'");
    CHECK(*readFile(folder / "one/soil-temperature-A=5.5.svg").bytes ==
          *readFile(folder / "range/soil-temperature-A=5.5.svg").bytes);
    CHECK(run("render " + demo + " -o " + (folder / "x") + " --set A=1..2").out.find("--count") != std::string::npos);
    CHECK(run("render " + demo + " -o " + (folder / "x") + " --set 'A={1, b}'").status == 2);
    CHECK(run("render " + demo + " -o " + (folder / "x") + " --set A=0..2 --count 3 --logarithmic").status == 2);
    CHECK(run("render " + demo + " -o " + (folder / "x") + " --set 'A={1, 2}' --set 'T_m={1, 2}'").status == 2);
    CHECK_FALSE(fs::exists(folder / "x"));
}

TEST_CASE("coulter remarks says what a referee would, with its place and remedy, and can be strict") {
    const Folder folder;
    const std::string good = folder / "good.coulter", bad = folder / "bad.coulter";
    std::ofstream(good)
        << R"~({"coulter": 3, "page": ["f(x) = sin(x)", "x in [0, 6]"], "panels": [{"y": {"label": "Wave $f$"}, "plots": [{"of": "f(x)"}]}]})~";
    std::ofstream(bad)
        << R"~({"coulter": 3, "page": ["f(x) = sin(x)", "x in [0, 6]", "q = 3"], "panels": [{"plots": [{"of": "f(x)"}, {"of": "f(x)"}]}]})~";
    CHECK(run("remarks --strict " + good).status == 0);
    const Ran said = run("remarks " + good + " " + bad);
    CHECK(said.status == 0);
    CHECK(said.out.find(bad + ": panels[0].plots[1]: “f(x)” is drawn twice as line. — Remove the second one\n") !=
          std::string::npos);
    CHECK(said.out.find(bad + ": page[2]: Nothing uses the quantity “q”.") != std::string::npos);
    CHECK(run("remarks --strict " + bad).status == 1);
    const auto json = nlohmann::json::parse(run("remarks --json " + bad).out);
    CHECK(json.size() == 2);
    CHECK(json[0]["recipe"] == bad);
    CHECK(run("remarks").status == 2);
    CHECK(lineCount(run("remarks --list").out) >= 40);
    CHECK(run("remarks " + (folder / "none.coulter")).status == 1);
}

TEST_CASE("coulter value answers where equations hold, and from tables in the folder it runs in") {
    CHECK(run("value 'sin(x) = 0 for x in [1, 10]'").out ==
          "{3.141592653589793, 6.283185307179586, 9.42477796076938}: all, proven\n");
    CHECK(run("value 'maximum of x(4 - x) for x in [0, 4]'").out == "{(2, 4)}: all, proven\n");
    const Ran wrong = run("value 'x = 0 for x in [2, 1]'");
    CHECK(wrong.status == 1);
    CHECK(wrong.out.find("no extent") != std::string::npos);
    const Folder folder;
    std::ofstream(folder / "r.csv") << "t / min;s / m\n1;2,5\n2;3,5\n3;4,5\n";
    const std::string in = "cd " + folder.path.string() + " && ";
    const auto there = [&](const std::string& arguments) {
        const std::string program = std::getenv("COULTER_PROGRAM");
        FILE* pipe = ::popen((in + program + " " + arguments + " 2>&1").c_str(), "r");
        REQUIRE(pipe);
        std::array<char, 4096> buffer{};
        std::string out;
        while (const std::size_t got = std::fread(buffer.data(), 1, buffer.size(), pipe))
            out.append(buffer.data(), got);
        ::pclose(pipe);
        return out;
    };
    CHECK(there("value --line '(t, s) from \"r.csv\"' --line '(a, b) fits s = a + b t' 'mean(s)' '[|b - 1| < 1e-9]' 's "
                "- 2'") == "3.5\n1\n{0.5, 1.5, 2.5}\n");
    CHECK(there("value --line '(t, s) from \"none.csv\"' 1").find("no such file") != std::string::npos);
}

TEST_CASE("tables come from the recipe's folder, and a changed one is said") {
    const Folder folder;
    fs::create_directories(folder.path / "inner");
    std::ofstream(folder / "r.csv") << "t,s\n1,2\n2,3\n";
    std::ofstream(folder / "a.coulter") << R"json({"coulter": 3, "page": ["(t, s) from \"r.csv\""],
        "panels": [{"plots": [{"kind": "points", "of": "(t, s)"}]}]})json";
    std::ofstream(folder / "inner/b.coulter") << R"json({"coulter": 3, "page": ["(t, s) from \"../r.csv\""],
        "panels": [{"plots": [{"kind": "points", "of": "(t, s)"}]}]})json";
    const std::string figure = folder / "a.svg";
    CHECK(run("render " + (folder / "a.coulter") + " -o " + figure).status == 0);
    fs::rename(folder / "r.csv", folder / "elsewhere.csv");
    CHECK(run("verify " + figure).status == 0); // the numbers are in the figure
    CHECK(run("render " + (folder / "a.coulter") + " -o " + figure).out.find("no such file") != std::string::npos);
    fs::rename(folder / "elsewhere.csv", folder / "r.csv");
    const Ran outside = run("render " + (folder / "inner/b.coulter") + " -o " + (folder / "b.svg"));
    CHECK(outside.status == 1);
    CHECK(outside.out.find("outside the recipe's folder") != std::string::npos);
    CHECK(run("render " + (folder / "inner/b.coulter") + " -o " + (folder / "b.svg") + " --allow-folder " +
              folder.path.string())
              .status == 0);
    // Rebuilt from its own recipe where the file holds other numbers by now: those of the figure are used, and said.
    CHECK(run("recipe " + figure + " -o " + (folder / "kept.coulter")).status == 0);
    std::ofstream(folder / "r.csv", std::ios::app) << "3,9\n";
    const Ran changed = run("render " + (folder / "kept.coulter") + " -o " + (folder / "again.svg"));
    CHECK(changed.status == 0);
    CHECK(changed.out.find("has changed since") != std::string::npos);
    CHECK(readFile(folder / "again.svg").bytes == readFile(figure).bytes);
}

TEST_CASE("coulter compare says what differs between two figures, and draws both") {
    const Folder folder;
    const std::string changed = folder / "changed.pdf", picture = folder / "both.png";
    CHECK(run("compare " + demo + " " + demo).out == "nothing differs\n");
    CHECK(run("compare " + demo + " " + demo).status == 0);
    REQUIRE(run("render " + demo + " -o " + changed + " --set A=12").status == 0);
    const Ran found = run("compare " + demo + " " + changed + " -o " + picture + " --dpi 60");
    CHECK(found.status == 1);
    CHECK(found.out.find("A = 12") != std::string::npos);
    CHECK(found.out.find("moved by up to ") != std::string::npos);
    CHECK(readFile(picture).bytes->starts_with("\x89PNG"));
    const Ran missing = run("compare " + demo + " " + (folder / "nothing.pdf"));
    CHECK(missing.status == 1);
    CHECK(lineCount(missing.out) == 1);
    CHECK(run("compare " + demo).status == 2);
}
