// Bars from a foot to each value, upright or lying; several columns grouped or stacked.
#include "plots/column_source.h"
#include "plots/common_settings.h"
#include "plots/reading.h"
#include "plots/rectangles.h"
#include "plots/telling.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

const Setting placesSetting{.key = "at",
                            .label = "at",
                            .meaning = "where the bars stand, a column; left out: 1, 2, 3, … or the variable",
                            .type = SettingType::Formula,
                            .usual = std::string(),
                            .isStyle = false};

const Setting footSetting{.key = "to",
                          .label = "down to",
                          .meaning = "the foot of the bars: a number or a column",
                          .type = SettingType::Formula,
                          .usual = std::string("0"),
                          .isStyle = false};

const Setting wordsSetting{.key = "words",
                           .label = "words",
                           .meaning = "under the bars instead of numbers, separated by semicolons",
                           .type = SettingType::Text,
                           .usual = std::string(),
                           .isStyle = false};

constexpr const char* severalWords[] = {"side by side", "stacked"};
const Setting severalSetting{.key = "several",
                             .label = "several",
                             .meaning = "how the bars of several columns or cases share a place",
                             .type = SettingType::Word,
                             .usual = std::string("side by side"),
                             .words = severalWords};

const Setting shareSetting{.key = "share",
                           .label = "share",
                           .meaning = "of the room from one place to the next that bars take",
                           .type = SettingType::Number,
                           .usual = 0.75,
                           .least = 0.01,
                           .greatest = 1,
                           .step = 0.05};

const Setting* const settings[] = {&placesSetting, &footSetting,   &directionSetting, &severalSetting, &wordsSetting,
                                   &shareSetting,  &colourSetting, &outlineSetting,   &opacitySetting};

std::vector<std::string> wordsOf(const std::string& text) {
    std::vector<std::string> words;
    for (std::size_t at = 0; at <= text.size();) {
        const std::size_t end = std::min(text.find(';', at), text.size());
        std::string word = text.substr(at, end - at);
        word.erase(0, word.find_first_not_of(' ') == std::string::npos ? word.size() : word.find_first_not_of(' '));
        while (word.ends_with(' ')) word.pop_back();
        words.push_back(std::move(word));
        at = end + 1;
    }
    return words;
}

/// Heights on top of those of the members before: each sign by itself, so that nothing is hidden.
class Stack {
public:
    std::pair<Column, Column> add(const std::vector<double>& foot, const std::vector<double>& heights) {
        if (above_.empty()) above_ = below_ = foot;
        std::vector<double> feet(heights.size()), heads(heights.size());
        for (std::size_t i = 0; i < heights.size(); ++i) {
            std::vector<double>& side = heights[i] >= 0 ? above_ : below_;
            feet[i] = side[i];
            heads[i] = side[i] + heights[i];
            if (std::isfinite(heads[i])) side[i] = heads[i];
        }
        return {std::make_shared<const std::vector<double>>(std::move(feet)),
                std::make_shared<const std::vector<double>>(std::move(heads))};
    }

private:
    std::vector<double> above_, below_;
};

/// A member: one column of one case.
struct Member {
    std::string name;
    Column values;
    MathPtr entry;
};

Reading read(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    Reading reading;
    std::vector<Member> members;
    std::string placeName;
    Column places;
    const bool vector = plotted.expression->kind == ExprKind::Vector;
    for (std::size_t c = 0; c < casesOf(plotted); ++c) {
        CaseColumns columns = columnsOfCase(context, plotted, c, reading.problems);
        if (columns.numbers.empty()) return reading;
        // Of several columns each is a member; a single one has its numbers counted before it.
        const bool counted = !plotted.isColumn || columns.names[0] == "number";
        if (c == 0) {
            placeName = counted ? columns.names[0] : "number";
            places = counted ? columns.numbers[0] : counting(columns.numbers[0]->size());
        }
        for (std::size_t k = counted ? 1 : 0; k < columns.numbers.size(); ++k) {
            const std::size_t component = k - (counted ? 1 : 0);
            MathPtr entry = vector && plotted.caseNames.empty() ? formulaMath(*plotted.expression->operands[component])
                                                                : entryOf(context.page, plotted, c);
            members.push_back({columns.names[k], columns.numbers[k], std::move(entry)});
        }
    }
    const std::size_t rows = places->size();
    if (const std::string at = text(plot.settings, placesSetting); !at.empty()) {
        const auto found = furtherColumns(context, plotted, 0, placesSetting, at, rows, reading.problems);
        if (found.empty()) return reading;
        places = found[0];
        placeName = at;
    }
    const auto feet =
        furtherColumns(context, plotted, 0, footSetting, text(plot.settings, footSetting), rows, reading.problems);
    if (feet.empty()) return reading;
    Stack stack;
    const bool stacked = word(plot.settings, severalSetting) == 1;
    for (std::size_t m = 0; m < members.size(); ++m) {
        Column foot = feet[0], head = members[m].values;
        if (stacked && members.size() > 1) std::tie(foot, head) = stack.add(*feet[0], *members[m].values);
        Drawn drawn = drawnOf(context, plot, path, m, members.size());
        drawn.entry = members[m].entry;
        addColumns(drawn, {placeName, members[m].name, "foot", "head"}, {places, members[m].values, foot, head},
                   isLying(plot.settings) ? std::array{1, 0} : std::array{0, 1});
        reading.drawn.push_back(std::move(drawn));
    }
    ScaleWord along =
        plotted.isColumn ? ScaleWord{} : variableWord(context.page, plotted.variables[0], ScaleWord::Rank::Variable);
    ScaleWord values = componentWord(context.page, vector ? plotted.expression->operands[0] : plotted.expression);
    if (values.rank == ScaleWord::Rank::Coordinate || vector) values.rank = ScaleWord::Rank::None;
    NamedPlaces names;
    if (const std::string words = text(plot.settings, wordsSetting); !words.empty()) {
        names.words = wordsOf(words);
        names.words.resize(std::min(names.words.size(), rows));
        names.places.assign(places->begin(), places->begin() + static_cast<std::ptrdiff_t>(names.words.size()));
    }
    const bool lying = isLying(plot.settings);
    (lying ? reading.words.up : reading.words.across) = along;
    (lying ? reading.words.across : reading.words.up) = values;
    (lying ? reading.words.upNames : reading.words.acrossNames) = names;
    return reading;
}

