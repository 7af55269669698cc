#include "composition/draw_figure.h"
#include "files/export.h"
#include "files/file_access.h"
#include "files/recipe.h"
#include "window_driver.h"

#include <QAction>
#include <QComboBox>
#include <QCoreApplication>
#include <QDir>
#include <QDoubleSpinBox>
#include <QDropEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMimeData>
#include <QPlainTextEdit>
#include <QTemporaryDir>
#include <QToolButton>
#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

const AxisMap& xAxis(WindowDriver& d) { return d.figure().figure.panels[0].frame().map.x; }
const AxisMap& yAxis(WindowDriver& d) { return d.figure().figure.panels[0].frame().map.y; }

/// A place of the panel, in the user's coordinates, on the sheet's widget.
QPointF at(WindowDriver& d, double x, double y) {
    const Frame& frame = d.figure().figure.panels[0].frame();
    return d.sheet()->toWidget({frame.rect.x + frame.map.x.toSheet(x), frame.rect.bottom() - frame.map.y.toSheet(y)});
}

const ItemPath title{ItemKind::Title, 0, 0, 0};
ItemPath scale(std::size_t which) { return {ItemKind::Scale, 0, which, 0}; }
ItemPath label(std::size_t which) { return {ItemKind::ScaleLabel, 0, which, 0}; }

void replaceLine(WindowDriver& d, int line, const QString& text) {
    d.click(d.page(), d.window().page().lineRect(line).center() + QPointF(60, 0));
    d.key(Qt::Key_A, Qt::ControlModifier);
    d.type(text);
}

std::string message(WindowDriver& d) { return d.find<QLabel>("formulaMessage")->text().toStdString(); }

} // namespace

TEST_CASE("the first journey: demo, drag a number, type a formula, zoom, export, rebuild, reopen, undo") {
    WindowDriver d;
    d.window().openExample(exampleOf("soil-temperature"));
    d.settle();
    REQUIRE(d.figure().figure.panels[0].drawn.size() == 5);
    const auto surface = [&] {
        return *std::ranges::max_element(curveSamplesOf(d.figure().figure.panels[0].drawn[0])->stretches[0].y);
    };
    CHECK(surface() == Approx(20).epsilon(1e-3));

    // Drag the amplitude: the sheet follows, and it is one step of undo.
    const QRect number = d.window().page().numberRect(3);
    REQUIRE_FALSE(number.isEmpty());
    d.drag(d.page(), number.center(), number.center() + QPointF(100, 0));
    CHECK(d.window().session().document().page[3].starts_with("A = 12.5, unit K"));
    CHECK(surface() == Approx(22).epsilon(1e-3));
    d.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(surface() == Approx(20).epsilon(1e-3));
    CHECK_FALSE(d.window().session().canUndo());
    d.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    CHECK(surface() == Approx(22).epsilon(1e-3));

    // Type another formula: it is drawn at once.
    d.window().page().editLine(static_cast<int>(d.window().session().document().page.size()));
    d.type("S(t) = T_m + 4 sin(omega t)^3, unit °C");
    CHECK(d.figure().figure.panels[0].drawn.size() == 6);
    d.key(Qt::Key_Return);
    CHECK(d.window().session().document().panels[0].plots.size() == 2);

    // Zoom in: sampled again for the view, no corner.
    d.wheel(d.sheet(), at(d, 200, 15), 12);
    CHECK(xAxis(d).high - xAxis(d).low < 45);
    const Stretch& stretch = curveSamplesOf(d.figure().figure.panels[0].drawn[0])->stretches[0];
    CHECK(stretch.x.front() >= xAxis(d).low - 1);
    double sharpest = 0;
    for (std::size_t i = 1; i + 1 < stretch.x.size(); ++i) {
        const auto angle = [&](std::size_t k) {
            return std::atan2(yAxis(d).toSheet(stretch.y[k + 1]) - yAxis(d).toSheet(stretch.y[k]),
                              xAxis(d).toSheet(stretch.x[k + 1]) - xAxis(d).toSheet(stretch.x[k]));
        };
        sharpest = std::max(sharpest, std::abs(angle(i) - angle(i - 1)));
    }
    CHECK(sharpest < 0.15);
    d.doubleClick(d.sheet(), at(d, (xAxis(d).low + xAxis(d).high) / 2, (yAxis(d).low + yAxis(d).high) / 2));
    CHECK(xAxis(d).high == 365);

    // Export, rebuild byte for byte, reopen the figure in the window.
    const QTemporaryDir folder;
    const QString pdf = folder.filePath("figure.pdf");
    d.window().exportTo(pdf);
    d.settle();
    const FileRead file = readFile(pdf.toStdString());
    REQUIRE(file.bytes);
    CHECK_FALSE(verifyFigure(*file.bytes));
    const Document before = d.window().session().document();
    REQUIRE(d.window().open(pdf));
    d.settle();
    CHECK(d.window().session().document() == before);
    CHECK(d.window().session().path().isEmpty()); // saving must not overwrite the figure
}

