#include "typeset/math.h"

#include "formula/base/text.h"
#include "typeset/math_glyphs.h"

#include <algorithm>
#include <hb-ot.h>
#include <optional>

namespace coulter {
namespace {

/// Size of letters and openness of layout: on a line of its own, within text, in an index, in an index of an index.
enum class Style { Display, Text, Script, ScriptScript };

Style smaller(Style style) { return style <= Style::Text ? Style::Script : Style::ScriptScript; }

class Layout {
public:
    explicit Layout(Em size) : size_(size), face_(size.face) {}

    Box box(const Math& math, Style style) const {
        switch (math.kind) {
        case MathKind::Row: return row(math.children, style);
        case MathKind::Symbol: return symbol(math, style);
        case MathKind::Word: return textBox(math.text, FontId::Text, lettersOf(style), math.ink);
        case MathKind::Fraction: return fraction(math, style);
        case MathKind::Root: return root(math, style);
        case MathKind::Script: return script(math, style);
        case MathKind::Fenced: return fenced(math, style);
        case MathKind::Large: return large(math, style);
        case MathKind::Cases: return cases(math, style);
        case MathKind::Grid: return grid(math, style);
        case MathKind::Accent: return accent(math, style);
        case MathKind::Overline: return overline(math, style);
        case MathKind::Display: return box(*math.children[0], Style::Display);
        case MathKind::Space: {
            Box space;
            space.width = math.width * em(style);
            return space;
        }
        }
        return {};
    }

private:
    double em(Style style) const {
        if (style == Style::Script) return size_ * mathConstant(HB_OT_MATH_CONSTANT_SCRIPT_PERCENT_SCALE_DOWN);
        if (style == Style::ScriptScript)
            return size_ * mathConstant(HB_OT_MATH_CONSTANT_SCRIPT_SCRIPT_PERCENT_SCALE_DOWN);
        return size_;
    }
    Em lettersOf(Style style) const { return {em(style), face_}; }
    double constant(hb_ot_math_constant_t which, Style style) const { return mathConstant(which) * em(style); }

    /// Space between two classes in eighteenths of an em; within indices only function names keep a thin space.
    static double spacing(MathClass left, MathClass right, Style style) {
        static constexpr int table[8][8] = {
            // ord op bin rel open close punct inner    (1 thin, 2 medium, 3 thick; negative: not in indices)
            {0, 1, -2, -3, 0, 0, 0, -1},     // ordinary
            {1, 1, 0, -3, 0, 0, 0, -1},      // operator
            {-2, -2, 0, 0, -2, 0, 0, -2},    // binary
            {-3, -3, 0, 0, -3, 0, 0, -3},    // relation
            {0, 0, 0, 0, 0, 0, 0, 0},        // open
            {0, 1, -2, -3, 0, 0, 0, -1},     // close
            {-1, -1, 0, -1, -1, -1, -1, -1}, // punctuation
            {-1, 1, -2, -3, -1, 0, -1, -1},  // inner
        };
        static constexpr double widths[] = {0, 3, 4, 5};
        const int kind = table[static_cast<int>(left)][static_cast<int>(right)];
        if (kind < 0 && style >= Style::Script) return 0;
        return widths[kind < 0 ? -kind : kind] / 18;
    }

    static void flatten(const std::vector<MathPtr>& children, std::vector<const Math*>& out) {
        for (const MathPtr& child : children) {
            if (!child) continue;
            if (child->kind == MathKind::Row)
                flatten(child->children, out);
            else
                out.push_back(child.get());
        }
    }

    Box row(const std::vector<MathPtr>& children, Style style) const {
        std::vector<const Math*> items;
        flatten(children, items);
        Box line;
        std::optional<MathClass> before;
        for (const Math* item : items) {
            Box next = box(*item, style);
            if (item->kind == MathKind::Space) {
                line.append(next);
                continue;
            }
            if (before) {
                MathClass right = item->mathClass;
                // A function's bracket stands close to its name: sin(x), f(x).
                const bool call = item->kind == MathKind::Fenced && item->text == "call";
                if (call) right = MathClass::Open;
                if (line.italic > 0 && !item->italic) line.space(line.italic);
                line.space(spacing(*before, right, style) * em(style));
            }
            line.append(next);
            before = item->kind == MathKind::Fenced ? MathClass::Close : item->mathClass;
        }
        return line;
    }

    Box symbol(const Math& math, Style style) const {
        const std::u32string letters = decodeUtf8(math.text);
        const char32_t c = letters.empty() ? U' ' : letters.front();
        return mathLetterBox(c, math.italic, lettersOf(style), math.text, math.ink);
    }

