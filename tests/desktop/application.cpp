#include <QApplication>
#include <QSettings>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <cstdlib>
#include <memory>

static std::unique_ptr<QApplication> application;
static std::unique_ptr<QTemporaryDir> ownSettings;

/// One application for all journeys, on the offscreen platform, with settings of its own.
void beforeTests(int& argc, char** argv) {
    ::setenv("QT_QPA_PLATFORM", "offscreen", 0);
    QStandardPaths::setTestModeEnabled(true);
    application = std::make_unique<QApplication>(argc, argv);
    // In a folder that no other run shares.
    ownSettings = std::make_unique<QTemporaryDir>();
    QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, ownSettings->path());
    QApplication::setOrganizationName("coulter-tests");
    // Drafts, too; but a process that a test starts shares them with it.
    if (!std::getenv("COULTER_TEST_STATE")) ::setenv("COULTER_TEST_STATE", ownSettings->filePath("state").toUtf8(), 1);
    ::setenv("XDG_STATE_HOME", std::getenv("COULTER_TEST_STATE"), 1);
    QSettings().clear();
}

void afterTests() {
    application.reset();
    ownSettings.reset();
}
