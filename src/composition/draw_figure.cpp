#include "composition/draw_figure.h"

#include "composition/heavier_marks.h"
#include "composition/panel_parts.h"
#include "composition/shared_looks.h"
#include "composition/shared_scales.h"
#include "composition/sheet_parts.h"
#include "drawing/nearness.h"
#include "drawing/sheet_ink.h"
#include "figure/sheet_settings.h"
#include "formula/lines/read_page.h"
#include "formula/lines/table_lines.h"
#include "plots/level_proofs.h"
#include "plots/seen_in.h"
#include "plots/surface_faces.h"

#include <algorithm>
#include <atomic>
#include <bit>
#include <cmath>
#include <map>
#include <tbb/parallel_for.h>

namespace coulter {
namespace {

/// A source that is sampled, and all places among what a panel draws that show it.
struct Wanted {
    struct Place {
        std::size_t drawn = 0, part = 0;
    };
    std::vector<Place> places;
};

/// Every source once, however many plots draw it.
std::map<std::string, Wanted> wantedOf(const PanelFigure& panel, const Effort& effort) {
    std::map<std::string, Wanted> wanted;
    for (std::size_t d = 0; d < panel.drawn.size(); ++d) {
        const Drawn& drawn = panel.drawn[d];
        for (std::size_t k = 0; k < drawn.parts.size(); ++k)
            wanted[sampleKey(*drawn.parts[k].source, drawn.finer, panel.frameOf(drawn), effort)].places.push_back(
                {d, k});
    }
    return wanted;
}

/// The share of one panel's source in what the figure may cost: halved each time that their number doubles, so that
/// one more does not change all.
Effort shareOf(const Effort& effort, const Figure& figure) {
    std::size_t count = 0;
    for (const PanelFigure& panel : figure.panels) {
        for (const Drawn& drawn : panel.drawn) count += drawn.parts.size();
    }
    Effort share = effort;
    share.operations /= static_cast<double>(std::bit_ceil(std::max<std::size_t>(1, count)));
    return share;
}

/// Each in its own place, so that the number of threads shows nowhere.
void sampleAll(Figure& figure, std::size_t index, const Effort& effort, const std::stop_token& stop, SampleStore& store,
               const FigureWatch& watch) {
    PanelFigure& panel = figure.panels[index];
    const std::map<std::string, Wanted> wanted = wantedOf(panel, effort);
    std::vector<std::pair<const std::string*, const Wanted*>> list;
    for (const auto& [key, same] : wanted) list.emplace_back(&key, &same);
    std::atomic<std::size_t> done = 0;
    if (watch.stage) watch.stage("sampling", 0, list.size());
    tbb::parallel_for(std::size_t{0}, list.size(), [&](std::size_t i) {
        const Wanted& same = *list[i].second;
        SampleWatch sampleWatch;
        if (watch.stage && list.size() == 1) // else what is counted are sources
            sampleWatch.sampling = [&](std::size_t points, std::size_t all) { watch.stage("sampling", points, all); };
        if (watch.proving && effort.proofs) {
            sampleWatch.proving = [&](const CurveSamples& soFar) {
                for (const Wanted::Place& place : same.places) watch.proving(index, place.drawn, place.part, soFar);
            };
        }
        const Drawn& first = panel.drawn[same.places[0].drawn];
        const auto samples = store.samplesOf(*list[i].first, stop, [&] {
            return sampleSource(*first.parts[same.places[0].part].source, first.finer, panel.frameOf(first), effort,
                                stop, sampleWatch);
        });
        for (const Wanted::Place& place : same.places) panel.drawn[place.drawn].parts[place.part].samples = samples;
        if (watch.stage) watch.stage("sampling", ++done, list.size());
    });
}

/// Whether proofs may have to be waited for.
bool waitsForProofs(const Figure& figure, const Effort& effort, SampleStore& store) {
    for (const PanelFigure& panel : figure.panels) {
        for (const auto& [key, same] : wantedOf(panel, effort)) {
            const Wanted::Place& place = same.places[0];
            if (hasDearProofs(*panel.drawn[place.drawn].parts[place.part].source) && !store.has(key)) return true;
        }
    }
    return false;
}

/// Read, looked at and laid out: all but samples and drawing.
Figure laidOut(const Document& document, const Effort& effort, const std::stop_token& stop, const FigureWatch& watch) {
    Figure figure;
    figure.document = document;
    figure.effort = effort;
    figure.scene.width = document.sheet.width;
    figure.scene.height = document.sheet.height;
    figure.page = readPage(document);
    figure.page.names.onlyNotation = !rulesOf(document.format).formulasInWords;
    const std::optional<Page> leftOut = pageOfLeftOut(figure.page, document.tables);
    const double share = effort.operations / static_cast<double>(document.panels.size());
    std::vector<ReadPanel> panels(document.panels.size());
    for (std::size_t p = 0; p < panels.size() && !stop.stop_requested(); ++p) {
        if (watch.stage) watch.stage("looking", p, panels.size());
        panels[p].panel = document.panels[p];
        panels[p].reading =
            readPlots(figure.page, document.panels[p], p, rulesOf(document.format), leftOut ? &*leftOut : nullptr);
        lookAgain(panels[p], share, stop);
    }
    shareLooks(document, panels);
    shareScales(document, panels, share, stop);
    figure.layout = layoutSheet(figure.page, document, panels, effort.held, stop);
    const SheetInk ink = inkOf(document.sheet);
    figure.panels.resize(panels.size());
    for (std::size_t p = 0; p < panels.size(); ++p) {
        PanelFigure& made = figure.panels[p];
        made.layout = std::move(figure.layout.panels[p]);
        made.layout.frame.tolerance = effort.tolerance;
        made.layout.frame.ink = ink;
        made.drawn = std::move(panels[p].reading.drawn);
        for (Drawn& drawn : made.drawn) {
            if (drawn.caseValue)
                drawn.colour =
                    made.layout.frame.shades.of(*drawn.caseValue, made.layout.frame.colour).value_or(drawn.colour);
            makeHeavier(drawn.settings, drawn.kind->settings, ink.lines);
            for (Sampled& part : drawn.parts) part.source = seenIn(part.source, made.frameOf(drawn));
        }
        made.problems = std::move(panels[p].reading.problems);
        made.notes = readNotes(figure.page, document.panels[p], p, made.layout.frame, made.layout.sizes.text);
        for (DrawnNote& note : made.notes.drawn) makeHeavier(note.settings, note.kind->settings, ink.lines);
    }
    figure.layout.panels.clear();
    return figure;
}

/// Samples and draws what is laid out.
Figure drawn(Figure figure, const Effort& share, const std::stop_token& stop, SampleStore& store,
             const FigureWatch& watch) {
    for (std::size_t p = 0; p < figure.panels.size(); ++p) {
        if (!stop.stop_requested()) sampleAll(figure, p, share, stop, store, watch);
        if (stop.stop_requested()) break;
        if (watch.stage) watch.stage("drawing", p, figure.panels.size());
        drawPanel(figure, p, stop);
        figure.finished = figure.finished && std::ranges::all_of(figure.panels[p].drawn, isFinished);
    }
    if (!stop.stop_requested()) drawSheetParts(figure);
    applyInk(inkOf(figure.document.sheet), figure.scene);
    if (stop.stop_requested()) figure.finished = false;
    return figure;
}

/// Each plot of a figure that draws lines of levels of which it is not known what is proven; of others it is taken
/// over.
std::vector<std::pair<Drawn*, Frame>> unprovenPlots(Figure& figure, const Effort& share) {
    std::stop_source stopped;
    stopped.request_stop(); // nothing is computed: what is kept comes at once
    std::vector<std::pair<Drawn*, Frame>> plots;
    for (PanelFigure& panel : figure.panels) {
        for (Drawn& drawn : panel.drawn) {
            const Field* field = fieldOf(drawn);
            if (!drawn.kind->prove || !field || !canProveLines(*field)) continue;
            const Frame frame = panel.frameOf(drawn);
            drawn.levelProofs = drawn.kind->prove(drawn, frame, share, stopped.get_token());
            if (!drawn.levelProofs) plots.emplace_back(&drawn, frame);
        }
    }
    return plots;
}

} // namespace

Figure drawFigure(const Document& document, const Effort& effort, std::stop_token stop, SampleStore* known,
                  const FigureWatch& watch) {
    SampleStore ownStore;
    SampleStore& store = known ? *known : ownStore;
    if (watch.stage) watch.stage("reading", 0, 0);
    Figure figure = laidOut(document, effort, stop, watch);
    const Effort share = shareOf(effort, figure);
    if (watch.picture && effort.proofs && waitsForProofs(figure, share, store)) {
        Effort withoutProofs = share;
        withoutProofs.proofs = false;
        Figure first = drawn(figure, withoutProofs, stop, store, {});
        first.effort.proofs = false;
        if (!stop.stop_requested()) watch.picture(std::move(first));
    }
    figure = drawn(std::move(figure), share, stop, store, watch);
    // Who watches is told what is proven of lines; no byte depends on it.
    if (!watch.picture || !effort.proofs || stop.stop_requested()) return figure;
    const auto plots = unprovenPlots(figure, share);
    if (!plots.empty()) watch.picture(Figure(figure));
    for (std::size_t k = 0; k < plots.size() && !stop.stop_requested(); ++k) {
        if (watch.stage) watch.stage("proving", k, plots.size());
        plots[k].first->levelProofs = plots[k].first->kind->prove(*plots[k].first, plots[k].second, share, stop);
    }
    return figure;
}

Figure drawFigure(const Document& document, std::stop_token stop) {
    return drawFigure(document, effortOf(document.sheet), std::move(stop));
}

} // namespace coulter