    Box fraction(const Math& math, Style style) const {
        const bool display = style == Style::Display;
        const Style inner = display ? Style::Text : smaller(style);
        const Box top = box(*math.children[0], inner), bottom = box(*math.children[1], inner);
        const double thickness = constant(HB_OT_MATH_CONSTANT_FRACTION_RULE_THICKNESS, style);
        const double axis = constant(HB_OT_MATH_CONSTANT_AXIS_HEIGHT, style);
        double up = constant(display ? HB_OT_MATH_CONSTANT_FRACTION_NUMERATOR_DISPLAY_STYLE_SHIFT_UP
                                     : HB_OT_MATH_CONSTANT_FRACTION_NUMERATOR_SHIFT_UP,
                             style);
        double down = constant(display ? HB_OT_MATH_CONSTANT_FRACTION_DENOMINATOR_DISPLAY_STYLE_SHIFT_DOWN
                                       : HB_OT_MATH_CONSTANT_FRACTION_DENOMINATOR_SHIFT_DOWN,
                               style);
        const double gapUp = constant(display ? HB_OT_MATH_CONSTANT_FRACTION_NUM_DISPLAY_STYLE_GAP_MIN
                                              : HB_OT_MATH_CONSTANT_FRACTION_NUMERATOR_GAP_MIN,
                                      style);
        const double gapDown = constant(display ? HB_OT_MATH_CONSTANT_FRACTION_DENOM_DISPLAY_STYLE_GAP_MIN
                                                : HB_OT_MATH_CONSTANT_FRACTION_DENOMINATOR_GAP_MIN,
                                        style);
        up = std::max(up, axis + thickness / 2 + gapUp + top.descent);
        down = std::max(down, bottom.ascent + gapDown + thickness / 2 - axis);
        const double overhang = 0.1 * em(style), side = 0.06 * em(style);
        const double bar = std::max(top.width, bottom.width) + 2 * overhang;
        Box result;
        result.add(top, side + (bar - top.width) / 2, -up);
        result.add(bottom, side + (bar - bottom.width) / 2, down);
        result.rules.push_back({side, -axis - thickness / 2, bar, thickness});
        result.width = bar + 2 * side;
        result.ascent = up + top.ascent;
        result.descent = down + bottom.descent;
        return result;
    }

    Box root(const Math& math, Style style) const {
        const Box inside = box(*math.children[0], style);
        const double thickness = constant(HB_OT_MATH_CONSTANT_RADICAL_RULE_THICKNESS, style);
        const double gap = constant(style == Style::Display ? HB_OT_MATH_CONSTANT_RADICAL_DISPLAY_STYLE_VERTICAL_GAP
                                                            : HB_OT_MATH_CONSTANT_RADICAL_VERTICAL_GAP,
                                    style);
        Box sign = grownGlyph(U'√', inside.height() + gap + thickness, em(style), "√", Ink::Plain);
        const double spare = std::max(0.0, sign.height() - (inside.height() + gap + thickness));
        const double top = inside.ascent + gap + spare / 2 + thickness; // upper edge of the rule above the baseline
        Box result;
        if (math.children.size() > 1 && math.children[1]) {
            const Box degree = box(*math.children[1], Style::ScriptScript);
            const double raise = mathConstant(HB_OT_MATH_CONSTANT_RADICAL_DEGREE_BOTTOM_RAISE_PERCENT) * sign.height();
            const double before = constant(HB_OT_MATH_CONSTANT_RADICAL_KERN_BEFORE_DEGREE, style);
            const double after = constant(HB_OT_MATH_CONSTANT_RADICAL_KERN_AFTER_DEGREE, style);
            const double bottom = sign.height() - top; // of the sign, below the baseline
            result.add(degree, std::max(0.0, before), bottom - raise - degree.descent);
            result.width = std::max(0.0, std::max(0.0, before) + degree.width + after);
            result.ascent = raise - bottom + degree.height();
        }
        result.add(sign, result.width, sign.ascent - top);
        result.width += sign.width;
        result.rules.push_back({result.width, -top, inside.width + 0.05 * em(style), thickness});
        result.add(inside, result.width, 0);
        result.width += inside.width + 0.1 * em(style);
        result.ascent = std::max(result.ascent, top);
        result.descent = std::max(inside.descent, sign.height() - top);
        return result;
    }

