// What the README and the manual show of answers is what the program says.
#include "run_program.h"

#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <vector>

using namespace coulter;

namespace {

struct Example {
    std::string arguments, shown;
};

/// The calls of `coulter value` in a manual's code blocks, each with the lines below it.
std::vector<Example> examplesOf(const std::filesystem::path& manual) {
    std::vector<Example> found;
    std::ifstream file(manual);
    bool isWithin = false;
    for (std::string line; std::getline(file, line);) {
        if (line.starts_with("$ ") || line.starts_with("```")) isWithin = false;
        if (isWithin) found.back().shown += line + "\n";
        for (const std::string call : {"$ build/coulter value ", "$ coulter value "}) {
            if (!line.starts_with(call)) continue;
            found.push_back({line.substr(call.size()), ""});
            isWithin = true;
        }
    }
    return found;
}

} // namespace

TEST_CASE("answers in the README and the manual are the program's") {
    const std::filesystem::path source = std::getenv("COULTER_SOURCE");
    std::vector<std::filesystem::path> manuals{source / "README.md"};
    for (const auto& entry : std::filesystem::directory_iterator(source / "docs")) {
        if (entry.path().extension() == ".md") manuals.push_back(entry.path());
    }
    std::size_t count = 0;
    for (const auto& manual : manuals) {
        for (const Example& example : examplesOf(manual)) {
            INFO(manual << ": coulter value " << example.arguments);
            CHECK(shell(std::string(std::getenv("COULTER_PROGRAM")) + " value " + example.arguments).out ==
                  example.shown);
            ++count;
        }
    }
    CHECK(count >= 7);
}
