#include "desktop/sampling_ribbon.h"

#include "figure/edits.h"
#include "files/sample_table.h"
#include "formula/text.h"
#include "sampling/grid.h"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QToolButton>
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

/// With as many digits as a person would write for a place on the sheet.
double rounded(double value) { return QString::number(value, 'g', 4).toDouble(); }

/// Coordinates of a field's samples in one direction: of all points of a mesh, or of the columns or rows of a grid.
const std::vector<double>& placesOf(const FieldSamples& samples, std::size_t k) {
    if (samples.isMesh()) return k == 0 ? samples.x : samples.y;
    return k == 0 ? samples.columns : samples.rows;
}

/// Rounded downwards, so that 100 means all of it.
double percent(double share) { return std::floor(1000 * share + 1e-9) / 10; }

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
    const auto changed = [this] {
        setAccessibleDescription(summary());
        placeFields();
        update();
    };
    connect(&sheet_, &SheetView::figureChanged, this, changed);
    connect(&sheet_, &SheetView::selectionChanged, this, changed);
    connect(&look_, &LookSettings::changed, this, [this] { updateGeometry(); });
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

QSize SamplingRibbon::sizeHint() const { return {300, look_.look().px(100)}; }

std::size_t SamplingRibbon::curveIndex() const {
    return sheet_.selection().part == Part::Curve ? sheet_.selection().index : 0;
}

const Curve* SamplingRibbon::curve() const {
    const ShownFigure* shown = sheet_.figure();
    if (!shown || shown->figure.samples.empty() || curveIndex() >= shown->figure.samples[0].size()) return nullptr;
    if (field() && sheet_.selection().part != Part::Curve) return nullptr;
    return &shown->figure.curves[0].curves[curveIndex()];
}

const CurveSamples* SamplingRibbon::samples() const {
    return curve() ? &sheet_.figure()->figure.samples[0][curveIndex()] : nullptr;
}

const Field* SamplingRibbon::field() const {
    const ShownFigure* shown = sheet_.figure();
    return shown && !shown->figure.fields.empty() && !shown->figure.fields[0].empty()
               ? &shown->figure.curves[0].fields[0]
               : nullptr;
}

const FieldSamples* SamplingRibbon::fieldSamples() const {
    return field() && !curve() ? &sheet_.figure()->figure.fields[0][0] : nullptr;
}

AxisMap SamplingRibbon::along() const {
    const PanelLayout& layout = sheet_.figure()->figure.layouts[0];
    const Curve* drawn = curve();
    if (!drawn || drawn->isFunction()) return layout.map.x;
    return {ScaleKind::Linear, drawn->interval.low, drawn->interval.high, layout.map.x.length};
}

double SamplingRibbon::placeOf(double t) const {
    const QRectF panel = sheet_.panelRect();
    const AxisMap map = along();
    return panel.left() + map.toSheet(t) / map.length * panel.width();
}

double SamplingRibbon::parameterAt(double x) const {
    const QRectF panel = sheet_.panelRect();
    const AxisMap map = along();
    return map.fromSheet((x - panel.left()) / panel.width() * map.length);
}

SamplingRibbon::Lanes SamplingRibbon::lanes() const {
    const Look& look = look_.look();
    const double textHeight = std::max(QFontMetrics(font()).height(), fields_->sizeHint().height());
    const double end = height();
    return {look.px(8) + textHeight, end - look.px(26), end - look.px(20), static_cast<double>(look.px(7))};
}

void SamplingRibbon::placeFields() {
    if (const Curve* drawn = curve())
        fields_->show({drawn->variable}, {drawn->grid}, {drawn->interval});
    else if (const Field* drawnField = fieldSamples() ? field() : nullptr)
        fields_->show({drawnField->variables.begin(), drawnField->variables.end()},
                      {drawnField->grids.begin(), drawnField->grids.end()},
                      {drawnField->intervals.begin(), drawnField->intervals.end()});
    else
        fields_->show({}, {}, {});
    table_->setVisible(samples() || fieldSamples());
    fields_->adjustSize();
    table_->adjustSize();
    const int right = width() - look_.look().px(8) - table_->width();
    table_->move(right, look_.look().px(3));
    fields_->move(right - look_.look().px(8) - fields_->width(), look_.look().px(3));
}

void SamplingRibbon::resizeEvent(QResizeEvent*) { placeFields(); }

QString SamplingRibbon::summary() const {
    if (const CurveSamples* curve = samples()) return curveSummary(*curve);
    if (const FieldSamples* field = fieldSamples()) return fieldSummary(*field);
    return tr("Nothing is sampled.");
}

