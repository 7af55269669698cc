#include "formula/lines/read_page.h"

#include "formula/algebra/unit_inference.h"
#include "formula/base/text.h"
#include "formula/compile/columns.h"
#include "formula/compile/compile.h"
#include "formula/lines/answer.h"
#include "formula/lines/answer_text.h"
#include "formula/lines/chosen_rows.h"
#include "formula/lines/conditions.h"
#include "formula/lines/fits.h"
#include "formula/lines/fourier_lines.h"
#include "formula/lines/interpolation_lines.h"
#include "formula/lines/matrices.h"
#include "formula/lines/measured_lines.h"
#include "formula/lines/measures.h"
#include "formula/lines/plotted.h"
#include "formula/lines/remedies.h"
#include "formula/lines/searches.h"
#include "formula/lines/table_lines.h"
#include "formula/measured/random_columns.h"
#include "formula/page/free_names.h"
#include "formula/page/line_parser.h"
#include "formula/program/infinities.h"
#include "formula/proofs/interval_evaluator.h"
#include "special/catalogue.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <set>

namespace coulter {
namespace {

/// Most values of integrands that one number of a page may need: a fraction of a second.
constexpr std::int64_t mostValuesOfQuantity = 20'000'000;
constexpr std::string_view tooLong = "The integral here takes too long to compute for a single number.";

void report(Line& line, Span span, std::string sentence, std::string suggestion = "",
            Problem::Severity severity = Problem::Severity::Error) {
    line.problems.push_back({-1, span.first, span.last, std::move(sentence), std::move(suggestion), severity});
}

Span spanOf(const Line& line) { return {1, std::max(1, static_cast<int>(decodeUtf8(line.source).size()))}; }

bool defines(const Line& line) {
    return !line.name.empty() &&
           (line.kind == LineKind::Quantity || line.kind == LineKind::Function || line.kind == LineKind::Variable ||
            line.kind == LineKind::Solution || line.kind == LineKind::Random || line.kind == LineKind::Table ||
            line.kind == LineKind::Fit || line.kind == LineKind::Search || line.kind == LineKind::Fourier);
}

bool findsUnknowns(const Line& line) { return line.kind == LineKind::Solution || line.kind == LineKind::Fit; }

/// Names a body refers to, without the parameters; each with its place.
void references(const Expr& e, const std::set<std::string>& bound, std::vector<std::pair<std::string, Span>>& out) {
    if ((e.kind == ExprKind::Name && !bound.contains(e.text)) || e.kind == ExprKind::Call) {
        out.emplace_back(e.text, e.span);
    }
    for (std::size_t i = 0; i < e.operands.size(); ++i) {
        std::set<std::string> inner = bound;
        if (bindsName(e.kind) && i == 2) inner.insert(e.text);
        references(*e.operands[i], inner, out);
    }
}

class Resolver {
public:
    Resolver(Page& page, const DataTables& tables)
        : page_(page), tables_(tables), state_(page.lines.size(), State::New) {}

    void run() {
        // Conditions may ask for a function of their own unknowns; seen from them that is no circle.
        for (std::size_t i = 0; i < page_.lines.size(); ++i) {
            if (findsUnknowns(page_.lines[i])) visit(i);
        }
        // A function is computed with its period, so that must be known first.
        for (const auto& [name, line] : page_.periods) visit(line);
        for (std::size_t i = 0; i < page_.lines.size(); ++i) visit(i);
        for (Line& line : page_.lines) {
            if (line.good() && line.kind == LineKind::Question && measure(line) && (!line.where || choose(line)))
                question(line);
            if (line.good() && line.kind == LineKind::Search && line.name.empty()) search(line);
            if (line.good() && line.kind == LineKind::Drawn) drawn(line);
        }
    }

private:
    enum class State { New, Open, Done };

    struct Visit {
        std::size_t line;
        std::vector<std::pair<std::string, Span>> needs;
        std::size_t next = 0;
    };

