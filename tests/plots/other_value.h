#pragma once
#include "figure/settings.h"

/// A value of a setting that is not its usual one.
inline coulter::SettingValue otherValue(const coulter::Setting& setting) {
    using namespace coulter;
    switch (setting.type) {
    case SettingType::Truth: return !std::get<bool>(setting.usual);
    case SettingType::Number: {
        const double usual = std::get<double>(setting.usual);
        return ((usual == setting.greatest ? setting.least : setting.greatest) + usual) / 2;
    }
    case SettingType::Word: return std::string(setting.words.back());
    case SettingType::Formula:
        return std::string(std::string(setting.key) == "edges"     ? "{-1, 0, 2}"
                           : std::string(setting.key) == "through" ? "(1, 1)"
                                                                   : "1/3");
    case SettingType::Text: return std::string("words");
    case SettingType::Variable: return std::string("x");
    case SettingType::Colour: return Colour{1, 2, 3};
    }
    return false;
}
