#include "drawing/figure_layout.h"

#include "drawing/legend_place.h"
#include "figure/labels.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr double point = 25.4 / 72; // mm
constexpr double scaleOffset = 2;   // mm between the panel and its scale lines
constexpr double tickLength = 1.2;
constexpr double edge = 3; // mm of free paper round everything

double widestLabel(const Ticks& ticks, double size) {
    double widest = 0;
    for (const std::string& label : ticks.labels)
        widest = std::max(widest, layoutMath(*mathDigits(label), size, false).width);
    return widest;
}

} // namespace

LetterSizes letterSizes(const Sheet& sheet) {
    const double text = sheet.textSize * point;
    return {text, 0.92 * text, 1.15 * text};
}

namespace {

PanelLayout layoutWith(const LetterSizes& sizes, const Page& page, const Sheet& sheet, const Panel& panel,
                       const PanelCurves& curves, const std::vector<CoarseCurve>& coarse) {
    PanelLayout layout;
    layout.sizes = sizes;
    const std::string variable = curves.curves.empty() ? "" : curves.curves[0].variable;
    layout.title =
        panel.title.empty() ? Box{} : labelBox(withValues(page, panel.title), FontId::Text, sizes.title, page.names);
    const auto label = [&](const std::string& text) {
        return text.empty() ? Box{} : labelBox(withValues(page, text), FontId::Text, sizes.text, page.names);
    };
    layout.xLabel = label(horizontalLabel(page, panel, variable));
    layout.yLabel = label(verticalLabel(page, panel));

    // Room above: title, the vertical scale's label, and half a number; below: numbers and label.
    const double titleRoom = layout.title.height() > 0 ? layout.title.height() + 2.2 : 0;
    const double yLabelRoom = layout.yLabel.height() > 0 ? layout.yLabel.height() + 2.4 : 0.5 * sizes.number;
    const double top = edge + titleRoom + yLabelRoom;
    const double below = scaleOffset + tickLength + 0.6 + sizes.number +
                         (layout.xLabel.height() > 0 ? 0.8 + layout.xLabel.height() : 0) + edge;
    const double height = std::max(5.0, sheet.height - top - below);

    const double yTickCount = std::clamp(height / 12, 2.0, 10.0);
    const PanelLimits limits = panelLimits(panel, curves, coarse, yTickCount);
    layout.yTicks = linearTicks(limits.y.low, limits.y.high, yTickCount);
    const double left = edge + widestLabel(layout.yTicks, sizes.number) + 0.8 + tickLength + scaleOffset;

    double right = edge + 2;
    const double fullWidth = std::max(5.0, sheet.width - left - right);
    layout.legend = decideLegend(page, panel, curves, coarse, limits, fullWidth, height, sizes.text);
    if (layout.legend.place == LegendPlace::AtEnds)
        right = edge + 3 + layout.legend.width - layout.legend.sampleLength - 2;
    if (layout.legend.place == LegendPlace::Outside && !panel.legend.at) right = edge + 4 + layout.legend.width;
    const double width = std::max(5.0, sheet.width - left - right);

    layout.frame = {left, top, width, height};
    layout.map.x = {ScaleKind::Linear, limits.x.low, limits.x.high, width};
    layout.map.y = {ScaleKind::Linear, limits.y.low, limits.y.high, height};
    // As many numbers as stand clear of each other.
    for (double count = std::clamp(width / 16, 2.0, 12.0); count >= 1; count -= 1) {
        layout.xTicks = linearTicks(limits.x.low, limits.x.high, count);
        const double distance = layout.xTicks.step / (limits.x.high - limits.x.low) * width;
        if (widestLabel(layout.xTicks, sizes.number) + 2 <= distance) break;
    }
    layout.legendRect = legendRectInPanel(layout.legend, panel.legend, width, height);
    layout.legendRect.x += left;
    layout.legendRect.y += top;
    return layout;
}

} // namespace

PanelLayout layoutPanel(const Page& page, const Sheet& sheet, const Panel& panel, const PanelCurves& curves) {
    const std::vector<CoarseCurve> coarse = coarseCurves(curves, panel);
    LetterSizes sizes = letterSizes(sheet);
    PanelLayout layout = layoutWith(sizes, page, sheet, panel, curves, coarse);
    // On a sheet too small for its letters these become smaller, so that nothing is ever cut off.
    for (int step = 0; step < 30; ++step) {
        const bool high = layout.frame.height >= 0.3 * sheet.height, wide = layout.frame.width >= 0.3 * sheet.width;
        const bool fits = layout.yLabel.width + layout.frame.x <= sheet.width &&
                          layout.title.width + 2 * edge <= sheet.width && layout.xLabel.width <= sheet.width - 2 * edge;
        if (high && wide && fits) break;
        sizes = {0.92 * sizes.text, 0.92 * sizes.number, 0.92 * sizes.title};
        layout = layoutWith(sizes, page, sheet, panel, curves, coarse);
    }
    return layout;
}

} // namespace coulter
