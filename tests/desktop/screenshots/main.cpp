// Makes the pictures in docs/screenshots from the demo data, in the real window. Usage: screenshots FOLDER
#include "desktop/examples_window.h"
#include "desktop/find_everything.h"
#include "desktop/kind_sheet.h"
#include "desktop/translation.h"
#include "window_driver.h"

#include <QApplication>
#include <QCheckBox>
#include <QClipboard>
#include <QDialog>
#include <QDir>
#include <QFile>
#include <QLineEdit>
#include <QListWidget>
#include <QPainter>
#include <QPixmap>
#include <QPlainTextEdit>
#include <QSettings>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <QToolButton>
#include <algorithm>
#include <cstdio>

using coulter::WindowDriver;

namespace {

QString folder;

void keep(WindowDriver& driver, const char* name) {
    const QString path = folder + "/" + name + ".png";
    driver.picture().save(path);
    std::printf("%s\n", qPrintable(path));
}

/// Selects the n-th thing that is drawn, such as a case of a family.
void selectDrawn(WindowDriver& driver, std::size_t n) {
    driver.sheet()->select(driver.figure().figure.panels[0].drawn[n].path);
}

/// What an empty window offers.
void firstStart() {
    WindowDriver driver;
    driver.window().session().start(coulter::Document{}, "");
    driver.settle();
    const auto pictures = driver.window().findChildren<QToolButton*>("startExample");
    driver.wait(
        [&] { return std::ranges::none_of(pictures, [](QToolButton* each) { return each->icon().isNull(); }); });
    keep(driver, "first-start");
}

void finishedFigure() {
    WindowDriver driver;
    driver.window().openExample(coulter::exampleOf("soil-temperature"));
    driver.settle();
    const auto& frame = driver.figure().figure.panels[0].frame();
    const coulter::Point at{frame.rect.x + frame.map.x.toSheet(160), frame.rect.bottom() - frame.map.y.toSheet(13.2)};
    driver.move(driver.sheet(), driver.sheet()->toWidget(at));
    keep(driver, "window");
}

void problem() {
    WindowDriver driver;
    driver.window().openExample(coulter::exampleOf("soil-temperature"));
    driver.settle();
    driver.window().page().editLine(1);
    auto* field = driver.find<QPlainTextEdit>("formulaField");
    field->setPlainText("T(z, t) = T_m + A exp(-z/d) cos(omego (t - t_0) - z/d), unit °C, label \"Soil temperature\"");
    driver.settle();
    keep(driver, "line-with-problem");
}

/// The window with a dialog over its lower right corner.
void keepWith(WindowDriver& driver, QDialog& dialog, const char* name) {
    driver.settle();
    QPixmap both = QPixmap::fromImage(driver.picture());
    QPainter(&both).drawPixmap(both.width() - dialog.width() - 8, both.height() - dialog.height() - 8, dialog.grab());
    const QString path = folder + "/" + name + ".png";
    both.save(path);
    std::printf("%s\n", qPrintable(path));
}

/// Arrows and streamlines, and what the manual says of them.
void manual() {
    WindowDriver driver;
    driver.window().open("demos/flow/flow.coulter");
    driver.settle();
    driver.sheet()->select(driver.figure().figure.panels[0].drawn[1].path);
    coulter::ManualWindow pages(driver.window().lookSettings());
    pages.resize(820, 330);
    pages.show(coulter::manualOfItem(driver.window().session().document(), driver.sheet()->selection()));
    keepWith(driver, pages, "manual");
}

/// Readings with a fit through those that count, and their file as it is offered.
void data() {
    WindowDriver driver;
    driver.window().open("demos/late-drawdown/late-drawdown.coulter");
    driver.settle();
    selectDrawn(driver, 1);
    driver.settle();
    QFile file("demos/late-drawdown/readings.csv");
    if (!file.open(QIODevice::ReadOnly)) return;
    QApplication::clipboard()->setText(QString::fromUtf8(file.readAll()));
    driver.sheet()->setFocus();
    driver.key(Qt::Key_V, Qt::ControlModifier);
    driver.settle();
    auto* sheet = driver.find<QDialog>("tableSheet");
    sheet->resize(400, 300); // so that the figure is seen beside it
    keepWith(driver, *sheet, "data");
}

void field() {
    WindowDriver driver;
    driver.window().open("demos/core-slice/core-slice.coulter");
    driver.settle();
    selectDrawn(driver, 0);
    driver.settle();
    keep(driver, "field");
}

void contours() {
    WindowDriver driver;
    driver.window().open("demos/two-wells/two-wells.coulter");
    driver.settle();
    driver.sheet()->select({coulter::ItemKind::Scale, 0, coulter::colourScale, 0});
    driver.settle();
    keep(driver, "contours");
}

void surface() {
    WindowDriver driver;
    driver.window().open("demos/drawdown-cone/drawdown-cone.coulter");
    driver.settle();
    driver.sheet()->select(WindowDriver::plot(0));
    driver.settle();
    const QRectF panel = driver.sheet()->panelRect();
    driver.move(driver.sheet(), panel.center() + QPointF(-30, 0));
    keep(driver, "surface");
}

/// Two panels that share a scale, the lower one selected.
void panels() {
    WindowDriver driver;
    driver.window().open("demos/pumping-residuals/pumping-residuals.coulter");
    driver.settle();
    driver.sheet()->select({coulter::ItemKind::Panel, 1, 0, 0});
    driver.settle();
    const auto& frame = driver.figure().figure.panels[1].frame().rect;
    driver.move(driver.sheet(), driver.sheet()->toWidget({frame.x + 30, frame.y + 4}));
    keep(driver, "panels");
}

/// Notes on a panel, one of them selected.
void notes() {
    WindowDriver driver;
    driver.window().open("demos/plume/plume.coulter");
    driver.settle();
    driver.sheet()->select({coulter::ItemKind::Note, 0, 2, 0});
    driver.settle();
    keep(driver, "notes");
}

void drawAs() {
    WindowDriver driver;
    driver.window().open("demos/hill/hill.coulter");
    driver.settle();
    driver.sheet()->select(WindowDriver::plot(0));
    driver.sheet()->setFocus();
    driver.key(Qt::Key_D);
    auto* kinds = driver.find<coulter::PictureSheet>("kindSheet");
    driver.wait([&] { return kinds->pictures() == kinds->choices(); });
    const QString path = folder + "/draw-as.png";
    kinds->grab().save(path);
    std::printf("%s\n", qPrintable(path));
}

/// Every colour map on one field, to all eyes.
void maps() {
    WindowDriver driver;
    driver.window().open("demos/two-wells/two-wells.coulter");
    driver.settle();
    driver.sheet()->select({coulter::ItemKind::Scale, 0, coulter::colourScale, 0});
    driver.find<QToolButton>("chooseMap")->click();
    auto* pictures = driver.find<coulter::PictureSheet>("mapSheet");
    driver.wait([&] { return pictures->pictures() == pictures->choices(); });
    const QString path = folder + "/maps.png";
    pictures->grab().save(path);
    std::printf("%s\n", qPrintable(path));
}

void table() {
    WindowDriver driver;
    driver.window().open("demos/discharge/discharge.coulter");
    driver.settle();
    coulter::DataTableWindow table(driver.window().session(), driver.window().lookSettings());
    table.resize(470, 380);
    table.show();
    keepWith(driver, table, "table");
}

void completion() {
    WindowDriver driver;
    driver.window().open("demos/ring-infiltrometer/ring-infiltrometer.coulter");
    driver.settle();
    driver.window().page().editLine(9);
    driver.find<QPlainTextEdit>("formulaField")->selectAll();
    driver.type("h(r) = 2 bess");
    keep(driver, "completion");
}

void functions() {
    WindowDriver driver;
    coulter::FunctionCatalogue catalogue(driver.window().lookSettings());
    catalogue.show();
    auto* list = catalogue.findChild<QListWidget*>("functionList");
    for (int i = 0; i < list->count(); ++i) {
        if (list->item(i)->text().startsWith("J_n")) list->setCurrentRow(i);
    }
    while (!catalogue.hasPicture()) QApplication::processEvents(QEventLoop::WaitForMoreEvents);
    const QString path = folder + "/functions.png";
    catalogue.grab().save(path);
    std::printf("%s\n", qPrintable(path));
}

/// An area between two curves, selected, with its kind and settings.
void kinds() {
    WindowDriver driver;
    driver.window().open("demos/storage/storage.coulter");
    driver.settle();
    selectDrawn(driver, 0);
    keep(driver, "kinds");
}

/// Examples, found by a word.
void examples() {
    WindowDriver driver;
    driver.window().session().start(coulter::Document{}, "");
    driver.settle();
    driver.window().openExamples();
    auto* examples = driver.find<coulter::ExamplesWindow>("examplesWindow");
    driver.wait([&] { return examples->pictures() == coulter::allExamples().size(); });
    driver.find<QLineEdit>("exampleSearch")->setText("contour");
    keepWith(driver, *examples, "examples");
}

/// One field for everything.
void find() {
    WindowDriver driver;
    driver.window().openExample(coulter::exampleOf("soil-temperature"));
    driver.settle();
    driver.sheet()->select({coulter::ItemKind::Sheet, 0, 0, 0});
    driver.window().findEverything();
    driver.find<QLineEdit>("findField")->setText("figure");
    keepWith(driver, *driver.find<coulter::FindEverything>("findEverything"), "find");
}

void darkAndGerman() {
    coulter::speak("de");
    WindowDriver driver;
    driver.window().lookSettings().setDark(true);
    driver.window().openExample(coulter::exampleOf("soil-temperature"));
    driver.settle();
    selectDrawn(driver, 2);
    keep(driver, "dark");
    driver.window().lookSettings().setDark(false);
    coulter::speak("en");
}

} // namespace

int main(int argc, char** argv) {
    qputenv("QT_QPA_PLATFORM", "offscreen");
    QStandardPaths::setTestModeEnabled(true);
    const QTemporaryDir state; // for drafts, which are not the person's own
    qputenv("XDG_STATE_HOME", state.path().toUtf8());
    QApplication application(argc, argv);
    QApplication::setCursorFlashTime(0); // the same picture again
    QApplication::setOrganizationName("coulter-screenshots");
    QSettings().clear();
    folder = argc > 1 ? argv[1] : "docs/screenshots";
    QDir().mkpath(folder);
    firstStart();
    finishedFigure();
    examples();
    find();
    problem();
    manual();
    data();
    field();
    contours();
    surface();
    drawAs();
    maps();
    panels();
    notes();
    table();
    completion();
    functions();
    kinds();
    darkAndGerman();
}
