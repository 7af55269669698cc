#include "data/netcdf_numbers.h"

#include "data/file_state.h"
#include "data/file_trouble.h"
#include "special/leaks_of_libraries.h"

#include <algorithm>
#include <array>
#include <stdexcept>

namespace coulter {
namespace {

/// Rows that are stored together: those of a chunk.
std::size_t rowsTogether(const NetcdfFile& file, const NetcdfFile::Variable& variable,
                         const std::vector<NetcdfDirection>& directions) {
    const std::vector<std::size_t> chunks = file.chunks(variable);
    return chunks.empty() || directions.size() < 2 ? 1 : std::max<std::size_t>(1, chunks[directions[1].dimension]);
}

class Numbers : public GridNumbers {
public:
    Numbers(const std::filesystem::path& path, const NetcdfFile& file, NetcdfFile::Variable variable,
            std::vector<NetcdfDirection> directions, const std::optional<FileState>& state)
        : GridNumbers(lengthOf(directions, 0), lengthOf(directions, 1), lengthOf(directions, 2),
                      rowsTogether(file, variable, directions),
                      (state ? wordsOf(*state) : path.string()) + " " + variable.name),
          path_(path), variable_(std::move(variable)), directions_(std::move(directions)),
          meaning_(file.meaningOf(variable_)), state_(state) {}

private:
    static std::size_t lengthOf(const std::vector<NetcdfDirection>& directions, std::size_t k) {
        return k < directions.size() ? directions[k].length : 1;
    }

    void readRows(std::size_t layer, std::size_t firstRow, std::size_t rows, std::span<double> into) const override {
        std::vector<std::size_t> start(variable_.dimensions.size(), 0), lengths(variable_.dimensions.size(), 1);
        std::array<std::size_t, 3> strides{}; // of the part as it is read
        const std::array<std::size_t, 3> begin{0, firstRow, layer}, count{width(), rows, 1};
        for (std::size_t k = 0; k < directions_.size(); ++k) {
            const NetcdfDirection& direction = directions_[k];
            start[direction.dimension] = direction.isTurned ? direction.length - begin[k] - count[k] : begin[k];
            lengths[direction.dimension] = count[k];
        }
        std::size_t step = 1;
        for (std::size_t d = lengths.size(); d-- > 0;) {
            for (std::size_t k = 0; k < directions_.size(); ++k) {
                if (directions_[k].dimension == d) strides[k] = step;
            }
            step *= lengths[d];
        }
        const bool inOrder = strides[0] == 1 && !directions_[0].isTurned &&
                             (directions_.size() < 2 || (strides[1] == width() && !directions_[1].isTurned));
        std::vector<double> stored(inOrder ? 0 : into.size());
        readPart(start, lengths, inOrder ? into : std::span<double>(stored));
        if (!inOrder) {
            const auto place = [&](std::size_t k, std::size_t i) {
                return k < directions_.size() ? (directions_[k].isTurned ? count[k] - 1 - i : i) * strides[k] : 0;
            };
            for (std::size_t y = 0; y < rows; ++y) {
                for (std::size_t x = 0; x < width(); ++x) into[y * width() + x] = stored[place(1, y) + place(0, x)];
            }
        }
        meaning_.apply(into);
    }

    void readPart(std::span<const std::size_t> start, std::span<const std::size_t> lengths,
                  std::span<double> into) const {
        [[maybe_unused]] const LeaksOfLibraries allowed;
        const auto lock = lockNetcdf();
        if (stateOf(path_) != state_)
            throw std::runtime_error("“" + path_.filename().string() + "” has changed while it is used.");
        try {
            if (!file_) file_ = std::make_unique<NetcdfFile>(path_);
            file_->read(variable_, start, lengths, into);
        } catch (const FileTrouble& trouble) {
            throw std::runtime_error("“" + path_.filename().string() + "” cannot be read on: " + trouble.sentence);
        }
    }

    std::filesystem::path path_;
    NetcdfFile::Variable variable_;
    std::vector<NetcdfDirection> directions_;
    NetcdfFile::Meaning meaning_;
    std::optional<FileState> state_;
    mutable std::unique_ptr<NetcdfFile> file_; ///< open as long as its numbers may be asked for
};

} // namespace

std::shared_ptr<const GridNumbers> numbersOfNetcdf(const std::filesystem::path& path,
                                                   const NetcdfFile::Variable& variable,
                                                   std::vector<NetcdfDirection> directions) {
    return std::make_shared<Numbers>(path, NetcdfFile(path), variable, std::move(directions), stateOf(path));
}

} // namespace coulter
