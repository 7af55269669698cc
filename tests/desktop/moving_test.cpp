// What a panel shows while a hand moves it.
#include "desktop/sheet_view.h"
#include "driver/window_driver.h"

#include <QApplication>
#include <QMouseEvent>
#include <catch2/catch.hpp>

using namespace coulter;

TEST_CASE("what a panel shows moves with the hand, before it is drawn anew") {
    WindowDriver d;
    Document document;
    document.page = {"f(x) = sin(x)", "x in [0, 30]"};
    document.panels[0].plots = {plotOf("f(x)", "line")};
    document.panels[0].x.limits.low = 5;
    document.panels[0].x.limits.high = 25;
    document.panels[0].y.limits.low = -2;
    document.panels[0].y.limits.high = 2;
    d.window().session().start(document, "");
    d.settle();
    SheetView* const sheet = d.sheet();
    const QPointF middle = d.middleOf({ItemKind::Panel, 0, 0, 0});
    const auto send = [&](QEvent::Type type, const QPointF& at, Qt::MouseButtons buttons) {
        QMouseEvent event(type, at, sheet->mapToGlobal(at), Qt::LeftButton, buttons, Qt::NoModifier);
        QApplication::sendEvent(sheet, &event);
    };
    const QPointF start = middle + QPointF(0, 80); // beside the curve
    send(QEvent::MouseButtonPress, start, Qt::LeftButton);
    send(QEvent::MouseMove, start + QPointF(5, 0), Qt::LeftButton);
    d.settle();
    const QImage before = sheet->grab().toImage();
    const ShownFigure* const shown = sheet->figure();
    constexpr int right = 36, down = 17;
    send(QEvent::MouseMove, start + QPointF(5 + right, down), Qt::LeftButton);
    const QImage after = sheet->grab().toImage();
    CHECK(sheet->figure() == shown); // no event has brought another one
    int moved = 0, stayed = 0, all = 0;
    for (int y = -50; y <= 40; ++y) {
        for (int x = -60; x <= 60; ++x) {
            const QPoint at = middle.toPoint() + QPoint(x, y);
            ++all;
            moved += after.pixel(at + QPoint(right, down)) == before.pixel(at) ? 1 : 0;
            stayed += after.pixel(at) == before.pixel(at) ? 1 : 0;
        }
    }
    CHECK(moved >= all - all / 50); // the selection's dots stay behind
    CHECK(stayed < all - 100);
    // The figure that is drawn then shows the same limits.
    d.settle();
    CHECK(sheet->figure() != shown);
    const AxisLimits& limits = d.window().session().document().panels[0].x.limits;
    CHECK(d.figure().figure.panels[0].frame().map.x.low == Approx(*limits.low));
    send(QEvent::MouseButtonRelease, start + QPointF(5 + right, down), Qt::NoButton);
    d.settle();
}
