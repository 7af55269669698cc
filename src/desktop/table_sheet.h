#pragma once
#include "data/read_table.h"
#include "desktop/look.h"

#include <QDialog>
#include <functional>

class QFormLayout;
class QLabel;
class QPushButton;
class QSpinBox;
class QTableWidget;

namespace coulter {

class ChoiceField;

/// What a file or a pasted text is, before it is taken: of a table its first rows with their headings, and what was
/// found by itself, to be corrected; of a grid a small picture of its numbers; of a file with several variables which
/// one.
class TableSheet : public QDialog {
    Q_OBJECT
public:
    /// @param read  the text again, by another shape, or another variable of it; empty: none is chosen
    using Reading = std::function<TableRead(const TableShape&, const std::string&)>;
    TableSheet(const LookSettings& look, const QString& name, Reading read, QWidget* parent);

signals:
    void taken(const DataTable& table);

private:
    void readAgain();
    void show(const TableRead& read);
    void showRows();
    void showGrid();

    Reading reading_;
    TableShape shape_;
    std::optional<DataTable> table_;
    ChoiceField *delimiter_, *decimal_, *variable_;
    QFormLayout* form_;
    std::string chosen_; ///< variable
    QSpinBox* firstRow_;
    QTableWidget* preview_;
    QLabel *picture_, *summary_;
    QPushButton* take_;
    bool showing_ = false; ///< fields are being set, not chosen
};

} // namespace coulter
