#include "desktop/sheet_view.h"

#include "drawing/nearness.h"
#include "plots/read_out.h"

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

bool isText(const ItemPath& path) { return path.kind == ItemKind::Title || path.kind == ItemKind::ScaleLabel; }

/// What a text on the sheet says, derived or set by hand.
std::string textOf(const Figure& figure, const Document& document, const ItemPath& path) {
    const Panel* panel = panelAt(document, path);
    if (!panel) return "";
    if (path.kind == ItemKind::Title) return panel->title;
    if (path.panel >= figure.panels.size()) return "";
    const PanelLabels& labels = figure.panels[path.panel].layout.labels;
    return path.index == acrossScale    ? labels.across
           : path.index == upScale      ? labels.up
           : path.index == uprightScale ? labels.upright
                                        : labels.colour;
}

bool isScale(const ItemPath& path, std::size_t which) {
    return (path.kind == ItemKind::Scale || path.kind == ItemKind::ScaleLabel) && path.index == which;
}

/// Limits of a scale moved by a part of its length.
Limits moved(const AxisMap& map, double part) {
    return {map.fromSheet(part * map.length), map.fromSheet((1 + part) * map.length)};
}

} // namespace

std::optional<SheetView::Held> SheetView::handleAt(Point mm) const {
    const Drawn* drawn = figure_ ? drawnAt(figure_->figure, selection_) : nullptr;
    if (!drawn || !drawn->kind->handles) return std::nullopt;
    std::optional<Held> nearest;
    double reach = 6 / fit();
    const std::vector<Handle> handles = drawn->kind->handles(*drawn, figure_->figure.panels[selection_.panel].frame());
    for (std::size_t i = 0; i < handles.size(); ++i) {
        for (const auto& line : handles[i].at) {
            const double away = distanceTo(line, mm);
            if (!(away < reach)) continue;
            reach = away;
            nearest = Held{i, handles[i].across, handles[i].up};
        }
    }
    return nearest;
}

void SheetView::dragHandle(std::size_t handle, Point to) {
    const Drawn* drawn = figure_ ? drawnAt(figure_->figure, selection_) : nullptr;
    // While it is dragged the plot's own formula changes, so it is known by its place.
    auto document = std::optional(session_.document());
    Plot* plot = plotAt(*document, selection_);
    if (!drawn || !drawn->kind->drag || !plot || plot->kind != drawn->kind->name) return;
    drawn->kind->drag(*plot, *drawn, figure_->figure.panels[selection_.panel].frame(), handle, to);
    session_.edit(std::move(*document), tr("move of a line"), "handle");
}

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
    connect(&session_, &DocumentSession::shownChanged, this, [this] {
        patient_ = false; // what was worth waiting for was another figure
        request();
    });
    connect(&session_, &DocumentSession::started, this, [this] {
        figure_.reset(); // the picture of another document would be mistaken for this one's
        waitsFor_.clear();
        select({});
        update();
        emit figureChanged();
    });
    connect(&worker_, &FigureWorker::ready, this, &SheetView::take);
    connect(&look_, &LookSettings::changed, this, [this] {
        request();
        update();
    });
}

double SheetView::fitOf(const Sheet& sheet) const {
    const double room = look_.look().px(rulerWidth), desk = 2.0 * look_.look().px(deskMargin);
    return std::max(0.2, std::min((width() - room - desk) / sheet.width, (height() - room - desk) / sheet.height));
}

double SheetView::fit() const { return fitOf(figure_ ? figure_->figure.document.sheet : session_.shown().sheet); }

