#include "formula/algebra/exact_form.h"

#include "formula/algebra/exact_value.h"

#include "formula/base/text.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace coulter {
namespace {

using Exact = std::optional<ExactValue>;
using Fraction = ExactValue::Fraction;
using Whole = ExactValue::Whole;
using boost::multiprecision::denominator;
using boost::multiprecision::numerator;

constexpr int deepest = 60;       // functions within functions
constexpr int mostSteps = 20'000; // of a whole answer
constexpr int mostTerms = 1000;   // of a sum or product
constexpr int mostPower = 200;
constexpr std::size_t mostDegree = 40; // of a polynomial under an integral

/// "12.5", "3e-4" as a fraction.
std::optional<Fraction> fractionOf(const std::string& spelling) {
    Fraction value = 0;
    Whole scale = 1;
    bool behind = false;
    std::size_t i = 0;
    for (; i < spelling.size() && i < 40; ++i) {
        const char c = spelling[i];
        if (c == '.' && !behind) {
            behind = true;
        } else if (c >= '0' && c <= '9') {
            value = value * 10 + (c - '0');
            if (behind) scale *= 10;
        } else {
            break;
        }
    }
    if (i != spelling.size()) return std::nullopt; // powers of ten and others are decimals for people, too
    return value / scale;
}

std::optional<int> wholeOf(const Exact& value, int most) {
    const auto fraction = value ? value->fraction() : std::nullopt;
    if (!fraction || denominator(*fraction) != 1 || abs(numerator(*fraction)) > most) return std::nullopt;
    return numerator(*fraction).convert_to<int>();
}

ExactValue rootOf(int number) { return *ExactValue(Fraction(number)).squareRoot(); }

/// sin(k · 15°), for k from 0 to 6.
const ExactValue& sineOfStep(int step) {
    static const std::array<ExactValue, 7> sines = [] {
        const auto over = [](const ExactValue& value, int below) { return value * ExactValue(Fraction(1, below)); };
        return std::array<ExactValue, 7>{
            ExactValue(),       over(rootOf(6) + -rootOf(2), 4), ExactValue(Fraction(1, 2)), over(rootOf(2), 2),
            over(rootOf(3), 2), over(rootOf(6) + rootOf(2), 4),  ExactValue(Fraction(1))};
    }();
    return sines[static_cast<std::size_t>(step)];
}

/// sin(k · 15°), for any k.
ExactValue sineAt(int step) {
    step = (step % 24 + 24) % 24;
    const ExactValue value = sineOfStep(step % 12 <= 6 ? step % 12 : 12 - step % 12);
    return step < 12 ? value : -value;
}

/// Whole steps of 15° in an angle.
std::optional<int> stepsIn(const ExactValue& angle) {
    const auto times = angle.timesPi();
    if (!times) return std::nullopt;
    const Fraction steps = *times * 12;
    if (denominator(steps) != 1) return std::nullopt;
    return Whole(numerator(steps) % 24).convert_to<int>();
}

Exact quotient(const Exact& above, const Exact& below) {
    const Exact inverted = below ? below->inverse() : std::nullopt;
    return above && inverted ? Exact(*above * *inverted) : std::nullopt;
}

Exact power(const Exact& base, const Exact& exponent) {
    if (!base || !exponent) return std::nullopt;
    if (const auto whole = wholeOf(exponent, mostPower)) {
        if (base->isZero() && *whole <= 0) return std::nullopt;
        ExactValue product{Fraction(1)};
        for (int i = 0; i < std::abs(*whole); ++i) {
            product = product * *base;
            if (!product.isShort() && !product.fraction()) return std::nullopt;
        }
        return *whole < 0 ? product.inverse() : Exact(product);
    }
    const auto twice = wholeOf(*exponent * ExactValue(Fraction(2)), mostPower);
    const Exact root = twice ? base->squareRoot() : std::nullopt;
    return root ? power(root, ExactValue(Fraction(*twice))) : std::nullopt;
}

Exact factorial(const Exact& of) {
    const auto whole = wholeOf(of, mostPower);
    if (!whole || *whole < 0) return std::nullopt;
    Fraction product = 1;
    for (int i = 2; i <= *whole; ++i) product *= i;
    return ExactValue(product);
}

/// Γ of whole and half numbers, down from Γ(1) and Γ(1/2) = √π and up.
Exact gammaOf(const Exact& of) {
    const auto twice = of ? wholeOf(*of * ExactValue(Fraction(2)), mostPower) : std::nullopt;
    if (!twice || (*twice <= 0 && *twice % 2 == 0)) return std::nullopt; // poles
    const bool isHalf = *twice % 2 != 0;
    Exact value = isHalf ? ExactValue::pi().squareRoot() : Exact(ExactValue(Fraction(1)));
    Fraction at = isHalf ? Fraction(1, 2) : Fraction(1);
    for (; at < Fraction(*twice, 2); at += 1) value = *value * ExactValue(at);
    for (; at > Fraction(*twice, 2);) {
        at -= 1;
        value = *value * ExactValue(1 / at);
    }
    return value;
}

/// ζ(2n) = |B_2n| (2π)^(2n)/(2 (2n)!), by the recurrence of Bernoulli's numbers (DLMF 24.5.3, 25.6.2).
Exact zetaOf(const Exact& of) {
    const auto whole = wholeOf(of, 30);
    if (!whole || *whole < 2 || *whole % 2 != 0) return std::nullopt;
    std::vector<Fraction> bernoulli{1};
    for (int m = 1; m <= *whole; ++m) {
        Fraction sum = 0, binomial = 1; // over k of (m + 1 choose k) B_k
        for (int k = 0; k < m; ++k) {
            sum += binomial * bernoulli[static_cast<std::size_t>(k)];
            binomial = binomial * (m + 1 - k) / (k + 1);
        }
        bernoulli.push_back(-sum / (m + 1));
    }
    const Exact twoPi = power(ExactValue::pi() * ExactValue(Fraction(2)), ExactValue(Fraction(*whole)));
    const Exact below = factorial(of);
    if (!twoPi || !below) return std::nullopt;
    const Fraction size = abs(bernoulli.back()) / 2;
    return quotient(*twoPi * ExactValue(size), below);
}

/// A polynomial in one variable: its coefficients from the constant one up.
using Polynomial = std::vector<ExactValue>;

class Reader {
public:
    explicit Reader(const Page& page) : page_(page) {}

