// Fields in pieces: level lines never run along a jump, are whole beside it, and turn sharply at a corner of the field.
#include "field_program.h"
#include "rounds.h"
#include "sampling/field.h"
#include "sampling/isolines.h"

#include <catch2/catch.hpp>
#include <random>

using namespace coulter;

namespace {

constexpr double tolerance = 0.02;
const PanelMap map{{ScaleKind::Linear, -2, 2, 80}, {ScaleKind::Linear, -2, 2, 80}};
const std::array<Interval, 2> square{Interval{-2, 2, true, true}, Interval{-2, 2, true, true}};

/// A field with the lines of a level as they are drawn, and what is true of it by looking closely.
class LooksClosely {
public:
    LooksClosely(const std::string& formula, double level)
        : f_(field(formula)), evaluator_(*f_), level_(level),
          samples_(sampleMesh(*f_, square, map, {tolerance, level - 2, level + 2, {level}, false, true})),
          found_(followLevels(samples_, {level}, f_.get(), map, {})) {}

    const LevelLines& found() const { return found_; }
    const FieldSamples& samples() const { return samples_; }

    double at(double u, double v) {
        const double x = map.x.fromSheet(u), y = map.y.fromSheet(v);
        double z = 0;
        double* const out[] = {&z};
        const double* const in[] = {&x, &y};
        evaluator_(in, out, 1);
        return z - level_;
    }

    /// A place between two with the level between them, if the field passes it and does not jump over it.
    std::optional<std::array<double, 2>> passes(std::array<double, 2> a, std::array<double, 2> b) {
        double fa = at(a[0], a[1]), fb = at(b[0], b[1]);
        if (!(fa < 0 ? fb >= 0 : fb < 0) || std::isnan(fb)) return std::nullopt;
        for (int i = 0; i < 60; ++i) {
            const std::array<double, 2> middle{(a[0] + b[0]) / 2, (a[1] + b[1]) / 2};
            const double f = at(middle[0], middle[1]);
            ((f < 0) == (fa < 0) ? a : b) = middle;
            ((f < 0) == (fa < 0) ? fa : fb) = f;
        }
        if (std::abs(fb - fa) > 1e-6) return std::nullopt;
        return a;
    }

    /// Calls for each piece of line: from where, its way, mm.
    template <class Told> void eachChord(const Told& told) const {
        for (const Isoline& line : found_.lines) {
            const std::size_t n = line.path.size();
            for (std::size_t i = 0; i + (line.closed ? 0 : 1) < n; ++i) {
                const std::size_t j = (i + 1) % n;
                const double u = map.x.toSheet(line.path.x[i]), v = map.y.toSheet(line.path.y[i]);
                told(u, v, map.x.toSheet(line.path.x[j]) - u, map.y.toSheet(line.path.y[j]) - v);
            }
        }
    }

    /// How far the lines are from a place, mm.
    double away(std::array<double, 2> place) const {
        double nearest = HUGE_VAL;
        eachChord([&](double u, double v, double du, double dv) {
            const double squared = du * du + dv * dv, along = (place[0] - u) * du + (place[1] - v) * dv,
                         t = squared > 0 ? std::clamp(along / squared, 0.0, 1.0) : 0;
            nearest = std::min(nearest, std::hypot(u + t * du - place[0], v + t * dv - place[1]));
        });
        return nearest;
    }

    /// mm of drawn lines beside which the field does not pass the level.
    double wrongLength() {
        double wrong = 0;
        eachChord([&](double u, double v, double du, double dv) {
            const double length = std::hypot(du, dv);
            if (length < 4 * tolerance) return; // so short that a corner lies within
            for (const double t : {0.2, 0.5, 0.8}) {
                const auto across = [&](int step) {
                    const double mm = 0.1 * step * tolerance;
                    return std::array{u + t * du - mm * dv / length, v + t * dv + mm * du / length};
                };
                bool isPassed = false; // in small steps, for another line or a jump may be close
                for (int step = -15; step < 15 && !isPassed; ++step)
                    isPassed = passes(across(step), across(step + 1)).has_value();
                if (!isPassed) wrong += length / 3;
            }
        });
        return wrong;
    }

    /// The farthest from the lines that the field passes the level, along lines across the panel, mm.
    double farthestMissed() {
        double farthest = 0;
        for (int row = 0; row < 61; ++row) {
            const double across = 80 * (row + 0.37) / 61;
            for (double along = 0.03; along < 79.7; along += 0.29) {
                if (const auto place = passes({along, across}, {along + 0.29, across}))
                    farthest = std::max(farthest, away(*place));
                if (const auto place = passes({across, along}, {across, along + 0.29}))
                    farthest = std::max(farthest, away(*place));
            }
        }
        return farthest;
    }

private:
    std::shared_ptr<const Program> f_;
    Evaluator evaluator_;
    double level_;
    FieldSamples samples_;
    LevelLines found_;
};

} // namespace

