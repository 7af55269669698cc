#pragma once
#include "desktop/sheet_view.h"

#include <QListWidget>

namespace coulter {

/// What a careful reader would point out: problems and notes of the page and of the plots, and what sampling found.
/// Choosing a remark goes to its place.
class Remarks : public QListWidget {
    Q_OBJECT
public:
    Remarks(SheetView& sheet, const LookSettings& look, QWidget* parent = nullptr);

signals:
    void lineChosen(int line, int character);

private:
    void rebuild();
    void add(const QString& text, bool wrong, int line, int character);
    SheetView& sheet_;
    const LookSettings& look_;
};

} // namespace coulter
