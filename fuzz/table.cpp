// Coverage-guided fuzzing: any bytes as a table that a person drops on the window. It is read, or refused with a
// sentence; what is read has columns of one length, and survives its recipe.
#include "data/read_table.h"
#include "files/recipe.h"

#include <cstdlib>

using namespace coulter;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const TableRead read = readTable(std::string_view(reinterpret_cast<const char*>(data), size), "x");
    if (read.table.has_value() != read.problem.sentence.empty()) std::abort();
    if (!read.table) return 0;
    for (const DataColumn& column : read.table->columns) {
        if (column.numbers->size() != read.table->rows()) std::abort();
    }
    Document document;
    document.page = {"a from \"x\""};
    document.tables.put(*read.table);
    const RecipeRead again = readRecipe(writeRecipe(document));
    if (!again.document || !(*again.document->tables.find("x") == *read.table)) std::abort();
    return 0;
}
