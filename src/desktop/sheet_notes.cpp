// Notes on the sheet: placed, moved, bent and turned by hand. See sheet_view.h.
#include "desktop/sheet_view.h"
#include "desktop/translation.h"

#include "composition/pointing.h"
#include "drawing/nearness.h"
#include "formula/base/text.h"
#include "formula/notation/expr_build.h"
#include "notes/note_settings.h"
#include "notes/profile_edits.h"
#include "plots/handles.h"
#include "plots/plot_kind.h"
#include "plots/table_edits.h"

#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>
#include <numbers>

namespace coulter {
namespace {

Point moved(Point p, Point by) { return {p.x + by.x, p.y + by.y}; }

bool canTurn(const NoteKind& kind) { return std::ranges::find(kind.settings, &turnSetting) != kind.settings.end(); }

/// Where the handle is that a note is turned by, about its middle.
Point turnHandleOf(const DrawnNote& note, double mm) {
    Point middle;
    for (const Point p : note.at) middle = moved(middle, p);
    middle = {middle.x / static_cast<double>(note.at.size()), middle.y / static_cast<double>(note.at.size())};
    double reach = note.words.width / 2;
    for (const Point p : note.at) reach = std::max(reach, std::abs(p.x - middle.x));
    const double turn = number(note.settings, turnSetting) * std::numbers::pi / 180;
    return {middle.x + std::cos(turn) * (reach + mm), middle.y - std::sin(turn) * (reach + mm)};
}

} // namespace

const DrawnNote* SheetView::drawnNote(const ItemPath& path) const {
    if (!figure_ || path.kind != ItemKind::Note || path.panel >= figure_->figure.panels.size()) return nullptr;
    const std::vector<DrawnNote>& notes = figure_->figure.panels[path.panel].notes.drawn;
    const auto at = std::ranges::find(notes, path, &DrawnNote::path);
    return at == notes.end() ? nullptr : &*at;
}

std::vector<Point> SheetView::noteHandles(const DrawnNote& note) const {
    std::vector<Point> handles = note.at;
    if (canTurn(*note.kind)) handles.push_back(turnHandleOf(note, 14 / fit()));
    return handles;
}

std::optional<std::size_t> SheetView::noteHandleAt(Point mm) const {
    const DrawnNote* note = drawnNote(selection_);
    if (!note) return std::nullopt;
    const std::vector<Point> handles = noteHandles(*note);
    std::optional<std::size_t> nearest;
    double reach = 7 / fit();
    for (std::size_t i = 0; i < handles.size(); ++i) {
        const double away = std::hypot(handles[i].x - mm.x, handles[i].y - mm.y);
        if (away >= reach) continue;
        reach = away;
        nearest = i;
    }
    return nearest;
}

/// A place for a callout's dot: on a curve where one is near, said by the curve's own formula.
NotePlace SheetView::placeOnCurve(const Note& note, std::size_t panel, Point mm) const {
    const PanelFigure& shown = figure_->figure.panels[panel];
    const NotePlace plain = placeAt(note, shown.frame(), mm);
    if (!shown.frame().isPlane() || word(note.settings, anchorSetting) != static_cast<std::size_t>(Anchor::Data))
        return plain;
    double reach = 14 / fit();
    NotePlace best = plain;
    for (const Drawn& drawn : shown.drawn) {
        const Curve* curve = curveOf(drawn);
        const CurveSamples* samples = curveSamplesOf(drawn);
        if (!curve || !samples || !curve->isFunction() || drawn.scale != 0 || drawn.caseCount > 1) continue;
        for (const auto& line : linesOf(*samples, shown.frame())) {
            const double away = distanceTo(line, mm);
            if (away >= reach) continue;
            const Plotted plotted = readPlotted(figure_->figure.page, drawn.of);
            if (!plotted.expression || plotted.variables.size() != 1) continue;
            double x = 0;
            if (!isPlainNumber(plain[0], x)) continue;
            reach = away;
            best = {plain[0],
                    spelled(*withBrackets(substitute(plotted.expression, plotted.variables[0], numberExpr(x))))};
        }
    }
    return best;
}

Point SheetView::snapped(Point mm, const ItemPath& of, bool snaps) {
    guides_.clear();
    if (!snaps || !figure_ || of.panel >= figure_->figure.panels.size()) return mm;
    const double reach = 5 / fit();
    Point result = mm;
    double nearX = reach, nearY = reach;
    for (const DrawnNote& other : figure_->figure.panels[of.panel].notes.drawn) {
        if (other.path == of) continue;
        for (const Point p : other.at) {
            if (std::abs(p.x - mm.x) < nearX) {
                nearX = std::abs(p.x - mm.x);
                result.x = p.x;
            }
            if (std::abs(p.y - mm.y) < nearY) {
                nearY = std::abs(p.y - mm.y);
                result.y = p.y;
            }
        }
    }
    if (nearX < reach) guides_.push_back({Point{result.x, 0}, Point{result.x, 1e4}});
    if (nearY < reach) guides_.push_back({Point{0, result.y}, Point{1e4, result.y}});
    return result;
}

void SheetView::setNotePlace(const ItemPath& path, std::size_t index, Point mm) {
    auto document = std::optional(session_.document());
    Note* note = noteAt(*document, path);
    if (!note || !figure_ || path.panel >= figure_->figure.panels.size()) return;
    const Frame& frame = figure_->figure.panels[path.panel].frame();
    if (!canBePlaced(*note, frame)) return;
    if (index < note->at.size()) {
        const NoteKind* kind = findNoteKind(note->kind);
        putNotePlace(*document, path, index,
                     index == 0 && kind && kind->showsPlace ? placeOnCurve(*note, path.panel, mm)
                                                            : placeAt(*note, frame, mm));
    } else if (const DrawnNote* shown = drawnNote(path)) { // turned about its middle
        Point middle;
        for (const Point p : shown->at) middle = moved(middle, p);
        const double count = static_cast<double>(shown->at.size());
        double degrees = std::atan2(middle.y / count - mm.y, mm.x - middle.x / count) * 180 / std::numbers::pi;
        const double quarter = std::round(degrees / 45) * 45;
        degrees = std::abs(degrees - quarter) < 3 ? quarter : std::round(degrees);
        set(note->settings, turnSetting, degrees);
    }
    session_.edit(std::move(*document), tr("change of a note"), "note");
}

void SheetView::moveNote(const ItemPath& path, const std::vector<Point>& from, Point by, const QString& mergeKey) {
    auto document = std::optional(session_.document());
    Note* note = noteAt(*document, path);
    if (!note || !figure_ || note->at.size() != from.size()) return;
    const Frame& frame = figure_->figure.panels[path.panel].frame();
    if (!canBePlaced(*note, frame)) return;
    for (std::size_t i = 0; i < from.size(); ++i) {
        // What is infinite stays so: it has no place to move from.
        const NotePlace before = note->at[i];
        NotePlace place = placeAt(*note, frame, moved(from[i], by));
        for (std::size_t k = 0; k < 2; ++k) {
            double value = 0;
            if (before[k].find("inf") != std::string::npos || before[k].find("∞") != std::string::npos ||
                (isPlainNumber(before[k], value) && std::isinf(value)))
                place[k] = before[k];
        }
        putNotePlace(*document, path, i, place);
        note = noteAt(*document, path);
    }
    session_.edit(std::move(*document), tr("move of a note"), mergeKey);
}

void SheetView::placeNote(const std::string& kind) {
    pendingNote_ = kind;
    setFocus();
    setCursor(Qt::CrossCursor);
    update();
}

ItemPath SheetView::addNote(const std::string& kind, std::size_t panel, Point mm, bool atPoint) {
    auto document = editable({ItemKind::Panel, panel, 0, 0});
    const NoteKind* found = findNoteKind(kind);
    if (!document || !found || !figure_ || panel >= figure_->figure.panels.size()) return {};
    const Frame& frame = figure_->figure.panels[panel].frame();
    Note note;
    note.kind = kind;
    // In space a place of the sheet is no place of the panel's.
    if (frame.space) set(note.settings, anchorSetting, std::string("panel"));
    for (const Point& p : found->usual) {
        const Point at = atPoint ? mm : moved(mm, p);
        note.at.push_back(note.at.empty() && found->showsPlace ? placeOnCurve(note, panel, at)
                                                               : placeAt(note, frame, at));
    }
    if (found->words) note.words = valuesToShow(*document);
    if (kind == "text") note.words = tr("Words").toStdString();
    std::vector<Note>& notes = document->panels[panel].notes;
    notes.push_back(std::move(note));
    const ItemPath path{ItemKind::Note, panel, notes.size() - 1, 0};
    session_.edit(std::move(*document), tr("new note"), "note");
    select(path);
    return path;
}

bool SheetView::pressOnNotes(Point mm, QPointF position) {
    if (corners_) { // one corner more
        ++corners_->placed;
        auto document = session_.document();
        Note* note = noteAt(document, corners_->path);
        const NoteKind* kind = note ? findNoteKind(note->kind) : nullptr;
        if (!kind || note->at.size() >= kind->mostPlaces) {
            finishCorners();
            return true;
        }
        if (corners_->placed >= note->at.size()) {
            note->at.push_back(note->at.back());
            session_.edit(std::move(document), tr("change of a note"), "note");
        }
        return true;
    }
    Drag drag;
    drag.start = position;
    if (pendingNote_) {
        const auto room = panelRoomAt(mm);
        if (!room) return false;
        const std::string kind = *std::exchange(pendingNote_, std::nullopt);
        const NoteKind* found = findNoteKind(kind);
        session_.endMerge();
        drag.path = addNote(kind, *room, mm, true);
        if (drag.path.kind != ItemKind::Note) return false;
        if (found->mostPlaces > 2) {
            corners_ = Corners{drag.path, 1};
            return true;
        }
        drag.isNew = true;
        drag.noteHandle = found->mostPlaces - 1;
        drag_ = std::move(drag);
        return true;
    }
    if (const auto handle = noteHandleAt(mm)) {
        drag.path = selection_;
        drag.noteHandle = handle;
    } else {
        const ItemPath item = itemAt(figure_->figure, mm, 6 / fit());
        const DrawnNote* note = drawnNote(item);
        if (!note) return false;
        select(item);
        drag.path = item;
        drag.noteAt = note->at;
    }
    drag_ = std::move(drag);
    session_.endMerge();
    return true;
}

void SheetView::dragNote(Point mm, QPointF by, bool snaps) {
    if (drag_->noteHandle) {
        const DrawnNote* note = drawnNote(drag_->path);
        const bool turns = note && *drag_->noteHandle >= note->at.size() && !drag_->isNew;
        setNotePlace(drag_->path, *drag_->noteHandle, turns ? mm : snapped(mm, drag_->path, snaps));
        return;
    }
    const Point first = drag_->noteAt[0], wanted = moved(first, {by.x() / fit(), by.y() / fit()});
    const Point at = snapped(wanted, drag_->path, snaps);
    moveNote(drag_->path, drag_->noteAt, {at.x - first.x, at.y - first.y}, "note");
}

void SheetView::releaseNote(const Drag& drag) {
    guides_.clear();
    if (!drag.isNew) return;
    const Note* note = noteAt(session_.document(), drag.path);
    if (!note) return;
    const NoteKind* kind = findNoteKind(note->kind);
    if (!drag.moved && kind->mostPlaces > 1) { // a click makes one of the usual size
        for (std::size_t i = 0; i < kind->usual.size(); ++i)
            setNotePlace(drag.path, i, moved(toSheet(drag.start), kind->usual[i]));
    }
    session_.endMerge();
    if (note->kind == "text") editText(drag.path);
}

void SheetView::moveCorner(Point mm) {
    auto document = session_.document();
    Note* note = noteAt(document, corners_->path);
    if (!note) {
        corners_.reset();
        return;
    }
    const Frame& frame = figure_->figure.panels[corners_->path.panel].frame();
    for (std::size_t i = corners_->placed; i < note->at.size(); ++i) note->at[i] = placeAt(*note, frame, mm);
    session_.edit(std::move(document), tr("change of a note"), "note");
}

void SheetView::finishCorners() {
    auto document = session_.document();
    const Corners corners = *std::exchange(corners_, std::nullopt);
    Note* note = noteAt(document, corners.path);
    const NoteKind* kind = note ? findNoteKind(note->kind) : nullptr;
    if (!kind) return;
    // The last click of two is where the one before it was.
    while (note->at.size() > std::max<std::size_t>(kind->leastPlaces, corners.placed) ||
           (note->at.size() > kind->leastPlaces && note->at.back() == note->at[note->at.size() - 2]))
        note->at.pop_back();
    session_.edit(std::move(document), tr("change of a note"), "note");
    session_.endMerge();
}

bool SheetView::noteKey(const QKeyEvent& event) {
    const bool enters = event.key() == Qt::Key_Return || event.key() == Qt::Key_Enter;
    if (event.key() == Qt::Key_Escape && (pendingNote_ || corners_)) {
        pendingNote_.reset();
        if (corners_) finishCorners();
        unsetCursor();
        return true;
    }
    if (enters && corners_) {
        finishCorners();
        return true;
    }
    if (enters && pendingNote_ && shownPanel()) { // by keys alone: in the middle
        const Rect& f = shownPanel()->frame().rect;
        const std::string kind = *std::exchange(pendingNote_, std::nullopt);
        const ItemPath path = addNote(kind, selection_.panel, {f.x + f.width / 2, f.y + f.height / 2}, false);
        session_.endMerge();
        if (kind == "text" && path.kind == ItemKind::Note) editText(path);
        return true;
    }
    const DrawnNote* note = drawnNote(selection_);
    if (!note) return false;
    const double step = event.modifiers() & Qt::ShiftModifier ? 0.1 : 1;
    switch (event.key()) {
    case Qt::Key_Left: moveNote(selection_, note->at, {-step, 0}, "note keys"); return true;
    case Qt::Key_Right: moveNote(selection_, note->at, {step, 0}, "note keys"); return true;
    case Qt::Key_Up: moveNote(selection_, note->at, {0, -step}, "note keys"); return true;
    case Qt::Key_Down: moveNote(selection_, note->at, {0, step}, "note keys"); return true;
    case Qt::Key_F2:
    case Qt::Key_Return:
    case Qt::Key_Enter: editText(selection_); return true;
    case Qt::Key_D:
        if (event.modifiers() & Qt::ControlModifier) copyNote(selection_);
        return true;
    default: return false;
    }
}

void SheetView::copyNote(const ItemPath& path) {
    auto document = editable(path);
    const Note* note = document ? noteAt(*document, path) : nullptr;
    const DrawnNote* shown = drawnNote(path);
    if (!note || !shown) return;
    const std::vector<Point> from = shown->at;
    document->panels[path.panel].notes.push_back(Note(*note));
    const ItemPath copy{ItemKind::Note, path.panel, document->panels[path.panel].notes.size() - 1, 0};
    session_.endMerge();
    session_.edit(std::move(*document), tr("copy of a note"), "copy");
    moveNote(copy, from, {3, 3}, "copy");
    session_.endMerge();
    select(copy);
}

void SheetView::removeNote(const ItemPath& path) {
    auto document = editable(path);
    if (!document || !noteAt(*document, path)) return;
    auto& notes = document->panels[path.panel].notes;
    notes.erase(notes.begin() + static_cast<std::ptrdiff_t>(path.index));
    select({});
    session_.edit(std::move(*document), tr("removal of a note"));
}

void SheetView::fillNoteMenu(QMenu& menu) {
    for (const NoteKind* kind : noteKinds()) {
        menu.addAction(spoken(kind->name), this, [this, kind] { placeNote(kind->name); })
            ->setToolTip(spoken(kind->meaning));
    }
    menu.setToolTipsVisible(true);
}

void SheetView::paintNoteMarks(QPainter& painter) const {
    const Look& look = look_.look();
    if (const DrawnNote* note = drawnNote(selection_)) {
        painter.setPen(QPen(look.accent(), 1.2));
        painter.setBrush(Qt::white);
        const std::vector<Point> handles = noteHandles(*note);
        for (std::size_t i = 0; i < handles.size(); ++i) {
            const QPointF at = toWidget(handles[i]);
            if (i < note->at.size())
                painter.drawRect(QRectF(at.x() - 3, at.y() - 3, 6, 6));
            else
                painter.drawEllipse(at, 3.5, 3.5);
        }
    }
    painter.setPen(QPen(look.accent(), 1, Qt::DashLine));
    for (const auto& guide : guides_) painter.drawLine(toWidget(guide[0]), toWidget(guide[1]));
    if (!pendingNote_ && !corners_) return;
    const QString hint = corners_
                             ? tr("Click for each corner; Enter or a double click ends it")
                             : tr("Press where the note is to be and drag; Enter puts it in the middle, Esc ends this");
    const QRect strip(look.px(rulerWidth), look.px(rulerWidth), width() - look.px(rulerWidth),
                      QFontMetrics(font()).height() + look.px(8));
    painter.fillRect(strip, look.faintAccent());
    painter.setPen(look.ink());
    painter.drawText(strip.adjusted(look.px(8), 0, -look.px(8), 0), Qt::AlignVCenter, hint);
}

} // namespace coulter
