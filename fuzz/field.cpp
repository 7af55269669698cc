// Coverage-guided fuzzing: any bytes as a picture, a mesh or a netCDF file, told by what they begin with. It is read,
// or refused with a sentence; what is read is as large as it says, becomes a function that has a value or none
// everywhere, and survives its recipe.
#include "data/picture_numbers.h"
#include "data/read_file.h"
#include "data/read_vtu.h"
#include "files/recipe.h"
#include "formula/lines/answer.h"
#include "formula/lines/read_page.h"
#include "formula/page/page.h"

#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <unistd.h>

using namespace coulter;

namespace {

/// netCDF files in the classic formats are read from the disk; the coverage is that of our reader, not of the library.
/// Those of netCDF-4 are not tried here: what HDF5 makes of damaged bytes is not ours to mend (tests/data damages
/// some).
TableRead readFromDisk(const std::string& bytes) {
    static const std::filesystem::path path =
        std::filesystem::temp_directory_path() / ("coulter-fuzz-" + std::to_string(::getpid()) + ".nc");
    std::ofstream(path, std::ios::binary) << bytes;
    TableRead read = readDataFile(path);
    if (!read.table && !read.variables.empty()) read = readDataFile(path, {}, read.variables.front());
    return read;
}

TableRead readOf(const std::string& bytes) {
    if (bytes.starts_with("\x89PNG")) return tableOfPicture(readPng(bytes, ""));
    if (bytes.starts_with("II") || bytes.starts_with("MM")) return tableOfPicture(readTiff(bytes, ""));
    if (bytes.starts_with("CDF")) return readFromDisk(bytes);
    return readVtu(bytes, "");
}

} // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const std::string bytes(reinterpret_cast<const char*>(data), size);
    const TableRead read = readOf(bytes);
    if (read.table.has_value() != read.problem.sentence.empty()) std::abort();
    if (!read.table) return 0;
    if (read.table->far) { // what a damaged file announces may be larger than it is
        read.table->far->at(0);
        return 0;
    }
    std::size_t count = 1;
    for (const DataAxis& axis : read.table->axes) count *= axis.places->size();
    if (!read.table->axes.empty() && read.table->rows() != count) std::abort();
    if (count > 100'000) return 0;                                  // its recipe would take too long
    if (read.table->axes.size() < 2 && !read.table->mesh) return 0; // columns
    Document document;
    const bool isDeep = read.table->axes.size() == 3;
    document.page = {isDeep ? "p(x, y, z) interpolates \"x\"" : "p(x, y) interpolates \"x\""};
    DataTable table = *read.table;
    table.source = "x";
    document.tables.put(table);
    const RecipeRead again = readRecipe(writeRecipe(document));
    if (!again.document || !(*again.document->tables.find("x") == table)) std::abort();
    const Page page = readPage(document);
    evaluate(page, isDeep ? "p(0.5, 0.5, 0.5)" : "p(0.5, 0.5)");
    return 0;
}
