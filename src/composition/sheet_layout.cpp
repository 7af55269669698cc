#include "composition/sheet_layout.h"

#include "composition/colour_bar.h"
#include "composition/lay_out_panel.h"
#include "composition/layout_parts.h"
#include "composition/legend_place.h"
#include "figure/panel_grid.h"
#include "figure/sheet_settings.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace coulter {
namespace {

using namespace distance;

/// Of a row or column of the grid, mm: where its frames begin and end, and the paper they need before and behind.
struct Line {
    double before = 0, behind = 0, from = 0, to = 0;
};

/// Puts the lines beside each other. Where two meet, the free paper at their edges is one.
void spread(std::vector<Line>& lines, const std::vector<double>& weights, double from, double length, double gap) {
    double taken = static_cast<double>(lines.size() - 1) * (gap - edge);
    for (const Line& line : lines) taken += line.before + line.behind;
    const double free = std::max(length - taken, 1.0), whole = std::accumulate(weights.begin(), weights.end(), 0.0);
    double at = from;
    for (std::size_t i = 0; i < lines.size(); ++i) {
        lines[i].from = at + lines[i].before;
        lines[i].to = lines[i].from + free * weights[i] / whole;
        at = lines[i].to + lines[i].behind + gap - edge;
    }
}

class Layouter {
public:
    Layouter(const Page& page, const Document& document, const std::vector<ReadPanel>& panels,
             const std::vector<std::optional<Limits>>& held)
        : page_(page), document_(document), panels_(panels), held_(held), cells_(cellsOf(document)),
          grid_(gridSize(cells_)) {}

    SheetLayout with(const LetterSizes& sizes) {
        layout_ = {};
        sizes_ = sizes;
        const Settings& settings = document_.sheet.settings;
        room_ = {0, 0, document_.sheet.width, document_.sheet.height};
        title(settings);
        legend(settings);
        bar(settings);
        if (panels_.size() == 1) {
            layout_.panels.push_back(laidOut(0, room_, wishesOf(0)));
        } else {
            panelsInGrid();
        }
        placeBar();
        return std::move(layout_);
    }

private:
    PanelWishes wishesOf(std::size_t p) const {
        PanelWishes wishes;
        wishes.sizes = sizes_;
        wishes.numbersAcross = panels_[p].numbersAcross;
        wishes.numbersUp = panels_[p].numbersUp;
        if (panels_.size() > 1) wishes.letter = panelLetter(document_.sheet.settings, p);
        if (p < held_.size()) wishes.held = held_[p];
        return wishes;
    }

    /// A panel laid out without what the sheet says in one place for all.
    PanelLayout laidOut(std::size_t p, const Rect& room, const PanelWishes& wishes) const {
        // A copy costs something: of a million readings there are a million places to look at.
        if (layout_.legend.empty() && !barOf_) return layoutPanel(page_, panels_[p], room, wishes);
        ReadPanel panel = panels_[p];
        if (!layout_.legend.empty()) panel.panel.legend.place = LegendPlace::None;
        if (barOf_) set(panel.panel.colour.settings, barSetting, std::string("none"));
        return layoutPanel(page_, panel, room, wishes);
    }

    Box box(const std::string& text, Em size) const {
        return text.empty() ? Box{} : labelBox(withValues(page_, text), FontId::Text, size, page_.names);
    }

    void title(const Settings& settings) {
        layout_.title = box(text(settings, sheetTitleSetting), 1.15 * sizes_.title);
        if (layout_.title.height() == 0) return;
        layout_.titleAt = {edge, edge + layout_.title.ascent};
        const double taken = layout_.title.height() + 3;
        room_.y += taken;
        room_.height -= taken;
    }

