#pragma once
#include "formula/base/problem.h"
#include "typeset/math.h"

namespace coulter {

/// Mathematics in the usual TeX spelling, as far as docs/words.md lists it.
struct TexRead {
    MathPtr math;    ///< null exactly if there is a problem
    Problem problem; ///< its places are characters of the text, from 1
};

/// Reads a formula such as "\frac{\alpha}{2} + \int_0^\infty f(x)\,dx", without the $ round it.
TexRead readTex(const std::string& text);

} // namespace coulter
