// A corpus of fields of every kind that is known to go wrong: what is said to be proven of their level lines holds
// against looking closely, lines are where they belong, and hardly any is left unsettled.
#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "formula/program/program.h"
#include "plots/level_proofs.h"
#include "plots/levels.h"
#include "plots/plot_kind.h"
#include "rounds.h"

#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <fmt/format.h>
#include <optional>
#include <string>
#include <vector>

using namespace coulter;

namespace {

/// A field over [−2, 2]² and levels of it.
struct Case {
    std::string formula;
    std::vector<double> levels;
};
using Corpus = std::vector<Case>;

/// Peaks and pits, from a tenth of the panel to what no printer shows.
void addNeedles(Corpus& corpus) {
    for (int k = 1; k <= 8; ++k) {
        const double width = 4 * std::pow(10, -k), at = 0.31 + 0.07 * k;
        const std::string square = fmt::format("((x - {})^2 + (y + 0.47)^2)", at);
        corpus.push_back({fmt::format("exp(-{}/{}^2)", square, width), {0.1, 0.5}});
        corpus.push_back({fmt::format("1/({} + {}^2)", square, width), {0.5, 0.9 / (width * width)}});
        corpus.push_back({fmt::format("x/4 - 1/(1 + {}/{}^2)", square, width), {-0.2, -0.6}});
        corpus.push_back({fmt::format("sin(x) cos(y) + {} exp(-{}/{}^2)", 3, square, width), {0.4, 2}});
    }
}

void addRings(Corpus& corpus) {
    for (const double radius : {0.2, 0.7, 1.0, 1.55}) {
        for (const double steep : {20, 400, 4000}) {
            const std::string square = fmt::format("(sqrt(x^2 + y^2) - {})^2", radius);
            corpus.push_back({fmt::format("exp(-{} {})", steep, square), {0.3, 0.95}});
            corpus.push_back({fmt::format("{} (x^2 + y^2 - {}^2)^2", steep, radius), {0.5}});
        }
        corpus.push_back({fmt::format("tanh(30 (x^2 + y^2 - {}))", radius), {-0.5, 0, 0.9}});
    }
}

void addCombs(Corpus& corpus) {
    for (const int waves : {3, 10, 30}) {
        corpus.push_back({fmt::format("sin({} x) + y", waves), {0.2}});
        corpus.push_back({fmt::format("sin({} x) sin({} y)", waves, waves / 3.0), {0.01, 0.5}});
        corpus.push_back({fmt::format("cos({} sqrt(x^2 + y^2 + 0.01))", waves), {0.3}});
        corpus.push_back({fmt::format("sin({} x y)", waves / 3.0), {0.5}});
        corpus.push_back({fmt::format("y - sin({} x)/4", waves), {0}});
    }
}

/// Ridges along lines that no row or column of a mesh follows.
void addRidges(Corpus& corpus) {
    for (const double slant : {0.37, 1.0, -2.6}) {
        for (const double steep : {50, 1000, 40000}) {
            const std::string across = fmt::format("(y - ({}) x - 0.1)", slant);
            corpus.push_back({fmt::format("exp(-{} {}^2)", steep, across), {0.1, 0.8}});
            corpus.push_back({fmt::format("exp(-{} {}^2) sin(3 x)", steep, across), {0.5, 0.1}});
            corpus.push_back({fmt::format("1/(1 + {} {}^2) + x/10", steep, across), {0.4}});
        }
        corpus.push_back({fmt::format("arctan(50 (y - ({}) x))", slant), {-1, 0.2}});
    }
}

void addCreases(Corpus& corpus) {
    for (const double b : {0.15, 0.4, 1.0}) {
        corpus.push_back({"|y - x^2/2| + 0.1x", {b}});
        corpus.push_back({"|x| + |y|", {b}});
        corpus.push_back({"max(x, y) - min(x^2, 1)", {b - 0.5}});
        corpus.push_back({"|sin(3x)| + y^2", {b}});
        corpus.push_back({"||x| - 1| + ||y| - 1|", {b}});
        corpus.push_back({"min(x^2 + y^2, (x - 1)^2 + y^2)", {b}});
    }
    corpus.push_back({"sqrt((x - 0.5)^2 + (y + 0.2)^2)", {0.01, 1.5}});
    corpus.push_back({"exp(-|y - sin(2x)|/0.05)", {0.1, 0.9}});
    corpus.push_back({"mod(x + y, 1) (1 - mod(x + y, 1))", {0.2}});
    corpus.push_back({"cbrt(x^2) + cbrt(y^2)", {1, 1.4}});
    corpus.push_back({"|x y|", {0.1, 1}});
}

/// Branch cuts and jumps, along which no line may run.
void addCuts(Corpus& corpus) {
    for (const double level : {0.0, 1.0, -2.5}) {
        corpus.push_back({"arctan(y, x)", {level}});
        corpus.push_back({"arctan(y - 0.3, x^2 - 1)", {level}});
        corpus.push_back({"arctan(2 x y, x^2 - y^2 + 0.5)", {level}});
        corpus.push_back({"x + y - 2 floor(y)", {level}});
        corpus.push_back({"x y + sgn(x^2 + y^2 - 1)", {level}});
        corpus.push_back({"4 mod(x - y/3, 1) - 2.9 + x", {level}});
        corpus.push_back({"floor(2x) - floor(2y) + x y/2", {level + 0.05}});
    }
    corpus.push_back({"sqrt(|x|) sgn(x) + y", {0.5, -0.3}});
    corpus.push_back({"arctan(1/(x - y))", {0.4, -1}});
    corpus.push_back({"exp(1/(x + y/2))", {0.5, 3}});
}

void addPoles(Corpus& corpus) {
    corpus.push_back({"1/(x^2 + y^2)", {0.5, 40}});
    corpus.push_back({"1/x + 1/y", {0, 2, -5}});
    corpus.push_back({"1/(x^2 + y^2 - 1)", {-3, 0.7, 4}});
    corpus.push_back({"1/(x^3 y^2 - 1)", {-2, 0.7}});
    corpus.push_back({"x/(x^2 + y^2)", {0.1, 3}});
    corpus.push_back({"1/(x y - 0.3)", {1, -4}});
    corpus.push_back({"tan(x) tan(y)", {0.5, -2}});
    corpus.push_back({"1/sin(3x + y)", {1.5, -4}});
    corpus.push_back({"ln(((x - 1)^2 + y^2)/((x + 1)^2 + y^2))", {0, 2, -5}});
    corpus.push_back({"(x^2 - y^2)/(x^2 + y^2)^2", {0.5, -7}});
    corpus.push_back({"1/(x - y) - 1/(x + y)", {1, -3}});
    corpus.push_back({"ln|x| + ln|y|", {-2, 0.3}});
    corpus.push_back({"1/((x - 0.31)^2 + (y + 0.47)^2 + 1e-4)", {3000, 9000}});
}

/// Small closed lines beside large ones, and values that are passed by a hair's breadth.
void addIslands(Corpus& corpus) {
    for (int k = 1; k <= 5; ++k) {
        const double r = std::pow(10, -k);
        corpus.push_back({fmt::format("(x^2 + y^2 - 2) ((x - 0.2)^2 + (y - 0.3)^2 - {}^2)", r), {0}});
        corpus.push_back({"x^2 + y^2", {r * r}});
    }
    for (const double above : {1e-2, 1e-4, 1e-6, 1e-9, -1e-3, -1e-7, -1e-9}) { // near a pass at (0, 0), value 0
        corpus.push_back({"x y", {above}});
        corpus.push_back({"(x^2 + y^2)^2 - 2 (x^2 - y^2)", {above}});
        corpus.push_back({"sin(2x) sin(2y)", {above}});
        corpus.push_back({"x^3 - 3x + y^2", {2 - above, -2 + std::abs(above)}});
    }
    corpus.push_back({"cos(3x) + cos(3y)", {0, 1.99, 2 - 1e-6}});
    corpus.push_back({"(x^2 + y^2 - 1)^3 - x^2 y^3", {0, 0.1}});
}

void addConditions(Corpus& corpus) {
    corpus.push_back({"{ x^2 + y^2 for x < y; x - y^2 otherwise }", {0.9}});
    corpus.push_back({"{ x y for x^2 + y^2 < 1; 0.3 - y for x < 1; x + y otherwise }", {0.2, 1.5}});
    corpus.push_back({"{ sin(3x) for |x| < 1 and |y| < 1; y otherwise }", {0.5, -1.2}});
    corpus.push_back({"{ x^2 + y^2 for x < 0.5 and y > -0.3; 0 otherwise }", {0.4, 2}});
    corpus.push_back({"{ x y + 0.6 for x^2 + y^2 < 1; y otherwise } + { x for y < 0; 0 otherwise }", {0.5}});
    corpus.push_back({"{ exp(-x^2 - y^2) for x > y; x^2 otherwise }", {0.3, 0.8}});
    corpus.push_back({"{ 1 for x^2 + y^2 < 1; 0 otherwise } + x/10", {0.05, 1.02}});
}

void addSpecial(Corpus& corpus) {
    corpus.push_back({"J_0(4 x) J_1(3 y)", {0.05, -0.2}});
    corpus.push_back({"J_0(5 sqrt(x^2 + y^2))", {0, 0.4}});
    corpus.push_back({"erf(2x) + erf(3y)", {0.5, -1.2}});
    corpus.push_back({"Ai(2x) + y/3", {0.1}});
    corpus.push_back({"Gamma(x + 2.3) - y^2", {1, 3}});
    corpus.push_back({"P_{3}(x/2) P_{2}(y/2)", {0.05, -0.2}});
    corpus.push_back({"exp(-x^2 - y^2) H_{2}(x) H_{1}(y)", {0.5, -2}});
    corpus.push_back({"x^y", {1.5, 0.3}});
    corpus.push_back({"ln(Gamma(x^2 + y^2 + 1))", {0.5, 4}});
    corpus.push_back({"sinh(x) cos(y) - cosh(y)/3", {0.2, -1}});
}

/// Functions that end within the panel.
void addUndefined(Corpus& corpus) {
    corpus.push_back({"sqrt(1 - x^2 - y^2)", {0.3, 0.9}});
    corpus.push_back({"sqrt(x y)", {0.2, 1}});
    corpus.push_back({"ln(x + y^2)", {0, -2, 1}});
    corpus.push_back({"arcsin(x y)", {0.4, -1.3}});
    corpus.push_back({"sqrt(sin(3x) + cos(2y))", {0.5, 1.2}});
    corpus.push_back({"arccos(x^2 + y^2)", {0.4, 1.3}});
    corpus.push_back({"sqrt(x) + sqrt(y)", {0.3, 1.9}});
    corpus.push_back({"x^1.5 + y", {0.5, 1}});
    corpus.push_back({"ln(sin(4x) y)", {-1, 0.2}});
    corpus.push_back({"sqrt(1 - |x| - |y|)", {0.3}});
}

void addSmooth(Corpus& corpus) {
    corpus.push_back({"x^2 - y^2", {1, -0.5}});
    corpus.push_back({"(1 - x)^2 + 100 (y - x^2)^2", {0.5, 20, 300}});
    corpus.push_back({"exp(x) sin(y)", {0.5, -2}});
    corpus.push_back({"x exp(-x^2 - y^2)", {0.1, -0.3, 0.42}});
    corpus.push_back({"(x^2 + y - 11)^2/100 + (x + y^2 - 7)^2/100", {0.9, 1.4}});
    corpus.push_back({"x^4 + y^4 - x^2 y", {0.1, 2}});
    corpus.push_back({"cos(x^2 + y^2)", {0.3, -0.9}});
    corpus.push_back({"sin(x + y^2) - y/2", {0.1, -0.6}});
    corpus.push_back({"x^10 + y^10", {1}});
    corpus.push_back({"exp(-50 (x - y)^2) sin(3 x)", {0.1, -0.5}});
    corpus.push_back({"1e6 + x y", {1e6 + 0.5}});
    corpus.push_back({"1e-9 (x + y^2)", {1e-9}});
}

Corpus corpusOfFields() {
    Corpus all;
    for (const auto add : {addNeedles, addRings, addCombs, addRidges, addCreases, addCuts, addPoles, addIslands,
                           addConditions, addSpecial, addUndefined, addSmooth})
        add(all);
    for (Case& each : all) std::ranges::sort(each.levels);
    return all;
}

constexpr double tolerance = 0.02; // mm

/// A figure of one field's levels, looked at closely.
class LooksClosely {
public:
    explicit LooksClosely(const Case& c) : figure_(drawFigure(documentOf(c))), frame_(figure_.panels[0].frame()) {
        INFO(c.formula);
        REQUIRE(figure_.panels[0].drawn.size() == 1);
        const Drawn& drawn = figure_.panels[0].drawn[0];
        lines_ = levelLinesOf(drawn, frame_);
        proofs_ = provenLevels(drawn, frame_, figure_.effort);
        program_ = fieldOf(drawn)->program;
        evaluator_.emplace(*program_);
        REQUIRE(levelsOf(drawn, frame_.colour) == c.levels);
    }

