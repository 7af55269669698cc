// Journeys with measured numbers.
#include "data/read_table.h"
#include "desktop/picture_sheet.h"
#include "figure/scale_settings.h"
#include "files/recipe.h"
#include "formula/lines/answer.h"
#include "formula/lines/read_page.h"
#include "hands.h"
#include "notes/read_notes.h"

#include <QApplication>
#include <QClipboard>
#include <QComboBox>
#include <QDialog>
#include <QDoubleSpinBox>
#include <QFile>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QPushButton>
#include <QTableView>
#include <QTableWidget>
#include <QTemporaryDir>
#include <QTimer>
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

/// Chooses an entry of the menu that a right click at a place opens.
void chooseFromMenu(WindowDriver& d, QPointF at, const QString& beginning) {
    bool chosen = false;
    QTimer::singleShot(300, [&] {
        auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
        REQUIRE(menu);
        for (QAction* action : menu->actions()) {
            if (!action->text().startsWith(beginning)) continue;
            chosen = true;
            action->trigger();
            break;
        }
        menu->close();
    });
    QContextMenuEvent event(QContextMenuEvent::Mouse, at.toPoint(), d.sheet()->mapToGlobal(at.toPoint()));
    QApplication::sendEvent(d.sheet(), &event);
    CHECK(chosen);
    d.settle();
}

} // namespace

TEST_CASE("readings are pasted from a spreadsheet over theory, fitted, and one of them is left out") {
    WindowDriver d;
    write(d, {"x in [0, 6]", "f(x) = 2x"});
    QApplication::clipboard()->setText("Zeit t / s\ts / m\n1\t2,1\n2\t3,9\n3\t9,5\n4\t8,1\n5\t9,9\n");
    d.sheet()->setFocus();
    d.key(Qt::Key_V, Qt::ControlModifier);
    d.settle();
    auto* preview = d.find<QTableWidget>("table-preview");
    REQUIRE(preview);
    CHECK(preview->rowCount() == 5);
    CHECK(preview->item(0, 1)->text() == "2.1");
    CHECK(preview->horizontalHeaderItem(0)->text().startsWith("t / s"));
    CHECK(d.find<QComboBox>("table-decimal")->currentText() == "comma");
    d.find<QPushButton>("table-take")->click();
    d.settle();
    CHECK(documentOf(d).page.back() == "(t, s) from \"pasted 1\"");
    REQUIRE(documentOf(d).panels[0].plots.size() == 2);
    CHECK(documentOf(d).panels[0].plots[1].of == "(t, s)");
    CHECK(d.figure().figure.panels[0].problems[1].empty());
    // A straight line through them, with a slip in it.
    Document fitted = documentOf(d);
    fitted.page.push_back("b fits s = b t");
    d.window().session().edit(fitted, "fit");
    d.settle();
    const double before = *d.figure().figure.page.valueOf("b");
    const Frame frame = frameOf(d);
    chooseFromMenu(d, d.sheet()->toWidget(frame.onSheet(3, 9.5)), "Leave out row 3");
    CHECK(documentOf(d).tables.find("pasted 1")->leftOut == std::vector<std::size_t>{2});
    const double after = *d.figure().figure.page.valueOf("b");
    CHECK(std::abs(after - 2) < std::abs(before - 2));
    const Drawn& drawn = d.figure().figure.panels[0].drawn[1];
    REQUIRE(drawn.parts.size() == 2); // it is still there, hollow
    CHECK((*columnsOf(drawn, 1)->numbers[1])[2] == 9.5);
    chooseFromMenu(d, d.sheet()->toWidget(frameOf(d).onSheet(3, 9.5)), "Let row 3");
    CHECK(documentOf(d).tables.find("pasted 1")->leftOut.empty());
    d.key(Qt::Key_Z, Qt::ControlModifier);
    d.settle();
    CHECK(documentOf(d).tables.find("pasted 1")->leftOut.size() == 1);
}

TEST_CASE("what was found of a table is corrected before it is taken") {
    WindowDriver d;
    write(d, {"x in [0, 6]"});
    QApplication::clipboard()->setText("1.234\n2.345\n");
    d.sheet()->setFocus();
    d.key(Qt::Key_V, Qt::ControlModifier);
    d.settle();
    auto* preview = d.find<QTableWidget>("table-preview");
    REQUIRE(preview);
    CHECK(preview->item(0, 0)->text() == "1.234");
    d.find<QComboBox>("table-decimal")->setCurrentText("comma");
    CHECK(preview->item(0, 0)->text() == "1234");
    d.find<QComboBox>("table-decimal")->setCurrentText("point");
    CHECK(d.find<QPushButton>("table-take")->isEnabled());
    QApplication::clipboard()->clear();
}

