#include "formula/algebra/unit_inference.h"

#include "formula/algebra/vector_calculus.h"
#include "formula/base/text.h"
#include "formula/measured/statistics.h"
#include "formula/notation/expr_build.h"
#include "formula/notation/lexer.h"
#include "formula/notation/parser.h"
#include "formula/notation/unit_product.h"
#include "formula/notation/units.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <string_view>
#include <utility>

namespace coulter {
namespace {

/// What is known of an expression's unit.
struct Inferred {
    enum class Kind {
        Unknown,
        Plain, ///< a number that is written, or made of such: goes with anything in a sum
        Known,
    };
    Kind kind = Kind::Unknown;
    UnitProduct unit; ///< of Known

    bool known() const { return kind == Kind::Known; }
};

const Inferred unknown{};
const Inferred unitless{Inferred::Kind::Plain, {}};

Inferred known(UnitProduct unit) { return {Inferred::Kind::Known, std::move(unit)}; }
Inferred known(const std::string& unit) { return unit.empty() ? unknown : known(UnitProduct::of(unit)); }

using Bindings = std::map<std::string, Inferred>;

/// Functions that give a value of their first argument's unit, and those of them whose arguments are of one unit.
constexpr std::array<std::string_view, 4> keepsUnit{"abs", "floor", "ceil", "round"};
constexpr std::array<std::string_view, 3> ofOneUnit{"min", "max", "mod"};
constexpr std::array<std::string_view, 8> statisticsOfUnit{"mean",  "median", "sd",       "quantile",
                                                           "total", "least",  "greatest", "cumulative"};

template <std::size_t n> bool isOne(const std::array<std::string_view, n>& names, std::string_view name) {
    return std::ranges::find(names, name) != names.end();
}

/// A factor that no unit hides in: 2, 1/2, 3/4, but not 365 or 9.81.
bool isMereFactor(double number) { return std::abs(number) <= 4 && number * 12 == std::nearbyint(number * 12); }

std::string shownUnit(const UnitProduct& unit) { return unit.isNumber() ? "a pure number" : unit.text(); }

class UnitReader {
public:
    /// What is known of names, so that nothing is followed again for every line that uses it.
    using Known = std::map<std::string, Inferred>;

    /// @param problems  where what is wrong is put; null: nowhere
    explicit UnitReader(const Page& page, Problems* problems = nullptr, const Known* known = nullptr)
        : page_(page), problems_(problems), known_(known) {}

    Inferred of(const Expr& e, const Bindings& bindings) {
        if (++steps_ > mostSteps) return unknown;
        switch (e.kind) {
        case ExprKind::Number: return unitless;
        case ExprKind::Name: return ofName(e.text, bindings);
        case ExprKind::Group:
        case ExprKind::Absolute:
        case ExprKind::Negate: return of(*e.operands[0], bindings);
        case ExprKind::Add:
        case ExprKind::Subtract: return ofSum(e, bindings);
        case ExprKind::Multiply: return ofProduct(e, bindings, 1);
        case ExprKind::Divide: return ofProduct(e, bindings, -1);
        case ExprKind::Power: return ofPower(e, bindings);
        case ExprKind::Call: return ofCall(e, bindings);
        case ExprKind::Compare: {
            std::vector<Inferred> sides;
            for (const ExprPtr& side : e.operands) sides.push_back(of(*side, bindings));
            for (std::size_t i = 0; i + 1 < sides.size(); ++i)
                agree(sides[i], sides[i + 1], e.span, "compares", e.operands[i + 1].get());
            return unitless;
        }
        case ExprKind::Iverson: of(*e.operands[0], bindings); return unitless;
        case ExprKind::Pieces: return ofPieces(e, bindings);
        case ExprKind::Sum: {
            Bindings inner = bindings;
            inner[e.text] = unknown; // it may count waves, or days
            return of(*e.operands[2], inner);
        }
        case ExprKind::Integral: {
            const Inferred low = of(*e.operands[0], bindings), high = of(*e.operands[1], bindings);
            agree(low, high, e.span, "integrates from");
            Bindings inner = bindings;
            inner[e.text] = low.known() ? low : high.known() ? high : ofVariable(e.text);
            const Inferred term = of(*e.operands[2], inner);
            return multiplied(term, inner[e.text], 1);
        }
        case ExprKind::Derivative: {
            const auto bound = bindings.find(e.text);
            Inferred by = bound == bindings.end() ? ofVariable(e.text) : bound->second;
            if (by.known()) by.unit = by.unit.toThe(e.number);
            return multiplied(of(*e.operands[0], bindings), by, -1);
        }
        case ExprKind::List: {
            Inferred all = unitless;
            for (const ExprPtr& each : e.operands) {
                const Inferred one = of(*each, bindings);
                agree(all, one, e.span, "lists");
                if (!all.known()) all = one;
            }
            return all.known() ? all : unknown; // numbers of a list have the unit of its line
        }
        default:
            for (const ExprPtr& each : e.operands) of(*each, bindings);
            return unknown;
        }
    }

