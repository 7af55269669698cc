#include "desktop/sheet_view.h"

#include "figure/labels.h"
#include "formula/text.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

/// Limits moved or stretched never become a place where doubles cannot tell neighbours apart.
bool usable(const Limits& limits) {
    const double size = std::max(std::abs(limits.low), std::abs(limits.high));
    return limits.high - limits.low > 1e-11 * size && size < 1e300 && limits.high - limits.low > 1e-300;
}

} // namespace

SheetView::SheetView(DocumentSession& session, FigureWorker& worker, const LookSettings& look, QWidget* parent)
    : QWidget(parent), session_(session), worker_(worker), look_(look), textField_(new QLineEdit(this)) {
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Sheet"));
    setObjectName("sheet");
    setMinimumSize(260, 200);
    textField_->hide();
    textField_->setObjectName("sheetText");
    textField_->setAccessibleName(tr("Text on the sheet"));
    textField_->installEventFilter(this);
    connect(textField_, &QLineEdit::returnPressed, this, [this] { finishText(true); });
    connect(&session_, &DocumentSession::shownChanged, this, &SheetView::request);
    connect(&worker_, &FigureWorker::ready, this, &SheetView::take);
    connect(&look_, &LookSettings::changed, this, [this] {
        request();
        update();
    });
}

double SheetView::fit() const {
    const Sheet& sheet = figure_ ? figure_->document.sheet : session_.shown().sheet;
    const double room = look_.look().px(rulerWidth), desk = 2.0 * look_.look().px(deskMargin);
    return std::max(0.2, std::min((width() - room - desk) / sheet.width, (height() - room - desk) / sheet.height));
}

QRectF SheetView::paperRect() const {
    const Sheet& sheet = figure_ ? figure_->document.sheet : session_.shown().sheet;
    const double room = look_.look().px(rulerWidth), scale = fit();
    const double w = sheet.width * scale, h = sheet.height * scale;
    return {std::round(room + (width() - room - w) / 2), std::round(room + (height() - room - h) / 2), w, h};
}

QPointF SheetView::toWidget(Point mm) const {
    const QRectF paper = paperRect();
    return {paper.left() + mm.x * fit(), paper.top() + mm.y * fit()};
}

Point SheetView::toSheet(QPointF position) const {
    const QRectF paper = paperRect();
    return {(position.x() - paper.left()) / fit(), (position.y() - paper.top()) / fit()};
}

QRectF SheetView::panelRect() const {
    if (!figure_ || figure_->figure.layouts.empty()) return {};
    const Rect& frame = figure_->figure.layouts[0].frame;
    return {toWidget({frame.x, frame.y}), toWidget({frame.right(), frame.bottom()})};
}

void SheetView::request() {
    // The scale belongs to the sheet that is asked for, not to the one still shown.
    const Sheet& sheet = session_.shown().sheet;
    const double room = look_.look().px(rulerWidth), desk = 2.0 * look_.look().px(deskMargin);
    const double scale =
        std::max(0.2, std::min((width() - room - desk) / sheet.width, (height() - room - desk) / sheet.height));
    worker_.request(session_.shown(), scale * devicePixelRatioF());
}

void SheetView::take(std::shared_ptr<const ShownFigure> figure) {
    waitsFor_ = figure->waitsFor;
    // An unfinished formula leaves the last good picture where it is.
    if (figure->complete || !figure_) figure_ = std::move(figure);
    if (selection_.part == Part::Curve && selection_.index >= figure_->figure.curves[0].curves.size()) selection_ = {};
    update();
    emit figureChanged();
}

void SheetView::select(const Selection& selection) {
    if (selection_ == selection) return;
    selection_ = selection;
    update();
    emit selectionChanged();
}

void SheetView::resizeEvent(QResizeEvent*) { request(); }

const Target* SheetView::targetAt(Point mm) const {
    if (!figure_) return nullptr;
    for (auto target = figure_->figure.targets.rbegin(); target != figure_->figure.targets.rend(); ++target) {
        if (target->rect.grown(0.6).contains(mm)) return &*target;
    }
    return nullptr;
}

