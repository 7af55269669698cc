#pragma once
#include "desktop/sheet_view.h"
#include "plots/table.h"

#include <QAbstractTableModel>
#include <QDialog>

class QLabel;
class QPushButton;
class QSortFilterProxyModel;
class QTableView;

namespace coulter {

/// A table of samples for Qt's views; sorts by number.
class SampleTableModel : public QAbstractTableModel {
    Q_OBJECT
public:
    static constexpr int sortRole = Qt::UserRole;

    using QAbstractTableModel::QAbstractTableModel;
    /// @param figure  keeps what the table shows alive
    void set(SampleTable table, std::shared_ptr<const ShownFigure> figure);
    const SampleTable& table() const { return table_; }
    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

private:
    SampleTable table_;
    std::shared_ptr<const ShownFigure> figure_;
};

/// The samples of what is selected on the sheet, as a table: sorted by a click on a heading, copied, written as CSV.
/// Follows the figure. Count, step and span of each direction stand above it.
class SampleTableWindow : public QDialog {
    Q_OBJECT
public:
    SampleTableWindow(DocumentSession& session, SheetView& sheet, QWidget* parent = nullptr);

    /// The selected cells, or all rows, as text with tabulators and a heading.
    QString copied() const;
    /// Writes all rows as CSV, in the order of sampling.
    std::optional<Problem> writeCsv(const QString& path) const;

protected:
    void showEvent(QShowEvent* event) override;
    bool eventFilter(QObject* object, QEvent* event) override;

private:
    void refresh();
    /// Leaves the selected rows of a table out, or lets them count again.
    void changeRows(bool leftOut);

    DocumentSession& session_;
    SheetView& sheet_;
    SampleTableModel* model_;
    QSortFilterProxyModel* sorted_;
    QTableView* view_;
    QLabel* heading_;
    QLabel* message_;
    QPushButton *leaveOut_, *count_; ///< of rows of a table
    std::string source_;             ///< the table whose rows are shown; empty: none
};

} // namespace coulter
