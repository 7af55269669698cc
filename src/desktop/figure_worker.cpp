#include "desktop/figure_worker.h"

#include "files/export.h"

namespace coulter {

FigureWorker::FigureWorker(QObject* parent)
    : QObject(parent), thread_([this](const std::stop_token& quit) { work(quit); }) {}

FigureWorker::~FigureWorker() {
    stop();
    thread_.request_stop();
    wake_.notify_all();
}

void FigureWorker::request(const Document& document, double dotsPerMm) {
    {
        const std::scoped_lock lock(mutex_);
        if (current_.stop_possible()) current_.request_stop();
        if (!next_) ++pending_;
        next_ = Request{document, dotsPerMm, {}};
    }
    wake_.notify_all();
    emit busyChanged(true);
}

void FigureWorker::stop() {
    const std::scoped_lock lock(mutex_);
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
        }
        auto shown = std::make_shared<ShownFigure>();
        shown->dotsPerMm = request.dotsPerMm;
        shown->figure = drawFigure(request.document, request.stop.get_token());
        const bool stopped = request.stop.stop_requested();
        if (!stopped) {
            if (const auto problem = plotProblem(shown->figure, request.document)) {
                shown->complete = false;
                shown->waitsFor = QString::fromStdString(describe(*problem));
            }
            const Raster raster = paintRaster(shown->figure.scene, request.dotsPerMm);
            if (!raster.pixels.empty()) {
                shown->image = QImage(reinterpret_cast<const uchar*>(raster.pixels.data()), raster.width, raster.height,
                                      raster.width * 4, QImage::Format_RGB32)
                                   .copy();
            }
            shown->document = std::move(request.document);
        }
        const std::shared_ptr<const ShownFigure> result = stopped ? nullptr : shown;
        QMetaObject::invokeMethod(this, [this, result] {
            --pending_;
            if (result) emit ready(result);
            if (pending_ == 0) emit busyChanged(false);
        });
    }
}

} // namespace coulter
