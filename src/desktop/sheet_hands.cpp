// What hands do on the sheet besides the left button: touchpads, pinches, the wheel, the middle button, and a rectangle
// drawn round what is to be shown. See sheet_view.h.
#include "composition/figure.h"
#include "desktop/sheet_view.h"

#include <QNativeGestureEvent>
#include <QPainter>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr double zoomOfNotch = 1.2;

bool isOfPanel(const ItemPath& part) {
    return part.kind != ItemKind::Sheet && part.kind != ItemKind::SheetTitle && part.kind != ItemKind::SheetLegend;
}

} // namespace

/// Two fingers move the view, as far as they go; a wheel, and two fingers with Control, zoom about the pointer.
void SheetView::wheelEvent(QWheelEvent* event) {
    if (!figure_) return;
    const Point mm = toSheet(event->position());
    const ItemPath part = partAt(figure_->figure, mm);
    const bool isTouchpad = event->phase() != Qt::NoScrollPhase && !event->pixelDelta().isNull();
    if (event->phase() == Qt::ScrollBegin || event->phase() == Qt::ScrollEnd) glide_.reset();
    if (event->phase() == Qt::ScrollEnd) session_.endMerge();
    if (!isOfPanel(part)) return;
    event->accept();
    if (event->angleDelta().y() == 0 && !isTouchpad) return; // fingers that only begin or end
    if (isTouchpad && !(event->modifiers() & Qt::ControlModifier)) return glideBy(part, event->pixelDelta());
    zoom(part, std::pow(zoomOfNotch, event->angleDelta().y() / 120.0), mm, "zoom");
}

/// From where the fingers began, because figures come later than they move.
void SheetView::glideBy(const ItemPath& part, QPointF by) {
    if (!glide_) glide_ = Glide{part, figure_->figure.panels[part.panel].frame(), {}};
    glide_->by += by;
    const bool whole = glide_->part.kind != ItemKind::Scale;
    const ItemPath moved = whole ? ItemPath{ItemKind::Panel, glide_->part.panel, 0, 0} : glide_->part;
    if (showsSpace(moved.panel))
        turn(moved.panel, by.x() / 2, by.y() / 2, session_.document().panels[moved.panel].view, "turn");
    else
        pan(moved, glide_->frame, glide_->by.x() / fit(), glide_->by.y() / fit(), "pan");
}

bool SheetView::event(QEvent* event) {
    if (event->type() == QEvent::NativeGesture && figure_) {
        const auto* gesture = static_cast<QNativeGestureEvent*>(event);
        const Point mm = toSheet(gesture->position());
        const ItemPath part = partAt(figure_->figure, mm);
        if (gesture->gestureType() == Qt::ZoomNativeGesture && isOfPanel(part) && gesture->value() > -1) {
            zoom(part, 1 + gesture->value(), mm, "zoom");
            return true;
        }
        if (gesture->gestureType() == Qt::EndNativeGesture) session_.endMerge();
    }
    return QWidget::event(event);
}

/// The middle button takes the view wherever it is pressed, and with Control a rectangle is drawn; whether this press
/// does one of them.
bool SheetView::pressOfHand(const QMouseEvent& event) {
    const Point mm = toSheet(event.position());
    const ItemPath part = partAt(figure_->figure, mm);
    const bool draws = event.button() == Qt::LeftButton && event.modifiers() == Qt::ControlModifier;
    if ((!draws && event.button() != Qt::MiddleButton) || !isOfPanel(part) ||
        part.panel >= figure_->figure.panels.size())
        return false;
    const Frame& frame = figure_->figure.panels[part.panel].frame();
    if (draws && (frame.polar || showsSpace(part.panel) || !frame.rect.contains(mm))) return false;
    drag_ =
        Drag{{ItemKind::Panel, part.panel, 0, 0}, event.position(), frame, session_.document().panels[part.panel].view};
    drag_->button = event.button();
    drag_->drawsRectangle = draws;
    session_.endMerge();
    return true;
}

/// The part of the panel between where a drag began and the pointer, mm.
Rect SheetView::drawnRectangle(const Drag& drag, Point mm) const {
    const Rect& frame = drag.frame.rect;
    const Point start = toSheet(drag.start);
    const double left = std::clamp(std::min(start.x, mm.x), frame.x, frame.right()),
                 right = std::clamp(std::max(start.x, mm.x), frame.x, frame.right()),
                 top = std::clamp(std::min(start.y, mm.y), frame.y, frame.bottom()),
                 bottom = std::clamp(std::max(start.y, mm.y), frame.y, frame.bottom());
    return {left, top, right - left, bottom - top};
}

void SheetView::paintRectangle(QPainter& painter) const {
    if (!drag_ || !drag_->drawsRectangle || !drag_->moved) return;
    const Rect drawn = drawnRectangle(*drag_, toSheet(pointer_));
    const QRectF box(toWidget({drawn.x, drawn.y}), toWidget({drawn.right(), drawn.bottom()}));
    QColor within = look_.look().accent();
    within.setAlpha(36);
    painter.fillRect(box, within);
    painter.setPen(QPen(look_.look().accent(), 1, Qt::DashLine));
    painter.drawRect(box);
}

} // namespace coulter