std::optional<std::size_t> SheetView::curveNear(Point mm, double reach, Point* on) const {
    if (!figure_ || figure_->figure.layouts.empty()) return std::nullopt;
    const PanelLayout& layout = figure_->figure.layouts[0];
    std::optional<std::size_t> nearest;
    for (std::size_t c = 0; c < figure_->figure.samples[0].size(); ++c) {
        for (const Stretch& stretch : figure_->figure.samples[0][c].stretches) {
            for (std::size_t i = 0; i + 1 < stretch.x.size(); ++i) {
                const Point a{layout.frame.x + layout.map.x.toSheet(stretch.x[i]),
                              layout.frame.bottom() - layout.map.y.toSheet(stretch.y[i])};
                const Point b{layout.frame.x + layout.map.x.toSheet(stretch.x[i + 1]),
                              layout.frame.bottom() - layout.map.y.toSheet(stretch.y[i + 1])};
                const double dx = b.x - a.x, dy = b.y - a.y, square = dx * dx + dy * dy;
                const double t =
                    square > 0 ? std::clamp(((mm.x - a.x) * dx + (mm.y - a.y) * dy) / square, 0.0, 1.0) : 0;
                const Point foot{a.x + t * dx, a.y + t * dy};
                const double distance = std::hypot(foot.x - mm.x, foot.y - mm.y);
                if (distance < reach) {
                    reach = distance;
                    nearest = c;
                    if (on) *on = foot;
                }
            }
        }
    }
    return nearest;
}

void SheetView::updateReadOut(Point mm) {
    readOut_.clear();
    marker_.reset();
    if (!figure_ || figure_->figure.layouts.empty() || !figure_->figure.layouts[0].frame.grown(1).contains(mm)) return;
    const PanelLayout& layout = figure_->figure.layouts[0];
    const auto& curves = figure_->figure.curves[0].curves;
    const auto show = [](double value, double resolution) {
        const int digits = std::clamp(
            static_cast<int>(std::ceil(std::log10(std::max(std::abs(value), resolution) / resolution))) + 1, 3, 15);
        return QString::fromStdString(roundedNumber(value, digits)).replace('-', QChar(0x2212));
    };
    const double xStep = (layout.map.x.high - layout.map.x.low) / layout.map.x.length * 0.1,
                 yStep = (layout.map.y.high - layout.map.y.low) / layout.map.y.length * 0.1;
    Point on;
    const auto curve = curveNear(mm, 14 / fit(), &on);
    if (!curve) {
        const double x = layout.map.x.fromSheet(mm.x - layout.frame.x),
                     y = layout.map.y.fromSheet(layout.frame.bottom() - mm.y);
        readOut_ = QString("(%1, %2)").arg(show(x, xStep), show(y, yStep));
        return;
    }
    // The value is the formula's own, not the polyline's; the slope is a central difference.
    const double x = std::clamp(layout.map.x.fromSheet(on.x - layout.frame.x), curves[*curve].interval.low,
                                curves[*curve].interval.high);
    Evaluator f(*curves[*curve].program);
    const double y = f(x), h = std::max(std::abs(x), xStep) * 1e-5;
    const double slope = (f(x + h) - f(x - h)) / (2 * h);
    marker_ = Point{layout.frame.x + layout.map.x.toSheet(x), layout.frame.bottom() - layout.map.y.toSheet(y)};
    readOut_ = QString("%1 = %2   value %3")
                   .arg(QString::fromStdString(curves[*curve].variable), show(x, xStep), show(y, yStep));
    if (std::isfinite(slope))
        readOut_ += tr("   slope %1").arg(QString::fromStdString(roundedNumber(slope, 3)).replace('-', QChar(0x2212)));
}

void SheetView::setLimits(std::optional<Limits> x, std::optional<Limits> y, const QString& what,
                          const QString& mergeKey) {
    Document document = session_.document();
    if (x && usable(*x)) document.panels[0].x.limits = x;
    if (y && usable(*y)) document.panels[0].y.limits = y;
    session_.edit(std::move(document), what, mergeKey);
}

void SheetView::zoom(double factor, Point about, bool horizontal, bool vertical, const QString& mergeKey) {
    if (!figure_ || figure_->figure.layouts.empty()) return;
    const PanelLayout& layout = figure_->figure.layouts[0];
    const auto stretched = [&](const AxisMap& map, double mm, bool wanted) {
        if (!wanted) return Limits{map.low, map.high};
        const double centre = map.fromSheet(std::clamp(mm, 0.0, map.length));
        return Limits{centre - (centre - map.low) / factor, centre + (map.high - centre) / factor};
    };
    setLimits(stretched(layout.map.x, about.x - layout.frame.x, horizontal),
              stretched(layout.map.y, layout.frame.bottom() - about.y, vertical), tr("zoom"), mergeKey);
}

