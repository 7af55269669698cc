#include "desktop/main_window.h"

#include "desktop/compare_sheet.h"
#include "desktop/translation.h"

#include "composition/draw_figure.h"
#include "data/attach_tables.h"
#include "drawing/svg_writer.h"
#include "files/export.h"
#include "files/file_access.h"
#include "files/recipe.h"
#include "formula/lines/read_page.h"
#include "plots/page_edits.h"

#include <QApplication>
#include <QClipboard>
#include <QCloseEvent>
#include <QDragEnterEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QFrame>
#include <QLabel>
#include <QMenu>
#include <QMessageBox>
#include <QMimeData>
#include <QProgressBar>
#include <QSettings>
#include <QShortcut>
#include <QSplitter>
#include <QTimer>
#include <QToolButton>
#include <QVBoxLayout>
#include <cmath>

namespace coulter {
namespace {

/// Widgets one above the other, without gaps, each with its share of the height that is left.
QWidget* stacked(const char* name, std::initializer_list<std::pair<QWidget*, int>> parts) {
    auto* pane = new QWidget;
    pane->setObjectName(name);
    auto* column = new QVBoxLayout(pane);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    for (const auto& [part, share] : parts) column->addWidget(part, share);
    return pane;
}

} // namespace

MainWindow::MainWindow(QWidget* parent) : QMainWindow(parent) {
    setAcceptDrops(true);
    setObjectName("window");
    resize(1280, 800);
    makePanes();
    makeBar();
    connect(&session_, &DocumentSession::stateChanged, this, &MainWindow::updateState);
    connect(&session_, &DocumentSession::stateChanged, this, &MainWindow::watchFiles);
    connect(&session_, &DocumentSession::started, this, [this] {
        notices_->remove("elsewhere");
        lookAtFiles();
    });
    connect(&files_, &FileWatch::mayHaveChanged, this, [this] { lookAtFiles(true); });
    // A blink of work needs no sign; longer work gets one, and can be stopped.
    auto* patience = new QTimer(this);
    patience->setSingleShot(true);
    patience->setInterval(200);
    connect(this, &MainWindow::busyShown, this, [this, patience] {
        if (busy() && !patience->isActive() && !progress_->isVisible()) patience->start();
        if (!busy()) {
            patience->stop();
            progress_->hide();
            stop_->hide();
        }
    });
    connect(&worker_, &FigureWorker::busyChanged, this, &MainWindow::showBusy);
    connect(patience, &QTimer::timeout, this, [this] {
        progress_->show();
        stop_->show();
    });
    session_.start(Document{}, "");
    updateState();
}

void MainWindow::makePanes() {
    page_ = new FormulaPage(session_, look_);
    scratch_ = new ScratchStrip(session_, look_);
    connect(scratch_, &ScratchStrip::wanted, this, [this](const QString& line) {
        page_->addLine();
        page_->insertText(line);
        page_->commitEditing();
    });
    sheet_ = new SheetView(session_, worker_, look_);
    ribbon_ = new SamplingRibbon(session_, *sheet_, look_);
    makeStart();
    particulars_ = new Particulars(session_, *sheet_, look_);
    remarks_ = new Remarks(session_, *sheet_, look_);
    connect(page_, &FormulaPage::scrubbing, sheet_, &SheetView::holdRange);
    connect(&run_, &QuantityRun::running, sheet_, &SheetView::holdRange);
    connect(&run_, &QuantityRun::running, this, [this](bool on) {
        const QString name = QString::fromStdString(run_.name());
        say(on ? tr("%1 runs to and fro; Space keeps its value, Esc goes back").arg(name) : QString(), false);
    });
    connect(&worker_, &FigureWorker::ready, &run_, &QuantityRun::figureShown);
    connect(page_, &FormulaPage::runWanted, this, [this](int line) {
        if (run_.isRunning()) return run_.end(true);
        if (const QString why = run_.begin(readPage(session_.document()), line); !why.isEmpty()) say(why, true);
    });
    connect(page_, &FormulaPage::runEndWanted, &run_, &QuantityRun::end);
    connect(page_, &FormulaPage::lineSelected, this, &MainWindow::selectPlotOf);
    connect(&session_, &DocumentSession::started, this, [this] {
        if (session_.document().page.empty()) page_->setFocus(); // to be written on at once
    });
    connect(sheet_, &SheetView::drawAsWanted, this, &MainWindow::drawAs);
    connect(sheet_, &SheetView::mapsWanted, this, &MainWindow::chooseMap);
    connect(sheet_, &SheetView::textPasted, this, &MainWindow::offerTableText);
    connect(sheet_, &SheetView::refused, this, [this](const QString& sentence) { say(sentence, true); });
    connect(page_, &FormulaPage::tablePasted, this, &MainWindow::offerTableText);
    connect(page_, &FormulaPage::menuWanted, this, [this](const QPoint& at) {
        auto* menu = new QMenu(this);
        menu->setObjectName("lineMenu");
        menu->setAttribute(Qt::WA_DeleteOnClose);
        fillLineMenu(*menu);
        menu->popup(at);
    });
    connect(ribbon_, &SamplingRibbon::tableWanted, this, &MainWindow::openTable);
    connect(remarks_, &Remarks::lineChosen, this, [this](int line, int character) {
        if (line >= 0) page_->editLine(line, std::max(0, character - 1));
    });

    auto* left = stacked("left", {{page_, 1}, {scratch_, 0}});
    auto* middle = stacked("middle", {{sheet_, 1}, {ribbon_, 0}});
    heading_ = new QLabel(tr("Remarks"));
    heading_->setObjectName("paneHeading");
    auto* side = stacked("side", {{particulars_, 3}, {heading_, 0}, {remarks_, 2}});

    auto* splitter = new QSplitter;
    splitter->setObjectName("panes");
    splitter->setHandleWidth(1);
    splitter->setChildrenCollapsible(false);
    splitter->addWidget(left);
    splitter->addWidget(middle);
    splitter->addWidget(side);
    // A small window takes from all three, so that the sheet never becomes a stamp.
    splitter->setStretchFactor(0, 30);
    splitter->setStretchFactor(1, 55);
    splitter->setStretchFactor(2, 15);
    splitter->setSizes({420, 576, 284}); // particulars are whole beside their scroll bar
    left->setMinimumWidth(220);
    side->setMinimumWidth(180);

    bar_ = new QWidget;
    bar_->setObjectName("bar");
    auto* whole = new QWidget;
    auto* rows = new QVBoxLayout(whole);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->setSpacing(0);
    notices_ = new Notices(look_);
    rows->addWidget(bar_);
    rows->addWidget(notices_);
    rows->addWidget(splitter, 1);
    setCentralWidget(whole);
}

void MainWindow::makeStart() {
    start_ = new StartSheet(look_, sheet_);
    connect(start_, &StartSheet::lineWanted, this, [this](const QString& line) {
        page_->addLine(line);
        page_->commitEditing();
    });
    connect(start_, &StartSheet::exampleWanted, this, [this](const QString& name) { openExample(exampleOf(name)); });
    connect(start_, &StartSheet::examplesWanted, this, &MainWindow::openExamples);
    connect(start_, &StartSheet::fileWanted, this, &MainWindow::openBeside);
    connect(start_, &StartSheet::openWanted, this, &MainWindow::chooseFile);
    connect(start_, &StartSheet::dataWanted, this, &MainWindow::chooseTable);
    connect(&session_, &DocumentSession::shownChanged, this, &MainWindow::updateStart);
}

void MainWindow::updateStart() {
    const Document& shown = session_.shown();
    const auto isBlank = [](const std::string& line) { return line.find_first_not_of(" \t") == std::string::npos; };
    const bool hasPlots = std::ranges::any_of(shown.panels, [](const Panel& panel) { return !panel.plots.empty(); });
    const bool isEmpty = !hasPlots && std::ranges::all_of(shown.page, isBlank);
    start_->setVisible(isEmpty);
    // There is nothing yet whose particulars could matter, and nothing to remark upon.
    for (QWidget* each : {static_cast<QWidget*>(particulars_), static_cast<QWidget*>(heading_),
                          static_cast<QWidget*>(remarks_), static_cast<QWidget*>(ribbon_)})
        each->setVisible(!isEmpty);
}

void MainWindow::selectPlotOf(int line) {
    const Document& document = session_.shown();
    if (line < 0 || line >= static_cast<int>(document.page.size())) return;
    if (const auto path = plotOfLine(document, static_cast<std::size_t>(line))) sheet_->select(*path);
}

void MainWindow::openFunctions() {
    if (!functions_) {
        functions_ = new FunctionCatalogue(look_, this);
        connect(functions_, &FunctionCatalogue::inserted, page_, &FormulaPage::insertText);
    }
    functions_->show();
    functions_->raise();
}

ManualPlace MainWindow::placeInManual() const {
    const QWidget* focus = focusWidget(); // of this window, whichever is active
    const auto within = [&](const QWidget* pane) {
        return focus && pane && (focus == pane || pane->isAncestorOf(focus));
    };
    const Document& document = session_.document();
    if (within(page_)) {
        const Page page = readPage(document);
        const int line = page_->selectedLine();
        const bool known = line >= 0 && line < static_cast<int>(page.lines.size());
        return known ? manualOfLine(page.lines[static_cast<std::size_t>(line)]) : ManualPlace{"notation", "Lines"};
    }
    if (within(scratch_)) return {"notation", "Questions and their errors"};
    if (within(ribbon_)) return {"sampling", ""};
    if (within(remarks_)) return {"remarks", ""};
    QString setting;
    if (within(particulars_)) {
        for (const QWidget* at = focus; at && setting.isEmpty(); at = at->parentWidget()) {
            if (at->objectName().startsWith("setting-")) setting = at->objectName().mid(8);
        }
    }
    if (within(particulars_) || within(sheet_)) return manualOfItem(document, sheet_->selection(), setting);
    return {"guide", ""};
}

void MainWindow::openManual() { showManual(placeInManual()); }

void MainWindow::showManual(const ManualPlace& place) {
    if (!manual_) {
        manual_ = new ManualWindow(look_, this);
        connect(manual_, &ManualWindow::lineWanted, this, [this](const QString& line) {
            page_->addLine();
            page_->insertText(line);
            page_->commitEditing();
        });
    }
    manual_->show(place);
}

void MainWindow::drawAs(const ItemPath& path) { showPictures(makeKindSheet(session_, look_, path, this)); }

void MainWindow::chooseMap(std::size_t panel) { showPictures(makeMapSheet(session_, look_, panel, this)); }

void MainWindow::showPictures(PictureSheet* pictures) {
    pictures->setAttribute(Qt::WA_DeleteOnClose);
    pictures->show();
    pictures->raise();
}

void MainWindow::openTable() {
    if (!table_) table_ = new SampleTableWindow(session_, *sheet_, this);
    table_->show();
    table_->raise();
}

void MainWindow::updateState() {
    documentButton_->setText(session_.name() + (session_.isChanged() ? " •" : ""));
    setWindowTitle(session_.name() + (session_.isChanged() ? " •" : "") + " – Coulter");
    undo_->setEnabled(session_.canUndo());
    redo_->setEnabled(session_.canRedo());
    undo_->setToolTip(session_.canUndo() ? tr("Undo: %1").arg(session_.undoText()) : tr("Nothing to undo"));
    redo_->setToolTip(session_.canRedo() ? tr("Redo: %1").arg(session_.redoText()) : tr("Nothing to redo"));
}

QString MainWindow::message() const { return message_->text(); }

void MainWindow::say(const QString& text, bool wrong) {
    message_->setText(text);
    message_->setStyleSheet("color:" + (wrong ? look_.look().wrong() : look_.look().muted()).name());
    if (!wrong) {
        QTimer::singleShot(6000, message_, [this, text] {
            if (message_->text() == text) message_->clear();
        });
    }
}

QString MainWindow::figureFilter() {
    QString endings = "*.coulter *.tif";
    for (const ExportFormat& format : exportFormats())
        endings += " *." + QString::fromUtf8(format.name.data(), static_cast<qsizetype>(format.name.size()));
    return tr("Recipes and figures (%1)").arg(endings);
}

void MainWindow::chooseComparison() {
    takeOver();
    const QString path = QFileDialog::getOpenFileName(this, tr("Compare with a recipe or a figure"), session_.path(),
                                                      figureFilter() + ";;" + tr("All files (*)"));
    if (!path.isEmpty()) compareWith(path);
}

bool MainWindow::compareWith(const QString& path) {
    takeOver();
    bool isFigure = false;
    auto other = documentIn(path, isFigure);
    if (!other) return false;
    auto* sheet = new CompareSheet(look_, QFileInfo(path).fileName(), std::move(*other), session_.document(), this);
    sheet->setAttribute(Qt::WA_DeleteOnClose);
    sheet->open();
    return true;
}

void MainWindow::takeOver() {
    page_->commitEditing();
    run_.end(true);
}

void MainWindow::chooseExport() {
    takeOver();
    QStringList filters;
    for (const ExportFormat& format : exportFormats()) {
        const QString name = QString::fromLatin1(format.name.data(), static_cast<int>(format.name.size()));
        filters << tr("%1: %2 (*.%3)").arg(name.toUpper(), spoken(std::string(format.meaning)), name);
    }
    QString chosen;
    QString path = QFileDialog::getSaveFileName(this, tr("Export the figure"), besideDocument(session_.name() + ".pdf"),
                                                filters.join(";;"), &chosen);
    if (path.isEmpty()) return;
    if (QFileInfo(path).suffix().isEmpty()) path += chosen.left(3).toLower().prepend('.');
    exportTo(path);
}

void MainWindow::exportTo(const QString& path) {
    const ExportFormat* format = findFormat(QFileInfo(path).suffix().toLower().toStdString());
    if (!format)
        return say(tr("The ending of %1 names no format; write %2.")
                       .arg(QFileInfo(path).fileName(), QString::fromStdString(formatNames())),
                   true);
    takeOver();
    if (exporting_) return say(tr("An export is still being written; try again in a moment."), true);
    exporting_ = true;
    showBusy();
    say(tr("exporting…"), false);
    const ExportOptions options{sheet_->isPatient(), {}};
    exporter_ =
        std::jthread([this, format, path, options, document = session_.document()](const std::stop_token& stop) {
            const Exported result = exportFigure(document, *format, stop, options);
            std::optional<Problem> problem =
                result.bytes ? writeFile(path.toStdString(), *result.bytes) : std::optional(result.problem);
            QMetaObject::invokeMethod(this, [this, path, problem, unfinished = result.unfinished] {
                exporting_ = false;
                showBusy();
                if (problem)
                    say(spoken(*problem), true);
                else if (unfinished)
                    say(tr("%1 written, but: %2").arg(QFileInfo(path).fileName(), spoken(*unfinished)), true);
                else
                    say(tr("%1 written").arg(QFileInfo(path).fileName()), false);
                if (!problem) emit exported(path);
            });
        });
}

void MainWindow::copyPicture() {
    takeOver();
    if (exporting_) return say(tr("An export is still being written; try again in a moment."), true);
    // Drawn for the clipboard itself: what is on the sheet may still be a coarse picture, or an older one.
    exporting_ = true;
    showBusy();
    Effort effort = effortOf(session_.document().sheet);
    if (sheet_->isPatient()) effort.operations = HUGE_VAL;
    exporter_ = std::jthread([this, effort, document = session_.document()](const std::stop_token& stop) {
        const Figure figure = drawFigure(document, effort, stop);
        const auto problem = plotProblem(figure);
        const Raster raster = paintRaster(figure.scene, document.sheet.resolution / 25.4);
        const QImage image = QImage(reinterpret_cast<const uchar*>(raster.pixels.data()), raster.width, raster.height,
                                    raster.width * 4, QImage::Format_RGB32)
                                 .copy();
        const std::string text = writeRecipe(document);
        const auto svg = QByteArray::fromStdString(writeSvg(figure.scene, titleOf(figure), text));
        const auto recipe = QByteArray::fromStdString(text);
        const bool stopped = stop.stop_requested();
        QMetaObject::invokeMethod(this, [this, image, svg, recipe, problem, stopped] {
            exporting_ = false;
            showBusy();
            if (stopped || problem || image.isNull())
                return say(problem   ? spoken(*problem)
                           : stopped ? tr("The figure was not copied.")
                                     : tr("There is not enough memory for a picture of this size."),
                           true);
            auto* mime = new QMimeData;
            mime->setImageData(image);
            mime->setData("image/svg+xml", svg);
            mime->setData("application/x-coulter", recipe);
            QApplication::clipboard()->setMimeData(mime);
            say(tr("figure copied"), false);
        });
    });
}

namespace {

/// Whether a picture is a figure of ours, rather than something that was measured.
bool holdsRecipe(const QString& path) {
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) return true; // opening it says what is wrong
    const uchar* bytes = file.map(0, file.size());
    const ExportFormat* format = findFormat(QFileInfo(path).suffix().toLower().toStdString());
    if (!bytes || !format) return false;
    return format->recipeIn({reinterpret_cast<const char*>(bytes), static_cast<std::size_t>(file.size())}).has_value();
}

} // namespace

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    const QList<QUrl> urls = event->mimeData()->urls();
    if (urls.isEmpty() || !urls[0].isLocalFile()) return;
    event->acceptProposedAction();
    const QString path = urls[0].toLocalFile();
    static const QStringList tables{"csv", "tsv", "txt", "dat", "nc", "vtu"}, pictures{"png", "tif", "tiff"};
    const QString ending = QFileInfo(path).suffix().toLower();
    if (tables.contains(ending) || QFileInfo(path).isDir()) return offerTable(path);
    if (pictures.contains(ending) && !holdsRecipe(path)) return offerTable(path);
    openBeside(path);
}

} // namespace coulter
