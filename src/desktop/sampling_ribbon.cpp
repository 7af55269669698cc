#include "desktop/sampling_ribbon.h"
#include "desktop/translation.h"

#include "figure/edits.h"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QToolButton>
#include <QToolTip>
#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

/// With as many digits as a person would write for a place on the sheet.
double rounded(double value) { return QString::number(value, 'g', 4).toDouble(); }

} // namespace

SamplingRibbon::SamplingRibbon(DocumentSession& session, SheetView& sheet, const LookSettings& look, QWidget* parent)
    : QWidget(parent), session_(session), sheet_(sheet), look_(look), fields_(new SamplingFields(session, this)),
      table_(new QToolButton(this)) {
    setMouseTracking(true);
    setAccessibleName(tr("Sampling"));
    setObjectName("ribbon");
    table_->setText(tr("Table…"));
    table_->setToolTip(tr("The samples as a table (Ctrl+T)"));
    table_->setAccessibleName(tr("Table of samples"));
    table_->setObjectName("tableButton");
    connect(table_, &QToolButton::clicked, this, &SamplingRibbon::tableWanted);
    connect(&sheet_, &SheetView::figureChanged, this, &SamplingRibbon::refresh);
    connect(&sheet_, &SheetView::selectionChanged, this, &SamplingRibbon::refresh);
    connect(&look_, &LookSettings::changed, this, [this] { updateGeometry(); });
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

QSize SamplingRibbon::sizeHint() const { return {300, look_.look().px(100)}; }

void SamplingRibbon::refresh() {
    const double width = sheet_.panelRect().width();
    lanes_.clear();
    if (drawn() && width > 0) lanes_ = lanesOf(*drawn(), frame(), frame().rect.width / width);
    setAccessibleDescription(summary());
    fields_->show(drawn() ? samplingOf(*drawn()) : std::vector<VariableSampling>());
    table_->setVisible(drawn() != nullptr);
    fields_->adjustSize();
    table_->adjustSize();
    const int right = this->width() - look_.look().px(8) - table_->width();
    table_->move(right, look_.look().px(3));
    fields_->move(right - look_.look().px(8) - fields_->width(), look_.look().px(3));
    update();
}

void SamplingRibbon::resizeEvent(QResizeEvent*) { refresh(); }

double SamplingRibbon::pixelsOf(double mm) const {
    const QRectF panel = sheet_.panelRect();
    return panel.left() + mm / frame().rect.width * panel.width();
}

double SamplingRibbon::placeOf(double t) const { return pixelsOf(lanes_.empty() ? 0 : lanes_[0].along.toSheet(t)); }

double SamplingRibbon::parameterAt(double x) const {
    const QRectF panel = sheet_.panelRect();
    return lanes_.empty() ? 0 : lanes_[0].along.fromSheet((x - panel.left()) / panel.width() * frame().rect.width);
}

SamplingRibbon::Heights SamplingRibbon::heights() const {
    const Look& look = look_.look();
    const double textHeight = std::max(QFontMetrics(font()).height(), fields_->sizeHint().height());
    const double end = height();
    return {look.px(8) + textHeight, end - look.px(26), end - look.px(20), static_cast<double>(look.px(7))};
}

QRectF SamplingRibbon::laneRect(std::size_t index) const {
    const QRectF panel = sheet_.panelRect();
    const Heights h = heights();
    if (lanes_.size() < 2) return {panel.left(), h.top, panel.width(), h.bottom - h.top};
    // Along the horizontal variable, aligned with it; and along the vertical one, from left to right.
    const double gap = look_.look().px(4), height = (h.lane + h.laneHeight - h.top - gap) / 2;
    return {panel.left(), h.top + static_cast<double>(index) * (height + gap), panel.width(), height};
}

QString SamplingRibbon::summary() const {
    return drawn() ? spoken(summaryOf(*drawn(), sheet_.figure()->figure.effort)) : tr("Nothing is sampled.");
}

void SamplingRibbon::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Look& look = look_.look();
    painter.fillRect(rect(), look.page());
    painter.setPen(look.hairline());
    painter.drawLine(0, 0, width(), 0);
    painter.setPen(look.muted());
    QString head = summary();
    if (drawn() && sheet_.shownPanel()->drawn.size() > 1)
        head = QString::fromStdString(drawn()->of).section(" for ", 0, 0) +
               (drawn()->caseCount > 1 ? tr(", case %1").arg(drawn()->path.part + 1) : QString()) + ": " + head;
    const int room = (fields_->isVisible() ? fields_->x() : table_->isVisible() ? table_->x() : width()) - look.px(20);
    painter.drawText(QRectF(look.px(10), look.px(4), room, fields_->sizeHint().height()),
                     Qt::AlignVCenter | Qt::AlignLeft, painter.fontMetrics().elidedText(head, Qt::ElideRight, room));
    const QRectF panel = sheet_.panelRect();
    if (panel.isEmpty()) return;
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setClipRect(QRectF(panel.left() - 4, 0, panel.width() + 8, height()));
    for (std::size_t i = 0; i < lanes_.size(); ++i) paintLane(painter, i);
    if (!dragged_) return;
    QColor band = look.accent();
    band.setAlphaF(0.18F);
    painter.setClipping(false);
    painter.fillRect(QRectF(QPointF(dragged_->first, heights().top), QPointF(dragged_->second, height())), band);
}

