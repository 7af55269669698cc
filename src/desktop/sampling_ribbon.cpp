#include "desktop/sampling_ribbon.h"

#include "files/samples_csv.h"
#include "formula/text.h"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QToolTip>
#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

QString gapWord(GapKind kind) {
    switch (kind) {
    case GapKind::Pole: return SamplingRibbon::tr("pole");
    case GapKind::Jump: return SamplingRibbon::tr("jump");
    case GapKind::Undefined: break;
    }
    return SamplingRibbon::tr("undefined");
}

QString number(double value) { return QString::fromStdString(roundedNumber(value, 6)).replace('-', QChar(0x2212)); }

/// Rounded downwards, so that 100 means all of it.
double percent(double share) { return std::floor(1000 * share + 1e-9) / 10; }

} // namespace

SamplingRibbon::SamplingRibbon(SheetView& sheet, const LookSettings& look, QWidget* parent)
    : QWidget(parent), sheet_(sheet), look_(look) {
    setMouseTracking(true);
    setAccessibleName(tr("Sampling"));
    setObjectName("ribbon");
    connect(&sheet_, &SheetView::figureChanged, this, [this] {
        setAccessibleDescription(summary());
        update();
    });
    connect(&sheet_, &SheetView::selectionChanged, this, [this] { update(); });
    connect(&look_, &LookSettings::changed, this, [this] { updateGeometry(); });
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

QSize SamplingRibbon::sizeHint() const { return {300, look_.look().px(92)}; }

std::size_t SamplingRibbon::curveIndex() const {
    return sheet_.selection().part == Part::Curve ? sheet_.selection().index : 0;
}

const CurveSamples* SamplingRibbon::samples() const {
    const ShownFigure* shown = sheet_.figure();
    if (!shown || shown->figure.samples.empty() || curveIndex() >= shown->figure.samples[0].size()) return nullptr;
    return &shown->figure.samples[0][curveIndex()];
}

QString SamplingRibbon::summary() const {
    const CurveSamples* curve = samples();
    if (!curve) return tr("Nothing is sampled.");
    const Sheet& sheet = sheet_.figure()->document.sheet;
    const bool grid = !curve->stretches.empty() && curve->stretches[0].state[0] == PointState::Grid;
    QString text = grid ? tr("%1 points of the grid").arg(curve->pointCount())
                        : tr("%1 points within %2 mm, %3 % of the length proven, %4 evaluations")
                              .arg(curve->pointCount())
                              .arg(sheet.tolerance)
                              .arg(percent(curve->certificate.share()))
                              .arg(curve->evaluations);
    int poles = 0, jumps = 0, undefined = 0;
    for (const Gap& gap : curve->gaps)
        ++(gap.kind == GapKind::Pole ? poles : gap.kind == GapKind::Jump ? jumps : undefined);
    if (poles > 0) text += tr(" · %n pole(s)", "", poles).replace("(s)", poles == 1 ? "" : "s");
    if (jumps > 0) text += tr(" · %n jump(s)", "", jumps).replace("(s)", jumps == 1 ? "" : "s");
    if (undefined > 0) text += tr(" · %n gap(s)", "", undefined).replace("(s)", undefined == 1 ? "" : "s");
    if (!curve->finished) text += tr(" · not finished");
    return text;
}

void SamplingRibbon::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Look& look = look_.look();
    painter.fillRect(rect(), look.page());
    painter.setPen(look.hairline());
    painter.drawLine(0, 0, width(), 0);
    const CurveSamples* curve = samples();
    const QRectF panel = sheet_.panelRect();
    painter.setPen(look.muted());
    const int textHeight = QFontMetrics(font()).height();
    QString head = summary();
    if (curve && sheet_.figure()->figure.curves[0].curves.size() > 1)
        head = tr("curve %1: ").arg(curveIndex() + 1) + head;
    painter.drawText(QRectF(look.px(10), look.px(4), width() - look.px(20), textHeight),
                     Qt::AlignVCenter | Qt::AlignLeft,
                     painter.fontMetrics().elidedText(head, Qt::ElideRight, width() - look.px(20)));
    if (!curve || panel.isEmpty()) return;
    const PanelMap& map = sheet_.figure()->figure.layouts[0].map;
    const auto place = [&](double x) { return panel.left() + map.x.toSheet(x) / map.x.length * panel.width(); };
    const double top = look.px(8) + textHeight, bottom = height() - look.px(26), lane = height() - look.px(20),
                 laneHeight = look.px(7);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setClipRect(QRectF(panel.left() - 4, 0, panel.width() + 8, height()));

    // Density: samples around each millimetre of paper, nearer ones counting more.
    const int places = std::max(8, static_cast<int>(map.x.length));
    constexpr double reach = 4; // mm
    std::vector<double> count(static_cast<std::size_t>(places) + 1, 0);
    for (const Stretch& stretch : curve->stretches) {
        for (const double x : stretch.x) {
            const double at = map.x.toSheet(x) / map.x.length * places;
            for (int i = std::max(0, static_cast<int>(at - reach)); i <= std::min<double>(places, at + reach); ++i) {
                count[static_cast<std::size_t>(i)] += 1 - std::min(1.0, std::abs(i - at) / reach);
            }
        }
    }
    const double most = std::max(1.0, *std::ranges::max_element(count));
    QPainterPath silhouette(QPointF(panel.left(), bottom));
    for (int i = 0; i <= places; ++i) {
        silhouette.lineTo(panel.left() + panel.width() * i / places,
                          bottom - (bottom - top) * 0.95 * count[static_cast<std::size_t>(i)] / most);
    }
    silhouette.lineTo(panel.right(), bottom);
    silhouette.closeSubpath();
    painter.setPen(Qt::NoPen);
    painter.setBrush(look.faintAccent());
    painter.drawPath(silhouette);

    // Each sample a short line; each stretch a bar; each special place its sign.
    QColor bar = look.accent();
    bar.setAlphaF(0.3F);
    for (const Stretch& stretch : curve->stretches) {
        painter.setPen(QPen(look.accent(), 1));
        for (const double x : stretch.x)
            painter.drawLine(QPointF(place(x), bottom - look.px(7)), QPointF(place(x), bottom));
        painter.setRenderHint(QPainter::Antialiasing, false); // no seams between the chords
        for (std::size_t i = 0; i + 1 < stretch.x.size(); ++i) {
            // Above or below the panel nothing can be seen, and nothing is said.
            const double a = map.y.toSheet(stretch.y[i]), b = map.y.toSheet(stretch.y[i + 1]);
            if ((a < 0 && b < 0) || (a > map.y.length && b > map.y.length)) continue;
            const double from = std::max(panel.left(), place(stretch.x[i])),
                         to = std::min(panel.right(), place(stretch.x[i + 1]));
            // What is proven is full; what is only estimated stays pale.
            const QColor colour = stretch.provenAlong(i) ? look.accent() : bar;
            if (to > from) painter.fillRect(QRectF(from, lane, to - from, laneHeight), colour);
        }
        painter.setRenderHint(QPainter::Antialiasing);
        for (std::size_t i = 0; i < stretch.x.size(); ++i) {
            if (stretch.state[i] == PointState::Filled) {
                painter.setBrush(look.page());
                painter.drawEllipse(QPointF(place(stretch.x[i]), lane + laneHeight / 2), look.px(4), look.px(4));
            }
        }
    }
    painter.setPen(QPen(look.hairline(), 1));
    painter.drawLine(QPointF(panel.left(), bottom), QPointF(panel.right(), bottom));
    for (const Gap& gap : curve->gaps) {
        const double from = place(gap.low), to = place(gap.high);
        painter.setPen(QPen(look.ink(), 1.4));
        const double middle = (from + to) / 2;
        if (gap.kind == GapKind::Pole) {
            painter.drawLine(QPointF(middle, top), QPointF(middle, lane + laneHeight + look.px(3)));
        } else if (gap.kind == GapKind::Jump) {
            painter.drawLine(QPointF(middle, lane - look.px(3)), QPointF(middle, lane + laneHeight + look.px(3)));
        } else {
            painter.setPen(Qt::NoPen);
            painter.setBrush(QBrush(look.muted(), Qt::BDiagPattern));
            painter.drawRect(QRectF(from, lane, std::max(2.0, to - from), laneHeight));
        }
    }
}

