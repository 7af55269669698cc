#include "composition/draw_figure.h"
#include "composition/findings.h"
#include "composition/pointing.h"
#include "figure/scale_settings.h"
#include "make_document.h"
#include "notes/note_settings.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

Document withNote(Note note) {
    Document d = document({"f(x) = x^2/10", "r_0 = 4", "x in [0, 10]", "y in [0, 10]", "g(x, y) = x y",
                           "c(t) = (cos(t), sin(t), t)", "t in [0, 6]"},
                          {"f(x)"});
    d.panels[0].y.limits = Limits{0, 10};
    d.panels[0].notes = {std::move(note)};
    return d;
}

Note noteOf(const std::string& kind, std::vector<NotePlace> at, const std::string& words = "") {
    return {kind, words, std::move(at), {}};
}

const DrawnNote& only(const Figure& figure) {
    REQUIRE(figure.panels[0].notes.drawn.size() == 1);
    return figure.panels[0].notes.drawn[0];
}

/// What a note drew.
std::vector<const SceneItem*> itemsOf(const Figure& figure) {
    std::vector<const SceneItem*> items;
    for (const Owned& owned : figure.owned) {
        if (owned.path.kind != ItemKind::Note) continue;
        for (std::size_t i = owned.first; i < owned.last; ++i) items.push_back(&figure.scene.items[i]);
    }
    return items;
}

std::vector<Point> pointsOf(const Figure& figure) {
    std::vector<Point> points;
    for (const SceneItem* item : itemsOf(figure)) {
        const auto* stroke = std::get_if<StrokeItem>(item);
        const auto* fill = std::get_if<FillItem>(item);
        for (const auto& line : stroke ? stroke->lines : fill ? fill->polygons : std::vector<std::vector<Point>>{})
            points.insert(points.end(), line.begin(), line.end());
    }
    return points;
}

} // namespace

TEST_CASE("every kind of note draws something and can be pointed at where it is") {
    for (const NoteKind* kind : noteKinds()) {
        INFO(kind->name);
        CHECK(findNoteKind(kind->name) == kind);
        CHECK(kind->usual.size() >= kind->leastPlaces);
        Note note = noteOf(kind->name, {}, kind->words ? "{1, 2}, f({1, 2})" : "words");
        static const std::vector<NotePlace> places{{"2", "8"}, {"6", "5"}, {"3", "6"}};
        note.at.assign(places.begin(), places.begin() + static_cast<std::ptrdiff_t>(kind->leastPlaces));
        const Figure figure = drawFigure(withNote(note));
        CHECK_FALSE(itemsOf(figure).empty());
        CHECK(figure.panels[0].notes.problems[0].empty());
        const DrawnNote& drawn = only(figure);
        const Rect words = kind->wordsRect(drawn);
        CHECK(words.width > 0);
        const ItemPath path{ItemKind::Note, 0, 0, 0};
        CHECK(itemAt(figure, {words.x + words.width / 2, words.y + words.height / 2}, 0.5) == path);
        const std::vector<Point> points = pointsOf(figure);
        for (const Point p : points) {
            CHECK(std::isfinite(p.x));
            if (itemAt(figure, p, 0.5) == path) continue;
            CHECK(figure.panels[0].frame().rect.grown(0.1).contains(p)); // the curve may be nearer
        }
    }
}

TEST_CASE("places are coordinates, or millimetres of the panel or the sheet") {
    Note note = noteOf("text", {{"r_0", "f(r_0)"}}, "here");
    const Figure data = drawFigure(withNote(note));
    const Frame& frame = data.panels[0].frame();
    CHECK(only(data).at[0].x == Approx(frame.onSheet(4, 1.6).x));
    CHECK(only(data).at[0].y == Approx(frame.onSheet(4, 1.6).y));
    note.at = {{"10", "5"}};
    set(note.settings, anchorSetting, std::string("panel"));
    CHECK(only(drawFigure(withNote(note))).at[0].x == Approx(frame.rect.x + 10));
    set(note.settings, anchorSetting, std::string("sheet"));
    CHECK(only(drawFigure(withNote(note))).at[0].y == Approx(5));
    // The way back.
    const NotePlace back = placeAt(noteOf("text", {}), frame, frame.onSheet(4, 1.6));
    CHECK(std::stod(back[0]) == Approx(4).margin(0.05));
    CHECK(std::stod(back[1]) == Approx(1.6).margin(0.05));
}

TEST_CASE("notes in data move with the view, and are hidden when they leave it") {
    Document d = withNote(noteOf("text", {{"4", "5"}}, "here"));
    d.panels[0].x.limits = Limits{0, 5};
    CHECK(only(drawFigure(d)).at[0].x > drawFigure(d).panels[0].frame().rect.x + 50);
    d.panels[0].x.limits = Limits{5, 10};
    CHECK(drawFigure(d).panels[0].notes.drawn.empty());
}

