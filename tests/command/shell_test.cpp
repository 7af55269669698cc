// What shells, man and file managers get from the program.
#include "run_program.h"

#include <array>
#include <catch2/catch.hpp>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <regex>
#include <set>
#include <unistd.h>

using coulter::Ran;
using coulter::shell;
namespace fs = std::filesystem;

namespace {

const std::string program = std::getenv("COULTER_PROGRAM");

/// What --help prints at the beginning of its lines: commands, or options.
std::set<std::string> inHelp(const std::string& command, const std::string& pattern) {
    const std::string help = shell(program + " " + command + " --help").out;
    std::set<std::string> found;
    const std::regex expression(pattern);
    for (std::sregex_iterator at(help.begin(), help.end(), expression), end; at != end; ++at) found.insert((*at)[1]);
    return found;
}

std::set<std::string> commands() {
    const std::string help = shell(program + " --help").out;
    const std::string list = help.substr(help.find("Subcommands:"));
    std::set<std::string> found;
    const std::regex expression("\n  ([a-z-]+) ");
    for (std::sregex_iterator at(list.begin(), list.end(), expression), end; at != end; ++at) found.insert((*at)[1]);
    return found;
}

} // namespace

TEST_CASE("completions and pages for man have every command and option that --help has") {
    const std::set<std::string> all = commands();
    REQUIRE(all.size() >= 12);
    std::array<std::string, 3> completions;
    const std::array<std::string, 3> shells{"bash", "zsh", "fish"};
    for (std::size_t i = 0; i < 3; ++i) {
        completions[i] = shell(program + " completion " + shells[i]).out;
        REQUIRE(completions[i].find("coulter") != std::string::npos);
    }
    const std::string whole = shell(program + " manual-page").out;
    for (const std::string& command : all) {
        INFO(command);
        for (const std::string& each : completions) CHECK(each.find(command) != std::string::npos);
        std::string inRoff = command;
        if (const auto at = inRoff.find('-'); at != std::string::npos) inRoff.insert(at, "\\");
        CHECK(whole.find("coulter\\-" + inRoff + " (1)") != std::string::npos);
        const std::string page = shell(program + " manual-page " + command).out;
        const auto options = inHelp(command, "(--[a-z-]+)");
        REQUIRE_FALSE(options.empty());
        for (const std::string& option : options) {
            INFO(option);
            CHECK(std::regex_replace(page, std::regex("\\\\-"), "-").find(option) != std::string::npos);
            CHECK(completions[0].find(option) != std::string::npos);
            CHECK(completions[1].find(option) != std::string::npos);
            CHECK(completions[2].find(" -l " + option.substr(2)) != std::string::npos);
        }
    }
}

TEST_CASE("the completion for bash is good bash, and completes") {
    const fs::path file = fs::temp_directory_path() / ("coulter-completion-" + std::to_string(::getpid()));
    std::ofstream(file) << shell(program + " completion bash").out;
    CHECK(shell("bash -n " + file.string()).out.empty());
    const auto completed = [&](const std::string& words, int at) {
        return shell("bash -c 'source " + file.string() + "; COMP_WORDS=(coulter " + words +
                     "); COMP_CWORD=" + std::to_string(at) + "; _coulter; echo ${COMPREPLY[@]}'")
            .out;
    };
    CHECK(completed("ver", 1) == "verify\n");
    CHECK(completed("render --form", 2) == "--format\n");
    CHECK(completed("verify --form", 2) == "\n");
    fs::remove(file);
}

TEST_CASE("what no shell and no page is, is said") {
    CHECK(shell(program + " completion tcl").status == 2);
    const Ran page = shell(program + " manual-page paint");
    CHECK(page.status == 2);
    CHECK(page.out.find("“paint”") != std::string::npos);
    CHECK(shell(program + " manual-page --all /no/such/folder").status == 1);
}

TEST_CASE("a thumbnail is as large as it is asked for, along the longer side") {
    const std::string demo =
        std::string(std::getenv("COULTER_SOURCE")) + "/demos/soil-temperature/soil-temperature.coulter";
    const fs::path file = fs::temp_directory_path() / ("coulter-thumbnail-" + std::to_string(::getpid()) + ".png");
    CHECK(shell(program + " thumbnail " + demo + " " + file.string() + " --size 128").status == 0);
    std::ifstream png(file, std::ios::binary);
    std::array<unsigned char, 24> head{};
    png.read(reinterpret_cast<char*>(head.data()), head.size());
    CHECK(head[1] == 'P');
    const int width = head[18] * 256 + head[19], height = head[22] * 256 + head[23];
    CHECK(std::abs(std::max(width, height) - 128) <= 1);
    CHECK(shell(program + " thumbnail /no/such.coulter " + file.string()).status == 1);
    fs::remove(file);
}
