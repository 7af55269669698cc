#include "files/figure_series.h"

#include "files/file_access.h"
#include "files/recipe.h"
#include "files/set_value.h"

#include <algorithm>
#include <atomic>
#include <mutex>
#include <thread>

namespace coulter {

SeriesMade seriesOf(const Document& document, const Sweep& sweep, const std::filesystem::path& folder,
                    const std::string& name, std::string_view ending) {
    SeriesMade made;
    for (const std::string& value : sweep.values) {
        RecipeRead changed = withNamedValue(document, sweep.name, value);
        if (!changed.document) return {{}, changed.problem};
        made.figures.push_back(
            {std::move(*changed.document), folder / (name + "-" + value + "." + std::string(ending))});
    }
    return made;
}

SeriesWritten writeSeries(const std::vector<SeriesFigure>& figures, const ExportFormat& format, std::size_t jobs,
                          const std::stop_token& stop, const ExportOptions& options,
                          const std::function<void(std::size_t done)>& progress) {
    struct One {
        bool written = false;
        std::optional<Problem> problem;
    };
    std::vector<One> all(figures.size());
    std::atomic<std::size_t> next = 0;
    std::mutex guard;
    std::size_t done = 0;
    const auto work = [&] {
        for (std::size_t i = next++; i < figures.size() && !stop.stop_requested(); i = next++) {
            const Exported exported = exportFigure(figures[i].document, format, stop, options);
            if (stop.stop_requested()) return;
            all[i].problem = exported.bytes ? writeFile(figures[i].target, *exported.bytes) : exported.problem;
            all[i].written = !all[i].problem;
            if (!all[i].problem) all[i].problem = exported.unfinished;
            if (all[i].problem)
                all[i].problem->sentence = figures[i].target.filename().string() + ": " + all[i].problem->sentence;
            const std::scoped_lock lock(guard);
            ++done;
            if (progress) progress(done);
        }
    };
    {
        std::vector<std::jthread> workers;
        for (std::size_t k = 1; k < std::min(jobs, figures.size()); ++k) workers.emplace_back(work);
        work();
    }
    SeriesWritten written;
    written.stopped = stop.stop_requested();
    for (std::size_t i = 0; i < figures.size(); ++i) {
        if (all[i].written) written.files.push_back(figures[i].target);
        if (all[i].problem) written.problems.push_back(*all[i].problem);
    }
    return written;
}

} // namespace coulter
