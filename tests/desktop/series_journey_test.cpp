#include "desktop/series_sheet.h"
#include "files/animation.h"
#include "files/file_access.h"
#include "files/recipe.h"
#include "window_driver.h"

#include <QComboBox>
#include <QDir>
#include <QFile>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSpinBox>
#include <QTemporaryDir>
#include <catch2/catch.hpp>

using namespace coulter;

namespace {

Document slopes() {
    Document document;
    document.page = {"f(x) = a x", "a = 2, from 1 to 5", "b = {1, 2}", "x in [0, 1]"};
    document.panels[0].plots = {plotOf("f(x)")};
    document.sheet.width = 60;
    document.sheet.height = 40;
    document.sheet.resolution = 72;
    return document;
}

/// The sheet that Ctrl+Shift+E opens, driven by its fields.
class Series {
public:
    explicit Series(WindowDriver& driver) : d_(driver) {
        d_.window().page().setFocus();
        d_.key(Qt::Key_E, Qt::ControlModifier | Qt::ShiftModifier);
        d_.wait([&] { return d_.find<QDialog>("seriesSheet") != nullptr; });
        sheet_ = d_.find<SeriesSheet>("seriesSheet");
    }
    template <class T> T* field(const char* name) {
        T* found = sheet_->findChild<T*>(name);
        REQUIRE(found);
        return found;
    }
    void type(const char* name, const QString& text) {
        auto* edit = field<QLineEdit>(name);
        d_.click(edit, {5, 5});
        d_.key(Qt::Key_A, Qt::ControlModifier);
        d_.type(text);
    }
    void press(const char* name) {
        auto* button = field<QPushButton>(name);
        d_.click(button, QPointF(button->width() / 2.0, button->height() / 2.0));
    }
    QString summary() { return field<QLabel>("series-summary")->text(); }
    SeriesSheet* operator->() { return sheet_; }

private:
    WindowDriver& d_;
    SeriesSheet* sheet_ = nullptr;
};

} // namespace

TEST_CASE("figures of several values are written from the window, and one animation of them") {
    const QTemporaryDir folder;
    WindowDriver d;
    d.window().session().start(slopes(), "", "slopes");
    d.settle();
    Series series(d);
    auto* of = series.field<QComboBox>("series-of");
    CHECK(of->count() == 2); // a list is a family; and other recipes
    CHECK(series.field<QLineEdit>("series-values")->text() == "1..5");
    series.type("series-folder", folder.path());
    series.field<QSpinBox>("series-count")->setValue(3);
    CHECK(series.summary().contains("3 files, slopes-1.pdf to slopes-5.pdf"));
    series.press("series-start");
    d.wait([&] { return series.summary() == "3 written."; });
    for (const char* name : {"slopes-1.pdf", "slopes-3.pdf", "slopes-5.pdf"}) {
        const FileRead file = readFile((folder.path() + "/" + name).toStdString());
        REQUIRE(file.bytes);
        CHECK_FALSE(verifyFigure(*file.bytes));
    }
    series.type("series-values", "{2, 4}");
    CHECK(series.summary().contains("2 files"));
    CHECK_FALSE(series.summary().contains("already"));
    series.type("series-values", "{1, 2, 5}");
    CHECK(series.summary().contains("2 of them are there already"));
    // As one animated picture.
    auto* as = series.field<QComboBox>("series-as");
    as->setCurrentIndex(as->count() - 1);
    CHECK(series.field<QSpinBox>("series-seconds")->isVisible());
    CHECK(series.summary() == "slopes-a.png, of 3 figures.");
    series.press("series-start");
    d.wait([&] { return series.summary() == "slopes-a.png written."; });
    const std::string png = *readFile((folder.path() + "/slopes-a.png").toStdString()).bytes;
    REQUIRE(animationIn(png));
    CHECK(animationIn(png)->values == std::vector<std::string>{"1", "2", "5"});
    CHECK(d.window().session().document() == slopes()); // nothing of it changed the document
}

TEST_CASE("of several recipes the figures are written at once; what cannot be is said before and after") {
    const QTemporaryDir folder;
    QStringList recipes;
    for (const char* name : {"one", "two"}) {
        recipes << folder.path() + "/" + name + ".coulter";
        REQUIRE_FALSE(writeFile(recipes.back().toStdString(), writeRecipe(slopes())));
    }
    Document wrong = slopes();
    wrong.page[0] = "f(x) = a x +";
    recipes << folder.path() + "/wrong.coulter";
    REQUIRE_FALSE(writeFile(recipes.back().toStdString(), writeRecipe(wrong)));
    WindowDriver d;
    d.window().session().start(slopes(), "", "slopes");
    d.settle();
    Series series(d);
    series.type("series-folder", folder.path() + "/missing");
    CHECK(series.summary().contains("not there"));
    CHECK_FALSE(series.field<QPushButton>("series-start")->isEnabled());
    series.type("series-folder", folder.path());
    series.type("series-values", "3");
    CHECK(series.summary().contains("1..5"));
    series.type("series-values", "{3}");
    CHECK(series.summary().contains("several"));
    auto* of = series.field<QComboBox>("series-of");
    of->setCurrentIndex(of->count() - 1);
    CHECK(series.summary() == "Choose the recipes.");
    CHECK_FALSE(series.field<QLineEdit>("series-values")->isVisible());
    series->takeRecipes(recipes);
    CHECK(series.summary().contains("3 files, one.pdf to wrong.pdf"));
    series.press("series-start");
    d.wait([&] { return series.summary().startsWith("2 written."); });
    CHECK(series.summary().contains("wrong.pdf: "));
    CHECK(QFile::exists(folder.path() + "/two.pdf"));
    CHECK_FALSE(QFile::exists(folder.path() + "/wrong.pdf"));
}

TEST_CASE("a series is stopped, and what is written stays") {
    const QTemporaryDir folder;
    WindowDriver d;
    d.window().session().start(slopes(), "", "slopes");
    d.settle();
    Series series(d);
    series.type("series-folder", folder.path());
    series.field<QSpinBox>("series-count")->setValue(4000);
    series.press("series-start");
    d.wait([&] { return QDir(folder.path()).entryList(QDir::Files).size() > 3; });
    series.press("series-start");
    d.wait([&] { return series.summary().startsWith("Stopped: "); });
    const auto written = QDir(folder.path()).entryList({"*.pdf"}, QDir::Files).size();
    CHECK(written < 4000);
    CHECK(series.summary().contains(QString::number(written) + " of 4000"));
}