    using Values = std::map<std::string, ExactValue>;

    Exact value(const Expr& e, const Values& values, int depth) {
        if (depth > deepest || ++steps_ > mostSteps) return std::nullopt;
        const auto of = [&](std::size_t i) { return value(*e.operands[i], values, depth); };
        switch (e.kind) {
        case ExprKind::Number: {
            const auto fraction = fractionOf(e.text);
            return fraction ? Exact(ExactValue(*fraction)) : std::nullopt;
        }
        case ExprKind::Name: return named(e.text, values, depth);
        case ExprKind::Group: return of(0);
        case ExprKind::Absolute: return sized(of(0));
        case ExprKind::Negate: {
            const Exact inner = of(0);
            return inner ? Exact(-*inner) : std::nullopt;
        }
        case ExprKind::Add:
        case ExprKind::Subtract: {
            const Exact a = of(0), b = a ? of(1) : std::nullopt;
            if (!b) return std::nullopt;
            return kept(e.kind == ExprKind::Add ? *a + *b : *a + -*b);
        }
        case ExprKind::Multiply: {
            const Exact a = of(0), b = a ? of(1) : std::nullopt;
            return b ? kept(*a * *b) : std::nullopt;
        }
        case ExprKind::Divide: {
            const Exact a = of(0);
            return a ? kept(quotient(a, of(1))) : std::nullopt;
        }
        case ExprKind::Power: {
            const Exact a = of(0);
            return a ? kept(power(a, of(1))) : std::nullopt;
        }
        case ExprKind::Factorial: return factorial(of(0));
        case ExprKind::Sum:
        case ExprKind::Product: return series(e, values, depth);
        case ExprKind::Integral: return integral(e, values, depth);
        case ExprKind::Call: return call(e, values, depth);
        default: return std::nullopt;
        }
    }

private:
    /// What has too many digits to be followed is given up.
    static Exact kept(const Exact& value) {
        if (!value || (!value->fraction() && !value->isShort())) return std::nullopt;
        if (const auto fraction = value->fraction();
            fraction && (msb(abs(numerator(*fraction)) + 1) > 2000 || msb(denominator(*fraction)) > 2000))
            return std::nullopt;
        return value;
    }
    static Exact sized(const Exact& value) { return value && value->sign() < 0 ? Exact(-*value) : value; }

