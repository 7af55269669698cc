#pragma once
#include "desktop/look.h"

#include <QDialog>
#include <thread>

class QLabel;
class QListWidget;

namespace coulter {

/// Two figures over one another, and what differs between them: what was written down against what it has become. Both
/// are drawn in a thread of their own.
class CompareSheet : public QDialog {
    Q_OBJECT
public:
    /// @param name  of the other figure, for the window's title
    CompareSheet(const LookSettings& look, const QString& name, Document other, Document now,
                 QWidget* parent = nullptr);

private:
    QLabel* picture_;
    QListWidget* differences_;
    std::jthread drawer_; ///< last, so that it has ended before anything else goes
};

} // namespace coulter
