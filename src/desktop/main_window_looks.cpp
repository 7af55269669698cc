// Looks of figures: given, taken from files and saved as such. See main_window.h.
#include "desktop/main_window.h"
#include "desktop/translation.h"
#include "files/file_access.h"
#include "files/look_file.h"
#include "notes/document_look.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QMenu>

namespace coulter {

void MainWindow::fillLooks(QMenu& menu) {
    const std::size_t current = whichLook(session_.document().sheet);
    for (std::size_t i = 0; i < sheetLooks().size(); ++i) {
        QAction* each = menu.addAction(spoken(sheetLooks()[i].name), this, [this, i] { giveLook(sheetLooks()[i]); });
        each->setCheckable(true);
        each->setChecked(i == current);
    }
    menu.addSeparator();
    menu.addAction(tr("From a file…"), this, [this] {
        const QString path =
            QFileDialog::getOpenFileName(this, tr("A look, or a figure that has it"), session_.path(),
                                         tr("Looks and figures (*.coulter-look *.coulter *.pdf *.svg *.png *.tiff "
                                            "*.eps);;All files (*)"));
        if (!path.isEmpty()) takeLook(path);
    });
    menu.addAction(tr("Save it as a file…"), this, [this] {
        const QString path =
            QFileDialog::getSaveFileName(this, tr("Save the look"), "house.coulter-look", tr("Looks (*.coulter-look)"));
        if (!path.isEmpty()) saveLook(path);
    });
}

void MainWindow::giveLook(const SheetLook& look) {
    takeOver();
    Document document = session_.document();
    setLook(document, look);
    session_.edit(std::move(document), tr("change of the look"));
}

void MainWindow::takeLook(const QString& path) {
    const LookRead read = findLook(path.toStdString());
    if (!read.look) return say(spoken(read.problem), true);
    giveLook(*read.look);
    say(tr("The figure looks like %1.").arg(QFileInfo(path).fileName()), false);
}

void MainWindow::saveLook(const QString& path) {
    const auto problem = writeFile(path.toStdString(), writeLook(lookOf(session_.document().sheet)));
    say(problem ? spoken(*problem) : tr("%1 written").arg(QFileInfo(path).fileName()), problem.has_value());
}

} // namespace coulter
