#include "formula/base/text.h"
#include "formula/notation/expression_parser.h"
#include "formula/notation/spellings.h"
#include "special/catalogue.h"

namespace coulter {
namespace {

std::string countOf(std::size_t n) { return n == 1 ? "1 argument" : std::to_string(n) + " arguments"; }

} // namespace

ExprPtr ExpressionParser::call(const std::string& name, std::vector<ExprPtr> operands, Span span) {
    auto node = std::make_shared<Expr>();
    node->kind = ExprKind::Call;
    node->text = name;
    finish(*node, span, std::move(operands));
    return node;
}

std::vector<ExprPtr> ExpressionParser::arguments(const std::string& shown, Span nameSpan) {
    const Token opened = peek();
    if (!take("(")) {
        refuse(nameSpan, shown + " needs its argument in brackets.", "write " + shown + "(…)");
    }
    std::vector<ExprPtr> list = inBrackets([&] {
        std::vector<ExprPtr> read;
        if (is(")")) return read;
        do {
            if (is(",") || is(")")) refuse(peek().span, "An argument of " + shown + " is missing here.");
            read.push_back(condition());
            requireNumber(read.back());
        } while (take(",") || (shown == "F" && take(";"))); // F(a, b; c; x)
        return read;
    });
    close(")", opened);
    return list;
}

/// sin 2x, ln x, cos ωt: a function's argument without brackets is the product that follows, up to a sign, a bracket or
/// the next function, as in print.
ExprPtr ExpressionParser::bareArgument(const Token& function) {
    const int first = peek().span.first;
    ExprPtr product = power();
    while (startsFactor() && peek().kind == TokenKind::Word && !startsCatalogueCall()) {
        const ExprPtr factor = power();
        requireNumber(factor);
        auto node = std::make_shared<Expr>();
        node->kind = ExprKind::Multiply;
        node->juxtaposed = true;
        finish(*node, from(first), {product, factor});
        product = node;
    }
    requireNumber(product);
    if (is("/") && !peek().spaceBefore)
        note(from(function.span.first), "Read as the function of what stands before the “/” alone.",
             "put the whole argument in brackets if more belongs to it");
    return product;
}

/// Whether the argument of a function may begin here without brackets.
bool ExpressionParser::startsBareArgument() const {
    const Token& token = peek();
    return token.kind == TokenKind::Number || (token.kind == TokenKind::Word && !isKeyword(token.text)) ||
           (token.kind == TokenKind::Symbol && token.text == "|" && bars_ == 0);
}

/// sin^2(x) is (sin(x))^2; a power −1 would be taken for the inverse function.
ExprPtr ExpressionParser::functionPower(const std::string& shown) {
    const Token caret = peek();
    if (!take("^")) return nullptr;
    if (is("-")) {
        const std::string inverse = isFunctionName("arc" + shown)  ? "arc" + shown
                                    : isFunctionName("ar" + shown) ? "ar" + shown
                                                                   : "";
        refuse({caret.span.first, peek(1).span.last},
               "A negative power of the function " + shown + " could mean its inverse.",
               inverse.empty() ? "write 1/" + shown + "(…)" : "write " + inverse + "(…), or 1/" + shown + "(…)");
    }
    if (peek().kind == TokenKind::Number) return numberPart();
    if (is("{") || is("(")) {
        const Token opened = peek();
        ++at_;
        ExprPtr inner = sum();
        close(opened.text == "{" ? "}" : ")", opened);
        return inner;
    }
    std::string name;
    const std::size_t length = readName(tokens_.subspan(at_), name);
    if (length == 0 || !isValue(name))
        refuse(peek().span, "A power of the function " + shown + " is missing here.", "write " + shown + "^2(…)");
    const int first = peek().span.first;
    at_ += length;
    return nameNode(name, from(first));
}

ExprPtr ExpressionParser::withPower(ExprPtr call, const ExprPtr& exponent, Span span) {
    if (!exponent) return call;
    auto node = std::make_shared<Expr>();
    node->kind = ExprKind::Power;
    node->onFunction = true;
    finish(*node, span, {std::move(call), exponent});
    return node;
}

/// f', f'': how often the call is differentiated.
int ExpressionParser::primes() {
    int count = 0;
    while (take("'")) ++count;
    if (count > 8) refuse(from(peek().span.first), "The order of a derivative is at most 8.");
    return count;
}

ExprPtr ExpressionParser::pageCall(const std::string& name, Span nameSpan) {
    const int order = primes();
    const ExprPtr exponent = functionPower(name);
    std::vector<ExprPtr> list = arguments(name, nameSpan);
    const std::size_t wanted = known_.functions.at(name);
    const Span span = from(nameSpan.first);
    if (list.size() != wanted)
        refuse(span, name + " takes " + countOf(wanted) + ", here it has " + std::to_string(list.size()) + ".");
    auto node = std::make_shared<Expr>(*call(name, std::move(list), span));
    if (order > 0) {
        if (wanted != 1)
            refuse(span, name + " has several parameters, so the dash does not say by which it is differentiated.",
                   "write d/dx(" + name + "(…)) with the name of one of them");
        node->orders = {order};
    }
    return withPower(node, exponent, span);
}

/// A call by a table's row: its name, how many arguments it takes, and its form.
ExprPtr ExpressionParser::callOf(std::size_t wanted, std::string_view form) {
    const Token word = peek();
    ++at_;
    std::vector<ExprPtr> list = arguments(word.text, word.span);
    const Span span = from(word.span.first);
    if (list.size() != wanted)
        refuse(span, word.text + " takes " + countOf(wanted) + ", here it has " + std::to_string(list.size()) + ".",
               "write " + std::string(form));
    return call(word.text, std::move(list), span);
}

/// grad h(x, y), with or without brackets round the call.
ExprPtr ExpressionParser::vectorCalculus() {
    const Token word = peek();
    ++at_;
    ExprPtr of = primary();
    while (of->kind == ExprKind::Group) of = of->operands[0];
    if (of->kind != ExprKind::Call || !known_.functions.contains(of->text) || !of->orders.empty())
        refuse(from(word.span.first), word.text + " belongs to a function of the page, called with its variables.",
               "write " + word.text + (word.text == "grad" ? " h(x, y)" : " v(x, y)"));
    return call(word.text, {of}, from(word.span.first));
}

/// A word of several letters, or a letter whose index and bracket follow.
bool ExpressionParser::startsCatalogueCall() const {
    const std::string name = canonicalWord(peek().text);
    if (!isFunctionName(name)) return false;
    if (decodeUtf8(name).size() > 1) return true;
    std::size_t next = 1;
    for (const char* sign : {"_", "^"}) { // skips what may be an index, to see whether a bracket follows
        while (is("'", next)) ++next;
        if (!is(sign, next)) continue;
        ++next;
        if (is("{", next)) {
            while (next + at_ < tokens_.size() && !is("}", next)) ++next;
        } else if (is("-", next)) {
            ++next;
        }
        ++next;
    }
    while (is("'", next)) ++next;
    return is("(", next);
}

/// The index of a function: one number or name, or several formulas in braces.
std::vector<ExprPtr> ExpressionParser::indices(const std::string& shown) {
    const Token opened = peek();
    if (take("{")) {
        std::vector<ExprPtr> list = inBrackets([&] {
            std::vector<ExprPtr> read;
            do {
                read.push_back(sum());
                requireNumber(read.back());
            } while (take(","));
            return read;
        });
        close("}", opened);
        return list;
    }
    if (peek().kind == TokenKind::Number) return {plainNumber(tokens_[at_++])};
    if (is("-")) refuse(peek().span, "A negative index stands in braces.", "write " + shown + "_{-1}(…)");
    if (peek().kind == TokenKind::Word && isNameLetter(peek().text)) {
        ++at_;
        const std::string name = canonicalWord(opened.text);
        if (isValue(name)) return {nameNode(name, opened.span)};
        refuse(opened.span, name + " is not defined on this page.", "define it, such as " + name + " = 1");
    }
    refuse(opened.span, "The index of " + shown + " is missing here.", "write it in braces: " + formsOf(shown));
}

ExprPtr ExpressionParser::catalogueCall() {
    const Token word = peek();
    std::string name = canonicalWord(word.text);
    ++at_;
    if (word.text == "sqrt" && !is("(") && word.span.first == word.span.last)
        return call(name, {postfix()}, from(word.span.first)); // √2, with the sign itself
    std::vector<ExprPtr> operands;
    if (take("_")) operands = indices(name);
    const int below = static_cast<int>(operands.size());
    int order = primes();
    for (; order > 0 && isFunctionName(name + "'"); --order) name += "'"; // Ai' is an entry of its own
    int above = 0;
    ExprPtr exponent;
    const Token caret = peek();
    if (is("^") && findFunction(name, below, 1, -1)) {
        take("^");
        const bool number = peek().kind == TokenKind::Number;
        for (const ExprPtr& each : indices(name)) operands.push_back(each);
        above = static_cast<int>(operands.size()) - below;
        if (number && !(is("^")))
            note({word.span.first, tokens_[at_ - 1].span.last},
                 "Read as the index above of " + formsOf(name) + ", not as a power.",
                 "put the function in brackets for its power: (" + name + "_n(x))^2");
    } else {
        exponent = functionPower(name);
    }
    if (name == "log" && below == 0)
        refuse(word.span, "log needs its base.", "write ln, lg or lb for the bases e, 10 and 2, or log_{b}(x)",
               Remedy{word.span.first, word.span.last, "ln"});
    const bool isBare = startsBareArgument() && findFunction(name, below, above, 1);
    const std::vector<ExprPtr> list = isBare ? std::vector{bareArgument(word)} : arguments(name, word.span);
    const Span span = from(word.span.first);
    if (!findFunction(name, below, above, static_cast<int>(list.size()))) {
        const FunctionEntry* same = findFunction(name, below, above, -1);
        if (same && formsOf(name) == same->form)
            refuse(span,
                   name + " takes " + (same->anyCount ? "at least " : "") + countOf(same->inside.size()) +
                       ", here it has " + std::to_string(list.size()) + ".",
                   "write " + formsAbout(*same, list.size()));
        refuse(span, name + " is not known with these indices and arguments.", "write " + formsOf(name));
    }
    if (order > 0 && list.size() != 1)
        refuse(span, name + " has several arguments, so the dash does not say by which it is differentiated.",
               "write d/dx(…) with the name that varies");
    operands.insert(operands.end(), list.begin(), list.end());
    auto node = std::make_shared<Expr>(*call(name, std::move(operands), span));
    node->below = below;
    node->above = above;
    if (order > 0) node->orders = {order};
    return withPower(node, exponent, span);
}

} // namespace coulter
