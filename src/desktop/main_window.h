#pragma once
#include "desktop/data_table_window.h"
#include "desktop/document_session.h"
#include "desktop/draft_keeper.h"
#include "desktop/examples_window.h"
#include "desktop/figure_worker.h"
#include "desktop/file_watch.h"
#include "desktop/formula_page.h"
#include "desktop/function_catalogue.h"
#include "desktop/kind_sheet.h"
#include "desktop/look.h"
#include "desktop/manual_window.h"
#include "desktop/notices.h"
#include "desktop/particulars.h"
#include "desktop/quantity_run.h"
#include "desktop/remarks.h"
#include "desktop/sample_table_window.h"
#include "desktop/sampling_ribbon.h"
#include "desktop/scratch_strip.h"
#include "desktop/sheet_view.h"
#include "desktop/start_sheet.h"
#include "desktop/table_sheet.h"
#include "figure/sheet_looks.h"
#include "plots/offers.h"

#include <QMainWindow>
#include <thread>

class QMenu;
class QToolButton;
class QProgressBar;
class QLabel;

namespace coulter {

/// A window with one document: formula page, sheet with its sampling ribbon, particulars and remarks, under one slim
/// bar.
class MainWindow : public QMainWindow {
    Q_OBJECT
public:
    explicit MainWindow(QWidget* parent = nullptr);

    /// Opens a recipe or an exported figure; says what is wrong if that fails. Returns whether it is open.
    bool open(const QString& path);
    /// Shows what differs between the figure that is open and another; whether it could be read.
    bool compareWith(const QString& path);
    /// The same in this window if it shows nothing that somebody works on, or else in another one.
    void openBeside(const QString& path);
    /// Opens an example as a document of its own; shows all of them, to choose.
    void openExample(const Example& example);
    void openExamples();
    /// One field for commands, settings, functions and the manual.
    void findEverything();
    /// Offers the drafts of figures whose program ended before they were saved.
    void offerLostDrafts();
    bool save();
    bool saveAs(const QString& path);
    /// Writes a figure in the format of the path's ending, off the interface thread.
    void exportTo(const QString& path);

    /// Gives the figure the look that a file holds, or that a figure has; saves its own as a file.
    void takeLook(const QString& path);
    void saveLook(const QString& path);

    DocumentSession& session() { return session_; }
    QuantityRun& run() { return run_; }
    Notices& notices() { return *notices_; }
    FormulaPage& page() { return *page_; }
    SheetView& sheet() { return *sheet_; }
    SamplingRibbon& ribbon() { return *ribbon_; }
    LookSettings& lookSettings() { return look_; }
    bool busy() const { return worker_.busy() || exporting_; }
    /// What was said last at the window's foot.
    QString message() const;

signals:
    void exported(const QString& path);
    void busyShown();

protected:
    void closeEvent(QCloseEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    void makeBar();
    void makePanes();
    void makeStart();
    void fillDocumentMenu();
    /// What is being typed counts, and the value that a running quantity has reached: before something is made of the
    /// document as it is seen.
    void takeOver();
    void fillAddMenu();
    /// What can be done with the selected line, and what can be drawn of it.
    void fillLineMenu(QMenu& menu);
    void fillLooks(QMenu& menu);
    void giveLook(const SheetLook& look);
    void updateState();
    void updateStart();
    bool mayDiscard();
    /// Whether nobody has worked on what the window shows.
    bool isUntouched() const;
    MainWindow* another();
    void watchFiles();
    /// Says what other programs did to the files of the document; to large ones only if something was done.
    void lookAtFiles(bool wereTouched = false);
    void restore(const LostDraft& lost);
    void askAndSave();
    void say(const QString& text, bool wrong);
    void remember(const QString& path);
    /// A file's name in the folder of the document, for a dialog to begin with.
    QString besideDocument(const QString& name) const;
    /// Asks for a recipe or a figure to open.
    void chooseFile();
    void chooseExport();
    void copyPicture();
    void print();
    void showBusy() { emit busyShown(); }
    void addColumns(QMenu& menu, const Page& page, int last);
    void addPlot(const Plot& plot);
    /// What is offered of a line: its lines on the page, and what draws them.
    void addOffer(const Offer& offer);
    /// Selects the plot of the function that a line of the page defines.
    void selectPlotOf(int line);
    void openTable();
    void openData();
    void drawAs(const ItemPath& path);
    void chooseMap(std::size_t panel);
    void showPictures(PictureSheet* pictures);
    void openFunctions();
    /// Opens the manual at what has the keyboard, or is selected.
    void openManual();
    void showManual(const ManualPlace& place);
    ManualPlace placeInManual() const;
    /// Several figures at once.
    void openSeries();
    /// Asks for a figure or a recipe to compare with.
    void chooseComparison();
    /// The document in a file, or none and the problem said.
    /// For a file dialog: what can be opened.
    static QString figureFilter();
    std::optional<Document> documentIn(const QString& path, bool& isFigure);
    /// Asks for a file of measured numbers.
    void chooseTable();
    /// Shows what a file, or a text, is as a table, to be taken in.
    void offerTable(const QString& path);
    void offerTableText(const QString& text);
    void showTable(const QString& name, TableSheet::Reading read);

    LookSettings& look_ = LookSettings::ofProgram();
    DocumentSession session_;
    DraftKeeper drafts_{session_};
    FileWatch files_;
    FigureWorker worker_;
    QuantityRun run_{session_};
    Notices* notices_ = nullptr;
    FormulaPage* page_ = nullptr;
    ScratchStrip* scratch_ = nullptr;
    SheetView* sheet_ = nullptr;
    StartSheet* start_ = nullptr; ///< over the sheet while nothing is written
    SamplingRibbon* ribbon_ = nullptr;
    Particulars* particulars_ = nullptr;
    Remarks* remarks_ = nullptr;
    QLabel* heading_ = nullptr;              ///< of the remarks
    FunctionCatalogue* functions_ = nullptr; ///< made when it is first asked for
    ManualWindow* manual_ = nullptr;         ///< the same
    SampleTableWindow* table_ = nullptr;
    DataTableWindow* data_ = nullptr; ///< made when it is first asked for
    QToolButton* documentButton_ = nullptr;
    QToolButton* addButton_ = nullptr;
    QAction *undo_ = nullptr, *redo_ = nullptr;
    QProgressBar* progress_ = nullptr;
    QToolButton* stop_ = nullptr;
    QLabel* message_ = nullptr;
    QWidget* bar_ = nullptr;
    bool exporting_ = false;
    std::jthread exporter_; ///< last, so that it has ended before anything else goes
};

} // namespace coulter
