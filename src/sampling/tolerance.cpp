#include "sampling/curve.h"

namespace coulter {

const FinerStretch* Tolerance::finerAt(double t) const {
    for (const FinerStretch& stretch : finer) {
        if (t >= stretch.low && t < stretch.high) return &stretch;
    }
    return nullptr;
}

double Tolerance::at(double t) const {
    const FinerStretch* stretch = finerAt(t);
    return stretch ? usual / (stretch->times * stretch->times) : usual;
}

} // namespace coulter
