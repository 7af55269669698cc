#include "desktop/translation.h"
#include "figure/scale_settings.h"
#include "figure/sheet_looks.h"
#include "figure/sheet_settings.h"
#include "figure/sheet_sizes.h"
#include "files/export.h"
#include "notes/note_kind.h"
#include "plots/plot_kind.h"
#include "special/catalogue.h"
#include "window_driver.h"

#include <QAbstractButton>
#include <QAction>
#include <QComboBox>
#include <QFile>
#include <QJsonDocument>
#include <QJsonObject>
#include <QLabel>
#include <QMenu>
#include <QScrollArea>
#include <catch2/catch.hpp>
#include <set>

using namespace coulter;

namespace {

/// Speaks German as long as it lives.
struct German {
    German() { speak("de"); }
    ~German() { speak("en"); }
};

/// What the core calls its settings, kinds, functions and formats.
std::set<std::string> wordsOfTables() {
    std::set<std::string> words;
    const auto add = [&](const Setting& setting) {
        words.insert({setting.label, setting.meaning});
        for (const char* each : setting.words) words.insert(each);
    };
    for (const PlotKind* kind : plotKinds()) {
        words.insert({kind->name, kind->meaning});
        for (const Setting* setting : kind->settings) add(*setting);
    }
    for (const NoteKind* kind : noteKinds()) {
        words.insert({kind->name, kind->meaning});
        for (const Setting* setting : kind->settings) add(*setting);
    }
    for (const auto& all : {sheetSettings(), scaleSettings(), uprightScaleSettings(), colourScaleSettings()}) {
        for (const Setting* setting : all) add(*setting);
    }
    for (const SheetSize& size : sheetSizes()) words.insert(std::string(size.name));
    for (const SheetLook& look : sheetLooks()) words.insert(look.name);
    for (const ExportFormat& format : exportFormats()) words.insert(std::string(format.meaning));
    for (const FunctionEntry& entry : catalogue()) words.insert(std::string(entry.meaning));
    for (const char* each : legendPlaceNames) words.insert(each);
    for (const char* each : scaleNames) words.insert(each);
    return words;
}

/// The German of the window's own words.
QJsonObject ofTheWindow() {
    QFile file(":/translations/de.json");
    REQUIRE(file.open(QIODevice::ReadOnly));
    return QJsonDocument::fromJson(file.readAll()).object()["window"].toObject();
}

/// All that is written on a window and what it holds.
QStringList saidBy(const QWidget& window) {
    QStringList said;
    for (const auto* label : window.findChildren<QLabel*>()) said << label->text();
    for (const auto* button : window.findChildren<QAbstractButton*>()) said << button->text();
    for (const auto* action : window.findChildren<QAction*>()) said << action->text();
    for (const auto* widget : window.findChildren<QWidget*>()) said << widget->toolTip() << widget->accessibleName();
    for (const auto* choice : window.findChildren<QComboBox*>()) {
        for (int i = 0; i < choice->count(); ++i) said << choice->itemText(i);
    }
    return said;
}

} // namespace

TEST_CASE("the language is the first of a person's that is known") {
    CHECK(languageOf({"de-AT", "en-US"}) == "de");
    CHECK(languageOf({"fr_FR", "de"}) == "de");
    CHECK(languageOf({"en-GB", "de"}) == "en");
    CHECK(languageOf({"fr", "ja"}) == "en");
    CHECK(languageOf({}) == "en");
}

TEST_CASE("sentences of the core are said in German with what they are about") {
    CHECK(spoken("The formula ends too early.") == "The formula ends too early.");
    const German german;
    CHECK(spoken("The formula ends too early.") == "Die Formel endet zu früh.");
    CHECK(spoken("zeta_0 is not defined on this page.") == "zeta_0 ist auf dieser Seite nicht definiert.");
    CHECK(spoken("The legend has 12 entries; more than eight are not kept in mind.") ==
          "Die Legende hat 12 Einträge; mehr als acht behält man nicht im Kopf.");
    // A word of the core within a sentence of it, and quotation marks.
    CHECK(spoken("The vertical scale has no label.") == "Die senkrechte Skala hat keine Beschriftung.");
    CHECK(spoken("“f(x)” and “g(x)” coincide: nowhere are they farther apart than 0.01 mm on the sheet.") ==
          "„f(x)“ und „g(x)“ fallen zusammen: nirgends liegen sie auf dem Blatt weiter als 0.01 mm auseinander.");
    CHECK(spoken("{1, 2}: all, proven") == "{1, 2}: alle, bewiesen");
    CHECK(spoken("Line 3 has a problem.") == "Zeile 3 hat ein Problem.");
    Problem problem{2, 5, 7, "Two rows stand at the same place, 3.", "leave out one of them"};
    CHECK(spoken(problem) == "Zeile 3, Zeichen 5: Zwei Zeilen stehen an derselben Stelle, 3. — lass eine davon weg");
    // What nobody knows stays as it is.
    CHECK(spoken("sin(x) + 2 = {1.5}") == "sin(x) + 2 = {1.5}");
}

