#include "desktop/one_process.h"

#include <QDataStream>
#include <QIODevice>
#include <QLocalSocket>

namespace coulter {
namespace {

constexpr int patience = 2000; // ms until a process that does not answer counts as none

} // namespace

OneProcess::OneProcess(const QString& name, QObject* parent) : QObject(parent), name_(name) {
    server_.setSocketOptions(QLocalServer::UserAccessOption);
    connect(&server_, &QLocalServer::newConnection, this, [this] {
        QLocalSocket* socket = server_.nextPendingConnection();
        connect(socket, &QLocalSocket::disconnected, socket, &QObject::deleteLater);
        const auto read = [this, socket] {
            QDataStream stream(socket);
            stream.startTransaction();
            QStringList files;
            stream >> files;
            if (!stream.commitTransaction()) return; // the rest is on its way
            socket->write("+");
            socket->disconnectFromServer();
            emit wanted(files);
        };
        connect(socket, &QLocalSocket::readyRead, this, read);
        read();
    });
}

bool OneProcess::handOver(const QStringList& files) const {
    QLocalSocket socket;
    socket.connectToServer(name_);
    if (!socket.waitForConnected(patience)) return false;
    QByteArray bytes;
    QDataStream stream(&bytes, QIODevice::WriteOnly);
    stream << files;
    socket.write(bytes);
    // Only what is taken is handed over: a process that hangs must not swallow a figure.
    return socket.waitForBytesWritten(patience) && (socket.bytesAvailable() > 0 || socket.waitForReadyRead(patience));
}

void OneProcess::listen() {
    if (server_.listen(name_) || server_.serverError() != QAbstractSocket::AddressInUseError) return;
    QLocalServer::removeServer(name_); // nobody answers there: it was left behind
    server_.listen(name_);
}

} // namespace coulter