    /// Notes that two sides do not go together; whether they do.
    /// @param second  the expression of b, to which a factor can be written; null if there is no single one
    bool agree(const Inferred& a, const Inferred& b, Span place, const std::string& does,
               const Expr* second = nullptr) {
        if (!a.known() || !b.known()) return true;
        const UnitMatch found = match(a.unit, b.unit);
        if (found == UnitMatch::Same) return true;
        const bool kind = found == UnitMatch::OtherKind;
        const bool said =
            report(place,
                   "This " + does + " " + shownUnit(a.unit) + " and " + shownUnit(b.unit) +
                       (kind ? ", which are different kinds of quantity." : ", and numbers are not converted."),
                   kind ? "check the formula, or the units of its names" : "write the factor between them");
        if (said && !kind && second) problems_->back().remedy = factorBehind(*second, b.unit, a.unit);
        return false;
    }

    /// The remedy that writes the factor between two units behind an expression; none where it is an offset, or where
    /// a factor behind it would go with its last term alone.
    static std::optional<Remedy> factorBehind(const Expr& e, const UnitProduct& from, const UnitProduct& to) {
        const auto conversion = unitConversion(from.text(), to.text());
        const bool isSum = e.kind == ExprKind::Add || e.kind == ExprKind::Subtract || e.kind == ExprKind::Negate;
        if (!conversion || conversion->offset != 0 || isSum || e.span.last < e.span.first) return std::nullopt;
        const double over = 1 / conversion->factor;
        const bool divides = over > 1 && std::abs(over - std::round(over)) < 1e-9 * over;
        return Remedy{e.span.last + 1, e.span.last,
                      divides ? "/" + roundedNumber(std::round(over), 15)
                              : "*" + roundedNumber(conversion->factor, 15)};
    }

    /// Whether it is said.
    bool report(Span place, std::string sentence, std::string suggestion) {
        if (!problems_ || problems_->size() >= 20) return false;
        problems_->push_back(
            {-1, place.first, place.last, std::move(sentence), std::move(suggestion), Problem::Severity::Note});
        return true;
    }

    /// The variable of this name, which parameters of functions stand for.
    Inferred ofVariable(const std::string& name) {
        return page_.find(name, LineKind::Variable) ? known(page_.unitOf(name)) : unknown;
    }

    /// What a line's formula gives.
    Inferred ofBody(const Line& line) {
        if (!line.body) return unknown;
        Bindings bindings;
        for (const std::string& parameter : line.parameters) bindings[parameter] = ofVariable(parameter);
        return of(*line.body, bindings);
    }

    static Inferred multiplied(const Inferred& a, const Inferred& b, double exponent) {
        if (a.kind == Inferred::Kind::Unknown || b.kind == Inferred::Kind::Unknown) return unknown;
        if (!a.known() && !b.known()) return unitless;
        return known(a.unit.times(b.unit.toThe(exponent)));
    }

private:
    static constexpr int mostSteps = 20'000; // of all expressions that are written out in one another
    static constexpr std::size_t deepest = 30;

    Inferred ofName(const std::string& name, const Bindings& bindings) {
        if (const auto bound = bindings.find(name); bound != bindings.end()) return bound->second;
        if (!page_.defined.contains(name)) return name == "π" || name == "e" ? unitless : unknown;
        if (const std::string unit = page_.unitOf(name); !unit.empty()) return known(unit);
        if (known_) {
            if (const auto at = known_->find(name); at != known_->end()) return at->second;
        }
        const Line& line = page_.lines[page_.defined.at(name)];
        const bool computed = line.kind == LineKind::Quantity || line.kind == LineKind::Numbers;
        if (!computed || !line.good() || line.plainNumber) return unknown;
        const Inferred found = within(name, [&] { return ofBody(line); });
        return found.known() ? found : unknown; // 2·3 by a name may be anything
    }

