// What a referee asks of the looks.
#include "composition/referee.h"
#include "drawing/clip_polyline.h"
#include "drawing/colour_vision.h"
#include "drawing/oklab.h"
#include "figure/panel_grid.h"
#include "figure/sheet_settings.h"
#include "notes/note_settings.h"
#include "plots/common_settings.h"
#include "plots/page_edits.h"
#include "plots/plot_kind.h"
#include "plots/sampling.h"
#include "plots/telling.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr double point = 25.4 / 72;   // mm
constexpr double readableLetters = 6; // pt
constexpr double leastWidth = 0.1;    // mm
constexpr double leastDots = 150;

void smallLetters(const Figure& figure, std::vector<Finding>& found) {
    double smallest = HUGE_VAL;
    for (const PanelFigure& panel : figure.panels) smallest = std::min(smallest, panel.layout.sizes.number / point);
    if (smallest < readableLetters - 1e-9) {
        const double times = readableLetters / smallest * 1.02;
        const double wished = figure.document.sheet.textSize * 0.92;
        const bool shrunk = smallest < 0.99 * wished; // the sheet has no room for what was asked for
        found.push_back(findingOf(
            "The smallest letters are " + printedNumber(smallest, 2) + " pt high in print; 6 pt can be read.", {},
            shrunk ? "Make the sheet larger" : "Make the letters larger", changed(figure, [&](Document& d) {
                if (!shrunk) d.sheet.textSize *= times;
                if (shrunk) {
                    d.sheet.width = std::min(greatestSheet, std::ceil(d.sheet.width * times));
                    d.sheet.height = std::min(greatestSheet, std::ceil(d.sheet.height * times));
                }
            })));
    }
    for (std::size_t p = 0; p < figure.document.panels.size(); ++p) {
        const std::vector<Note>& notes = figure.document.panels[p].notes;
        for (std::size_t n = 0; n < notes.size(); ++n) {
            const double letters = number(notes[n].settings, noteLettersSetting);
            if (letters == 0 || letters >= readableLetters || notes[n].words.empty()) continue;
            const ItemPath path{ItemKind::Note, p, n, 0};
            found.push_back(findingOf("The letters of a note are " + printedNumber(letters, 2) +
                                          " pt high in print; 6 pt can be read.",
                                      path, "Make them 6 pt", changed(figure, [&](Document& d) {
                                          set(noteAt(d, path)->settings, noteLettersSetting, readableLetters);
                                      })));
        }
    }
}

void thinLines(const Figure& figure, std::vector<Finding>& found) {
    for (const PanelFigure& panel : figure.panels) {
        for (const Drawn& drawn : panel.drawn) {
            const auto has = [&](const Setting* each) { return std::string_view(each->key) == "width"; };
            const auto setting = std::ranges::find_if(drawn.kind->settings, has);
            if (setting == drawn.kind->settings.end() || drawn.path.part > 0) continue;
            const double times = panel.frame().ink.lines, width = times * number(drawn.settings, **setting);
            if (width >= leastWidth || width <= 0) continue;
            found.push_back(findingOf("The line of " + nameOf(drawn) + " is " + printedNumber(width, 2) +
                                          " mm thin; print needs 0.1 mm.",
                                      drawn.path, "Make it 0.15 mm", changed(figure, [&](Document& d) {
                                          if (Plot* plot = plotAt(d, drawn.path))
                                              set(plot->settings, **setting, SettingValue(0.15 / times));
                                      })));
        }
    }
}

double distanceOf(Colour a, Colour b) {
    const OkLab p = toOkLab(a), q = toOkLab(b);
    return std::hypot(p.lightness - q.lightness, std::hypot(p.a - q.a, p.b - q.b));
}

void likeColours(const Figure& figure, std::vector<Finding>& found) {
    constexpr double least = 0.06; // in OKLab: what is told apart side by side
    for (const PanelFigure& panel : figure.panels) {
        for (std::size_t b = 1; b < panel.drawn.size() && b < 40; ++b) {
            for (std::size_t a = 0; a < b; ++a) {
                const Drawn &one = panel.drawn[a], &other = panel.drawn[b];
                const bool lines = curveOf(one) && curveOf(other) && one.kind == other.kind;
                if (!lines || one.path.index == other.path.index || !one.kind->swatch) continue;
                if (!haveOnePattern(one, other) || (one.caseValue && other.caseValue)) continue;
                std::string who;
                const Colour first = panel.frame().ink.of(one.colour), second = panel.frame().ink.of(other.colour);
                if (distanceOf(first, second) < least)
                    who = "by anyone";
                else if (distanceOf(inGrey(first), inGrey(second)) < 0.025)
                    who = "in grey print";
                for (const ColourVision vision : allDeficiencies) {
                    if (who.empty() && distanceOf(asSeen(first, vision), asSeen(second, vision)) < least / 2)
                        who = "by readers who lack a colour";
                }
                if (who.empty()) continue;
                found.push_back(findingOf("The colours of " + nameOf(one) + " and " + nameOf(other) +
                                              " cannot be told apart " + who + ".",
                                          other.path, "Dash the second one", changed(figure, [&](Document& d) {
                                              if (Plot* plot = plotAt(d, other.path))
                                                  set(plot->settings, patternSetting, std::string("dashed"));
                                          })));
                break;
            }
        }
    }
}

