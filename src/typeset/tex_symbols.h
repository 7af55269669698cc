#pragma once
#include "typeset/math.h"

#include <string_view>

namespace coulter {

/// A command of TeX that stands for one character.
struct TexSymbol {
    std::string_view name;
    char32_t character;
    MathClass mathClass = MathClass::Ordinary;
    bool italic = false;
};
/// Null if there is none of this name.
const TexSymbol* findTexSymbol(std::string_view name);

/// Whether a command is the upright name of a function, such as sin, and whether its limits stand below and above it.
bool isTexFunction(std::string_view name);

/// The sign of a sum, product or integral; 0 for other names.
char32_t texLarge(std::string_view name);

/// The mark that an accent puts over what follows; 0 for other names.
char32_t texAccent(std::string_view name);

/// The name among all commands that differs from an unknown one least; empty if none is near.
std::string_view nearTexName(std::string_view name);

} // namespace coulter
