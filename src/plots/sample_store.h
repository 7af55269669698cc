#pragma once
#include "plots/sampling.h"

#include <map>
#include <mutex>

namespace coulter {

/// All that the samples of a source depend on, as bytes: equal keys have equal samples.
std::string sampleKey(const Source& source, const std::vector<FinerStretch>& finer, const Frame& frame,
                      const Effort& effort);

/// Samples that are already there: of the same program, over the same interval and grid, in the same frame with the
/// same effort. It never changes a bit of a result, only when it is there. Safe to use from several threads.
class SampleStore {
public:
    /// The samples of a key, from the store or sampled now by the call. Stopped ones are not kept.
    template <typename Sample>
    std::shared_ptr<const Samples> samplesOf(const std::string& key, const std::stop_token& stop,
                                             const Sample& sample) {
        if (auto known = find(key)) return known;
        auto samples = std::make_shared<const Samples>(sample());
        if (!stop.stop_requested()) keep(key, samples);
        return samples;
    }
    /// Whether the samples of a key are there.
    bool has(const std::string& key);
    /// Forgets all that was not asked for since this was called last.
    void forgetUnused();
    /// How many times samples were there.
    std::size_t hits() const { return hits_; }

private:
    std::shared_ptr<const Samples> find(const std::string& key);
    void keep(const std::string& key, std::shared_ptr<const Samples> samples);

    struct Entry {
        std::shared_ptr<const Samples> samples;
        bool used = true;
    };
    std::mutex mutex_;
    std::map<std::string, Entry> entries_;
    std::size_t hits_ = 0;
};

} // namespace coulter
