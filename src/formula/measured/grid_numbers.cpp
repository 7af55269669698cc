#include "formula/measured/grid_numbers.h"

#include <algorithm>
#include <array>
#include <atomic>
#include <cmath>
#include <stdexcept>

namespace coulter {
namespace {

/// Numbers of one block, 512 kB: while one thread reads a block, others go on with theirs.
constexpr std::size_t blockNumbers = std::size_t{1} << 16;

std::atomic<std::uint64_t> lastSerial{0};

class Means : public GridNumbers {
public:
    Means(std::shared_ptr<const GridNumbers> of, std::size_t side)
        : GridNumbers((of->width() + side - 1) / side, (of->height() + side - 1) / side, of->layers(), 1,
                      of->identity() + ", means over " + std::to_string(side),
                      SIZE_MAX), // each has cost many to be read
          of_(std::move(of)), side_(side) {}

private:
    void readRows(std::size_t layer, std::size_t firstRow, std::size_t rows, std::span<double> into) const override {
        std::vector<double> beneath(of_->width());
        for (std::size_t row = 0; row < rows; ++row) {
            std::vector<double> sums(width()), counts(width());
            const std::size_t first = (firstRow + row) * side_, last = std::min(of_->height(), first + side_);
            for (std::size_t y = first; y < last; ++y) {
                of_->row(layer * of_->height() + y, beneath);
                for (std::size_t x = 0; x < beneath.size(); ++x) {
                    if (std::isnan(beneath[x])) continue;
                    sums[x / side_] += beneath[x];
                    counts[x / side_] += 1;
                }
            }
            for (std::size_t x = 0; x < width(); ++x)
                into[row * width() + x] = counts[x] > 0 ? sums[x] / counts[x] : std::nan("");
        }
        if (std::string said = of_->trouble(); !said.empty()) throw std::runtime_error(said);
    }

    std::shared_ptr<const GridNumbers> of_;
    std::size_t side_;
};

} // namespace

GridNumbers::GridNumbers(std::size_t width, std::size_t height, std::size_t layers, std::size_t rowsTogether,
                         std::string identity, std::size_t kept)
    : width_(width), height_(height), layers_(layers), identity_(std::move(identity)), serial_(++lastSerial) {
    const std::size_t short_ = std::max<std::size_t>(1, blockNumbers / std::max<std::size_t>(1, width));
    rows_ = std::min(height, std::max<std::size_t>(1, short_ / rowsTogether) * rowsTogether);
    perLayer_ = (height + rows_ - 1) / rows_;
    most_ = std::max<std::size_t>(8, kept / std::max<std::size_t>(1, rows_ * width));
}
GridNumbers::~GridNumbers() = default;

const double* GridNumbers::from(std::size_t index) const {
    // Each thread knows the blocks that it used last: points that follow each other lie in the same ones.
    struct Last {
        std::uint64_t serial = 0;
        std::size_t first = 0, count = 0; ///< numbers in a block stand side by side
        Block block;
    };
    thread_local std::array<Last, 4> last;
    thread_local std::size_t next = 0;
    for (const Last& each : last) {
        if (each.serial == serial_ && index - each.first < each.count) return each.block->data() + (index - each.first);
    }
    const std::size_t row = index / width_, layer = row / height_, inLayer = row % height_;
    Block fresh = block(layer * perLayer_ + inLayer / rows_);
    next = (next + 1) % last.size();
    const std::size_t first = (layer * height_ + inLayer / rows_ * rows_) * width_;
    last[next] = {serial_, first, fresh->size(), std::move(fresh)};
    return last[next].block->data() + (index - first);
}

void GridNumbers::row(std::size_t row, std::span<double> into) const {
    std::copy_n(from(row * width_), width_, into.begin());
}

std::string GridNumbers::trouble() const {
    const std::scoped_lock lock(mutex_);
    return trouble_;
}

GridNumbers::Block GridNumbers::block(std::size_t number) const {
    {
        const std::scoped_lock lock(mutex_);
        if (const auto at = places_.find(number); at != places_.end()) {
            kept_.splice(kept_.begin(), kept_, at->second);
            return kept_.front().second;
        }
    }
    Block fresh = readBlock(number); // not under the lock: others go on with what is here
    const std::scoped_lock lock(mutex_);
    if (const auto at = places_.find(number); at != places_.end()) return at->second->second;
    kept_.emplace_front(number, fresh);
    places_[number] = kept_.begin();
    if (kept_.size() > most_) {
        places_.erase(kept_.back().first);
        kept_.pop_back();
    }
    return fresh;
}

GridNumbers::Block GridNumbers::readBlock(std::size_t number) const {
    const std::size_t first = number % perLayer_ * rows_, rows = std::min(rows_, height_ - first);
    auto numbers = std::make_shared<std::vector<double>>(rows * width_, std::nan(""));
    try {
        readRows(number / perLayer_, first, rows, *numbers);
    } catch (const std::exception& error) {
        std::ranges::fill(*numbers, std::nan(""));
        const std::scoped_lock lock(mutex_);
        if (trouble_.empty()) trouble_ = error.what();
    }
    return numbers;
}

std::shared_ptr<const GridNumbers> meansOf(std::shared_ptr<const GridNumbers> of, std::size_t side) {
    return std::make_shared<Means>(std::move(of), side);
}

} // namespace coulter
