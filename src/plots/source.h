#pragma once
#include "drawing/frame.h"
#include "formula/base/interval.h"
#include "formula/page/line.h"
#include "formula/program/program.h"
#include "sampling/curve_samples.h"
#include "sampling/field_samples.h"

#include <array>
#include <memory>
#include <optional>
#include <string>
#include <variant>
#include <vector>

namespace coulter {

/// One variable ↦ y, (x, y) or (x, y, z).
struct Curve {
    std::shared_ptr<const Program> program; ///< the variable ↦ y, or the variable ↦ (x, y) in the panel's plane
    std::shared_ptr<const Program> inSpace; ///< of a space curve: the variable ↦ (x, y, z); else null
    std::shared_ptr<const Program> radius; ///< of a polar curve: the angle ↦ its radius; else null. Until its frame is
                                           ///< known (see seen_in.h) `program` is the same
    std::optional<Face> face; ///< of a space curve: where it is projected to
    std::string variable;
    Interval interval;
    Grid grid;
    bool provesIntegrals = true; ///< recipes of the first three formats did not

    /// Whether it is y = f(x), with the variable on the horizontal scale.
    bool isFunction() const { return program->outputs.size() == 1; }
};

/// Two variables ↦ z, or a vector.
struct Field {
    std::shared_ptr<const Program> program; ///< (x, y) ↦ z, or the components of a vector
    std::array<std::string, 2> variables;   ///< to the right, upwards
    std::array<Interval, 2> intervals;
    std::array<Grid, 2> grids;
    bool isMargin = false; ///< only where it is zero matters
    bool inSpace = false;  ///< it is a surface: values are heights, or a vector is its places
    std::shared_ptr<const Program> tint =
        nullptr; ///< of a surface or vectors whose colours show another function; else null
    std::shared_ptr<const ElementMesh> mesh = nullptr; ///< that it was measured on, and is looked at on; else null
    bool hasCells = false;           ///< it was measured, and is constant within the cells of its grid or its elements
    bool looksForPeaks = true;       ///< recipes of the first seven formats did not
    bool knowsPieces = true;         ///< where it jumps or has a corner: neither did they
    bool followsLevels = true;       ///< closely along its levels: nor those of the eighth
    bool asDots = false;             ///< a picture of it is wanted, evaluated at each of its dots, and nothing else
    std::vector<double> levels = {}; ///< that are asked for, wherever the scale of colours ends
    std::size_t meansOver = 1; ///< of measured numbers too many to be drawn: a side of the squares whose means are

    /// Whether its variables are no coordinates: a vector gives the places of a surface.
    bool isParametric() const { return inSpace && program->outputs.size() == 3; }
};

/// Numbers of one length, side by side, as they are on the page or as a kind of plot needs them.
struct Columns {
    std::vector<std::string> names; ///< of each
    std::vector<Column> numbers;
    std::array<int, 2> along{0, 1}; ///< which of them lies along the horizontal scale, and the vertical one; −1: none
    bool arePlaces = false;         ///< the first two are coordinates of a vector, of which a millimetre means the same
    std::size_t rows() const { return numbers.empty() ? 0 : numbers[0]->size(); }
};
struct ColumnSamples {
    std::vector<Column> numbers;
    bool finished = true;
    bool tooDear = false;
};

/// What is drawn, whatever the kind of plot: a closed set, each with its samples at the same place. A new one has its
/// file here, and its part in `sampling.h`, `table.h`, `telling.h` and `read_out.h`; kinds come and go without them.
using Source = std::variant<Curve, Field, Columns>;
using Samples = std::variant<CurveSamples, FieldSamples, ColumnSamples>;

} // namespace coulter