/// Plots whose own colour is that of the paper, or nearly: chosen for another look.
void faintPlots(const Figure& figure, std::vector<Finding>& found) {
    constexpr double least = 0.1; // in OKLab
    for (const PanelFigure& panel : figure.panels) {
        const SheetInk& ink = panel.frame().ink;
        for (const Drawn& drawn : panel.drawn) {
            const bool isOwn = drawn.colour.role == ColourRole::Own && colour(drawn.settings, colourSetting);
            if (!isOwn || drawn.path.part > 0 || distanceOf(drawn.colour, ink.of(paperColour)) >= least) continue;
            found.push_back(findingOf("The colour of " + nameOf(drawn) + " can hardly be told from the paper.",
                                      drawn.path, "Leave its colour to the sheet", changed(figure, [&](Document& d) {
                                          if (Plot* plot = plotAt(d, drawn.path))
                                              set(plot->settings, colourSetting, std::nullopt);
                                      })));
        }
    }
}

void coarseDots(const Figure& figure, std::vector<Finding>& found) {
    if (figure.document.sheet.resolution >= leastDots) return;
    const bool polygons = word(figure.document.sheet.settings, surfacesSetting) == 1;
    const bool dots = std::ranges::any_of(figure.panels, [&](const PanelFigure& panel) {
        return std::ranges::any_of(panel.drawn, [&](const Drawn& drawn) {
            const Field* field = fieldOf(drawn);
            return field && ((field->inSpace && !polygons) || std::string_view(drawn.kind->name) == "heatmap");
        });
    });
    if (!dots) return;
    found.push_back(findingOf("What is made of dots has " + printedNumber(figure.document.sheet.resolution, 3) +
                                  " of them per inch; print needs 150 at least.",
                              {}, "Make it 300", changed(figure, [](Document& d) { d.sheet.resolution = 300; })));
}

/// The plot of a legend whose members alone are more than so many, and whose colours can say their values instead.
const Drawn* longFamily(const PanelFigure& panel, std::size_t most) {
    for (const std::size_t entry : panel.layout.legend.drawn) {
        if (entry >= panel.drawn.size()) continue;
        const Drawn& drawn = panel.drawn[entry];
        const bool hasScale = std::ranges::find(drawn.kind->settings, &runSetting) != drawn.kind->settings.end();
        if (drawn.caseCount > most && hasScale && !colour(drawn.settings, colourSetting)) return &drawn;
    }
    return nullptr;
}

void longLegend(const Figure& figure, std::vector<Finding>& found) {
    constexpr std::size_t most = 8;
    for (std::size_t p = 0; p < figure.panels.size(); ++p) {
        const LegendLayout& legend = figure.panels[p].layout.legend;
        if (legend.entries.size() <= most || legend.place == LegendPlace::AtEnds) continue;
        const Drawn* family = longFamily(figure.panels[p], most);
        found.push_back(
            findingOf("The legend has " + std::to_string(legend.entries.size()) +
                          " entries; more than eight are not kept in mind.",
                      {ItemKind::Legend, p, 0, 0},
                      family ? "Say the members’ values by a scale of colours" : "Label the curves at their ends",
                      changed(figure, [&](Document& d) {
                          if (Plot* plot = family ? plotAt(d, family->path) : nullptr) {
                              set(plot->settings, runSetting, std::string("a scale of colours"));
                              return;
                          }
                          d.panels[p].legend.place = LegendPlace::AtEnds;
                          d.panels[p].legend.at.reset();
                      })));
    }
}

void coveringLegend(const Figure& figure, std::vector<Finding>& found) {
    for (std::size_t p = 0; p < figure.panels.size(); ++p) {
        const PanelFigure& panel = figure.panels[p];
        const Rect& legend = panel.layout.legend.rect;
        if (panel.layout.legend.entries.empty() || legend.width <= 0 || !panel.frame().isPlane()) continue;
        const bool covers = std::ranges::any_of(panel.drawn, [&](const Drawn& drawn) {
            const CurveSamples* samples = curveSamplesOf(drawn);
            if (!samples || !drawn.kind->swatch) return false;
            // A straight curve has no points on its way through.
            return std::ranges::any_of(linesOf(*samples, panel.frameOf(drawn)),
                                       [&](const auto& line) { return !clipPolyline(line, legend).empty(); });
        });
        const bool onNote = std::ranges::any_of(panel.notes.drawn, [&](const DrawnNote& note) {
            const Rect words = note.kind->wordsRect(note);
            return words.width > 0 && words.x < legend.right() && legend.x < words.right() &&
                   words.y < legend.bottom() && legend.y < words.bottom();
        });
        if (!covers && !onNote) continue;
        found.push_back(findingOf(covers ? "The legend covers a curve." : "The legend covers a note.",
                                  {ItemKind::Legend, p, 0, 0}, "Put it outside", changed(figure, [&](Document& d) {
                                      d.panels[p].legend.place = LegendPlace::Outside;
                                      d.panels[p].legend.at.reset();
                                  })));
    }
}

