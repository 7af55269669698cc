#include "formula/fourier_lines.h"

#include "formula/columns.h"
#include "formula/expr_build.h"
#include "formula/spectra.h"
#include "formula/text.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace coulter {
namespace {

constexpr double usualHarmonics = 20, mostHarmonics = 5'000;
/// Most values of integrands that one line's coefficients may need: a few seconds.
constexpr std::int64_t mostIntegrandValues = 100'000'000;
/// A part of the largest amplitude that is left at the highest wave numbers of what is not resolved.
constexpr double resolved = 1e-3;

/// Carries a problem out; never leaves this file.
struct Refusal {
    Problem problem;
};

[[noreturn]] void refuse(Span place, std::string sentence, std::string suggestion = "") {
    throw Refusal{{-1, place.first, place.last, std::move(sentence), std::move(suggestion)}};
}

double numberOf(const Page& page, const ExprPtr& expression) {
    const Answer found = answer(page, expression);
    if (!found.problems.empty()) throw Refusal{found.problems.front()};
    return found.value();
}

/// The period of what a line analyses: by its own clause, or that of the page's function.
ExprPtr periodOf(const Page& page, const Line& line) {
    if (line.period) return line.period;
    const Expr& e = *line.body;
    const auto at = e.kind == ExprKind::Call ? page.periods.find(e.text) : page.periods.end();
    if (at == page.periods.end())
        refuse(e.span, spelled(e) + " has no period on this page.",
               e.kind == ExprKind::Call
                   ? "write " + e.text + "(t + 6) = " + e.text + "(t) on a line of its own, or “, period 6”"
                   : "add “, period 6” to the line");
    const Line& period = page.lines[at->second];
    if (!period.good() || !period.value) refuse(e.span, "The period of " + e.text + " has a problem.");
    const bool plain = period.body->kind == ExprKind::Name || period.body->kind == ExprKind::Number;
    return plain ? period.body : numberExpr(*period.value);
}

double checkedPeriod(const Page& page, const ExprPtr& period) {
    const double value = numberOf(page, period);
    if (!(value > 0) || !std::isfinite(value))
        refuse(period->span, "A period is a positive number; this is " + shortestNumber(value) + ".");
    return value;
}

ExprPtr runsFromTo(ExprKind kind, const std::string& name, const ExprPtr& low, const ExprPtr& high,
                   const ExprPtr& body) {
    auto node = std::make_shared<Expr>(*nodeExpr(kind, {low, high, body}));
    node->text = name;
    return node;
}

/// 2π n t/P
ExprPtr phase(const ExprPtr& n, const ExprPtr& t, const ExprPtr& period) {
    return numberExpr(2) * nameExpr("π") * n * t / period;
}

/// 2/P ∫_0^P r(τ) cos(2π n τ/P) dτ, or with sin.
ExprPtr coefficient(const Line& line, const char* wave, const ExprPtr& n, const std::string& inner,
                    const ExprPtr& period) {
    const ExprPtr tau = nameExpr(inner), value = substitute(line.body, line.parameters[0], tau);
    return numberExpr(2) / period *
           runsFromTo(ExprKind::Integral, inner, numberExpr(0), period,
                      value * callExpr(wave, {phase(n, tau, period)}));
}

/// The tree with all its places at one.
ExprPtr placedAt(const ExprPtr& e, Span place) {
    auto node = std::make_shared<Expr>(*e);
    node->span = place;
    for (ExprPtr& operand : node->operands) operand = placedAt(operand, place);
    return node;
}

std::string freshName(std::initializer_list<const char*> wanted, const Line& line, const ExprPtr& period) {
    for (const char* name : wanted) {
        const bool isParameter = std::ranges::count(line.parameters, name) > 0;
        if (!isParameter && !mentions(*line.body, name) && !mentions(*period, name)) return name;
    }
    return *std::prev(wanted.end());
}

/// Each coefficient a_n, b_n for n = 0, 1, …; a_0 is twice the mean, b_0 is 0.
FourierAnswer coefficients(const Page& page, const Line& line) {
    const double wanted = line.harmonics ? numberOf(page, line.harmonics) : usualHarmonics;
    if (wanted != std::floor(wanted) || wanted < 1 || wanted > mostHarmonics)
        refuse(line.harmonics->span,
               "The number of harmonics is a whole number from 1 to " + roundedNumber(mostHarmonics, 4) + ".");
    const ExprPtr period = periodOf(page, line);
    FourierAnswer answer;
    answer.period = checkedPeriod(page, period);
    const std::string inner = freshName({"τ", "σ", "ξ", "η"}, line, period);
    const std::string order = "{n}"; // no page can have such a name
    const auto whole = static_cast<std::size_t>(wanted);
    std::vector<double> n, zero(whole + 1, 0.0);
    for (std::size_t i = 0; i <= whole; ++i) n.push_back(static_cast<double>(i));
    answer.columns.push_back(std::make_shared<const std::vector<double>>(n));
    const double* const in = n.data();
    for (const char* wave : {"cos", "sin"}) {
        const ExprPtr each = placedAt(coefficient(line, wave, nameExpr(order), inner, period), line.body->span);
        const Compiled compiled = compile(page, each, std::span(&order, 1));
        if (!compiled.program) throw Refusal{compiled.problems.front()};
        if (compiled.program->outputs.size() != 1)
            refuse(line.body->span, "Each component has coefficients of its own.");
        std::vector<double> values(n.size());
        double* const out = values.data();
        Evaluator evaluator(*compiled.program);
        evaluator.limit({}, mostIntegrandValues);
        evaluator(std::span(&in, 1), std::span<double* const>(&out, 1), n.size());
        if (evaluator.exhausted())
            refuse(line.body->span, "The integrals of so many coefficients take too long to compute.",
                   "ask for fewer harmonics");
        const auto open = std::ranges::find_if(values, [](double value) { return std::isnan(value); });
        if (open != values.end())
            refuse(line.body->span, "The coefficient of order " + std::to_string(open - values.begin()) +
                                        " has no value: " + spelled(*line.body) +
                                        " is undefined somewhere in its period, or has no integral.");
        answer.columns.push_back(std::make_shared<const std::vector<double>>(std::move(values)));
    }
    return answer;
}

Column columnAt(const Page& page, const ExprPtr& expression) {
    const ColumnAnswer found = columnsOf(page, expression);
    if (found.columns.empty()) throw Refusal{found.problems.front()};
    if (found.columns.size() > 1) refuse(expression->span, "A column holds numbers, and this is a vector.");
    for (std::size_t i = 0; i < found.columns[0]->size(); ++i) {
        if (!std::isfinite((*found.columns[0])[i]))
            refuse(expression->span,
                   "Row " + std::to_string(i + 1) + " has no value here, and a spectrum needs every one.",
                   "fill it, or take a part of the column without it");
    }
    return found.columns[0];
}

/// The step of an even grid.
double stepOf(const std::vector<double>& grid, Span place) {
    const double step = (grid.back() - grid.front()) / static_cast<double>(grid.size() - 1);
    if (!(step > 0)) refuse(place, "The grid does not rise from its first number to its last.");
    for (std::size_t i = 0; i < grid.size(); ++i) {
        if (std::abs(grid[i] - (grid.front() + static_cast<double>(i) * step)) > 1e-6 * step)
            refuse(place, "The steps of this grid are not even: see its row " + std::to_string(i + 1) + ".",
                   "sample at even steps, such as t = {0, 0.1, ..., 5.9}");
    }
    return step;
}

/// The period of samples, by their grid, by the clause, or by both, which must agree.
double periodOfSamples(const Page& page, const Line& line, const std::vector<double>& values) {
    const auto n = static_cast<double>(values.size());
    const std::optional<double> said = line.period ? std::optional(checkedPeriod(page, line.period)) : std::nullopt;
    if (!line.along) {
        if (!said)
            refuse(line.body->span, "Where these samples stand is not said.",
                   "add “by t”, the column of their places, or “, period 6”");
        return *said;
    }
    const Column grid = columnAt(page, line.along);
    if (grid->size() != values.size())
        refuse(line.along->span,
               "There are " + std::to_string(grid->size()) + " places and " + std::to_string(values.size()) +
                   " values.",
               "give both as many numbers");
    const double step = stepOf(*grid, line.along->span);
    if (!said || std::abs(n * step - *said) <= 1e-6 * step) return said.value_or(n * step);
    if (std::abs((n - 1) * step - *said) <= 1e-6 * step)
        refuse(line.along->span,
               "This grid contains its end twice: the last of its numbers is the first one a period later.",
               "leave out the last number");
    refuse(line.along->span,
           std::to_string(values.size()) + " steps of " + roundedNumber(step, 6) + " make " +
               roundedNumber(n * step, 6) + ", and not the period " + roundedNumber(*said, 6) + ".",
           "sample one whole period, without its end");
}

void remark(FourierAnswer& answer, Span place, std::string sentence, std::string suggestion) {
    answer.problems.push_back({-1, place.first, place.last, std::move(sentence), std::move(suggestion)});
    answer.problems.back().severity = Problem::Severity::Note;
}

FourierAnswer ofSamples(const Page& page, const Line& line) {
    const Column values = columnAt(page, line.body);
    const std::vector<double>& u = *values;
    if (u.size() < 4) refuse(line.body->span, "A spectrum needs four samples or more.");
    FourierAnswer answer;
    answer.period = periodOfSamples(page, line, u);
    Spectrum spectrum = spectrumOf(u, answer.period);
    const auto [least, most] = std::ranges::minmax(u);
    // Of a wave that begins at an extremum neighbours are near each other too, but nearer than the ends of this.
    const double jump = std::abs(u.back() - u.front()),
                 steps = std::abs(u[1] - u[0]) + std::abs(u[u.size() - 2] - u.back());
    if (!line.period && most > least && jump <= 1e-9 * (most - least) && steps > 1e-6 * (most - least))
        remark(answer, line.body->span,
               "The last value is the first one again: this grid seems to contain its end twice.",
               "leave out the last number");
    const double left = unresolvedPart(spectrum);
    if (left > resolved)
        remark(answer, line.body->span,
               "These samples do not resolve the function: at the highest wave numbers there is still " +
                   roundedNumber(100 * left, 2) + " % of the largest amplitude.",
               "take more of them; beside a jump no number is enough");
    if (line.transform == Transform::Derivative) {
        answer.columns = {std::make_shared<const std::vector<double>>(spectralDerivative(u, answer.period))};
    } else {
        answer.columns = {std::make_shared<const std::vector<double>>(std::move(spectrum.waveNumbers)),
                          std::make_shared<const std::vector<double>>(std::move(spectrum.amplitudes))};
    }
    return answer;
}

} // namespace

