#include "composition/colour_bar.h"

#include "drawing/colours.h"
#include "figure/scale_settings.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

using namespace distance;

BarSide sideOf(const Panel& panel) { return static_cast<BarSide>(word(panel.colour.settings, barSetting)); }

/// Whether something is drawn in colours that the bar explains.
bool isWanted(const PanelReading& reading) {
    return std::ranges::any_of(reading.drawn, [](const Drawn& drawn) { return showsByColours(drawn); });
}

} // namespace

Limits colourLimits(const PanelReading& reading, const Limits& found, ScaleKind scale) {
    if (!reading.colourMiddle) return found;
    const double middle = *reading.colourMiddle;
    if (scale == ScaleKind::Logarithmic) {
        if (!(middle > 0)) return found;
        const double factor = std::max({found.high / middle, middle / found.low, 1 + 1e-9});
        return {middle / factor, middle * factor};
    }
    const double half = std::max({found.high - middle, middle - found.low, 1e-300});
    return {middle - half, middle + half};
}

ColourRun colourRun(const Panel& panel, const PanelReading& reading, const AxisMap& scale) {
    const Settings& settings = panel.colour.settings;
    ColourRun run;
    run.map = &colourMapNamed(text(settings, mapSetting));
    run.turned = truth(settings, turnedSetting);
    run.from = number(settings, mapFromSetting);
    run.to = number(settings, mapToSetting);
    run.under = colour(settings, underColourSetting);
    run.over = colour(settings, overColourSetting);
    run.undefined = colour(settings, undefinedColourSetting);
    for (const Drawn& drawn : reading.drawn) { // what has steps of its own decides
        if (drawn.kind->colourSteps && run.steps.empty()) run.steps = drawn.kind->colourSteps(drawn, scale);
    }
    if (const double steps = number(settings, stepsSetting); steps > 0 && run.steps.empty()) {
        const Ticks ticks = scale.kind == ScaleKind::Logarithmic ? logarithmicTicks(scale.low, scale.high, steps)
                                                                 : linearTicks(scale.low, scale.high, steps);
        for (const double place : ticks.places) {
            if (place > scale.low && place < scale.high) run.steps.push_back(place);
        }
    }
    return run;
}

void layoutColours(PanelLayout& layout, const Given& given, double along) {
    layout.colours = {};
    if (!given.look.colours) return;
    const ScaleKind scale = colourScaleOf(given.panel);
    const Limits range = colourLimits(given.reading, *given.look.colours, scale);
    ColourBar& bar = layout.colours;
    layout.frame.colour = {scale, range.low, range.high, along};
    layout.frame.shades = colourRun(given.panel, given.reading, layout.frame.colour);
    bar.side = sideOf(given.panel);
    bar.reversed = truth(given.panel.colour.settings, reversedSetting);
    bar.shown = isWanted(given.reading) && bar.side != BarSide::None;
    if (!bar.shown) return;
    const ColourRun& shades = layout.frame.shades;
    if (!shades.steps.empty() || shades.under || shades.over) {
        bar.ends = std::min(barWidth, along / 6);
        layout.frame.colour.length = along - 2 * bar.ends;
    }
    bar.label = given.box(given.labels.colour, layout.sizes.text);
    const double number = layout.sizes.number, length = layout.frame.colour.length;
    if (bar.isUpright()) {
        bar.ticks = clearTicksUp(given.rules[colourScale].ticks, layout.frame.colour, number,
                                 std::clamp(length / 12, 2.0, 10.0));
        bar.room = barGap + barWidth + tick + toNumber +
                   std::max(widestLabel(bar.ticks, number), bar.label.width - barWidth - tick - toNumber);
    } else {
        bar.ticks = clearTicks(given.rules[colourScale].ticks, layout.frame.colour, number);
        bar.room = barGap + barWidth + tick + toNumber + number + (bar.label.height() > 0 ? 1 + bar.label.height() : 0);
    }
}

double barRoom(const PanelLayout& layout, BarSide side) {
    return layout.colours.shown && layout.colours.side == side ? layout.colours.room : 0;
}

