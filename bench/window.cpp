// `bench_window start`: the real window until its first figure is painted, then it ends.
// `bench_window keys`: time from a key press in a formula, and from a step of dragging, to the new pixels of the demo.
#include "composition/draw_figure.h"
#include "desktop/main_window.h"
#include "formula/notation/units.h"

#include <QApplication>
#include <QElapsedTimer>
#include <QKeyEvent>
#include <QStandardPaths>
#include <algorithm>
#include <cstdio>
#include <cstring>

using namespace coulter;

namespace {

void untilShown(MainWindow& window) {
    do QApplication::processEvents(QEventLoop::AllEvents, 1);
    while (window.busy());
    window.sheet().repaint();
}

void report(const char* what, std::vector<double> milliseconds) {
    std::ranges::sort(milliseconds);
    std::printf("%-28s median %6.1f ms, 95 of 100 within %6.1f ms\n", what, milliseconds[milliseconds.size() / 2],
                milliseconds[milliseconds.size() * 95 / 100]);
}

} // namespace

int main(int argc, char** argv) {
    QStandardPaths::setTestModeEnabled(true);
    const std::jthread warmUp([] {
        isUnit("m");
        drawFigure({});
    }); // as the program itself does
    QApplication application(argc, argv);
    MainWindow window;
    window.openDemo();
    window.show();
    untilShown(window);
    if (argc < 2 || std::strcmp(argv[1], "keys") != 0) return 0;
    QElapsedTimer clock;
    std::vector<double> typed, dragged;
    window.page().editLine(1, 20);
    for (int i = 0; i < 100; ++i) {
        clock.start();
        QKeyEvent press(QEvent::KeyPress, i % 2 == 0 ? 0 : Qt::Key_Backspace, Qt::NoModifier, i % 2 == 0 ? "1" : "");
        QApplication::sendEvent(QApplication::focusWidget() ? QApplication::focusWidget()
                                                            : window.page().findChild<QWidget*>("formulaField"),
                                &press);
        untilShown(window);
        typed.push_back(static_cast<double>(clock.nsecsElapsed()) / 1e6);
    }
    window.page().commitEditing();
    window.page().selectLine(3);
    for (int i = 0; i < 100; ++i) {
        clock.start();
        QKeyEvent press(QEvent::KeyPress, i % 2 == 0 ? Qt::Key_Up : Qt::Key_Down, Qt::ControlModifier);
        QApplication::sendEvent(&window.page(), &press);
        untilShown(window);
        dragged.push_back(static_cast<double>(clock.nsecsElapsed()) / 1e6);
    }
    report("key press to new pixels", typed);
    report("number step to new pixels", dragged);
    return 0;
}
