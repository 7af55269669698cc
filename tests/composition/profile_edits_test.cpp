// What a field is worth along a line that is a note, kept as a plot.
#include "composition/figure.h"
#include "formula/lines/answer.h"
#include "formula/lines/read_page.h"
#include "notes/profile_edits.h"
#include "notes/read_notes.h"
#include "plots/plot_kind.h"
#include "plots/profile.h"

#include <catch2/catch.hpp>

using namespace coulter;

namespace {

constexpr std::array linear{ScaleKind::Linear, ScaleKind::Linear};
const ItemPath noteItem{ItemKind::Note, 0, 0, 0}, plotItem{ItemKind::Plot, 0, 0, 0};

Document withLine(std::vector<std::string> page, const std::string& of, const std::vector<NotePlace>& at) {
    Document document;
    document.page = std::move(page);
    document.panels[0].plots.push_back(plotOf(of, "heatmap"));
    Note line;
    line.kind = "line";
    line.at = at;
    document.panels[0].notes.push_back(line);
    return document;
}

Document profiled(const Document& document, std::array<ScaleKind, 2> scales = linear) {
    auto made = withProfile(document, noteItem, plotItem, scales);
    INFO((std::holds_alternative<Problem>(made) ? std::get<Problem>(made).sentence : ""));
    REQUIRE(std::holds_alternative<Document>(made));
    const Document changed = std::get<Document>(made);
    CHECK(readPage(changed).problems().empty());
    REQUIRE(changed.panels.size() == 2);
    CHECK(readPlots(readPage(changed), changed.panels[1]).problems[0].empty());
    return changed;
}

} // namespace

TEST_CASE("a profile is a function of the length along its line, whose ends are quantities") {
    const Document before = withLine({"x in [0, 8], unit m", "y in [0, 6], unit m", "h(x, y) = 100 x + y"}, "h(x, y)",
                                     {{"1", "1"}, {"4", "5"}});
    const Document after = profiled(before);
    const std::vector<std::string> lines{"x_1 = 1, from 0 to 8, unit m",
                                         "y_1 = 1, from 0 to 6, unit m",
                                         "x_2 = 4, from 0 to 8, unit m",
                                         "y_2 = 5, from 0 to 6, unit m",
                                         "l_1 = sqrt((x_2 - x_1)^2 + (y_2 - y_1)^2), unit m",
                                         "p(s) = h(x_1 + (x_2 - x_1) s/l_1, y_1 + (y_2 - y_1) s/l_1)",
                                         "s in [0, l_1], unit m"};
    CHECK(std::vector<std::string>(after.page.begin() + 3, after.page.end()) == lines);
    CHECK(evaluate(readPage(after), "p(0)").value() == 101);
    CHECK(evaluate(readPage(after), "p(5)").value() == Approx(405));
    CHECK(evaluate(readPage(after), "p(2.5)").value() == Approx(253));
    CHECK(after.panels[0].notes[0].at == std::vector<NotePlace>{{"x_1", "y_1"}, {"x_2", "y_2"}});
    // Another one beside it has names of its own, or the same ends.
    Document second = after;
    second.panels[0].notes[0].at[1] = {"2", "y_2"};
    const Document both = std::get<Document>(withProfile(second, noteItem, plotItem, linear));
    CHECK(both.panels[0].notes[0].at == std::vector<NotePlace>{{"x_1", "y_1"}, {"x_3", "y_2"}});
    CHECK(readPage(both).problems().empty());
}

TEST_CASE("an end that is dragged changes its quantity") {
    Document document =
        profiled(withLine({"x in [0, 8]", "y in [0, 6]", "h(x, y) = x"}, "h(x, y)", {{"1", "1"}, {"4", "5"}}));
    putNotePlace(document, noteItem, 1, {"6.5", "-2"});
    CHECK(document.panels[0].notes[0].at[1] == NotePlace{"x_2", "y_2"});
    CHECK(document.page[5] == "x_2 = 6.5, from 0 to 8");
    CHECK(document.page[6] == "y_2 = -2, from 0 to 6");
    putNotePlace(document, noteItem, 1, {"6.5", "3"});
    CHECK(document.page[6] == "y_2 = 3, from 0 to 6");
    // A formula is no number that could be changed.
    document.page[5] = "x_2 = 2 + 2";
    putNotePlace(document, noteItem, 1, {"7", "3"});
    CHECK(document.panels[0].notes[0].at[1] == NotePlace{"7", "y_2"});
}