    /// Depth first over what a line needs (with a stack of its own, for long chains); computes a line after all that it
    /// needs. Finding an open line again closes a circle, which is named on every line of it.
    void visit(std::size_t first) {
        if (state_[first] != State::New) return;
        open(first);
        while (!path_.empty()) {
            Visit& top = path_.back();
            const std::size_t index = top.line;
            if (top.next == top.needs.size() || !page_.lines[index].good()) {
                path_.pop_back();
                state_[index] = State::Done;
                if (page_.lines[index].good()) computeLine(page_.lines[index]);
                continue;
            }
            const auto& [name, span] = top.needs[top.next];
            const auto defined = page_.defined.find(name);
            if (defined == page_.defined.end()) {
                ++top.next;
            } else if (state_[defined->second] == State::New) {
                open(defined->second);
            } else if (state_[defined->second] == State::Open) {
                ++top.next;
                const bool unknown =
                    findsUnknowns(page_.lines[defined->second]) && page_.lines[index].kind == LineKind::Function;
                if (!unknown) nameCircle(defined->second);
            } else {
                ++top.next;
                if (page_.lines[defined->second].good()) continue;
                Line& line = page_.lines[index];
                report(line, span,
                       name + " cannot be computed: line " + std::to_string(defined->second + 1) + " has a problem.");
                line.problems.back().follows = true;
            }
        }
    }

    void open(std::size_t index) {
        state_[index] = State::Open;
        path_.push_back({index, needs(page_.lines[index]), 0});
    }

    void computeLine(Line& line) {
        if (line.where && line.kind != LineKind::Question && line.measure == Measure::None && !choose(line)) return;
        if (line.kind == LineKind::Quantity && measure(line)) {
            if (isMatrix(line))
                matrix(line);
            else
                isColumn(page_, line.body) ? column(line) : quantity(line);
        }
        if (line.kind == LineKind::Random) random(line);
        if (line.kind == LineKind::Period) period(line);
        if (line.kind == LineKind::Variable) variable(line);
        if (line.isMeasured()) line.parameters.size() == 1 && line.table.empty() ? interpolation(line) : measured(line);
        if (line.kind == LineKind::Function && line.body) function(line);
        if (line.kind == LineKind::Solution) solution(line);
        if (line.kind == LineKind::Table) table(line);
        if (line.kind == LineKind::Fit) fit(line);
        if (line.kind == LineKind::Fourier) fourier(line);
        if (line.kind == LineKind::Search && !line.name.empty()) search(line);
    }

    static std::vector<std::pair<std::string, Span>> needs(const Line& line) {
        std::vector<std::pair<std::string, Span>> out;
        std::set<std::string> bound(line.parameters.begin(), line.parameters.end());
        bound.insert(line.unknowns.begin(), line.unknowns.end());
        for (const ExprPtr& equation : line.equations) references(*equation, bound, out);
        for (const ExprPtr& argument : line.arguments) {
            if (argument) references(*argument, bound, out);
        }
        for (const ExprPtr& part : {line.where, line.weights, line.seed, line.body, line.low, line.high, line.from,
                                    line.to, line.count, line.step, line.period, line.harmonics, line.along}) {
            if (part) references(*part, bound, out);
        }
        for (const std::vector<ExprPtr>& parts : {line.pitch, line.origin}) {
            for (const ExprPtr& part : parts) {
                if (part) references(*part, bound, out);
            }
        }
        // A search without an interval takes that of the page's variable.
        const bool looks = line.kind == LineKind::Search || line.measure != Measure::None;
        if (looks && !line.low) {
            for (const std::string& parameter : line.parameters) out.emplace_back(parameter, line.nameSpan);
        }
        return out;
    }

    void nameCircle(std::size_t start) {
        const auto begin = std::ranges::find(path_, start, &Visit::line);
        std::string circle;
        for (auto at = begin; at != path_.end(); ++at) circle += page_.lines[at->line].name + " → ";
        circle += page_.lines[start].name;
        for (auto at = begin; at != path_.end(); ++at) {
            Line& line = page_.lines[at->line];
            const std::string& next = page_.lines[at + 1 == path_.end() ? start : (at + 1)->line].name;
            Span span = spanOf(line);
            for (const auto& [name, place] : needs(line)) {
                if (name == next) span = place;
            }
            report(line, span, "This definition goes in a circle: " + circle + ".",
                   "give one of them a value of its own");
        }
    }

