#pragma once
#include "formula/program/program.h"

namespace coulter {

/// For each output of a program without inputs: whether its value is finite although an infinite one, such as a
/// division by zero, was made on its way. Pieces that do not hold are on nobody's way. Programs with integrals are not
/// looked at, and say no.
std::vector<bool> wentThroughInfinity(const Program& program);

} // namespace coulter
