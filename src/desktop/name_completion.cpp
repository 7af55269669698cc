#include "desktop/name_completion.h"

#include "desktop/line_editor.h"
#include "desktop/translation.h"
#include "formula/base/text.h"
#include "formula/notation/parser.h"
#include "typeset/formula_math.h"

#include <QPainter>
#include <QPlainTextEdit>
#include <QRegularExpression>
#include <algorithm>

namespace coulter {
namespace {

constexpr int shownRows = 6;

} // namespace

NameCompletion::NameCompletion(QPlainTextEdit* field, const LookSettings& look)
    : QListWidget(field->window()), field_(field), look_(look) {
    setObjectName("completion");
    setAccessibleName(tr("Names that fit"));
    setFocusPolicy(Qt::NoFocus);
    setFrameShape(QFrame::Box);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setUniformItemSizes(true);
    connect(this, &QListWidget::itemClicked, this, &NameCompletion::accept);
    hide();
}

void NameCompletion::offer(const Page& page) {
    const std::u32string line = decodeUtf8(field_->toPlainText().toStdString());
    const QString before = field_->toPlainText().left(field_->textCursor().position());
    word_ = QString::fromStdString(wordBefore(line, decodeUtf8(before.toStdString()).size()));
    offered_.clear();
    // One letter is mostly a name of its own; from two on a hand is welcome.
    if (word_.size() >= 2 && !before.startsWith('#')) offered_ = completions(page, word_.toStdString());
    const bool complete = offered_.size() == 1 && offered_[0].form == word_.toStdString();
    clear();
    if (offered_.empty() || complete || !field_->hasFocus()) return hide();
    const Look& colours = look_.look();
    setStyleSheet("QListWidget::item:selected { background: " + colours.faintAccent().name() + "; }");
    for (const Completion& completion : offered_) {
        auto* item = new QListWidgetItem(this);
        QIcon icon(paint(completion, colours.page()));
        icon.addPixmap(paint(completion, colours.faintAccent()), QIcon::Selected);
        item->setIcon(icon);
        item->setData(Qt::AccessibleTextRole,
                      QString::fromStdString(completion.form) + ", " + spoken(completion.meaning));
        item->setToolTip(spoken(completion.meaning));
    }
    setCurrentRow(0);
    moveTo();
    show();
    raise();
}

QPixmap NameCompletion::paint(const Completion& completion, const QColor& ground) const {
    const Look& look = look_.look();
    const int width = look.px(330), height = look.px(34);
    const qreal ratio = devicePixelRatioF();
    QImage picture(QSize(width, height) * ratio, QImage::Format_ARGB32_Premultiplied);
    picture.setDevicePixelRatio(ratio);
    picture.fill(Qt::transparent);
    QPainter painter(&picture);
    KnownNames names; // every name in the form stands for itself
    const std::u32string letters = decodeUtf8(completion.form);
    const LexResult lexed = tokenize(letters, 0, letters.size());
    for (std::size_t i = 1; i < lexed.tokens.size(); ++i) {
        std::string name;
        if (readName(std::span(lexed.tokens).subspan(i), name) > 0) names.values.insert(name);
    }
    const ParsedExpression parsed = parseExpression(letters, names);
    double right = look.px(8);
    if (parsed.expression) {
        const coulter::Box box = layoutMath(*formulaMath(*parsed.expression), 0.85 * formulaSize, false);
        const QImage form = paintBox(box, screenDots * look.scale * ratio, look, ground);
        QImage drawn = form;
        drawn.setDevicePixelRatio(ratio);
        painter.drawImage(QPointF(right, (height - drawn.height() / ratio) / 2), drawn);
        right += drawn.width() / ratio;
    } else {
        painter.setPen(look.ink());
        painter.drawText(QRectF(right, 0, width, height), Qt::AlignVCenter, QString::fromStdString(completion.form));
        right += painter.fontMetrics().horizontalAdvance(QString::fromStdString(completion.form));
    }
    painter.setPen(look.muted());
    painter.setFont(font());
    const QRectF rest(right + look.px(12), 0, width - right - look.px(16), height);
    painter.drawText(
        rest, Qt::AlignVCenter | Qt::AlignRight,
        painter.fontMetrics().elidedText(spoken(completion.meaning), Qt::ElideRight, static_cast<int>(rest.width())));
    painter.end();
    return QPixmap::fromImage(picture);
}

void NameCompletion::moveTo() {
    if (parentWidget() != field_->window()) setParent(field_->window());
    const Look& look = look_.look();
    const int rows = std::min<int>(shownRows, count());
    setIconSize(QSize(look.px(330), look.px(34)));
    resize(look.px(352), rows * sizeHintForRow(0) + look.px(4));
    const QRect caret = field_->cursorRect();
    QPoint at = field_->viewport()->mapTo(window(), QPoint(caret.left() - look.px(24), caret.bottom() + look.px(6)));
    // Below the reading would hide it; beside the page there is room over the sheet.
    at.setX(std::clamp(at.x(), 0, std::max(0, window()->width() - width())));
    if (at.y() + height() > window()->height())
        at.setY(field_->viewport()->mapTo(window(), caret.topLeft()).y() - height() - look.px(4));
    move(at);
}

bool NameCompletion::takeKey(int key) {
    if (!isVisible()) return false;
    switch (key) {
    case Qt::Key_Up: setCurrentRow(std::max(0, currentRow() - 1)); return true;
    case Qt::Key_Down: setCurrentRow(std::min(count() - 1, currentRow() + 1)); return true;
    case Qt::Key_Tab: accept(); return true;
    case Qt::Key_Escape: hide(); return true;
    default: return false;
    }
}

void NameCompletion::accept() {
    const int row = currentRow();
    if (row < 0 || row >= static_cast<int>(offered_.size())) return;
    const QString form = QString::fromStdString(offered_[static_cast<std::size_t>(row)].form);
    const QString meant = QString::fromStdString(offered_[static_cast<std::size_t>(row)].meant);
    hide();
    QTextCursor at = field_->textCursor();
    at.movePosition(QTextCursor::Left, QTextCursor::KeepAnchor, static_cast<int>(word_.size()));
    const int begin = at.selectionStart();
    at.insertText(form);
    const qsizetype operand = meant.isEmpty() ? -1 : form.indexOf(meant, form.indexOf(QRegularExpression("[_(]")));
    if (operand >= 0) {
        at.setPosition(begin + static_cast<int>(operand));
        at.movePosition(QTextCursor::Right, QTextCursor::KeepAnchor, static_cast<int>(meant.size()));
    }
    field_->setTextCursor(at);
    hide();
}

} // namespace coulter
