#include "desktop/main_window.h"

#include <QApplication>

int main(int argc, char** argv) {
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
