#include "files/samples_csv.h"

#include "formula/text.h"

namespace coulter {

const char* stateName(PointState state) {
    switch (state) {
    case PointState::Grid: return "grid";
    case PointState::Estimated: return "estimated";
    case PointState::Edge: return "edge";
    case PointState::Jump: return "jump";
    case PointState::Pole: return "pole";
    case PointState::Filled: return "filled";
    }
    return "estimated";
}

const char* stateName(const Stretch& stretch, std::size_t i) {
    if (stretch.state[i] == PointState::Estimated && stretch.provenAt(i)) return "proven";
    return stateName(stretch.state[i]);
}

std::string samplesCsv(const CurveSamples& samples) {
    std::string out = "stretch,x,y,state\n";
    for (std::size_t s = 0; s < samples.stretches.size(); ++s) {
        const Stretch& stretch = samples.stretches[s];
        for (std::size_t i = 0; i < stretch.x.size(); ++i) {
            out += std::to_string(s + 1) + "," + shortestNumber(stretch.x[i]) + "," + shortestNumber(stretch.y[i]) +
                   "," + stateName(stretch, i) + "\n";
        }
    }
    return out;
}

} // namespace coulter