QString SamplingRibbon::wordsAt(double x) const {
    const CurveSamples* curve = samples();
    const QRectF panel = sheet_.panelRect();
    if (!curve || panel.isEmpty() || x < panel.left() - 4 || x > panel.right() + 4) return {};
    const PanelMap& map = sheet_.figure()->figure.layouts[0].map;
    const double pixel = (map.x.high - map.x.low) / panel.width();
    const double at = map.x.low + (x - panel.left()) * pixel;
    const QString variable = QString::fromStdString(sheet_.figure()->figure.curves[0].curves[curveIndex()].variable);
    for (const Gap& gap : curve->gaps) {
        if (at < gap.low - 5 * pixel || at > gap.high + 5 * pixel) continue;
        if (gap.high - gap.low < pixel)
            return tr("%1 at %2 = %3").arg(gapWord(gap.kind), variable, number((gap.low + gap.high) / 2));
        return tr("undefined from %1 = %2 to %3").arg(variable, number(gap.low), number(gap.high));
    }
    for (const Stretch& stretch : curve->stretches) {
        const auto next = std::ranges::lower_bound(stretch.x, at);
        if (next == stretch.x.begin() || next == stretch.x.end()) continue;
        const auto i = static_cast<std::size_t>(next - stretch.x.begin());
        const std::size_t near = at - stretch.x[i - 1] < stretch.x[i] - at ? i - 1 : i;
        return tr("%1 point at %2 = %3; the next ones %4 apart")
            .arg(stateName(stretch, near), variable, number(stretch.x[near]), number(stretch.x[i] - stretch.x[i - 1]));
    }
    return {};
}

void SamplingRibbon::mouseMoveEvent(QMouseEvent* event) {
    const QString words = wordsAt(event->position().x());
    if (words.isEmpty())
        QToolTip::hideText();
    else
        QToolTip::showText(event->globalPosition().toPoint(), words, this);
}

} // namespace coulter
