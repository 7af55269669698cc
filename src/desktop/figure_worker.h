#pragma once
#include "composition/figure.h"
#include "drawing/cairo_painter.h"
#include "plots/sample_store.h"

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
    Figure figure; ///< with the document and the effort that it was drawn for
    QImage image;
    double dotsPerMm = 1;
    bool complete = true; ///< every plot could be drawn
    QString waitsFor;     ///< else: what is in the way, in one sentence
};

/// What is asked of the worker.
struct FigureRequest {
    Document document;
    double dotsPerMm = 1;
    std::vector<std::optional<Limits>> held = {}; ///< see Effort
    bool patient = false;                         ///< however long it takes
};

/// Evaluates and draws off the interface thread. The newest request wins: an older one that is still being worked on is
/// stopped, one that has not begun is forgotten. Where figures take long, a coarse one comes first; where proofs do,
/// the figure comes without them, and again now and then with what is proven so far.
class FigureWorker : public QObject {
    Q_OBJECT
public:
    explicit FigureWorker(QObject* parent = nullptr);
    ~FigureWorker() override;

    void request(FigureRequest request);
    /// Stops what is being worked on and forgets what waits; the last figure stays.
    void stop();
    bool busy() const { return pending_ > 0; }

signals:
    void ready(std::shared_ptr<const ShownFigure> figure);
    void busyChanged(bool busy);

private:
    void work(const std::stop_token& quit);
    /// A figure for a request; null if it was stopped. Before it is proven it is shown in between.
    std::shared_ptr<const ShownFigure> draw(const FigureRequest& request, Effort effort, const std::stop_token& stop);
    static std::shared_ptr<ShownFigure> painted(Figure figure, double dotsPerMm);
    void show(std::shared_ptr<const ShownFigure> figure, bool last);

    std::mutex mutex_;
    std::condition_variable_any wake_;
    std::optional<FigureRequest> next_;
    std::stop_source coarse_{std::nostopstate}, fine_{std::nostopstate};
    bool coarseMayBeEnded_ = true; ///< not twice in a row: while a number is dragged there is always something to see
    SampleStore samples_;          ///< worker thread only
    std::chrono::steady_clock::duration lastTime_{}; ///< worker thread only: what the last picture took, unproven
    int pending_ = 0;                                ///< interface thread only
    std::jthread thread_;
};

} // namespace coulter