TEST_CASE("a file that is no table says why, and nothing is taken") {
    WindowDriver d;
    write(d, {"x in [0, 6]"});
    const Document before = documentOf(d);
    QApplication::clipboard()->setText("only words\nand more\n");
    d.sheet()->setFocus();
    d.key(Qt::Key_V, Qt::ControlModifier);
    d.settle();
    CHECK(!d.find<QPushButton>("table-take")->isEnabled());
    CHECK(d.find<QLabel>("table-summary")->text().contains("No column of numbers"));
    CHECK(documentOf(d) == before);
}

TEST_CASE("a search is answered on the page as it is written") {
    WindowDriver d;
    write(d, {"x in [0, 10]", "f(x) = x cos(x)", "f(x) = 0 for x"});
    const Page page = readPage(documentOf(d));
    REQUIRE(page.lines.back().places);
    CHECK(page.lines.back().places->areAll());
    CHECK(page.lines.back().places->found.size() == 4);
}

TEST_CASE("any expression is answered below the page while it is typed, and goes onto it by Return") {
    WindowDriver d;
    write(d, {"x in [0, 10]", "f(x) = x^2 - 2"});
    auto* field = d.find<QLineEdit>("scratchField");
    auto* answer = d.find<QLabel>("scratchAnswer");
    field->setFocus();
    d.type("f(3)");
    d.wait([&] { return answer->text().startsWith("7"); });
    field->clear();
    d.type("f(x) = 0 for x");
    d.wait([&] { return answer->text().contains("all, proven"); });
    CHECK(answer->text().startsWith("{1.414213562373095"));
    field->clear();
    d.type("f(2");
    d.wait([&] { return answer->text().contains("never closed"); });
    field->clear();
    d.type("f(1)");
    d.key(Qt::Key_Return);
    d.settle();
    CHECK(documentOf(d).page.back() == "f(1) = ?");
    CHECK(field->text().isEmpty());
}

TEST_CASE("a curve is compared with pasted readings, and a Fourier series is written out, from below the page") {
    WindowDriver d;
    write(d, {"x in [0, 6]", "f(x) = 2x", "r(x) = { 1 for 0 <= x < 2; 0 otherwise }", "r(x + 4) = r(x)"});
    QApplication::clipboard()->setText("t\ts\n1\t2.1\n2\t3.9\n3\t9.5\n");
    d.sheet()->setFocus();
    d.key(Qt::Key_V, Qt::ControlModifier);
    d.settle();
    d.find<QPushButton>("table-take")->click();
    d.settle();
    d.window().activateWindow();
    d.settle();
    auto* field = d.find<QLineEdit>("scratchField");
    auto* answer = d.find<QLabel>("scratchAnswer");
    field->setFocus();
    d.type("s = f(t) for all rows");
    d.wait([&] { return answer->text().startsWith("no: they differ by 3.5 at most, in row 3"); });
    d.key(Qt::Key_Return);
    d.settle();
    // What is asked there goes below the line that was written last.
    const auto lineThat = [&](const std::string& beginning) {
        const std::vector<std::string>& page = documentOf(d).page;
        return std::ranges::find_if(page, [&](const std::string& line) { return line.starts_with(beginning); }) -
               page.begin();
    };
    const auto lines = [&] { return static_cast<std::ptrdiff_t>(documentOf(d).page.size()); };
    REQUIRE(lineThat("s = f(t) for all rows") < lines());
    const Page page = readPage(documentOf(d));
    const auto& compared = page.lines[static_cast<std::size_t>(lineThat("s = f(t) for all rows"))];
    REQUIRE(compared.places);
    CHECK(compared.places->verdict.starts_with("no: they differ by 3.5"));
    field->setFocus();
    d.type("Fourier series of r(x)");
    d.wait([&] { return answer->text().startsWith("1/2 + sum_{n=1}^{inf}"); });
    d.key(Qt::Key_Return);
    d.settle();
    REQUIRE(lineThat("S(x, N) = 1/2 + sum_{n=1}^{N}") < lines());
    CHECK(evaluate(readPage(documentOf(d)), "S(1, 200)").value() == Approx(1).epsilon(0.01));
    d.sheet()->setFocus();
    d.key(Qt::Key_Z, Qt::ControlModifier);
    d.settle();
    CHECK(lineThat("S(x, N)") == lines());
}

