#pragma once
#include "drawing/scene.h"

namespace coulter {

/// The smallest rectangle on the sheet that holds all that is drawn there: lines with their width, areas, letters,
/// pictures. Of width 0 if nothing is.
Rect extentOf(const Scene& scene);

/// A part of a scene as a scene of its own.
Scene cropped(Scene scene, const Rect& kept);

/// A scene as small as what is drawn in it, and a margin round that, mm. One in which nothing is drawn stays as it is.
Scene croppedToContent(Scene scene, double margin);

} // namespace coulter
