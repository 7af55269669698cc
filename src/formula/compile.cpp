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
        }
        return builder_.constant(std::nan(""));
    }

    Value binary(Kernel kernel, const Expr& e, const Scope& scope) {
        const Value a = value(*e.operands[0], scope);
        return builder_.apply(kernel, a, value(*e.operands[1], scope));
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
            const Value result = value(*line.body, inner);
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
    std::map<std::pair<std::size_t, std::vector<Value>>, std::optional<Value>> calls_;
};

void collectVariables(const Page& page, const Expr& e, const std::set<std::string>& bound,
                      std::set<std::size_t>& visited, std::vector<std::string>& found) {
    if (e.kind == ExprKind::Name && !bound.contains(e.text)) {
        if (page.find(e.text, LineKind::Variable) && std::ranges::find(found, e.text) == found.end())
            found.push_back(e.text);
    }
    for (const ExprPtr& operand : e.operands) collectVariables(page, *operand, bound, visited, found);
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

std::vector<std::string> freeVariables(const Page& page, const ExprPtr& expression) {
    std::vector<std::string> found;
    std::set<std::size_t> visited;
    if (expression) collectVariables(page, *expression, {}, visited, found);
    return found;
}

} // namespace coulter
