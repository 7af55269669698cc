#pragma once
#include "desktop/document_session.h"
#include "files/draft.h"

#include <QTimer>

namespace coulter {

/// Keeps what is unsaved of the document that is open (files/draft.h): each edit before anything else happens, what is
/// being typed or dragged a moment later.
class DraftKeeper : public QObject {
    Q_OBJECT
public:
    DraftKeeper(DocumentSession& session, QObject* parent = nullptr);
    ~DraftKeeper() override;

    const Draft& draft() const { return draft_; }

private:
    void keep();

    DocumentSession& session_;
    Draft draft_;
    QTimer soon_, onDisk_;
    std::size_t size_ = 0; ///< of what was kept last, in bytes
};

} // namespace coulter
