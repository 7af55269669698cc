// The window's bar and menus. See main_window.h.
#include "desktop/main_window.h"
#include "desktop/translation.h"
#include "formula/lines/read_page.h"
#include "plots/offers.h"
#include "plots/page_edits.h"
#include "plots/plot_kind.h"

#include <QApplication>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenu>
#include <QProgressBar>
#include <QSettings>
#include <QToolButton>
#include <algorithm>

namespace coulter {

void MainWindow::makeBar() {
    auto* row = new QHBoxLayout(bar_);
    row->setContentsMargins(6, 3, 8, 3);
    row->setSpacing(2);
    const auto button = [&](const QString& text, const QString& tip) {
        auto* made = new QToolButton;
        made->setText(text);
        made->setToolTip(tip);
        made->setAccessibleName(tip);
        made->setFocusPolicy(Qt::TabFocus);
        row->addWidget(made);
        return made;
    };
    documentButton_ = button("", tr("Document: open, save, look of the window"));
    documentButton_->setObjectName("documentButton");
    documentButton_->setPopupMode(QToolButton::InstantPopup);
    documentButton_->setMenu(new QMenu(documentButton_));
    connect(documentButton_->menu(), &QMenu::aboutToShow, this, &MainWindow::fillDocumentMenu);

    const auto action = [&](const QString& text, const QKeySequence& key, const auto& run) {
        auto* made = new QAction(text, this);
        made->setShortcut(key);
        made->setShortcutContext(Qt::WindowShortcut);
        connect(made, &QAction::triggered, this, run);
        addAction(made);
        return made;
    };
    undo_ = action(tr("Undo"), QKeySequence::Undo, [this] {
        takeOver();
        session_.undo();
    });
    redo_ = action(tr("Redo"), QKeySequence::Redo, [this] { session_.redo(); });
    undo_->setObjectName("undo");
    redo_->setObjectName("redo");
    redo_->setShortcuts({QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_Z), QKeySequence(Qt::CTRL | Qt::Key_Y)});
    for (QAction* each : {undo_, redo_}) {
        auto* made = button(each->text(), each->text());
        connect(made, &QToolButton::clicked, each, &QAction::trigger);
        connect(each, &QAction::changed, made, [made, each] {
            made->setEnabled(each->isEnabled());
            made->setToolTip(each->toolTip());
        });
    }
    addButton_ = button(tr("Add…"), tr("Add a line, a variable, a plot"));
    addButton_->setObjectName("addButton");
    addButton_->setPopupMode(QToolButton::InstantPopup);
    addButton_->setMenu(new QMenu(addButton_));
    connect(addButton_->menu(), &QMenu::aboutToShow, this, &MainWindow::fillAddMenu);
    auto* findButton = button(tr("Find…"), tr("A command, a setting, a function, a word of the manual"));
    findButton->setObjectName("findButton");
    connect(findButton, &QToolButton::clicked, this, &MainWindow::findEverything);
    row->addStretch(1);
    message_ = new QLabel;
    message_->setObjectName("message");
    message_->setAccessibleName(tr("Message"));
    row->addWidget(message_);
    progress_ = new QProgressBar;
    progress_->setRange(0, 0);
    progress_->setFixedWidth(90);
    progress_->setTextVisible(false);
    progress_->setAccessibleName(tr("Working"));
    progress_->hide();
    row->addWidget(progress_);
    stop_ = button(tr("Stop"), tr("Stop the work; what is shown stays"));
    stop_->hide();
    connect(stop_, &QToolButton::clicked, this, [this] {
        worker_.stop();
        exporter_.request_stop();
    });
    auto* exportButton = button(tr("Export…"), tr("Write the figure as PDF, SVG or PNG"));
    exportButton->setObjectName("exportButton");
    connect(exportButton, &QToolButton::clicked, this, &MainWindow::chooseExport);

