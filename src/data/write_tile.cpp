#include "data/file_trouble.h"
#include "data/netcdf_file.h"
#include "data/netcdf_probe.h"
#include "data/tile_file.h"

#include <algorithm>
#include <netcdf.h>
#include <unistd.h>

namespace coulter {
namespace {

namespace fs = std::filesystem;

/// Numbers of one chunk, and of what is evaluated and written at a time.
constexpr std::size_t chunkNumbers = std::size_t{1} << 18, blockNumbers = std::size_t{1} << 20;

/// A file that is being written; gone again unless it is kept.
class Fresh {
public:
    explicit Fresh(fs::path path) : path_(std::move(path)) {
        checkNetcdf(nc_create(path_.c_str(), NC_NETCDF4 | NC_CLOBBER, &id_));
        isOpen_ = true;
    }
    ~Fresh() {
        if (isOpen_) nc_close(id_);
        std::error_code gone;
        fs::remove(path_, gone);
    }
    Fresh(const Fresh&) = delete;
    Fresh& operator=(const Fresh&) = delete;
    int id() const { return id_; }
    void keepAs(const fs::path& target) {
        isOpen_ = false;
        checkNetcdf(nc_close(id_)); // what was put is on its way only now
        fs::rename(path_, target);
    }

private:
    fs::path path_;
    int id_ = 0;
    bool isOpen_ = false;
};

void putText(int file, int variable, const char* name, const std::string& text) {
    if (!text.empty()) checkNetcdf(nc_put_att_text(file, variable, name, text.size(), text.data()));
}

/// What a process that was killed has left of this tile.
void removeHalves(const fs::path& file) {
    const std::string beginning = "." + file.filename().string() + ".";
    std::error_code error;
    std::vector<fs::path> halves;
    const fs::path folder = file.has_parent_path() ? file.parent_path() : fs::path(".");
    for (fs::directory_iterator each(folder, error), end; !error && each != end; each.increment(error)) {
        if (each->path().filename().string().starts_with(beginning)) halves.push_back(each->path());
    }
    for (const fs::path& half : halves) fs::remove(half, error);
}

} // namespace

std::pair<std::size_t, std::size_t> rowsOfTile(std::size_t rows, std::size_t part, std::size_t of) {
    return {rows / of * (part - 1) + rows % of * (part - 1) / of, rows / of * part + rows % of * part / of};
}

std::string tileName(std::size_t part, std::size_t of) {
    return std::to_string(part) + "-of-" + std::to_string(of) + ".nc";
}

bool isTileThere(const fs::path& file, const TiledField& field, std::size_t part, std::size_t of) {
    std::error_code error;
    if (!fs::is_regular_file(file, error)) return false;
    const auto lock = lockNetcdf();
    if (!survivesOpening(file)) return false;
    try {
        const NetcdfFile there(file);
        const auto parts = there.numbers("part");
        return there.text("whole") == field.whole &&
               parts == std::vector<double>{static_cast<double>(part), static_cast<double>(of)};
    } catch (const FileTrouble&) {
        return false; // it is written anew
    }
}

std::string writeTile(const fs::path& file, const TiledField& field, std::size_t part, std::size_t of,
                      const std::function<bool(std::size_t firstRow, std::span<double> into)>& rowsAt) {
    removeHalves(file);
    try {
        const auto [first, end] = rowsOfTile(field.rows.size(), part, of);
        const std::size_t width = field.columns.size();
        const fs::path beside =
            file.parent_path() / ("." + file.filename().string() + "." + std::to_string(::getpid()));
        auto lock = lockNetcdf();
        Fresh fresh(beside);
        const int id = fresh.id();
        std::array<int, 2> dimensions{}, places{}; // the first runs slowest
        int values = 0;
        for (std::size_t k = 0; k < 2; ++k) { // rows, then columns
            const std::size_t variable = 1 - k;
            const char* name = field.variables[variable].c_str();
            checkNetcdf(nc_def_dim(id, name, k == 0 ? end - first : width, &dimensions[k]));
            checkNetcdf(nc_def_var(id, name, NC_DOUBLE, 1, &dimensions[k], &places[k]));
            putText(id, places[k], "units", field.units[variable]);
        }
        checkNetcdf(nc_def_var(id, "values", NC_DOUBLE, 2, dimensions.data(), &values));
        const std::array<std::size_t, 2> chunk{std::clamp<std::size_t>(chunkNumbers / width, 1, end - first), width};
        checkNetcdf(nc_def_var_chunking(id, values, NC_CHUNKED, chunk.data()));
        putText(id, values, "long_name", field.name);
        putText(id, values, "units", field.unit);
        putText(id, NC_GLOBAL, "Conventions", "CF-1.11");
        putText(id, NC_GLOBAL, "whole", field.whole);
        const std::array<int, 2> parts{static_cast<int>(part), static_cast<int>(of)};
        checkNetcdf(nc_put_att_int(id, NC_GLOBAL, "part", NC_INT, 2, parts.data()));
        checkNetcdf(nc_enddef(id));
        checkNetcdf(nc_put_var_double(id, places[0], field.rows.data() + first));
        checkNetcdf(nc_put_var_double(id, places[1], field.columns.data()));
        const std::size_t together = std::max<std::size_t>(1, blockNumbers / width);
        std::vector<double> block;
        for (std::size_t row = first; row < end; row += together) {
            block.resize(std::min(together, end - row) * width);
            lock.unlock(); // what is evaluated may itself be read from such a file
            const bool goesOn = rowsAt(row, block);
            lock.lock();
            if (!goesOn) return "Stopped; nothing was written.";
            const std::array<std::size_t, 2> start{row - first, 0}, count{block.size() / width, width};
            checkNetcdf(nc_put_vara_double(id, values, start.data(), count.data(), block.data()));
        }
        fresh.keepAs(file);
        return "";
    } catch (const FileTrouble&) { // the library's words are about reading, and blame the file
        std::error_code error;
        const fs::space_info space = fs::space(file.has_parent_path() ? file.parent_path() : fs::path("."), error);
        return "“" + file.string() + "” could not be written" +
               (!error && space.available < 1'000'000 ? ": the disk is full." : ".");
    } catch (const fs::filesystem_error& error) {
        return "“" + file.string() + "” could not be written: " + error.code().message() + ".";
    } catch (const std::bad_alloc&) {
        return "There is not enough memory for a row of it.";
    }
}

} // namespace coulter
