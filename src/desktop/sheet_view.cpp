#include "desktop/sheet_view.h"
#include "desktop/translation.h"

#include "composition/pointing.h"
#include "drawing/nearness.h"
#include "figure/sheet_settings.h"
#include "formula/lines/read_page.h"
#include "plots/read_out.h"

#include <QApplication>
#include <QClipboard>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

bool isText(const ItemPath& path) {
    return path.kind == ItemKind::Title || path.kind == ItemKind::ScaleLabel || path.kind == ItemKind::SheetTitle;
}

/// What a text on the sheet says, derived or set by hand.
std::string textOf(const Figure& figure, const Document& document, const ItemPath& path) {
    const Panel* panel = panelAt(document, path);
    if (path.kind == ItemKind::SheetTitle) return text(document.sheet.settings, sheetTitleSetting);
    if (!panel) return "";
    if (const Note* note = noteAt(document, path)) return note->words;
    if (path.kind == ItemKind::Title) return panel->title;
    if (path.panel >= figure.panels.size()) return "";
    if (path.index >= furtherScale) {
        const std::vector<FurtherScale>& further = figure.panels[path.panel].layout.further;
        return path.index - furtherScale < further.size() ? further[path.index - furtherScale].words : "";
    }
    const PanelLabels& labels = figure.panels[path.panel].layout.labels;
    return path.index == acrossScale    ? labels.across
           : path.index == upScale      ? labels.up
           : path.index == uprightScale ? labels.upright
                                        : labels.colour;
}

} // namespace

std::optional<SheetView::Held> SheetView::handleAt(Point mm) const {
    const Drawn* drawn = figure_ ? drawnAt(figure_->figure, selection_) : nullptr;
    if (!drawn || !drawn->kind->handles) return std::nullopt;
    std::optional<Held> nearest;
    double reach = 6 / fit();
    const std::vector<Handle> handles =
        drawn->kind->handles(*drawn, figure_->figure.panels[selection_.panel].frameOf(*drawn));
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
    drawn->kind->drag(*plot, *drawn, figure_->figure.panels[selection_.panel].frameOf(*drawn), handle, to);
    session_.edit(std::move(*document), tr("move of a line"), "handle");
}

SheetView::SheetView(DocumentSession& session, FigureWorker& worker, const LookSettings& look, QWidget* parent)
    : QWidget(parent), session_(session), worker_(worker), look_(look), textField_(new QLineEdit(this)),
      profileButton_(new QToolButton(this)) {
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Sheet"));
    setObjectName("sheet");
    setMinimumSize(260, 200);
    profileButton_->hide();
    profileButton_->setObjectName("keepProfile");
    profileButton_->setText(tr("Keep as a panel"));
    profileButton_->setToolTip(
        tr("Writes the line's ends and the profile on the page and draws it in a panel below (L)"));
    profileButton_->setFocusPolicy(Qt::NoFocus);
    connect(profileButton_, &QToolButton::clicked, this, &SheetView::keepProfile);
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
    if (figure->complete || !figure_) {
        figure_ = std::move(figure);
        seen_ = seenBy(figure_->image, eyes_);
    }
    if (!hasItem(session_.shown(), selection_)) select({});
    placeProfileButton();
    update();
    emit figureChanged();
}

void SheetView::showFor(Eyes eyes) {
    eyes_ = eyes;
    if (figure_) seen_ = seenBy(figure_->image, eyes_);
    update();
}

void SheetView::select(const ItemPath& path) {
    if (selection_ == path) return;
    selection_ = path;
    placeProfileButton();
    update();
    emit selectionChanged();
}

void SheetView::resizeEvent(QResizeEvent*) {
    placeProfileButton();
    request();
}

void SheetView::updateReadOut(Point mm) {
    readOut_.clear();
    marker_.reset();
    if (!figure_) return;
    const ItemPath part = partAt(figure_->figure, mm);
    if (part.panel >= figure_->figure.panels.size()) return;
    const PanelFigure& panel = figure_->figure.panels[part.panel];
    const ReadOut found = readOutAt(panel.drawn, panel.frame(), mm, 14 / fit());
    readOut_ = spoken(found.text);
    marker_ = found.marker;
}

bool SheetView::showsSpace(std::size_t panel) const {
    return figure_ && panel < figure_->figure.panels.size() && figure_->figure.panels[panel].frame().space;
}

