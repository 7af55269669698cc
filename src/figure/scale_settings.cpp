#include "figure/scale_settings.h"

namespace coulter {
namespace {

constexpr const char* numberWords[] = {"automatic",      "plain",   "powers of ten",
                                       "multiples of π", "degrees", "SI prefixes"};
constexpr const char* minorWords[] = {"automatic", "none", "halves", "fifths", "tenths"};
constexpr const char* directionWords[] = {"east", "north", "west", "south"};

constexpr const char* mapWords[] = {"loam", "fen",   "frost",  "heath",   "moss",   "straw",  "ember", "ash",
                                    "thaw", "hedge", "furrow", "seasons", "rounds", "strata", "sowing"};
constexpr const char* rangeWords[] = {"without outliers", "all values"};
constexpr const char* barWords[] = {"right", "left", "below", "above", "none"};

} // namespace

constexpr Setting reversedSetting{.key = "reversed",
                                  .label = "reversed",
                                  .meaning = "its values grow to the left, downwards, or clockwise",
                                  .type = SettingType::Truth,
                                  .usual = false};

const Setting numbersSetting{.key = "numbers",
                             .label = "numbers",
                             .meaning = "how the numbers at the ticks are written",
                             .type = SettingType::Word,
                             .usual = std::string("automatic"),
                             .words = numberWords};

const Setting shownInSetting{.key = "shown in",
                             .label = "shown in",
                             .meaning = "another unit of the same dimension; empty: the page's",
                             .type = SettingType::Text,
                             .usual = std::string()};

const Setting tickCountSetting{.key = "tick count",
                               .label = "tick count",
                               .meaning = "about how many ticks; 0: as many as there is room for",
                               .type = SettingType::Number,
                               .usual = 0.0,
                               .least = 0,
                               .greatest = 50,
                               .step = 1,
                               .rare = true};

const Setting ticksAtSetting{.key = "ticks at",
                             .label = "ticks at",
                             .meaning = "where ticks stand, as a list such as {0, 1, 5}; empty: at round numbers",
                             .type = SettingType::Formula,
                             .usual = std::string(),
                             .rare = true};

const Setting minorSetting{.key = "minor ticks",
                           .label = "minor ticks",
                           .meaning = "shorter ticks between those with numbers",
                           .type = SettingType::Word,
                           .usual = std::string("automatic"),
                           .words = minorWords,
                           .rare = true};

constexpr Setting gridSetting{.key = "grid",
                              .label = "grid",
                              .meaning = "lines across the panel at the numbers",
                              .type = SettingType::Truth,
                              .usual = false};

constexpr Setting zeroLineSetting{.key = "zero line",
                                  .label = "zero line",
                                  .meaning = "a line across the panel at zero",
                                  .type = SettingType::Truth,
                                  .usual = false};

std::span<const Setting* const> scaleSettings() {
    static constexpr const Setting* all[] = {&reversedSetting, &numbersSetting, &shownInSetting,   &gridSetting,
                                             &zeroLineSetting, &ticksAtSetting, &tickCountSetting, &minorSetting};
    return all;
}

constexpr Setting exaggerationSetting{.key = "exaggeration",
                                      .label = "exaggeration",
                                      .meaning = "whether the figure says how many times larger heights are drawn "
                                                 "than lengths; of scales with units of one kind",
                                      .type = SettingType::Truth,
                                      .usual = false};

std::span<const Setting* const> uprightScaleSettings() {
    static constexpr const Setting* all[] = {&exaggerationSetting, &reversedSetting,  &numbersSetting,
                                             &shownInSetting,      &gridSetting,      &zeroLineSetting,
                                             &ticksAtSetting,      &tickCountSetting, &minorSetting};
    return all;
}

const Setting mapSetting{.key = "map",
                         .label = "colour map",
                         .meaning = "which colours; see the manual's page on colours",
                         .type = SettingType::Word,
                         .usual = std::string("loam"),
                         .words = mapWords};

constexpr Setting turnedSetting{.key = "turned",
                                .label = "turned",
                                .meaning = "the map the other way round",
                                .type = SettingType::Truth,
                                .usual = false};

constexpr Setting mapFromSetting{.key = "map from",
                                 .label = "map from",
                                 .meaning = "part of the map that is used, from here",
                                 .type = SettingType::Number,
                                 .usual = 0.0,
                                 .least = 0,
                                 .greatest = 1,
                                 .step = 0.05,
                                 .rare = true};

constexpr Setting mapToSetting{.key = "map to",
                               .label = "map to",
                               .meaning = "part of the map that is used, to here",
                               .type = SettingType::Number,
                               .usual = 1.0,
                               .least = 0,
                               .greatest = 1,
                               .step = 0.05,
                               .rare = true};

constexpr Setting stepsSetting{.key = "steps",
                               .label = "steps",
                               .meaning =
                                   "about so many colours, changing at round values; 0: a colour for every value",
                               .type = SettingType::Number,
                               .usual = 0.0,
                               .least = 0,
                               .greatest = 100,
                               .step = 1};

const Setting rangeSetting{.key = "range",
                           .label = "range",
                           .meaning = "what automatic ends hold: most values, or all of them",
                           .type = SettingType::Word,
                           .usual = std::string("without outliers"),
                           .words = rangeWords};

const Setting symmetricSetting{.key = "middle",
                               .label = "middle",
                               .meaning = "the value that the middle of the colours has, such as 0; empty: none",
                               .type = SettingType::Formula,
                               .usual = std::string()};

constexpr Setting underColourSetting{.key = "under",
                                     .label = "below",
                                     .meaning = "colour of values below the scale; left out: that of its lower end",
                                     .type = SettingType::Colour,
                                     .rare = true};

constexpr Setting overColourSetting{.key = "over",
                                    .label = "above",
                                    .meaning = "colour of values above the scale; left out: that of its upper end",
                                    .type = SettingType::Colour,
                                    .rare = true};

constexpr Setting undefinedColourSetting{.key = "undefined",
                                         .label = "undefined",
                                         .meaning = "colour where there is no value; left out: none",
                                         .type = SettingType::Colour,
                                         .rare = true};

const Setting barSetting{.key = "bar",
                         .label = "colour bar",
                         .meaning = "on which side of the panel the bar stands that says what colours mean",
                         .type = SettingType::Word,
                         .usual = std::string("right"),
                         .words = barWords};

std::span<const Setting* const> colourScaleSettings() {
    static constexpr const Setting* all[] = {
        &mapSetting,      &turnedSetting,      &stepsSetting,      &symmetricSetting,      &rangeSetting,
        &barSetting,      &reversedSetting,    &numbersSetting,    &shownInSetting,        &gridSetting,
        &zeroLineSetting, &ticksAtSetting,     &tickCountSetting,  &minorSetting,          &mapFromSetting,
        &mapToSetting,    &underColourSetting, &overColourSetting, &undefinedColourSetting};
    return all;
}

const Setting zeroDirectionSetting{.key = "zero",
                                   .label = "zero to the",
                                   .meaning = "where the angle zero is",
                                   .type = SettingType::Word,
                                   .usual = std::string("east"),
                                   .words = directionWords};

std::span<const Setting* const> angleSettings() {
    static constexpr const Setting* all[] = {&zeroDirectionSetting};
    return all;
}

} // namespace coulter
