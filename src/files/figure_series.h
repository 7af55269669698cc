#pragma once
#include "files/export.h"
#include "files/sweep.h"

#include <filesystem>
#include <functional>
#include <vector>

namespace coulter {

/// One figure of several that are written together.
struct SeriesFigure {
    Document document;
    std::filesystem::path target;
};

/// The figures of one document for each value of a quantity or setting, in a folder; called by the value:
/// “cone-azimuth…” is the document's name, a dash and the value.
struct SeriesMade {
    std::vector<SeriesFigure> figures;
    std::optional<Problem> problem;
};
SeriesMade seriesOf(const Document& document, const Sweep& sweep, const std::filesystem::path& folder,
                    const std::string& name, std::string_view ending);

struct SeriesWritten {
    std::vector<std::filesystem::path> files; ///< in their order
    std::vector<Problem> problems;            ///< of figures that were not written, or are unfinished
    bool stopped = false;
};

/// Writes figures, so many at a time. What was written before a stop stays.
/// @param progress  told how many are done, from any thread, one call at a time; null: nobody asks
SeriesWritten writeSeries(const std::vector<SeriesFigure>& figures, const ExportFormat& format, std::size_t jobs,
                          const std::stop_token& stop, const ExportOptions& options = {},
                          const std::function<void(std::size_t done)>& progress = {});

} // namespace coulter