    /// Runs something with a line open, so that circles and long chains end.
    template <class Run> Inferred within(const std::string& name, const Run& run) {
        if (open_.size() >= deepest || std::ranges::find(open_, name) != open_.end()) return unknown;
        open_.push_back(name);
        Problems* const outer = std::exchange(problems_, nullptr); // said on its own line
        Inferred found = run();
        problems_ = outer;
        open_.pop_back();
        return found;
    }

    Inferred ofSum(const Expr& e, const Bindings& bindings) {
        const Inferred a = of(*e.operands[0], bindings), b = of(*e.operands[1], bindings);
        if (!agree(a, b, e.span, e.kind == ExprKind::Add ? "adds" : "subtracts", e.operands[1].get())) return unknown;
        return together(a, *e.operands[0], b, *e.operands[1]);
    }

    /// What a sum gives: a plain number in it has a unit that nobody says, but for zero.
    static Inferred together(const Inferred& a, const Expr& first, const Inferred& b, const Expr& second) {
        if (a.known() && (b.known() || isNumber(second, 0))) return a;
        if (b.known() && isNumber(first, 0)) return b;
        return a.kind == Inferred::Kind::Plain && b.kind == Inferred::Kind::Plain ? unitless : unknown;
    }

    /// A factor as it goes into a product: a number that may hide a unit makes it unknown.
    Inferred factor(const Expr& e, const Bindings& bindings) {
        const Inferred found = of(e, bindings);
        return e.kind == ExprKind::Number && !isMereFactor(e.number) ? unknown : found;
    }

    Inferred ofProduct(const Expr& e, const Bindings& bindings, double exponent) {
        return multiplied(factor(*e.operands[0], bindings), factor(*e.operands[1], bindings), exponent);
    }

    Inferred ofPower(const Expr& e, const Bindings& bindings) {
        const Inferred base = factor(*e.operands[0], bindings);
        of(*e.operands[1], bindings);
        const std::optional<double> exponent = plainNumber(*e.operands[1]);
        if (!base.known()) return exponent ? base : unknown;
        if (base.unit.isNumber()) return base;
        return exponent ? known(base.unit.toThe(*exponent)) : unknown;
    }

    /// An exponent as it is usually written: 2, −1, (1/2).
    static std::optional<double> plainNumber(const Expr& e) {
        if (e.kind == ExprKind::Number) return e.number;
        if (e.kind == ExprKind::Group) return plainNumber(*e.operands[0]);
        if (e.kind == ExprKind::Negate) {
            const auto inner = plainNumber(*e.operands[0]);
            return inner ? std::optional(-*inner) : std::nullopt;
        }
        if (e.kind != ExprKind::Divide) return std::nullopt;
        const auto above = plainNumber(*e.operands[0]), below = plainNumber(*e.operands[1]);
        return above && below && *below != 0 ? std::optional(*above / *below) : std::nullopt;
    }

    Inferred ofPieces(const Expr& e, const Bindings& bindings) {
        Inferred all = unitless;
        bool sure = true;
        for (std::size_t i = 0; i < e.operands.size(); ++i) {
            const Inferred each = of(*e.operands[i], bindings);
            if (i % 2 == 1) continue; // a condition
            agree(all, each, e.span, "has pieces in");
            if (!each.known() && !isNumber(*e.operands[i], 0)) sure = false;
            if (!all.known()) all = each;
        }
        return sure ? all : unknown;
    }

    Inferred ofCall(const Expr& e, const Bindings& bindings) {
        std::vector<Inferred> arguments;
        for (const ExprPtr& each : e.operands) arguments.push_back(of(*each, bindings));
        if (page_.defined.contains(e.text)) return ofPageFunction(e, arguments);
        if (isVectorCalculus(e.text)) return ofVectorCalculus(*e.operands[0], arguments[0]);
        if (arguments.empty() || e.below > 0 || e.above > 0) return unknown;
        if (e.text == "sqrt") return arguments[0].known() ? known(arguments[0].unit.toThe(0.5)) : arguments[0];
        if (isOne(keepsUnit, e.text) || isOne(statisticsOfUnit, e.text) || e.text == "differences") return arguments[0];
        if (!isOne(ofOneUnit, e.text)) return unknown;
        for (std::size_t i = 1; i < arguments.size(); ++i) agree(arguments[0], arguments[i], e.span, "compares");
        for (const Inferred& each : arguments) {
            if (each.known()) return each;
        }
        return unknown;
    }

