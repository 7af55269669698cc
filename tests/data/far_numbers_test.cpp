// Numbers of grids that stay in their files, and tiles.
#include "made_netcdf.h"

#include "data/digest.h"
#include "data/known_digests.h"
#include "data/netcdf_numbers.h"
#include "data/read_file.h"
#include "data/tile_file.h"
#include "formula/measured/measured_field.h"

#include <cmath>
#include <cstdlib>
#include <fstream>
#include <random>
#include <thread>

using namespace coulter;
namespace fs = std::filesystem;

namespace {

/// The only variable of a file with two directions or more, with its file read in blocks.
std::shared_ptr<const GridNumbers> farOf(const fs::path& path, const std::string& name,
                                         std::vector<NetcdfDirection> directions) {
    const auto lock = lockNetcdf();
    const NetcdfFile file(path);
    for (const auto& variable : file.variables()) {
        if (variable.name == name) return numbersOfNetcdf(path, variable, std::move(directions));
    }
    FAIL("no such variable");
    return nullptr;
}

bool areSame(double a, double b) { return a == b || (std::isnan(a) && std::isnan(b)); }

double valueAt(double x, double y) { return std::sin(3 * x) * y + x; }

TiledField fieldOf(std::size_t columns, std::size_t rows) {
    TiledField field;
    for (std::size_t i = 0; i < columns; ++i) field.columns.push_back(static_cast<double>(i) / 100);
    for (std::size_t i = 0; i < rows; ++i) field.rows.push_back(1 + static_cast<double>(i) / 50);
    field.variables = {"x", "depth"};
    field.units = {"m", "cm"};
    field.name = "h(x, depth)";
    field.unit = "mm";
    field.whole = "one field";
    return field;
}

std::string make(const fs::path& folder, const TiledField& field, std::size_t part, std::size_t of) {
    return writeTile(folder / tileName(part, of), field, part, of, [&](std::size_t row, std::span<double> into) {
        for (std::size_t i = 0; i < into.size(); ++i)
            into[i] = valueAt(field.columns[i % field.columns.size()], field.rows[row + i / field.columns.size()]);
        return true;
    });
}

fs::path folderOf(const std::string& name) {
    const fs::path folder = made::pathOf(name);
    fs::remove_all(folder);
    fs::create_directories(folder);
    return folder;
}

} // namespace