QRectF SheetView::paperRect() const {
    const Sheet& sheet = figure_ ? figure_->figure.document.sheet : session_.shown().sheet;
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

const PanelFigure* SheetView::shownPanel() const {
    if (!figure_ || selection_.panel >= figure_->figure.panels.size()) return nullptr;
    return &figure_->figure.panels[selection_.panel];
}

const Drawn* SheetView::shownPlot() const {
    const PanelFigure* panel = shownPanel();
    if (!panel) return nullptr;
    if (const Drawn* selected = drawnAt(figure_->figure, selection_)) return selected;
    return panel->drawn.empty() ? nullptr : &panel->drawn[0];
}

std::optional<Document> SheetView::editable(const ItemPath& path) const {
    if (figure_ && !sameItem(figure_->figure.document, session_.document(), path)) return std::nullopt;
    return session_.document();
}

QRectF SheetView::panelRect() const {
    const PanelFigure* panel = shownPanel();
    if (!panel) return {};
    const Rect& rect = panel->frame().rect;
    return {toWidget({rect.x, rect.y}), toWidget({rect.right(), rect.bottom()})};
}

void SheetView::request() {
    // The scale belongs to the sheet that is asked for, not to the one still shown.
    FigureRequest wanted{session_.shown(), fitOf(session_.shown().sheet) * devicePixelRatioF()};
    if (rangeHeld_ && figure_) {
        for (const PanelFigure& panel : figure_->figure.panels) {
            const AxisMap& y = panel.frame().map.y;
            wanted.held.push_back(!panel.frame().isPlane() ? std::nullopt : std::optional(Limits{y.low, y.high}));
        }
    }
    wanted.patient = patient_;
    worker_.request(std::move(wanted));
}

void SheetView::goOn() {
    patient_ = true;
    request();
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
    if (selection_.kind == ItemKind::Plot && !plotAt(session_.shown(), selection_)) select({});
    update();
    emit figureChanged();
}

void SheetView::select(const ItemPath& path) {
    if (selection_ == path) return;
    selection_ = path;
    update();
    emit selectionChanged();
}

void SheetView::resizeEvent(QResizeEvent*) { request(); }

void SheetView::updateReadOut(Point mm) {
    readOut_.clear();
    marker_.reset();
    if (!figure_) return;
    const ItemPath part = partAt(figure_->figure, mm);
    if (part.panel >= figure_->figure.panels.size()) return;
    const PanelFigure& panel = figure_->figure.panels[part.panel];
    const ReadOut found = readOutAt(panel.drawn, panel.frame(), mm, 14 / fit());
    readOut_ = QString::fromStdString(found.text);
    marker_ = found.marker;
}

bool SheetView::showsSpace(std::size_t panel) const {
    return figure_ && panel < figure_->figure.panels.size() && figure_->figure.panels[panel].frame().space;
}

void SheetView::setLimits(std::size_t panel, std::optional<Limits> x, std::optional<Limits> y, const QString& what,
                          const QString& mergeKey) {
    auto document = editable({ItemKind::Panel, panel, 0, 0});
    if (!document) return;
    if (x && usable(*x)) document->panels[panel].x.limits = *x;
    if (y && usable(*y)) document->panels[panel].y.limits = *y;
    session_.edit(std::move(*document), what, mergeKey);
}

void SheetView::zoom(std::size_t panel, double factor, Point about, bool horizontal, bool vertical,
                     const QString& mergeKey) {
    if (!figure_ || panel >= figure_->figure.panels.size() || showsSpace(panel)) return;
    const Frame& frame = figure_->figure.panels[panel].frame();
    if (frame.polar) { // the middle stays where it is
        const AxisMap& radius = frame.polar->radius;
        return setLimits(panel, std::nullopt, Limits{radius.low, radius.fromSheet(radius.length / factor)}, tr("zoom"),
                         mergeKey);
    }
    const auto stretched = [&](const AxisMap& map, double mm, bool wanted) {
        if (!wanted) return Limits{map.low, map.high};
        const double centre = std::clamp(mm, 0.0, map.length);
        return Limits{map.fromSheet(centre - centre / factor), map.fromSheet(centre + (map.length - centre) / factor)};
    };
    setLimits(panel, stretched(frame.map.x, frame.map.x.toSheet(frame.xAt(about.x)), horizontal),
              stretched(frame.map.y, frame.map.y.toSheet(frame.yAt(about.y)), vertical), tr("zoom"), mergeKey);
}

void SheetView::pan(std::size_t panel, double dx, double dy, bool horizontal, bool vertical, const QString& mergeKey) {
    const auto document = editable({ItemKind::Panel, panel, 0, 0});
    if (!figure_ || !document || panel >= figure_->figure.panels.size()) return;
    if (showsSpace(panel)) return turn(panel, 60 * dx, 60 * dy, document->panels[panel].view, mergeKey);
    const Frame& frame = figure_->figure.panels[panel].frame();
    if (frame.polar) return; // there is nothing beside a circle
    if (frame.leftwards) dx = -dx;
    if (frame.downwards) dy = -dy;
    setLimits(panel, moved(frame.map.x, horizontal ? dx : 0), moved(frame.map.y, vertical ? dy : 0),
              tr("move of the view"), mergeKey);
}

void SheetView::turn(std::size_t panel, double azimuth, double elevation, const View& from, const QString& mergeKey) {
    auto document = editable({ItemKind::Panel, panel, 0, 0});
    if (!document) return;
    View& view = document->panels[panel].view;
    view.azimuth = std::remainder(std::round(from.azimuth + azimuth), 360);
    view.elevation = std::clamp(std::round(from.elevation + elevation), -90.0, 90.0);
    session_.edit(std::move(*document), tr("turn of the view"), mergeKey);
}

void SheetView::restoreView(std::size_t panel, bool horizontal, bool vertical) {
    auto document = editable({ItemKind::Panel, panel, 0, 0});
    if (!document) return;
    Panel& changed = document->panels[panel];
    if (showsSpace(panel)) changed.view = View{};
    if (horizontal) changed.x.limits.reset();
    if (vertical) changed.y.limits.reset();
    session_.edit(std::move(*document), tr("automatic view"));
}

void SheetView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    if (textPath_) finishText(true);
    if (event->button() != Qt::LeftButton || !figure_) return;
    const Point mm = toSheet(event->position());
    const ItemPath item = itemAt(figure_->figure, mm, 6 / fit()), part = partAt(figure_->figure, mm);
    select(item.kind == ItemKind::Panel ? ItemPath{ItemKind::Sheet, item.panel, 0, 0} : item);
    const Panel* panel = panelAt(session_.document(), part);
    if (part.kind == ItemKind::Sheet || !panel || part.panel >= figure_->figure.panels.size()) return;
    const PanelLayout& layout = figure_->figure.panels[part.panel].layout;
    const Rect &legend = layout.legend.rect, &frame = layout.frame.rect;
    drag_ = Drag{part,
                 event->position(),
                 layout.frame.map,
                 layout.frame.leftwards,
                 layout.frame.downwards,
                 panel->view,
                 {legend.x - frame.x, legend.y - frame.y}};
    drag_->held = handleAt(mm);
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
        const ItemPath& path = drag_->path;
        const bool whole = path.kind == ItemKind::Panel || path.kind == ItemKind::Plot, // a plot's label, too
            scale = path.kind == ItemKind::Scale, horizontal = whole || (scale && path.index == acrossScale),
                   vertical = whole || (scale && path.index == upScale);
        if (drag_->held) {
            dragHandle(drag_->held->handle, mm);
        } else if (path.kind == ItemKind::Legend) {
            auto document = editable(path);
            if (!document) return;
            document->panels[path.panel].legend.at = {drag_->legendAt[0] + by.x() / fit(),
                                                      drag_->legendAt[1] + by.y() / fit()};
            session_.edit(std::move(*document), tr("move of the legend"), "legend");
        } else if (horizontal || vertical) {
            const double right = drag_->leftwards ? 1 : -1, up = drag_->downwards ? -1 : 1;
            const double dx = horizontal ? right * by.x() / fit() / map.x.length : 0,
                         dy = vertical ? up * by.y() / fit() / map.y.length : 0;
            if (figure_ && figure_->figure.panels[path.panel].frame().polar) return;
            if (showsSpace(path.panel))
                turn(path.panel, by.x() / 2, by.y() / 2, drag_->view, "turn");
            else
                setLimits(path.panel, moved(map.x, dx), moved(map.y, dy), tr("move of the view"), "pan");
        }
        return;
    }
    const ItemPath part = figure_ ? partAt(figure_->figure, mm) : ItemPath{};
    const std::optional<Held> held = handleAt(mm);
    setCursor(held           ? (held->up ? Qt::SizeVerCursor : Qt::SizeHorCursor)
              : isText(part) ? Qt::IBeamCursor
              : part.kind == ItemKind::Scale && part.index == acrossScale ? Qt::SizeHorCursor
              : part.kind == ItemKind::Scale && part.index == upScale     ? Qt::SizeVerCursor
              : part.kind == ItemKind::Legend                             ? Qt::SizeAllCursor
              : part.kind != ItemKind::Sheet                              ? Qt::CrossCursor
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
    if (isText(drag.path)) editText(drag.path);
}

