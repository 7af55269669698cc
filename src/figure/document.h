#pragma once
#include "figure/format_rules.h"
#include "figure/settings.h"
#include "formula/lines/read_page.h"
#include "formula/page/page.h"
#include "sampling/finer_stretch.h"
#include "sampling/panel_map.h"

#include <array>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace coulter {

enum class LegendPlace : std::uint8_t {
    Automatic,
    AtEnds,
    TopLeft,
    TopRight,
    BottomLeft,
    BottomRight,
    Outside, ///< at the right
    Left,
    Above,
    Below,
    None
};

/// Names used in recipes and in the window, indexed by the enumerations.
inline constexpr std::array<const char*, 11> legendPlaceNames{"automatic",   "at ends",      "top left", "top right",
                                                              "bottom left", "bottom right", "outside",  "left",
                                                              "above",       "below",        "none"};
inline constexpr std::array<const char*, 2> scaleNames{"linear", "logarithmic"};

/// What one member of a family has to itself.
struct Member {
    std::optional<std::string> name; ///< legend entry; none: derived; empty: it has none
    Settings settings;
    friend bool operator==(const Member&, const Member&) = default;
};

/// One formula drawn in one way.
struct Plot {
    std::string kind = "line";       ///< name of a kind of plot, see plots/plot_kind.h
    std::string of;                  ///< what is drawn, in the notation; may end in “for z in {…}”
    std::optional<std::string> name; ///< legend entry; none: derived from what is drawn
    Settings settings;               ///< those of its kind that differ from the usual ones
    std::size_t scale = 0;           ///< the vertical scale it lies on: 0 the left one, 1 the first further one
    std::vector<Member> members;     ///< of a family, by case; those left out have nothing to themselves
    std::vector<FinerStretch> finer; ///< where more points were asked for, along the variable
    int order = 0;                   ///< of its entries in the legend: lower ones first, equal ones as they are drawn
    friend bool operator==(const Plot&, const Plot&) = default;
};

/// The member of a family that a case is, made if it has nothing to itself yet.
Member& memberOf(Plot& plot, std::size_t part);
/// Takes away members at the end that have nothing to themselves, so that equal looks are equal values.
void trimMembers(Plot& plot);

/// A plot in the usual style.
Plot plotOf(std::string of, std::string kind = "line");

/// Bounds of `Plot::order` and of `Legend::columns`.
inline constexpr int greatestOrder = 1000, mostLegendColumns = 20;

struct Limits {
    double low = 0, high = 1;
    friend bool operator==(const Limits&, const Limits&) = default;
};

/// The ends of a scale that were set; the others are automatic.
struct AxisLimits {
    std::optional<double> low, high;

    AxisLimits() = default;
    AxisLimits(const Limits& both) : low(both.low), high(both.high) {}
    explicit operator bool() const { return low || high; }
    bool both() const { return low && high; }
    void reset() { *this = {}; }
    friend bool operator==(const AxisLimits&, const AxisLimits&) = default;
};

struct Axis {
    std::optional<std::string> label; ///< none: derived from the variable or function and its unit
    AxisLimits limits;
    std::optional<ScaleKind> scale; ///< none: as the variable is sampled, else linear
    Settings settings;              ///< those that differ from the usual ones, see scale_settings.h
    friend bool operator==(const Axis&, const Axis&) = default;
};

struct Legend {
    LegendPlace place = LegendPlace::Automatic;
    std::optional<std::array<double, 2>>
        at;          ///< upper left corner in mm from the panel's, when it was put there by hand
    int columns = 0; ///< 0: as many as its side has room for; within the panel and beside it one
    friend bool operator==(const Legend&, const Legend&) = default;
};

/// Most vertical scales of a panel besides its first.
inline constexpr int mostFurtherScales = 6;

/// From where something in space is seen.
struct View {
    double azimuth = 35;   ///< degrees: 0 looks along y, with x to the right; then counterclockwise, seen from above
    double elevation = 25; ///< degrees: 90 looks straight down
    double distance = 0;   ///< of the eye, in diagonals of the box; 0: infinite, without perspective
    double height = 1;     ///< the upright direction is stretched by this
    friend bool operator==(const View&, const View&) = default;
};

/// Coordinates of a place in the notation: numbers, or formulas of the page such as f(r_0). Two of them; three in
/// space.
using NotePlace = std::vector<std::string>;

/// Something written or drawn on a panel to explain it.
struct Note {
    std::string kind = "text"; ///< name of a kind of note, see notes/note_kind.h
    std::string words;         ///< with formulas between $ and values of the page in braces
    std::vector<NotePlace> at;
    Settings settings; ///< those of its kind that differ from the usual ones
    friend bool operator==(const Note&, const Note&) = default;
};

/// Where a panel lies in the sheet's grid, from the upper left, and how many rows and columns it takes.
struct Cell {
    int row = 0, column = 0;
    int rows = 1, columns = 1;
    friend bool operator==(const Cell&, const Cell&) = default;
};

struct Panel {
    std::optional<Cell> cell; ///< none: alone in a row below the panels before it
    std::string title;
    Axis x, y;
    std::vector<Axis> further;       ///< vertical scales besides, from the panel's right side outwards
    Axis z;                          ///< upright, of what is drawn in space
    Axis colour;                     ///< of fields: what colours mean
    Settings angle;                  ///< of a panel with a radius over an angle, see scale_settings.h
    std::optional<bool> equalScales; ///< a millimetre means the same both ways; none: where curves run in the plane
    View view;
    Legend legend;
    std::vector<Plot> plots;
    std::vector<Note> notes; ///< later ones lie over earlier ones
    friend bool operator==(const Panel&, const Panel&) = default;
};

/// The paper: sizes in mm, letters in points (1/72 inch).
struct Sheet {
    double width = 150;
    double height = 95;
    double textSize = 9;     ///< pt
    double tolerance = 0.02; ///< mm between a curve and what is drawn for it
    double resolution = 300; ///< dots per inch of a bitmap
    std::vector<double> rowHeights = {},
                        columnWidths = {}; ///< of the grid of panels, relative to each other; left out: 1
    Settings settings =
        {}; ///< of a sheet with several panels, see sheet_settings.h; those that differ from the usual ones
    friend bool operator==(const Sheet&, const Sheet&) = default;
};

/// Bounds of a view: distances in diagonals of the box, and how much heights are stretched.
inline constexpr double leastDistance = 0.6, greatestDistance = 100, leastHeight = 0.01, greatestHeight = 1000;
/// Bounds within which a sheet can be made and shown.
inline constexpr double leastSheet = 20, greatestSheet = 2000;   // mm
inline constexpr double leastLetters = 2, greatestLetters = 100; // pt
inline constexpr double leastResolution = 20, greatestResolution = 2400;
/// Most dots of one bitmap, so that no size exhausts the memory.
inline constexpr double mostDots = 400e6;

/// A recipe: everything a figure is made of. A value: editing makes another one, so undo is a list of these.
struct Document {
    int format = newestFormat;
    std::vector<std::string> page; ///< the formula page's lines
    DataTables tables = {};        ///< measured numbers that the page names
    Sheet sheet;
    std::vector<Panel> panels = {Panel{}};
    friend bool operator==(const Document&, const Document&) = default;
};

/// The formula page of a document, read over its tables.
Page readPage(const Document& document);

} // namespace coulter