void SheetView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    if (textPath_) finishText(true);
    if (!figure_ || pressOfHand(*event) || event->button() != Qt::LeftButton) return;
    const Point mm = toSheet(event->position());
    if (pressOnNotes(mm, event->position()) || pressOnPanels(mm, event->position())) return;
    if (auto bar = barAt(mm)) {
        select({ItemKind::Scale, bar->panel, colourScale, 0});
        drag_ = Drag{selection_, event->position(), {}, {}};
        drag_->bar = std::move(bar);
        return session_.endMerge();
    }
    const ItemPath item = itemAt(figure_->figure, mm, 6 / fit()), part = partAt(figure_->figure, mm);
    // The only panel is as good as the sheet.
    const bool isSheet = item.kind == ItemKind::Panel && figure_->figure.panels.size() == 1;
    select(isSheet ? ItemPath{ItemKind::Sheet, item.panel, 0, 0} : item);
    const Panel* panel = panelAt(session_.document(), part);
    if (part.kind == ItemKind::Sheet || !panel || part.panel >= figure_->figure.panels.size()) return;
    const PanelLayout& layout = figure_->figure.panels[part.panel].layout;
    const Rect &legend = layout.legend.rect, &frame = layout.frame.rect;
    drag_ = Drag{part, event->position(), layout.frame, panel->view, {legend.x - frame.x, legend.y - frame.y}};
    drag_->held = handleAt(mm);
    if (part.kind == ItemKind::Legend) {
        drag_->entry = entryAt(mm);
        drag_->from = session_.document();
    }
    session_.endMerge();
}

void SheetView::mouseMoveEvent(QMouseEvent* event) {
    pointer_ = event->position();
    const Point mm = toSheet(event->position());
    if (drag_ && (event->buttons() & drag_->button)) {
        const QPointF by = event->position() - drag_->start;
        if (!drag_->moved && by.manhattanLength() < 4) return;
        drag_->moved = true;
        readOut_.clear();
        marker_.reset();
        const ItemPath& path = drag_->path;
        const bool whole = path.kind == ItemKind::Panel || path.kind == ItemKind::Plot, // a plot's label, too
            scale = path.kind == ItemKind::Scale && path.index != colourScale && path.index != uprightScale;
        if (drag_->drawsRectangle) {
            update();
        } else if (drag_->path.kind == ItemKind::Note) {
            dragNote(mm, by, !(event->modifiers() & Qt::AltModifier));
        } else if (drag_->bar) {
            dragOnBar(*drag_->bar, toSheet(drag_->start), mm);
        } else if (drag_->border) {
            dragBorder(*drag_->border, drag_->from, (drag_->border->isUpright ? by.x() : by.y()) / fit());
        } else if (drag_->carried) {
            update();
        } else if (drag_->held) {
            dragHandle(drag_->held->handle, mm);
        } else if (path.kind == ItemKind::Legend) {
            auto document = editable(path);
            if (!document) return;
            document->panels[path.panel].legend.at = {drag_->legendAt[0] + by.x() / fit(),
                                                      drag_->legendAt[1] + by.y() / fit()};
            session_.edit(std::move(*document), tr("move of the legend"), "legend");
            if (otherScaleAt(*drag_, mm)) readOut_ = tr("onto this scale");
        } else if (whole || scale) {
            if (!figure_ || figure_->figure.panels[path.panel].frame().polar) return;
            if (showsSpace(path.panel))
                turn(path.panel, by.x() / 2, by.y() / 2, drag_->view, "turn");
            else
                pan(path, drag_->frame, by.x() / fit(), by.y() / fit(), "pan");
        }
        return;
    }
    if (corners_) return moveCorner(mm);
    if (pendingNote_) return;
    const ItemPath part = figure_ ? partAt(figure_->figure, mm) : ItemPath{};
    const std::optional<Held> held = handleAt(mm);
    const auto room = panelRoomAt(mm);
    if (room && figure_->figure.panels.size() > 1 && gripOf(*room).grown(1).contains(mm)) {
        setCursor(Qt::OpenHandCursor);
        return update();
    }
    if (const auto border = part.kind == ItemKind::Sheet ? borderAt(mm) : std::nullopt) {
        setCursor(border->isUpright ? Qt::SplitHCursor : Qt::SplitVCursor);
        return update();
    }
    if (noteHandleAt(mm) || part.kind == ItemKind::Note) {
        setCursor(Qt::SizeAllCursor);
        return update();
    }
    if (const auto bar = barAt(mm)) {
        const bool isUpright = figure_->figure.panels[bar->panel].layout.colours.isUpright();
        setCursor(bar->part == OnBar::Part::Between ? Qt::OpenHandCursor
                  : isUpright                       ? Qt::SizeVerCursor
                                                    : Qt::SizeHorCursor);
        readOut_ = wordsAt(*bar, mm);
        marker_.reset();
        return update();
    }
    setCursor(held           ? (held->up ? Qt::SizeVerCursor : Qt::SizeHorCursor)
              : isText(part) ? Qt::IBeamCursor
              : part.kind == ItemKind::Scale && part.index == acrossScale ? Qt::SizeHorCursor
              : part.kind == ItemKind::Scale && isUpward(part.index)      ? Qt::SizeVerCursor
              : part.kind == ItemKind::Legend                             ? Qt::SizeAllCursor
              : part.kind != ItemKind::Sheet                              ? Qt::CrossCursor
                                                                          : Qt::ArrowCursor);
    updateReadOut(mm);
    update();
}

