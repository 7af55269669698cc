#pragma once
#include "data/read_table.h"
#include "desktop/look.h"
#include "formula/lines/measured_lines.h"

#include <QDialog>
#include <functional>
#include <stop_token>

class QFormLayout;
class QLabel;
class QLineEdit;
class QPushButton;
class QSpinBox;
class QTableWidget;

namespace coulter {

class ChoiceField;
struct GridOfTable;

/// What a file or a pasted text is, before it is taken: of a table its first rows with their headings, and what was
/// found by itself, to be corrected; of a grid a small picture of its numbers; of a file with several variables which
/// one, and where it lies.
class TableSheet : public QDialog {
    Q_OBJECT
public:
    /// @param read  the text again, by another shape, or another variable of it; empty: none is chosen. In another
    /// thread
    using Reading = std::function<TableRead(const TableShape&, const std::string&, const std::stop_token&)>;
    TableSheet(const LookSettings& look, const QString& name, Reading read, QWidget* parent);

signals:
    /// @param place  where the numbers of a grid lie, if not as its file says
    void taken(const DataTable& table, const GridPlace& place);

private:
    void readAgain();
    TableRead readChosen();
    void show(const TableRead& read);
    void showRows();
    void showGrid();
    /// The grid as its fields lay it; the trouble if they say no such thing.
    QString readPlace(GridOfTable& grid);
    void sayGrid();

    QString name_;
    Reading reading_;
    TableShape shape_;
    std::optional<DataTable> table_;
    ChoiceField *delimiter_, *decimal_, *variable_;
    QFormLayout* form_;
    std::string chosen_; ///< variable
    QLineEdit *pitch_, *origin_;
    ChoiceField* firstRowOfGrid_;
    GridPlace place_;
    QStringList said_; ///< about the grid itself, wherever it lies
    QSpinBox* firstRow_;
    QTableWidget* preview_;
    QLabel *picture_, *summary_;
    QPushButton* take_;
    bool showing_ = false; ///< fields are being set, not chosen
};

} // namespace coulter
