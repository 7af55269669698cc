#include "figure/panel_grid.h"
#include "figure/sheet_settings.h"
#include "hands.h"
#include "notes/note_settings.h"
#include "notes/read_notes.h"

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QToolButton>
#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

QPointF middleOf(WindowDriver& d, std::size_t panel) {
    const Rect& f = d.figure().figure.panels[panel].frame().rect;
    return d.sheet()->toWidget({f.x + f.width / 2, f.y + f.height / 2});
}

} // namespace

TEST_CASE("four panels are made by mouse and keys, share their scales and are zoomed together") {
    WindowDriver d;
    write(d, {"x in [0, 12]", "f(x) = sin(x)"});
    REQUIRE(documentOf(d).panels.size() == 1);
    addFrom(d, "Panel", "Copy of the panel");
    REQUIRE(documentOf(d).panels.size() == 2);
    // Split below by key: the sheet has the keyboard and a panel is selected.
    for (const std::size_t panel : {0UL, 1UL}) {
        d.click(d.sheet(), middleOf(d, panel) + QPointF(5, 30));
        d.settle();
        CHECK(d.sheet()->selection().panel == panel);
        d.key(Qt::Key_Down, Qt::ControlModifier | Qt::ShiftModifier);
        d.settle();
    }
    REQUIRE(documentOf(d).panels.size() == 4);
    const GridSize size = gridSize(cellsOf(documentOf(d)));
    CHECK(size.columns == 2);
    // Something to see in the new ones.
    for (const std::size_t panel : {2UL, 3UL}) {
        d.sheet()->select({ItemKind::Panel, panel, 0, 0});
        d.window().page().setFocus();
        add(d, "f(x) as line");
        CHECK(documentOf(d).panels[panel].plots.size() == 1);
    }
    d.sheet()->select({ItemKind::Sheet, 0, 0, 0});
    choose(d, "setting-shared across", "all");
    choose(d, "setting-panel letters", "(a)");
    d.sheet()->setFocus();
    d.wheel(d.sheet(), middleOf(d, 3), 2);
    d.settle();
    const AxisMap first = d.figure().figure.panels[0].frame().map.x;
    CHECK(first.high - first.low < 9);
    for (const PanelFigure& panel : d.figure().figure.panels) {
        CHECK(panel.frame().map.x.low == first.low);
        CHECK(panel.frame().map.x.high == first.high);
    }
    // From one panel to the next by key, and away with it.
    d.sheet()->select({ItemKind::Panel, 0, 0, 0});
    d.sheet()->setFocus();
    d.key(Qt::Key_Right, Qt::ControlModifier);
    CHECK(d.sheet()->selection() == ItemPath{ItemKind::Panel, 1, 0, 0});
    d.key(Qt::Key_Left, Qt::AltModifier);
    d.settle();
    CHECK(cellsOf(documentOf(d))[1].column == 0);
    d.key(Qt::Key_Delete);
    d.settle();
    CHECK(documentOf(d).panels.size() == 3);
}

TEST_CASE("a panel is dragged by its grip, and the border between two by its own") {
    WindowDriver d;
    write(d, {"x in [0, 12]", "f(x) = sin(x)", "g(x) = cos(x)"});
    addFrom(d, "Panel", "Panel to the right");
    REQUIRE(cellsOf(documentOf(d))[1].column == 1);
    const auto gripAt = [&](std::size_t panel) {
        const Rect grip = d.sheet()->gripOf(panel);
        return d.sheet()->toWidget({grip.x + grip.width / 2, grip.y + grip.height / 2});
    };
    // Dropped in the middle of the other one: they change places.
    d.drag(d.sheet(), gripAt(1), middleOf(d, 0));
    d.settle();
    CHECK(cellsOf(documentOf(d))[1].column == 0);
    // Dropped at its lower edge: below it.
    const Rect room = d.figure().figure.panels[1].layout.room;
    d.drag(d.sheet(), gripAt(0), d.sheet()->toWidget({room.x + room.width / 2, room.bottom() - 3}));
    d.settle();
    CHECK(cellsOf(documentOf(d))[0].row == 1);
    CHECK(cellsOf(documentOf(d))[0].column == 0);
    // The border between them.
    const double before = d.figure().figure.panels[1].frame().rect.height;
    const Rect upper = d.figure().figure.panels[1].layout.room;
    const QPointF border = d.sheet()->toWidget({upper.x + 2, upper.bottom() - 0.5});
    d.drag(d.sheet(), border, border + QPointF(0, 40));
    d.settle();
    CHECK(d.figure().figure.panels[1].frame().rect.height > before + 3);
    CHECK_FALSE(documentOf(d).sheet.rowHeights.empty());
    d.window().page().setFocus();
    d.key(Qt::Key_Z, Qt::ControlModifier);
    d.settle();
    CHECK(documentOf(d).sheet.rowHeights.empty());
}