TEST_CASE("rows are left out in the table of samples, too") {
    WindowDriver d;
    write(d, {"x in [0, 6]"});
    QApplication::clipboard()->setText("t,s\n1,2\n2,4\n3,9\n");
    d.sheet()->setFocus();
    d.key(Qt::Key_V, Qt::ControlModifier);
    d.settle();
    d.find<QPushButton>("table-take")->click();
    d.settle();
    d.sheet()->select(WindowDriver::plot(0));
    d.key(Qt::Key_T, Qt::ControlModifier);
    d.settle();
    auto* view = d.find<QTableView>("sampleTable");
    view->selectRow(2);
    auto* leaveOut = d.find<QPushButton>("leaveOut");
    REQUIRE(leaveOut->isVisible());
    leaveOut->click();
    d.settle();
    CHECK(documentOf(d).tables.find("pasted 1")->leftOut == std::vector<std::size_t>{2});
    view->selectRow(2);
    d.find<QPushButton>("letCount")->click();
    d.settle();
    CHECK(documentOf(d).tables.find("pasted 1")->leftOut.empty());
}

TEST_CASE("a page that names a table finds it when it is saved beside it, and draws it in every kind") {
    QTemporaryDir folder;
    QFile file(folder.filePath("r.csv"));
    REQUIRE(file.open(QIODevice::WriteOnly));
    file.write("t,s\n1,2\n2,4\n3,9\n");
    file.close();
    WindowDriver d;
    write(d, {"x in [0, 6]", "(t, s) from \"r.csv\""});
    CHECK(readPage(documentOf(d)).problems()[0].sentence.find("are not here") != std::string::npos);
    REQUIRE(d.window().saveAs(folder.filePath("f.coulter")));
    d.settle();
    CHECK(readPage(documentOf(d)).problems().empty());
    Document document = documentOf(d);
    document.panels[0].plots = {plotOf("(t, s)", "points")};
    const Document little = PictureSheet::littleDocument(document, 0);
    CHECK(readPage(little).columnOf("s"));
    // Opened again it is as it was, from the recipe alone.
    d.window().session().edit(document, "plot");
    d.settle();
    REQUIRE(d.window().saveAs(folder.filePath("f.coulter")));
    REQUIRE(QFile::remove(folder.filePath("r.csv")));
    REQUIRE(d.window().open(folder.filePath("f.coulter")));
    d.settle();
    CHECK(documentOf(d) == document);
    CHECK(d.figure().figure.panels[0].problems[0].empty());
}

TEST_CASE("two figures are compared in the window: what differs, and both over one another") {
    WindowDriver d;
    write(d, {"x in [0, 10]", "q = 2", "f(x) = q x"});
    QTemporaryDir folder;
    const QString saved = folder.filePath("before.coulter");
    REQUIRE(d.window().saveAs(saved));
    Document changed = documentOf(d);
    changed.page[1] = "q = 2.5";
    d.window().session().edit(changed, "steeper");
    d.settle();
    REQUIRE(d.window().compareWith(saved));
    auto* list = d.find<QListWidget>("compare-differences");
    REQUIRE(list);
    d.wait([&] { return list->count() > 0; });
    CHECK(list->item(0)->text() == QString::fromUtf8("page, line 2: “q = 2” became “q = 2.5”"));
    const QPixmap picture = d.find<QLabel>("compare-picture")->pixmap();
    CHECK(!picture.isNull());
    bool blue = false, orange = false;
    const QImage image = picture.toImage();
    for (int y = 0; y < image.height(); ++y) {
        for (int x = 0; x < image.width(); ++x) {
            const QColor dot = image.pixelColor(x, y);
            blue = blue || dot.blue() > dot.red() + 60;
            orange = orange || dot.red() > dot.blue() + 60;
        }
    }
    CHECK(blue);
    CHECK(orange);
    CHECK(!d.window().compareWith(folder.filePath("nothing.coulter"))); // said, and nothing is lost
    CHECK(documentOf(d) == changed);
}

