#include "formula/notation/expression_parser.h"
#include "formula/notation/matrix_functions.h"

#include <numbers>

namespace coulter {

ExprPtr ExpressionParser::sum() {
    const Depth depth(*this);
    const int first = peek().span.first;
    ExprPtr left = product();
    while (is("+") || is("-")) {
        const bool plus = take("+");
        if (!plus) take("-");
        ExprPtr right = product();
        requireNumber(left);
        requireNumber(right);
        left = make(plus ? ExprKind::Add : ExprKind::Subtract, from(first), {left, right});
    }
    return left;
}

ExprPtr ExpressionParser::product() {
    const int first = peek().span.first;
    ExprPtr left = signedFactor();
    bool divided = false; // a division stands to the left in this product
    for (;;) {
        if (take("*")) {
            if (is("*") && !peek().spaceBefore)
                refuseSpelling({tokens_[at_ - 1].span.first, peek().span.last}, "**", "^");
            left = numbers(ExprKind::Multiply, first, left, signedFactor());
        } else if (take("/")) {
            left = numbers(ExprKind::Divide, first, left, signedFactor());
            divided = true;
        } else if (startsFactor()) {
            const bool touching = !peek().spaceBefore;
            ExprPtr right = power();
            auto node = std::make_shared<Expr>();
            node->kind = ExprKind::Multiply;
            node->juxtaposed = true;
            requireNumber(left);
            requireNumber(right);
            finish(*node, from(first), {left, right});
            if (divided && touching) {
                note(node->span, "Read from left to right: the last factor multiplies the whole fraction.",
                     "put the denominator in brackets if it belongs there");
            }
            left = node;
        } else {
            return left;
        }
    }
}

ExprPtr ExpressionParser::numbers(ExprKind kind, int first, const ExprPtr& left, const ExprPtr& right) const {
    requireNumber(left);
    requireNumber(right);
    return make(kind, from(first), {left, right});
}

ExprPtr ExpressionParser::signedFactor() {
    const Depth depth(*this);
    const int first = peek().span.first;
    if (take("-")) {
        ExprPtr operand = signedFactor();
        requireNumber(operand);
        return make(ExprKind::Negate, from(first), {operand});
    }
    if (take("+")) return signedFactor();
    return power();
}

bool ExpressionParser::startsFactor() const {
    const Token& token = peek();
    if (token.kind == TokenKind::Word) return !isKeyword(token.text);
    if (token.kind != TokenKind::Symbol) return false;
    return token.text == "(" || token.text == "[" || token.text == "{" || (token.text == "|" && bars_ == 0);
}

ExprPtr ExpressionParser::power() {
    const Depth depth(*this);
    const int first = peek().span.first;
    ExprPtr base = postfix();
    if (!take("^")) return base;
    ExprPtr exponent = exponentPart();
    requireNumber(base);
    requireNumber(exponent);
    return make(ExprKind::Power, from(first), {base, exponent});
}

/// An exponent may carry a sign and a power of its own: 2^-x, 2^3^2 = 2^(3^2). Braces group it as brackets do.
ExprPtr ExpressionParser::exponentPart() {
    const Depth depth(*this);
    const Token opened = peek();
    if (take("{")) {
        ExprPtr inner = inBrackets([&] { return sum(); });
        close("}", opened);
        return inner;
    }
    const int first = peek().span.first;
    if (take("-")) {
        ExprPtr operand = exponentPart();
        return make(ExprKind::Negate, from(first), {operand});
    }
    return power();
}

ExprPtr ExpressionParser::postfix() {
    const Depth depth(*this); // a root sign may stand before another
    const int first = peek().span.first;
    ExprPtr operand = primary();
    if (is("!")) requireNumber(operand);
    if (take("!")) operand = make(ExprKind::Factorial, from(first), {operand});
    if (is("!"))
        refuse(peek().span, "In print two such signs are the double factorial, which is another function.",
               "write (n!)! for a factorial of a factorial");
    return operand;
}

ExprPtr ExpressionParser::primary() {
    switch (peek().kind) {
    case TokenKind::Number: return numberPart();
    case TokenKind::Word: return wordPart();
    case TokenKind::Symbol:
        if (is("(")) return bracket();
        if (is("{")) return braces();
        if (is("[")) return iverson();
        if (is("|")) return absolute();
        break;
    default: break;
    }
    unexpected();
}

/// A group, or with commas a vector: (cos(t), sin(t)).
ExprPtr ExpressionParser::bracket() {
    const Token opened = peek();
    ++at_;
    std::vector<ExprPtr> parts = inBrackets([&] {
        std::vector<ExprPtr> list{condition()};
        while (is(",")) {
            if (list.size() == largestMatrix)
                refuse(peek().span, "A vector has at most " + std::to_string(largestMatrix) + " components.",
                       "name long columns of numbers with braces: {1, 2, 3}");
            take(",");
            list.push_back(sum());
        }
        return list;
    });
    close(")", opened);
    if (parts.size() == 1) return make(ExprKind::Group, from(opened.span.first), std::move(parts));
    for (const ExprPtr& part : parts) requireNumber(part);
    return make(ExprKind::Vector, from(opened.span.first), std::move(parts));
}

ExprPtr ExpressionParser::absolute() {
    const Token opened = peek();
    ++at_;
    const int bars = std::exchange(bars_, 1);
    ExprPtr inner = sum();
    bars_ = bars;
    close("|", opened);
    requireNumber(inner);
    return make(ExprKind::Absolute, from(opened.span.first), {inner});
}

ExprPtr ExpressionParser::plainNumber(const Token& token) {
    auto node = std::make_shared<Expr>();
    node->number = token.number;
    node->text = token.text;
    node->span = token.span;
    return node;
}

ExprPtr ExpressionParser::numberPart() {
    const Token token = peek();
    ++at_;
    if (is("°")) { // 30° is the number π/6
        ++at_;
        auto node = std::make_shared<Expr>();
        node->number = token.number * (std::numbers::pi / 180);
        node->text = token.text + "°";
        node->span = from(token.span.first);
        return node;
    }
    if (is("%")) {
        ++at_;
        auto node = std::make_shared<Expr>();
        node->number = token.number / 100;
        node->text = token.text + "%";
        node->span = from(token.span.first);
        return node;
    }
    if (peek().kind == TokenKind::Number) unexpected();
    return plainNumber(token);
}

} // namespace coulter
