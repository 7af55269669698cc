#include "desktop/main_window.h"

#include "formula/units.h"

#include <QApplication>
#include <thread>

int main(int argc, char** argv) {
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
