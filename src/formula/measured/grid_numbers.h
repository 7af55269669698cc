#pragma once
#include <cstdint>
#include <list>
#include <memory>
#include <mutex>
#include <span>
#include <string>
#include <unordered_map>
#include <vector>

namespace coulter {

/// Numbers of a grid that are too many for the memory: read in blocks of whole rows when one of them is asked for, of
/// which the last ones used are kept. Shared between threads. Rows and layers are those of the grid: the first variable
/// runs along a row, the third through layers.
class GridNumbers {
public:
    virtual ~GridNumbers();
    GridNumbers(const GridNumbers&) = delete;
    GridNumbers& operator=(const GridNumbers&) = delete;

    std::size_t size() const { return width_ * height_ * layers_; }
    std::size_t width() const { return width_; }
    std::size_t height() const { return height_; }
    std::size_t layers() const { return layers_; }

    /// The number at an index, the first variable running fastest; NaN where it is missing, and where it could not be
    /// read (see `trouble`).
    double at(std::size_t index) const { return *from(index); }
    /// From the number at an index to the end of its row; until this thread asks for another.
    const double* from(std::size_t index) const;
    /// All numbers of a row; rows are counted through all layers.
    void row(std::size_t row, std::span<double> into) const;
    /// Why some number could not be read since they are here; empty if all could.
    std::string trouble() const;
    /// Words that are equal for equal numbers, and differ for others.
    const std::string& identity() const { return identity_; }

protected:
    /// @param rowsTogether  rows that are best read together, at least 1; more are if they are short
    /// @param kept          how many numbers are kept of those that were read; at least some blocks are
    GridNumbers(std::size_t width, std::size_t height, std::size_t layers, std::size_t rowsTogether,
                std::string identity, std::size_t kept = std::size_t{1} << 24);
    /// Reads some rows of one layer; what stands wrong is thrown as a std::runtime_error with the sentence.
    virtual void readRows(std::size_t layer, std::size_t firstRow, std::size_t rows, std::span<double> into) const = 0;

private:
    using Block = std::shared_ptr<const std::vector<double>>;
    Block block(std::size_t number) const;
    Block readBlock(std::size_t number) const;

    std::size_t width_, height_, layers_, rows_, perLayer_, most_;
    std::string identity_;
    std::uint64_t serial_; ///< no two have the same, ever
    mutable std::mutex mutex_;
    mutable std::list<std::pair<std::size_t, Block>> kept_; ///< the last one used first
    mutable std::unordered_map<std::size_t, std::list<std::pair<std::size_t, Block>>::iterator> places_;
    mutable std::string trouble_;
};

/// Means over squares of so many numbers a side, in the first two variables; of those that are defined.
/// @param of  numbers that are held as long as these
std::shared_ptr<const GridNumbers> meansOf(std::shared_ptr<const GridNumbers> of, std::size_t side);

} // namespace coulter
