#pragma once
#include <array>
#include <catch2/catch.hpp>
#include <cstdio>
#include <string>
#include <sys/wait.h>

namespace coulter {

struct Ran {
    int status = -1;
    std::string out; ///< standard output and error together
};

/// Runs a command through the shell.
inline Ran shell(const std::string& command) {
    Ran ran;
    FILE* pipe = ::popen((command + " 2>&1").c_str(), "r");
    REQUIRE(pipe);
    std::array<char, 4096> buffer{};
    while (const std::size_t got = std::fread(buffer.data(), 1, buffer.size(), pipe))
        ran.out.append(buffer.data(), got);
    ran.status = WEXITSTATUS(::pclose(pipe));
    return ran;
}

} // namespace coulter
