// The lines of the formula page as things: selected, moved, folded, cut and pasted, numbers stepped and dragged. See
// formula_page.h.
#include "desktop/formula_page.h"
#include "figure/edits.h"
#include "formula/base/text.h"
#include "plots/page_edits.h"

#include <QApplication>
#include <QClipboard>
#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QRegularExpression>
#include <QScrollBar>
#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr double pixelsPerStep = 5; // of dragging, for one step of the last digit

/// The number of a quantity that can be dragged, with a plain minus sign.
std::string numberOf(const Line& quantity) {
    const std::u32string letters = decodeUtf8(quantity.source);
    std::string number;
    for (int i = quantity.plainNumber->first - 1; i < quantity.plainNumber->last; ++i) {
        const char32_t c = letters[static_cast<std::size_t>(i)];
        if (!isSpace(c)) number += c == U'−' ? "-" : encodeUtf8(std::u32string(1, c));
    }
    return number;
}

} // namespace

bool FormulaPage::foldable(int line) const {
    const auto& lines = page_.lines;
    const auto next = static_cast<std::size_t>(line) + 1;
    return line >= 0 && next < lines.size() && lines[static_cast<std::size_t>(line)].kind == LineKind::Prose &&
           lines[next].kind != LineKind::Prose;
}

bool FormulaPage::isFolded(int line) const {
    return foldable(line) && folded_.contains(page_.lines[static_cast<std::size_t>(line)].source);
}

void FormulaPage::fold(int line, bool folded) {
    if (!foldable(line)) return;
    const std::string& source = page_.lines[static_cast<std::size_t>(line)].source;
    if (folded)
        folded_.insert(source);
    else
        folded_.erase(source);
    rebuild();
}

std::vector<bool> FormulaPage::hiddenLines() const {
    std::vector<bool> hidden(page_.lines.size(), false);
    bool inBlock = false;
    for (std::size_t i = 0; i < hidden.size(); ++i) {
        if (page_.lines[i].kind == LineKind::Prose)
            inBlock = isFolded(static_cast<int>(i));
        else
            hidden[i] = inBlock && static_cast<int>(i) != editing_;
    }
    return hidden;
}

std::pair<int, int> FormulaPage::selectedLines() const {
    if (selected_ < 0) return {0, -1};
    const int other = anchor_ < 0 ? selected_ : anchor_;
    int last = std::max(selected_, other);
    // What is folded away belongs to its line of prose, wherever that goes.
    const std::vector<bool> hidden = hiddenLines();
    while (last + 1 < static_cast<int>(hidden.size()) && hidden[static_cast<std::size_t>(last) + 1]) ++last;
    return {std::min(selected_, other), last};
}

void FormulaPage::selectLine(int index, bool extending) {
    selected_ = index;
    if (!extending) anchor_ = index;
    if (index >= 0 && index < static_cast<int>(rows_.size())) {
        const QRect rect = lineRect(index);
        if (rect.top() < 0) verticalScrollBar()->setValue(verticalScrollBar()->value() + rect.top());
        if (rect.bottom() > viewport()->height())
            verticalScrollBar()->setValue(verticalScrollBar()->value() + rect.bottom() - viewport()->height());
        setAccessibleDescription(QString::fromStdString(page_.lines[static_cast<std::size_t>(index)].source));
    }
    viewport()->update();
    emit lineSelected(index);
}

void FormulaPage::copyLines() const {
    QStringList text;
    const auto [first, last] = selectedLines();
    for (int i = first; i <= last && i < static_cast<int>(session_.document().page.size()); ++i)
        text << QString::fromStdString(session_.document().page[static_cast<std::size_t>(i)]);
    if (!text.isEmpty()) QApplication::clipboard()->setText(text.join('\n') + '\n');
}

void FormulaPage::removeLines(const QString& what) {
    const auto [first, last] = selectedLines();
    if (first > last || first >= static_cast<int>(session_.document().page.size())) return;
    session_.edit(withoutLines(session_.document(), static_cast<std::size_t>(first), static_cast<std::size_t>(last)),
                  what);
    selectLine(std::min(first, static_cast<int>(session_.document().page.size()) - 1));
}

