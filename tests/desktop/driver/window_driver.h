#pragma once
#include "desktop/main_window.h"

#include <QPoint>
#include <QString>
#include <functional>

namespace coulter {

/// Drives the real window as a person does, with mouse and key events.
class WindowDriver {
public:
    WindowDriver();

    MainWindow& window() { return window_; }
    const ShownFigure& figure() { return *window_.sheet().figure(); }

    /// Lets the window work until nothing is left to do and the newest figure is shown; throws if that does not happen
    /// within a minute.
    void settle();
    /// Lets the window work until something is so; throws if that does not happen within a minute.
    void wait(const std::function<bool()>& until);
    void click(QWidget* widget, QPointF at, Qt::KeyboardModifiers modifiers = Qt::NoModifier);
    void doubleClick(QWidget* widget, QPointF at);
    void move(QWidget* widget, QPointF at);
    void drag(QWidget* widget, QPointF from, QPointF to, Qt::KeyboardModifiers modifiers = Qt::NoModifier,
              int steps = 6);
    /// The same by a hand that waits for the figure after each step.
    void dragSlowly(QWidget* widget, QPointF from, QPointF to);
    void wheel(QWidget* widget, QPointF at, int notches);
    void key(int key, Qt::KeyboardModifiers modifiers = Qt::NoModifier);
    void type(const QString& text);
    /// A child of the window by its object name.
    template <class T> T* find(const char* name) { return window_.findChild<T*>(name); }

    QWidget* page() { return window_.page().viewport(); }
    SheetView* sheet() { return &window_.sheet(); }
    QImage picture();
    /// The middle of a part of the figure, in the sheet's widget; throws if the figure has no such part.
    QPointF middleOf(const ItemPath& path);

    /// A plot of the first panel.
    static ItemPath plot(std::size_t index, std::size_t part = 0) { return {ItemKind::Plot, 0, index, part}; }

private:
    void dragBy(QWidget* widget, QPointF from, QPointF to, Qt::KeyboardModifiers modifiers, int steps, bool waits);
    MainWindow window_;
};

} // namespace coulter
