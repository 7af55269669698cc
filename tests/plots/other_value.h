#pragma once
#include "figure/settings.h"

/// A value of a setting that is not its usual one.
inline coulter::SettingValue otherValue(const coulter::Setting& setting) {
    using namespace coulter;
    switch (setting.type) {
    case SettingType::Truth: return !std::get<bool>(setting.usual);
    case SettingType::Number: return (std::get<double>(setting.usual) + setting.greatest) / 2;
    case SettingType::Word: return std::string(setting.words.back());
    case SettingType::Formula: return std::string("x/3");
    case SettingType::Text: return std::string("words");
    case SettingType::Variable: return std::string("x");
    case SettingType::Colour: return Colour{1, 2, 3};
    }
    return false;
}