    const std::vector<LevelProof>* proofs() const { return proofs_.get(); }

    double at(double u, double v) {
        const double x = frame_.map.x.fromSheet(u), y = frame_.map.y.fromSheet(v);
        double z = 0;
        double* const out[] = {&z};
        const double* const in[] = {&x, &y};
        (*evaluator_)(in, out, 1);
        return z;
    }

    /// A place between two at which the field passes a level, and does not jump over it.
    std::optional<std::array<double, 2>> passes(std::array<double, 2> a, std::array<double, 2> b, double level) {
        double fa = at(a[0], a[1]) - level, fb = at(b[0], b[1]) - level;
        if (!(fa < 0 ? fb >= 0 : fb < 0) || std::isnan(fb) || std::isnan(fa)) return std::nullopt;
        if (std::isinf(fa) || std::isinf(fb)) return std::nullopt;
        const double before = std::abs(fb - fa);
        for (int i = 0; i < 50; ++i) {
            const std::array<double, 2> middle{(a[0] + b[0]) / 2, (a[1] + b[1]) / 2};
            const double f = at(middle[0], middle[1]) - level;
            if (!std::isfinite(f)) return std::nullopt;
            ((f < 0) == (fa < 0) ? a : b) = middle;
            ((f < 0) == (fa < 0) ? fa : fb) = f;
        }
        if (std::abs(fb - fa) > std::max(1e-7 * before, 1e-12 * std::abs(level))) return std::nullopt;
        return a;
    }

