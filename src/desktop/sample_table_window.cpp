#include "desktop/sample_table_window.h"

#include "desktop/form_fields.h"
#include "desktop/translation.h"
#include "files/file_access.h"
#include "formula/base/text.h"
#include "plots/table_edits.h"

#include <QApplication>
#include <QClipboard>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QSortFilterProxyModel>
#include <QTableView>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

QString shown(double value) { return std::isnan(value) ? QString() : QString::fromStdString(shortestNumber(value)); }

} // namespace

void SampleTableModel::set(SampleTable table, std::shared_ptr<const ShownFigure> figure) {
    beginResetModel();
    table_ = std::move(table);
    figure_ = std::move(figure);
    endResetModel();
}

int SampleTableModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(table_.rows);
}

int SampleTableModel::columnCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(table_.columns.size() + (table_.state ? 1 : 0));
}

QVariant SampleTableModel::data(const QModelIndex& index, int role) const {
    const auto row = static_cast<std::size_t>(index.row()), column = static_cast<std::size_t>(index.column());
    if (column >= table_.columns.size())
        return role == Qt::DisplayRole || role == sortRole ? QVariant(spoken(table_.state(row))) : QVariant();
    if (role == Qt::DisplayRole) return shown(table_.number(row, column));
    if (role == sortRole) return table_.number(row, column);
    if (role == Qt::TextAlignmentRole) return static_cast<int>(Qt::AlignRight | Qt::AlignVCenter);
    return {};
}

QVariant SampleTableModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (role != Qt::DisplayRole) return {};
    if (orientation == Qt::Vertical) return section + 1;
    const auto column = static_cast<std::size_t>(section);
    return column < table_.names.size() ? QString::fromStdString(table_.names[column]) : tr("state");
}

SampleTableWindow::SampleTableWindow(DocumentSession& session, SheetView& sheet, QWidget* parent)
    : QDialog(parent), session_(session), sheet_(sheet), model_(new SampleTableModel(this)),
      sorted_(new QSortFilterProxyModel(this)), view_(new QTableView), heading_(new QLabel), message_(new QLabel),
      leaveOut_(new QPushButton(tr("Leave out"))), count_(new QPushButton(tr("Let count"))) {
    setWindowTitle(tr("Samples – Coulter"));
    setObjectName("sampleTableWindow");
    resize(620, 560);
    sorted_->setSourceModel(model_);
    sorted_->setSortRole(SampleTableModel::sortRole);
    view_->setModel(sorted_);
    view_->setSortingEnabled(true);
    view_->sortByColumn(-1, Qt::AscendingOrder); // as sampled
    view_->setAccessibleName(tr("Samples"));
    view_->setObjectName("sampleTable");
    view_->verticalHeader()->setDefaultSectionSize(fontMetrics().height() + 6);
    view_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    view_->installEventFilter(this);
    heading_->setWordWrap(true);
    heading_->setObjectName("sampleTableHeading");
    auto* copy = new QPushButton(tr("Copy"));
    auto* csv = new QPushButton(tr("Write CSV…"));
    connect(copy, &QPushButton::clicked, this, [this] { QApplication::clipboard()->setText(copied()); });
    connect(csv, &QPushButton::clicked, this, [this] {
        const QString path = QFileDialog::getSaveFileName(this, tr("Write the samples"), "samples.csv",
                                                          tr("Comma-separated values (*.csv)"));
        if (path.isEmpty()) return;
        const auto problem = writeCsv(path);
        message_->setText(problem ? spoken(*problem) : tr("written"));
    });
    leaveOut_->setObjectName("leaveOut");
    leaveOut_->setToolTip(tr("The selected rows are shown hollow, and do not enter means and fits"));
    count_->setObjectName("letCount");
    connect(leaveOut_, &QPushButton::clicked, this, [this] { changeRows(true); });
    connect(count_, &QPushButton::clicked, this, [this] { changeRows(false); });
    auto* buttons = new QHBoxLayout;
    buttons->addWidget(message_, 1);
    buttons->addWidget(leaveOut_);
    buttons->addWidget(count_);
    buttons->addWidget(copy);
    buttons->addWidget(csv);
    auto* column = new QVBoxLayout(this);
    column->addWidget(heading_);
    column->addWidget(view_, 1);
    column->addLayout(buttons);
    connect(&sheet_, &SheetView::figureChanged, this, [this] {
        if (isVisible()) refresh();
    });
    connect(&sheet_, &SheetView::selectionChanged, this, [this] {
        if (isVisible()) refresh();
    });
}

void SampleTableWindow::showEvent(QShowEvent*) { refresh(); }

void SampleTableWindow::refresh() {
    message_->clear();
    const Drawn* drawn = sheet_.shownPlot();
    if (!drawn) {
        leaveOut_->hide();
        count_->hide();
        heading_->setText(tr("Nothing is sampled."));
        return model_->set({}, nullptr);
    }
    SampleTable table = sheet_.shownPanel() ? tableOf(*drawn, sheet_.shownPanel()->frameOf(*drawn)) : tableOf(*drawn);
    const Figure& figure = sheet_.sharedFigure()->figure;
    const Columns* columns = columnsOf(*drawn);
    source_ =
        columns && columns->rows() == table.rows
            ? tableOfPlot(figure.page, figure.document.panels[drawn->path.panel].plots[drawn->path.index]).value_or("")
            : "";
    leaveOut_->setVisible(!source_.empty());
    count_->setVisible(!source_.empty());
    heading_->setText(listed(table.heading).join('\n'));
    model_->set(std::move(table), sheet_.sharedFigure());
}

void SampleTableWindow::changeRows(bool leftOut) {
    std::vector<std::size_t> rows;
    for (const QModelIndex& index : view_->selectionModel()->selectedIndexes())
        rows.push_back(static_cast<std::size_t>(sorted_->mapToSource(index).row()));
    if (rows.empty()) return message_->setText(tr("Select rows first."));
    session_.edit(withRowsLeftOut(session_.document(), source_, rows, leftOut),
                  leftOut ? tr("readings left out") : tr("readings count again"));
}

QString SampleTableWindow::copied() const {
    QModelIndexList chosen = view_->selectionModel()->selectedIndexes();
    int top = 0, bottom = sorted_->rowCount() - 1, left = 0, right = sorted_->columnCount() - 1;
    if (chosen.size() > 1) {
        const auto [firstRow, lastRow] = std::ranges::minmax(chosen, {}, &QModelIndex::row);
        const auto [firstColumn, lastColumn] = std::ranges::minmax(chosen, {}, &QModelIndex::column);
        top = firstRow.row();
        bottom = lastRow.row();
        left = firstColumn.column();
        right = lastColumn.column();
    }
    QString text;
    for (int column = left; column <= right; ++column)
        text += (column > left ? "\t" : "") + sorted_->headerData(column, Qt::Horizontal).toString();
    text += "\n";
    for (int row = top; row <= bottom; ++row) {
        for (int column = left; column <= right; ++column)
            text += (column > left ? "\t" : "") + sorted_->data(sorted_->index(row, column)).toString();
        text += "\n";
    }
    return text;
}

std::optional<Problem> SampleTableWindow::writeCsv(const QString& path) const {
    return writeFile(path.toStdString(), tableCsv(model_->table()));
}

bool SampleTableWindow::eventFilter(QObject* object, QEvent* event) {
    if (event->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(event)->matches(QKeySequence::Copy)) {
        QApplication::clipboard()->setText(copied());
        return true;
    }
    return QDialog::eventFilter(object, event);
}

} // namespace coulter
