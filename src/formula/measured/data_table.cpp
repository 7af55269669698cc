#include "formula/measured/data_table.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <cstdint>

namespace coulter {

namespace {

/// Equal to the last bit; a missing value equals a missing one.
bool areSame(const Column& a, const Column& b) {
    return a == b || (a && b && std::ranges::equal(*a, *b, [](double x, double y) {
                          return std::bit_cast<std::uint64_t>(x) == std::bit_cast<std::uint64_t>(y) ||
                                 (std::isnan(x) && std::isnan(y));
                      }));
}

} // namespace

bool operator==(const DataColumn& a, const DataColumn& b) {
    return a.name == b.name && a.unit == b.unit && a.meaning == b.meaning && areSame(a.numbers, b.numbers);
}

bool operator==(const DataMesh& a, const DataMesh& b) {
    return a.unit == b.unit && std::ranges::equal(a.places, b.places, areSame) &&
           std::ranges::equal(a.corners, b.corners, areSame);
}

bool operator==(const DataTable& a, const DataTable& b) {
    const bool sameMesh = a.mesh == b.mesh || (a.mesh && b.mesh && *a.mesh == *b.mesh);
    const bool sameFar = a.far == b.far || (a.far && b.far && a.far->identity() == b.far->identity());
    return sameMesh && sameFar && a.source == b.source && a.columns == b.columns && a.axes == b.axes &&
           a.leftOut == b.leftOut && a.digest == b.digest && a.isEdited == b.isEdited && a.isBeside == b.isBeside &&
           a.trouble == b.trouble;
}

bool operator==(const DataAxis& a, const DataAxis& b) {
    return a.name == b.name && a.unit == b.unit && a.meaning == b.meaning && a.isCounted == b.isCounted &&
           areSame(a.places, b.places);
}

namespace {

constexpr std::string_view variableMark = " # "; // as hardly a file is called

} // namespace

std::string tableKey(const std::string& file, const std::string& variable) {
    return variable.empty() ? file : file + std::string(variableMark) + variable;
}

TableKey readTableKey(const std::string& source) {
    const std::size_t at = source.rfind(variableMark);
    if (at == std::string::npos || at == 0) return {source, ""};
    return {source.substr(0, at), source.substr(at + variableMark.size())};
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