    /// How far a level's lines are from a place, mm.
    double away(std::array<double, 2> place, std::size_t level) const {
        double nearest = HUGE_VAL;
        eachChord(level, [&](double u, double v, double du, double dv) {
            const double square = du * du + dv * dv,
                         t = square > 0 ? std::clamp(((place[0] - u) * du + (place[1] - v) * dv) / square, 0.0, 1.0)
                                        : 0;
            nearest = std::min(nearest, std::hypot(place[0] - u - t * du, place[1] - v - t * dv));
        });
        return nearest;
    }

    template <class Told> void eachChord(std::size_t level, const Told& told) const {
        for (const Isoline& line : lines_->lines) {
            if (line.level != level) continue;
            const std::size_t n = line.path.size();
            for (std::size_t i = 0; i + (line.closed ? 0 : 1) < n; ++i) {
                const std::size_t j = (i + 1) % n;
                const double u = frame_.map.x.toSheet(line.path.x[i]), v = frame_.map.y.toSheet(line.path.y[i]);
                told(u, v, frame_.map.x.toSheet(line.path.x[j]) - u, frame_.map.y.toSheet(line.path.y[j]) - v);
            }
        }
    }

    /// The farthest from a level's lines that the field passes the level, along lines across the panel, mm.
    double farthestMissed(std::size_t k, double level) {
        double farthest = 0;
        constexpr int rows = 23;
        for (int row = 0; row < rows; ++row) {
            for (const bool isRow : {true, false}) {
                const double width = frame_.map.x.length, height = frame_.map.y.length,
                             across = (isRow ? height : width) * (row + 0.37) / rows;
                for (double along = 0.03; along < (isRow ? width : height) - 0.3; along += 0.29) {
                    const auto place = isRow ? passes({along, across}, {along + 0.29, across}, level)
                                             : passes({across, along}, {across, along + 0.29}, level);
                    if (!place) continue;
                    farthest = std::max(farthest, away(*place, k));
                }
            }
        }
        return farthest;
    }

