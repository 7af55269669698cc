#pragma once
#include "formula/program/switches.h"

#include <cstddef>
#include <cstdint>
#include <span>
#include <stop_token>
#include <vector>

namespace coulter {

/// A field that knows at every place in which of its pieces it is. Lines along which it jumps or has a corner are where
/// pieces meet: they are found by their pieces, never by how much the values differ.
class PiecedField {
public:
    /// One of the field's pieces, by a number that stands for what all its switches say; equal where they all agree.
    using Piece = std::uint64_t;

    struct Spot {
        double x = 0, y = 0;
        std::vector<double> values; ///< by component
        Piece piece = 0;
        bool isDefined = false; ///< all components are finite
    };

    /// What is to be told apart.
    enum class Knows : std::uint8_t { Nothing, Jumps, JumpsAndCorners };

    /// @param f  of two variables; it must outlive this
    PiecedField(const Program& f, Knows knows, std::stop_token stop);
    PiecedField(const PiecedField&) = delete;
    PiecedField& operator=(const PiecedField&) = delete;

    bool hasPieces() const { return !switches_.each.empty(); }
    std::size_t components() const { return components_; }

    /// At many places, on all cores; the bits are those of one place at a time.
    /// @param values  by component; of as many numbers as there are places
    void operator()(const std::vector<double>& x, const std::vector<double>& y,
                    std::vector<std::vector<double>>& values, std::vector<Piece>& pieces);
    Spot at(double x, double y);
    /// The same without an allocation: all components into `values`, and the piece.
    Piece at(double x, double y, std::span<double> values);

    std::size_t evaluations() const { return evaluations_; }

private:
    Piece pieceOf(const std::vector<const double*>& operands, std::size_t place) const;

    std::size_t components_;
    Switches switches_; ///< its program gives the field's components, too; empty if all is one piece
    const Program& program_;
    Evaluator evaluator_;
    std::stop_token stop_;
    std::size_t evaluations_ = 0;
    std::vector<double> here_;
    std::vector<double*> into_;
    std::vector<const double*> operands_;
};

} // namespace coulter
