#include "sampling/pieced_field.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <limits>

namespace coulter {
namespace {

/// Switches that are followed: the points of a table and the cells of a measured field are too many, and are no more
/// than corners.
Switches followedSwitches(const Program& f, PiecedField::Knows knows) {
    if (knows == PiecedField::Knows::Nothing) return {};
    Switches found = switchesOf(f, true);
    std::erase_if(found.each, [&](const Switches::Each& each) {
        return each.table || each.field || (knows == PiecedField::Knows::Jumps && !each.isJump);
    });
    return found;
}

/// Which side of a switch the field is on. A sign has a side of its own where its operand is zero, because its value
/// there is that of neither.
double sideOf(const Switches::Each& each, double a, double b) {
    if (each.kernel == Kernel::Sgn) return a > 0 ? 1 : a < 0 ? -1 : 0;
    return pieceOf(each, a, b);
}

} // namespace

PiecedField::PiecedField(const Program& f, Knows knows, std::stop_token stop)
    : components_(f.outputs.size()), switches_(followedSwitches(f, knows)),
      program_(switches_.each.empty() ? f : switches_.program), evaluator_(program_), stop_(std::move(stop)),
      here_(program_.outputs.size()) {
    evaluator_.limit(stop_, std::numeric_limits<std::int64_t>::max());
    for (double& value : here_) into_.push_back(&value);
    operands_.assign(into_.begin(), into_.end());
}

void PiecedField::operator()(const std::vector<double>& x, const std::vector<double>& y,
                             std::vector<std::vector<double>>& values, std::vector<Piece>& pieces) {
    const std::size_t outputs = program_.outputs.size();
    values.assign(outputs, std::vector<double>(x.size()));
    std::vector<double*> out;
    for (auto& column : values) out.push_back(column.data());
    const double* const in[] = {x.data(), y.data()};
    evaluateInParallel(program_, in, out, x.size(), stop_);
    evaluations_ += x.size();
    pieces.assign(x.size(), 0);
    const std::vector<const double*> operands(out.begin(), out.end());
    for (std::size_t i = 0; hasPieces() && i < x.size(); ++i) pieces[i] = pieceOf(operands, i);
    values.resize(components_);
}

PiecedField::Piece PiecedField::at(double x, double y, std::span<double> values) {
    const double* const in[] = {&x, &y};
    evaluator_(in, into_, 1);
    ++evaluations_;
    std::copy_n(here_.begin(), components_, values.begin());
    return pieceOf(operands_, 0);
}

PiecedField::Spot PiecedField::at(double x, double y) {
    Spot spot{x, y, std::vector<double>(components_)};
    spot.piece = at(x, y, spot.values);
    spot.isDefined = std::ranges::all_of(spot.values, [](double value) { return std::isfinite(value); });
    return spot;
}

/// Mixed as by splitmix64 (G. L. Steele, D. Lea, C. H. Flood, "Fast splittable pseudorandom number generators", 2014).
PiecedField::Piece PiecedField::pieceOf(const std::vector<const double*>& operands, std::size_t place) const {
    Piece mixed = 0;
    for (const Switches::Each& each : switches_.each) {
        const double side = sideOf(each, operands[each.first][place], operands[each.second][place]);
        mixed = (mixed ^ std::bit_cast<std::uint64_t>(side + 0.0)) + 0x9e3779b97f4a7c15U;
        mixed = (mixed ^ mixed >> 30) * 0xbf58476d1ce4e5b9U;
        mixed = (mixed ^ mixed >> 27) * 0x94d049bb133111ebU;
        mixed ^= mixed >> 31;
    }
    return mixed;
}

} // namespace coulter
