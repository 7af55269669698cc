#pragma once
#include "figure/document.h"

#include <filesystem>
#include <span>

namespace coulter {

/// Numbers of a table that are more text than this, in bytes, stay in their file: a recipe keeps its name and digest.
inline constexpr std::size_t mostInRecipe = 1'000'000;

/// Names of the tables that the page of a document names, each once.
std::vector<std::string> tablesOf(const Document& document);

/// Whether numbers are few enough to be kept in a recipe.
bool fitsRecipe(const DataTable& table);

/// Reads the tables that the page of a document names and that are not here yet, from files in the recipe's folder or
/// below, or in folders that are allowed besides. Why one cannot be read is said on its line of the page. A file beside
/// the recipe that is not the one whose digest it keeps is not used.
/// @param folder  of the recipe; empty: it has none yet, and nothing is read
void attachTables(Document& document, const std::filesystem::path& folder,
                  std::span<const std::filesystem::path> allowed = {});

/// What is to be said of tables whose numbers are kept in the recipe, and whose files hold others by now.
Problems changedTables(const Document& document, const std::filesystem::path& folder);

/// The table of a file again, in place of the numbers that are kept; rows stay left out where there are as many.
Document withTableReadAgain(const Document& document, const std::string& source, const std::filesystem::path& folder);

} // namespace coulter
