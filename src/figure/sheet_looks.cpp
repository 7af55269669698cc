#include "figure/sheet_looks.h"

#include "figure/sheet_settings.h"

#include <algorithm>
#include <vector>

namespace coulter {
namespace {

Settings made(const char* typeface, double lines, std::optional<Colour> ink = {}, std::optional<Colour> paper = {}) {
    Settings settings;
    set(settings, typefaceSetting, std::string(typeface));
    set(settings, linesFactorSetting, lines);
    if (ink) set(settings, inkSetting, *ink);
    if (paper) set(settings, paperColourSetting, *paper);
    return settings;
}

} // namespace

std::span<const Setting* const> sheetLookSettings() {
    static const Setting* const all[] = {&typefaceSetting, &inkSetting, &paperColourSetting, &linesFactorSetting};
    return all;
}

std::span<const SheetLook> sheetLooks() {
    // Night water under pale sand, and wet slate on white: slides are read from afar.
    static const std::vector<SheetLook> all{
        {"plain", 9, made("serif", 1)},
        {"journal", 8, made("serif", 1)},
        {"report", 10, made("sans", 1.25)},
        {"slide", 18, made("sans", 2, Colour{0x22, 0x2b, 0x33}), 256, 144},
        {"dark slide", 18, made("sans", 2, Colour{0xee, 0xe8, 0xdc}, Colour{0x16, 0x20, 0x2a}), 256, 144}};
    return all;
}

const SheetLook* sheetLookNamed(std::string_view name) {
    const auto all = sheetLooks();
    const auto at = std::ranges::find(all, name, &SheetLook::name);
    return at == all.end() ? nullptr : &*at;
}

void setLook(Sheet& sheet, const SheetLook& look) {
    sheet.textSize = look.textSize;
    sheet.width = look.width.value_or(sheet.width);
    sheet.height = look.height.value_or(sheet.height);
    for (const Setting* setting : sheetLookSettings()) {
        const auto at = look.settings.find(setting->key);
        set(sheet.settings, *setting, at == look.settings.end() ? std::nullopt : std::optional(at->second));
    }
}

SheetLook lookOf(const Sheet& sheet) {
    SheetLook look{"", sheet.textSize, {}};
    for (const Setting* setting : sheetLookSettings()) {
        if (const auto at = sheet.settings.find(setting->key); at != sheet.settings.end()) look.settings.insert(*at);
    }
    return look;
}

std::size_t whichLook(const Sheet& sheet) {
    const auto all = sheetLooks();
    const SheetLook own = lookOf(sheet);
    const auto at = std::ranges::find_if(all, [&](const SheetLook& look) {
        return look.textSize == own.textSize && look.settings == own.settings &&
               look.width.value_or(sheet.width) == sheet.width && look.height.value_or(sheet.height) == sheet.height;
    });
    return static_cast<std::size_t>(at - all.begin());
}

} // namespace coulter
