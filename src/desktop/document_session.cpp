#include "desktop/document_session.h"

#include "data/digest.h"
#include "desktop/while_reading.h"
#include "files/file_access.h"
#include "files/recipe.h"

#include <QApplication>
#include <QFileInfo>

namespace coulter {
namespace {

/// Steps of undo that are kept; a document is small.
constexpr std::size_t mostSteps = 1000;

} // namespace

DocumentSession::DocumentSession(QObject* parent) : QObject(parent) {}

void DocumentSession::edit(Document document, const QString& what, const QString& mergeKey) {
    preview_.reset();
    if (!path_.isEmpty())
        attachWhileReading(QApplication::activeWindow(), document, QFileInfo(path_).absolutePath().toStdString());
    if (document == history_[at_]) {
        emit shownChanged();
        return;
    }
    const bool merge = !mergeKey.isEmpty() && mergeKey == mergeKey_ && at_ > 0 && at_ + 1 == history_.size();
    if (merge) {
        history_[at_] = std::move(document);
    } else {
        history_.resize(at_ + 1);
        names_.resize(at_ + 1);
        history_.push_back(std::move(document));
        names_.push_back(what);
        if (history_.size() > mostSteps) {
            history_.erase(history_.begin());
            names_.erase(names_.begin());
        }
        at_ = history_.size() - 1;
    }
    mergeKey_ = mergeKey;
    emit shownChanged();
    emit stateChanged();
}

void DocumentSession::preview(std::optional<Document> document) {
    if (!document && !preview_) return;
    preview_ = std::move(document);
    emit shownChanged();
}

void DocumentSession::undo() {
    if (!canUndo()) return;
    preview_.reset();
    mergeKey_.clear();
    --at_;
    emit shownChanged();
    emit stateChanged();
}

void DocumentSession::redo() {
    if (!canRedo()) return;
    preview_.reset();
    mergeKey_.clear();
    ++at_;
    emit shownChanged();
    emit stateChanged();
}

void DocumentSession::start(Document document, const QString& path, const QString& name) {
    preview_.reset();
    mergeKey_.clear();
    history_ = {std::move(document)};
    names_ = {QString()};
    at_ = 0;
    saved_ = history_[0];
    path_ = path;
    name_ = name;
    acceptDisk();
    emit started();
    emit shownChanged();
    emit stateChanged();
}

std::optional<Problem> DocumentSession::save(const QString& path) {
    if (!awaitWhileReading(QApplication::activeWindow(), document())) {
        return saying(tr("The figure is not saved: its data were not read to their end.").toStdString(),
                      tr("save it again").toStdString());
    }
    if (auto problem = writeFile(path.toStdString(), writeRecipe(document()))) return problem;
    path_ = path;
    saved_ = document();
    acceptDisk();
    // Now that it has a folder, tables that its page names may be there.
    Document attached = document();
    attachWhileReading(QApplication::activeWindow(), attached, QFileInfo(path_).absolutePath().toStdString());
    if (attached != document()) edit(std::move(attached), tr("data read"));
    emit stateChanged();
    return std::nullopt;
}

bool DocumentSession::isChangedOnDisk() const {
    if (path_.isEmpty()) return false;
    const auto now = digestOfFile(path_.toStdString());
    return now && *now != digest_; // a file that is gone is no work that could be lost
}

void DocumentSession::acceptDisk() {
    digest_ = path_.isEmpty() ? std::string() : digestOfFile(path_.toStdString()).value_or("");
}

void DocumentSession::takeFromDisk(Document document) {
    acceptDisk();
    edit(std::move(document), tr("the file read again"));
    saved_ = this->document();
    emit stateChanged();
}

QString DocumentSession::name() const {
    if (!path_.isEmpty()) return QFileInfo(path_).completeBaseName();
    return name_.isEmpty() ? tr("unsaved figure") : name_;
}

} // namespace coulter
