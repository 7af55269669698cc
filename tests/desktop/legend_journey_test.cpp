#include "window_driver.h"

#include <QComboBox>
#include <QDoubleSpinBox>
#include <algorithm>
#include <catch2/catch.hpp>

using namespace coulter;

namespace {

const ItemPath legend{ItemKind::Legend, 0, 0, 0};

} // namespace

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
    d.dragSlowly(d.sheet(), entry(), d.middleOf({ItemKind::Scale, 0, furtherScale, 0}));
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
    const QPointF middle = d.middleOf(legend);
    d.drag(d.sheet(), middle, middle + QPointF(80, 40));
    REQUIRE(d.window().session().document().panels[0].legend.at);
    CHECK((d.middleOf(legend) - middle - QPointF(80, 40)).manhattanLength() < 2);
    d.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK_FALSE(d.window().session().document().panels[0].legend.at);
}
