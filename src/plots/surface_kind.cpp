// A surface in space: heights over a floor, or places over two parameters.
#include "drawing/colours.h"
#include "drawing/space_canvas.h"
#include "formula/notation/parser.h"
#include "plots/column_source.h"
#include "plots/common_settings.h"
#include "plots/curve_source.h"
#include "plots/field_source.h"
#include "plots/levels.h"
#include "plots/measured_places.h"
#include "plots/reading.h"
#include "plots/surface_faces.h"
#include "plots/telling.h"
#include "sampling/field.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr const char* shownWords[] = {"lit", "smooth", "cells", "mesh"};
const Setting shownSetting{.key = "shown",
                           .label = "shown",
                           .meaning = "lit by two lights, in even colours, by cells of one colour, or as lines alone",
                           .type = SettingType::Word,
                           .usual = std::string("lit"),
                           .words = shownWords};
enum Shown : std::uint8_t { Lit, Smooth, CellsShown, MeshShown };

constexpr const char* colourWords[] = {"by value", "one"};
const Setting coloursSetting{.key = "colours",
                             .label = "colours",
                             .meaning = "by the height, or by the function of “coloured by”; or one colour",
                             .type = SettingType::Word,
                             .usual = std::string("by value"),
                             .words = colourWords};

const Setting colouredBySetting{.key = "coloured by",
                                .label = "coloured by",
                                .meaning =
                                    "another function of both variables whose value colours show; empty: heights",
                                .type = SettingType::Formula,
                                .usual = std::string(),
                                .isStyle = false,
                                .rare = true};

const Setting linesSetting{.key = "lines",
                           .label = "lines",
                           .meaning =
                               "width of lines on the surface at equal steps of both variables; 0: none, but as a mesh",
                           .type = SettingType::Number,
                           .usual = 0.0,
                           .unit = "mm",
                           .least = 0,
                           .greatest = 5,
                           .step = 0.05};

const Setting lineCountSetting{.key = "line count",
                               .label = "line count",
                               .meaning = "how many such lines in each direction",
                               .type = SettingType::Number,
                               .usual = 25.0,
                               .least = 2,
                               .greatest = 400,
                               .step = 1,
                               .rare = true};

constexpr const char* contourWords[] = {"none", "on the floor", "on the surface", "on both"};
const Setting contoursSetting{.key = "contours",
                              .label = "contours",
                              .meaning = "lines of equal height",
                              .type = SettingType::Word,
                              .usual = std::string("none"),
                              .words = contourWords};

const Setting* const settings[] = {&acrossSetting,     &colouredBySetting, &levelsSetting,   &levelStepSetting,
                                   &levelCountSetting, &shownSetting,      &coloursSetting,  &colourSetting,
                                   &linesSetting,      &contoursSetting,   &lineCountSetting};

Reading read(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    Reading reading = readLevels(context, plot, plotted, path);
    if (reading.drawn.empty()) return reading;
    Drawn& drawn = reading.drawn[0];
    Field field = *fieldOf(drawn);
    field.inSpace = true;
    if (field.program->outputs.size() == 2) {
        refuse(reading, plotted, "A surface is a height or a place in space, and this is a vector of the plane.",
               "draw its length, or one of its components");
        reading.drawn.clear();
        return reading;
    }
    if (field.isParametric()) {
        nameCoordinates(reading, context, plotted.expression, true);
    } else {
        reading.words.upright = reading.words.colour;
    }
    drawMeans(field, context.panel, mostSurfacePoints);
    if (!readTint(reading, context, plot, colouredBySetting, field)) return reading;
    drawn.parts[0].source = std::make_shared<const Source>(std::move(field));
    return reading;
}

bool usesColours(const Drawn& drawn) {
    return word(drawn.settings, coloursSetting) == 0 && word(drawn.settings, shownSetting) != MeshShown;
}

/// A frame whose plane is the floor, to follow lines of equal height there.
Frame floorFrame(const Drawn& drawn, const Frame& frame) {
    Frame floor = frame;
    floor.map = samplingMap(*fieldOf(drawn), frame);
    floor.colour = frame.space->maps[2];
    floor.space.reset();
    return floor;
}

