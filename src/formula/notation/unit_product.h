#pragma once
#include <map>
#include <optional>
#include <string>

namespace coulter {

/// A unit as a product of powers of named ones: cm s⁻¹ is {cm: 1, s: −1}, a pure number is {}. Names are kept as they
/// are written, so that what follows from a formula reads as its parts do.
class UnitProduct {
public:
    /// Reads a text that UDUNITS knows. What is no plain product, such as "1e-3 m", is one name in brackets.
    static UnitProduct of(const std::string& text);

    bool isNumber() const { return powers_.empty(); }
    /// "cm s-1"; "1" of a pure number; empty where an exponent is no whole number, which UDUNITS cannot write.
    std::string text() const;
    /// Whether two of its names are units of one kind, as in m cm⁻¹: then its numbers want a factor.
    bool mixes() const;
    UnitProduct times(const UnitProduct& other) const;
    UnitProduct over(const UnitProduct& other) const { return times(other.toThe(-1)); }
    UnitProduct toThe(double exponent) const;

private:
    std::map<std::string, double> powers_;
};

/// How two units go together in a sum.
enum class UnitMatch {
    Same,       ///< numbers of one are numbers of the other
    OtherScale, ///< the same kind of quantity, but numbers want a factor or an offset: cm and m
    OtherKind,  ///< metres and seconds
};
UnitMatch match(const UnitProduct& a, const UnitProduct& b);

} // namespace coulter