void FormulaPage::moveLines(int by) {
    const auto [first, last] = selectedLines();
    if (first > last || by == 0) return;
    const int size = static_cast<int>(session_.document().page.size());
    const auto isProse = [&](int line) { return page_.lines[static_cast<std::size_t>(line)].kind == LineKind::Prose; };
    if (isFolded(first) && std::abs(by) == 1) { // a folded block steps over whole blocks, so that it takes nothing in
        int border = by > 0 ? last + 2 : first - 1;
        while (border > 0 && border < size && !isProse(border)) border += by;
        by = by > 0 ? std::min(border, size) - 1 - last : border - first;
    }
    by = std::clamp(by, -first, size - 1 - last);
    session_.edit(
        withMovedLines(session_.document(), static_cast<std::size_t>(first), static_cast<std::size_t>(last), by),
        tr("move of lines"), "move lines");
    selected_ += by;
    anchor_ += by;
    viewport()->update();
}

void FormulaPage::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    const int line = rowAt(event->pos().y());
    if (line >= 0 && line != editing_ && numberRect(line).adjusted(-2, -2, 2, 2).contains(event->pos())) {
        if (editing_ >= 0) finishEditing(true);
        const Line& quantity = page_.lines[static_cast<std::size_t>(line)];
        scrub_ = Scrub{line, quantity.name, numberOf(quantity), quantity.range, event->position().x(), false};
        emit scrubbing(true);
        session_.endMerge();
        selectLine(line);
        return;
    }
    if (line >= 0 && foldable(line) && event->pos().x() < look_.look().px(18)) return fold(line, !isFolded(line));
    press_ = Press{line, event->pos(), false};
}

void FormulaPage::endPress(const QMouseEvent& event) {
    const Press press = *std::exchange(press_, std::nullopt);
    viewport()->update();
    if (!press.moving) {
        if (press.line < 0) return editLine(static_cast<int>(session_.document().page.size()));
        if (event.modifiers() & Qt::ShiftModifier && editing_ < 0) return selectLine(press.line, true);
        return editLine(press.line);
    }
    const auto [first, last] = selectedLines();
    const int target = rowAt(event.pos().y()), size = static_cast<int>(session_.document().page.size());
    const int before = target < 0 ? size : target;
    if (before < first) moveLines(before - first);
    if (before > last + 1) moveLines(before - 1 - last);
    session_.endMerge();
}

void FormulaPage::mouseMoveEvent(QMouseEvent* event) {
    if (scrub_) {
        const bool fine = event->modifiers() & Qt::ShiftModifier;
        const double steps = (event->position().x() - scrub_->startX) / pixelsPerStep;
        const std::string number = scrubbedNumber(scrub_->number, steps, fine, scrub_->range);
        if (const auto changed = withQuantity(session_.document(), scrub_->name, number)) {
            session_.edit(*changed, tr("change of %1").arg(QString::fromStdString(scrub_->name)),
                          "scrub " + QString::fromStdString(scrub_->name));
        }
        return;
    }
    if (press_ && press_->line >= 0 && event->buttons() & Qt::LeftButton) {
        // A line that is pulled up or down goes along; several do if it is one of those selected.
        const QRect place = lineRect(press_->line);
        if (!press_->moving && !place.adjusted(0, -6, 0, 6).contains(event->pos())) {
            if (editing_ >= 0) finishEditing(true);
            const auto [first, last] = selectedLines();
            if (press_->line < first || press_->line > last) selectLine(press_->line);
            press_->moving = true;
            setFocus();
        }
        press_->at = event->pos();
        viewport()->setCursor(press_->moving ? Qt::ClosedHandCursor : Qt::IBeamCursor);
        viewport()->update();
        return;
    }
    const int line = rowAt(event->pos().y());
    const bool onNumber =
        line >= 0 && line != editing_ && numberRect(line).adjusted(-2, -2, 2, 2).contains(event->pos());
    viewport()->setCursor(onNumber ? Qt::SizeHorCursor : line >= 0 ? Qt::IBeamCursor : Qt::ArrowCursor);
    QString tip;
    if (onNumber) {
        tip = tr("Drag to change; with Shift in finer steps");
        const Line& quantity = page_.lines[static_cast<std::size_t>(line)];
        if (quantity.range) {
            tip += tr("; from %1 to %2")
                       .arg(QString::fromStdString(shortestNumber(quantity.range->low)),
                            QString::fromStdString(shortestNumber(quantity.range->high)));
        }
    }
    viewport()->setToolTip(tip);
}

