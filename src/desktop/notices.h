#pragma once
#include "desktop/look.h"

#include <QWidget>
#include <functional>
#include <vector>

class QVBoxLayout;

namespace coulter {

/// What a person can do about a notice.
struct NoticeAction {
    QString text;
    std::function<void()> run; ///< the notice is gone before it runs
};

/// A strip under the window's bar for what concerns the files behind a figure and waits for an answer without stopping
/// the work: a draft that was found, a file that another program changed. One row for each notice; without any there is
/// no strip.
class Notices : public QWidget {
    Q_OBJECT
public:
    explicit Notices(LookSettings& look, QWidget* parent = nullptr);

    /// Shows a notice, in place of the one with the same key. Its cross takes it away without doing anything.
    void show(const QString& key, const QString& text, std::vector<NoticeAction> actions);
    void remove(const QString& key);
    /// Takes all away whose keys begin so.
    void removeAll(const QString& beginning);
    QStringList texts() const;

private:
    QVBoxLayout* rows_;
};

} // namespace coulter
