#include "drawing/sheet_ink.h"

#include "drawing/oklab.h"
#include "figure/sheet_settings.h"

namespace coulter {
namespace {

OkLab between(const OkLab& a, const OkLab& b, double part) {
    return {a.lightness + part * (b.lightness - a.lightness), a.a + part * (b.a - a.a), a.b + part * (b.b - a.b)};
}

/// Plots have lightnesses from 0.26 to 0.79 on white; on dark paper from 0.94 down to 0.6, the other way round.
Colour turnedLight(Colour colour) {
    OkLab lab = toOkLab(colour);
    lab.lightness = 0.94 - 0.64 * (lab.lightness - 0.26);
    return toColour(lab);
}

} // namespace

bool SheetInk::isDark() const { return toOkLab(paper).lightness < 0.6; }

Colour SheetInk::of(Colour colour) const {
    switch (colour.role) {
    case ColourRole::Ink: return {ink.red, ink.green, ink.blue};
    case ColourRole::Paper: return {paper.red, paper.green, paper.blue};
    case ColourRole::Grid: {
        if (ink == inkColour && paper == paperColour) return colour;
        constexpr double faint = 0.15; // as the usual grid between the usual paper and ink
        return toColour(between(toOkLab(paper), toOkLab(ink), faint));
    }
    case ColourRole::Plot: return isDark() ? turnedLight(colour) : colour;
    case ColourRole::Own: break;
    }
    return colour;
}

SheetInk inkOf(const Sheet& sheet) {
    SheetInk ink;
    ink.ink = colour(sheet.settings, inkSetting).value_or(inkColour);
    ink.paper = colour(sheet.settings, paperColourSetting).value_or(paperColour);
    ink.lines = number(sheet.settings, linesFactorSetting);
    return ink;
}

void applyInk(const SheetInk& ink, Scene& scene) {
    if (ink == SheetInk{}) return;
    scene.paper = ink.of(paperColour);
    for (SceneItem& item : scene.items) {
        std::visit(
            [&](auto& what) {
                if constexpr (requires { what.colour; }) what.colour = ink.of(what.colour);
            },
            item);
        if (auto* stroke = std::get_if<StrokeItem>(&item)) {
            stroke->width *= ink.lines;
            for (double& dash : stroke->dashes) dash *= ink.lines;
        }
    }
}

} // namespace coulter
