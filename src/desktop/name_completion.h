#pragma once
#include "desktop/look.h"
#include "formula/lines/completion.h"

#include <QListWidget>

class QPlainTextEdit;

namespace coulter {

/// Names that go on from what is being typed, in a list below the caret: typeset, each with one line of meaning.
/// Tab takes the chosen one, the arrows choose, Escape closes; typing goes on in the field all the time.
class NameCompletion : public QListWidget {
    Q_OBJECT
public:
    NameCompletion(QPlainTextEdit* field, const LookSettings& look);

    /// Looks at what stands before the caret, with the names of this page.
    void offer(const Page& page);
    /// Keys meant for the list while it is open; whether it took one.
    bool takeKey(int key);

private:
    void accept();
    void moveTo();
    QPixmap paint(const Completion& completion, const QColor& ground) const;

    QPlainTextEdit* field_;
    const LookSettings& look_;
    std::vector<Completion> offered_;
    QString word_;
};

} // namespace coulter
