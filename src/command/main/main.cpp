#include "command/commands.h"

int main(int argc, char** argv) { return coulter::runCommandLine(argc, argv); }
