#pragma once
#include "composition/findings.h"
#include "desktop/sheet_view.h"

#include <QListWidget>

namespace coulter {

/// What a careful reader would point out of the figure that is shown. Choosing a remark goes to its place; choosing the
/// remedy below it mends it.
class Remarks : public QListWidget {
    Q_OBJECT
public:
    Remarks(DocumentSession& session, SheetView& sheet, const LookSettings& look, QWidget* parent = nullptr);

signals:
    void lineChosen(int line, int character);

private:
    void refresh();
    void choose(QListWidgetItem* item);
    void addAction(const QString& text, const QString& tip, int what, int index);
    DocumentSession& session_;
    SheetView& sheet_;
    const LookSettings& look_;
    std::vector<Finding> shown_;
};

} // namespace coulter
