#include "formula/algebra/derivative.h"
#include "formula/algebra/vector_calculus.h"
#include "formula/base/text.h"
#include "formula/compile/columns.h"
#include "formula/compile/program_builder.h"
#include "formula/measured/statistics.h"
#include "formula/notation/expr_build.h"
#include "formula/notation/matrix_functions.h"
#include "formula/page/free_names.h"
#include "formula/page/matrix_value.h"
#include "formula/page/page.h"
#include "special/catalogue.h"

#include <algorithm>
#include <cmath>
#include <optional>
#include <set>
#include <tuple>
#include <utility>

namespace coulter {
namespace {

/// Most operations in one program: beyond it a page is a mistake or an attack, and would only exhaust the memory.
constexpr std::size_t largestProgram = 100'000;

/// Most terms of one sum or product.
constexpr double mostTerms = 10'000;

/// Deepest nesting of calls between functions of the page, and of all that is written out through them.
constexpr int deepestCalls = 200, deepestNesting = 2 * tallestExpr;

/// Carries a problem out of the recursion; never leaves this file.
struct Refusal {
    Problem problem;
};

/// ∞ or −∞, as it is written.
bool isInfinity(const Expr& e) {
    if (e.kind == ExprKind::Group || e.kind == ExprKind::Negate) return isInfinity(*e.operands[0]);
    return e.kind == ExprKind::Name && e.text == "∞";
}

class Compiler {
public:
    Compiler(const Page& page, std::span<const std::string> inputs, const FixedValues& fixed)
        : page_(page), builder_(inputs.size()) {
        for (std::size_t i = 0; i < inputs.size(); ++i) scope_[inputs[i]] = {builder_.input(i)};
        for (const auto& [name, value] : fixed) scope_[name] = {builder_.constant(value)};
        fixed_ = fixed;
        // A single answer says that it went through an infinite value; a curve would only show a wrong line.
        builder_.keepsInfinities = inputs.empty();
    }

    /// Compiles only to find problems: limits that depend on a parameter may stand for any.
    void check(const Expr& expression) {
        checking_ = true;
        builder_.foldsIntegrals = false;
        values(expression, scope_);
    }

    /// Keeps every step: nothing is folded, quantities are computed by their formulas.
    Program runStepByStep(const Expr& expression) {
        stepByStep_ = true;
        builder_.folds = false;
        return run(expression);
    }

    Program run(const Expr& expression) { return builder_.finish(values(expression, scope_)); }
    bool metInfinity() const { return builder_.metInfinity; }

private:
    using Value = ProgramBuilder::Value;
    using Values = std::vector<Value>; ///< one, or the components of a vector
    using Scope = std::map<std::string, Values>;

    [[noreturn]] static void refuse(const Expr& e, std::string sentence, std::string suggestion = "") {
        throw Refusal{{-1, e.span.first, e.span.last, std::move(sentence), std::move(suggestion)}};
    }

    Value value(const Expr& e, const Scope& scope) {
        const Values all = values(e, scope);
        if (all.size() != 1) refuse(e, "A vector is no number.", "write its components one by one");
        return all[0];
    }

    struct Depth { ///< counts a recursion while it lives
        explicit Depth(int& counter) : count(counter) { ++count; }
        ~Depth() { --count; }
        int& count;
    };