TEST_CASE("numbers that stay in their file are those that the memory would hold, however the file stores them") {
    std::mt19937 random(7);
    for (int round = 0; round < 24; ++round) {
        made::Netcdf file("far.nc", round % 2 == 0 ? NC_NETCDF4 : NC_64BIT_OFFSET);
        const std::size_t nt = 1 + random() % 4, ny = 2 + random() % 30, nx = 2 + random() % 30;
        const int t = file.dimension("t", nt), one = file.dimension("one", 1), y = file.dimension("y", ny),
                  x = file.dimension("x", nx);
        const int xs = file.variable("x", NC_DOUBLE, {x}), ys = file.variable("y", NC_DOUBLE, {y}),
                  ts = file.variable("t", NC_DOUBLE, {t});
        const int h = file.variable("h", round % 3 == 0 ? NC_SHORT : NC_DOUBLE, {t, one, y, x});
        if (round % 3 == 0) file.number(h, "scale_factor", NC_DOUBLE, 0.25);
        file.number(h, "missing_value", NC_DOUBLE, 17);
        file.begin();
        const auto places = [&](std::size_t n, bool descending) {
            std::vector<double> all(n);
            for (std::size_t i = 0; i < n; ++i) all[i] = static_cast<double>(descending ? n - i : i);
            return all;
        };
        const bool turnX = round % 5 == 0, turnY = round % 4 != 0;
        file.values(xs, places(nx, turnX));
        file.values(ys, places(ny, turnY));
        file.values(ts, places(nt, false));
        std::vector<double> numbers(nt * ny * nx);
        for (double& number : numbers) number = static_cast<double>(random() % 1000);
        file.values(h, numbers);
        file.close();
        const TableRead near = readDataFile(file.path, {}, "h");
        REQUIRE(near.table);
        std::vector<NetcdfDirection> directions{{3, nx, turnX}, {2, ny, turnY}};
        if (nt > 1) directions.push_back({0, nt, false});
        const auto far = farOf(file.path, "h", directions);
        const std::vector<double>& all = *near.table->columns[0].numbers;
        REQUIRE(far->size() == all.size());
        std::size_t different = 0;
        for (std::size_t i = 0; i < all.size(); ++i) {
            if (!areSame(far->at(i), all[i])) ++different;
        }
        CHECK(different == 0);
        std::vector<double> row(nx);
        far->row(ny - 1, row);
        for (std::size_t i = 0; i < nx; ++i) {
            if (!areSame(row[i], all[(ny - 1) * nx + i])) ++different;
        }
        CHECK(different == 0);
        // As a field: values and bounds, the same to the bit.
        MeasuredGrid inMemory, inFile;
        for (const DataAxis& axis : near.table->axes) inMemory.places.push_back(*axis.places);
        inMemory.isLinear = round % 2 == 1;
        inFile = inMemory;
        inMemory.values = near.table->columns[0].numbers;
        inFile.far = far;
        const auto a = fieldOfGrid(inMemory), b = fieldOfGrid(inFile);
        std::uniform_real_distribution<double> share(-0.1, 1.1);
        for (int i = 0; i < 50; ++i) {
            const double place[] = {share(random) * static_cast<double>(nx), share(random) * static_cast<double>(ny),
                                    share(random) * static_cast<double>(nt)};
            CHECK(areSame(a->at(place), b->at(place)));
            std::array<Bounds, 3> box;
            for (std::size_t k = 0; k < 3; ++k) box[k] = {place[k], place[k] + 2 * share(random) * share(random)};
            for (Bounds& side : box) side.high = std::max(side.low, side.high);
            const auto known = a->over(std::span(box).first(a->variables())),
                       same = b->over(std::span(box).first(b->variables()));
            CHECK(known.values.low == same.values.low);
            CHECK(known.values.high == same.values.high);
            CHECK(known.isDefined == same.isDefined);
        }
    }
}

TEST_CASE("several threads that ask for far numbers at once get what one gets") {
    made::Netcdf file("threads.nc", NC_NETCDF4);
    constexpr std::size_t n = 1500;
    const int y = file.dimension("y", n), x = file.dimension("x", n), h = file.variable("h", NC_DOUBLE, {y, x});
    file.begin();
    std::vector<double> numbers(n * n);
    for (std::size_t i = 0; i < numbers.size(); ++i) numbers[i] = static_cast<double>(i);
    file.values(h, numbers);
    file.close();
    const auto far = farOf(file.path, "h", {{1, n, false}, {0, n, false}});
    std::atomic<std::size_t> wrong{0};
    {
        std::vector<std::jthread> threads;
        for (unsigned seed = 0; seed < 4; ++seed) {
            threads.emplace_back([&, seed] {
                std::mt19937 random(seed);
                for (int i = 0; i < 20'000; ++i) {
                    const std::size_t at = random() % numbers.size();
                    if (far->at(at) != static_cast<double>(at)) ++wrong;
                }
            });
        }
    }
    CHECK(wrong == 0);
    CHECK(far->trouble().empty());
}

TEST_CASE("a file that changes while its numbers are used, or is gone, is said and gives none") {
    for (const bool isGone : {false, true}) {
        const auto make = [](double value) {
            made::Netcdf file("changes.nc", NC_64BIT_OFFSET);
            const int y = file.dimension("y", 3), x = file.dimension("x", 3), h = file.variable("h", NC_DOUBLE, {y, x});
            file.begin();
            file.values(h, std::vector<double>(9, value));
            file.close();
            return file.path;
        };
        const fs::path path = make(1);
        const auto far = farOf(path, "h", {{1, 3, false}, {0, 3, false}});
        if (isGone)
            fs::remove(path);
        else
            make(2), fs::resize_file(path, fs::file_size(path) + 8);
        CHECK(std::isnan(far->at(4)));
        CHECK(far->trouble() == "“changes.nc” has changed while it is used.");
    }
}