TEST_CASE("three curves on three scales, one of them dragged alone") {
    WindowDriver d;
    write(d, {"x in [0, 8]", "f(x) = sin(x)", "g(x) = 1000 cos(x)", "h(x) = exp(x)"});
    REQUIRE(documentOf(d).panels[0].plots.size() == 3);
    for (const std::size_t plot : {1UL, 2UL}) {
        d.sheet()->select(WindowDriver::plot(plot));
        for (std::size_t k = 0; k < plot; ++k) { // on the way to the last choice, a new one
            auto* scale = d.find<QComboBox>("plotScale");
            REQUIRE(scale);
            scale->setFocus();
            d.key(Qt::Key_Down);
            d.settle();
        }
        CHECK(documentOf(d).panels[0].plots[plot].scale == plot);
    }
    REQUIRE(documentOf(d).panels[0].further.size() == 2);
    d.sheet()->select({ItemKind::Scale, 0, upwardScale(2), 0});
    choose(d, "axisScale", "logarithmic");
    CHECK(frameOf(d).further[1].map.kind == ScaleKind::Logarithmic);
    const Frame before = frameOf(d);
    Rect band;
    for (const Hit& hit : d.figure().figure.hits) {
        if (hit.path == ItemPath{ItemKind::Scale, 0, upwardScale(1), 0}) band = hit.rect;
    }
    REQUIRE(band.height > 0);
    const QPointF at = d.sheet()->toWidget({band.x + 1.5, band.y + band.height / 2});
    d.drag(d.sheet(), at, at + QPointF(0, 40));
    d.settle();
    CHECK(frameOf(d).further[0].map.high > before.further[0].map.high + 100);
    CHECK(frameOf(d).map.y.high == before.map.y.high);
    CHECK(frameOf(d).further[1].map.high == before.further[1].map.high);
    // A plot's value is told on its own scale.
    const PanelFigure& panel = d.figure().figure.panels[0];
    const Point p = panel.frameOf(panel.drawn[1]).onSheet(6.2832, 1000);
    d.move(d.sheet(), d.sheet()->toWidget(p));
    CHECK(d.sheet()->readOut().startsWith("maximum 1000 at"));
    d.sheet()->select({ItemKind::Scale, 0, upwardScale(1), 0});
    auto* remove = d.find<QToolButton>("removeScale");
    REQUIRE(remove);
    remove->click();
    d.settle();
    CHECK(documentOf(d).panels[0].further.size() == 1);
    CHECK(documentOf(d).panels[0].plots[1].scale == 0);
    CHECK(documentOf(d).panels[0].plots[2].scale == 1);
}

