#include "formula/page.h"
#include "formula/program_builder.h"
#include "formula/text.h"
#include "special/catalogue.h"

#include <algorithm>
#include <cmath>
#include <optional>
#include <set>

namespace coulter {
namespace {

/// Most operations in one program: beyond it a page is a mistake or an attack, and would only exhaust the memory.
constexpr std::size_t largestProgram = 100'000;

/// Most terms of one sum or product.
constexpr double mostTerms = 10'000;

/// Deepest nesting of calls between functions of the page.
constexpr int deepestCalls = 200;

/// Carries a problem out of the recursion; never leaves this file.
struct Refusal {
    Problem problem;
};

class Compiler {
public:
    Compiler(const Page& page, std::span<const std::string> inputs, const FixedValues& fixed)
        : page_(page), builder_(inputs.size()) {
        for (std::size_t i = 0; i < inputs.size(); ++i) scope_[inputs[i]] = builder_.input(i);
        for (const auto& [name, value] : fixed) scope_[name] = builder_.constant(value);
    }

    void check(const Expr& expression) {
        checking_ = true;
        value(expression, scope_);
    }

    Program run(const Expr& expression) {
        const ProgramBuilder::Value output = value(expression, scope_);
        return builder_.finish(std::span(&output, 1));
    }

private:
    using Value = ProgramBuilder::Value;
    using Scope = std::map<std::string, Value>;

    Value value(const Expr& e, const Scope& scope) {
        if (builder_.size() > largestProgram || ++steps_ > 50 * largestProgram) {
            throw Refusal{{-1, e.span.first, e.span.last, "Written out, this formula is too large to compute.",
                           "let fewer functions call each other several times"}};
        }
        const auto operand = [&](std::size_t i) { return value(*e.operands[i], scope); };
        switch (e.kind) {
        case ExprKind::Number: return builder_.constant(e.number);
        case ExprKind::Name: return name(e, scope);
        case ExprKind::Call: return call(e, scope);
        case ExprKind::Group: return operand(0);
        case ExprKind::Absolute: return builder_.apply(Kernel::Absolute, operand(0));
        case ExprKind::Negate: return builder_.apply(Kernel::Negate, operand(0));
        case ExprKind::Factorial: return builder_.apply(Kernel::Factorial, operand(0));
        case ExprKind::Power: {
            const Value base = operand(0);
            return builder_.power(base, operand(1));
        }
        case ExprKind::Add: return binary(Kernel::Add, e, scope);
        case ExprKind::Subtract: return binary(Kernel::Subtract, e, scope);
        case ExprKind::Multiply: return binary(Kernel::Multiply, e, scope);
        case ExprKind::Divide: return binary(Kernel::Divide, e, scope);
        case ExprKind::Compare: return compare(e, scope);
        case ExprKind::And: return binary(Kernel::Min, e, scope);
        case ExprKind::Or: return binary(Kernel::Max, e, scope);
        case ExprKind::Not: return builder_.apply(Kernel::Subtract, builder_.constant(1), operand(0));
        case ExprKind::Iverson: return operand(0);
        case ExprKind::Pieces: return pieces(e, scope);
        case ExprKind::Sum:
        case ExprKind::Product: return series(e, scope);
        }
        return builder_.constant(std::nan(""));
    }