TEST_CASE("what is on the sheet are the pixels of the export") {
    WindowDriver d;
    d.window().openExample(exampleOf("soil-temperature"));
    d.settle();
    const Raster raster = paintRaster(drawFigure(d.window().session().document()).scene, d.figure().dotsPerMm);
    const QImage expected(reinterpret_cast<const uchar*>(raster.pixels.data()), raster.width, raster.height,
                          raster.width * 4, QImage::Format_RGB32);
    CHECK(d.figure().image == expected);
}

TEST_CASE("an unfinished formula keeps the last picture and points at the character") {
    WindowDriver d;
    d.window().openExample(exampleOf("soil-temperature"));
    d.settle();
    const QImage before = d.figure().image;
    d.click(d.page(), d.window().page().lineRect(1).center());
    REQUIRE(d.window().page().isEditing());
    d.key(Qt::Key_End);
    d.key(Qt::Key_Home);
    d.key(Qt::Key_A, Qt::ControlModifier);
    QImage last = before;
    int unfinished = 0;
    for (const QChar c : QString("T(z, t) = T_m + A exq(")) {
        d.type(c);
        if (d.sheet()->waitsFor().isEmpty()) {
            last = d.figure().image; // what stands there so far is a formula
        } else {
            ++unfinished;
            CHECK(d.figure().image == last);
        }
    }
    CHECK(unfinished > 10);
    CHECK(message(d).find("exq is not defined") != std::string::npos);
    CHECK(message(d).find("exp") != std::string::npos);
    const auto marks = d.find<QPlainTextEdit>("formulaField")->extraSelections();
    REQUIRE(marks.size() == 1);
    CHECK(marks[0].cursor.selectedText() == "exq");
    CHECK_FALSE(d.sheet()->waitsFor().isEmpty());
    d.key(Qt::Key_Escape);
    CHECK_FALSE(d.window().page().isEditing());
    CHECK(d.sheet()->waitsFor().isEmpty());
    CHECK_FALSE(d.window().session().canUndo());
    CHECK(d.figure().image == before);
}

TEST_CASE("an empty document invites, and a first formula makes a figure") {
    WindowDriver d;
    d.click(d.page(), {120, 90});
    d.type("f(x) = sin(x)/x");
    d.key(Qt::Key_Return);
    CHECK(d.window().session().document().page == std::vector<std::string>{"f(x) = sin(x)/x", "x in [-5, 5], assumed"});
    REQUIRE(d.figure().figure.panels[0].drawn.size() == 1);
    CHECK(curveSamplesOf(d.figure().figure.panels[0].drawn[0])->stretches.size() == 1);
    replaceLine(d, 1, "x in [0, 20], count 41");
    d.key(Qt::Key_Return);
    CHECK(curveSamplesOf(d.figure().figure.panels[0].drawn[0])->pointCount() >= 40);
    CHECK(d.window().ribbon().summary().contains("points of the grid"));
    d.window().page().selectLine(0);
    d.window().page().setFocus();
    d.key(Qt::Key_Delete);
    CHECK(d.window().session().document().panels[0].plots.empty());
    for (int i = 0; i < 3; ++i) d.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(d.window().session().document() == Document{});
}

TEST_CASE("the keyboard alone is enough: select, edit, step a number, move the view") {
    WindowDriver d;
    d.window().openExample(exampleOf("soil-temperature"));
    d.settle();
    d.window().page().setFocus();
    for (int i = 0; i < 5 && d.window().page().selectedLine() < 3; ++i) d.key(Qt::Key_Down);
    CHECK(d.window().page().selectedLine() == 3);
    d.key(Qt::Key_Up, Qt::ControlModifier);
    CHECK(d.window().session().document().page[3].starts_with("A = 10.6"));
    d.key(Qt::Key_Down, Qt::ControlModifier | Qt::ShiftModifier);
    CHECK(d.window().session().document().page[3].starts_with("A = 10.59"));
    d.key(Qt::Key_Return);
    CHECK(d.window().page().isEditing());
    d.key(Qt::Key_Escape);
    d.sheet()->setFocus();
    d.key(Qt::Key_Plus);
    CHECK(xAxis(d).high < 365);
    d.key(Qt::Key_Home);
    CHECK(xAxis(d).high == 365);
    d.key(Qt::Key_Right);
    CHECK(xAxis(d).low == Approx(36.5));
}

