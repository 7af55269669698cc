#include "hands.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLineEdit>
#include <QMenu>
#include <QToolButton>
#include <catch2/catch.hpp>

namespace coulter {

const Document& documentOf(WindowDriver& d) { return d.window().session().document(); }
const Frame& frameOf(WindowDriver& d) { return d.figure().figure.panels[0].frame(); }

void write(WindowDriver& d, const std::vector<const char*>& lines) {
    d.window().session().start(Document{}, "");
    d.settle();
    for (const char* line : lines) {
        d.type(line);
        d.key(Qt::Key_Return);
    }
    d.key(Qt::Key_Return); // an empty line ends writing
    d.settle();
}

void add(WindowDriver& d, const QString& entry) {
    auto* button = d.find<QToolButton>("addButton");
    REQUIRE(button);
    emit button->menu()->aboutToShow();
    for (QAction* action : button->menu()->actions()) {
        if (action->text() != entry) continue;
        action->trigger();
        return d.settle();
    }
    FAIL("nothing to add is called " << entry.toStdString());
}

void addFrom(WindowDriver& d, const QString& menu, const QString& entry) {
    auto* button = d.find<QToolButton>("addButton");
    emit button->menu()->aboutToShow();
    for (QAction* action : button->menu()->actions()) {
        if (!action->menu() || action->text() != menu) continue;
        for (QAction* inner : action->menu()->actions()) {
            if (inner->text() != entry) continue;
            REQUIRE(inner->isEnabled());
            inner->trigger();
            d.settle();
            return;
        }
    }
    FAIL("no such entry: " << entry.toStdString());
}

void choose(WindowDriver& d, const char* field, const QString& word) {
    for (const int key : {Qt::Key_Down, Qt::Key_Up}) {
        for (int i = 0; i < 40; ++i) {
            auto* list = d.find<QComboBox>(field);
            REQUIRE(list);
            if (list->currentText() == word) return;
            if (list->currentIndex() == (key == Qt::Key_Up ? 0 : list->count() - 1)) break;
            list->setFocus();
            d.key(key);
            d.settle();
        }
    }
    FAIL(field << " has no " << word.toStdString());
}

void enter(WindowDriver& d, const char* field, const QString& text) {
    auto* line = d.find<QLineEdit>(field);
    REQUIRE(line);
    line->setFocus();
    d.key(Qt::Key_A, Qt::ControlModifier);
    if (text.isEmpty())
        d.key(Qt::Key_Delete);
    else
        d.type(text);
    d.key(Qt::Key_Return);
    d.settle();
}

void tick(WindowDriver& d, const char* field) {
    auto* box = d.find<QCheckBox>(field);
    REQUIRE(box);
    box->setFocus();
    d.key(Qt::Key_Space);
    d.settle();
}

void selectScale(WindowDriver& d, std::size_t which) {
    for (const Hit& hit : d.figure().figure.hits) {
        if (hit.path.kind != ItemKind::Scale || hit.path.index != which) continue;
        d.click(d.sheet(), d.sheet()->toWidget({hit.rect.x + hit.rect.width / 2, hit.rect.y + hit.rect.height / 2}));
        return d.settle();
    }
    FAIL("there is no such scale on the sheet");
}

} // namespace coulter
