#include "plots/telling.h"
#include "window_driver.h"

#include <QCoreApplication>
#include <QListWidget>
#include <QMouseEvent>
#include <QToolButton>
#include <catch2/catch.hpp>

using namespace coulter;

namespace {

/// What the worker shows of a document, in order.
std::vector<std::shared_ptr<const ShownFigure>> shownOf(WindowDriver& d, FigureWorker& worker, FigureRequest request) {
    std::vector<std::shared_ptr<const ShownFigure>> shown;
    const auto connection =
        QObject::connect(&worker, &FigureWorker::ready, [&](const auto& figure) { shown.push_back(figure); });
    worker.request(std::move(request));
    d.wait([&] { return !worker.busy(); });
    QObject::disconnect(connection);
    return shown;
}

FigureRequest requestOf(std::vector<std::string> page, const std::string& of, const char* kind = "line") {
    FigureRequest request;
    request.document.page = std::move(page);
    request.document.panels[0].plots.emplace_back();
    request.document.panels[0].plots[0].of = of;
    request.document.panels[0].plots[0].kind = kind;
    request.dotsPerMm = 3;
    return request;
}

/// A click after which nothing is waited for.
void clickOnly(QWidget* widget, QPointF at) {
    for (const auto kind : {QEvent::MouseButtonPress, QEvent::MouseButtonRelease}) {
        QMouseEvent event(kind, at, widget->mapToGlobal(at), Qt::LeftButton,
                          kind == QEvent::MouseButtonPress ? Qt::LeftButton : Qt::NoButton, Qt::NoModifier);
        QCoreApplication::sendEvent(widget, &event);
    }
}

double share(const ShownFigure& shown) { return curveSamplesOf(shown.figure.panels[0].drawn[0])->certificate.share(); }

} // namespace

TEST_CASE("a figure is shown before its proofs, which then fill in; it stays the same picture") {
    WindowDriver d;
    FigureWorker worker;
    const auto shown = shownOf(d, worker, requestOf({"f(x) = sum_{k=1}^{200} cos(k x)/k", "x in [0, 1]"}, "f(x)"));
    REQUIRE(shown.size() >= 2);
    CHECK(share(*shown.front()) == 0);
    CHECK(share(*shown.back()) > 0.99);
    for (std::size_t i = 1; i < shown.size(); ++i) CHECK(share(*shown[i]) >= share(*shown[i - 1]));
    CHECK(summaryOf(shown.front()->figure.panels[0].drawn[0], shown.front()->figure.effort).find("not proven yet") !=
          std::string::npos);
    CHECK(summaryOf(shown.back()->figure.panels[0].drawn[0], shown.back()->figure.effort).find("100 % proven") !=
          std::string::npos);
    CHECK(shown.front()->image == shown.back()->image); // no proof found anything between the points
    // What is proven at once is shown once.
    CHECK(shownOf(d, worker, requestOf({"f(x) = sin(x)", "x in [0, 1]"}, "f(x)")).size() == 1);
}

TEST_CASE("while curves are proven, Stop ends it and the picture stays") {
    WindowDriver d;
    FigureWorker worker;
    std::shared_ptr<const ShownFigure> last;
    QObject::connect(&worker, &FigureWorker::ready, [&](const auto& figure) { last = figure; });
    worker.request(requestOf({"f(x) = sum_{k=1}^{2000} cos(k x)/k", "x in [0, 1]"}, "f(x)"));
    d.wait([&] { return last != nullptr; });
    worker.stop();
    d.wait([&] { return !worker.busy(); });
    CHECK(curveSamplesOf(last->figure.panels[0].drawn[0])->pointCount() > 50);
}

TEST_CASE("what is too dear is said among the remarks, and goes on when it is asked for") {
    WindowDriver d;
    d.window().session().start({}, {});
    d.settle();
    Document document;
    document.page = {"g(x) = int_0^1 int_0^1 int_0^1 int_0^1 exp(-a b c d x) da db dc dd", "x in [0, 3]"};
    document.panels[0].plots.emplace_back();
    document.panels[0].plots[0].of = "g(x)";
    d.window().session().edit(document, "test");
    d.settle();
    auto* remarks = d.find<QListWidget>("remarks");
    REQUIRE(remarks);
    QListWidgetItem* goOn = nullptr;
    for (int i = 0; i < remarks->count(); ++i) {
        if (remarks->item(i)->text().startsWith("Go on")) goOn = remarks->item(i);
    }
    REQUIRE(goOn);
    CHECK(remarks->item(remarks->row(goOn) - 1)->text().contains("integrals inside integrals"));
    CHECK_FALSE(d.sheet()->isPatient());
    clickOnly(remarks->viewport(), remarks->visualItemRect(goOn).center());
    CHECK(d.sheet()->isPatient());
    QToolButton* stop = nullptr;
    for (auto* button : d.window().findChildren<QToolButton*>()) {
        if (button->text() == "Stop") stop = button;
    }
    REQUIRE(stop);
    d.wait([&] { return stop->isVisible(); });
    clickOnly(stop, QPointF(5, 5)); // it would take very long
    d.settle();
    // Another document is not waited for.
    document.page = {"g(x) = x^2", "x in [0, 3]"};
    d.window().session().edit(document, "test");
    d.settle();
    CHECK_FALSE(d.sheet()->isPatient());
    CHECK(remarks->item(0)->text() == "Nothing to remark.");
}