TEST_CASE("a figure is annotated with text, arrow, bracket and polygon, then zoomed") {
    WindowDriver d;
    write(d, {"x in [0, 12]", "f(x) = sin(x)"});
    const auto notes = [&]() -> const std::vector<Note>& { return documentOf(d).panels[0].notes; };
    const auto at = [&](double x, double y) { return d.sheet()->toWidget(frameOf(d).onSheet(x, y)); };
    const auto coordinate = [&](std::size_t note, std::size_t place, std::size_t k) {
        return std::stod(notes()[note].at[place][k]);
    };
    addFrom(d, "Note", "text");
    d.click(d.sheet(), at(3, 0.5));
    d.settle();
    d.type("Wave of $\\lambda = {2 pi:3}$");
    d.key(Qt::Key_Return);
    d.settle();
    REQUIRE(notes().size() == 1);
    CHECK(notes()[0].words == "Wave of $\\lambda = {2 pi:3}$");
    CHECK(coordinate(0, 0, 0) == Approx(3).margin(0.1));
    addFrom(d, "Note", "arrow");
    d.drag(d.sheet(), at(5, 0.6), at(8, 0.8));
    d.settle();
    REQUIRE(notes().size() == 2);
    CHECK(coordinate(1, 0, 0) == Approx(5).margin(0.1));
    CHECK(coordinate(1, 1, 0) == Approx(8).margin(0.1));
    addFrom(d, "Note", "bracket");
    d.drag(d.sheet(), at(2, -0.6), at(4, -0.6));
    d.settle();
    addFrom(d, "Note", "polygon");
    for (const auto& [x, y] : {std::pair{9.0, 0.2}, {10.0, 0.2}, {10.0, 0.6}, {9.0, 0.6}}) {
        d.click(d.sheet(), at(x, y));
        d.move(d.sheet(), at(x, y) + QPointF(2, 2));
    }
    d.key(Qt::Key_Return);
    d.settle();
    REQUIRE(notes().size() == 4);
    CHECK(notes()[3].at.size() == 4);
    // A callout holds on to the curve that is near.
    addFrom(d, "Note", "callout");
    d.drag(d.sheet(), at(7.85, 0.98), at(6.5, -0.5));
    d.settle();
    REQUIRE(notes().size() == 5);
    CHECK(notes()[4].at[0][1].starts_with("f("));
    // By a handle, by its middle, by keys.
    d.sheet()->select({ItemKind::Note, 0, 1, 0});
    d.settle();
    const Point tip = d.sheet()->drawnNote({ItemKind::Note, 0, 1, 0})->at[1];
    d.drag(d.sheet(), d.sheet()->toWidget(tip), at(9, -0.2), Qt::AltModifier);
    d.settle();
    CHECK(coordinate(1, 1, 0) == Approx(9).margin(0.1));
    CHECK(coordinate(1, 0, 0) == Approx(5).margin(0.1));
    d.sheet()->select({ItemKind::Note, 0, 0, 0});
    d.sheet()->setFocus();
    const double before = coordinate(0, 0, 0);
    d.key(Qt::Key_Right);
    d.settle();
    CHECK(coordinate(0, 0, 0) > before + 0.05);
    d.key(Qt::Key_D, Qt::ControlModifier);
    d.settle();
    CHECK(notes().size() == 6);
    d.key(Qt::Key_Delete);
    d.settle();
    CHECK(notes().size() == 5);
    // In its particulars a place may be a formula, and any setting is there.
    d.sheet()->select({ItemKind::Note, 0, 0, 0});
    enter(d, "notePlace-0-1", "f(1)");
    CHECK(notes()[0].at[0][1] == "f(1)");
    auto* letters = d.find<QDoubleSpinBox>("setting-letters");
    REQUIRE(letters);
    letters->setFocus();
    d.key(Qt::Key_Up);
    d.settle();
    CHECK(number(notes()[0].settings, noteLettersSetting) == 0.5);
    // Zoomed, they move with the data.
    const Point was = d.sheet()->drawnNote({ItemKind::Note, 0, 2, 0})->at[0];
    d.sheet()->setFocus();
    d.wheel(d.sheet(), at(3, 0), 2);
    d.settle();
    const DrawnNote* bracket = d.sheet()->drawnNote({ItemKind::Note, 0, 2, 0});
    REQUIRE(bracket);
    CHECK(bracket->at[0].x < was.x - 2);
    CHECK(bracket->at[0].x == Approx(frameOf(d).onSheet(coordinate(2, 0, 0), 0).x));
    CHECK(d.figure().figure.panels[0].notes.problems[4].empty());
}

TEST_CASE("a remark is mended by one click, and one undo takes that back") {
    WindowDriver d;
    write(d, {"x in [0, 12]", "f(x) = sin(x)", "q = 3"});
    auto* remarks = d.find<QListWidget>("remarks");
    REQUIRE(remarks);
    const auto rowOf = [&](const QString& text) {
        for (int row = 0; row < remarks->count(); ++row) {
            if (remarks->item(row)->text().contains(text)) return row;
        }
        return -1;
    };
    REQUIRE(rowOf("Nothing uses the quantity “q”") >= 0);
    const int remedy = rowOf("Remove its line");
    REQUIRE(remedy == rowOf("Nothing uses") + 1);
    const auto before = documentOf(d);
    d.click(remarks->viewport(), remarks->visualItemRect(remarks->item(remedy)).center());
    d.settle();
    CHECK(documentOf(d).page == std::vector<std::string>{"x in [0, 12]", "f(x) = sin(x)"});
    CHECK(rowOf("Nothing uses") == -1);
    d.window().page().setFocus();
    d.key(Qt::Key_Z, Qt::ControlModifier);
    d.settle();
    CHECK(documentOf(d) == before);
}
