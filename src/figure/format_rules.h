#pragma once

namespace coulter {

/// The newest format of recipes. In each format the same recipe gives the same bytes for good.
inline constexpr int newestFormat = 9;

/// What a format of recipes does that the ones before it did otherwise; as it stands here, the newest does all of it.
/// Nobody else compares numbers of formats.
struct FormatRules {
    // Format 2
    bool newFamilyColours = true;   ///< from periwinkle over rose to moss; before, from ochre through red to violet
    bool radiusInItsFrame = true;   ///< a radius over an angle has its own frame; before, it was a curve in the plane
    bool coordinatesByName = true;  ///< the components of a vector name the scales
    bool saysLabelsOnce = true;     ///< a label that several functions share; before, again for each symbol
    bool emptyNameLeavesOut = true; ///< of the legend
    bool thinsLines = true;         ///< of more points than the paper can show
    bool numbersKeepApart = true;   ///< along scales in space
    // Format 3
    bool formulasInWords = true; ///< words may hold formulas in TeX's spelling, and values within formulas
    bool packsBitmaps = true;    ///< by rows, and with fewer colours where that loses nothing
    bool twoNumbersUp = true;    ///< an upright scale has two numbers at least
    // Format 4
    bool provesIntegrals = true; ///< along curves
    // Format 5
    bool unitsFollow = true;       ///< what has no unit on its line has the one that follows from its formula
    bool bracketsUnits = true;     ///< of several names
    bool legendBeyondBar = true;   ///< at the side of a colour bar; before, they covered each other
    bool legendAvoidsNotes = true; ///< where it finds its place by itself
    // Format 6
    bool spaceFillsRoom = true;     ///< a view of space is as large as its numbers and labels let it be
    bool labelsStayOnPaper = true;  ///< long ones, too
    bool labelsClearNumbers = true; ///< however large these are
    bool legendBesideScales = true; ///< and not at the ends of lines, where further scales stand
    // Format 7
    bool legendAvoidsAreas = true; ///< an automatic one keeps clear of what lies inside of areas
    bool exactEpsSize = true;      ///< before, the sheet ended at a whole point
    // Format 8
    bool plainTitles = true;  ///< a figure's title in a file's metadata has its values, and no signs of the notation
    bool quickBitmaps = true; ///< bitmaps are packed with less effort, and are about as small
    bool findsPeaks = true;   ///< fields are looked at closely where bounds say that points pass something over
    bool followsPieces =
        true; ///< of fields: where they jump or have a corner is found by what their formula switches by
    // Format 9
    bool wordsOnPaper = true;   ///< what is written beside marks stands on a bit of paper, whatever is behind it
    bool followsLevels = true;  ///< of fields: closely along levels that are asked for; cut at poles, too
    bool heatmapsByDots = true; ///< each dot of a formula's heatmap has the value there; before, that of a mesh
};

/// @param format  1 to newestFormat
FormatRules rulesOf(int format);

} // namespace coulter