    Values values(const Expr& e, const Scope& scope) {
        const Depth depth(depth_);
        if (depth_ > deepestNesting)
            refuse(e, "Written out, this formula is nested too deeply.", "let fewer functions call each other");
        if (builder_.size() > largestProgram || ++steps_ > 50 * largestProgram) {
            refuse(e, "Written out, this formula is too large to compute.",
                   "let fewer functions call each other several times");
        }
        const auto operand = [&](std::size_t i) { return value(*e.operands[i], scope); };
        switch (e.kind) {
        case ExprKind::Number: return {builder_.constant(e.number)};
        case ExprKind::Name: return name(e, scope);
        case ExprKind::Call: return call(e, scope);
        case ExprKind::Group: return values(*e.operands[0], scope);
        case ExprKind::Absolute: return {length(values(*e.operands[0], scope))};
        case ExprKind::Negate: {
            Values all = values(*e.operands[0], scope);
            for (Value& each : all) each = builder_.apply(Kernel::Negate, each);
            return all;
        }
        case ExprKind::Factorial: return {builder_.apply(Kernel::Factorial, operand(0))};
        case ExprKind::Power: {
            const Value base = operand(0);
            return {builder_.power(base, operand(1))};
        }
        case ExprKind::Add: return componentwise(Kernel::Add, e, scope);
        case ExprKind::Subtract: return componentwise(Kernel::Subtract, e, scope);
        case ExprKind::Multiply: return scaled(Kernel::Multiply, e, scope);
        case ExprKind::Divide: return scaled(Kernel::Divide, e, scope);
        case ExprKind::Compare: return {compare(e, scope)};
        case ExprKind::And: return {builder_.apply(Kernel::Min, operand(0), operand(1))};
        case ExprKind::Or: return {builder_.apply(Kernel::Max, operand(0), operand(1))};
        case ExprKind::Not: return {builder_.apply(Kernel::Subtract, builder_.constant(1), operand(0))};
        case ExprKind::Iverson: return {operand(0)};
        case ExprKind::Pieces: return pieces(e, scope);
        case ExprKind::Sum:
        case ExprKind::Product: return {series(e, scope)};
        case ExprKind::Integral: return {integral(e, scope)};
        case ExprKind::Derivative: {
            const Derived derived = derivative(page_, e.operands[0], e.text, static_cast<int>(e.number));
            if (!derived.expression) throw Refusal{placed(derived.problems.front(), e)};
            return at(e, [&] { return values(*derived.expression, scope); });
        }
        case ExprKind::Vector: {
            if (usesMatrices(page_, e))
                refuse(e,
                       "In formulas a vector has at most three components, and a matrix stands on a line of its own.",
                       "write a decimal point if this is one number, or A = ((1, 2), (3, 4))");
            Values all;
            for (const ExprPtr& each : e.operands) all.push_back(value(*each, scope));
            return all;
        }
        case ExprKind::List:
            refuse(e, "A list of numbers has no single value here.", "name it on a line of its own: d = {1, 2, 3}");
        }
        return {builder_.constant(std::nan(""))};
    }

    static Problem placed(Problem problem, const Expr& e) {
        problem.first = e.span.first;
        problem.last = e.span.last;
        return problem;
    }

    /// Runs `compute`; a problem in what nobody spelled, such as a derivative, has its place where it came from.
    template <typename Compute> static Values at(const Expr& e, const Compute& compute) {
        try {
            return compute();
        } catch (const Refusal& refusal) {
            throw Refusal{placed(refusal.problem, e)};
        }
    }

    Value length(const Values& all) {
        if (all.size() == 1) return builder_.apply(Kernel::Absolute, all[0]);
        std::optional<Value> sum;
        for (const Value each : all) {
            const Value square = builder_.apply(Kernel::Multiply, each, each);
            sum = sum ? builder_.apply(Kernel::Add, *sum, square) : square;
        }
        return builder_.apply(Kernel::Sqrt, *sum);
    }

    Values componentwise(Kernel kernel, const Expr& e, const Scope& scope) {
        Values a = values(*e.operands[0], scope);
        const Values b = values(*e.operands[1], scope);
        if (a.size() != b.size())
            refuse(e, "Only vectors with the same number of components can be added.", "write the missing components");
        for (std::size_t i = 0; i < a.size(); ++i) a[i] = builder_.apply(kernel, a[i], b[i]);
        return a;
    }

    /// A product or quotient in which at most one part is a vector.
    Values scaled(Kernel kernel, const Expr& e, const Scope& scope) {
        Values a = values(*e.operands[0], scope), b = values(*e.operands[1], scope);
        if (a.size() > 1 && b.size() > 1)
            refuse(e, "There are several products of two vectors.", "write the one you mean by its components");
        if (b.size() > 1 && kernel == Kernel::Divide) refuse(e, "Nothing can be divided by a vector.");
        if (b.size() > 1) std::swap(a, b);
        for (Value& each : a) each = builder_.apply(kernel, each, b[0]);
        return a;
    }

    /// 1 where every link of the chain holds, else 0.
    Value compare(const Expr& e, const Scope& scope) {
        std::vector<Value> operands;
        for (const ExprPtr& operand : e.operands) operands.push_back(value(*operand, scope));
        std::optional<Value> all;
        for (std::size_t i = 0; i < e.relations.size(); ++i) {
            const std::string& relation = e.relations[i];
            const Value a = operands[i], b = operands[i + 1];
            Value holds = 0;
            if (relation == "<")
                holds = builder_.apply(Kernel::Less, a, b);
            else if (relation == "<=")
                holds = builder_.apply(Kernel::LessEqual, a, b);
            else if (relation == ">")
                holds = builder_.apply(Kernel::Less, b, a);
            else if (relation == ">=")
                holds = builder_.apply(Kernel::LessEqual, b, a);
            else
                holds = builder_.apply(Kernel::Equal, a, b);
            if (relation == "!=") holds = builder_.apply(Kernel::Subtract, builder_.constant(1), holds);
            all = all ? builder_.apply(Kernel::Min, *all, holds) : holds;
        }
        return *all;
    }

