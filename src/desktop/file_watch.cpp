#include "desktop/file_watch.h"

#include <QDir>
#include <QFileInfo>

namespace coulter {

FileWatch::FileWatch(QObject* parent) : QObject(parent) {
    moment_.setSingleShot(true);
    moment_.setInterval(200);
    connect(&watcher_, &QFileSystemWatcher::fileChanged, &moment_, qOverload<>(&QTimer::start));
    connect(&watcher_, &QFileSystemWatcher::directoryChanged, &moment_, qOverload<>(&QTimer::start));
    connect(&moment_, &QTimer::timeout, this, [this] {
        lookAgain();
        emit mayHaveChanged();
    });
}

void FileWatch::watch(const QStringList& files) {
    if (files == files_) return;
    files_ = files;
    lookAgain();
}

void FileWatch::lookAgain() {
    if (const QStringList old = watcher_.files() + watcher_.directories(); !old.isEmpty()) watcher_.removePaths(old);
    QStringList paths;
    for (const QString& file : files_) {
        // Most programs replace a file, which ends the watch on it; its folder says when the next one is there.
        const QFileInfo about(file);
        if (about.exists()) paths << file;
        if (about.dir().exists()) paths << about.absolutePath();
    }
    paths.removeDuplicates();
    if (!paths.isEmpty()) watcher_.addPaths(paths);
}

} // namespace coulter
