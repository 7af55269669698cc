#include "notes/note_settings.h"

#include "drawing/canvas.h"

namespace coulter {
namespace {

constexpr const char* anchorWords[] = {"data", "panel", "sheet"};
constexpr const char* alignWords[] = {"centre", "left", "right"};
constexpr const char* headsWords[] = {"end", "both", "start"};

} // namespace

const Setting anchorSetting{.key = "anchor",
                            .label = "anchor",
                            .meaning =
                                "places are coordinates of the panel's scales, or mm from the upper left corner of "
                                "the panel or of the sheet",
                            .type = SettingType::Word,
                            .usual = std::string("data"),
                            .words = anchorWords,
                            .isStyle = false};

const Setting noteColourSetting{.key = "colour",
                                .label = "colour",
                                .meaning = "colour of lines and words; left out: black",
                                .type = SettingType::Colour};

const Setting noteWidthSetting{.key = "width",
                               .label = "width",
                               .meaning = "width of lines",
                               .type = SettingType::Number,
                               .usual = 0.25,
                               .unit = "mm",
                               .least = 0.01,
                               .greatest = 20,
                               .step = 0.05};

const Setting notePatternSetting{.key = "pattern",
                                 .label = "line",
                                 .meaning = "pattern of lines",
                                 .type = SettingType::Word,
                                 .usual = std::string("solid"),
                                 .words = linePatterns};

const Setting fillSetting{.key = "filling",
                          .label = "filling",
                          .meaning = "colour of what it encloses; left out: not filled",
                          .type = SettingType::Colour};

const Setting fillOpacitySetting{.key = "filling opacity",
                                 .label = "opacity",
                                 .meaning = "of the filling: 1 hides what is below, 0 shows nothing",
                                 .type = SettingType::Number,
                                 .usual = 1.0,
                                 .least = 0,
                                 .greatest = 1,
                                 .step = 0.05};

const Setting behindSetting{.key = "behind",
                            .label = "behind",
                            .meaning = "below all that is plotted",
                            .type = SettingType::Truth,
                            .usual = false};

const Setting noteLettersSetting{.key = "letters",
                                 .label = "letters",
                                 .meaning = "size of the words; 0: that of the sheet",
                                 .type = SettingType::Number,
                                 .usual = 0.0,
                                 .unit = "pt",
                                 .least = 0,
                                 .greatest = 200,
                                 .step = 0.5};

const Setting alignSetting{.key = "align",
                           .label = "align",
                           .meaning = "which part of the words stands at the place",
                           .type = SettingType::Word,
                           .usual = std::string("centre"),
                           .words = alignWords};

const Setting turnSetting{.key = "turn",
                          .label = "turn",
                          .meaning = "counterclockwise",
                          .type = SettingType::Number,
                          .usual = 0.0,
                          .unit = "°",
                          .least = -360,
                          .greatest = 360,
                          .step = 1};

const Setting headsSetting{.key = "heads",
                           .label = "heads",
                           .meaning = "at which ends the arrow has a head",
                           .type = SettingType::Word,
                           .usual = std::string("end"),
                           .words = headsWords};

const Setting headSizeSetting{.key = "head size",
                              .label = "head",
                              .meaning = "length of an arrow's head",
                              .type = SettingType::Number,
                              .usual = 2.2,
                              .unit = "mm",
                              .least = 0,
                              .greatest = 50,
                              .step = 0.1};

const Setting bendSetting{.key = "bend",
                          .label = "bend",
                          .meaning =
                              "how far the middle is off the straight line, as a part of its length; to the left "
                              "where it is positive",
                          .type = SettingType::Number,
                          .usual = 0.0,
                          .least = -1,
                          .greatest = 1,
                          .step = 0.05};

const Setting depthSetting{.key = "depth",
                           .label = "depth",
                           .meaning = "from the line between its ends to the tip; on the other side where negative",
                           .type = SettingType::Number,
                           .usual = 2.5,
                           .unit = "mm",
                           .least = -50,
                           .greatest = 50,
                           .step = 0.5};

const Setting curlySetting{.key = "curly",
                           .label = "curly",
                           .meaning = "drawn with curves instead of corners",
                           .type = SettingType::Truth,
                           .usual = true};

const Setting paddingSetting{.key = "padding",
                             .label = "padding",
                             .meaning = "round the words, within their filling or frame",
                             .type = SettingType::Number,
                             .usual = 0.8,
                             .unit = "mm",
                             .least = 0,
                             .greatest = 50,
                             .step = 0.2,
                             .rare = true};

const Setting framedSetting{.key = "framed",
                            .label = "framed",
                            .meaning = "a line round the words",
                            .type = SettingType::Truth,
                            .usual = false};

} // namespace coulter
