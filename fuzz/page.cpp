// Coverage-guided fuzzing: any bytes as a formula page, through reading, compiling, evaluation at points and over
// intervals. Nothing may crash, hang or grow without bound, whatever the page says.
#include "formula/bounds/bounds_arithmetic.h"
#include "formula/compile/compile.h"
#include "formula/lines/plotted.h"
#include "formula/lines/read_page.h"
#include "formula/notation/expr_build.h"
#include "formula/proofs/interval_evaluator.h"
#include "formula/proofs/jet_evaluator.h"
#include "typeset/formula_math.h"

#include <cmath>
#include <cstdlib>

using namespace coulter;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    std::vector<std::string> lines(1);
    for (std::size_t i = 0; i < size; ++i) {
        if (data[i] == '\n')
            lines.emplace_back();
        else
            lines.back() += static_cast<char>(data[i]);
    }
    const Page page = readPage(lines);
    for (const Line& line : page.lines) {
        for (const Problem& problem : line.problems) {
            if (problem.sentence.empty() || problem.first < 0 || problem.last < problem.first) std::abort();
        }
        if (const MathPtr math = lineMath(line)) layoutMath(*math, 4);
        if (line.formula) spelled(*line.formula);
        if (line.kind != LineKind::Function || !line.good() || line.parameters.size() > 3) continue;
        const ExprPtr body =
            line.body ? line.body : callExpr(line.name, {nameExpr(line.parameters[0])}); // interpolates
        const Compiled compiled = compile(page, body, line.parameters);
        if (!compiled.program) continue;
        const std::vector<double> places{-2.5, -1, -0.0, 1e-9, 0.5, 1, 3, 1e6, INFINITY, NAN};
        std::vector<const double*> inputs(line.parameters.size(), places.data());
        std::vector<std::vector<double>> values(compiled.program->outputs.size(), std::vector<double>(places.size()));
        std::vector<double*> outputs;
        for (auto& each : values) outputs.push_back(each.data());
        Evaluator evaluator(*compiled.program);
        evaluator.limit({}, 200'000);
        evaluator(inputs, outputs, places.size());
        if (!compiled.program->integrals.empty()) continue;
        IntervalEvaluator enclosing(*compiled.program);
        const std::vector<Enclosure> around(line.parameters.size(), Enclosure{0.5, 1});
        const auto bounds = enclosing(around);
        if (line.parameters.size() == 2) {
            JetEvaluator<2> two(*compiled.program);
            two({Bounds{0.5, 1}, Bounds{0.5, 1}});
        }
        if (line.parameters.size() != 1) continue;
        JetEvaluator<1> one(*compiled.program);
        const auto jetsOver = [&](double low, double high) {
            const auto found = one({Bounds{low, high}});
            return std::vector<Jet<1>>(found.begin(), found.end());
        };
        const std::vector<Jet<1>> whole = jetsOver(0.5, 1), first = jetsOver(0.5, 0.5), last = jetsOver(1, 1);
        for (std::size_t k = 0; k < whole.size(); ++k) {
            const double at = values[k][5]; // one end of the interval
            const auto outside = [at](const Enclosure& e) {
                return e.known && e.low <= e.high && !std::isnan(at) && (at < e.low || at > e.high);
            };
            if (outside(bounds[k]) || outside(whole[k].value)) std::abort();
            // Between both ends some slope is the mean one.
            const Bounds& slopes = whole[k].first[0];
            if (!isBounded(slopes) || !first[k].value.isProof() || !last[k].value.isProof()) continue;
            const Bounds from{first[k].value.low, first[k].value.high}, to{last[k].value.low, last[k].value.high};
            const Bounds mean = 2 * (to - from);
            if (mean.high < slopes.low || mean.low > slopes.high) std::abort();
        }
    }
    return 0;
}