void SamplingRibbon::paintLane(QPainter& painter, std::size_t index) const {
    const Look& look = look_.look();
    const Lane& lane = lanes_[index];
    const QRectF area = laneRect(index);
    const double most = std::max(1.0, *std::ranges::max_element(lane.density));
    QPainterPath silhouette(area.bottomLeft());
    for (std::size_t i = 0; i < lane.density.size(); ++i) {
        silhouette.lineTo(area.left() +
                              area.width() * static_cast<double>(i) / static_cast<double>(lane.density.size() - 1),
                          area.bottom() - area.height() * 0.95 * lane.density[i] / most);
    }
    silhouette.lineTo(area.bottomRight());
    silhouette.closeSubpath();
    painter.setPen(Qt::NoPen);
    painter.setBrush(look.faintAccent());
    painter.drawPath(silhouette);

    painter.setPen(QPen(look.accent(), 1));
    for (const FinerStretch& finer : lane.finer) { // where more points were asked for
        const double from = pixelsOf(lane.along.toSheet(finer.low)), to = pixelsOf(lane.along.toSheet(finer.high));
        painter.drawLine(QPointF(from, area.top()), QPointF(to, area.top()));
        painter.drawText(QPointF(from + look.px(3), area.top() + QFontMetrics(font()).ascent()),
                         tr("× %1").arg(finer.times));
    }
    for (const double place : lane.samples)
        painter.drawLine(QPointF(pixelsOf(place), area.bottom() - look.px(7)), QPointF(pixelsOf(place), area.bottom()));
    paintBars(painter, lane);
    painter.setPen(QPen(look.hairline(), 1));
    painter.drawLine(area.bottomLeft(), area.bottomRight());
    paintSigns(painter, lane);
    if (lanes_.size() < 2) return;
    painter.setPen(look.muted());
    painter.drawText(area.adjusted(look.px(3), 0, 0, 0), Qt::AlignTop | Qt::AlignLeft,
                     QString::fromStdString(lane.variable));
}

void SamplingRibbon::paintBars(QPainter& painter, const Lane& lane) const {
    // What is proven is full; what is only estimated stays pale.
    const Heights h = heights();
    QColor pale = look_.look().accent();
    pale.setAlphaF(0.3F);
    painter.setRenderHint(QPainter::Antialiasing, false); // no seams between the chords
    for (const Lane::Bar& bar : lane.bars)
        painter.fillRect(QRectF(QPointF(pixelsOf(bar.from), h.lane), QPointF(pixelsOf(bar.to), h.lane + h.laneHeight)),
                         bar.proven ? look_.look().accent() : pale);
    painter.setRenderHint(QPainter::Antialiasing);
}

