#include "formula/algebra/exact_value.h"

#include <cmath>
#include <numbers>

namespace coulter {

using boost::multiprecision::denominator;
using boost::multiprecision::numerator;

namespace {

/// A whole number as s² r, where no square divides r; none if it is too large to be taken apart.
std::optional<std::pair<ExactValue::Whole, ExactValue::Whole>> withoutSquares(const ExactValue::Whole& whole) {
    constexpr std::uint64_t largest = 1'000'000'000'000;
    if (whole > largest) return std::nullopt;
    auto number = whole.convert_to<std::uint64_t>();
    std::uint64_t square = 1, rest = 1;
    for (std::uint64_t factor = 2; factor * factor <= number; ++factor) {
        for (; number % (factor * factor) == 0; number /= factor * factor) square *= factor;
        if (number % factor == 0) number /= factor, rest *= factor;
    }
    return std::pair{ExactValue::Whole(square), ExactValue::Whole(rest * number)};
}

std::string raised(int power) {
    static const std::string digits[] = {"⁰", "¹", "²", "³", "⁴", "⁵", "⁶", "⁷", "⁸", "⁹"};
    std::string text;
    for (const char digit : std::to_string(power)) text += digits[digit - '0'];
    return text;
}

/// "π√π" for three halves.
std::string powerOfPi(int halves) {
    std::string text;
    if (halves >= 2) text = halves / 2 == 1 ? "π" : "π" + raised(halves / 2);
    return halves % 2 != 0 ? text + "√π" : text;
}

} // namespace

ExactValue::ExactValue(Fraction value) { add({}, value); }

ExactValue ExactValue::pi() {
    ExactValue made;
    made.add({1, 2}, 1);
    return made;
}

void ExactValue::add(const Root& root, const Fraction& factor) {
    Fraction& sum = terms_[root];
    sum += factor;
    if (sum == 0) terms_.erase(root);
}

std::optional<ExactValue::Fraction> ExactValue::fraction() const {
    if (terms_.empty()) return Fraction(0);
    if (terms_.size() != 1 || !(terms_.begin()->first == Root{})) return std::nullopt;
    return terms_.begin()->second;
}

std::optional<ExactValue::Fraction> ExactValue::timesPi() const {
    if (terms_.empty()) return Fraction(0);
    if (terms_.size() != 1 || !(terms_.begin()->first == Root{1, 2})) return std::nullopt;
    return terms_.begin()->second;
}

double ExactValue::number() const {
    long double sum = 0;
    for (const auto& [root, factor] : terms_)
        sum += factor.convert_to<long double>() * std::sqrt(root.under.convert_to<long double>()) *
               std::pow(std::numbers::pi_v<long double>, root.halves / 2.0L);
    return static_cast<double>(sum);
}

int ExactValue::sign() const {
    if (terms_.empty()) return 0;
    // Of one term its factor; of several, which are never zero together, their sum is far larger than its rounding.
    if (terms_.size() == 1) return terms_.begin()->second > 0 ? 1 : -1;
    return number() > 0 ? 1 : -1;
}

ExactValue operator+(const ExactValue& a, const ExactValue& b) {
    ExactValue sum = a;
    for (const auto& [root, factor] : b.terms_) sum.add(root, factor);
    return sum;
}

ExactValue operator-(const ExactValue& a) {
    ExactValue turned;
    for (const auto& [root, factor] : a.terms_) turned.add(root, -factor);
    return turned;
}

ExactValue operator*(const ExactValue& a, const ExactValue& b) {
    ExactValue product;
    for (const auto& [one, oneFactor] : a.terms_) {
        for (const auto& [other, otherFactor] : b.terms_) {
            // √m √n = g √(mn/g²), for the greatest g that divides both.
            const ExactValue::Whole common = gcd(one.under, other.under);
            product.add({(one.under / common) * (other.under / common), one.halves + other.halves},
                        oneFactor * otherFactor * common);
        }
    }
    return product;
}

std::optional<ExactValue> ExactValue::inverse() const {
    if (terms_.empty() || terms_.size() > 2) return std::nullopt;
    const auto& [root, factor] = *terms_.begin();
    if (terms_.size() == 1) { // 1/(f √n π^k) = √n/(f n) π^-k
        ExactValue made;
        made.add({root.under, -root.halves}, 1 / (factor * root.under));
        return made;
    }
    const auto& [other, otherFactor] = *std::next(terms_.begin());
    if (root.halves != other.halves) return std::nullopt;
    // 1/(a + b) = (a − b)/(a² − b²), and the squares are fractions times a power of π.
    ExactValue difference;
    difference.add(root, factor);
    difference.add(other, -otherFactor);
    ExactValue below;
    below.add({1, 2 * root.halves}, factor * factor * root.under - otherFactor * otherFactor * other.under);
    const auto inverted = below.inverse();
    if (!inverted) return std::nullopt;
    return difference * *inverted;
}

std::optional<ExactValue> ExactValue::squareRoot() const {
    if (terms_.empty()) return ExactValue();
    const auto& [root, factor] = *terms_.begin();
    if (terms_.size() != 1 || root.under != 1 || root.halves % 2 != 0 || factor < 0) return std::nullopt;
    const Whole below = denominator(factor);
    const auto apart = withoutSquares(numerator(factor) * below); // √(p/q) = √(p q)/q
    if (!apart) return std::nullopt;
    ExactValue made;
    made.add({apart->second, root.halves / 2}, Fraction(apart->first, below));
    return made;
}

bool ExactValue::isShort() const {
    static const Whole most("1000000000000");
    if (terms_.size() > 4) return false;
    for (const auto& [root, factor] : terms_) {
        if (abs(numerator(factor)) > most || denominator(factor) > most || root.under > most ||
            std::abs(root.halves) > 40)
            return false;
    }
    return true;
}

std::string ExactValue::text() const {
    if (terms_.empty()) return "0";
    // Fractions of several terms stand over one line, unless a power of π stands below.
    bool together = terms_.size() > 1;
    Whole all = 1;
    for (const auto& [root, factor] : terms_) {
        together = together && root.halves >= 0;
        all = lcm(all, Whole(denominator(factor)));
    }
    together = together && all != 1;
    std::string text;
    for (const auto& [root, factor] : terms_) {
        const Whole above = abs(Whole(numerator(factor))) * (together ? Whole(all / denominator(factor)) : Whole(1)),
                    below = together ? Whole(1) : Whole(denominator(factor));
        std::string over = (root.under != 1 ? "√" + root.under.str() : "");
        if (root.halves > 0) over += (over.empty() ? "" : " ") + powerOfPi(root.halves);
        if (above != 1 || over.empty()) over = above.str() + (over.empty() || over.starts_with("√") ? "" : " ") + over;
        std::string under = below != 1 ? below.str() : "";
        if (root.halves < 0) under += (under.empty() ? "" : " ") + powerOfPi(-root.halves);
        const bool isProduct = root.halves < 0 && (below != 1 || (root.halves < -2 && root.halves % 2 != 0));
        if (!under.empty()) over += "/" + (isProduct ? "(" + under + ")" : under);
        text += text.empty() ? (factor < 0 ? "−" : "") : (factor < 0 ? " − " : " + ");
        text += over;
    }
    return together ? "(" + text + ")/" + all.str() : text;
}

} // namespace coulter
