#pragma once
#include "data/read_table.h"
#include "desktop/look.h"

#include <QDialog>
#include <functional>

class QLabel;
class QPushButton;
class QSpinBox;
class QTableWidget;

namespace coulter {

class ChoiceField;

/// What a file or a pasted text is as a table, before it is taken: its first rows with their headings, and what was
/// found by itself, to be corrected.
class TableSheet : public QDialog {
    Q_OBJECT
public:
    /// @param read  the text again, by another shape
    using Reading = std::function<TableRead(const TableShape&)>;
    TableSheet(const LookSettings& look, const QString& name, Reading read, QWidget* parent);

signals:
    void taken(const DataTable& table);

private:
    void readAgain();
    void show(const TableRead& read);

    Reading reading_;
    TableShape shape_;
    std::optional<DataTable> table_;
    ChoiceField *delimiter_, *decimal_;
    QSpinBox* firstRow_;
    QTableWidget* preview_;
    QLabel* summary_;
    QPushButton* take_;
    bool showing_ = false; ///< fields are being set, not chosen
};

} // namespace coulter
