#include "figure/sheet_settings.h"

namespace coulter {
namespace {

constexpr const char* acrossWords[] = {"none", "columns", "all"};
constexpr const char* upWords[] = {"none", "rows", "all"};
constexpr const char* colourWords[] = {"none", "scale", "scale and bar"};
constexpr const char* paperWords[] = {"white", "none"};
constexpr const char* legendWords[] = {"each panel", "right", "below"};
constexpr const char* letterWords[] = {"none", "(a)", "a", "(A)", "A"};

} // namespace

const Setting sheetTitleSetting{.key = "title",
                                .label = "title",
                                .meaning = "words above all panels",
                                .type = SettingType::Text,
                                .usual = std::string()};

const Setting sharedAcrossSetting{.key = "shared across",
                                  .label = "shared across",
                                  .meaning = "panels whose horizontal scale is one: those of a column, or all",
                                  .type = SettingType::Word,
                                  .usual = std::string("none"),
                                  .words = acrossWords};

const Setting sharedUpSetting{.key = "shared up",
                              .label = "shared up",
                              .meaning = "panels whose vertical scale is one: those of a row, or all",
                              .type = SettingType::Word,
                              .usual = std::string("none"),
                              .words = upWords};

const Setting sharedColoursSetting{.key = "shared colours",
                                   .label = "shared colours",
                                   .meaning = "whether colours mean the same in all panels, and one bar says so",
                                   .type = SettingType::Word,
                                   .usual = std::string("none"),
                                   .words = colourWords};

const Setting sheetLegendSetting{.key = "legend",
                                 .label = "legend",
                                 .meaning = "a legend in each panel, or one for all beside or below them",
                                 .type = SettingType::Word,
                                 .usual = std::string("each panel"),
                                 .words = legendWords};

const Setting lettersSetting{.key = "panel letters",
                             .label = "panel letters",
                             .meaning = "the letter that each panel is called by",
                             .type = SettingType::Word,
                             .usual = std::string("none"),
                             .words = letterWords};

const Setting gapSetting{.key = "gap",
                         .label = "gap",
                         .meaning = "between panels, besides what their scales need",
                         .type = SettingType::Number,
                         .usual = 0.0,
                         .unit = "mm",
                         .least = 0,
                         .greatest = 100,
                         .step = 1,
                         .rare = true};

const Setting paperSetting{
    .key = "paper",
    .label = "paper",
    .meaning = "white, or none, so that what lies behind shows through, of bitmaps and SVG; PDF and EPS have none",
    .type = SettingType::Word,
    .usual = std::string("white"),
    .words = paperWords,
    .rare = true};

constexpr const char* typefaceWords[] = {"serif", "sans"};
const Setting typefaceSetting{.key = "typeface",
                              .label = "typeface",
                              .meaning = "what letters are cut like, those of formulas too",
                              .type = SettingType::Word,
                              .usual = std::string("serif"),
                              .words = typefaceWords,
                              .rare = true};

const Setting inkSetting{.key = "ink",
                         .label = "ink",
                         .meaning = "of letters and scales; the grid is between it and the paper",
                         .type = SettingType::Colour,
                         .rare = true};

const Setting paperColourSetting{
    .key = "paper colour",
    .label = "paper colour",
    .meaning = "under all; on dark paper plots whose colour was not chosen are light where they were dark",
    .type = SettingType::Colour,
    .rare = true};

const Setting linesFactorSetting{
    .key = "line widths",
    .label = "line widths",
    .meaning = "how many times as wide lines are as they say themselves, and marks and arrow heads as large",
    .type = SettingType::Number,
    .usual = 1.0,
    .unit = "×",
    .least = 0.25,
    .greatest = 8,
    .step = 0.25,
    .rare = true};

constexpr const char* extentWords[] = {"the sheet", "what is drawn"};
const Setting extentSetting{
    .key = "extent",
    .label = "extent of files",
    .meaning = "what a file of the figure holds: all of the sheet, or what is drawn on it with a margin round that",
    .type = SettingType::Word,
    .usual = std::string("the sheet"),
    .words = extentWords,
    .rare = true};

const Setting marginSetting{.key = "margin",
                            .label = "margin",
                            .meaning = "of files that hold what is drawn: paper round it",
                            .type = SettingType::Number,
                            .usual = 2.0,
                            .unit = "mm",
                            .least = 0,
                            .greatest = 100,
                            .step = 0.5,
                            .rare = true};

constexpr const char* surfacesWords[] = {"dots", "vectors"};
const Setting surfacesSetting{
    .key = "surfaces",
    .label = "surfaces as",
    .meaning = "what surfaces in space are made of: dots at the figure's resolution, or polygons, sharp at any size",
    .type = SettingType::Word,
    .usual = std::string("dots"),
    .words = surfacesWords,
    .rare = true};

std::span<const Setting* const> sheetSettings() {
    static const Setting* const all[] = {
        &sheetTitleSetting, &sharedAcrossSetting, &sharedUpSetting, &sharedColoursSetting, &sheetLegendSetting,
        &lettersSetting,    &typefaceSetting,     &inkSetting,      &paperColourSetting,   &linesFactorSetting,
        &paperSetting,      &extentSetting,       &marginSetting,   &surfacesSetting,      &gapSetting};
    return all;
}

std::string panelLetter(const Settings& settings, std::size_t panel) {
    const std::string form = text(settings, lettersSetting);
    if (form == "none") return "";
    const bool capital = form.find('A') != std::string::npos;
    // a … z, then aa, ab, …
    std::string letter;
    for (std::size_t n = panel + 1; n > 0; n = (n - 1) / 26)
        letter.insert(letter.begin(), static_cast<char>((capital ? 'A' : 'a') + static_cast<char>((n - 1) % 26)));
    return form.starts_with('(') ? "(" + letter + ")" : letter;
}

} // namespace coulter
