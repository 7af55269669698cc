// Readings of tables where they are drawn: left out, and counting again. See sheet_view.h.
#include "desktop/sheet_view.h"
#include "plots/table_edits.h"

#include <QMenu>
#include <cmath>

namespace coulter {

std::optional<SheetView::ReadingAt> SheetView::readingAt(Point mm) const {
    if (!figure_) return std::nullopt;
    const Figure& figure = figure_->figure;
    double reach = 8 / fit();
    std::optional<ReadingAt> nearest;
    for (std::size_t p = 0; p < figure.panels.size(); ++p) {
        const PanelFigure& panel = figure.panels[p];
        if (!panel.frame().rect.grown(2).contains(mm)) continue;
        for (const Drawn& drawn : panel.drawn) {
            std::optional<std::string> table;
            for (std::size_t part = 0; part < drawn.parts.size(); ++part) {
                const Columns* columns = columnsOf(drawn, part);
                if (!columns || columns->arePlaces || columns->numbers.size() < 2) continue;
                if (!table) table = tableOfPlot(figure.page, figure.document.panels[p].plots[drawn.path.index]);
                if (!table) break;
                const Frame frame = panel.frameOf(drawn);
                for (std::size_t row = 0; row < columns->rows(); ++row) {
                    const Point at = frame.onSheet((*columns->numbers[0])[row], (*columns->numbers[1])[row]);
                    const double away = std::hypot(at.x - mm.x, at.y - mm.y);
                    if (!(away < reach)) continue;
                    reach = away;
                    nearest = ReadingAt{*table, row};
                }
            }
        }
    }
    return nearest;
}

void SheetView::fillReadingMenu(QMenu& menu, const ReadingAt& reading) {
    const bool isOut = isLeftOut(session_.document(), reading.table, reading.row);
    const QString name = QString::fromStdString(reading.table);
    const QString text =
        (isOut ? tr("Let row %1 of “%2” count again") : tr("Leave out row %1 of “%2”")).arg(reading.row + 1).arg(name);
    menu.addAction(text, this, [this, reading, isOut] {
        session_.edit(withRowsLeftOut(session_.document(), reading.table, {reading.row}, !isOut),
                      isOut ? tr("a reading counts again") : tr("a reading left out"));
    });
}

} // namespace coulter
