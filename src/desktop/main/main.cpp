#include "desktop/main_window.h"

#include "formula/units.h"

#include <QApplication>
#include <cstdio>
#include <cstdlib>
#include <thread>

namespace {

/// Whether there is a display to open a window on; Qt would end the process where there is none.
bool hasDisplay() {
    const auto set = [](const char* name) {
        const char* const value = std::getenv(name);
        return value && *value;
    };
    return set("DISPLAY") || set("WAYLAND_DISPLAY") || set("QT_QPA_PLATFORM");
}

} // namespace

int main(int argc, char** argv) {
    if (!hasDisplay()) {
        std::fputs("coulter: There is no display to open a window on — use a command, see coulter --help.\n", stderr);
        return 2;
    }
    // What the first figure needs is read while Qt starts.
    const std::jthread warmUp([] {
        coulter::isUnit("m");
        coulter::drawFigure({});
    });
    QApplication application(argc, argv);
    QApplication::setApplicationName("coulter");
    QApplication::setOrganizationName("coulter");
    QApplication::setDesktopFileName("coulter");
    coulter::MainWindow window;
    const QStringList arguments = QApplication::arguments();
    if (arguments.size() < 2 || !window.open(arguments[1])) window.openDemo();
    window.show();
    return QApplication::exec();
}
