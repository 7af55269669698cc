#include "formula/notation/parser.h"

#include "formula/base/text.h"
#include "formula/notation/expression_parser.h"

namespace coulter {
namespace {

constexpr int deepest = 1200; // about 200 nested brackets or calls

} // namespace

ExpressionParser::ExpressionParser(std::span<const Token> tokens, const KnownNames& known)
    : tokens_(tokens), known_(known) {
    if (tokens_.empty() || tokens_.back().kind != TokenKind::End) {
        end_.kind = TokenKind::End;
        const int last = tokens_.empty() ? 0 : tokens_.back().span.last;
        end_.span = {last + 1, last + 1};
    } else {
        end_ = tokens_.back();
        tokens_ = tokens_.first(tokens_.size() - 1);
    }
}

ParsedExpression ExpressionParser::run(Wanted wanted) {
    ParsedExpression result;
    try {
        if (peek().kind == TokenKind::End) refuse(peek().span, "A formula is missing here.");
        result.expression = condition();
        if (peek().kind != TokenKind::End) unexpected();
        if (wanted == Wanted::Number)
            requireNumber(result.expression);
        else
            requireCondition(result.expression);
    } catch (const Misread& misread) {
        result.expression = nullptr;
        notes_ = {misread.problem};
    }
    result.problems = std::move(notes_);
    return result;
}

ExpressionParser::Depth::Depth(ExpressionParser& owner) : parser(owner) {
    if (parser.depth_ + 1 > deepest)
        refuse(parser.peek().span, "The formula is nested too deeply here.", "name a part of it on a line of its own");
    ++parser.depth_;
}

void ExpressionParser::refuse(Span span, std::string sentence, std::string suggestion, std::optional<Remedy> remedy) {
    throw Misread{{-1, span.first, span.last, std::move(sentence), std::move(suggestion), Problem::Severity::Error,
                   false, std::move(remedy)}};
}

void ExpressionParser::refuseSpelling(Span span, const std::string& spelled, const std::string& printed) {
    refuse(span, "In print “" + spelled + "” is written “" + printed + "”.", "write " + printed,
           Remedy{span.first, span.last, printed, true});
}

void ExpressionParser::note(Span span, std::string sentence, std::string suggestion) {
    notes_.push_back({-1, span.first, span.last, std::move(sentence), std::move(suggestion), Problem::Severity::Note});
}

void ExpressionParser::unexpected() const {
    const Token& token = peek();
    if (token.kind == TokenKind::End) refuse(token.span, "The formula ends too early.");
    if (token.text == ")" || token.text == "]" || token.text == "}") {
        refuse(token.span, "This “" + token.text + "” closes nothing.", "remove it, or add the bracket that opens it");
    }
    if (token.kind == TokenKind::Number && at_ > 0) {
        const Token& before = tokens_[at_ - 1];
        if (before.kind == TokenKind::Word && !token.spaceBefore) {
            refuse(token.span, "A digit cannot follow a letter directly.",
                   "write " + before.text + "_" + token.text + " for a subscript, or " + before.text + " * " +
                       token.text + " for a product");
        }
        refuse(token.span, "A number cannot follow without a sign between.", "write * between the two for a product");
    }
    if (token.text == "," && at_ > 0 && tokens_[at_ - 1].kind == TokenKind::Number && !token.spaceBefore &&
        peek(1).kind == TokenKind::Number && !peek(1).spaceBefore)
        refuse(token.span, "The decimal sign is a point.", "write " + tokens_[at_ - 1].text + "." + peek(1).text,
               Remedy{token.span.first, token.span.last, "."});
    refuse(token.span, "“" + token.text + "” does not fit here.");
}

bool ExpressionParser::is(std::string_view symbol, std::size_t ahead) const {
    return peek(ahead).kind == TokenKind::Symbol && peek(ahead).text == symbol;
}

bool ExpressionParser::take(std::string_view symbol) {
    if (!is(symbol)) return false;
    ++at_;
    return true;
}

bool ExpressionParser::takeWord(std::string_view word) {
    if (peek().kind != TokenKind::Word || peek().text != word) return false;
    ++at_;
    return true;
}

void ExpressionParser::close(std::string_view symbol, const Token& opened) {
    if (take(symbol)) return;
    if (peek().kind == TokenKind::End)
        refuse(opened.span, "This “" + opened.text + "” is never closed.", "add “" + std::string(symbol) + "”");
    unexpected();
}

ExprPtr ExpressionParser::make(ExprKind kind, Span span, std::vector<ExprPtr> operands) {
    auto node = std::make_shared<Expr>();
    node->kind = kind;
    finish(*node, span, std::move(operands));
    return node;
}

void ExpressionParser::finish(Expr& node, Span span, std::vector<ExprPtr> operands) {
    node.span = span;
    setOperands(node, std::move(operands));
    if (node.height > tallestExpr)
        refuse(span, "The formula has more than a thousand operations in a row here.",
               "name a part of it on a line of its own, or write it with sum or prod");
}

std::string canonicalWord(const std::string& word) {
    const auto greek = greekLetter(word);
    return greek ? encodeUtf8(std::u32string(1, *greek)) : word;
}

bool isNameLetter(const std::string& word) { return greekLetter(word) || decodeUtf8(word).size() == 1; }

std::size_t readName(std::span<const Token> tokens, std::string& canonical) {
    if (tokens.empty() || tokens[0].kind != TokenKind::Word || !isNameLetter(tokens[0].text)) return 0;
    canonical = canonicalWord(tokens[0].text);
    if (tokens.size() < 3 || tokens[1].text != "_" || tokens[1].kind != TokenKind::Symbol) return 1;
    if (tokens[2].kind == TokenKind::Number || tokens[2].kind == TokenKind::Word) {
        canonical += "_" + tokens[2].text;
        return 3;
    }
    if (tokens[2].kind != TokenKind::Symbol || tokens[2].text != "{") return 1;
    std::string subscript;
    for (std::size_t i = 3; i < tokens.size(); ++i) {
        if (tokens[i].kind == TokenKind::Symbol && tokens[i].text == "}") {
            canonical += "_" + subscript;
            return i + 1;
        }
        if (tokens[i].spaceBefore && !subscript.empty()) subscript += ' ';
        subscript += tokens[i].text;
    }
    return 1;
}

ParsedExpression parseExpression(std::span<const Token> tokens, const KnownNames& known, Wanted wanted) {
    return ExpressionParser(tokens, known).run(wanted);
}

ParsedExpression parseExpression(std::u32string_view text, const KnownNames& known, Wanted wanted) {
    const LexResult lexed = tokenize(text, 0, text.size());
    if (!lexed.problems.empty()) return {nullptr, lexed.problems};
    return parseExpression(lexed.tokens, known, wanted);
}

} // namespace coulter
