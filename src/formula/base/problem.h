#pragma once
#include <optional>
#include <string>
#include <vector>

namespace coulter {

/// An edit that would set a line right: characters replaced, or a further line below.
struct Remedy {
    int first = 0; ///< first character replaced, from 1; 0: `text` is a line of its own, put below
    int last = 0;
    std::string text;
    bool isSpelling = false; ///< the same in the spelling of print: nothing else can have been meant

    friend bool operator==(const Remedy&, const Remedy&) = default;
};

/// Something the reader of a page should know, with its place. Problems are values: they are returned, never thrown.
struct Problem {
    enum class Severity { Error, Note };

    int line = -1;          ///< line of the page, from 0; −1: not on the page
    int first = 0;          ///< first character concerned, counted in Unicode characters from 1; 0: no place
    int last = 0;           ///< last character concerned
    std::string sentence;   ///< one plain sentence
    std::string suggestion; ///< what to do or write instead; may be empty
    Severity severity = Severity::Error;
    bool follows = false;                        ///< only the consequence of a problem on another line
    std::optional<Remedy> remedy = std::nullopt; ///< where one is obvious: taken by a single key

    friend bool operator==(const Problem&, const Problem&) = default;
};

/// "line 2, character 7: sentence — suggestion", with 1-based numbers, as printed by the command line.
std::string describe(const Problem& problem);

/// A problem that belongs to no line.
Problem saying(std::string sentence, std::string suggestion = "");

using Problems = std::vector<Problem>;

} // namespace coulter
