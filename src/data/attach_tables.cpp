#include "data/attach_tables.h"

#include "data/digest.h"
#include "data/read_file.h"
#include "formula/base/text.h"
#include "formula/page/line_parser.h"

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
    const fs::path named = readTableKey(source).file;
    const fs::path file = named.is_absolute() ? named : folder / named;
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

bool isHere(const DataTables::Entry& table) {
    const bool waits = table && table->isBeside && table->rows() == 0 && !table->far;
    return table && table->trouble.empty() && !waits;
}

DataTable readOf(const std::string& source, const fs::path& folder, std::span<const fs::path> allowed,
                 const std::stop_token& stop = {}) {
    const auto file = fileOf(source, folder, allowed);
    if (!file)
        return troubled(source, "it lies outside the recipe's folder; move it there, or allow its folder with "
                                "--allow-folder.");
    TableRead read = readDataFile(*file, {}, readTableKey(source).variable, stop);
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
        if (source.find('"') == std::string::npos) continue; // without reading each line as often as it is edited
        const Line line = outlineLine(source).line;
        if (!line.table.empty() && std::ranges::find(names, line.table) == names.end()) names.push_back(line.table);
    }
    return names;
}

bool waitsForTables(const Document& document) {
    return !std::ranges::all_of(tablesOf(document),
                                [&](const std::string& source) { return isHere(document.tables.find(source)); });
}

bool fitsRecipe(const DataTable& table) {
    if (table.far) return false;
    if (table.rows() * table.columns.size() > mostInRecipe / 2) return false;
    std::size_t size = 0;
    const auto add = [&](const Column& column) {
        for (const double number : *column) size += 2 + shortestNumber(number).size();
    };
    for (const DataColumn& column : table.columns) add(column.numbers);
    if (table.mesh) {
        if (table.mesh->places[0]->size() + table.mesh->corners[0]->size() > mostInRecipe / 4) return false;
        for (const Column& column : table.mesh->places) add(column);
        for (const Column& column : table.mesh->corners) add(column);
    }
    return size <= mostInRecipe;
}

void attachTables(Document& document, const fs::path& folder, std::span<const fs::path> allowed,
                  const std::stop_token& stop) {
    if (folder.empty()) return;
    for (const std::string& source : tablesOf(document)) {
        const DataTables::Entry known = document.tables.find(source);
        if (isHere(known)) continue;
        DataTable table = readOf(source, folder, allowed, stop);
        if (known && known->isBeside && table.trouble.empty()) {
            if (!table.digest.wait(stop))
                table = troubled(source, "reading was stopped; read it again.");
            else if (table.digest != known->digest)
                table = troubled(source, "it is not the file that the figure was made from: it has changed since.");
            table.leftOut = known->leftOut;
            table.isBeside = true;
        }
        if (known && known->isBeside) table.digest = known->digest;
        document.tables.put(std::move(table));
    }
}

bool awaitDigests(const Document& document, const std::stop_token& stop) {
    return std::ranges::all_of(document.tables, [&](const DataTables::Entry& each) { return each->digest.wait(stop); });
}

Document withoutComingDigests(const Document& document) {
    Document kept = document;
    for (const DataTables::Entry& each : document.tables) {
        if (!each->digest.isKnown()) kept.tables.remove(each->source);
    }
    return kept;
}

std::vector<ChangedTable> changedTables(const Document& document, const fs::path& folder, bool alsoBeside) {
    std::vector<ChangedTable> changed;
    if (folder.empty()) return changed;
    for (const std::string& source : tablesOf(document)) {
        const DataTables::Entry known = document.tables.find(source);
        // What was changed by hand is another table by now; read again it is asked for.
        if (!known || known->digest.empty() || known->isEdited || !known->trouble.empty()) continue;
        if (known->isBeside && !alsoBeside) continue;
        const auto file = fileOf(source, folder, {});
        const auto now = file ? digestOfFile(*file) : std::nullopt;
        if (!now || *now == known->digest.text()) continue; // gone or the same: the numbers that are here count
        Problem note;
        note.sentence = "“" + source + "” has changed since its numbers were taken in; these are used.";
        note.suggestion = "read it again if the new ones are wanted";
        note.severity = Problem::Severity::Note;
        changed.push_back({source, std::move(note)});
    }
    return changed;
}

std::vector<fs::path> tableFiles(const Document& document, const fs::path& folder) {
    std::vector<fs::path> files;
    if (folder.empty()) return files;
    for (const std::string& source : tablesOf(document)) {
        const auto file = fileOf(source, folder, {});
        if (file && std::ranges::find(files, *file) == files.end()) files.push_back(*file);
    }
    return files;
}

Document withTableReadAgain(const Document& document, const std::string& source, const fs::path& folder) {
    Document changed = document;
    const DataTables::Entry known = document.tables.find(source);
    DataTable table = readOf(source, folder, {});
    if (known && known->rows() == table.rows() && known->axes.size() == table.axes.size())
        table.leftOut = known->leftOut;
    changed.tables.put(std::move(table));
    return changed;
}

} // namespace coulter
