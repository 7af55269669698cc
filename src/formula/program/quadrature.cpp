#include "formula/program/quadrature.h"

#include "formula/program/graded_integral.h"
#include "formula/program/oscillating_tail.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

namespace coulter {
namespace {

// Nodes and weights of the 15-point Kronrod rule on [−1, 1] and of the 7-point Gauss rule that shares every second
// node, as they are tabulated; a test checks that the rule is exact for all polynomials up to degree 22.
constexpr std::array<double, 8> nodes{0.991455371120812639206854697526329, 0.949107912342758524526189684047851,
                                      0.864864423359769072789712788640926, 0.741531185599394439863864773280788,
                                      0.586087235467691130294144691693013, 0.405845151377397166906606412076961,
                                      0.207784955007898467600689403773245, 0};
constexpr std::array<double, 8> kronrod{0.022935322010529224963732008058970, 0.063092092629978553290700663189204,
                                        0.104790010322250183839876322541518, 0.140653259715525918745189590510238,
                                        0.169004726639267902826583426598550, 0.190350578064785409913256402421014,
                                        0.204432940075298892414161999234649, 0.209482141084727828012999174891714};
constexpr std::array<double, 4> gauss{0.129484966168869693270611432679082, 0.279705391489276667901467771423780,
                                      0.381830050505118944950369775488975, 0.417959183673469387755102040816327};
constexpr std::size_t points = 15;

constexpr double epsilon = std::numeric_limits<double>::epsilon();
constexpr double wantedOfMagnitude = 1e-13;  ///< of the integral of the magnitude
constexpr double acceptedOfMagnitude = 1e-6; ///< beyond, a value would mislead
constexpr double poor = 1e-11;               ///< beyond, other ways are tried
constexpr int firstPieces = 4;               ///< so that what is narrow has a chance to be met
constexpr int fewestForMore = 100;           ///< pieces: integrals deeper inside others have less to spend
constexpr std::size_t batch = 272;           ///< pieces evaluated in one run

struct Piece {
    double from = 0, to = 0; ///< of the variable t
    double value = 0, error = 0, magnitude = 0;
    int stagnant = 0; ///< how often dividing has not made the error smaller
};

/// One integral: k as a function of t, and its pieces.
struct Task {
    double start = 0, sign = 1; ///< of an infinite range: k = start + sign t/(1 − t)
    bool infinite = false;
    bool undefined = false;
    double from = 0, to = 0; ///< of a finite range
    std::vector<Piece> pieces;
};

double place(const Task& task, double t, double& scale) {
    if (!task.infinite) {
        scale = 1;
        return t;
    }
    scale = 1 / ((1 - t) * (1 - t));
    return task.start + task.sign * t / (1 - t);
}

void judge(Piece& piece, const double* values) {
    const double half = (piece.to - piece.from) / 2;
    double k = 0, g = 0, magnitude = 0;
    for (std::size_t i = 0; i < 8; ++i) {
        const double pair = i == 7 ? values[7] : values[i] + values[14 - i];
        const double pairMagnitude = i == 7 ? std::abs(values[7]) : std::abs(values[i]) + std::abs(values[14 - i]);
        k += kronrod[i] * pair;
        magnitude += kronrod[i] * pairMagnitude;
        if (i % 2 == 1) g += gauss[i / 2] * pair;
    }
    double spread = 0; // integral of the distance from the mean
    for (std::size_t i = 0; i < points; ++i) spread += kronrod[std::min(i, 14 - i)] * std::abs(values[i] - k / 2);
    piece.value = k * half;
    piece.magnitude = magnitude * half;
    double error = std::abs((k - g) * half);
    spread *= half;
    if (spread != 0 && error != 0) error = spread * std::min(1.0, std::pow(200 * error / spread, 1.5));
    piece.error = std::max(error, 4 * epsilon * piece.magnitude);
}

void begin(Task& task, double low, double high) {
    double from = low, to = high;
    if (std::isnan(low) || std::isnan(high)) {
        task.undefined = true;
        task.from = task.to = std::numeric_limits<double>::quiet_NaN();
        return;
    }
    if (std::isinf(high)) {
        task = {low, 1, true, false, 0, 1, {}};
        from = 0, to = 1;
    } else if (std::isinf(low)) {
        task = {high, -1, true, false, 0, 1, {}};
        from = 0, to = 1;
    }
    task.from = from, task.to = to;
    for (int i = 0; i < firstPieces; ++i) {
        const double a = from + (to - from) * i / firstPieces;
        const double b = i + 1 == firstPieces ? to : from + (to - from) * (i + 1) / firstPieces;
        task.pieces.push_back({a, b});
    }
}

struct Work {
    std::size_t task;
    std::size_t piece;
};

/// Evaluates the integrand on all pieces of `work`.
bool evaluatePieces(const Quadrature::Integrand& integrand, std::vector<Task>& tasks, std::span<const Work> work,
                    std::span<const std::uint32_t> owner) {
    std::vector<double> ks, scales, values;
    std::vector<std::uint32_t> which;
    for (std::size_t start = 0; start < work.size(); start += batch) {
        const auto part = work.subspan(start, std::min(batch, work.size() - start));
        ks.clear(), scales.clear(), which.clear();
        for (const auto& [task, index] : part) {
            const Piece& piece = tasks[task].pieces[index];
            const double middle = (piece.from + piece.to) / 2, half = (piece.to - piece.from) / 2;
            for (std::size_t i = 0; i < points; ++i) {
                const double offset = i < 7 ? -nodes[i] : nodes[14 - i];
                double scale = 1;
                ks.push_back(place(tasks[task], middle + half * offset, scale));
                scales.push_back(scale);
                which.push_back(owner[task]);
            }
        }
        values.resize(ks.size());
        if (!integrand(ks, which, values.data())) return false;
        for (std::size_t p = 0; p < part.size(); ++p) {
            Task& task = tasks[part[p].task];
            double* here = values.data() + p * points;
            for (std::size_t i = 0; i < points; ++i) {
                // Far out, where k itself overflows, a vanishing integrand stays 0.
                here[i] = here[i] == 0 ? 0 : here[i] * scales[p * points + i];
                if (!std::isfinite(here[i])) task.undefined = true;
            }
            judge(task.pieces[part[p].piece], here);
        }
    }
    return true;
}

/// Divides the pieces of one task that still matter; appends the halves to `work`.
void refine(Task& task, std::size_t index, int mostPieces, std::vector<Work>& work) {
    double error = 0, magnitude = 0;
    for (const Piece& piece : task.pieces) error += piece.error, magnitude += piece.magnitude;
    const double goal = wantedOfMagnitude * magnitude;
    const std::size_t count = task.pieces.size();
    if (task.undefined || error <= goal) return;
    for (std::size_t i = 0; i < count && static_cast<int>(task.pieces.size()) < mostPieces; ++i) {
        Piece piece = task.pieces[i];
        const double middle = (piece.from + piece.to) / 2;
        const bool worth = piece.error > goal / (2.0 * static_cast<double>(count)) &&
                           piece.error > 8 * epsilon * piece.magnitude && piece.stagnant < 6;
        const bool divisible = (middle - piece.from) > 8 * epsilon * std::abs(middle) && piece.from < middle;
        if (!worth || !divisible) continue;
        // The halves start with the whole piece's error, to see whether dividing helps.
        task.pieces[i] = {piece.from, middle, 0, piece.error, 0, piece.stagnant};
        task.pieces.push_back({middle, piece.to, 0, piece.error, 0, piece.stagnant});
        work.push_back({index, i});
        work.push_back({index, task.pieces.size() - 1});
    }
}

/// Integrals that have few digits yet, or none: those up to infinity are looked at as oscillating tails, others by
/// parts that become shorter towards their ends.
void settle(const Quadrature::Integrand& integrand, std::span<const Task> tasks, std::span<const std::uint32_t> owner,
            std::span<const double> signs, std::span<double> magnitudes, double* result, double* errors) {
    std::vector<Limit> totals(magnitudes.size());
    std::vector<bool> looked(magnitudes.size(), false);
    for (std::size_t t = 0; t < tasks.size(); ++t) {
        const std::uint32_t i = owner[t];
        if (errors[i] <= poor * magnitudes[i] && std::isfinite(magnitudes[i])) continue;
        const Task& task = tasks[t];
        if (std::isnan(task.from) || std::isnan(task.to)) continue;
        const Limit total = task.infinite ? oscillatingTail(integrand, i, task.start, task.sign)
                                          : gradedIntegral(integrand, i, task.from, task.to);
        totals[i].value += signs[t] * total.value;
        totals[i].error += total.error;
        looked[i] = true;
    }
    for (std::size_t i = 0; i < totals.size(); ++i) {
        if (!looked[i]) continue;
        if (totals[i].error < errors[i]) {
            result[i] = totals[i].value;
            errors[i] = totals[i].error;
            magnitudes[i] = HUGE_VAL; // how good it is has been judged
        } else if (!std::isfinite(magnitudes[i])) {
            errors[i] = HUGE_VAL;
        }
    }
}

} // namespace

void Quadrature::operator()(const Integrand& integrand, std::span<const double> low, std::span<const double> high,
                            double* result, double* errors) const {
    // A range that is infinite on both sides is two tasks.
    std::vector<Task> tasks;
    std::vector<std::uint32_t> owner;
    std::vector<double> signs;
    std::vector<Work> work;
    for (std::size_t i = 0; i < low.size(); ++i) {
        result[i] = errors[i] = 0;
        const bool reversed = high[i] < low[i];
        const double from = std::min(low[i], high[i]), to = std::max(low[i], high[i]);
        if (from == to && !std::isnan(low[i])) continue;
        const auto add = [&](double a, double b) {
            tasks.emplace_back();
            begin(tasks.back(), a, b);
            owner.push_back(static_cast<std::uint32_t>(i));
            signs.push_back(reversed ? -1 : 1);
            for (std::size_t p = 0; p < tasks.back().pieces.size(); ++p) work.push_back({tasks.size() - 1, p});
        };
        if (std::isinf(from) && std::isinf(to)) {
            add(from, 0);
            add(0, to);
        } else if (std::isnan(low[i]) || std::isnan(high[i])) {
            add(low[i], high[i]);
        } else {
            add(from, to);
        }
    }
    bool complete = evaluatePieces(integrand, tasks, work, owner);
    while (complete) {
        const std::vector<Work> previous = std::move(work);
        work.clear();
        for (std::size_t t = 0; t < tasks.size(); ++t) refine(tasks[t], t, mostPieces, work);
        if (work.empty()) break;
        std::vector<double> before;
        for (const auto& [task, piece] : work) before.push_back(tasks[task].pieces[piece].error);
        complete = evaluatePieces(integrand, tasks, work, owner);
        for (std::size_t i = 0; i < work.size(); ++i) {
            Piece& piece = tasks[work[i].task].pieces[work[i].piece];
            if (piece.error > 0.9 * before[i]) ++piece.stagnant; // at x^(−a) each halving leaves 2^(a−1)
        }
    }
    std::vector<double> magnitudes(low.size(), 0);
    for (std::size_t t = 0; t < tasks.size(); ++t) {
        const std::uint32_t i = owner[t];
        // Small pieces first, so that the rounding of the sum stays that of its last terms.
        std::ranges::sort(tasks[t].pieces, {}, [](const Piece& piece) { return piece.magnitude; });
        double value = 0;
        for (const Piece& piece : tasks[t].pieces) {
            value += piece.value;
            errors[i] += piece.error;
            magnitudes[i] += piece.magnitude;
        }
        result[i] += signs[t] * value;
        if (tasks[t].undefined) errors[i] = HUGE_VAL;
    }
    if (complete && mostPieces >= fewestForMore) settle(integrand, tasks, owner, signs, magnitudes, result, errors);
    for (std::size_t i = 0; i < low.size(); ++i) {
        // Nothing but zeros was seen; out to infinity that says nothing of what lies between.
        if (complete && errors[i] == 0 && magnitudes[i] == 0 && (std::isinf(low[i]) || std::isinf(high[i]))) {
            errors[i] = HUGE_VAL;
            continue;
        }
        if (!complete || std::isinf(errors[i]) || !(errors[i] <= acceptedOfMagnitude * magnitudes[i])) {
            if (complete && errors[i] == 0 && magnitudes[i] == 0) continue;
            result[i] = std::numeric_limits<double>::quiet_NaN();
            errors[i] = HUGE_VAL;
        }
    }
}

} // namespace coulter
