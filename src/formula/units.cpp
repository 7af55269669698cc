#include "formula/units.h"

#include <map>
#include <mutex>
#include <udunits2.h>

namespace coulter {
namespace {

/// The database is read once; UDUNITS is not safe for threads, so every use holds the lock.
class UnitSystem {
public:
    UnitSystem() {
        ut_set_error_message_handler(ut_ignore);
        system_ = ut_read_xml(nullptr);
    }
    bool knows(const std::string& text) {
        const std::scoped_lock lock(mutex_);
        if (const auto known = answers_.find(text); known != answers_.end()) return known->second;
        ut_unit* unit = system_ ? ut_parse(system_, text.c_str(), UT_UTF8) : nullptr;
        const bool good = unit != nullptr || system_ == nullptr; // without its database nothing can be refused
        ut_free(unit);
        if (answers_.size() < 10'000) answers_[text] = good;
        return good;
    }

private:
    std::mutex mutex_;
    ut_system* system_ = nullptr;
    std::map<std::string, bool> answers_;
};

} // namespace

bool isUnit(const std::string& text) {
    static UnitSystem system;
    return system.knows(text);
}

} // namespace coulter