TEST_CASE("Fourier sums of a function in three pieces follow N as it is run from 1 to 40") {
    WindowDriver d;
    write(d, {"t in [0, 8]", "N = 1, from 1 to 40", "r(t) = { t for 0 <= t < 1; 2 for 1 <= t < 3; -1 otherwise }",
              "r(t + 4) = r(t)", "S(t, n) = Fourier sum of r(t)", "g(t) = S(t, N)"});
    Document document = documentOf(d);
    document.panels[0].plots = {plotOf("g(t)", "line"), plotOf("r(t)", "line")};
    d.window().session().edit(document, "plots");
    d.settle();
    REQUIRE(d.figure().figure.panels[0].problems[0].empty());
    double before = HUGE_VAL;
    for (const int harmonics : {1, 4, 16, 40}) {
        document.page[1] = "N = " + std::to_string(harmonics) + ", from 1 to 40";
        d.window().session().edit(document, "N");
        d.settle();
        const Page& page = d.figure().figure.page;
        REQUIRE(page.valueOf("N") == static_cast<double>(harmonics));
        const double off = std::abs(evaluate(page, "g(2)").value() - 2);
        CHECK(off < before);
        before = off;
        REQUIRE(curveSamplesOf(d.figure().figure.panels[0].drawn[0], 0)->stretches.size() == 1);
    }
    CHECK(before < 0.05);
}

TEST_CASE("the spectral derivative of a column is drawn beside the exact one, with what it is off by") {
    WindowDriver d;
    write(d, {"x in [0, 2 pi]", "f(x) = exp(sin(x))", "t = {0, 2 pi/32, ..., 2 pi - 2 pi/32}", "u = f(t)",
              "w = spectral derivative of u by t, period 2 pi", "delta = greatest(abs(w - f'(t)))"});
    Document document = documentOf(d);
    document.panels[0].plots = {plotOf("f'(x)", "line"), plotOf("(t, w)", "points")};
    document.panels[0].plots[1].name = "off by {delta:1}";
    d.window().session().edit(document, "plots");
    d.settle();
    const Figure& figure = d.figure().figure;
    REQUIRE(figure.panels[0].problems[0].empty());
    REQUIRE(figure.panels[0].problems[1].empty());
    CHECK(*figure.page.valueOf("δ") < 1e-8);
    CHECK(columnsOf(figure.panels[0].drawn[1], 0)->numbers[1]->size() == 32);
}

TEST_CASE("a function and its derivative with a zero line and a marked zero, an area with its value and a triangle") {
    WindowDriver d;
    write(d, {"x in [0, 1]", "f(x) = 4x (1 - x)"});
    add(d, "f(x) as line");
    enter(d, "plotOf", "f'(x)");
    selectScale(d, upScale);
    tick(d, "setting-zero line");
    CHECK(truth(documentOf(d).panels[0].y.settings, zeroLineSetting));
    // Where the derivative is zero: found, proven and marked with its coordinates.
    CHECK(evaluate(d.figure().figure.page, "f'(x) = 0 for x").places->areAll());
    addFrom(d, "Note", "callout");
    const Frame& frame = frameOf(d);
    d.click(d.sheet(), d.sheet()->toWidget({frame.acrossSheet(0.501), frame.downSheet(0.02)}));
    d.settle();
    REQUIRE(documentOf(d).panels[0].notes.size() == 1);
    const auto place = coordinatesOf(d.figure().figure.page, documentOf(d).panels[0].notes[0]).at(0);
    CHECK(place[0] == Approx(0.5).margin(0.01));
    CHECK(place[1] == Approx(0).margin(0.05));
    // The area under the function, and the one triangle that stands in it.
    d.sheet()->select(WindowDriver::plot(0));
    for (int i = 0; i < 20 && documentOf(d).panels[0].plots[0].kind != "area"; ++i) {
        d.sheet()->setFocus();
        d.key(Qt::Key_K);
        d.settle();
    }
    tick(d, "setting-value");
    choose(d, "setting-estimate", "triangles");
    auto* parts = d.find<QDoubleSpinBox>("setting-parts");
    REQUIRE(parts);
    parts->setFocus();
    parts->selectAll();
    d.type("1");
    d.key(Qt::Key_Return);
    d.settle();
    REQUIRE(d.figure().figure.panels[0].problems[0].empty());
    const std::string words = d.figure().figure.panels[0].drawn[0].words;
    INFO(words);
    CHECK(words.starts_with("0.66666667 ± "));
    CHECK(words.find("1 triangle: 0.5") != std::string::npos);
    CHECK(evaluate(d.figure().figure.page, "f(x) = 0 for x").places->areAll());
}

namespace {

void press(WindowDriver& d, const char* button) {
    auto* found = d.find<QPushButton>(button);
    REQUIRE(found);
    d.click(found, found->rect().center());
    d.settle();
}

/// Types a number into a cell of the window with the table of data.
void typeCell(WindowDriver& d, int row, int column, const QString& text) {
    auto* view = d.find<QDialog>("dataTableWindow")->findChild<QTableView*>();
    REQUIRE(view);
    const QModelIndex index = view->model()->index(row, column);
    view->setCurrentIndex(index);
    view->edit(index);
    auto* editor = view->findChild<QLineEdit*>();
    REQUIRE(editor);
    editor->setFocus();
    d.key(Qt::Key_A, Qt::ControlModifier);
    d.type(text);
    d.key(Qt::Key_Return);
    d.settle();
}

QString cell(WindowDriver& d, int row, int column) {
    auto* view = d.find<QDialog>("dataTableWindow")->findChild<QTableView*>();
    return view->model()->index(row, column).data().toString();
}

} // namespace

