#include "formula/lines/fourier_lines.h"

#include "formula/algebra/exact_form.h"
#include "formula/algebra/exact_value.h"
#include "formula/algebra/fourier_series.h"
#include "formula/base/text.h"
#include "formula/base/total.h"
#include "formula/compile/columns.h"
#include "formula/compile/compile.h"
#include "formula/lines/answer.h"
#include "formula/measured/spectra.h"
#include "formula/notation/expr_build.h"
#include "formula/notation/parser.h"
#include "formula/page/line_parser.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <optional>
#include <utility>

namespace coulter {
namespace {

constexpr double usualHarmonics = 20, mostHarmonics = 5'000, mostOvershoots = 500;
/// Most values of integrands that one line's coefficients may need: a few seconds.
constexpr std::int64_t mostValuesOfCoefficient = 100'000'000;
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

/// The same as it is written, however long: 2π and not 6.283….
ExprPtr exactPeriodOf(const Page& page, const Line& line) {
    if (line.period || line.body->kind != ExprKind::Call) return line.period;
    const auto at = page.periods.find(line.body->text);
    return at == page.periods.end() ? nullptr : page.lines[at->second].body;
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

std::size_t harmonicsOf(const Page& page, const Line& line, double most) {
    const double wanted = line.harmonics ? numberOf(page, line.harmonics) : usualHarmonics;
    if (wanted != std::floor(wanted) || wanted < 1 || wanted > most)
        refuse(line.harmonics->span,
               "The number of harmonics is a whole number from 1 to " + roundedNumber(most, 4) + " here.");
    return static_cast<std::size_t>(wanted);
}

Column columnOf(std::vector<double> values) { return std::make_shared<const std::vector<double>>(std::move(values)); }

/// a_n and b_n for n = 0, 1, …; a_0 is twice the mean, b_0 is 0.
std::array<std::vector<double>, 2> coefficientsOf(const Page& page, const Line& line, const ExprPtr& period,
                                                  std::size_t harmonics) {
    std::array<std::vector<double>, 2> found;
    const std::string inner = freshName({"τ", "σ", "ξ", "η"}, line, period);
    const std::string order = "{n}"; // no page can have such a name
    std::vector<double> n;
    for (std::size_t i = 0; i <= harmonics; ++i) n.push_back(static_cast<double>(i));
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
        evaluator.limit({}, mostValuesOfCoefficient);
        evaluator(std::span(&in, 1), std::span<double* const>(&out, 1), n.size());
        if (evaluator.exhausted())
            refuse(line.body->span, "The integrals of so many coefficients take too long to compute.",
                   "ask for fewer harmonics");
        const auto open = std::ranges::find_if(values, [](double value) { return std::isnan(value); });
        if (open != values.end())
            refuse(line.body->span, "The coefficient of order " + std::to_string(open - values.begin()) +
                                        " has no value: " + spelled(*line.body) +
                                        " is undefined somewhere in its period, or has no integral.");
        found[*wave == 'c' ? 0 : 1] = std::move(values);
    }
    return found;
}

/// "a" becomes "a_n": what a column of coefficients holds for one order. A name with a subscript stays as it is.
std::string withOrder(const std::string& name, const std::string& order) {
    const bool isPlain = nameParts(name).subscript.empty() && nameParts(order).subscript.empty();
    return isPlain ? name + "_" + order : name;
}

ExprPtr equation(const std::string& name, const ExprPtr& formula) {
    auto node = std::make_shared<Expr>(*nodeExpr(ExprKind::Compare, {nameExpr(name), formula}));
    node->relations = {"="};
    return node;
}

FourierAnswer coefficients(const Page& page, const Line& line) {
    const std::size_t harmonics = harmonicsOf(page, line, mostHarmonics);
    const ExprPtr period = periodOf(page, line);
    FourierAnswer answer;
    answer.period = checkedPeriod(page, period);
    auto [a, b] = coefficientsOf(page, line, period, harmonics);
    const std::string& order = line.unknowns[0];
    const auto formulas = fourierFormulas(page, line.body, line.parameters[0], exactPeriodOf(page, line), order);
    std::vector<double> n;
    if (line.transform == Transform::Coefficients) {
        for (std::size_t i = 0; i <= harmonics; ++i) n.push_back(static_cast<double>(i));
        answer.columns = {columnOf(std::move(n)), columnOf(std::move(a)), columnOf(std::move(b))};
        if (formulas)
            answer.formulas = {equation(withOrder(line.unknowns[1], order), formulas->cosine),
                               equation(withOrder(line.unknowns[2], order), formulas->sine)};
        return answer;
    }
    // c_n = (a_n − i b_n)/2, and c_{−n} is its conjugate.
    std::vector<double> real, imaginary;
    const auto last = static_cast<std::ptrdiff_t>(harmonics);
    for (std::ptrdiff_t i = -last; i <= last; ++i) {
        const auto at = static_cast<std::size_t>(std::abs(i));
        n.push_back(static_cast<double>(i));
        real.push_back(a[at] / 2);
        imaginary.push_back((i < 0 ? b[at] : -b[at]) / 2 + 0.0);
    }
    answer.columns = {columnOf(std::move(n)), columnOf(std::move(real)), columnOf(std::move(imaginary))};
    if (formulas) {
        const auto half = [](const ExprPtr& e) {
            return isNumber(*e, 0) ? e : withBrackets(numberExpr(1) / numberExpr(2) * e);
        };
        answer.formulas = {
            equation(withOrder(line.unknowns[1], order), half(formulas->cosine)),
            equation(withOrder(line.unknowns[2], order),
                     isNumber(*formulas->sine, 0) ? formulas->sine : withBrackets(negated(half(formulas->sine))))};
    }
    return answer;
}

/// By how much partial sums overshoot beside a jump, as a part of it: at the first top of each sum away from the
/// jump, on the side of its higher value. Tends to Si(π)/π − 1/2 = 0.0895 (H. Wilbraham, 1848; J. W. Gibbs, 1899).
FourierAnswer overshoot(const Page& page, const Line& line) {
    const std::size_t harmonics = harmonicsOf(page, line, mostOvershoots);
    const ExprPtr period = periodOf(page, line);
    FourierAnswer answer;
    const double length = answer.period = checkedPeriod(page, period), at = numberOf(page, line.along);
    const Compiled compiled = compile(page, line.body, line.parameters);
    if (!compiled.program) throw Refusal{compiled.problems.front()};
    Evaluator evaluator(*compiled.program);
    const auto value = [&](double t) { return evaluator(t - length * std::floor(t / length)); };
    // One-sided values, from two places each so that a slope does not count.
    const double near = 1e-7 * length;
    const double before = 2 * value(at - near) - value(at - 2 * near),
                 after = 2 * value(at + near) - value(at + 2 * near), jump = after - before;
    if (!std::isfinite(jump))
        refuse(line.along->span, spelled(*line.body) + " has no value beside " + shortestNumber(at) + ".");
    double size = 0;
    for (int i = 0; i < 64; ++i) size = std::max(size, std::abs(value(at + length * (i + 0.5) / 64)));
    if (std::abs(jump) <= 1e-6 * size)
        refuse(line.along->span, spelled(*line.body) + " has no jump at " + shortestNumber(at) + ".",
               "name a place where it jumps");
    const auto found = coefficientsOf(page, line, period, harmonics);
    const std::vector<double>&a = found[0], &b = found[1];
    const double turn = 2 * std::numbers::pi / length;
    const int side = jump > 0 ? 1 : -1;
    std::vector<double> orders, parts;
    for (std::size_t last = 1; last <= harmonics; ++last) {
        const auto excess = [&](double away) {
            const double t = at + side * away;
            Total sum;
            sum.add(a[0] / 2);
            for (std::size_t n = 1; n <= last; ++n) {
                const double phase = turn * std::fmod(static_cast<double>(n) * t, length);
                sum.add(a[n] * std::cos(phase));
                sum.add(b[n] * std::sin(phase));
            }
            return (sum.value() - value(t)) / std::abs(jump);
        };
        // The first top away from the jump, found by looking, and then by thirds.
        const double step = length / static_cast<double>(last) / 64;
        double here = excess(step), next = excess(2 * step);
        int i = 1;
        for (; i < 64 && next >= here; ++i) here = std::exchange(next, excess((i + 2) * step));
        double low = (i - 1) * step, high = (i + 1) * step;
        for (int k = 0; k < 60; ++k) {
            const double third = (high - low) / 3;
            const bool rises = excess(low + third) < excess(high - third);
            (rises ? low : high) = rises ? low + third : high - third;
        }
        orders.push_back(static_cast<double>(last));
        parts.push_back(excess(low / 2 + high / 2));
    }
    answer.columns = {columnOf(std::move(orders)), columnOf(std::move(parts))};
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

/// The series with its coefficients written out, up to `last`; null if they have no formula.
ExprPtr writtenOut(const Page& page, const Line& line, const ExprPtr& last) {
    const ExprPtr period = exactPeriodOf(page, line);
    const std::string n = freshName({"n", "m", "j"}, line, period);
    const auto formulas = fourierFormulas(page, line.body, line.parameters[0], period, n);
    if (!formulas) return nullptr;
    const ExprPtr t = nameExpr(line.parameters[0]);
    // Both share a sum; 2π over a period of, say, 2π is left out.
    const auto turns = exactForm(page, numberExpr(2) * nameExpr("π") / period);
    const bool isPlain = turns && turns->isShort();
    const ExprPtr turn = isPlain ? parseExpression(decodeUtf8(turns->text()), KnownNames{}).expression : nullptr;
    const ExprPtr angle = !turn                ? phase(nameExpr(n), t, period)
                          : isNumber(*turn, 1) ? nameExpr(n) * t
                                               : turn * nameExpr(n) * t;
    ExprPtr term;
    for (const auto& [factor, wave] : {std::pair{formulas->cosine, "cos"}, std::pair{formulas->sine, "sin"}}) {
        if (isNumber(*factor, 0)) continue;
        const ExprPtr each = factor * callExpr(wave, {angle});
        term = term ? term + each : each;
    }
    ExprPtr whole = formulas->mean;
    if (term) {
        const ExprPtr sum = runsFromTo(ExprKind::Sum, n, numberExpr(1), last, nodeExpr(ExprKind::Group, {term}));
        whole = isNumber(*whole, 0) ? sum : whole + sum;
    }
    return withBrackets(whole);
}

} // namespace

FourierAnswer fourierLine(const Page& page, const Line& line) {
    try {
        switch (line.transform) {
        case Transform::Coefficients:
        case Transform::ComplexCoefficients: return coefficients(page, line);
        case Transform::Overshoot: return overshoot(page, line);
        default: return ofSamples(page, line);
        }
    } catch (const Refusal& refusal) {
        return {{}, {}, 0, {refusal.problem}};
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

namespace {

/// What follows “Fourier series of ” as the line of a sum, and the words that it was made of.
struct AskedSeries {
    Line line;
    std::string variable, last; ///< names of the place and of the number of harmonics
    Problems problems;
};

std::optional<AskedSeries> askedSeries(const Page& page, std::string_view text) {
    constexpr std::string_view words = "Fourier series of ";
    if (!text.starts_with(words)) return std::nullopt;
    const std::string_view of = text.substr(words.size());
    const std::size_t open = of.find('('), close = of.find(')');
    AskedSeries asked;
    const auto wrong = [&](std::string sentence) {
        asked.problems = {
            {-1, 1, static_cast<int>(decodeUtf8(text).size()), std::move(sentence), "write Fourier series of r(t)"}};
        return asked;
    };
    if (open == std::string_view::npos || close == std::string_view::npos || close <= open + 1)
        return wrong("A series belongs to a function of the page.");
    asked.variable = of.substr(open + 1, close - open - 1);
    asked.last = asked.variable == "N" ? "M" : "N";
    asked.line =
        readLine(outlineLine("S(" + asked.variable + ", " + asked.last + ") = Fourier sum of " + std::string(of)),
                 page.inQuestions);
    if (!asked.line.good() || !asked.line.body) // its places are those of another line
        return wrong(asked.line.problems.empty() ? "This cannot be read." : asked.line.problems.front().sentence);
    try {
        checkedPeriod(page, periodOf(page, asked.line));
    } catch (const Refusal& refusal) {
        wrong(refusal.problem.sentence);
        asked.problems.front().suggestion = refusal.problem.suggestion;
    }
    return asked;
}

} // namespace

std::optional<FourierSum> fourierSeriesText(const Page& page, std::string_view text) {
    const auto asked = askedSeries(page, text);
    if (!asked) return std::nullopt;
    if (!asked->problems.empty()) return FourierSum{nullptr, asked->problems};
    if (const ExprPtr series = writtenOut(page, asked->line, nameExpr("∞"))) return FourierSum{series, {}};
    return FourierSum{nullptr,
                      {{-1, 1, static_cast<int>(decodeUtf8(text).size()),
                        "The integrals of these coefficients have no formula that is known here.",
                        "ask for their numbers: (n, a, b) = Fourier coefficients of " + spelled(*asked->line.body)}}};
}

std::string fourierSeriesLine(const Page& page, std::string_view text) {
    const auto asked = askedSeries(page, text);
    const ExprPtr series =
        asked && asked->problems.empty() ? writtenOut(page, asked->line, nameExpr(asked->last)) : nullptr;
    if (!series) return "";
    std::string name = "S";
    for (int i = 1; page.defined.contains(name); ++i) name = "S_" + std::to_string(i);
    return name + "(" + asked->variable + ", " + asked->last + ") = " + spelled(*series);
}

} // namespace coulter