    /// A function's unit over that of its variables, if they have one in common.
    Inferred ofVectorCalculus(const Expr& call, const Inferred& function) {
        const Line* line = page_.find(call.text, LineKind::Function);
        if (!line || line->parameters.empty() || !function.known()) return unknown;
        const Inferred by = ofVariable(line->parameters[0]);
        for (const std::string& parameter : line->parameters) {
            const Inferred other = ofVariable(parameter);
            if (!by.known() || !other.known() || match(by.unit, other.unit) != UnitMatch::Same) return unknown;
        }
        return known(function.unit.over(by.unit));
    }

    Inferred ofPageFunction(const Expr& e, const std::vector<Inferred>& arguments) {
        const Line* line = page_.find(e.text, LineKind::Function);
        if (!line || line->parameters.size() != arguments.size()) return unknown;
        Bindings bindings;
        for (std::size_t i = 0; i < arguments.size(); ++i) {
            const std::string& parameter = line->parameters[i];
            const Inferred own = ofVariable(parameter);
            if (own.known() && arguments[i].known() && match(own.unit, arguments[i].unit) != UnitMatch::Same) {
                report(e.operands[i]->span,
                       parameter + " is in " + shownUnit(own.unit) + " on its line, and this is in " +
                           shownUnit(arguments[i].unit) + ".",
                       match(own.unit, arguments[i].unit) == UnitMatch::OtherScale ? "write the factor between them"
                                                                                   : "check what is put in");
            }
            // Where a function's own variable has no unit, its numbers may have any.
            bindings[parameter] = own.known() ? arguments[i] : unknown;
        }
        Inferred found = known(line->unit);
        if (!found.known()) {
            if (!line->body) return unknown;
            found = within(e.text, [&] { return of(*line->body, bindings); });
        }
        for (std::size_t i = 0; i < e.orders.size() && found.known(); ++i) {
            if (e.orders[i] == 0) continue;
            const Inferred by = ofVariable(line->parameters[i]);
            if (!by.known()) return unknown;
            found = known(found.unit.over(by.unit.toThe(e.orders[i])));
        }
        return found;
    }

