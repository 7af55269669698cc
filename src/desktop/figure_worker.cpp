#include "desktop/figure_worker.h"

#include "files/export.h"

namespace coulter {
namespace {

/// A figure that takes longer than this gets a coarse one before it.
constexpr std::chrono::milliseconds patience{80};

} // namespace

FigureWorker::FigureWorker(QObject* parent)
    : QObject(parent), thread_([this](const std::stop_token& quit) { work(quit); }) {}

FigureWorker::~FigureWorker() {
    stop();
    thread_.request_stop();
    wake_.notify_all();
}

void FigureWorker::request(FigureRequest request) {
    {
        const std::scoped_lock lock(mutex_);
        fine_.request_stop();
        if (coarse_.stop_possible() && coarseMayBeEnded_) {
            coarse_.request_stop();
            coarseMayBeEnded_ = false;
        }
        if (!next_) ++pending_;
        next_ = std::move(request);
    }
    wake_.notify_all();
    emit busyChanged(true);
}

void FigureWorker::stop() {
    bool idle = false;
    {
        const std::scoped_lock lock(mutex_);
        coarse_.request_stop();
        fine_.request_stop();
        if (next_) {
            next_.reset();
            idle = --pending_ == 0;
        }
    }
    if (idle) emit busyChanged(false);
}

void FigureWorker::work(const std::stop_token& quit) {
    while (!quit.stop_requested()) {
        FigureRequest request;
        std::stop_token coarseStop, fineStop;
        const bool coarseFirst = lastTime_ > patience;
        {
            std::unique_lock lock(mutex_);
            if (!wake_.wait(lock, quit, [this] { return next_.has_value(); })) return;
            request = std::move(*next_);
            next_.reset();
            fine_ = std::stop_source();
            coarse_ = coarseFirst ? std::stop_source() : std::stop_source(std::nostopstate);
            fineStop = fine_.get_token();
            coarseStop = coarse_.get_token();
        }
        if (coarseFirst) {
            if (auto coarse = draw(request, coarseEffortOf(request.document.sheet), coarseStop)) {
                show(std::move(coarse), false);
                const std::scoped_lock lock(mutex_);
                coarseMayBeEnded_ = true;
            }
            const std::scoped_lock lock(mutex_);
            coarse_ = std::stop_source(std::nostopstate);
        }
        const auto start = std::chrono::steady_clock::now();
        auto result = draw(request, effortOf(request.document.sheet), fineStop);
        if (result) {
            lastTime_ = std::chrono::steady_clock::now() - start;
            samples_.forgetUnused();
        }
        show(std::move(result), true);
    }
}

void FigureWorker::show(std::shared_ptr<const ShownFigure> figure, bool last) {
    QMetaObject::invokeMethod(this, [this, figure = std::move(figure), last] {
        if (last) --pending_;
        if (figure) emit ready(figure);
        if (last && pending_ == 0) emit busyChanged(false);
    });
}

std::shared_ptr<const ShownFigure> FigureWorker::draw(const FigureRequest& request, Effort effort,
                                                      const std::stop_token& stop) {
    auto shown = std::make_shared<ShownFigure>();
    shown->dotsPerMm = request.dotsPerMm;
    effort.held = request.held;
    shown->figure = drawFigure(request.document, effort, stop, &samples_);
    if (stop.stop_requested()) return nullptr;
    if (const auto problem = plotProblem(shown->figure)) {
        shown->complete = false;
        shown->waitsFor = QString::fromStdString(describe(*problem));
    }
    const Raster raster = paintRaster(shown->figure.scene, request.dotsPerMm);
    if (!raster.pixels.empty()) {
        shown->image = QImage(reinterpret_cast<const uchar*>(raster.pixels.data()), raster.width, raster.height,
                              raster.width * 4, QImage::Format_RGB32)
                           .copy();
    }
    return shown;
}

} // namespace coulter
