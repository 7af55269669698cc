#pragma once
#include "formula/base/text.h"

#include <cmath>
#include <random>
#include <string>
#include <vector>

/// Random formulas of x in the notation, over most of its constructs.
class RandomFormula {
public:
    explicit RandomFormula(unsigned seed, std::vector<std::string> leaves = {"x"})
        : random_(seed), leaves_(std::move(leaves)) {}

    std::string make(int depth) {
        if (depth == 0) return pick(3) == 0 ? number() : leaf();
        const auto part = [&] { return "(" + make(depth - 1) + ")"; };
        static const char* unary[] = {"sin",  "cos",  "exp",    "arctan", "tanh", "sinh",   "cosh",   "sqrt", "ln",
                                      "cbrt", "abs",  "arsinh", "sech",   "tan",  "arcsin", "artanh", "cot",  "erf",
                                      "erfc", "sinc", "floor",  "arccot", "csc",  "sec",    "arcosh", "coth", "Gamma"};
        static const char* special[] = {"J_0", "J_2", "Y_1", "I_1", "K_0",  "Ai",    "Bi",  "Si",  "Ci",
                                        "Ei",  "psi", "F",   "S",   "C",    "P_3",   "H_2", "T_4", "U_3",
                                        "L_2", "W_0", "E_2", "j_1", "zeta", "arerf", "K",   "E"};
        switch (pick(15)) {
        case 0: return part() + " + " + part();
        case 1: return part() + " - " + part();
        case 2:
        case 3: return part() + "*" + part();
        case 4: return part() + "/" + part();
        case 5: return part() + "^" + std::to_string(pick(7) - 3);
        case 6: return "-" + part();
        case 7: return "abs" + part() + "^" + number();
        case 8:
            return "{ " + make(depth - 1) + " for " + make(depth - 1) + " < " + number() + "; " + make(depth - 1) +
                   " otherwise }";
        case 9: return "max(" + make(depth - 1) + ", " + make(depth - 1) + ")";
        case 10: return std::string(special[pick(26)]) + part();
        case 11: return "arctan(" + make(depth - 1) + ", " + make(depth - 1) + ")";
        default: return unary[pick(27)] + part();
        }
    }

    double between(double low, double high) { return std::uniform_real_distribution<double>(low, high)(random_); }
    int pick(int n) { return static_cast<int>(random_() % static_cast<unsigned>(n)); }

private:
    std::string number() { return coulter::shortestNumber(std::round(between(0.1, 3) * 100) / 100); }
    std::string leaf() { return leaves_.size() == 1 ? leaves_[0] : leaves_[random_() % leaves_.size()]; }
    std::mt19937 random_;
    std::vector<std::string> leaves_; ///< what formulas are of
};
