#pragma once
#include "drawing/scene.h"

#include <string>

namespace coulter {

/// The scene as an SVG 1.1 drawing at its true size; letters are outlines, so that it looks alike everywhere.
/// Numbers are written with a fixed count of decimals and no other state enters, so equal scenes give equal bytes.
/// @param title     plain text for readers that cannot see; may be empty
/// @param metadata  character data of the <metadata> element; may be empty
/// @param hasPaper  false: what lies behind the drawing shows through
std::string writeSvg(const Scene& scene, const std::string& title, const std::string& metadata, bool hasPaper = true);

/// Text with the five characters that XML reserves escaped.
std::string xmlEscaped(const std::string& text);

} // namespace coulter
