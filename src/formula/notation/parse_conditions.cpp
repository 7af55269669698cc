#include "formula/notation/expression_parser.h"

namespace coulter {

void ExpressionParser::requireNumber(const ExprPtr& e) {
    if (isCondition(*e))
        refuse(e->span, "A condition is no number.",
               "write it in square brackets: [a < b] is 1 where it holds and 0 elsewhere");
}

void ExpressionParser::requireCondition(const ExprPtr& e) {
    if (!isCondition(*e)) refuse(e->span, "A condition is needed here.", "write a comparison such as 0 <= t < 1");
}

/// A condition, or (where no relation follows) a number: a or b and not c < d.
ExprPtr ExpressionParser::condition() {
    const Depth depth(*this);
    ExprPtr left = conjunction();
    while (takeWord("or")) {
        ExprPtr right = conjunction();
        requireCondition(left);
        requireCondition(right);
        left = make(ExprKind::Or, {left->span.first, right->span.last}, {left, right});
    }
    return left;
}

ExprPtr ExpressionParser::conjunction() {
    ExprPtr left = negation();
    while (takeWord("and")) {
        ExprPtr right = negation();
        requireCondition(left);
        requireCondition(right);
        left = make(ExprKind::And, {left->span.first, right->span.last}, {left, right});
    }
    return left;
}

ExprPtr ExpressionParser::negation() {
    const Depth depth(*this);
    const int first = peek().span.first;
    if (!takeWord("not")) return comparison();
    ExprPtr operand = negation();
    requireCondition(operand);
    return make(ExprKind::Not, from(first), {operand});
}

ExprPtr ExpressionParser::comparison() {
    ExprPtr left = sum();
    auto chain = std::make_shared<Expr>();
    chain->kind = ExprKind::Compare;
    std::vector<ExprPtr> operands{left};
    for (;;) {
        std::string relation;
        for (const char* each : {"<", "<=", "=", "!=", ">", ">="}) {
            if (is(each)) relation = each;
        }
        if (relation.empty()) break;
        ++at_;
        chain->relations.push_back(relation);
        operands.push_back(sum());
    }
    if (chain->relations.empty()) return left;
    for (const ExprPtr& operand : operands) requireNumber(operand);
    const Span span{left->span.first, operands.back()->span.last};
    finish(*chain, span, std::move(operands));
    return chain;
}

ExprPtr ExpressionParser::braces() {
    const Token opened = peek();
    ++at_;
    if (is("}"))
        refuse({opened.span.first, peek().span.last}, "The list is empty.", "write at least one number in the braces");
    const int bars = std::exchange(bars_, 0);
    const ExprPtr first = sum();
    const bool isList = is(",") || is("}");
    ExprPtr all = isList ? list(opened, first) : pieces(opened, first);
    bars_ = bars;
    close("}", opened);
    auto whole = std::make_shared<Expr>(*all);
    whole->span = from(opened.span.first);
    return whole;
}

/// {0.1, 0.2, 0.5} or {0, 0.1, ..., 1}
ExprPtr ExpressionParser::list(const Token& opened, ExprPtr first) {
    auto all = std::make_shared<Expr>();
    all->kind = ExprKind::List;
    std::vector<ExprPtr> parts{std::move(first)};
    while (take(",")) {
        if (is("...")) {
            if (all->goesOn) refuse(peek().span, "A list goes on once.", "leave out the second “...”");
            all->goesOn = true;
            ++at_;
            if (!take(",")) refuse(peek().span, "The list has no end.", "write its last number: {0, 0.1, ..., 1}");
            parts.push_back(sum());
            if (is(",")) refuse(peek().span, "Behind “...” stands the last number of the list alone.");
        } else {
            if (is("}")) refuse(peek().span, "A number is missing here.");
            parts.push_back(sum());
        }
    }
    for (const ExprPtr& part : parts) requireNumber(part);
    finish(*all, from(opened.span.first), std::move(parts));
    return all;
}

/// { 0 for t < 1; 4(t - 1) for 1 <= t < 3; 8 otherwise }
ExprPtr ExpressionParser::pieces(const Token& opened, ExprPtr first) {
    std::vector<ExprPtr> parts;
    bool last = false;
    do {
        if (last) refuse(peek().span, "Nothing can follow the piece “otherwise”.");
        parts.push_back(parts.empty() ? std::move(first) : sum());
        requireNumber(parts.back());
        if (takeWord("otherwise")) {
            last = true;
        } else if (takeWord("for")) {
            parts.push_back(condition());
            requireCondition(parts.back());
        } else {
            if (peek().kind == TokenKind::End) break;
            refuse(peek().span, "A piece says where it holds.", "write “for” and a condition, or “otherwise”");
        }
    } while (take(";"));
    return make(ExprKind::Pieces, from(opened.span.first), std::move(parts));
}

ExprPtr ExpressionParser::iverson() {
    const Token opened = peek();
    ++at_;
    ExprPtr inner = inBrackets([&] { return condition(); });
    if (is(",") || is(";"))
        refuse(opened.span, "Vectors and matrices stand in round brackets.",
               "write (1, 2) for a vector, ((1, 2), (3, 4)) for a matrix");
    close("]", opened);
    requireCondition(inner);
    return make(ExprKind::Iverson, from(opened.span.first), {inner});
}

} // namespace coulter