TEST_CASE("lines of fields in pieces are all there, and none runs along a jump") {
    struct Case {
        const char* formula;
        double level;
    };
    for (const Case& c : std::vector<Case>{{"arctan(y, x)", 0},
                                           {"arctan(y, x)", 1},
                                           {"arctan(y - x^3/3, x + 0.2) + x/3", 0.4},
                                           {"|y - x^2/2| + 0.1x", 0.15},
                                           {"|x| + |y|", 1.3},
                                           {"| |x| - |y| |", 0.25},
                                           {"floor(x + y)", 0},
                                           {"floor(x + y) + x y", 0.5},
                                           {"floor(2x) - floor(2y) + x y/2", 0.1},
                                           {"ceil(x^2 + y) - x", 0.7},
                                           {"mod(x^2 + y^2, 1) + 0.3x", 0.35},
                                           {"sgn(x y) + x/2", 0.5},
                                           {"max(x, y) + min(x y, 0.5)", 1},
                                           {"{ x^2 + y^2 for x < y; x - y^2 otherwise }", 0.9},
                                           {"{ x y for x^2 + y^2 < 1; 0.3 - y for x < 1; x + y otherwise }", 0.2},
                                           {"sin(3x) cos(2y) + floor(x - y/2)", 0.4},
                                           {"|sin(3x) cos(2y)|", 0.3}}) {
        CAPTURE(c.formula, c.level);
        LooksClosely look(c.formula, c.level);
        CHECK(look.samples().finished);
        CHECK(look.found().finished);
        CHECK(look.wrongLength() == 0);
        CHECK(look.farthestMissed() <= 2.5 * tolerance);
    }
}

TEST_CASE("the same of fields in pieces by chance") {
    std::mt19937 random(5);
    std::uniform_real_distribution<double> amount(-1, 1);
    const auto number = [&](double most) { return "(" + std::to_string(most * amount(random)) + ")"; };
    const auto smooth = [&] {
        return number(1) + " sin(" + number(2) + " x + " + number(2) + " y + " + number(3) + ") + " + number(1) +
               " x " + " + " + number(1) + " y";
    };
    int lines = 0;
    for (int round = 0; round < rounds(25); ++round) {
        const std::string a = smooth(), b = smooth(), c = smooth();
        const std::string formula = round % 5 == 0   ? "floor(2(" + a + ")) + " + b
                                    : round % 5 == 1 ? "|" + a + "| + (" + b + ")/2"
                                    : round % 5 == 2 ? "{ " + a + " for " + b + " < 0; " + c + " otherwise }"
                                    : round % 5 == 3 ? "max(" + a + ", " + b + ") + mod(" + c + ", 1)"
                                                     : "arctan(" + a + ", " + b + ") + " + c;
        INFO(formula);
        LooksClosely look(formula, 0.2);
        CHECK(look.wrongLength() <= 0.3);
        CHECK(look.farthestMissed() <= 3 * tolerance);
        lines += static_cast<int>(look.found().lines.size());
    }
    CHECK(lines > rounds(50));
}

TEST_CASE("a corner of a field costs no more than a line through it") {
    LooksClosely look("|y - x^2/2| + 0.1x", 0.15);
    CHECK(look.found().lines.size() == 1); // both arms meet at the corner
    CHECK(look.samples().evaluations < 60'000);
    // Points stand on the parabola on which the field has its corner.
    std::size_t on = 0;
    for (std::size_t i = 0; i < look.samples().pointCount(); ++i) {
        const double x = look.samples().x[i];
        on += std::abs(look.samples().y[i] - x * x / 2) < 1e-12 ? 1 : 0;
    }
    CHECK(on > 150);
}

TEST_CASE("at a jump each side has its own points, and a mesh without pieces has none") {
    const FieldSamples jump = LooksClosely("floor(x + 0.3) + y", 0).samples();
    std::set<std::pair<double, double>> values;
    std::size_t marked = 0;
    for (std::size_t i = 0; i < jump.atJump.size(); ++i) {
        if (!jump.atJump[i]) continue;
        ++marked;
        CHECK(jump.x[i] + 0.3 == Approx(std::round(jump.x[i] + 0.3)).margin(1e-12));
        const double floor = jump.values[0][i] - jump.y[i];
        CHECK(floor == Approx(std::round(floor)).margin(1e-12));
    }
    CHECK(marked > 4 * 2 * 16);
    CHECK(LooksClosely("sin(x) y", 0.2).samples().atJump.empty());
    CHECK(LooksClosely("|x| + y", 0.2).samples().atJump.empty());
}

TEST_CASE("more pieces than can be resolved end with bounded work") {
    for (const char* formula : {"floor(1000 x y)", "mod(300 x, 1) + mod(300 y, 1)"}) {
        INFO(formula);
        const FieldSamples samples =
            sampleMesh(*field(formula), square, map, {tolerance, -2, 2, {0.5}, false, true}, {}, 200'000);
        CHECK(samples.evaluations < 1'000'000);
        CHECK_FALSE(samples.finished);
    }
}
