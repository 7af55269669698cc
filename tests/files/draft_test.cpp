#include "files/draft.h"

#include "files/file_access.h"
#include "files/recipe.h"

#include <catch2/catch.hpp>
#include <csignal>
#include <cstdlib>
#include <fstream>
#include <random>
#include <sys/wait.h>
#include <thread>
#include <unistd.h>

using namespace coulter;
namespace fs = std::filesystem;

namespace {

struct Folder {
    fs::path path;
    Folder() {
        std::string name = (fs::temp_directory_path() / "coulter-drafts-XXXXXX").string();
        REQUIRE(::mkdtemp(name.data()));
        path = name;
    }
    ~Folder() { fs::remove_all(path); }
};

Document numbered(int number) {
    Document document;
    document.page = {"a = " + std::to_string(number), "f(x) = a x"};
    return document;
}

int numberOf(const Document& document) { return document.page.empty() ? 0 : std::stoi(document.page[0].substr(4)); }

/// Runs what a process does, and returns its number; it ends when that returns, without cleaning up.
template <class Run> pid_t inProcess(const Run& run) {
    const pid_t child = ::fork();
    if (child == 0) {
        run();
        ::_exit(0);
    }
    REQUIRE(child > 0);
    return child;
}

void waitFor(pid_t child) {
    int status = 0;
    REQUIRE(::waitpid(child, &status, 0) == child);
}

std::size_t filesIn(const fs::path& folder) {
    if (!fs::exists(folder)) return 0;
    return static_cast<std::size_t>(std::distance(fs::directory_iterator(folder), fs::directory_iterator()));
}

} // namespace

TEST_CASE("a draft of a process that ended is found, with what it is of") {
    Folder folder;
    waitFor(inProcess([&] {
        auto* draft = new Draft(folder.path);
        draft->opened("/some/where/soil.coulter");
        draft->keep(numbered(7), "soil");
    }));
    auto lost = lostDrafts(folder.path);
    REQUIRE(lost.size() == 1);
    CHECK(lost[0].document == numbered(7));
    CHECK(lost[0].of == "/some/where/soil.coulter");
    CHECK(lost[0].name == "soil");
    CHECK(lostDrafts(folder.path).size() == 1); // looking takes nothing away
    CHECK(throwAway(lost[0]));
    CHECK_FALSE(throwAway(lost[0]));
    CHECK(filesIn(folder.path) == 0);
}

TEST_CASE("a draft that is held, saved or closed is not lost") {
    Folder folder;
    {
        Draft draft(folder.path);
        draft.keep(numbered(1), "one");
        CHECK(lostDrafts(folder.path).empty());
        CHECK(filesIn(folder.path) == 2);
        draft.clear();
        CHECK(filesIn(folder.path) == 1);
        draft.keep(numbered(2), "one");
    }
    CHECK(filesIn(folder.path) == 0);
    const fs::path saved = folder.path / "saved.coulter";
    REQUIRE_FALSE(writeFile(saved, writeRecipe(numbered(3))));
    waitFor(inProcess([&] {
        auto* draft = new Draft(folder.path / "drafts");
        draft->opened(saved);
        draft->keep(numbered(3), "saved"); // and the process ends between saving and clearing
    }));
    CHECK(lostDrafts(folder.path / "drafts").empty());
    CHECK(filesIn(folder.path / "drafts") == 0);
}

TEST_CASE("a draft that cannot be read is left alone") {
    Folder folder;
    for (const char* text :
         {"", "{", "{}\n", "{\"of\": 1, \"name\": \"a\"}\n{}", "{\"of\": \"\", \"name\": \"a\"}\n{\"coulter\": 99}"}) {
        std::ofstream(folder.path / "1-1.open") << "";
        std::ofstream(folder.path / "1-1.draft", std::ios::binary) << text;
        CHECK(lostDrafts(folder.path).empty());
        CHECK(fs::exists(folder.path / "1-1.draft"));
    }
}

