#pragma once
#include "figure/document.h"

#include <string>

namespace coulter {

/// What a document is about, in one sentence: the first line of prose on its page; empty if there is none.
std::string sentenceOf(const Document& document);

/// Words by which somebody would look for a document, in small letters: its prose, titles and labels, the kinds of its
/// plots and notes, and what is special about its scales and data.
std::string searchWordsOf(const Document& document);

} // namespace coulter
