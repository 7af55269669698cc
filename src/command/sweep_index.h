#pragma once
#include "formula/base/problem.h"

#include <filesystem>
#include <map>
#include <mutex>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace coulter {

/// One of several parts of a sweep: every N-th figure, beginning with the K-th.
struct Part {
    std::size_t number = 1, of = 1;
    bool holds(std::size_t figure) const { return figure % of == number - 1; }
};
/// "2/4"; none if it is no part.
std::optional<Part> partOf(std::string_view text);

/// What is kept of one figure of a sweep.
struct SweepRow {
    std::string file, recipe;
    std::vector<std::string> values; ///< of what was set, by the names of the index
    std::string digest;              ///< SHA-256 of the figure's bytes
    std::vector<std::string> remarks;
};

/// The index of one part, index-K-of-N.csv in the folder of its figures: a row for each figure as soon as its file is
/// whole. A row that a killed process left unfinished is taken off; a later row of the same figure counts. One process
/// at a time writes it.
class SweepIndex {
public:
    /// @param names    of what was set, in this order
    /// @param figures  of the whole sweep
    SweepIndex(const std::filesystem::path& folder, Part part, std::vector<std::string> names, std::size_t figures);
    ~SweepIndex();
    SweepIndex(const SweepIndex&) = delete;
    SweepIndex& operator=(const SweepIndex&) = delete;

    /// Why it cannot be used; no sentence if it can.
    const Problem& problem() const { return problem_; }
    /// The digest of a figure's file as it was written; none if it was not.
    std::optional<std::string> digestOf(std::size_t figure) const;
    /// Adds a row, from any thread; the problem if it cannot be written.
    std::optional<Problem> add(std::size_t figure, const SweepRow& row);

private:
    std::filesystem::path path_;
    int file_ = -1;
    std::map<std::size_t, std::string> digests_;
    mutable std::mutex mutex_;
    Problem problem_;
};

/// All indexes of a sweep's parts in a folder as one, in the order of the figures.
struct MergedIndex {
    std::string csv;
    std::size_t figures = 0;        ///< of the whole sweep
    std::vector<Problem> wrong;     ///< what is missing, or is not as it was written
    std::optional<Problem> problem; ///< why there is none
};
MergedIndex mergedIndex(const std::filesystem::path& folder);

} // namespace coulter