TEST_CASE("the pointer reads values off the curves") {
    WindowDriver d;
    d.window().openExample(exampleOf("soil-temperature"));
    d.settle();
    d.move(d.sheet(), at(d, 201, 20.2));
    CHECK(d.sheet()->readOut().startsWith("maximum 20")); // it snaps to what is special
    d.move(d.sheet(), at(d, 160, 17.5));
    CHECK(d.sheet()->readOut().contains("value 17"));
    CHECK(d.sheet()->readOut().contains("slope"));
    d.move(d.sheet(), at(d, 20, 15));
    CHECK(d.sheet()->readOut().startsWith("("));
    d.move(d.sheet(), {2, 2});
    CHECK(d.sheet()->readOut().isEmpty());
}

TEST_CASE("scales are zoomed and moved on their own") {
    WindowDriver d;
    d.window().openExample(exampleOf("soil-temperature"));
    d.settle();
    const double low = yAxis(d).low, high = yAxis(d).high;
    d.wheel(d.sheet(), d.middleOf(scale(acrossScale)), 3);
    CHECK(xAxis(d).high - xAxis(d).low < 220);
    CHECK(yAxis(d).low == low);
    CHECK(yAxis(d).high == high);
    d.drag(d.sheet(), d.middleOf(scale(upScale)), d.middleOf(scale(upScale)) + QPointF(0, 40));
    CHECK(yAxis(d).low > low);
    CHECK(yAxis(d).high - yAxis(d).low == Approx(high - low));
    d.doubleClick(d.sheet(), d.middleOf(scale(upScale)));
    CHECK_FALSE(d.window().session().document().panels[0].y.limits);
    CHECK(d.window().session().document().panels[0].x.limits);
    d.wheel(d.sheet(), d.middleOf(scale(acrossScale)), 400); // as far as doubles go, and no further
    CHECK(xAxis(d).high > xAxis(d).low);
}

TEST_CASE("a curve, an axis and the sheet have their particulars") {
    WindowDriver d;
    d.window().openExample(exampleOf("soil-temperature"));
    d.settle();
    d.click(d.sheet(), at(d, 201, 20));
    CHECK(d.sheet()->selection() == WindowDriver::plot(0));
    d.find<QDoubleSpinBox>("setting-width")->setValue(0.8);
    auto* pattern = d.find<QComboBox>("setting-pattern");
    pattern->setFocus();
    d.key(Qt::Key_Down);
    emit pattern->activated(pattern->currentIndex());
    d.settle();
    const Settings& settings = d.window().session().document().panels[0].plots[0].settings;
    CHECK(std::get<double>(settings.at("width")) == 0.8);
    CHECK(std::get<std::string>(settings.at("pattern")) == "dashed");
    d.click(d.sheet(), d.middleOf(scale(acrossScale)));
    auto* high = d.find<QLineEdit>("axisHigh");
    REQUIRE(high);
    high->setFocus();
    d.key(Qt::Key_A, Qt::ControlModifier);
    d.type("100");
    d.key(Qt::Key_Return);
    CHECK(xAxis(d).high == 100);
    d.click(d.sheet(), {30, 30});
    auto* width = d.find<QDoubleSpinBox>("sheetWidth");
    REQUIRE(width);
    width->setValue(120);
    d.settle();
    CHECK(d.figure().figure.document.sheet.width == 120);
    auto* size = d.find<QComboBox>("sheetSize");
    REQUIRE(size);
    CHECK(size->currentText() == "its own");
    size->setFocus();
    d.key(Qt::Key_Home);
    emit size->activated(size->currentIndex());
    d.settle();
    const Sheet sheet = d.figure().figure.document.sheet;
    CHECK(sheet.width == 85); // one column of a journal, and letters for that
    CHECK(sheet.textSize == 8);
    d.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(d.window().session().document().sheet.width == 120);
    auto* paper = d.find<QComboBox>("setting-paper"); // of files, with one panel, too
    REQUIRE(paper);
}

