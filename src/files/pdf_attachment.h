#pragma once
#include <optional>
#include <string>
#include <string_view>

namespace coulter {

/// A PDF with a text attached to it as a file; empty if that cannot be done. Equal input gives equal bytes.
std::string withAttachment(const std::string& pdf, const std::string& name, const std::string& text);

/// The text of an attached file; none if there is none.
std::optional<std::string> attachmentIn(std::string_view pdf, const std::string& name);

} // namespace coulter
