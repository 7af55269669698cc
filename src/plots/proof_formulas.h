#pragma once
#include "figure/document.h"
#include "formula/plotted.h"

#include <memory>

namespace coulter {

/// The panel's plane, in which curves are drawn.
struct Plane {
    const Page& page;
    const Panel& panel;
    ScaleKind xScale, yScale;
};

/// How many components what is plotted has: 1 is a number, 2 a vector in the plane, 3 one in space.
std::size_t componentCount(const Page& page, const Plotted& plotted);

/// The formulas that proofs about a curve are made from (see ProofPrograms), over its variable; null where none exist.
struct ProofFormulas {
    ExprPtr position, bend;
};
ProofFormulas functionProof(const Plane& plane, const ExprPtr& e, const std::string& variable);
ProofFormulas vectorProof(const Plane& plane, const ExprPtr& e, const std::string& variable);
ProofFormulas polarProof(const Plane& plane, const ExprPtr& radius, const std::string& angle);

/// (r cos φ, r sin φ)
ExprPtr polarPoint(const ExprPtr& radius, const std::string& angle);

/// The second derivative by the variable, or null.
ExprPtr secondDerivative(const Page& page, const ExprPtr& e, const std::string& variable);

/// A program of three components as two: what a view without perspective shows to the right and upwards.
std::shared_ptr<const Program> seenFrom(const View& view, const Program& inSpace);

} // namespace coulter
