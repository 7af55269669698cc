#include "desktop/formula_page.h"

#include "drawing/cairo_painter.h"
#include "figure/edits.h"
#include "formula/text.h"
#include "plots/page_edits.h"
#include "typeset/formula_math.h"

#include <QApplication>
#include <QClipboard>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QRegularExpression>
#include <QScrollBar>
#include <QToolTip>
#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr double margin = 5;        // mm at the left and right edge
constexpr double indent = 6;        // mm before an equation
constexpr double whereWidth = 13;   // mm for "where"
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

FormulaPage::FormulaPage(DocumentSession& session, const LookSettings& look, QWidget* parent)
    : QAbstractScrollArea(parent), session_(session), look_(look), editor_(new LineEditor(look, viewport())) {
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setMouseTracking(true);
    viewport()->setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Formula page"));
    setObjectName("formulaPage");
    editor_->hide();
    connect(editor_, &LineEditor::edited, this, &FormulaPage::typed);
    connect(editor_, &LineEditor::committed, this, [this] {
        const bool empty = editor_->text().trimmed().isEmpty();
        const int line = editing_, next = finishEditing(true);
        if (!empty) return editNewLine(next);
        setFocus(); // an empty line ends writing
        selectLine(std::min(line, static_cast<int>(session_.document().page.size())) - 1);
    });
    connect(editor_, &LineEditor::takenOnly, this, [this] {
        const int line = editing_;
        finishEditing(true);
        setFocus();
        selectLine(std::min(line, static_cast<int>(session_.document().page.size()) - 1));
    });
    connect(editor_, &LineEditor::remedyWanted, this, &FormulaPage::takeRemedy);
    connect(editor_, &LineEditor::leftBackwards, this, [this] {
        const int line = editing_;
        if (line == 0) return;
        finishEditing(true);
        editLine(line - 1);
    });
    connect(editor_, &LineEditor::severalPasted, this, [this](const QStringList& lines) {
        const int line = editing_;
        const bool empty = editor_->text().trimmed().isEmpty();
        const int next = finishEditing(true);
        insertLines(lines, static_cast<std::size_t>(empty ? line : next), session_.document());
    });
    connect(editor_, &LineEditor::cancelled, this, [this] {
        finishEditing(false);
        setFocus();
    });
    connect(editor_, &LineEditor::leftUpwards, this, [this] {
        const int line = editing_;
        finishEditing(true);
        if (line > 0) editLine(line - 1);
    });
    connect(editor_, &LineEditor::leftDownwards, this, [this] {
        const int next = finishEditing(true);
        if (next < static_cast<int>(session_.document().page.size())) editLine(next);
    });
    connect(editor_, &LineEditor::sizeChanged, this, &FormulaPage::placeEditor);
    connect(&session_, &DocumentSession::shownChanged, this, &FormulaPage::rebuild);
    connect(&look_, &LookSettings::changed, this, &FormulaPage::rebuild);
    rebuild();
}

double FormulaPage::dots() const { return screenDots * look_.look().scale; }

std::vector<TypesetBox> FormulaPage::wrapped(const std::string& text, double width, Ink ink, double size) const {
    std::vector<TypesetBox> lines;
    std::string line;
    std::size_t at = 0;
    while (at < text.size()) {
        const std::size_t end = std::min(text.find(' ', at), text.size());
        const std::string word = text.substr(at, end - at);
        const std::string longer = line.empty() ? word : line + " " + word;
        if (!line.empty() && textBox(longer, FontId::Text, size).width > width) {
            lines.push_back(textBox(line, FontId::Text, size, ink));
            line = word;
        } else {
            line = longer;
        }
        at = end + 1;
    }
    lines.push_back(textBox(line, FontId::Text, size, ink));
    return lines;
}

std::vector<TypesetBox> FormulaPage::broken(const Line& line, double room, double hanging) const {
    const std::vector<MathPtr> terms = lineTerms(line);
    std::vector<MathPtr> together;
    std::vector<TypesetBox> boxes;
    const auto flush = [&] {
        if (together.empty()) return;
        const double wide = boxes.empty() ? room : room - hanging;
        TypesetBox box = layoutMath(*mathRow(together), formulaSize);
        // A single term that is wider than the page is set smaller: nothing is ever cut.
        if (box.width > wide)
            box = layoutMath(*mathRow(together), formulaSize * std::max(0.3, 0.99 * wide / box.width));
        boxes.push_back(std::move(box));
        together.clear();
    };
    for (const MathPtr& term : terms) {
        std::vector<MathPtr> longer = together;
        longer.push_back(term);
        if (!together.empty() &&
            layoutMath(*mathRow(longer), formulaSize).width > (boxes.empty() ? room : room - hanging))
            flush();
        together.push_back(term);
    }
    flush();
    return boxes;
}