void SheetView::pan(double dx, double dy, bool horizontal, bool vertical, const QString& mergeKey) {
    if (!figure_ || figure_->figure.layouts.empty()) return;
    const PanelMap& map = figure_->figure.layouts[0].map;
    const double sx = horizontal ? (map.x.high - map.x.low) * dx : 0, sy = vertical ? (map.y.high - map.y.low) * dy : 0;
    setLimits(Limits{map.x.low + sx, map.x.high + sx}, Limits{map.y.low + sy, map.y.high + sy}, tr("move of the view"),
              mergeKey);
}

void SheetView::restoreView(bool horizontal, bool vertical) {
    Document document = session_.document();
    if (horizontal) document.panels[0].x.limits.reset();
    if (vertical) document.panels[0].y.limits.reset();
    session_.edit(std::move(document), tr("automatic view"));
}

void SheetView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    if (textPart_) finishText(true);
    if (event->button() != Qt::LeftButton || !figure_ || figure_->figure.layouts.empty()) return;
    const Point mm = toSheet(event->position());
    const Target* target = targetAt(mm);
    const auto curve = curveNear(mm, 6 / fit(), nullptr);
    if (curve && figure_->figure.layouts[0].frame.grown(1).contains(mm))
        select({Part::Curve, *curve});
    else if (target && target->part != Part::Panel)
        select({target->part, target->index});
    else
        select({});
    if (!target) return;
    const PanelLayout& layout = figure_->figure.layouts[0];
    Drag drag{target->part,
              event->position(),
              {layout.map.x.low, layout.map.x.high},
              {layout.map.y.low, layout.map.y.high},
              {},
              false};
    drag.legendAt = {layout.legendRect.x - layout.frame.x, layout.legendRect.y - layout.frame.y};
    drag_ = drag;
    session_.endMerge();
}

void SheetView::mouseMoveEvent(QMouseEvent* event) {
    pointer_ = event->position();
    const Point mm = toSheet(event->position());
    if (drag_ && (event->buttons() & Qt::LeftButton)) {
        const QPointF moved = event->position() - drag_->start;
        if (!drag_->moved && moved.manhattanLength() < 4) return;
        drag_->moved = true;
        readOut_.clear();
        marker_.reset();
        const PanelMap& map = figure_->figure.layouts[0].map;
        const bool horizontal = drag_->part == Part::Panel || drag_->part == Part::XScale,
                   vertical = drag_->part == Part::Panel || drag_->part == Part::YScale;
        if (drag_->part == Part::Legend) {
            Document document = session_.document();
            document.panels[0].legend.at = {drag_->legendAt[0] + moved.x() / fit(),
                                            drag_->legendAt[1] + moved.y() / fit()};
            session_.edit(std::move(document), tr("move of the legend"), "legend");
        } else if (horizontal || vertical) {
            const double dx = horizontal ? -moved.x() / fit() / map.x.length * (drag_->x.high - drag_->x.low) : 0;
            const double dy = vertical ? moved.y() / fit() / map.y.length * (drag_->y.high - drag_->y.low) : 0;
            setLimits(Limits{drag_->x.low + dx, drag_->x.high + dx}, Limits{drag_->y.low + dy, drag_->y.high + dy},
                      tr("move of the view"), "pan");
        }
        return;
    }
    const Target* target = targetAt(mm);
    const bool text =
        target && (target->part == Part::Title || target->part == Part::XLabel || target->part == Part::YLabel);
    setCursor(text                                     ? Qt::IBeamCursor
              : target && target->part == Part::XScale ? Qt::SizeHorCursor
              : target && target->part == Part::YScale ? Qt::SizeVerCursor
              : target && target->part == Part::Legend ? Qt::SizeAllCursor
              : target                                 ? Qt::CrossCursor
                                                       : Qt::ArrowCursor);
    updateReadOut(mm);
    update();
}

void SheetView::mouseReleaseEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton || !drag_) return;
    const Drag drag = *drag_;
    drag_.reset();
    session_.endMerge();
    if (drag.moved) return;
    if (drag.part == Part::Title || drag.part == Part::XLabel || drag.part == Part::YLabel) editText(drag.part);
}

void SheetView::mouseDoubleClickEvent(QMouseEvent* event) {
    drag_.reset();
    const Target* target = targetAt(toSheet(event->position()));
    if (!target) return;
    if (target->part == Part::Panel) restoreView(true, true);
    if (target->part == Part::XScale) restoreView(true, false);
    if (target->part == Part::YScale) restoreView(false, true);
}