void noteOffSheet(const Figure& figure, std::vector<Finding>& found) {
    const Rect sheet{0, 0, figure.document.sheet.width, figure.document.sheet.height};
    for (const PanelFigure& panel : figure.panels) {
        for (const DrawnNote& note : panel.notes.drawn) {
            const Rect words = note.kind->wordsRect(note);
            const bool off = words.width > 0 && (words.x < 0 || words.y < 0 || words.right() > sheet.right() ||
                                                 words.bottom() > sheet.bottom());
            if (!off) continue;
            const Point by{std::max(0.0, 1 - words.x) - std::max(0.0, words.right() - sheet.right() + 1),
                           std::max(0.0, 1 - words.y) - std::max(0.0, words.bottom() - sheet.bottom() + 1)};
            const Note& now = *noteAt(figure.document, note.path);
            const bool movable = canBePlaced(now, panel.frame());
            found.push_back(findingOf(
                "The words of a note run off the sheet.", note.path, movable ? "Move it in" : "",
                movable ? std::optional(changed(figure,
                                                [&](Document& d) {
                                                    Note& moved = *noteAt(d, note.path);
                                                    const std::size_t last = moved.at.size() - 1;
                                                    // Of a callout only its words move.
                                                    const std::size_t first = note.kind->showsPlace ? last : 0;
                                                    for (std::size_t i = first; i <= last; ++i)
                                                        moved.at[i] =
                                                            placeAt(moved, panel.frame(),
                                                                    {note.at[i].x + by.x, note.at[i].y + by.y});
                                                }))
                        : std::nullopt));
        }
    }
}

/// A function of more variables than a figure has directions, and no plot: its cases are what can be drawn.
void undrawnFunction(const Figure& figure, std::vector<Finding>& found) {
    const Document& document = figure.document;
    if (document.panels.size() != 1 || !document.panels[0].plots.empty()) return;
    for (const Line& line : figure.page.lines) {
        if (line.kind != LineKind::Function || !line.good() || line.parameters.size() < 3) continue;
        std::string names, first, second;
        for (std::size_t k = 1; k < line.parameters.size(); ++k) {
            names += (k > 1 ? ", " : "") + spelledName(line.parameters[k]);
            first += k > 1 ? ", 1" : "1";
            second += k > 1 ? ", 2" : "2";
        }
        const std::string cases = callText(line) + " for (" + names + ") in {(" + first + "), (" + second + ")}";
        found.push_back(findingOf(callText(line) + " depends on " + std::to_string(line.parameters.size()) +
                                      " variables, and a curve runs along one: nothing draws it yet.",
                                  {ItemKind::Panel, 0, 0, 0}, "Draw two cases of it",
                                  withLine(document, document.page.size(), cases)));
    }
}

void emptyPanel(const Figure& figure, std::vector<Finding>& found) {
    if (figure.panels.size() < 2) return;
    for (std::size_t p = 0; p < figure.panels.size(); ++p) {
        if (!figure.document.panels[p].plots.empty() || !figure.document.panels[p].notes.empty()) continue;
        found.push_back(findingOf("Panel " + std::to_string(p + 1) + " shows nothing.", {ItemKind::Panel, p, 0, 0},
                                  "Remove it", withoutPanel(figure.document, p)));
    }
}

} // namespace

extern const Check smallLettersCheck{"small letters", "letters lower than 6 pt in print", smallLetters};
extern const Check thinLinesCheck{"thin line", "a line thinner than 0.1 mm", thinLines};
extern const Check faintPlotsCheck{"faint plot", "a plot whose colour can hardly be told from the paper", faintPlots};
extern const Check likeColoursCheck{
    "like colours", "two lines whose colours some readers, or grey print, cannot tell apart", likeColours};
extern const Check coarseDotsCheck{"coarse dots", "heatmaps and surfaces with less than 150 dots per inch", coarseDots};
extern const Check longLegendCheck{"long legend", "more than eight entries in a legend", longLegend};
extern const Check coveringLegendCheck{"covered curve", "a legend that lies over a curve or a note", coveringLegend};
extern const Check noteOffSheetCheck{"note off the sheet", "words of a note that run off the sheet", noteOffSheet};
extern const Check undrawnFunctionCheck{
    "undrawn function", "a function of three variables or more on a page that draws nothing", undrawnFunction};
extern const Check emptyPanelCheck{"empty panel", "a panel of several that shows nothing", emptyPanel};

} // namespace coulter
