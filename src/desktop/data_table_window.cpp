#include "desktop/data_table_window.h"
#include "desktop/translation.h"

#include "data/attach_tables.h"
#include "formula/base/text.h"
#include "formula/lines/read_page.h"
#include "plots/page_edits.h"
#include "plots/table_edits.h"
#include "typeset/words.h"

#include <QApplication>
#include <QClipboard>
#include <QComboBox>
#include <QFont>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableView>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>
#include <set>

namespace coulter {
namespace {

QString heading(const std::string& name, const std::string& unit) {
    QString text = QString::fromStdString(name);
    if (!unit.empty() && unit != "1") text += " / " + QString::fromStdString(printedUnit(unit));
    return text;
}

QString shown(double value) { return std::isnan(value) ? QString() : QString::fromStdString(shortestNumber(value)); }

} // namespace

DataTableModel::DataTableModel(const LookSettings& look, QObject* parent) : QAbstractTableModel(parent), look_(look) {}

void DataTableModel::set(DataTables::Entry table, std::vector<ComputedColumn> computed) {
    // The view keeps its place and selection while only numbers change.
    const bool sameShape = table && table_ && table->rows() == table_->rows() &&
                           table->columns.size() == table_->columns.size() && computed.size() == computed_.size();
    if (!sameShape) beginResetModel();
    table_ = std::move(table);
    computed_ = std::move(computed);
    if (!sameShape) return endResetModel();
    emit dataChanged(index(0, 0), index(rowCount() - 1, columnCount() - 1));
    emit headerDataChanged(Qt::Horizontal, 0, columnCount() - 1);
}

int DataTableModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() || !table_ ? 0 : static_cast<int>(table_->rows() + 1);
}

int DataTableModel::columnCount(const QModelIndex& parent) const {
    return parent.isValid() || !table_ ? 0 : static_cast<int>(1 + table_->columns.size() + computed_.size());
}

std::optional<std::size_t> DataTableModel::ownColumn(int column) const {
    if (!table_ || column < 1 || column > static_cast<int>(table_->columns.size())) return std::nullopt;
    return static_cast<std::size_t>(column - 1);
}

QVariant DataTableModel::data(const QModelIndex& index, int role) const {
    const auto row = static_cast<std::size_t>(index.row());
    const bool isNew = row == table_->rows(), isOut = std::ranges::binary_search(table_->leftOut, row);
    if (index.column() == 0)
        return role == Qt::CheckStateRole && !isNew ? QVariant(isOut ? Qt::Unchecked : Qt::Checked) : QVariant();
    if (role == Qt::TextAlignmentRole) return static_cast<int>(Qt::AlignRight | Qt::AlignVCenter);
    if (role == Qt::ForegroundRole && (isOut || !ownColumn(index.column()))) return look_.look().muted();
    if (isNew || (role != Qt::DisplayRole && role != Qt::EditRole)) return {};
    if (const auto own = ownColumn(index.column())) return shown((*table_->columns[*own].numbers)[row]);
    const double value =
        (*computed_[static_cast<std::size_t>(index.column()) - 1 - table_->columns.size()].numbers)[row];
    return std::isnan(value) ? QString() : QString::fromStdString(roundedNumber(value, 8));
}

QVariant DataTableModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (role != Qt::DisplayRole || !table_) return {};
    if (orientation == Qt::Vertical)
        return section < static_cast<int>(table_->rows()) ? QString::number(section + 1) : tr("new");
    if (section == 0) return tr("counts");
    if (const auto own = ownColumn(section)) {
        const DataColumn& column = table_->columns[*own];
        return heading(column.name.empty() ? std::to_string(*own + 1) : column.name, column.unit);
    }
    const ComputedColumn& column = computed_[static_cast<std::size_t>(section) - 1 - table_->columns.size()];
    return heading(spelledName(column.name), column.unit);
}

Qt::ItemFlags DataTableModel::flags(const QModelIndex& index) const {
    Qt::ItemFlags flags = Qt::ItemIsEnabled | Qt::ItemIsSelectable;
    const bool isNew = index.row() == static_cast<int>(table_->rows());
    if (index.column() == 0 && !isNew) flags |= Qt::ItemIsUserCheckable;
    if (ownColumn(index.column())) flags |= Qt::ItemIsEditable;
    return flags;
}

