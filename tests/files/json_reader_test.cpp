#include "files/json_reader.h"

#include <catch2/catch.hpp>

using namespace coulter;
using Json = JsonReader::Json;

namespace {

const Json object = Json::parse(
    R"({"text": "a", "number": 2.5, "truth": true, "pair": [1, 2], "list": [1, 2, 3], "word": "two", "nothing": null})");
constexpr std::array<const char*, 2> words{"one", "two"};

std::string sentence(const JsonReader& reader) { return reader.problem() ? reader.problem()->sentence : ""; }

} // namespace

TEST_CASE("values of the right kind are read, missing ones are none") {
    JsonReader reader;
    CHECK(reader.text(object, "", "text") == "a");
    CHECK(reader.number(object, "", "number", 0, 10) == 2.5);
    CHECK(reader.truth(object, "", "truth") == true);
    CHECK(reader.pair(object, "", "pair") == std::pair{1.0, 2.0});
    CHECK(reader.word(object, "", "word", words) == 1u);
    CHECK(reader.list(object, "", "list", 3)->size() == 3);
    CHECK_FALSE(reader.text(object, "", "none"));
    CHECK_FALSE(reader.list(object, "", "none", 3));
    CHECK(reader.good());
}

TEST_CASE("values of the wrong kind are refused with their path") {
    const auto refused = [](const auto& read, const char* part) {
        JsonReader reader;
        read(reader);
        INFO(sentence(reader));
        CHECK(sentence(reader).find(part) != std::string::npos);
    };
    refused([](JsonReader& r) { r.text(object, "a.b", "number"); }, "a.b.number must be text");
    refused([](JsonReader& r) { r.text(object, "", "nothing"); }, "nothing must be text");
    refused([](JsonReader& r) { r.number(object, "a", "text", 0, 1); }, "a.text must be a number from 0 to 1");
    refused([](JsonReader& r) { r.number(object, "a", "number", 3, 4); }, "a.number must be a number from 3 to 4");
    refused([](JsonReader& r) { r.truth(object, "", "text"); }, "text must be true or false");
    refused([](JsonReader& r) { r.pair(object, "", "list"); }, "list must be two numbers");
    refused([](JsonReader& r) { r.pair(object, "", "number"); }, "number must be two numbers");
    refused([](JsonReader& r) { r.list(object, "", "list", 2); }, "list has 3 entries");
    refused([](JsonReader& r) { r.list(object, "", "text", 2); }, "text must be a list");
    refused([](JsonReader& r) { r.word(object, "", "text", words); }, "text is “a”");
    refused(
        [](JsonReader& r) {
            r.keys(object, "p", {"text", "number", "truth", "pair", "list", "word"});
        },
        "p.nothing is not a key");
    refused([](JsonReader& r) { r.isObject(Json(3), "p"); }, "p must be an object");
}

TEST_CASE("the first problem is kept, and stops further reading") {
    JsonReader reader;
    reader.text(object, "", "number");
    const std::string first = sentence(reader);
    reader.number(object, "", "text", 0, 1);
    CHECK(sentence(reader) == first);
    CHECK_FALSE(reader.text(object, "", "text"));
    CHECK_FALSE(reader.good());
}
