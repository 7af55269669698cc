#include "formula/notation/expr_build.h"

#include "formula/base/text.h"
#include "special/catalogue.h"

#include <algorithm>

namespace coulter {

void setOperands(Expr& node, std::vector<ExprPtr> operands) {
    node.operands = std::move(operands);
    node.height = 1;
    for (const ExprPtr& operand : node.operands) node.height = std::max(node.height, operand->height + 1);
}

ExprPtr numberExpr(double value) {
    auto node = std::make_shared<Expr>();
    node->number = value;
    node->text = roundedNumber(value, 15);
    if (!(value < 0)) return node;
    node->number = -value;
    node->text = roundedNumber(-value, 15);
    return negated(node);
}

ExprPtr nameExpr(std::string canonical) {
    auto node = std::make_shared<Expr>();
    node->kind = ExprKind::Name;
    node->text = std::move(canonical);
    return node;
}

ExprPtr callExpr(std::string name, std::vector<ExprPtr> arguments) {
    auto node = std::make_shared<Expr>();
    node->kind = ExprKind::Call;
    node->text = std::move(name);
    setOperands(*node, std::move(arguments));
    return node;
}

ExprPtr nodeExpr(ExprKind kind, std::vector<ExprPtr> operands) {
    auto node = std::make_shared<Expr>();
    node->kind = kind;
    setOperands(*node, std::move(operands));
    node->juxtaposed = kind == ExprKind::Multiply;
    return node;
}

ExprPtr withOperands(const Expr& e, std::vector<ExprPtr> operands) {
    auto node = std::make_shared<Expr>(e);
    setOperands(*node, std::move(operands));
    return node;
}

bool isNumber(const Expr& e, double value) {
    if (e.kind == ExprKind::Group) return isNumber(*e.operands[0], value);
    return e.kind == ExprKind::Number && e.number == value;
}

ExprPtr operator+(const ExprPtr& a, const ExprPtr& b) {
    if (isNumber(*a, 0)) return b;
    if (isNumber(*b, 0)) return a;
    return nodeExpr(ExprKind::Add, {a, b});
}
ExprPtr operator-(const ExprPtr& a, const ExprPtr& b) {
    if (isNumber(*b, 0)) return a;
    if (isNumber(*a, 0)) return negated(b);
    return nodeExpr(ExprKind::Subtract, {a, b});
}
ExprPtr operator*(const ExprPtr& a, const ExprPtr& b) {
    if (isNumber(*a, 0) || isNumber(*b, 1)) return a;
    if (isNumber(*b, 0) || isNumber(*a, 1)) return b;
    return nodeExpr(ExprKind::Multiply, {a, b});
}
ExprPtr operator/(const ExprPtr& a, const ExprPtr& b) {
    if (isNumber(*a, 0) || isNumber(*b, 1)) return a;
    return nodeExpr(ExprKind::Divide, {a, b});
}
ExprPtr powerExpr(const ExprPtr& base, const ExprPtr& exponent) {
    if (isNumber(*exponent, 1)) return base;
    return nodeExpr(ExprKind::Power, {base, exponent});
}
ExprPtr negated(const ExprPtr& a) {
    if (isNumber(*a, 0)) return a;
    return nodeExpr(ExprKind::Negate, {a});
}

ExprPtr substitute(const ExprPtr& e, const std::string& name, const ExprPtr& replacement) {
    if (e->kind == ExprKind::Name) return e->text == name ? replacement : e;
    if (e->operands.empty() || !mentions(*e, name)) return e;
    if (bindsName(e->kind) && e->text != name && mentions(*replacement, e->text)) {
        // The running name would catch one of the replacement's: give it another first.
        std::string fresh = nameParts(e->text).letter + "_" + std::to_string(1);
        for (int i = 2; mentions(*e, fresh) || mentions(*replacement, fresh); ++i)
            fresh = nameParts(e->text).letter + "_" + std::to_string(i);
        auto renamed = std::make_shared<Expr>(*e);
        renamed->operands[2] = substitute(e->operands[2], e->text, nameExpr(fresh));
        renamed->text = fresh;
        return substitute(renamed, name, replacement);
    }
    std::vector<ExprPtr> operands;
    for (std::size_t i = 0; i < e->operands.size(); ++i) {
        const bool hidden = bindsName(e->kind) && i == 2 && e->text == name;
        operands.push_back(hidden ? e->operands[i] : substitute(e->operands[i], name, replacement));
    }
    return withOperands(*e, std::move(operands));
}

bool mentions(const Expr& e, const std::string& name) {
    if (e.kind == ExprKind::Name) return e.text == name;
    for (std::size_t i = 0; i < e.operands.size(); ++i) {
        if (bindsName(e.kind) && i == 2 && e.text == name) continue;
        if (mentions(*e.operands[i], name)) return true;
    }
    return false;
}

namespace {

/// How tightly a construct binds: sums 1, products 2, powers 3, all others 4.
int binding(const Expr& e) {
    switch (e.kind) {
    case ExprKind::Add:
    case ExprKind::Subtract: return 1;
    case ExprKind::Negate:
    case ExprKind::Multiply:
    case ExprKind::Divide:
    case ExprKind::Sum:
    case ExprKind::Product: return 2;
    case ExprKind::Power: return e.onFunction ? 4 : 3;
    default: return 4;
    }
}

bool startsWithSign(const Expr& e) {
    switch (e.kind) {
    case ExprKind::Negate: return true;
    case ExprKind::Multiply:
    case ExprKind::Divide: return startsWithSign(*e.operands[0]);
    default: return false;
    }
}

ExprPtr group(const ExprPtr& e) { return e->kind == ExprKind::Group ? e : nodeExpr(ExprKind::Group, {e}); }

/// sin(x)^2 is printed sin²(x); roots, fences and functions with an index above need brackets.
bool takesPowerOnName(const Expr& e) {
    if (e.kind != ExprKind::Call || e.above > 0 || !e.orders.empty()) return false;
    for (const char* fenced : {"sqrt", "cbrt", "abs", "floor", "ceil"}) {
        if (e.text == fenced) return false;
    }
    // L_{2}^{2}(x) would be read as an index above, not as a power.
    return !e.text.ends_with("'") && !findFunction(e.text, e.below, 1, -1);
}

} // namespace

ExprPtr withBrackets(const ExprPtr& e) {
    std::vector<ExprPtr> parts;
    for (const ExprPtr& operand : e->operands) parts.push_back(withBrackets(operand));
    const auto demand = [&](std::size_t i, int least, bool noSign = false) {
        if (binding(*parts[i]) < least || (noSign && startsWithSign(*parts[i]))) parts[i] = group(parts[i]);
    };
    switch (e->kind) {
    case ExprKind::Group:
        return binding(*parts[0]) == 4 && parts[0]->kind != ExprKind::Pieces ? parts[0] : group(parts[0]);
    case ExprKind::Add:
    case ExprKind::Subtract: demand(1, 2, true); break;
    case ExprKind::Negate: demand(0, 2); break;
    case ExprKind::Multiply:
        demand(0, 2);
        if (bindsName(parts[0]->kind)) parts[0] = group(parts[0]);
        demand(1, 3);
        break;
    case ExprKind::Divide:
        demand(0, 2);
        if (bindsName(parts[0]->kind)) parts[0] = group(parts[0]);
        demand(1, 3);
        break;
    case ExprKind::Power: {
        if (takesPowerOnName(*parts[0])) {
            auto node = std::make_shared<Expr>(*withOperands(*e, std::move(parts)));
            node->onFunction = true;
            return node;
        }
        const ExprKind base = parts[0]->kind;
        if (binding(*parts[0]) < 4 || base == ExprKind::Call || base == ExprKind::Power || base == ExprKind::Integral)
            parts[0] = group(parts[0]);
        if (binding(*parts[1]) < 4) parts[1] = group(parts[1]);
        break;
    }
    case ExprKind::Factorial:
        if (binding(*parts[0]) < 4) parts[0] = group(parts[0]);
        break;
    case ExprKind::Sum:
    case ExprKind::Product: demand(2, 2, true); break;
    default: break;
    }
    return withOperands(*e, std::move(parts));
}

namespace {

std::string list(const Expr& e, std::size_t from, std::size_t to) {
    std::string text;
    for (std::size_t i = from; i < to; ++i) {
        if (i > from) text += e.text == "F" && e.operands.size() == 4 && i >= 2 ? "; " : ", ";
        text += spelled(*e.operands[i]);
    }
    return text;
}

std::string nameSpelled(const std::string& canonical) {
    if (canonical == "∞") return "inf";
    const NameParts parts = nameParts(canonical);
    if (parts.subscript.empty()) return canonical;
    return parts.letter + "_{" + parts.subscript + "}";
}

std::string callSpelled(const Expr& e, const std::string& power) {
    std::string name = e.text;
    std::size_t at = static_cast<std::size_t>(e.below);
    if (nameParts(name).subscript.empty() == false) name = nameSpelled(name);
    std::string dashes;
    if (!name.empty() && name.ends_with("'")) {
        name.pop_back();
        dashes = "'";
    }
    if (e.below > 0) name += "_{" + list(e, 0, at) + "}";
    name += dashes;
    if (e.orders.size() == 1) name += std::string(static_cast<std::size_t>(e.orders[0]), '\'');
    if (e.orders.size() > 1) {
        name += "^{(";
        for (std::size_t i = 0; i < e.orders.size(); ++i) name += (i > 0 ? "," : "") + std::to_string(e.orders[i]);
        name += ")}";
    }
    if (e.above > 0) name += "^{" + list(e, at, at + static_cast<std::size_t>(e.above)) + "}";
    at += static_cast<std::size_t>(e.above);
    return name + power + "(" + list(e, at, e.operands.size()) + ")";
}

} // namespace

std::string spelled(const Expr& e) {
    const auto part = [&](std::size_t i) { return spelled(*e.operands[i]); };
    const auto limits = [&](const std::string& lower) { return "_{" + lower + part(0) + "}^{" + part(1) + "} "; };
    switch (e.kind) {
    case ExprKind::Number: return e.text;
    case ExprKind::Name: return nameSpelled(e.text);
    case ExprKind::Call: return callSpelled(e, "");
    case ExprKind::Group: return "(" + part(0) + ")";
    case ExprKind::Absolute: return "abs(" + part(0) + ")";
    case ExprKind::Negate: return "-" + part(0);
    case ExprKind::Add: return part(0) + " + " + part(1);
    case ExprKind::Subtract: return part(0) + " - " + part(1);
    case ExprKind::Multiply: {
        // Without a sign where that reads as the same product: 10x, 2 cos(x), a (b + c).
        const std::string left = part(0), right = part(1);
        const ExprKind a = e.operands[0]->kind, b = e.operands[1]->kind;
        if (isDigit(decodeUtf8(right).front()) || b == ExprKind::Negate || b == ExprKind::Pieces)
            return left + " * " + right;
        if (b == ExprKind::Group && a != ExprKind::Number && a != ExprKind::Group) return left + " * " + right;
        return left + (a == ExprKind::Number && b == ExprKind::Name ? "" : " ") + right;
    }
    case ExprKind::Divide: return part(0) + "/" + part(1);
    case ExprKind::Power:
        if (e.onFunction) return callSpelled(*e.operands[0], "^{" + part(1) + "}");
        return part(0) + "^" + part(1);
    case ExprKind::Factorial: return part(0) + "!";
    case ExprKind::Compare: {
        std::string text = part(0);
        for (std::size_t i = 0; i < e.relations.size(); ++i) text += " " + e.relations[i] + " " + part(i + 1);
        return text;
    }
    case ExprKind::And: return part(0) + " and " + part(1);
    case ExprKind::Or: return part(0) + " or " + part(1);
    case ExprKind::Not: return "not " + part(0);
    case ExprKind::Iverson: return "[" + part(0) + "]";
    case ExprKind::Pieces: {
        if (e.choosesRows) return part(0);
        std::string text = "{ ";
        for (std::size_t i = 0; i < e.operands.size(); i += 2) {
            if (i > 0) text += "; ";
            text += part(i) + (i + 1 < e.operands.size() ? " for " + part(i + 1) : std::string(" otherwise"));
        }
        return text + " }";
    }
    case ExprKind::Sum: return "sum" + limits(nameSpelled(e.text) + "=") + part(2);
    case ExprKind::Product: return "prod" + limits(nameSpelled(e.text) + "=") + part(2);
    case ExprKind::Integral:
        return (e.principal ? "pv int" : "int") + limits("") + part(2) + " d" + nameSpelled(e.text);
    case ExprKind::Derivative: {
        const std::string order = e.number == 1 ? "" : "^" + roundedNumber(e.number, 3);
        return "d" + order + "/d" + nameSpelled(e.text) + order + "(" + part(0) + ")";
    }
    case ExprKind::Vector: return "(" + list(e, 0, e.operands.size()) + ")";
    case ExprKind::List: {
        const std::size_t last = e.operands.size() - 1;
        if (!e.goesOn) return "{" + list(e, 0, last + 1) + "}";
        return "{" + list(e, 0, last) + ", ..., " + part(last) + "}";
    }
    }
    return "";
}

} // namespace coulter