void drawContours(const Drawn& drawn, const Frame& frame, SpaceCanvas& space) {
    const std::size_t where = word(drawn.settings, contoursSetting);
    if (where == 0 || fieldOf(drawn)->isParametric()) return;
    const Frame floor = floorFrame(drawn, frame);
    const auto found = levelLinesOf(drawn, floor);
    const std::vector<double> levels = levelsOf(drawn, floor.colour);
    const double ground = frame.space->faceValue(Face::Floor);
    for (const Isoline& line : found->lines) {
        std::vector<Place> places;
        const auto at = [&](double z) {
            places.clear();
            for (std::size_t i = 0; i < line.path.size(); ++i) places.push_back({line.path.x[i], line.path.y[i], z});
            if (line.closed && !places.empty()) places.push_back(places.front());
        };
        const double level = levels[line.level];
        const auto colour = usesColours(drawn) && !fieldOf(drawn)->tint
                                ? frame.shades.of(level, frame.colour).value_or(inkColour)
                                : drawn.colour;
        if (where != 2) at(ground), space.line(places, {colour, 0.3, {}, true});
        if (where >= 2) at(level), space.line(places, {inkOverColours, 0.2, {}, true});
    }
}

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    if (!frame.space || !canvas.space()) return;
    SpaceCanvas& space = *canvas.space();
    const std::size_t shown = word(drawn.settings, shownSetting);
    SurfaceLook look;
    look.lit = shown == Lit;
    look.flat = shown == CellsShown;
    if (shown == MeshShown)
        look.one = frame.ink.of(paperColour);
    else if (word(drawn.settings, coloursSetting) == 1)
        look.one = frame.ink.of(drawn.colour);
    space.faces(surfaceFaces(drawn, frame, look));
    double width = number(drawn.settings, linesSetting);
    if (shown == MeshShown && width == 0) width = 0.15;
    if (width > 0) {
        const Colour ink = shown == MeshShown ? drawn.colour : inkOverColours;
        for (const auto& line : surfaceLines(drawn, frame, static_cast<int>(number(drawn.settings, lineCountSetting))))
            space.line(line, {ink, width, {}, true, shown == MeshShown ? 1 : 0.6});
    }
    drawContours(drawn, frame, space);
}

void swatch(const Drawn& drawn, const Rect& rect, Canvas& canvas) {
    const double top = rect.y + 0.2 * rect.height, bottom = rect.y + 0.8 * rect.height, slant = 0.25 * rect.width;
    const Polylines shape{
        {{rect.x + slant, top}, {rect.right(), top}, {rect.right() - slant, bottom}, {rect.x, bottom}}};
    canvas.fill(shape, {drawn.colour, 0.8});
}

std::optional<Touched> tell(const Drawn& drawn, const Frame& frame, Point mm, double) {
    const auto found = surfaceAt(drawn, frame, mm);
    if (!found) return std::nullopt;
    const Field& field = *fieldOf(drawn);
    const char* const names[] = {"x", "y", "z"};
    std::string words;
    for (std::size_t k = 0; k < 3; ++k) {
        const std::string name = field.isParametric() || k == 2 ? names[k] : field.variables[k];
        words += (k > 0 ? "   " : "") + name + " = " + printedNumber(found->place[k], 5);
    }
    if (found->slope)
        words += "   slope " + printedNumber(*found->slope, 3) + " towards " + printedNumber(found->direction, 3) + "°";
    return Touched{words, mm, 0};
}

} // namespace

extern const PlotKind surfaceKind;
const PlotKind surfaceKind{.name = "surface",
                           .meaning = "heights over two variables, or places over two parameters, seen in space",
                           .runs = Runs::Over,
                           .layer = Layer::Area,
                           .settings = settings,
                           .ways = &shownSetting,
                           .fits = [](const Signature& s) { return s.variables == 2 && s.components != 2; },
                           .read = read,
                           .draw = draw,
                           .swatch = swatch,
                           .usesColours = usesColours,
                           .tell = tell};

} // namespace coulter