FourierAnswer fourierLine(const Page& page, const Line& line) {
    try {
        return line.transform == Transform::Coefficients ? coefficients(page, line) : ofSamples(page, line);
    } catch (const Refusal& refusal) {
        return {{}, 0, {refusal.problem}};
    }
}

FourierSum fourierSum(const Page& page, const Line& line) {
    try {
        const ExprPtr period = periodOf(page, line);
        checkedPeriod(page, period);
        const std::string inner = freshName({"τ", "σ", "ξ", "η"}, line, period),
                          n = freshName({"n", "m", "j"}, line, period);
        const ExprPtr tau = nameExpr(inner), order = nameExpr(n), t = nameExpr(line.parameters[0]);
        const ExprPtr last = line.harmonics ? line.harmonics : nameExpr(line.parameters[1]);
        const ExprPtr mean = numberExpr(1) / period *
                             runsFromTo(ExprKind::Integral, inner, numberExpr(0), period,
                                        substitute(line.body, line.parameters[0], tau));
        const auto sumOver = [&](const char* wave) {
            return runsFromTo(ExprKind::Sum, n, numberExpr(1), last,
                              coefficient(line, wave, order, inner, period) *
                                  callExpr(wave, {phase(order, t, period)}));
        };
        const ExprPtr whole = mean + sumOver("cos") + sumOver("sin");
        return {placedAt(withBrackets(whole), line.body->span), {}};
    } catch (const Refusal& refusal) {
        return {nullptr, {refusal.problem}};
    }
}

} // namespace coulter
