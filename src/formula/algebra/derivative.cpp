#include "formula/algebra/derivative.h"

#include "formula/algebra/simplify.h"
#include "formula/algebra/vector_calculus.h"
#include "formula/base/text.h"
#include "formula/measured/measured_field.h"
#include "formula/notation/expr_build.h"
#include "formula/notation/parser.h"
#include "special/catalogue.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <mutex>

namespace coulter {
namespace {

std::string noSlope(const Line& function) {
    if (!function.field) return function.name + " is straight between its points, and has no derivative at them.";
    if (function.field->hasCells()) return function.name + " jumps from cell to cell, and has no derivative.";
    return function.name + " is linear between the places of its numbers: it has first derivatives alone.";
}

/// Whether a measured field can be differentiated once more.
bool hasSlopes(const Line& function, std::span<const int> orders) {
    return function.field && !function.field->hasCells() &&
           std::ranges::all_of(orders, [](int order) { return order == 0; });
}

/// Most nodes of a derivative: beyond it nobody can read it, and it would only exhaust the memory.
constexpr std::size_t largestDerivative = 10'000;

/// Stands for the argument while a function of the catalogue is differentiated; no name of a page has such a letter.
constexpr const char* placeholder = "•";

struct NoDerivative {
    Problem problem;
};

std::size_t sizeOf(const Expr& e) {
    std::size_t size = 1;
    for (const ExprPtr& operand : e.operands) {
        size += sizeOf(*operand);
        if (size > largestDerivative) break;
    }
    return size;
}

[[noreturn]] void refuse(const Expr& e, std::string sentence, std::string suggestion = "") {
    throw NoDerivative{{-1, e.span.first, e.span.last, std::move(sentence), std::move(suggestion)}};
}

/// The partial derivative of a catalogue function by one of its operands, in the names of its printed form; null if
/// none is known. Read once from the catalogue's own text.
ExprPtr catalogueDerivative(const FunctionEntry& entry, std::size_t operand) {
    static std::map<std::pair<const FunctionEntry*, std::size_t>, ExprPtr> known;
    static std::mutex guard;
    const std::scoped_lock lock(guard);
    const auto [at, isNew] = known.try_emplace({&entry, operand}, nullptr);
    if (!isNew || entry.derivatives[operand].empty()) return at->second;
    KnownNames names;
    for (const auto* part : {&entry.below, &entry.above, &entry.inside})
        names.values.insert(part->begin(), part->end());
    at->second = parseExpression(decodeUtf8(entry.derivatives[operand]), names).expression;
    return at->second;
}

std::vector<std::string> operandNames(const FunctionEntry& entry) {
    std::vector<std::string> names = entry.below;
    names.insert(names.end(), entry.above.begin(), entry.above.end());
    names.insert(names.end(), entry.inside.begin(), entry.inside.end());
    return names;
}

class Differentiator {
public:
    Differentiator(const Page& page, std::string name) : page_(page), name_(std::move(name)) {}