    /// The value of the first piece whose condition holds; undefined where none does.
    Values pieces(const Expr& e, const Scope& scope) {
        Values chosen;
        const auto add = [&](const Values& next) {
            if (!chosen.empty() && chosen.size() != next.size())
                refuse(e, "All pieces need the same number of components.");
            if (chosen.empty()) {
                chosen = next;
                return;
            }
            for (std::size_t i = 0; i < next.size(); ++i)
                chosen[i] = builder_.apply(Kernel::OrElse, chosen[i], next[i]);
        };
        for (std::size_t i = 0; i + 1 < e.operands.size(); i += 2) {
            Values piece = values(*e.operands[i], scope);
            const Value holds = value(*e.operands[i + 1], scope);
            for (Value& each : piece) each = builder_.apply(Kernel::When, holds, each);
            add(piece);
        }
        add(e.operands.size() % 2 == 1 ? values(*e.operands.back(), scope)
                                       : Values(chosen.size(), builder_.constant(std::nan(""))));
        return chosen;
    }

    /// A limit of a sum or product, which must be a whole number or infinite.
    double wholeLimit(const ExprPtr& limit, const Scope& scope) {
        builder_.folds = true;
        const auto number = builder_.constantOf(value(*limit, scope));
        builder_.folds = !stepByStep_;
        if (!number && checking_) return 1.0;
        if (!number)
            refuse(*limit, "The limits of a sum or product must be fixed numbers.",
                   "give the name in them a value, or cases");
        if (*number == HUGE_VAL) return *number;
        if (std::isnan(*number) || *number != std::floor(*number) || std::abs(*number) > 1e15)
            refuse(*limit,
                   "The limits of a sum or product must be whole numbers; this is " + shortestNumber(*number) + ".");
        return *number;
    }

    /// Written out term by term, so its limits must be known numbers.
    Value series(const Expr& e, const Scope& scope) {
        const bool sum = e.kind == ExprKind::Sum;
        const double low = wholeLimit(e.operands[0], scope), high = wholeLimit(e.operands[1], scope);
        if (low == HUGE_VAL) refuse(*e.operands[0], "The first term of a sum or product has a finite number.");
        if (high == HUGE_VAL) return endless(e, low, scope);
        if (high - low > mostTerms)
            refuse(e, "This sum or product has more than 10000 terms.",
                   "choose a nearer upper limit, or inf if it converges");
        Value total = builder_.constant(sum ? 0 : 1);
        for (double n = low; n <= high; ++n) {
            Scope inner = scope;
            inner[e.text] = {builder_.constant(n)};
            const Value term = value(*e.operands[2], inner);
            total = n == low ? term : builder_.apply(sum ? Kernel::Add : Kernel::Multiply, total, term);
        }
        return total;
    }

    /// A scope in which a name runs under an integral or a series, one deeper than this place.
    Scope running(const Expr& e, const Scope& scope) {
        if (nesting_ == ProgramBuilder::deepestIntegrals)
            refuse(e, "More than four integrals or series without an end stand inside each other here.");
        Scope inner = scope;
        inner[e.text] = {builder_.bound(nesting_)};
        return inner;
    }

    /// A sum or product up to infinity.
    Value endless(const Expr& e, double low, const Scope& scope) {
        const Scope inner = running(e, scope);
        const bool kept = std::exchange(builder_.keepsInfinities, false);
        ++nesting_;
        Value term = 0;
        if (e.kind == ExprKind::Sum) {
            term = value(*e.operands[2], inner);
        } else {
            // What a factor is more than 1: of 1 + a and 1 - a without the rounding of that sum.
            const Expr* factor = e.operands[2].get();
            while (factor->kind == ExprKind::Group) factor = factor->operands[0].get();
            const bool adds = factor->kind == ExprKind::Add, subtracts = factor->kind == ExprKind::Subtract;
            if ((adds || subtracts) && isNumber(*factor->operands[0], 1)) {
                term = value(*factor->operands[1], inner);
                if (subtracts) term = builder_.apply(Kernel::Negate, term);
            } else {
                term = builder_.apply(Kernel::Subtract, value(*factor, inner), builder_.constant(1));
            }
        }
        --nesting_;
        builder_.keepsInfinities = kept;
        return builder_.integral(nesting_, builder_.constant(low), builder_.constant(HUGE_VAL), term,
                                 e.kind == ExprKind::Sum ? Program::Over::Sum : Program::Over::Product);
    }

