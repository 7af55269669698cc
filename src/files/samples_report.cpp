#include "files/samples_csv.h"

#include <nlohmann/json.hpp>

namespace coulter {

const char* gapName(GapKind kind) {
    switch (kind) {
    case GapKind::Undefined: return "undefined";
    case GapKind::Jump: return "jump";
    case GapKind::Pole: return "pole";
    }
    return "undefined";
}

std::string samplesReport(const CurveSamples& samples, double tolerance) {
    using Json = nlohmann::ordered_json;
    const Certificate& certificate = samples.certificate;
    Json report;
    report["points"] = samples.pointCount();
    report["evaluations"] = samples.evaluations;
    report["evaluations over intervals"] = certificate.evaluations;
    report["finished"] = samples.finished;
    report["tolerance"] = tolerance;
    report["length"] = certificate.length;
    report["proven length"] = certificate.provenLength;
    report["proven share"] = certificate.share();
    report["largest bound"] = certificate.largestBound;
    report["stretches"] = Json::array();
    for (const Stretch& stretch : samples.stretches) {
        Json each;
        each["from"] = stretch.x.front();
        each["to"] = stretch.x.back();
        each["points"] = stretch.x.size();
        std::size_t proven = 0;
        for (const bool chord : stretch.proven) proven += chord;
        each["chords"] = stretch.x.size() - 1;
        each["proven chords"] = proven;
        report["stretches"].push_back(each);
    }
    report["gaps"] = Json::array();
    for (const Gap& gap : samples.gaps)
        report["gaps"].push_back(Json{{"kind", gapName(gap.kind)}, {"from", gap.low}, {"to", gap.high}});
    return report.dump(2) + "\n";
}

} // namespace coulter
