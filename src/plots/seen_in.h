#pragma once
#include "drawing/frame.h"
#include "plots/source.h"

namespace coulter {

/// A program of three components as two: what a view without perspective shows to the right and upwards, without
/// scales of its own.
std::shared_ptr<const Program> seenFrom(const View& view, const Program& inSpace);

/// A source as a panel shows it, once its frame is known: a curve in space through the frame's scales and view, a
/// radius over an angle as a curve in the frame's plane (undefined where the radius is not on its scale). Any other
/// source is itself.
std::shared_ptr<const Source> seenIn(const std::shared_ptr<const Source>& source, const Frame& frame);

} // namespace coulter
