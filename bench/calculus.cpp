// Integrals and series beside the values of their integrands and terms, and what proofs of curves that are integrals
// cost.
#include "formula/compile/compile.h"
#include "formula/lines/read_page.h"
#include "formula/page/page.h"
#include "formula/proofs/proven_integral.h"
#include "sampling/curve.h"
#include "shortest.h"

#include <cstdio>
#include <limits>

using namespace coulter;

namespace {

std::shared_ptr<const Program> compiled(const std::string& body) {
    const std::vector<std::string> lines{"f(x) = " + body};
    const Page page = readPage(lines);
    return compile(page, page.lines[0].body, page.lines[0].parameters).program;
}

/// How many values of integrands or terms one value takes, and how many of them in the time of its computation.
void sayValue(const char* what, const std::string& body, double x) {
    const auto program = compiled(body);
    const Program& inner = *program->integrals[0].integrand;
    Evaluator evaluator(*program), plain(inner);
    constexpr auto allowed = std::numeric_limits<std::int64_t>::max() / 2;
    evaluator.limit({}, allowed);
    const double value = evaluator(x), error = evaluator.integralErrors(0)[0];
    const auto taken = static_cast<double>(allowed - evaluator.valuesLeft());
    constexpr std::size_t many = 4096;
    std::vector<std::vector<double>> at(inner.inputCount, std::vector<double>(many, 0.7));
    std::vector<const double*> in;
    for (const auto& column : at) in.push_back(column.data());
    std::vector<double> out(many);
    double* const into = out.data();
    const double each = milliseconds([&] { plain(in, std::span<double* const>(&into, 1), many); }) / many;
    volatile double kept = 0;
    const double time = milliseconds([&] { kept = evaluator(x); });
    std::printf("%-34s %10.0f values, time of %9.0f, relative error said %.0e\n", what, taken, time / each,
                error / std::abs(value));
}

void sayCurve(const char* what, const std::string& body, double low, double high) {
    const auto program = compiled(body);
    const PanelMap map{{ScaleKind::Linear, -5, 5, 120}, {ScaleKind::Linear, low, high, 80}};
    CurveSamples proven;
    const double without = milliseconds([&] { sampleCurve(*program, {-5, 5, true, true}, map, 0.02); });
    const double with = milliseconds([&] {
        proven = sampleCurve(*program, {-5, 5, true, true}, map, 0.02, {}, {.proofs = Proofs::All});
    });
    std::printf("%-34s %10.1f ms sampled, %7.1f ms with proofs, %.0f %% proven\n", what, without, with,
                100 * proven.certificate.share());
}

} // namespace

int main() {
    sayValue("smooth: int_0^x exp(-k^2)", "int_0^x exp(-k^2) dk", 2);
    sayValue("end: int_0^x k^(-0.9)", "int_0^x k^(-0.9) dk", 1);
    sayValue("swinging tail: sin(xk)/k", "int_0^inf sin(x k)/k dk", 1);
    sayValue("three pieces over 40 periods", "int_0^x { 1 for mod(k, 3) < 1; -2 for mod(k, 3) < 2; k otherwise } dk",
             120);
    sayValue("series: 1/n^x", "sum_{n=1}^{inf} 1/n^x", 2);
    sayValue("series: (-1)^n/n^x", "sum_{n=1}^{inf} (-1)^n/n^x", 1);
    sayValue("series: x^n/n!", "sum_{n=0}^{inf} x^n/n!", 2);
    sayValue("series: sin(n x)/n", "sum_{n=1}^{inf} sin(n x)/n", 1);
    sayCurve("curve: int_0^x exp(-k^2)", "int_0^x exp(-k^2) dk", -1, 1);
    sayCurve("curve: int_0^2 cos(k x)", "int_0^2 cos(k x) dk", -1, 3);
    sayCurve("curve: int_0^inf exp(-k^2) cos(k x)", "int_0^inf exp(-k^2) cos(k x) dk", -1, 1);
    sayCurve("curve: series of x^n/n!", "sum_{n=0}^{inf} (-x^2/9)^n/n!", -1, 2);
    sayCurve("curve: series of sin(n x)/n^3", "sum_{n=1}^{inf} sin(n x/3)/n^3", -1, 1);
    sayCurve("curve: product of 1 - x^2/n^2", "prod_{n=1}^{inf} (1 - x^2/(9n^2))", -1, 1);
    sayCurve("curve: sin(x) + x, for comparison", "sin(x) + x", -6, 6);
}
