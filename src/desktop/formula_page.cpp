#include "desktop/formula_page.h"
#include "desktop/translation.h"

#include "drawing/cairo_painter.h"
#include "formula/lines/answer.h"
#include "formula/lines/read_page.h"
#include "formula/lines/value_bounds.h"
#include "typeset/answer_math.h"
#include "typeset/formula_math.h"

#include <QPainter>
#include <QScrollBar>
#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr double margin = 5;      // mm at the left and right edge
constexpr double indent = 6;      // mm before an equation
constexpr double whereWidth = 13; // mm for "where"

Line withoutUnit(Line line) {
    line.unit.clear();
    return line;
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
    connect(&session_, &DocumentSession::shownChanged, this, &FormulaPage::follow);
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

std::vector<TypesetBox> FormulaPage::broken(const Line& line, const MathPtr& worth, double room, double hanging) const {
    std::vector<MathPtr> terms = lineTerms(line);
    if (worth) terms.push_back(worth);
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
    // Behind a formula stands what it is worth, with its unit.
    const MathPtr worth = look_.look().values ? worthMath(line, errorOfQuantity(page_, line)) : nullptr;
    const Line bare = worth ? withoutUnit(line) : Line{};
    const Line& formula = worth ? bare : line;
    MathPtr math = lineMath(formula);
    if (math && worth) math = mathRow({math, worth});
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
        if (line.isAssumed) { // said quietly: it gives way to the first line that says otherwise
            for (PlacedGlyph& glyph : box.glyphs) {
                if (glyph.ink != Ink::Number) glyph.ink = Ink::Muted;
            }
            for (PlacedRule& rule : box.rules) rule.ink = Ink::Muted;
        }
        const bool isEquation = line.kind == LineKind::Function || line.kind == LineKind::Question ||
                                line.kind == LineKind::Period || line.kind == LineKind::Drawn;
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
            row.boxes = broken(formula, worth, room, row.hanging);
            box = row.boxes.front();
        }
        row.number = extentOf(box, Ink::Number);
        if (!line.label.empty() && !isEquation) {
            row.aside = textBox(line.label, FontId::Text, 0.9 * small, Ink::Muted);
        } else if (const MathPtr extent = look_.look().values ? extentMath(line) : nullptr) {
            row.aside = layoutMath(*extent, 0.9 * small);
        }
        if (row.left + box.width + 3 + row.aside.width > width - margin) row.aside = {};
        if (row.boxes.empty()) row.boxes = {std::move(box)};
    }
    double drop = 0;
    for (std::size_t k = 0; k < row.boxes.size(); ++k) {
        if (k > 0)
            drop += std::max(1.2 * formulaSize, row.boxes[k - 1].descent + row.boxes[k].ascent + 0.45 * formulaSize);
        row.drops.push_back(drop);
    }
    for (const Problem& problem : line.problems) {
        if (problem.severity != Problem::Severity::Error) continue;
        row.problem =
            wrapped(spoken(problem.sentence).toStdString(), width - row.left - margin, Ink::Answer, 0.75 * formulaSize)
                .front();
        break;
    }
    return row;
}

/// While a hand moves something on the sheet nothing changes here, and tables of millions of rows are not read anew.
void FormulaPage::follow() {
    const Document& shown = session_.shown();
    const bool isSame = shown.page == read_.page && shown.format == read_.format &&
                        std::ranges::equal(shown.tables, read_.tables); // the very same, as nobody changes a table
    if (isEditing() || !isSame) rebuild();
}

void FormulaPage::rebuild() {
    read_ = session_.shown();
    page_ = readPage(read_);
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

} // namespace coulter
