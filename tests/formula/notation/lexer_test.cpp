#include "formula/base/text.h"
#include "formula/notation/lexer.h"

#include <catch2/catch.hpp>

using namespace coulter;

namespace {

LexResult read(const std::string& text) {
    const std::u32string letters = decodeUtf8(text);
    return tokenize(letters, 0, letters.size());
}

/// Texts of the tokens, each in brackets: "[2][x]".
std::string texts(const std::string& text) {
    std::string all;
    for (const Token& token : read(text).tokens) {
        if (token.kind != TokenKind::End) all += "[" + token.text + "]";
    }
    return all;
}

} // namespace

TEST_CASE("lines are split into numbers, words, symbols and texts") {
    CHECK(texts("2x+3.5e-2") == "[2][x][+][3.5e-2]");
    CHECK(texts("2e") == "[2][e]");
    CHECK(texts("2e^x") == "[2][e][^][x]");
    CHECK(texts("2e5x") == "[2e5][x]");
    CHECK(texts("a<=b") == "[a][<=][b]");
    CHECK(texts("a != b") == "[a][!=][b]");
    CHECK(texts("5!=?") == "[5][!][=][?]");
    CHECK(texts("label \"a b, c\"") == "[label][a b, c]");
    CHECK(texts("q_0'") == "[q][_][0][']");
    CHECK(texts("") == "");
}

TEST_CASE("printed characters are read as their plain spelling") {
    CHECK(texts("−a·b×c÷d") == "[-][a][*][b][*][c][/][d]");
    CHECK(texts("x∈[0,∞)") == "[x][in][[][0][,][inf][)]");
    CHECK(texts("x¹² ≤ √2 ≥ 1 ≠ 0") == "[x][^][12][<=][sqrt][2][>=][1][!=][0]");
    CHECK(texts("1e−3") == "[1e-3]");
    CHECK(texts("f′(x)") == "[f]['][(][x][)]");
}

TEST_CASE("every token knows its place in characters, not bytes") {
    const auto tokens = read("γ + 12.5 \"é\"").tokens;
    REQUIRE(tokens.size() == 5);
    CHECK(tokens[0].span == Span{1, 1});
    CHECK(tokens[1].span == Span{3, 3});
    CHECK(tokens[2].span == Span{5, 8});
    CHECK(tokens[2].number == 12.5);
    CHECK(tokens[3].span == Span{10, 12});
    CHECK(tokens[4].kind == TokenKind::End);
    CHECK(tokens[1].spaceBefore);
    CHECK_FALSE(tokens[0].spaceBefore);
}

TEST_CASE("numbers are read exactly, or refused") {
    CHECK(read("0.1").tokens[0].number == 0.1);
    CHECK(read(".5").tokens[0].number == 0.5);
    CHECK(read("1e+3").tokens[0].number == 1000);
    CHECK(read("123456789012345678").tokens[0].number == 123456789012345678.0);
    CHECK(read("5e-324").tokens[0].number == 5e-324);
    CHECK(read("1e-400").tokens[0].number == 0);
    CHECK(read("1e400").problems.size() == 1);
    CHECK(read("\"open").problems[0].sentence.find("no closing quotation mark") != std::string::npos);
    CHECK(read("a ; b @ c").problems[0].first == 7);
}