    ExprPtr of(const ExprPtr& e) {
        if (++steps_ > largestDerivative) refuse(*e, "The derivative is too large to write down.");
        if (!depends(*e)) return numberExpr(0);
        const auto part = [&](std::size_t i) { return e->operands[i]; };
        const auto d = [&](std::size_t i) { return of(e->operands[i]); };
        switch (e->kind) {
        case ExprKind::Name: return numberExpr(1);
        case ExprKind::Group: return d(0);
        case ExprKind::Negate: return negated(d(0));
        case ExprKind::Add: return d(0) + d(1);
        case ExprKind::Subtract: return d(0) - d(1);
        case ExprKind::Multiply: return d(0) * part(1) + part(0) * d(1);
        case ExprKind::Divide:
            if (!depends(*part(1))) return d(0) / part(1);
            return d(0) / part(1) - part(0) * d(1) / powerExpr(part(1), numberExpr(2));
        case ExprKind::Power: return power(*e);
        case ExprKind::Absolute: return d(0) * part(0) / e;
        case ExprKind::Factorial: {
            const ExprPtr next = part(0) + numberExpr(1); // n! = Γ(n + 1)
            return callExpr("Γ", {next}) * callExpr("ψ", {next}) * d(0);
        }
        case ExprKind::Call: return call(e);
        case ExprKind::Pieces: {
            std::vector<ExprPtr> parts = e->operands;
            for (std::size_t i = 0; i < parts.size(); i += 2) parts[i] = of(parts[i]);
            return withOperands(*e, std::move(parts));
        }
        case ExprKind::Sum: {
            if (depends(*part(0)) || depends(*part(1))) refuse(*e, "The limits of a sum cannot be differentiated.");
            return withOperands(*e, {part(0), part(1), under(*e)});
        }
        case ExprKind::Product: return productRule(*e);
        case ExprKind::Integral:
            if (e->principal && depends(*e)) refuse(*e, "A principal value cannot be differentiated.");
            return leibniz(*e);
        case ExprKind::Derivative: {
            // Mixed derivatives: first the inner one, then this.
            const Derived inner = derivative(page_, part(0), e->text, static_cast<int>(e->number));
            if (!inner.expression) throw NoDerivative{inner.problems.front()};
            return of(inner.expression);
        }
        case ExprKind::Vector: {
            std::vector<ExprPtr> parts;
            for (const ExprPtr& each : e->operands) parts.push_back(of(each));
            return withOperands(*e, std::move(parts));
        }
        case ExprKind::List: refuse(*e, "A list of numbers has no derivative.");
        case ExprKind::Iverson:
        case ExprKind::Number:
        case ExprKind::Compare:
        case ExprKind::And:
        case ExprKind::Or:
        case ExprKind::Not: break;
        }
        return numberExpr(0);
    }

private:
    /// Whether e changes with the name, directly or through a function of the page that uses it.
    bool depends(const Expr& e) const {
        if (e.kind == ExprKind::Name) return e.text == name_;
        for (std::size_t i = 0; i < e.operands.size(); ++i) {
            if (bindsName(e.kind) && i == 2 && e.text == name_) continue;
            if (depends(*e.operands[i])) return true;
        }
        return e.kind == ExprKind::Call && hidesVariable(e);
    }

    /// A function of the page whose body uses the name although it is no parameter of it.
    bool hidesVariable(const Expr& call) const {
        const auto line = page_.defined.find(call.text);
        if (line == page_.defined.end()) return false;
        const Line& function = page_.lines[line->second];
        if (function.kind != LineKind::Function || !function.body) return false;
        const auto [at, isNew] = hiding_.try_emplace(line->second, false);
        if (isNew && std::ranges::count(function.parameters, name_) == 0) {
            const bool hides = depends(*function.body);
            hiding_[line->second] = hides;
            return hides;
        }
        return at->second;
    }

    /// The derivative of what runs under a sum, product or integral.
    ExprPtr under(const Expr& e) { return e.text == name_ ? numberExpr(0) : of(e.operands[2]); }

    ExprPtr power(const Expr& e) {
        const ExprPtr &u = e.operands[0], &v = e.operands[1];
        const ExprPtr whole = nodeExpr(ExprKind::Power, {u, v});
        if (!depends(*v)) return v * powerExpr(u, v - numberExpr(1)) * of(u);
        const bool euler = u->kind == ExprKind::Name && u->text == "e";
        const ExprPtr growth = euler ? of(v) : of(v) * callExpr("ln", {u});
        if (!depends(*u)) return whole * growth;
        return whole * (growth + v * of(u) / u);
    }

    /// (∏ t_n)' = Σ_m t_m' ∏_{n≠m} t_n, which holds where factors vanish, too; without an end (∏ t_n) Σ_m t_m'/t_m.
    ExprPtr productRule(const Expr& e) {
        if (depends(*e.operands[0]) || depends(*e.operands[1]))
            refuse(e, "The limits of a product cannot be differentiated.");
        std::string fresh = "m";
        for (int i = 1; mentions(e, fresh); ++i) fresh = "m_" + std::to_string(i);
        auto same = std::make_shared<Expr>();
        same->kind = ExprKind::Compare;
        same->operands = {nameExpr(e.text), nameExpr(fresh)};
        same->relations = {"="};
        if (std::isinf(constantValue(e.operands[1]->text))) // nothing could be left out of all the factors one by one
            return std::make_shared<Expr>(e) * sumOf(e.text, e, under(e) / e.operands[2]);
        const ExprPtr others = withOperands(
            e, {e.operands[0], e.operands[1], nodeExpr(ExprKind::Pieces, {numberExpr(1), same, e.operands[2]})});
        return sumOf(fresh, e, substitute(under(e), e.text, nameExpr(fresh)) * others);
    }

