#pragma once
#include <QLocalServer>
#include <QStringList>

namespace coulter {

/// The program runs once for a person's session: who starts it again hands its files to the one that runs.
class OneProcess : public QObject {
    Q_OBJECT
public:
    /// @param name  of the socket, in the person's runtime folder
    explicit OneProcess(const QString& name, QObject* parent = nullptr);

    /// Hands files over to the process that runs; whether there is one. Without files it is asked for a new window.
    bool handOver(const QStringList& files) const;
    /// Becomes that process.
    void listen();

signals:
    void wanted(const QStringList& files);

private:
    QString name_;
    QLocalServer server_;
};

} // namespace coulter
