#include "formula/measured/file_digest.h"

#include <chrono>

namespace coulter {

using namespace std::chrono_literals;

bool FileDigest::isKnown() const { return !coming_.valid() || coming_.wait_for(0s) == std::future_status::ready; }

bool FileDigest::wait(const std::stop_token& stop) const {
    if (!isKnown()) maker_->hurry();
    while (coming_.valid() && coming_.wait_for(20ms) != std::future_status::ready) {
        if (stop.stop_requested()) return false;
    }
    return true;
}

const std::string& FileDigest::text() const {
    if (!isKnown()) maker_->hurry();
    return coming_.valid() ? coming_.get() : known_;
}

bool operator==(const FileDigest& a, const FileDigest& b) {
    return (a.maker_ && a.maker_ == b.maker_) || a.text() == b.text();
}

} // namespace coulter