    Value binary(Kernel kernel, const Expr& e, const Scope& scope) {
        const Value a = value(*e.operands[0], scope);
        return builder_.apply(kernel, a, value(*e.operands[1], scope));
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
    Value pieces(const Expr& e, const Scope& scope) {
        std::optional<Value> chosen;
        const auto add = [&](Value next) { chosen = chosen ? builder_.apply(Kernel::OrElse, *chosen, next) : next; };
        for (std::size_t i = 0; i + 1 < e.operands.size(); i += 2) {
            const Value piece = value(*e.operands[i], scope);
            add(builder_.apply(Kernel::When, value(*e.operands[i + 1], scope), piece));
        }
        add(e.operands.size() % 2 == 1 ? value(*e.operands.back(), scope) : builder_.constant(std::nan("")));
        return *chosen;
    }

    /// Written out term by term, so its limits must be known numbers.
    Value series(const Expr& e, const Scope& scope) {
        const bool sum = e.kind == ExprKind::Sum;
        const auto limit = [&](std::size_t i) {
            const auto number = builder_.constantOf(value(*e.operands[i], scope));
            const Span place = e.operands[i]->span;
            if (!number && checking_) return 1.0;
            if (!number) {
                throw Refusal{{-1, place.first, place.last, "The limits of a sum or product must be fixed numbers.",
                               "give the name in them a value, or cases"}};
            }
            if (std::isnan(*number) || *number != std::floor(*number) || std::abs(*number) > 1e15) {
                throw Refusal{
                    {-1, place.first, place.last,
                     "The limits of a sum or product must be whole numbers; this is " + shortestNumber(*number) + ".",
                     ""}};
            }
            return *number;
        };
        const double low = limit(0), high = limit(1);
        if (high - low > mostTerms)
            throw Refusal{{-1, e.span.first, e.span.last, "This sum or product has more than 10000 terms.",
                           "choose a nearer upper limit"}};
        Value total = builder_.constant(sum ? 0 : 1);
        for (double n = low; n <= high; ++n) {
            Scope inner = scope;
            inner[e.text] = builder_.constant(n);
            const Value term = value(*e.operands[2], inner);
            total = n == low ? term : builder_.apply(sum ? Kernel::Add : Kernel::Multiply, total, term);
        }
        return total;
    }

    Value name(const Expr& e, const Scope& scope) {
        if (const auto found = scope.find(e.text); found != scope.end()) return found->second;
        // Inside a function only its parameters shadow the page, but inputs and cases still mean the page's variables.
        if (const auto found = scope_.find(e.text); found != scope_.end()) return found->second;
        if (const Line* quantity = page_.find(e.text, LineKind::Quantity); quantity && quantity->value) {
            return builder_.constant(*quantity->value);
        }
        if (!page_.defined.contains(e.text) && !std::isnan(constantValue(e.text)))
            return builder_.constant(constantValue(e.text));
        Problem problem{-1, e.span.first, e.span.last, "", ""};
        if (const auto line = page_.defined.find(e.text); line != page_.defined.end()) {
            if (page_.lines[line->second].kind == LineKind::Variable) {
                problem.sentence = e.text + " is a variable and has no single value here.";
                problem.suggestion = "give it a value, or make it a parameter: f(" + e.text + ") = …";
            } else {
                problem.sentence =
                    e.text + " cannot be computed: line " + std::to_string(line->second + 1) + " has a problem.";
            }
        } else {
            problem.sentence = e.text + " is not defined on this page.";
        }
        throw Refusal{problem};
    }

    Value call(const Expr& e, const Scope& scope) {
        std::vector<Value> arguments;
        for (const ExprPtr& operand : e.operands) arguments.push_back(value(*operand, scope));
        if (const auto line = page_.defined.find(e.text); line != page_.defined.end() && !e.hasBase) {
            return pageFunction(e, line->second, arguments);
        }
        const FunctionEntry* entry = findFunction(e.text, static_cast<int>(arguments.size()) - (e.hasBase ? 1 : 0));
        if (!entry) throw Refusal{{-1, e.span.first, e.span.last, "The function " + e.text + " is not known.", ""}};
        if (operandCount(entry->kernel) == 1) return builder_.apply(entry->kernel, arguments[0]);
        Value result = arguments[0];
        for (std::size_t i = 1; i < arguments.size(); ++i) result = builder_.apply(entry->kernel, result, arguments[i]);
        return result;
    }

    /// A function with a period P is taken at the place within [0, P) that is whole periods away; where it is not
    /// defined there, within [−P, 0).
    Value periodic(const Line& line, const std::string& name, const Scope& inner) {
        const auto at = page_.periods.find(name);
        const Line* continued = at == page_.periods.end() ? nullptr : &page_.lines[at->second];
        if (!continued || !continued->good() || !continued->value) return value(*line.body, inner);
        const Value period = builder_.constant(*continued->value);
        Scope first = inner, second = inner;
        first[line.parameters[0]] = builder_.apply(Kernel::Mod, inner.at(line.parameters[0]), period);
        second[line.parameters[0]] = builder_.apply(Kernel::Subtract, first[line.parameters[0]], period);
        const Value here = value(*line.body, first);
        return builder_.apply(Kernel::IfDefined, here, value(*line.body, second));
    }

    Value pageFunction(const Expr& e, std::size_t lineIndex, const std::vector<Value>& arguments) {
        const Line& line = page_.lines[lineIndex];
        if (line.kind != LineKind::Function || !line.good() || !line.body) {
            throw Refusal{{-1, e.span.first, e.span.last,
                           e.text + " cannot be computed: line " + std::to_string(lineIndex + 1) + " has a problem.",
                           ""}};
        }
        const auto [known, isNew] = calls_.try_emplace({lineIndex, arguments}, std::nullopt);
        if (!isNew && known->second) return *known->second;
        struct Depth {
            int& count;
            explicit Depth(int& c) : count(c) { ++count; }
            ~Depth() { --count; }
        };
        const Depth depth(callDepth_);
        if (callDepth_ > deepestCalls) {
            throw Refusal{{-1, e.span.first, e.span.last, "Functions call each other more than 200 deep here.",
                           "join some of them"}};
        }
        // A page is free of circles before anything is compiled, so this ends.
        Scope inner;
        for (std::size_t i = 0; i < arguments.size(); ++i) inner[line.parameters[i]] = arguments[i];
        try {
            const Value result = periodic(line, e.text, inner);
            calls_[{lineIndex, arguments}] = result;
            return result;
        } catch (Refusal& refusal) {
            if (!refusal.problem.sentence.starts_with("In line ")) { // the place is where the caller can see it
                refusal.problem.sentence = "In line " + std::to_string(lineIndex + 1) + ": " + refusal.problem.sentence;
            }
            refusal.problem.first = e.span.first;
            refusal.problem.last = e.span.last;
            throw;
        }
    }

    const Page& page_;
    ProgramBuilder builder_;
    Scope scope_;
    std::size_t steps_ = 0;
    int callDepth_ = 0;
    bool checking_ = false; ///< only looked at for problems: limits that depend on a parameter may stand for any
    std::map<std::pair<std::size_t, std::vector<Value>>, std::optional<Value>> calls_;
};

void collectVariables(const Page& page, const Expr& e, const std::set<std::string>& bound,
                      std::set<std::size_t>& visited, std::vector<std::string>& found) {
    if (e.kind == ExprKind::Name && !bound.contains(e.text)) {
        if (page.find(e.text, LineKind::Variable) && std::ranges::find(found, e.text) == found.end())
            found.push_back(e.text);
    }
    const bool runs = e.kind == ExprKind::Sum || e.kind == ExprKind::Product;
    for (std::size_t i = 0; i < e.operands.size(); ++i) {
        std::set<std::string> inner = bound;
        if (runs && i == 2) inner.insert(e.text);
        collectVariables(page, *e.operands[i], inner, visited, found);
    }
    if (e.kind != ExprKind::Call) return;
    const Line* line = page.find(e.text, LineKind::Function);
    if (!line || !line->body || !visited.insert(page.defined.at(e.text)).second) return;
    collectVariables(page, *line->body, {line->parameters.begin(), line->parameters.end()}, visited, found);
}

} // namespace

Compiled compile(const Page& page, const ExprPtr& expression, std::span<const std::string> inputs,
                 const FixedValues& fixed) {
    try {
        return {std::make_shared<const Program>(Compiler(page, inputs, fixed).run(*expression)), {}};
    } catch (const Refusal& refusal) {
        return {nullptr, {refusal.problem}};
    }
}

Problems checkBody(const Page& page, const Line& line) {
    FixedValues any;
    for (const std::string& name : freeVariables(page, line.body)) {
        if (std::ranges::find(line.parameters, name) == line.parameters.end()) any[name] = 0;
    }
    try {
        Compiler(page, line.parameters, any).check(*line.body);
        return {};
    } catch (const Refusal& refusal) {
        return {refusal.problem};
    }
}

std::vector<std::string> freeVariables(const Page& page, const ExprPtr& expression) {
    std::vector<std::string> found;
    std::set<std::size_t> visited;
    if (expression) collectVariables(page, *expression, {}, visited, found);
    return found;
}

} // namespace coulter
