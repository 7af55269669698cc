// Lines along which a field has one of several levels.
#include "drawing/colours.h"
#include "drawing/line_labels.h"
#include "plots/common_settings.h"
#include "plots/dashes.h"
#include "plots/field_source.h"
#include "plots/level_proofs.h"
#include "plots/level_remarks.h"
#include "plots/level_tables.h"
#include "plots/levels.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

enum Colours : std::uint8_t { OneColour, ByValue, BySign };
constexpr const char* colourWords[] = {"one", "by value", "by sign"};
const Setting coloursSetting{.key = "colours",
                             .label = "colours",
                             .meaning = "one for all; by value as a heatmap has them; or lines below zero dashed",
                             .type = SettingType::Word,
                             .usual = std::string("one"),
                             .words = colourWords};

constexpr const char* labelWords[] = {"along the lines", "none"};
const Setting labelsSetting{.key = "labels",
                            .label = "labels",
                            .meaning = "the level, written along the line at its straightest places",
                            .type = SettingType::Word,
                            .usual = std::string("along the lines"),
                            .words = labelWords};

const Setting thickSetting{.key = "thick every",
                           .label = "thick every",
                           .meaning = "every so many lines one of twice the width; 0: none",
                           .type = SettingType::Number,
                           .usual = 0.0,
                           .least = 0,
                           .greatest = 100,
                           .step = 1};

const Setting* const settings[] = {&acrossSetting,  &levelsSetting, &levelStepSetting, &levelCountSetting,
                                   &coloursSetting, &colourSetting, &labelsSetting,    &widthSetting,
                                   &patternSetting, &dashesSetting, &thickSetting,     &opacitySetting};

bool usesColours(const Drawn& drawn) { return word(drawn.settings, coloursSetting) == ByValue; }

Pen penAt(const Drawn& drawn, const Frame& frame, double level, std::size_t index) {
    Pen pen = penOf(drawn);
    const std::size_t colours = word(drawn.settings, coloursSetting);
    if (colours == ByValue) pen.colour = frame.shades.of(level, frame.colour).value_or(drawn.colour);
    if (colours == BySign && level < 0) pen.dashes = dashesOf(1, pen.width);
    const double every = number(drawn.settings, thickSetting);
    // Counted so that zero, and round multiples of the step, are thick.
    if (every > 0) {
        const std::vector<double> levels = levelsOf(drawn, frame.colour);
        double place = static_cast<double>(index);
        if (levels.size() > 1) {
            const double step = levels[1] - levels[0], at = level / step;
            const bool even =
                std::abs((levels.back() - levels.front()) / step - (static_cast<double>(levels.size()) - 1)) < 1e-6;
            if (even && std::abs(at - std::round(at)) < 1e-6) place = std::round(at);
        }
        if (std::fmod(std::abs(place), every) == 0) pen.width *= 2;
    }
    pen.roundEnds = false;
    return pen;
}

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    const auto found = levelLinesOf(drawn, frame);
    const std::vector<double> levels = levelsOf(drawn, frame.colour);
    const bool labelled = word(drawn.settings, labelsSetting) == 0;
    const std::vector<std::string> texts = levelTexts(levels);
    const Em size = 0.8 * canvas.letterSize();
    std::vector<LabelledLine> lines;
    for (const Isoline& line : found->lines) {
        LabelledLine each{onSheet(line.path, frame), line.closed, {}};
        if (labelled) each.label = textBox(texts[line.level], FontId::Text, size);
        lines.push_back(std::move(each));
    }
    const LineLabels placed = placeLabels(lines, frame.rect, 70);
    for (std::size_t level = 0; level < levels.size(); ++level) {
        Polylines same;
        for (std::size_t i = 0; i < lines.size(); ++i) {
            if (found->lines[i].level == level) same.insert(same.end(), placed.lines[i].begin(), placed.lines[i].end());
        }
        if (!same.empty()) canvas.stroke(same, penAt(drawn, frame, levels[level], level));
    }
    for (const LineLabel& label : placed.labels) {
        const std::size_t level = found->lines[label.line].level;
        canvas.turnedText(lines[label.line].label, label.middle, label.turn,
                          usesColours(drawn) ? inkColour : penAt(drawn, frame, levels[level], level).colour);
    }
}

std::optional<Touched> tell(const Drawn& drawn, const Frame& frame, Point mm, double reach) {
    const auto found = levelLinesOf(drawn, frame);
    const LinePassed passed = lineAt(*found, frame, mm, reach);
    if (!passed.line) return std::nullopt;
    const std::vector<std::string> texts = levelTexts(levelsOf(drawn, frame.colour));
    return Touched{"line of " + texts[passed.line->level], mm, passed.away};
}

} // namespace

extern const PlotKind contoursKind;
const PlotKind contoursKind{.name = "contours",
                            .meaning = "lines along which a field has one of several levels, with their labels",
                            .runs = Runs::Over,
                            .layer = Layer::Area,
                            .settings = settings,
                            .fits = [](const Signature& s) { return s.variables == 2; },
                            .read = readLevels,
                            .draw = draw,
                            .swatch = lineSwatch,
                            .usesColours = usesColours,
                            .tell = tell,
                            .table = levelLinesTable,
                            .report = levelLinesReport,
                            .prove = provenLevels,
                            .remark = remarkOnLevels};

} // namespace coulter
