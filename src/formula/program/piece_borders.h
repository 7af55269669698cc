#pragma once
#include "formula/program/switches.h"

#include <span>
#include <stop_token>
#include <vector>

namespace coulter {

/// Where a formula changes its piece: neighbouring values of its first input between which a comparison, a sign, a
/// whole part or the like comes out differently.
struct PieceBorder {
    double before = 0;
    double after = 0;
};

/// Finds these borders, by bisection down to neighbouring numbers. Holds working memory, so each thread has its own.
class PieceFinder {
public:
    explicit PieceFinder(const Program& f);

    /// Whether there is anything in the formula that has pieces.
    bool hasPieces() const { return !switches_.each.empty(); }
    static constexpr std::size_t looksWithin = 256;
    /// Between two numbers, looked at in so many places, and nearer where a condition all but changes between them.
    std::vector<PieceBorder> within(double low, double high, std::span<const double> others,
                                    const std::stop_token& stop);
    /// @param looks   ascending values of the first input; borders are sought between neighbours
    /// @param others  values of the other inputs
    std::vector<PieceBorder> operator()(std::span<const double> looks, std::span<const double> others,
                                        const std::stop_token& stop);

private:
    std::vector<PieceBorder> find(std::vector<double> looks, std::span<const double> others,
                                  const std::stop_token& stop, bool withDips);
    std::vector<std::vector<double>> valuesAt(Evaluator& evaluator, std::span<const double> at,
                                              std::span<const double> others) const;
    std::vector<double> dips(Evaluator& evaluator, std::span<const double> looks, std::span<const double> others,
                             const std::vector<std::vector<double>>& seen) const;
    Switches switches_;
};

/// A double strictly between two others, or either of them if there is none: bisecting by it ends soon even where both
/// are of different magnitude.
double between(double a, double b);

/// So many shares from 0 to 1, ascending and uneven by a fixed pattern: no period hides between them, and what one
/// looks for seldom stands at one of them.
std::vector<double> unevenShares(std::size_t count);

/// Of two neighbouring doubles the one a person would write: 1 rather than 0.9999999999999999.
double simpler(double a, double b);

} // namespace coulter
