#pragma once
#include "formula/notation/parser.h"

#include <string>
#include <utility>
#include <vector>

namespace coulter {

/// Carries the first problem out of the recursion of reading; never leaves the parser's own files.
struct Misread {
    Problem problem;
};

/// Reads one expression, each construct by the method of its name; every method starts at the construct's first token
/// and leaves the place behind its last. Inner to the parser: others call `parseExpression`.
class ExpressionParser {
public:
    ExpressionParser(std::span<const Token> tokens, const KnownNames& known);
    ParsedExpression run(Wanted wanted);

private:
    struct Depth { ///< counts the recursion while it lives
        explicit Depth(ExpressionParser& owner);
        ~Depth() { --parser.depth_; }
        ExpressionParser& parser;
    };

    // parser.cpp: tokens
    [[noreturn]] static void refuse(Span span, std::string sentence, std::string suggestion = "",
                                    std::optional<Remedy> remedy = {});
    /// Refuses a spelling from elsewhere: it is written in another way in print.
    [[noreturn]] static void refuseSpelling(Span span, const std::string& spelled, const std::string& printed);
    [[noreturn]] void unexpected() const;
    void note(Span span, std::string sentence, std::string suggestion);
    const Token& peek(std::size_t ahead = 0) const {
        return at_ + ahead < tokens_.size() ? tokens_[at_ + ahead] : end_;
    }
    bool is(std::string_view symbol, std::size_t ahead = 0) const;
    bool take(std::string_view symbol);
    bool takeWord(std::string_view word);
    void close(std::string_view symbol, const Token& opened);
    Span from(int first) const { return {first, at_ > 0 ? tokens_[at_ - 1].span.last : first}; }
    static ExprPtr make(ExprKind kind, Span span, std::vector<ExprPtr> operands);
    /// Gives a node its place and its operands; refuses to let it become too tall.
    static void finish(Expr& node, Span span, std::vector<ExprPtr> operands);
    /// Reads what stands in brackets that are already open, where a bar opens a new absolute value.
    template <typename Read> auto inBrackets(const Read& read) {
        const int bars = std::exchange(bars_, 0);
        auto result = read();
        bars_ = bars;
        return result;
    }

    // parse_conditions.cpp
    static void requireNumber(const ExprPtr& e);
    static void requireCondition(const ExprPtr& e);
    ExprPtr condition(); ///< a condition, or (where no relation follows) a number
    ExprPtr conjunction();
    ExprPtr negation();
    ExprPtr comparison();
    ExprPtr braces(); ///< a list, or pieces
    ExprPtr pieces(const Token& opened, ExprPtr first);
    ExprPtr list(const Token& opened, ExprPtr first);
    ExprPtr iverson();

    // parse_arithmetic.cpp
    ExprPtr sum();
    ExprPtr product();
    ExprPtr numbers(ExprKind kind, int first, const ExprPtr& left, const ExprPtr& right) const;
    ExprPtr signedFactor();
    bool startsFactor() const;
    ExprPtr power();
    ExprPtr exponentPart();
    ExprPtr postfix();
    ExprPtr primary();
    ExprPtr bracket();
    ExprPtr absolute();
    ExprPtr numberPart();
    static ExprPtr plainNumber(const Token& token);

    // parse_names.cpp
    static bool isKeyword(const std::string& word);
    bool isValue(const std::string& name) const;
    static ExprPtr nameNode(const std::string& canonical, Span span);
    ExprPtr wordPart();
    /// pow(a, b) and log10(x), which are more than a name.
    void refuseForeignCall() const;
    [[noreturn]] void unknownName(const std::string& name, Span span) const;
    ExprPtr splitWord();

    // parse_calls.cpp
    static ExprPtr call(const std::string& name, std::vector<ExprPtr> operands, Span span);
    std::vector<ExprPtr> arguments(const std::string& shown, Span nameSpan);
    ExprPtr bareArgument(const Token& function);
    bool startsBareArgument() const;
    ExprPtr functionPower(const std::string& shown);
    static ExprPtr withPower(ExprPtr call, const ExprPtr& exponent, Span span);
    int primes();
    ExprPtr pageCall(const std::string& name, Span nameSpan);
    bool startsCatalogueCall() const;
    ExprPtr catalogueCall();
    ExprPtr callOf(std::size_t wanted, std::string_view form);
    ExprPtr vectorCalculus();
    std::vector<ExprPtr> indices(const std::string& shown);

    // parse_calculus.cpp
    ExprPtr upperLimit();
    ExprPtr series(ExprKind kind, const std::string& shown);
    ExprPtr integral();
    std::size_t endOfIntegrand(std::string& variable, std::size_t& length) const;
    bool startsDerivative() const;
    ExprPtr derivative();
    template <typename Read> ExprPtr withBound(const std::string& name, const Read& read) {
        bound_.push_back(name);
        ExprPtr result = read();
        bound_.pop_back();
        return result;
    }

    std::span<const Token> tokens_;
    const KnownNames& known_;
    Token end_;
    std::size_t at_ = 0;
    int depth_ = 0;
    int bars_ = 0; ///< whether the innermost open bracket is a bar, so that the next bar closes it
    Problems notes_;
    std::vector<std::string> bound_; ///< names that run in a sum, product, integral or derivative around this place
};

} // namespace coulter
