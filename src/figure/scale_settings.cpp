#include "figure/scale_settings.h"

namespace coulter {
namespace {

constexpr const char* numberWords[] = {"automatic",      "plain",   "powers of ten",
                                       "multiples of π", "degrees", "SI prefixes"};
constexpr const char* minorWords[] = {"automatic", "none", "halves", "fifths", "tenths"};
constexpr const char* directionWords[] = {"east", "north", "west", "south"};

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
