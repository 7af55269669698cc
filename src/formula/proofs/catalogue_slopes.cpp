#include "formula/proofs/catalogue_slopes.h"

#include "formula/algebra/derivative.h"
#include "formula/bounds/bounds_arithmetic.h"
#include "formula/compile/compile.h"
#include "formula/notation/expr_build.h"
#include "special/catalogue.h"

#include <map>
#include <mutex>
#include <vector>

namespace coulter {
namespace {

constexpr const char* variable = "x";

struct Programs {
    std::shared_ptr<const Program> first, second;
};

const FunctionEntry* entryOf(ScalarFunction function) {
    for (const FunctionEntry& entry : catalogue()) {
        if (entry.implementation.scalar == function) return &entry;
    }
    return nullptr;
}

Programs compiled(const FunctionEntry& entry, std::span<const double> operands, std::size_t varying) {
    Expr call;
    call.kind = ExprKind::Call;
    call.text = entry.name;
    call.below = static_cast<int>(entry.below.size());
    call.above = static_cast<int>(entry.above.size());
    std::vector<ExprPtr> written;
    for (std::size_t i = 0; i < operands.size(); ++i)
        written.push_back(i == varying ? nameExpr(variable) : numberExpr(operands[i]));
    setOperands(call, std::move(written));
    const auto e = std::make_shared<const Expr>(std::move(call));
    const Page none;
    const std::vector<std::string> inputs{variable};
    const auto program = [&](int order) -> std::shared_ptr<const Program> {
        const Derived derived = derivative(none, e, variable, order);
        return derived.expression ? compile(none, derived.expression, inputs).program : nullptr;
    };
    return {program(1), program(2)};
}

/// Made once for each function and operands, for all threads.
Programs programsOf(ScalarFunction function, std::span<const double> operands, std::size_t varying) {
    using Key = std::tuple<ScalarFunction, std::vector<double>, std::size_t>;
    static std::map<Key, Programs> known;
    static std::mutex guard;
    constexpr std::size_t mostKept = 10'000;
    Key key{function, {operands.begin(), operands.end()}, varying};
    std::get<1>(key)[varying] = 0;
    const std::scoped_lock lock(guard);
    if (const auto at = known.find(key); at != known.end()) return at->second;
    const FunctionEntry* entry = entryOf(function);
    if (!entry) return {};
    if (known.size() == mostKept) known.clear();
    return known[key] = compiled(*entry, operands, varying);
}

/// For x > 1 the derivatives of ζ(x) = Σ n^−x (DLMF 25.2.1) have alternating signs, so that ζ is convex and ζ″ falls:
/// first differences bound ζ′, and second ones ζ″, from both sides.
Slopes zetaSlopes(const Bounds& x) {
    const double step = (x.low - 1) / 64;
    if (!(step > 0) || x.high + 2 * step == x.high) return {everything(), everything()};
    const auto at = [](double place) {
        return boundsOver(zetaFunction, &place, 1, 0, place, place).value_or(everything());
    };
    const double beforeLow = x.low - step, afterHigh = x.high + step, before2 = beforeLow - step,
                 after2 = afterHigh + step;
    const Bounds low = (at(x.low) - at(beforeLow)) / (exactly(x.low) - exactly(beforeLow)),
                 high = (at(afterHigh) - at(x.high)) / (exactly(afterHigh) - exactly(x.high));
    // Divided differences f[a, b, c] = f″(ξ)/2 for a place between a and c.
    const auto second = [&](double a, double b, double c) {
        const Bounds ab = (at(b) - at(a)) / (exactly(b) - exactly(a)), bc = (at(c) - at(b)) / (exactly(c) - exactly(b));
        return 2 * ((bc - ab) / (exactly(c) - exactly(a)));
    };
    return {{low.low, high.high},
            {std::max(0.0, second(x.high, afterHigh, after2).low), second(before2, beforeLow, x.low).high}};
}

} // namespace

CatalogueSlopes::CatalogueSlopes(ScalarFunction function, std::span<const double> operands, std::size_t varying) {
    isZeta_ = function == zetaFunction;
    if (isZeta_) return;
    const Programs programs = programsOf(function, operands, varying);
    first_.program = programs.first;
    second_.program = programs.second;
    for (Part* part : {&first_, &second_}) {
        if (part->program) part->evaluator = std::make_unique<IntervalEvaluator>(*part->program);
    }
}

Bounds CatalogueSlopes::over(Part& part, const Bounds& at) {
    if (!part.evaluator) return everything();
    const Enclosure x{at.low, at.high};
    const Enclosure found = (*part.evaluator)(std::span(&x, 1))[0];
    return found.isProof() ? Bounds{found.low, found.high} : everything();
}

Bounds CatalogueSlopes::first(const Bounds& at) { return isZeta_ ? zetaSlopes(at).first : over(first_, at); }

Slopes CatalogueSlopes::operator()(const Bounds& at) {
    return isZeta_ ? zetaSlopes(at) : Slopes{over(first_, at), over(second_, at)};
}

} // namespace coulter