TEST_CASE("a table is worked on: a number corrected, rows added, left out and sorted, a column computed, all undone") {
    WindowDriver d;
    write(d, {"x in [0, 6]", "f(x) = 2x"});
    QApplication::clipboard()->setText("t / s\ts / m\n3\t6.1\n1\t2.1\n2\t39\n");
    d.sheet()->setFocus();
    d.key(Qt::Key_V, Qt::ControlModifier);
    press(d, "table-take");
    d.key(Qt::Key_T, Qt::ControlModifier | Qt::ShiftModifier);
    d.settle();
    const Document taken = documentOf(d);
    const auto column = [&](std::size_t k) { return *documentOf(d).tables.find("pasted 1")->columns[k].numbers; };
    CHECK(cell(d, 2, 2) == "39");
    typeCell(d, 2, 2, "3.9");
    CHECK(column(1) == std::vector<double>{6.1, 2.1, 3.9});
    typeCell(d, 3, 1, "4");
    typeCell(d, 3, 2, "8.2");
    CHECK(column(0) == std::vector<double>{3, 1, 2, 4});
    typeCell(d, 0, 1, "three");
    CHECK(d.find<QLabel>("data-message")->text().contains("“three” is no number"));
    CHECK(column(0)[0] == 3);
    d.find<QDialog>("dataTableWindow")
        ->findChild<QTableView*>()
        ->setCurrentIndex(d.find<QDialog>("dataTableWindow")->findChild<QTableView*>()->model()->index(0, 1));
    press(d, "data-sort-up");
    CHECK(column(0) == std::vector<double>{1, 2, 3, 4});
    CHECK(column(1) == std::vector<double>{2.1, 3.9, 6.1, 8.2});
    auto* formula = d.find<QLineEdit>("data-formula");
    formula->setFocus();
    d.type("r = s - f(t");
    press(d, "data-add-column");
    CHECK_FALSE(d.find<QLabel>("data-message")->text().isEmpty());
    formula->setFocus();
    d.key(Qt::Key_End);
    d.type(")");
    d.key(Qt::Key_Return);
    CHECK(documentOf(d).page.back() == "r = s - f(t)");
    CHECK(cell(d, 3, 3) == "0.2");
    CHECK(d.window().session().document().tables.find("pasted 1")->isEdited);
    CHECK(d.find<QLabel>("data-about")->text().contains("changed by hand"));
    auto* model = d.find<QDialog>("dataTableWindow")->findChild<QTableView*>()->model();
    model->setData(model->index(1, 0), Qt::Unchecked, Qt::CheckStateRole);
    CHECK(documentOf(d).tables.find("pasted 1")->leftOut == std::vector<std::size_t>{1});
    CHECK(readRecipe(writeRecipe(documentOf(d))).document == documentOf(d));
    d.find<QDialog>("dataTableWindow")->close();
    while (d.window().session().document() != taken && d.window().session().canUndo()) d.window().session().undo();
    CHECK(documentOf(d) == taken);
}

TEST_CASE("a table of values is set on the sheet, follows its columns, and is undone") {
    WindowDriver d;
    write(d, {"x in [0, 2]", "f(x) = x^2"});
    d.sheet()->setFocus();
    d.sheet()->placeNote("values");
    const Rect& frame = frameOf(d).rect;
    d.click(d.sheet(), d.sheet()->toWidget({frame.x + frame.width / 3, frame.y + frame.height / 2}));
    d.settle();
    REQUIRE(documentOf(d).panels[0].notes.size() == 1);
    CHECK(documentOf(d).panels[0].notes[0].words == "x_1, f(x_1)");
    CHECK(documentOf(d).page.back() == "x_1 = {0, 0.2, ..., 2}");
    const auto width = [&] { return d.figure().figure.panels[0].notes.drawn[0].words.height(); };
    const double before = width();
    Document fewer = documentOf(d);
    fewer.page.back() = "x_1 = {0, 1, 2}";
    d.window().session().edit(fewer, "fewer places");
    d.settle();
    CHECK(width() < before);
    CHECK(width() > 0);
}