TEST_CASE("a figure is given a look by its name, keeps it as a file, and another one takes it from there") {
    WindowDriver d;
    d.window().openExample(exampleOf("soil-temperature"));
    d.settle();
    const Document before = d.window().session().document();
    d.click(d.sheet(), {30, 30});
    auto* look = d.find<QComboBox>("sheetLook");
    REQUIRE(look);
    look->setFocus();
    d.key(Qt::Key_End);
    d.key(Qt::Key_Up); // before “its own”
    emit look->activated(look->currentIndex());
    d.settle();
    const auto middleOf = [&] { // the paper's colour between title and margin
        return d.sheet()->grab().toImage().pixel(d.sheet()->toWidget({2, 2}).toPoint()) & 0xffffffU;
    };
    CHECK(d.figure().figure.document.sheet.width == 256);
    CHECK(d.figure().figure.scene.paper == Colour{0x16, 0x20, 0x2a});
    CHECK(middleOf() == 0x16202aU);
    const QString path = QDir::temp().filePath(QString("look-%1.coulter-look").arg(QCoreApplication::applicationPid()));
    d.window().saveLook(path);
    d.window().activateWindow();
    d.settle();
    d.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(d.window().session().document() == before);
    d.window().takeLook(path);
    d.settle();
    CHECK(middleOf() == 0x16202aU);
    CHECK(d.figure().figure.document.sheet.width == before.sheet.width); // letters and colours alone
    CHECK(d.figure().figure.document.sheet.textSize == 18);
    QFile(path).remove();
    d.window().takeLook(path);
    CHECK(d.window().message().contains("neither a look nor a file"));
}

TEST_CASE("the sheet is looked at as others see it, which changes neither recipe nor export") {
    WindowDriver d;
    d.window().openExample(exampleOf("soil-temperature"));
    d.settle();
    const Document before = d.window().session().document();
    const auto coloured = [&] { // dots of the paper that are not grey
        const QImage image = d.sheet()->grab().toImage();
        const QRect paper =
            QRectF(d.sheet()->toWidget({1, 1}), d.sheet()->toWidget({before.sheet.width - 1, before.sheet.height - 1}))
                .toRect();
        int count = 0;
        for (int y = paper.top(); y < paper.bottom(); ++y) {
            for (int x = paper.left(); x < paper.right(); ++x) {
                const QRgb dot = image.pixel(x, y);
                count +=
                    std::max({qRed(dot), qGreen(dot), qBlue(dot)}) - std::min({qRed(dot), qGreen(dot), qBlue(dot)}) > 8;
            }
        }
        return count;
    };
    const int usual = coloured();
    CHECK(usual > 100);
    const auto next = [&] { d.key(Qt::Key_G, Qt::ControlModifier | Qt::ShiftModifier); };
    next();
    CHECK(d.sheet()->shownFor() == Eyes::GreyPrint);
    CHECK(coloured() == 0);
    d.sheet()->select({}); // drawn anew, it stays so
    d.window().resize(d.window().size() - QSize(40, 20));
    d.settle();
    CHECK(coloured() == 0);
    for (const Eyes eyes : {Eyes::Protanopia, Eyes::Deuteranopia, Eyes::Tritanopia}) {
        next();
        CHECK(d.sheet()->shownFor() == eyes);
        CHECK(coloured() > 0);
    }
    next();
    CHECK(d.sheet()->shownFor() == Eyes::Usual);
    CHECK(d.window().session().document() == before);
}

TEST_CASE("titles and labels are edited in place; an emptied label is derived again") {
    WindowDriver d;
    d.window().openExample(exampleOf("soil-temperature"));
    d.settle();
    d.click(d.sheet(), d.middleOf(title));
    d.type("A year");
    d.key(Qt::Key_Return);
    CHECK(d.window().session().document().panels[0].title == "A year");
    d.click(d.sheet(), d.middleOf(label(acrossScale)));
    d.type("Day $t$");
    d.key(Qt::Key_Return);
    CHECK(d.window().session().document().panels[0].x.label == "Day $t$");
    d.click(d.sheet(), d.middleOf(label(acrossScale)));
    d.key(Qt::Key_A, Qt::ControlModifier);
    d.key(Qt::Key_Backspace);
    d.key(Qt::Key_Return);
    CHECK_FALSE(d.window().session().document().panels[0].x.label);
    d.click(d.sheet(), d.middleOf(title));
    d.type("other");
    d.key(Qt::Key_Escape);
    CHECK(d.window().session().document().panels[0].title == "A year");
}

