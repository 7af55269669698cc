#include "composition/referee.h"

namespace coulter {

extern const Check unlabelledCheck, unitMissingCheck, contradictingLabelCheck, unequalScalesCheck, outsideLimitsCheck,
    coloursCutCheck, notOnLogarithmCheck;                                                        // referee_scales.cpp
extern const Check coincidingCheck, flatCheck, coarseGridCheck, doubledEndCheck, sameTwiceCheck; // referee_curves.cpp
extern const Check smallLettersCheck, thinLinesCheck, likeColoursCheck, faintPlotsCheck, coarseDotsCheck,
    longLegendCheck, coveringLegendCheck, noteOffSheetCheck, undrawnFunctionCheck, emptyPanelCheck; // referee_looks.cpp
extern const Check unusedQuantityCheck, contradictingNameCheck;                                     // referee_page.cpp
extern const Check otherUnitsCheck, unitsInPlotsCheck;                                              // referee_units.cpp
extern const Check edgeOnCheck, tooManyPolygonsCheck;                                               // referee_space.cpp

std::span<const Check* const> refereeChecks() {
    static constexpr const Check* checks[] = {
        &unlabelledCheck,         &unitMissingCheck,       &otherUnitsCheck,    &unitsInPlotsCheck,
        &contradictingLabelCheck, &contradictingNameCheck, &unequalScalesCheck, &outsideLimitsCheck,
        &coloursCutCheck,         &notOnLogarithmCheck,    &edgeOnCheck,        &tooManyPolygonsCheck,
        &coincidingCheck,         &sameTwiceCheck,         &flatCheck,          &coarseGridCheck,
        &doubledEndCheck,         &smallLettersCheck,      &thinLinesCheck,     &likeColoursCheck,
        &faintPlotsCheck,         &coarseDotsCheck,        &longLegendCheck,    &coveringLegendCheck,
        &noteOffSheetCheck,       &undrawnFunctionCheck,   &emptyPanelCheck,    &unusedQuantityCheck};
    return checks;
}

Finding findingOf(std::string sentence, ItemPath where, std::string remedy, std::optional<Document> fixed) {
    Finding finding;
    finding.said.sentence = std::move(sentence);
    finding.said.severity = Problem::Severity::Note;
    finding.where = where;
    finding.remedy = std::move(remedy);
    finding.fixed = std::move(fixed);
    return finding;
}

std::string nameOf(const Drawn& drawn) {
    std::string name = drawn.name && !drawn.name->empty() ? *drawn.name : drawn.of;
    if (drawn.caseCount > 1) name += ", case " + std::to_string(drawn.path.part + 1);
    return "“" + name + "”";
}

} // namespace coulter
