// The manual within the program.
#include "desktop/manual_window.h"
#include "hands.h"
#include "notes/note_kind.h"
#include "plots/plot_kind.h"

#include <QListWidget>
#include <QScrollBar>
#include <QTextBlock>
#include <QTextBrowser>
#include <catch2/catch.hpp>

using namespace coulter;

namespace {

QTextBrowser* text(WindowDriver& d) { return d.find<QTextBrowser>("manual-text"); }

ManualPlace asked(WindowDriver& d) {
    d.key(Qt::Key_F1);
    for (QAction* action : d.window().actions()) {
        if (action->text() == "Manual") action->trigger();
    }
    d.settle();
    return d.find<ManualWindow>("manualWindow")->place();
}

} // namespace

TEST_CASE("every page of the manual is there, and says something") {
    WindowDriver d;
    ManualWindow manual(LookSettings::ofProgram());
    auto* pages = manual.findChild<QListWidget*>("manual-pages");
    auto* shown = manual.findChild<QTextBrowser*>("manual-text");
    REQUIRE(pages->count() >= 14);
    for (int i = 0; i < pages->count(); ++i) {
        pages->setCurrentRow(i);
        INFO(pages->item(i)->text().toStdString());
        CHECK(shown->toPlainText().size() > 1000);
        CHECK_FALSE(shown->toPlainText().contains("is missing"));
    }
}

TEST_CASE("the manual opens at what has the keyboard or is selected") {
    WindowDriver d;
    write(d, {"x in [0, 6]", "f(x) = 2x", "t = {1, 2, 3}"});
    d.click(d.page(), {150, 60});
    d.window().page().selectLine(2);
    d.window().page().setFocus();
    CHECK(asked(d) == ManualPlace{"notation", "Columns"});
    CHECK(text(d)->textCursor().block().text() == "Columns");
    d.sheet()->select(WindowDriver::plot(0));
    d.sheet()->setFocus();
    CHECK(asked(d) == ManualPlace{"plots", "line"});
    CHECK(text(d)->textCursor().block().text() == "line");
    auto* field = d.find<QWidget>("setting-width");
    REQUIRE(field);
    field->setFocus();
    CHECK(asked(d).words == "width");
}

TEST_CASE("every kind of plot and of note has its place in the manual") {
    WindowDriver d;
    write(d, {"x in [0, 6]", "f(x) = 2x"});
    Document document = documentOf(d);
    ManualWindow manual(LookSettings::ofProgram());
    auto* shown = manual.findChild<QTextBrowser*>("manual-text");
    for (const PlotKind* kind : plotKinds()) {
        document.panels[0].plots[0].kind = kind->name;
        manual.show(manualOfItem(document, WindowDriver::plot(0)));
        CHECK(shown->textCursor().block().text() == kind->name);
    }
    document.panels[0].notes.emplace_back();
    for (const NoteKind* kind : noteKinds()) {
        document.panels[0].notes[0].kind = kind->name;
        manual.show(manualOfItem(document, {ItemKind::Note, 0, 0, 0}));
        CHECK(shown->textCursor().block().text() == kind->name);
    }
}

TEST_CASE("an example of the manual is put on the page by one click, and undone") {
    WindowDriver d;
    d.window().session().start(Document{}, "");
    d.settle();
    d.window().page().setFocus();
    CHECK(asked(d).page == "notation");
    const QTextCursor example = text(d)->document()->find("(a, b) solves 2a + b = 5, a - 4b = 1");
    REQUIRE_FALSE(example.isNull());
    const QString link = example.charFormat().anchorHref();
    REQUIRE(link.startsWith("put:"));
    emit text(d)->anchorClicked(QUrl(link));
    d.settle();
    CHECK(documentOf(d).page == std::vector<std::string>{"(a, b) solves 2a + b = 5, a - 4b = 1"});
    // What is no line by itself is no link, and links lead to other pages and headings.
    const QTextCursor clause = text(d)->document()->find("from 0 to 6");
    REQUIRE_FALSE(clause.isNull());
    CHECK_FALSE(clause.charFormat().anchorHref().startsWith("put:"));
    emit text(d)->anchorClicked(QUrl("data.md#rows-by-a-condition"));
    CHECK(d.find<ManualWindow>("manualWindow")->place().page == "data");
    CHECK(text(d)->textCursor().block().text() == "Rows by a condition");
    d.find<ManualWindow>("manualWindow")->close();
    d.window().page().setFocus();
    d.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(documentOf(d).page.empty());
}
