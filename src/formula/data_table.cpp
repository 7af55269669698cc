#include "formula/data_table.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <cstdint>

namespace coulter {

bool operator==(const DataColumn& a, const DataColumn& b) {
    if (a.name != b.name || a.unit != b.unit || a.meaning != b.meaning) return false;
    return a.numbers == b.numbers || std::ranges::equal(*a.numbers, *b.numbers, [](double x, double y) {
               return std::bit_cast<std::uint64_t>(x) == std::bit_cast<std::uint64_t>(y) ||
                      (std::isnan(x) && std::isnan(y));
           });
}

DataTables::Entry DataTables::find(std::string_view source) const {
    const auto at = std::ranges::find(tables_, source, [](const Entry& each) { return each->source; });
    return at == tables_.end() ? nullptr : *at;
}

void DataTables::put(DataTable table) {
    const auto at = std::ranges::find(tables_, table.source, [](const Entry& each) { return each->source; });
    auto entry = std::make_shared<const DataTable>(std::move(table));
    if (at == tables_.end())
        tables_.push_back(std::move(entry));
    else
        *at = std::move(entry);
}

void DataTables::remove(std::string_view source) {
    std::erase_if(tables_, [&](const Entry& each) { return each->source == source; });
}

bool operator==(const DataTables& a, const DataTables& b) {
    return std::ranges::equal(a.tables_, b.tables_, [](const DataTables::Entry& x, const DataTables::Entry& y) {
        return x == y || *x == *y;
    });
}

} // namespace coulter