void FormulaPage::mouseReleaseEvent(QMouseEvent* event) {
    if (press_) return endPress(*event);
    if (!scrub_) return;
    const bool moved = std::abs(event->position().x() - scrub_->startX) >= 1;
    const int line = scrub_->line;
    scrub_.reset();
    emit scrubbing(false);
    session_.endMerge();
    if (!moved) editLine(line); // a click without dragging edits the line
}

void FormulaPage::stepNumber(int line, double steps, bool fine) {
    if (line < 0 || line >= static_cast<int>(page_.lines.size())) return;
    const Line& quantity = page_.lines[static_cast<std::size_t>(line)];
    if (!quantity.plainNumber) return;
    if (const auto changed = withQuantity(session_.document(), quantity.name,
                                          scrubbedNumber(numberOf(quantity), steps, fine, quantity.range))) {
        session_.edit(*changed, tr("change of %1").arg(QString::fromStdString(quantity.name)),
                      "step " + QString::fromStdString(quantity.name));
    }
}

/// Of the line under the pointer, or of the selected one where a key asks for it.
void FormulaPage::contextMenuEvent(QContextMenuEvent* event) {
    const bool isKey = event->reason() == QContextMenuEvent::Keyboard;
    const int line = isKey ? selected_ : rowAt(viewport()->mapFrom(this, event->pos()).y());
    if (line < 0) return;
    if (editing_ >= 0 && line != editing_) finishEditing(true);
    const auto [first, last] = selectedLines();
    if (line < first || line > last) selectLine(line);
    const QPoint below = viewport()->mapToGlobal(lineRect(line).bottomLeft() + QPoint(look_.look().px(40), 0));
    emit menuWanted(isKey ? below : event->globalPos());
}

void FormulaPage::keyPressEvent(QKeyEvent* event) {
    const int last = static_cast<int>(rows_.size()) - 1;
    const bool control = event->modifiers() & Qt::ControlModifier, shift = event->modifiers() & Qt::ShiftModifier,
               alt = event->modifiers() & Qt::AltModifier;
    if (event->matches(QKeySequence::Copy)) return copyLines();
    if (event->matches(QKeySequence::Cut)) {
        copyLines();
        return removeLines(tr("cut of lines"));
    }
    if (event->matches(QKeySequence::Paste)) {
        const QString text = QApplication::clipboard()->text();
        if (text.contains('\t') && text.trimmed().contains('\n')) return emit tablePasted(text);
        const QStringList lines = text.split(QRegularExpression("\\r?\\n"), Qt::SkipEmptyParts);
        const int at = selected_ < 0 ? last + 1 : selectedLines().second + 1;
        if (!lines.isEmpty()) insertLines(lines, static_cast<std::size_t>(at), session_.document());
        return;
    }
    const auto step = [&](int by) { // over what is folded away
        const std::vector<bool> hidden = hiddenLines();
        int at = selected_ + by;
        while (at > 0 && at < last && hidden[static_cast<std::size_t>(at)]) at += by;
        at = std::clamp(at, 0, std::max(0, last));
        if (last >= 0 && !hidden[static_cast<std::size_t>(at)]) selectLine(at, shift);
    };
    switch (event->key()) {
    case Qt::Key_Up:
    case Qt::Key_Down: {
        const bool up = event->key() == Qt::Key_Up;
        if (alt) return moveLines(up ? -1 : 1);
        if (control) return stepNumber(selected_, up ? 1 : -1, shift);
        return step(up ? -1 : 1);
    }
    case Qt::Key_Left:
    case Qt::Key_Right: return fold(selected_, event->key() == Qt::Key_Left);
    case Qt::Key_Return:
    case Qt::Key_Enter:
    case Qt::Key_F2: return editLine(selected_ < 0 ? last + 1 : selected_);
    case Qt::Key_Space: return emit runWanted(selected_);
    case Qt::Key_Escape: emit runEndWanted(false); break;
    case Qt::Key_Delete: return removeLines(tr("removal of line %1").arg(selectedLines().first + 1));
    default: break;
    }
    // What is typed without a line being open starts one.
    const QString text = event->text();
    if (!control && !alt && !text.isEmpty() && text[0].isPrint() && !text[0].isSpace()) return addLine(text);
    QAbstractScrollArea::keyPressEvent(event);
}

} // namespace coulter