QString SamplingRibbon::fieldSummary(const FieldSamples& field) const {
    QString text = field.isMesh() ? tr("%1 points, %2 triangles to %3 mm, %4 evaluations")
                                        .arg(field.pointCount())
                                        .arg(field.triangles.size())
                                        .arg(sheet_.figure()->document.sheet.tolerance)
                                        .arg(field.evaluations)
                                  : tr("%1 × %2 points of the grid").arg(field.columns.size()).arg(field.rows.size());
    if (!field.finished) text += tr(" · not finished");
    return text;
}

QString SamplingRibbon::curveSummary(const CurveSamples& samples) const {
    const CurveSamples* curve = &samples;
    const Sheet& sheet = sheet_.figure()->document.sheet;
    const bool grid = !curve->stretches.empty() && curve->stretches[0].state[0] == PointState::Grid;
    QString text = grid ? tr("%1 points of the grid").arg(curve->pointCount())
                        : tr("%1 points to %2 mm, %3 % proven, %4 evaluations")
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
    if (!curve->bands.empty()) text += tr(" · oscillates without end");
    if (!curve->finished) text += tr(" · not finished");
    return text;
}

void SamplingRibbon::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Look& look = look_.look();
    painter.fillRect(rect(), look.page());
    painter.setPen(look.hairline());
    painter.drawLine(0, 0, width(), 0);
    painter.setPen(look.muted());
    QString head = summary();
    if (samples() && sheet_.figure()->figure.curves[0].curves.size() > 1)
        head = tr("curve %1: ").arg(curveIndex() + 1) + head;
    const int room = (fields_->isVisible() ? fields_->x() : width()) - look.px(20);
    painter.drawText(QRectF(look.px(10), look.px(4), room, fields_->sizeHint().height()),
                     Qt::AlignVCenter | Qt::AlignLeft, painter.fontMetrics().elidedText(head, Qt::ElideRight, room));
    const QRectF panel = sheet_.panelRect();
    if (panel.isEmpty()) return;
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setClipRect(QRectF(panel.left() - 4, 0, panel.width() + 8, height()));
    if (const CurveSamples* curve = samples()) paintCurve(painter, *curve);
    if (const FieldSamples* field = fieldSamples()) paintField(painter, *field);
    if (dragged_) {
        QColor band = look.accent();
        band.setAlphaF(0.18F);
        painter.setClipping(false);
        painter.fillRect(QRectF(QPointF(dragged_->first, lanes().top), QPointF(dragged_->second, height())), band);
    }
}

namespace {

/// How densely places (0 to 1 along a lane of so many mm) lie: around each millimetre, nearer ones counting more.
std::vector<double> densityOf(const std::vector<double>& places, double length) {
    const int count = std::max(8, static_cast<int>(length));
    constexpr double reach = 4; // mm
    std::vector<double> density(static_cast<std::size_t>(count) + 1, 0);
    for (const double place : places) {
        const double at = place * count;
        if (!(at >= -reach && at <= count + reach)) continue;
        for (int i = std::max(0, static_cast<int>(at - reach)); i <= std::min<double>(count, at + reach); ++i)
            density[static_cast<std::size_t>(i)] += 1 - std::min(1.0, std::abs(i - at) / reach);
    }
    return density;
}

void paintSilhouette(QPainter& painter, const QRectF& area, const std::vector<double>& density, const QColor& colour) {
    const double most = std::max(1.0, *std::ranges::max_element(density));
    QPainterPath silhouette(area.bottomLeft());
    for (std::size_t i = 0; i < density.size(); ++i) {
        silhouette.lineTo(area.left() + area.width() * static_cast<double>(i) / static_cast<double>(density.size() - 1),
                          area.bottom() - area.height() * 0.95 * density[i] / most);
    }
    silhouette.lineTo(area.bottomRight());
    silhouette.closeSubpath();
    painter.setPen(Qt::NoPen);
    painter.setBrush(colour);
    painter.drawPath(silhouette);
}

} // namespace