void SamplingRibbon::paintSigns(QPainter& painter, const Lane& lane) const {
    const Look& look = look_.look();
    const Heights h = heights();
    for (const Lane::Sign& sign : lane.signs) {
        const double from = pixelsOf(sign.from), to = pixelsOf(sign.to), middle = (from + to) / 2, r = look.px(4);
        const QPointF at(middle, h.lane + h.laneHeight / 2);
        painter.setPen(QPen(look.ink(), 1.4));
        switch (sign.kind) {
        case Lane::SignKind::Pole:
            painter.drawLine(QPointF(middle, h.top), QPointF(middle, h.lane + h.laneHeight + look.px(3)));
            break;
        case Lane::SignKind::Jump:
            painter.drawLine(QPointF(middle, h.lane - look.px(3)), QPointF(middle, h.lane + h.laneHeight + look.px(3)));
            break;
        case Lane::SignKind::Undefined:
            painter.setPen(Qt::NoPen);
            painter.setBrush(QBrush(look.muted(), Qt::BDiagPattern));
            painter.drawRect(QRectF(from, h.lane, std::max(2.0, to - from), h.laneHeight));
            break;
        case Lane::SignKind::Band:
            painter.setPen(Qt::NoPen);
            painter.setBrush(QBrush(look.ink(), Qt::Dense6Pattern));
            painter.drawRect(QRectF(from, h.lane - look.px(3), std::max(2.0, to - from), h.laneHeight + look.px(6)));
            break;
        case Lane::SignKind::Filled:
            painter.setBrush(look.page());
            painter.setPen(QPen(look.accent(), 1));
            painter.drawEllipse(at, r, r);
            break;
        case Lane::SignKind::Corner:
            painter.setBrush(look.ink());
            painter.setPen(Qt::NoPen);
            painter.drawPolygon(QPolygonF{at + QPointF(0, -r), at + QPointF(r, r), at + QPointF(-r, r)});
            break;
        }
    }
}

QString SamplingRibbon::wordsAt(QPointF place) const {
    const QRectF panel = sheet_.panelRect();
    if (!drawn() || panel.isEmpty()) return {};
    const double perPixel = frame().rect.width / panel.width(), mm = (place.x() - panel.left()) * perPixel;
    for (std::size_t i = 0; i < lanes_.size(); ++i) {
        if (lanes_.size() < 2 || laneRect(i).contains(place))
            return spoken(coulter::wordsAt(*drawn(), frame(), i, mm, 5 * perPixel));
    }
    return {};
}

void SamplingRibbon::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton || !drawn() || !refinable(*drawn(), frame())) return;
    dragged_ = {event->position().x(), event->position().x()};
}

void SamplingRibbon::mouseMoveEvent(QMouseEvent* event) {
    if (dragged_ && (event->buttons() & Qt::LeftButton)) {
        dragged_->second = event->position().x();
        update();
        return;
    }
    const QString words = wordsAt(event->position());
    if (words.isEmpty())
        QToolTip::hideText();
    else
        QToolTip::showText(event->globalPosition().toPoint(), words, this);
}

void SamplingRibbon::mouseReleaseEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton || !dragged_) return;
    const auto [from, to] = *std::exchange(dragged_, std::nullopt);
    update();
    if (!drawn() || std::abs(to - from) < 5) return;
    const Interval interval = samplingOf(*drawn())[0].interval;
    const double low = std::max(interval.low, parameterAt(std::min(from, to))),
                 high = std::min(interval.high, parameterAt(std::max(from, to)));
    const Plot* plot = plotAt(session_.document(), drawn()->path);
    if (plot && low < high) setFiner(withFiner(plot->finer, rounded(low), rounded(high)), tr("more points"));
}

void SamplingRibbon::mouseDoubleClickEvent(QMouseEvent* event) {
    dragged_.reset();
    const Plot* plot = drawn() ? plotAt(session_.document(), drawn()->path) : nullptr;
    if (!plot) return;
    std::vector<FinerStretch> finer = plot->finer;
    const double at = parameterAt(event->position().x());
    if (std::erase_if(finer, [&](const FinerStretch& each) { return at >= each.low && at <= each.high; }) > 0)
        setFiner(finer, tr("usual number of points"));
}

void SamplingRibbon::setFiner(const std::vector<FinerStretch>& finer, const QString& what) {
    auto document = sheet_.editable(drawn()->path);
    if (!document) return;
    plotAt(*document, drawn()->path)->finer = finer;
    session_.edit(std::move(*document), what);
}

} // namespace coulter