    std::optional<double> number(Line& line, const ExprPtr& expression) {
        if (!expression) return std::nullopt;
        const Compiled compiled = compile(page_, expression, {});
        metInfinity_ = compiled.metInfinity;
        if (!compiled.program) {
            line.problems.insert(line.problems.end(), compiled.problems.begin(), compiled.problems.end());
            return std::nullopt;
        }
        if (compiled.program->outputs.size() != 1) {
            report(line, expression->span, "A vector is no number.", "write one of its components");
            return std::nullopt;
        }
        double result = 0;
        double* out = &result;
        Evaluator evaluator(*compiled.program);
        evaluator.limit({}, mostValuesOfQuantity);
        evaluator({}, std::span<double* const>(&out, 1), 1);
        if (evaluator.exhausted()) report(line, expression->span, std::string(tooLong));
        const bool isOpen = std::isnan(result) && !evaluator.exhausted() && !metInfinity_;
        return isOpen ? byBounds(expression) : result;
    }

    /// What bounds know of integrals and series that do not settle while they are added up; undefined if nothing.
    double byBounds(const ExprPtr& expression) const {
        const Compiled unfolded = compileStepByStep(page_, expression);
        if (!unfolded.program || unfolded.program->integrals.empty()) return std::nan("");
        const Enclosure known = IntervalEvaluator(*unfolded.program)({})[0];
        return known.isProof() ? known.low / 2 + known.high / 2 : std::nan("");
    }

    void solution(Line& line) {
        Solved solved = solveConditions(page_, line);
        line.problems.insert(line.problems.end(), solved.problems.begin(), solved.problems.end());
        if (line.good()) line.values = std::move(solved.values);
    }

    void table(Line& line) {
        readTableLine(line, tables_, gridPlace(line));
        for (const Column& column : line.columns) {
            if (!hold(line, static_cast<double>(column->size()))) return;
        }
    }

    void fit(Line& line) {
        Fitted fitted = fitLine(page_, line);
        line.problems.insert(line.problems.end(), fitted.problems.begin(), fitted.problems.end());
        if (!line.good()) return;
        line.values = std::move(fitted.values);
        line.errors = std::move(fitted.errors);
    }

    void fourier(Line& line) {
        FourierAnswer found = fourierLine(page_, line);
        line.problems.insert(line.problems.end(), found.problems.begin(), found.problems.end());
        for (const Column& column : found.columns) {
            if (!hold(line, static_cast<double>(column->size()))) return;
        }
        if (!line.good()) return;
        line.columns = std::move(found.columns);
        line.equations = std::move(found.formulas);
        line.value = found.period;
    }

    /// Puts the integral that a measure means in its place; whether the line can be computed.
    bool measure(Line& line) {
        if (line.measure == Measure::None) return true;
        MeasureFormula found = measureFormula(page_, line);
        line.problems.insert(line.problems.end(), found.problems.begin(), found.problems.end());
        if (!found.formula) return false;
        line.body = std::move(found.formula);
        line.where = nullptr; // which the formula has in it
        return true;
    }

    /// Puts the condition that chooses rows into the line's formulas; whether the line can be computed.
    bool choose(Line& line) {
        const auto problem = chooseRows(page_, line);
        if (problem) line.problems.push_back(*problem);
        return !problem;
    }

    /// Whether a definition is that of a matrix or a vector.
    bool isMatrix(const Line& line) const {
        const Expr* e = line.body.get();
        while (e->kind == ExprKind::Group) e = e->operands[0].get();
        return (e->kind == ExprKind::Vector && !isColumn(page_, line.body)) || usesMatrices(page_, *e);
    }

    void matrix(Line& line) {
        MatrixAnswer found = matrixOf(page_, line.body);
        line.problems.insert(line.problems.end(), found.problems.begin(), found.problems.end());
        if (!found.value) return;
        if (found.value->isNumber()) return quantity(line, found.value->values[0]);
        line.kind = LineKind::Matrix;
        line.matrix = std::move(found.value);
        if (line.from) report(line, line.from->span, "The clause “from … to …” belongs to a single number.");
    }

    void interpolation(Line& line) {
        InterpolationAnswer found = interpolationLine(page_, line);
        line.problems.insert(line.problems.end(), found.problems.begin(), found.problems.end());
        if (line.good()) line.points = std::move(found.points);
    }

    GridPlace gridPlace(Line& line) {
        const auto numbers = [&](const std::vector<ExprPtr>& expressions) {
            std::vector<double> values;
            for (const ExprPtr& each : expressions) values.push_back(number(line, each).value_or(std::nan("")));
            return values;
        };
        return {numbers(line.pitch), numbers(line.origin), line.rowsUpwards, line.quarters};
    }

