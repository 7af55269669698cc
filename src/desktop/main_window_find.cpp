// What can be found in the window by typing. See main_window.h.
#include "desktop/find_everything.h"
#include "desktop/main_window.h"
#include "special/catalogue.h"

#include <QAbstractButton>
#include <QComboBox>
#include <QLineEdit>
#include <QMenu>
#include <QPointer>
#include <QScrollArea>
#include <QToolButton>
#include <set>

namespace coulter {
namespace {

/// Actions of a menu and of those below it: "Note › Arrow".
void addMenu(const QMenu& menu, const QString& before, std::vector<Findable>& all) {
    for (QAction* each : menu.actions()) {
        const QString text = before + QString(each->text()).remove('&').remove("…");
        if (each->menu()) {
            addMenu(*each->menu(), text + " › ", all);
        } else if (!each->isSeparator() && !each->text().isEmpty() && each->isEnabled()) {
            const QString tip = each->toolTip() == each->text() ? QString() : each->toolTip();
            all.push_back({Findable::Sort::Command, text, tip, each->shortcut().toString(QKeySequence::NativeText),
                           [action = QPointer<QAction>(each)] {
                               if (action) action->trigger();
                           }});
        }
    }
}

/// Fields of a form that can be filled in, by their names.
void addFields(QWidget& form, std::vector<Findable>& all) {
    std::set<QString> seen;
    for (QWidget* field : form.findChildren<QWidget*>()) {
        const QString name = field->accessibleName();
        const bool isField = qobject_cast<QLineEdit*>(field) || qobject_cast<QComboBox*>(field) ||
                             qobject_cast<QAbstractButton*>(field) || field->inherits("QAbstractSpinBox");
        if (!isField || name.isEmpty() || field->focusPolicy() == Qt::NoFocus || !seen.insert(name).second) continue;
        all.push_back({Findable::Sort::Setting,
                       name,
                       field->toolTip(),
                       {},
                       [target = QPointer<QWidget>(field), pane = QPointer<QWidget>(&form)] {
                           if (!target || !pane) return;
                           auto* unfold = pane->findChild<QToolButton*>("unfold");
                           if (!target->isVisible() && unfold) unfold->setChecked(true);
                           for (QWidget* at = target; at; at = at->parentWidget()) {
                               if (auto* area = qobject_cast<QScrollArea*>(at)) area->ensureWidgetVisible(target);
                           }
                           target->setFocus(Qt::ShortcutFocusReason);
                       }});
    }
}

} // namespace

void MainWindow::findEverything() {
    std::vector<Findable> all;
    fillAddMenu();
    fillDocumentMenu();
    const auto shortcuts = actions();
    std::set<QString> listed;
    for (QMenu* menu : {documentButton_->menu(), addButton_->menu()}) addMenu(*menu, "", all);
    for (const Findable& each : all) listed.insert(each.text);
    for (QAction* each : shortcuts) {
        const QString text = QString(each->text()).remove("…");
        if (text.isEmpty() || !each->isEnabled() || !listed.insert(text).second) continue;
        all.push_back({Findable::Sort::Command, text, each->toolTip() == each->text() ? QString() : each->toolTip(),
                       each->shortcut().toString(QKeySequence::NativeText), [each] { each->trigger(); }});
    }
    addFields(*particulars_, all);
    for (const FunctionEntry& entry : catalogue()) {
        const QString form = QString::fromUtf8(entry.form.data(), static_cast<qsizetype>(entry.form.size()));
        all.push_back({Findable::Sort::Function,
                       form,
                       QString::fromUtf8(entry.meaning.data(), static_cast<qsizetype>(entry.meaning.size())),
                       {},
                       [this, form] { page_->insertText(form); }});
    }
    for (const ManualPlace& place : ManualWindow::headings()) {
        all.push_back({Findable::Sort::Manual, place.words, ManualWindow::titleOf(place.page), {}, [this, place] {
                           showManual(place);
                       }});
    }
    auto* find = new FindEverything(std::move(all), look_, this);
    find->setAttribute(Qt::WA_DeleteOnClose);
    find->show();
}

} // namespace coulter
