#pragma once
#include "desktop/document_session.h"
#include "desktop/look.h"
#include "plots/table_cells.h"

#include <QAbstractTableModel>
#include <QDialog>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QTableView;

namespace coulter {

/// One table of the document for Qt's views: whether each row counts, its numbers, and what the page computes from
/// them. One empty row behind the last takes new numbers.
class DataTableModel : public QAbstractTableModel {
    Q_OBJECT
public:
    explicit DataTableModel(const LookSettings& look, QObject* parent = nullptr);
    void set(DataTables::Entry table, std::vector<ComputedColumn> computed);

    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    Qt::ItemFlags flags(const QModelIndex& index) const override;
    bool setData(const QModelIndex& index, const QVariant& value, int role) override;

    /// The table's own column that is shown there; none of other columns.
    std::optional<std::size_t> ownColumn(int column) const;

signals:
    void countsChanged(std::size_t row, bool counts);
    void numberTyped(std::size_t row, std::size_t column, double value);
    void refused(const QString& why);

private:
    const LookSettings& look_;
    DataTables::Entry table_;
    std::vector<ComputedColumn> computed_;
};

/// A table of the document to work on: numbers are changed, rows added, taken away, left out and sorted, columns
/// computed. Each is an edit of the document that is undone like any other.
class DataTableWindow : public QDialog {
    Q_OBJECT
public:
    DataTableWindow(DocumentSession& session, const LookSettings& look, QWidget* parent = nullptr);

    /// Shows a table by what the page calls it.
    void choose(const QString& source);

protected:
    void showEvent(QShowEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void refresh();
    std::string source() const;
    /// Whether the table may be changed by hand; says why not.
    bool mayChange();
    void change(Document document, const QString& what);
    std::vector<std::size_t> chosenRows() const;
    void sort(bool descending);
    void addColumn();
    void copy() const;

    DocumentSession& session_;
    DataTableModel* model_;
    QComboBox* tables_;
    QTableView* view_;
    QLabel *about_, *message_;
    QLineEdit* formula_;
};

} // namespace coulter
