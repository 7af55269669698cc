#pragma once
#include "desktop/document_session.h"
#include "desktop/look.h"

#include <QWidget>
#include <thread>

class QLabel;
class QLineEdit;
class QTimer;

namespace coulter {

/// A line under the formula page in which any expression is answered while it is typed, over the page as it is, and is
/// kept nowhere. Return puts it on the page as a question.
class ScratchStrip : public QWidget {
    Q_OBJECT
public:
    ScratchStrip(DocumentSession& session, const LookSettings& look, QWidget* parent = nullptr);
    bool busy() const { return asking_; }

signals:
    void wanted(const QString& line); ///< as a line of the page

private:
    void ask();
    void show(const QString& text, bool wrong);

    DocumentSession& session_;
    const LookSettings& look_;
    QLineEdit* field_;
    QLabel* answer_;
    QTimer* pause_;       ///< a moment after the last key
    bool asking_ = false; ///< the thread is at work
    bool again_ = false;  ///< what was asked has changed since
    std::jthread thread_; ///< last, so that it has ended before anything else goes
};

} // namespace coulter