    /// The sum of `term` over `name`, between the limits of a product.
    static ExprPtr sumOf(const std::string& name, const Expr& product, const ExprPtr& term) {
        auto sum = std::make_shared<Expr>();
        sum->kind = ExprKind::Sum;
        sum->text = name;
        setOperands(*sum, {product.operands[0], product.operands[1], term});
        return sum;
    }

    /// f(b) b' − f(a) a' + ∫ ∂f.
    ExprPtr leibniz(const Expr& e) {
        const auto at = [&](std::size_t limit) {
            if (!depends(*e.operands[limit])) return numberExpr(0);
            return nodeExpr(ExprKind::Group, {substitute(e.operands[2], e.text, e.operands[limit])}) *
                   of(e.operands[limit]);
        };
        const ExprPtr inside = under(e);
        const ExprPtr integral =
            isNumber(*inside, 0) ? inside : withOperands(e, {e.operands[0], e.operands[1], inside});
        return at(1) - at(0) + integral;
    }

    ExprPtr call(const ExprPtr& e) {
        if (page_.defined.contains(e->text) && e->below == 0 && e->above == 0) return pageCall(e);
        if (isVectorCalculus(e->text)) {
            const ExpandedVectors expanded = expandedVectors(page_, *e);
            if (!expanded.expression) throw NoDerivative{expanded.problem};
            return of(expanded.expression);
        }
        if (componentOf(*e)) return withOperands(*e, {of(e->operands[0]), e->operands[1]});
        if (!e->orders.empty()) {
            const Derived plain = withoutDashes(page_, e);
            if (!plain.expression) throw NoDerivative{plain.problems.front()};
            return of(plain.expression);
        }
        const int arguments = static_cast<int>(e->operands.size()) - e->below - e->above;
        const FunctionEntry* entry = findFunction(e->text, e->below, e->above, arguments);
        if (!entry) refuse(*e, e->text + " cannot be differentiated: it is not known.");
        if (e->operands.size() > entry->operandCount()) { // min(a, b, c) = min(min(a, b), c)
            std::vector<ExprPtr> front(e->operands.begin(), e->operands.end() - 1);
            return call(withOperands(*e, {withOperands(*e, std::move(front)), e->operands.back()}));
        }
        const std::vector<std::string> names = operandNames(*entry);
        ExprPtr total = numberExpr(0);
        for (std::size_t i = 0; i < names.size(); ++i) {
            if (!depends(*e->operands[i])) continue;
            ExprPtr partial = catalogueDerivative(*entry, i);
            if (!partial)
                refuse(*e,
                       "The derivative of " + std::string(entry->form) + " by " + names[i] + " has no formula here.",
                       "hold " + names[i] + " fixed");
            // All at once, by way of names that cannot occur in the arguments.
            for (std::size_t k = 0; k < names.size(); ++k)
                partial = substitute(partial, names[k], nameExpr(placeholder + std::to_string(k)));
            for (std::size_t k = 0; k < names.size(); ++k)
                partial = substitute(partial, placeholder + std::to_string(k), e->operands[k]);
            total = total + partial * of(e->operands[i]);
        }
        return total;
    }

    ExprPtr pageCall(const ExprPtr& e) {
        const Line* function = page_.find(e->text, LineKind::Function);
        if (function && function->isMeasured() && !hasSlopes(*function, e->orders)) refuse(*e, noSlope(*function));
        if (!function || (!function->body && !function->field) || function->parameters.size() != e->operands.size())
            refuse(*e, e->text + " cannot be differentiated: its line has a problem.");
        if (hidesVariable(*e)) {
            ExprPtr body = function->body;
            for (std::size_t i = 0; i < function->parameters.size(); ++i)
                body = substitute(body, function->parameters[i], nodeExpr(ExprKind::Group, {e->operands[i]}));
            return of(body);
        }
        ExprPtr total = numberExpr(0);
        for (std::size_t i = 0; i < e->operands.size(); ++i) {
            if (!depends(*e->operands[i])) continue;
            auto partial = std::make_shared<Expr>(*e);
            if (partial->orders.empty()) partial->orders.assign(e->operands.size(), 0);
            ++partial->orders[i];
            total = total + ExprPtr(partial) * of(e->operands[i]);
        }
        return total;
    }

