#include "formula/proofs/integral_jet.h"

#include "formula/bounds/jet_rules.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

/// Parts over which the integrand's own slopes are bounded, and those of the value at the middle.
constexpr int partsOfIntegral = 24, mostPartsOfIntegral = 60;
/// How sharp the value at the middle has to be, as a part of the integral of the magnitude: much finer than a sheet
/// shows.
constexpr double sharp = 1e-9;

Bounds firstOf(const Jet<1>& jet, bool centre) { return centre ? jet.centreFirst[0] : jet.first[0]; }

} // namespace

bool IntegralJet::fits(const Program::Integral& integral) {
    return integral.over == Program::Over::Interval && integral.integrand->integrals.empty();
}

IntegralJet::IntegralJet(const Program::Integral& integral)
    : integrand_(*integral.integrand), slopes_(integrand_), value_(integrand_) {}

/// The integrand's jet by its own variable and by that of the operands, each over its interval.
const Jet<2>& IntegralJet::integrandOver(const Jet<1>& k, std::span<const Jet<1>> others, double radiusOfK,
                                         double radius) {
    std::vector<Jet<2>> inputs(1 + others.size());
    inputs[0] = JetRules<2>::constant(k.value);
    inputs[0].centre = k.centre;
    inputs[0].first[0] = inputs[0].centreFirst[0] = exactly(1);
    for (std::size_t i = 0; i < others.size(); ++i) {
        Jet<2>& input = inputs[i + 1];
        input = JetRules<2>::constant(others[i].value);
        input.centre = others[i].centre;
        input.first[1] = others[i].first[0];
        input.centreFirst[1] = others[i].centreFirst[0];
        input.second[Jet<2>::pair(1, 1)] = others[i].second[0];
    }
    return last_ = slopes_(inputs, {radiusOfK, radius})[0];
}

Jet<1> IntegralJet::operator()(std::span<const Jet<1>> operands, double radius) {
    Jet<1> result;
    result.value = result.centre = Enclosure::unknown();
    JetRules<1>::forget(result);
    const Jet<1>&low = operands[0], &high = operands[1];
    const auto others = operands.subspan(2);
    for (const Jet<1>& each : operands) {
        if (!holds(each.value) || !holds(each.centre)) return result;
    }
    std::vector<Bounds> middles;
    std::vector<Jet<1>> atMiddle(others.begin(), others.end());
    bool varies = false;
    for (std::size_t i = 0; i < others.size(); ++i) {
        middles.push_back({others[i].centre.low, others[i].centre.high});
        atMiddle[i].value = others[i].centre;
        atMiddle[i].first = others[i].centreFirst;
        atMiddle[i].second[0] = everything();
        varies = varies || !isZero(others[i].first[0]);
    }
    const auto boundsAt = [](const Enclosure& e) { return Bounds{e.low, e.high}; };
    const auto centre = value_(boundsAt(low.centre), boundsAt(high.centre), middles, {sharp, mostPartsOfIntegral});
    if (!centre) return result;
    result.centre = {centre->low, centre->high};

    // What the limits' movement adds: g(b) b' and, for the second derivative, g_k b'^2 + 2 g_x b' + g b''.
    result.first[0] = result.second[0] = result.centreFirst[0] = exactly(0);
    bool isDefined = true;
    for (const double sign : {-1.0, 1.0}) {
        const Jet<1>& limit = sign > 0 ? high : low;
        if (isZero(limit.first[0])) continue;
        const double reach = std::max(limit.value.high - limit.centre.low, limit.centre.high - limit.value.low);
        const Jet<2> g = integrandOver(limit, others, roundedUp(std::max(0.0, reach)), radius);
        isDefined = isDefined && holds(g.value);
        const Bounds value = boundsOf(g.value), slope = limit.first[0];
        result.first[0] = result.first[0] + sign * (value * slope);
        result.second[0] =
            result.second[0] + sign * (g.first[0] * square(slope) + 2 * (g.first[1] * slope) + value * limit.second[0]);
        result.centreFirst[0] = result.centreFirst[0] + sign * (boundsOf(g.centre) * firstOf(limit, true));
    }
    // ∫ ∂g over what lies between the limits, wherever these are.
    if (varies) {
        const double from = low.centre.low / 2 + low.centre.high / 2, to = high.centre.low / 2 + high.centre.high / 2;
        const double sign = to < from ? -1 : 1, a = std::min(from, to), b = std::max(from, to);
        Bounds first{0, 0}, second{0, 0}, middle{0, 0};
        const auto add = [&](double l, double h, const Bounds& length, bool atCentre) {
            const MiddleAndRadius about = middleAndRadius({l, h});
            Jet<1> k;
            k.value = {l, h};
            k.centre = Enclosure::point(about.middle);
            const Jet<2> g = integrandOver(k, others, about.radius, radius);
            isDefined = isDefined && holds(g.value);
            first = first + g.first[1] * length;
            second = second + g.second[Jet<2>::pair(1, 1)] * length;
            if (!atCentre) return;
            // About the part's middle the slope by k cancels, but for how much it varies.
            const Jet<2> there = integrandOver(k, atMiddle, about.radius, 0);
            const Bounds& bend = there.second[Jet<2>::pair(0, 1)];
            const double uneven = 4e-16 * std::max(std::abs(l), std::abs(h)) * magnitude(bend); // of both halves
            const double reach = (width(bend) * about.radius + uneven) * about.radius * (1 + 0x1p-50);
            const Bounds byMiddle = there.centreFirst[1] * length + Bounds{-reach, reach};
            middle =
                middle + (isBounded(byMiddle) ? common(byMiddle, there.first[1] * length) : there.first[1] * length);
        };
        for (int i = 0; i < partsOfIntegral; ++i) {
            const double l = i == 0 ? a : a + (b - a) * i / partsOfIntegral,
                         h = i + 1 == partsOfIntegral ? b : a + (b - a) * (i + 1) / partsOfIntegral;
            add(l, h, outwards(h - l, h - l), true);
        }
        for (const Jet<1>* limit : {&low, &high}) { // as far as the limits go from there
            if (limit->value.low == limit->value.high) continue;
            const double reach = roundedUp(limit->value.high - limit->value.low);
            add(limit->value.low, limit->value.high, {-reach, reach}, false);
        }
        result.first[0] = result.first[0] + sign * first;
        result.second[0] = result.second[0] + sign * second;
        result.centreFirst[0] = result.centreFirst[0] + sign * middle;
    }
    if (!isDefined || !isBounded(result.first[0])) {
        JetRules<1>::forget(result);
        return result;
    }
    // The value follows from that at the middle and the slopes.
    const Bounds value = *centre + result.first[0] * Bounds{-radius, radius};
    result.value = {value.low, value.high};
    JetRules<1>({radius}).settle(result);
    return result;
}

} // namespace coulter
