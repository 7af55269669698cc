#include "data/attach_tables.h"

#include "data/read_table.h"
#include "formula/line_parser.h"
#include "formula/text.h"

#include <algorithm>

namespace coulter {
namespace {

namespace fs = std::filesystem;

bool isWithin(const fs::path& file, const fs::path& folder) {
    std::error_code error;
    const fs::path real = fs::weakly_canonical(file, error), parent = fs::weakly_canonical(folder, error);
    if (error) return false;
    const auto [inParent, inReal] = std::mismatch(parent.begin(), parent.end(), real.begin(), real.end());
    return inParent == parent.end() || (std::next(inParent) == parent.end() && inParent->empty());
}

/// Where a table's file is; none if it lies where recipes may not look.
std::optional<fs::path> fileOf(const std::string& source, const fs::path& folder, std::span<const fs::path> allowed) {
    const fs::path file = fs::path(source).is_absolute() ? fs::path(source) : folder / source;
    if (isWithin(file, folder)) return file;
    if (std::ranges::any_of(allowed, [&](const fs::path& each) { return isWithin(file, each); })) return file;
    return std::nullopt;
}

DataTable troubled(const std::string& source, std::string trouble) {
    DataTable table;
    table.source = source;
    table.trouble = std::move(trouble);
    return table;
}

DataTable readOf(const std::string& source, const fs::path& folder, std::span<const fs::path> allowed) {
    const auto file = fileOf(source, folder, allowed);
    if (!file)
        return troubled(source, "it lies outside the recipe's folder; move it there, or allow its folder with "
                                "--allow-folder.");
    TableRead read = readTableFile(*file);
    if (!read.table)
        return troubled(source, read.problem.sentence +
                                    (read.problem.suggestion.empty() ? "" : " (" + read.problem.suggestion + ")"));
    read.table->source = source;
    read.table->isBeside = !fitsRecipe(*read.table);
    return std::move(*read.table);
}

} // namespace

std::vector<std::string> tablesOf(const Document& document) {
    std::vector<std::string> names;
    for (const std::string& source : document.page) {
        if (source.find("from") == std::string::npos) continue; // without reading each line as often as it is edited
        const Line line = outlineLine(source).line;
        if (line.kind == LineKind::Table && std::ranges::find(names, line.table) == names.end())
            names.push_back(line.table);
    }
    return names;
}

bool fitsRecipe(const DataTable& table) {
    if (table.rows() * table.columns.size() > mostInRecipe / 2) return false;
    std::size_t size = 0;
    for (const DataColumn& column : table.columns) {
        for (const double number : *column.numbers) size += 2 + shortestNumber(number).size();
    }
    return size <= mostInRecipe;
}

void attachTables(Document& document, const fs::path& folder, std::span<const fs::path> allowed) {
    if (folder.empty()) return;
    for (const std::string& source : tablesOf(document)) {
        const DataTables::Entry known = document.tables.find(source);
        const bool waits = known && known->isBeside && known->rows() == 0;
        if (known && known->trouble.empty() && !waits) continue;
        DataTable table = readOf(source, folder, allowed);
        if (known && known->isBeside && table.trouble.empty()) {
            if (table.digest != known->digest)
                table = troubled(source, "it is not the file that the figure was made from: it has changed since.");
            table.leftOut = known->leftOut;
            table.isBeside = true;
        }
        if (known && known->isBeside) table.digest = known->digest;
        document.tables.put(std::move(table));
    }
}

Problems changedTables(const Document& document, const fs::path& folder) {
    Problems notes;
    if (folder.empty()) return notes;
    for (const std::string& source : tablesOf(document)) {
        const DataTables::Entry known = document.tables.find(source);
        if (!known || known->digest.empty() || known->isBeside || !known->trouble.empty()) continue;
        const auto file = fileOf(source, folder, {});
        std::error_code error;
        if (!file || !fs::exists(*file, error)) continue; // its numbers are in the recipe
        const TableRead now = readTableFile(*file);
        if (now.table && now.table->digest == known->digest) continue;
        Problem problem;
        problem.sentence = "“" + source + "” has changed since its numbers were taken into the recipe; these are used.";
        problem.suggestion = "read it again if the new ones are wanted";
        problem.severity = Problem::Severity::Note;
        notes.push_back(std::move(problem));
    }
    return notes;
}

Document withTableReadAgain(const Document& document, const std::string& source, const fs::path& folder) {
    Document changed = document;
    const DataTables::Entry known = document.tables.find(source);
    DataTable table = readOf(source, folder, {});
    if (known && known->rows() == table.rows()) table.leftOut = known->leftOut;
    changed.tables.put(std::move(table));
    return changed;
}

} // namespace coulter