FormulaPage::Row FormulaPage::makeRow(int index, double width, int& equation, bool& afterEquation) const {
    const Line& line = page_.lines[static_cast<std::size_t>(index)];
    Row row;
    row.line = index;
    row.left = margin;
    const double small = 0.82 * formulaSize;
    MathPtr math = lineMath(line);
    if (line.kind == LineKind::Prose) {
        const auto start = line.source.find_first_not_of("# \t");
        row.boxes = wrapped(start == std::string::npos ? "" : line.source.substr(start), width - 2 * margin, Ink::Plain,
                            0.92 * formulaSize);
        if (isFolded(index)) row.boxes.push_back(textBox("folded away", FontId::TextItalic, small, Ink::Muted));
        afterEquation = false;
    } else if (!math) {
        row.boxes = wrapped(line.source, width - 2 * margin - indent, Ink::Plain, small);
        row.left = margin + indent;
        if (line.kind == LineKind::Function) afterEquation = true;
    } else {
        TypesetBox box = layoutMath(*math, formulaSize);
        const bool isEquation =
            line.kind == LineKind::Function || line.kind == LineKind::Question || line.kind == LineKind::Period;
        if (isEquation) {
            row.left = margin + indent;
            if (line.kind == LineKind::Function)
                row.after = textBox("(" + std::to_string(++equation) + ")", FontId::Text, small, Ink::Muted);
            afterEquation = true;
        } else {
            row.left = margin + indent + whereWidth;
            if (afterEquation && line.kind == LineKind::Quantity)
                row.before = textBox("where", FontId::TextItalic, small, Ink::Muted);
            if (line.kind == LineKind::Variable) row.before = textBox("for", FontId::TextItalic, small, Ink::Muted);
            if (line.kind == LineKind::Quantity) afterEquation = false;
        }
        const double room = width - row.left - margin - (row.after.width > 0 ? row.after.width + 2 : 0);
        if (box.width > room) {
            row.hanging = indent;
            row.boxes = broken(line, room, row.hanging);
            box = row.boxes.front();
        }
        row.number = extentOf(box, Ink::Number);
        if (!line.label.empty() && !isEquation) {
            row.aside = textBox(line.label, FontId::Text, 0.9 * small, Ink::Muted);
            if (row.left + box.width + 3 + row.aside.width > width - margin) row.aside = {};
        }
        if (row.boxes.empty()) row.boxes = {std::move(box)};
    }
    double drop = 0;
    for (std::size_t k = 0; k < row.boxes.size(); ++k) {
        if (k > 0)
            drop += std::max(1.2 * formulaSize, row.boxes[k - 1].descent + row.boxes[k].ascent + 0.25 * formulaSize);
        row.drops.push_back(drop);
    }
    for (const Problem& problem : line.problems) {
        if (problem.severity != Problem::Severity::Error) continue;
        row.problem = wrapped(problem.sentence, width - row.left - margin, Ink::Answer, 0.75 * formulaSize).front();
        break;
    }
    return row;
}

