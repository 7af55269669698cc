#include "plots/level_proofs.h"

#include "formula/base/text.h"
#include "formula/proofs/jet_evaluator.h"
#include "plots/levels.h"
#include "sampling/singular_points.h"

#include <algorithm>
#include <cmath>
#include <list>
#include <mutex>
#include <tbb/parallel_for.h>

namespace coulter {

bool canProveLines(const Field& field) {
    const Program& f = *field.program;
    return f.outputs.size() == 1 && f.integrals.empty() && f.tables.empty() && f.fields.empty() && !field.mesh;
}

ZeroProof provenLines(const Field& field, const FieldSamples& samples, double level, const std::vector<Isoline>& lines,
                      const Frame& frame, const Effort& effort, const std::stop_token& stop,
                      const std::function<void(std::size_t, std::size_t)>& watch) {
    Path points;
    for (const SingularPoint& point : singularPoints(samples, level, *field.program, frame.map, effort.tolerance)) {
        points.x.push_back(point.x);
        points.y.push_back(point.y);
    }
    std::array<double, 4> domain{};
    for (std::size_t k = 0; k < 2; ++k) {
        const AxisMap& axis = k == 0 ? frame.map.x : frame.map.y;
        domain[k] = std::max(0.0, axis.toSheet(field.intervals[k].low));
        domain[k + 2] = std::min(axis.length, axis.toSheet(field.intervals[k].high));
        if (!(domain[k] < domain[k + 2])) return {};
    }
    ZeroProofEffort allowed{effort.tolerance};
    allowed.mostEvaluations = static_cast<std::size_t>(
        std::min(static_cast<double>(allowed.mostEvaluations), effort.operations / 100 / costOf(*field.program)));
    allowed.stop = stop;
    if (watch) allowed.watch = [&watch](double share) { watch(static_cast<std::size_t>(100 * share), 100); };
    return proveLevel(*field.program, level, lines, points, frame.map, domain, allowed);
}

std::shared_ptr<const std::vector<LevelProof>> provenLevels(const Drawn& drawn, const Frame& frame,
                                                            const Effort& effort, const std::stop_token& stop) {
    const Field* field = fieldOf(drawn);
    const FieldSamples* samples = fieldSamplesOf(drawn);
    if (!field || !samples || samples->tooDear || !canProveLines(*field)) return nullptr;
    const std::shared_ptr<const LevelLines> lines = levelLinesOf(drawn, frame);
    struct KnownProofs {
        std::weak_ptr<const LevelLines> lines;
        double operations = 0;
        std::shared_ptr<const std::vector<LevelProof>> proofs;
    };
    static std::mutex guard;
    static std::list<KnownProofs> known; // the last ones first
    constexpr std::size_t most = 12;
    {
        const std::scoped_lock lock(guard);
        for (const KnownProofs& each : known) {
            if (each.lines.lock() == lines && each.operations == effort.operations) return each.proofs;
        }
    }
    if (stop.stop_requested()) return nullptr;
    const std::vector<double> levels = levelsOf(drawn, frame.colour);
    Effort share = effort;
    share.operations /= static_cast<double>(std::max<std::size_t>(1, levels.size()));
    auto proofs = std::make_shared<std::vector<LevelProof>>(levels.size());
    tbb::parallel_for(std::size_t{0}, levels.size(), [&](std::size_t k) {
        std::vector<Isoline> own;
        std::ranges::copy_if(lines->lines, std::back_inserter(own),
                             [&](const Isoline& line) { return line.level == k; });
        (*proofs)[k] = {levels[k], provenLines(*field, *samples, levels[k], own, frame, share, stop)};
    });
    if (stop.stop_requested()) return nullptr;
    const std::scoped_lock lock(guard);
    known.push_front({lines, effort.operations, proofs});
    if (known.size() > most) known.pop_back();
    return proofs;
}

std::string provenWords(const std::vector<ZeroProof>& proofs) {
    if (proofs.empty()) return "";
    double length = 0, proven = 0, unsettled = 0;
    for (const ZeroProof& proof : proofs) {
        length += proof.length;
        proven += proof.provenLength;
        unsettled = std::max(unsettled, proof.area > 0 ? proof.unsettledArea / proof.area : 0);
    }
    std::string text;
    if (length > 0) // rounded down: what is not proven is not said to be
        text += roundedNumber(std::floor(1000 * (proven / length)) / 10, 6) + " % proven, ";
    if (unsettled == 0) return text + (length > 0 ? "no other line · " : "no line, proven · ");
    return text + roundedNumber(std::ceil(1e4 * unsettled) / 100, 6) + " % of the panel not settled · ";
}

} // namespace coulter
