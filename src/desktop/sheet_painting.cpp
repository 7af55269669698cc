// How the sheet looks on the desk: paper, rulers, what is selected, the read-out. See sheet_view.h.
#include "desktop/sheet_view.h"

#include "composition/pointing.h"
#include "plots/telling.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

namespace coulter {

namespace {

/// By how many mm from low to high the limits that are wanted lie beside those that a scale shows; none if they are of
/// another extent, or automatic.
std::optional<double> moveOf(const AxisLimits& wanted, const AxisMap& shown) {
    if (!wanted.both() || (shown.kind == ScaleKind::Logarithmic && !(*wanted.low > 0))) return std::nullopt;
    const double low = shown.toSheet(*wanted.low), high = shown.toSheet(*wanted.high) - shown.length;
    constexpr double sameExtent = 1e-3; // mm
    return std::abs(low - high) < sameExtent ? std::optional(low) : std::nullopt;
}

} // namespace

/// What a panel shows, where it is wanted by now: until the figure of that is drawn, which may take longer than a hand
/// waits where there are millions of points.
void SheetView::paintMoved(QPainter& painter, const QImage& image) const {
    const std::vector<Panel>&panels = session_.shown().panels, &drawn = figure_->figure.document.panels;
    for (std::size_t i = 0; i < std::min({panels.size(), drawn.size(), figure_->figure.panels.size()}); ++i) {
        const Frame& frame = figure_->figure.panels[i].frame();
        const bool isDrawn = panels[i].x.limits == drawn[i].x.limits && panels[i].y.limits == drawn[i].y.limits;
        if (!frame.isPlane() || isDrawn) continue;
        const auto across = moveOf(panels[i].x.limits, frame.map.x), up = moveOf(panels[i].y.limits, frame.map.y);
        if (!across || !up || (std::abs(*across) < 0.01 && std::abs(*up) < 0.01)) continue;
        // By whole dots, so that nothing is blurred.
        const double dots = fit() * devicePixelRatioF();
        const QPointF by = QPointF(std::round(dots * (frame.leftwards ? *across : -*across)),
                                   std::round(dots * (frame.downwards ? -*up : *up))) /
                           devicePixelRatioF();
        const QRectF room(toWidget({frame.rect.x, frame.rect.y}), toWidget({frame.rect.right(), frame.rect.bottom()}));
        painter.save();
        painter.fillRect(room, image.pixelColor(0, 0)); // the paper
        painter.setClipRect(room & room.translated(by));
        painter.drawImage(paperRect().topLeft() + by, image);
        painter.restore();
    }
}

void SheetView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Look& look = look_.look();
    painter.fillRect(rect(), look.ground());
    const QRectF paper = paperRect();
    painter.setPen(QPen(look.hairline(), 1));
    painter.setBrush(Qt::white);
    painter.drawRect(paper.adjusted(-0.5, -0.5, 0.5, 0.5));
    if (figure_) {
        QImage image = seen_;
        image.setDevicePixelRatio(devicePixelRatioF());
        const QSizeF size = QSizeF(image.size()) / devicePixelRatioF();
        if (std::abs(size.width() - paper.width()) < 1.5) {
            painter.drawImage(paper.topLeft(), image);
            paintMoved(painter, image);
        } else {
            painter.drawImage(paper, image); // until the figure for the new size is there
        }
    }
    paintRulers(painter);
    painter.setRenderHint(QPainter::Antialiasing);
    if (figure_ && selection_.kind != ItemKind::Sheet) {
        for (const Hit& hit : figure_->figure.hits) {
            if (hit.path != selection_) continue;
            painter.setPen(QPen(look.accent(), 1, Qt::DotLine));
            painter.setBrush(Qt::NoBrush);
            painter.drawRect(QRectF(toWidget({hit.rect.x, hit.rect.y}), toWidget({hit.rect.right(), hit.rect.bottom()}))
                                 .adjusted(-3, -2, 3, 2));
        }
    }
    paintPanelMarks(painter);
    paintBarMarks(painter);
    paintProfile(painter);
    paintNoteMarks(painter);
    paintRectangle(painter);
    if (const Drawn* selected = figure_ ? drawnAt(figure_->figure, selection_) : nullptr) {
        // The samples themselves, as small dots on the selected curve; as many as pixels can show.
        painter.setPen(Qt::NoPen);
        painter.setBrush(QColor(0x1f, 0x1d, 0x1a));
        for (const Point& at : dotsOf(*selected, shownPanel()->frameOf(*selected), 0.7 / fit()))
            painter.drawEllipse(toWidget(at), 1.6, 1.6);
    }
    if (marker_) {
        const QPointF at = toWidget(*marker_);
        painter.setPen(QPen(QColor(0x9a, 0x41, 0x2c), 1.5));
        painter.setBrush(Qt::white);
        painter.drawEllipse(at, 4, 4);
    }
    if (!readOut_.isEmpty()) {
        const QFontMetrics metrics(font());
        const QSize size = metrics.size(0, readOut_) + QSize(look.px(12), look.px(6));
        QPointF corner = pointer_ + QPointF(look.px(14), -size.height() - look.px(8));
        corner.setX(std::min(corner.x(), static_cast<double>(width() - size.width() - 2)));
        corner.setY(std::max(corner.y(), 2.0));
        const QRectF box(corner, size);
        painter.setPen(QPen(look.hairline(), 1));
        painter.setBrush(look.page());
        painter.drawRoundedRect(box, 3, 3);
        painter.setPen(look.ink());
        painter.drawText(box, Qt::AlignCenter, readOut_);
    }
    if (eyes_ != Eyes::Usual) { // so that nobody takes it for the figure's own colours
        const QString text = tr("Seen %1").arg(nameOf(eyes_));
        const QSize size = QFontMetrics(font()).size(0, text) + QSize(look.px(16), look.px(6));
        const QRectF label(width() - size.width() - look.px(4), look.px(4), size.width(), size.height());
        painter.setPen(QPen(look.accent(), 1));
        painter.setBrush(look.page());
        painter.drawRoundedRect(label, 3, 3);
        painter.setPen(look.ink());
        painter.drawText(label, Qt::AlignCenter, text);
    }
    if (!waitsFor_.isEmpty()) {
        const QString text = tr("The figure is as it was last: %1").arg(waitsFor_);
        const QRect strip(look.px(rulerWidth), height() - QFontMetrics(font()).height() - look.px(8),
                          width() - look.px(rulerWidth), QFontMetrics(font()).height() + look.px(8));
        painter.fillRect(strip, look.faintAccent());
        painter.setPen(look.wrong());
        painter.drawText(strip.adjusted(look.px(8), 0, -look.px(8), 0), Qt::AlignVCenter,
                         QFontMetrics(font()).elidedText(text, Qt::ElideRight, strip.width() - look.px(16)));
    }
    if (hasFocus()) {
        painter.setPen(QPen(look.accent(), 1));
        painter.setBrush(Qt::NoBrush);
        painter.drawLine(QPointF(paper.left(), paper.bottom() + 3), QPointF(paper.right(), paper.bottom() + 3));
    }
}

