// The yardstick for the start of the window: an empty Qt window, until its first paint.
#include <QApplication>
#include <QMainWindow>
#include <QTimer>

class Bare : public QMainWindow {
protected:
    void paintEvent(QPaintEvent*) override { QTimer::singleShot(0, qApp, &QApplication::quit); }
};

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    Bare window;
    window.resize(1280, 800);
    window.show();
    return QApplication::exec();
}
