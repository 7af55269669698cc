#include "plots/common_settings.h"

namespace coulter {

constexpr Setting colourSetting{.key = "colour",
                                .label = "colour",
                                .meaning = "colour of lines and areas; left out: the figure's own",
                                .type = SettingType::Colour};

const Setting widthSetting{.key = "width",
                           .label = "width",
                           .meaning = "width of lines",
                           .type = SettingType::Number,
                           .usual = 0.4,
                           .unit = "mm",
                           .least = 0.01,
                           .greatest = 20,
                           .step = 0.05};

const Setting patternSetting{.key = "pattern",
                             .label = "line",
                             .meaning = "pattern of lines",
                             .type = SettingType::Word,
                             .usual = std::string("solid"),
                             .words = linePatterns};

Pen penOf(const Drawn& drawn) {
    const double width = number(drawn.settings, widthSetting);
    return {drawn.colour, width, dashesOf(word(drawn.settings, patternSetting), width), true};
}

void lineSwatch(const Drawn& drawn, const Rect& rect, Canvas& canvas) {
    const double middle = rect.y + rect.height / 2;
    canvas.stroke({{{rect.x, middle}, {rect.right(), middle}}}, penOf(drawn));
}

} // namespace coulter
