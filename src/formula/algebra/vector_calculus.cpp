#include "formula/algebra/vector_calculus.h"

#include "formula/notation/expr_build.h"
#include "formula/page/matrix_value.h"

#include <algorithm>
#include <map>

namespace coulter {
namespace {

constexpr const char* componentName = "component of"; // with a space, which no name has

ExprPtr component(const ExprPtr& vector, std::size_t index) {
    return callExpr(componentName, {vector, numberExpr(static_cast<double>(index))});
}

/// The call of a function, differentiated once by one of its parameters.
ExprPtr partial(const Expr& call, std::size_t by) {
    auto node = std::make_shared<Expr>(call);
    node->orders.assign(call.operands.size(), 0);
    node->orders[by] = 1;
    return node;
}

/// How many components an expression has, as its form tells: 1 of everything that is no vector.
class ComponentCount {
public:
    explicit ComponentCount(const Page& page) : page_(page) {}

    std::size_t of(const Expr& e) {
        switch (e.kind) {
        case ExprKind::Vector: return e.operands.size();
        case ExprKind::Name: {
            const Line* matrix = page_.find(e.text, LineKind::Matrix);
            return matrix ? matrix->matrix->rows : 1;
        }
        case ExprKind::Group:
        case ExprKind::Negate:
        case ExprKind::Add:
        case ExprKind::Subtract:
        case ExprKind::Pieces:
        case ExprKind::Derivative: return of(*e.operands[0]);
        case ExprKind::Multiply:
        case ExprKind::Divide: return std::max(of(*e.operands[0]), of(*e.operands[1]));
        case ExprKind::Call: return ofCall(e);
        default: return 1;
        }
    }

private:
    std::size_t ofCall(const Expr& call) {
        if (const auto known = functions_.find(call.text); known != functions_.end()) return known->second;
        const Line* function = page_.find(call.text, LineKind::Function);
        if (!function || !function->body) {
            if (call.text == "grad") return call.operands[0]->operands.size();
            return call.text == "rot" && call.operands[0]->operands.size() == 3 ? 3 : 1;
        }
        return functions_[call.text] = of(*function->body);
    }

    const Page& page_;
    std::map<std::string, std::size_t> functions_; ///< those already counted
};

ExpandedVectors refused(const Expr& e, std::string sentence, std::string suggestion) {
    return {nullptr, {-1, e.span.first, e.span.last, std::move(sentence), std::move(suggestion)}};
}

} // namespace

ExpandedVectors expandedVectors(const Page& page, const Expr& e) {
    const Expr& call = *e.operands[0];
    const Line* function = page.find(call.text, LineKind::Function);
    if (!function) return refused(e, call.text + " cannot be computed: its line has a problem.", "");
    const std::size_t n = call.operands.size();
    if (n < 2 || n > 3)
        return refused(e,
                       e.text + " belongs to functions of two or three variables; " + call.text + " has " +
                           std::to_string(n) + ".",
                       n == 1 ? "write " + call.text + "'(…) for its derivative" : "");
    if (e.text != "grad") {
        const std::size_t components = function->body ? ComponentCount(page).of(*function->body) : 1;
        if (components != n)
            return refused(e,
                           e.text + " belongs to a vector with as many components as it has variables; " + call.text +
                               " has " + std::to_string(components) + ", and " + std::to_string(n) + " variables.",
                           components == 1 ? "write grad " + call.text + "(…)" : "");
    }
    const auto d = [&](std::size_t k, std::size_t by) { return component(partial(call, by), k); };
    if (e.text == "grad") {
        std::vector<ExprPtr> parts;
        for (std::size_t k = 0; k < n; ++k) parts.push_back(partial(call, k));
        return {nodeExpr(ExprKind::Vector, std::move(parts)), {}};
    }
    if (e.text == "div") {
        ExprPtr sum = d(0, 0);
        for (std::size_t k = 1; k < n; ++k) sum = nodeExpr(ExprKind::Add, {sum, d(k, k)});
        return {sum, {}};
    }
    const auto turn = [&](std::size_t a, std::size_t b) { return nodeExpr(ExprKind::Subtract, {d(b, a), d(a, b)}); };
    return {n == 2 ? turn(0, 1) : nodeExpr(ExprKind::Vector, {turn(1, 2), turn(2, 0), turn(0, 1)}), {}};
}

std::optional<ComponentOf> componentOf(const Expr& e) {
    if (e.kind != ExprKind::Call || e.text != componentName) return std::nullopt;
    return ComponentOf{e.operands[0], static_cast<std::size_t>(e.operands[1]->number)};
}

} // namespace coulter
