#pragma once
#include <functional>

namespace coulter {

/// Descriptors 0 to 2 are there from now on: one that was closed would be taken by the next file that is opened, and
/// messages would be written into that. To a standard output that was closed nothing can be written.
void openStandardStreams();

/// Runs a command. What it cannot have (memory, threads, an output that takes what is written) is one sentence on
/// standard error and statusProblem.
int runGuarded(const std::function<int()>& command);

} // namespace coulter
