#pragma once
#include "formula/base/interval.h"
#include "formula/program/program.h"
#include "sampling/field_samples.h"
#include "sampling/panel_map.h"

#include <functional>
#include <stop_token>

namespace coulter {

/// Most points of an adaptive mesh, and the evaluations after which no further round of halving or cut begins.
inline constexpr std::size_t mostMeshPoints = 400'000;
inline constexpr std::size_t mostMeshEvaluations = 2'000'000;
/// Most points of a meshgrid: 8 bytes each for every component.
inline constexpr double mostFieldPoints = 64e6;
inline constexpr double mostSurfacePoints = 4e6; ///< more than a picture of one has dots

/// The field at every combination of columns and rows.
/// @param f  (x, y) ↦ z, or the components of a vector
/// @param evaluated  told now and then that so many further points are done, from any thread
FieldSamples sampleMeshgrid(const Program& f, std::vector<double> columns, std::vector<double> rows,
                            std::stop_token stop = {}, const std::function<void(std::size_t)>& evaluated = {});

/// How well a mesh follows its field.
struct FieldTolerance {
    double millimetres = 0.02;       ///< on the sheet, > 0
    double low = 0, high = 1;        ///< values that are shown, low < high; what lies beyond is not refined
    std::vector<double> levels = {}; ///< but for these, rising
    bool looksForPeaks = false;      ///< whether bounds of the field are to show what its points have passed over
    bool knowsPieces = false;        ///< whether lines where pieces meet are found by what the formula switches by
    bool followsLevels = false;      ///< whether the levels are followed however little the field rises there
};

/// A mesh of triangles, finer where the field bends: linear interpolation in it is nowhere estimated to be off by more
/// than moves an isoline by the tolerance. With that a surface whose range is as tall as the panel keeps the tolerance
/// too. Where the field rises by less than a quarter of its range over the panel's height, isolines are held only as if
/// it rose so. Along the edges of the domain
/// and along jumps the mesh is cut: each crossing of an edge is found by bisection to neighbouring doubles, and at a
/// jump both one-sided values are kept.
///
/// Jumps and creases that come of what the formula switches by (|x|, a whole part, a comparison, the cut of an angle,
/// pieces) are found by that, however small they are (see pieced_field.h): the mesh is cut along them, halved down to
/// 0.5 mm beside them, or further, to 0.03 mm, where several meet.
///
/// Where levels are followed, a triangle that may hold a line of one keeps it to the tolerance, however little the
/// field rises there, and bounds are to show which levels it has between its points. Poles part the mesh as jumps do.
///
/// Peaks and pits that the points pass over are found by bounds of the field over squares of 5 mm (see
/// passed_over.h), as far as they can be seen: by 1/50 of what is shown, and wider than 0.03 mm.
///
/// @param f          (x, y) ↦ z, or the components of a vector
/// @param intervals  of x and y; open ends are not evaluated
/// @param map        the panel on the sheet, in mm, through both of its scales
/// Bounds: at most `mostMeshPoints` points, up to what neighbours need at the end; after `mostEvaluations`
/// evaluations only the round at hand is finished. About 200 bytes a point at the peak.
/// Method: bisection of right-angled triangles at their newest vertex, neighbours first, so that the mesh conforms at
/// every step (W. F. Mitchell, "A comparison of adaptive refinement techniques for elliptic problems", 1989); looked at
/// are the middles of all edges.
FieldSamples sampleMesh(const Program& f, const std::array<Interval, 2>& intervals, const PanelMap& map,
                        const FieldTolerance& tolerance, std::stop_token stop = {},
                        std::size_t mostEvaluations = mostMeshEvaluations);

} // namespace coulter