    Exact named(const std::string& name, const Values& values, int depth) {
        if (const auto at = values.find(name); at != values.end()) return at->second;
        if (std::ranges::find(bound_, name) != bound_.end()) return std::nullopt; // a variable under an integral
        if (name == "π") return ExactValue::pi();
        const Line* line = page_.find(name, LineKind::Quantity);
        return line && line->body ? value(*line->body, {}, depth + 1) : std::nullopt;
    }

    Exact series(const Expr& e, const Values& values, int depth) {
        const auto from = wholeOf(value(*e.operands[0], values, depth), 1'000'000),
                   to = wholeOf(value(*e.operands[1], values, depth), 1'000'000);
        if (!from || !to || *to - *from >= mostTerms) return std::nullopt;
        const bool isSum = e.kind == ExprKind::Sum;
        ExactValue all = isSum ? ExactValue() : ExactValue(Fraction(1));
        Values inside = values;
        for (int i = *from; i <= *to; ++i) {
            inside[e.text] = ExactValue(Fraction(i));
            const Exact term = value(*e.operands[2], inside, depth);
            const Exact next = term ? kept(isSum ? all + *term : all * *term) : std::nullopt;
            if (!next) return std::nullopt;
            all = *next;
        }
        return all;
    }

    /// Of a polynomial, between its ends.
    Exact integral(const Expr& e, const Values& values, int depth) {
        if (e.principal) return std::nullopt;
        const Exact low = value(*e.operands[0], values, depth), high = value(*e.operands[1], values, depth);
        if (!low || !high) return std::nullopt;
        Values outside = values; // what the variable is worth there does not count within
        outside.erase(e.text);
        bound_.push_back(e.text);
        const auto integrand = polynomial(*e.operands[2], e.text, outside, depth);
        bound_.pop_back();
        if (!integrand) return std::nullopt;
        ExactValue sum;
        for (std::size_t k = 0; k < integrand->size(); ++k) {
            const ExactValue exponent{Fraction(static_cast<int>(k) + 1)};
            const Exact upper = power(high, exponent), lower = power(low, exponent);
            if (!upper || !lower) return std::nullopt;
            const Exact next =
                kept(sum + (*integrand)[k] * (*upper + -*lower) * ExactValue(Fraction(1, static_cast<int>(k) + 1)));
            if (!next) return std::nullopt;
            sum = *next;
        }
        return sum;
    }

    std::optional<Polynomial> polynomial(const Expr& e, const std::string& variable, const Values& values, int depth) {
        if (depth > deepest || ++steps_ > mostSteps) return std::nullopt;
        const auto of = [&](std::size_t i) { return polynomial(*e.operands[i], variable, values, depth); };
        const auto times = [](const Polynomial& a, const Polynomial& b) -> std::optional<Polynomial> {
            if (a.size() + b.size() > mostDegree) return std::nullopt;
            Polynomial product(a.size() + b.size() - 1);
            for (std::size_t i = 0; i < a.size(); ++i) {
                for (std::size_t k = 0; k < b.size(); ++k) product[i + k] = product[i + k] + a[i] * b[k];
            }
            return product;
        };
        switch (e.kind) {
        case ExprKind::Name:
            if (e.text == variable) return Polynomial{ExactValue(), ExactValue(Fraction(1))};
            break;
        case ExprKind::Group: return of(0);
        case ExprKind::Negate:
        case ExprKind::Add:
        case ExprKind::Subtract: {
            auto sum = of(0);
            if (!sum) return std::nullopt;
            if (e.kind == ExprKind::Negate) {
                for (ExactValue& each : *sum) each = -each;
                return sum;
            }
            const auto other = of(1);
            if (!other) return std::nullopt;
            sum->resize(std::max(sum->size(), other->size()));
            for (std::size_t k = 0; k < other->size(); ++k)
                (*sum)[k] = (*sum)[k] + (e.kind == ExprKind::Add ? (*other)[k] : -(*other)[k]);
            return sum;
        }
        case ExprKind::Multiply: {
            const auto a = of(0), b = a ? of(1) : std::nullopt;
            return b ? times(*a, *b) : std::nullopt;
        }
        case ExprKind::Divide: {
            const auto a = of(0);
            const Exact below = value(*e.operands[1], values, depth),
                        inverted = below ? below->inverse() : std::nullopt;
            return a && inverted ? times(*a, {*inverted}) : std::nullopt;
        }
        case ExprKind::Power: {
            const auto whole = wholeOf(value(*e.operands[1], values, depth), static_cast<int>(mostDegree));
            const auto base = whole && *whole >= 0 && !e.onFunction ? of(0) : std::nullopt;
            if (!base) return std::nullopt;
            std::optional<Polynomial> product = Polynomial{ExactValue(Fraction(1))};
            for (int i = 0; i < *whole && product; ++i) product = times(*product, *base);
            return product;
        }
        default: break;
        }
        const Exact constant = value(e, values, depth); // the variable is no value: what has it is none
        return constant ? std::optional(Polynomial{*constant}) : std::nullopt;
    }