TEST_CASE("a file that two have open is noticed, by any way to it") {
    Folder folder;
    const fs::path file = folder.path / "f.coulter";
    std::ofstream(file) << "x";
    fs::create_symlink(file, folder.path / "link");
    Draft mine(folder.path / "drafts"), other(folder.path / "drafts");
    mine.opened(file);
    CHECK_FALSE(mine.isOpenElsewhere(file));
    CHECK(other.isOpenElsewhere(file));
    CHECK(other.isOpenElsewhere(folder.path / "link"));
    CHECK_FALSE(other.isOpenElsewhere(folder.path / "g.coulter"));
    mine.opened("");
    CHECK_FALSE(other.isOpenElsewhere(file));
}

TEST_CASE("without a folder that can be written nothing is kept, and that is said") {
    Draft nowhere("/proc/no/such/folder");
    REQUIRE(nowhere.problem());
    CHECK(nowhere.problem()->sentence.find("/proc/no/such/folder") != std::string::npos);
    CHECK(nowhere.keep(numbered(1), "one") == 0);
    CHECK(lostDrafts("/proc/no/such/folder").empty());
    Draft none{fs::path()};
    CHECK_FALSE(none.isOpenElsewhere("/a"));
}

namespace {

/// A variable of the environment while it lives.
class Variable {
public:
    Variable(const char* name, const char* value) : name_(name) {
        if (const char* const before = std::getenv(name)) before_ = before;
        ::setenv(name, value, 1);
    }
    ~Variable() { before_ ? ::setenv(name_, before_->c_str(), 1) : ::unsetenv(name_); }
    Variable(const Variable&) = delete;
    Variable& operator=(const Variable&) = delete;

private:
    const char* name_;
    std::optional<std::string> before_;
};

} // namespace

TEST_CASE("the state folder is the one of the XDG specification") {
    const Variable home("HOME", "/home/somebody");
    {
        const Variable state("XDG_STATE_HOME", "/var/tmp/state");
        CHECK(draftFolder() == "/var/tmp/state/coulter/drafts");
    }
    const Variable relative("XDG_STATE_HOME", "relative"); // to be ignored
    CHECK(draftFolder() == "/home/somebody/.local/state/coulter/drafts");
    const Variable nowhere("HOME", "");
    CHECK(draftFolder().empty());
}

// An editor edits and saves as fast as it can and says after each edit which one it was; at a random moment it is
// killed. What it said is found again, in the draft or in the file.
TEST_CASE("nothing is lost when editing and saving are killed at any moment") {
    Folder folder;
    const fs::path file = folder.path / "figure.coulter", drafts = folder.path / "drafts";
    std::mt19937 random(20);
    int inDraft = 0, inFile = 0;
    for (int round = 0; round < 200; ++round) {
        CAPTURE(round);
        int pipe[2];
        REQUIRE(::pipe(pipe) == 0);
        const pid_t editor = inProcess([&] {
            auto* draft = new Draft(drafts);
            draft->opened(file);
            for (int number = 1;; ++number) {
                draft->keep(numbered(number), "figure");
                if (::write(pipe[1], &number, sizeof number) != sizeof number) return;
                if (number % 3 != 0) continue;
                if (writeFile(file, writeRecipe(numbered(number)), Flush::Later)) return;
                draft->clear();
            }
        });
        ::close(pipe[1]);
        int said = 0, number = 0;
        REQUIRE(::read(pipe[0], &said, sizeof said) == sizeof said); // it is at work, however busy the machine is
        std::this_thread::sleep_for(std::chrono::microseconds(1000 + random() % 4000));
        REQUIRE(::kill(editor, SIGKILL) == 0);
        waitFor(editor);
        while (::read(pipe[0], &number, sizeof number) == sizeof number) said = number;
        ::close(pipe[0]);
        const auto lost = lostDrafts(drafts);
        REQUIRE(lost.size() <= 1);
        const FileRead saved = readFile(file);
        const int kept = lost.empty() ? 0 : numberOf(lost[0].document);
        const int written = saved.bytes ? numberOf(*readRecipe(*saved.bytes).document) : 0;
        CHECK(std::max(kept, written) >= said);
        (kept > written ? inDraft : inFile) += 1;
        if (!lost.empty()) throwAway(lost[0]);
        CHECK(filesIn(drafts) == 0);
        fs::remove(file);
    }
    CHECK(inDraft > 10);
    CHECK(inFile > 10);
}
