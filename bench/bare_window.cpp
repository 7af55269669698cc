// The yardstick for the start of the window: a Qt window that shows text, until its first paint.
#include <QApplication>
#include <QLabel>
#include <QMainWindow>
#include <QTimer>

class Bare : public QLabel {
public:
    using QLabel::QLabel;

protected:
    void paintEvent(QPaintEvent* event) override {
        QLabel::paintEvent(event);
        QTimer::singleShot(0, qApp, &QApplication::quit);
    }
};

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    QMainWindow window;
    window.setCentralWidget(new Bare("The quick brown fox jumps over the lazy dog: 0123456789 − ± × ÷"));
    window.resize(1280, 800);
    window.show();
    return QApplication::exec();
}