/// Half the room that a place has, as a share or (on a logarithmic scale) a factor of its coordinate.
double halfRoom(std::vector<double> places, bool logarithmic) {
    std::erase_if(places, [&](double place) { return !std::isfinite(place) || (logarithmic && !(place > 0)); });
    if (!std::ranges::is_sorted(places)) std::ranges::sort(places);
    double least = HUGE_VAL;
    for (std::size_t i = 1; i < places.size(); ++i) {
        const double gap = logarithmic ? std::log(places[i] / places[i - 1]) : places[i] - places[i - 1];
        if (gap > 0) least = std::min(least, gap);
    }
    return std::isfinite(least) ? least / 2 : logarithmic ? 0.35 : 0.5;
}

std::vector<RectangleRow> rectanglesOf(const Drawn& drawn, bool logarithmic) {
    const Columns& columns = *columnsOf(drawn);
    const double half = halfRoom(*columns.numbers[0], logarithmic) * number(drawn.settings, shareSetting);
    const bool grouped = word(drawn.settings, severalSetting) == 0;
    const auto count = static_cast<double>(grouped ? drawn.caseCount : 1),
               index = grouped ? static_cast<double>(drawn.path.part) : 0;
    const auto beside = [&](double place, double share) { // share −1 to 1 of the half room
        return logarithmic ? place * std::exp(half * share) : place + half * share;
    };
    std::vector<RectangleRow> rows;
    rows.reserve(columns.rows());
    for (std::size_t i = 0; i < columns.rows(); ++i) {
        const double place = (*columns.numbers[0])[i];
        rows.push_back({beside(place, -1 + 2 * index / count), beside(place, -1 + 2 * (index + 1) / count),
                        (*columns.numbers[2])[i], (*columns.numbers[3])[i]});
    }
    return rows;
}

/// Whether the scale is along which they stand.
bool isLogarithmic(const Drawn& drawn, const Frame& frame) {
    return (isLying(drawn.settings) ? frame.map.y : frame.map.x).kind == ScaleKind::Logarithmic;
}

void trace(const Drawn& drawn, const Limits&, const Limits&, std::vector<double>& xs, std::vector<double>& ys) {
    traceRectangles(rectanglesOf(drawn, false), drawn, xs, ys);
}

void reach(const Drawn& drawn, Extents& extents) {
    const Columns& columns = *columnsOf(drawn);
    const bool lying = isLying(drawn.settings);
    const bool logarithmic = (lying ? extents.yScale : extents.xScale) == ScaleKind::Logarithmic;
    const double half = halfRoom(*columns.numbers[0], logarithmic);
    for (const double place : *columns.numbers[0]) {
        if (!std::isfinite(place) || (logarithmic && !(place > 0))) continue;
        Extents::hold(lying ? extents.up : extents.across, logarithmic
                                                               ? Limits{place * std::exp(-half), place * std::exp(half)}
                                                               : Limits{place - half, place + half});
    }
    extents.holdAll(lying, *columns.numbers[2]);
    extents.holdAll(lying, *columns.numbers[3]);
}

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    drawRectangles(rectanglesOf(drawn, isLogarithmic(drawn, frame)), drawn, frame, canvas);
}

std::optional<Touched> tell(const Drawn& drawn, const Frame& frame, Point mm, double reach) {
    const auto row = rectangleAt(rectanglesOf(drawn, isLogarithmic(drawn, frame)), drawn, frame, mm);
    if (!row) return std::nullopt;
    const Columns& columns = *columnsOf(drawn);
    const Columns said{{columns.names[0], columns.names[1]}, {columns.numbers[0], columns.numbers[1]}};
    return Touched{rowWords(said, *row), mm, reach};
}

} // namespace

extern const PlotKind barsKind;
const PlotKind barsKind{
    .name = "bars",
    .meaning = "a bar for each number of a column, or for each value on a grid; several side by side or stacked",
    .runs = Runs::Along,
    .layer = Layer::Area,
    .settings = settings,
    .takesColumns = true,
    .fits = [](const Signature& s) { return s.columns || (s.variables == 1 && s.components == 1 && !s.constant); },
    .read = read,
    .reach = reach,
    .trace = trace,
    .draw = draw,
    .swatch = rectangleSwatch,
    .tell = tell};

} // namespace coulter
