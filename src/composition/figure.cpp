#include "composition/figure.h"

#include "composition/panel_parts.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <tbb/parallel_for.h>

namespace coulter {
namespace {

/// The room of each panel: one below the other, of equal height.
Rect roomOf(const Sheet& sheet, std::size_t index, std::size_t count) {
    const double height = sheet.height / static_cast<double>(count);
    return {0, static_cast<double>(index) * height, sheet.width, height};
}

/// Every source once, however many plots draw it, and each in its own place, so that the number of threads shows
/// nowhere.
void sampleAll(PanelFigure& panel, const Effort& effort, const std::stop_token& stop, SampleStore& store) {
    struct Wanted {
        const Drawn* drawn = nullptr;
        std::vector<Sampled*> places;
    };
    const Frame& frame = panel.layout.frame;
    std::map<std::string, Wanted> wanted;
    for (Drawn& drawn : panel.drawn) {
        for (Sampled& part : drawn.parts) {
            Wanted& same = wanted[sampleKey(*part.source, drawn.finer, frame, effort)];
            same.drawn = &drawn;
            same.places.push_back(&part);
        }
    }
    std::vector<std::pair<const std::string*, const Wanted*>> list;
    for (const auto& [key, same] : wanted) list.emplace_back(&key, &same);
    tbb::parallel_for(std::size_t{0}, list.size(), [&](std::size_t i) {
        const Wanted& same = *list[i].second;
        const auto samples = store.samplesOf(*list[i].first, stop, [&] {
            return sampleSource(*same.places[0]->source, same.drawn->finer, frame, effort, stop);
        });
        for (Sampled* place : same.places) place->samples = samples;
    });
}

double distanceTo(const std::vector<Point>& line, Point p) {
    double least = HUGE_VAL;
    for (std::size_t i = 0; i + 1 < line.size(); ++i) {
        const double dx = line[i + 1].x - line[i].x, dy = line[i + 1].y - line[i].y, square = dx * dx + dy * dy;
        const double part =
            square > 0 ? std::clamp(((p.x - line[i].x) * dx + (p.y - line[i].y) * dy) / square, 0.0, 1.0) : 0;
        least = std::min(least, std::hypot(line[i].x + part * dx - p.x, line[i].y + part * dy - p.y));
    }
    return least;
}

/// Whether a place is inside polygons by the even-odd rule.
bool isInside(const std::vector<std::vector<Point>>& polygons, Point p) {
    bool inside = false;
    for (const auto& polygon : polygons) {
        for (std::size_t i = 0; i < polygon.size(); ++i) {
            const Point &a = polygon[i], &b = polygon[(i + 1) % polygon.size()];
            if ((a.y > p.y) != (b.y > p.y) && p.x < a.x + (b.x - a.x) * (p.y - a.y) / (b.y - a.y)) inside = !inside;
        }
    }
    return inside;
}

/// How far a place is from what an item of the scene shows as a line or mark; infinite for an area.
double distanceTo(const SceneItem& item, Point p) {
    double least = HUGE_VAL;
    if (const auto* stroke = std::get_if<StrokeItem>(&item)) {
        for (const auto& line : stroke->lines) least = std::min(least, distanceTo(line, p));
    }
    const auto* fill = std::get_if<FillItem>(&item);
    if (fill && !fill->evenOdd) { // marks
        for (const auto& polygon : fill->polygons) {
            if (isInside({polygon}, p)) return 0;
            least = std::min(least, distanceTo(polygon, p));
        }
    }
    return least;
}

bool covers(const SceneItem& item, Point p) {
    if (const auto* fill = std::get_if<FillItem>(&item)) return fill->evenOdd && isInside(fill->polygons, p);
    const auto* image = std::get_if<ImageItem>(&item);
    return image && image->clip.contains(p);
}

} // namespace

Figure drawFigure(const Document& document, const Effort& effort, std::stop_token stop, SampleStore* known) {
    SampleStore ownStore;
    SampleStore& store = known ? *known : ownStore;
    Figure figure;
    figure.document = document;
    figure.effort = effort;
    figure.scene.width = document.sheet.width;
    figure.scene.height = document.sheet.height;
    figure.page = readPage(document.page);
    figure.panels.resize(document.panels.size());
    for (std::size_t p = 0; p < document.panels.size(); ++p) {
        const Panel& panel = document.panels[p];
        PanelFigure& made = figure.panels[p];
        PanelReading reading = readPlots(figure.page, panel, p);
        const PanelLook look = lookAtPanel(panel, reading, stop);
        made.layout = layoutPanel(figure.page, document.sheet, panel, reading, look,
                                  roomOf(document.sheet, p, document.panels.size()),
                                  p < effort.held.size() ? effort.held[p] : std::nullopt, stop);
        made.drawn = std::move(reading.drawn);
        made.problems = std::move(reading.problems);
        sampleAll(made, effort, stop, store);
        if (stop.stop_requested()) break;
        drawPanel(figure, p);
        figure.finished = figure.finished && std::ranges::all_of(made.drawn, isFinished);
    }
    if (stop.stop_requested()) figure.finished = false;
    return figure;
}

Figure drawFigure(const Document& document, std::stop_token stop) {
    return drawFigure(document, effortOf(document.sheet), std::move(stop));
}

const Drawn* drawnAt(const Figure& figure, const ItemPath& path) {
    if (path.kind != ItemKind::Plot || path.panel >= figure.panels.size()) return nullptr;
    for (const Drawn& drawn : figure.panels[path.panel].drawn) {
        if (drawn.path == path) return &drawn;
    }
    return nullptr;
}

ItemPath itemAt(const Figure& figure, Point mm, double reach) {
    const auto inPanel = [&](const ItemPath& path) {
        return figure.panels[path.panel].layout.frame.rect.grown(1).contains(mm);
    };
    std::optional<ItemPath> nearest, top;
    for (const Owned& owned : figure.owned) {
        if (!inPanel(owned.path)) continue;
        for (std::size_t i = owned.first; i < owned.last; ++i) {
            const double away = distanceTo(figure.scene.items[i], mm);
            if (away < reach) {
                reach = away;
                nearest = owned.path;
            }
            if (covers(figure.scene.items[i], mm)) top = owned.path;
        }
    }
    return nearest ? *nearest : top ? *top : partAt(figure, mm);
}

ItemPath partAt(const Figure& figure, Point mm) {
    for (auto hit = figure.hits.rbegin(); hit != figure.hits.rend(); ++hit) {
        if (hit->rect.grown(0.6).contains(mm)) return hit->path;
    }
    return {};
}

std::string titleOf(const Document& document) {
    return document.panels.empty() ? std::string() : document.panels[0].title;
}

} // namespace coulter
