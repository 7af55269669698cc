#pragma once
#include "data/file_trouble.h"

#include <mutex>
#include <span>
#include <string>
#include <vector>

namespace coulter {

/// The library of netCDF does one thing at a time: who calls it holds this lock. What HDF5 beneath it would print of
/// troubles, in every thread anew, is not printed.
std::unique_lock<std::mutex> lockNetcdf();

/// Throws a FileTrouble if the library says that something failed.
void checkNetcdf(int status);

/// A netCDF file that is open for reading. Everything throws FileTrouble where the file is damaged.
class NetcdfFile {
public:
    explicit NetcdfFile(const std::filesystem::path& path);
    ~NetcdfFile();
    NetcdfFile(const NetcdfFile&) = delete;
    NetcdfFile& operator=(const NetcdfFile&) = delete;

    struct Dimension {
        std::string name;
        std::size_t length = 0;
    };
    struct Variable {
        int id = 0;
        std::string name;
        int type = 0;
        std::vector<int> dimensions; ///< the first runs slowest
        bool isNumeric() const;
    };
    std::vector<Variable> variables() const;
    Dimension dimension(int id) const;
    double count(const Variable& variable) const; ///< of its numbers

    /// An attribute's text, or its numbers; empty if there is none of that type.
    std::string text(const Variable& variable, const char* attribute) const;
    std::vector<double> numbers(const Variable& variable, const char* attribute) const;
    /// Of the file itself.
    std::string text(const char* attribute) const;
    std::vector<double> numbers(const char* attribute) const;

    /// All values as the conventions have them; NaN where one is missing. Refused where they are more than a page
    /// holds.
    std::vector<double> values(const Variable& variable) const;

    /// How stored values become numbers.
    struct Meaning {
        std::vector<double> missing;
        double low, high; ///< beyond them a value is missing
        double scale, offset;
        void apply(std::span<double> values) const;
    };
    Meaning meaningOf(const Variable& variable) const;
    /// The values of a part, as they are stored.
    /// @param start, lengths  one for each dimension
    void read(const Variable& variable, std::span<const std::size_t> start, std::span<const std::size_t> lengths,
              std::span<double> into) const;
    /// How many places of each dimension are stored together; empty: all stand in one row.
    std::vector<std::size_t> chunks(const Variable& variable) const;

private:
    std::string textOf(int variable, const char* attribute) const;
    std::vector<double> numbersOf(int variable, const char* attribute) const;
    int id_ = 0;
};

} // namespace coulter