TEST_CASE("every word of the core's tables has its German") {
    const German german;
    // The same in both languages.
    const std::set<std::string> same{"a",    "(a)",  "band",  "frost", "linear", "mm",  "name", "plot",    "polar",
                                     "text", "ring", "title", "pt",    "thaw",   "end", "in",   "polygon", "ellipse"};
    for (const std::string& word : wordsOfTables()) {
        if (word.empty()) continue;
        const bool isName = word.find_first_of("abcdefghijklmnopqrstuvwxyz") == std::string::npos;
        const bool isUnchanged = spoken(word).toLower() == QString::fromStdString(word).toLower();
        INFO(word);
        CHECK((!isUnchanged || isName || same.contains(word)));
    }
}

TEST_CASE("nothing of the window is left in English, and forms fit their pane") {
    const German german;
    const QJsonObject known = ofTheWindow();
    REQUIRE(known.size() > 400);
    WindowDriver d;
    d.window().resize(1280, 800);
    Document document;
    document.page = {"f(x) = sin(x) + a", "k(x, y) = x y", "x in [0, 3]", "y in [0, 1]", "a = 1, from 0 to 2"};
    document.panels[0].plots = {plotOf("f(x)"), plotOf("f(x) + b for b in {1, 2}")};
    Panel second;
    second.plots = {plotOf("k(x, y)", plotKinds()[12]->name)};
    second.cell = Cell{1, 0, 1, 1};
    document.panels.push_back(second);
    Note note;
    note.words = "words";
    note.at = {{"1", "1"}};
    document.panels[0].notes.push_back(note);
    d.window().session().start(document, "");
    d.settle();
    const auto look = [&] {
        d.settle();
        for (const QString& said : saidBy(d.window())) {
            if (!known.contains(said) || known[said].toString() == said) continue;
            // The same letters may be another word's German.
            bool isGerman = false;
            for (const QJsonValue& each : known) isGerman = isGerman || each.toString() == said;
            INFO(said.toStdString());
            CHECK(isGerman);
        }
        for (const auto* area : d.window().findChildren<QScrollArea*>()) {
            if (!area->widget() || !area->isVisible()) continue;
            INFO(area->objectName().toStdString());
            CHECK(area->widget()->minimumSizeHint().width() <= area->viewport()->width());
        }
    };
    look();
    for (const ItemPath& path : {ItemPath{ItemKind::Plot, 0, 0, 0}, ItemPath{ItemKind::Plot, 0, 1, 1},
                                 ItemPath{ItemKind::Plot, 1, 0, 0}, ItemPath{ItemKind::Scale, 0, 0, 0},
                                 ItemPath{ItemKind::Scale, 1, colourScale, 0}, ItemPath{ItemKind::Legend, 0, 0, 0},
                                 ItemPath{ItemKind::Note, 0, 0, 0}, ItemPath{ItemKind::Panel, 1, 0, 0}, ItemPath{}}) {
        d.sheet()->select(path);
        look();
    }
    // Each kind's own form.
    for (const PlotKind* kind : plotKinds()) {
        const bool over = kind->runs == Runs::Over;
        if (!kind->fits({over ? 2U : 1U, 1, false, false, false})) continue;
        Document of = document;
        of.panels = {Panel{}};
        of.panels[0].plots = {plotOf(over ? "k(x, y)" : "f(x)", kind->name)};
        d.window().session().start(of, "");
        d.settle();
        d.sheet()->select({ItemKind::Plot, 0, 0, 0});
        INFO(kind->name);
        look();
    }
    d.window().session().start(document, "");
    d.settle();
    // What is chosen by its German name is written down by the word of recipes.
    d.sheet()->select({ItemKind::Plot, 0, 0, 0});
    d.settle();
    auto* pattern = d.find<QComboBox>("setting-pattern");
    REQUIRE(pattern);
    CHECK(pattern->itemText(1) == "gestrichelt");
    pattern->setCurrentIndex(1);
    emit pattern->activated(1);
    d.settle();
    const Document changed = d.window().session().document();
    CHECK(std::get<std::string>(changed.panels[0].plots[0].settings.at("pattern")) == "dashed");
}