void FormulaPage::rebuild() {
    page_ = readPage(session_.shown().page);
    rows_.clear();
    const double width = viewport()->width() / dots();
    double top = look_.look().px(14);
    int equation = 0;
    bool afterEquation = false;
    const std::vector<bool> hidden = hiddenLines();
    for (int i = 0; i < static_cast<int>(page_.lines.size()); ++i) {
        Row row = makeRow(i, width, equation, afterEquation); // equations are counted, folded away or not
        row.top = top;
        if (hidden[static_cast<std::size_t>(i)]) {
            row = Row{};
            row.line = i;
            row.top = top;
            rows_.push_back(std::move(row));
            continue;
        }
        const bool tight = page_.lines[static_cast<std::size_t>(i)].kind == LineKind::Quantity ||
                           page_.lines[static_cast<std::size_t>(i)].kind == LineKind::Variable;
        const double pad = tight ? 1.0 : 1.9;
        double mm = pad;
        row.baseline = 0;
        if (!row.boxes.empty()) {
            row.baseline = mm + std::max(row.boxes[0].ascent, 0.72 * formulaSize);
            mm = row.baseline + row.drops.back() + std::max(row.boxes.back().descent, 0.35 * formulaSize);
        }
        if (row.problem.width > 0) mm += row.problem.height() + 0.4;
        row.height = (mm + pad) * dots();
        if (editing_ == i) row.height = editor_->wantedHeight();
        top += row.height;
        rows_.push_back(std::move(row));
    }
    contentHeight_ = top + look_.look().px(60);
    verticalScrollBar()->setPageStep(viewport()->height());
    verticalScrollBar()->setSingleStep(look_.look().px(24));
    verticalScrollBar()->setRange(0, std::max(0, static_cast<int>(contentHeight_) - viewport()->height()));
    if (editing_ >= 0 && editing_ < static_cast<int>(page_.lines.size()))
        editor_->showReading(page_.lines[static_cast<std::size_t>(editing_)]);
    placeEditor();
    viewport()->update();
}

void FormulaPage::placeEditor() {
    if (editing_ < 0 || editing_ >= static_cast<int>(rows_.size())) return;
    const int wanted = editor_->wantedHeight();
    Row& row = rows_[static_cast<std::size_t>(editing_)];
    if (std::abs(row.height - wanted) >= 1) {
        const double more = wanted - row.height;
        row.height = wanted;
        for (std::size_t i = static_cast<std::size_t>(editing_) + 1; i < rows_.size(); ++i) rows_[i].top += more;
        contentHeight_ += more;
        verticalScrollBar()->setRange(0, std::max(0, static_cast<int>(contentHeight_) - viewport()->height()));
    }
    editor_->setGeometry(0, static_cast<int>(row.top) - verticalScrollBar()->value(), viewport()->width(), wanted);
    viewport()->update();
}

void FormulaPage::paintEvent(QPaintEvent*) {
    const Look& look = look_.look();
    const int scroll = verticalScrollBar()->value();
    Scene scene;
    scene.width = viewport()->width() / dots();
    scene.height = viewport()->height() / dots();
    for (const Row& row : rows_) {
        if (row.top + row.height < scroll || row.top > scroll + viewport()->height() || row.line == editing_ ||
            row.height == 0)
            continue;
        const double y = (row.top - scroll) / dots();
        const double first = y + row.baseline;
        const double baseline = first + (row.drops.empty() ? 0 : row.drops.back());
        addInked(scene, row.before, margin + indent, first, look);
        for (std::size_t k = 0; k < row.boxes.size(); ++k) {
            addInked(scene, row.boxes[k], row.left + (k > 0 ? row.hanging : 0), first + row.drops[k], look);
        }
        if (!row.boxes.empty()) addInked(scene, row.aside, row.left + row.boxes[0].width + 3, y + row.baseline, look);
        addInked(scene, row.after, scene.width - margin - row.after.width, baseline, look);
        if (row.problem.width > 0) {
            const double below =
                baseline + (row.boxes.empty() ? 0 : row.boxes.back().descent) + 0.4 + row.problem.ascent;
            addBox(scene, row.problem, row.left, below, toColour(look.wrong()));
        }
    }
    if (rows_.empty()) {
        addInked(scene,
                 textBox("Type a formula, such as f(x) = sin(x)/x", FontId::TextItalic, 0.85 * formulaSize, Ink::Muted),
                 margin, 10, look);
    }
    const double ratio = devicePixelRatioF();
    const Raster raster = paintRaster(scene, dots() * ratio, toColour(look.page()));
    QImage image(reinterpret_cast<const uchar*>(raster.pixels.data()), raster.width, raster.height, raster.width * 4,
                 QImage::Format_RGB32);
    image.setDevicePixelRatio(ratio);
    QPainter painter(viewport());
    painter.fillRect(viewport()->rect(), look.page());
    painter.drawImage(QPointF(0, 0), image);
    // Numbers that can be dragged stand on a dotted line; the selected line has a bar at its side.
    painter.setPen(QPen(look.accent(), 1, Qt::DotLine));
    for (const Row& row : rows_) {
        const QRect number = numberRect(row.line);
        if (row.line != editing_ && !number.isEmpty()) painter.drawLine(number.bottomLeft(), number.bottomRight());
        const auto [first, last] = selectedLines();
        if (row.line >= first && row.line <= last && row.line != editing_) {
            painter.fillRect(QRectF(0, row.top - scroll, look.px(3), row.height),
                             hasFocus() ? look.accent() : look.hairline());
        }
        // A line of prose has a corner that folds its block.
        if (row.height > 0 && foldable(row.line) && row.line != editing_) {
            const double x = look.px(10), y = row.top - scroll + row.baseline * dots() - look.px(5);
            painter.setBrush(look.muted());
            painter.setPen(Qt::NoPen);
            painter.setRenderHint(QPainter::Antialiasing);
            const double r = look.px(3);
            if (isFolded(row.line))
                painter.drawPolygon(QPolygonF{{x - r, y - r}, {x + r, y}, {x - r, y + r}});
            else
                painter.drawPolygon(QPolygonF{{x - r, y - r}, {x + r, y - r}, {x, y + r}});
            painter.setPen(QPen(look.accent(), 1, Qt::DotLine));
        }
    }
    if (press_ && press_->moving) { // where the lines would go
        const int target = rowAt(press_->at.y());
        const QRect place = target >= 0 ? lineRect(target) : QRect(0, static_cast<int>(contentHeight_), 1, 1);
        painter.setPen(QPen(look.accent(), 2));
        painter.drawLine(0, place.top(), viewport()->width(), place.top());
    }
}

