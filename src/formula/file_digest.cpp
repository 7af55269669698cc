#include "formula/file_digest.h"

#include <chrono>

namespace coulter {

using namespace std::chrono_literals;

bool FileDigest::isKnown() const { return !coming_.valid() || coming_.wait_for(0s) == std::future_status::ready; }

bool FileDigest::wait(const std::stop_token& stop) const {
    while (coming_.valid() && coming_.wait_for(20ms) != std::future_status::ready) {
        if (stop.stop_requested()) return false;
    }
    return true;
}

bool operator==(const FileDigest& a, const FileDigest& b) {
    return (a.worker_ && a.worker_ == b.worker_) || a.text() == b.text();
}

} // namespace coulter
