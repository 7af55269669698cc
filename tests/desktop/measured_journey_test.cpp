// Journeys with pictures, grids and meshes from files.
#include "hands.h"

#include "data/tile_file.h"
#include "desktop/while_reading.h"
#include "formula/lines/answer.h"

#include <QApplication>
#include <QCheckBox>
#include <QComboBox>
#include <QDropEvent>
#include <QLabel>
#include <QLineEdit>
#include <QMimeData>
#include <QPushButton>
#include <QTemporaryDir>
#include <QTimer>
#include <catch2/catch.hpp>
#include <cmath>
#include <filesystem>
#include <thread>

using namespace coulter;

namespace {

namespace fs = std::filesystem;

fs::path demos() { return fs::path(std::getenv("COULTER_SOURCE")) / "demos"; }

/// Lets a file fall on the window.
void drop(WindowDriver& d, const fs::path& path) {
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(QString::fromStdString(path.string()))});
    QDragEnterEvent enter({50, 50}, Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&d.window(), &enter);
    QDropEvent event({50, 50}, Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&d.window(), &event);
    d.settle();
}

/// An empty window, and a copy of the demo's picture that falls on it.
void dropSlice(WindowDriver& d, const QTemporaryDir& folder) {
    const fs::path copy = fs::path(folder.path().toStdString()) / "slice.tif";
    fs::copy_file(demos() / "core-slice/slice.tif", copy);
    d.window().session().start(Document{}, "");
    d.settle();
    drop(d, copy);
}

const FieldSamples& fieldOfPlot(WindowDriver& d, std::size_t panel, std::size_t drawn) {
    return *fieldSamplesOf(d.figure().figure.panels[panel].drawn[drawn]);
}

} // namespace

TEST_CASE("a picture with its pitch is dropped, masked, and read along a line") {
    QTemporaryDir folder;
    WindowDriver d;
    dropSlice(d, folder);
    auto* said = d.find<QLabel>("table-summary");
    REQUIRE(said);
    CHECK(said->text().contains("240 × 240 numbers, TIFF, 16 bits"));
    CHECK(said->text().contains("0.05 mm apart, as the file says"));
    CHECK(d.find<QLabel>("table-picture")->isVisible());
    d.find<QPushButton>("table-take")->click();
    d.settle();
    const std::vector<std::string> lines{"p(x, y) from \"slice.tif\"", "x in [0, 12], unit mm",
                                         "y in [0, 12], unit mm"};
    CHECK(documentOf(d).page == lines);
    REQUIRE(documentOf(d).panels[0].plots.size() == 1);
    CHECK(fieldOfPlot(d, 0, 0).columns.size() == 240);
    // A round mask, and the values along a line, written below.
    d.window().activateWindow(); // as the desktop does when a dialog has gone
    d.click(d.page(), d.window().page().lineRect(2).center() + QPointF(60, 0));
    d.key(Qt::Key_End);
    for (const char* line :
         {"m(x, y) = {p(x, y) for (x - 6)^2 + (y - 6)^2 < 30}", "a(s) = p(s, 6)", "s in [0.5, 11.5], unit mm"}) {
        d.key(Qt::Key_Return);
        d.type(line);
    }
    d.key(Qt::Key_Return);
    d.key(Qt::Key_Return); // an empty line ends writing
    d.settle();
    d.sheet()->select(WindowDriver::plot(0));
    enter(d, "plotOf", "m(x, y)");
    addFrom(d, "Panel", "Panel below");
    add(d, "a(s) as line");
    CHECK(documentOf(d).panels.at(1).plots.at(0).of == "a(s)");
    const FieldSamples& samples = fieldOfPlot(d, 0, 0);
    CHECK(std::isnan(samples.values[0][0]));
    CHECK(std::isfinite(samples.values[0][120 * 240 + 120]));
    const Page& page = d.figure().figure.page;
    CHECK(evaluate(page, "a(6.01)").value() == samples.values[0][120 * 240 + 120]);
    for (int i = 0; i < 100 && !documentOf(d).page.empty(); ++i) {
        d.window().page().setFocus();
        d.key(Qt::Key_Z, Qt::ControlModifier);
        d.settle();
    }
    CHECK(documentOf(d).page.empty());
}