    Value integral(const Expr& e, const Scope& scope) {
        const Value low = value(*e.operands[0], scope), high = value(*e.operands[1], scope);
        const Scope inner = running(e, scope);
        const bool kept = std::exchange(builder_.keepsInfinities, false);
        ++nesting_;
        const Value integrand = value(*e.operands[2], inner);
        --nesting_;
        builder_.keepsInfinities = kept;
        return builder_.integral(nesting_, low, high, integrand,
                                 e.principal ? Program::Over::PrincipalValue : Program::Over::Interval);
    }

    Values name(const Expr& e, const Scope& scope) {
        if (const auto found = scope.find(e.text); found != scope.end()) return found->second;
        // Inside a function only its parameters shadow the page, but inputs and cases still mean the page's variables.
        if (const auto found = scope_.find(e.text); found != scope_.end()) return found->second;
        if (stepByStep_ && !builder_.folds) {
            const Line* quantity = page_.find(e.text, LineKind::Quantity);
            if (quantity && quantity->body) return values(*quantity->body, {});
            const bool own = page_.defined.contains(e.text);
            if (!own && e.text == "π") return {stepwisePi()};
            if (!own && e.text == "e") return {builder_.apply(Kernel::Exp, builder_.constant(1))};
        }
        if (const auto known = page_.valueOf(e.text)) {
            // A quantity that is the infinite end of something is written so.
            const Line* quantity = page_.find(e.text, LineKind::Quantity);
            const bool grewInfinite = std::isinf(*known) && quantity && quantity->body && !isInfinity(*quantity->body);
            const bool wentThrough = grewInfinite || (quantity && quantity->throughInfinity);
            builder_.metInfinity = builder_.metInfinity || wentThrough;
            return {builder_.constant(wentThrough && !builder_.keepsInfinities ? std::nan("") : *known)};
        }
        if (!page_.defined.contains(e.text) && !std::isnan(constantValue(e.text)))
            return {builder_.constant(constantValue(e.text))};
        const auto line = page_.defined.find(e.text);
        if (line == page_.defined.end()) refuse(e, e.text + " is not defined on this page.");
        if (page_.lines[line->second].kind == LineKind::Variable)
            refuse(e, e.text + " is a variable and has no single value here.",
                   "give it a value, or make it a parameter: f(" + e.text + ") = …");
        if (const Line* matrix = page_.find(e.text, LineKind::Matrix)) {
            if (stepByStep_) return values(*matrix->body, {});
            if (!matrix->matrix->isVector || matrix->matrix->rows > 3)
                refuse(e, e.text + " is a matrix or a long vector, and formulas have numbers and short vectors.",
                       "name what is computed from it on a line of its own");
            Values all;
            for (const double component : matrix->matrix->values) all.push_back(builder_.constant(component));
            return all;
        }
        if (page_.columnOf(e.text))
            refuse(e, e.text + " is a column and has no single value here.",
                   "make it a parameter: f(" + e.text + ") = …");
        refuse(e, e.text + " cannot be computed: line " + std::to_string(line->second + 1) + " has a problem.");
    }

    /// The double nearest to π is not π: computed as 4 arctan 1, its error is bounded like any other.
    Value stepwisePi() {
        const Value quarter = builder_.apply(Kernel::Arctan, builder_.constant(1));
        return builder_.apply(Kernel::Multiply, builder_.constant(4), quarter);
    }