void placeColourBar(PanelLayout& layout, double beyond) {
    ColourBar& bar = layout.colours;
    const Rect& f = layout.frame.rect;
    const double length = layout.frame.colour.length;
    switch (bar.side) {
    case BarSide::Right: bar.rect = {f.right() + barGap + beyond, f.y + bar.ends, barWidth, length}; break;
    case BarSide::Left: bar.rect = {f.x - beyond - bar.room, f.y + bar.ends, barWidth, length}; break;
    case BarSide::Below: bar.rect = {f.x + bar.ends, f.bottom() + beyond + barGap, length, barWidth}; break;
    case BarSide::Above:
        bar.rect = {f.x + bar.ends, f.y - beyond - barGap - barWidth - tick - toNumber - layout.sizes.number, length,
                    barWidth};
        break;
    case BarSide::None: break;
    }
}

double placeOnBar(const PanelLayout& layout, double value) {
    const ColourBar& bar = layout.colours;
    const AxisMap& map = layout.frame.colour;
    const double from = bar.reversed ? map.length - map.toSheet(value) : map.toSheet(value);
    return bar.isUpright() ? bar.rect.bottom() - from : bar.rect.x + from;
}

double valueOnBar(const PanelLayout& layout, double place) {
    const ColourBar& bar = layout.colours;
    const AxisMap& map = layout.frame.colour;
    const double from = bar.isUpright() ? bar.rect.bottom() - place : place - bar.rect.x;
    return map.fromSheet(bar.reversed ? map.length - from : from);
}

namespace {

class Bar {
public:
    Bar(Scene& scene, const PanelLayout& layout, double dotsPerMm)
        : scene_(scene), layout_(layout), bar_(layout.colours), map_(layout.frame.colour), shades_(layout.frame.shades),
          number_(layout.sizes.number), dotsPerMm_(dotsPerMm), upright_(bar_.isUpright()) {}

    void colours() {
        if (shades_.steps.empty()) {
            image();
        } else {
            double before = map_.low;
            for (std::size_t step = 0; step <= shades_.steps.size(); ++step) {
                const double next =
                    step == shades_.steps.size() ? map_.high : std::clamp(shades_.steps[step], map_.low, map_.high);
                // Each reaches under the next, so that nothing shows between them.
                if (next > before)
                    fill({corner(before, 0), corner(map_.high, 0), corner(map_.high, 1), corner(before, 1)},
                         shades_.ofStep(step, map_));
                before = std::max(before, next);
            }
        }
        if (bar_.ends > 0) {
            end(map_.low, shades_.under.value_or(shades_.at(0)));
            end(map_.high, shades_.over.value_or(shades_.at(1)));
        }
    }

    /// Ticks and numbers beside it; returns how far they reach beyond its side.
    double scale() {
        const double beside = upright_ ? bar_.rect.right() + 0.6 : bar_.rect.bottom() + 0.6;
        const auto at = [&](double along, double away) {
            return upright_ ? Point{beside + away, along} : Point{along, beside + away};
        };
        const double low = place(map_.low), high = place(map_.high);
        std::vector<std::vector<Point>> lines{{at(std::min(low, high), 0), at(std::max(low, high), 0)}};
        double reach = tick;
        for (std::size_t i = 0; i < bar_.ticks.places.size(); ++i) {
            const double along = place(bar_.ticks.places[i]);
            lines.push_back({at(along, 0), at(along, tick)});
            if (bar_.ticks.labels[i].empty()) continue;
            const Box number = tickBox(bar_.ticks, i, number_);
            if (upright_)
                addBox(scene_, number, beside + tick + toNumber, along + 0.33 * number_, inkColour);
            else
                addBox(scene_, number, along - number.width / 2, beside + tick + 0.6 + 0.72 * number_, inkColour);
            reach = std::max(reach, tick + toNumber + (upright_ ? number.width : number_.mm));
        }
        for (const double minor : bar_.ticks.minor) lines.push_back({at(place(minor), 0), at(place(minor), tick / 2)});
        scene_.items.emplace_back(StrokeItem{std::move(lines), inkColour, 0.18, {}, false});
        return 0.6 + reach;
    }