QRect FormulaPage::lineRect(int line) const {
    if (line < 0 || line >= static_cast<int>(rows_.size())) return {};
    const Row& row = rows_[static_cast<std::size_t>(line)];
    return {0, static_cast<int>(row.top) - verticalScrollBar()->value(), viewport()->width(),
            static_cast<int>(row.height)};
}

QRect FormulaPage::numberRect(int line) const {
    if (line < 0 || line >= static_cast<int>(rows_.size())) return {};
    const Row& row = rows_[static_cast<std::size_t>(line)];
    if (row.number.right <= row.number.left) return {};
    const double scale = dots();
    const double y = row.top - verticalScrollBar()->value() + row.baseline * scale;
    return QRectF((row.left + row.number.left) * scale, y - 0.75 * formulaSize * scale,
                  (row.number.right - row.number.left) * scale, 1.05 * formulaSize * scale)
        .toAlignedRect();
}

void FormulaPage::resizeEvent(QResizeEvent*) { rebuild(); }
void FormulaPage::scrollContentsBy(int, int) { placeEditor(); }
void FormulaPage::focusInEvent(QFocusEvent* event) {
    QAbstractScrollArea::focusInEvent(event);
    if (selected_ < 0 && !rows_.empty()) selectLine(0);
    viewport()->update();
}

int FormulaPage::rowAt(int y) const {
    for (const Row& row : rows_) {
        const double top = row.top - verticalScrollBar()->value();
        if (y >= top && y < top + row.height) return row.line;
    }
    return -1;
}

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
    return {std::min(selected_, other), std::max(selected_, other)};
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

void FormulaPage::editLine(int index, int cursor) {
    if (editing_ >= 0) finishEditing(true);
    const auto& lines = session_.document().page;
    if (index < 0 || index >= static_cast<int>(lines.size())) return editNewLine(static_cast<int>(lines.size()));
    addsLine_ = false;
    editing_ = index;
    begin(QString::fromStdString(lines[static_cast<std::size_t>(index)]), cursor);
}

void FormulaPage::editNewLine(int index, const QString& text) {
    if (editing_ >= 0) finishEditing(true);
    addsLine_ = true;
    editing_ = std::clamp(index, 0, static_cast<int>(session_.document().page.size()));
    begin(text, -1);
}

void FormulaPage::begin(const QString& text, int cursor) {
    selected_ = anchor_ = editing_;
    editor_->resize(viewport()->width(), editor_->height());
    editor_->begin(text, cursor);
    editor_->show();
    typed(text);
    const QRect rect = lineRect(editing_);
    if (rect.bottom() > viewport()->height())
        verticalScrollBar()->setValue(verticalScrollBar()->value() + rect.bottom() - viewport()->height());
    editor_->setFocus();
    emit lineSelected(editing_);
}

void FormulaPage::addLine(const QString& text) {
    const int size = static_cast<int>(session_.document().page.size());
    const int below = editing_ >= 0 ? finishEditing(true) : selected_ < 0 ? size : selectedLines().second + 1;
    editNewLine(below, text);
}