void SheetView::paintPanelMarks(QPainter& painter) const {
    if (!figure_ || figure_->figure.panels.size() < 2) return;
    const Look& look = look_.look();
    const auto onWidget = [&](const Rect& mm) {
        return QRectF(toWidget({mm.x, mm.y}), toWidget({mm.right(), mm.bottom()}));
    };
    const Point mm = toSheet(pointer_);
    if (drag_ && drag_->carried && drag_->moved) {
        QColor shade = look.accent();
        shade.setAlpha(50);
        painter.setPen(Qt::NoPen);
        painter.setBrush(shade);
        painter.drawRect(onWidget(dropRect(mm)));
    }
    const auto room = drag_ && drag_->carried ? drag_->carried : underMouse() ? panelRoomAt(mm) : std::nullopt;
    if (!room || *room >= figure_->figure.panels.size()) return;
    const QRectF grip = onWidget(gripOf(*room));
    painter.setPen(Qt::NoPen);
    painter.setBrush(look.muted());
    for (int k = 0; k < 6; ++k) {
        const QPointF at(grip.left() + grip.width() * (k % 2 == 0 ? 0.35 : 0.65),
                         grip.top() + grip.height() * (0.2 + 0.3 * (k / 2)));
        painter.drawEllipse(at, 1.3, 1.3);
    }
}

void SheetView::paintRulers(QPainter& painter) const {
    const Look& look = look_.look();
    const int room = look.px(rulerWidth);
    const QRectF paper = paperRect();
    const Sheet& sheet = figure_ ? figure_->figure.document.sheet : session_.shown().sheet;
    QFont small = font();
    small.setPointSizeF(font().pointSizeF() * 0.75);
    painter.setFont(small);
    // As coarse as the scale needs: numbers at least 36 pixels apart.
    double step = 10;
    while (step * fit() < look.px(36)) step *= step == 20 ? 2.5 : 2;
    for (double mm = 0; mm <= sheet.width + 1e-9; mm += step / 10) {
        const double x = paper.left() + mm * fit();
        const int tenth = static_cast<int>(std::lround(mm / step * 10)) % 10;
        painter.setPen(look.muted());
        painter.drawLine(QPointF(x, room), QPointF(x, room - look.px(tenth == 0 ? 6 : tenth == 5 ? 4 : 2)));
        if (tenth == 0)
            painter.drawText(QRectF(x - 30, 0, 60, room - look.px(6)), Qt::AlignCenter, QString::number(mm));
    }
    for (double mm = 0; mm <= sheet.height + 1e-9; mm += step / 10) {
        const double y = paper.top() + mm * fit();
        const int tenth = static_cast<int>(std::lround(mm / step * 10)) % 10;
        painter.setPen(look.muted());
        painter.drawLine(QPointF(room, y), QPointF(room - look.px(tenth == 0 ? 6 : tenth == 5 ? 4 : 2), y));
        if (tenth == 0) {
            painter.save();
            painter.translate((room - look.px(6)) / 2.0, y);
            painter.rotate(-90);
            painter.drawText(QRectF(-30, -10, 60, 20), Qt::AlignCenter, QString::number(mm));
            painter.restore();
        }
    }
    painter.drawText(QRectF(0, 0, room, room - look.px(2)), Qt::AlignCenter, "mm");
    painter.setFont(font());
}

} // namespace coulter
