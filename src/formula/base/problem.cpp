#include "formula/base/problem.h"

namespace coulter {

std::string describe(const Problem& problem) {
    std::string text;
    if (problem.line >= 0) text = "line " + std::to_string(problem.line + 1) + ", ";
    if (problem.first > 0) {
        text += "character " + std::to_string(problem.first) + ": ";
    }
    text += problem.sentence;
    if (!problem.suggestion.empty()) text += " — " + problem.suggestion;
    return text;
}

Problem saying(std::string sentence, std::string suggestion) {
    Problem problem;
    problem.sentence = std::move(sentence);
    problem.suggestion = std::move(suggestion);
    return problem;
}

} // namespace coulter
