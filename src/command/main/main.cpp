#include "command/commands.h"
#include "command/standard_streams.h"

int main(int argc, char** argv) {
    coulter::openStandardStreams();
    return coulter::runGuarded([&] { return coulter::runCommandLine(argc, argv); });
}