    /// Entries of all panels, each look once: in a column at the right, or in rows below.
    void legend(const Settings& settings) {
        const auto place = static_cast<SheetLegend>(word(settings, sheetLegendSetting));
        if (place == SheetLegend::EachPanel) return;
        std::vector<std::string> seen;
        double widest = 0;
        layout_.rowHeight = 1.35 * sizes_.text;
        for (std::size_t p = 0; p < panels_.size(); ++p) {
            Panel panel = panels_[p].panel;
            if (panel.legend.place == LegendPlace::None) continue;
            panel.legend.place = LegendPlace::TopLeft; // all entries, wherever they would go
            const LegendLayout own =
                decideLegend(page_, panel, panels_[p].reading, panels_[p].look, PanelLimits{}, 100, 100, sizes_.text);
            for (std::size_t e = 0; e < own.entries.size(); ++e) {
                const Drawn& drawn = panels_[p].reading.drawn[own.drawn[e]];
                std::string look = std::string(drawn.kind->name) + spelled(drawn.colour);
                for (const auto& [key, value] : drawn.settings) look += key + "=" + spelled(value) + ";";
                for (const PlacedGlyph& glyph : own.entries[e].glyphs)
                    look += std::to_string(glyph.glyph) + "," + std::to_string(glyph.x) + ";";
                if (std::ranges::find(seen, look) != seen.end()) continue;
                seen.push_back(look);
                layout_.legend.push_back({own.entries[e], p, own.drawn[e], {}});
                widest = std::max(widest, own.entries[e].width);
                layout_.rowHeight = std::max(layout_.rowHeight, own.rowHeight);
            }
        }
        if (layout_.legend.empty()) return;
        const double width = legendSample + sampleGap + widest, count = static_cast<double>(layout_.legend.size());
        if (place == SheetLegend::Right) {
            layout_.legendRect = {room_.right() - edge - width, room_.y + edge, width, count * layout_.rowHeight};
            room_.width -= width + legendGap;
        } else {
            const double most = std::max(1.0, std::floor((room_.width - 2 * edge + legendGap) / (width + legendGap))),
                         rows = std::ceil(count / most), height = rows * layout_.rowHeight;
            const double columns = std::ceil(count / rows);
            layout_.legendRect = {room_.x + (room_.width - columns * (width + legendGap) + legendGap) / 2,
                                  room_.bottom() - edge - height, columns * (width + legendGap) - legendGap, height};
            room_.height -= height + 1.5;
        }
        const std::size_t rows =
            static_cast<std::size_t>(std::max(1.0, std::round(layout_.legendRect.height / layout_.rowHeight)));
        for (std::size_t e = 0; e < layout_.legend.size(); ++e) {
            layout_.legend[e].at = {layout_.legendRect.x + static_cast<double>(e / rows) * (width + legendGap),
                                    layout_.legendRect.y + static_cast<double>(e % rows) * layout_.rowHeight};
        }
    }

    /// One bar for all panels whose colours mean the same: of the first of them.
    void bar(const Settings& settings) {
        barOf_.reset();
        if (static_cast<SharedColours>(word(settings, sharedColoursSetting)) != SharedColours::ScaleAndBar) return;
        for (std::size_t p = 0; p < panels_.size() && !barOf_; ++p) {
            if (panels_[p].sharesColours.size() > 1) barOf_ = p;
        }
        if (!barOf_) return;
        bar_ = barLayout(room_.height / 2);
        if (!bar_.colours.shown) {
            barOf_.reset();
            return;
        }
        if (bar_.colours.side == BarSide::Below)
            room_.height -= bar_.colours.room;
        else
            room_.width -= bar_.colours.room;
    }

    PanelLayout barLayout(double along) const {
        const ReadPanel& read = panels_[*barOf_];
        Panel panel = read.panel;
        if (word(panel.colour.settings, barSetting) != static_cast<std::size_t>(BarSide::Below) &&
            word(panel.colour.settings, barSetting) != static_cast<std::size_t>(BarSide::None))
            set(panel.colour.settings, barSetting, std::string("right"));
        const ScaleRules rules = scaleRules(page_, panel, read.reading);
        PanelUnits units;
        for (std::size_t k = 0; k < units.size(); ++k) units[k] = rules[k].unit;
        const PanelLabels labels = labelsOf(panel, read.reading, units);
        const PanelWishes wishes = wishesOf(*barOf_);
        PanelLayout layout;
        layout.format = read.reading.format;
        layout.room = {0, 0, document_.sheet.width, document_.sheet.height};
        layout.sizes = sizes_;
        layoutColours(layout, {page_, panel, read.reading, read.look, labels, rules, room_, read.scales, wishes},
                      along);
        return layout;
    }