TEST_CASE("where a picture lies is corrected before it is taken, and the line says it") {
    QTemporaryDir folder;
    WindowDriver d;
    dropSlice(d, folder);
    auto *pitch = d.find<QLineEdit>("table-pitch"), *origin = d.find<QLineEdit>("table-origin");
    auto* said = d.find<QLabel>("table-summary");
    auto* take = d.find<QPushButton>("table-take");
    REQUIRE(pitch);
    pitch->setFocus();
    d.type("0,,x");
    CHECK(said->text().contains("“0,,x” is none"));
    CHECK_FALSE(take->isEnabled());
    pitch->selectAll();
    d.type("-1");
    CHECK(said->text().contains("The pitch is the width of one number, more than 0"));
    pitch->selectAll();
    d.type("0.1");
    CHECK(said->text().contains("They are 0.1 mm apart. They fill [0, 24] × [0, 24] mm"));
    origin->setFocus();
    d.type("-12");
    CHECK_FALSE(take->isEnabled());
    d.type(", -12");
    CHECK(said->text().contains("They fill [-12, 12] × [-12, 12] mm"));
    const QImage before = d.find<QLabel>("table-picture")->pixmap().toImage();
    d.find<QComboBox>("table-rows")->setCurrentIndex(4);
    CHECK(d.find<QLabel>("table-picture")->pixmap().toImage() == before.mirrored());
    take->click();
    d.settle();
    const std::vector<std::string> lines{"p(x, y) from \"slice.tif\", pitch 0.1, origin -12, -12, rows upwards",
                                         "x in [-12, 12], unit mm", "y in [-12, 12], unit mm"};
    CHECK(documentOf(d).page == lines);
    CHECK(d.figure().figure.page.problems().empty());
    CHECK(fieldOfPlot(d, 0, 0).columns.front() == Approx(-11.95));
}

TEST_CASE("tiles of a field are drawn as they are named, and a stopped reading says so") {
    QTemporaryDir folder;
    const fs::path place = folder.path().toStdString();
    TiledField field;
    for (int i = 0; i < 30; ++i) field.columns.push_back(i), field.rows.push_back(i);
    field.variables = {"x", "y"};
    field.whole = "one";
    fs::create_directories(place / "tiles");
    for (const std::size_t part : {1, 2}) {
        const auto product = [&](std::size_t row, std::span<double> into) {
            for (std::size_t i = 0; i < into.size(); ++i) into[i] = static_cast<double>((i % 30) * (row + i / 30));
            return true;
        };
        REQUIRE(writeTile(place / "tiles" / tileName(part, 2), field, part, 2, product).empty());
    }
    WindowDriver d;
    Document document;
    document.page = {"h(x, y) from \"tiles\"", "x in [0, 29]", "y in [0, 29]"};
    document.panels[0].plots = {plotOf("h(x, y)", "heatmap")};
    d.window().session().start(document, "");
    REQUIRE_FALSE(d.window().session().save(QString::fromStdString((place / "h.coulter").string())));
    d.settle();
    CHECK(fieldOfPlot(d, 0, 0).columns.size() == 30);
    CHECK(fieldOfPlot(d, 0, 0).values[0][29 * 30 + 29] == 841);
    // What takes long shows that it does, and ends when it is stopped.
    bool stopped = false;
    QTimer::singleShot(600, [&] {
        for (QWidget* each : QApplication::topLevelWidgets()) {
            if (each->objectName() == "reading") each->findChild<QPushButton*>()->click();
        }
    });
    whileReading(&d.window(), "Reading …", [&](const std::stop_token& stop) {
        while (!stop.stop_requested()) std::this_thread::sleep_for(std::chrono::milliseconds(5));
        stopped = true;
    });
    CHECK(stopped);
}