    Exact call(const Expr& e, const Values& values, int depth) {
        if (e.below + e.above > 0 || !e.orders.empty()) return std::nullopt;
        std::vector<ExactValue> arguments;
        for (const ExprPtr& operand : e.operands) {
            const Exact argument = value(*operand, values, depth);
            if (!argument) return std::nullopt;
            arguments.push_back(*argument);
        }
        if (const Line* line = page_.find(e.text, LineKind::Function)) {
            if (!line->body || line->parameters.size() != arguments.size()) return std::nullopt;
            Values inside;
            for (std::size_t i = 0; i < arguments.size(); ++i) inside[line->parameters[i]] = arguments[i];
            return value(*line->body, inside, depth + 1);
        }
        if (page_.defined.contains(e.text) || arguments.size() != 1) return std::nullopt;
        return ofCatalogue(e.text, arguments[0]);
    }

    static Exact ofCatalogue(const std::string& name, const ExactValue& x) {
        const auto isZero = [&] { return x.isZero(); };
        const auto isOne = [&] { return x == ExactValue(Fraction(1)); };
        const auto sine = [](const std::optional<int>& steps) { return steps ? Exact(sineAt(*steps)) : std::nullopt; };
        const std::optional<int> steps = stepsIn(x);
        const auto ahead = [&]() -> std::optional<int> { return steps ? std::optional(*steps + 6) : std::nullopt; };
        const auto angle = [](int step) { return ExactValue::pi() * ExactValue(Fraction(step, 12)); };
        if (name == "sqrt") return x.squareRoot();
        if (name == "abs") return sized(x);
        if (name == "sgn") return ExactValue(Fraction(x.sign()));
        if (name == "sin") return sine(steps);
        if (name == "cos") return sine(ahead());
        if (name == "tan") return quotient(sine(steps), sine(ahead()));
        if (name == "cot") return quotient(sine(ahead()), sine(steps));
        if (name == "sec") return quotient(ExactValue(Fraction(1)), sine(ahead()));
        if (name == "csc") return quotient(ExactValue(Fraction(1)), sine(steps));
        if (name == "arcsin" || name == "arccos") {
            for (int step = -6; step <= 6; ++step) {
                if (sineAt(step) == x) return angle(name == "arcsin" ? step : 6 - step);
            }
            return std::nullopt;
        }
        if (name == "arctan") {
            for (int step = -5; step <= 5; ++step) {
                if (quotient(sineAt(step), sineAt(step + 6)) == Exact(x)) return angle(step);
            }
            return std::nullopt;
        }
        if (name == "Γ") return gammaOf(x);
        if (name == "ζ") return zetaOf(x);
        if (name == "exp" && isZero()) return ExactValue(Fraction(1));
        if ((name == "ln" || name == "lg" || name == "lb") && isOne()) return ExactValue();
        return std::nullopt;
    }

    const Page& page_;
    int steps_ = 0;
    std::vector<std::string> bound_; ///< variables of the integrals that are being read
};

} // namespace

std::optional<ExactValue> exactForm(const Page& page, const ExprPtr& expression) {
    return Reader(page).value(*expression, {}, 0);
}

std::string exactText(const Page& page, const ExprPtr& expression) {
    const auto exact = exactForm(page, expression);
    if (!exact || !exact->isShort()) return "";
    if (const auto fraction = exact->fraction()) { // what ends after a few decimals is exact as it stands
        Whole below = denominator(*fraction);
        for (const int factor : {2, 5}) {
            while (below % factor == 0) below /= factor;
        }
        if (below == 1) return "";
    }
    return exact->text();
}

} // namespace coulter