    /// Along all panels, once their frames are known.
    void placeBar() {
        if (!barOf_) return;
        Rect all = layout_.panels[0].frame.rect;
        for (const PanelLayout& panel : layout_.panels) {
            const Rect& f = panel.frame.rect;
            const double right = std::max(all.right(), f.right()), bottom = std::max(all.bottom(), f.bottom());
            all.x = std::min(all.x, f.x);
            all.y = std::min(all.y, f.y);
            all.width = right - all.x;
            all.height = bottom - all.y;
        }
        const bool below = bar_.colours.side == BarSide::Below;
        PanelLayout placed = barLayout(below ? all.width : all.height);
        placed.frame.rect = all;
        placeColourBar(placed, below ? room_.bottom() - edge - all.bottom() : room_.right() - edge - all.right());
        layout_.panels[*barOf_].colours = placed.colours;
        layout_.panels[*barOf_].frame.colour.length = placed.frame.colour.length;
    }

    void panelsInGrid() {
        std::vector<Line> columns(static_cast<std::size_t>(grid_.columns)), rows(static_cast<std::size_t>(grid_.rows));
        for (Line& line : columns) line.before = line.behind = edge;
        for (Line& line : rows) line.before = line.behind = edge;
        const double gap = number(document_.sheet.settings, gapSetting);
        const std::vector<double> widths = columnWeights(document_), heights = rowWeights(document_);
        // Numbers may need more paper on a smaller frame; what a line needs only grows, so this ends.
        for (int round = 0; round < 8; ++round) {
            spread(columns, widths, room_.x, room_.width, gap);
            spread(rows, heights, room_.y, room_.height, gap);
            layout_.panels.clear();
            bool enough = true;
            for (std::size_t p = 0; p < panels_.size(); ++p) {
                const Cell& cell = cells_[p];
                Line &left = columns[static_cast<std::size_t>(cell.column)],
                     &right = columns[static_cast<std::size_t>(cell.column + cell.columns - 1)],
                     &top = rows[static_cast<std::size_t>(cell.row)],
                     &below = rows[static_cast<std::size_t>(cell.row + cell.rows - 1)];
                PanelWishes wishes = wishesOf(p);
                wishes.least = {left.before, right.behind, top.before, below.behind};
                const Rect room{left.from - left.before, top.from - top.before,
                                right.to + right.behind - left.from + left.before,
                                below.to + below.behind - top.from + top.before};
                layout_.panels.push_back(laidOut(p, room, wishes));
                const Margins& needed = layout_.panels.back().margins;
                const auto grow = [&](double& has, double needs) {
                    if (needs > has + 1e-9) {
                        has = needs;
                        enough = false;
                    }
                };
                grow(left.before, needed.left);
                grow(right.behind, needed.right);
                grow(top.before, needed.top);
                grow(below.behind, needed.below);
            }
            if (enough) return;
        }
    }

    const Page& page_;
    const Document& document_;
    const std::vector<ReadPanel>& panels_;
    const std::vector<std::optional<Limits>>& held_;
    std::vector<Cell> cells_;
    GridSize grid_;
    LetterSizes sizes_;
    Rect room_;
    SheetLayout layout_;
    std::optional<std::size_t> barOf_;
    PanelLayout bar_;
};

} // namespace

SheetLayout layoutSheet(const Page& page, const Document& document, const std::vector<ReadPanel>& panels,
                        const std::vector<std::optional<Limits>>& held, const std::stop_token& stop) {
    Layouter layouter(page, document, panels, held);
    LetterSizes sizes = letterSizes(document.sheet);
    SheetLayout layout = layouter.with(sizes);
    const auto hasRoom = [&] {
        return std::ranges::all_of(layout.panels, fits) && layout.title.width + 2 * edge <= document.sheet.width;
    };
    for (int step = 0; step < 30 && !stop.stop_requested() && !hasRoom(); ++step) {
        sizes = {0.92 * sizes.text, 0.92 * sizes.number, 0.92 * sizes.title};
        layout = layouter.with(sizes);
    }
    return layout;
}

} // namespace coulter
