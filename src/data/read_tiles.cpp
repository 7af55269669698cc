#include "data/digest.h"
#include "data/file_state.h"
#include "data/file_trouble.h"
#include "data/netcdf_file.h"
#include "data/netcdf_probe.h"
#include "data/tile_file.h"
#include "formula/base/text.h"
#include "formula/compile/columns.h"
#include "special/leaks_of_libraries.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

namespace coulter {
namespace {

namespace fs = std::filesystem;

constexpr std::size_t mostTiles = 100'000;

struct Tile {
    fs::path file;
    std::size_t firstRow = 0, rows = 0;
    std::optional<FileState> state; ///< as its places were read
};

/// Words that are equal as long as no file has changed.
std::string identityOf(const std::vector<Tile>& tiles) {
    Digest all;
    for (const Tile& tile : tiles) all.add((tile.state ? wordsOf(*tile.state) : tile.file.string()) + "\n");
    return all.text();
}

const NetcdfFile::Variable& variableOf(const std::vector<NetcdfFile::Variable>& all, const std::string& name,
                                       const fs::path& file) {
    const auto at = std::ranges::find(all, name, &NetcdfFile::Variable::name);
    if (at == all.end() || !at->isNumeric())
        throw FileTrouble{"“" + file.filename().string() + "” is no whole tile: “" + name + "” is not in it.",
                          "make it again"};
    return *at;
}

class Tiles : public GridNumbers {
public:
    Tiles(std::vector<Tile> tiles, std::size_t width, std::size_t height)
        : GridNumbers(width, height, 1, 1, identityOf(tiles)), tiles_(std::move(tiles)) {}

private:
    void readRows(std::size_t, std::size_t firstRow, std::size_t rows, std::span<double> into) const override {
        [[maybe_unused]] const LeaksOfLibraries allowed;
        const auto lock = lockNetcdf();
        while (rows > 0) {
            const auto behind = std::ranges::upper_bound(tiles_, firstRow, {}, &Tile::firstRow);
            const Tile& tile = *std::prev(behind);
            const std::size_t inTile = firstRow - tile.firstRow, count = std::min(rows, tile.rows - inTile);
            try {
                if (!open_ || openFile_ != tile.file) {
                    if (stateOf(tile.file) != tile.state)
                        throw std::runtime_error("“" + tile.file.filename().string() +
                                                 "” has changed while it is used.");
                    open_.reset();
                    open_ = std::make_unique<NetcdfFile>(tile.file);
                    openFile_ = tile.file;
                    values_ = variableOf(open_->variables(), "values", tile.file);
                }
                const std::array<std::size_t, 2> start{inTile, 0}, lengths{count, width()};
                open_->read(values_, start, lengths, into.first(count * width()));
            } catch (const FileTrouble& trouble) {
                throw std::runtime_error("“" + tile.file.filename().string() +
                                         "” cannot be read on: " + trouble.sentence);
            }
            into = into.subspan(count * width());
            firstRow += count;
            rows -= count;
        }
    }

