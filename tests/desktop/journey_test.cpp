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

const ItemPath title{ItemKind::Title, 0, 0, 0}, legend{ItemKind::Legend, 0, 0, 0};
ItemPath scale(std::size_t which) { return {ItemKind::Scale, 0, which, 0}; }
ItemPath label(std::size_t which) { return {ItemKind::ScaleLabel, 0, which, 0}; }

QPointF targetMiddle(WindowDriver& d, const ItemPath& path) {
    for (const Hit& target : d.figure().figure.hits) {
        if (target.path == path)
            return d.sheet()->toWidget({target.rect.x + target.rect.width / 2, target.rect.y + target.rect.height / 2});
    }
    FAIL("no such part");
    return {};
}

void replaceLine(WindowDriver& d, int line, const QString& text) {
    d.click(d.page(), d.window().page().lineRect(line).center() + QPointF(60, 0));
    d.key(Qt::Key_A, Qt::ControlModifier);
    d.type(text);
}

std::string message(WindowDriver& d) { return d.find<QLabel>("formulaMessage")->text().toStdString(); }

} // namespace

TEST_CASE("the first journey: demo, drag a number, type a formula, zoom, export, rebuild, reopen, undo") {
    WindowDriver d;
    d.window().openDemo();
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
    d.window().openDemo();
    d.settle();
    const Raster raster = paintRaster(drawFigure(d.window().session().document()).scene, d.figure().dotsPerMm);
    const QImage expected(reinterpret_cast<const uchar*>(raster.pixels.data()), raster.width, raster.height,
                          raster.width * 4, QImage::Format_RGB32);
    CHECK(d.figure().image == expected);
}

TEST_CASE("an unfinished formula keeps the last picture and points at the character") {
    WindowDriver d;
    d.window().openDemo();
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
    CHECK(d.window().session().document().page == std::vector<std::string>{"f(x) = sin(x)/x", "x in [-5, 5]"});
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
    d.window().openDemo();
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
    d.window().openDemo();
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
    d.window().openDemo();
    d.settle();
    const double low = yAxis(d).low, high = yAxis(d).high;
    d.wheel(d.sheet(), targetMiddle(d, scale(acrossScale)), 3);
    CHECK(xAxis(d).high - xAxis(d).low < 220);
    CHECK(yAxis(d).low == low);
    CHECK(yAxis(d).high == high);
    d.drag(d.sheet(), targetMiddle(d, scale(upScale)), targetMiddle(d, scale(upScale)) + QPointF(0, 40));
    CHECK(yAxis(d).low > low);
    CHECK(yAxis(d).high - yAxis(d).low == Approx(high - low));
    d.doubleClick(d.sheet(), targetMiddle(d, scale(upScale)));
    CHECK_FALSE(d.window().session().document().panels[0].y.limits);
    CHECK(d.window().session().document().panels[0].x.limits);
    d.wheel(d.sheet(), targetMiddle(d, scale(acrossScale)), 400); // as far as doubles go, and no further
    CHECK(xAxis(d).high > xAxis(d).low);
}

TEST_CASE("a curve, an axis and the sheet have their particulars") {
    WindowDriver d;
    d.window().openDemo();
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
    d.click(d.sheet(), targetMiddle(d, scale(acrossScale)));
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
    d.window().openDemo();
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
    d.window().openDemo();
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
    d.window().openDemo();
    d.settle();
    d.click(d.sheet(), targetMiddle(d, title));
    d.type("A year");
    d.key(Qt::Key_Return);
    CHECK(d.window().session().document().panels[0].title == "A year");
    d.click(d.sheet(), targetMiddle(d, label(acrossScale)));
    d.type("Day $t$");
    d.key(Qt::Key_Return);
    CHECK(d.window().session().document().panels[0].x.label == "Day $t$");
    d.click(d.sheet(), targetMiddle(d, label(acrossScale)));
    d.key(Qt::Key_A, Qt::ControlModifier);
    d.key(Qt::Key_Backspace);
    d.key(Qt::Key_Return);
    CHECK_FALSE(d.window().session().document().panels[0].x.label);
    d.click(d.sheet(), targetMiddle(d, title));
    d.type("other");
    d.key(Qt::Key_Escape);
    CHECK(d.window().session().document().panels[0].title == "A year");
}

TEST_CASE("entries of legends are renamed where they stand; an emptied one is derived again") {
    for (const LegendPlace place : {LegendPlace::TopLeft, LegendPlace::Outside, LegendPlace::AtEnds}) {
        WindowDriver d;
        Document document;
        document.page = {"f(x, a) = a x^2", "g(x) = 4 - x", "x in [0, 1]", "a in [0, 3]"};
        document.panels[0].plots = {plotOf("g(x)"), plotOf("f(x, a) for a in {1, 2}")};
        document.panels[0].legend.place = place;
        d.window().session().start(document, "");
        d.settle();
        const auto entry = [&](const ItemPath& path) {
            const std::vector<Hit> entries = d.sheet()->legendEntries();
            const auto at = std::ranges::find(entries, path, &Hit::path);
            REQUIRE(at != entries.end());
            return d.sheet()->toWidget({at->rect.x + at->rect.width / 2, at->rect.y + at->rect.height / 2});
        };
        const ItemPath line{ItemKind::Plot, 0, 0, 0}, second{ItemKind::Plot, 0, 1, 1};
        const auto plots = [&]() -> const std::vector<Plot>& {
            return d.window().session().document().panels[0].plots;
        };
        d.doubleClick(d.sheet(), entry(line));
        d.type("falling $g$");
        d.key(Qt::Key_Return);
        d.settle();
        CHECK(plots()[0].name == "falling $g$");
        d.doubleClick(d.sheet(), entry(second)); // one member alone
        d.type("the steeper one");
        d.key(Qt::Key_Return);
        d.settle();
        REQUIRE(plots()[1].members.size() == 2);
        CHECK(plots()[1].members[1].name == "the steeper one");
        CHECK_FALSE(plots()[1].name);
        d.sheet()->select(line); // and by the keyboard
        d.sheet()->setFocus();
        d.key(Qt::Key_R);
        d.key(Qt::Key_A, Qt::ControlModifier);
        d.key(Qt::Key_Backspace);
        d.key(Qt::Key_Return);
        d.settle();
        CHECK_FALSE(plots()[0].name);
        d.key(Qt::Key_Z, Qt::ControlModifier);
        CHECK(plots()[0].name == "falling $g$");
    }
}

