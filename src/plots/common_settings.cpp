#include "plots/common_settings.h"

#include "plots/marks.h"
#include "plots/plot_kind.h"

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

namespace {
constexpr const char* runWords[] = {"colours", "patterns", "widths", "a scale of colours"};
}
const Setting runSetting{.key = "members by",
                         .label = "members by",
                         .meaning =
                             "how the members of a family differ: by a run of colours, of line patterns or of widths; "
                             "or by colours that say their value, on a scale beside the panel instead of in the legend",
                         .type = SettingType::Word,
                         .usual = std::string("colours"),
                         .words = runWords,
                         .rare = true};

const Setting insideSetting{.key = "inside",
                            .label = "inside",
                            .meaning = "opacity of what the line encloses; 0: not filled",
                            .type = SettingType::Number,
                            .usual = 0.0,
                            .least = 0,
                            .greatest = 1,
                            .step = 0.05};

const Setting opacitySetting{.key = "opacity",
                             .label = "opacity",
                             .meaning = "1 hides what is below, 0 shows nothing",
                             .type = SettingType::Number,
                             .usual = 1.0,
                             .least = 0,
                             .greatest = 1,
                             .step = 0.05,
                             .rare = true};

double opacityOf(const Drawn& drawn) { return number(drawn.settings, opacitySetting); }

std::vector<double> linePattern(const Drawn& drawn, double width) {
    return drawn.dashes.empty() ? dashesOf(word(drawn.settings, patternSetting), width) : drawn.dashes;
}

bool haveOnePattern(const Drawn& one, const Drawn& other) {
    return one.dashes == other.dashes &&
           (!one.dashes.empty() || word(one.settings, patternSetting) == word(other.settings, patternSetting));
}

Pen penOf(const Drawn& drawn) {
    const double width = number(drawn.settings, widthSetting);
    return {drawn.colour, width, linePattern(drawn, width), true, opacityOf(drawn)};
}

void lineSwatch(const Drawn& drawn, const Rect& rect, Canvas& canvas) {
    const double middle = rect.y + rect.height / 2;
    canvas.stroke({{{rect.x, middle}, {rect.right(), middle}}}, penOf(drawn));
    if (hasMarks(drawn)) drawMarks({{rect.x + rect.width / 2, middle}}, drawn, canvas);
}

} // namespace coulter
