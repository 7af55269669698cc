#include "desktop/line_editor.h"

#include "desktop/name_completion.h"
#include "desktop/translation.h"
#include "drawing/cairo_painter.h"
#include "formula/base/text.h"
#include "formula/lines/answer.h"
#include "typeset/formula_math.h"

#include <QKeyEvent>
#include <QMimeData>
#include <QPainter>
#include <QRegularExpression>
#include <QTextBlock>
#include <algorithm>
#include <functional>

namespace coulter {
namespace {

/// Position in UTF-16 of the n-th character (from 0).
int utf16Position(const QString& text, int characters) {
    int at = 0;
    for (int i = 0; i < characters && at < text.size(); ++i) at += text[at].isHighSurrogate() ? 2 : 1;
    return at;
}

/// The field of a line: several lines at once are no text of one.
class LineField : public QPlainTextEdit {
public:
    LineField(QWidget* parent, std::function<void(const QStringList&)> several)
        : QPlainTextEdit(parent), several_(std::move(several)) {}

protected:
    void insertFromMimeData(const QMimeData* source) override {
        const QStringList lines = source->text().split(QRegularExpression("\\r?\\n"), Qt::SkipEmptyParts);
        if (lines.size() < 2)
            textCursor().insertText(lines.value(0));
        else
            several_(lines);
    }

private:
    std::function<void(const QStringList&)> several_;
};

} // namespace

void addInked(Scene& scene, const Box& box, double x, double y, const Look& look) {
    for (const Ink ink : {Ink::Plain, Ink::Number, Ink::Answer, Ink::Muted}) {
        Box part;
        for (const PlacedGlyph& glyph : box.glyphs) {
            if (glyph.ink == ink) part.glyphs.push_back(glyph);
        }
        for (const PlacedRule& rule : box.rules) {
            if (rule.ink == ink) part.rules.push_back(rule);
        }
        addBox(scene, part, x, y,
               toColour(ink == Ink::Plain   ? look.ink()
                        : ink == Ink::Muted ? look.muted()
                                            : look.accent()));
    }
}

QImage paintBox(const Box& box, double dotsPerMm, const Look& look, const QColor& ground) {
    Scene scene;
    scene.width = box.width + 1;
    scene.height = std::max(1.0, box.height() + 1);
    addInked(scene, box, 0.5, 0.5 + box.ascent, look);
    const Raster raster = paintRaster(scene, dotsPerMm, toColour(ground));
    return QImage(reinterpret_cast<const uchar*>(raster.pixels.data()), raster.width, raster.height, raster.width * 4,
                  QImage::Format_RGB32)
        .copy();
}

LineEditor::LineEditor(const LookSettings& look, QWidget* parent)
    : QWidget(parent), look_(look),
      field_(new LineField(this, [this](const QStringList& lines) { emit severalPasted(lines); })),
      message_(new QLabel(this)), completion_(new NameCompletion(field_, look)) {
    field_->setLineWrapMode(QPlainTextEdit::WidgetWidth);
    field_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    field_->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    field_->setTabChangesFocus(true); // unless a name is offered
    field_->setAccessibleName(tr("Formula line"));
    field_->setObjectName("formulaField");
    field_->installEventFilter(this);
    message_->setWordWrap(true);
    message_->setObjectName("formulaMessage");
    setFocusProxy(field_);
    connect(field_, &QPlainTextEdit::textChanged, this, [this] { emit edited(text()); });
}

void LineEditor::begin(const QString& text, int cursor) {
    const QSignalBlocker blocker(field_);
    field_->setPlainText(text);
    QTextCursor at = field_->textCursor();
    at.setPosition(cursor < 0 ? static_cast<int>(text.size()) : cursor);
    field_->setTextCursor(at);
}

void LineEditor::insert(const QString& text) { field_->insertPlainText(text); }

void LineEditor::offerNames(const Page& page) { completion_->offer(page); }

void LineEditor::hideEvent(QHideEvent*) {
    if (completion_) completion_->hide();
}

QString LineEditor::text() const { return field_->toPlainText().replace('\n', ' '); }

void LineEditor::showReading(const Line& line) {
    const Look& look = look_.look();
    QList<QTextEdit::ExtraSelection> marks;
    hasRemedy_ = false;
    QString message;
    for (const Problem& problem : line.problems) {
        const bool error = problem.severity == Problem::Severity::Error;
        QTextEdit::ExtraSelection mark;
        mark.format.setUnderlineStyle(QTextCharFormat::WaveUnderline);
        mark.format.setUnderlineColor(error ? look.wrong() : look.muted());
        if (error) mark.format.setForeground(look.wrong());
        mark.cursor = field_->textCursor();
        const int last = static_cast<int>(text().size());
        const int begin = std::min(utf16Position(text(), problem.first - 1), std::max(0, last - 1));
        mark.cursor.setPosition(begin);
        mark.cursor.setPosition(std::clamp(utf16Position(text(), problem.last), std::min(begin + 1, last), last),
                                QTextCursor::KeepAnchor);
        marks.append(mark);
        if (message.isEmpty() || error) {
            hasRemedy_ = problem.remedy.has_value();
            message = spoken(problem.sentence).toHtmlEscaped();
            if (!problem.suggestion.empty() && !problem.remedy)
                message += "<br><span style='color:" + look.muted().name() + "'>" +
                           spoken(problem.suggestion).toHtmlEscaped() + "</span>";
            if (problem.remedy) {
                const QString text = QString::fromStdString(problem.remedy->text).toHtmlEscaped();
                message +=
                    "<br><span style='color:" + look.accent().name() + "'>" +
                    (problem.remedy->first > 0 ? tr("Tab writes %1").arg(text) : tr("Tab adds the line %1").arg(text)) +
                    "</span>";
            }
        }
        if (error) break;
    }
    const QString typed = text().trimmed(), taken = QString::fromStdString(line.source);
    if (message.isEmpty() && taken != typed && !typed.isEmpty()) {
        hasRemedy_ = true;
        message = tr("Taken as %1").arg(taken.toHtmlEscaped()) + "<br><span style='color:" + look.accent().name() +
                  "'>" + tr("Tab writes it so") + "</span>";
    }
    field_->setExtraSelections(marks);
    message_->setStyleSheet("color:" + (line.good() ? look.muted() : look.wrong()).name());
    message_->setText(message);
    field_->setAccessibleDescription(message_->text());
    reading_ = QImage();
    readingHeight_ = 0;
    if (const MathPtr math = lineMath(line)) {
        const double dots = screenDots * look.scale * devicePixelRatioF();
        const Box box = layoutMath(*math, formulaSize);
        reading_ = paintBox(box, dots, look, look.faintAccent());
        readingHeight_ = reading_.height() / devicePixelRatioF();
    }
    place();
    update();
    emit sizeChanged();
}

int LineEditor::fieldHeight() const {
    const int lines = std::max(1, static_cast<int>(field_->document()->size().height()));
    return lines * field_->fontMetrics().lineSpacing() + look_.look().px(14);
}

int LineEditor::wantedHeight() const {
    const int field = fieldHeight();
    const int text = message_->text().isEmpty()
                         ? 0
                         : message_->heightForWidth(std::max(50, width() - look_.look().px(16))) + look_.look().px(4);
    return field + static_cast<int>(readingHeight_) + text + look_.look().px(16);
}

void LineEditor::place() {
    const Look& look = look_.look();
    field_->setGeometry(look.px(6), look.px(4), width() - look.px(12),
                        field_->height()); // the width decides how many lines there are
    const int field = fieldHeight();
    field_->setGeometry(look.px(6), look.px(4), width() - look.px(12), field);
    const int top = look.px(4) + field + static_cast<int>(readingHeight_) + look.px(4);
    message_->setGeometry(look.px(8), top, width() - look.px(16), std::max(0, height() - top));
}

void LineEditor::resizeEvent(QResizeEvent*) { place(); }

void LineEditor::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Look& look = look_.look();
    painter.fillRect(rect(), look.faintAccent());
    painter.fillRect(0, 0, look.px(3), height(), look.accent());
    if (reading_.isNull()) return;
    QImage image = reading_;
    image.setDevicePixelRatio(devicePixelRatioF());
    const int top = field_->geometry().bottom() + look.px(2);
    const double room = width() - look.px(16);
    const double wide = image.width() / devicePixelRatioF();
    if (wide <= room)
        painter.drawImage(QPointF(look.px(10), top), image);
    else
        painter.drawImage(QRectF(look.px(10), top, room, readingHeight_ * room / wide), image);
}

