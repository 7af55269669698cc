#include "formula/base/text.h"
#include "formula/measured/statistics.h"
#include "formula/notation/expression_parser.h"
#include "formula/notation/matrix_functions.h"
#include "formula/notation/spellings.h"
#include "special/catalogue.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace coulter {

/// Words of the notation that no product can go on with.
bool ExpressionParser::isKeyword(const std::string& word) {
    for (const char* keyword : {"and", "or", "not", "for", "otherwise", "in", "solves", "fits", "from"}) {
        if (word == keyword) return true;
    }
    return false;
}

bool ExpressionParser::isValue(const std::string& name) const {
    if (std::ranges::find(bound_, name) != bound_.end()) return true;
    return known_.values.contains(name) || (!known_.functions.contains(name) && !std::isnan(constantValue(name)));
}

ExprPtr ExpressionParser::nameNode(const std::string& canonical, Span span) {
    auto node = std::make_shared<Expr>();
    node->kind = ExprKind::Name;
    node->text = canonical;
    node->span = span;
    return node;
}

ExprPtr ExpressionParser::wordPart() {
    const Token& word = peek();
    if (isKeyword(word.text)) unexpected();
    if (word.text == "sum") return series(ExprKind::Sum, "sum");
    if (word.text == "prod") return series(ExprKind::Product, "prod");
    if (word.text == "int") return integral();
    if (word.text == "pv" && peek(1).text == "int") { // the principal value
        ++at_;
        auto node = std::make_shared<Expr>(*integral());
        node->span.first = word.span.first;
        node->principal = true;
        return node;
    }
    if (isVectorCalculus(word.text)) return vectorCalculus();
    if (startsDerivative()) return derivative();
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
    refuseForeignCall();
    if (startsCatalogueCall()) return catalogueCall();
    if (is("(", 1)) {
        if (const Statistic* statistic = findStatistic(word.text))
            return callOf(1 + statistic->further, statistic->form);
        if (const MatrixFunction* function = findMatrixFunction(word.text))
            return callOf(function->arguments, function->form);
    }
    if (ExprPtr split = splitWord()) return split;
    unknownName(length > 0 ? canonical : word.text,
                length > 0 ? Span{word.span.first, tokens_[at_ + length - 1].span.last} : word.span);
}

void ExpressionParser::refuseForeignCall() const {
    const Token& word = peek();
    const auto follows = [&](const char* digits) {
        return peek(1).kind == TokenKind::Number && peek(1).text == digits && !peek(1).spaceBefore && is("(", 2);
    };
    constexpr std::array<std::array<const char*, 3>, 3> foreign{
        {{"log", "10", "lg"}, {"log", "2", "lb"}, {"atan", "2", "arctan"}}};
    for (const auto& [name, digits, printed] : foreign) {
        if (word.text == name && follows(digits))
            refuseSpelling({word.span.first, peek(1).span.last}, word.text + digits, printed);
    }
    if (word.text != "pow" || !is("(", 1)) return;
    // pow(a, b) as (a)^(b), without brackets round a single number or name.
    std::array<std::string, 2> parts;
    std::array<std::size_t, 2> counts{};
    std::size_t part = 0, end = 2;
    for (int depth = 1; peek(end).kind != TokenKind::End; ++end) {
        const Token& token = peek(end);
        if (is("(", end)) ++depth;
        if (is(")", end) && --depth == 0) break;
        if (is(",", end) && depth == 1) {
            if (++part > 1) return;
            continue;
        }
        parts[part] += (token.spaceBefore && !parts[part].empty() ? " " : "") + token.text;
        ++counts[part];
    }
    if (part != 1 || counts[0] == 0 || counts[1] == 0 || !is(")", end)) return;
    for (std::size_t k = 0; k < 2; ++k) {
        if (counts[k] > 1) parts[k] = "(" + parts[k] + ")";
    }
    refuseSpelling({word.span.first, peek(end).span.last}, "pow", parts[0] + "^" + parts[1]);
}

void ExpressionParser::unknownName(const std::string& name, Span span) const {
    if (const auto printed = printedSpelling(name)) refuseSpelling(span, name, std::string(*printed));
    if (isFunctionName(name))
        refuse(span, name + " is not defined on this page; as a function it needs its argument in brackets.",
               "write " + formsOf(name) + ", or define " + name + " on a line of its own");
    std::string suggestion;
    std::optional<Remedy> remedy;
    const auto replacing = [&](const std::string& text) { return Remedy{span.first, span.last, text}; };
    for (const FunctionEntry& entry : catalogue()) { // sinx
        const bool isWord = decodeUtf8(entry.name).size() > 1 && !is("(", 1);
        if (isWord && name.starts_with(entry.name) && isValue(name.substr(entry.name.size()))) {
            const std::string call = std::string(entry.name) + "(" + name.substr(entry.name.size()) + ")";
            suggestion = "write " + call;
            remedy = replacing(call);
            remedy->isSpelling = true;
        }
    }
    if (const std::string near = nearName(name, known_); suggestion.empty() && !near.empty()) {
        suggestion = "did you mean " + near + "?";
        remedy = replacing(near);
    }
    if (const std::string forms = formsAbout(name); suggestion.empty() && !forms.empty()) suggestion = "write " + forms;
    if (suggestion.empty() && is("/", 1) && name == "d") suggestion = "write d/dx(…)";
    if (is("(", 1) && !isNameLetter(name) && !remedy) {
        if (suggestion.empty()) suggestion = "define it under a name of one letter, such as f(x) = x^2";
        refuse(span, "The function " + name + " is not known.", suggestion);
    }
    if (suggestion.empty() && is("(", 1) && (name == "f" || name == "g" || name == "h"))
        suggestion = "define it on a line of its own, such as " + name + "(x) = x^2";
    if (suggestion.empty()) {
        const bool canBeDefined = isNameLetter(name) || name.find('_') != std::string::npos;
        const std::string line = isUsualVariable(name) ? name + " in [-5, 5]" : (canBeDefined ? name : "a") + " = 1";
        suggestion = "define it on a line of its own, such as " + line;
        if (canBeDefined) remedy = Remedy{0, 0, line};
    }
    refuse(span, name + " is not defined on this page.", suggestion, remedy);
}

/// A run of letters that is no word of the notation is a product of one-letter names, if all of them are known: kx.
ExprPtr ExpressionParser::splitWord() {
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
            finish(*node, {word.span.first, span.last}, {left, factor});
            left = node;
        } else {
            left = factor;
        }
        if (i + 1 == letters.size()) at_ += 1 + taken;
    }
    return left;
}

} // namespace coulter
