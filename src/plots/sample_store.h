#pragma once
#include "plots/sampling.h"

#include <map>
#include <mutex>

namespace coulter {

/// Samples that are already there: of the same program, over the same interval and grid, in the same frame with the
/// same effort. It never changes a bit of a result, only when it is there. Safe to use from several threads.
class SampleStore {
public:
    /// The samples of a source, from the store or sampled now. Unfinished ones are not kept.
    std::shared_ptr<const Samples> samplesOf(const Source& source, const std::vector<FinerStretch>& finer,
                                             const Frame& frame, const Effort& effort, const std::stop_token& stop);
    /// Forgets all that was not asked for since this was called last.
    void forgetUnused();
    /// How many times samples were there.
    std::size_t hits() const { return hits_; }

private:
    struct Entry {
        std::shared_ptr<const Samples> samples;
        bool used = true;
    };
    std::mutex mutex_;
    std::map<std::string, Entry> entries_;
    std::size_t hits_ = 0;
};

} // namespace coulter
