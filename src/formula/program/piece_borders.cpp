#include "formula/program/piece_borders.h"

#include "formula/base/text.h"
#include "special/operations.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

namespace coulter {
namespace {

/// More borders than that are too many to be drawn as what they are.
constexpr std::size_t mostBorders = 4'000;

} // namespace

PieceFinder::PieceFinder(const Program& f) : switches_(switchesOf(f)) {}

double between(double a, double b) {
    const double middle = a / 2 + b / 2;
    // Across zero, and far apart in magnitude, halving the exponent ends sooner than halving the distance.
    if (a != 0 && b != 0 && (a < 0) == (b < 0)) {
        const double ratio = std::abs(a / b);
        if (ratio > 1e3 || ratio < 1e-3) return std::copysign(std::sqrt(std::abs(a)) * std::sqrt(std::abs(b)), a);
    } else if (a == 0 || b == 0) {
        const double other = a == 0 ? b : a;
        if (std::abs(other) < 1e-150) return other / 1024 != 0 ? other / 1024 : other / 2;
    }
    return middle;
}

double simpler(double a, double b) { return shortestNumber(a).size() < shortestNumber(b).size() ? a : b; }

std::vector<double> unevenShares(std::size_t count) {
    std::vector<double> shares{0};
    const auto last = static_cast<double>(count - 1);
    for (std::size_t i = 1; i + 1 < count; ++i)
        shares.push_back((static_cast<double>(i) + 0.3 * (static_cast<double>(i * 37 % 101) / 101 - 0.5)) / last);
    shares.push_back(1);
    return shares;
}

std::vector<PieceBorder> PieceFinder::within(double low, double high, std::span<const double> others,
                                             const std::stop_token& stop) {
    std::vector<double> looks = unevenShares(looksWithin);
    for (double& look : looks) look = low + (high - low) * look;
    looks.back() = high;
    return find(std::move(looks), others, stop, true);
}

std::vector<PieceBorder> PieceFinder::operator()(std::span<const double> looks, std::span<const double> others,
                                                 const std::stop_token& stop) {
    return find({looks.begin(), looks.end()}, others, stop, false);
}

std::vector<std::vector<double>> PieceFinder::valuesAt(Evaluator& evaluator, std::span<const double> at,
                                                       std::span<const double> others) const {
    std::vector<std::vector<double>> values(switches_.program.outputs.size(), std::vector<double>(at.size())), same;
    std::vector<double*> into;
    for (auto& column : values) into.push_back(column.data());
    for (const double other : others) same.emplace_back(at.size(), other);
    std::vector<const double*> in{at.data()};
    for (const auto& column : same) in.push_back(column.data());
    evaluator(in, into, at.size());
    return values;
}

/// A condition that holds over less than the distance of two looks shows by how near it comes to doing so: where both
/// its sides come nearest to each other on a parabola through three looks, and would meet, that is looked at.
std::vector<double> PieceFinder::dips(Evaluator& evaluator, std::span<const double> looks,
                                      std::span<const double> others,
                                      const std::vector<std::vector<double>>& seen) const {
    std::vector<double> found;
    if (looks.size() < 5) return found;
    for (const Switches::Each& each : switches_.each) {
        const bool isSign = operationOf(each.kernel).isBySign;
        if (!isSign || each.table || each.field) continue;
        const auto apart = [&](const std::vector<std::vector<double>>& values, std::size_t i) {
            return each.first == each.second ? values[each.first][i] : values[each.first][i] - values[each.second][i];
        };
        const auto bendAt = [&](std::size_t i) {
            const double left = looks[i] - looks[i - 1], right = looks[i + 1] - looks[i];
            return ((apart(seen, i + 1) - apart(seen, i)) / right - (apart(seen, i) - apart(seen, i - 1)) / left) /
                   (left + right);
        };
        for (std::size_t i = 2; i + 2 < looks.size() && found.size() < mostBorders; ++i) {
            const double here = apart(seen, i), sign = here > 0 ? 1 : -1;
            if (!(sign * here > 0 && sign * apart(seen, i - 1) >= sign * here &&
                  sign * apart(seen, i + 1) >= sign * here))
                continue;
            // A jump is no parabola: the one beside it is another.
            const double bend = bendAt(i);
            const auto isLike = [&](double other) { return std::abs(other - bend) <= std::abs(bend) / 2; };
            if (bend == 0 || !isLike(bendAt(i - 1)) || !isLike(bendAt(i + 1))) continue;
            const double right = looks[i + 1] - looks[i];
            const double slope = (apart(seen, i + 1) - here) / right - bend * right, away = -slope / (2 * bend);
            const double rise = std::max(sign * apart(seen, i - 1), sign * apart(seen, i + 1)) - sign * here;
            if (sign * (here - slope * slope / (4 * bend)) > 0.1 * rise) continue;
            // Three places round the lowest one, nearer and nearer.
            double middle = looks[i] + away, reach = std::max(right, looks[i] - looks[i - 1]) / 8;
            for (int round = 0; round < 6; ++round, reach /= 8) {
                const std::array<double, 3> at{middle - reach, middle, middle + reach};
                const auto values = valuesAt(evaluator, at, others);
                const double low = sign * apart(values, 0), centre = sign * apart(values, 1),
                             high = sign * apart(values, 2);
                const std::size_t least = low < centre && low < high ? 0 : high < centre ? 2 : 1;
                if (sign * apart(values, least) < 0) {
                    found.push_back(at[least]);
                    break;
                }
                const double curve = low - 2 * centre + high;
                if (!(curve > 0)) break;
                middle += reach * (low - high) / (2 * curve);
            }
        }
    }
    return found;
}

std::vector<PieceBorder> PieceFinder::find(std::vector<double> looks, std::span<const double> others,
                                           const std::stop_token& stop, bool withDips) {
    if (switches_.each.empty() || looks.size() < 2) return {};
    Evaluator evaluator(switches_.program);
    evaluator.limit(stop, std::numeric_limits<std::int64_t>::max());
    const std::size_t outputs = switches_.program.outputs.size();
    auto seen = valuesAt(evaluator, looks, others);
    if (withDips) {
        if (const std::vector<double> further = dips(evaluator, looks, others, seen); !further.empty()) {
            looks.insert(looks.end(), further.begin(), further.end());
            std::ranges::sort(looks);
            looks.erase(std::unique(looks.begin(), looks.end()), looks.end());
            seen = valuesAt(evaluator, looks, others);
        }
    }
    std::vector<std::vector<double>> same;
    for (const double other : others) same.emplace_back(looks.size(), other);
    std::vector<const double*> in{looks.data()};
    for (const auto& column : same) in.push_back(column.data());

    // Three halvings at a time: all the places that they can come to cost as much as one.
    constexpr std::size_t ahead = 7;
    std::vector<std::array<double, ahead>> here(outputs);
    std::vector<double*> intoHere;
    for (auto& values : here) intoHere.push_back(values.data());
    std::vector<PieceBorder> borders;
    for (const Switches::Each& each : switches_.each) {
        std::array<double, ahead> places;
        const auto pieceAt = [&](std::size_t place) {
            const double a = here[each.first][place], b = here[each.second][place];
            return std::isnan(a) || std::isnan(b) ? std::nan("") : pieceOf(each, a, b);
        };
        for (std::size_t i = 0; i + 1 < looks.size() && borders.size() < mostBorders; ++i) {
            const auto pieceOfLook = [&](std::size_t k) {
                return pieceOf(each, seen[each.first][k], seen[each.second][k]);
            };
            double left = looks[i], pieceLeft = pieceOfLook(i);
            const double right = looks[i + 1], pieceRight = pieceOfLook(i + 1);
            if (std::isnan(pieceLeft) || std::isnan(pieceRight)) continue;
            // A whole part may pass several numbers between two looks: one after the other.
            for (int more = 0; more < 8 && pieceLeft != pieceRight && !stop.stop_requested(); ++more) {
                double a = left, b = right, pieceB = pieceRight;
                bool halves = true;
                for (int step = 0; step < 400 && halves; ++step) {
                    places[0] = between(a, b);
                    places[1] = between(a, places[0]);
                    places[2] = between(places[0], b);
                    places[3] = between(a, places[1]);
                    places[4] = between(places[1], places[0]);
                    places[5] = between(places[0], places[2]);
                    places[6] = between(places[2], b);
                    in[0] = places.data();
                    evaluator(in, intoHere, ahead);
                    for (std::size_t place = 0; place < ahead && halves;) {
                        const double middle = places[place];
                        halves = middle > a && middle < b;
                        if (!halves) break;
                        const double piece = pieceAt(place);
                        if (piece == pieceLeft) {
                            a = middle;
                            place = 2 * place + 2;
                        } else {
                            b = middle;
                            pieceB = piece;
                            place = 2 * place + 1;
                        }
                    }
                }
                borders.push_back({a, b});
                left = b;
                pieceLeft = pieceB;
                if (std::isnan(pieceB)) break;
            }
        }
    }
    std::ranges::sort(borders, {}, &PieceBorder::before);
    borders.erase(std::unique(borders.begin(), borders.end(),
                              [](const PieceBorder& a, const PieceBorder& b) { return a.before == b.before; }),
                  borders.end());
    return borders;
}

} // namespace coulter
