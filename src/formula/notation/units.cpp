#include "formula/notation/units.h"

#include <cmath>
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

    std::optional<UnitConversion> conversion(const std::string& from, const std::string& to) {
        const std::scoped_lock lock(mutex_);
        ut_unit* const first = system_ ? ut_parse(system_, from.empty() ? "1" : from.c_str(), UT_UTF8) : nullptr;
        ut_unit* const second = system_ ? ut_parse(system_, to.empty() ? "1" : to.c_str(), UT_UTF8) : nullptr;
        std::optional<UnitConversion> found;
        if (cv_converter* converter = first && second ? ut_get_converter(first, second) : nullptr) {
            const double zero = cv_convert_double(converter, 0), one = cv_convert_double(converter, 1),
                         far = cv_convert_double(converter, 1e6);
            // What is no straight line, such as a level in decibels, is not converted.
            const bool straight = std::abs(far - zero - 1e6 * (one - zero)) <= 1e-9 * std::abs(far - zero);
            // The factor from afar, where an offset takes no digits from it.
            if (straight && one != zero) found = {zero == 0 ? one : (far - zero) / 1e6, zero};
            cv_free(converter);
        }
        ut_free(first);
        ut_free(second);
        return found;
    }

private:
    std::mutex mutex_;
    ut_system* system_ = nullptr;
    std::map<std::string, bool> answers_;
};

} // namespace

namespace {

UnitSystem& unitSystem() {
    static UnitSystem system;
    return system;
}

} // namespace

bool isUnit(const std::string& text) { return unitSystem().knows(text); }

bool hasBrokenExponent(const std::string& unit) {
    const auto isDigit = [&](std::size_t i) { return i < unit.size() && unit[i] >= '0' && unit[i] <= '9'; };
    for (std::size_t point = unit.find('.'); point != std::string::npos; point = unit.find('.', point + 1)) {
        std::size_t at = point;
        while (at > 0 && isDigit(at - 1)) --at;
        if (at == point || !isDigit(point + 1)) continue; // a product: m.s-1, or m2.s-1
        while (at > 0 && (unit[at - 1] == '-' || unit[at - 1] == '+' || unit[at - 1] == '^' || unit[at - 1] == '*'))
            --at;
        if (at > 0 && unit[at - 1] != ' ' && unit[at - 1] != '/' && unit[at - 1] != '(') return true;
    }
    return false;
}

std::optional<UnitConversion> unitConversion(const std::string& from, const std::string& to) {
    return unitSystem().conversion(from, to);
}

} // namespace coulter
