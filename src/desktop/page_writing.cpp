// Writing on the formula page: lines being edited, taken, gone on from. See formula_page.h.
#include "desktop/formula_page.h"
#include "formula/base/text.h"
#include "plots/page_edits.h"

#include <QScrollBar>
#include <algorithm>

namespace coulter {

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

/// The remedy of the problem that is shown: characters of this line replaced, or a further line put below. Without a
/// problem the line as it was read.
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
    // Nothing is wrong: what the line is taken as is written out.
    const QString taken = QString::fromStdString(page_.lines[static_cast<std::size_t>(editing_)].source);
    editor_->begin(taken, static_cast<int>(taken.size()));
    typed(taken);
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

} // namespace coulter
