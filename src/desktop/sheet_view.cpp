#include "desktop/sheet_view.h"

#include "desktop/read_out.h"
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

bool isText(Part part) {
    return part == Part::Title || part == Part::XLabel || part == Part::YLabel || part == Part::ColourLabel;
}

Axis& axisOf(Panel& panel, Part part) {
    return part == Part::XLabel ? panel.x : part == Part::YLabel ? panel.y : panel.colour;
}

/// What a text on the sheet says, derived or set by hand.
std::string textOf(const Page& page, const Panel& panel, const PanelCurves& curves, Part part) {
    if (part == Part::Title) return panel.title;
    if (part == Part::XLabel) return horizontalLabel(page, panel, curves);
    return part == Part::YLabel ? verticalLabel(page, panel, curves) : colourLabel(page, panel, curves);
}

/// Limits of a scale moved by a part of its length.
Limits moved(const AxisMap& map, double part) {
    return {map.fromSheet(part * map.length), map.fromSheet((1 + part) * map.length)};
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
    std::optional<Limits> atLeast;
    if (rangeHeld_ && figure_ && !figure_->figure.layouts.empty() && !showsSpace()) {
        const AxisMap& y = figure_->figure.layouts[0].map.y;
        atLeast = Limits{y.low, y.high};
    }
    worker_.request(session_.shown(), scale * devicePixelRatioF(), atLeast);
}

void SheetView::holdRange(bool held) {
    if (rangeHeld_ == held) return;
    rangeHeld_ = held;
    if (!held) request();
}

void SheetView::take(std::shared_ptr<const ShownFigure> figure) {
    waitsFor_ = figure->waitsFor;
    // An unfinished formula leaves the last good picture where it is.
    if (figure->complete || !figure_) figure_ = std::move(figure);
    if (selection_.part == Part::Curve && selection_.index >= figure_->figure.curves[0].curves.size()) selection_ = {};
    if (selection_.part == Part::Field && selection_.index >= figure_->figure.curves[0].fields.size()) selection_ = {};
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

void SheetView::updateReadOut(Point mm) {
    ReadOut found = figure_ ? readOutAt(figure_->figure, mm, 14 / fit()) : ReadOut{};
    readOut_ = std::move(found.text);
    marker_ = found.marker;
}

bool SheetView::showsSpace() const {
    return figure_ && !figure_->figure.layouts.empty() && figure_->figure.layouts[0].space.shown;
}

void SheetView::setLimits(std::optional<Limits> x, std::optional<Limits> y, const QString& what,
                          const QString& mergeKey) {
    Document document = session_.document();
    if (x && usable(*x)) document.panels[0].x.limits = x;
    if (y && usable(*y)) document.panels[0].y.limits = y;
    session_.edit(std::move(document), what, mergeKey);
}

void SheetView::zoom(double factor, Point about, bool horizontal, bool vertical, const QString& mergeKey) {
    if (!figure_ || figure_->figure.layouts.empty() || showsSpace()) return;
    const PanelLayout& layout = figure_->figure.layouts[0];
    const auto stretched = [&](const AxisMap& map, double mm, bool wanted) {
        if (!wanted) return Limits{map.low, map.high};
        const double centre = std::clamp(mm, 0.0, map.length);
        return Limits{map.fromSheet(centre - centre / factor), map.fromSheet(centre + (map.length - centre) / factor)};
    };
    setLimits(stretched(layout.map.x, about.x - layout.frame.x, horizontal),
              stretched(layout.map.y, layout.frame.bottom() - about.y, vertical), tr("zoom"), mergeKey);
}

void SheetView::pan(double dx, double dy, bool horizontal, bool vertical, const QString& mergeKey) {
    if (!figure_ || figure_->figure.layouts.empty()) return;
    if (showsSpace()) return turn(60 * dx, 60 * dy, session_.document().panels[0].view, mergeKey);
    const PanelMap& map = figure_->figure.layouts[0].map;
    setLimits(moved(map.x, horizontal ? dx : 0), moved(map.y, vertical ? dy : 0), tr("move of the view"), mergeKey);
}

void SheetView::turn(double azimuth, double elevation, const View& from, const QString& mergeKey) {
    Document document = session_.document();
    View& view = document.panels[0].view;
    view.azimuth = std::remainder(std::round(from.azimuth + azimuth), 360);
    view.elevation = std::clamp(std::round(from.elevation + elevation), -90.0, 90.0);
    session_.edit(std::move(document), tr("turn of the view"), mergeKey);
}

void SheetView::restoreView(bool horizontal, bool vertical) {
    Document document = session_.document();
    if (showsSpace()) document.panels[0].view = View{};
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
    const bool inside = figure_->figure.layouts[0].frame.grown(1).contains(mm);
    const auto curve = nearestCurve(figure_->figure, mm, 6 / fit());
    if (curve && inside)
        select({Part::Curve, curve->curve});
    else if (inside && !figure_->figure.curves[0].fields.empty())
        select({Part::Field, 0});
    else if (target && target->part != Part::Panel)
        select({target->part, target->index});
    else
        select({});
    if (!target) return;
    const PanelLayout& layout = figure_->figure.layouts[0];
    Drag drag{target->part, event->position(), layout.map, session_.document().panels[0].view, {}, false};
    drag.legendAt = {layout.legendRect.x - layout.frame.x, layout.legendRect.y - layout.frame.y};
    drag_ = drag;
    session_.endMerge();
}

void SheetView::mouseMoveEvent(QMouseEvent* event) {
    pointer_ = event->position();
    const Point mm = toSheet(event->position());
    if (drag_ && (event->buttons() & Qt::LeftButton)) {
        const QPointF by = event->position() - drag_->start;
        if (!drag_->moved && by.manhattanLength() < 4) return;
        drag_->moved = true;
        readOut_.clear();
        marker_.reset();
        const PanelMap& map = drag_->map;
        const bool horizontal = drag_->part == Part::Panel || drag_->part == Part::XScale,
                   vertical = drag_->part == Part::Panel || drag_->part == Part::YScale;
        if (drag_->part == Part::Legend) {
            Document document = session_.document();
            document.panels[0].legend.at = {drag_->legendAt[0] + by.x() / fit(), drag_->legendAt[1] + by.y() / fit()};
            session_.edit(std::move(document), tr("move of the legend"), "legend");
        } else if (horizontal || vertical) {
            const double dx = horizontal ? -by.x() / fit() / map.x.length : 0,
                         dy = vertical ? by.y() / fit() / map.y.length : 0;
            if (showsSpace())
                turn(by.x() / 2, by.y() / 2, drag_->view, "turn");
            else
                setLimits(moved(map.x, dx), moved(map.y, dy), tr("move of the view"), "pan");
        }
        return;
    }
    const Target* target = targetAt(mm);
    const bool text = target && isText(target->part);
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
    if (isText(drag.part)) editText(drag.part);
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
        if (selection_.part == Part::Curve || selection_.part == Part::Field) {
            Document document = session_.document();
            auto& plots = document.panels[0].plots;
            const PanelCurves& drawn = figure_->figure.curves[0];
            const std::size_t plot = selection_.part == Part::Curve ? drawn.curves[selection_.index].plot
                                                                    : drawn.fields[selection_.index].plot;
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
    const std::string text = textOf(figure_->figure.page, panel, figure_->figure.curves[0], part);
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
    Axis& axis = axisOf(panel, part);
    axis.label.reset();
    const std::string derived = textOf(figure_->figure.page, panel, figure_->figure.curves[0], part);
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
