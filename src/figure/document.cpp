#include "figure/document.h"

namespace coulter {

Plot plotOf(std::string of, std::string kind) {
    Plot plot;
    plot.kind = std::move(kind);
    plot.of = std::move(of);
    return plot;
}

} // namespace coulter
