#include "desktop/draft_keeper.h"
#include "desktop/one_process.h"
#include "files/file_access.h"
#include "files/recipe.h"
#include "hands.h"

#include <QApplication>
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QProcess>
#include <QPushButton>
#include <QTemporaryDir>
#include <atomic>
#include <catch2/catch.hpp>
#include <cstdio>
#include <random>
#include <thread>

using namespace coulter;

namespace {

void put(const QString& path, const std::string& bytes) { REQUIRE_FALSE(writeFile(path.toStdString(), bytes)); }

std::string recipeOf(const char* line) {
    Document document;
    document.page = {line};
    return writeRecipe(document);
}

void pressChoice(WindowDriver& d, const QString& text) {
    for (auto* button : d.window().notices().findChildren<QPushButton*>()) {
        if (!button->isVisible() || button->text() != text) continue;
        d.click(button, button->rect().center());
        return d.settle();
    }
    FAIL("no notice offers " << text.toStdString());
}

bool says(WindowDriver& d, const QString& words) { return d.window().notices().texts().join('\n').contains(words); }

QList<MainWindow*> windows() {
    QList<MainWindow*> all;
    for (QWidget* each : QApplication::topLevelWidgets()) {
        if (auto* window = qobject_cast<MainWindow*>(each); window && window->isVisible()) all << window;
    }
    return all;
}

} // namespace

// Run by the next test in a process of its own, which is killed.
TEST_CASE("somebody writes until the process is killed", "[.killed]") {
    WindowDriver d;
    d.window().session().start(Document{}, "");
    d.settle();
    for (int number = 1; number < 10'000; ++number) {
        d.type(QString("a_%1 = %1").arg(number));
        d.key(Qt::Key_Return);
        std::printf("%d\n", number);
        std::fflush(stdout);
    }
}

