#pragma once
#include <QFileSystemWatcher>
#include <QStringList>
#include <QTimer>

namespace coulter {

/// Tells that one of some files may have been written, replaced or taken away by another program.
class FileWatch : public QObject {
    Q_OBJECT
public:
    explicit FileWatch(QObject* parent = nullptr);
    void watch(const QStringList& files);

signals:
    /// Once for all that happens within a moment; what is so is for who listens to find out.
    void mayHaveChanged();

private:
    void lookAgain();

    QFileSystemWatcher watcher_;
    QTimer moment_;
    QStringList files_;
};

} // namespace coulter
