#pragma once
#include "figure/document.h"

#include <QString>
#include <filesystem>
#include <functional>
#include <stop_token>

class QWidget;

namespace coulter {

/// Does what may take long in a thread of its own and waits for it. From a quarter of a second on a small window says
/// what is done, with a button that stops it; nothing else can be done meanwhile, and everything is drawn as ever.
/// @param work  ends soon after a stop is asked for
void whileReading(QWidget* parent, const QString& what, const std::function<void(const std::stop_token&)>& work);

/// Reads the tables that a document names and that are not here yet (see attachTables), in this way.
void attachWhileReading(QWidget* parent, Document& document, const std::filesystem::path& folder);

/// Waits for the digests of large files, which a recipe keeps, in this way; false if it was stopped.
bool awaitWhileReading(QWidget* parent, const Document& document);

} // namespace coulter
