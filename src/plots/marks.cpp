#include "plots/marks.h"

#include "plots/common_settings.h"
#include "plots/plot_kind.h"

namespace coulter {
namespace {

constexpr const char* shapeWords[] = {"disc", "ring", "square", "diamond", "triangle", "cross", "upright cross"};
constexpr const char* shapeOrNoneWords[] = {"none",    "disc",     "ring",  "square",
                                            "diamond", "triangle", "cross", "upright cross"};
constexpr const char* shapeOfReadingsWords[] = {"disc",     "ring",  "square",        "diamond",
                                                "triangle", "cross", "upright cross", "none"};
constexpr const char* fillingWords[] = {"full", "open"};

/// Round (0, 0), within a circle of a radius for all, so that none looks larger than the others.
Polylines shapeOf(std::string_view shape, double r) {
    const auto closed = [](std::vector<Point> corners) {
        corners.push_back(corners.front());
        return Polylines{corners};
    };
    const double q = 0.89 * r;
    if (shape == "square") return closed({{-q, -q}, {q, -q}, {q, q}, {-q, q}});
    if (shape == "diamond") return closed({{0, -1.2 * r}, {1.2 * r, 0}, {0, 1.2 * r}, {-1.2 * r, 0}});
    if (shape == "triangle") return closed({{0, -1.2 * r}, {1.1 * r, 0.75 * r}, {-1.1 * r, 0.75 * r}});
    if (shape == "cross") return {{{-q, -q}, {q, q}}, {{-q, q}, {q, -q}}};
    if (shape == "upright cross") return {{{-1.2 * r, 0}, {1.2 * r, 0}}, {{0, -1.2 * r}, {0, 1.2 * r}}};
    return {circle(r)};
}

} // namespace

const Setting shapeSetting{.key = "shape",
                           .label = "shape",
                           .meaning = "shape of the marks",
                           .type = SettingType::Word,
                           .usual = std::string("disc"),
                           .words = shapeWords};

const Setting shapeOrNoneSetting{.key = "shape",
                                 .label = "marks",
                                 .meaning = "shape of the marks",
                                 .type = SettingType::Word,
                                 .usual = std::string("none"),
                                 .words = shapeOrNoneWords};

const Setting shapeOfReadingsSetting{.key = "shape",
                                     .label = "marks",
                                     .meaning = "shape of the marks",
                                     .type = SettingType::Word,
                                     .usual = std::string("disc"),
                                     .words = shapeOfReadingsWords};

const Setting sizeSetting{.key = "size",
                          .label = "size",
                          .meaning = "size of marks",
                          .type = SettingType::Number,
                          .usual = 1.4,
                          .unit = "mm",
                          .least = 0.1,
                          .greatest = 50,
                          .step = 0.1,
                          .needs = "shape"};

const Setting fillingSetting{.key = "filling",
                             .label = "filling",
                             .meaning = "marks full, or open: their outline alone",
                             .type = SettingType::Word,
                             .usual = std::string("full"),
                             .words = fillingWords,
                             .needs = "shape"};

namespace {

/// The word that is set, or the one that is usual for the kind.
std::string shapeWord(const Drawn& drawn) {
    for (const Setting* setting : drawn.kind->settings) {
        if (std::string_view(setting->key) == shapeSetting.key) return setting->words[word(drawn.settings, *setting)];
    }
    return "none";
}

void drawMarks(const MarkPlaces& places, const Drawn& drawn, Canvas& canvas, bool hollow) {
    const std::string shape = shapeWord(drawn);
    if (shape == "none") return;
    const bool lines = shape == "cross" || shape == "upright cross",
               open = hollow || lines || shape == "ring" || word(drawn.settings, fillingSetting) == 1;
    const double opacity = opacityOf(drawn) * (hollow ? 0.6 : 1);
    const Paint paint{drawn.colour, opacity};
    const Pen pen{drawn.colour, number(drawn.settings, widthSetting), {}, true, opacity};
    canvas.marks(places, shapeOf(shape, number(drawn.settings, sizeSetting) / 2), open ? nullptr : &paint,
                 open ? &pen : nullptr);
}

} // namespace

bool hasMarks(const Drawn& drawn) { return shapeWord(drawn) != "none"; }

void drawMarks(const MarkPlaces& places, const Drawn& drawn, Canvas& canvas) {
    drawMarks(places, drawn, canvas, false);
}

void drawHollowMarks(const MarkPlaces& places, const Drawn& drawn, Canvas& canvas) {
    drawMarks(places, drawn, canvas, true);
}

} // namespace coulter
