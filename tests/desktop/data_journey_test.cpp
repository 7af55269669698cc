// Journeys with measured numbers.
#include "data/read_table.h"
#include "desktop/picture_sheet.h"
#include "hands.h"

#include <QApplication>
#include <QClipboard>
#include <QComboBox>
#include <QFile>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QTableView>
#include <QTableWidget>
#include <QTemporaryDir>
#include <QTimer>
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
