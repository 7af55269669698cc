// A field by colours.
#include "drawing/clip_polyline.h"
#include "drawing/colours.h"
#include "drawing/field_image.h"
#include "plots/field_source.h"
#include "plots/mesh_numbers.h"
#include "plots/sampling.h"
#include "sampling/grid.h"

namespace coulter {
namespace {

constexpr const char* fillWords[] = {"smooth", "cells"};
const Setting fillSetting{.key = "fill",
                          .label = "fill",
                          .meaning = "interpolated between the samples, or one colour for each; always the latter "
                                     "where a field has cells of its own",
                          .type = SettingType::Word,
                          .usual = std::string("smooth"),
                          .words = fillWords};
constexpr Setting meshSetting{.key = "mesh",
                              .label = "cells",
                              .meaning = "lines round each cell of the samples",
                              .type = SettingType::Truth,
                              .usual = false};

constexpr const char* numbersWords[] = {"none", "of nodes", "of elements", "of both"};
const Setting numbersSetting{.key = "numbers",
                             .label = "numbers",
                             .meaning = "of a mesh with elements: the numbers of its nodes and elements, as its table "
                                        "has them, wherever there is room",
                             .type = SettingType::Word,
                             .usual = std::string("none"),
                             .words = numbersWords,
                             .rare = true};

const Setting* const settings[] = {&acrossSetting, &fillSetting, &meshSetting, &numbersSetting};

/// What has one value throughout each cell of its own is not smoothed.
FieldFill fillOf(const Drawn& drawn) {
    const Field& field = *fieldOf(drawn);
    if (field.hasCells && !field.mesh) return FieldFill::Cells;
    return static_cast<FieldFill>(word(drawn.settings, fillSetting));
}

/// With the picture as a further part, if each of its dots can have its own value: of a formula that is sampled as it
/// needs.
Reading read(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    Reading reading = readField(context, plot, plotted, path);
    if (!context.format.heatmapsByDots) return reading;
    for (Drawn& drawn : reading.drawn) {
        Field field = *fieldOf(drawn);
        const bool isFormula = !field.mesh && !field.hasCells && field.program->fields.empty() &&
                               isAdaptive(field.grids[0]) && isAdaptive(field.grids[1]);
        if (!isFormula || fillOf(drawn) == FieldFill::Cells || truth(drawn.settings, meshSetting)) continue;
        field.asDots = true;
        drawn.parts.push_back({std::make_shared<const Source>(std::move(field)), nullptr});
    }
    return reading;
}

/// Cells drawn round the outermost points of a grid reach beyond the interval.
void reach(const Drawn& drawn, Extents& extents) {
    if (fillOf(drawn) != FieldFill::Cells) return;
    const Field& field = *fieldOf(drawn);
    for (std::size_t k = 0; k < 2; ++k) {
        const ScaleKind scale = k == 0 ? extents.xScale : extents.yScale;
        const Interval& interval = field.intervals[k];
        const std::vector<double> points = gridPoints(interval, field.grids[k], field.variables[k]).points;
        if (points.size() < 2) continue;
        const AxisMap map{scale, interval.low, interval.high, 1};
        const std::vector<double> borders = cellBorders(points, map);
        Extents::hold(k == 0 ? extents.across : extents.up,
                      {map.fromSheet(borders.front()), map.fromSheet(borders.back())});
    }
}

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    const FieldSamples& samples = *fieldSamplesOf(drawn);
    const FieldSamples* picture = fieldSamplesOf(drawn, 1);
    canvas.image(picture && picture->dots ? dotImage(*picture->dots, frame, canvas.dotsPerMm())
                                          : fieldImage(samples, fillOf(drawn), frame, canvas.dotsPerMm()));
    const Field& field = *fieldOf(drawn);
    if (truth(drawn.settings, meshSetting)) {
        Polylines lines;
        for (const auto& line : field.mesh ? elementLines(*field.mesh, frame) : meshLines(samples, frame)) {
            for (auto& piece : clipPolyline(line, frame.rect)) lines.push_back(std::move(piece));
        }
        canvas.stroke(lines, {inkOverColours, 0.05, {}, false});
    }
    const std::size_t numbers = word(drawn.settings, numbersSetting);
    if (field.mesh && numbers > 0) drawMeshNumbers(*field.mesh, frame, canvas, (numbers & 1) != 0, (numbers & 2) != 0);
}

} // namespace

extern const PlotKind heatmapKind;
const PlotKind heatmapKind{.name = "heatmap",
                           .meaning = "a field over two variables by colours; a vector by its length",
                           .runs = Runs::Over,
                           .layer = Layer::Ground,
                           .settings = settings,
                           .ways = &fillSetting,
                           .fits = [](const Signature& s) { return s.variables == 2; },
                           .read = read,
                           .reach = reach,
                           .draw = draw};

} // namespace coulter