TEST_CASE("means over squares are those of the numbers under them, missing ones aside, within the same borders") {
    std::mt19937 random(11);
    for (int round = 0; round < 30; ++round) {
        MeasuredGrid grid;
        const std::size_t nx = 3 + random() % 20, ny = 3 + random() % 20, nt = 1 + random() % 3,
                          side = 2 + random() % 4;
        for (const std::size_t n : {nx, ny, nt}) {
            grid.places.emplace_back();
            for (std::size_t i = 0; i < n; ++i) grid.places.back().push_back(static_cast<double>(i) * 0.5);
        }
        if (nt == 1) grid.places.pop_back();
        auto numbers = std::make_shared<std::vector<double>>(nx * ny * nt);
        for (double& number : *numbers) number = random() % 6 == 0 ? std::nan("") : static_cast<double>(random() % 100);
        grid.values = numbers;
        const auto field = fieldOfGrid(grid);
        const auto means = fieldOfMeans(*field, side);
        REQUIRE(means);
        CHECK(means->places(0).size() == (nx + side - 1) / side);
        for (std::size_t t = 0; t < nt; ++t) {
            for (std::size_t y = 0; y < ny; ++y) {
                for (std::size_t x = 0; x < nx; ++x) {
                    double sum = 0;
                    int count = 0;
                    for (std::size_t j = y / side * side; j < std::min(ny, (y / side + 1) * side); ++j) {
                        for (std::size_t i = x / side * side; i < std::min(nx, (x / side + 1) * side); ++i) {
                            const double number = (*numbers)[(t * ny + j) * nx + i];
                            if (!std::isnan(number)) sum += number, ++count;
                        }
                    }
                    const double place[] = {static_cast<double>(x) * 0.5, static_cast<double>(y) * 0.5,
                                            static_cast<double>(t) * 0.5};
                    const double mean = means->at(place);
                    if (count == 0)
                        CHECK(std::isnan(mean));
                    else
                        CHECK(mean == Approx(sum / count));
                }
            }
        }
        const double inside[] = {-0.249, -0.249, 0}, outside[] = {-0.251, 0, 0};
        CHECK(std::isnan(means->at(outside)));
        if (!std::isnan(means->at(std::array{0.0, 0.0, 0.0}.data()))) CHECK_FALSE(std::isnan(means->at(inside)));
    }
}

