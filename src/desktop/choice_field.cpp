#include "desktop/choice_field.h"

#include <QPainter>
#include <QPolygonF>

namespace coulter {

void ChoiceField::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(palette().color(QPalette::Text));
    painter.drawText(rect().adjusted(3, 0, -14, 0), Qt::AlignVCenter | Qt::AlignLeft, currentText());
    const QPointF tip(width() - 8, height() / 2.0 + 2);
    painter.drawPolyline(QPolygonF{tip + QPointF(-3.5, -3.5), tip, tip + QPointF(3.5, -3.5)});
    painter.setPen(
        QPen(hasFocus() ? palette().color(QPalette::Highlight) : palette().color(QPalette::PlaceholderText), 1));
    painter.drawLine(QPointF(0, height() - 0.5), QPointF(width(), height() - 0.5));
}

} // namespace coulter
