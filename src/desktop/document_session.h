#pragma once
#include "figure/document.h"
#include "formula/base/problem.h"

#include <QObject>
#include <QString>
#include <optional>
#include <vector>

namespace coulter {

/// The document that is open, with everything that was done to it. Undo is a list of documents.
class DocumentSession : public QObject {
    Q_OBJECT
public:
    explicit DocumentSession(QObject* parent = nullptr);

    /// What is shown: the document, or what it would be with the edit that is being typed.
    const Document& shown() const { return preview_ ? *preview_ : document(); }
    const Document& document() const { return history_[at_]; }

    /// Makes another document the current one. Edits in a row with the same non-empty key become one step of undo.
    void edit(Document document, const QString& what, const QString& mergeKey = {});
    /// Shows a document that is not (yet) an edit; none ends the preview.
    void preview(std::optional<Document> document);

    bool canUndo() const { return at_ > 0; }
    bool canRedo() const { return at_ + 1 < history_.size(); }
    QString undoText() const { return canUndo() ? names_[at_] : QString(); }
    QString redoText() const { return canRedo() ? names_[at_ + 1] : QString(); }
    void undo();
    void redo();
    /// The next edit starts a step of its own.
    void endMerge() { mergeKey_.clear(); }

    /// Starts afresh with a document; `path` is where saving writes it, empty if that has to be asked; then
    /// `name` is what it is called until it is saved.
    void start(Document document, const QString& path, const QString& name = {});
    std::optional<Problem> save(const QString& path);
    /// Whether another program wrote the document's file since it was read or saved.
    bool isChangedOnDisk() const;
    /// What is on the disk is known, and may be replaced.
    void acceptDisk();
    /// Makes what another program wrote the document; a step of undo like any.
    void takeFromDisk(Document document);
    const QString& path() const { return path_; }
    bool isChanged() const { return !saved_ || *saved_ != document(); }
    QString name() const;

signals:
    void started(); ///< another document, before anything else is said of it
    void shownChanged();
    void stateChanged(); ///< undo, redo, name or saved state

private:
    std::vector<Document> history_{Document{}};
    std::vector<QString> names_{QString()};
    std::size_t at_ = 0;
    std::optional<Document> preview_;
    QString mergeKey_;
    QString path_;
    QString name_;
    std::optional<Document> saved_;
    std::string digest_; ///< of the file as it was read or saved; empty: there was none
};

} // namespace coulter