TEST_CASE("a legend goes below in columns, and its entries change places by the keyboard") {
    WindowDriver d;
    Document document;
    document.page = {"f(x) = x^2", "g(x) = 1 - x", "h(x) = x/2", "x in [0, 1]"};
    document.panels[0].plots = {plotOf("f(x)"), plotOf("g(x)"), plotOf("h(x)")};
    d.window().session().start(document, "");
    d.settle();
    d.click(d.sheet(), {30, 30});
    auto* place = d.find<QComboBox>("legendPlace");
    REQUIRE(place);
    place->setFocus();
    d.key(Qt::Key_End);
    d.key(Qt::Key_Up); // before “none”: below
    emit place->activated(place->currentIndex());
    d.settle();
    const auto shown = [&] { return d.figure().figure.panels[0].layout.legend; };
    CHECK(shown().place == LegendPlace::Below);
    CHECK(shown().columns.size() == 3);
    auto* columns = d.find<QDoubleSpinBox>("legendColumns");
    REQUIRE(columns);
    columns->setValue(1);
    d.settle();
    CHECK(shown().rows == 3);
    d.sheet()->select({ItemKind::Plot, 0, 2, 0});
    d.sheet()->setFocus();
    d.key(Qt::Key_PageUp);
    d.key(Qt::Key_PageUp);
    d.settle();
    CHECK(shown().drawn == std::vector<std::size_t>{2, 0, 1});
    CHECK(d.sheet()->legendEntries()[0].path.index == 2);
    d.key(Qt::Key_PageDown);
    d.settle();
    CHECK(shown().drawn == std::vector<std::size_t>{0, 2, 1});
    d.key(Qt::Key_Z, Qt::ControlModifier); // all of it in one step
    d.settle();
    CHECK(shown().drawn == std::vector<std::size_t>{0, 1, 2});
}

TEST_CASE("an entry of the legend that is dropped on a scale puts its curve there, and the legend stays") {
    WindowDriver d;
    Document document;
    document.page = {"f(x) = x^2", "g(x) = 100 - 90 x", "x in [0, 1]"};
    document.panels[0].plots = {plotOf("f(x)"), plotOf("g(x)")};
    document.panels[0].further = {Axis{}};
    document.panels[0].legend.place = LegendPlace::TopLeft;
    d.window().session().start(document, "");
    d.settle();
    const auto middleOf = [&](const Rect& rect) {
        return d.sheet()->toWidget({rect.x + rect.width / 2, rect.y + rect.height / 2});
    };
    const auto entry = [&] { return middleOf(d.sheet()->legendEntries()[1].rect); };
    const auto plots = [&] { return d.window().session().document().panels[0].plots; };
    d.dragSlowly(d.sheet(), entry(), targetMiddle(d, {ItemKind::Scale, 0, furtherScale, 0}));
    d.settle();
    CHECK(plots()[1].scale == 1);
    CHECK(plots()[0].scale == 0);
    CHECK_FALSE(d.window().session().document().panels[0].legend.at);
    d.key(Qt::Key_Z, Qt::ControlModifier); // one step
    CHECK(d.window().session().document() == document);
    d.settle();
    d.dragSlowly(d.sheet(), entry(), entry() + QPointF(90, 60)); // elsewhere it is the legend that moves
    d.settle();
    CHECK(d.window().session().document().panels[0].legend.at);
    CHECK(plots()[1].scale == 0);
}

TEST_CASE("a legend is dragged to its place") {
    WindowDriver d;
    Document document;
    document.page = {"f(x, a) = a x^2", "x in [0, 1]", "a in [0, 3]"};
    document.panels[0].plots.push_back(plotOf("f(x, a) for a in {1, 1.01}"));
    d.window().session().start(document, "");
    d.settle();
    const QPointF middle = targetMiddle(d, legend);
    d.drag(d.sheet(), middle, middle + QPointF(80, 40));
    REQUIRE(d.window().session().document().panels[0].legend.at);
    CHECK((targetMiddle(d, legend) - middle - QPointF(80, 40)).manhattanLength() < 2);
    d.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK_FALSE(d.window().session().document().panels[0].legend.at);
}

TEST_CASE("saving, opening and dropping files") {
    const QTemporaryDir folder;
    const QString path = folder.filePath("a.coulter");
    WindowDriver d;
    d.window().openDemo();
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
    d.window().openDemo();
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
    d.window().openDemo();
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