TEST_CASE("saving, opening and dropping files") {
    const QTemporaryDir folder;
    const QString path = folder.filePath("a.coulter");
    WindowDriver d;
    d.window().openExample(exampleOf("soil-temperature"));
    d.settle();
    REQUIRE(d.window().saveAs(path));
    CHECK_FALSE(d.window().session().isChanged());
    CHECK(d.window().windowTitle().startsWith("a "));
    const Document saved = d.window().session().document();
    d.window().session().start(Document{}, "");
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(path)});
    QDragEnterEvent enter({50, 50}, Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QCoreApplication::sendEvent(&d.window(), &enter);
    QDropEvent drop({50, 50}, Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QCoreApplication::sendEvent(&d.window(), &drop);
    d.settle();
    CHECK(d.window().session().document() == saved);
    CHECK(d.window().session().path() == path);

    // What cannot be opened or written is said, and nothing is lost.
    CHECK_FALSE(d.window().open(folder.filePath("none.coulter")));
    CHECK(d.window().message().contains("No such file"));
    REQUIRE_FALSE(writeFile(folder.filePath("bad.coulter").toStdString(), "{\"coulter\": 1"));
    CHECK_FALSE(d.window().open(folder.filePath("bad.coulter")));
    CHECK(d.window().message().contains("damaged"));
    CHECK(d.window().session().document() == saved);
    CHECK_FALSE(d.window().saveAs(folder.filePath("no/such/a.coulter")));
    CHECK(d.window().message().contains("No such file"));
    CHECK(d.window().session().path() == path);
    d.window().exportTo("/dev/full.pdf/x.pdf");
    d.settle();
    CHECK(d.window().message().contains("failed"));
    d.window().exportTo(folder.filePath("a.gif"));
    CHECK(d.window().message().contains("no format"));
}

TEST_CASE("the ribbon and the remarks tell of poles, jumps and gaps") {
    WindowDriver d;
    Document document;
    document.page = {"f(x) = 1/(x - 2) + sqrt(x + 3) + floor(x/4)", "x in [-5, 5]"};
    document.panels[0].plots.push_back(plotOf("f(x)"));
    d.window().session().start(document, "");
    d.settle();
    CHECK(d.window().ribbon().summary().contains("1 pole"));
    CHECK(d.window().ribbon().wordsAt({at(d, 2, 0).x(), 60}).startsWith("pole at x = 2"));
    CHECK(d.window().ribbon().wordsAt({at(d, -4, 0).x(), 60}).contains("undefined from"));
    CHECK(d.window().ribbon().wordsAt({at(d, 1, 0).x(), 60}).contains("proven point"));
    CHECK(d.window().ribbon().wordsAt({1, 60}).isEmpty());
    QStringList remarks;
    auto* list = d.find<QListWidget>("remarks");
    for (int i = 0; i < list->count(); ++i) remarks << list->item(i)->text();
    CHECK(remarks.contains("f(x) has a pole at x = 2."));
    CHECK(remarks.contains("f(x) jumps at x = 0."));
    CHECK(remarks.contains(QString("f(x) is undefined from x = −5 to −3.")));
}

TEST_CASE("of many changes in a row the newest is what is shown") {
    WindowDriver d;
    Document document;
    document.page = {"a = 1", "f(x) = sin(a/x)", "x in [-5, 5]"};
    document.panels[0].plots.push_back(plotOf("f(x)"));
    d.window().session().start(document, "");
    for (int i = 0; i < 30; ++i) { // faster than any figure can be drawn
        document.page[0] = "a = " + std::to_string(i);
        d.window().session().edit(document, "change", "change");
    }
    d.settle();
    CHECK(d.figure().figure.document.page[0] == "a = 29");
}

TEST_CASE("the window's scale and look change, the sheet stays paper") {
    WindowDriver d;
    d.window().openExample(exampleOf("soil-temperature"));
    d.settle();
    const int before = d.window().page().lineRect(1).height();
    d.key(Qt::Key_Plus, Qt::ControlModifier);
    d.key(Qt::Key_Plus, Qt::ControlModifier);
    CHECK(d.window().page().lineRect(1).height() > before);
    d.window().lookSettings().setDark(true);
    const QImage dark = d.picture();
    CHECK(qGray(dark.pixel(20, 600)) < 80);
    CHECK(d.figure().image.pixel(2, 2) == qRgb(255, 255, 255));
    d.window().lookSettings().setDark(false);
    d.key(Qt::Key_0, Qt::ControlModifier);
    CHECK(d.window().page().lineRect(1).height() == before);
    CHECK(qGray(d.picture().pixel(20, 600)) > 240);
}

TEST_CASE("everything that can be focused has an accessible name") {
    WindowDriver d;
    d.window().openExample(exampleOf("soil-temperature"));
    d.settle();
    for (QWidget* widget : d.window().findChildren<QWidget*>()) {
        if (widget->focusPolicy() == Qt::NoFocus || !widget->isVisibleTo(&d.window()) ||
            widget->objectName().startsWith("qt_"))
            continue;
        const bool named = !widget->accessibleName().isEmpty() || !widget->property("text").toString().isEmpty();
        INFO(widget->metaObject()->className() << " " << widget->objectName().toStdString());
        CHECK(named);
    }
}
