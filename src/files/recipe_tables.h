#pragma once
#include "figure/document.h"
#include "files/json_reader.h"

namespace coulter {

/// The part “tables” of a recipe as text, one row of numbers on each line; empty if the page names none.
std::string writeTables(const Document& document);

/// Reads it again.
DataTables readTables(JsonReader& reader, const JsonReader::Json& root);

} // namespace coulter