    action(tr("New"), QKeySequence::New, [this] {
        MainWindow* window = isUntouched() ? this : another();
        window->session_.start(Document{}, "");
    });
    action(tr("Open"), QKeySequence::Open, [this] { chooseFile(); });
    action(tr("Examples…"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_X), [this] { openExamples(); });
    action(tr("Save"), QKeySequence::Save, [this] { save(); });
    action(tr("Save as"), QKeySequence::SaveAs, [this] { askAndSave(); });
    action(tr("Export"), QKeySequence(Qt::CTRL | Qt::Key_E), [this] { chooseExport(); });
    action(tr("Print…"), QKeySequence::Print, [this] { print(); });
    action(tr("Compare…"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_D), [this] { chooseComparison(); });
    action(tr("Several figures…"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_E), [this] { openSeries(); });
    action(tr("Copy the figure"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_C), [this] { copyPicture(); });
    action(tr("Close the window"), QKeySequence::Close, [this] { close(); });
    action(tr("Quit"), QKeySequence::Quit, [] { QApplication::closeAllWindows(); });
    action(tr("New line"), QKeySequence(Qt::CTRL | Qt::Key_Return), [this] { page_->addLine(); });
    action(tr("Function…"), QKeySequence(Qt::CTRL | Qt::Key_F), [this] { openFunctions(); });
    action(tr("Find…"), QKeySequence(Qt::CTRL | Qt::Key_K), [this] { findEverything(); });
    action(tr("Manual"), QKeySequence::HelpContents, [this] { openManual(); });
    action(tr("Table of samples…"), QKeySequence(Qt::CTRL | Qt::Key_T), [this] { openTable(); });
    action(tr("Table of data…"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_T), [this] { openData(); });
    action(tr("Data…"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_O), [this] { chooseTable(); });
    for (const auto& key : {QKeySequence(Qt::CTRL | Qt::Key_Plus), QKeySequence(Qt::CTRL | Qt::Key_Equal)})
        action(tr("Larger"), key, [this] { look_.changeScale(1.1); });
    action(tr("Smaller"), QKeySequence(Qt::CTRL | Qt::Key_Minus), [this] { look_.changeScale(1 / 1.1); });
    action(tr("Usual size"), QKeySequence(Qt::CTRL | Qt::Key_0), [this] { look_.changeScale(0); });
    action(tr("Next eyes"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_G), [this] {
        const auto now = std::ranges::find(allEyes, sheet_->shownFor());
        sheet_->showFor(now + 1 == allEyes.end() ? allEyes.front() : *(now + 1));
    });
}

void MainWindow::fillDocumentMenu() {
    QMenu* menu = documentButton_->menu();
    menu->clear();
    const auto entry = [&](const QString& text) {
        for (QAction* each : actions()) {
            if (each->text() == text) menu->addAction(each);
        }
    };
    for (const QString& text : {tr("New"), tr("Open")}) entry(text);
    QMenu* recent = menu->addMenu(tr("Recent"));
    for (const QString& path : QSettings().value("recent").toStringList()) {
        recent->addAction(QFileInfo(path).fileName(), this, [this, path] { openBeside(path); })->setToolTip(path);
    }
    recent->setEnabled(!recent->isEmpty());
    entry(tr("Examples…"));
    menu->addSeparator();
    for (const QString& text : {tr("Save"), tr("Save as"), tr("Export"), tr("Several figures…"), tr("Print…"),
                                tr("Copy the figure"), tr("Compare…")})
        entry(text);
    menu->addSeparator();
    QAction* dark = menu->addAction(tr("Dark window"), this, [this](bool on) { look_.setDark(on); });
    dark->setCheckable(true);
    dark->setChecked(look_.look().dark);
    QAction* values = menu->addAction(tr("Values behind formulas"), this, [this](bool on) { look_.showValues(on); });
    values->setCheckable(true);
    values->setChecked(look_.look().values);
    for (const QString& text : {tr("Larger"), tr("Smaller"), tr("Usual size")}) {
        for (QAction* each : actions()) {
            if (each->text() != text) continue;
            menu->addAction(each);
            break;
        }
    }
    QMenu* language = menu->addMenu(tr("Language"));
    for (const auto& [name, code] :
         {std::pair{tr("as the desktop's"), ""}, {QString("English"), "en"}, {QString("Deutsch"), "de"}}) {
        QAction* each = language->addAction(name, this, [this, chosen = QString(code)] {
            chooseLanguage(chosen);
            say(tr("The language is the new one from the next start on."), false);
        });
        each->setCheckable(true);
        each->setChecked(QSettings().value("language").toString() == code);
    }
    fillLooks(*menu->addMenu(tr("The figure's look…")));
    QMenu* seen = menu->addMenu(tr("The sheet as it is seen…"));
    for (const Eyes eyes : allEyes) {
        QAction* each = seen->addAction(nameOf(eyes), this, [this, eyes] { sheet_->showFor(eyes); });
        each->setCheckable(true);
        each->setChecked(eyes == sheet_->shownFor());
    }
    seen->addSeparator();
    for (QAction* each : actions()) {
        if (each->text() == tr("Next eyes")) seen->addAction(each);
    }
    menu->addSeparator();
    entry(tr("Manual"));
    menu->addSeparator();
    for (const QString& text : {tr("Close the window"), tr("Quit")}) entry(text);
}

