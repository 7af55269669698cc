#pragma once
#include "figure/item_path.h"
#include "formula/notation/names.h"
#include "plots/source.h"
#include "typeset/math.h"

#include <memory>
#include <optional>
#include <vector>

namespace coulter {

struct PlotKind;
struct LevelProof;

/// A source and what was sampled of it.
struct Sampled {
    std::shared_ptr<const Source> source;
    std::shared_ptr<const Samples> samples; ///< null until sampled
};

/// One thing on the sheet that is drawn by a kind of plot: a plot, or one case of a plot that is a family.
struct Drawn {
    ItemPath path;
    std::size_t scale = 0; ///< the vertical scale it lies on
    const PlotKind* kind = nullptr;
    std::vector<Sampled> parts;      ///< what is drawn; then what else that needs, such as the other edge of an area
    Settings settings;               ///< of the plot
    std::vector<FinerStretch> finer; ///< of the plot
    std::string of;                  ///< as the plot spells it
    std::optional<std::string> name; ///< legend entry by hand; empty: none
    Colour colour;
    MathPtr entry; ///< derived legend entry: "z = 0.5 m", or the formula drawn
    std::size_t caseCount = 1;
    std::optional<double> caseValue; ///< of a member whose colour says it: the value of the family's quantity
    std::vector<double> dashes;      ///< mm on, mm off, …, if they are its own; empty: those of its pattern
    bool isNamedAlone = false;       ///< the name is that of this member of a family
    bool wordsOnPaper = true;        ///< words beside its marks stand on paper; recipes of the first formats had none
    std::string words;               ///< written beside it, with formulas between $
    std::shared_ptr<const KnownNames> names = nullptr; ///< of the page, for these
    std::shared_ptr<const std::vector<LevelProof>> levelProofs =
        nullptr; ///< once it is known what is proven of its lines
};

/// The curve or field that is drawn, and its samples; null if it is the other, or not sampled yet.
const Curve* curveOf(const Drawn& drawn, std::size_t part = 0);
const Field* fieldOf(const Drawn& drawn);
const Columns* columnsOf(const Drawn& drawn, std::size_t part = 0);
const CurveSamples* curveSamplesOf(const Drawn& drawn, std::size_t part = 0);
const FieldSamples* fieldSamplesOf(const Drawn& drawn, std::size_t part = 0);

/// Whether all that was asked for was sampled.
bool isFinished(const Drawn& drawn);
/// Whether it was not because values take too long to compute.
bool isTooDear(const Drawn& drawn);

} // namespace coulter