TEST_CASE("one of several fields of a file is chosen before it is taken") {
    QTemporaryDir folder;
    const fs::path path = fs::path(folder.path().toStdString()) / "colours.png";
    QImage image(8, 6, QImage::Format_RGB32);
    for (int y = 0; y < 6; ++y) {
        for (int x = 0; x < 8; ++x) image.setPixel(x, y, qRgb(10 * x, 20 * y, 7));
    }
    image.setDotsPerMeterX(1000); // one for each mm
    image.setDotsPerMeterY(1000);
    REQUIRE(image.save(QString::fromStdString(path.string())));
    WindowDriver d;
    d.window().session().start(Document{}, "");
    d.settle();
    drop(d, path); // no figure of ours, so it was measured
    auto* variable = d.find<QComboBox>("table-variable");
    REQUIRE(variable);
    REQUIRE(variable->isVisible());
    CHECK(variable->currentText() == "red");
    variable->setCurrentText("green");
    d.find<QPushButton>("table-take")->click();
    d.settle();
    CHECK(documentOf(d).page[0] == "p(x, y) from \"colours.png\", variable \"green\"");
    CHECK(evaluate(d.figure().figure.page, "p(7.5, 0.5)").value() == 100);
    CHECK(d.figure().figure.panels[0].problems[0].empty());
}

TEST_CASE("a time step is run through by dragging its number") {
    WindowDriver d;
    d.window().open(QString::fromStdString((demos() / "wetting/wetting.coulter").string()));
    d.settle();
    const auto wet = [&] {
        const FieldSamples& samples = fieldOfPlot(d, 0, 0);
        double sum = 0;
        for (const double value : samples.values[0]) sum += value;
        return sum / static_cast<double>(samples.values[0].size());
    };
    const double before = wet();
    const auto line = [&] { return documentOf(d).page[4]; };
    CHECK(line() == "t = 6, from 0 to 48, unit h");
    const QRect number = d.window().page().numberRect(4);
    REQUIRE_FALSE(number.isEmpty());
    d.drag(d.page(), number.center(), number.center() + QPointF(60, 0));
    d.settle();
    CHECK(line() != "t = 6, from 0 to 48, unit h");
    CHECK(wet() > before);
    d.key(Qt::Key_Z, Qt::ControlModifier);
    d.settle();
    CHECK(wet() == before);
}

TEST_CASE("two meshes stand above each other, and the edges of one are shown and hidden") {
    WindowDriver d;
    d.window().open(QString::fromStdString((demos() / "embankment/embankment.coulter").string()));
    d.settle();
    const Figure& figure = d.figure().figure;
    REQUIRE(figure.panels.size() == 2);
    CHECK(fieldOfPlot(d, 1, 0).triangles.size() == fieldOf(figure.panels[1].drawn[0])->mesh->elements.size());
    const auto items = [&] { return d.figure().figure.scene.items.size(); };
    const std::size_t with = items();
    d.sheet()->select({ItemKind::Plot, 1, 0, 0});
    d.settle();
    auto* edges = d.find<QCheckBox>("setting-mesh");
    REQUIRE(edges);
    CHECK(edges->isChecked());
    edges->click();
    d.settle();
    CHECK(items() < with);
    d.find<QCheckBox>("setting-mesh")->click();
    d.settle();
    CHECK(items() == with);
    // Both on one scale of colours.
    enter(d, "plotOf", "h(x, y)");
    d.sheet()->select({ItemKind::Sheet, 0, 0, 0});
    choose(d, "setting-shared colours", "scale and bar");
    const auto& panels = d.figure().figure.panels;
    CHECK(panels[0].frame().colour.high == panels[1].frame().colour.high);
}