    void measured(Line& line) {
        const GridPlace place = gridPlace(line);
        if (!line.good()) return;
        MeasuredAnswer found =
            line.table.empty() ? measuredOnElements(page_, line) : measuredFromTable(line, tables_, place);
        line.problems.insert(line.problems.end(), found.problems.begin(), found.problems.end());
        line.field = std::move(found.field);
        line.points = std::move(found.points);
        if (line.unit.empty()) line.unit = found.unit;
        if (line.label.empty()) line.label = found.meaning;
    }

    void quantity(Line& line) {
        const auto value = number(line, line.body);
        if (value && std::isfinite(*value) && metInfinity_) {
            const Compiled unfolded = compileStepByStep(page_, line.body);
            line.throughInfinity = unfolded.program && wentThroughInfinity(*unfolded.program)[0];
        }
        if (line.throughInfinity)
            report(line, line.body->span, "An infinite value was made on the way to this number.",
                   "look for a division by zero: curves and integrals take it as undefined", Problem::Severity::Note);
        quantity(line, value);
    }

    void quantity(Line& line, std::optional<double> value) {
        line.value = value;
        if (line.value && std::isnan(*line.value)) {
            report(line, line.body->span, line.name + " is undefined: the formula has no value here.");
            line.value.reset();
        }
        const auto from = number(line, line.from), to = number(line, line.to);
        if (from && to) {
            if (*from < *to && std::isfinite(*from) && std::isfinite(*to))
                line.range = Interval{*from, *to, true, true};
            else
                report(line, {line.from->span.first, line.to->span.last},
                       "The range of " + line.name + " has no extent: it starts at " + shortestNumber(*from) +
                           " and ends at " + shortestNumber(*to) + ".",
                       "write the smaller number first");
        }
    }

    void column(Line& line) {
        line.kind = LineKind::Numbers;
        if (line.from) {
            report(line, {line.from->span.first, line.to ? line.to->span.last : line.from->span.last},
                   "The clause “from … to …” belongs to a single number, and this is a column.");
            return;
        }
        ColumnAnswer found = columnsOf(page_, line.body);
        line.problems.insert(line.problems.end(), found.problems.begin(), found.problems.end());
        if (found.columns.size() > 1)
            return report(line, line.body->span, "A column holds numbers, and this is a vector.",
                          "name each component on a line of its own");
        if (found.columns.empty() || !hold(line, static_cast<double>(found.columns[0]->size()))) return;
        line.columns = std::move(found.columns);
    }

    /// Whether so many numbers more can be held.
    bool hold(Line& line, double numbers) {
        numbers_ += numbers;
        if (numbers_ <= mostNumbersOfPage) return true;
        report(line, line.nameSpan,
               "The columns of this page hold more than " + roundedNumber(mostNumbersOfPage, 3) + " numbers.",
               "take fewer numbers");
        return false;
    }

    void random(Line& line) {
        const auto first = number(line, line.arguments[0]), second = number(line, line.arguments[1]);
        const auto count = number(line, line.count), seed = number(line, line.seed);
        if (!line.good() || !first || !second) return;
        const Span place{line.arguments[0]->span.first, line.arguments[1]->span.last};
        const bool normal = line.distribution == Distribution::Normal;
        if (!std::isfinite(*first) || !std::isfinite(*second))
            return report(line, place, "Random numbers need two finite numbers here.");
        if (normal && !(*second > 0))
            return report(line, line.arguments[1]->span,
                          "A variance is a positive number; this is " + shortestNumber(*second) + ".",
                          "write the square of the standard deviation: N(2, 0.5^2)");
        if (!normal && !(*first < *second))
            return report(line, place,
                          "The interval is reversed or empty: it starts at " + shortestNumber(*first) +
                              " and ends at " + shortestNumber(*second) + ".",
                          "write the smaller number first");
        if (!count)
            return report(line, line.nameSpan, "How many random numbers are wanted is not said.",
                          "add “, count 500” to the line");
        if (*count != std::floor(*count) || *count < 1 || *count > mostNumbers)
            return report(line, line.count->span,
                          "The count of numbers is a whole number from 1 to " + roundedNumber(mostNumbers, 3) + ".");
        if (seed && (*seed != std::floor(*seed) || *seed < 0 || *seed > 9007199254740992))
            return report(line, line.seed->span, "A seed is a whole number, zero or positive.");
        if (!hold(line, *count)) return;
        const std::uint64_t start = seed ? static_cast<std::uint64_t>(*seed) : chosenSeed(line.source);
        if (!seed) {
            const int end = static_cast<int>(decodeUtf8(line.source).size()) + 1;
            report(line, line.nameSpan, "The seed of these random numbers was chosen: " + std::to_string(start) + ".",
                   "write it to the line, so that they stay when the line is changed", Problem::Severity::Note);
            line.problems.back().remedy = Remedy{end, end - 1, ", seed " + std::to_string(start)};
        }
        const auto many = static_cast<std::size_t>(*count);
        line.columns = {std::make_shared<const std::vector<double>>(
            normal ? normalNumbers(*first, *second, many, start) : uniformNumbers(*first, *second, many, start))};
    }

