#pragma once
#include "window_driver.h"

#include <vector>

namespace coulter {

// What a person's hands do again and again on journeys through the window.

const Document& documentOf(WindowDriver& d);
const Frame& frameOf(WindowDriver& d);

/// Writes lines on the page of an empty document, as a person does.
void write(WindowDriver& d, const std::vector<const char*>& lines);
/// An entry of the menu “Add”.
void add(WindowDriver& d, const QString& entry);
/// An entry of one of the menus within it.
void addFrom(WindowDriver& d, const QString& menu, const QString& entry);
/// Goes through a list by its arrow keys until it shows a word.
void choose(WindowDriver& d, const char* field, const QString& word);
void enter(WindowDriver& d, const char* field, const QString& text);
void tick(WindowDriver& d, const char* field);
void selectScale(WindowDriver& d, std::size_t which);

} // namespace coulter
