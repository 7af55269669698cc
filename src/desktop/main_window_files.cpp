// Files behind the window's document: opened, saved, kept safe, changed by others. See main_window.h.
#include "data/attach_tables.h"
#include "desktop/main_window.h"
#include "desktop/print_figure.h"
#include "desktop/series_sheet.h"
#include "desktop/translation.h"
#include "desktop/while_reading.h"
#include "files/export.h"
#include "files/file_access.h"
#include "files/recipe.h"

#include <QApplication>
#include <QCloseEvent>
#include <QDateTime>
#include <QDir>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QPrintDialog>
#include <QPrinter>
#include <QSettings>

/// Resources of a static library are there only once something asks for them; this must stand outside namespaces.

namespace coulter {
namespace {

constexpr int mostRecent = 8;

std::filesystem::path folderOf(const DocumentSession& session) {
    return session.path().isEmpty() ? std::filesystem::path()
                                    : std::filesystem::path(QFileInfo(session.path()).absolutePath().toStdString());
}

} // namespace

std::optional<Document> MainWindow::documentIn(const QString& path, bool& isFigure) {
    const FileRead file = readFile(path.toStdString());
    if (!file.bytes) {
        say(spoken(file.problem), true);
        return std::nullopt;
    }
    const RecipeFound found = findRecipe(*file.bytes);
    RecipeRead read = found.recipe ? readRecipe(*found.recipe) : RecipeRead{std::nullopt, found.problem};
    if (!read.document) {
        say(QFileInfo(path).fileName() + ": " + spoken(read.problem), true);
        return std::nullopt;
    }
    const std::string folder = QFileInfo(path).absolutePath().toStdString();
    attachWhileReading(this, *read.document, folder);
    isFigure = found.format != nullptr;
    return read.document;
}

bool MainWindow::open(const QString& path) {
    bool isFigure = false;
    const auto document = documentIn(path, isFigure);
    if (!document) return false;
    say("", false);
    page_->selectLine(-1);
    // An exported figure is not overwritten by its recipe: saving asks for a name.
    session_.start(*document, isFigure ? QString() : path, QFileInfo(path).completeBaseName());
    remember(path);
    if (!isFigure && drafts_.draft().isOpenElsewhere(path.toStdString())) {
        notices_->show("elsewhere",
                       tr("“%1” is open in another window, too. Nothing is overwritten unasked: what is saved there is "
                          "offered here.")
                           .arg(QFileInfo(path).fileName()),
                       {});
    }
    lookAtFiles();
    return true;
}

bool MainWindow::isUntouched() const {
    return session_.path().isEmpty() && !session_.isChanged() && !session_.canUndo() && !session_.canRedo();
}

MainWindow* MainWindow::another() {
    auto* window = new MainWindow;
    window->setAttribute(Qt::WA_DeleteOnClose);
    window->resize(size());
    window->move(pos() + QPoint(30, 30));
    window->show();
    return window;
}

void MainWindow::openBeside(const QString& path) {
    const QString full = QFileInfo(path).canonicalFilePath();
    for (QWidget* each : QApplication::topLevelWidgets()) {
        auto* window = qobject_cast<MainWindow*>(each);
        if (!window || full.isEmpty() || QFileInfo(window->session_.path()).canonicalFilePath() != full) continue;
        window->raise();
        return window->activateWindow();
    }
    takeOver();
    if (isUntouched()) {
        open(path);
        return;
    }
    // What cannot be opened is said where it was asked for.
    bool isFigure = false;
    if (documentIn(path, isFigure)) another()->open(path);
}

void MainWindow::openSeries() {
    takeOver();
    if (!sheet_->figure()) return say(tr("There is no figure yet."), true);
    const QString folder = session_.path().isEmpty() ? QDir::homePath() : QFileInfo(session_.path()).absolutePath();
    auto* series = new SeriesSheet(
        look_, session_.document(), sheet_->figure()->figure, session_.name(), folder,
        [this](const QString& path) {
            bool isFigure = false;
            return documentIn(path, isFigure);
        },
        this);
    series->setAttribute(Qt::WA_DeleteOnClose);
    series->show();
}

void MainWindow::openExample(const Example& example) {
    if (example.document.page.empty()) return;
    MainWindow* window = isUntouched() ? this : another();
    window->session_.start(example.document, "", example.name);
}

/// A document that has no file yet stands where the last one was.
QString MainWindow::besideDocument(const QString& name) const {
    const QString recent = QSettings().value("recent").toStringList().value(0);
    const QString path = session_.path().isEmpty() ? recent : session_.path();
    const QDir folder = path.isEmpty() || !QFileInfo(path).dir().exists() ? QDir::home() : QFileInfo(path).dir();
    return folder.filePath(name);
}

void MainWindow::chooseFile() {
    const QString path =
        QFileDialog::getOpenFileName(this, tr("Open a recipe or a figure"), besideDocument(""), figureFilter());
    if (!path.isEmpty()) openBeside(path);
}

void MainWindow::openExamples() {
    auto* examples = new ExamplesWindow(look_, this);
    examples->setAttribute(Qt::WA_DeleteOnClose);
    connect(examples, &ExamplesWindow::chosen, this, &MainWindow::openExample);
    examples->show();
}

void MainWindow::print() {
    takeOver();
    if (exporting_) return say(tr("An export is still being written; try again in a moment."), true);
    const auto printer = std::make_shared<QPrinter>(QPrinter::HighResolution);
    printer->setDocName(session_.name());
    const Sheet sheet = session_.document().sheet;
    printer->setPageOrientation(sheet.width > sheet.height ? QPageLayout::Landscape : QPageLayout::Portrait);
    QPrintDialog dialog(printer.get(), this);
    if (dialog.exec() != QDialog::Accepted) return;
    exporting_ = true;
    showBusy();
    exporter_ = std::jthread([this, printer, document = session_.document()](const std::stop_token& stop) {
        const PrintPicture picture = drawForPrint(document, printer->resolution(), stop);
        QMetaObject::invokeMethod(this, [this, printer, picture, sheet = document.sheet] {
            exporting_ = false;
            showBusy();
            const QString said = printPicture(picture, sheet, *printer);
            say(said.isEmpty() ? tr("printed in its true size") : said, !said.isEmpty());
        });
    });
}

void MainWindow::remember(const QString& path) {
    QSettings settings;
    QStringList recent = settings.value("recent").toStringList();
    const QString full = QFileInfo(path).absoluteFilePath();
    recent.removeAll(full);
    recent.prepend(full);
    settings.setValue("recent", QStringList(recent.mid(0, mostRecent)));
}

bool MainWindow::save() {
    if (!session_.path().isEmpty()) return saveAs(session_.path());
    const QString path = QFileDialog::getSaveFileName(
        this, tr("Save the recipe"), besideDocument(session_.name() + ".coulter"), tr("Recipes (*.coulter)"));
    return !path.isEmpty() && saveAs(path);
}

bool MainWindow::saveAs(const QString& path) {
    takeOver();
    if (path == session_.path() && session_.isChangedOnDisk()) {
        lookAtFiles();
        return false;
    }
    if (const auto problem = session_.save(path)) {
        say(spoken(*problem), true);
        return false;
    }
    remember(path);
    lookAtFiles();
    say(tr("saved"), false);
    return true;
}

bool MainWindow::mayDiscard() {
    run_.end(false); // who watched it changed nothing
    page_->commitEditing();
    if (!session_.isChanged()) return true;
    const auto answer = QMessageBox::question(this, tr("Unsaved changes"),
                                              tr("“%1” has changes that are not saved.").arg(session_.name()),
                                              QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel);
    return answer == QMessageBox::Discard || (answer == QMessageBox::Save && save());
}

void MainWindow::closeEvent(QCloseEvent* event) { event->setAccepted(mayDiscard()); }

void MainWindow::askAndSave() {
    const QString path =
        QFileDialog::getSaveFileName(this, tr("Save the recipe"), session_.path(), tr("Recipes (*.coulter)"));
    if (!path.isEmpty()) saveAs(path);
}

void MainWindow::watchFiles() {
    QStringList files;
    if (!session_.path().isEmpty()) files << session_.path();
    for (const auto& file : tableFiles(session_.document(), folderOf(session_)))
        files << QString::fromStdString(file.string());
    files_.watch(files);
}

void MainWindow::lookAtFiles(bool wereTouched) {
    const QString path = session_.path();
    const std::filesystem::path folder = folderOf(session_);
    notices_->removeAll("changed");
    if (session_.isChangedOnDisk()) {
        notices_->show(
            "changed-recipe",
            tr("“%1” was changed by another program since it was opened here.").arg(QFileInfo(path).fileName()),
            {{tr("Show its text"),
              [this, path] {
                  bool isFigure = false;
                  if (auto document = documentIn(path, isFigure)) session_.takeFromDisk(std::move(*document));
              }},
             {tr("Compare"),
              [this, path] {
                  compareWith(path);
                  lookAtFiles();
              }},
             {tr("Save over it"),
              [this, path] {
                  session_.acceptDisk();
                  saveAs(path);
              }},
             {tr("Save as…"), [this] { askAndSave(); }}});
    }
    for (const ChangedTable& each : changedTables(session_.document(), folder, wereTouched)) {
        const QString source = QString::fromStdString(each.source);
        notices_->show("changed-table-" + source, spoken(each.note),
                       {{tr("Read it again"), [this, each] {
                             session_.edit(withTableReadAgain(session_.document(), each.source, folderOf(session_)),
                                           tr("data read again"));
                         }}});
    }
}

void MainWindow::offerLostDrafts() {
    int number = 0;
    for (const LostDraft& lost : lostDrafts(draftFolder())) {
        const auto when = QDateTime::fromSecsSinceEpoch(std::chrono::system_clock::to_time_t(lost.when));
        notices_->show(
            "lost-" + QString::number(++number),
            tr("“%1” has changes that were not saved when the program ended (%2).")
                .arg(QString::fromStdString(lost.name), when.toString("yyyy-MM-dd hh:mm")),
            {{tr("Restore"), [this, lost] { restore(lost); }}, {tr("Throw away"), [lost] { throwAway(lost); }}});
    }
}

void MainWindow::restore(const LostDraft& lost) {
    std::error_code error;
    if (!std::filesystem::exists(lost.file, error)) return say(tr("It was restored in another window."), true);
    takeOver();
    MainWindow* window = isUntouched() ? this : another();
    const QString of = QString::fromStdString(lost.of.string());
    bool isFigure = false;
    // What its file has is the step of undo before what was restored.
    auto saved = lost.of.empty() || !std::filesystem::exists(lost.of, error) ? std::optional<Document>()
                                                                             : documentIn(of, isFigure);
    window->session_.start(saved.value_or(Document{}), of, QString::fromStdString(lost.name));
    Document document = lost.document;
    attachWhileReading(window, document, folderOf(window->session_));
    window->session_.edit(std::move(document), tr("changes restored"));
    window->lookAtFiles();
    throwAway(lost); // the window's own draft has it by now
    window->say(tr("restored; not saved yet"), false);
}

} // namespace coulter