TEST_CASE("a shaded stretch goes to the panel's edges and no further, behind what is plotted") {
    Note note = noteOf("rectangle", {{"2", "-inf"}, {"3", "inf"}});
    set(note.settings, fillSetting, Colour{200, 210, 220});
    set(note.settings, behindSetting, true);
    const Figure figure = drawFigure(withNote(note));
    const Rect& frame = figure.panels[0].frame().rect;
    double top = HUGE_VAL, bottom = 0;
    for (const Point p : pointsOf(figure)) {
        top = std::min(top, p.y);
        bottom = std::max(bottom, p.y);
    }
    CHECK(top == Approx(frame.y).margin(0.3)); // half a line beyond the edge
    CHECK(bottom == Approx(frame.bottom()).margin(0.3));
    std::size_t ofNote = 0, ofPlot = 0;
    for (const Owned& owned : figure.owned) (owned.path.kind == ItemKind::Note ? ofNote : ofPlot) = owned.first;
    CHECK(ofNote < ofPlot);
}

TEST_CASE("an arrow's tip is at its place, whichever way it is bent") {
    for (const double bend : {-0.4, 0.0, 0.3}) {
        for (const char* heads : {"end", "both", "start"}) {
            Note note = noteOf("arrow", {{"2", "8"}, {"7", "4"}});
            set(note.settings, bendSetting, bend);
            set(note.settings, headsSetting, std::string(heads));
            const Figure figure = drawFigure(withNote(note));
            const DrawnNote& drawn = only(figure);
            const auto touches = [&](Point p) {
                return std::ranges::any_of(pointsOf(figure),
                                           [&](Point q) { return std::hypot(p.x - q.x, p.y - q.y) < 1e-9; });
            };
            CHECK(touches(drawn.at[0]));
            CHECK(touches(drawn.at[1]));
        }
    }
}

TEST_CASE("a callout without words says its place") {
    const Figure figure = drawFigure(withNote(noteOf("callout", {{"r_0", "f(r_0)"}, {"6", "8"}})));
    std::string words;
    for (const PlacedGlyph& glyph : only(figure).words.glyphs) words += glyph.text;
    CHECK(words == "(4,1.6)");
}

TEST_CASE("in space a place has three coordinates") {
    Document d = withNote(noteOf("text", {{"0", "1", "2"}}, "here"));
    d.panels[0].plots = {plotOf("c(t)")};
    const Figure figure = drawFigure(d);
    REQUIRE(figure.panels[0].frame().space);
    CHECK(only(figure).at[0].x == Approx(figure.panels[0].frame().onSheet(Place{0, 1, 2}).x));
    d.panels[0].notes[0].at = {{"0", "1"}};
    CHECK(drawFigure(d).panels[0].notes.problems[0].front().sentence == "In space a place has three coordinates.");
}

TEST_CASE("what is wrong with a note is said, and the rest of the figure stays") {
    const auto problem = [](Note note, bool logarithmic = false) {
        Document d = withNote(std::move(note));
        if (logarithmic) d.panels[0].y = {{}, Limits{0.1, 10}, ScaleKind::Logarithmic, {}};
        const Figure figure = drawFigure(d);
        CHECK(figure.panels[0].notes.drawn.empty());
        REQUIRE_FALSE(figure.panels[0].notes.problems[0].empty());
        const std::vector<Finding> found = findingsOf(figure);
        const bool isFound = std::ranges::any_of(found, [](const Finding& each) {
            return each.where == ItemPath{ItemKind::Note, 0, 0, 0};
        });
        CHECK(isFound);
        return figure.panels[0].notes.problems[0].front().sentence;
    };
    CHECK_FALSE(problem(noteOf("text", {{"2", "q(3)"}}, "w")).empty());
    CHECK(problem(noteOf("text", {{"2", "x"}}, "w")).find("x") != std::string::npos);
    CHECK(problem(noteOf("text", {{"2", "1", "3"}}, "w")) == "A place of the plane has two coordinates.");
    CHECK(problem(noteOf("text", {{"2", "0"}}, "w"), true).find("undefined") != std::string::npos);
    // Words that cannot be set are remarked upon, and shown as they are.
    const Figure figure = drawFigure(withNote(noteOf("text", {{"2", "3"}}, "$\\alhpa$")));
    CHECK_FALSE(only(figure).words.glyphs.empty());
    CHECK(std::ranges::any_of(findingsOf(figure), [](const Finding& each) {
        return each.said.sentence.find("character 2") != std::string::npos;
    }));
}

TEST_CASE("a note is moved without anything being sampled again") {
    Document d = withNote(noteOf("text", {{"2", "8"}}, "here"));
    d.panels[0].plots.push_back(plotOf("g(x, y)", "heatmap"));
    SampleStore store;
    const Effort effort = effortOf(d.sheet);
    drawFigure(d, effort, {}, &store);
    const std::size_t before = store.hits();
    d.panels[0].notes[0].at = {{"5", "2"}};
    drawFigure(d, effort, {}, &store);
    CHECK(store.hits() == before + 3); // the curve, the field, and its dots
}