    /// Where the label's baseline begins.
    Point labelAt(double reach) const {
        if (upright_) return {bar_.rect.x, bar_.rect.y - bar_.ends - layout_.toLabel() - bar_.label.descent};
        const double x = layout_.startRound(bar_.rect.x + bar_.rect.width / 2, bar_.label.width);
        return {x, bar_.side == BarSide::Below ? bar_.rect.bottom() + reach + 1 + bar_.label.ascent
                                               : bar_.rect.y - 1 - bar_.label.descent};
    }

private:
    double place(double value) const { return placeOnBar(layout_, value); }
    Point corner(double value, double across) const {
        return upright_ ? Point{bar_.rect.x + across * bar_.rect.width, place(value)}
                        : Point{place(value), bar_.rect.y + across * bar_.rect.height};
    }
    void fill(std::vector<Point> polygon, Colour colour) {
        scene_.items.emplace_back(FillItem{{std::move(polygon)}, colour});
    }
    /// A point at an end: it goes on beyond it.
    void end(double value, Colour colour) {
        const bool first = (place(value) < place(value == map_.low ? map_.high : map_.low));
        const double tip = place(value) + (first ? -bar_.ends : bar_.ends);
        const Point middle =
            upright_ ? Point{bar_.rect.x + bar_.rect.width / 2, tip} : Point{tip, bar_.rect.y + bar_.rect.height / 2};
        fill({corner(value, 0), middle, corner(value, 1)}, colour);
    }

    void image() {
        ImageItem image;
        image.rect = image.clip = bar_.rect;
        image.width = std::max(2, static_cast<int>(bar_.rect.width * dotsPerMm_));
        image.height = std::max(2, static_cast<int>(bar_.rect.height * dotsPerMm_));
        const int along = upright_ ? image.height : image.width;
        std::vector<std::uint32_t> colours;
        for (int i = 0; i < along; ++i) {
            const double share = (i + 0.5) / along;
            const Colour c = shades_.at(upright_ != bar_.reversed ? 1 - share : share);
            colours.push_back(0xff000000U | static_cast<std::uint32_t>(c.red) << 16 |
                              static_cast<std::uint32_t>(c.green) << 8 | c.blue);
        }
        for (int y = 0; y < image.height; ++y) {
            for (int x = 0; x < image.width; ++x)
                image.pixels.push_back(colours[static_cast<std::size_t>(upright_ ? y : x)]);
        }
        scene_.items.emplace_back(std::move(image));
    }

    Scene& scene_;
    const PanelLayout& layout_;
    const ColourBar& bar_;
    const AxisMap& map_;
    const ColourRun& shades_;
    Em number_;
    double dotsPerMm_;
    bool upright_;
};

} // namespace

void drawColourBar(Scene& scene, std::vector<Hit>& hits, std::size_t panel, const PanelLayout& layout,
                   double dotsPerMm) {
    const ColourBar& bar = layout.colours;
    if (!bar.shown) return;
    Bar drawing(scene, layout, dotsPerMm);
    drawing.colours();
    const double reach = drawing.scale();
    const bool upright = bar.isUpright();
    const Rect whole = upright ? Rect{bar.rect.x, bar.rect.y, bar.rect.width + reach, bar.rect.height}
                               : Rect{bar.rect.x, bar.rect.y, bar.rect.width, bar.rect.height + reach};
    hits.push_back({{ItemKind::Scale, panel, colourScale, 0}, whole});
    const Point at = drawing.labelAt(reach);
    addBox(scene, bar.label, at.x, at.y, inkColour);
    if (bar.label.height() > 0)
        hits.push_back({{ItemKind::ScaleLabel, panel, colourScale, 0},
                        {at.x, at.y - bar.label.ascent, bar.label.width, bar.label.height()}});
    addPowerOfTen(scene, bar.ticks, layout.sizes.number, at.x + bar.label.width + (bar.label.width > 0 ? 2 : 0), at.y,
                  false);
}

} // namespace coulter
