#pragma once
#include "figure/document.h"
#include "formula/base/problem.h"

#include <chrono>
#include <filesystem>
#include <optional>
#include <string>
#include <vector>

namespace coulter {

/// Where drafts are kept: `coulter/drafts` in the XDG state folder of this person; empty if there is no such folder.
std::filesystem::path draftFolder();

/// What is unsaved of one open document, kept in a folder of its own, so that nothing is lost when the program ends
/// unasked: by a crash, a kill or a power cut.
///
/// Two files stand for an open document: `NAME.open` says which file is open, and is locked as long as the process
/// lives; `NAME.draft` is there while the document has changes that its file does not have. Both are gone once the
/// document is closed. So a draft whose `.open` nobody holds is one that was lost, whatever ended its process.
class Draft {
public:
    /// Takes a name in the folder, which is made. Where that fails nothing is kept; `problem()` says why.
    explicit Draft(std::filesystem::path folder);
    Draft(const Draft&) = delete;
    Draft& operator=(const Draft&) = delete;
    /// Closed: what was kept is thrown away.
    ~Draft();

    const std::optional<Problem>& problem() const { return problem_; }

    /// Says which file is open; empty: none yet.
    void opened(const std::filesystem::path& of);
    /// Keeps a document. After the call it survives the end of the process; after `flush` a power cut.
    /// @return how many bytes that took
    std::size_t keep(const Document& document, const std::string& name);
    /// Waits until what was kept last is on the disk.
    void flush() const;
    /// Everything is saved.
    void clear();

    /// Whether another window, of this process or of another, has the file open.
    bool isOpenElsewhere(const std::filesystem::path& of) const;

private:
    std::filesystem::path fileOf(const char* ending) const;

    std::filesystem::path folder_;
    std::string name_;
    std::filesystem::path of_;
    int lock_ = -1;
    std::optional<Problem> problem_;
};

/// A document that was not saved when its program ended.
struct LostDraft {
    std::filesystem::path file;                 ///< where it is kept
    std::filesystem::path of;                   ///< the file that it belongs to; empty: it was never saved
    std::string name;                           ///< what it was called
    std::chrono::system_clock::time_point when; ///< of its last change
    Document document;
};

/// Drafts that no living process holds, the newest first. Those that hold nothing that their file does not have are
/// thrown away; those that cannot be read are left alone.
std::vector<LostDraft> lostDrafts(const std::filesystem::path& folder);

/// Throws a lost draft away; whether it was still there.
bool throwAway(const LostDraft& draft);

} // namespace coulter
