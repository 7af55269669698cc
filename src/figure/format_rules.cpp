#include "figure/format_rules.h"

namespace coulter {

FormatRules rulesOf(int format) {
    FormatRules rules;
    rules.newFamilyColours = rules.radiusInItsFrame = rules.coordinatesByName = rules.saysLabelsOnce =
        rules.emptyNameLeavesOut = rules.thinsLines = rules.numbersKeepApart = format >= 2;
    rules.formulasInWords = rules.packsBitmaps = rules.twoNumbersUp = format >= 3;
    rules.provesIntegrals = format >= 4;
    rules.unitsFollow = rules.bracketsUnits = rules.legendBeyondBar = rules.legendAvoidsNotes = format >= 5;
    rules.spaceFillsRoom = rules.labelsStayOnPaper = rules.labelsClearNumbers = rules.legendBesideScales = format >= 6;
    rules.legendAvoidsAreas = rules.exactEpsSize = format >= 7;
    rules.plainTitles = rules.quickBitmaps = rules.findsPeaks = rules.followsPieces = format >= 8;
    rules.wordsOnPaper = rules.heatmapsByDots = rules.followsLevels = format >= 9;
    return rules;
}

} // namespace coulter
