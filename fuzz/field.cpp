// Coverage-guided fuzzing: any bytes as a picture or a mesh, told by what they begin with. It is read, or refused with a
// sentence; what is read is as large as it says, becomes a function that has a value or none everywhere, and survives
// its recipe.
#include "data/picture_numbers.h"
#include "data/read_vtu.h"
#include "files/recipe.h"
#include "formula/page.h"

#include <cstdlib>

using namespace coulter;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const std::string bytes(reinterpret_cast<const char*>(data), size);
    const TableRead read = bytes.starts_with("\x89PNG")                            ? tableOfPicture(readPng(bytes, ""))
                           : bytes.starts_with("II") || bytes.starts_with("MM") ? tableOfPicture(readTiff(bytes, ""))
                                                                                   : readVtu(bytes, "");
    if (read.table.has_value() != read.problem.sentence.empty()) std::abort();
    if (!read.table) return 0;
    std::size_t count = 1;
    for (const DataAxis& axis : read.table->axes) count *= axis.places->size();
    if (!read.table->axes.empty() && read.table->rows() != count) std::abort();
    if (count > 100'000) return 0; // its recipe would take too long
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
