#pragma once
#include "desktop/document_session.h"
#include "formula/page/page.h"

#include <QElapsedTimer>
#include <QObject>
#include <QTimer>

namespace coulter {

/// Runs a quantity of the page through its range, to and fro, so that the figure is watched as it changes. The document
/// stays as it is meanwhile; ended, it keeps the value reached, or the one before.
class QuantityRun : public QObject {
    Q_OBJECT
public:
    explicit QuantityRun(DocumentSession& session, QObject* parent = nullptr);

    /// Begins with the quantity of a line, at the value that it has. Returns why that cannot be, else nothing.
    QString begin(const Page& page, int line);
    /// @param keep  the value reached, as one step that can be undone
    void end(bool keep);
    bool isRunning() const { return timer_.isActive(); }
    const std::string& name() const { return name_; }
    /// The last value's figure is there: time for the next one.
    void figureShown() { wasShown_ = true; }
    /// The value at a share of the whole way to and fro, from 0 at the lowest to 1 there again, spelled no finer than
    /// can be seen.
    static QString valueAt(const Interval& range, double share);

signals:
    void running(bool on);

private:
    void step();

    DocumentSession& session_;
    QTimer timer_;
    QElapsedTimer since_;
    std::string name_;
    Interval range_;
    double from_ = 0; ///< share of the way where it began
    QString value_;   ///< shown last
    bool wasShown_ = true, isOwn_ = false;
};

} // namespace coulter