    void period(Line& line) {
        line.value = number(line, line.body);
        if (line.value && !(*line.value > 0 && std::isfinite(*line.value))) {
            report(line, line.body->span,
                   "A period is a positive number; this is " + shortestNumber(*line.value) + ".");
        }
    }

    void variable(Line& line) {
        const auto low = number(line, line.low), high = number(line, line.high);
        const auto count = number(line, line.count), step = number(line, line.step);
        if (!line.good() || !low || !high) return;
        const Span ends{line.low->span.first, line.high->span.last};
        line.interval.low = *low;
        line.interval.high = *high;
        line.grid.count = count;
        line.grid.step = step;
        if (!std::isfinite(*low) || !std::isfinite(*high))
            return report(line, ends, "An interval to draw over needs two finite ends.");
        if (*low > *high) {
            return report(line, ends,
                          "The interval is reversed: it starts at " + shortestNumber(*low) + " and ends at " +
                              shortestNumber(*high) + ".",
                          "write the smaller number first");
        }
        if (*low == *high)
            return report(line, ends, "The interval is empty: both ends are " + shortestNumber(*low) + ".");
    }

    void function(Line& line) {
        if (line.transform == Transform::Sum) {
            if ((line.parameters.size() == 2) == (line.harmonics != nullptr) || line.parameters.size() > 2)
                return report(line, line.nameSpan, "A Fourier sum depends on a place and on how many harmonics it has.",
                              "write S(t, N) = Fourier sum of r(t), or S(t) = Fourier sum of r(t), harmonics 10");
            FourierSum sum = fourierSum(page_, line);
            line.problems.insert(line.problems.end(), sum.problems.begin(), sum.problems.end());
            if (!sum.formula) return;
            line.body = std::move(sum.formula);
        }
        const Problems problems = checkBody(page_, line);
        line.problems.insert(line.problems.end(), problems.begin(), problems.end());
    }

    void question(Line& line) {
        Answer found = answer(page_, line.body);
        line.problems.insert(line.problems.end(), found.problems.begin(), found.problems.end());
        if (!line.good()) return;
        if (found.throughInfinity)
            report(line, line.body->span,
                   "An infinite value was made on the way to this answer, so it claims no bound.",
                   "look for a division by zero", Problem::Severity::Note);
        if (found.unsettled)
            report(line, line.body->span, "This has no value: " + std::string(unsettledMeans) + ".", "",
                   Problem::Severity::Note);
        line.formula = found.formula;
        line.matrix = found.matrix;
        line.values = found.values;
        line.errors = found.errors;
        line.columns = found.columns;
        if (line.values.size() == 1) line.value = line.values[0];
    }

    /// A formula without a name: whether it can be drawn.
    void drawn(Line& line) {
        std::vector<std::string> free = freeVariables(page_, line.body);
        std::erase_if(free, [&](const std::string& name) { return std::ranges::count(line.unknowns, name) > 0; });
        const bool condition = isCondition(*line.body);
        if (condition && free.empty())
            return report(line, line.nameSpan, std::string(definesNothing),
                          "write f(x) = … to name a formula, or … = ? to ask for a value");
        const Plotted plotted = readPlotted(page_, line.source, condition || free.size() > 1 ? 2 : 1);
        line.problems.insert(line.problems.end(), plotted.problems.begin(), plotted.problems.end());
    }

