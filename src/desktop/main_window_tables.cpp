// Measured numbers, taken in by the window. See main_window.h.
#include "data/attach_tables.h"
#include "data/read_file.h"
#include "desktop/main_window.h"
#include "formula/lines/read_page.h"
#include "plots/table_edits.h"

#include <QDir>
#include <QFileDialog>
#include <QFileInfo>

namespace coulter {

void MainWindow::chooseTable() {
    takeOver();
    const QString path = QFileDialog::getOpenFileName(
        this, tr("Take in measured numbers"), QFileInfo(session_.path()).absolutePath(),
        tr("Measured numbers (*.csv *.tsv *.txt *.dat *.nc *.vtu *.tif *.tiff *.png);;All files (*)"));
    if (!path.isEmpty()) offerTable(path);
}

void MainWindow::openData() {
    takeOver();
    if (!data_) data_ = new DataTableWindow(session_, look_, this);
    data_->show();
    data_->raise();
    // The table of the line that was touched last.
    const Page page = readPage(session_.document());
    const int line = page_->selectedLine();
    if (line >= 0 && line < static_cast<int>(page.lines.size()))
        data_->choose(QString::fromStdString(page.lines[static_cast<std::size_t>(line)].table));
}

void MainWindow::offerTable(const QString& path) {
    // A file in the recipe's folder is called by its way from there, so that it is found again.
    QString name = QFileInfo(path).fileName();
    if (!session_.path().isEmpty()) {
        const QString relative =
            QFileInfo(session_.path()).absoluteDir().relativeFilePath(QFileInfo(path).absoluteFilePath());
        if (!relative.startsWith("..")) name = relative;
    }
    showTable(name, [path = path.toStdString()](const TableShape& shape, const std::string& variable,
                                                const std::stop_token& stop) {
        return readDataFile(path, shape, variable, stop);
    });
}

void MainWindow::offerTableText(const QString& text) {
    int number = 1;
    while (session_.document().tables.find("pasted " + std::to_string(number))) ++number;
    showTable("pasted " + QString::number(number),
              [bytes = text.toStdString()](const TableShape& shape, const std::string&, const std::stop_token&) {
                  return readTable(bytes, "", shape);
              });
}

void MainWindow::showTable(const QString& name, TableSheet::Reading read) {
    takeOver();
    auto* sheet = new TableSheet(look_, name, std::move(read), this);
    sheet->setAttribute(Qt::WA_DeleteOnClose);
    connect(sheet, &TableSheet::taken, this, [this, name](DataTable table, const GridPlace& place) {
        table.source = tableKey(name.toStdString(), readTableKey(table.source).variable);
        table.isBeside = !table.digest.empty() && !fitsRecipe(table);
        const std::size_t panel = sheet_->selection().panel;
        session_.edit(withTable(session_.document(), std::move(table), panel, place), tr("data taken in"));
    });
    sheet->open();
}

} // namespace coulter
