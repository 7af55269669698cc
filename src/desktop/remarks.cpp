#include "desktop/remarks.h"

#include "formula/text.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr int mostGapsNamed = 6;

/// A place on an axis, printed as exactly as a millionth of the view.
QString place(double value, const AxisMap& axis) {
    const double unit = (axis.high - axis.low) * 1e-6;
    if (std::abs(value) < unit) value = 0;
    const int digits =
        std::clamp(static_cast<int>(std::ceil(std::log10(std::max(std::abs(value), unit) / unit))), 3, 15);
    return QString::fromStdString(roundedNumber(value, digits)).replace('-', QChar(0x2212));
}

} // namespace

Remarks::Remarks(SheetView& sheet, const LookSettings& look, QWidget* parent)
    : QListWidget(parent), sheet_(sheet), look_(look) {
    setWordWrap(true);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setAccessibleName(tr("Remarks"));
    setObjectName("remarks");
    connect(&sheet_, &SheetView::figureChanged, this, &Remarks::rebuild);
    connect(&look_, &LookSettings::changed, this, &Remarks::rebuild);
    connect(this, &QListWidget::itemActivated, this, [this](QListWidgetItem* item) {
        emit lineChosen(item->data(Qt::UserRole).toInt(), item->data(Qt::UserRole + 1).toInt());
    });
    connect(this, &QListWidget::itemClicked, this, [this](QListWidgetItem* item) {
        emit lineChosen(item->data(Qt::UserRole).toInt(), item->data(Qt::UserRole + 1).toInt());
    });
}

void Remarks::add(const QString& text, bool wrong, int line, int character) {
    auto* item = new QListWidgetItem(text, this);
    item->setForeground(wrong ? look_.look().wrong() : look_.look().ink());
    item->setData(Qt::UserRole, line);
    item->setData(Qt::UserRole + 1, character);
    item->setToolTip(text);
}

void Remarks::rebuild() {
    clear();
    const ShownFigure* shown = sheet_.figure();
    if (!shown) return;
    const Figure& figure = shown->figure;
    if (!sheet_.waitsFor().isEmpty()) add(sheet_.waitsFor(), true, -1, 0);
    for (const Problem& problem : figure.page.problems()) {
        add(QString::fromStdString(describe(problem)), problem.severity == Problem::Severity::Error, problem.line,
            problem.first);
    }
    for (std::size_t c = 0; !figure.samples.empty() && c < figure.samples[0].size(); ++c) {
        const Curve& curve = figure.curves[0].curves[c];
        int named = 0;
        const QString variable = QString::fromStdString(curve.variable);
        const QString what = QString::fromStdString(shown->document.panels[0].plots[curve.plot].of);
        const AxisMap axis = curve.isFunction()
                                 ? figure.layouts[0].map.x
                                 : AxisMap{ScaleKind::Linear, curve.interval.low, curve.interval.high, 1};
        for (const Gap& gap : figure.samples[0][c].gaps) {
            if (++named > mostGapsNamed) break;
            const QString low = place(gap.low, axis), high = place(gap.high, axis);
            if (gap.kind == GapKind::Pole)
                add(tr("%1 has a pole at %2 = %3.").arg(what, variable, low), false, -1, 0);
            else if (gap.kind == GapKind::Jump)
                add(tr("%1 jumps at %2 = %3.").arg(what, variable, low), false, -1, 0);
            else if (low == high)
                add(tr("%1 is undefined at %2 = %3.").arg(what, variable, low), false, -1, 0);
            else
                add(tr("%1 is undefined from %2 = %3 to %4.").arg(what, variable, low, high), false, -1, 0);
        }
        for (const Band& band : figure.samples[0][c].bands) {
            const QString low = place(band.low, axis), high = place(band.high, axis);
            add(low == high ? tr("%1 oscillates without end at %2 = %3; there it is drawn as the band it fills.")
                                  .arg(what, variable, low)
                            : tr("%1 oscillates more often than can be drawn from %2 = %3 to %4; there it is drawn as "
                                 "the band it fills.")
                                  .arg(what, variable, low, high),
                false, -1, 0);
        }
        if (!figure.samples[0][c].finished)
            add(tr("%1 bends more often than can be drawn; the finest parts are missing.")
                    .arg(QString::fromStdString(shown->document.panels[0].plots[curve.plot].of)),
                true, -1, 0);
    }
    for (std::size_t f = 0; !figure.fields.empty() && f < figure.fields[0].size(); ++f) {
        if (!figure.fields[0][f].finished)
            add(tr("%1 varies more finely than can be sampled; the finest cells are missing.")
                    .arg(QString::fromStdString(shown->document.panels[0].plots[figure.curves[0].fields[f].plot].of)),
                true, -1, 0);
    }
    if (count() == 0) {
        add(tr("Nothing to remark."), false, -1, 0);
        item(0)->setForeground(look_.look().muted());
    }
}

} // namespace coulter
