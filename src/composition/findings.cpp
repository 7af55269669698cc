#include "composition/findings.h"

#include "figure/item_path.h"
#include "plots/telling.h"

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
            said.sentence = "Line " + std::to_string(problem.line + 1) +
                            (problem.follows ? " waits for another."
                             : error         ? " has a problem."
                                             : " has a note.");
            said.suggestion.clear();
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
            for (const Drawn& drawn : panel.drawn) {
                path_ = drawn.path;
                if (curveSamplesOf(drawn)) curve(drawn, panel.frame());
                notShown(drawn, panel);
                if (drawn.kind->remark && isFinished(drawn)) {
                    if (const std::string remark = drawn.kind->remark(drawn, panel.frame()); !remark.empty())
                        say(remark);
                }
                if (!isFinished(drawn)) found_.push_back({unfinished(drawn), path_, isTooDear(drawn)});
            }
        }
        return std::move(found_);
    }

private:
    void say(std::string sentence, Problem::Severity severity = Problem::Severity::Note) {
        Problem said;
        said.sentence = std::move(sentence);
        said.severity = severity;
        found_.push_back({std::move(said), path_});
    }

    /// Values that a logarithmic scale has no place for are counted.
    void notShown(const Drawn& drawn, const PanelFigure& panel) {
        static constexpr std::size_t scales[] = {acrossScale, upScale, uprightScale, colourScale};
        static constexpr const char* words[] = {"horizontal", "vertical", "upright", "colour"};
        for (std::size_t i = 0; i < 4; ++i) {
            if (panel.layout.rules[scales[i]].ticks.kind != ScaleKind::Logarithmic) continue;
            const std::size_t all = valuesAlong(drawn, scales[i], {}), lost = valuesAlong(drawn, scales[i], 0.0);
            if (lost > 0)
                say(drawn.of + ": " + std::to_string(lost) + " of " + std::to_string(all) +
                    " values are not positive and have no place on the logarithmic " + words[i] + " scale.");
        }
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