TEST_CASE("what was written when the program is killed is offered at the next start, and restored") {
    std::mt19937 random(3);
    for (int round = 0; round < 4; ++round) {
        CAPTURE(round);
        QProcess process;
        process.setProcessChannelMode(QProcess::ForwardedErrorChannel);
        process.start(QFileInfo("/proc/self/exe").symLinkTarget(), {"[.killed]"});
        int said = 0;
        const int wanted = 2 + static_cast<int>(random() % 4);
        const auto read = [&] {
            while (process.canReadLine()) said = process.readLine().trimmed().toInt();
        };
        while (said < wanted) {
            REQUIRE(process.waitForReadyRead(30'000));
            read();
        }
        std::this_thread::sleep_for(std::chrono::microseconds(random() % 30'000));
        process.kill();
        REQUIRE(process.waitForFinished(30'000));
        read();

        WindowDriver d;
        d.window().openExample(exampleOf("soil-temperature"));
        d.window().offerLostDrafts();
        REQUIRE(d.window().notices().texts().size() == 1);
        CHECK(says(d, "unsaved figure"));
        pressChoice(d, "Restore");
        const auto& page = documentOf(d).page;
        const std::string last = "a_" + std::to_string(said) + " = " + std::to_string(said);
        CHECK(std::ranges::find(page, last) != page.end());
        CHECK(d.window().session().isChanged());
        d.key(Qt::Key_Z, Qt::ControlModifier);
        CHECK(documentOf(d) == Document{});
        CHECK(d.window().notices().texts().isEmpty());
        CHECK(lostDrafts(draftFolder()).empty());
    }
}

TEST_CASE("a draft is thrown away when that is asked for, once the figure is saved, and when its window is closed") {
    QTemporaryDir folder;
    const QString path = folder.filePath("f.coulter");
    const auto drafts = [] {
        return QDir(QString::fromStdString(draftFolder().string())).entryList({"*.draft"}).size();
    };
    {
        WindowDriver d;
        write(d, {"x in [0, 1]", "f(x) = x"});
        CHECK(drafts() == 1);
        REQUIRE(d.window().saveAs(path));
        CHECK(drafts() == 0);
        CHECK(d.window().session().canUndo()); // the history goes on
        d.key(Qt::Key_Z, Qt::ControlModifier);
        CHECK(drafts() == 1);
    }
    CHECK(drafts() == 0);
}

TEST_CASE("a file that another program changed is not overwritten unasked") {
    QTemporaryDir folder;
    const QString path = folder.filePath("f.coulter");
    WindowDriver d;
    write(d, {"x in [0, 1]", "f(x) = x"});
    const Document mine = documentOf(d);
    REQUIRE(d.window().saveAs(path));
    put(path, recipeOf("b = 2"));
    d.wait([&] { return says(d, "changed by another program"); }); // noticed by itself
    d.key(Qt::Key_S, Qt::ControlModifier);
    CHECK(readFile(path.toStdString()).bytes == recipeOf("b = 2"));

    SECTION("its text is taken, and undone") {
        pressChoice(d, "Show its text");
        CHECK(documentOf(d).page == std::vector<std::string>{"b = 2"});
        CHECK_FALSE(d.window().session().isChanged());
        CHECK(d.window().notices().texts().isEmpty());
        d.key(Qt::Key_Z, Qt::ControlModifier);
        CHECK(documentOf(d) == mine);
        d.key(Qt::Key_S, Qt::ControlModifier);
        CHECK(readFile(path.toStdString()).bytes == writeRecipe(mine));
    }
    SECTION("it is saved over") {
        pressChoice(d, "Save over it");
        CHECK(readFile(path.toStdString()).bytes == writeRecipe(mine));
        CHECK(d.window().notices().texts().isEmpty());
    }
    SECTION("a file that is gone is written again") {
        QFile::remove(path);
        d.wait([&] { return d.window().notices().texts().isEmpty(); });
        CHECK(d.window().save());
        CHECK(readFile(path.toStdString()).bytes == writeRecipe(mine));
    }
}

TEST_CASE("readings that change in their file while the figure is open are offered") {
    QTemporaryDir folder;
    put(folder.filePath("r.csv"), "t,s\n1,2\n2,3\n");
    put(folder.filePath("f.coulter"), recipeOf("(t, s) from \"r.csv\""));
    WindowDriver d;
    REQUIRE(d.window().open(folder.filePath("f.coulter")));
    d.settle();
    CHECK(d.window().notices().texts().isEmpty());
    put(folder.filePath("r.csv"), "t,s\n1,2\n2,5\n");
    d.wait([&] { return says(d, "r.csv"); });
    const auto second = [&] { return (*documentOf(d).tables.find("r.csv")->columns[1].numbers)[1]; };
    CHECK(second() == 3);
    pressChoice(d, "Read it again");
    CHECK(second() == 5);
    d.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(second() == 3);
}

TEST_CASE("figures that are worked on keep their windows") {
    QTemporaryDir folder;
    put(folder.filePath("f.coulter"), recipeOf("b = 2"));
    put(folder.filePath("g.coulter"), recipeOf("c = 3"));
    WindowDriver d;
    d.window().openExample(exampleOf("soil-temperature"));
    d.window().openBeside(folder.filePath("f.coulter")); // nobody worked on the demo
    CHECK(windows().size() == 1);
    CHECK(documentOf(d).page[0] == "b = 2");
    d.window().openBeside(folder.filePath("g.coulter"));
    REQUIRE(windows().size() == 2);
    CHECK(documentOf(d).page[0] == "b = 2");
    MainWindow* other = windows()[0] == &d.window() ? windows()[1] : windows()[0];
    CHECK(other->session().document().page[0] == "c = 3");
    d.window().openBeside(folder.filePath("g.coulter")); // shown again, not opened twice
    CHECK(windows().size() == 2);
    d.window().openBeside(folder.filePath("none.coulter"));
    CHECK(windows().size() == 2);
    CHECK(d.window().message().contains("none.coulter"));
    REQUIRE(d.window().open(folder.filePath("g.coulter")));
    CHECK(says(d, "open in another window"));
    other->close();
    d.wait([&] { return windows().size() == 1; });
}

TEST_CASE("a second start hands its files over to the first") {
    const QString name = QString("coulter-test-%1").arg(QCoreApplication::applicationPid());
    OneProcess first(name);
    CHECK_FALSE(first.handOver({"/a"})); // nobody is there
    first.listen();
    QStringList got;
    QObject::connect(&first, &OneProcess::wanted, [&](const QStringList& files) { got = files; });
    bool taken = false;
    std::atomic<bool> done = false;
    std::thread second([&] {
        taken = OneProcess(name).handOver({"/a b/f.coulter", "/ü"});
        done = true;
    });
    while (!done) QApplication::processEvents(QEventLoop::AllEvents, 10);
    second.join();
    CHECK(taken);
    CHECK(got == QStringList{"/a b/f.coulter", "/ü"});
}
