#include "data/netcdf_file.h"

#include "data/file_trouble.h"
#include "formula/base/text.h"
#include "formula/compile/columns.h"

#include <algorithm>
#include <cmath>
#include <hdf5.h>
#include <limits>
#include <netcdf.h>

namespace coulter {

namespace {

constexpr std::size_t mostVariables = 10'000;

} // namespace

std::unique_lock<std::mutex> lockNetcdf() {
    static std::mutex mutex;
    std::unique_lock lock(mutex);
    thread_local bool isQuiet = false;
    if (!isQuiet) isQuiet = H5Eset_auto2(H5E_DEFAULT, nullptr, nullptr) >= 0;
    return lock;
}

void checkNetcdf(int status) {
    if (status == NC_NOERR) return;
    if (status == NC_ENOMEM) throw FileTrouble{"There is not enough memory to read it.", ""};
    throw FileTrouble{
        "The file is damaged, or of a kind of netCDF that is not known: " + std::string(nc_strerror(status)) + ".", ""};
}

NetcdfFile::NetcdfFile(const std::filesystem::path& path) { checkNetcdf(nc_open(path.c_str(), NC_NOWRITE, &id_)); }
NetcdfFile::~NetcdfFile() { nc_close(id_); }

bool NetcdfFile::Variable::isNumeric() const {
    return type != NC_CHAR && type != NC_STRING && type <= NC_MAX_ATOMIC_TYPE;
}

std::vector<NetcdfFile::Variable> NetcdfFile::variables() const {
    int count = 0;
    checkNetcdf(nc_inq_nvars(id_, &count));
    if (static_cast<std::size_t>(std::max(0, count)) > mostVariables)
        throw FileTrouble{"It has more than 10000 variables.", "take a part of it"};
    std::vector<Variable> all;
    for (int i = 0; i < count; ++i) {
        Variable variable{i, {}, NC_NAT, {}};
        char name[NC_MAX_NAME + 1] = {};
        int dimensions = 0;
        checkNetcdf(nc_inq_varname(id_, i, name));
        checkNetcdf(nc_inq_vartype(id_, i, &variable.type));
        checkNetcdf(nc_inq_varndims(id_, i, &dimensions));
        if (dimensions < 0 || dimensions > NC_MAX_VAR_DIMS) throw FileTrouble{"The file is damaged.", ""};
        variable.name = asUtf8(name);
        variable.dimensions.resize(static_cast<std::size_t>(dimensions));
        if (dimensions > 0) checkNetcdf(nc_inq_vardimid(id_, i, variable.dimensions.data()));
        all.push_back(std::move(variable));
    }
    return all;
}

NetcdfFile::Dimension NetcdfFile::dimension(int id) const {
    char name[NC_MAX_NAME + 1] = {};
    Dimension found;
    checkNetcdf(nc_inq_dim(id_, id, name, &found.length));
    found.name = asUtf8(name);
    return found;
}

double NetcdfFile::count(const Variable& variable) const {
    double count = 1;
    for (const int id : variable.dimensions) count *= static_cast<double>(dimension(id).length);
    return count;
}

std::string NetcdfFile::text(const Variable& variable, const char* attribute) const {
    return textOf(variable.id, attribute);
}
std::string NetcdfFile::text(const char* attribute) const { return textOf(NC_GLOBAL, attribute); }
std::vector<double> NetcdfFile::numbers(const Variable& variable, const char* attribute) const {
    return numbersOf(variable.id, attribute);
}
std::vector<double> NetcdfFile::numbers(const char* attribute) const { return numbersOf(NC_GLOBAL, attribute); }

std::string NetcdfFile::textOf(int variable, const char* attribute) const {
    nc_type type = NC_NAT;
    std::size_t length = 0;
    if (nc_inq_att(id_, variable, attribute, &type, &length) != NC_NOERR || length == 0) return "";
    constexpr std::size_t longest = 1000;
    if (type == NC_STRING && length == 1) {
        char* one = nullptr;
        if (nc_get_att_string(id_, variable, attribute, &one) != NC_NOERR || !one) return "";
        std::string text(one);
        nc_free_string(1, &one);
        return asUtf8(text.substr(0, longest));
    }
    if (type != NC_CHAR || length > longest) return "";
    std::string text(length, '\0');
    if (nc_get_att_text(id_, variable, attribute, text.data()) != NC_NOERR) return "";
    return asUtf8(text.substr(0, text.find('\0')));
}

std::vector<double> NetcdfFile::numbersOf(int variable, const char* attribute) const {
    nc_type type = NC_NAT;
    std::size_t length = 0;
    if (nc_inq_att(id_, variable, attribute, &type, &length) != NC_NOERR) return {};
    if (type == NC_CHAR || type == NC_STRING || type > NC_MAX_ATOMIC_TYPE || length > 100) return {};
    std::vector<double> found(length);
    if (nc_get_att_double(id_, variable, attribute, found.data()) != NC_NOERR) return {};
    return found;
}

std::vector<double> NetcdfFile::values(const Variable& variable) const {
    const double count = this->count(variable);
    if (count > mostNumbersOfPage)
        throw FileTrouble{"“" + variable.name + "” has " + roundedNumber(count, 3) + " numbers, and a page holds " +
                              roundedNumber(mostNumbersOfPage, 3) + ".",
                          "take a part of it"};
    std::vector<double> all(static_cast<std::size_t>(count));
    if (all.empty()) return all;
    checkNetcdf(nc_get_var_double(id_, variable.id, all.data()));
    meaningOf(variable).apply(all);
    return all;
}

NetcdfFile::Meaning NetcdfFile::meaningOf(const Variable& variable) const {
    Meaning meaning{numbers(variable, "missing_value"), -HUGE_VAL, HUGE_VAL, 1, 0};
    const std::vector<double> fill = numbers(variable, "_FillValue");
    meaning.missing.insert(meaning.missing.end(), fill.begin(), fill.end());
    if (fill.empty()) {
        if (variable.type == NC_DOUBLE || variable.type == NC_FLOAT) meaning.missing.push_back(NC_FILL_DOUBLE);
        if (variable.type == NC_INT) meaning.missing.push_back(NC_FILL_INT);
        if (variable.type == NC_SHORT) meaning.missing.push_back(NC_FILL_SHORT);
    }
    if (const auto range = numbers(variable, "valid_range"); range.size() == 2)
        meaning.low = range[0], meaning.high = range[1];
    if (const auto low = numbers(variable, "valid_min"); low.size() == 1) meaning.low = low[0];
    if (const auto high = numbers(variable, "valid_max"); high.size() == 1) meaning.high = high[0];
    if (const auto scale = numbers(variable, "scale_factor"); scale.size() == 1) meaning.scale = scale[0];
    if (const auto offset = numbers(variable, "add_offset"); offset.size() == 1) meaning.offset = offset[0];
    return meaning;
}

void NetcdfFile::Meaning::apply(std::span<double> values) const {
    // One pass for each, without branches: in all sooner than one with them.
    constexpr double none = std::numeric_limits<double>::quiet_NaN(), most = std::numeric_limits<double>::max();
    for (const double stands : missing) {
        for (double& value : values) value = value == stands ? none : value;
    }
    const double lowest = std::max(low, -most), highest = std::min(high, most);
    for (double& value : values) value = value >= lowest && value <= highest ? value : none;
    if (scale != 1) {
        for (double& value : values) value *= scale;
    }
    if (offset != 0) {
        for (double& value : values) value += offset;
    }
}

void NetcdfFile::read(const Variable& variable, std::span<const std::size_t> start,
                      std::span<const std::size_t> lengths, std::span<double> into) const {
    checkNetcdf(nc_get_vara_double(id_, variable.id, start.data(), lengths.data(), into.data()));
}

std::vector<std::size_t> NetcdfFile::chunks(const Variable& variable) const {
    std::vector<std::size_t> lengths(variable.dimensions.size());
    int storage = NC_CONTIGUOUS;
    if (nc_inq_var_chunking(id_, variable.id, &storage, lengths.data()) != NC_NOERR || storage != NC_CHUNKED) return {};
    return lengths;
}

} // namespace coulter
