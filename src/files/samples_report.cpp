#include "files/samples_report.h"

#include "plots/plot_kind.h"
#include "plots/table.h"

#include <cmath>
#include <nlohmann/json.hpp>

namespace coulter {

using OrderedJson = nlohmann::ordered_json;

std::string samplesReport(const CurveSamples& samples, double tolerance) {
    const Certificate& certificate = samples.certificate;
    OrderedJson report;
    report["points"] = samples.pointCount();
    report["evaluations"] = samples.evaluations;
    report["evaluations over intervals"] = certificate.evaluations;
    report["finished"] = samples.finished;
    report["tolerance"] = tolerance;
    report["length"] = certificate.length;
    report["proven length"] = certificate.provenLength;
    report["proven share"] = certificate.share();
    report["largest bound"] = certificate.largestBound;
    report["stretches"] = OrderedJson::array();
    for (const Stretch& stretch : samples.stretches) {
        OrderedJson each;
        each["from"] = stretch.t.front();
        each["to"] = stretch.t.back();
        each["points"] = stretch.x.size();
        std::size_t proven = 0;
        for (const bool chord : stretch.proven) proven += chord;
        each["chords"] = stretch.x.size() - 1;
        each["proven chords"] = proven;
        report["stretches"].push_back(each);
    }
    report["gaps"] = OrderedJson::array();
    for (const Gap& gap : samples.gaps)
        report["gaps"].push_back(OrderedJson{{"kind", gapName(gap.kind)}, {"from", gap.low}, {"to", gap.high}});
    report["bands"] = OrderedJson::array();
    for (const Band& band : samples.bands)
        report["bands"].push_back(OrderedJson{{"from", band.low}, {"to", band.high}});
    return report.dump(2) + "\n";
}

namespace {

nlohmann::ordered_json fieldReport(const FieldSamples& samples, double tolerance) {
    OrderedJson report;
    report["points"] = samples.pointCount();
    report["evaluations"] = samples.evaluations;
    report["finished"] = samples.finished;
    const auto direction = [](const std::vector<double>& places) {
        OrderedJson each{{"count", places.size()}};
        if (places.empty()) return each;
        each["from"] = places.front();
        each["to"] = places.back();
        return each;
    };
    if (samples.isMesh()) {
        report["tolerance"] = tolerance;
        report["triangles"] = samples.triangles.size();
    } else {
        report["columns"] = direction(samples.columns);
        report["rows"] = direction(samples.rows);
    }
    std::size_t undefined = 0;
    for (std::size_t i = 0; i < samples.pointCount(); ++i) undefined += std::isnan(samples.sizeAt(i));
    report["undefined points"] = undefined;
    return report;
}

} // namespace

std::string samplesReport(const FieldSamples& samples, double tolerance) {
    return fieldReport(samples, tolerance).dump(2) + "\n";
}

std::string samplesReport(const Columns& columns) {
    nlohmann::ordered_json report;
    report["rows"] = columns.rows();
    report["columns"] = columns.names;
    return report.dump(2) + "\n";
}

std::string samplesReport(const Drawn& drawn, const Frame& frame) {
    if (const Columns* columns = columnsOf(drawn)) return samplesReport(*columns);
    if (const CurveSamples* samples = curveSamplesOf(drawn)) return samplesReport(*samples, frame.tolerance);
    nlohmann::ordered_json report = fieldReport(*fieldSamplesOf(drawn), frame.tolerance);
    if (drawn.kind && drawn.kind->report) {
        report[drawn.kind->name] = nlohmann::ordered_json::array();
        for (const ReportRow& row : drawn.kind->report(drawn, frame)) {
            nlohmann::ordered_json each;
            for (const auto& [name, value] : row) each[name] = value;
            report[drawn.kind->name].push_back(each);
        }
    }
    return report.dump(2) + "\n";
}

} // namespace coulter
