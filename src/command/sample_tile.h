#pragma once
#include "command/interruption.h"
#include "formula/page/page.h"

#include <string>

namespace coulter {

/// One of several tiles of a field (see tile_file.h).
struct TileOrder {
    const Page& page;
    std::string of; ///< what the field is, as it was typed
    std::string folder;
    std::size_t part, parts;
};
/// Writes it, and says what is wrong; the status of the command.
int sampleTile(const TileOrder& order, const Interruption& interruption);

} // namespace coulter