    std::vector<Tile> tiles_;
    mutable std::unique_ptr<NetcdfFile> open_; ///< the one that was read last
    mutable fs::path openFile_;
    mutable NetcdfFile::Variable values_;
};

/// "1, 4 and 5"; of many the first ones.
std::string listed(const std::vector<std::size_t>& numbers) {
    constexpr std::size_t most = 5;
    std::string text;
    for (std::size_t i = 0; i < std::min(most, numbers.size()); ++i)
        text += (i == 0 ? "" : i + 1 == numbers.size() ? " and " : ", ") + std::to_string(numbers[i]);
    return numbers.size() > most ? text + " and " + std::to_string(numbers.size() - most) + " more" : text;
}

/// The tiles of a folder by their numbers.
std::vector<fs::path> tilesIn(const fs::path& folder) {
    std::error_code error;
    std::vector<fs::path> found;
    std::size_t of = 0;
    for (fs::directory_iterator each(folder, error), end; !error && each != end; each.increment(error)) {
        std::size_t part = 0, parts = 0;
        int length = 0;
        const std::string name = each->path().filename().string();
        if (std::sscanf(name.c_str(), "%zu-of-%zu.nc%n", &part, &parts, &length) != 2 ||
            static_cast<std::size_t>(length) != name.size() || part < 1 || part > parts || parts > mostTiles)
            continue;
        if (of != 0 && parts != of)
            throw FileTrouble{"It holds tiles of a field in " + std::to_string(std::min(of, parts)) +
                                  " parts and of one in " + std::to_string(std::max(of, parts)) + ".",
                              "let the tiles of one field have a folder to themselves"};
        of = parts;
        found.resize(of);
        found[part - 1] = each->path();
    }
    if (found.empty())
        throw FileTrouble{"It is a folder without tiles of a field.", "“coulter sample … --part K/N” writes such"};
    std::vector<std::size_t> missing;
    for (std::size_t i = 0; i < of; ++i) {
        if (found[i].empty()) missing.push_back(i + 1);
    }
    if (!missing.empty())
        throw FileTrouble{"Of " + std::to_string(of) + " tiles " + listed(missing) +
                              (missing.size() == 1 ? " is not there." : " are not there."),
                          "make what is left with --part"};
    return found;
}

DataTable readAll(const fs::path& folder) {
    const std::vector<fs::path> files = tilesIn(folder);
    DataTable table;
    std::vector<Tile> tiles;
    std::vector<double> columns, rows;
    std::string whole;
    for (std::size_t i = 0; i < files.size(); ++i) {
        const auto state = stateOf(files[i]);
        if (!survivesOpening(files[i]))
            throw FileTrouble{"“" + files[i].filename().string() + "” is damaged.", "make it again"};
        const NetcdfFile file(files[i]);
        const std::vector<NetcdfFile::Variable> all = file.variables();
        const auto& values = variableOf(all, "values", files[i]);
        if (values.dimensions.size() != 2)
            throw FileTrouble{"“" + files[i].filename().string() + "” is no tile.", "make it again"};
        const std::string up = file.dimension(values.dimensions[0]).name,
                          across = file.dimension(values.dimensions[1]).name;
        const auto &upPlaces = variableOf(all, up, files[i]), &acrossPlaces = variableOf(all, across, files[i]);
        std::vector<double> its = file.values(upPlaces), itsColumns = file.values(acrossPlaces);
        if (i == 0) {
            whole = file.text("whole");
            columns = std::move(itsColumns);
            table.axes = {{across, file.text(acrossPlaces, "units"), "", nullptr, false},
                          {up, file.text(upPlaces, "units"), "", nullptr, false}};
            table.columns = {{"", file.text(values, "units"), file.text(values, "long_name"),
                              std::make_shared<const std::vector<double>>()}};
        } else if (file.text("whole") != whole || itsColumns != columns) {
            throw FileTrouble{"“" + files[i].filename().string() + "” is a tile of another field than the first one.",
                              "make it again"};
        }
        if (its.size() != file.dimension(values.dimensions[0]).length ||
            columns.size() != file.dimension(values.dimensions[1]).length)
            throw FileTrouble{"“" + files[i].filename().string() + "” is damaged.", "make it again"};
        if (!its.empty()) tiles.push_back({files[i], rows.size(), its.size(), state});
        rows.insert(rows.end(), its.begin(), its.end());
    }
    for (const std::vector<double>* places : {&columns, &rows}) {
        if (places->empty() || std::ranges::adjacent_find(*places, std::greater_equal<>{}) != places->end() ||
            !std::ranges::all_of(*places, [](double place) { return std::isfinite(place); }))
            throw FileTrouble{"The places of its tiles do not ascend.", "make them again"};
    }
    const std::size_t width = columns.size(), height = rows.size();
    table.axes[0].places = std::make_shared<const std::vector<double>>(std::move(columns));
    table.axes[1].places = std::make_shared<const std::vector<double>>(std::move(rows));
    table.far = std::make_shared<Tiles>(std::move(tiles), width, height);
    return table;
}

/// Takes the numbers into the memory.
void bringNear(DataTable& table) {
    const GridNumbers& far = *table.far;
    std::vector<double> numbers(far.size());
    for (std::size_t row = 0; row < far.height(); ++row)
        far.row(row, std::span(numbers).subspan(row * far.width(), far.width()));
    if (std::string trouble = far.trouble(); !trouble.empty()) throw FileTrouble{std::move(trouble), "make it again"};
    table.columns[0].numbers = std::make_shared<const std::vector<double>>(std::move(numbers));
    table.far = nullptr;
}

} // namespace

TableRead readTiles(const fs::path& folder) {
    [[maybe_unused]] const LeaksOfLibraries allowed;
    return readVariable("netCDF", [&](std::vector<std::string>&) {
        DataTable table;
        {
            const auto lock = lockNetcdf();
            table = readAll(folder);
        }
        if (static_cast<double>(table.far->size()) <= mostNumbersOfPage) bringNear(table);
        return table;
    });
}

} // namespace coulter
