#pragma once
#include "formula/program/program.h"

#include <cstddef>
#include <memory>
#include <vector>

namespace coulter {

/// The operations of a formula that change their piece (|x|, a whole part, a comparison …), and the part of the formula
/// that computes their operands.
struct Switches {
    struct Each {
        Kernel kernel = Kernel::Count;
        std::size_t first = 0, second = 0;               ///< its operands among the outputs of `program`; one: twice
        std::shared_ptr<const Interpolation> table = {}; ///< whose points are the borders
        std::shared_ptr<const MeasuredField> field = {}; ///< whose cells have them, along this variable
        std::size_t variable = 0;
        bool isJump = false; ///< the operation itself jumps there, and has not only a corner
    };
    Program program; ///< inputs as those of the formula; each step in a register of its own
    std::vector<Each> each;
};

/// @param withResults  whether the formula's own outputs come first among those of `program`
Switches switchesOf(const Program& f, bool withResults = false);

/// Which piece a switch is in, by its operands; pieces are told apart by being different numbers.
double pieceOf(const Switches::Each& each, double a, double b);

} // namespace coulter
