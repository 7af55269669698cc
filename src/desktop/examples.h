#pragma once
#include "figure/document.h"

#include <QString>
#include <vector>

namespace coulter {

/// A figure that is part of the program, to begin with.
struct Example {
    QString name;     ///< of its recipe: "two-wells"
    QString sentence; ///< what it shows
    QString words;    ///< by which it is found, in small letters
    Document document;
};

/// All of them, by name; the demos of the manual's gallery.
std::vector<Example> allExamples();
/// One of them.
Example exampleOf(const QString& name);

/// The name as it is read: "Two wells".
QString spelledExample(const QString& name);

} // namespace coulter