void SheetView::mouseDoubleClickEvent(QMouseEvent* event) {
    drag_.reset();
    if (!figure_) return;
    const ItemPath part = partAt(figure_->figure, toSheet(event->position()));
    if (part.kind == ItemKind::Panel) restoreView(part.panel, true, true);
    if (part.kind == ItemKind::Scale && part.index != colourScale)
        restoreView(part.panel, part.index == acrossScale, part.index == upScale);
}

void SheetView::wheelEvent(QWheelEvent* event) {
    if (!figure_) return;
    const Point mm = toSheet(event->position());
    const ItemPath part = partAt(figure_->figure, mm);
    if (part.kind == ItemKind::Sheet) return;
    const double factor = std::pow(1.2, event->angleDelta().y() / 120.0);
    zoom(part.panel, factor, mm, !isScale(part, upScale), !isScale(part, acrossScale), "zoom");
    event->accept();
}

void SheetView::leaveEvent(QEvent*) {
    readOut_.clear();
    marker_.reset();
    update();
}

void SheetView::keyPressEvent(QKeyEvent* event) {
    const PanelFigure* panel = shownPanel();
    if (!panel) return QWidget::keyPressEvent(event);
    const std::size_t p = selection_.panel;
    const Rect& frame = panel->frame().rect;
    const Point middle{frame.x + frame.width / 2, frame.y + frame.height / 2};
    switch (event->key()) {
    case Qt::Key_Left: return pan(p, -0.1, 0, true, false, "keys");
    case Qt::Key_Right: return pan(p, 0.1, 0, true, false, "keys");
    case Qt::Key_Up: return pan(p, 0, 0.1, false, true, "keys");
    case Qt::Key_Down: return pan(p, 0, -0.1, false, true, "keys");
    case Qt::Key_Plus:
    case Qt::Key_Equal: return zoom(p, 1.2, middle, true, true, "zoom");
    case Qt::Key_Minus: return zoom(p, 1 / 1.2, middle, true, true, "zoom");
    case Qt::Key_Home: return restoreView(p, true, true);
    case Qt::Key_F2: return editText({ItemKind::Title, p, 0, 0});
    case Qt::Key_D:
        if (selection_.kind == ItemKind::Plot) emit drawAsWanted(selection_);
        return;
    case Qt::Key_K: return changeKind(event->modifiers() & Qt::ShiftModifier ? -1 : 1);
    case Qt::Key_N:
    case Qt::Key_P: return selectNeighbour(event->key() == Qt::Key_N ? 1 : -1);
    case Qt::Key_Delete: return removeSelected();
    default: QWidget::keyPressEvent(event);
    }
}