void MainWindow::fillAddMenu() {
    QMenu* menu = addButton_->menu();
    menu->clear();
    menu->addAction(tr("Formula line"), this, [this] { page_->addLine(); });
    for (QAction* each : actions()) {
        for (const QString& text : {tr("Function…"), tr("Data…"), tr("Table of data…"), tr("Table of samples…")})
            if (each->text() == text) menu->addAction(each);
    }
    const std::size_t panel = std::min(sheet_->selection().panel, session_.document().panels.size() - 1);
    sheet_->fillPanelMenu(*menu->addMenu(tr("Panel")), panel);
    sheet_->fillNoteMenu(*menu->addMenu(tr("Note")));
    menu->addSeparator();
    // What fits the function that was touched last; without one, what fits each.
    const Page page = readPage(session_.document());
    const int last = page_->selectedLine();
    const auto isFunction = [&](const Line& line) { return line.kind == LineKind::Function && line.good(); };
    const bool one = last >= 0 && last < static_cast<int>(page.lines.size()) &&
                     isFunction(page.lines[static_cast<std::size_t>(last)]);
    addColumns(*menu, page, last);
    const auto offer = [&](const Line& line) {
        for (const Offer& each : offersOf(page, line)) {
            menu->addAction(spoken(each.words), this, [this, each] { addOffer(each); });
        }
    };
    for (std::size_t i = 0; i < page.lines.size(); ++i) {
        const Line& line = page.lines[i];
        if (line.kind == LineKind::Fit || (line.kind == LineKind::Drawn && static_cast<int>(i) == last)) offer(line);
    }
    for (std::size_t i = 0; i < page.lines.size(); ++i) {
        const Line& line = page.lines[i];
        if (!isFunction(line) || (one && static_cast<int>(i) != last)) continue;
        const QString of = QString::fromStdString(callText(line));
        const auto signature = signatureOf(page, line);
        for (const PlotKind* kind : plotKinds()) {
            if (!signature || !kind->fits(*signature)) continue;
            menu->addAction(tr("%1 as %2").arg(of, spoken(kind->name)), this,
                            [this, of, kind] { addPlot(plotOf(of.toStdString(), kind->name)); })
                ->setToolTip(spoken(kind->meaning));
        }
        offer(line);
        if (line.parameters.size() != 1) continue;
        const QString question = of.left(of.indexOf('(')) + "'" + of.mid(of.indexOf('(')) + " = ?";
        menu->addAction(tr("Derivative of %1").arg(of), this, [this, question] {
            page_->addLine();
            page_->insertText(question);
            page_->commitEditing();
        });
    }
}

void MainWindow::fillLineMenu(QMenu& menu) {
    const int line = page_->selectedLine();
    menu.addAction(tr("Edit"), this, [this, line] { page_->editLine(line); });
    menu.addAction(tr("New line below"), this, [this] { page_->addLine(); });
    menu.addAction(tr("Copy"), this, [this] { page_->copyLines(); });
    menu.addAction(tr("Cut"), this, [this] {
        page_->copyLines();
        page_->removeLines(tr("cut of lines"));
    });
    menu.addAction(tr("Remove"), this, [this, line] { page_->removeLines(tr("removal of line %1").arg(line + 1)); });
    QAction* values = menu.addAction(tr("Values behind formulas"), this, [this](bool on) { look_.showValues(on); });
    values->setCheckable(true);
    values->setChecked(look_.look().values);
    // What can be made of it stands in the menu “Add” behind its line.
    fillAddMenu();
    bool isBelow = false;
    for (QAction* each : addButton_->menu()->actions()) {
        if (each->isSeparator()) {
            isBelow = true;
            menu.addSeparator();
        } else if (isBelow) {
            menu.addAction(each);
        }
    }
    menu.addSeparator();
    menu.addAction(tr("What the manual says"), this, [this] {
        page_->setFocus();
        openManual();
    });
}

/// What fits the columns of the page: the one that was touched last, by itself and over those of its length; without
/// one, each by itself.
void MainWindow::addColumns(QMenu& menu, const Page& page, int last) {
    // Of every name that stands for a column: its line, and the column. A table's line has several.
    struct Named {
        int line;
        std::string name;
        Column column;
    };
    std::vector<Named> all;
    for (int i = 0; i < static_cast<int>(page.lines.size()); ++i) {
        const Line& line = page.lines[static_cast<std::size_t>(i)];
        const std::vector<std::string> names =
            !line.unknowns.empty() ? line.unknowns : std::vector<std::string>{line.name};
        for (const std::string& name : names) {
            if (const Column column = page.columnOf(name)) all.push_back({i, name, column});
        }
    }
    const auto offer = [&](const QString& of, const Signature& signature) {
        for (const PlotKind* kind : plotKinds()) {
            if (!kind->takesColumns || !kind->fits(signature)) continue;
            menu.addAction(tr("%1 as %2").arg(of, spoken(kind->name)), this,
                           [this, of, kind] { addPlot(plotOf(of.toStdString(), kind->name)); })
                ->setToolTip(spoken(kind->meaning));
        }
    };
    const bool touched = std::ranges::any_of(all, [&](const Named& each) { return each.line == last; });
    for (const Named& each : all) {
        if (touched && each.line != last) continue;
        const std::string name = spelledName(each.name);
        offer(QString::fromStdString(name), {0, 1, true, false});
        for (const Named& other : all) {
            if (!touched || other.name == each.name || other.column->size() != each.column->size()) continue;
            offer(QString::fromStdString("(" + spelledName(other.name) + ", " + name + ")"), {0, 2, true, false});
        }
    }
}

void MainWindow::addPlot(const Plot& plot) { addOffer({"", plot}); }

void MainWindow::addOffer(const Offer& offer) {
    const std::size_t panel = std::min(sheet_->selection().panel, session_.document().panels.size() - 1);
    std::size_t index = 0;
    session_.edit(withOffer(session_.document(), panel, offer, index), tr("new plot"));
    sheet_->select({ItemKind::Plot, panel, index, 0});
}

} // namespace coulter
