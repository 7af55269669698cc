#include "composition/findings.h"

#include "composition/referee.h"
#include "figure/item_path.h"
#include "figure/sheet_settings.h"
#include "plots/telling.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr int mostGapsNamed = 6;

/// A place on an axis, printed as exactly as a millionth of the view.
std::string place(double value, const AxisMap& axis) {
    const double unit = (axis.high - axis.low) * 1e-6;
    if (std::abs(value) < unit) value = 0;
    const int digits =
        std::clamp(static_cast<int>(std::ceil(std::log10(std::max(std::abs(value), unit) / unit))), 3, 15);
    return printedNumber(value, digits);
}

class Findings {
public:
    explicit Findings(const Figure& figure) : figure_(figure) {}

    std::vector<Finding> run() {
        for (const Problem& problem : figure_.page.problems()) {
            Problem said = problem;
            const bool error = problem.severity == Problem::Severity::Error;
            const std::string line = "Line " + std::to_string(problem.line + 1);
            if (error) { // what it is stands beside the line
                said.sentence = line + (problem.follows ? " waits for another." : " has a problem.");
                said.suggestion.clear();
            } else {
                said.sentence = line + ": " + problem.sentence;
            }
            found_.push_back({said, {}});
        }
        for (const PanelFigure& panel : figure_.panels) {
            for (std::size_t p = 0; p < panel.problems.size(); ++p) {
                for (Problem problem : panel.problems[p]) {
                    const std::size_t index = static_cast<std::size_t>(&panel - figure_.panels.data());
                    problem.sentence = "“" + figure_.document.panels[index].plots[p].of + "”: " + problem.sentence;
                    problem.line = -1;
                    found_.push_back({problem, {ItemKind::Plot, index, p, 0}});
                }
            }
            const std::size_t index = static_cast<std::size_t>(&panel - figure_.panels.data());
            for (std::size_t k = 0; k < panel.layout.rules.scales.size(); ++k) {
                if (const auto& problem = panel.layout.rules[k].problem)
                    found_.push_back({*problem, {ItemKind::Scale, index, k, 0}});
            }
            wordsOf(index);
            for (std::size_t n = 0; n < panel.notes.problems.size(); ++n) {
                for (Problem problem : panel.notes.problems[n]) {
                    problem.sentence = "Note " + std::to_string(n + 1) + ": " + problem.sentence;
                    found_.push_back({problem, {ItemKind::Note, index, n, 0}});
                }
            }
            for (const Drawn& drawn : panel.drawn) {
                path_ = drawn.path;
                if (curveSamplesOf(drawn)) curve(drawn, panel.frameOf(drawn));
                if (drawn.kind->remark && isFinished(drawn)) {
                    if (const std::string remark = drawn.kind->remark(drawn, panel.frameOf(drawn)); !remark.empty())
                        say(remark);
                }
                if (!isFinished(drawn)) found_.push_back({unfinished(drawn), path_, isTooDear(drawn)});
            }
        }
        for (const Check* check : refereeChecks()) check->look(figure_, found_);
        return std::move(found_);
    }

private:
    void say(std::string sentence, Problem::Severity severity = Problem::Severity::Note) {
        Problem said;
        said.sentence = std::move(sentence);
        said.severity = severity;
        found_.push_back({std::move(said), path_});
    }

    /// What of the words of a panel cannot be typeset.
    void wordsOf(std::size_t index) {
        const Panel& panel = figure_.document.panels[index];
        const auto check = [&](const std::string& words, const ItemPath& path) {
            auto problem = wordsProblem(words, figure_.page.names);
            if (!problem) return;
            problem->sentence =
                "“" + words + "”, character " + std::to_string(problem->first) + ": " + problem->sentence;
            problem->severity = Problem::Severity::Note;
            found_.push_back({*problem, path});
        };
        if (index == 0)
            check(text(figure_.document.sheet.settings, sheetTitleSetting), {ItemKind::SheetTitle, 0, 0, 0});
        check(panel.title, {ItemKind::Title, index, 0, 0});
        for (std::size_t k = 0; k < furtherScale + panel.further.size(); ++k) {
            const ItemPath path{ItemKind::ScaleLabel, index, k, 0};
            if (const Axis* axis = axisAt(figure_.document, path); axis && axis->label) check(*axis->label, path);
        }
        for (std::size_t p = 0; p < panel.plots.size(); ++p)
            check(panel.plots[p].name.value_or(""), {ItemKind::Plot, index, p, 0});
        for (std::size_t n = 0; n < panel.notes.size(); ++n) check(panel.notes[n].words, {ItemKind::Note, index, n, 0});
    }

    void curve(const Drawn& drawn, const Frame& frame) {
        const Curve& curve = *curveOf(drawn);
        const CurveSamples& samples = *curveSamplesOf(drawn);
        const AxisMap axis =
            curve.isFunction() ? frame.map.x : AxisMap{ScaleKind::Linear, curve.interval.low, curve.interval.high, 1};
        const std::string is = curve.variable + " = ";
        int named = 0;
        for (const Gap& gap : samples.gaps) {
            if (++named > mostGapsNamed) break;
            const std::string low = place(gap.low, axis), high = place(gap.high, axis);
            if (gap.kind == GapKind::Pole)
                say(drawn.of + " has a pole at " + is + low + ".");
            else if (gap.kind == GapKind::Jump)
                say(drawn.of + " jumps at " + is + low + ".");
            else if (low == high)
                say(drawn.of + " is undefined at " + is + low + ".");
            else
                say(drawn.of + " is undefined from " + is + low + " to " + high + ".");
        }
        for (const Band& band : samples.bands) {
            const std::string low = place(band.low, axis), high = place(band.high, axis);
            say(low == high
                    ? drawn.of + " oscillates without end at " + is + low + "; there it is drawn as the band it fills."
                    : drawn.of + " oscillates more often than can be drawn from " + is + low + " to " + high +
                          "; there it is drawn as the band it fills.");
        }
    }

    const Figure& figure_;
    ItemPath path_;
    std::vector<Finding> found_;
};

} // namespace

std::vector<Finding> findingsOf(const Figure& figure) { return Findings(figure).run(); }

} // namespace coulter