void SheetView::selectNeighbour(int step) {
    const PanelFigure* panel = shownPanel();
    if (!panel || panel->drawn.empty()) return;
    const auto count = static_cast<int>(panel->drawn.size());
    int at = step > 0 ? -1 : count;
    for (int i = 0; i < count; ++i) {
        if (panel->drawn[static_cast<std::size_t>(i)].path == selection_) at = i;
    }
    select(panel->drawn[static_cast<std::size_t>(std::clamp(at + step, 0, count - 1))].path);
}

void SheetView::removeSelected() {
    auto document = editable(selection_);
    if (!document || !plotAt(*document, selection_)) return;
    auto& plots = document->panels[selection_.panel].plots;
    plots.erase(plots.begin() + static_cast<std::ptrdiff_t>(selection_.index));
    select({});
    session_.edit(std::move(*document), tr("removal of a plot"));
}

void SheetView::changeKind(int step) {
    auto document = editable(selection_);
    Plot* plot = document ? plotAt(*document, selection_) : nullptr;
    if (!plot) return;
    const std::vector<const PlotKind*> kinds = kindsThatFit(readPage(document->page), *plot);
    const auto at = std::ranges::find_if(kinds, [&](const PlotKind* kind) { return plot->kind == kind->name; });
    if (at == kinds.end() || kinds.size() < 2) return;
    const auto count = static_cast<int>(kinds.size());
    const int next = (static_cast<int>(at - kinds.begin()) + step + count) % count;
    *plot = inKind(*plot, *kinds[static_cast<std::size_t>(next)]);
    session_.edit(std::move(*document), tr("another kind of plot"));
}

void SheetView::editText(const ItemPath& path) {
    if (!figure_) return;
    textPath_ = path;
    Rect at{3, 3, 80, 5};
    for (const Hit& hit : figure_->figure.hits) {
        if (hit.path == path) at = hit.rect;
    }
    textField_->setText(QString::fromStdString(textOf(figure_->figure, session_.document(), path)));
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
    if (!textPath_) return;
    const ItemPath path = *std::exchange(textPath_, std::nullopt);
    const std::string text = textField_->text().toStdString();
    textField_->hide();
    setFocus();
    auto document = take && figure_ ? editable(path) : std::nullopt;
    if (!document) return;
    if (path.kind == ItemKind::Title) {
        document->panels[path.panel].title = text;
        return session_.edit(std::move(*document), tr("change of the title"));
    }
    // What is derived stays derived; an empty label goes back to it.
    Axis& axis = *axisAt(*document, path);
    axis.label.reset();
    if (!text.empty() && text != textOf(figure_->figure, *document, path)) axis.label = text;
    session_.edit(std::move(*document), tr("change of a label"));
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
