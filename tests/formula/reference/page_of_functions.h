#pragma once
#include "formula/base/text.h"
#include "formula/notation/parser.h"
#include "formula/page/page.h"

#include <catch2/catch.hpp>

/// A function as a test writes it: its name, its parameters, its formula.
struct FunctionText {
    std::string name;
    std::vector<std::string> parameters;
    std::string formula;
};

/// A page of functions alone, put together without reading one.
inline coulter::Page pageOfFunctions(const std::vector<FunctionText>& functions) {
    coulter::Page page;
    for (const FunctionText& each : functions) page.names.functions[each.name] = each.parameters.size();
    for (const FunctionText& each : functions) {
        coulter::KnownNames names = page.names;
        names.values.insert(each.parameters.begin(), each.parameters.end());
        const coulter::ParsedExpression parsed = coulter::parseExpression(coulter::decodeUtf8(each.formula), names);
        REQUIRE(parsed.expression);
        coulter::Line line;
        line.kind = coulter::LineKind::Function;
        line.name = each.name;
        line.parameters = each.parameters;
        line.body = parsed.expression;
        page.defined[each.name] = page.lines.size();
        page.lines.push_back(std::move(line));
    }
    return page;
}

/// An expression over such a page, with further names.
inline coulter::ExprPtr expressionOver(const coulter::Page& page, const std::string& text,
                                       const std::vector<std::string>& further = {}) {
    coulter::KnownNames names = page.names;
    names.values.insert(further.begin(), further.end());
    const coulter::ParsedExpression parsed = coulter::parseExpression(coulter::decodeUtf8(text), names);
    INFO(text << (parsed.expression ? "" : coulter::describe(parsed.problems.front())));
    REQUIRE(parsed.expression);
    return parsed.expression;
}