    Box script(const Math& math, Style style) const {
        const Box base = box(*math.children[0], style);
        const bool isWord = math.children[0]->kind == MathKind::Word;
        Box result = base;
        result.italic = 0;
        const double after = constant(HB_OT_MATH_CONSTANT_SPACE_AFTER_SCRIPT, style);
        double up = 0, down = 0;
        Box above, below;
        if (math.children[2]) {
            above = box(*math.children[2], smaller(style));
            up = std::max({constant(HB_OT_MATH_CONSTANT_SUPERSCRIPT_SHIFT_UP, style),
                           isWord || !tall(*math.children[0])
                               ? 0.0
                               : base.ascent - constant(HB_OT_MATH_CONSTANT_SUPERSCRIPT_BASELINE_DROP_MAX, style),
                           above.descent + constant(HB_OT_MATH_CONSTANT_SUPERSCRIPT_BOTTOM_MIN, style)});
        }
        if (math.children[1]) {
            below = box(*math.children[1], smaller(style));
            down = std::max({constant(HB_OT_MATH_CONSTANT_SUBSCRIPT_SHIFT_DOWN, style),
                             isWord || !tall(*math.children[0])
                                 ? 0.0
                                 : base.descent + constant(HB_OT_MATH_CONSTANT_SUBSCRIPT_BASELINE_DROP_MIN, style),
                             below.ascent - constant(HB_OT_MATH_CONSTANT_SUBSCRIPT_TOP_MAX, style)});
        }
        if (math.children[1] && math.children[2]) {
            const double gap = (up - above.descent) - (below.ascent - down);
            const double least = constant(HB_OT_MATH_CONSTANT_SUB_SUPERSCRIPT_GAP_MIN, style);
            if (gap < least) down += least - gap;
        }
        double width = base.width;
        if (math.children[2]) {
            result.add(above, base.width + base.italic, -up);
            result.ascent = std::max(result.ascent, up + above.ascent);
            width = std::max(width, base.width + base.italic + above.width + after);
        }
        if (math.children[1]) {
            result.add(below, base.width, down);
            result.descent = std::max(result.descent, down + below.descent);
            width = std::max(width, base.width + below.width + after);
        }
        result.width = width;
        return result;
    }

    /// Whether a base is more than a letter, so that its indices follow its height.
    static bool tall(const Math& base) { return base.kind != MathKind::Symbol && base.kind != MathKind::Word; }

    Box fenced(const Math& math, Style style) const {
        // Fractions among a function's arguments are set small, so that lines keep their height.
        const Box inside = box(*math.children[0], math.text == "call" && style == Style::Display ? Style::Text : style);
        const double axis = constant(HB_OT_MATH_CONSTANT_AXIS_HEIGHT, style);
        // A fence covers nine tenths of what stands above or below the axis, whichever is more.
        const double half = std::max(inside.ascent - axis, inside.descent + axis);
        const double wanted = std::max(0.9 * 2 * half, 2 * half - 0.25 * em(style));
        Box result;
        if (!math.open.empty()) result.append(fence(math.open, wanted, style));
        result.append(inside);
        if (inside.italic > 0) result.space(inside.italic / 2);
        if (!math.close.empty()) result.append(fence(math.close, wanted, style));
        result.italic = 0;
        return result;
    }

    Box fence(const std::string& sign, double height, Style style) const {
        const char32_t c = decodeUtf8(sign).front();
        const Box plain = mathGlyphBox(mathGlyph(c, false), em(style), sign, Ink::Plain);
        if (plain.height() >= height) return plain;
        return centredOnAxis(grownGlyph(c, height, em(style), sign, Ink::Plain), em(style));
    }

    Box large(const Math& math, Style style) const {
        const char32_t c = decodeUtf8(math.text).front();
        const double least =
            style == Style::Display ? constant(HB_OT_MATH_CONSTANT_DISPLAY_OPERATOR_MIN_HEIGHT, style) : 0;
        Box sign = centredOnAxis(grownGlyph(c, least, em(style), math.text, Ink::Plain), em(style));
        const bool beside = c == U'∫' || style != Style::Display;
        Box lower, upper;
        if (math.children[0]) lower = box(*math.children[0], smaller(style));
        if (math.children[1]) upper = box(*math.children[1], smaller(style));
        Box result;
        if (beside) {
            const double slant = sign.italic;
            result = sign;
            result.italic = 0;
            const double up = sign.ascent - upper.ascent * 0.5,
                         down = sign.descent - lower.descent + lower.ascent * 0.3;
            result.add(upper, sign.width + slant * 0.5, -up);
            result.add(lower, sign.width - slant, down);
            result.width =
                std::max(sign.width + slant * 0.5 + upper.width, sign.width - slant + lower.width) + 0.08 * em(style);
            if (math.children[1]) result.ascent = std::max(result.ascent, up + upper.ascent);
            if (math.children[0]) result.descent = std::max(result.descent, down + lower.descent);
            return result;
        }
        const double width = std::max({sign.width, lower.width, upper.width});
        result.add(sign, (width - sign.width) / 2, 0);
        result.width = width;
        result.ascent = sign.ascent;
        result.descent = sign.descent;
        if (math.children[1]) {
            const double rise = std::max(constant(HB_OT_MATH_CONSTANT_UPPER_LIMIT_BASELINE_RISE_MIN, style),
                                         constant(HB_OT_MATH_CONSTANT_UPPER_LIMIT_GAP_MIN, style) + upper.descent);
            result.add(upper, (width - upper.width) / 2, -(sign.ascent + rise));
            result.ascent = sign.ascent + rise + upper.ascent;
        }
        if (math.children[0]) {
            const double drop = std::max(constant(HB_OT_MATH_CONSTANT_LOWER_LIMIT_BASELINE_DROP_MIN, style),
                                         constant(HB_OT_MATH_CONSTANT_LOWER_LIMIT_GAP_MIN, style) + lower.ascent);
            result.add(lower, (width - lower.width) / 2, sign.descent + drop);
            result.descent = sign.descent + drop + lower.descent;
        }
        return result;
    }

