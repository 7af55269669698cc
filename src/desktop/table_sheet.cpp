#include "desktop/table_sheet.h"

#include "data/attach_tables.h"
#include "desktop/choice_field.h"
#include "formula/text.h"
#include "typeset/words.h"

#include <QFormLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QSpinBox>
#include <QTableWidget>
#include <QVBoxLayout>
#include <array>
#include <cmath>

namespace coulter {
namespace {

constexpr std::array<char, 5> delimiters{',', ';', '\t', '|', ' '};
constexpr std::array<char, 2> decimals{'.', ','};
constexpr int mostShown = 100; // rows of the preview

QString headingOf(const DataColumn& column) {
    QString text = QString::fromStdString(column.name);
    if (!column.unit.empty()) text += " / " + QString::fromStdString(printedUnit(column.unit));
    if (!column.meaning.empty() && column.meaning != column.name) text += "\n" + QString::fromStdString(column.meaning);
    return text;
}

template <class List> int placeOf(const List& list, char value) {
    return static_cast<int>(std::ranges::find(list, value) - list.begin());
}

} // namespace

TableSheet::TableSheet(const LookSettings& look, const QString& name, Reading read, QWidget* parent)
    : QDialog(parent), reading_(std::move(read)), delimiter_(new ChoiceField), decimal_(new ChoiceField),
      firstRow_(new QSpinBox), preview_(new QTableWidget), summary_(new QLabel), take_(new QPushButton(tr("Take in"))) {
    setObjectName("tableSheet");
    setWindowTitle(tr("%1 – data").arg(name));
    resize(look.look().px(620), look.look().px(520));
    delimiter_->addItems({tr("comma"), tr("semicolon"), tr("tab"), tr("bar"), tr("space")});
    decimal_->addItems({tr("point"), tr("comma")});
    firstRow_->setRange(1, 1'000'000);
    delimiter_->setObjectName("table-delimiter");
    decimal_->setObjectName("table-decimal");
    firstRow_->setObjectName("table-first-row");
    preview_->setObjectName("table-preview");
    preview_->setAccessibleName(tr("First rows"));
    preview_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    preview_->verticalHeader()->setDefaultSectionSize(fontMetrics().height() + 6);
    preview_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    summary_->setObjectName("table-summary");
    summary_->setWordWrap(true);
    take_->setObjectName("table-take");
    take_->setDefault(true);
    auto* cancel = new QPushButton(tr("Cancel"));
    connect(cancel, &QPushButton::clicked, this, &QDialog::reject);
    connect(take_, &QPushButton::clicked, this, [this] {
        if (!table_) return;
        emit taken(*table_);
        accept();
    });
    const auto chosen = [this] {
        if (showing_) return;
        shape_.delimiter = delimiters[static_cast<std::size_t>(std::max(0, delimiter_->currentIndex()))];
        shape_.decimal = decimals[static_cast<std::size_t>(std::max(0, decimal_->currentIndex()))];
        readAgain();
    };
    connect(delimiter_, &QComboBox::currentIndexChanged, this, chosen);
    connect(decimal_, &QComboBox::currentIndexChanged, this, chosen);
    connect(firstRow_, &QSpinBox::valueChanged, this, [this](int row) {
        if (showing_) return;
        shape_.firstRow = static_cast<std::size_t>(row);
        readAgain();
    });
    auto* form = new QFormLayout;
    form->addRow(tr("between cells"), delimiter_);
    form->addRow(tr("decimal sign"), decimal_);
    form->addRow(tr("numbers begin in line"), firstRow_);
    auto* buttons = new QHBoxLayout;
    buttons->addStretch(1);
    buttons->addWidget(cancel);
    buttons->addWidget(take_);
    auto* column = new QVBoxLayout(this);
    column->addLayout(form);
    column->addWidget(preview_, 1);
    column->addWidget(summary_);
    column->addLayout(buttons);
    readAgain();
}

void TableSheet::readAgain() { show(reading_(shape_)); }

void TableSheet::show(const TableRead& read) {
    showing_ = true;
    const TableShape& found = read.found.shape;
    if (found.delimiter) delimiter_->setCurrentIndex(placeOf(delimiters, *found.delimiter));
    if (found.decimal) decimal_->setCurrentIndex(placeOf(decimals, *found.decimal));
    if (found.firstRow) firstRow_->setValue(static_cast<int>(*found.firstRow));
    showing_ = false;
    table_ = read.table;
    take_->setEnabled(table_.has_value());
    preview_->clear();
    preview_->setRowCount(0);
    preview_->setColumnCount(0);
    if (!table_) {
        summary_->setText(QString::fromStdString(describe(read.problem)));
        return;
    }
    const int rows = static_cast<int>(std::min<std::size_t>(mostShown, table_->rows()));
    preview_->setRowCount(rows);
    preview_->setColumnCount(static_cast<int>(table_->columns.size()));
    for (int k = 0; k < preview_->columnCount(); ++k) {
        const DataColumn& column = table_->columns[static_cast<std::size_t>(k)];
        preview_->setHorizontalHeaderItem(k, new QTableWidgetItem(headingOf(column)));
        for (int i = 0; i < rows; ++i) {
            const double value = (*column.numbers)[static_cast<std::size_t>(i)];
            auto* cell = new QTableWidgetItem(std::isnan(value) ? tr("missing")
                                                                : QString::fromStdString(roundedNumber(value, 15)));
            cell->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            if (std::isnan(value)) cell->setFlags(Qt::NoItemFlags);
            preview_->setItem(i, k, cell);
        }
    }
    QStringList said{tr("%1 rows of %2 columns, %3.")
                         .arg(table_->rows())
                         .arg(table_->columns.size())
                         .arg(QString::fromStdString(read.encoding))};
    if (!read.leftAside.empty()) {
        QStringList names;
        for (const std::string& name : read.leftAside) names << QString::fromStdString(name);
        said << tr("Columns of words are not read: %1.").arg(names.join(", "));
    }
    if (!read.found.skipped.empty())
        said << tr("Lines above that are no part of the table: %1.").arg(read.found.skipped.size());
    if (!fitsRecipe(*table_)) said << tr("That is more than a recipe keeps: the file must stay beside it.");
    summary_->setText(said.join(' '));
}

} // namespace coulter