Document FormulaPage::withTyped(const std::string& text) const {
    const auto line = static_cast<std::size_t>(editing_);
    return addsLine_ ? withInsertedLine(session_.document(), line, text) : withLine(session_.document(), line, text);
}

void FormulaPage::typed(const QString& text) {
    if (editing_ < 0) return;
    session_.preview(withTyped(text.toStdString()));
    emit lineSelected(editing_);
    editor_->offerNames(page_);
}

/// The remedy of the problem that is shown: characters of this line replaced, or a further line put below.
void FormulaPage::takeRemedy() {
    if (editing_ < 0 || editing_ >= static_cast<int>(page_.lines.size())) return;
    for (const Problem& problem : page_.lines[static_cast<std::size_t>(editing_)].problems) {
        if (!problem.remedy) continue;
        const Remedy remedy = *problem.remedy;
        const std::u32string letters = decodeUtf8(editor_->text().toStdString());
        if (remedy.first > 0) {
            const auto first = std::min(letters.size(), static_cast<std::size_t>(remedy.first - 1)),
                       last = std::min(letters.size(), static_cast<std::size_t>(remedy.last));
            const std::string before = encodeUtf8(std::u32string_view(letters).substr(0, first)) + remedy.text;
            const std::string after = encodeUtf8(std::u32string_view(letters).substr(last));
            const QString text = QString::fromStdString(before + after);
            editor_->begin(text, static_cast<int>(QString::fromStdString(before).size()));
            return typed(text);
        }
        // The line that is being written stays open; what it needs stands below it.
        Document document = session_.document();
        document.page.insert(document.page.begin() + editing_ + (addsLine_ ? 0 : 1), remedy.text);
        session_.edit(std::move(document), tr("new line"));
        return typed(editor_->text());
    }
}

void FormulaPage::insertLines(const QStringList& lines, std::size_t at, const Document& document) {
    std::vector<std::string> texts;
    for (const QString& line : lines) texts.push_back(line.trimmed().toStdString());
    std::size_t next = 0;
    session_.edit(withInsertedLines(document, at, texts, next), tr("%1 new lines").arg(lines.size()));
    session_.endMerge();
    setFocus();
    selectLine(static_cast<int>(next) - 1);
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
    by = std::clamp(by, -first, size - 1 - last);
    session_.edit(
        withMovedLines(session_.document(), static_cast<std::size_t>(first), static_cast<std::size_t>(last), by),
        tr("move of lines"), "move lines");
    selected_ += by;
    anchor_ += by;
    viewport()->update();
}

void FormulaPage::insertText(const QString& text) {
    if (editing_ < 0) addLine();
    editor_->insert(text);
    activateWindow(); // what is inserted comes from another window, too
    editor_->setFocus();
}

void FormulaPage::commitEditing() {
    if (editing_ >= 0) finishEditing(true);
}

int FormulaPage::finishEditing(bool take) {
    if (editing_ < 0) return -1;
    editor_->hide();
    const std::string text = editor_->text().toStdString();
    const bool empty = text.find_first_not_of(" \t") == std::string::npos, added = addsLine_;
    const auto line = static_cast<std::size_t>(editing_);
    std::optional<Document> changed;
    if (take && !empty) changed = withTyped(text);
    if (take && empty && !added) changed = withoutLine(session_.document(), line);
    const std::size_t before = session_.document().page.size();
    editing_ = -1;
    addsLine_ = false;
    if (!changed) {
        session_.preview(std::nullopt);
        rebuild();
        return static_cast<int>(line) + (added ? 0 : 1);
    }
    const std::size_t further = changed->page.size() - std::min(changed->page.size(), before + (added ? 1 : 0));
    session_.edit(std::move(*changed), added ? tr("new line") : tr("change of line %1").arg(line + 1), "new line");
    session_.endMerge();
    rebuild();
    return static_cast<int>(line + (empty ? 0 : 1) + further);
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
        const QStringList lines =
            QApplication::clipboard()->text().split(QRegularExpression("\\r?\\n"), Qt::SkipEmptyParts);
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
    case Qt::Key_Delete: return removeLines(tr("removal of line %1").arg(selectedLines().first + 1));
    default: break;
    }
    // What is typed without a line being open starts one.
    const QString text = event->text();
    if (!control && !alt && !text.isEmpty() && text[0].isPrint() && !text[0].isSpace()) return addLine(text);
    QAbstractScrollArea::keyPressEvent(event);
}

} // namespace coulter