    Box cases(const Math& math, Style style) const {
        const Style inner = style == Style::Display ? Style::Text : style;
        std::vector<Box> values, conditions;
        double widest = 0;
        for (std::size_t i = 0; i + 1 < math.children.size(); i += 2) {
            values.push_back(box(*math.children[i], inner));
            conditions.push_back(math.children[i + 1] ? box(*math.children[i + 1], inner) : Box{});
            widest = std::max(widest, values.back().width);
        }
        Box body;
        double y = 0;
        for (std::size_t i = 0; i < values.size(); ++i) {
            const double ascent = std::max({values[i].ascent, conditions[i].ascent, 0.75 * em(style)});
            const double descent = std::max({values[i].descent, conditions[i].descent, 0.25 * em(style)});
            y += ascent + (i > 0 ? 0.36 * em(style) : 0);
            body.add(values[i], 0, y);
            body.add(conditions[i], widest + em(style), y);
            body.width = std::max(body.width, widest + em(style) + conditions[i].width);
            y += descent;
        }
        body.descent = y;
        body = centredOnAxis(body, em(style));
        Box result = centredOnAxis(grownGlyph(U'{', body.height(), em(style), "{", Ink::Plain), em(style));
        result.space(0.15 * em(style));
        result.append(body);
        return result;
    }

    Box grid(const Math& math, Style style) const {
        const Style inner = style == Style::Display ? Style::Text : style;
        const std::size_t columns = math.columns, rows = columns == 0 ? 0 : math.children.size() / columns;
        std::vector<Box> cells;
        std::vector<double> widths(columns, 0);
        for (std::size_t i = 0; i < rows * columns; ++i) {
            cells.push_back(math.children[i] ? box(*math.children[i], inner) : Box{});
            widths[i % columns] = std::max(widths[i % columns], cells[i].width);
        }
        Box body;
        double y = 0;
        for (std::size_t r = 0; r < rows; ++r) {
            double ascent = 0.75 * em(style), descent = 0.25 * em(style), x = 0;
            for (std::size_t c = 0; c < columns; ++c) {
                ascent = std::max(ascent, cells[r * columns + c].ascent);
                descent = std::max(descent, cells[r * columns + c].descent);
            }
            y += ascent + (r > 0 ? 0.3 * em(style) : 0);
            for (std::size_t c = 0; c < columns; ++c) {
                const Box& cell = cells[r * columns + c];
                body.add(cell, x + (math.leftAligned ? 0 : (widths[c] - cell.width) / 2), y);
                x += widths[c] + (c + 1 < columns ? em(style) : 0);
            }
            body.width = x;
            y += descent;
        }
        body.descent = y;
        return centredOnAxis(body, em(style));
    }

    Box accent(const Math& math, Style style) const {
        const Box base = box(*math.children[0], style);
        const char32_t c = decodeUtf8(math.text).front();
        const Box mark = mathGlyphBox(mathGlyph(c, false), em(style), math.text, Ink::Plain);
        // The mark is drawn for letters as high as the font says, with its own place over the origin.
        const double rise = std::max(0.0, base.ascent - constant(HB_OT_MATH_CONSTANT_ACCENT_BASE_HEIGHT, style));
        Box result = base;
        result.add(mark, (base.width + base.italic) / 2 - accentMiddle(c) * em(style), -rise);
        result.ascent = std::max(base.ascent, mark.ascent + rise);
        return result;
    }

    Box overline(const Math& math, Style style) const {
        const Box base = box(*math.children[0], style);
        const double thickness = constant(HB_OT_MATH_CONSTANT_OVERBAR_RULE_THICKNESS, style),
                     gap = constant(HB_OT_MATH_CONSTANT_OVERBAR_VERTICAL_GAP, style);
        Box result = base;
        result.rules.push_back({0, -base.ascent - gap - thickness, base.width + base.italic, thickness});
        result.ascent = base.ascent + gap + thickness;
        return result;
    }

    double size_;
    Typeface face_;
};

} // namespace

Box layoutMath(const Math& math, Em size, bool display) {
    return Layout(size).box(math, display ? Style::Display : Style::Text);
}

} // namespace coulter
