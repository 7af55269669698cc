#include "formula/parser.h"

#include "formula/text.h"
#include "special/catalogue.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace coulter {
namespace {

constexpr int deepest = 600; // about 200 nested brackets

/// Carries the first problem out of the recursion; never leaves this file.
struct Refusal {
    Problem problem;
};

ExprPtr make(ExprKind kind, Span span, std::vector<ExprPtr> operands) {
    auto node = std::make_shared<Expr>();
    node->kind = kind;
    node->span = span;
    node->operands = std::move(operands);
    return node;
}

class Parser {
public:
    Parser(std::span<const Token> tokens, const KnownNames& known) : tokens_(tokens), known_(known) {
        if (tokens_.empty() || tokens_.back().kind != TokenKind::End) {
            end_.kind = TokenKind::End;
            const int last = tokens_.empty() ? 0 : tokens_.back().span.last;
            end_.span = {last + 1, last + 1};
        } else {
            end_ = tokens_.back();
            tokens_ = tokens_.first(tokens_.size() - 1);
        }
    }

    ParsedExpression run() {
        ParsedExpression result;
        try {
            if (peek().kind == TokenKind::End) refuse(peek().span, "A formula is missing here.");
            result.expression = condition();
            if (peek().kind != TokenKind::End) unexpected();
            requireNumber(result.expression);
        } catch (const Refusal& refusal) {
            result.expression = nullptr;
            notes_ = {refusal.problem};
        }
        result.problems = std::move(notes_);
        return result;
    }

private:
    [[noreturn]] static void refuse(Span span, std::string sentence, std::string suggestion = "") {
        throw Refusal{{-1, span.first, span.last, std::move(sentence), std::move(suggestion)}};
    }

    [[noreturn]] void unexpected() const {
        const Token& token = peek();
        if (token.kind == TokenKind::End) refuse(token.span, "The formula ends too early.");
        if (token.text == ")" || token.text == "]" || token.text == "}") {
            refuse(token.span, "This “" + token.text + "” closes nothing.",
                   "remove it, or add the bracket that opens it");
        }
        if (token.kind == TokenKind::Number && at_ > 0) {
            const Token& before = tokens_[at_ - 1];
            if (before.kind == TokenKind::Word && !token.spaceBefore) {
                refuse(token.span, "A digit cannot follow a letter directly.",
                       "write " + before.text + "_" + token.text + " for a subscript, or " + before.text + " * " +
                           token.text + " for a product");
            }
            refuse(token.span, "A number cannot follow without a sign between.",
                   "write * between the two for a product");
        }
        refuse(token.span, "“" + token.text + "” does not fit here.");
    }

    const Token& peek(std::size_t ahead = 0) const {
        return at_ + ahead < tokens_.size() ? tokens_[at_ + ahead] : end_;
    }
    bool is(std::string_view symbol, std::size_t ahead = 0) const {
        return peek(ahead).kind == TokenKind::Symbol && peek(ahead).text == symbol;
    }
    bool take(std::string_view symbol) {
        if (!is(symbol)) return false;
        ++at_;
        return true;
    }
    Span from(int first) const { return {first, at_ > 0 ? tokens_[at_ - 1].span.last : first}; }

    void close(std::string_view symbol, const Token& opened) {
        if (take(symbol)) return;
        if (peek().kind == TokenKind::End) {
            refuse(opened.span, "This “" + opened.text + "” is never closed.", "add “" + std::string(symbol) + "”");
        }
        unexpected();
    }

    struct Depth {
        explicit Depth(Parser& parser) : parser_(parser) {
            if (++parser.depth_ > deepest)
                refuse(parser.peek().span, "The formula is nested too deeply here.",
                       "name a part of it on a line of its own");
        }
        ~Depth() { --parser_.depth_; }
        Parser& parser_;
    };

    static void requireNumber(const ExprPtr& e) {
        if (isCondition(*e))
            refuse(e->span, "A condition is no number.",
                   "write it in square brackets: [a < b] is 1 where it holds and 0 elsewhere");
    }

