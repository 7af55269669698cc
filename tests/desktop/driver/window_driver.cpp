#include "window_driver.h"

#include <QApplication>
#include <QDeadlineTimer>
#include <QMouseEvent>
#include <QThread>
#include <QWheelEvent>
#include <stdexcept>

namespace coulter {

WindowDriver::WindowDriver() {
    window_.resize(1280, 800);
    window_.show();
    window_.activateWindow();
    settle();
}

void WindowDriver::wait(const std::function<bool()>& until) {
    const QDeadlineTimer limit(60'000);
    while (!until()) {
        if (limit.hasExpired()) throw std::runtime_error("the window did not come to rest within a minute");
        QApplication::sendPostedEvents();
        QApplication::processEvents(QEventLoop::AllEvents, 20);
        if (window_.busy()) QThread::msleep(1);
    }
}

void WindowDriver::settle() {
    int quiet = 0;
    wait([&] {
        quiet = window_.busy() ? 0 : quiet + 1;
        return quiet > 3;
    });
}

void WindowDriver::move(QWidget* widget, QPointF at) {
    QMouseEvent event(QEvent::MouseMove, at, widget->mapToGlobal(at), Qt::NoButton, Qt::NoButton, Qt::NoModifier);
    QApplication::sendEvent(widget, &event);
}

void WindowDriver::click(QWidget* widget, QPointF at, Qt::KeyboardModifiers modifiers) {
    drag(widget, at, at, modifiers, 0);
}

void WindowDriver::drag(QWidget* widget, QPointF from, QPointF to, Qt::KeyboardModifiers modifiers, int steps) {
    dragBy(widget, from, to, modifiers, steps, false);
}

void WindowDriver::dragSlowly(QWidget* widget, QPointF from, QPointF to) {
    dragBy(widget, from, to, Qt::NoModifier, 6, true);
}

void WindowDriver::dragBy(QWidget* widget, QPointF from, QPointF to, Qt::KeyboardModifiers modifiers, int steps,
                          bool waits) {
    move(widget, from);
    QMouseEvent press(QEvent::MouseButtonPress, from, widget->mapToGlobal(from), Qt::LeftButton, Qt::LeftButton,
                      modifiers);
    if (widget->focusPolicy() & Qt::ClickFocus) widget->setFocus(Qt::MouseFocusReason); // as for a real click
    QApplication::sendEvent(widget, &press);
    for (int i = 1; i <= steps; ++i) {
        const QPointF at = from + (to - from) * i / steps;
        QMouseEvent event(QEvent::MouseMove, at, widget->mapToGlobal(at), Qt::NoButton, Qt::LeftButton, modifiers);
        QApplication::sendEvent(widget, &event);
        QApplication::processEvents();
        if (waits) settle();
    }
    QMouseEvent release(QEvent::MouseButtonRelease, to, widget->mapToGlobal(to), Qt::LeftButton, Qt::NoButton,
                        modifiers);
    QApplication::sendEvent(widget, &release);
    settle();
}

void WindowDriver::doubleClick(QWidget* widget, QPointF at) {
    click(widget, at);
    QMouseEvent event(QEvent::MouseButtonDblClick, at, widget->mapToGlobal(at), Qt::LeftButton, Qt::LeftButton,
                      Qt::NoModifier);
    QApplication::sendEvent(widget, &event);
    QMouseEvent release(QEvent::MouseButtonRelease, at, widget->mapToGlobal(at), Qt::LeftButton, Qt::NoButton,
                        Qt::NoModifier);
    QApplication::sendEvent(widget, &release);
    settle();
}

void WindowDriver::wheel(QWidget* widget, QPointF at, int notches) {
    for (int i = 0; i < std::abs(notches); ++i) {
        QWheelEvent event(at, widget->mapToGlobal(at), {}, {0, notches > 0 ? 120 : -120}, Qt::NoButton, Qt::NoModifier,
                          Qt::NoScrollPhase, false);
        QApplication::sendEvent(widget, &event);
        settle();
    }
}

void WindowDriver::key(int key, Qt::KeyboardModifiers modifiers) {
    QWidget* target = QApplication::focusWidget() ? QApplication::focusWidget() : &window_;
    QKeyEvent press(QEvent::KeyPress, key, modifiers), release(QEvent::KeyRelease, key, modifiers);
    // Shortcuts are looked up before a widget sees the key, as they are for a real key.
    QKeyEvent shortcut(QEvent::ShortcutOverride, key, modifiers);
    QApplication::sendEvent(target, &shortcut);
    bool taken = false;
    if (!shortcut.isAccepted() && modifiers != Qt::NoModifier) {
        for (QAction* action : window_.actions()) {
            if (!action->shortcuts().contains(QKeySequence(key | modifiers)) || !action->isEnabled()) continue;
            action->trigger();
            taken = true;
            break;
        }
    }
    if (!taken) {
        QApplication::sendEvent(target, &press);
        QApplication::sendEvent(target, &release);
    }
    settle();
}

void WindowDriver::type(const QString& text) {
    for (const QChar c : text) {
        QWidget* target = QApplication::focusWidget();
        QKeyEvent press(QEvent::KeyPress, 0, Qt::NoModifier, c), release(QEvent::KeyRelease, 0, Qt::NoModifier, c);
        QApplication::sendEvent(target, &press);
        QApplication::sendEvent(target, &release);
        QApplication::processEvents();
    }
    settle();
}

QImage WindowDriver::picture() {
    settle();
    return window_.grab().toImage();
}

QPointF WindowDriver::middleOf(const ItemPath& path) {
    for (const Hit& hit : figure().figure.hits) {
        if (hit.path == path)
            return sheet()->toWidget({hit.rect.x + hit.rect.width / 2, hit.rect.y + hit.rect.height / 2});
    }
    throw std::runtime_error("the figure has no such part");
}

} // namespace coulter
