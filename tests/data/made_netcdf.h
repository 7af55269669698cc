#pragma once
#include "made_files.h"

#include "special/leaks_of_libraries.h"

#include <catch2/catch.hpp>

namespace coulter::made {

/// A netCDF file, made step by step: dimensions and variables, `begin`, values, `close`.
class Netcdf {
public:
    Netcdf(const std::string& name, int mode) : path(pathOf(name)) {
        REQUIRE(nc_create(path.c_str(), mode | NC_CLOBBER, &id_) == NC_NOERR);
    }
    ~Netcdf() { close(); }
    int dimension(const char* name, std::size_t length) {
        int dim = 0;
        REQUIRE(nc_def_dim(id_, name, length, &dim) == NC_NOERR);
        return dim;
    }
    int variable(const char* name, nc_type type, const std::vector<int>& dims) {
        int var = 0;
        REQUIRE(nc_def_var(id_, name, type, static_cast<int>(dims.size()), dims.data(), &var) == NC_NOERR);
        return var;
    }
    void text(int var, const char* name, const std::string& words) {
        REQUIRE(nc_put_att_text(id_, var, name, words.size(), words.data()) == NC_NOERR);
    }
    void number(int var, const char* name, nc_type type, double value) {
        REQUIRE(nc_put_att_double(id_, var, name, type, 1, &value) == NC_NOERR);
    }
    void begin() { nc_enddef(id_); }
    void values(int var, const std::vector<double>& numbers) {
        REQUIRE(nc_put_var_double(id_, var, numbers.data()) == NC_NOERR);
    }
    void part(int var, const std::vector<std::size_t>& start, const std::vector<std::size_t>& lengths,
              const std::vector<double>& numbers) {
        REQUIRE(nc_put_vara_double(id_, var, start.data(), lengths.data(), numbers.data()) == NC_NOERR);
    }
    void close() {
        if (id_ >= 0) nc_close(id_);
        id_ = -1;
    }
    const std::filesystem::path path;

private:
    [[maybe_unused]] LeaksOfLibraries allowed_; ///< HDF5 keeps what it has freed for itself
    int id_ = -1;
};

} // namespace coulter::made