    const Page& page_;
    std::string name_;
    std::size_t steps_ = 0;
    mutable std::map<std::size_t, bool> hiding_; ///< by line; false while it is being found out
};

} // namespace

Derived derivative(const Page& page, const ExprPtr& e, const std::string& name, int order) {
    try {
        ExprPtr result = e;
        for (int i = 0; i < order; ++i) {
            if (result->height > tallestExpr) refuse(*e, "The derivative is too large to write down.");
            result = Differentiator(page, name).of(result);
            if (sizeOf(*result) > largestDerivative) refuse(*e, "The derivative is too large to write down.");
            result = simplified(result);
            if (sizeOf(*result) > largestDerivative) refuse(*e, "The derivative is too large to write down.");
        }
        return {result, {}};
    } catch (const NoDerivative& reason) {
        Problem problem = reason.problem;
        if (e->span != Span{}) {
            problem.first = e->span.first;
            problem.last = e->span.last;
        }
        return {nullptr, {problem}};
    }
}

Derived derivativeOfFunction(const Page& page, const Line& function, std::span<const int> orders) {
    if (function.isMeasured()) return {nullptr, {{-1, 1, 1, noSlope(function), ""}}};
    Derived result{function.body, {}};
    for (std::size_t i = 0; i < orders.size() && result.expression; ++i) {
        if (orders[i] > 0) result = derivative(page, result.expression, function.parameters[i], orders[i]);
    }
    return result;
}

namespace {

/// e with the functions of the page differentiated, where a dash cannot say by which parameter, and at the root.
ExprPtr writtenOut(const Page& page, const ExprPtr& e, bool root, Problems& problems) {
    ExprPtr call = e;
    if (!e->operands.empty()) {
        std::vector<ExprPtr> operands;
        for (const ExprPtr& operand : e->operands) operands.push_back(writtenOut(page, operand, false, problems));
        call = withOperands(*e, std::move(operands));
    }
    if (call->kind != ExprKind::Call || call->orders.empty()) return call;
    const Line* function = page.find(call->text, LineKind::Function);
    if (!function || call->below > 0 || call->above > 0) {
        const Derived plain = withoutDashes(page, call);
        if (plain.expression) return plain.expression;
        problems = plain.problems;
        return call;
    }
    if (!root && call->orders.size() == 1) return call;
    Derived body = derivativeOfFunction(page, *function, call->orders);
    if (!body.expression) {
        problems = body.problems;
        return call;
    }
    for (std::size_t i = 0; i < function->parameters.size(); ++i)
        body.expression =
            substitute(body.expression, function->parameters[i], nodeExpr(ExprKind::Group, {call->operands[i]}));
    return writtenOut(page, body.expression, false, problems);
}

} // namespace

Derived derivativeAsFormula(const Page& page, const ExprPtr& e) {
    ExprPtr root = e;
    while (root->kind == ExprKind::Group) root = root->operands[0];
    Derived result{root, {}};
    if (root->kind == ExprKind::Derivative)
        result = derivative(page, root->operands[0], root->text, static_cast<int>(root->number));
    if (!result.expression) return result;
    const bool same = root->kind == ExprKind::Derivative && root->operands[0]->kind == ExprKind::Call;
    ExprPtr whole = writtenOut(page, result.expression, same || root->kind == ExprKind::Call, result.problems);
    if (!result.problems.empty()) return {nullptr, result.problems};
    return {simplified(whole), {}};
}

Derived withoutDashes(const Page& page, const ExprPtr& call) {
    if (call->orders.empty() || (page.defined.contains(call->text) && call->below == 0 && call->above == 0))
        return {call, {}};
    auto plain = std::make_shared<Expr>(*call);
    plain->orders.clear();
    const ExprPtr argument = plain->operands.back();
    plain->operands.back() = nameExpr(placeholder);
    Derived result = derivative(page, plain, placeholder, call->orders.front());
    if (result.expression) {
        result.expression = substitute(result.expression, placeholder, nodeExpr(ExprKind::Group, {argument}));
        result.expression = withBrackets(result.expression);
    }
    return result;
}

} // namespace coulter
