#pragma once
#include "formula/base/problem.h"

#include <QString>
#include <QStringList>
#include <string>

namespace coulter {

/// What the window says, in the language of the person before it. English is what is written in the sources; other
/// languages are catalogues (translations/de.json, kept complete by scripts/translations): of the window's own words,
/// and of what the core says, where {} stands for what a sentence is about. Numbers, formulas and what a figure itself
/// has written on it are the same in every language.

/// "de" or "en", by the names of languages that a person prefers, the first that is known.
QString languageOf(const QStringList& preferred);
/// The one that was chosen in the window, or else the desktop's.
QString chosenLanguage();
/// Keeps a choice for the next start; empty: the desktop's.
void chooseLanguage(const QString& language);
/// Says everything in a language from now on: what is shown already stays as it is.
void speak(const QString& language);

/// What the core says: a sentence, or a word of a setting, a kind, a function.
QString spoken(const std::string& english);
/// A problem with its place and what helps, as `describe` does.
QString spoken(const Problem& problem);
/// Several, as a choice lists them.
template <typename Names> QStringList spokenList(const Names& names) {
    QStringList list;
    for (const auto& name : names) list << spoken(std::string(name));
    return list;
}

} // namespace coulter