    /// mm of chords near whose middle the field does not pass the level.
    double wrongLength(std::size_t k, double level) {
        double wrong = 0;
        eachChord(k, [&](double u, double v, double du, double dv) {
            const double length = std::hypot(du, dv);
            if (length < 4 * tolerance) return; // so short that a corner lies within
            const auto across = [&](int step) {
                const double mm = 0.1 * step * tolerance;
                return std::array{u + du / 2 - mm * dv / length, v + dv / 2 + mm * du / length};
            };
            bool isPassed = false; // in small steps, for another line or a jump may be close
            for (int step = -12; step < 12 && !isPassed; ++step)
                isPassed = passes(across(step), across(step + 1), level).has_value();
            if (!isPassed) wrong += length;
        });
        return wrong;
    }

private:
    static Document documentOf(const Case& c) {
        Document d;
        d.page = {"f(x, y) = " + c.formula, "x in [-2, 2]", "y in [-2, 2]"};
        d.panels[0].plots = {plotOf("f(x, y)", "contours")};
        d.panels[0].plots[0].settings = {{"levels", fmt::format("{{{}}}", fmt::join(c.levels, ", "))}};
        return d;
    }

    Figure figure_;
    Frame frame_;
    std::shared_ptr<const LevelLines> lines_;
    std::shared_ptr<const std::vector<LevelProof>> proofs_;
    std::shared_ptr<const Program> program_;
    std::optional<Evaluator> evaluator_;
};

} // namespace