bool DataTableModel::setData(const QModelIndex& index, const QVariant& value, int role) {
    const auto row = static_cast<std::size_t>(index.row());
    if (index.column() == 0 && role == Qt::CheckStateRole) {
        emit countsChanged(row, value.toInt() == Qt::Checked);
        return true;
    }
    const auto own = ownColumn(index.column());
    if (!own || role != Qt::EditRole) return false;
    QString text = value.toString().trimmed();
    text.replace("−", "-");
    bool good = true;
    const double number = text.isEmpty() ? std::nan("") : QLocale::c().toDouble(text, &good);
    if (!good || std::isinf(number)) {
        emit refused(tr("“%1” is no number; write it with a decimal point, or leave the cell empty.").arg(text));
        return false;
    }
    if (text.isEmpty() && row == table_->rows()) return false; // nothing typed into the new row
    emit numberTyped(row, *own, number);
    return true;
}

DataTableWindow::DataTableWindow(DocumentSession& session, const LookSettings& look, QWidget* parent)
    : QDialog(parent), session_(session), model_(new DataTableModel(look, this)), tables_(new QComboBox),
      view_(new QTableView), about_(new QLabel), message_(new QLabel), formula_(new QLineEdit) {
    setObjectName("dataTableWindow");
    setWindowTitle(tr("Data – Coulter"));
    resize(look.look().px(640), look.look().px(560));
    tables_->setObjectName("data-table");
    tables_->setAccessibleName(tr("Table"));
    view_->setModel(model_);
    view_->setObjectName("sampleTable");
    view_->setAccessibleName(tr("Rows of the table"));
    view_->verticalHeader()->setDefaultSectionSize(fontMetrics().height() + 6);
    view_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    about_->setObjectName("data-about");
    about_->setWordWrap(true);
    message_->setObjectName("data-message");
    message_->setWordWrap(true);
    formula_->setObjectName("data-formula");
    formula_->setAccessibleName(tr("Computed column"));
    formula_->setPlaceholderText(tr("computed column, such as r = s - f(t)"));
    const auto button = [&](const QString& text, const char* name, const QString& tip, auto run) {
        auto* made = new QPushButton(text);
        made->setObjectName(name);
        made->setToolTip(tip);
        made->setAutoDefault(false);
        connect(made, &QPushButton::clicked, this, run);
        return made;
    };
    auto* buttons = new QHBoxLayout;
    buttons->addWidget(button(tr("Sort up"), "data-sort-up",
                              tr("All rows by the column that is selected, the smallest first"),
                              [this] { sort(false); }));
    buttons->addWidget(button(tr("Sort down"), "data-sort-down",
                              tr("All rows by the column that is selected, the largest first"),
                              [this] { sort(true); }));
    buttons->addWidget(
        button(tr("Take rows away"), "data-remove",
               tr("The rows that are selected; to leave them out of means and fits, untick them"), [this] {
                   if (mayChange())
                       change(withoutRows(session_.document(), source(), chosenRows()), tr("rows taken away"));
               }));
    buttons->addStretch(1);
    buttons->addWidget(button(tr("Copy"), "data-copy", tr("The selected cells, or all"), [this] { copy(); }));
    auto* columns = new QHBoxLayout;
    columns->addWidget(formula_, 1);
    columns->addWidget(button(tr("Add column"), "data-add-column",
                              tr("Writes the formula on the page, and shows it here"), [this] { addColumn(); }));
    auto* layout = new QVBoxLayout(this);
    layout->addWidget(tables_);
    layout->addWidget(about_);
    layout->addWidget(view_, 1);
    layout->addLayout(buttons);
    layout->addLayout(columns);
    layout->addWidget(message_);
    connect(formula_, &QLineEdit::returnPressed, this, &DataTableWindow::addColumn);
    connect(tables_, &QComboBox::activated, this, &DataTableWindow::refresh);
    connect(&session_, &DocumentSession::shownChanged, this, [this] {
        if (isVisible()) refresh();
    });
    connect(model_, &DataTableModel::refused, message_, &QLabel::setText);
    connect(model_, &DataTableModel::countsChanged, this, [this](std::size_t row, bool counts) {
        change(withRowsLeftOut(session_.document(), source(), {row}, !counts),
               counts ? tr("reading counts again") : tr("reading left out"));
    });
    connect(model_, &DataTableModel::numberTyped, this, [this](std::size_t row, std::size_t column, double value) {
        if (mayChange()) change(withCell(session_.document(), source(), row, column, value), tr("number in a table"));
    });
}

void DataTableWindow::showEvent(QShowEvent*) { refresh(); }

void DataTableWindow::keyPressEvent(QKeyEvent* event) {
    if (event->matches(QKeySequence::Copy)) return copy();
    if (event->matches(QKeySequence::Undo)) return session_.undo();
    if (event->matches(QKeySequence::Redo)) return session_.redo();
    QDialog::keyPressEvent(event);
}

