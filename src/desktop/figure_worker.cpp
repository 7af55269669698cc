#include "desktop/figure_worker.h"

#include "files/export.h"

#include <algorithm>

namespace coulter {

namespace {

/// A figure that takes longer than this gets a coarse one before it.
constexpr std::chrono::milliseconds patience{80};

/// The same figure, with twenty times the tolerance and few dots.
Document coarser(Document document) {
    document.sheet.tolerance = std::min(10.0, 20 * document.sheet.tolerance);
    document.sheet.resolution = std::min(100.0, document.sheet.resolution);
    return document;
}

} // namespace

FigureWorker::FigureWorker(QObject* parent)
    : QObject(parent), thread_([this](const std::stop_token& quit) { work(quit); }) {}

FigureWorker::~FigureWorker() {
    stop();
    thread_.request_stop();
    wake_.notify_all();
}

void FigureWorker::request(const Document& document, double dotsPerMm, const std::optional<Limits>& atLeast) {
    {
        const std::scoped_lock lock(mutex_);
        if (current_.stop_possible()) current_.request_stop();
        if (!next_) ++pending_;
        next_ = Request{document, dotsPerMm, atLeast, {}};
    }
    wake_.notify_all();
    emit busyChanged(true);
}

void FigureWorker::stop() {
    const std::scoped_lock lock(mutex_);
    coarseStop_.request_stop();
    if (current_.stop_possible()) current_.request_stop();
}

void FigureWorker::work(const std::stop_token& quit) {
    while (!quit.stop_requested()) {
        Request request;
        {
            std::unique_lock lock(mutex_);
            if (!wake_.wait(lock, quit, [this] { return next_.has_value(); })) return;
            request = std::move(*next_);
            next_.reset();
            current_ = request.stop;
            coarseStop_ = {};
        }
        // Where the last figure took long, a coarse one comes first; only Stop ends that, not the next request, so that
        // there is always something to see while a quantity is being dragged.
        if (lastTime_ > patience) {
            if (auto coarse = draw(request, coarser(request.document), coarseStop_.get_token()))
                QMetaObject::invokeMethod(this, [this, coarse] { emit ready(coarse); });
        }
        const auto start = std::chrono::steady_clock::now();
        const std::shared_ptr<const ShownFigure> result = draw(request, request.document, request.stop.get_token());
        if (result) lastTime_ = std::chrono::steady_clock::now() - start;
        QMetaObject::invokeMethod(this, [this, result] {
            --pending_;
            if (result) emit ready(result);
            if (pending_ == 0) emit busyChanged(false);
        });
    }
}

std::shared_ptr<const ShownFigure> FigureWorker::draw(const Request& request, const Document& document,
                                                      const std::stop_token& stop) {
    auto shown = std::make_shared<ShownFigure>();
    shown->dotsPerMm = request.dotsPerMm;
    shown->figure = drawFigure(document, stop, request.atLeast);
    if (stop.stop_requested()) return nullptr;
    if (const auto problem = plotProblem(shown->figure, document)) {
        shown->complete = false;
        shown->waitsFor = QString::fromStdString(describe(*problem));
    }
    const Raster raster = paintRaster(shown->figure.scene, request.dotsPerMm);
    if (!raster.pixels.empty()) {
        shown->image = QImage(reinterpret_cast<const uchar*>(raster.pixels.data()), raster.width, raster.height,
                              raster.width * 4, QImage::Format_RGB32)
                           .copy();
    }
    shown->document = request.document;
    return shown;
}

} // namespace coulter
