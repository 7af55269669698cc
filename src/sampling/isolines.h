#pragma once
#include "formula/program/program.h"
#include "sampling/field_samples.h"
#include "sampling/panel_map.h"

#include <cstddef>
#include <optional>
#include <stop_token>
#include <vector>

namespace coulter {

/// Places in the user's coordinates, one after the other.
struct Path {
    std::vector<double> x, y;
    std::size_t size() const { return x.size(); }
};

/// A line along which a field has one of several levels. Greater values lie to its left.
struct Isoline {
    std::size_t level = 0; ///< which of them
    bool closed = false;   ///< it comes back to its first point, which is not repeated; else it ends at an edge
    Path path;
};

/// How lines are followed.
struct IsolineEffort {
    double millimetres = 0.02; ///< between a line and what stands for it, on the sheet
    std::size_t mostEvaluations = 2'000'000;
    std::stop_token stop = {};
};

/// Lines of several levels, by levels; and the areas on their upper sides.
struct LevelLines {
    std::vector<Isoline> lines;
    /// Of each level: rings round where the field is at least as great, even-odd, along lines and along the edge of
    /// what is defined. Empty unless asked for.
    std::vector<std::vector<Path>> above;
    /// Rings round all that is defined; empty unless asked for.
    std::vector<Path> domain;
    std::size_t evaluations = 0;
    bool finished = true; ///< false if lines could not be followed to their tolerance
};

/// Follows lines of given levels through samples of a field.
///
/// Which cells a line runs through, and how its parts hang together, is what the samples say: a point at a level
/// counts as above it; where all of a cell is at a level, its edge is the line. In a cell of a meshgrid whose corners
/// are high and low by turns the field itself decides at its middle, or, if only samples are known, what is bilinear
/// between them. Given the field, every point is then moved onto the true line (by false position between two places
/// with the level between them), and further ones are put in until half the tolerance is kept at the middle and the
/// quarters of every piece; pieces that are straighter than that become one. Lines end at edges of what is defined, at
/// jumps, and at the edge of what was sampled.
///
/// @param levels  ascending, each once
/// @param field   what was sampled; of a vector its length counts. Null: only the samples are known, and lines are
///                straight within cells
/// @param map     the panel on the sheet, in mm
/// @param areas   whether `above` and `domain` are wanted
/// The bits do not depend on the number of threads.
/// Method: W. E. Lorensen, H. E. Cline, "Marching cubes" (1987), in the plane, on triangles and rectangles; M. Dowell,
/// P. Jarratt, "A modified regula falsi method" (1971).
LevelLines followLevels(const FieldSamples& samples, const std::vector<double>& levels, const Program* field,
                        const PanelMap& map, const IsolineEffort& effort, bool areas = false);

} // namespace coulter
