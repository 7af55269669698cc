#include <QApplication>
#include <QSettings>
#include <QStandardPaths>
#include <cstdlib>
#include <memory>

static std::unique_ptr<QApplication> application;

/// One application for all journeys, on the offscreen platform, with settings of its own.
void beforeTests(int& argc, char** argv) {
    ::setenv("QT_QPA_PLATFORM", "offscreen", 0);
    QStandardPaths::setTestModeEnabled(true);
    application = std::make_unique<QApplication>(argc, argv);
    QApplication::setOrganizationName("coulter-tests");
    QSettings().clear();
}

void afterTests() { application.reset(); }