    static void requireCondition(const ExprPtr& e) {
        if (!isCondition(*e)) refuse(e->span, "A condition is needed here.", "write a comparison such as 0 <= t < 1");
    }

    bool isWord(std::string_view word) const { return peek().kind == TokenKind::Word && peek().text == word; }
    bool takeWord(std::string_view word) {
        if (!isWord(word)) return false;
        ++at_;
        return true;
    }

    /// Words of the notation that no product can go on with.
    static bool isKeyword(const std::string& word) {
        for (const char* keyword : {"and", "or", "not", "for", "otherwise", "in"}) {
            if (word == keyword) return true;
        }
        return false;
    }

    /// A condition, or (where no relation follows) a number: a or b and not c < d.
    ExprPtr condition() {
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

    ExprPtr conjunction() {
        ExprPtr left = negation();
        while (takeWord("and")) {
            ExprPtr right = negation();
            requireCondition(left);
            requireCondition(right);
            left = make(ExprKind::And, {left->span.first, right->span.last}, {left, right});
        }
        return left;
    }

    ExprPtr negation() {
        const Depth depth(*this);
        const int first = peek().span.first;
        if (!takeWord("not")) return comparison();
        ExprPtr operand = negation();
        requireCondition(operand);
        return make(ExprKind::Not, from(first), {operand});
    }

    ExprPtr comparison() {
        ExprPtr left = sum();
        auto chain = std::make_shared<Expr>();
        chain->kind = ExprKind::Compare;
        chain->operands = {left};
        for (;;) {
            std::string relation;
            for (const char* each : {"<", "<=", "=", "!=", ">", ">="}) {
                if (is(each)) relation = each;
            }
            if (relation.empty()) break;
            ++at_;
            chain->relations.push_back(relation);
            chain->operands.push_back(sum());
        }
        if (chain->relations.empty()) return left;
        for (const ExprPtr& operand : chain->operands) requireNumber(operand);
        chain->span = {left->span.first, chain->operands.back()->span.last};
        return chain;
    }

    /// { 0 for t < 1; 4(t - 1) for 1 <= t < 3; 8 otherwise }
    ExprPtr pieces() {
        const Token opened = peek();
        ++at_;
        const int bars = std::exchange(bars_, 0);
        std::vector<ExprPtr> parts;
        bool last = false;
        do {
            if (last) refuse(peek().span, "Nothing can follow the piece “otherwise”.");
            parts.push_back(sum());
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
        bars_ = bars;
        close("}", opened);
        return make(ExprKind::Pieces, from(opened.span.first), std::move(parts));
    }

    ExprPtr iverson() {
        const Token opened = peek();
        ++at_;
        const int bars = std::exchange(bars_, 0);
        ExprPtr inner = condition();
        bars_ = bars;
        close("]", opened);
        requireCondition(inner);
        return make(ExprKind::Iverson, from(opened.span.first), {inner});
    }

    /// A number as an upper limit; unlike elsewhere a number may follow it, which belongs to the term.
    ExprPtr limitNumber() {
        const Token token = peek();
        ++at_;
        auto node = std::make_shared<Expr>();
        node->number = token.number;
        node->text = token.text;
        node->span = token.span;
        return node;
    }

    /// sum_{n=1}^{N} term: the term is the next product; brackets extend it.
    ExprPtr series(ExprKind kind, const std::string& shown) {
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
        ExprPtr low = sum();
        close("}", lower);
        if (!take("^")) refuse(peek().span, "The upper limit of the " + shown + " is missing.", way);
        ExprPtr high = is("{") ? exponentPart() : peek().kind == TokenKind::Number ? limitNumber() : primary();
        bound_.push_back(node->text);
        ExprPtr term = product();
        bound_.pop_back();
        requireNumber(term);
        node->operands = {low, high, term};
        node->span = from(word.span.first);
        return node;
    }

    ExprPtr sum() {
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

    ExprPtr product() {
        const int first = peek().span.first;
        ExprPtr left = signedFactor();
        bool divided = false; // a division stands to the left in this product
        for (;;) {
            if (take("*")) {
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
                node->operands = {left, right};
                node->span = from(first);
                if (divided && touching) {
                    notes_.push_back({-1, node->span.first, node->span.last,
                                      "Read from left to right: the last factor multiplies the whole fraction.",
                                      "put the denominator in brackets if it belongs there", Problem::Severity::Note});
                }
                left = node;
            } else {
                return left;
            }
        }
    }

    ExprPtr numbers(ExprKind kind, int first, const ExprPtr& left, const ExprPtr& right) const {
        requireNumber(left);
        requireNumber(right);
        return make(kind, from(first), {left, right});
    }

    ExprPtr signedFactor() {
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

    bool startsFactor() const {
        const Token& token = peek();
        if (token.kind == TokenKind::Word) return !isKeyword(token.text);
        if (token.kind != TokenKind::Symbol) return false;
        return token.text == "(" || token.text == "[" || token.text == "{" || (token.text == "|" && bars_ == 0);
    }

    ExprPtr power() {
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
    ExprPtr exponentPart() {
        const Token opened = peek();
        if (take("{")) {
            const int bars = std::exchange(bars_, 0);
            ExprPtr inner = sum();
            bars_ = bars;
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

    ExprPtr postfix() {
        const int first = peek().span.first;
        ExprPtr operand = primary();
        if (is("!")) requireNumber(operand);
        if (take("!")) operand = make(ExprKind::Factorial, from(first), {operand});
        if (is("!"))
            refuse(peek().span, "In print two such signs are the double factorial, which is another function.",
                   "write (n!)! for a factorial of a factorial");
        return operand;
    }

    ExprPtr primary() {
        const Token& token = peek();
        switch (token.kind) {
        case TokenKind::Number: return numberPart();
        case TokenKind::Word: return wordPart();
        case TokenKind::Symbol:
            if (token.text == "(") {
                ++at_;
                const int bars = std::exchange(bars_, 0);
                ExprPtr inner = condition();
                bars_ = bars;
                if (is(","))
                    refuse(peek().span, "A comma has no meaning in these brackets.",
                           "write a decimal point, or name a function before the bracket");
                close(")", token);
                return make(ExprKind::Group, from(token.span.first), {inner});
            }
            if (token.text == "{") return pieces();
            if (token.text == "[") return iverson();
            if (token.text == "|") {
                ++at_;
                const int bars = std::exchange(bars_, 1);
                ExprPtr inner = sum();
                bars_ = bars;
                close("|", token);
                return make(ExprKind::Absolute, from(token.span.first), {inner});
            }
            break;
        default: break;
        }
        unexpected();
    }

    ExprPtr numberPart() {
        const Token token = peek();
        ++at_;
        auto node = std::make_shared<Expr>();
        node->kind = ExprKind::Number;
        node->number = token.number;
        node->text = token.text;
        if (take("%")) {
            node->number = token.number / 100;
            node->text += "%";
        }
        node->span = from(token.span.first);
        if (peek().kind == TokenKind::Number) unexpected();
        return node;
    }

    ExprPtr nameNode(const std::string& canonical, Span span) const {
        auto node = std::make_shared<Expr>();
        node->kind = ExprKind::Name;
        node->text = canonical;
        node->span = span;
        return node;
    }

    bool isValue(const std::string& name) const {
        if (std::ranges::find(bound_, name) != bound_.end()) return true;
        return known_.values.contains(name) || (!known_.functions.contains(name) && !std::isnan(constantValue(name)));
    }

    ExprPtr wordPart() {
        const Token& word = peek();
        if (isKeyword(word.text)) unexpected();
        if (word.text == "sum") return series(ExprKind::Sum, "sum");
        if (word.text == "prod") return series(ExprKind::Product, "prod");
        std::string canonical;
        const std::size_t length = readName(tokens_.subspan(at_), canonical);
        if (length > 0 && (isValue(canonical) || known_.functions.contains(canonical))) {
            at_ += length;
            if (isValue(canonical)) return nameNode(canonical, from(word.span.first));
            return pageCall(canonical, from(word.span.first));
        }
        if (word.text == "inf") {
            ++at_;
            return nameNode("∞", word.span);
        }
        if (findFunction(canonicalWord(word.text))) return catalogueCall();
        if (ExprPtr split = splitWord()) return split;
        unknownName(length > 0 ? canonical : word.text,
                    length > 0 ? Span{word.span.first, tokens_[at_ + length - 1].span.last} : word.span);
    }

    [[noreturn]] void unknownName(const std::string& name, Span span) const {
        std::string suggestion;
        for (const FunctionEntry& entry : catalogue()) { // sinx
            if (name.starts_with(entry.name) && isValue(name.substr(entry.name.size()))) {
                suggestion = "write " + std::string(entry.name) + "(" + name.substr(entry.name.size()) + ")";
            }
        }
        if (const std::string near = nearName(name, known_); suggestion.empty() && !near.empty())
            suggestion = "did you mean " + near + "?";
        if (suggestion.empty() && is("(", 1) && !isNameLetter(name)) {
            refuse(span, "The function " + name + " is not known.", suggestion);
        }
        if (suggestion.empty())
            suggestion = "define it on a line of its own, such as " +
                         (isNameLetter(name) || name.find('_') != std::string::npos ? name : "a") + " = 1";
        refuse(span, name + " is not defined on this page.", suggestion);
    }

    /// A run of letters that is no word of the notation is a product of one-letter names, if all of them are known: kx.
    ExprPtr splitWord() {
        const Token word = peek();
        const std::u32string letters = decodeUtf8(word.text);
        if (letters.size() < 2) return nullptr;
        ExprPtr left;
        for (std::size_t i = 0; i < letters.size(); ++i) {
            const int place = word.span.first + static_cast<int>(i);
            std::string name = encodeUtf8(std::u32string_view(letters).substr(i, 1));
            Span span{place, place};
            std::size_t taken = 0;
            if (i + 1 == letters.size()) { // the last letter may carry a subscript
                std::vector<Token> rest(tokens_.begin() + static_cast<std::ptrdiff_t>(at_), tokens_.end());
                rest.front().text = name;
                taken = readName(rest, name) - 1;
                span.last = tokens_[at_ + taken].span.last;
            }
            if (!isValue(name)) return nullptr;
            ExprPtr factor = nameNode(name, span);
            if (left) {
                auto node = std::make_shared<Expr>();
                node->kind = ExprKind::Multiply;
                node->juxtaposed = true;
                node->operands = {left, factor};
                node->span = {word.span.first, span.last};
                left = node;
            } else {
                left = factor;
            }
            if (i + 1 == letters.size()) at_ += 1 + taken;
        }
        auto group = std::make_shared<Expr>(*left);
        return group;
    }

    std::vector<ExprPtr> arguments(const std::string& shown, Span nameSpan) {
        const Token opened = peek();
        if (!take("(")) {
            refuse(nameSpan, shown + " needs its argument in brackets.", "write " + shown + "(…)");
        }
        const int bars = std::exchange(bars_, 0);
        std::vector<ExprPtr> list;
        if (!is(")")) {
            do {
                if (is(",") || is(")")) refuse(peek().span, "An argument of " + shown + " is missing here.");
                list.push_back(condition());
                requireNumber(list.back());
            } while (take(","));
        }
        bars_ = bars;
        close(")", opened);
        return list;
    }

    /// sin^2(x) is (sin(x))^2; a power −1 would be taken for the inverse function.
    ExprPtr functionPower(const std::string& shown) {
        const Token caret = peek();
        if (!take("^")) return nullptr;
        if (is("-")) {
            const std::string inverse = findFunction("arc" + shown)  ? "arc" + shown
                                        : findFunction("ar" + shown) ? "ar" + shown
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

    ExprPtr withPower(ExprPtr call, const ExprPtr& exponent, Span span) {
        if (!exponent) return call;
        auto node = std::make_shared<Expr>();
        node->kind = ExprKind::Power;
        node->onFunction = true;
        node->operands = {std::move(call), exponent};
        node->span = span;
        return node;
    }

    ExprPtr callNode(const std::string& name, std::vector<ExprPtr> operands, Span span, bool hasBase) const {
        auto node = std::make_shared<Expr>();
        node->kind = ExprKind::Call;
        node->text = name;
        node->operands = std::move(operands);
        node->span = span;
        node->hasBase = hasBase;
        return node;
    }

    ExprPtr pageCall(const std::string& name, Span nameSpan) {
        const ExprPtr exponent = functionPower(name);
        std::vector<ExprPtr> list = arguments(name, nameSpan);
        const std::size_t wanted = known_.functions.at(name);
        if (list.size() != wanted) {
            refuse(from(nameSpan.first),
                   name + " takes " + countOf(wanted) + ", here it has " + std::to_string(list.size()) + ".");
        }
        const Span span = from(nameSpan.first);
        return withPower(callNode(name, std::move(list), span, false), exponent, span);
    }

    static std::string countOf(std::size_t n) { return n == 1 ? "1 argument" : std::to_string(n) + " arguments"; }

    ExprPtr catalogueCall() {
        const Token word = peek();
        const std::string name = canonicalWord(word.text);
        const std::string shown = name;
        ++at_;
        const FunctionEntry* entry = findFunction(name);
        ExprPtr base;
        if (entry->hasBase) {
            if (!take("_"))
                refuse(word.span, "log needs its base.", "write ln, lg or lb for the bases e, 10 and 2, or log_{b}(x)");
            base = basePart();
        }
        if (word.text == "sqrt" && !is("(") && tokens_[at_ - 1].span.first == tokens_[at_ - 1].span.last) {
            return callNode(name, {postfix()}, from(word.span.first), false); // √2, with the sign itself
        }
        const ExprPtr exponent = functionPower(shown);
        std::vector<ExprPtr> list = arguments(shown, word.span);
        entry = findFunction(name, static_cast<int>(list.size()));
        if (!entry) {
            const FunctionEntry* any = findFunction(name);
            const std::string wanted = any->most < 0 ? "at least " + countOf(static_cast<std::size_t>(any->fewest))
                                                     : countOf(static_cast<std::size_t>(any->fewest));
            refuse(from(word.span.first),
                   shown + " takes " + wanted + ", here it has " + std::to_string(list.size()) + ".");
        }
        if (base) list.insert(list.begin(), base);
        const Span span = from(word.span.first);
        return withPower(callNode(name, std::move(list), span, base != nullptr), exponent, span);
    }

    ExprPtr basePart() {
        const Token opened = peek();
        if (take("{")) {
            ExprPtr inner = sum();
            close("}", opened);
            return inner;
        }
        if (peek().kind == TokenKind::Number) return numberPart();
        std::string name;
        if (peek().kind == TokenKind::Word && isNameLetter(peek().text) && isValue(canonicalWord(peek().text))) {
            ++at_;
            return nameNode(canonicalWord(opened.text), opened.span);
        }
        refuse(opened.span, "The base is missing here.", "write log_{b}(x)");
    }

    std::span<const Token> tokens_;
    const KnownNames& known_;
    Token end_;
    std::size_t at_ = 0;
    int depth_ = 0;
    int bars_ = 0; ///< whether the innermost open bracket is a bar, so that the next bar closes it
    Problems notes_;
    std::vector<std::string> bound_; ///< names that run in a sum or product around this place
};

} // namespace

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

ParsedExpression parseExpression(std::span<const Token> tokens, const KnownNames& known) {
    return Parser(tokens, known).run();
}

ParsedExpression parseExpression(std::u32string_view text, const KnownNames& known) {
    const LexResult lexed = tokenize(text, 0, text.size());
    if (!lexed.problems.empty()) return {nullptr, lexed.problems};
    return parseExpression(lexed.tokens, known);
}

} // namespace coulter