void SheetView::mouseReleaseEvent(QMouseEvent* event) {
    if (!drag_ || event->button() != drag_->button) return;
    const Drag drag = *drag_;
    drag_.reset();
    if (drag.moved && drag.entry) dropEntry(drag, toSheet(event->position()));
    session_.endMerge();
    if (drag.drawsRectangle) {
        if (drag.moved) showRectangle(drag, toSheet(event->position()));
        return update();
    }
    if (drag.path.kind == ItemKind::Note) {
        releaseNote(drag);
        return update();
    }
    if (drag.carried) {
        if (drag.moved) dropPanel(*drag.carried, toSheet(event->position()));
        return update();
    }
    if (drag.moved || drag.border || drag.bar) return;
    if (isText(drag.path)) editText(drag.path);
}

void SheetView::mouseDoubleClickEvent(QMouseEvent* event) {
    drag_.reset();
    if (!figure_) return;
    if (corners_) return finishCorners();
    if (const auto bar = barAt(toSheet(event->position()))) return doubleClickOnBar(*bar, toSheet(event->position()));
    const ItemPath item = itemAt(figure_->figure, toSheet(event->position()), 6 / fit());
    if (item.kind == ItemKind::Note) return editText(item);
    for (const Hit& entry : legendEntries()) {
        if (entry.rect.contains(toSheet(event->position()))) return editName(entry);
    }
    const ItemPath part = partAt(figure_->figure, toSheet(event->position()));
    if (part.kind == ItemKind::Panel || (part.kind == ItemKind::Scale && part.index != colourScale)) restoreView(part);
}

void SheetView::leaveEvent(QEvent*) {
    readOut_.clear();
    marker_.reset();
    update();
}

void SheetView::keyPressEvent(QKeyEvent* event) {
    const PanelFigure* panel = shownPanel();
    if (!panel) return QWidget::keyPressEvent(event);
    if (noteKey(*event)) return;
    if (event->matches(QKeySequence::Paste)) {
        const QString text = QApplication::clipboard()->text();
        if (!text.trimmed().isEmpty()) emit textPasted(text);
        return;
    }
    const std::size_t p = selection_.panel;
    const Rect& frame = panel->frame().rect;
    const Point middle{frame.x + frame.width / 2, frame.y + frame.height / 2};
    const ItemPath whole{ItemKind::Panel, p, 0, 0};
    switch (event->key()) {
    case Qt::Key_Left:
    case Qt::Key_Right:
    case Qt::Key_Up:
    case Qt::Key_Down: return arrowKey(*event);
    case Qt::Key_PageUp: return moveEntry(-1);
    case Qt::Key_PageDown: return moveEntry(1);
    case Qt::Key_R:
        for (const Hit& entry : legendEntries()) {
            if (entry.path == selection_) return editName(entry);
        }
        return;
    case Qt::Key_Plus:
    case Qt::Key_Equal: return zoom(whole, 1.2, middle, "zoom");
    case Qt::Key_Minus: return zoom(whole, 1 / 1.2, middle, "zoom");
    case Qt::Key_Home: return restoreView(whole);
    case Qt::Key_F2: return editText({ItemKind::Title, p, 0, 0});
    case Qt::Key_D:
        if (selection_.kind == ItemKind::Plot) emit drawAsWanted(selection_);
        return;
    case Qt::Key_K: return changeKind(event->modifiers() & Qt::ShiftModifier ? -1 : 1);
    case Qt::Key_N:
    case Qt::Key_P: return selectNeighbour(event->key() == Qt::Key_N ? 1 : -1);
    case Qt::Key_L: return keepProfile();
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
    if (selection_.kind == ItemKind::Panel) return removePanel(selection_.panel);
    if (selection_.kind == ItemKind::Note) return removeNote(selection_);
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
    const std::vector<const PlotKind*> kinds = kindsThatFit(readPage(*document), *plot);
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
    showTextField(textOf(figure_->figure, session_.document(), path), at);
}

void SheetView::showTextField(const std::string& text, const Rect& at) {
    textField_->setPlaceholderText("");
    readOut_.clear();
    marker_.reset();
    update();
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
    if (!textPath_) return;
    const ItemPath path = *std::exchange(textPath_, std::nullopt);
    const std::string text = textField_->text().toStdString();
    textField_->hide();
    setFocus();
    auto document = take && figure_ ? editable(path) : std::nullopt;
    if (!document) return;
    if (path.kind == ItemKind::SheetTitle) {
        set(document->sheet.settings, sheetTitleSetting, text);
        return session_.edit(std::move(*document), tr("change of the title"));
    }
    if (path.kind == ItemKind::Note) {
        Note* note = noteAt(*document, path);
        if (text.empty() && note->kind == "text") return removeNote(path); // nothing is left of it
        note->words = text;
        return session_.edit(std::move(*document), tr("change of a note"));
    }
    if (path.kind == ItemKind::Title) {
        document->panels[path.panel].title = text;
        return session_.edit(std::move(*document), tr("change of the title"));
    }
    if (path.kind == ItemKind::Plot) return finishName(path, std::move(*document), text);
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