    const Page& page_;
    Problems* problems_;
    const Known* known_ = nullptr;
    std::vector<std::string> open_;
    int steps_ = 0;
};

/// The unit as a line can carry it; empty if it says nothing, or cannot be written well.
std::string carried(const Inferred& found) {
    if (!found.known() || found.unit.isNumber() || found.unit.mixes()) return "";
    const std::string text = found.unit.text();
    return text.find('(') == std::string::npos ? text : "";
}

bool hasFormula(const Line& line) {
    return line.body && (line.kind == LineKind::Quantity || line.kind == LineKind::Numbers ||
                         line.kind == LineKind::Function || line.kind == LineKind::Question);
}

/// What a line's formula gives against what its line says.
void checkDeclared(UnitReader& reader, const Line& line, const Inferred& found) {
    if (line.unit.empty() || !found.known()) return;
    const UnitProduct said = UnitProduct::of(line.unit);
    const UnitMatch how = match(said, found.unit);
    if (how == UnitMatch::Same) return;
    reader.report(line.body->span,
                  "This is in " + shownUnit(found.unit) + ", and the line says " + line.unit +
                      (how == UnitMatch::OtherKind ? "." : ": numbers are not converted."),
                  how == UnitMatch::OtherKind ? "check the formula, or the unit" : "write the factor between them");
}

/// The terms of a sum, signs aside.
void terms(const Expr& e, std::vector<const Expr*>& out) {
    if (e.kind == ExprKind::Group || e.kind == ExprKind::Negate) return terms(*e.operands[0], out);
    if (e.kind != ExprKind::Add && e.kind != ExprKind::Subtract) return out.push_back(&e);
    for (const ExprPtr& each : e.operands) terms(*each, out);
}

/// The factors of a product, without quotients.
void factors(const Expr& e, std::vector<const Expr*>& out) {
    if (e.kind == ExprKind::Group || e.kind == ExprKind::Negate) return factors(*e.operands[0], out);
    if (e.kind != ExprKind::Multiply) return out.push_back(&e);
    for (const ExprPtr& each : e.operands) factors(*each, out);
}

/// The unit of a fit's coefficient: s = a + b t has b in the unit of s over that of t.
Inferred unitOfCoefficient(UnitReader& reader, const Line& line, const std::string& name) {
    for (const ExprPtr& equation : line.equations) {
        if (equation->kind != ExprKind::Compare || equation->operands.size() != 2) continue;
        const Inferred whole = reader.of(*equation->operands[0], {});
        if (!whole.known()) continue;
        std::vector<const Expr*> summands;
        terms(*equation->operands[1], summands);
        for (const Expr* term : summands) {
            std::vector<const Expr*> parts;
            factors(*term, parts);
            const auto isIt = [&](const Expr* part) { return part->kind == ExprKind::Name && part->text == name; };
            if (std::ranges::count_if(parts, isIt) != 1) continue;
            Inferred rest = unitless;
            for (const Expr* part : parts) {
                if (!isIt(part)) rest = UnitReader::multiplied(rest, reader.of(*part, {}), 1);
            }
            return UnitReader::multiplied(whole, rest, -1);
        }
    }
    return unknown;
}

bool saysUnits(const Page& page) {
    return std::ranges::any_of(page.lines, [](const Line& line) { return !line.unit.empty() || !line.units.empty(); });
}

} // namespace

void followUnits(Page& page, bool carries) {
    if (!saysUnits(page)) return;
    std::vector<std::string> units(page.lines.size());
    std::vector<std::vector<std::string>> byUnknown(page.lines.size());
    UnitReader::Known known;
    for (std::size_t i = 0; i < page.lines.size(); ++i) {
        Line& line = page.lines[i];
        if (!line.good()) continue;
        Problems problems;
        UnitReader reader(page, &problems, &known);
        if (hasFormula(line)) {
            const Inferred found = reader.ofBody(line);
            checkDeclared(reader, line, found);
            const bool isNumber = line.kind == LineKind::Quantity || line.kind == LineKind::Numbers;
            if (isNumber && line.unit.empty()) known[line.name] = found.known() && !line.plainNumber ? found : unknown;
            if (line.unit.empty() && !line.plainNumber) units[i] = carried(found);
        }
        for (const ExprPtr& equation : line.equations) reader.of(*equation, {});
        if (line.kind == LineKind::Fit) {
            for (const std::string& name : line.unknowns)
                byUnknown[i].push_back(carried(unitOfCoefficient(reader, line, name)));
        }
        if (line.kind == LineKind::Search && line.body) reader.ofBody(line);
        line.problems.insert(line.problems.end(), problems.begin(), problems.end());
    }
    if (!carries) return;
    for (std::size_t i = 0; i < page.lines.size(); ++i) {
        Line& line = page.lines[i];
        if (!units[i].empty()) line.unit = units[i];
        if (line.kind == LineKind::Fit && std::ranges::any_of(byUnknown[i], [](const auto& u) { return !u.empty(); }))
            line.units = byUnknown[i];
    }
}

std::string unitOfExpression(const Page& page, const ExprPtr& expression) {
    if (!expression) return "";
    const Inferred found = UnitReader(page).of(*expression, {});
    return found.known() ? found.unit.text() : "";
}

UnitsOfText unitsOfText(const Page& page, std::string_view text) {
    if (!saysUnits(page)) return {};
    const std::u32string letters = decodeUtf8(text);
    const LexResult lexed = tokenize(letters, 0, letters.size());
    if (!lexed.problems.empty()) return {};
    const ExprPtr expression = parseExpression(lexed.tokens, page.inQuestions).expression;
    return {unitOfExpression(page, expression), unitProblems(page, expression)};
}

Problems unitProblems(const Page& page, const ExprPtr& expression) {
    Problems problems;
    if (expression && saysUnits(page)) UnitReader(page, &problems).of(*expression, {});
    return problems;
}

} // namespace coulter
