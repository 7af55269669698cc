#pragma once
#include "formula/measured/grid_numbers.h"
#include "special/bounds.h"

#include <array>
#include <cstdint>
#include <functional>
#include <memory>
#include <span>
#include <vector>

namespace coulter {

struct ElementMesh;

/// Measured numbers as a function of two or three variables, undefined beyond the places that they were measured at.
/// Immutable and shared between threads.
class MeasuredField {
public:
    virtual ~MeasuredField() = default;
    virtual std::size_t variables() const = 0;
    /// The value at a place, whose coordinates are all given; NaN beyond the field and where a number is missing.
    virtual double at(const double* place) const = 0;
    /// The values at many places, the same to the bit; on a grid sooner than one by one where places that follow each
    /// other lie in the same piece or the next one, as along the rows of a picture.
    /// @param places  coordinates by variable: as many as the field has
    virtual void values(const std::array<const double*, 3>& places, std::size_t count, double* values) const;

    /// What is known of its values over a box of places.
    struct Over {
        Bounds values{0, -1};      ///< of those that are defined; low > high: none is
        bool isDefined = false;    ///< it has a value at every place of the box
        bool isContinuous = false; ///< it has no jump inside
        bool isConstant = false;   ///< it has one value throughout
    };
    virtual Over over(std::span<const Bounds> box) const = 0;
    /// Bounds of its slope along one variable over a box, all of which is defined; `isStraight` if that slope changes
    /// only with the other variables. Unbounded where nothing is known.
    virtual Bounds slopeOver(std::size_t variable, std::span<const Bounds> box, bool& isStraight) const;
    /// A number for the piece in which a coordinate lies, as far as pieces are told by one coordinate alone.
    virtual double pieceOf(std::size_t variable, double coordinate) const;

    /// Its slope by one variable inside of its pieces; null where it has jumps instead.
    virtual std::shared_ptr<const MeasuredField> slope(std::size_t variable) const = 0;

    /// Ascending places of one variable at which it was measured; empty for a mesh.
    virtual std::span<const double> places(std::size_t variable) const;
    /// The elements that it was measured on; null for a grid.
    virtual const std::shared_ptr<const ElementMesh>& mesh() const;
    /// Whether it is constant within cells or elements, with jumps between them.
    virtual bool hasCells() const = 0;
    /// Why some of its numbers could not be read by now, which then count as missing; empty if all could.
    virtual std::string trouble() const { return ""; }
    /// Everything that its values depend on, in parts, always the same for the same field.
    virtual void eachPart(const std::function<void(std::span<const double>)>& take) const = 0;
};

/// Numbers on a grid: every combination of the places of two or three variables.
struct MeasuredGrid {
    std::vector<std::vector<double>> places;           ///< of each variable, ascending, at least one
    std::shared_ptr<const std::vector<double>> values; ///< the first variable runs fastest
    bool isLinear = false; ///< linear in each variable between places, and undefined beyond the outermost; else each
                           ///< value fills its cell, whose borders lie in the middle between places, and as far outside
    std::shared_ptr<const GridNumbers> far = nullptr; ///< instead of the values, if they are too many
};
std::shared_ptr<const MeasuredField> fieldOfGrid(MeasuredGrid grid);

/// The means of a field on a grid over squares of so many numbers a side, in its first two variables: as a field of the
/// same extent, whose numbers are computed where they are asked for. Null for a mesh.
std::shared_ptr<const MeasuredField> fieldOfMeans(const MeasuredField& grid, std::size_t side);

/// Triangles and quadrilaterals between nodes.
struct ElementMesh {
    static constexpr std::uint32_t none = 0xffffffffU;
    std::vector<double> x, y; ///< of its nodes
    std::vector<std::array<std::uint32_t, 4>>
        elements;                    ///< nodes, counter-clockwise; the fourth is `none` in a triangle
    std::vector<std::uint32_t> rows; ///< of each element, in the table that it stands in, from 1
    std::uint32_t firstNode = 1;     ///< the number that the first node has there
    std::size_t cornersOf(std::size_t element) const { return elements[element][3] == none ? 3 : 4; }
};

/// Values at the nodes of a mesh, linear in triangles and bilinear in quadrilaterals; or one for each element.
/// Undefined outside of all elements. Method: elements are found by the cells of an even grid over the mesh; the
/// bilinear map of a convex quadrilateral is inverted in closed form.
/// @param mesh    elements of positive area
/// @param values  of each node, or, if `byElement`, of each element
std::shared_ptr<const MeasuredField> fieldOfMesh(std::shared_ptr<const ElementMesh> mesh, std::vector<double> values,
                                                 bool byElement);

} // namespace coulter
