#include "desktop/table_sheet.h"

#include "data/attach_tables.h"
#include "desktop/choice_field.h"
#include "desktop/translation.h"
#include "desktop/while_reading.h"
#include "formula/base/text.h"
#include "formula/measured/measured_grid.h"
#include "typeset/words.h"

#include <QFormLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QImage>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QRegularExpression>
#include <QSpinBox>
#include <QTableWidget>
#include <QVBoxLayout>
#include <array>
#include <cmath>

namespace coulter {
namespace {

constexpr std::array<char, 5> delimiters{',', ';', '\t', '|', ' '};
constexpr std::array<char, 2> decimals{'.', ','};
constexpr int mostShown = 100;             // rows of the preview
constexpr int mostPicture = 320;           // dots of its longer side
constexpr std::size_t mostLookedAt = 1000; // numbers of a longer side that the picture is made of

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
    : QDialog(parent), name_(name), reading_(std::move(read)), delimiter_(new ChoiceField), decimal_(new ChoiceField),
      variable_(new ChoiceField), form_(new QFormLayout), pitch_(new QLineEdit), origin_(new QLineEdit),
      firstRowOfGrid_(new ChoiceField), firstRow_(new QSpinBox), preview_(new QTableWidget), picture_(new QLabel),
      summary_(new QLabel), take_(new QPushButton(tr("Take in"))) {
    setObjectName("tableSheet");
    setWindowTitle(tr("%1 – data").arg(name));
    resize(look.look().px(620), look.look().px(520));
    delimiter_->addItems({tr("comma"), tr("semicolon"), tr("tab"), tr("bar"), tr("space")});
    decimal_->addItems({tr("point"), tr("comma")});
    firstRow_->setRange(1, 1'000'000);
    delimiter_->setObjectName("table-delimiter");
    decimal_->setObjectName("table-decimal");
    firstRow_->setObjectName("table-first-row");
    variable_->setObjectName("table-variable");
    picture_->setObjectName("table-picture");
    picture_->setAccessibleName(tr("The numbers in shades of grey"));
    picture_->setAlignment(Qt::AlignCenter);
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
        if (!chosen_.empty()) table_->source = tableKey(table_->source, chosen_);
        emit taken(*table_, place_);
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
    connect(variable_, &QComboBox::currentIndexChanged, this, [this] {
        if (showing_) return;
        chosen_ = variable_->currentText().toStdString();
        readAgain();
    });
    connect(firstRow_, &QSpinBox::valueChanged, this, [this](int row) {
        if (showing_) return;
        shape_.firstRow = static_cast<std::size_t>(row);
        readAgain();
    });
    form_->addRow(tr("between cells"), delimiter_);
    form_->addRow(tr("decimal sign"), decimal_);
    form_->addRow(tr("numbers begin in line"), firstRow_);
    form_->addRow(tr("variable"), variable_);
    for (QLineEdit* each : {pitch_, origin_}) each->setPlaceholderText(tr("as the file says"));
    pitch_->setObjectName("table-pitch");
    pitch_->setToolTip(tr("The width of each number: 0.05, or 0.05, 0.1 to the right and upwards"));
    origin_->setObjectName("table-origin");
    origin_->setToolTip(tr("Where the lower left corner lies: -6, -6"));
    firstRowOfGrid_->setObjectName("table-rows");
    firstRowOfGrid_->addItems({tr("as the file has it"), tr("turned by 90°"), tr("turned by 180°"),
                               tr("turned by 270°"), tr("mirrored top to bottom"), tr("mirrored, turned by 90°"),
                               tr("mirrored left to right"), tr("mirrored, turned by 270°")});
    firstRowOfGrid_->setToolTip(tr("Turns are counter-clockwise, of what is mirrored top to bottom first"));
    form_->addRow(tr("pitch"), pitch_);
    form_->addRow(tr("lower left corner"), origin_);
    form_->addRow(tr("rows"), firstRowOfGrid_);
    connect(pitch_, &QLineEdit::textChanged, this, &TableSheet::sayGrid);
    connect(origin_, &QLineEdit::textChanged, this, &TableSheet::sayGrid);
    connect(firstRowOfGrid_, &QComboBox::currentIndexChanged, this, [this] {
        if (showing_) return;
        sayGrid();
        showGrid();
    });
    auto* buttons = new QHBoxLayout;
    buttons->addStretch(1);
    buttons->addWidget(cancel);
    buttons->addWidget(take_);
    auto* column = new QVBoxLayout(this);
    column->addLayout(form_);
    column->addWidget(preview_, 1);
    column->addWidget(picture_, 1);
    column->addWidget(summary_);
    column->addLayout(buttons);
    readAgain();
}

TableRead TableSheet::readChosen() {
    TableRead read;
    whileReading(this, tr("Reading “%1” …").arg(name_),
                 [&](const std::stop_token& stop) { read = reading_(shape_, chosen_, stop); });
    return read;
}

void TableSheet::readAgain() {
    TableRead read = readChosen();
    if (!read.table && chosen_.empty() && !read.variables.empty()) { // one of several: the first until it is chosen
        chosen_ = read.variables.front();
        read = readChosen();
    }
    show(read);
}

void TableSheet::show(const TableRead& read) {
    showing_ = true;
    const TableShape& found = read.found.shape;
    if (found.delimiter) delimiter_->setCurrentIndex(placeOf(delimiters, *found.delimiter));
    if (found.decimal) decimal_->setCurrentIndex(placeOf(decimals, *found.decimal));
    if (found.firstRow) firstRow_->setValue(static_cast<int>(*found.firstRow));
    if (variable_->count() == 0) {
        for (const std::string& each : read.variables) variable_->addItem(QString::fromStdString(each));
    }
    variable_->setCurrentIndex(variable_->findText(QString::fromStdString(chosen_)));
    showing_ = false;
    const bool isGrid = read.table && !read.table->axes.empty(), isText = found.delimiter.has_value();
    const auto setShown = [this](QWidget* field, bool shown) {
        field->setVisible(shown);
        form_->labelForField(field)->setVisible(shown);
    };
    for (QWidget* field :
         {static_cast<QWidget*>(delimiter_), static_cast<QWidget*>(decimal_), static_cast<QWidget*>(firstRow_)})
        setShown(field, isText);
    setShown(variable_, variable_->count() > 1);
    for (QWidget* field : {static_cast<QWidget*>(pitch_), static_cast<QWidget*>(origin_)}) setShown(field, isGrid);
    setShown(firstRowOfGrid_, isGrid && !read.table->far);
    said_.clear();
    preview_->setVisible(!isGrid);
    picture_->setVisible(isGrid);
    table_ = read.table;
    take_->setEnabled(table_.has_value());
    preview_->clear();
    preview_->setRowCount(0);
    preview_->setColumnCount(0);
    if (!table_) {
        summary_->setText(spoken(read.problem));
        return;
    }
    QStringList said;
    if (isGrid) {
        take_->setFocus(); // mostly there is nothing to be corrected
        QStringList sizes;
        for (const DataAxis& axis : table_->axes) sizes << QString::number(axis.places->size());
        said << tr("%1 numbers, %2.").arg(sizes.join(" × "), spoken(read.encoding));
    } else if (table_->mesh) {
        showRows();
        said << tr("%1 nodes and %2 elements, %3.")
                    .arg(table_->mesh->places[0]->size())
                    .arg(table_->mesh->corners[0]->size())
                    .arg(spoken(read.encoding));
    } else {
        showRows();
        said << tr("%1 rows of %2 columns, %3.")
                    .arg(table_->rows())
                    .arg(table_->columns.size())
                    .arg(spoken(read.encoding));
    }
    if (!read.leftAside.empty()) {
        QStringList names;
        for (const std::string& name : read.leftAside) names << QString::fromStdString(name);
        said << tr("Columns of words are not read: %1.").arg(names.join(", "));
    }
    if (!read.found.skipped.empty())
        said << tr("Lines above that are no part of the table: %1.").arg(read.found.skipped.size());
    if (!fitsRecipe(*table_)) said << tr("That is more than a recipe keeps: the file must stay beside it.");
    if (!isGrid) return summary_->setText(said.join(' '));
    said_ = said;
    sayGrid();
    showGrid();
}

QString TableSheet::readPlace(GridOfTable& grid) {
    place_ = {};
    const auto read = [](const QLineEdit* field, std::vector<double>& into) {
        static const QRegularExpression between("[,;\\s]+");
        for (const QString& word : field->text().split(between, Qt::SkipEmptyParts)) {
            bool good = false;
            into.push_back(QString(word).replace(QChar(0x2212), '-').toDouble(&good));
            if (!good) return false;
        }
        return true;
    };
    if (!read(pitch_, place_.pitch)) return tr("The pitch is a number, or two: “%1” is none.").arg(pitch_->text());
    if (!read(origin_, place_.origin)) return tr("The corner is two numbers: “%1” are none.").arg(origin_->text());
    if (!table_->far) {
        place_.rowsUpwards = firstRowOfGrid_->currentIndex() > 3;
        place_.quarters = firstRowOfGrid_->currentIndex() % 4;
    }
    grid = gridOf(*table_);
    return spoken(layGrid(grid, place_));
}

/// Where the grid lies, from what the file and the fields say.
void TableSheet::sayGrid() {
    if (showing_ || !table_ || table_->axes.empty()) return;
    GridOfTable grid;
    const QString trouble = readPlace(grid);
    take_->setEnabled(trouble.isEmpty());
    QStringList said = said_;
    if (!trouble.isEmpty()) return summary_->setText((said << trouble).join(' '));
    const DataAxis& first = grid.axes[0];
    const std::vector<double>& places = *first.places;
    const QString unit = first.unit.empty() ? QString() : " " + QString::fromStdString(printedUnit(first.unit));
    if (first.isCounted)
        said << tr("How far apart they are is not said: each is taken as 1 wide.");
    else if (places.size() > 1)
        said << (place_.pitch.empty() ? tr("They are %1 apart, as the file says.") : tr("They are %1 apart."))
                    .arg(QString::fromStdString(roundedNumber(places[1] - places[0], 6)) + unit);
    QStringList reach;
    for (std::size_t k = 0; k < std::min<std::size_t>(2, grid.axes.size()); ++k)
        reach << QString::fromStdString(intervalOf(*grid.axes[k].places, true));
    said << tr("They fill %1.").arg(reach.join(" × ") + unit);
    summary_->setText(said.join(' '));
}

/// The first page of a grid, from black for the lowest number to white for the highest but for a fiftieth at both ends.
void TableSheet::showGrid() {
    GridOfTable grid;
    readPlace(grid);
    const std::size_t fullWidth = grid.axes[0].places->size(),
                      fullHeight = grid.axes.size() > 1 ? grid.axes[1].places->size() : 1,
                      thin = 1 + (std::max(fullWidth, fullHeight) - 1) / mostLookedAt, // every so many
        width = (fullWidth + thin - 1) / thin, height = (fullHeight + thin - 1) / thin;
    std::vector<double> numbers(width * height), sorted;
    for (std::size_t i = 0; i < numbers.size(); ++i) {
        const std::size_t at = i / width * thin * fullWidth + i % width * thin;
        numbers[i] = grid.far ? grid.far->at(at) : (*grid.values)[at];
        if (!std::isnan(numbers[i])) sorted.push_back(numbers[i]);
    }
    std::ranges::sort(sorted);
    const double low = sorted.empty() ? 0 : sorted[sorted.size() / 50],
                 high = sorted.empty() ? 1 : sorted[sorted.size() - 1 - sorted.size() / 50];
    QImage image(static_cast<int>(width), static_cast<int>(height), QImage::Format_Grayscale8);
    for (std::size_t y = 0; y < height; ++y) {
        uchar* line = image.scanLine(static_cast<int>(height - 1 - y));
        for (std::size_t x = 0; x < width; ++x) {
            const double share = (numbers[y * width + x] - low) / (high > low ? high - low : 1);
            line[x] = static_cast<uchar>(std::isnan(share) ? 128 : std::clamp(255 * share, 0.0, 255.0));
        }
    }
    picture_->setPixmap(QPixmap::fromImage(image).scaled(mostPicture, mostPicture, Qt::KeepAspectRatio));
}

void TableSheet::showRows() {
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
}

} // namespace coulter