bool LineEditor::eventFilter(QObject* object, QEvent* event) {
    if (object == field_ && event->type() == QEvent::FocusOut && completion_) completion_->hide();
    if (object == field_ && event->type() == QEvent::ShortcutOverride &&
        static_cast<QKeyEvent*>(event)->matches(QKeySequence::Undo) && !field_->document()->isUndoAvailable()) {
        event->ignore(); // nothing was typed here: what is undone is the step before
        return true;
    }
    if (object == field_ && event->type() == QEvent::KeyPress) {
        const auto* key = static_cast<QKeyEvent*>(event);
        if (completion_->takeKey(key->key())) return true;
        switch (key->key()) {
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (key->modifiers() & Qt::ShiftModifier)
                emit takenOnly();
            else
                emit committed();
            return true;
        case Qt::Key_Tab:
            if (!hasRemedy_) break;
            emit remedyWanted();
            return true;
        case Qt::Key_Backspace:
            if (!text().isEmpty()) break;
            emit leftBackwards();
            return true;
        case Qt::Key_Escape: emit cancelled(); return true;
        case Qt::Key_Up: emit leftUpwards(); return true;
        case Qt::Key_Down: emit leftDownwards(); return true;
        default: break;
        }
    }
    return QWidget::eventFilter(object, event);
}

} // namespace coulter