TEST_CASE("rows of tiles are all rows, each once, whatever the number of tiles") {
    for (const std::size_t rows : {1, 2, 7, 1000, 123'457}) {
        for (const std::size_t of : {1, 2, 3, 7, 1000}) {
            std::size_t next = 0;
            for (std::size_t part = 1; part <= of; ++part) {
                const auto [first, end] = rowsOfTile(rows, part, of);
                CHECK(first == next);
                CHECK(end >= first);
                CHECK(end - first <= rows / of + 1);
                next = end;
            }
            CHECK(next == rows);
        }
    }
}

TEST_CASE("a field in tiles is the field in one piece, with its units and words") {
    const TiledField field = fieldOf(40, 31);
    const fs::path one = folderOf("one"), several = folderOf("several");
    CHECK(make(one, field, 1, 1).empty());
    for (std::size_t part = 1; part <= 4; ++part) CHECK(make(several, field, part, 4).empty());
    const TableRead whole = readDataFile(one), read = readDataFile(several);
    REQUIRE(whole.table);
    REQUIRE(read.table);
    CHECK(*read.table->columns[0].numbers == *whole.table->columns[0].numbers);
    CHECK(read.table->axes == whole.table->axes);
    CHECK(read.table->axes[1].name == "depth");
    CHECK(read.table->axes[1].unit == "cm");
    CHECK(read.table->columns[0].unit == "mm");
    CHECK(read.table->columns[0].meaning == "h(x, depth)");
    CHECK((*read.table->columns[0].numbers)[40 * 3 + 7] == valueAt(field.columns[7], field.rows[3]));
    CHECK(read.table->digest.text().size() == 64);
    CHECK(read.table->digest != whole.table->digest);
    CHECK(isTileThere(several / "2-of-4.nc", field, 2, 4));
    CHECK_FALSE(isTileThere(several / "2-of-4.nc", field, 3, 4));
    TiledField other = field;
    other.whole = "another field";
    CHECK_FALSE(isTileThere(several / "2-of-4.nc", other, 2, 4));
}

TEST_CASE("tiles that are missing, of another field or damaged are named") {
    const TiledField field = fieldOf(12, 20);
    const fs::path folder = folderOf("tiles");
    CHECK(readDataFile(folder).problem.sentence == "It is a folder without tiles of a field.");
    for (const std::size_t part : {1, 3, 5}) CHECK(make(folder, field, part, 5).empty());
    CHECK(readDataFile(folder).problem.sentence == "Of 5 tiles 2 and 4 are not there.");
    for (const std::size_t part : {2, 4}) CHECK(make(folder, field, part, 5).empty());
    REQUIRE(readDataFile(folder).table);
    TiledField other = field;
    other.whole = "another";
    CHECK(make(folder, other, 4, 5).empty());
    CHECK(readDataFile(folder).problem.sentence == "“4-of-5.nc” is a tile of another field than the first one.");
    CHECK(make(folder, field, 4, 5).empty());
    CHECK(make(folder, field, 1, 6).empty());
    CHECK(readDataFile(folder).problem.sentence == "It holds tiles of a field in 5 parts and of one in 6.");
    fs::remove(folder / "1-of-6.nc");
    std::mt19937 random(5);
    const std::string good = made::bytesOf(folder / "2-of-5.nc");
    for (int round = 0; round < 60; ++round) {
        std::string bytes = good;
        if (round % 3 == 0) bytes.resize(random() % bytes.size());
        for (int k = 0; k < 8 && !bytes.empty(); ++k) bytes[random() % bytes.size()] = static_cast<char>(random());
        made::write(folder / "2-of-5.nc", bytes);
        const TableRead read = readDataFile(folder);
        CHECK((read.table || !read.problem.sentence.empty()));
    }
}

TEST_CASE("a tile that is stopped or cannot be written leaves nothing") {
    const TiledField field = fieldOf(12, 20);
    const fs::path folder = folderOf("stopped");
    CHECK(writeTile(folder / "1-of-1.nc", field, 1, 1, [](std::size_t, std::span<double>) { return false; }) ==
          "Stopped; nothing was written.");
    CHECK(fs::is_empty(folder));
    CHECK_FALSE(make(folder / "not there", field, 1, 1).empty());
    std::ofstream(folder / ".1-of-1.nc.123") << "half";
    CHECK(make(folder, field, 1, 1).empty()); // what a process that was killed had left is gone
    CHECK_FALSE(fs::exists(folder / ".1-of-1.nc.123"));
}

TEST_CASE("more numbers than a page holds stay in their tiles, and are the same ones") {
    const TiledField field = fieldOf(5001, 4001);
    const fs::path folder = folderOf("large");
    for (std::size_t part = 1; part <= 3; ++part) REQUIRE(make(folder, field, part, 3).empty());
    const TableRead read = readDataFile(folder);
    REQUIRE(read.table);
    REQUIRE(read.table->far);
    CHECK(read.table->columns[0].numbers->empty());
    std::mt19937 random(2);
    std::size_t different = 0;
    for (int i = 0; i < 300; ++i) {
        const std::size_t x = random() % 5001, y = random() % 4001;
        if (read.table->far->at(y * 5001 + x) != valueAt(field.columns[x], field.rows[y])) ++different;
    }
    CHECK(different == 0);
    fs::remove_all(folder);
}

TEST_CASE("the digest of a large file is known again, until the file changes") {
    const fs::path cache = folderOf("cache"), path = made::pathOf("digests");
    ::setenv("XDG_CACHE_HOME", cache.c_str(), 1);
    std::ofstream(path) << "small";
    auto state = stateOf(path);
    REQUIRE(state);
    CHECK_FALSE(knownDigest(*state));
    keepDigest(*state, std::string(64, 'a'));
    CHECK_FALSE(knownDigest(*state)); // it was written a moment ago, and may be written again
    state->written -= 10'000'000'000;
    state->changed -= 10'000'000'000;
    keepDigest(*state, std::string(64, 'a'));
    CHECK(knownDigest(*state) == std::string(64, 'a'));
    FileState other = *state;
    other.changed += 1;
    CHECK_FALSE(knownDigest(other));
    CHECK(made::bytesOf(cache / "coulter" / "digests").starts_with(std::string(64, 'a') + " "));
    ::unsetenv("XDG_CACHE_HOME");
}