TEST_CASE("what is proven of the level lines of a corpus of fields holds, and hardly any is left open") {
    const Corpus corpus = corpusOfFields();
    CHECK(corpus.size() >= 200);
    std::size_t levels = 0, wrong = 0;
    double length = 0, proven = 0, area = 0, open = 0;
    const std::size_t step = corpus.size() / static_cast<std::size_t>(rounds(static_cast<int>(corpus.size())));
    for (std::size_t i = 0; i < corpus.size(); i += step) {
        const Case& c = corpus[i];
        LooksClosely look(c);
        REQUIRE(look.proofs());
        for (std::size_t k = 0; k < c.levels.size(); ++k) {
            const ZeroProof& proof = (*look.proofs())[k].proof;
            const double missed = look.farthestMissed(k, c.levels[k]), off = look.wrongLength(k, c.levels[k]);
            CAPTURE(c.formula, c.levels[k], missed, off);
            if (proof.isAll()) CHECK(missed <= 3 * tolerance);
            if (proof.provenLength == proof.length) CHECK(off == 0);
            // What nobody has proven is right as well, but for very few.
            ++levels;
            wrong += missed > 3 * tolerance || off > 0;
            length += proof.length;
            proven += proof.provenLength;
            area += proof.area;
            open += proof.unsettledArea;
        }
    }
    CAPTURE(levels, wrong);
    CHECK(wrong <= levels / 50);
    CHECK(proven >= 0.995 * length);
    CHECK(open <= 0.006 * area);
}
