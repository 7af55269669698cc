#pragma once
#include "drawing/canvas.h"
#include "drawing/frame.h"
#include "formula/lines/plotted.h"
#include "plots/drawn.h"
#include "plots/effort.h"
#include "plots/extents.h"
#include "plots/table.h"

#include <optional>
#include <span>

namespace coulter {

struct CoarseLook;

/// What a formula of the page is, as far as kinds of plot ask: how many variables it runs along, how many numbers it
/// gives.
struct Signature {
    std::size_t variables = 1; ///< none for columns of numbers
    std::size_t components = 1;
    bool columns = false;   ///< it runs along columns of numbers
    bool constant = false;  ///< it is the same everywhere: any variable of the page will do
    bool condition = false; ///< it holds or not, such as x^2 + y^2 = 1
};

/// How the variables of what is drawn lie in the panel.
enum class Runs : std::uint8_t {
    Along,   ///< one variable; of a number it is the horizontal coordinate
    InPlane, ///< one variable that is no coordinate
    Over,    ///< two variables, which are the coordinates
};

/// What a plot is called on one of the scales.
struct ScaleWord {
    enum class Rank : std::uint8_t { None, Coordinate, Function, Variable, FieldVariable };
    Rank rank = Rank::None;
    std::string label, symbol, unit; ///< of the variable, or of the page's function that is drawn; symbol empty: none
};
/// Words that stand at places of a scale instead of numbers.
struct NamedPlaces {
    std::vector<double> places;
    std::vector<std::string> words;
};
struct PlotWords {
    ScaleWord across, up, upright, colour;
    NamedPlaces acrossNames, upNames;
};

/// All that reading a plot needs.
struct ReadingContext {
    const Page& page;
    const Panel& panel;
    FormatRules format;            ///< of the recipe
    const Page* leftOut = nullptr; ///< the page as the rows have it that are left out of its tables; null: none are
};

/// A plot, read: everything that is parsed or compiled of it is here, once.
struct Reading {
    std::vector<Drawn> drawn; ///< without samples
    PlotWords words;
    Problems problems;
};

/// In what order plots of a panel are drawn: what covers lies below what does not.
enum class Layer : std::uint8_t { Ground, Area, Line };

/// Something of a plot that is dragged on the sheet: a line or a point.
struct Handle {
    Polylines at;                  ///< where it is taken, mm on the sheet
    bool across = true, up = true; ///< which ways it can be dragged
};

/// Numbers with their names.
using ReportRow = std::vector<std::pair<const char*, double>>;

/// What is at a place of a plot, and where.
struct Touched {
    std::string text;
    Point at;
    double away = 0; ///< mm from where it was asked for; 0 within an area
};

/// A kind of plot: one file with such a value, and one row in the table. Nothing outside its file knows it by name.
struct PlotKind {
    const char* name;    ///< in recipes and on the command line
    const char* meaning; ///< one line
    Runs runs = Runs::Along;
    Layer layer = Layer::Line;
    std::span<const Setting* const> settings;
    const Setting* ways = nullptr;  ///< of these, the choice of words whose looks differ as kinds do; null: none
    bool takesColumns = false;      ///< it draws columns of numbers, too
    bool takesConditions = false;   ///< it draws where conditions hold
    bool (*fits)(const Signature&); ///< is it offered for this formula?
    Reading (*read)(const ReadingContext&, const Plot&, const Plotted&, const ItemPath&);
    void (*reach)(const Drawn&, Extents&) = nullptr; ///< room beyond the samples; null: none
    /// Some places within what it fills, by the coarse looks at its sources, for the legend to spare besides.
    void (*inside)(const Drawn&, const std::vector<CoarseLook>& parts, const Limits& y, CoarseLook& into) = nullptr;
    /// Places that it covers within limits, for the legend to spare; null: those of its source.
    void (*trace)(const Drawn&, const Limits& x, const Limits& y, std::vector<double>& xs,
                  std::vector<double>& ys) = nullptr;
    void (*draw)(const Drawn&, const Frame&, Canvas&);
    void (*swatch)(const Drawn&, const Rect&, Canvas&) = nullptr; ///< in the legend; null: the plot has no entry
    /// Of a field: whether it shows values by colours; null: it does.
    bool (*usesColours)(const Drawn&) = nullptr;
    /// Values at which its colours change, on the scale of colours; null or none: everywhere.
    std::vector<double> (*colourSteps)(const Drawn&, const AxisMap& colours) = nullptr;
    /// What the pointer is at, within `reach` mm; null: what its source tells.
    std::optional<Touched> (*tell)(const Drawn&, const Frame&, Point, double reach) = nullptr;
    /// What it draws, as a table and in numbers, instead of the samples of its source; null: these.
    SampleTable (*table)(const Drawn&, const Frame&) = nullptr;
    std::vector<ReportRow> (*report)(const Drawn&, const Frame&) = nullptr;
    /// What is proven of the lines of levels that it draws; null: it draws none.
    std::shared_ptr<const std::vector<LevelProof>> (*prove)(const Drawn&, const Frame&, const Effort&,
                                                            const std::stop_token&) = nullptr;
    /// What there is to say of the picture, such as that it is empty and why; empty: nothing. Null: never.
    std::string (*remark)(const Drawn&, const Frame&) = nullptr;
    std::vector<Handle> (*handles)(const Drawn&, const Frame&) = nullptr; ///< null: none
    /// The plot with a handle dragged to a place.
    void (*drag)(Plot&, const Drawn&, const Frame&, std::size_t handle, Point to) = nullptr;
};

/// All kinds, in the order in which they are offered.
std::span<const PlotKind* const> plotKinds();
/// By name; null if there is none.
const PlotKind* findPlotKind(std::string_view name);
/// Whether what is drawn means something by the panel's scale of colours: values of a field, or that of the member of
/// a family that it is.
bool showsByColours(const Drawn& drawn);
/// Whether it is a field that shows its values so.
bool showsValuesByColours(const Drawn& drawn);
/// "line, polar, heatmap"
std::string plotKindNames();

inline std::size_t variablesOf(const PlotKind& kind) { return kind.runs == Runs::Over ? 2 : 1; }

/// The same plot in another kind: settings that the kind does not have go, all others stay.
Plot inKind(Plot plot, const PlotKind& kind);

/// What a panel is: what is drawn decides, and all that a panel draws needs the same.
enum class PanelShape : std::uint8_t { Plane, Space, Polar };
PanelShape shapeFor(const Source& source);

/// The plots of a panel, each with its drawn things and problems, and the scales that follow from them.
struct PanelReading {
    std::vector<Drawn> drawn;       ///< of all plots, in their order
    std::vector<PlotWords> words;   ///< of each plot
    std::vector<Problems> problems; ///< of each plot, counted within its `of`
    ScaleKind xScale = ScaleKind::Linear, yScale = ScaleKind::Linear;
    PanelShape shape = PanelShape::Plane;
    FormatRules format;                 ///< of the recipe
    std::optional<double> colourMiddle; ///< the value that the middle of the colours is to have
};

/// Reads the plots of a panel against the page and compiles them. Plots in space, in the plane and round an angle do
/// not mix: the first that can be read decides.
/// @param format   of the recipe
/// @param leftOut  the page as the rows have it that are left out of its tables; null: none are
PanelReading readPlots(const Page& page, const Panel& panel, std::size_t panelIndex = 0, const FormatRules& format = {},
                       const Page* leftOut = nullptr);

/// What of a panel lies on one of its vertical scales, as if it were the only one.
PanelReading readingOnScale(const PanelReading& reading, const Panel& panel, std::size_t number);

/// What a plot's formula is; none if it cannot be read.
std::optional<Signature> signatureOf(const Page& page, const Plot& plot);
/// The kinds that a plot's formula can be drawn in, its own among them; just its own if the formula cannot be read.
std::vector<const PlotKind*> kindsThatFit(const Page& page, const Plot& plot);
/// A plot in every kind that fits, and in every way of a kind that has several: its own among them.
struct WayToDraw {
    Plot plot;
    std::string name; ///< "surface, mesh"
    bool isNow = false;
};
std::vector<WayToDraw> waysToDraw(const Page& page, const Plot& plot);
/// What a function's line is.
std::optional<Signature> signatureOf(const Page& page, const Line& function);

} // namespace coulter
