#include "desktop/main_window.h"
#include "desktop/one_process.h"
#include "desktop/translation.h"

#include "composition/draw_figure.h"
#include "formula/notation/units.h"

#include <QApplication>
#include <QCryptographicHash>
#include <QFileInfo>
#include <cstdio>
#include <cstdlib>
#include <thread>
#include <unistd.h>

namespace {

/// Whether there is a display to open a window on; Qt would end the process where there is none.
bool hasDisplay() {
    const auto set = [](const char* name) {
        const char* const value = std::getenv(name);
        return value && *value;
    };
    return set("DISPLAY") || set("WAYLAND_DISPLAY") || set("QT_QPA_PLATFORM");
}

/// The files that are named, by ways that mean the same in any process.
QStringList filesOf(const QStringList& arguments) {
    QStringList files;
    for (const QString& each : arguments.mid(1)) files << QFileInfo(each).absoluteFilePath();
    return files;
}

/// One for each person and screen: a window must not open where nobody sits.
QString socketName() {
    QCryptographicHash screen(QCryptographicHash::Sha1);
    for (const char* name : {"DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM"}) screen.addData(qgetenv(name) + '\n');
    return "coulter-" + QString::number(::getuid()) + "-" + screen.result().toHex().left(8);
}

coulter::MainWindow* newWindow() {
    auto* window = new coulter::MainWindow;
    window->setAttribute(Qt::WA_DeleteOnClose);
    return window;
}

/// Shows files that another start of the program hands over; without any, a new window.
void show(const QStringList& files) {
    coulter::MainWindow* window = nullptr;
    for (QWidget* each : QApplication::topLevelWidgets()) {
        if (auto* open = qobject_cast<coulter::MainWindow*>(each)) window = open;
    }
    if (files.isEmpty() || !window) {
        window = newWindow();
        window->page().setFocus();
    }
    window->show();
    window->raise();
    window->activateWindow();
    for (const QString& file : files) window->openBeside(file);
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
    coulter::speak(coulter::chosenLanguage());
    const QStringList files = filesOf(QApplication::arguments());
    coulter::OneProcess process(socketName());
    if (process.handOver(files)) return 0;
    process.listen();
    QObject::connect(&process, &coulter::OneProcess::wanted, show);
    coulter::MainWindow* window = newWindow();
    if (!files.isEmpty()) window->open(files[0]);
    window->page().setFocus();
    window->offerLostDrafts();
    window->show();
    for (const QString& file : files.mid(1)) window->openBeside(file);
    return QApplication::exec();
}
