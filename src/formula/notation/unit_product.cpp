#include "formula/notation/unit_product.h"

#include "formula/base/text.h"
#include "formula/notation/units.h"

#include <cmath>
#include <cstdlib>
#include <vector>

namespace coulter {
namespace {

/// Smallest number that makes all exponents whole: halves, thirds, quarters and sixths occur.
constexpr double wholePower = 12;

bool isWhole(double number) { return number == std::nearbyint(number); }

/// A name with an exponent behind it: "s-1", "m2", "m^2", "°C".
struct Part {
    std::string name;
    double power = 1;
};

std::optional<Part> readPart(const std::string& text) {
    const auto isDigit = [](char c) { return c >= '0' && c <= '9'; };
    std::size_t end = text.size();
    while (end > 0 && isDigit(text[end - 1])) --end;
    if (end < text.size() && end > 0 && (text[end - 1] == '-' || text[end - 1] == '+')) --end;
    Part part{text.substr(0, end), end < text.size() ? std::strtod(text.c_str() + end, nullptr) : 1};
    if (!part.name.empty() && part.name.back() == '^') part.name.pop_back();
    if (part.name.empty() || part.name.find_first_of("0123456789^*()+-") != std::string::npos || !isUnit(part.name))
        return std::nullopt;
    return part;
}

/// The parts of a product such as "kg m-3", "cm/day", "W/m2 K-1".
std::optional<std::vector<Part>> readParts(const std::string& text) {
    std::vector<Part> parts;
    double sign = 1;
    std::string word;
    const auto close = [&] {
        if (word.empty()) return true;
        auto part = readPart(word);
        if (!part) return false;
        part->power *= sign;
        parts.push_back(std::move(*part));
        word.clear();
        sign = 1; // a stroke divides by the one that follows
        return true;
    };
    for (const char c : text) {
        const bool divides = c == '/';
        if (c != ' ' && c != '.' && !divides) {
            word += c;
            continue;
        }
        if (!close()) return std::nullopt;
        if (divides) sign = -1;
    }
    if (!close()) return std::nullopt;
    return parts;
}

} // namespace

UnitProduct UnitProduct::of(const std::string& text) {
    UnitProduct product;
    if (text.empty() || text == "1") return product;
    if (const auto parts = readParts(text)) {
        for (const Part& part : *parts) {
            if (std::abs(product.powers_[part.name] += part.power) == 0) product.powers_.erase(part.name);
        }
        return product;
    }
    product.powers_["(" + text + ")"] = 1;
    return product;
}

std::string UnitProduct::text() const {
    std::string out;
    // Above the stroke first, as units are written.
    for (const double sign : {1.0, -1.0}) {
        for (const auto& [name, power] : powers_) {
            if (power * sign <= 0) continue;
            if (!isWhole(power)) return "";
            out += (out.empty() ? "" : " ") + name + (power == 1 ? "" : shortestNumber(power));
        }
    }
    return out.empty() ? "1" : out;
}

bool UnitProduct::mixes() const {
    for (auto one = powers_.begin(); one != powers_.end(); ++one) {
        for (auto other = std::next(one); other != powers_.end(); ++other) {
            if (unitConversion(one->first, other->first)) return true;
        }
    }
    return false;
}

UnitProduct UnitProduct::times(const UnitProduct& other) const {
    UnitProduct product = *this;
    for (const auto& [name, power] : other.powers_) {
        if (std::abs(product.powers_[name] += power) < 1e-9) product.powers_.erase(name);
    }
    return product;
}

UnitProduct UnitProduct::toThe(double exponent) const {
    UnitProduct product;
    if (exponent == 0) return product;
    for (const auto& [name, power] : powers_) product.powers_[name] = power * exponent;
    return product;
}

UnitMatch match(const UnitProduct& a, const UnitProduct& b) {
    const UnitProduct quotient = a.over(b);
    if (quotient.isNumber()) return UnitMatch::Same;
    // Units with an offset, such as °C and K, have one by themselves only.
    auto conversion = unitConversion(a.text(), b.text());
    if (a.text().empty() || b.text().empty()) {
        const std::string whole = quotient.toThe(wholePower).text();
        conversion = whole.empty() ? std::nullopt : unitConversion(whole, "1");
    }
    if (!conversion) return UnitMatch::OtherKind;
    return conversion->offset == 0 && std::abs(conversion->factor - 1) < 1e-12 ? UnitMatch::Same
                                                                               : UnitMatch::OtherScale;
}

} // namespace coulter
