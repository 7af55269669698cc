#include "plots/drawn.h"

#include <algorithm>

namespace coulter {

const Curve* curveOf(const Drawn& drawn, std::size_t part) {
    return part < drawn.parts.size() ? std::get_if<Curve>(drawn.parts[part].source.get()) : nullptr;
}
const Field* fieldOf(const Drawn& drawn) {
    return drawn.parts.empty() ? nullptr : std::get_if<Field>(drawn.parts[0].source.get());
}
const Columns* columnsOf(const Drawn& drawn, std::size_t part) {
    return part < drawn.parts.size() ? std::get_if<Columns>(drawn.parts[part].source.get()) : nullptr;
}
const CurveSamples* curveSamplesOf(const Drawn& drawn, std::size_t part) {
    return part < drawn.parts.size() ? std::get_if<CurveSamples>(drawn.parts[part].samples.get()) : nullptr;
}
const FieldSamples* fieldSamplesOf(const Drawn& drawn, std::size_t part) {
    return part < drawn.parts.size() ? std::get_if<FieldSamples>(drawn.parts[part].samples.get()) : nullptr;
}

bool isFinished(const Drawn& drawn) {
    return std::ranges::all_of(drawn.parts, [](const Sampled& part) {
        return part.samples && std::visit([](const auto& samples) { return samples.finished; }, *part.samples);
    });
}

bool isTooDear(const Drawn& drawn) {
    return std::ranges::any_of(drawn.parts, [](const Sampled& part) {
        return part.samples && std::visit([](const auto& samples) { return samples.tooDear; }, *part.samples);
    });
}

} // namespace coulter
