#include "plots/rectangles.h"

#include "drawing/colours.h"
#include "drawing/thinning.h"
#include "plots/common_settings.h"

#include <cmath>

namespace coulter {
namespace {

constexpr const char* directionWords[] = {"upright", "lying"};

} // namespace

const Setting directionSetting{.key = "direction",
                               .label = "direction",
                               .meaning = "values upwards, or to the right",
                               .type = SettingType::Word,
                               .usual = std::string("upright"),
                               .words = directionWords};

const Setting outlineSetting{.key = "outline",
                             .label = "outline",
                             .meaning = "width of the line round each; 0: none",
                             .type = SettingType::Number,
                             .usual = 0.0,
                             .unit = "mm",
                             .least = 0,
                             .greatest = 20,
                             .step = 0.05};

bool isLying(const Settings& settings) { return word(settings, directionSetting) == 1; }

namespace {

/// On the sheet; none if something of it is undefined.
std::optional<Rect> onSheet(const RectangleRow& row, bool lying, const Frame& frame) {
    Point a = lying ? frame.onSheet(row.foot, row.from) : frame.onSheet(row.from, row.foot),
          b = lying ? frame.onSheet(row.head, row.to) : frame.onSheet(row.to, row.head);
    if (!lying && !std::isfinite(a.y) && !std::isnan(row.foot)) a.y = frame.beyondZero();
    if (lying && !std::isfinite(a.x) && !std::isnan(row.foot))
        a.x = frame.leftwards ? frame.rect.right() + 1 : frame.rect.x - 1;
    if (!std::isfinite(a.x) || !std::isfinite(a.y) || !std::isfinite(b.x) || !std::isfinite(b.y)) return std::nullopt;
    return Rect{std::min(a.x, b.x), std::min(a.y, b.y), std::abs(b.x - a.x), std::abs(b.y - a.y)};
}

std::vector<Point> corners(const Rect& r) {
    return {{r.x, r.y}, {r.right(), r.y}, {r.right(), r.bottom()}, {r.x, r.bottom()}};
}

} // namespace

void drawRectangles(const std::vector<RectangleRow>& rows, const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    const bool lying = isLying(drawn.settings);
    const auto isShown = [&](const std::optional<Rect>& rect) {
        return rect && frame.rect.intersects(rect->grown(0.01));
    };
    Polylines thin;
    std::vector<char> isThin(rows.size(), 0);
    if (rows.size() > mostPlainPoints) {
        thin = linesOfRows(frame.rect.grown(1), rows.size(), [&](ManySegments& lines, std::size_t i) {
            const auto rect = onSheet(rows[i], lying, frame);
            isThin[i] = !rect || (lying ? rect->height : rect->width) < finestDetail ? 1 : 0;
            if (!isShown(rect) || isThin[i] == 0) return;
            const Point middle{rect->x + rect->width / 2, rect->y + rect->height / 2};
            if (lying)
                lines.add({rect->x, middle.y}, {rect->right(), middle.y});
            else
                lines.add({middle.x, rect->y}, {middle.x, rect->bottom()});
        });
    }
    Polylines rectangles;
    for (std::size_t i = 0; i < rows.size(); ++i) {
        if (isThin[i] != 0) continue;
        if (const auto rect = onSheet(rows[i], lying, frame); isShown(rect)) rectangles.push_back(corners(*rect));
    }
    for (const auto& line : thin) {
        const double half = finestDetail / 2;
        const Point &a = line[0], &b = line[1];
        rectangles.push_back(lying ? corners({a.x, a.y - half, b.x - a.x, 2 * half})
                                   : corners({a.x - half, a.y, 2 * half, b.y - a.y}));
    }
    canvas.fill(rectangles, {drawn.colour, opacityOf(drawn)});
    const double outline = number(drawn.settings, outlineSetting);
    if (outline == 0) return;
    for (auto& rectangle : rectangles) rectangle.push_back(rectangle.front());
    canvas.stroke(rectangles, {inkColour, outline, {}, false});
}

std::optional<std::size_t> rectangleAt(const std::vector<RectangleRow>& rows, const Drawn& drawn, const Frame& frame,
                                       Point mm) {
    const bool lying = isLying(drawn.settings);
    for (std::size_t i = 0; i < rows.size(); ++i) {
        const auto rect = onSheet(rows[i], lying, frame);
        if (rect && rect->contains(mm)) return i;
    }
    return std::nullopt;
}

void traceRectangles(const std::vector<RectangleRow>& rows, const Drawn& drawn, std::vector<double>& xs,
                     std::vector<double>& ys) {
    constexpr std::size_t most = 400;
    const std::size_t every = 1 + rows.size() / most;
    for (std::size_t i = 0; i < rows.size(); i += every) {
        for (int a = 0; a <= 4; ++a) {
            for (int b = 0; b <= 12; ++b) {
                const double along = rows[i].from + (rows[i].to - rows[i].from) * a / 4,
                             up = rows[i].foot + (rows[i].head - rows[i].foot) * b / 12;
                xs.push_back(isLying(drawn.settings) ? up : along);
                ys.push_back(isLying(drawn.settings) ? along : up);
            }
        }
    }
}

void rectangleSwatch(const Drawn& drawn, const Rect& rect, Canvas& canvas) {
    const double top = rect.y + 0.2 * rect.height, bottom = rect.y + 0.8 * rect.height;
    Polylines outline{{{rect.x, top}, {rect.right(), top}, {rect.right(), bottom}, {rect.x, bottom}}};
    canvas.fill(outline, {drawn.colour, opacityOf(drawn)});
    const double width = number(drawn.settings, outlineSetting);
    if (width == 0) return;
    outline[0].push_back(outline[0].front());
    canvas.stroke(outline, {inkColour, width, {}, false});
}

} // namespace coulter