    Values call(const Expr& e, const Scope& scope) {
        if (const auto line = page_.defined.find(e.text); line != page_.defined.end() && e.below == 0 && e.above == 0) {
            std::vector<Values> arguments;
            for (const ExprPtr& operand : e.operands) arguments.push_back(values(*operand, scope));
            return pageFunction(e, line->second, arguments);
        }
        if (isVectorCalculus(e.text)) {
            const ExpandedVectors expanded = expandedVectors(page_, e);
            if (!expanded.expression) throw Refusal{placed(expanded.problem, e)};
            return at(e, [&] { return values(*expanded.expression, scope); });
        }
        if (const auto component = componentOf(e)) {
            const Values all = values(*component->vector, scope);
            return {all[std::min(component->index, all.size() - 1)]};
        }
        if (!e.orders.empty()) {
            const Derived derived = withoutDashes(page_, std::make_shared<Expr>(e));
            if (!derived.expression) throw Refusal{placed(derived.problems.front(), e)};
            return at(e, [&] { return values(*derived.expression, scope); });
        }
        if (const Statistic* statistic = findStatistic(e.text)) return {numberOf(*statistic, e, scope)};
        if (findMatrixFunction(e.text))
            refuse(e, e.text + " is computed on lines and questions of their own, not in formulas.",
                   "name what it gives: d = " + e.text + "(…)");
        std::vector<Value> operands;
        for (const ExprPtr& operand : e.operands) operands.push_back(value(*operand, scope));
        const int arguments = static_cast<int>(operands.size()) - e.below - e.above;
        const FunctionEntry* entry = findFunction(e.text, e.below, e.above, arguments);
        if (!entry) refuse(e, "The function " + e.text + " is not known.");
        if (entry->isSpecial()) return {builder_.apply(entry->implementation.scalar, operands)};
        const Kernel kernel = entry->implementation.kernel;
        if (operandCount(kernel) == 1) return {builder_.apply(kernel, operands[0])};
        Value result = operands[0];
        for (std::size_t i = 1; i < operands.size(); ++i) result = builder_.apply(kernel, result, operands[i]);
        return {result};
    }

    /// What a statistic makes of a column of the page: one number, whatever the expression runs along.
    Value numberOf(const Statistic& statistic, const Expr& e, const Scope& scope) {
        if (!statistic.number)
            refuse(e, spelled(e) + " is a column and has no single value here.",
                   "name it on a line of its own: c = " + spelled(e));
        for (const auto& [name, bound] : scope) {
            const bool isItself = &scope == &scope_ && (page_.columnOf(name) || fixed_.contains(name));
            if (!isItself && mentions(*e.operands[0], name))
                refuse(*e.operands[0], "The column here depends on " + name + ", which runs.",
                       "name the column on a line of its own");
        }
        const ColumnAnswer of = columnsOf(page_.whole ? *page_.whole : page_, e.operands[0], fixed_);
        if (of.columns.empty()) throw Refusal{placed(of.problems.front(), e)};
        if (of.columns.size() > 1) refuse(e, "A column holds numbers, and this is a vector.");
        std::vector<double> further;
        for (std::size_t i = 1; i < e.operands.size(); ++i) {
            builder_.folds = true;
            const auto number = builder_.constantOf(value(*e.operands[i], scope));
            builder_.folds = !stepByStep_;
            if (!number && !checking_) refuse(*e.operands[i], "This must be a fixed number.");
            further.push_back(number.value_or(0));
        }
        return builder_.constant(statisticOf(statistic, of.columns[0], further));
    }

    /// A function with a period P is taken at the place within [0, P) that is whole periods away; where it is not
    /// defined there, within [−P, 0).
    Values periodic(const Line& line, const Expr& body, const Scope& inner) {
        const auto at = page_.periods.find(line.name);
        const Line* continued = at == page_.periods.end() ? nullptr : &page_.lines[at->second];
        if (!continued || !continued->good() || !continued->value) return values(body, inner);
        const Value period = builder_.constant(*continued->value);
        const std::string& parameter = line.parameters[0];
        Scope first = inner, second = inner;
        first[parameter] = {builder_.apply(Kernel::Mod, inner.at(parameter)[0], period)};
        second[parameter] = {builder_.apply(Kernel::Subtract, first[parameter][0], period)};
        Values here = values(body, first);
        const Values there = values(body, second);
        for (std::size_t i = 0; i < here.size(); ++i) here[i] = builder_.apply(Kernel::IfDefined, here[i], there[i]);
        return here;
    }

    /// The body of a function of the page, or of its derivative.
    ExprPtr bodyOf(const Expr& e, const Line& line) {
        if (e.orders.empty()) return line.body;
        ExprPtr& known = derivatives_[{line.name, e.orders}];
        if (known) return known;
        const Derived derived = derivativeOfFunction(page_, line, e.orders);
        if (!derived.expression) throw Refusal{placed(derived.problems.front(), e)};
        return known = derived.expression;
    }

    static Value number(const Expr& e, const Values& argument) {
        if (argument.size() != 1) refuse(e, "A vector is no number.", "write its components one by one");
        return argument[0];
    }

