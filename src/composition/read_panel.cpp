#include "composition/read_panel.h"

namespace coulter {
namespace {

/// Places of the look that lie on further scales, as the first scale would have to say them.
void toFirstScale(ReadPanel& panel) {
    const auto mapOf = [&](const OnScale& scale) {
        return panelLimits(scale.panel, scale.look.extents, 6).map(1, 1).y;
    };
    const AxisMap first = mapOf(panel.scales[0]);
    std::size_t index = 0;
    for (const Drawn& drawn : panel.reading.drawn) {
        CoarseLook& coarse = panel.look.coarse[index++];
        if (drawn.scale == 0) continue;
        const AxisMap own = mapOf(panel.scales[drawn.scale]);
        for (double& y : coarse.y) y = first.fromSheet(own.toSheet(y));
    }
}

} // namespace

void lookAgain(ReadPanel& panel, double operations, const std::stop_token& stop) {
    panel.look = lookAtPanel(panel.panel, panel.reading, operations, stop);
    panel.scales.clear();
    if (panel.panel.further.empty() || panel.reading.shape != PanelShape::Plane) return;
    const PanelLimits all = panelLimits(panel.panel, panel.look.extents, 6);
    for (std::size_t k = 0; k <= panel.panel.further.size(); ++k) {
        OnScale scale;
        scale.panel = panel.panel;
        scale.panel.x.limits = all.x; // which is everyone's
        scale.reading = readingOnScale(panel.reading, panel.panel, k);
        scale.mirrors = k > 0 && scale.reading.drawn.empty();
        if (scale.mirrors) {
            scale.reading = panel.scales[0].reading;
            scale.look = panel.scales[0].look;
        }
        if (k > 0) {
            const AxisLimits first = panel.panel.y.limits;
            scale.panel.y = panel.panel.further[k - 1];
            if (scale.mirrors) scale.panel.y.limits = first;
        }
        if (!scale.mirrors) scale.look = lookAtPanel(scale.panel, scale.reading, operations, stop);
        panel.scales.push_back(std::move(scale));
    }
    toFirstScale(panel);
}

} // namespace coulter
