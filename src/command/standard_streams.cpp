#include "command/standard_streams.h"

#include "command/commands.h"

#include <cerrno>
#include <cstdio>
#include <exception>
#include <fcntl.h>
#include <new>
#include <string>
#include <system_error>
#include <unistd.h>

namespace coulter {
namespace {

int failedWith(const std::string& sentence) {
    std::fprintf(stderr, "coulter: %s\n", sentence.c_str());
    return statusProblem;
}

} // namespace

void openStandardStreams() {
    for (const int descriptor : {STDIN_FILENO, STDOUT_FILENO, STDERR_FILENO}) {
        if (::fcntl(descriptor, F_GETFD) != -1 || errno != EBADF) continue;
        // The lowest free number is taken, which is this one. Open for reading alone, writing to it fails and is
        // noticed.
        const bool isOutput = descriptor == STDOUT_FILENO;
        if (::open("/dev/null", isOutput ? O_RDONLY : O_RDWR) < 0) return;
    }
}

int runGuarded(const std::function<int()>& command) {
    try {
        const int status = command();
        if (std::fflush(stdout) == 0 && std::ferror(stdout) == 0) return status;
        return failedWith("Writing to standard output failed: " + std::generic_category().message(errno) + ".");
    } catch (const std::bad_alloc&) {
        return failedWith("There is not enough memory for this. — ask for fewer points or a lower resolution, or close "
                          "other programs");
    } catch (const std::system_error& error) {
        return failedWith("The system refused: " + error.code().message() +
                          ". — check standard output, and the limits of memory and threads");
    } catch (const std::exception& error) {
        return failedWith(std::string("This is a mistake of the program: ") + error.what() + ".");
    }
}

} // namespace coulter
