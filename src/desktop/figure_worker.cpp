#include "desktop/figure_worker.h"
#include "desktop/translation.h"

#include "composition/draw_figure.h"
#include "files/export.h"

#include <cmath>
#include <map>

namespace coulter {
namespace {

/// A figure that takes longer than this gets a coarse one before it.
constexpr std::chrono::milliseconds patience{80};
/// While curves are being proven, what is proven so far is shown so often.
constexpr std::chrono::milliseconds betweenProofs{120};

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
        auto result = draw(request, effortOf(request.document.sheet), fineStop);
        if (result) samples_.forgetUnused();
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

std::shared_ptr<ShownFigure> FigureWorker::painted(Figure figure, double dotsPerMm) {
    auto shown = std::make_shared<ShownFigure>();
    shown->dotsPerMm = dotsPerMm;
    shown->figure = std::move(figure);
    if (const auto problem = plotProblem(shown->figure)) {
        shown->complete = false;
        shown->waitsFor = spoken(*problem);
    }
    const Raster raster = paintRaster(shown->figure.scene, dotsPerMm);
    if (!raster.pixels.empty()) {
        shown->image = QImage(reinterpret_cast<const uchar*>(raster.pixels.data()), raster.width, raster.height,
                              raster.width * 4, QImage::Format_RGB32)
                           .copy();
    }
    return shown;
}

std::shared_ptr<const ShownFigure> FigureWorker::draw(const FigureRequest& request, Effort effort,
                                                      const std::stop_token& stop) {
    effort.held = request.held;
    if (request.patient && !effort.coarse) effort.operations = HUGE_VAL;
    const auto start = std::chrono::steady_clock::now();
    std::shared_ptr<const ShownFigure> unproven;
    std::mutex telling; // curves are proven side by side
    std::map<std::array<std::size_t, 3>, std::shared_ptr<const Samples>> known;
    auto lastTold = start;
    FigureWatch watch;
    watch.picture = [&](Figure figure) {
        unproven = painted(std::move(figure), request.dotsPerMm);
        lastTime_ = std::chrono::steady_clock::now() - start;
        show(unproven, false);
    };
    watch.proving = [&](std::size_t panel, std::size_t drawn, std::size_t part, const CurveSamples& soFar) {
        if (!unproven || stop.stop_requested()) return;
        const std::scoped_lock lock(telling);
        const auto now = std::chrono::steady_clock::now();
        if (now - lastTold < betweenProofs) return;
        lastTold = now;
        known[{panel, drawn, part}] = std::make_shared<const Samples>(soFar);
        auto proven = std::make_shared<ShownFigure>(*unproven);
        for (const auto& [place, samples] : known)
            proven->figure.panels[place[0]].drawn[place[1]].parts[place[2]].samples = samples;
        show(std::move(proven), false);
    };
    Figure figure = drawFigure(request.document, effort, stop, &samples_, watch);
    if (stop.stop_requested()) return nullptr;
    auto shown = painted(std::move(figure), request.dotsPerMm);
    if (!unproven && !effort.coarse) lastTime_ = std::chrono::steady_clock::now() - start;
    return shown;
}

} // namespace coulter
