#pragma once
#include <optional>
#include <string>

namespace coulter {

/// “5 km in m” as a question of the page: “5 * 1000 = ?, unit m”; none if the text is no number with a unit and another
/// unit of the same kind.
std::optional<std::string> conversionQuestion(const std::string& typed);

} // namespace coulter
