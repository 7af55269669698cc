#pragma once
#include "drawing/cairo_painter.h"
#include "drawing/figure_scene.h"

#include <QImage>
#include <QObject>
#include <chrono>
#include <condition_variable>
#include <memory>
#include <mutex>
#include <optional>
#include <stop_token>
#include <thread>

namespace coulter {

/// A figure ready to be shown: drawn, and as pixels.
struct ShownFigure {
    Document document;
    Figure figure;
    QImage image;
    double dotsPerMm = 1;
    bool complete = true; ///< every plot could be drawn
    QString waitsFor;     ///< else: what is in the way, in one sentence
};

/// Evaluates and draws off the interface thread. The newest request wins: an older one that is still being worked on is
/// stopped, one that has not begun is forgotten.
class FigureWorker : public QObject {
    Q_OBJECT
public:
    explicit FigureWorker(QObject* parent = nullptr);
    ~FigureWorker() override;

    /// @param atLeast  limits of the vertical scale that an automatic one holds too
    void request(const Document& document, double dotsPerMm, const std::optional<Limits>& atLeast = {});
    /// Stops what is being worked on; the last figure stays.
    void stop();
    bool busy() const { return pending_ > 0; }

signals:
    void ready(std::shared_ptr<const ShownFigure> figure);
    void busyChanged(bool busy);

private:
    struct Request {
        Document document;
        double dotsPerMm = 1;
        std::optional<Limits> atLeast;
        std::stop_source stop;
    };
    void work(const std::stop_token& quit);
    /// A figure of a document for a request; null if it was stopped.
    static std::shared_ptr<const ShownFigure> draw(const Request& request, const Document& document,
                                                   const std::stop_token& stop);

    std::mutex mutex_;
    std::condition_variable_any wake_;
    std::optional<Request> next_;
    std::stop_source current_{std::nostopstate};
    std::stop_source coarseStop_;
    std::chrono::steady_clock::duration lastTime_{}; ///< worker thread only: what the last whole figure took
    int pending_ = 0;                                ///< interface thread only
    std::jthread thread_;
};

} // namespace coulter
