#pragma once
#include <boost/multiprecision/cpp_int.hpp>
#include <compare>
#include <map>
#include <optional>
#include <string>

namespace coulter {

/// A number that is a sum of terms (p/q) √n π^(h/2), exactly: fractions, square roots of fractions, sines of whole
/// multiples of 15°, volumes of spheres. An operation whose result is no such sum, or one with numbers of very many
/// digits, has none.
class ExactValue {
public:
    using Fraction = boost::multiprecision::cpp_rational;
    using Whole = boost::multiprecision::cpp_int;

    ExactValue() = default; ///< zero
    ExactValue(Fraction value);
    static ExactValue pi();

    /// The fraction that it is; none if it is another number.
    std::optional<Fraction> fraction() const;
    /// The fraction f of f π, zero included; none if it is another number.
    std::optional<Fraction> timesPi() const;
    /// The nearest number of double precision, or one beside it.
    double number() const;
    int sign() const; ///< -1, 0, 1
    bool isZero() const { return terms_.empty(); }

    friend ExactValue operator+(const ExactValue& a, const ExactValue& b);
    friend ExactValue operator-(const ExactValue& a);
    friend ExactValue operator*(const ExactValue& a, const ExactValue& b);
    friend bool operator==(const ExactValue& a, const ExactValue& b) { return a.terms_ == b.terms_; }
    /// Of one term, or of two with one power of π.
    std::optional<ExactValue> inverse() const;
    /// Of one term without a root that is left.
    std::optional<ExactValue> squareRoot() const;
    /// Whether all its numbers have so few digits that people read them.
    bool isShort() const;

    /// In the notation: "√3/2", "π²/6 − 1", "(√6 − √2)/4".
    std::string text() const;

private:
    struct Root {
        Whole under = 1; ///< no square divides it
        int halves = 0;  ///< twice the power of π
        friend bool operator<(const Root& a, const Root& b) {
            return a.halves != b.halves ? a.halves > b.halves : a.under > b.under;
        }
        friend bool operator==(const Root& a, const Root& b) = default;
    };
    void add(const Root& root, const Fraction& factor);
    std::map<Root, Fraction> terms_; ///< factors are not zero
};

inline ExactValue wholeValue(int number) { return ExactValue(ExactValue::Fraction(number)); }

} // namespace coulter
