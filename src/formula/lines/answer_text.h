#pragma once
#include "formula/lines/answer.h"
#include "formula/page/page.h"

#include <string_view>

namespace coulter {

/// An answer as text: "0.4546", "(1, 2)", "{0, 0.5, 1}", a formula, or the places that a search found.
/// @param withError  and a bound of its error, or what is known of it: " ± 2.2e-16", " ± unknown"; and its exact form
std::string answerText(const Answer& answer, bool withError);

/// What is said of an answer that is `unsettled`.
extern const std::string_view unsettledMeans;

} // namespace coulter