void DataTableWindow::choose(const QString& source) {
    refresh();
    if (const int at = tables_->findText(source); at >= 0) tables_->setCurrentIndex(at);
    refresh();
}

std::string DataTableWindow::source() const { return tables_->currentText().toStdString(); }

void DataTableWindow::refresh() {
    QStringList names;
    for (const std::string& each : tablesOf(session_.document())) {
        const DataTables::Entry table = session_.document().tables.find(each);
        if (!table || (table->axes.empty() && !table->mesh))
            names << QString::fromStdString(each); // a grid or a mesh has no rows to work on
    }
    QStringList known;
    for (int i = 0; i < tables_->count(); ++i) known << tables_->itemText(i);
    if (names != known) {
        const QString before = tables_->currentText();
        tables_->clear();
        tables_->addItems(names);
        tables_->setCurrentIndex(std::max(0, static_cast<int>(names.indexOf(before))));
    }
    tables_->setVisible(names.size() > 1);
    const DataTables::Entry table = session_.document().tables.find(source());
    if (!table || table->rows() == 0) {
        model_->set(nullptr, {});
        about_->setText(names.isEmpty()
                            ? tr("No line of the page names a table. Take one in with Data… (Ctrl+Shift+O).")
                            : tr("%1 could not be read.").arg(tables_->currentText()));
        return;
    }
    QString text =
        tr("%1: %2 rows, %3 left out").arg(tables_->currentText()).arg(table->rows()).arg(table->leftOut.size());
    if (table->isEdited) text += tr("; changed by hand since it was read");
    about_->setText(text);
    model_->set(table, computedColumns(session_.document(), source()));
    view_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
}

bool DataTableWindow::mayChange() {
    const DataTables::Entry table = session_.document().tables.find(source());
    if (!table) return false;
    if (fitsRecipe(*table)) return true;
    message_->setText(tr("This table is too large to be kept in the recipe, so its numbers stay those of its file; "
                         "rows can be left out."));
    return false;
}

void DataTableWindow::change(Document document, const QString& what) {
    message_->clear();
    session_.edit(std::move(document), what);
}

std::vector<std::size_t> DataTableWindow::chosenRows() const {
    std::set<std::size_t> rows;
    for (const QModelIndex& index : view_->selectionModel()->selectedIndexes())
        rows.insert(static_cast<std::size_t>(index.row()));
    return {rows.begin(), rows.end()};
}

void DataTableWindow::sort(bool descending) {
    const auto column = model_->ownColumn(view_->currentIndex().column());
    if (!column)
        return message_->setText(tr("Select a cell of the column to sort by; computed columns follow the others."));
    if (mayChange()) change(withTableSorted(session_.document(), source(), *column, descending), tr("table sorted"));
}

void DataTableWindow::addColumn() {
    const std::string text = formula_->text().trimmed().toStdString();
    if (text.empty()) return;
    Document document = session_.document();
    document.page.push_back(text);
    const Page page = readPage(document);
    const Line& line = page.lines.back();
    if (!line.good()) {
        message_->setText(spoken(line.problems.front().sentence));
        return;
    }
    const std::size_t before = computedColumns(session_.document(), source()).size();
    if (computedColumns(document, source()).size() == before)
        return message_->setText(tr("This is no column of this table: write a name, and a formula of its columns."));
    formula_->clear();
    change(std::move(document), tr("computed column"));
}

void DataTableWindow::copy() const {
    const QModelIndexList chosen = view_->selectionModel()->selectedIndexes();
    int top = 0, bottom = model_->rowCount() - 2, left = 1, right = model_->columnCount() - 1;
    if (chosen.size() > 1) {
        const auto [firstRow, lastRow] = std::ranges::minmax(chosen, {}, &QModelIndex::row);
        const auto [firstColumn, lastColumn] = std::ranges::minmax(chosen, {}, &QModelIndex::column);
        top = firstRow.row();
        bottom = lastRow.row();
        left = std::max(1, firstColumn.column());
        right = lastColumn.column();
    }
    QStringList lines;
    QStringList cells;
    for (int column = left; column <= right; ++column)
        cells << model_->headerData(column, Qt::Horizontal, Qt::DisplayRole).toString();
    lines << cells.join('\t');
    for (int row = top; row <= bottom; ++row) {
        cells.clear();
        for (int column = left; column <= right; ++column)
            cells << model_->data(model_->index(row, column), Qt::DisplayRole).toString();
        lines << cells.join('\t');
    }
    QApplication::clipboard()->setText(lines.join('\n') + '\n');
}

} // namespace coulter
