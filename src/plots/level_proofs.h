#pragma once
#include "drawing/frame.h"
#include "plots/drawn.h"
#include "plots/effort.h"
#include "sampling/isolines.h"
#include "sampling/zero_proof.h"

#include <functional>
#include <memory>
#include <stop_token>
#include <vector>

namespace coulter {

/// What is proven of the lines of one of a field's levels.
struct LevelProof {
    double level = 0;
    ZeroProof proof;
};

/// Whether lines of a field's levels can be proven: of a formula over a plane, without integrals and measured numbers.
bool canProveLines(const Field& field);

/// What is proven of lines of one level, within the panel and the field's intervals.
/// @param watch  told now and then how many hundredths are done
ZeroProof provenLines(const Field& field, const FieldSamples& samples, double level, const std::vector<Isoline>& lines,
                      const Frame& frame, const Effort& effort, const std::stop_token& stop,
                      const std::function<void(std::size_t, std::size_t)>& watch = {});

/// What is proven of all the lines that a plot of levels draws, by level. Null where nothing can be, or after a stop;
/// the last ones are kept, because figures are drawn again and again, and come back at once.
std::shared_ptr<const std::vector<LevelProof>> provenLevels(const Drawn& drawn, const Frame& frame,
                                                            const Effort& effort, const std::stop_token& stop = {});

/// "99.8 % proven, no other line · ", of one or several levels together; empty of none.
std::string provenWords(const std::vector<ZeroProof>& proofs);

} // namespace coulter