TEST_CASE("profiles of formulas, of turned fields, across units and on logarithmic scales") {
    const Document formula =
        profiled(withLine({"x in [0, 8]", "y in [0, 6]", "s = 2"}, "x + s y", {{"0", "0"}, {"4", "0"}}));
    CHECK(evaluate(readPage(formula), "p(3)").value() == Approx(3));
    Document turned = withLine({"z in [0, 8], unit cm", "t in [0, 6], unit h", "T(z, t) = 100 z + t"}, "T(z, t)",
                               {{"0", "0"}, {"6", "8"}});
    turned.panels[0].plots[0].settings["across"] = std::string("t");
    const Document across = profiled(turned);
    CHECK(evaluate(readPage(across), "p(0.5)").value() == Approx(403)); // a share: t to 6, z to 8
    const Document logarithmic = profiled(
        withLine({"r in [1, 100], logarithmic", "y in [0, 1]", "h(r, y) = r"}, "h(r, y)", {{"1", "0"}, {"100", "1"}}),
        {ScaleKind::Logarithmic, ScaleKind::Linear});
    CHECK(evaluate(readPage(logarithmic), "p(0.5)").value() == Approx(10));
}

TEST_CASE("where no profile can be, a sentence says why") {
    const auto sentence = [](const Document& document) {
        const auto made = withProfile(document, noteItem, plotItem, linear);
        REQUIRE(std::holds_alternative<Problem>(made));
        CHECK_FALSE(std::get<Problem>(made).suggestion.empty());
        return std::get<Problem>(made).sentence;
    };
    CHECK(sentence(withLine({"x in [0, 8]", "f(x) = x"}, "f(x)", {{"0", "0"}, {"4", "0"}})).find("no field") !=
          std::string::npos);
    const std::vector<std::string> page{"x in [0, 8]", "y in [0, 8]", "f(x, y) = x"};
    CHECK(sentence(withLine(page, "f(x, y)", {{"0", "0"}, {"4", "0"}, {"5", "5"}})).find("two places") !=
          std::string::npos);
    CHECK(sentence(withLine(page, "f(x, y) for k in {1, 2}", {{"0", "0"}, {"4", "0"}})).find("no field") !=
          std::string::npos);
}

TEST_CASE("a profile is looked at along the sheet, and ends where the field does") {
    const Document document =
        withLine({"x in [0, 8]", "y in [0, 6]", "h(x, y) = x + 10 y"}, "h(x, y)", {{"1", "1"}, {"4", "5"}});
    const PanelReading reading = readPlots(readPage(document), document.panels[0]);
    const PanelMap map{{ScaleKind::Linear, 0, 10, 100}, {ScaleKind::Linear, 0, 10, 100}};
    const Profile found = profileAlong(reading.drawn[0], map, {0, 0}, {100, 50}, 11);
    REQUIRE(found.values.size() == 11);
    CHECK(found.values[2] == Approx(12));
    CHECK(found.across[8] == Approx(8));
    CHECK(found.values[8] == Approx(48));
    CHECK(std::isnan(found.values[9]));
    const Document curve = withLine({"x in [0, 8]", "f(x) = x"}, "f(x)", {{"0", "0"}, {"4", "0"}});
    Document asLine = curve;
    asLine.panels[0].plots[0].kind = "line";
    const PanelReading other = readPlots(readPage(asLine), asLine.panels[0]);
    CHECK(profileAlong(other.drawn.at(0), map, {0, 0}, {1, 1}).values.empty());
}
