// How long the window's event loop pauses, and how soon Stop is obeyed, while a heavy integral is sampled and while
// curves are proven; how soon their first picture is there, beside drawing them without proofs; and how soon ten
// million points follow the hand that moves them.
#include "composition/draw_figure.h"
#include "desktop/main_window.h"
#include "desktop/sheet_view.h"

#include <QApplication>
#include <QMouseEvent>
#include <QSettings>
#include <QStandardPaths>
#include <QTimer>
#include <algorithm>
#include <chrono>
#include <cstdio>
#include <random>
#include <vector>

using namespace coulter;
using Clock = std::chrono::steady_clock;

namespace {

double milliseconds(Clock::duration time) { return std::chrono::duration<double, std::milli>(time).count(); }

Document heavy(const std::string& amplitude) {
    Document document;
    document.page = {"f(x) = a int_0^(30 + x) J_0(k sin(k x)) dk", "a = " + amplitude, "x in [0, 10], count 20000"};
    document.panels[0].plots = {plotOf("f(x)")};
    return document;
}

/// Longest time between two turns of the event loop during some milliseconds, while `each` is done every 20.
double longestPause(double during, const std::function<void()>& each) {
    double longest = 0;
    const auto start = Clock::now();
    auto last = start, lastEdit = start;
    while (milliseconds(Clock::now() - start) < during) {
        if (milliseconds(Clock::now() - lastEdit) > 20) {
            lastEdit = Clock::now();
            each();
        }
        QApplication::processEvents(QEventLoop::AllEvents);
        const auto now = Clock::now();
        longest = std::max(longest, milliseconds(now - last));
        last = now;
    }
    return longest;
}

/// Formulas whose proofs take longer than they themselves, on [0, 1] or as given.
struct Proven {
    const char* name;
    std::vector<std::string> page;
};
std::vector<Proven> provenCases() {
    std::string nested = "x";
    for (int k = 0; k < 40; ++k) nested = "sin(" + nested + ")";
    std::string product;
    for (int k = 1; k <= 30; ++k) product += "sin(x + " + std::to_string(k) + ") ";
    return {{"sin nested 40", {"f(x) = " + nested, "x in [0, 1]"}},
            {"30 factors", {"f(x) = " + product, "x in [0, 1]"}},
            {"prod of 40 factors", {"f(x) = prod_{k=1}^{40} sin(x + k)", "x in [0, 1]"}},
            {"0.5^n cos(3^n pi x)", {"f(x) = sum_{n=0}^{40} 0.5^n cos(3^n pi x)", "x in [-3, 3]"}}};
}

/// When the first picture of a figure is there, when the proven one, the longest pause of the event loop meanwhile, and
/// how long Stop takes in the middle of its proofs; beside a figure that is never proven.
void whileProving(const Proven& each) {
    FigureRequest request;
    request.document.page = each.page;
    request.document.panels[0].plots = {plotOf("f(x)")};
    request.dotsPerMm = 8;
    const auto start = Clock::now();
    Effort bare = effortOf(request.document.sheet);
    bare.proofs = false;
    paintRaster(drawFigure(request.document, bare).scene, request.dotsPerMm);
    const double plain = milliseconds(Clock::now() - start);
    FigureWorker worker;
    bool busy = true;
    double first = 0;
    Clock::time_point begin;
    QObject::connect(&worker, &FigureWorker::busyChanged, &worker, [&](bool now) { busy = now; });
    QObject::connect(&worker, &FigureWorker::ready, &worker, [&] {
        if (first == 0) first = milliseconds(Clock::now() - begin);
    });
    begin = Clock::now();
    worker.request(request);
    double pause = 0;
    for (auto last = begin; busy;) {
        QApplication::processEvents(QEventLoop::AllEvents);
        const auto now = Clock::now();
        pause = std::max(pause, milliseconds(now - last));
        last = now;
    }
    const double whole = milliseconds(Clock::now() - begin), firstPicture = first;
    first = 0;
    busy = true;
    FigureWorker again;
    QObject::connect(&again, &FigureWorker::busyChanged, &again, [&](bool now) { busy = now; });
    QObject::connect(&again, &FigureWorker::ready, &again, [&] { first = 1; });
    again.request(request);
    while (busy && first == 0) QApplication::processEvents();
    const auto stopped = Clock::now();
    again.stop();
    while (busy) QApplication::processEvents();
    std::printf("%-22s without proofs %7.1f ms; in the window first picture %7.1f, proven %7.1f, longest pause %5.1f, "
                "Stop %5.1f ms\n",
                each.name, plain, firstPicture, whole, pause, milliseconds(Clock::now() - stopped));
}

/// From a move of the mouse to new pixels, while ten million points are moved by hand.
void panMillions(MainWindow& window) {
    constexpr std::size_t rows = 10'000'000;
    std::mt19937_64 random(1);
    std::vector<double> t(rows), s(rows);
    for (std::size_t i = 0; i < rows; ++i) {
        t[i] = static_cast<double>(i);
        s[i] = static_cast<double>(random() % 2'000'000) / 1e6;
    }
    DataTable table;
    table.source = "x";
    table.isBeside = true;
    table.columns = {{"t", "s", "", std::make_shared<const std::vector<double>>(std::move(t))},
                     {"s", "m", "", std::make_shared<const std::vector<double>>(std::move(s))}};
    Document document;
    document.page = {"(t, s) from \"x\""};
    document.tables.put(std::move(table));
    document.panels[0].plots = {plotOf("(t, s)", "points")};
    document.panels[0].x.limits.low = document.panels[0].y.limits.low = 0;
    document.panels[0].x.limits.high = 1e7;
    document.panels[0].y.limits.high = 2;
    window.session().start(document, "");
    longestPause(3000, [] {});
    auto* const sheet = window.findChild<SheetView*>();
    const auto send = [&](QEvent::Type type, const QPointF& at, Qt::MouseButtons buttons) {
        QMouseEvent event(type, at, sheet->mapToGlobal(at), Qt::LeftButton, buttons, Qt::NoModifier);
        QApplication::sendEvent(sheet, &event);
    };
    QPointF at = QPointF(sheet->width(), sheet->height()) / 2;
    send(QEvent::MouseButtonPress, at, Qt::LeftButton);
    std::vector<double> times;
    for (int step = 0; step < 60; ++step) {
        at += QPointF(3, 1);
        const auto begin = Clock::now();
        send(QEvent::MouseMove, at, Qt::LeftButton);
        sheet->repaint();
        times.push_back(milliseconds(Clock::now() - begin));
        longestPause(16, [] {});
    }
    send(QEvent::MouseButtonRelease, at, Qt::NoButton);
    std::ranges::sort(times);
    std::printf(
        "ten million points moved by hand, from the mouse to new pixels: median %.1f ms, longest of 60 %.1f ms\n",
        times[times.size() / 2], times.back());
}

} // namespace