    void search(Line& line) {
        const auto searches = std::ranges::count(page_.lines, LineKind::Search, &Line::kind);
        SearchAnswer found = searchLine(page_, line, 1 / static_cast<double>(searches));
        line.problems.insert(line.problems.end(), found.problems.begin(), found.problems.end());
        if (!line.good()) return;
        line.places = std::make_shared<const Places>(std::move(found.places));
        if (line.sought == Sought::InRows) return;
        const auto add = [&](double FoundPlace::*number) {
            std::vector<double> numbers;
            for (const FoundPlace& each : line.places->found) numbers.push_back(each.*number);
            line.columns.push_back(std::make_shared<const std::vector<double>>(std::move(numbers)));
        };
        line.columns.clear();
        add(&FoundPlace::at);
        if (line.places->inPlane) add(&FoundPlace::across);
        if (line.sought != Sought::Zeros) add(&FoundPlace::value);
    }

    Page& page_;
    const DataTables& tables_;
    std::vector<State> state_;
    bool metInfinity_ = false; ///< of the number that was computed last
    std::vector<Visit> path_;
    double numbers_ = 0; ///< of all columns so far
};

void noteShadowed(Line& line) {
    if (!defines(line)) return;
    if (line.kind == LineKind::Function) {
        const NameParts parts = nameParts(line.name);
        const FunctionEntry* entry =
            findFunction(parts.letter, parts.subscript.empty() ? 0 : 1, 0, static_cast<int>(line.parameters.size()));
        if (entry)
            report(line, line.nameSpan,
                   line.name + " now means this line, not the " + std::string(entry->meaning) + ".", "",
                   Problem::Severity::Note);
    }
    if (!std::isnan(constantValue(line.name))) {
        report(line, line.nameSpan,
               line.name + " now means this line, not the constant " + shortestNumber(constantValue(line.name)) + ".",
               "", Problem::Severity::Note);
    }
}

} // namespace

Page readPage(std::span<const std::string> lines, const DataTables& tables, bool carriesUnits) {
    Page page;
    std::vector<LineOutline> outlines;
    for (const std::string& source : lines.first(std::min(lines.size(), longestPage)))
        outlines.push_back(outlineLine(source));
    for (std::size_t i = 0; i < outlines.size(); ++i) {
        Line& line = outlines[i].line;
        if (!defines(line)) continue;
        const std::vector<std::string> names =
            line.unknowns.empty() ? std::vector<std::string>{line.name} : line.unknowns;
        for (const std::string& name : names) {
            const auto [known, isNew] = page.defined.try_emplace(name, i);
            if (!isNew) {
                report(line, line.nameSpan,
                       name + " is already defined in line " + std::to_string(known->second + 1) + ".",
                       "choose another name, or a subscript");
            } else if (line.kind == LineKind::Function) {
                page.names.functions[name] = line.parameters.size();
            } else {
                page.names.values.insert(name);
            }
        }
    }
    // A question may ask for a derivative in the names of parameters.
    KnownNames inQuestions = page.names;
    for (const LineOutline& outline : outlines) {
        for (const std::string& parameter : outline.line.parameters) {
            if (!page.names.functions.contains(parameter)) inQuestions.values.insert(parameter);
        }
    }
    for (std::size_t i = 0; i < outlines.size(); ++i) {
        Line& line = outlines[i].line;
        if (line.kind != LineKind::Period) continue;
        const auto function = page.names.functions.find(line.name);
        if (function == page.names.functions.end() || function->second != 1) {
            report(line, line.nameSpan, line.name + " is no function of one variable on this page.",
                   "define it, such as " + line.name + "(t) = …");
        } else if (!page.periods.try_emplace(line.name, i).second) {
            report(line, line.nameSpan, line.name + " already has a period.");
        }
    }
    for (LineOutline& outline : outlines) {
        const bool question = outline.line.kind == LineKind::Question;
        page.lines.push_back(readLine(std::move(outline), question ? inQuestions : page.names));
    }
    page.inQuestions = std::move(inQuestions);
    for (Line& line : page.lines) noteShadowed(line);
    if (lines.size() > longestPage) {
        report(page.lines.back(), spanOf(page.lines.back()),
               "A page ends after " + std::to_string(longestPage) + " lines; the rest is not read.");
    }
    Resolver(page, tables).run();
    followUnits(page, carriesUnits);
    addRemedies(page);
    return page;
}

} // namespace coulter
