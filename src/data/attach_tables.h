#pragma once
#include "figure/document.h"

#include <filesystem>
#include <span>
#include <stop_token>

namespace coulter {

/// Numbers of a table that are more text than this, in bytes, stay in their file: a recipe keeps its name and digest.
inline constexpr std::size_t mostInRecipe = 1'000'000;

/// Names of the tables that the page of a document names, each once.
std::vector<std::string> tablesOf(const Document& document);

/// Whether numbers are few enough to be kept in a recipe.
bool fitsRecipe(const DataTable& table);

/// Whether tables that the page of a document names are not here yet.
bool waitsForTables(const Document& document);

/// Reads the tables that the page of a document names and that are not here yet, from files in the recipe's folder or
/// below, or in folders that are allowed besides. Why one cannot be read is said on its line of the page. A file beside
/// the recipe that is not the one whose digest it keeps is not used.
/// @param folder  of the recipe; empty: it has none yet, and nothing is read
/// @param stop    what is not read by then says so
void attachTables(Document& document, const std::filesystem::path& folder,
                  std::span<const std::filesystem::path> allowed = {}, const std::stop_token& stop = {});

/// Waits until it is known which bytes the numbers of all tables came from, which a recipe keeps; false if a stop came
/// first.
bool awaitDigests(const Document& document, const std::stop_token& stop);

/// The document without the tables of which that is not known yet: their files are read again.
Document withoutComingDigests(const Document& document);

/// A table whose file holds other bytes than those that its numbers were read from.
struct ChangedTable {
    std::string source;
    Problem note; ///< that the numbers of before are used
};
/// The tables of a document, whose numbers are here, that have changed in their files.
/// @param alsoBeside  looks at those whose numbers stay in their file, too: it may be large, and was read a moment ago
///                    if the document was just opened
std::vector<ChangedTable> changedTables(const Document& document, const std::filesystem::path& folder,
                                        bool alsoBeside = false);

/// Where the files of a document's tables are, if recipes may look there.
std::vector<std::filesystem::path> tableFiles(const Document& document, const std::filesystem::path& folder);

/// The table of a file again, in place of the numbers that are kept; rows stay left out where there are as many.
Document withTableReadAgain(const Document& document, const std::string& source, const std::filesystem::path& folder);

} // namespace coulter