void SamplingRibbon::paintCurve(QPainter& painter, const CurveSamples& samples) const {
    const Look& look = look_.look();
    const QRectF panel = sheet_.panelRect();
    const PanelMap& map = sheet_.figure()->figure.layouts[0].map;
    const auto [top, bottom, lane, laneHeight] = lanes();
    const AxisMap axis = along();
    std::vector<double> places;
    for (const Stretch& stretch : samples.stretches) {
        for (const double t : stretch.t) places.push_back(axis.toSheet(t) / axis.length);
    }
    paintSilhouette(painter, {QPointF(panel.left(), top), QPointF(panel.right(), bottom)},
                    densityOf(places, axis.length), look.faintAccent());

    // Where more points were asked for.
    const std::size_t plot = curve()->plot;
    for (const FinerStretch& finer : sheet_.figure()->document.panels[0].plots[plot].finer) {
        painter.setPen(QPen(look.accent(), 1));
        painter.drawLine(QPointF(placeOf(finer.low), top), QPointF(placeOf(finer.high), top));
        painter.drawText(QPointF(placeOf(finer.low) + look.px(3), top + QFontMetrics(font()).ascent()),
                         tr("× %1").arg(finer.times));
    }

    // Each sample a short line; each stretch a bar; each special place its sign.
    QColor bar = look.accent();
    bar.setAlphaF(0.3F);
    const bool function = curve()->isFunction();
    for (const Stretch& stretch : samples.stretches) {
        painter.setPen(QPen(look.accent(), 1));
        for (const double t : stretch.t)
            painter.drawLine(QPointF(placeOf(t), bottom - look.px(7)), QPointF(placeOf(t), bottom));
        painter.setRenderHint(QPainter::Antialiasing, false); // no seams between the chords
        for (std::size_t i = 0; i + 1 < stretch.x.size(); ++i) {
            // Above or below the panel nothing can be seen, and nothing is said.
            const double a = map.y.toSheet(stretch.y[i]), b = map.y.toSheet(stretch.y[i + 1]);
            if (function && ((a < 0 && b < 0) || (a > map.y.length && b > map.y.length))) continue;
            const double from = std::max(panel.left(), placeOf(stretch.t[i])),
                         to = std::min(panel.right(), placeOf(stretch.t[i + 1]));
            // What is proven is full; what is only estimated stays pale.
            const QColor colour = stretch.provenAlong(i) ? look.accent() : bar;
            if (to > from) painter.fillRect(QRectF(from, lane, to - from, laneHeight), colour);
        }
        painter.setRenderHint(QPainter::Antialiasing);
        for (std::size_t i = 0; i < stretch.x.size(); ++i) {
            const QPointF at(placeOf(stretch.t[i]), lane + laneHeight / 2);
            if (stretch.state[i] == PointState::Filled) {
                painter.setBrush(look.page());
                painter.setPen(QPen(look.accent(), 1));
                painter.drawEllipse(at, look.px(4), look.px(4));
            } else if (stretch.state[i] == PointState::Corner) {
                painter.setBrush(look.ink());
                painter.setPen(Qt::NoPen);
                const double r = look.px(4);
                painter.drawPolygon(QPolygonF{at + QPointF(0, -r), at + QPointF(r, r), at + QPointF(-r, r)});
            }
        }
    }
    for (const Band& band : samples.bands) {
        painter.setPen(Qt::NoPen);
        painter.setBrush(QBrush(look.ink(), Qt::Dense6Pattern));
        painter.drawRect(QRectF(placeOf(band.low), lane - look.px(3),
                                std::max(2.0, placeOf(band.high) - placeOf(band.low)), laneHeight + look.px(6)));
    }
    painter.setPen(QPen(look.hairline(), 1));
    painter.drawLine(QPointF(panel.left(), bottom), QPointF(panel.right(), bottom));
    for (const Gap& gap : samples.gaps) {
        const double from = placeOf(gap.low), to = placeOf(gap.high);
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

QRectF SamplingRibbon::fieldLane(std::size_t k) const {
    // Along the horizontal variable, aligned with it; and along the vertical one, from left to right.
    const QRectF panel = sheet_.panelRect();
    const Lanes l = lanes();
    const double gap = look_.look().px(4), height = (l.lane + l.laneHeight - l.top - gap) / 2;
    return {panel.left(), l.top + static_cast<double>(k) * (height + gap), panel.width(), height};
}

void SamplingRibbon::paintField(QPainter& painter, const FieldSamples& samples) const {
    const Look& look = look_.look();
    const QRectF panel = sheet_.panelRect();
    const PanelMap& map = sheet_.figure()->figure.layouts[0].map;
    for (std::size_t k = 0; k < 2; ++k) {
        const AxisMap& axis = k == 0 ? map.x : map.y;
        std::vector<double> places;
        for (const double place : placesOf(samples, k)) places.push_back(axis.toSheet(place) / axis.length);
        const QRectF area = fieldLane(k);
        paintSilhouette(painter, area, densityOf(places, axis.length), look.faintAccent());
        if (!samples.isMesh() && static_cast<double>(places.size()) < panel.width() / 2) {
            painter.setPen(QPen(look.accent(), 1));
            for (const double place : places) {
                const double x = area.left() + place * area.width();
                painter.drawLine(QPointF(x, area.bottom() - look.px(6)), QPointF(x, area.bottom()));
            }
        }
        painter.setPen(QPen(look.hairline(), 1));
        painter.drawLine(area.bottomLeft(), area.bottomRight());
        painter.setPen(look.muted());
        painter.drawText(area.adjusted(look.px(3), 0, 0, 0), Qt::AlignTop | Qt::AlignLeft,
                         QString::fromStdString(field()->variables[k]));
    }
}

QString SamplingRibbon::wordsAt(QPointF place) const {
    return fieldSamples() ? fieldWordsAt(place) : curveWordsAt(place.x());
}

QString SamplingRibbon::fieldWordsAt(QPointF place) const {
    const FieldSamples& samples = *fieldSamples();
    const PanelMap& map = sheet_.figure()->figure.layouts[0].map;
    for (std::size_t k = 0; k < 2; ++k) {
        const QRectF lane = fieldLane(k);
        if (!lane.contains(place)) continue;
        const AxisMap& axis = k == 0 ? map.x : map.y;
        const double mm = (place.x() - lane.left()) / lane.width() * axis.length, at = axis.fromSheet(mm),
                     low = axis.fromSheet(mm - 0.5), high = axis.fromSheet(mm + 0.5);
        const std::vector<double>& places = placesOf(samples, k);
        const auto near = std::ranges::count_if(places, [&](double each) { return each >= low && each <= high; });
        const QString name = QString::fromStdString(field()->variables[k]);
        return samples.isMesh() ? tr("%1 points within half a millimetre of %2 = %3").arg(near).arg(name, number(at))
               : k == 0         ? tr("%1 columns within half a millimetre of %2 = %3").arg(near).arg(name, number(at))
                                : tr("%1 rows within half a millimetre of %2 = %3").arg(near).arg(name, number(at));
    }
    return {};
}

QString SamplingRibbon::curveWordsAt(double x) const {
    const CurveSamples* curve = samples();
    const QRectF panel = sheet_.panelRect();
    if (!curve || panel.isEmpty() || x < panel.left() - 4 || x > panel.right() + 4) return {};
    const double at = parameterAt(x), low = parameterAt(x - 5), high = parameterAt(x + 5), pixel = (high - low) / 10;
    const QString variable = QString::fromStdString(this->curve()->variable);
    for (const Gap& gap : curve->gaps) {
        if (high < gap.low || low > gap.high) continue;
        if (gap.high - gap.low < pixel)
            return tr("%1 at %2 = %3").arg(gapWord(gap.kind), variable, number((gap.low + gap.high) / 2));
        return tr("undefined from %1 = %2 to %3").arg(variable, number(gap.low), number(gap.high));
    }
    for (const Band& band : curve->bands) {
        if (high < band.low || low > band.high) continue;
        return tr("oscillates without end from %1 = %2 to %3: drawn as the band it fills")
            .arg(variable, number(band.low), number(band.high));
    }
    for (const Stretch& stretch : curve->stretches) {
        const auto next = std::ranges::lower_bound(stretch.t, at);
        if (next == stretch.t.begin() || next == stretch.t.end()) continue;
        const auto i = static_cast<std::size_t>(next - stretch.t.begin());
        const std::size_t near = at - stretch.t[i - 1] < stretch.t[i] - at ? i - 1 : i;
        return tr("%1 point at %2 = %3; the next ones %4 apart")
            .arg(stateName(stretch, near), variable, number(stretch.t[near]), number(stretch.t[i] - stretch.t[i - 1]));
    }
    return {};
}

void SamplingRibbon::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton || !samples() || !isAdaptive(curve()->grid)) return;
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
    if (!samples() || std::abs(to - from) < 5) return;
    const Interval& interval = curve()->interval;
    const double low = std::max(interval.low, parameterAt(std::min(from, to))),
                 high = std::min(interval.high, parameterAt(std::max(from, to)));
    const auto& plots = session_.document().panels[0].plots;
    if (!(low < high) || curve()->plot >= plots.size()) return;
    setFiner(withFiner(plots[curve()->plot].finer, rounded(low), rounded(high)), tr("more points"));
}

void SamplingRibbon::mouseDoubleClickEvent(QMouseEvent* event) {
    dragged_.reset();
    const auto& plots = session_.document().panels[0].plots;
    if (!samples() || curve()->plot >= plots.size()) return;
    std::vector<FinerStretch> finer = plots[curve()->plot].finer;
    const double at = parameterAt(event->position().x());
    if (std::erase_if(finer, [&](const FinerStretch& each) { return at >= each.low && at <= each.high; }) > 0)
        setFiner(finer, tr("usual number of points"));
}

void SamplingRibbon::setFiner(const std::vector<FinerStretch>& finer, const QString& what) {
    Document document = session_.document();
    document.panels[0].plots[curve()->plot].finer = finer;
    session_.edit(std::move(document), what);
}

} // namespace coulter