void SheetView::wheelEvent(QWheelEvent* event) {
    const Point mm = toSheet(event->position());
    const Target* target = targetAt(mm);
    if (!target) return;
    const double factor = std::pow(1.2, event->angleDelta().y() / 120.0);
    const bool horizontal = target->part != Part::YScale && target->part != Part::YLabel;
    const bool vertical = target->part != Part::XScale && target->part != Part::XLabel;
    zoom(factor, mm, horizontal, vertical, "zoom");
    event->accept();
}

void SheetView::leaveEvent(QEvent*) {
    readOut_.clear();
    marker_.reset();
    update();
}

void SheetView::keyPressEvent(QKeyEvent* event) {
    if (!figure_ || figure_->figure.layouts.empty()) return QWidget::keyPressEvent(event);
    const Rect& frame = figure_->figure.layouts[0].frame;
    const Point middle{frame.x + frame.width / 2, frame.y + frame.height / 2};
    switch (event->key()) {
    case Qt::Key_Left: return pan(-0.1, 0, true, false, "keys");
    case Qt::Key_Right: return pan(0.1, 0, true, false, "keys");
    case Qt::Key_Up: return pan(0, 0.1, false, true, "keys");
    case Qt::Key_Down: return pan(0, -0.1, false, true, "keys");
    case Qt::Key_Plus:
    case Qt::Key_Equal: return zoom(1.2, middle, true, true, "zoom");
    case Qt::Key_Minus: return zoom(1 / 1.2, middle, true, true, "zoom");
    case Qt::Key_Home: return restoreView(true, true);
    case Qt::Key_F2: return editText(Part::Title);
    case Qt::Key_Delete:
        if (selection_.part == Part::Curve) {
            Document document = session_.document();
            auto& plots = document.panels[0].plots;
            const std::size_t plot = figure_->figure.curves[0].curves[selection_.index].plot;
            if (plot < plots.size()) plots.erase(plots.begin() + static_cast<std::ptrdiff_t>(plot));
            select({});
            session_.edit(std::move(document), tr("removal of a plot"));
        }
        return;
    default: QWidget::keyPressEvent(event);
    }
}

void SheetView::editText(Part part) {
    const Panel& panel = session_.document().panels[0];
    textPart_ = part;
    Rect at{3, 3, 80, 5};
    for (const Target& target : figure_->figure.targets) {
        if (target.part == part) at = target.rect;
    }
    const std::string variable =
        figure_->figure.curves[0].curves.empty() ? "" : figure_->figure.curves[0].curves[0].variable;
    const std::string text = part == Part::Title    ? panel.title
                             : part == Part::XLabel ? horizontalLabel(figure_->figure.page, panel, variable)
                                                    : verticalLabel(figure_->figure.page, panel);
    textField_->setText(QString::fromStdString(text));
    const QPointF corner = toWidget({at.x, at.y});
    const int height = textField_->sizeHint().height();
    const int wide = std::max(look_.look().px(260), static_cast<int>(at.width * fit()) + look_.look().px(40));
    textField_->setGeometry(static_cast<int>(std::clamp(corner.x() - 6, 0.0, std::max(0.0, width() - wide - 4.0))),
                            static_cast<int>(corner.y() + at.height * fit() / 2 - height / 2.0), wide, height);
    textField_->selectAll();
    textField_->show();
    textField_->setFocus();
}

void SheetView::finishText(bool take) {
    if (!textPart_) return;
    const Part part = *std::exchange(textPart_, std::nullopt);
    const std::string text = textField_->text().toStdString();
    textField_->hide();
    setFocus();
    if (!take) return;
    Document document = session_.document();
    Panel& panel = document.panels[0];
    if (part == Part::Title) {
        panel.title = text;
        return session_.edit(std::move(document), tr("change of the title"));
    }
    // What is derived stays derived; an empty label goes back to it.
    Axis& axis = part == Part::XLabel ? panel.x : panel.y;
    const std::string variable =
        figure_->figure.curves[0].curves.empty() ? "" : figure_->figure.curves[0].curves[0].variable;
    axis.label.reset();
    const std::string derived = part == Part::XLabel ? horizontalLabel(figure_->figure.page, panel, variable)
                                                     : verticalLabel(figure_->figure.page, panel);
    if (!text.empty() && text != derived) axis.label = text;
    session_.edit(std::move(document), tr("change of a label"));
}

bool SheetView::eventFilter(QObject* object, QEvent* event) {
    if (object == textField_ && event->type() == QEvent::KeyPress &&
        static_cast<QKeyEvent*>(event)->key() == Qt::Key_Escape) {
        finishText(false);
        return true;
    }
    if (object == textField_ && event->type() == QEvent::FocusOut) finishText(true);
    return QWidget::eventFilter(object, event);
}

} // namespace coulter
