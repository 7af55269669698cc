#include "formula/base/text.h"
#include "formula/notation/expression_parser.h"

namespace coulter {

/// A number as an upper limit; unlike elsewhere a number may follow it, which belongs to what is summed.
ExprPtr ExpressionParser::upperLimit() {
    if (is("{")) return exponentPart();
    if (peek().kind == TokenKind::Number) return plainNumber(tokens_[at_++]);
    return primary();
}

/// sum_{n=1}^{N} term: the term is the next product; brackets extend it.
ExprPtr ExpressionParser::series(ExprKind kind, const std::string& shown) {
    const Token word = peek();
    ++at_;
    const std::string way = "write " + shown + "_{n=1}^{10} …";
    const Token lower = peek(1);
    if (!take("_") || !take("{")) refuse(word.span, "The lower limit of the " + shown + " is missing.", way);
    auto node = std::make_shared<Expr>();
    node->kind = kind;
    const std::size_t length = readName(tokens_.subspan(at_), node->text);
    if (length == 0) refuse(peek().span, "The " + shown + " needs a name that runs.", way);
    at_ += length;
    if (!take("=")) refuse(peek().span, "The lower limit of the " + shown + " is missing.", way);
    ExprPtr low = inBrackets([&] { return sum(); });
    close("}", lower);
    if (!take("^")) refuse(peek().span, "The upper limit of the " + shown + " is missing.", way);
    ExprPtr high = upperLimit();
    ExprPtr term = withBound(node->text, [&] { return product(); });
    for (const ExprPtr& part : {low, high, term}) requireNumber(part);
    finish(*node, from(word.span.first), {low, high, term});
    return node;
}

/// Finds the word dk that ends the integral whose integrand starts here; integrals within have one of their own.
std::size_t ExpressionParser::endOfIntegrand(std::string& variable, std::size_t& length) const {
    int inner = 0, depth = 0;
    for (std::size_t i = at_; i < tokens_.size(); ++i) {
        const Token& token = tokens_[i];
        if (token.kind == TokenKind::Symbol) {
            if (token.text == "(" || token.text == "{" || token.text == "[") ++depth;
            if ((token.text == ")" || token.text == "}" || token.text == "]") && --depth < 0) break;
        }
        if (token.kind != TokenKind::Word) continue;
        if (token.text == "int" && depth == 0) ++inner;
        if (depth > 0 || token.text.size() < 2 || token.text[0] != 'd') continue;
        std::vector<Token> rest(tokens_.begin() + static_cast<std::ptrdiff_t>(i), tokens_.end());
        rest[0].text.erase(0, 1);
        const std::size_t taken = readName(rest, variable);
        if (taken == 0 || inner-- > 0) continue;
        length = taken;
        return i;
    }
    return tokens_.size();
}

/// int_{a}^{b} g(k) dk: the integral ends at its dk.
ExprPtr ExpressionParser::integral() {
    const Depth depth(*this);
    const Token word = peek();
    ++at_;
    const char* way = "write int_{a}^{b} f(k) dk";
    auto node = std::make_shared<Expr>();
    node->kind = ExprKind::Integral;
    if (!take("_")) refuse(word.span, "The lower limit of the integral is missing.", way);
    ExprPtr low = upperLimit();
    if (!take("^")) refuse(peek().span, "The upper limit of the integral is missing.", way);
    ExprPtr high = upperLimit();
    std::size_t length = 0;
    const std::size_t end = endOfIntegrand(node->text, length);
    if (end == tokens_.size())
        refuse(word.span, "The integral does not say over what it runs.",
               "end it with d and the name that runs, with a space before: int_0^1 k^2 dk");
    if (end == at_) refuse(peek().span, "What is to be integrated is missing here.", way);
    // The integrand is read as if the line ended at its dk.
    const auto all = std::exchange(tokens_, tokens_.first(end));
    const Token after = std::exchange(end_, all[end]);
    end_.kind = TokenKind::End;
    ExprPtr integrand = withBound(node->text, [&] { return inBrackets([&] { return sum(); }); });
    if (peek().kind != TokenKind::End) unexpected();
    tokens_ = all;
    end_ = after;
    at_ = end + length;
    for (const ExprPtr& part : {low, high, integrand}) requireNumber(part);
    finish(*node, from(word.span.first), {low, high, integrand});
    return node;
}

/// d/dx(…) or d^2/dx^2(…); without the bracket it is a fraction of names.
bool ExpressionParser::startsDerivative() const {
    if (peek().text != "d") return false;
    const bool higher = is("^", 1) && peek(2).kind == TokenKind::Number;
    const std::size_t slash = higher ? 3 : 1;
    const Token& below = peek(slash + 1);
    if (!is("/", slash) || below.kind != TokenKind::Word || below.text.size() < 2 || below.text[0] != 'd') return false;
    std::vector<Token> rest(tokens_.begin() + static_cast<std::ptrdiff_t>(at_ + slash + 1), tokens_.end());
    rest[0].text.erase(0, 1);
    std::string name;
    const std::size_t length = readName(rest, name);
    if (length == 0) return false;
    const std::size_t next = slash + 1 + length;
    return is("(", next) || (higher && is("^", next) && peek(next + 1).kind == TokenKind::Number && is("(", next + 2));
}

ExprPtr ExpressionParser::derivative() {
    const Token word = peek();
    auto node = std::make_shared<Expr>();
    node->kind = ExprKind::Derivative;
    node->number = 1;
    ++at_;
    if (take("^")) node->number = tokens_[at_++].number;
    take("/");
    std::vector<Token> rest(tokens_.begin() + static_cast<std::ptrdiff_t>(at_), tokens_.end());
    rest[0].text.erase(0, 1);
    at_ += readName(rest, node->text);
    if (take("^")) {
        const Token order = tokens_[at_++];
        if (order.number != node->number)
            refuse({word.span.first, order.span.last}, "The two orders of this derivative differ.",
                   "write the same number above and below: d^2/dx^2(…)");
    }
    if (node->number < 1 || node->number > 8 || node->number != static_cast<int>(node->number))
        refuse(from(word.span.first), "The order of a derivative is a whole number from 1 to 8.");
    const Token opened = peek();
    take("(");
    ExprPtr body = withBound(node->text, [&] { return inBrackets([&] { return sum(); }); });
    close(")", opened);
    requireNumber(body);
    finish(*node, from(word.span.first), {body});
    if (known_.values.contains("d") && isValue(node->text))
        note(node->span, "Read as the derivative by " + node->text + ".",
             "write d/(d " + node->text + ") (…) if d is the name of a quantity here");
    return node;
}

} // namespace coulter
