#include "formula/algebra/exact_function.h"

#include "formula/algebra/exact_form.h"
#include "formula/base/text.h"
#include "formula/notation/expr_build.h"
#include "formula/notation/parser.h"

#include <algorithm>

namespace coulter {
namespace {

constexpr std::size_t mostDegreeOfPiece = 12, mostModes = 12;

using Fraction = ExactValue::Fraction;
using Polynomial = std::vector<ExactValue>;

ExactValue half(const ExactValue& a) { return a * ExactValue(Fraction(1, 2)); }

bool isReadable(const ExactValue& value) { return value.isShort() || value.fraction(); }

Polynomial sumOf(const Polynomial& a, const Polynomial& b) {
    Polynomial sum(std::max(a.size(), b.size()));
    for (std::size_t k = 0; k < sum.size(); ++k)
        sum[k] = (k < a.size() ? a[k] : ExactValue()) + (k < b.size() ? b[k] : ExactValue());
    while (sum.size() > 1 && sum.back().isZero()) sum.pop_back();
    return sum;
}

/// With rates above 0, waves that stand still as the constants that they are, and nothing that is 0.
void add(ExactFunction& to, ExactMode mode) {
    if (mode.isWave && mode.rate.sign() < 0) {
        mode.rate = -mode.rate;
        mode.sine = -mode.sine;
    }
    if (mode.isWave && mode.rate.isZero()) {
        to.polynomial = sumOf(to.polynomial, {mode.cosine});
        return;
    }
    const auto same = std::ranges::find_if(to.modes, [&](const ExactMode& each) {
        return each.isWave == mode.isWave && each.rate == mode.rate && each.shift == mode.shift;
    });
    if (same == to.modes.end()) {
        to.modes.push_back(std::move(mode));
    } else {
        same->cosine = same->cosine + mode.cosine;
        same->sine = same->sine + mode.sine;
    }
    std::erase_if(to.modes, [](const ExactMode& each) { return each.cosine.isZero() && each.sine.isZero(); });
}

/// Of two waves, by the sums and differences of their angles; of two exponentials.
bool addProduct(ExactFunction& to, const ExactMode& a, const ExactMode& b) {
    if (a.isWave != b.isWave) return false;
    if (!a.isWave) {
        const ExactMode product{false, a.rate + b.rate, a.shift + b.shift, a.cosine * b.cosine, {}};
        if (product.rate.isZero() && !product.shift.isZero()) return false;
        if (product.rate.isZero())
            to.polynomial = sumOf(to.polynomial, {product.cosine});
        else
            add(to, product);
        return true;
    }
    const ExactValue cc = half(a.cosine * b.cosine), ss = half(a.sine * b.sine), cs = half(a.cosine * b.sine),
                     sc = half(a.sine * b.cosine);
    add(to, {true, a.rate + -b.rate, {}, cc + ss, sc + -cs});
    add(to, {true, a.rate + b.rate, {}, cc + -ss, sc + cs});
    return true;
}

} // namespace

ExactFunction operator+(const ExactFunction& a, const ExactFunction& b) {
    ExactFunction sum{sumOf(a.polynomial, b.polynomial), a.modes};
    for (const ExactMode& mode : b.modes) add(sum, mode);
    return sum;
}

ExactFunction operator-(ExactFunction a) {
    for (ExactValue& each : a.polynomial) each = -each;
    for (ExactMode& mode : a.modes) {
        mode.cosine = -mode.cosine;
        mode.sine = -mode.sine;
    }
    return a;
}

std::optional<ExactFunction> productOf(const ExactFunction& a, const ExactFunction& b) {
    const Polynomial &p = a.polynomial, &q = b.polynomial;
    if (p.size() + q.size() > mostDegreeOfPiece + 2) return std::nullopt;
    ExactFunction product{Polynomial(p.size() + q.size() - 1), {}};
    for (std::size_t i = 0; i < p.size(); ++i) {
        for (std::size_t k = 0; k < q.size(); ++k) product.polynomial[i + k] = product.polynomial[i + k] + p[i] * q[k];
    }
    for (const auto& [modes, polynomial] : {std::pair(&a.modes, &q), std::pair(&b.modes, &p)}) {
        const bool isZero = polynomial->size() == 1 && polynomial->front().isZero();
        if (!modes->empty() && polynomial->size() > 1) return std::nullopt;
        for (ExactMode mode : *modes) {
            if (isZero) continue;
            mode.cosine = mode.cosine * polynomial->front();
            mode.sine = mode.sine * polynomial->front();
            add(product, mode);
        }
    }
    for (const ExactMode& one : a.modes) {
        for (const ExactMode& other : b.modes) {
            if (!addProduct(product, one, other)) return std::nullopt;
        }
    }
    product.polynomial = sumOf(product.polynomial, {ExactValue()});
    const bool isShort = std::ranges::all_of(product.polynomial, isReadable) && product.modes.size() <= mostModes;
    return isShort ? std::optional(product) : std::nullopt;
}

std::optional<ExactValue> exactWave(bool isSine, const ExactValue& angle) {
    return exactForm(Page{}, callExpr(isSine ? "sin" : "cos", {exprOf(angle)}));
}

std::optional<ExactFunction> waveOf(bool isSine, const ExactFunction& angle) {
    if (!angle.isPolynomial() || angle.polynomial.size() > 2) return std::nullopt;
    const auto sine = exactWave(true, angle.polynomial[0]), cosine = exactWave(false, angle.polynomial[0]);
    if (!sine || !cosine) return std::nullopt;
    const ExactValue rate = angle.polynomial.size() > 1 ? angle.polynomial[1] : ExactValue();
    ExactFunction wave{{ExactValue()}, {}};
    add(wave, isSine ? ExactMode{true, rate, {}, *sine, *cosine} : ExactMode{true, rate, {}, *cosine, -*sine});
    return wave;
}

std::optional<ExactFunction> exponentialOf(const ExactFunction& exponent) {
    if (!exponent.isPolynomial() || exponent.polynomial.size() != 2) return std::nullopt;
    return ExactFunction{{ExactValue()},
                         {{false, exponent.polynomial[1], exponent.polynomial[0], ExactValue(Fraction(1)), {}}}};
}

ExactValue polynomialAt(const Polynomial& polynomial, const ExactValue& t) {
    ExactValue value;
    for (std::size_t k = polynomial.size(); k-- > 0;) value = value * t + polynomial[k];
    return value;
}

std::optional<ExactValue> valueAt(const ExactFunction& f, const ExactValue& t) {
    ExactValue value = polynomialAt(f.polynomial, t);
    for (const ExactMode& mode : f.modes) {
        const ExactValue at = mode.rate * t;
        if (!mode.isWave) {
            if (!(at + mode.shift).isZero()) return std::nullopt;
            value = value + mode.cosine;
            continue;
        }
        const auto sine = exactWave(true, at), cosine = exactWave(false, at);
        if (!sine || !cosine) return std::nullopt;
        value = value + mode.cosine * *cosine + mode.sine * *sine;
    }
    return value;
}

ExprPtr exprOf(const ExactValue& value) { return parseExpression(decodeUtf8(value.text()), KnownNames{}).expression; }

} // namespace coulter
