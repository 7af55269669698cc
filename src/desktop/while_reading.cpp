#include "desktop/while_reading.h"

#include "data/attach_tables.h"

#include <QEventLoop>
#include <QProgressDialog>
#include <chrono>
#include <future>
#include <thread>

namespace coulter {

void whileReading(QWidget* parent, const QString& what, const std::function<void(const std::stop_token&)>& work) {
    using namespace std::chrono_literals;
    std::packaged_task<void(std::stop_token)> task([&work](const std::stop_token& stop) { work(stop); });
    std::future<void> done = task.get_future();
    std::jthread thread(std::move(task));
    if (done.wait_for(250ms) != std::future_status::ready) {
        QProgressDialog dialog(what, QObject::tr("Stop"), 0, 0, parent);
        dialog.setObjectName("reading");
        dialog.setWindowTitle(QObject::tr("Reading"));
        dialog.setWindowModality(Qt::ApplicationModal);
        dialog.setMinimumDuration(0);
        dialog.setAutoClose(false);
        QObject::connect(&dialog, &QProgressDialog::canceled, &dialog, [&thread] { thread.request_stop(); });
        dialog.show();
        QEventLoop loop;
        while (done.wait_for(0ms) != std::future_status::ready) {
            loop.processEvents(QEventLoop::AllEvents, 20);
            done.wait_for(10ms);
        }
    }
    done.get();
}

void attachWhileReading(QWidget* parent, Document& document, const std::filesystem::path& folder) {
    if (folder.empty() || !waitsForTables(document)) return;
    whileReading(parent, QObject::tr("Reading data …"),
                 [&](const std::stop_token& stop) { attachTables(document, folder, {}, stop); });
}

bool awaitWhileReading(QWidget* parent, const Document& document) {
    bool isThere = true;
    whileReading(parent, QObject::tr("Reading data …"),
                 [&](const std::stop_token& stop) { isThere = awaitDigests(document, stop); });
    return isThere;
}

} // namespace coulter
