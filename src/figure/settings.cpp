#include "figure/settings.h"

#include "formula/base/text.h"

namespace coulter {
namespace {

template <typename T> T valueOf(const Settings& settings, const Setting& setting) {
    const auto at = settings.find(setting.key);
    const SettingValue& value = at == settings.end() ? setting.usual : at->second;
    const T* const held = std::get_if<T>(&value);
    return held ? *held : T{};
}

} // namespace

void set(Settings& settings, const Setting& setting, std::optional<SettingValue> value) {
    const bool hasUsual = setting.type != SettingType::Colour && setting.type != SettingType::Variable;
    if (!value || (hasUsual && *value == setting.usual))
        settings.erase(setting.key);
    else
        settings[setting.key] = std::move(*value);
}

bool truth(const Settings& settings, const Setting& setting) { return valueOf<bool>(settings, setting); }
double number(const Settings& settings, const Setting& setting) { return valueOf<double>(settings, setting); }
std::string text(const Settings& settings, const Setting& setting) { return valueOf<std::string>(settings, setting); }

std::size_t word(const Settings& settings, const Setting& setting) {
    const std::string chosen = text(settings, setting);
    for (std::size_t i = 0; i < setting.words.size(); ++i) {
        if (chosen == setting.words[i]) return i;
    }
    return 0;
}

std::optional<Colour> colour(const Settings& settings, const Setting& setting) {
    const auto at = settings.find(setting.key);
    if (at == settings.end()) return std::nullopt;
    const Colour* const held = std::get_if<Colour>(&at->second);
    return held ? std::optional(*held) : std::nullopt;
}

std::string spelled(const SettingValue& value) {
    struct Spelling {
        std::string operator()(bool on) const { return on ? "yes" : "no"; }
        std::string operator()(double number) const { return shortestNumber(number); }
        std::string operator()(const std::string& text) const { return text; }
        std::string operator()(Colour c) const { return coulter::spelled(c); }
    };
    return std::visit(Spelling{}, value);
}

} // namespace coulter
