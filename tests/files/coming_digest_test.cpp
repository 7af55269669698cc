// Digests of large files, which come after the numbers that are shown already.
#include "data/attach_tables.h"
#include "data/digest.h"
#include "files/recipe.h"

#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>

using namespace coulter;

namespace {

/// Counts how often it was told to hurry.
struct Told : DigestMaker {
    void hurry() override { ++times; }
    int times = 0;
};

Document withDigest(FileDigest digest) {
    DataTable table;
    table.source = "far.csv";
    table.columns = {{"t", "", "", std::make_shared<const std::vector<double>>(std::vector<double>{1, 2})},
                     {"s", "", "", std::make_shared<const std::vector<double>>(std::vector<double>{3, 4})}};
    table.digest = std::move(digest);
    Document document;
    document.page = {"(t, s) from \"far.csv\""};
    document.tables.put(std::move(table));
    return document;
}

} // namespace

TEST_CASE("a digest that is on its way is waited for where a recipe keeps it, and left out of a draft") {
    std::promise<std::string> made;
    const auto maker = std::make_shared<Told>();
    const Document document = withDigest({made.get_future().share(), maker});
    const FileDigest& digest = document.tables.find("far.csv")->digest;
    CHECK_FALSE(digest.isKnown());
    CHECK_FALSE(digest.empty());
    CHECK(digest == FileDigest(digest)); // without waiting
    CHECK(document == Document(document));
    CHECK(withoutComingDigests(document).tables.empty());
    CHECK(maker->times == 0);
    std::stop_source stop;
    stop.request_stop();
    CHECK_FALSE(awaitDigests(document, stop.get_token()));
    CHECK(maker->times == 1);

    const std::string text(64, 'b');
    made.set_value(text);
    CHECK(awaitDigests(document, {}));
    CHECK(digest.isKnown());
    CHECK(digest == FileDigest(text));
    CHECK(withoutComingDigests(document) == document);
    CHECK(writeRecipe(document) == writeRecipe(withDigest(text)));
    CHECK_FALSE(document == withDigest(std::string(64, 'c')));
}

TEST_CASE("the digest of a large file and of a folder is the one that waiting gives; nobody waits for one let go") {
    const auto folder = std::filesystem::temp_directory_path() / "coulter-coming-digest";
    std::filesystem::remove_all(folder);
    std::filesystem::create_directories(folder);
    const auto path = folder / "large";
    std::ofstream(path) << "begin";
    std::filesystem::resize_file(path, 30'000'000);
    const FileDigest coming = comingDigest(path);
    CHECK(coming.text() == *digestOfFile(path));
    CHECK(coming.text().size() == 64);
    { const FileDigest abandoned = comingDigest(path); }
    // One that changes before it is read through has the digest of no file.
    const FileDigest ofAnother = comingDigest(path);
    std::ofstream(path, std::ios::in | std::ios::out) << "other";
    CHECK(ofAnother.text().size() == 64);
    CHECK(ofAnother.text() != *digestOfFile(path));
    std::filesystem::remove(path);
    const FileDigest gone = comingDigest(path);
    CHECK(gone.empty());

    std::ofstream(folder / "a") << "1";
    std::ofstream(folder / "b") << "2";
    CHECK(comingDigest(folder).text() == *digestOfFile(folder));
    std::filesystem::remove_all(folder);
}