int main(int argc, char** argv) {
    if (qEnvironmentVariableIsEmpty("DISPLAY")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QStandardPaths::setTestModeEnabled(true);
    QApplication application(argc, argv);
    QApplication::setOrganizationName("coulter-bench");
    QSettings().clear();
    MainWindow window;
    window.show();
    window.openDemo();
    longestPause(500, [] {});
    const double idle = longestPause(1000, [] {});
    window.session().start(heavy("1"), "");
    longestPause(100, [] {});
    int step = 0;
    const double edited =
        longestPause(3000, [&] { window.session().edit(heavy(std::to_string(1 + 0.01 * ++step)), "change", "scrub"); });
    std::printf(
        "longest pause of the event loop: idle %.1f ms; while a heavy integral is changed 50 times a second %.1f ms\n",
        idle, edited);

    std::vector<double> times;
    for (int run = 0; run < 20; ++run) {
        FigureWorker worker;
        bool busy = true;
        QObject::connect(&worker, &FigureWorker::busyChanged, &worker, [&](bool now) { busy = now; });
        worker.request({heavy("1"), 8});
        const auto begin = Clock::now();
        while (milliseconds(Clock::now() - begin) < 40 + 17 * run) QApplication::processEvents();
        if (!busy) continue;
        const auto stopped = Clock::now();
        worker.stop();
        while (busy) QApplication::processEvents();
        times.push_back(milliseconds(Clock::now() - stopped));
    }
    for (const Proven& each : provenCases()) whileProving(each);
    if (times.empty()) return std::printf("nothing was slow enough to be stopped\n"), 1;
    std::ranges::sort(times);
    std::printf("Stop to stillness, %zu times: median %.1f ms, longest %.1f ms\n", times.size(),
                times[times.size() / 2], times.back());
    panMillions(window);
}