    /// A measured field, or its slope by one variable inside of its pieces.
    Value measured(const Expr& e, const Line& line, const std::vector<Values>& arguments) {
        std::vector<Value> place;
        for (const Values& argument : arguments) place.push_back(number(e, argument));
        std::shared_ptr<const MeasuredField> field = line.field;
        for (std::size_t k = 0; k < e.orders.size() && field; ++k) {
            for (int n = 0; n < e.orders[k] && field; ++n) field = field->slope(k);
        }
        if (!field) throw Refusal{placed(derivativeOfFunction(page_, line, e.orders).problems.front(), e)};
        return builder_.measured(field, place);
    }

    Values pageFunction(const Expr& e, std::size_t lineIndex, const std::vector<Values>& arguments) {
        const Line& line = page_.lines[lineIndex];
        if (line.kind == LineKind::Function && line.good() && line.points) {
            if (!e.orders.empty())
                throw Refusal{placed(derivativeOfFunction(page_, line, e.orders).problems.front(), e)};
            return {builder_.interpolate(line.points, number(e, arguments[0]))};
        }
        if (line.kind == LineKind::Function && line.good() && line.field) return {measured(e, line, arguments)};
        if (line.kind != LineKind::Function || !line.good() || !line.body)
            refuse(e, e.text + " cannot be computed: line " + std::to_string(lineIndex + 1) + " has a problem.");
        const auto key = std::make_tuple(lineIndex, e.orders, arguments);
        if (const auto known = calls_.find(key); known != calls_.end()) return known->second;
        const Depth depth(callDepth_);
        if (callDepth_ > deepestCalls)
            refuse(e, "Functions call each other more than 200 deep here.", "join some of them");
        // A page is free of circles before anything is compiled, so this ends.
        Scope inner;
        for (std::size_t i = 0; i < arguments.size(); ++i) inner[line.parameters[i]] = arguments[i];
        try {
            return calls_[key] = periodic(line, *bodyOf(e, line), inner);
        } catch (Refusal& refusal) {
            if (!refusal.problem.sentence.starts_with("In line ")) // the place is where the caller can see it
                refusal.problem.sentence = "In line " + std::to_string(lineIndex + 1) + ": " + refusal.problem.sentence;
            throw Refusal{placed(refusal.problem, e)};
        }
    }

    const Page& page_;
    ProgramBuilder builder_;
    Scope scope_;
    FixedValues fixed_;
    std::size_t steps_ = 0;
    int callDepth_ = 0;
    int depth_ = 0;   ///< of the recursion over all that is written out
    int nesting_ = 0; ///< how many integrals stand around this place
    bool checking_ = false;
    bool stepByStep_ = false;
    std::map<std::tuple<std::size_t, std::vector<int>, std::vector<Values>>, Values> calls_;
    std::map<std::pair<std::string, std::vector<int>>, ExprPtr> derivatives_;
};

} // namespace

Compiled compile(const Page& page, const ExprPtr& expression, std::span<const std::string> inputs,
                 const FixedValues& fixed) {
    try {
        Compiler compiler(page, inputs, fixed);
        auto program = std::make_shared<const Program>(compiler.run(*expression));
        return {std::move(program), {}, compiler.metInfinity()};
    } catch (const Refusal& refusal) {
        return {nullptr, {refusal.problem}, false};
    }
}

Compiled compileStepByStep(const Page& page, const ExprPtr& expression) {
    try {
        return {std::make_shared<const Program>(Compiler(page, {}, {}).runStepByStep(*expression)), {}, false};
    } catch (const Refusal& refusal) {
        return {nullptr, {refusal.problem}, false};
    }
}

Problems checkBody(const Page& page, const Line& line) {
    FixedValues any;
    for (const std::string& name : freeVariables(page, line.body)) {
        if (std::ranges::find(line.parameters, name) == line.parameters.end()) any[name] = 0;
    }
    for (const std::string& name : freeColumns(page, line.body)) any.emplace(name, 0);
    for (const Line& each : page.lines) { // found only after the functions that its conditions ask for
        if ((each.kind != LineKind::Solution && each.kind != LineKind::Fit) || !each.good() || !each.values.empty())
            continue;
        for (const std::string& unknown : each.unknowns) {
            if (std::ranges::find(line.parameters, unknown) == line.parameters.end()) any[unknown] = 0;
        }
    }
    try {
        Compiler(page, line.parameters, any).check(*line.body);
        return {};
    } catch (const Refusal& refusal) {
        return {refusal.problem};
    }
}

} // namespace coulter
